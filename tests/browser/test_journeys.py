"""Whole journeys of a photographer, through the page, to the database and back."""

import csv
import json
import re

from playwright.sync_api import TimeoutError, expect


def field(page, name):
    return page.get_by_role("textbox", name=name, exact=True)


def saved(page):
    expect(page.get_by_role("status")).to_have_text("Saved")


def type_into(page, name, text):
    field(page, name).fill(text)
    field(page, name).press("Enter")


def station(page, name):
    page.get_by_role("navigation", name="Order of work").get_by_role("link", name=re.compile(name)).click()


def tape(page, name):
    return page.get_by_role("navigation", name="Order of work").get_by_role("link", name=re.compile(name))


def pick(page, label, option):
    """Take one of a list that opens. A press that met the panel as it grew opens nothing: then press again."""
    wanted = page.get_by_role("option", name=option, exact=True)
    for _ in range(4):
        page.get_by_role("button", name=re.compile(label)).click()
        try:
            wanted.wait_for(timeout=1500)
            break
        except TimeoutError:
            continue
    wanted.click()


def drag(page, label, by):
    grip = page.get_by_role("group", name=re.compile(label)).locator("[data-look]")
    box = grip.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(1, 6):
        page.mouse.move(x + by * step / 5, y)
    page.mouse.up()


def test_from_a_new_shot_to_a_sheet_and_back_from_a_file(page, tmp_path):
    page.get_by_role("button", name="New shot").click()
    type_into(page, "Name", "Truffle, broken open")
    expect(page.locator("header")).to_contain_text("Truffle, broken open")
    type_into(page, "Depth", "0.5in")
    expect(field(page, "Depth")).to_have_value("12.7")
    expect(tape(page, "Subject")).to_contain_text("12.7 mm deep")
    type_into(page, "Holds still for", "2min")

    station(page, "Reach")
    # The rig of the shot worked on last stands on the table still.
    expect(page.get_by_role("region", name="Search the kit").get_by_role("heading")).to_contain_text("gets 150 mm")
    page.get_by_role("row", name=re.compile("90 mm, f")).click()
    pick(page, "Swap for", "60 mm macro, f/2.8")
    pick(page, "Add a piece", "tube 12 mm")
    type_into(page, "Frame width", "45")
    expect(tape(page, "Reach")).to_contain_text("0.8×")
    saved(page)

    station(page, "Stack")
    expect(tape(page, "Stack")).to_contain_text("frames")
    frames_before = tape(page, "Stack").inner_text()
    drag(page, "Farthest point", 60)
    expect(tape(page, "Stack")).not_to_have_text(frames_before)
    saved(page)
    deeper = tape(page, "Subject").inner_text()
    assert "12.7 mm" not in deeper

    page.get_by_role("button", name="Undo").click()
    expect(tape(page, "Subject")).to_contain_text("12.7 mm deep")
    page.reload()
    expect(tape(page, "Subject")).to_contain_text("12.7 mm deep")
    page.get_by_role("button", name="Redo").click()
    expect(tape(page, "Subject")).to_have_text(deeper.replace("\n", ""), use_inner_text=False)
    page.get_by_role("button", name="Undo").click()
    saved(page)

    station(page, "Run")
    with page.expect_download() as download:
        page.get_by_role("link", name="Shot as a file").click()
    path = tmp_path / "shot.json"
    download.value.save_as(path)
    assert json.loads(path.read_text())["subject"]["depth_mm"] == 12.7
    with page.expect_download() as download:
        page.get_by_role("link", name="Step table as CSV").click()
    table = tmp_path / "steps.csv"
    download.value.save_as(table)
    rows = list(csv.reader(table.open()))
    assert len(rows) - 1 == page.get_by_role("table").locator("tbody tr").count()

    page.get_by_role("link", name="Run sheet to print").click()
    expect(page.get_by_role("heading", name="Truffle, broken open")).to_be_visible()
    expect(page.locator("main")).to_contain_text("60 mm macro, f/2.8")
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print")).to_be_hidden()
    page.emulate_media(media="screen")

    page.goto(page.url.split("/shots/")[0] + "/")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Open a shot file").click()
    chooser.value.set_files(path)
    expect(tape(page, "Subject")).to_contain_text("12.7 mm deep")
    page.goto(page.url.split("/shots/")[0] + "/")
    expect(page.get_by_role("link", name=re.compile("Truffle, broken open"))).to_have_count(2)


def test_by_keyboard_alone(page):
    expect(page.get_by_role("link", name=re.compile("Cut cocoa pod"))).to_be_visible()
    page.keyboard.press("Tab")
    for _ in range(40):
        if page.evaluate("document.activeElement.textContent").startswith("Cut cocoa pod"):
            break
        page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(tape(page, "Subject")).to_contain_text("34 mm deep")
    expect(page.locator("footer")).to_contain_text("all of it")
    page.keyboard.press("5")
    expect(page.get_by_role("heading", name="How many frames, how far apart?")).to_be_visible()
    page.keyboard.press("w")
    expect(page.locator("[role=radiogroup] [data-selected]").filter(has=page.locator("strong"))).to_contain_text(
        "Stack by focus ring"
    )
    far = page.get_by_role("slider", name=re.compile("Farthest point"))
    far.focus()
    page.keyboard.press("ArrowRight")
    expect(tape(page, "Subject")).to_contain_text(re.compile(r"34\.[12] mm deep"))
    page.keyboard.press("Shift+ArrowLeft")
    expect(tape(page, "Subject")).to_contain_text(re.compile(r"3[23]\.[12] mm deep"))
    stop = page.get_by_role("slider", name=re.compile(r"Aperture f.5\.6"))
    stop.focus()
    page.keyboard.press("ArrowRight")
    expect(tape(page, "Aperture")).to_contain_text("f/6.3")
    saved(page)
    page.keyboard.press("Control+z")
    expect(tape(page, "Aperture")).to_contain_text("f/5.6")
    page.keyboard.press("Control+Shift+z")
    expect(tape(page, "Aperture")).to_contain_text("f/6.3")
    page.keyboard.press("3")
    field(page, "Aperture").focus()
    page.keyboard.press("ArrowUp")
    expect(tape(page, "Aperture")).to_contain_text("f/7.1")
    saved(page)


def test_keys_go_on_in_the_screen_that_is_come_to(page):
    expect(page).to_have_title("Shots · Just Plane")
    page.get_by_role("link", name=re.compile("Praline")).press("Enter")
    expect(page.locator("main")).to_be_focused()
    expect(page).to_have_title("Praline cross-section, hazelnut · Just Plane")
    expect(field(page, "Depth")).to_be_visible()
    page.keyboard.press("Tab")
    expect(field(page, "Depth")).to_be_focused()
    places = page.get_by_role("navigation", name="Places")
    places.get_by_role("link", name="Kit", exact=True).press("Enter")
    expect(page.locator("main")).to_be_focused()
    expect(page).to_have_title("Kit · Just Plane")
    places.get_by_role("link", name="Shots", exact=True).press("Enter")
    expect(page).to_have_title("Shots · Just Plane")
    expect(page.locator("main")).to_be_focused()
    # Opened afresh, a window begins where every window begins.
    page.reload()
    expect(page.get_by_role("button", name="New shot")).to_be_enabled()
    page.keyboard.press("Tab")
    expect(places.get_by_role("link", name="Just Plane")).to_be_focused()


def test_everything_on_the_drawing_can_be_dragged(page):
    page.get_by_role("link", name=re.compile("Praline")).click()
    expect(tape(page, "Subject")).to_contain_text("8 mm deep")
    drag(page, "Nearest point", -40)
    expect(tape(page, "Subject")).not_to_contain_text(re.compile(r"Subject\s*8 mm deep"))
    saved(page)
    station(page, "Aperture")
    expect(field(page, "Focus behind nearest")).to_have_value("")
    station(page, "Stack")
    drag(page, "Focus of one frame", 30)
    saved(page)
    station(page, "Aperture")
    expect(field(page, "Focus behind nearest")).not_to_have_value("")
    station(page, "Subject")
    before = tape(page, "Aperture").inner_text()
    drag(page, r"Aperture f.5\.6", 30)
    expect(tape(page, "Aperture")).not_to_have_text(before)
    saved(page)


def test_a_way_is_decided_on_and_stays_decided(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    page.get_by_role("radio", name=re.compile("^Stack by focus ring")).check(force=True)
    page.get_by_role("button", name="Decide on this way").click()
    saved(page)
    page.reload()
    expect(page.locator("[role=radiogroup] [data-selected]").filter(has=page.locator("strong"))).to_contain_text(
        "decided"
    )
    expect(page.get_by_role("button", name="Undecide")).to_be_visible()


def test_the_map_of_stops_sets_the_aperture(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    station(page, "Aperture")
    page.get_by_role("listbox", name="Stops of the lens").locator("[data-key='11']").click()
    expect(tape(page, "Aperture")).to_contain_text("f/11")
    saved(page)


def test_inches_everywhere_and_back(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    page.get_by_role("button", name="To inches").click()
    expect(field(page, "Depth")).to_have_value("1.33858")
    expect(tape(page, "Subject")).to_contain_text("1.34 in deep")
    expect(page.get_by_role("radiogroup", name="Ways to get the shot")).to_contain_text(" in ")
    type_into(page, "Depth", "1")
    page.get_by_role("button", name="To mm").click()
    expect(field(page, "Depth")).to_have_value("25.4")


def test_the_system_s_theme_is_followed_until_one_is_chosen(page):
    to_dark, to_paper = (page.get_by_role("button", name=name) for name in ("Darken", "Lighten"))
    expect(to_dark).to_be_visible()
    page.emulate_media(color_scheme="dark")
    page.reload()
    expect(to_paper).to_be_visible()
    to_paper.click()
    page.reload()
    expect(to_dark).to_be_visible()


def test_a_shot_put_away_comes_back(page):
    page.get_by_role("button", name=re.compile("Put away Foil")).click()
    expect(page.get_by_role("link", name=re.compile("Foil wrapper"))).to_have_count(0)
    page.get_by_role("button", name="Put away …").click()
    page.get_by_role("button", name=re.compile("Bring back Foil")).click()
    expect(page.get_by_text("Nothing has been put away.")).to_be_visible()
    page.get_by_role("button", name="Back to shots").click()
    expect(page.get_by_role("link", name=re.compile("Foil wrapper"))).to_have_count(1)


def test_a_long_list_shows_its_older_shots_when_asked(page, server):
    shots = f"{server.address}api/shots"
    first = page.request.get(shots).json()["shots"][0]
    shot = page.request.get(f"{shots}/{first['shot_id']}").json()["shot"]
    for number in range(30):
        assert page.request.post(shots, data={**shot, "name": f"Row {number}"}).status == 201
    page.reload()
    rows = page.get_by_role("listitem")
    expect(rows).to_have_count(24)
    expect(rows.first).to_contain_text("Row 29")
    page.get_by_role("button", name="Show older shots").click()
    expect(rows).to_have_count(36)
    expect(rows.nth(29)).to_contain_text("Row 0")
    expect(page.get_by_role("button", name="Show older shots")).to_have_count(0)
    # One opened and gone back from: as many stand there as before.
    page.get_by_role("link", name=re.compile("Row 0 ")).click()
    expect(tape(page, "Subject")).to_contain_text("deep")
    page.get_by_role("link", name="Shots", exact=True).click()
    expect(rows).to_have_count(36)


def test_a_station_opens_at_its_top(page):
    page.get_by_role("link", name=re.compile("Cut cocoa")).click()
    panel = page.get_by_role("region", name="Subject")
    field(page, "Name").scroll_into_view_if_needed()
    assert panel.evaluate("panel => panel.scrollTop") > 0
    station(page, "Light")
    light = page.get_by_role("region", name="Light")
    light.wait_for()
    assert light.evaluate("panel => panel.scrollTop") == 0
