"""The notebook from the page: a run writes itself in, a line is kept and comes back where a like shot is planned."""

import re

from playwright.sync_api import expect

from browser.test_journeys import station
from browser.test_run import begin

LINE = "Close the window before the first frame."


def test_a_run_writes_itself_in_and_its_line_comes_back(page, server):
    begin(page, "Praline", "40")
    for frame in (2, 3):
        page.get_by_role("button", name="Taken").click()
        expect(page.get_by_role("heading", name=f"Next: frame {frame} of")).to_be_visible()
    page.get_by_role("button", name="Stop here").click()
    station(page, "Log")
    entry = page.get_by_role("article").first
    expect(entry.get_by_text("2 of 19 frames taken")).to_be_visible()
    panel = page.get_by_role("complementary").or_(page.get_by_role("region", name="Log")).first
    panel.get_by_text("usable", exact=True).click()
    panel.get_by_text("bump", exact=True).click()
    box = panel.get_by_label("Next time")
    box.fill(LINE)
    box.blur()
    expect(entry.get_by_text(LINE)).to_be_visible()
    expect(entry.get_by_text("usable \u00b7 bump")).to_be_visible()
    page.reload()
    expect(page.get_by_role("article").first.get_by_text(LINE)).to_be_visible()
    station(page, "Subject")
    expect(page.get_by_label("From the notebook").get_by_text(LINE)).to_be_visible()


def test_words_find_entries_two_stand_beside_each_other_and_one_is_made_anew(page, server):
    page.get_by_role("link", name="Notebook").click()
    expect(page.get_by_role("article").first).to_be_visible()
    box = page.get_by_label(re.compile("^Look for words"))
    box.fill("praline")
    box.press("Enter")
    expect(page.get_by_role("article")).to_have_count(2)
    page.get_by_role("button", name="Put beside").first.click()
    page.get_by_role("button", name="Put beside").first.click()
    table = page.get_by_role("table", name="Beside each other")
    expect(table.get_by_role("row", name=re.compile("^time 1 min 28 s 1 min 36 s"))).to_be_visible()
    page.get_by_role("button", name="As then").first.click()
    expect(page.get_by_text("Praline cross-section, hazelnut, again").first).to_be_visible()
