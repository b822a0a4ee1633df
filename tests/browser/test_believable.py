"""What a plan says and what is done with it, from the page: one voice, ways in order, light read or assumed."""

import re
import sqlite3
from contextlib import closing

from playwright.sync_api import expect

from browser.test_journeys import field, pick, saved, station, tape, type_into
from just_plane.store.places import FILE


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
    expect(page.get_by_text(re.compile(r"For 1/500\ss at this stop: ISO"))).to_be_visible()
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


def test_steps_of_ones_own_show_what_no_frame_holds(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    station(page, "Stack")
    page.get_by_role("button", name="Own count and step …").click()
    type_into(page, "Own count", "6")
    type_into(page, "Own step", "1.5")
    panel = page.get_by_label("Stack", exact=True)
    expect(panel.get_by_text("As you set it.")).to_be_visible()
    expect(panel.get_by_text(re.compile("^8.4. mm to 34 mm$"))).to_be_visible()
    ways = page.get_by_role("radiogroup", name="Ways to get the shot")
    rail = ways.locator("label").filter(has_text=re.compile("^Stack by rail"))
    expect(rail).to_contain_text("worked out, 40 frames leave none")
    expect(rail).to_contain_text("25 %")


def test_from_the_hand_a_series_is_offered_with_its_sway(page):
    page.get_by_role("link", name=re.compile("Ganache")).click()
    station(page, "Light")
    page.get_by_label("Light", exact=True).locator("label").filter(has_text=re.compile("^in the hand$")).last.click()
    type_into(page, "Hand sways by", "1.5")
    ways = page.get_by_role("radiogroup", name="Ways to get the shot")
    hand = ways.locator("label").filter(has_text=re.compile("^Series from the hand"))
    expect(hand).to_contain_text("hands sway 1.5 mm:")
    expect(ways.get_by_text(re.compile("Stack by rail")).first).to_be_visible()


def test_shots_are_found_put_under_a_heading_and_packed(page):
    page.get_by_role("link", name=re.compile("Ganache")).click()
    type_into(page, "Heading", "Tuesday")
    saved(page)
    page.get_by_role("link", name="Shots").click()
    page.get_by_role("searchbox", name="Look for").fill("pod")
    expect(page.get_by_role("link", name=re.compile("Ganache"))).to_have_count(0)
    expect(page.get_by_role("link", name=re.compile("Cut cocoa pod"))).to_be_visible()
    page.get_by_role("searchbox", name="Look for").fill("")
    pick(page, "Heading", "Tuesday")
    expect(page.get_by_role("link", name=re.compile("Cut cocoa pod"))).to_have_count(0)
    page.get_by_role("button", name="To pack for Tuesday …").click()
    packed = page.get_by_role("list", name="Gear to pack")
    expect(packed.get_by_role("listitem").first).to_contain_text("1 ×")
    expect(packed).to_contain_text("every shot")


def test_a_way_of_another_shot_stands_beside_ones_own(page):
    page.get_by_role("link", name=re.compile("Bonbon tray")).click()
    page.get_by_role("button", name=re.compile("^Side by side")).click()
    pick(page, "A way of another shot", "Cut cocoa pod, seeds")
    columns = page.get_by_role("article")
    expect(columns).to_have_count(4)
    expect(columns.last).to_contain_text("Cut cocoa pod, seeds: Stack by rail, f/5.6")
    expect(columns.last).to_contain_text("Gear costs")
    columns.last.get_by_role("button", name="Take it away").click()
    expect(columns).to_have_count(3)


def test_two_points_lay_a_plane_and_a_flat_thing_is_entered_at_subject(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    page.get_by_role("button", name="It is flat and leans away").click()
    expect(tape(page, "Subject")).to_contain_text("34 mm deep")
    type_into(page, "Long that way", "60")
    # 60 mm at 45 degrees.
    expect(tape(page, "Subject")).to_contain_text("42.4 mm deep")
    page.get_by_role("button", name="It is not flat").click()
    expect(tape(page, "Subject")).to_contain_text("34 mm deep")
    station(page, "Plane")
    for number, (top, mark) in enumerate((("85", "50"), ("15", "58")), start=1):
        page.get_by_role("button", name="Add a point").click()
        type_into(page, "Name", f"point {number}")
        type_into(page, "From top", top)
        type_into(page, "Rail mark where it is sharp, mm", mark)
    expect(page.get_by_text("across the line of the points taken as square")).to_be_visible()


def test_a_key_after_enter_is_the_page_s_again(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    field = page.get_by_role("textbox", name="Depth", exact=True)
    field.fill("20")
    field.press("Enter")
    page.keyboard.press("3")
    expect(page).to_have_url(re.compile("/aperture$"))
    expect(tape(page, "Subject")).to_contain_text("20 mm deep")
    # It opens where it was last worked on.
    page.get_by_role("link", name="Shots").click()
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    expect(page).to_have_url(re.compile("/aperture$"))


def test_a_light_is_put_on_the_set_and_told_when_it_is_in_the_way(page, complaints):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    station(page, "Light")
    drawing = page.get_by_role("img", name=re.compile("The set from above"))
    expect(drawing).to_contain_text("soft box with flash, 60 × 60 cm")
    away = page.get_by_label("From the subject", exact=True).first
    # 600 mm seen from 300 mm away: 2 atan(300 / 300) = 90 degrees.
    away.fill("300")
    away.press("Enter")
    expect(drawing).to_contain_text("90° wide from the subject")
    axis = page.get_by_label("From the axis", exact=True).first
    axis.fill("0")
    axis.press("Enter")
    expect(page.get_by_text(re.compile("reaches .* into the picture|would stand where")).first).to_be_visible()
    away.fill("-5")
    away.press("Enter")
    # At its field, which shows then what was taken over: the panel follows a little behind what is said on top.
    expect(page.get_by_text("From the subject must be more than 0 mm; got -5 mm.")).to_be_visible()
    complaints.clear()  # the refusal, which the browser's console tells too
    away.fill("")
    away.press("Enter")
    expect(drawing).to_contain_text("not placed yet: soft box")
    saved(page)
    complaints.clear()
    page.reload()
    expect(drawing).to_contain_text("not placed yet: soft box")


def test_no_more_things_stand_on_the_set_than_a_shot_keeps(page, server):
    shots = f"{server.address}api/shots"
    pod = next(line for line in page.request.get(shots).json()["shots"] if line["name"].startswith("Cut cocoa"))
    shot = page.request.get(f"{shots}/{pod['shot_id']}").json()["shot"]
    fifteen = {**shot, "name": "Crowded set", "on_set": [shot["on_set"][0]] * 15}
    assert page.request.post(shots, data=fifteen).status == 201
    page.reload()
    page.get_by_role("link", name=re.compile("Crowded set")).click()
    station(page, "Light")
    away = page.get_by_role("button", name=re.compile("^Take away: "))
    expect(away).to_have_count(15)
    pick(page, "Add from the kit|Add generic", re.compile("flash"))
    expect(away).to_have_count(16)
    expect(page.get_by_text(re.compile("^16 things stand around the subject"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Add "))).to_have_count(0)
    away.first.click()
    expect(away).to_have_count(15)
    expect(page.get_by_role("button", name=re.compile("Add "))).to_be_visible()
    saved(page)
