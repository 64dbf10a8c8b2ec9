"""Every view, drawer and dialog through the accessibility checker, at the working size and on a tablet."""

from __future__ import annotations

import re
from collections.abc import Callable

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.browser

WAISTCOAT = "Notched waistcoat"
#: place: what is opened there first, by the names of what is pressed one after another
PLACES: list[tuple[str, str, list[str]]] = [
    ("", "", []),
    ("", "cupboard", []),
    ("", "washday", []),
    ("", "washday", ["The house"]),
    ("", "nowhere", []),
    *((WAISTCOAT, f"plan?part={part}", []) for part in ("pieces", "cuts", "sheet")),
    *((WAISTCOAT, "cloth", [part]) for part in ("Measures", "Face", "Bars", "Flaws", "By hand", "Kept")),
    (WAISTCOAT, "cloth", ["From the cupboard"]),
    *((WAISTCOAT, f"shrink?part={part}", []) for part in ("swatch", "treat", "set", "day")),
    *((WAISTCOAT, f"buy?part={part}", []) for part in ("ask", "together", "cupboard", "envelope", "strips", "list")),
    ("Six-gore skirt", "buy", []),
    ("Six-gore skirt", "lay", []),
    ("Boxy overshirt", "buy?part=offers", []),
    ("Boxy overshirt", "buy?part=offers", ["Linen stripe, narrow loom"]),
    ("Boxy overshirt", "buy?part=offers", ["Look at the shop’s list"]),
    ("Boxy overshirt", "buy?part=envelope", ["Convert"]),
    *((WAISTCOAT, f"true?part={part}", []) for part in ("test", "edge", "matter", "fold", "pieces", "plaid")),
    *((WAISTCOAT, f"cut?part={part}", []) for part in ("before", "order", "table", "again", "left", "papers")),
    (WAISTCOAT, "true-size", []),
    ("", "pair", []),
    (WAISTCOAT, "lay", []),
    (WAISTCOAT, "lay", ["How to lay"]),
    ("Boxy overshirt", "lay", ["Compare"]),
    ("Bias slip", "lay", ["From the tray"]),
    (WAISTCOAT, "log", []),
    *(
        (WAISTCOAT, "plan", ["Read off with a tape", way])
        for way in ("By stations", "Point by point", "By two tapes", "By its measures", "From another piece")
    ),
    (WAISTCOAT, "lay", ["Keys"]),
    (WAISTCOAT, "lay", ["Words"]),
    (WAISTCOAT, "lay", ["Yours"]),
]


#: What may be right at one size of the screen and wrong at another.
OF_SIZE = ["target-size", "color-contrast", "scrollable-region-focusable", "page-has-heading-one", "aria-hidden-focus"]


def faults(page: Page, rules: list[str] | None = None) -> list[str]:
    """What the checker finds: by all its rules, or only by these."""
    # what passes is counted, and not described with all its elements
    options = {"resultTypes": ["violations"], **({} if rules is None else {"runOnly": rules})}
    found = Axe().run(page, options=options)
    return [f"{one['id']}: {one['nodes'][0]['html'][:160]}" for one in found.response["violations"]]


#: Until no picture changed its size for some frames: each follows the room it is given.
SETTLED = """() => new Promise((done) => {
  let before = '', same = 0;
  const look = () => {
    const now = [...document.querySelectorAll('.picture')].map((p) => [p.clientHeight, p.scrollHeight]).join();
    same = now === before ? same + 1 : 0;
    before = now;
    if (same < 4) requestAnimationFrame(look);
    else done();
  };
  look();
})"""


def numbers(page: Page, demo: str) -> dict[str, str]:
    page.goto(demo)
    links = page.get_by_role("link", name=re.compile("^Open "))
    expect(links.first).to_be_visible()
    return {
        (one.get_attribute("aria-label") or "").removeprefix("Open "): (one.get_attribute("href") or "").split("/")[2]
        for one in links.all()
    }


TABLE, TABLET = {"width": 1280, "height": 800}, {"width": 820, "height": 1180}
#: The working size magnified twice.
TWICE = {"width": 640, "height": 400}
#: What then hangs over the side, or covers what is worked at.
OVER = """() => {
    const found = [];
    if (document.documentElement.scrollWidth > innerWidth) found.push('something hangs over the side');
    const main = document.querySelector('main'), tally = document.querySelector('.tally');
    // the picture at true size takes the whole screen
    const flows = main && tally && getComputedStyle(main).position === 'static';
    if (flows && main.getBoundingClientRect().bottom > tally.getBoundingClientRect().top + 1)
        found.push('the figures lie over what is worked at');
    return found;
}"""
#: In so many parts, so that they can be looked through at the same time.
SHARES = 4


@pytest.mark.parametrize("share", range(SHARES))
def test_every_view_drawer_and_dialog_is_accessible_and_fits(page: Page, demo: str, share: int) -> None:
    known, wrong = numbers(page, demo), {}
    for project, place, pressed in PLACES[share::SHARES]:
        page.set_viewport_size(TABLE)
        page.goto(f"{demo}projects/{known[project]}/{place}" if project else f"{demo}{place}")
        expect(page.get_by_text("Fetching …")).to_have_count(0)
        for name in pressed:
            page.get_by_role("button", name=name, exact=True).first.click()
        expect(page.locator("h1, h2, .ant-drawer-title").first).to_be_visible()
        for size in (TABLE, TABLET):
            page.set_viewport_size(size)
            page.evaluate(SETTLED)
            found = faults(page, None if size is TABLE else OF_SIZE)
            if page.evaluate("document.documentElement.scrollWidth") > size["width"]:
                found.append("something hangs over the side")
            if found:
                wrong[f"{project} {place} {pressed} {size}"] = found
        page.set_viewport_size(TWICE)
        page.evaluate(SETTLED)
        found = page.evaluate(OVER)
        if found:
            wrong[f"{project} {place} {pressed} magnified twice"] = found
    assert wrong == {}


def _working(page: Page) -> None:
    page.locator(".tally .worked").first.click()
    expect(page.get_by_role("dialog")).to_be_visible()


def _warnings(page: Page) -> None:
    page.locator(".tally-warnings button").first.click()
    expect(page.get_by_role("dialog")).to_be_visible()


def _piece(page: Page) -> None:
    page.get_by_role("button", name=re.compile("^Front, ")).first.click()
    page.get_by_role("button", name="Change", exact=True).click()
    for part in page.locator("details.piece-part > summary").all():
        part.click()


def _leaving(page: Page) -> None:
    page.get_by_role("button", name="Read off with a tape").click()
    page.get_by_label("Name", exact=True).fill("Half told")
    page.keyboard.press("Escape")
    expect(page.get_by_text("Something here is not kept yet")).to_be_visible()


def _by_hand(page: Page) -> None:
    page.locator(".laid").first.click()
    page.get_by_role("button", name="By degrees …").click()
    page.get_by_role("button", name="to the left").click()
    expect(page.get_by_role("region", name="Rules it breaks")).to_be_visible()
    page.get_by_text("Pieces", exact=True).click()
    expect(page.get_by_role("region", name="All pieces")).to_be_visible()


@pytest.mark.parametrize(
    ("place", "act"),
    [("lay", _by_hand), ("buy", _working), ("shrink", _warnings), ("plan", _piece), ("plan", _leaving)],
)
def test_what_is_opened_by_a_choice_is_accessible(
    page: Page, demo: str, place: str, act: Callable[[Page], None]
) -> None:
    number = numbers(page, demo)[WAISTCOAT]
    page.goto(f"{demo}projects/{number}/{place}")
    act(page)
    assert faults(page) == []


#: what a stage's main command is, of the garment that is cut from three cloths
COMMANDS = {
    "plan": "Read off with a tape",
    "cloth": "Width, reading 1",
    "shrink": "warp reading 1, before",
    "lay": "Lay ",
    "buy": "The shop cuts in steps of",
    "true": "Edges apart",
}


@pytest.mark.parametrize("stage", COMMANDS)
def test_from_a_fresh_stage_the_main_command_is_three_tab_stops_away(page: Page, demo: str, stage: str) -> None:
    number = numbers(page, demo)[WAISTCOAT]
    # as one goes there by keys: from another stage by the rail
    page.goto(f"{demo}projects/{number}/log")
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=stage.capitalize(), exact=True).press(
        "Enter"
    )
    expect(page).to_have_url(re.compile(f"/{stage}"))
    expect(page.get_by_text("Fetching …")).to_have_count(0)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.locator("main.stage")).to_be_focused()
    # its part of the program may still be on the way
    expect(
        page.get_by_label(COMMANDS[stage]).or_(page.get_by_role("button", name=COMMANDS[stage])).first
    ).to_be_visible()
    page.keyboard.press("Tab")
    expect(page.get_by_role("button", name="To the main command")).to_be_focused()
    page.keyboard.press("Enter")
    told = page.evaluate(
        "[document.activeElement.innerText, ...[...(document.activeElement.labels ?? [])].map(l => l.innerText)].join()"
    )
    assert COMMANDS[stage] in told
