"""Benchmarks: medians and ratios, printed as a table and kept in the file given."""

import gzip
import http.client
import platform
import re
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path

import numpy as np
from playwright.sync_api import sync_playwright
from scipy.integrate import quad

from just_plane.contract.kit import Kit
from just_plane.contract.points import ByRail, Point
from just_plane.contract.search import SearchAsked
from just_plane.contract.shot_file import write_shot
from just_plane.core.contrast import contrast, contrast_through_focus
from just_plane.core.frames.ruler import find_ruler
from just_plane.core.frames.ruler_picture import ruler_picture
from just_plane.core.scene import render
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.kit.search import search
from just_plane.planning.pictures.preview import preview
from just_plane.planning.words.numbers import Wording
from just_plane.shelf.starter import starter_shelf

PAGE = Path(__file__).parents[1] / "src" / "just_plane" / "web" / "page"


def median_s(work, rounds):
    """Median time of ``work()``, s."""
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return statistics.median(times)


def twelve_points():
    """The bonbon tray with twelve points to be sharp."""
    tray = demo_shots()[0]
    rng = np.random.default_rng(4)
    points = list(tray.plane.points)
    for index in range(13 - len(points)):
        left, top = rng.uniform(0.1, 0.9, 2)
        depth = ByRail(by="rail", readings_mm=[62 + 72 * (0.5 - float(top)) + float(rng.normal(0, 0.5))])
        points.append(Point(id=f"more-{index}", from_left=float(left), from_top=float(top), depth=depth))
    return tray.model_copy(update={"plane": tray.plane.model_copy(update={"points": points})})


def preview_of_a_frame():
    """Medians (s): rendering 960 by 640 pixels alone, and a whole picture of the tilted tray."""
    rng = np.random.default_rng(2)
    texture, blur = rng.random((640, 960, 3)), np.tile(np.linspace(0, 0.04, 960), (640, 1))
    tray = demo_shots()[0]
    return (
        median_s(lambda: render(texture, blur, 10.0, 0.0044), 7),
        median_s(lambda: preview(tray, "tilt", "pixels", 0.5, 0.4), 7),
    )


def plan_against_nothing(address, shot):
    """Medians (s) of a full plan and of the route that only answers, in turns on one connection each."""
    host = address.removeprefix("http://").strip("/")
    connection = http.client.HTTPConnection(host)
    body = write_shot(shot).encode()

    def ask(method, path, content=None):
        start = time.perf_counter()
        connection.request(method, path, content, {"Content-Type": "application/json"})
        response = connection.getresponse()
        response.read()
        assert response.status == 200
        return time.perf_counter() - start

    turns = [(ask("POST", "/api/plan", body), ask("GET", "/api/alive")) for _ in range(300)]
    return tuple(statistics.median(column) for column in zip(*turns, strict=True))


def search_of_40_pieces():
    """Median time (s) of three searches through forty pieces of kit, and rows tried."""
    shelf = starter_shelf()
    kit = Kit(format="just-plane/kit", version=1, pieces=shelf.pieces[:40])
    body = shelf.pieces[0].gear
    asked = [
        SearchAsked(body=body, frame_width_mm=width, room_mm=room) for width, room in ((32, 60), (18, 30), (72, 100))
    ]
    time_s = median_s(lambda: [search(kit, each, Wording()) for each in asked], 9) / len(asked)
    return time_s, search(kit, asked[0], Wording()).tried


def ruler_in_a_frame():
    """Median time (s) of finding the ticks in a frame of 2400 by 1600 pixels."""
    frame = ruler_picture(2400, 1600, 41.7, angle=0.1)
    return median_s(lambda: find_ruler(frame), 5)


def contrast_against_quadrature():
    """Time a point (s): ours over an array, and scipy's adaptive quadrature to 1e-5."""
    rng = np.random.default_rng(1)
    ne, blur = rng.uniform(4, 25, 4000), rng.uniform(0, 0.06, 4000)
    ours = median_s(lambda: contrast(50.0, ne, blur), 20) / len(ne)

    def by_quadrature(index):
        s, a = 50.0 * 0.00055 * ne[index], np.pi * 50.0 * blur[index]
        return quad(lambda x: np.sqrt(max(1 - (x + s) ** 2, 0.0)) * np.cos(a * x), 0, 1 - s, epsabs=1e-5, epsrel=1e-5)

    theirs = median_s(lambda: [by_quadrature(index) for index in range(100)], 5) / 100
    return ours, theirs


def through_focus_map():
    """Time (s) of a map of 200 apertures by 400 depths."""
    ne = np.linspace(4, 30, 200)
    return median_s(lambda: contrast_through_focus(50.0, ne, 4 / ne / 400, 400), 20)


def pointer_to_number(address):
    """95th percentile (s) from a pointer move to the changed number on the page."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
        page = browser.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
        page.goto(address)
        page.get_by_role("link", name=re.compile("Cut cocoa")).click()
        page.get_by_role("link", name=re.compile("Stack")).click()
        grip = page.get_by_role("group", name=re.compile("Farthest")).locator("[data-look]")
        grip.wait_for()
        page.wait_for_timeout(800)
        box = grip.bounding_box()
        x, y = box["x"] + 20, box["y"] + 20
        page.mouse.move(x, y)
        page.mouse.down()
        # Measured inside the page: from the event to the paint after a figure of the plan has changed.
        page.evaluate("""() => {
          window.taken = [];
          const number = document.querySelector('[aria-label="Ways to get the shot"] label');  // what one frame misses
          let moved = null;
          window.addEventListener('pointermove', () => { moved ??= performance.now(); }, true);
          new MutationObserver(() => {
            if (moved === null) return;
            const from = moved; moved = null;
            requestAnimationFrame(() => window.taken.push(performance.now() - from));
          }).observe(number, { subtree: true, characterData: true, childList: true });
        }""")
        for step in range(1, 81):
            page.mouse.move(x + step * 2, y)
            page.wait_for_timeout(60)
        page.mouse.up()
        taken = sorted(page.evaluate("window.taken"))
        browser.close()
    return taken[int(len(taken) * 0.95)] / 1000, len(taken)


def first_load_kb():
    """Compressed size of what the first view loads, without fonts, kB."""
    page = PAGE / "index.html"
    named = re.findall(r'(?:src|href)="/?(assets/[^"]+\.(?:js|css))"', page.read_text())
    files = [page, *(PAGE / name for name in named)]
    return sum(len(gzip.compress(path.read_bytes(), 9)) for path in files) / 1000


def main(path):
    with tempfile.TemporaryDirectory() as data:
        server = subprocess.Popen(
            [sys.executable, "-m", "just_plane.cli", "demo", "--data", data, "--port", "0"],
            stdout=subprocess.PIPE,
            text=True,
        )
        try:
            address = re.search(r"http://\S+/", server.stdout.readline()).group()
            plan, nothing = plan_against_nothing(address, demo_shots()[1])
            twelve, nothing_then = plan_against_nothing(address, twelve_points())
            pointer, moves = pointer_to_number(address)
        finally:
            server.kill()
            server.wait()
    ours, theirs = contrast_against_quadrature()
    rows = [
        ("full plan over HTTP", f"{plan * 1e3:.1f} ms", f"{plan / nothing:.1f}x a route that only answers", "3x"),
        (
            "plan with 12 points over HTTP",
            f"{twelve * 1e3:.1f} ms",
            f"{twelve / nothing_then:.1f}x a route that only answers, {twelve / plan:.1f}x a plan without points",
            "3x",
        ),
        ("contrast, a point", f"{ours * 1e6:.2f} us", f"{theirs / ours:.0f}x faster than adaptive quadrature", "300x"),
        ("through-focus map, 200 x 400", f"{through_focus_map() * 1e3:.1f} ms", "", "10 ms"),
        ("pointer move to changed number", f"{pointer * 1e3:.0f} ms", f"95th percentile of {moves} changes", "50 ms"),
        ("first load, compressed", f"{first_load_kb():.0f} kB", "without fonts", "250 kB"),
    ]
    time_s, tried = search_of_40_pieces()
    rows += [
        ("search of 40 pieces of kit", f"{time_s * 1e3:.0f} ms", f"{tried} rows tried", "200 ms"),
        ("ruler in 2400 x 1600 pixels", f"{ruler_in_a_frame() * 1e3:.0f} ms", "", ""),
    ]
    drawn, whole = preview_of_a_frame()
    rows += [
        ("rendering 960 x 640", f"{drawn * 1e3:.0f} ms", f"{whole * 1e3:.0f} ms with the made-up surface", "200 ms"),
    ]
    lines = ["| what | measured | against | aim |", "|---|---|---|---|"]
    lines += [f"| {' | '.join(row)} |" for row in rows]
    table = "\n".join(lines)
    print(table)
    machine = f"{platform.machine()}, Python {platform.python_version()}, NumPy {np.__version__}"
    path.write_text(
        "# Benchmarks\n\nThe last run of `make bench`. Ratios travel between machines; times do not "
        f"(this one: {machine}).\n\n{table}\n",
        encoding="utf-8",
    )


if __name__ == "__main__":
    main(Path(sys.argv[1]))
