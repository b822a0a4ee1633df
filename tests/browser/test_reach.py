"""The kit, the row of pieces, the search and the ruler, as they are used at the table."""

import itertools
import json
import re

import pytest
from playwright.sync_api import expect

from browser.conftest import WORK_MS, Held, Server
from browser.test_journeys import field, pick, saved, station, tape, type_into
from just_plane.contract.kit_file import read_kit
from just_plane.contract.kit_table import read_table
from just_plane.core.frames.ruler_picture import ruler_picture
from just_plane.pictures.writing import jpeg


@pytest.fixture
def praline(page):
    page.get_by_role("link", name=re.compile("Praline")).click()
    expect(page.locator("footer")).to_contain_text("all of it")
    station(page, "Reach")
    expect(page.get_by_role("row", name=re.compile("tube 12"))).to_be_visible()
    return page


def rows(page):
    grid = page.get_by_role("grid", name=re.compile("The row of pieces"))
    return grid.get_by_role("row").evaluate_all("rows => rows.map(row => row.getAttribute('aria-label'))")


def piece(page, name):
    return page.get_by_role("row", name=re.compile(name))


def choose(page, name):
    """Click a piece of the row. The panel grows when the plan arrives, and a press that it moves from under is none."""
    expect(page.locator("footer")).not_to_contain_text("Working it out")
    row = piece(page, name)
    expect(row).to_be_visible()
    for _ in range(4):
        row.click()
        try:
            expect(row).to_have_attribute("aria-selected", "true", timeout=1500)
            return
        except AssertionError:
            continue
    expect(row).to_have_attribute("aria-selected", "true")


def test_a_row_is_changed_by_keyboard_alone(praline):
    page = praline
    piece(page, "tube 12").focus()
    page.keyboard.press("Delete")
    expect(piece(page, "tube 12")).to_have_count(0)
    expect(page.locator("footer")).to_contain_text("beyond this rig")
    page.get_by_role("button", name="Undo").press("Enter")
    expect(piece(page, "tube 12")).to_be_visible()
    expect(tape(page, "Reach")).to_contain_text("1.15×")
    # Take hold of the tube's handle, carry it up before the lens, let go.
    piece(page, "60 mm").focus()
    for key in ("ArrowDown", "ArrowRight", "Enter", "ArrowUp", "ArrowUp", "Enter"):
        page.keyboard.press(key)
    expect(page.locator("footer")).to_contain_text("in front of it")
    assert rows(page)[0] == "tube 12 mm"
    expect(tape(page, "Reach")).to_contain_text("needs attention")
    saved(page)
    page.reload()
    expect(page.locator("footer")).to_contain_text("in front of it")


def test_a_row_is_changed_by_dragging(praline):
    page = praline
    pick(page, "Add a piece", "1.4× converter")
    expect(piece(page, "^1.4")).to_be_visible()
    assert rows(page) == ["60 mm macro, f/2.8", "tube 12 mm", "1.4× converter"]
    expect(page.get_by_text("tube between lens and converter (this)")).to_be_visible()
    page.get_by_role("button", name="Move tube 12 mm").scroll_into_view_if_needed()
    box = page.get_by_role("button", name="Move tube 12 mm").bounding_box()
    below = piece(page, "^1.4").bounding_box()
    page.mouse.move(box["x"] + 10, box["y"] + 20)
    page.mouse.down()
    for step in range(1, 8):
        page.mouse.move(box["x"] + 10, box["y"] + 20 + step / 7 * (below["y"] + below["height"] - box["y"] - 24))
        page.wait_for_timeout(30)
    page.mouse.up()
    expect(page.get_by_text("tube between converter and body (this)")).to_be_visible()
    assert rows(page) == ["60 mm macro, f/2.8", "1.4× converter", "tube 12 mm"]


def test_the_lens_is_swapped_in_one_press(praline):
    page = praline
    pick(page, "Lens", "100 mm macro, f/2.8")
    expect(piece(page, "^100 mm macro")).to_be_visible()
    assert rows(page) == ["100 mm macro, f/2.8", "tube 12 mm"]
    page.keyboard.press("Control+z")
    expect(piece(page, "^60 mm macro")).to_be_visible()


def test_a_lens_turned_round_needs_what_a_turned_lens_needs(praline):
    page = praline
    choose(page, "60 mm")
    page.get_by_role("button", name="Turn it round").click()
    expect(tape(page, "Reach")).to_contain_text("needs attention")
    page.get_by_text("what it gives").click()
    pick(page, "Add a piece", "reversing ring, 52 mm")
    pick(page, "Add a piece", "tube 31 mm")
    expect(piece(page, "turned round")).to_be_visible()
    expect(tape(page, "Reach")).to_contain_text("×")
    expect(page.get_by_text("This rig gives this one size.")).to_be_visible()
    expect(page.get_by_text("The aperture cannot be set: turned round", exact=False).first).to_be_visible()


def test_a_caution_is_put_aside_and_stays_aside(praline):
    page = praline
    infinity = page.get_by_text(re.compile("Infinity is gone"))
    expect(infinity).to_be_visible()
    page.get_by_role("button", name=re.compile("Put aside: Infinity")).click()
    expect(infinity).to_have_count(0)
    saved(page)
    page.reload()
    page.get_by_role("button", name=re.compile("put aside: show")).click()
    expect(infinity).to_be_visible()
    page.get_by_role("button", name=re.compile("Show again: Infinity")).click()
    expect(page.get_by_role("button", name=re.compile("Put aside: Infinity"))).to_be_visible()


def search_for(page, width):
    """Ask for a frame of a width: the search beside the bench."""
    page.get_by_text("its width").click()
    type_into(page, "Frame width", width)
    return page.get_by_role("region", name="Search the kit")


def test_the_search_is_one_step_from_the_bench(praline):
    page = praline
    found = search_for(page, "18")
    expect(found.get_by_role("heading")).to_contain_text("gets 18 mm")
    type_into(page, "Room at least", "900")
    expect(found.get_by_role("heading")).to_contain_text("Nothing gets 18 mm with that much room")
    type_into(page, "Room at least", "20")
    expect(found.get_by_role("heading")).to_contain_text("gets 18 mm with")
    page.wait_for_timeout(2000)  # the last answer to what was typed may still be under way
    first = found.get_by_role("button", name=re.compile("^Take it")).first
    lens = first.get_attribute("aria-label").removeprefix("Take it: ").split(" · ")[0]
    first.press("Enter")
    expect(tape(page, "Reach")).to_contain_text("2×")
    expect(piece(page, re.escape(lens.split(",")[0]))).to_be_visible()
    expect(piece(page, "tube 12")).to_have_count(0)
    page.get_by_role("button", name="Undo").press("Enter")
    expect(piece(page, "tube 12")).to_be_visible()


def test_nothing_written_at_the_rig_lies_on_anything_else_written(praline):
    """Short lenses before long bellows: little room, and names longer than what they name."""
    page = praline
    found = search_for(page, "3.6")
    expect(found.get_by_role("heading")).to_contain_text("Nothing gets 3.6 mm with that much room")
    takes = found.get_by_role("button", name=re.compile("^Take it: .*bellows"))
    expect(takes.first).to_be_visible()
    expect(found.get_by_text("at f/8").first).to_be_visible()
    # Taking one of them changes nothing of what was found.
    for name in [take.get_attribute("aria-label") for take in takes.all()]:
        takes.and_(page.get_by_role("button", name=name, exact=True)).first.press("Enter")
        lens = name.removeprefix("Take it: ").split(",")[0]
        drawing = page.get_by_role("img", name=re.compile(rf"^The rig to scale.*{re.escape(lens)}"))
        written = drawing.locator("text")
        expect(written.filter(has_text="to work in")).to_be_visible()
        boxes = [each.bounding_box() for each in written.all()]
        assert len(boxes) >= 6
        for one, other in itertools.combinations(boxes, 2):
            across = min(one["x"] + one["width"], other["x"] + other["width"]) - max(one["x"], other["x"])
            down = min(one["y"] + one["height"], other["y"] + other["height"]) - max(one["y"], other["y"])
            assert across <= 0 or down <= 3, (name, one, other)


def test_the_kit_is_kept_changed_and_undone(page):
    page.get_by_role("link", name="Kit").click()
    expect(page.get_by_text("48 pieces, 42 of them on the table today.")).to_be_visible()
    pick(page, "Add a piece of your own", "tube")
    type_into(page, "Name", "odd tube")
    page.get_by_role("button", name="Put it on the shelf").click()
    expect(page.get_by_role("alert")).to_contain_text("Not on the shelf yet: length is missing")
    type_into(page, "Length", "7.5")
    page.get_by_role("button", name="Put it on the shelf").click()
    expect(page.get_by_role("button", name=re.compile("odd tube"))).to_contain_text("7.5 mm")
    page.get_by_role("checkbox", name="On the table: odd tube").focus()
    page.keyboard.press("Space")
    expect(page.get_by_text("49 pieces, 42 of them")).to_be_visible()
    saved(page)
    page.reload()
    page.get_by_role("button", name=re.compile("odd tube")).click()
    expect(field(page, "Length")).to_have_value("7.5")
    page.get_by_role("button", name="Take it out of the kit").click()
    expect(page.get_by_text("48 pieces")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("49 pieces")).to_be_visible()


def test_a_piece_taken_out_before_its_shots_are_known_goes_when_they_are(page):
    uses = Held(page, "**/api/kit/uses")
    page.get_by_role("link", name="Kit").click()
    page.get_by_role("button", name=re.compile("4× objective")).click()
    page.get_by_role("button", name="Take it out of the kit").click()
    expect(page.get_by_text("Looking which shots have this piece")).to_be_visible()
    expect(page.get_by_text("48 pieces")).to_be_visible()
    uses.release()
    expect(page.get_by_text("47 pieces")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("4× objective"))).to_have_count(0)
    saved(page)


def test_a_piece_in_a_shot_is_asked_about_and_the_shot_keeps_it(page):
    page.get_by_role("link", name="Kit").click()
    page.get_by_role("button", name=re.compile("10× objective")).click()
    page.get_by_role("button", name="Take it out of the kit").click()
    expect(page.get_by_text("One shot has this piece: Sugar bloom on a bar, 10×.")).to_be_visible()
    expect(page.get_by_role("button", name="Leave it")).to_be_focused()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Take it out of the kit").click()
    page.get_by_role("button", name="Take it out all the same").click()
    expect(page.get_by_role("button", name=re.compile("10× objective"))).to_have_count(0)
    saved(page)
    page.get_by_role("link", name="Shots").click()
    page.get_by_role("link", name=re.compile("Sugar bloom")).click()
    expect(tape(page, "Reach")).to_contain_text("10×")


def test_numbers_that_cannot_be_stay_with_a_sentence(page, complaints):
    page.get_by_role("link", name="Kit").click()
    page.get_by_role("button", name=re.compile("24 to 70 mm")).click()
    type_into(page, "Long end", "12")
    expect(page.get_by_text("must be longer than the short end", exact=False).first).to_be_visible()
    saved(page)
    type_into(page, "Short end", "-3")
    expect(page.get_by_text("Focal length must be more than 0 mm")).to_be_visible()
    expect(page.get_by_role("status")).to_contain_text("Not saved")
    expect(field(page, "Short end")).to_have_value("-3")
    complaints.clear()


def test_the_whole_kit_leaves_and_comes_back(page, tmp_path, complaints):
    page.get_by_role("link", name="Kit").click()
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as JSON").click()
    out = tmp_path / "kit.json"
    download.value.save_as(out)
    assert len(read_kit(out.read_bytes()).pieces) == 48
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as CSV").click()
    table = tmp_path / "kit.csv"
    download.value.save_as(table)
    assert read_table(table.read_bytes()).pieces == read_kit(out.read_bytes()).pieces
    document = json.loads(out.read_text())
    document["pieces"] = [{"gear": {"kind": "tube", "kit_id": "brought", "name": "brought tube", "length_mm": 9.0}}]
    (tmp_path / "more.json").write_text(json.dumps(document))
    bring(page, tmp_path / "more.json")
    expect(page.get_by_role("button", name=re.compile("brought tube"))).to_be_visible()
    (tmp_path / "wrong.csv").write_text("kind\nanvil\n")
    bring(page, tmp_path / "wrong.csv")
    expect(page.get_by_role("alert")).to_contain_text("“anvil” is no kind of gear")
    complaints.clear()


def bring(page, path, button="Bring in a file"):
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name=button).click()
    chooser.value.set_files(path)


def test_the_camera_is_turned_on_its_side_and_back(praline):
    page = praline
    size = re.compile(r"31\.\d × 20\.\d mm")
    expect(tape(page, "Reach")).to_contain_text(size)
    page.locator("label", has_text="Camera on its side").click()
    expect(tape(page, "Reach")).to_contain_text(re.compile(r"20\.\d × 31\.\d mm"))
    expect(tape(page, "Reach")).to_contain_text("1.15×")
    saved(page)
    page.reload()
    expect(page.get_by_role("checkbox", name="Camera on its side")).to_be_checked()
    page.locator("label", has_text="Camera on its side").click()
    expect(tape(page, "Reach")).to_contain_text(size)
    expect(tape(page, "Reach")).to_contain_text("1.15×")


def test_a_ruler_takes_the_place_of_the_model(praline):
    page = praline
    page.get_by_role("link", name="Measure with a ruler").click()
    page.get_by_role("button", name="Take a made-up one").click()
    expect(page.get_by_role("group", name=re.compile("ticks found"))).to_be_visible(timeout=WORK_MS)
    page.get_by_role("button", name="Work out the size").click()
    expect(page.get_by_text("the model says 1.15×: 1.7 % more.")).to_be_visible()
    page.get_by_role("button", name="Keep it for this rig").click()
    expect(page.get_by_role("button", name="Kept for this rig")).to_be_visible()
    page.get_by_role("link", name="Back to the shot").click()
    expect(page.get_by_text("every size here is corrected by that", exact=False)).to_be_visible()
    # Another rig is not corrected by it; this one again is.
    choose(page, "tube 12")
    page.get_by_role("button", name="Take out", exact=True).click()
    expect(page.get_by_text("every size here is corrected by that", exact=False)).to_have_count(0)
    pick(page, "Add a piece", "tube 12 mm")
    expect(page.get_by_text("every size here is corrected by that", exact=False)).to_be_visible()
    page.get_by_role("button", name="Use the model alone").click()
    expect(page.get_by_text("every size here is corrected by that", exact=False)).to_have_count(0)
    page.get_by_role("link", name="Trials", exact=True).click()
    entry = page.get_by_role("article").filter(has_text="36 × 24 mm body, 45 MP · tube 12 mm · 60 mm macro, f/2.8")
    expect(entry).to_contain_text("1.7 % more than its data sheets say")
    expect(entry).to_contain_text("used by every shot that comes to this rig anew")
    entry.get_by_role("button", name="Do not use it any more").click()
    expect(entry.get_by_role("button", name="Use this from now on")).to_be_visible()


def test_a_photograph_is_measured_by_hand_where_no_ruler_is_found(praline, tmp_path, complaints):
    page = praline
    page.get_by_role("link", name="Measure with a ruler").click()
    (tmp_path / "words.jpg").write_text("no picture at all")
    with page.expect_console_message(lambda message: message.type == "error"):
        bring(page, tmp_path / "words.jpg", "Choose the photograph")
    expect(page.get_by_role("alert")).to_contain_text("no picture that the program can read")
    complaints.clear()
    plain = ruler_picture(900, 600, 25.0) * 0 + 0.5
    (tmp_path / "plain.jpg").write_bytes(jpeg(plain))
    bring(page, tmp_path / "plain.jpg", "Choose the photograph")
    expect(page.get_by_text("No ruler was found", exact=False)).to_be_visible()
    picture = page.get_by_role("group", name="Points placed by hand")
    box = picture.bounding_box()
    picture.click(position={"x": box["width"] * 0.25, "y": 100})
    picture.click(position={"x": box["width"] * 0.75, "y": 100})
    expect(page.get_by_text("2 of 2 points placed.", exact=False)).to_be_visible()
    second = page.get_by_role("img", name=re.compile("Point 2"))
    second.focus()
    before = second.bounding_box()["x"]
    page.keyboard.press("Shift+ArrowRight")
    page.wait_for_function(
        "([mark, before]) => mark.getBoundingClientRect().x > before", arg=[second.element_handle(), before]
    )
    page.keyboard.press("Shift+ArrowLeft")
    type_into(page, "Between the two points", "15.7")
    page.get_by_role("button", name="Work out the size").click()
    # Half of 36 mm on the sensor is 15.7 mm of the ruler: 1.146 times.
    expect(page.get_by_text(re.compile(r"^1\.14\d×$"))).to_be_visible()


def test_a_lens_is_measured_with_two_tubes(praline):
    page = praline
    page.get_by_role("link", name="Measure with a ruler").click()
    page.get_by_role("button", name="Measure the lens with two tubes …").click()
    type_into(page, "Size then", "0.5")
    type_into(page, "Second tube", "20")
    type_into(page, "Size with it", "0.9")
    # 0.1 % of each size: sqrt(0.0005^2 + 0.0009^2) of 0.4 is 0.26 %, 0.13 mm of 50.
    for place in range(2):
        doubt = page.get_by_role("textbox", name="Give or take, %").nth(place)
        doubt.fill("0.1")
        doubt.press("Enter")
    page.get_by_text("closest focus", exact=True).click()
    page.get_by_role("button", name="Work out the lens").click()
    expect(page.get_by_text(re.compile(r"^50 ± 0\.1\d mm$"))).to_be_visible()
    page.get_by_role("button", name="Take these for this lens").click()
    expect(page.get_by_role("button", name="Taken for this lens")).to_be_visible()
    page.get_by_role("link", name="Back to the shot").click()
    choose(page, "60 mm macro")
    expect(field(page, "Measured, at closest")).to_have_value("50")
    page.get_by_role("link", name="Kit", exact=True).click()
    expect(page.get_by_role("heading", name="Kit")).to_be_visible()
    page.get_by_role("button", name=re.compile("^60 mm macro")).click()
    expect(field(page, "Measured, at closest")).to_have_value("50")
    page.get_by_role("link", name="Trials", exact=True).click()
    entry = page.get_by_role("article").filter(has_text="60 mm macro")
    expect(entry).to_contain_text("50 ± 0.13 mm at closest focus")
    entry.get_by_role("button", name="Do not use it any more").click()
    expect(entry.get_by_role("button", name="Use this from now on")).to_be_visible()


def test_an_empty_kit_invites_and_fills_in_one_step(open_page, tmp_path):
    server = Server(tmp_path / "own", "serve")
    page = open_page(f"{server.address}kit")
    expect(page.get_by_text("Nothing on the shelf yet.", exact=False)).to_be_visible()
    page.get_by_role("button", name="Start with all generic gear").click()
    expect(page.get_by_text("48 pieces, 48 of them on the table today.", exact=False)).to_be_visible()
    saved(page)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("Nothing on the shelf yet.", exact=False)).to_be_visible()
    page.get_by_role("link", name="Shots").click()
    page.get_by_role("button", name="New shot").click()
    station(page, "Reach")
    expect(page.get_by_text("these rows are of generic gear", exact=False)).to_be_visible()
    server.kill()
