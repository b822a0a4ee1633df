"""One picture of each main view, from the demo data, into the folder given."""

import re
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

CHROMIUM_FLAGS = ["--no-sandbox", "--disable-quic", "--no-first-run", "--disable-background-networking"]
# name, shot (start of its name; empty for the list), station, theme, width x height
VIEWS = [
    ("shots", "", "", "paper", (1280, 800)),
    ("subject", "Cut cocoa", "subject", "paper", (1280, 800)),
    ("reach", "Praline", "reach", "paper", (1280, 800)),
    ("reach-objective", "Sugar", "reach", "dark", (1280, 800)),
    ("ruler", "Praline", "ruler", "paper", (1280, 800)),
    ("kit", "", "kit", "paper", (1280, 800)),
    ("aperture", "Ganache", "aperture", "paper", (1280, 800)),
    ("stack", "Praline", "stack", "dark", (1280, 800)),
    ("light", "Ganache", "light", "paper", (1024, 768)),
    ("run-dark", "Praline", "run", "dark", (1280, 800)),
    ("plane", "Bonbon", "plane", "paper", (1280, 800)),
    ("plane-dark", "Foil", "plane", "dark", (1280, 800)),
    ("side-by-side", "Bonbon", "compare", "paper", (1280, 800)),
    ("run-sheet", "Praline", "sheet", "paper", (1280, 800)),
    ("trials", "", "trials", "paper", (1280, 800)),
    ("notebook", "", "notebook", "paper", (1280, 800)),
    ("practice-dark", "", "practice", "dark", (1280, 800)),
    ("check", "Cut cocoa", "check", "paper", (1280, 800)),
    ("proof-dark", "Cut cocoa", "proof", "dark", (1280, 800)),
]


def main(folder):
    """Take every view; the server runs on a folder of its own."""
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, sync_playwright() as playwright:
        server = subprocess.Popen(
            [sys.executable, "-m", "just_plane.cli", "demo", "--data", data, "--port", "0"],
            stdout=subprocess.PIPE,
            text=True,
        )
        try:
            address = re.search(r"http://\S+/", server.stdout.readline()).group()
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM_FLAGS)
            for view in VIEWS:
                take(browser, address, folder, *view)
            browser.close()
        finally:
            server.kill()
            server.wait()


def take(browser, address, folder, name, shot, station, theme, size):
    """One picture."""
    page = browser.new_page(
        viewport={"width": size[0], "height": size[1]}, device_scale_factor=1, reduced_motion="reduce"
    )
    page.add_init_script(f"localStorage.setItem('just-plane.theme', '{theme}')")
    page.goto(address)
    link = page.get_by_role("link", name=re.compile(shot or "Cut"))
    link.wait_for()
    if station == "kit":
        page.goto(f"{address}kit")
        page.get_by_role("button", name=re.compile("^90 mm")).click()
    if station in PAGES:
        PAGES[station](page, address)
    if shot:
        at = {"compare": "plane", "proof": "check"}.get(station, station)
        page.goto(address + "/".join(link.get_attribute("href").strip("/").split("/")[:2]) + "/" + at)
        if station == "ruler":
            page.get_by_role("button", name="Take a made-up one").click()
            page.get_by_role("button", name="Work out the size").click()
            page.get_by_text("the model says").wait_for()
        elif at == "run":
            drive(page)
        elif at == "check":
            look_through(page, station)
        else:
            page.get_by_text(re.compile("hold.* all|Steps")).first.wait_for()
        if station == "compare":
            page.get_by_role("button", name=re.compile("Side by side")).click()
            page.get_by_role("img", name=re.compile("would look like")).nth(2).wait_for()
        if station == "reach":
            page.get_by_role("button", name=re.compile("Take it")).first.wait_for()
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(600)
    page.screenshot(path=folder / f"{name}.png")
    page.close()
    print(folder / f"{name}.png")


def drive(page):
    """A run by the simulated devices, with a knock, as far as it goes."""
    page.get_by_label(re.compile("^Rail reads")).fill("38.5")
    page.get_by_role("button", name="Begin").click()
    page.get_by_text("Who moves, who releases").wait_for()
    for words in ("simulated rail", "simulated camera"):
        page.get_by_text(words, exact=True).click()
    page.get_by_role("button", name="What may go wrong").click()
    for words in ("something is knocked", "the battery runs down"):
        page.get_by_text(words, exact=True).click()
    page.get_by_role("button", name="Let them work").click()
    page.get_by_text("The run stands still.").wait_for(timeout=60_000)
    page.get_by_text("The view jumped").wait_for(timeout=60_000)


def try_gear(page, address):
    """A made-up lens and a made-up rail, measured."""
    page.goto(f"{address}trials")
    for what, found in (
        ("What a step of a rail moves", "mm a division"),
        ("The best stop of a lens", "is the best stop"),
    ):
        page.get_by_role("button", name=re.compile("What$")).click()
        page.get_by_role("option", name=what).click()
        open_fold(page)
        page.get_by_role("button", name="Take the frames and measure").click()
        page.get_by_role("heading", name=re.compile(found)).wait_for(timeout=60_000)


def open_fold(page):
    """The simulated camera, where it is not open yet."""
    fold = page.get_by_role("button", name="With the simulated camera")
    if fold.get_attribute("aria-expanded") != "true":
        fold.click()


def open_notebook(page, address):
    """The season that the demo comes with."""
    page.goto(f"{address}notebook")
    page.get_by_role("article").first.wait_for()


def practise(page, address):
    """A shot of the demo as a set of one's own, with some tilt in it and its sharp edges marked."""
    page.goto(f"{address}practice")
    page.get_by_role("button", name=re.compile("Shot$")).click()
    page.get_by_role("option", name=re.compile("Bonbon tray")).click()
    page.get_by_role("button", name="Begin: A set of your own").click()
    page.get_by_role("img", name="What the camera shows").wait_for(timeout=30_000)
    for _ in range(4):
        page.keyboard.press("Shift+ArrowUp")
    page.get_by_role("button", name="Mark sharp edges").click()
    page.wait_for_timeout(1200)


PAGES = {"trials": try_gear, "notebook": open_notebook, "practice": practise}


def look_through(page, station):
    """Made-up frames of the shot, checked; they are taken once."""
    answer = page.get_by_text(re.compile("^Not yet: "))
    page.get_by_role("heading", name="Can the set come down?").wait_for()
    page.wait_for_timeout(800)
    if not answer.count():
        page.get_by_role("button", name="Take them and look").click()
        answer.wait_for(timeout=240_000)
    if station == "proof":
        page.get_by_role("radio", name="Proof").check(force=True)
        page.get_by_role("radio", name="100 %").check(force=True)
        page.get_by_text("depth in mm").click()
        page.locator("svg text").first.wait_for()
    else:
        page.get_by_role("application", name=re.compile("The picture")).click(position={"x": 330, "y": 120})
        page.get_by_text("Held best by").wait_for()


if __name__ == "__main__":
    main(Path(sys.argv[1]))
