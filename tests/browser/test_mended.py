"""Devices take a stack with everything going wrong, mend it where the check says, and it is proofed.

A pod cut open, and crystals at ten times behind an objective (a part of their depth: all of it is 303 frames).
"""

import re

import pytest
from playwright.sync_api import expect

from browser.conftest import WORK_MS
from browser.test_driven import choose
from browser.test_journeys import field, station, type_into

OF_DEVICES = re.compile("simulated")
VERDICT = re.compile("^Yes, the set can come down|^Not yet")


@pytest.mark.parametrize(
    ("shot", "depth", "count"), [("Cut cocoa pod", None, 26), ("Sugar bloom", "0.12", 27)], ids=["pod", "bloom"]
)
def test_what_the_check_misses_is_taken_by_the_devices_and_the_set_can_come_down(page, server, shot, depth, count):
    page.get_by_role("link", name=re.compile(shot)).click()
    if depth is not None:
        station(page, "Subject")
        type_into(page, "Depth", depth)
    station(page, "Stack")
    type_into(page, re.compile("^Overlap"), "20")
    station(page, "Run")
    type_into(page, re.compile("^Rail reads"), "12")
    page.get_by_role("button", name="Begin").click()
    choose(page, "simulated rail", "simulated camera")
    page.get_by_role("button", name="What may go wrong").click()
    choose(page, "something is knocked", "the rail slips on by one step", "a flash does not fire", "dust on the sensor")
    page.get_by_role("button", name="Let them work").click()
    expect(page.get_by_text("All frames are taken.")).to_be_visible(timeout=WORK_MS)
    station(page, "Check")
    # The frames of the run are the ones to look through, until another folder is named; and can be again.
    folder = field(page, "Folder that the frames are in")
    expect(folder).to_have_value(OF_DEVICES)
    folder.fill("")
    page.get_by_role("button", name="The folder of the run").click()
    expect(folder).to_have_value(OF_DEVICES)
    page.get_by_text(re.compile("Proof: by detail, for hairs")).click()
    page.get_by_role("button", name="Look through the frames").click()
    expect(page.get_by_text(VERDICT)).to_be_visible(timeout=WORK_MS)
    found = page.get_by_role("list", name="What was found")
    for said in ("One step is missing between", "the light did not come", "the view jumped by", "Dust on the sensor"):
        expect(found).to_contain_text(said)
    # The stand-in shows the middle of its sensor, and notes how wide its pixels are: the steps come out as planned.
    expect(page.get_by_text("of the sensor's width")).to_be_visible()
    expect(page.get_by_text("Look at the stop that was set")).to_have_count(0)
    page.get_by_role("button", name="Take 2 more").click()
    expect(page.get_by_role("heading", name=f"Next: frame {count + 1} of {count + 2}")).to_be_visible()
    # Asked for once: the check knows that the run has them.
    station(page, "Check")
    page.get_by_role("button", name="Go on with the run: 2 more").click()
    choose(page, "simulated rail", "simulated camera")
    page.get_by_role("button", name="Let them work").click()
    expect(page.get_by_text("All frames are taken.")).to_be_visible(timeout=WORK_MS)
    station(page, "Check")
    page.get_by_role("button", name="Look again, with 2 more").click()
    expect(page.get_by_text("Yes, the set can come down.")).to_be_visible(timeout=WORK_MS)
    # The two that were taken last belong between others; the dark one is not needed any more.
    expect(found).to_contain_text(f"JP_{count + 1:04}.jpg, JP_{count + 2:04}.jpg are not in the order of focus.")
    expect(found).to_contain_text("The frames beside it cover what it held")
    expect(page.get_by_role("button", name=re.compile(r"^Take \d|^Look again"))).to_have_count(0)
    for proof in ("by depth", "by detail", "detail near its depth"):
        expect(page.get_by_role("link", name=f"Proof, {proof}", exact=True)).to_be_visible()
