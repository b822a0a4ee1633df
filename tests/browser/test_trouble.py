"""Absurd input, a pulled plug, two windows: a sentence each, and nothing lost."""

import re

import pytest
from playwright.sync_api import expect

from browser.test_journeys import field, saved, station, tape, type_into


@pytest.fixture
def pod_page(page):
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    expect(tape(page, "Subject")).to_contain_text("34 mm deep")
    return page


@pytest.mark.parametrize(
    ("typed", "sentence"),
    [
        ("deep", "is not a length"),
        ("-3", "Depth must be 0 mm or more"),
        ("1e308", "at most 100,000 mm"),
        ("0", "no room for an error of focus"),
        ("0.1um", "less than one wavelength"),
        ("", "A number is needed"),
    ],
)
def test_a_depth_that_cannot_be_is_told_beside_its_field(pod_page, complaints, typed, sentence):
    type_into(pod_page, "Depth", typed)
    around = pod_page.locator("[data-rac]").filter(has=field(pod_page, "Depth")).last
    expect(around).to_contain_text(re.compile(sentence))
    told = field(pod_page, "Depth").get_attribute("aria-describedby").split()
    texts = [pod_page.locator(f"[id='{each}']").text_content() for each in told]
    assert any(re.search(sentence, text) for text in texts)
    assert "NaN" not in pod_page.content()
    type_into(pod_page, "Depth", "20")
    expect(tape(pod_page, "Subject")).to_contain_text("20 mm deep")
    saved(pod_page)
    complaints[:] = [text for text in complaints if "422" not in text]


def test_what_is_refused_stays_in_the_field_and_undo_goes_back(pod_page, complaints):
    type_into(pod_page, "Depth", "-3")
    expect(pod_page.get_by_role("status")).to_contain_text("Not saved")
    expect(tape(pod_page, "Subject")).to_contain_text("needs attention")
    # What is drawn and said beside it is the last plan that could be made, and says so.
    expect(tape(pod_page, "Subject")).to_contain_text("34 mm deep")
    expect(pod_page.locator("footer")).to_contain_text("Before the marked field was typed: ")
    pod_page.get_by_role("button", name="Undo").click()
    expect(pod_page.locator("footer")).not_to_contain_text("Before the marked field")
    expect(tape(pod_page, "Subject")).to_contain_text("34 mm deep")
    saved(pod_page)
    complaints[:] = [text for text in complaints if "422" not in text]


def test_a_frame_out_of_reach_says_what_the_rig_gives(pod_page):
    station(pod_page, "Reach")
    type_into(pod_page, "Magnification", "4:1")
    expect(pod_page.locator("main")).to_contain_text("4× is beyond this rig: it gives at most 1×. Add a tube")
    expect(tape(pod_page, "Reach")).to_contain_text("no reach")
    assert "NaN" not in pod_page.content()
    type_into(pod_page, "Magnification", "1:2")
    expect(tape(pod_page, "Reach")).to_contain_text("0.5×")


def test_a_file_that_is_no_shot_is_a_sentence(page, tmp_path, complaints):
    for name, content, sentence in [
        ("cut.json", "{", "cut short or is not JSON"),
        ("newer.json", '{"format": "just-plane/shot", "version": 9}', "version 9"),
        ("huge.json", "x" * 6_100_000, "a shot file holds less than 6 MB"),
    ]:
        (tmp_path / name).write_text(content)
        with page.expect_file_chooser() as chooser:
            page.get_by_role("button", name="Open a shot file").click()
        chooser.value.set_files(tmp_path / name)
        expect(page.get_by_role("alert")).to_contain_text(sentence)
    expect(page.get_by_role("link", name=re.compile("Cut cocoa pod"))).to_have_count(1)
    complaints[:] = [text for text in complaints if "422" not in text]


def test_a_pulled_plug_loses_nothing(pod_page, server, complaints):
    saved(pod_page)
    server.kill()
    type_into(pod_page, "Depth", "21")
    expect(pod_page.get_by_role("alert")).to_contain_text("held in this browser")
    server.start()
    saved(pod_page)
    expect(pod_page.get_by_role("alert")).to_have_count(0)
    pod_page.reload()
    expect(tape(pod_page, "Subject")).to_contain_text("21 mm deep")
    complaints.clear()


def test_a_window_closed_while_the_program_was_down_is_taken_up_again(pod_page, server, open_page, complaints):
    address = pod_page.url
    saved(pod_page)
    server.kill()
    type_into(pod_page, "Depth", "22")
    expect(pod_page.get_by_role("alert")).to_contain_text("held in this browser")
    pod_page.close()
    server.start()
    again = open_page(address)
    expect(tape(again, "Subject")).to_contain_text("22 mm deep")
    saved(again)
    complaints.clear()


def test_a_second_window_follows_the_first(pod_page, open_page):
    other = open_page(pod_page.url)
    expect(tape(other, "Subject")).to_contain_text("34 mm deep")
    type_into(pod_page, "Depth", "23")
    expect(tape(other, "Subject")).to_contain_text("23 mm deep")


@pytest.mark.parametrize(("choice", "depth"), [("Keep mine", "25 mm deep"), ("Take theirs", "24 mm deep")])
def test_two_windows_at_odds_are_asked_and_both_versions_stay(pod_page, open_page, chromium, complaints, choice, depth):
    # Another browser knows nothing of this one's windows, so no message passes between them.
    elsewhere = chromium.new_context()
    theirs = elsewhere.new_page()
    theirs.goto(pod_page.url)
    type_into(theirs, "Depth", "24")
    saved(theirs)
    type_into(pod_page, "Depth", "25")
    expect(pod_page.get_by_role("alert")).to_contain_text("changed in another window")
    pod_page.get_by_role("button", name=re.compile(choice)).click()
    expect(tape(pod_page, "Subject")).to_contain_text(depth)
    saved(pod_page)
    if choice == "Keep mine":
        pod_page.get_by_role("button", name="Undo").click()
        expect(tape(pod_page, "Subject")).to_contain_text("24 mm deep")
    elsewhere.close()
    complaints[:] = [text for text in complaints if "409" not in text]


def test_an_address_that_leads_nowhere_says_so(open_page, server, complaints):
    page = open_page(f"{server.address}nowhere/at/all")
    expect(page.get_by_role("heading", name="There is nothing at this address.")).to_be_visible()
    page.goto(f"{server.address}shots/0123456789ab/subject")
    expect(page.get_by_text("There is no such shot.")).to_be_visible()
    complaints[:] = [text for text in complaints if "404" not in text]


def test_a_step_table_that_cannot_be_had_says_so(pod_page, complaints):
    pod_page.route("**/api/plan/steps*", lambda route: route.abort())
    station(pod_page, "Run")
    expect(pod_page.get_by_role("region", name="Step table").get_by_role("alert")).to_contain_text("not answering")
    complaints.clear()


def test_a_draft_of_each_window_is_offered_and_none_writes_over_another(pod_page, server, open_page, complaints):
    address = pod_page.url
    other = open_page(address)
    expect(tape(other, "Subject")).to_contain_text("34 mm deep")
    saved(pod_page)
    server.kill()
    type_into(pod_page, "Depth", "26")
    expect(pod_page.get_by_role("alert")).to_contain_text("held in this browser")
    type_into(other, "Depth", "27")
    expect(other.get_by_role("alert")).to_contain_text("held in this browser")
    pod_page.close()
    other.close()
    server.start()
    again = open_page(address)
    # The one typed last is taken up, the other one is offered.
    expect(tape(again, "Subject")).to_contain_text("27 mm deep")
    saved(again)
    expect(again.get_by_role("alert")).to_contain_text("Another window left a draft of this unsaved")
    again.get_by_role("button", name=re.compile("Take it up")).click()
    expect(tape(again, "Subject")).to_contain_text("26 mm deep")
    saved(again)
    again.get_by_role("button", name="Undo").click()
    expect(tape(again, "Subject")).to_contain_text("27 mm deep")
    complaints.clear()


def test_a_shot_put_away_in_another_window_says_so_and_comes_back(pod_page, open_page):
    saved(pod_page)
    name = pod_page.get_by_role("banner").get_by_text("Cut cocoa pod").inner_text()
    other = open_page(pod_page.url)
    other.get_by_role("link", name="Shots").click()
    other.get_by_role("button", name=f"Put away {name}").click()
    expect(other.get_by_role("link", name=re.compile("Cut cocoa pod"))).to_have_count(0)
    type_into(pod_page, "Depth", "28")
    expect(pod_page.get_by_role("alert")).to_contain_text("This was put away")
    pod_page.get_by_role("button", name="Bring it back").click()
    expect(pod_page.get_by_role("alert")).to_have_count(0)
    expect(tape(pod_page, "Subject")).to_contain_text("28 mm deep")


def test_a_shot_that_went_for_good_is_kept_as_a_new_one(pod_page, open_page, complaints):
    saved(pod_page)
    other = open_page(pod_page.url)
    other.get_by_role("link", name="Shots").click()
    other.get_by_role("button", name=re.compile("Put away Cut cocoa pod")).click()
    other.get_by_role("button", name="Put away …").click()
    other.get_by_role("button", name="Empty this list for good …").click()
    expect(other.get_by_role("status")).to_contain_text("1 shot with")
    other.get_by_role("button", name="Empty it for good").click()
    expect(other.get_by_text("Nothing has been put away.")).to_be_visible()
    type_into(pod_page, "Depth", "29")
    expect(pod_page.get_by_role("alert")).to_contain_text("There is no such shot")
    pod_page.get_by_role("button", name="Keep it as a new one").click()
    expect(tape(pod_page, "Subject")).to_contain_text("29 mm deep")
    saved(pod_page)
    complaints.clear()


def test_what_is_being_typed_survives_a_reload(pod_page):
    depth = pod_page.get_by_role("textbox", name="Depth", exact=True)
    depth.fill("3")
    pod_page.reload()
    expect(pod_page.get_by_role("textbox", name="Depth", exact=True)).to_have_value("3")
    notes = pod_page.get_by_role("textbox", name="Notes")
    notes.fill("half a sent")
    found = "async () => (await (await fetch('/api/shots?text=half a sent')).json()).shots.length"
    for _ in range(100):
        if pod_page.evaluate(found):
            break
        pod_page.wait_for_timeout(100)
    pod_page.reload()
    expect(pod_page.get_by_role("textbox", name="Notes")).to_have_value("half a sent")


def test_a_browser_that_keeps_nothing_is_worked_in_all_the_same(chromium, server, complaints):
    window = chromium.new_context()
    denied = "{ get() { throw new DOMException('denied', 'SecurityError') } }"
    for store in ("localStorage", "sessionStorage"):
        window.add_init_script(f"Object.defineProperty(window, '{store}', {denied})")
    page = window.new_page()
    page.goto(server.address)
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    expect(tape(page, "Subject")).to_contain_text("34 mm deep")
    type_into(page, "Depth", "30")
    expect(tape(page, "Subject")).to_contain_text("30 mm deep")
    saved(page)
    page.get_by_role("button", name="Darken").click()
    page.get_by_role("button", name="Undo").click()
    expect(tape(page, "Subject")).to_contain_text("34 mm deep")
    window.close()


def test_presses_of_an_arrow_are_one_step_of_undo(pod_page):
    pod_page.get_by_role("textbox", name="Depth", exact=True).focus()
    # From the page itself: presses from outside may lie seconds apart on a busy machine, and then mean several things.
    pod_page.evaluate("""async () => { for (let press = 0; press < 6; press++) {
        document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
        await new Promise((done) => setTimeout(done, 60)); } }""")
    expect(tape(pod_page, "Subject")).not_to_contain_text("34 mm deep")
    pod_page.wait_for_timeout(2000)  # it says Saved between two presses too
    saved(pod_page)
    pod_page.get_by_role("button", name="Undo").click()
    expect(tape(pod_page, "Subject")).to_contain_text("34 mm deep")


def test_a_machine_without_a_network_is_worked_on_as_with_one(page):
    """The browser says that there is none: the program on the same machine answers all the same."""
    page.evaluate(
        "() => { Object.defineProperty(navigator, 'onLine', { get: () => false });"
        " window.dispatchEvent(new Event('offline')); }"
    )
    page.get_by_role("link", name=re.compile("Cut cocoa pod")).click()
    type_into(page, "Depth", "20")
    expect(tape(page, "Subject")).to_contain_text("20 mm deep")
    saved(page)
    page.get_by_role("link", name="Shots", exact=True).click()
    expect(page.get_by_role("link", name=re.compile("Cut cocoa pod"))).to_be_visible()
    page.get_by_role("button", name="New shot").click()
    expect(tape(page, "Subject")).to_be_visible()
