"""The page under a hand: from a pointer's move to the mark and to the figures, and what is drawn anew for it."""

import gzip
import re
from pathlib import Path

from playwright.sync_api import sync_playwright
from timing import high_s

BUILT = Path(__file__).parents[2] / "src" / "just_plane" / "web" / "page"
STEPS = 80
BETWEEN_MS = 60

# Counts components that did work, in every commit, as React tells its developer tools.
COUNT = """
window.drawn = 0;
window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
  renderers: new Map(), supportsFiber: true, inject: () => 1, onCommitFiberUnmount() {}, onPostCommitFiberRoot() {},
  onCommitFiberRoot(_, root) {
    const PERFORMED_WORK = 1;
    const components = new Set([0, 1, 11, 14, 15]);
    const visit = fiber => {
      const before = fiber.alternate;
      if (components.has(fiber.tag) && (fiber.flags & PERFORMED_WORK)) window.drawn += 1;
      if (before !== null && before.child === fiber.child) return;
      for (let child = fiber.child; child; child = child.sibling) if (child.alternate !== child) visit(child);
    };
    visit(root.current);
  },
};
"""

# From the pointer's event to the paint after the first change of what is watched. A move whose plan came and changed no
# figure has nothing to wait for: the next one would be charged with it.
WATCH = """([figures, mark]) => {
  window.figures = []; window.marks = []; window.unchanged = 0;
  const at = {figures: null, marks: null};
  addEventListener('pointermove', () => {
    const now = performance.now();
    for (const key of Object.keys(at)) at[key] ??= now;
  }, true);
  const watch = (key, what) => new MutationObserver(() => {
    const from = at[key];
    if (from === null) return;
    at[key] = null;
    requestAnimationFrame(() => window[key].push(performance.now() - from));
  }).observe(what, {subtree: true, characterData: true, childList: true, attributes: key === 'marks'});
  watch('figures', figures); watch('marks', mark);
  window.planned = asked => {
    if (at.figures === null || at.figures > asked) return;
    at.figures = null;
    window.unchanged += 1;
  };
}"""
# Tells of every plan when the page has had two frames to draw it.
PLANNED = """
const ask = window.fetch;
window.fetch = async (...what) => {
  const asked = performance.now(), answer = await ask(...what);
  if (new URL(what[0].url ?? what[0], location).pathname === '/api/plan') {
    const told = answer.clone().text();
    const frame = () => new Promise(requestAnimationFrame);
    void told.then(frame).then(frame).then(() => window.planned?.(asked));
  }
  return answer;
};
"""

# Station, what is taken hold of, and where its figures stand.
DRAGS = {
    "depth": ("Cut cocoa", "Stack", ("group", "Farthest"), '[aria-label="Ways to get the shot"]'),
    "focus": ("Cut cocoa", "Stack", ("group", "Focus of one"), '[aria-label="Ways to get the shot"]'),
    "stop": ("Cut cocoa", "Stack", ("group", "Aperture f"), '[aria-label="Ways to get the shot"]'),
    "a point": ("Bonbon", "Plane", ("button", "centre bonbon, .* behind the nearest"), "footer"),
}


ROCK_S = 6
GAPS = """async (lasting) => {
  const picture = document.querySelector('img[alt*=rocks]'), gaps = [], began = performance.now();
  let last = picture.src, at = began;
  while (performance.now() - began < 1000 * lasting) {
    await new Promise(requestAnimationFrame);
    if (picture.src === last) continue;
    gaps.push(performance.now() - at);
    last = picture.src;
    at = performance.now();
  }
  return gaps;
}"""
"""Between two pictures, ms: one is asked for when the last has come, so that this is its age too."""


def drag_on_the_page(address):
    """By drag: (95th percentile s to the mark, to the figures, changes seen, components drawn anew a move)."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
        measured = {}
        for name, each in DRAGS.items():
            to_mark, to_figures = _dragged(browser, address, *each, "[window.marks, window.figures]", PLANNED)
            # Counted by itself: looking through all components takes time of its own.
            drawn = _dragged(browser, address, *each, "window.drawn", COUNT) / STEPS
            measured[name] = high_s(to_mark) / 1000, high_s(to_figures) / 1000, len(to_figures), drawn
        browser.close()
    return measured


def _dragged(browser, address, shot, station, grip, figures, told, watched):
    """What the page tells after a drag."""
    page = browser.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    page.add_init_script(watched)
    page.goto(address)
    page.get_by_role("link", name=re.compile(shot)).click()
    page.get_by_label("Order of work").get_by_role("link", name=station).click()
    role, name = grip
    mark = page.get_by_role(role, name=re.compile(name)).first
    held = mark.locator("[data-look]") if role == "group" else mark
    held.wait_for()
    page.wait_for_timeout(800)
    box = held.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + min(20, box["height"] / 2)
    page.mouse.move(x, y)
    page.mouse.down()
    page.evaluate(WATCH, [page.query_selector(figures), mark.element_handle()])
    page.evaluate("window.drawn = 0")
    for step in range(1, STEPS + 1):
        page.mouse.move(x + step, y)
        page.wait_for_timeout(BETWEEN_MS)
    answer = page.evaluate(told)
    page.mouse.up()
    page.close()
    return answer


def frames_of_rocking(address):
    """Pictures a second of the drill that never rests, and how old one is when it is shown: (1/s, s)."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}practice?drill=rock&seed=3")
        page.get_by_role("img", name=re.compile("rocks")).wait_for()
        page.wait_for_timeout(1500)
        gaps = page.evaluate(GAPS, ROCK_S)
        browser.close()
    return len(gaps) / ROCK_S, sorted(gaps)[len(gaps) // 2] / 1000


def first_load_kb():
    """Compressed size of what the first view loads, without fonts, kB."""
    page = BUILT / "index.html"
    named = re.findall(r'(?:src|href)="/?(assets/[^"]+\.(?:js|css))"', page.read_text())
    files = [page, *(BUILT / name for name in named)]
    return sum(len(gzip.compress(path.read_bytes(), 9)) for path in files) / 1000
