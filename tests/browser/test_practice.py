"""Practice from the page: a hand that sees nothing but pixels plays every drill, by keyboard alone and by touch."""

import re

import pytest
from playwright.sync_api import expect

from browser.conftest import WORK_MS

DETAIL = """(img, band) => {
  if (!img.naturalWidth) return 0;
  const canvas = document.createElement('canvas');
  canvas.width = img.naturalWidth; canvas.height = img.naturalHeight;
  const pen = canvas.getContext('2d');
  pen.drawImage(img, 0, 0);
  const [from, to] = band ?? [0, 1];
  const top = Math.round(from * canvas.height), high = Math.round((to - from) * canvas.height);
  const {data, width, height} = pen.getImageData(0, top, canvas.width, high);
  let total = 0;
  for (let y = 0; y < height; y += 2) for (let x = 0; x < width - 8; x += 2) {
    const at = 4 * (y * width + x);
    total += (data[at + 1] - data[at + 33]) ** 2;
  }
  return total / (width * height / 4);
}"""
"""Strength of fine detail in grey, of a band of the picture from top to bottom: what an eye calls sharp."""
MUCH_BETTER = 30
"""Of 100: a blind hand gets 10 on the mean, and half the way in blur is 37."""
SCORE = re.compile(r"^\d+ of 100")


def rested(picture):
    """The picture once it shows what was asked for, and is drawn."""
    expect(picture).to_have_attribute("aria-busy", "false", timeout=WORK_MS)
    expect(picture).to_have_js_property("complete", True, timeout=WORK_MS)
    return picture


class Hand:
    """Presses keys and looks at the picture; knows nothing of the state."""

    def __init__(self, page, server):
        self.page, self.address = page, server.address

    def begin(self, kind, seed=5):
        self.page.goto(f"{self.address}practice?drill={kind}&seed={seed}")
        expect(self.page.get_by_role("img", name="What the camera shows")).to_be_visible(timeout=WORK_MS)

    def seen(self, band=None):
        """Detail in the picture once it rests."""
        return rested(self.page.get_by_role("img", name=re.compile("^What the"))).evaluate(DETAIL, band)

    def at(self, name):
        """The magnifier on a place, the keys free again."""
        self.page.get_by_role("button", name=name).click()
        self.free()

    def free(self):
        self.page.locator("body").click(position={"x": 640, "y": 795})

    def both_ends(self):
        """Detail at the softer of the near and the far end of the whole frame."""
        return min(self.seen([0.0, 0.15]), self.seen([0.85, 1.0]))

    def sharpest(self, back, on, steps=12, shifts=("Shift+", ""), look=None):
        """Turn one way while it gets sharper, else the other; coarse clicks first. Returns how sharp it is then."""
        look = look or self.seen
        now = look()
        for shift in shifts:
            for key, other in ((on, back), (back, on)):
                began = now
                for _ in range(steps):
                    self.page.keyboard.press(shift + key)
                    then = look()
                    if then <= now:
                        self.page.keyboard.press(shift + other)
                        break
                    now = then
                if now > began:
                    break
        return now

    def press(self):
        """Take the picture by key: the score."""
        self.free()
        self.page.keyboard.press("Space")
        result = self.page.get_by_text(SCORE)
        expect(result).to_be_visible(timeout=WORK_MS)
        return int(result.inner_text().split()[0])


@pytest.fixture
def hand(page, server):
    return Hand(page, server)


def lay(hand):
    """Near by focus, far by tilt; what is left is shared between the two by focus."""
    hand.at("near edge, 1:1")
    hand.sharpest("ArrowLeft", "ArrowRight")
    hand.at("far edge, 1:1")
    hand.sharpest("ArrowDown", "ArrowUp")
    hand.page.get_by_role("button", name="Whole frame").click()
    hand.free()
    hand.sharpest("ArrowLeft", "ArrowRight", look=hand.both_ends)


def test_near_by_focus_and_far_by_tilt_makes_the_page_sharp(hand):
    hand.begin("tilt")
    lay(hand)
    assert hand.press() >= MUCH_BETTER


def test_with_all_the_tilt_there_is_the_rest_is_shared_by_focus(hand):
    hand.begin("limits")
    found = []
    for way in ("ArrowUp", "ArrowDown"):
        for _ in range(6):
            hand.page.keyboard.press(f"Shift+{way}")
        found.append((hand.sharpest("ArrowLeft", "ArrowRight", look=hand.both_ends), way))
    if max(found)[1] == "ArrowUp":
        for _ in range(6):
            hand.page.keyboard.press("Shift+ArrowUp")
        hand.sharpest("ArrowLeft", "ArrowRight", look=hand.both_ends)
    assert hand.press() >= MUCH_BETTER


def test_the_turn_is_found_by_trying_and_the_rest_as_before(hand):
    hand.begin("tilt_and_turn")
    # Which way it falls: with some tilt the whole frame is sharpest where the turn is right, to one side or the other.
    found = {}
    for way in ("ArrowUp", "ArrowDown"):
        for _ in range(11):
            hand.page.keyboard.press("a")
        for _ in range(3 if way == "ArrowUp" else 6):
            hand.page.keyboard.press(f"Shift+{way}")
        for turn in range(12):
            found[turn, way] = hand.seen()
            hand.page.keyboard.press("d")
    turn, way = max(found, key=found.get)
    for _ in range(11 - turn):
        hand.page.keyboard.press("a")
    for _ in range(6 if way == "ArrowUp" else 0):
        hand.page.keyboard.press("Shift+ArrowUp")
    lay(hand)
    assert hand.press() >= MUCH_BETTER


def test_the_stop_with_the_finest_detail_at_both_ends_is_the_one(hand):
    hand.begin("stop")
    for _ in range(6):
        hand.page.keyboard.press("ArrowLeft")
    ends = []
    for name in ("near edge, 1:1", "far edge, 1:1"):
        hand.at(name)
        found = []
        for _ in range(7):
            found.append(hand.seen())
            hand.page.keyboard.press("ArrowRight")
        for _ in range(6):
            hand.page.keyboard.press("ArrowLeft")
        ends.append(found)
    softest = [min(pair) for pair in zip(*ends, strict=True)]
    for _ in range(softest.index(max(softest))):
        hand.page.keyboard.press("ArrowRight")
    assert hand.press() >= MUCH_BETTER


def test_first_and_last_frame_are_where_the_near_and_the_far_edge_come_up(hand):
    hand.begin("ends")
    places = []
    for band in ([0.88, 1.0], [0.0, 0.12]):
        found = []
        for _ in range(30):
            hand.page.keyboard.press("Shift+ArrowLeft")
        for _ in range(24):
            found.append(hand.seen(band))
            hand.page.keyboard.press("Shift+ArrowRight")
        best = found.index(max(found))
        for _ in range(30):
            hand.page.keyboard.press("Shift+ArrowLeft")
        for _ in range(best):
            hand.page.keyboard.press("Shift+ArrowRight")
        hand.free()
        if not places:
            hand.page.keyboard.press("Space")
            expect(hand.page.get_by_role("button", name="Last frame here")).to_be_visible()
        places.append(best)
    assert places[0] < places[1]
    assert hand.press() >= MUCH_BETTER


def test_by_touch_every_drill_can_be_pressed_through(page, server):
    page.set_viewport_size({"width": 1024, "height": 768})
    hand = Hand(page, server)
    for kind in ("stop", "tilt_and_turn", "limits"):
        hand.begin(kind)
        page.get_by_role("button", name=re.compile("one click on")).first.click()
        page.get_by_role("button", name="One move, please").click()
        page.get_by_role("button", name="Press", exact=True).click()
        expect(page.get_by_text(SCORE)).to_be_visible(timeout=WORK_MS)
        page.get_by_role("button", name="Show the answer").click()
    hand.begin("ends")
    page.get_by_role("button", name="First frame here").click()
    for _ in range(3):
        page.get_by_role("button", name="rail, ten clicks on").click()
    page.get_by_role("button", name="Last frame here").click()
    expect(page.get_by_text(SCORE)).to_be_visible(timeout=WORK_MS)
    page.get_by_role("button", name="All drills").click()
    expect(page.get_by_role("img", name=re.compile("^First and last frame: 1 result"))).to_be_visible()


def test_the_magnifier_is_read_by_keys(page, server):
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("button", name="Begin: Read the magnifier").click()
    for turn in range(10):
        expect(page.get_by_text(f"{turn + 1} of 10")).to_be_visible(timeout=WORK_MS)
        pictures = page.get_by_role("img", name=re.compile("^Picture"))
        expect(pictures).to_have_count(5, timeout=WORK_MS)
        detail = [rested(pictures.nth(place)).evaluate(DETAIL) for place in range(5)]
        page.keyboard.press(str(detail.index(max(detail)) + 1))
    told = page.get_by_text(re.compile(r"\d+ of 10 were the sharpest"))
    expect(told).to_be_visible(timeout=WORK_MS)
    assert int(told.inner_text().split()[0]) >= 6


def test_rocking_is_pressed_by_space_when_the_detail_comes_up(page, server):
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("button", name="Begin: Focus by rocking").click()
    picture = page.get_by_role("img", name=re.compile("while the hand rocks"))
    expect(picture).to_be_visible(timeout=WORK_MS)
    half = page.get_by_role("checkbox", name="half as fast")
    if not half.is_checked():
        half.check(force=True)
    page.locator("body").click(position={"x": 640, "y": 795})
    for turn in range(10):
        expect(page.get_by_text(f"{turn} of 10 pressed")).to_be_visible()
        last, most = picture.evaluate(DETAIL), 0.0
        for _ in range(30):
            now = picture.evaluate(DETAIL)
            most = max(most, now)
            if now > 1.15 * last and now > 0.5 * most:
                break
            last = now
            page.wait_for_timeout(40)
        page.keyboard.press("Space")
    expect(page.get_by_text(re.compile(r"\d+ of 10 were sharp\."))).to_be_visible(timeout=WORK_MS)


def test_a_set_of_ones_own_is_practised_and_the_plan_answers_step_by_step(page, server):
    page.get_by_role("link", name=re.compile("Bonbon tray")).click()
    page.get_by_role("link", name=re.compile("^4 Plane")).click()
    page.get_by_role("link", name="Practise on this set").click()
    hand = Hand(page, server)
    expect(page.get_by_role("img", name="What the camera shows")).to_be_visible(timeout=WORK_MS)
    expect(page.get_by_text("back row, left")).to_be_visible()
    before = hand.seen([0.0, 0.3])
    hand.press()
    for words in ("Meter now", "Leave the tilt", "Tilt 8.2°", "focus again on", "Recompose"):
        page.get_by_role("button", name=re.compile("Show the answer|The next step")).click()
        expect(page.get_by_role("listitem").filter(has_text=words)).to_be_visible()
    expect(page.get_by_text("tilt +8.2°", exact=False)).to_be_visible()
    assert hand.seen([0.0, 0.3]) > before


def test_the_picture_comes_back_by_itself_when_the_server_was_away(page, server, complaints):
    hand = Hand(page, server)
    hand.begin("tilt")
    page.route("**/api/view", lambda route: route.abort())
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_text("The picture does not come")).to_be_visible(timeout=WORK_MS)
    page.unroute("**/api/view")
    expect(page.get_by_text("The picture does not come")).to_be_hidden(timeout=WORK_MS)
    expect(page.get_by_role("group", name="focus").get_by_role("status")).to_contain_text(re.compile(r"^[+-]\d"))
    complaints.clear()  # the browser's own word for what it was refused


def test_a_key_held_down_is_one_press_and_one_move(page, server):
    hand = Hand(page, server)
    hand.begin("ends")
    hand.free()
    for _ in range(5):
        page.keyboard.down("ArrowRight")  # again and again while it is held
    page.keyboard.up("ArrowRight")
    expect(page.get_by_text("1, a good hand takes 2")).to_be_visible()
    for _ in range(5):
        page.keyboard.down("Space")
    page.keyboard.up("Space")
    expect(page.get_by_role("button", name="Last frame here")).to_be_visible()
