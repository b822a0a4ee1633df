"""Station 8 from the page: frames looked through, what is missing named, proofs looked at, a killed server survived."""

import re

from playwright.sync_api import expect

from browser.test_journeys import field, station, tape

PATIENCE_MS = 150_000


def open_check(page, shot):
    page.get_by_role("link", name=re.compile(shot)).click()
    station(page, "Check")
    expect(page.get_by_role("heading", name="Can the set come down?")).to_be_visible()


def test_what_is_missing_is_named_before_the_set_comes_down_and_the_proofs_are_looked_at(page):
    open_check(page, "Praline")
    expect(tape(page, "Check")).to_contain_text("no frames yet")
    page.get_by_role("button", name="Take them and look").click()
    expect(page.get_by_text(re.compile("^Not yet: .* mm is sharp in no frame"))).to_be_visible(timeout=PATIENCE_MS)
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
    for name in ("Proof: by depth", "Proof: detail near its depth"):
        image = page.get_by_role("img", name=name)
        expect(image).to_be_visible()
        page.wait_for_function("image => image.complete && image.naturalWidth > 600", arg=image.element_handle())
    page.get_by_role("radio", name="200 %").check(force=True)
    panes = page.locator("div[data-scale=double]")
    panes.first.evaluate("pane => pane.scrollTo(120, 90)")
    expect(panes.last).to_have_js_property("scrollLeft", 120)
    expect(panes.last).to_have_js_property("scrollTop", 90)
    with page.expect_download() as download:
        page.get_by_role("link", name="Report as JSON").click()
    assert download.value.suggested_filename.endswith("-check.json")


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
    expect(page.get_by_text(re.compile("^(Looking|Waiting)|^(Not yet|Yes)")).first).to_be_visible(timeout=PATIENCE_MS)
    server.kill()
    server.start()
    page.reload()
    expect(page.get_by_text(re.compile("^(Not yet|Yes, the set)"))).to_be_visible(timeout=PATIENCE_MS)
    complaints.clear()  # while the server was gone
