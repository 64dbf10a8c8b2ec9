"""One garment by keys alone, counted: a jacket of two pieces from three cloths, from an empty bench to what to buy.

``python -m tools.walk http://127.0.0.1:8077/`` begins a garment there and tells how many entries were typed, how many
times Tab was pressed, and how many other keys. At every step the hand takes the shortest way there is: Tab, Shift with
Tab, or the page's own keys.
"""

from __future__ import annotations

import re
import sys
from collections import Counter

from playwright.sync_api import Locator, Page, sync_playwright

from .chromium import ARGS, CHROMIUM

#: Every stop of the Tab key in its order, the place of the hand among them, and the place of what is looked for.
STOPS = """(target) => {
  const above = [...document.querySelectorAll('.ant-modal-wrap, .ant-drawer-open')];
  const top = above.filter(e => e.getClientRects().length).at(-1);
  const all = [...(top ?? document).querySelectorAll('a[href], button, input, select, textarea, summary, [tabindex]')];
  const stops = all.filter(e => e.tabIndex >= 0 && !e.disabled && e.getClientRects().length > 0
    && getComputedStyle(e).visibility !== 'hidden'
    && !(e.type === 'radio' && !e.checked && document.querySelector(`input[name="${e.name}"]:checked`)));
  let here = stops.indexOf(document.activeElement);
  if (here < 0 && document.activeElement && document.activeElement !== document.body)
    here = stops.findIndex(e => document.activeElement.compareDocumentPosition(e) & 4) - 0.5;
  return [stops.length, here, stops.indexOf(target)];
}"""


class Hand:
    """A hand on the keys; counts what it does."""

    def __init__(self, page: Page) -> None:
        self.page, self.count = page, Counter[str]()
        #: whether the page has keys of its own
        self.quick = False

    def press(self, key: str, what: str = "other keys") -> None:
        self.page.keyboard.press(key)
        self.count[what] += 1
        self.page.wait_for_timeout(40)

    def _far(self, target: Locator) -> tuple[int, str]:
        many, here, there = self.page.evaluate(STOPS, target.element_handle())
        ahead, back = (there - here) % many if here >= 0 else there + 1, (here - there) % many if here >= 0 else many
        ahead, back = int(ahead + 0.5), int(back + 0.5)
        return (ahead, "Tab") if ahead <= back else (back, "Shift+Tab")

    def to(self, target: Locator) -> None:
        """To a field or a command."""
        target = target.first
        target.wait_for()
        for _ in range(200):
            if target.evaluate("e => e === document.activeElement"):
                return
            far, key = self._far(target)
            if self.quick and far > 3:
                before = self.page.evaluate_handle("document.activeElement")
                self.page.keyboard.press("Alt+m")
                through, way = self._far(target)
                if through + 1 < far:
                    self.count["other keys"] += 1
                    far, key = through, way
                    if target.evaluate("e => e === document.activeElement"):
                        return
                else:
                    before.evaluate("e => e.focus()")
            self.press(key, "Tabs")
        raise TimeoutError(f"It cannot be reached by keys: {target}")

    def enter(self, target: Locator, text: str) -> None:
        """An entry, kept with Enter."""
        self.to(target)
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(text)
        self.press("Enter")
        self.count["entries"] += 1

    def do(self, target: Locator) -> None:
        """A command, a link or a tick."""
        self.to(target)
        tick = target.first.evaluate("e => e.type === 'checkbox' || e.type === 'radio'")
        self.press("Space" if tick else "Enter")

    def choose(self, label: str, words: str) -> None:
        """One of a list."""
        field = self.page.get_by_label(label, exact=True).first
        field.wait_for()
        # a long list's search takes the place of the system's list once it is fetched
        self.page.wait_for_timeout(250)
        field = self.page.get_by_label(label, exact=True).first
        self.to(field)
        self.page.keyboard.type(words)
        if field.evaluate("e => e.tagName") == "INPUT":
            self.press("Enter")
        self.count["entries"] += 1
        self.page.wait_for_timeout(150)

    def stage(self, name: str) -> None:
        """To another stage, by the rail or by the page's keys."""
        links = self.page.locator("nav[aria-label=Stages] a.rail-stage")
        names = [text.strip() for text in links.all_inner_texts()]
        here = next((i for i, one in enumerate(links.all()) if one.get_attribute("aria-current")), -1)
        steps = names.index(name) - here
        if self.quick and abs(steps) < self._far(links.nth(names.index(name)))[0]:
            for _ in range(abs(steps)):
                self.press("Alt+PageDown" if steps > 0 else "Alt+PageUp")
                self.page.wait_for_timeout(250)
        else:
            self.do(links.nth(names.index(name)))
        self.page.wait_for_url(re.compile(f"/{name.lower()}"))
        self.page.wait_for_timeout(400)

    def cloth(self, name: str) -> None:
        """To another cloth of the garment."""
        links = self.page.locator("nav.cloths a")
        names = links.all_inner_texts()
        there = next(i for i, text in enumerate(names) if name in text)
        here = next(i for i, one in enumerate(links.all()) if one.get_attribute("aria-current"))
        if self.quick:
            for _ in range((there - here) % len(names)):
                self.press("Alt+c")
                self.page.wait_for_timeout(300)
        else:
            self.do(links.nth(there))
        self.page.wait_for_timeout(400)


PIECES = (
    ("Front", ("0", "11", "0", "14", "12", "0", "24", "9", "2", "29", "4", "3"), "pair: half of the copies mirrored"),
    ("Back", ("0", "10 1/2", "15", "10", "27", "3"), "half a piece, cut on the fold"),
)
CLOTHS = (
    ("main cloth", "58", "cotton", "22"),
    ("Lining", "54", "polyester", "9"),
    ("Canvas", "36", "polyester", "5"),
)


def walk(page: Page, base: str) -> Counter[str]:
    """The whole garment. Gives the counts."""
    hand = Hand(page)
    named = page.get_by_label
    page.goto(base)
    page.get_by_role("heading", level=1).wait_for()
    page.wait_for_timeout(600)
    hand.quick = page.locator(".skip").count() > 0
    hand.enter(named("A new project"), "Lined jacket")
    page.get_by_role("button", name="Read off with a tape").wait_for()
    inches = page.locator("header label", has_text="in / yd")
    if inches.count():
        inches.click()  # once for the person; the same in every version
    page.wait_for_timeout(400)
    for k, (name, cells, tick) in enumerate(PIECES):
        another = page.get_by_role("button", name=re.compile("^Keep it, and the next one"))
        if k == 0 or not another.count():
            hand.do(page.get_by_role("button", name="Read off with a tape"))
            page.wait_for_timeout(400)
        hand.enter(named("Name", exact=True), name)
        hand.do(named(tick))
        for i, cell in enumerate(cells):
            target = named("station 1, along", exact=True) if i == 0 else page.locator(":focus")
            if i == 0:
                hand.to(target)
            page.keyboard.press("Control+a")
            page.keyboard.type(cell)
            hand.press("Enter")
            hand.count["entries"] += 1
        hand.enter(named("Seam allowance to add"), "5/8")
        last = k == len(PIECES) - 1
        keep = page.get_by_role("button", name="Keep this piece")
        hand.do(another if another.count() and not last else keep)
        page.wait_for_timeout(700)
    part = page.get_by_role("tab", name="What is cut from what")
    if part.count():
        hand.to(page.get_by_role("tab", selected=True))
        hand.press("ArrowRight")
        hand.press("Enter")
        page.wait_for_timeout(400)
    else:
        hand.do(page.get_by_role("button", name="What is cut from what"))
    for role, name in (("lining", "Lining"), ("interfacing", "Canvas")):
        hand.choose("Put beside it", role)
        hand.enter(named("Its name"), name)
        page.wait_for_timeout(600)
    for piece, cloth in (("Front", "Lining"), ("Back", "Lining"), ("Front", "Canvas")):
        hand.do(page.get_by_role("button", name=f"Cut {piece} from {cloth}"))
        page.wait_for_timeout(500)
        if cloth == "Lining":
            hand.enter(named(f"{piece} from {cloth}, shorter at its low end by"), "3/4")
    hand.do(named("Front from Canvas, without any allowance"))
    hand.stage("Cloth")
    for k, (cloth, width, fibre, price) in enumerate(CLOTHS):
        if k:
            hand.cloth(cloth)
        hand.choose("Fibre", fibre)
        for place in (1, 2, 3):
            hand.enter(named(f"Width, reading {place}"), width)
        hand.enter(named("Price", exact=True), price)
    hand.cloth("main cloth")
    hand.stage("Shrink")
    hand.do(page.get_by_role("button", name="Marked 10 in"))
    page.wait_for_timeout(500)
    for way, after in (("warp", "9 5/8"), ("weft", "9 3/4")):
        for place in (1, 2, 3):
            hand.enter(named(f"{way} reading {place}, after"), after)
    hand.stage("Lay")
    for k, (cloth, *_) in enumerate(CLOTHS):
        if k:
            hand.cloth(cloth)
        hand.do(page.get_by_role("button", name="Lay the pieces"))
        page.get_by_role("button", name=re.compile("Lay again")).and_(page.locator(":enabled")).wait_for(timeout=90_000)
    hand.stage("Buy")
    page.get_by_role("heading", name=re.compile("^Ask for")).wait_for()
    return hand.count


def main() -> int:
    """Walk, and tell the counts."""
    with sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, locale="en-GB")
        try:
            print(dict(walk(page, sys.argv[1])))
        finally:
            browser.close()
    return 0


if __name__ == "__main__":
    sys.exit(main())
