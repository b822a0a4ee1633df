"""What a plan says and what is done with it, from the page: one voice, ways in order, light read or assumed."""

import re
import sqlite3
from contextlib import closing

from playwright.sync_api import expect

from browser.test_journeys import field, saved, station, tape, type_into
from just_plane.store.folder import FILE


def test_ways_stand_in_order_and_what_cannot_be_is_folded(page):
    page.get_by_role("link", name=re.compile("Ganache")).click()
    ways = page.get_by_role("radiogroup", name="Ways to get the shot")
    expect(ways.locator("label").first).to_contain_text("One frame, best stop, f/18")
    expect(ways.locator("label").first).to_contain_text("suggested")
    expect(page.locator("footer")).to_contain_text("One frame at f/18 (f/8 is set) holds all of it.")
    expect(tape(page, "Aperture")).to_contain_text("this way at f/18")
    folded = ways.get_by_text("Not with this set-up: tilt the lens")
    expect(folded).to_be_visible()
    # Nobody is sent to name points for a lens that cannot tilt.
    why = ways.get_by_text("this lens does not tilt")
    expect(why).to_be_hidden()
    folded.click()
    expect(why).to_be_visible()
    # What is soft says so with its price, beside the share that it covers.
    expect(ways.locator("label", has_text="One frame, f/8")).to_contain_text("enough for a picture")


def test_a_subject_that_holds_three_seconds_gets_a_plan_that_can_be_done(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    type_into(page, "Holds still for", "3")
    expect(page.locator("footer")).to_contain_text("Nothing here holds all of it. The most that can be done")
    ways = page.get_by_role("radiogroup", name="Ways to get the shot")
    expect(ways.locator("label").first).to_contain_text("One frame")
    expect(ways.locator("label", has_text="Stack by rail").last).to_contain_text("the subject holds 3 s")


def test_a_meter_reading_is_assumed_until_it_is_taken(page):
    page.get_by_role("button", name="New shot").click()
    expect(tape(page, "Light")).to_contain_text("not metered yet")
    station(page, "Light")
    expect(page.get_by_text("Assumed:", exact=False)).to_be_visible()
    type_into(page, "with", "1/15")
    expect(page.get_by_role("checkbox", name="Read on a meter")).to_be_checked()
    expect(page.get_by_text("Assumed:", exact=False)).to_be_hidden()
    type_into(page, "Shutter wanted", "1/500")
    expect(page.get_by_text(re.compile("For 1/500 s at this stop: ISO"))).to_be_visible()
    saved(page)


def test_the_search_looks_for_the_closest_and_the_widest(page):
    page.get_by_role("link", name=re.compile("Praline")).click()
    station(page, "Reach")
    search = page.get_by_role("region", name="Search the kit")
    heading = search.get_by_role("heading")
    page.get_by_role("button", name=re.compile("Look for")).click()
    page.get_by_role("option", name="the closest").click()
    expect(heading).to_contain_text("gets closest:")
    page.get_by_role("button", name=re.compile("Look for")).click()
    page.get_by_role("option", name="the widest").click()
    expect(heading).to_contain_text("shows most:")
    expect(field(page, "Room there is")).to_be_visible()


def test_a_shot_is_copied(page):
    page.get_by_role("button", name=re.compile("Copy Sugar bloom")).click()
    expect(page.get_by_role("link", name=re.compile("Sugar bloom on a bar, 10× copy"))).to_be_visible()


def test_a_damaged_shot_hides_no_other_and_goes_back(page, server):
    page.get_by_role("link", name=re.compile("Sugar bloom")).click()
    type_into(page, "Depth", "0.7")
    saved(page)
    with closing(sqlite3.connect(server.folder / FILE)) as connection:
        connection.execute(
            "UPDATE revision SET body_json = '{\"broken\": 1}'"
            " WHERE revision_id = (SELECT max(revision_id) FROM revision)"
        )
        connection.execute("DELETE FROM revision_line")
        connection.commit()
    page.goto(server.address)
    expect(page.get_by_role("link", name=re.compile("Damaged shot"))).to_be_visible()
    expect(page.get_by_role("link", name=re.compile("Foil wrapper"))).to_be_visible()
    page.get_by_role("button", name="Go back a version of Damaged shot").click()
    expect(page.get_by_role("link", name=re.compile("Sugar bloom"))).to_be_visible()


def test_slabs_and_frames_left_out_stand_in_the_step_table(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    page.get_by_text("A near part crosses in front of a far one").click()
    expect(page.get_by_role("checkbox", name=re.compile("A near part crosses"))).to_be_checked()
    station(page, "Stack")
    type_into(page, "Keep every", "2")
    station(page, "Run")
    table = page.get_by_role("table")
    expect(table.get_by_role("columnheader", name="slab")).to_be_visible()
    expect(table.get_by_role("row", name=re.compile("^2 left out"))).to_be_visible()
    expect(table.get_by_role("row", name=re.compile("^1 spare")).get_by_role("cell").last).to_have_text("1")
