"""Practice from the page: a hand that sees nothing but pixels, by keyboard alone, and one by touch."""

import re

from playwright.sync_api import expect

LONG = 30_000
DETAIL = """img => {
  const canvas = document.createElement('canvas');
  canvas.width = img.naturalWidth; canvas.height = img.naturalHeight;
  const pen = canvas.getContext('2d');
  pen.drawImage(img, 0, 0);
  const {data, width, height} = pen.getImageData(0, 0, canvas.width, canvas.height);
  let total = 0;
  for (let y = 0; y < height; y += 2) for (let x = 0; x < width - 8; x += 2) {
    const at = 4 * (y * width + x);
    total += (data[at + 1] - data[at + 33]) ** 2;
  }
  return total / (width * height / 4);
}"""


def begin(page, title):
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("button", name=f"Begin: {title}").click()
    expect(page.get_by_role("img", name="What the camera shows")).to_be_visible(timeout=LONG)


def seen(page):
    """Detail in the picture once it rests: what an eye at the magnifier sees."""
    last = None
    for _ in range(40):
        page.wait_for_timeout(250)
        now = page.get_by_role("img", name=re.compile("^What the")).evaluate(DETAIL)
        if now == last:
            return now
        last = now
    return last


def test_a_hand_that_looks_at_the_picture_only_makes_the_page_sharp(page, server):
    begin(page, "Tilt on one axis")

    def best(key_back, key_on, steps):
        """Turn one way while it gets sharper, then back; coarse clicks first."""
        for shift in ("Shift+", ""):
            for key in (key_on, key_back):
                now = seen(page)
                for _ in range(steps):
                    page.keyboard.press(shift + key)
                    then = seen(page)
                    if then <= now:
                        page.keyboard.press(shift + (key_back if key == key_on else key_on))
                        break
                    now = then

    for _ in range(2):
        page.get_by_role("button", name=re.compile("Near edge|Whole frame")).click()
        if page.get_by_role("img", name="What the magnifier shows").count() == 0:
            page.get_by_role("button", name="Near edge, 1:1").click()
        page.locator("body").click(position={"x": 640, "y": 795})
        best("ArrowLeft", "ArrowRight", 12)
        page.get_by_role("button", name="Far edge, 1:1").click()
        page.locator("body").click(position={"x": 640, "y": 795})
        best("ArrowDown", "ArrowUp", 12)
        page.get_by_role("button", name="Whole frame").click()
    page.locator("body").click(position={"x": 640, "y": 795})
    page.keyboard.press("Space")
    result = page.get_by_text(re.compile(r"^\d+ of 100"))
    expect(result).to_be_visible(timeout=LONG)
    assert int(result.inner_text().split()[0]) >= 35


def test_by_touch_every_drill_can_be_pressed_through(page, server):
    page.set_viewport_size({"width": 1024, "height": 768})
    for title in ("Choose the stop", "Tilt and turn", "A lens with limits"):
        begin(page, title)
        page.get_by_role("button", name=re.compile("one click on")).first.click()
        page.get_by_role("button", name="One move, please").click()
        page.get_by_role("button", name="Press", exact=True).click()
        expect(page.get_by_text(re.compile(r"^\d+ of 100"))).to_be_visible(timeout=LONG)
        page.get_by_role("button", name="Show the answer").click()
    begin(page, "First and last frame")
    page.get_by_role("button", name="First frame here").click()
    for _ in range(3):
        page.get_by_role("button", name="rail, ten clicks on").click()
    page.get_by_role("button", name="Last frame here").click()
    expect(page.get_by_text(re.compile(r"^\d+ of 100"))).to_be_visible(timeout=LONG)
    page.get_by_role("button", name="All drills").click()
    expect(page.get_by_role("img", name=re.compile("^First and last frame: 1 result"))).to_be_visible()


def test_the_magnifier_is_read_by_keys_and_rocking_is_pressed_by_space(page, server):
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("button", name="Begin: Read the magnifier").click()
    for turn in range(10):
        expect(page.get_by_text(f"{turn + 1} of 10")).to_be_visible(timeout=LONG)
        pictures = page.get_by_role("img", name=re.compile("^Picture"))
        expect(pictures).to_have_count(5, timeout=LONG)
        if turn == 0:
            page.wait_for_timeout(1500)
            detail = [pictures.nth(place).evaluate(DETAIL) for place in range(5)]
            page.keyboard.press(str(detail.index(max(detail)) + 1))
        else:
            page.keyboard.press("1")
    expect(page.get_by_text(re.compile(r"[1-9]\d? of 10 were the sharpest"))).to_be_visible(timeout=LONG)
    page.get_by_role("button", name="All drills").click()
    page.get_by_role("button", name="Begin: Focus by rocking").click()
    expect(page.get_by_role("img", name=re.compile("while the hand rocks"))).to_be_visible(timeout=LONG)
    page.locator("body").click(position={"x": 640, "y": 795})
    for turn in range(10):
        expect(page.get_by_text(f"{turn} of 10 pressed")).to_be_visible()
        page.wait_for_timeout(120)
        page.keyboard.press("Space")
    expect(page.get_by_text(re.compile(r"\d+ of 10 were sharp\."))).to_be_visible(timeout=LONG)
