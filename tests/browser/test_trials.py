"""Trials from the page: a made-up lens is found to be what it is, and the next shot's plan says so."""

import re

from playwright.sync_api import expect

from browser.conftest import WORK_MS
from just_plane.drive.trial_frames import write_trial_frames


def pick(page, label, option):
    page.get_by_role("button", name=re.compile(label)).click()
    page.get_by_role("option", name=re.compile(option)).first.click()


def test_a_lens_is_measured_believed_and_named_in_the_plan(page, server):
    page.get_by_role("link", name="Trials").click()
    expect(page.get_by_text("Nothing yet.")).to_be_visible()
    page.get_by_role("button", name="Measure it").click()
    expect(page.get_by_text("Which folder are the frames in?")).to_be_visible()
    pick(page, "Of which piece of the kit", "macro")
    page.get_by_role("button", name="With the simulated camera").click()
    page.get_by_role("button", name="Take the frames and measure").click()
    truth = page.get_by_text(re.compile(r"Taken of what is known: This lens is best at f/"))
    best = truth.inner_text(timeout=WORK_MS).split("f/")[-1].rstrip(".")
    # The frames are others each time: the best stop or, where two differ by less than the noise, one as good.
    among = re.compile(rf"^(?=.*\W{re.escape(best)} ).*is the best stop of made-up 100 mm macro")
    found = page.get_by_role("heading", name=among)
    expect(found).to_be_visible(timeout=WORK_MS)
    page.get_by_role("button", name="Use this from now on").click()
    expect(page.get_by_text(re.compile("used by .*in the kit"))).to_be_visible()
    page.get_by_role("button", name="Do not use it any more").click()
    page.get_by_role("button", name="Put it aside").click()
    page.get_by_role("button", name=re.compile("Show what was put aside")).click()
    expect(page.get_by_role("heading", name=re.compile("is the best stop"))).to_be_visible()


def test_a_folder_without_frames_is_refused_at_once(page, server, tmp_path, complaints):
    page.get_by_role("link", name="Trials").click()
    box = page.get_by_label("Folder that the frames are in")
    box.fill(str(tmp_path))
    box.press("Enter")
    page.get_by_role("button", name="Measure it").click()
    expect(page.get_by_role("alert").filter(has_text="There are no frames")).to_be_visible()
    complaints.clear()  # the refusal


def test_frames_are_chosen_on_the_page_and_measured(page, server, tmp_path):
    made = write_trial_frames(tmp_path / "card", "stops", 3, 0.01)
    page.get_by_role("link", name="Trials").click()
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Choose the frames").click()
    chooser.value.set_files(sorted((tmp_path / "card").iterdir()))
    expect(page.get_by_text("32 frames were taken in")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_label("Folder that the frames are in")).to_have_value(re.compile("brought"))
    for label, value in (("Size on the sensor", "1"), ("Pixel, µm", "6")):
        page.get_by_label(label).fill(value)
    page.get_by_role("button", name="Measure it").click()
    best = made.truth.split("f/")[-1].rstrip(".")
    expect(page.get_by_role("heading", name=f"f/{best} is the best stop")).to_be_visible(timeout=WORK_MS)
