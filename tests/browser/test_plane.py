"""The plane, through the page: points placed and read, the tilt that follows, read back, compared side by side."""

import io
import re

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import expect

from browser.conftest import ROOT, WORK_MS
from browser.test_journeys import field, pick, saved, station, tape, type_into

AXE = ROOT / "frontend" / "node_modules" / "axe-core" / "axe.min.js"


def open_tray(page):
    page.get_by_role("link", name=re.compile("Bonbon")).click()
    expect(page.locator("footer")).to_contain_text("Tilt 8.2°")
    station(page, "Plane")
    expect(page.get_by_role("heading", name="Where does the plane lie?")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("centre bonbon on the frame"))).to_be_visible()


def choose(page, name):
    page.get_by_role("listitem").filter(has_text=name).get_by_role("button", name=re.compile(name)).first.click()
    expect(field(page, "Name")).to_have_value(name)


def read(page, name, marks):
    choose(page, name)
    type_into(page, "Rail mark where it is sharp, mm", marks)


def frame_width(page):
    return page.get_by_role("group", name=re.compile("The frame as the camera sees it")).bounding_box()["width"]


def photograph():
    content = io.BytesIO()
    grey = np.tile(np.linspace(40, 220, 900, dtype=np.uint8), (600, 1))
    Image.fromarray(grey).save(content, "PNG")
    return content.getvalue()


def test_points_placed_on_a_photograph_and_read_become_a_tilt(page, tmp_path):
    page.get_by_role("link", name=re.compile("Bonbon")).click()
    expect(page.locator("footer")).to_contain_text("Tilt 8.2°")
    station(page, "Plane")
    for name in ("front row, left", "front row, right", "centre bonbon", "back row, left", "back row, right",
                 "far rim of the tray", "card behind the tray"):  # fmt: skip
        choose(page, name)
        page.get_by_role("button", name="Remove this point").click()
    expect(page.get_by_text("Name the points that must be sharp", exact=True)).to_be_visible()
    expect(tape(page, "Plane")).to_contain_text("no points")

    (tmp_path / "framing.png").write_bytes(photograph())
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Another photograph").click()
    chooser.value.set_files(tmp_path / "framing.png")
    page.get_by_role("button", name="Place points").click()
    expect(page.get_by_role("button", name="Done placing")).to_be_visible()
    frame = page.get_by_role("group", name=re.compile("The frame as the camera sees it"))
    box = frame.bounding_box()
    marks = [("near", 0.2, 0.8, "40 40.2"), ("side", 0.8, 0.8, "40.1"), ("far", 0.5, 0.2, "80")]
    for name, left, top, mark in marks:
        page.mouse.click(box["x"] + left * box["width"], box["y"] + top * box["height"])
        # The panel follows a little behind: the new point's own fields must stand there before anything is typed.
        expect(page.get_by_role("listitem").get_by_role("button", name=re.compile("^Point p"))).to_have_attribute(
            "aria-expanded", "true"
        )
        expect(field(page, "Rail mark where it is sharp, mm")).to_have_value("")
        type_into(page, "Name", name)
        expect(page.get_by_role("listitem").get_by_role("button", name=re.compile(f"^{name}"))).to_have_attribute(
            "aria-expanded", "true"
        )
        type_into(page, "Rail mark where it is sharp, mm", mark)
    expect(tape(page, "Plane")).to_contain_text("tilt ")
    expect(page.locator("footer")).to_contain_text("facing straight down")
    expect(tape(page, "Subject")).to_contain_text("39.9 mm deep")
    saved(page)
    page.reload()
    expect(page.locator("footer")).to_contain_text("facing straight down")
    expect(page.get_by_role("button", name=re.compile("far on the frame"))).to_be_visible()


def test_select_in_one_view_and_it_shows_in_the_other(page):
    open_tray(page)
    page.get_by_role("button", name=re.compile("back row, left on the frame")).click()
    side = page.get_by_role("button", name=re.compile("back row, left, .* behind the nearest"))
    expect(side).to_have_attribute("aria-pressed", "true")
    expect(field(page, "Name")).to_have_value("back row, left")


def test_a_point_moves_by_keys_and_by_pointer_in_either_view(page):
    open_tray(page)
    choose(page, "centre bonbon")
    marks = field(page, "Rail mark where it is sharp, mm")
    expect(marks).to_have_value("62  62.1")
    side = page.get_by_role("button", name=re.compile("centre bonbon, .* behind the nearest"))
    side.focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    expect(marks).not_to_have_value("62  62.1")
    saved(page)
    page.get_by_role("button", name="Undo").click()
    expect(marks).to_have_value("62  62.1")

    box = side.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y, steps=4)
    page.mouse.up()
    expect(page.locator("footer")).to_contain_text("Tilt 8.")
    expect(marks).not_to_have_value("62  62.1")
    deeper = [float(mark) for mark in marks.input_value().split()]
    assert deeper[0] > 64
    assert deeper[1] - deeper[0] == pytest.approx(0.1)

    on_frame = page.get_by_role("button", name=re.compile("centre bonbon on the frame"))
    before = on_frame.bounding_box()["x"]
    on_frame.focus()
    page.keyboard.press("Shift+ArrowLeft")
    for _ in range(50):
        if on_frame.bounding_box()["x"] < before - 2:
            break
        page.wait_for_timeout(50)
    assert on_frame.bounding_box()["x"] == pytest.approx(before - 0.01 * frame_width(page), abs=1.5)
    saved(page)


def test_bad_readings_stay_in_their_field_with_a_sentence(page):
    open_tray(page)
    choose(page, "centre bonbon")
    type_into(page, "Rail mark where it is sharp, mm", "62 sixty")
    expect(page.get_by_text("“sixty” is not a reading.")).to_be_visible()
    expect(field(page, "Rail mark where it is sharp, mm")).to_have_value("62 sixty")
    type_into(page, "Rail mark where it is sharp, mm", "62 75 62.1")
    expect(page.get_by_text("contradict each other").first).to_be_visible()


def test_read_back_says_how_much_less_and_then_that_it_lies_right(page):
    open_tray(page)
    page.get_by_role("button", name="Look, and read back").click()
    expect(page.get_by_text("Focus here first.")).to_be_visible()
    type_into(page, "Tilt scale shows", "8.2")
    reads = page.get_by_role("textbox", name="Read", exact=True)
    for index, mark in ((0, "68.4"), (1, "62")):
        reads.nth(index).fill(mark)
        reads.nth(index).press("Enter")
    expect(page.get_by_text(re.compile(r"\d\.\d° less: set")).first).to_be_visible()
    page.get_by_role("button", name="I have set it: read again").click()
    expect(reads.nth(0)).to_have_value("")
    expect(reads.nth(1)).to_have_value("")
    for index, mark in ((0, "68.4"), (1, "68.2")):
        reads.nth(index).fill(mark)
        reads.nth(index).press("Enter")
    expect(page.get_by_text("It lies right")).to_be_visible()
    saved(page)


def test_a_strip_joins_the_ways(page):
    open_tray(page)
    page.get_by_role("button", name="Only a narrow strip").click()
    pick(page, "Through", "back row, left")
    pick(page, "and$", "back row, right")
    expect(page.get_by_text(re.compile("away from the subject's slope: a strip"))).to_be_visible()
    expect(page.get_by_role("radio", name=re.compile("Narrow strip, tilt 10.0°"))).to_be_visible()


def test_pinned_ways_stand_side_by_side_with_their_pictures(page):
    open_tray(page)
    page.get_by_role("button", name="Unpin").click()
    expect(page.get_by_role("button", name="Side by side (2)")).to_be_visible()
    page.get_by_role("button", name="Pin", exact=True).click()
    page.get_by_role("button", name="Side by side (3)").click()
    pictures = page.get_by_role("img", name=re.compile("would look like"))
    expect(pictures).to_have_count(3, timeout=WORK_MS)
    page.get_by_role("radio", name="200 %").check(force=True)
    expect(page.get_by_text("Pixels of the final picture.")).to_be_visible()
    page.evaluate(AXE.read_text() + "\n;0")
    assert [each["id"] for each in page.evaluate("axe.run()")["violations"]] == []
    page.get_by_role("button", name="Back to the bench").click()
    expect(page.get_by_role("radio", name=re.compile("Tilt 8.2°"))).to_be_visible()


@pytest.mark.parametrize("theme", ["paper", "dark"])
def test_axe_finds_nothing_on_the_plane_told_in_full(page, theme):
    page.evaluate("theme => localStorage.setItem('just-plane.theme', theme)", theme)
    page.reload()
    open_tray(page)
    choose(page, "front row, left")
    page.evaluate(AXE.read_text() + "\n;0")
    told = [
        f"{each['id']}: {node['html'][:140]}"
        for each in page.evaluate("axe.run()")["violations"]
        for node in each["nodes"]
    ]
    assert told == []


def test_a_file_that_is_no_photograph_is_refused_in_place(page, tmp_path, complaints):
    open_tray(page)
    (tmp_path / "notes.png").write_text("not a picture")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Another photograph").click()
    chooser.value.set_files(tmp_path / "notes.png")
    expect(page.get_by_role("alert")).to_contain_text("no picture that the program can read")
    expect(page.get_by_role("button", name=re.compile("centre bonbon on the frame"))).to_be_visible()
    complaints[:] = [text for text in complaints if "422" not in text]


def test_tape_joins_the_rail_once_the_camera_is_tied_to_it(page):
    open_tray(page)
    choose(page, "centre bonbon")
    page.get_by_role("radiogroup", name="Depth by").get_by_text("tape").click()
    expect(page.get_by_text("not read yet").first).to_be_visible()
    type_into(page, "Sensor mark to it, mm", "560")
    expect(page.get_by_text("nothing ties the two").first).to_be_visible()
    type_into(page, "Camera stood at, for the tape", "68")
    expect(page.get_by_text("nothing ties the two")).to_have_count(0)
    expect(tape(page, "Plane")).to_contain_text("tilt ")


def test_two_windows_on_one_plane_lose_nothing(open_page, server, chromium, complaints):
    first = open_page(server.address)
    open_tray(first)
    # Another browser knows nothing of this one's windows, so no message passes between them.
    elsewhere = chromium.new_context(viewport={"width": 1280, "height": 800})
    second = elsewhere.new_page()
    second.goto(first.url)
    choose(second, "centre bonbon")
    read(first, "centre bonbon", "63 63.1")
    saved(first)
    choose(second, "back row, left")
    type_into(second, "Rail mark where it is sharp, mm", "82")
    expect(second.get_by_role("alert")).to_contain_text("changed in another window")
    second.get_by_role("button", name="Take theirs").click()
    choose(second, "centre bonbon")
    expect(field(second, "Rail mark where it is sharp, mm")).to_have_value("63  63.1")
    elsewhere.close()
    complaints[:] = [text for text in complaints if "409" not in text]


def test_the_run_sheet_tells_the_tilt_step_by_step(page):
    open_tray(page)
    page.get_by_role("button", name="Decide on this way").click()
    saved(page)
    page.goto(page.url.removesuffix("plane") + "sheet")
    expect(page.get_by_text("Tilt 8.2° on the scale, so that the lens faces straight down.")).to_be_visible()
    expect(page.get_by_text(re.compile(r"Look at far rim of the tray: sharp at 68.*\smm on the rail"))).to_be_visible()


def test_a_shot_full_of_points_says_so_before_one_more_is_refused(page, server):
    shots = f"{server.address}api/shots"
    tray = next(line for line in page.request.get(shots).json()["shots"] if line["name"].startswith("Bonbon"))
    shot = page.request.get(f"{shots}/{tray['shot_id']}").json()["shot"]
    point = shot["plane"]["points"][0]
    shot["plane"]["points"] = [{**point, "id": f"p{number}", "name": f"bonbon {number}"} for number in range(59)]
    full = page.request.post(shots, data=shot).json()["shot_id"]
    page.goto(f"{server.address}shots/{full}/plane")
    page.get_by_role("button", name="Add a point").click()
    expect(page.get_by_text("60 points and flat parts, as many as a shot keeps.")).to_be_visible()
    expect(page.get_by_role("button", name="Place points")).to_be_disabled()
    page.get_by_role("button", name="Remove this point").click()
    expect(page.get_by_role("button", name="Add a point")).to_be_visible()
