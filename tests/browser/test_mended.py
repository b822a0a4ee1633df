"""A pod cut open: devices take it with everything going wrong, mend it where the check says, and it is proofed."""

import re

from playwright.sync_api import expect

from browser.test_driven import LONG, choose
from browser.test_journeys import station, type_into

VERDICT = re.compile("^Yes, the set can come down|^Not yet")


def test_what_the_check_misses_is_taken_by_the_devices_and_the_set_can_come_down(page, server):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    station(page, "Stack")
    type_into(page, re.compile("^Overlap"), "20")
    station(page, "Run")
    type_into(page, re.compile("^Rail reads"), "12")
    page.get_by_role("button", name="Begin").click()
    choose(page, "simulated rail", "simulated camera")
    page.get_by_role("button", name="What may go wrong").click()
    choose(page, "something is knocked", "the rail slips on by one step", "a flash does not fire", "dust on the sensor")
    page.get_by_role("button", name="Let them work").click()
    expect(page.get_by_text("All frames are taken.")).to_be_visible(timeout=3 * LONG)
    station(page, "Check")
    page.get_by_role("button", name="The folder of the run").click()
    page.get_by_text(re.compile("Proof: by detail, for hairs")).click()
    page.get_by_role("button", name="Look through the frames").click()
    expect(page.get_by_text(VERDICT)).to_be_visible(timeout=3 * LONG)
    found = page.get_by_role("list", name="What was found")
    for said in ("One step is missing between", "the light did not come", "the view jumped by", "Dust on the sensor"):
        expect(found).to_contain_text(said)
    page.get_by_role("button", name="Take 2 more").click()
    expect(page.get_by_role("heading", name="Next: frame 27 of 28")).to_be_visible()
    # Asked for once: the check knows that the run has them.
    station(page, "Check")
    page.get_by_role("button", name="Go on with the run: 2 more").click()
    choose(page, "simulated rail", "simulated camera")
    page.get_by_role("button", name="Let them work").click()
    expect(page.get_by_text("All frames are taken.")).to_be_visible(timeout=3 * LONG)
    station(page, "Check")
    page.get_by_role("button", name="Look again, with 2 more").click()
    expect(page.get_by_text("Yes, the set can come down.")).to_be_visible(timeout=3 * LONG)
    # The two that were taken last belong between others; the dark one is not needed any more.
    expect(found).to_contain_text("JP_0027.jpg, JP_0028.jpg are not in the order of focus.")
    expect(found).to_contain_text("The frames beside it cover what it held")
    expect(page.get_by_role("button", name=re.compile(r"^Take \d|^Look again"))).to_have_count(0)
    for proof in ("by depth", "by detail", "detail near its depth"):
        expect(page.get_by_role("link", name=f"Proof, {proof}", exact=True)).to_be_visible()
