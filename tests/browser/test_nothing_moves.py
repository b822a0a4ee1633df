"""Nothing moves away from under a hand that is about to press it: while a page comes in, and while it waits."""

import re

import pytest
from playwright.sync_api import expect

from browser.conftest import Held
from browser.test_journeys import saved, type_into
from browser.test_plane import open_tray, photograph

MOST = 0.0015
"""Of the browser's own measure of what moved and how far. A panel that its first answer pushes down is 0.01 to 0.1,
letters that come late 0.0003 to 0.003, a handle that comes into the drawing with the plan 0.0008."""
HELD_BACK_MS = 150
WATCH = """
window.moved = [];
new PerformanceObserver((list) => {
  for (const entry of list.getEntries())
    window.moved.push([entry.value, (entry.sources ?? []).map((one) => one.node?.textContent?.slice(0, 40))]);
}).observe({ type: "layout-shift", buffered: true });
"""


def hold_back(route):
    """Every answer a little late, as on a slow machine: what is drawn before it has time to be seen, and aimed at."""
    route.request.frame.page.wait_for_timeout(HELD_BACK_MS)
    route.continue_()


PLACES = {
    "": "Bonbon tray",
    "kit": "100 mm macro",
    "trials": "Of which piece of the kit",
    "notebook": "Bonbon",
    "practice": "Tilt and turn",
}


def came(page, place):
    """The list of what is on the shelf may come before: its hidden choices have the same names."""
    expect(page.get_by_text(PLACES[place]).locator("visible=true").first).to_be_visible()


def moved(page):
    return page.evaluate("window.moved")


@pytest.mark.parametrize("place", PLACES)
def test_a_place_comes_in_where_it_stays(context, open_page, still_server, place):
    context.add_init_script(WATCH)
    context.route("**/api/**", hold_back)
    page = open_page(still_server.address + place)
    came(page, place)
    page.wait_for_load_state("networkidle")
    assert sum(value for value, _ in moved(page)) <= MOST, moved(page)


@pytest.mark.parametrize("name", ["Subject", "Reach", "Aperture", "Plane", "Stack", "Light"])
def test_a_station_comes_in_where_it_stays(context, open_page, still_server, name):
    page = open_page(still_server.address)
    page.get_by_role("link", name=re.compile("Bonbon")).click()
    page.wait_for_url("**/shots/**")
    shot = re.search(r"shots/\w+", page.url).group()
    context.add_init_script(WATCH)
    context.route("**/api/**", hold_back)
    page = open_page(f"{still_server.address}{shot}/{name.lower()}")
    expect(page.locator("footer")).to_contain_text("Tilt 8.2°")
    expect(page.get_by_role("region", name=name)).not_to_be_empty()
    page.wait_for_load_state("networkidle")
    assert sum(value for value, _ in moved(page)) <= MOST, moved(page)


@pytest.mark.parametrize("place", ["shot", "kit"])
def test_a_press_that_began_before_what_is_opened_came_is_not_lost(open_page, still_server, place):
    page = open_page(still_server.address)
    shot = page.get_by_role("link", name=re.compile("Cut cocoa pod")).get_attribute("href")
    asked, address = ("kit", "kit") if place == "kit" else (shot.split("/")[2], shot.lstrip("/"))
    opened = Held(page, re.compile(f"/api/(shots/)?{asked}$"))
    page.goto(still_server.address + address)
    expect(page.get_by_text(re.compile("^Opening the"))).to_be_visible()
    page.get_by_role("link", name="Notebook", exact=True).hover()
    page.mouse.down()
    opened.release()
    expect(page.get_by_text(re.compile("^Opening the"))).to_have_count(0)
    page.mouse.up()
    expect(page.get_by_role("heading", name="Notebook")).to_be_visible()


def test_a_panel_does_not_wait_for_what_fails(context, open_page, still_server, complaints):
    context.route("**/reminders", lambda route: route.abort())
    page = open_page(still_server.address)
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    depth = page.get_by_role("textbox", name="Depth", exact=True)
    expect(depth).to_have_value("34")
    depth.focus()
    page.get_by_role("link", name=re.compile("Subject")).hover()
    page.evaluate("document.dispatchEvent(new Event('visibilitychange'))")  # and it is asked for anew
    expect(depth).to_be_focused()
    complaints.clear()


def test_the_button_for_points_stays_while_a_photograph_is_read(page, tmp_path):
    open_tray(page)
    button = page.get_by_role("button", name="Place points")
    before = button.bounding_box()
    page.route("**/api/photographs", lambda route: None)  # never answered
    (tmp_path / "framing.png").write_bytes(photograph())
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Another photograph").click()
    chooser.value.set_files(tmp_path / "framing.png")
    expect(page.get_by_role("button", name="Reading…")).to_be_visible()
    assert button.bounding_box() == before


def test_the_bar_that_tells_of_trouble_comes_and_goes_over_what_stays(page, complaints):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    other_way = page.locator("label").filter(has_text=re.compile("^Stack by focus ring"))
    depth = page.get_by_role("textbox", name="Depth", exact=True)
    expect(other_way).to_be_visible()
    saved(page)
    before = [other_way.bounding_box(), depth.bounding_box()]
    page.route("**/api/shots/*", lambda route: route.abort())
    type_into(page, "Depth", "34.001")
    expect(page.get_by_role("alert")).to_contain_text("held in this browser")
    assert [other_way.bounding_box(), depth.bounding_box()] == before
    other_way.hover()
    page.mouse.down()
    page.unroute("**/api/shots/*")
    expect(page.get_by_role("alert")).to_have_count(0)
    page.mouse.up()
    expect(other_way.get_by_role("radio")).to_be_checked()
    complaints.clear()


def test_the_end_of_a_panel_can_be_scrolled_out_from_under_the_bar(page, complaints):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    expect(page.get_by_role("textbox", name="Depth", exact=True)).to_be_visible()
    page.route("**/api/shots/*", lambda route: route.abort())
    type_into(page, "Depth", "33")
    bar = page.get_by_role("alert")
    expect(bar).to_contain_text("held in this browser")
    panel = page.get_by_role("region", name="Subject")
    panel.evaluate("each => each.scrollTo(0, each.scrollHeight)")
    last = panel.locator("> *").last.bounding_box()
    assert last["y"] + last["height"] <= bar.bounding_box()["y"]
    complaints.clear()


@pytest.mark.parametrize("place", ["Shots", "Notebook", "Kit", "Trials", "Practice"])
def test_a_place_come_back_to_stays(context, open_page, server, place):
    context.add_init_script(WATCH)
    page = open_page(server.address)
    go = page.get_by_role("link", name=place, exact=True)
    go.click()
    came(page, "" if place == "Shots" else place.lower())
    page.get_by_role("link", name="Shots", exact=True).click()
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    type_into(page, "Depth", "20")
    saved(page)
    context.route("**/api/**", hold_back)
    page.evaluate("window.moved.length = 0")
    go.click()
    came(page, "" if place == "Shots" else place.lower())
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(3 * HELD_BACK_MS)
    assert sum(value for value, _ in moved(page)) <= MOST, moved(page)


def test_a_list_stands_still_under_a_press(page):
    rows = page.get_by_role("listitem")
    pod = page.get_by_role("link", name=re.compile("Cut cocoa pod"))
    address = pod.get_attribute("href")
    before = rows.all_inner_texts()
    listed = Held(page, "**/api/shots?*")
    with page.expect_request("**/api/shots?*"):
        page.get_by_role("button", name=re.compile("Copy Praline")).click()
    pod.hover()
    page.mouse.down()
    with page.expect_response("**/api/shots?*"):
        listed.release()
    page.wait_for_timeout(HELD_BACK_MS)
    assert rows.all_inner_texts() == before
    page.mouse.up()
    page.wait_for_url("**" + address)
