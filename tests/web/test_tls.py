"""The encrypted way in: a certificate of the machine's own, and a server that shows it."""

import datetime
import json
import re
import socket
import ssl
import stat
import subprocess
import sys

import pytest
from cryptography import x509

from just_plane.cli import main
from just_plane.web.tls import DAYS, RENEWED_DAYS, own_certificate

NAMES = ["192.0.2.7", "studio", "studio.local"]
NOW = datetime.datetime(2026, 11, 2, 10, tzinfo=datetime.UTC)


def test_it_is_made_once_for_all_names_and_kept(tmp_path):
    made = own_certificate(tmp_path, NAMES, NOW)
    kept = x509.load_pem_x509_certificate(made.certificate.read_bytes())
    names = kept.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    assert names.get_values_for_type(x509.DNSName) == NAMES[1:]
    assert [str(each) for each in names.get_values_for_type(x509.IPAddress)] == NAMES[:1]
    assert own_certificate(tmp_path, NAMES, NOW + datetime.timedelta(days=30)) == made
    assert re.fullmatch(r"([0-9A-F]{2}:){31}[0-9A-F]{2}", made.fingerprint)


def test_its_key_is_for_nobody_else(tmp_path):
    made = own_certificate(tmp_path, NAMES, NOW)
    assert stat.S_IMODE(made.key.stat().st_mode) == 0o600
    assert b"PRIVATE KEY" in made.key.read_bytes()
    assert b"PRIVATE KEY" not in made.certificate.read_bytes()


@pytest.mark.parametrize(
    ("names", "days", "anew"),
    [
        (NAMES, DAYS - RENEWED_DAYS - 1, False),
        (NAMES, DAYS - RENEWED_DAYS + 1, True),
        (NAMES, -2, True),  # a clock set back
        ([*NAMES, "192.0.2.99"], 0, True),
        (NAMES[:2], 0, False),
    ],
)
def test_it_is_made_anew_before_it_ends_and_where_a_name_is_new(tmp_path, names, days, anew):
    first = own_certificate(tmp_path, NAMES, NOW)
    later = own_certificate(tmp_path, names, NOW + datetime.timedelta(days=days))
    assert (later.fingerprint != first.fingerprint) is anew


@pytest.mark.parametrize("damaged", ["certificate.pem", "key.pem"])
def test_damaged_or_gone_it_is_made_anew(tmp_path, damaged):
    first = own_certificate(tmp_path, NAMES, NOW)
    path = tmp_path / "network" / damaged
    path.unlink() if damaged == "key.pem" else path.write_text("half of a cert")
    assert own_certificate(tmp_path, NAMES, NOW).fingerprint != first.fingerprint


def asked(context, port, host, source):
    """Status and body of a request to the encrypted server, from a chosen address of this machine."""
    asking = f"GET /api/network/here HTTP/1.1\r\nHost: {host}:{port}\r\nConnection: close\r\n\r\n"
    answer = b""
    with (
        socket.create_connection(("127.0.0.1", port), timeout=10, source_address=(source, 0)) as plain,
        context.wrap_socket(plain, server_hostname=host) as wire,
    ):
        wire.sendall(asking.encode())
        while part := wire.recv(4096):
            answer += part
    head, _, body = answer.partition(b"\r\n\r\n")
    return int(head.split()[1]), body


def test_a_real_server_is_encrypted_for_devices_and_plain_for_its_own_machine_only(tmp_path):
    server = subprocess.Popen(
        [sys.executable, "-m", "just_plane.cli", "serve", "--on-network", "--tls", "--port", "0", "--data", tmp_path],
        stdout=subprocess.PIPE,
        text=True,
    )
    try:
        plain = int(re.search(r":(\d+)/", server.stdout.readline())[1])
        assert "is encrypted" in server.stdout.readline() + server.stdout.readline()
        with pytest.raises(OSError, match="refused"):
            socket.create_connection(("127.0.0.2", plain), timeout=5)
        with socket.create_connection(("127.0.0.1", plain), timeout=10) as wire:
            wire.sendall(
                f"POST /api/network/code HTTP/1.1\r\nHost: 127.0.0.1:{plain}\r\nContent-Length: 0\r\n"
                "Connection: close\r\n\r\n".encode()
            )
            answer = b""
            while part := wire.recv(4096):
                answer += part
        code = json.loads(answer.partition(b"\r\n\r\n")[2])
        assert code["way"]["encrypted"]
        address = re.fullmatch(r"https://(.+):(\d+)/", code["addresses"][0])
        host, port = address[1], int(address[2])
        trusting = ssl.create_default_context(cafile=str(tmp_path / "network" / "certificate.pem"))
        status, body = asked(trusting, port, host, "127.0.0.2")
        assert status == 200
        assert json.loads(body) == {"on_network": True, "this_machine": False, "name": None}
        with pytest.raises(ssl.SSLError):
            asked(ssl.create_default_context(), port, host, "127.0.0.2")
    finally:
        server.kill()
        server.wait()


def test_encryption_without_the_network_is_refused_and_a_folder_that_cannot_keep_it_said(tmp_path, monkeypatch, capsys):
    assert main(["serve", "--tls", "--data", str(tmp_path)]) == 2
    assert "add --on-network" in capsys.readouterr().err

    def full(folder, names):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("just_plane.web.tls.own_certificate", full)
    assert main(["serve", "--on-network", "--tls", "--port", "0", "--data", str(tmp_path)]) == 1
    assert "No space left on device" in capsys.readouterr().err
