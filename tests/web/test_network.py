"""On the network: who is answered, how a device comes in, and how it is shown out."""

import re
import socket
import subprocess
import sys

import pytest

from just_plane.store.folder import open_store
from just_plane.web.app import create_app
from just_plane.web.gate import TRIES, VALID_S, Gate, own_names
from just_plane.web.security import COOKIE

PORT = 8765
TABLET = "192.0.2.7"
"""An address that belongs to nobody."""


class Hand:
    """A clock that is set by hand."""

    def __init__(self):
        self.at = 1000.0

    def __call__(self):
        return self.at


@pytest.fixture
def clock():
    return Hand()


@pytest.fixture
def app(tmp_path, clock):
    return create_app(open_store(tmp_path), gate=Gate(PORT, clock))


class Device:
    """One that asks from an address, as a browser does."""

    def __init__(self, app, address, host):
        self.client = app.test_client()
        self.base = {"base_url": f"http://{host}:{PORT}/", "environ_base": {"REMOTE_ADDR": address}}

    def get(self, path):
        return self.client.get(path, **self.base)

    def post(self, path, json=None, **more):
        return self.client.post(path, json=json, **self.base, **more)

    def delete(self, path):
        return self.client.delete(path, **self.base)


@pytest.fixture
def machine(app):
    return Device(app, "127.0.0.1", "localhost")


@pytest.fixture
def tablet(app):
    return Device(app, TABLET, own_names()[0])


def let_in(machine, tablet, name="Tablet"):
    digits = machine.post("/api/network/code").get_json()["digits"]
    return tablet.post("/api/network/enter", {"digits": digits, "name": name})


def test_a_device_gets_nothing_but_the_page_before_it_was_let_in(tablet):
    for path in ("/api/shots", "/api/kit", "/api/openapi.json", "/api/network/devices", "/api/runs/" + "0" * 32):
        refused = tablet.get(path)
        assert refused.status_code == 401
        assert refused.get_json()["code"] == "device.unknown"
    assert tablet.post("/api/plan", {}).status_code == 401
    told = tablet.get("/api/network/here").get_json()
    assert told == {"on_network": True, "this_machine": False, "name": None}


def test_with_the_code_it_comes_in_and_stays_in(machine, tablet, app):
    entered = let_in(machine, tablet, "tablet of the studio")
    assert entered.status_code == 200
    assert tablet.get("/api/shots").status_code == 200
    assert tablet.get("/api/network/here").get_json()["name"] == "tablet of the studio"
    # Also by a server that starts again: the cookie lasts, the code does not.
    again = create_app(app.config["JUST_PLANE_STORE"], gate=Gate(PORT))
    later = Device(again, TABLET, own_names()[0])
    later.client = again.test_client()
    cookie = tablet.client.get_cookie(COOKIE, domain=own_names()[0])
    later.client.set_cookie(COOKIE, cookie.value, domain=own_names()[0])
    assert later.get("/api/shots").status_code == 200


def test_its_cookie_is_for_the_server_alone_and_its_secret_is_kept_hashed(machine, tablet, tmp_path):
    header = let_in(machine, tablet).headers["Set-Cookie"]
    assert "HttpOnly" in header
    assert "SameSite=Strict" in header
    secret = re.search(rf"{COOKIE}=[0-9a-f]{{32}}\.([^;]+)", header)[1]
    data = b"".join(path.read_bytes() for path in tmp_path.iterdir() if path.is_file())
    assert b"Tablet" in data
    assert secret.encode() not in data


def test_a_code_lets_one_device_in(machine, tablet, app):
    digits = machine.post("/api/network/code").get_json()["digits"]
    assert tablet.post("/api/network/enter", {"digits": digits, "name": "one"}).status_code == 200
    other = Device(app, "192.0.2.8", own_names()[0])
    assert other.post("/api/network/enter", {"digits": digits, "name": "two"}).status_code == 403
    assert other.get("/api/shots").status_code == 401


def test_a_code_ends_after_two_minutes(machine, tablet, clock):
    told = machine.post("/api/network/code").get_json()
    assert told["seconds"] == VALID_S == 120
    clock.at += VALID_S
    refused = tablet.post("/api/network/enter", {"digits": told["digits"], "name": "late"})
    assert refused.status_code == 403
    assert refused.get_json()["field"] == "/digits"


def test_after_five_wrong_ones_the_right_one_is_void(machine, tablet):
    digits = machine.post("/api/network/code").get_json()["digits"]
    wrong = f"{(int(digits) + 1) % 1_000_000:06d}"
    for _ in range(TRIES):
        assert tablet.post("/api/network/enter", {"digits": wrong, "name": "t"}).status_code == 403
    assert tablet.post("/api/network/enter", {"digits": digits, "name": "t"}).status_code == 403


def test_four_wrong_ones_leave_a_try(machine, tablet):
    digits = machine.post("/api/network/code").get_json()["digits"]
    for _ in range(TRIES - 1):
        tablet.post("/api/network/enter", {"digits": f"{(int(digits) + 7) % 1_000_000:06d}", "name": "t"})
    assert tablet.post("/api/network/enter", {"digits": digits, "name": "t"}).status_code == 200


def test_a_new_code_takes_the_place_of_the_one_before(machine, tablet):
    first = machine.post("/api/network/code").get_json()["digits"]
    second = machine.post("/api/network/code").get_json()["digits"]
    if first != second:
        assert tablet.post("/api/network/enter", {"digits": first, "name": "t"}).status_code == 403
    assert tablet.post("/api/network/enter", {"digits": second, "name": "t"}).status_code == 200


def test_without_a_code_nobody_comes_in(tablet):
    assert tablet.post("/api/network/enter", {"digits": "000000", "name": "t"}).status_code == 403


def test_shown_out_it_is_a_stranger_again(machine, tablet):
    let_in(machine, tablet)
    (device,) = machine.get("/api/network/devices").get_json()["devices"]
    assert device["name"] == "Tablet"
    tablet.get("/api/shots")
    assert machine.get("/api/network/devices").get_json()["devices"][0]["last_seen_at"] is not None
    assert machine.delete(f"/api/network/devices/{device['device_id']}").get_json()["devices"] == []
    assert tablet.get("/api/shots").status_code == 401
    assert machine.delete(f"/api/network/devices/{device['device_id']}").status_code == 404


def test_codes_and_devices_are_for_the_machine_itself(machine, tablet):
    let_in(machine, tablet)
    for refused in (tablet.post("/api/network/code"), tablet.get("/api/network/devices")):
        assert refused.status_code == 403
        assert refused.get_json()["code"] == "network.elsewhere"


@pytest.mark.parametrize("forged", ["", "x", "0" * 32 + ".secret", "../../etc.x", "." * 40])
def test_a_forged_cookie_opens_nothing(tablet, forged):
    tablet.client.set_cookie(COOKIE, forged, domain=own_names()[0])
    assert tablet.get("/api/shots").status_code == 401


def test_anothers_secret_opens_nothing(machine, tablet, app):
    let_in(machine, tablet, "one")
    other = Device(app, "192.0.2.8", own_names()[0])
    let_in(machine, other, "two")
    ids = [one["device_id"] for one in machine.get("/api/network/devices").get_json()["devices"]]
    own = tablet.client.get_cookie(COOKIE, domain=own_names()[0]).value
    stranger = next(each for each in ids if not own.startswith(each))
    tablet.client.set_cookie(COOKIE, f"{stranger}.{own.partition('.')[2]}", domain=own_names()[0])
    assert tablet.get("/api/shots").status_code == 401


def test_a_foreign_name_is_refused_from_here_and_from_there(app):
    for address in ("127.0.0.1", TABLET):
        refused = Device(app, address, "plans.example").get("/api/network/here")
        assert refused.status_code == 403
        assert refused.get_json()["code"] == "host.foreign"


def test_who_says_that_it_is_localhost_from_elsewhere_is_still_a_stranger(app):
    assert Device(app, TABLET, "localhost").get("/api/shots").status_code == 401


def test_from_this_machine_by_its_network_name_it_is_a_device_like_any(app):
    assert Device(app, "127.0.0.1", own_names()[0]).get("/api/shots").status_code == 401


def test_another_site_cannot_press_for_a_device_that_is_in(machine, tablet):
    let_in(machine, tablet)
    refused = tablet.post("/api/network/enter", {}, headers={"Origin": "http://plans.example"})
    assert refused.get_json()["code"] == "origin.foreign"


def test_off_by_default_nothing_of_it_is_there(tmp_path):
    client = create_app(open_store(tmp_path)).test_client()
    assert client.get("/api/network/here").get_json() == {"on_network": False, "this_machine": True, "name": None}
    assert client.post("/api/network/code").get_json()["code"] == "network.closed"
    assert client.get("/api/shots", base_url=f"http://{own_names()[0]}/").status_code == 403


def test_the_picture_holds_the_address_and_the_code(machine):
    told = machine.post("/api/network/code").get_json()
    assert re.fullmatch(r"\d{6}", told["digits"])
    assert told["addresses"][0].endswith(f":{PORT}/")
    assert told["picture"].startswith("data:image/svg+xml")


def test_names_of_the_machine_are_looked_up_anew_but_not_for_every_stranger(clock, monkeypatch):
    asked = []
    monkeypatch.setattr("just_plane.web.gate.own_names", lambda: asked.append(1) or [f"name-{len(asked)}"])
    gate = Gate(PORT, clock)
    assert gate.is_own("name-1")
    for _ in range(50):
        assert not gate.is_own("name-2")
    assert len(asked) == 1
    clock.at += 11
    assert gate.is_own("name-2")


def answered(port, host, path, source):
    """Status of a request over a real socket, from a chosen address of this machine."""
    with socket.create_connection((host, port), timeout=10, source_address=(source, 0)) as wire:
        wire.sendall(f"GET {path} HTTP/1.1\r\nHost: {host}:{port}\r\nConnection: close\r\n\r\n".encode())
        return int(wire.recv(64).split()[1])


def test_a_real_server_answers_a_second_address_as_a_stranger(tmp_path):
    server = subprocess.Popen(
        [sys.executable, "-m", "just_plane.cli", "serve", "--on-network", "--port", "0", "--data", str(tmp_path)],
        stdout=subprocess.PIPE,
        text=True,
    )
    try:
        port = int(re.search(r":(\d+)/", server.stdout.readline())[1])
        said = server.stdout.readline() + server.stdout.readline()
        assert f"http://127.0.0.1:{port}/devices" in said
        assert "not encrypted" in said
        assert answered(port, "127.0.0.1", "/api/shots", "127.0.0.1") == 200
        assert answered(port, "127.0.0.1", "/api/shots", "127.0.0.2") == 401
        assert answered(port, "127.0.0.1", "/api/network/here", "127.0.0.2") == 200
    finally:
        server.kill()
        server.wait()


def test_a_real_server_is_not_on_the_network_unless_asked(tmp_path):
    server = subprocess.Popen(
        [sys.executable, "-m", "just_plane.cli", "serve", "--port", "0", "--data", str(tmp_path)],
        stdout=subprocess.PIPE,
        text=True,
    )
    try:
        port = int(re.search(r":(\d+)/", server.stdout.readline())[1])
        with pytest.raises(OSError, match="refused"):
            socket.create_connection(("127.0.0.2", port), timeout=5)
    finally:
        server.kill()
        server.wait()
