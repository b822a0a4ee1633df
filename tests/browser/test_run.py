"""Station 7 from the page: a run by hand, by key and by press, broken off, gone on with, mended where a check says."""

import re
import shutil

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from browser.conftest import WORK_MS, Held
from browser.test_journeys import station, tape, type_into


def begin(page, shot, mark):
    page.get_by_role("link", name=re.compile(shot)).click()
    station(page, "Run")
    address, of_shot = re.match(r"(.*/)shots/(\w+)/", page.url).groups()
    before = len(page.request.get(f"{address}api/log?shot={of_shot}").json()["entries"])
    type_into(page, re.compile("^Rail reads"), mark)
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("heading", name=re.compile("Next: frame 1 of"))).to_be_visible()
    # It stands in the notebook from its beginning on.
    expect(tape(page, "Log")).to_contain_text(re.compile(f"{before + 1} entr"))


def test_a_run_by_hand_survives_a_killed_server_and_goes_on_with_the_right_frame(page, server, complaints):
    begin(page, "Praline", "40")
    expect(page.get_by_role("status", name="Set to")).to_have_text("40.00")
    for frame in range(2, 5):
        page.get_by_role("button", name="Taken").click()
        expect(page.get_by_role("heading", name=f"Next: frame {frame} of")).to_be_visible()
    page.locator("main").first.click(position={"x": 900, "y": 400})
    page.keyboard.press("Space")
    expect(page.get_by_role("heading", name="Next: frame 5 of")).to_be_visible()
    expect(tape(page, "Run")).to_contain_text("4 of 19")
    server.kill()
    server.start()
    page.reload()
    expect(page.get_by_role("heading", name="Next: frame 5 of")).to_be_visible()
    expect(page.get_by_text("the last frame counted is 4")).to_be_visible()
    page.get_by_role("button", name="Pause").click()
    expect(tape(page, "Run")).to_contain_text("paused")
    page.get_by_role("button", name="Go on").click()
    page.get_by_role("button", name="Leave it out").click()
    expect(page.get_by_role("heading", name="Next: frame 6 of")).to_be_visible()
    expect(page.get_by_text("1.06 mm on from the last")).to_be_visible()
    complaints.clear()  # while the server was gone


def test_a_run_is_begun_and_counted_by_the_keyboard_alone(page, server, complaints):
    page.get_by_role("link", name=re.compile("Praline")).click()
    station(page, "Run")
    begin = page.get_by_role("button", name="Begin")
    expect(begin).to_be_enabled()  # once the plan has come
    begin.focus()
    page.keyboard.press("Enter")
    taken = page.get_by_role("button", name="Taken")
    # The button that was pressed is gone: the next thing to press has the focus, and keeps it while it is answered.
    expect(taken).to_be_focused()
    frames = int(re.search(r"of (\d+)", page.get_by_role("heading", name="Next: frame 1 of").inner_text()).group(1))
    for frame in range(2, frames + 1):
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=f"Next: frame {frame} of")).to_be_visible()
        expect(taken).to_be_focused()
        expect(taken).to_be_enabled()
    page.keyboard.press("Enter")
    expect(page.get_by_role("link", name="Check them")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Can the set come down?")).to_be_visible()
    # Where the frames are is typed at once, and Enter sends it.
    expect(page.get_by_label("Folder that the frames are in")).to_be_focused()
    page.keyboard.type("/nowhere/at/all")
    page.keyboard.press("Enter")
    expect(page.get_by_text("There is no folder /nowhere/at/all.", exact=False)).to_be_visible()
    complaints.clear()  # the refusal


def test_a_run_that_is_not_known_yet_is_not_begun_again(page, server):
    begin(page, "Praline", "40")
    held = [Held(page, f"**/api/{asked}") for asked in ("shots/*/runs", "log?*")]
    page.reload()
    expect(page.get_by_role("row").nth(5)).to_be_visible()  # of the steps of the plan
    page.wait_for_timeout(500)
    expect(page.get_by_role("button", name="Begin")).to_have_count(0)
    station(page, "Log")
    expect(page.get_by_role("region", name="Entries of this shot")).to_be_visible()
    page.wait_for_timeout(500)
    expect(page.get_by_text("Nothing to log yet")).to_have_count(0)
    for each in held:
        each.release()
    expect(page.get_by_role("heading", name="The last run")).to_be_visible()
    station(page, "Run")
    expect(page.get_by_role("heading", name="Next: frame 1 of")).to_be_visible()


def test_an_answer_of_before_a_press_that_comes_after_it_takes_nothing_back(page, server):
    begin(page, "Praline", "40")
    asked = []
    page.route("**/api/shots/*/runs", lambda route: asked.append((route, route.fetch() if not asked else None)))
    for _ in range(200):  # the window looks again every two seconds
        if asked:
            break
        page.wait_for_timeout(100)
    page.get_by_role("button", name="Taken").click()
    expect(page.get_by_role("heading", name="Next: frame 2 of")).to_be_visible()
    route, before = asked[0]
    route.fulfill(response=before)
    page.wait_for_timeout(500)  # nothing to be seen comes of it; those asked since are not answered
    expect(page.get_by_role("heading", name="Next: frame 2 of")).to_be_visible()
    page.get_by_role("button", name="Taken").click()
    expect(page.get_by_role("heading", name="Next: frame 3 of")).to_be_visible()


def test_two_windows_of_one_run_never_count_a_frame_twice(page, open_page, server, complaints):
    begin(page, "Praline", "40")
    other = open_page(page.url)
    expect(other.get_by_role("heading", name="Next: frame 1 of")).to_be_visible()
    page.get_by_role("button", name="Taken").click()
    expect(page.get_by_role("heading", name="Next: frame 2 of")).to_be_visible()
    other.get_by_role("button", name="Taken").click()
    expect(other.get_by_role("heading", name=re.compile("Next: frame [23] of"))).to_be_visible()
    page.reload()
    expect(page.get_by_role("heading", name=re.compile("Next: frame [23] of"))).to_be_visible()
    assert len(complaints) <= 1  # a refusal, where the second window had not looked yet: not sent again
    complaints.clear()


def test_a_run_begun_in_another_window_is_gone_on_with(page, open_page, server, complaints):
    page.get_by_role("link", name=re.compile("Praline")).click()
    station(page, "Run")
    begin_here = page.get_by_role("button", name="Begin")
    expect(begin_here).to_be_enabled()
    other = open_page(server.address)
    begin(other, "Praline", "40")
    other.get_by_role("button", name="Taken").click()
    expect(other.get_by_role("heading", name="Next: frame 2 of")).to_be_visible()
    begin_here.click()
    expect(page.get_by_role("heading", name="Next: frame 2 of")).to_be_visible()
    expect(page.get_by_text("A run of this shot is under way.", exact=False)).to_be_visible()
    page.get_by_role("button", name="Taken").click()
    expect(page.get_by_text("A run of this shot is under way.", exact=False)).to_have_count(0)
    expect(other.get_by_role("heading", name="Next: frame 3 of")).to_be_visible()
    complaints.clear()  # the refusal


def test_frames_that_a_check_misses_are_added_to_the_run_with_one_press(page, server):
    begin(page, "Praline", "40")
    page.get_by_role("button", name="Stop here").click()
    station(page, "Check")
    page.get_by_role("button", name="Take them and look").click()
    more = page.get_by_role("button", name="Take 2 more")
    more.wait_for(timeout=WORK_MS)
    more.click()
    expect(page.get_by_role("heading", name=re.compile("Next: frame"))).to_be_visible()
    expect(tape(page, "Run")).to_contain_text("0 of 21")


def test_pictures_that_arrive_in_a_folder_are_counted_one_by_one_and_several_are_asked_about(page, server, tmp_path):
    cards, card = tmp_path / "made", tmp_path / "card"
    cards.mkdir()
    card.mkdir()
    for seed, name in enumerate(("old.jpg", "a1.jpg", "a2.jpg", "a3.jpg", "a4.jpg", "b1.jpg")):
        exif = Image.Exif()
        exif[272] = f"body {name[0]}"
        picture = np.random.default_rng(seed).integers(0, 255, (64, 96, 3), dtype=np.uint8)
        Image.fromarray(picture).save(cards / name, exif=exif.tobytes())
    shutil.copy2(cards / "old.jpg", card)
    begin(page, "Praline", "40")
    box = page.get_by_label("Or: the folder that the camera writes to")
    box.fill(str(card))
    box.press("Enter")
    page.get_by_role("button", name="Count what arrives there").click()
    expect(page.get_by_text(f"Frames arrive in {card}")).to_be_visible()
    expect(page.get_by_role("heading", name="Next: frame 1 of")).to_be_visible()
    shutil.copy2(cards / "a1.jpg", card)
    expect(page.get_by_role("heading", name="Next: frame 2 of")).to_be_visible(timeout=WORK_MS)
    for name in ("a2.jpg", "a3.jpg"):
        shutil.copy2(cards / name, tmp_path / "hold")
        (tmp_path / "hold").rename(tmp_path / name)
    page.get_by_role("button", name="Pause").click()
    for name in ("a2.jpg", "a3.jpg"):
        (tmp_path / name).rename(card / name)
    page.get_by_role("button", name="Go on").click()
    asked = page.get_by_text("2 pictures came since the last frame. Which is frame 2?", exact=False)
    expect(asked).to_be_visible(timeout=WORK_MS)
    page.get_by_role("button", name="a3.jpg").click()
    expect(page.get_by_role("heading", name="Next: frame 3 of")).to_be_visible()
    # The one passed over is not taken for the next.
    page.wait_for_timeout(2500)
    expect(page.get_by_role("heading", name="Next: frame 3 of")).to_be_visible()
    # Nor is one that another camera took, nor a copy of one that is counted.
    for stray, why in (("b1.jpg", "another camera, body b"), ("copy.jpg", "the same file as frame 1, a1.jpg")):
        shutil.copy2(cards / stray.replace("copy", "a1"), card / stray)
        expect(page.get_by_text(why, exact=False)).to_be_visible(timeout=WORK_MS)
        expect(page.get_by_role("heading", name="Next: frame 3 of")).to_be_visible()
        page.get_by_role("button", name="It is none of this run").click()
        expect(page.get_by_text(why, exact=False)).to_have_count(0, timeout=WORK_MS)
    shutil.copy2(cards / "a4.jpg", card)
    expect(page.get_by_role("heading", name="Next: frame 4 of")).to_be_visible(timeout=WORK_MS)


def test_white_balance_is_read_from_a_frame_of_grey(page, server, tmp_path):
    begin(page, "Praline", "40")
    grey = tmp_path / "grey.png"
    Image.fromarray(np.full((90, 120, 3), (150, 120, 90), np.uint8)).save(grey)
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Read a frame of grey").click()
    chooser.value.set_files(grey)
    expect(page.get_by_text("Red × 0.62 and blue × 1.84 make the frames neutral. From grey.png.")).to_be_visible()
    page.reload()
    expect(page.get_by_text("From grey.png.", exact=False)).to_be_visible()


def test_ticks_of_sound_can_be_off_and_stay_so(page, server):
    begin(page, "Praline", "40")
    ticks = page.get_by_role("checkbox", name="Ticks of sound")
    expect(ticks).to_be_checked()
    ticks.locator("xpath=ancestor::label").click()
    page.reload()
    expect(page.get_by_role("checkbox", name="Ticks of sound")).not_to_be_checked()
