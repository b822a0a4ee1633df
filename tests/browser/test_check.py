"""Station 8 from the page: frames looked through, what is missing named, proofs looked at, a killed server survived."""

import re

from playwright.sync_api import expect

from browser.conftest import WORK_MS, Held
from browser.test_journeys import field, station, tape


def open_check(page, shot):
    page.get_by_role("link", name=re.compile(shot)).click()
    station(page, "Check")
    expect(page.get_by_role("heading", name="Can the set come down?")).to_be_visible()


def shown_at(pane):
    """How a picture lies in its pane."""
    return pane.evaluate("pane => pane.firstElementChild.style.transform")


def test_what_is_missing_is_named_before_the_set_comes_down_and_the_proofs_are_looked_at(page):
    open_check(page, "Praline")
    expect(tape(page, "Check")).to_contain_text("no frames yet")
    page.get_by_role("button", name="Take them and look").click()
    expect(page.get_by_text(re.compile("^Not yet: .* mm is sharp in no frame"))).to_be_visible(timeout=WORK_MS)
    found = page.get_by_role("list", name="What was found")
    expect(found).to_contain_text("2 steps are missing between POD_0006.jpg and POD_0007.jpg")
    expect(found).to_contain_text("the light did not come")
    expect(tape(page, "Check")).to_contain_text("1 gap")
    picture = page.get_by_role("application", name=re.compile("The picture"))
    picture.click(position={"x": 200, "y": 120})
    expect(page.get_by_text("Held best by")).to_be_visible()
    before = page.get_by_text("Held best by").inner_text()
    for _ in range(9):
        picture.press("ArrowDown")
    expect(page.get_by_text("Held best by")).not_to_have_text(before)
    expect(page.get_by_role("img", name="Which depth each frame holds")).to_be_visible()

    page.get_by_role("radio", name="Proof").check(force=True)
    panes = [page.get_by_role("application", name=re.compile(name)) for name in ("by depth", "detail near its depth")]
    for pane in panes:
        expect(pane).to_be_visible()
        tile = pane.locator("img").first
        page.wait_for_function("image => image.complete && image.naturalWidth > 300", arg=tile.element_handle())
    page.get_by_role("radio", name="200 %").check(force=True)
    expect(panes[0].locator("img").last).to_have_js_property("complete", True)
    was = shown_at(panes[0])
    panes[0].press("ArrowRight")
    # Both are moved together, by the same: eighty pixels of the screen.
    page.wait_for_function(
        "([pane, was]) => pane.firstElementChild.style.transform !== was", arg=[panes[0].element_handle(), was]
    )
    assert shown_at(panes[0]) == shown_at(panes[1]) != was
    scale = float(re.search(r"scale\((.*)\)", was)[1])
    panes[1].press("+")
    page.wait_for_function(
        "([pane, scale]) => !pane.firstElementChild.style.transform.includes(`scale(${scale})`)",
        arg=[panes[0].element_handle(), scale],
    )
    assert float(re.search(r"scale\((.*)\)", shown_at(panes[0]))[1]) > 1.3 * scale
    page.get_by_role("radio", name="Whole").check(force=True)
    expect(panes[0].locator("svg text")).to_have_count(0)
    page.get_by_text("depth in mm").click()
    labels = panes[0].locator("svg text")
    expect(labels.first).to_contain_text(" mm")
    assert labels.count() >= 3
    differ = page.get_by_text(re.compile("where these two differ: .* % of it"))
    differ.click()
    page.get_by_role("button", name="On the right").click()
    page.get_by_role("option", name=re.compile("Frame 2,")).click()
    expect(differ).to_have_count(0)
    with page.expect_download() as download:
        page.get_by_role("link", name="Report as JSON").click()
    assert download.value.suggested_filename.endswith("-check.json")
    # The dark frame was left out; it is put back, and left out again.
    page.get_by_role("button", name="Use it all the same").click()
    back = page.get_by_role("button", name="Leave it out again")
    expect(back).to_be_visible(timeout=WORK_MS)
    expect(found).to_contain_text("it is used all the same")
    # The proof of the look before stands beside that of this one, at the same place.
    page.get_by_role("button", name="On the right").click()
    page.get_by_role("option", name=re.compile("^Proof of .*: by depth")).click()
    other = page.get_by_role("application", name=re.compile("^Proof of "))
    page.wait_for_function(
        "image => image.complete && image.naturalWidth > 300", arg=other.locator("img").first.element_handle()
    )
    expect(page.get_by_text("The other look lies by its place in the frame")).to_be_visible()


def test_a_look_rests_and_goes_on_a_plan_comes_later_and_slabs_are_taken_away(page):
    open_check(page, "Praline")
    page.get_by_role("button", name=re.compile("Without the plan")).click()
    page.get_by_text("judge by the plan of this shot").click()
    page.get_by_text(re.compile("slabs besides")).click()
    field(page, "Frames a slab").fill("6")
    field(page, "Frames a slab").press("Enter")
    for fault in ("two steps skipped", "a flash that did not fire"):
        page.get_by_text(fault).click()
    page.get_by_role("button", name="Take them and look").click()
    page.get_by_role("button", name="Rest").click(timeout=WORK_MS)
    expect(page.get_by_text("At rest: what is done stays")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_text("What is found in the frames will stand here.")).to_be_visible()
    page.reload()
    expect(page.get_by_text("At rest: what is done stays")).to_be_visible(timeout=WORK_MS)
    page.get_by_role("button", name="Go on", exact=True).click()
    slab = page.get_by_role("link", name=re.compile("^Slab 1: frames 1 to 6"))
    expect(slab).to_be_visible(timeout=WORK_MS)
    with page.expect_download() as download:
        slab.click()
    assert download.value.suggested_filename.endswith("-slab-01.tif")
    # The folder again, by no plan; then by the shot's, which asks for no new frames.
    page.get_by_role("button", name=re.compile("Other frames, or again")).click()
    page.get_by_role("button", name=re.compile("Without the plan")).click()
    page.get_by_text("judge by the plan of this shot").click()
    page.get_by_role("button", name="Look through the frames").click()
    expect(page.get_by_text("This was judged without the plan of this shot")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_text("no plan", exact=True)).to_be_visible()
    page.get_by_role("button", name="Judge it by the plan as it is now").click()
    expect(page.get_by_text("This was judged without the plan of this shot")).to_have_count(0, timeout=WORK_MS)
    expect(page.get_by_text("no plan", exact=True)).to_have_count(0, timeout=WORK_MS)
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_be_visible(timeout=WORK_MS)


def test_a_folder_that_is_not_there_is_said_at_its_field_and_stays_typed(page, complaints):
    open_check(page, "Ganache")
    box = field(page, "Folder that the frames are in")
    box.fill("/nowhere/at/all")
    page.get_by_role("button", name="Look through the frames").click()
    expect(page.get_by_text("There is no folder /nowhere/at/all.", exact=False)).to_be_visible()
    expect(box).to_have_value("/nowhere/at/all")
    complaints.clear()  # the browser's own word for a refusal


def test_a_look_that_a_killed_server_broke_off_is_finished_by_the_next(page, server, complaints):
    open_check(page, "Ganache")
    page.get_by_role("button", name="Take them and look").click()
    expect(page.get_by_text(re.compile("^(Looking|Waiting)|^(Not yet|Yes)")).first).to_be_visible(timeout=WORK_MS)
    server.kill()
    server.start()
    page.reload()
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_be_visible(timeout=WORK_MS)
    complaints.clear()  # while the server was gone
    # It says nothing of the frames of a run that is begun after it.
    station(page, "Run")
    page.get_by_role("button", name="Begin").click()
    expect(tape(page, "Check")).to_contain_text("no frames yet")
    station(page, "Check")
    expect(page.get_by_text("The frames of the last run are not looked through yet.").first).to_be_visible()
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_have_count(0)
    page.get_by_text(re.compile("^What was found before this run")).click()
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_be_visible()
    # Nor for a moment, while it is not known yet that there was a run.
    runs = Held(page, "**/api/shots/*/runs")
    with page.expect_response("**/api/jobs/*"):
        page.reload()
    page.wait_for_timeout(500)
    expect(page.get_by_role("heading", name="Can the set come down?")).to_be_visible()
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_have_count(0)
    expect(tape(page, "Check")).to_contain_text("no frames yet")
    runs.release()
    expect(page.get_by_text("The frames of the last run are not looked through yet.").first).to_be_visible()


def test_frames_of_another_folder_than_the_runs_are_said_to_be_none_of_it(page, tmp_path):
    open_check(page, "Ganache")
    page.get_by_role("button", name="Take them and look").click()
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_be_visible(timeout=WORK_MS)
    page.get_by_text("Other frames, or again").click()
    box = field(page, "Folder that the frames are in")
    looked_through = box.input_value()
    assert looked_through
    station(page, "Run")
    page.get_by_role("button", name="Begin").click()
    field(page, "Or: the folder that the camera writes to").fill(str(tmp_path))
    page.get_by_role("button", name="Count what arrives there").click()
    expect(page.get_by_text(f"Frames arrive in {tmp_path}")).to_be_visible()
    station(page, "Check")
    expect(box).to_have_value(str(tmp_path))
    box.fill(looked_through)
    page.get_by_role("button", name="Look through the frames").click()
    expect(page.get_by_text(f"Not the frames of the last run, which are in {tmp_path}.")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_be_visible()
    expect(tape(page, "Check")).to_contain_text("in another folder")
    page.get_by_text("Other frames, or again").click()
    expect(box).to_have_value(str(tmp_path))
