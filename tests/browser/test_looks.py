"""Every view in both themes: no violation that axe can find, nothing cut off, nothing from elsewhere."""

import re

import pytest
from playwright.sync_api import expect

from browser.conftest import ROOT, WORK_MS
from browser.test_journeys import field, station, tape, type_into

AXE = ROOT / "frontend" / "node_modules" / "axe-core" / "axe.min.js"
# A theme changes colours alone: all else is asked once.
ASKED = {"paper": "{}", "dark": '{runOnly: ["color-contrast", "link-in-text-block"]}'}
VIEWS = ["", "subject", "reach", "aperture", "plane", "stack", "light", "run", "check", "log", "sheet", "ruler", "kit"]


@pytest.fixture
def page(open_page, still_server):
    return open_page(still_server.address)


@pytest.fixture
def shot_address(page):
    link = page.get_by_role("link", name=re.compile("Praline"))
    link.wait_for()
    return link.get_attribute("href").rsplit("/", 1)[0] + "/"


def show(page, server, shot_address, view):
    if view == "kit":
        page.goto(server.address + "kit")
        page.get_by_role("button", name=re.compile("24 to 70 mm")).click()
        expect(field(page, "Long end")).to_be_visible()
        return
    page.goto(server.address + (shot_address.lstrip("/") + view if view else ""))
    if view == "ruler":
        page.get_by_role("button", name="Take a made-up one").click()
        page.get_by_role("button", name="Work out the size").click(timeout=WORK_MS)
        expect(page.get_by_text("the model says")).to_be_visible()
    elif view:
        expect(page.get_by_text("Praline cross-section").first).to_be_visible()
        # A station's panel comes with code of its own, and may come after the verdict at the foot.
        expect(page.get_by_role("heading", level=1).first).to_be_visible()
        if view == "reach":
            expect(page.get_by_role("button", name=re.compile("Take it")).first).to_be_visible()
        if view != "sheet":
            expect(page.locator("footer")).to_contain_text(re.compile("holds? all of it"))
    else:
        expect(page.get_by_role("heading", name="Shots")).to_be_visible()


@pytest.mark.parametrize("theme", ["paper", "dark"])
def test_axe_finds_nothing_on_any_view(page, still_server, shot_address, theme):
    page.evaluate("theme => localStorage.setItem('just-plane.theme', theme)", theme)
    told = []
    for view in VIEWS:
        show(page, still_server, shot_address, view)
        page.evaluate(AXE.read_text() + "\n;0")
        told += [
            f"{view}: {each['id']}: {node['html'][:160]} {node['any'][0]['message'] if node['any'] else ''}"
            for each in page.evaluate(f"axe.run({ASKED[theme]})")["violations"]
            for node in each["nodes"]
        ]
    assert told == []


@pytest.mark.parametrize("size", [(1280, 800), (1024, 768)])
def test_nothing_runs_off_the_side_of_any_view(page, still_server, shot_address, size):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    for view in VIEWS:
        show(page, still_server, shot_address, view)
        assert page.evaluate("document.documentElement.scrollWidth") <= size[0], view
        if view and view != "sheet":  # the list and the sheet are pages to scroll; the others scroll inside
            assert page.evaluate("document.documentElement.scrollHeight") <= size[1], view
        if view and view not in ("sheet", "ruler", "kit"):
            box = page.locator("footer").bounding_box()
            assert box["y"] + box["height"] <= size[1] + 1, view


def test_a_long_name_keeps_the_bar_whole(open_page, server):
    page = open_page(server.address)
    page.get_by_role("link", name=re.compile("Praline")).click()
    expect(page.locator("footer")).to_contain_text("all of it")
    type_into(page, "Name", "W" * 120)
    expect(field(page, "Name")).to_have_value("W" * 120)
    undo = page.get_by_role("button", name="Undo").bounding_box()
    assert undo["x"] + undo["width"] < 1280
    assert page.evaluate("document.documentElement.scrollWidth") <= 1280


def test_an_empty_program_invites(chromium, tmp_path):
    from browser.conftest import Server

    server = Server(tmp_path / "own", "serve")
    page = chromium.new_page()
    page.goto(server.address)
    expect(page.get_by_text("No shots yet.")).to_be_visible()
    page.close()
    server.kill()


def test_no_request_leaves_the_machine(context, still_server):
    asked = []
    context.on("request", lambda request: asked.append(request.url))
    page = context.new_page()
    page.goto(still_server.address)
    page.get_by_role("link", name=re.compile("Praline")).click()
    expect(tape(page, "Subject")).to_have_attribute("aria-current", "page")
    expect(page.locator("footer")).to_contain_text("all of it")
    for number in range(1, 10):
        page.keyboard.press(str(number))
    expect(tape(page, "Log")).to_have_attribute("aria-current", "page")
    assert asked
    assert [url for url in asked if not url.startswith((still_server.address, "data:"))] == []


def test_a_millimetre_on_the_drawing_is_a_millimetre_on_the_rule(page, still_server, shot_address):
    show(page, still_server, shot_address, "stack")
    drawing = page.get_by_role("img", name=re.compile("Side view to scale"))
    edges = drawing.locator("line[stroke-dasharray='3 3']")
    near, far = (edges.nth(index).bounding_box()["x"] for index in (0, 1))
    px_per_mm = (far - near) / 8
    labels = page.locator("svg text").filter(has_text=re.compile(r"^-?\d+(\.\d+)?$"))
    marks = {float(labels.nth(i).text_content()): labels.nth(i).bounding_box() for i in range(labels.count())}
    low, high = min(marks), max(marks)
    centre = {mark: box["x"] + box["width"] / 2 for mark, box in marks.items()}
    assert (centre[high] - centre[low]) / (high - low) == pytest.approx(px_per_mm, rel=0.01)
    assert centre[0.0] == pytest.approx(near, abs=1.5)


TOO_LOW = """() => [...document.querySelectorAll(
    'button, a[href], summary, [role=option], [role=radio], label[data-rac]')]
  .filter((each) => { const { height, width } = each.getBoundingClientRect();
    return width > 1 && height > 1 && height < 39.5 && getComputedStyle(each).visibility !== 'hidden'; })
  .map((each) => each.textContent.trim().slice(0, 40))"""
SCROLLS = """() => [...document.querySelectorAll('[aria-label]')]
  .filter((each) => getComputedStyle(each).overflowY === 'auto' && each.getAttribute('role') !== 'listbox'
    && each.getAttribute('role') !== 'radiogroup')
  .map((each) => [each.getAttribute('aria-label'), each.scrollHeight / each.clientHeight])"""


@pytest.mark.parametrize("at", ["subject", "reach", "aperture", "plane", "stack", "light"])
def test_on_a_tablet_everything_can_be_hit_and_no_panel_goes_on_for_long(chromium, still_server, at):
    window = chromium.new_context(viewport={"width": 1024, "height": 768}, reduced_motion="reduce")
    page = window.new_page()
    page.goto(still_server.address)
    href = page.get_by_role("link", name=re.compile("Bonbon tray")).get_attribute("href")
    page.goto(still_server.address.rstrip("/") + href.rsplit("/", 1)[0] + "/" + at)
    expect(tape(page, "Plane")).to_contain_text("tilt 8.2")
    page.wait_for_timeout(500)  # the panel follows a little behind
    assert page.evaluate(TOO_LOW) == []
    for name, share in page.evaluate(SCROLLS):
        assert share <= 2, name
    window.close()


def test_a_tablet_that_is_turned_keeps_everything_in_its_width(page):
    """Drawn wide, then narrow, as when a tablet is turned: nothing stays as wide as it was."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.get_by_role("link", name=re.compile("Praline")).click()
    for name in ("Subject", "Reach", "Aperture", "Plane", "Stack", "Light", "Run", "Check"):
        page.set_viewport_size({"width": 1280, "height": 800})
        station(page, name)
        page.wait_for_timeout(400)
        page.set_viewport_size({"width": 1024, "height": 768})
        page.wait_for_timeout(400)
        wide = page.evaluate(
            "() => [...document.querySelectorAll('main, main *')].filter(one => one.scrollWidth > one.clientWidth + 1"
            " && getComputedStyle(one).overflowX === 'auto').map(one => one.tagName + ' ' + one.scrollWidth)"
        )
        assert wide == [], name
