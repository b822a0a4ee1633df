"""Runs by the simulated rail and camera, from the page: with trouble, by one hand, and watched by a second window."""

import re

from playwright.sync_api import expect

from browser.conftest import WORK_MS
from browser.test_run import begin


def choose(page, *names):
    for name in names:
        page.get_by_text(name, exact=True).click()


def test_devices_take_the_stack_and_trouble_is_gone_on_from(page, server):
    begin(page, "Praline", "38.5")
    choose(page, "simulated rail", "simulated camera")
    page.get_by_role("button", name="What may go wrong").click()
    choose(page, "the card fills up", "something is knocked", "the rail slips on by one step")
    choose(page, "a flash does not fire", "dust on the sensor")
    page.get_by_role("button", name="Let them work").click()
    expect(page.get_by_text("The run stands still.")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_text("card is full")).to_be_visible()
    page.get_by_role("button", name="Go on").first.click()
    # What stops them is pressed in one place.
    expect(page.get_by_role("button", name="Pause")).to_have_count(1)
    expect(page.get_by_text("All frames are taken.")).to_be_visible(timeout=WORK_MS)
    # Each frame was looked at as it came: the knock is told, with its picture.
    expect(page.get_by_text("The view jumped by")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_role("img", name="Frame 19 as it came")).to_be_visible()
    # What was seen in one run is not said of the next.
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("heading", name=re.compile("Next: frame 1 of"))).to_be_visible()
    expect(page.get_by_text("last looked at")).to_have_count(0)
    expect(page.get_by_text("The view jumped by")).to_have_count(0)


def test_one_hand_turns_the_rail_and_space_releases(page, server):
    begin(page, "Praline", "12")
    choose(page, "simulated camera")
    page.get_by_role("button", name="Let them work").click()
    for frame in range(1, 5):
        expect(page.get_by_role("heading", name=re.compile(rf"Next: frame {frame} of 19"))).to_be_visible(
            timeout=WORK_MS
        )
        expect(page.get_by_role("button", name="It stands there: release")).to_be_enabled(timeout=WORK_MS)
        page.keyboard.press("Space")
    expect(page.get_by_role("heading", name="Next: frame 5 of 19")).to_be_visible(timeout=WORK_MS)
    # Before it is released the camera can be looked through, near and with what is sharp marked.
    live = page.get_by_role("img", name="Live, at frame 5")
    expect(live).to_be_visible()
    page.get_by_role("button", name="Magnify the live picture").click()
    expect(live).to_have_attribute("src", re.compile("from_left=0.5"))
    page.get_by_text("Mark sharp edges").click()
    expect(live).to_have_attribute("src", re.compile("marks=yes"))
    page.wait_for_function("() => [...document.images].every(one => one.complete && one.naturalWidth > 0)")
    page.get_by_role("button", name="Show the whole live picture").click()
    expect(live).not_to_have_attribute("src", re.compile("from_left"))
    expect(page.get_by_role("img", name="Frame 4 as it came")).to_be_visible()


def test_a_second_window_sees_the_devices_work(page, open_page, server):
    begin(page, "Praline", "12")
    choose(page, "simulated rail", "simulated camera")
    other = open_page(page.url)
    expect(other.get_by_text("Who moves, who releases")).to_be_visible()
    page.get_by_role("button", name="Let them work").click()
    expect(other.get_by_text("All frames are taken.")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_text("All frames are taken.")).to_be_visible(timeout=WORK_MS)
    page.get_by_role("link", name="Check them").click()
    expect(page.get_by_role("heading", name="Can the set come down?")).to_be_visible()
