"""At the cutting table: inches all through, a finger's breadth, what practice forbids, and the washing day."""

from __future__ import annotations

import json
import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from .by_hand import pick
from .test_cloth_shrink import enter, heading, linen
from .test_screens import begin
from .test_whole_way import saved

pytestmark = pytest.mark.browser

#: A length, a weight or a temperature of the other system, with nothing of this one beside it.
METRIC = re.compile(r"\d\s?(?:(?:mm|cm|m|kg)\b|g/m²|°C(?! \())")
PARTS = {
    "plan": ("pieces", "cuts", "sheet"),
    "cloth": ("",),
    "shrink": ("swatch", "treat", "set", "day"),
    "lay": ("",),
    "buy": ("ask", "offers", "strips", "envelope", "list"),
    "true": ("test", "edge", "matter", "fold", "pieces", "plaid"),
    "log": ("",),
}
PLACES = [*(f"projects/1/{stage}?part={part}" for stage, parts in PARTS.items() for part in parts)]
PLACES += ["", "cupboard", "washday"]

#: All that a page says: its text, what its fields hold, and what is read out.
SAYS = """() => [
  document.body.innerText,
  ...[...document.querySelectorAll('input, select')].map(e => `${e.value} ${e.placeholder ?? ''}`),
  ...[...document.querySelectorAll('[aria-valuetext], [aria-label]')].map(e => `${e.ariaValueText} ${e.ariaLabel}`),
].join('\\n')"""
#: What is touched, and lower than a finger: a word in a running text is as high as its line, and what lies in a picture
#: is as large as it is drawn.
SMALL = """() => [...document.querySelectorAll(
  'main button, main input, main select, main [role=tab], .rail a, header button, .tally button')]
  .filter(e => e.checkVisibility({ visibilityProperty: true }) && !e.closest('svg'))
  .filter(e => !e.matches('.word, .worked, .ask-word, .skip-here, [type=file]'))
  .map(e => [e, e.closest(
    '.ant-checkbox-wrapper, .ant-radio-wrapper, .ant-segmented-item, .ant-select, ' +
    '.ant-input-affix-wrapper, .ant-tabs-tab') ?? e])
  .filter(([, box]) => box.getBoundingClientRect().height < 39.5)
  .map(([e, box]) => `${Math.round(box.getBoundingClientRect().height)} ${e.outerHTML.slice(0, 110)}`)"""


def ask(page: Page, method: str, path: str, **body: Any) -> Any:
    """As the page itself asks the server."""
    script = """async ([method, path, body]) => (await fetch('/api' + path, {
      method, body: JSON.stringify(body),
      headers: { 'Content-Type': 'application/json', 'X-Page': document.querySelector('[name=page-word]').content },
    })).json()"""
    return page.evaluate(script, [method, path, body])


def in_inches(page: Page, own: str) -> None:
    """A skirt from twill of 54 in, told, measured, washed and laid in inches."""
    page.goto(own)
    page.get_by_text("in / yd").first.click()
    saved(page)
    begin(page, own, "Skirt")
    stations = [{"along": along, "left": left, "right": left} for along, left in (("0", "12"), ("26", "8"))]
    ask(page, "POST", "/projects/1/pieces", name="Panel", stations=stations, copies=2, seam="5/8", hem=True)
    ask(page, "PATCH", "/projects/1/cloth", blend=[{"fibre": "cotton", "share": 100}], weave="twill", mass="7",
        width_readings=["54", "54 1/8", "54"], in_hand="2", price="12", price_unit="yd", ground="#446677",
        flaws=[{"x": "20", "y": "10", "w": "1", "h": "1", "what": "slub"}])  # fmt: skip
    ask(page, "POST", "/projects/1/true/tests", offset="1/4")
    page.goto(f"{own}projects/1/lay")
    page.get_by_role("button", name="Lay the pieces").click()
    expect(page.get_by_role("button", name="Lay again")).to_be_enabled(timeout=60_000)


def test_in_inches_everything_is_in_inches_and_a_finger_wide(page: Page, own: str) -> None:
    in_inches(page, own)
    found: dict[str, list[str]] = {}
    for place in PLACES:
        page.set_viewport_size({"width": 1280, "height": 800})
        page.goto(own + place)
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        expect(page.get_by_text("Fetching …")).to_have_count(0)
        wrong = [line for line in page.evaluate(SAYS).splitlines() if METRIC.search(line)]
        page.set_viewport_size({"width": 820, "height": 1180})
        wrong += page.evaluate(SMALL)
        if wrong:
            found[place] = wrong[:4]
    assert found == {}, json.dumps(found, indent=1, ensure_ascii=False)


def test_glue_is_never_steamed_and_pile_is_asked_about(page: Page, own: str) -> None:
    linen(page, own, "Interfacing")
    pick(page, "Weave or kind", "non-woven")
    saved(page)
    page.get_by_label("Finish").select_option("fusible")
    saved(page)
    page.goto(f"{own}projects/1/shrink?part=treat")
    steps = page.locator(".treat-steps")
    expect(steps).to_contain_text("Dry it flat")
    expect(steps).not_to_contain_text(re.compile("[Tt]umble|[Ss]team"))
    # a finished thing that is dry-cleaned: its cloth meets no water
    page.goto(f"{own}projects/1/cloth")
    page.get_by_label("Finish").select_option("")
    pick(page, "Weave or kind", "twill")
    saved(page)
    page.goto(f"{own}projects/1/plan")
    page.get_by_label("will be washed").select_option("dry-clean")
    saved(page)
    page.goto(f"{own}projects/1/shrink?part=treat")
    expect(steps).to_contain_text("team")
    expect(steps).not_to_contain_text(re.compile("[Ww]ash at|[Mm]achine wash"))


def test_a_washing_day_of_some_cloths_that_asks_what_they_measure(page: Page, own: str) -> None:
    linen(page, own)
    page.goto(f"{own}washday")
    page.get_by_label("Begin not before").fill("tomorrow at ten")
    page.get_by_label("Begin not before").press("Enter")
    expect(page.get_by_label("The washer is free from")).to_be_focused()
    page.get_by_role("button", name="Plan the day").click()
    expect(page.locator("main").get_by_role("alert").or_(page.locator(".refused"))).to_be_visible()
    page.get_by_label("Begin not before").fill("")
    page.get_by_role("button", name="Plan the day").click()
    heading(page, "All is treated, dry and at rest by")
    card = page.locator(".loads > *").first
    for _ in range(8):
        done = card.get_by_role("button", name=re.compile("^(Begin|Done)$"))
        if done.count() == 0:
            break
        done.first.click()
        saved(page)
    # it is asked for until it is told; then the day has nothing more to show
    expect(page.get_by_role("region", name="To be measured")).to_be_visible()
    enter(page, "Its length now", "188 cm")
    enter(page, "Its width now, at the narrowest", "134 cm")
    page.goto(f"{own}projects/1/cloth")
    expect(page.get_by_label("Length in hand, if any")).to_have_value("188.0 cm")
    expect(page.get_by_label("Width, reading 1")).to_have_value("134.0 cm")
