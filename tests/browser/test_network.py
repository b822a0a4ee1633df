"""A tablet beside the camera: let in by a code, at work, shown out."""

import re

from playwright.sync_api import expect

from browser.conftest import Held, Server
from just_plane.web.gate import own_names

STRANGER = {"on_network": True, "this_machine": False, "name": None}
"""What a device is told that was not let in."""


def test_a_tablet_is_let_in_runs_a_shot_and_is_shown_out(open_page, tmp_path):
    server = Server(tmp_path / "net", "demo", "--on-network")
    try:
        machine = open_page(server.address)
        machine.get_by_role("link", name="Devices").click()
        expect(machine.get_by_text("is not encrypted", exact=False)).to_be_visible()
        machine.get_by_role("button", name="Let a device in").click()
        digits = machine.get_by_label("Code", exact=True).inner_text()
        assert re.fullmatch(r"\d{6}", digits)
        expect(machine.get_by_alt_text("QR code", exact=False)).to_be_visible()

        # By the machine's name on its network: to the server that is another device.
        away = f"http://{own_names()[0]}:{server.port}/"
        tablet = machine.context.browser.new_context(viewport={"width": 1024, "height": 768}).new_page()
        tablet.goto(away)
        code = tablet.get_by_label("Code, six digits")
        code.fill(f"{(int(digits) + 1) % 1_000_000:06d}")
        tablet.get_by_role("button", name="Come in").click()
        expect(tablet.get_by_text("That is not the code", exact=False)).to_be_visible()
        # As the picture brings it, behind the address.
        tablet.goto(f"{away}enter#{digits}")
        tablet.reload()
        expect(tablet.get_by_label("Code, six digits")).to_have_value(digits)
        tablet.get_by_label("Name of this device").fill("Tablet on the stand")
        tablet.get_by_role("button", name="Come in").click()

        tablet.get_by_role("link", name=re.compile("Praline")).click()
        tablet.get_by_role("link", name=re.compile("^7 Run")).click()
        tablet.get_by_role("button", name="Begin").click()
        expect(tablet.get_by_role("heading", name="Next: frame 1 of")).to_be_visible()
        tablet.keyboard.press("Space")
        expect(tablet.get_by_role("heading", name="Next: frame 2 of")).to_be_visible()
        # What the tablet counted, the machine shows.
        machine.goto(tablet.url.replace(away, server.address))
        expect(machine.get_by_role("heading", name="Next: frame 2 of")).to_be_visible()

        machine.goto(f"{server.address}devices")
        machine.get_by_role("button", name="Show out: Tablet on the stand").click()
        expect(machine.get_by_text("No device yet.")).to_be_visible()
        tablet.reload()
        expect(tablet.get_by_label("Code, six digits")).to_be_visible()
    finally:
        server.kill()


def test_a_program_that_is_not_on_the_network_says_how_it_would_be(page, server):
    page.goto(f"{server.address}devices")
    expect(page.get_by_text("just-plane serve --on-network")).to_be_visible()


def test_what_a_device_types_before_the_program_knows_it_stays(context, open_page, server):
    here = Held(context, "**/api/network/here")
    tablet = open_page(f"{server.address}enter#123456")
    name = tablet.get_by_label("Name of this device")
    name.fill("Tablet on the stand")
    with tablet.expect_response("**/api/network/here"):
        here.release(lambda route: route.fulfill(json=STRANGER))
    tablet.wait_for_timeout(500)  # nothing to be seen comes of the answer: a moment in which it is taken in
    expect(name).to_have_value("Tablet on the stand")
    # Any other address shows a stranger the same form.
    tablet.goto(f"{server.address}practice")
    expect(name).to_be_visible()
