"""Figures on their screens: each opens its working; what is typed two ways is asked back; strips are bought."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from ..working_reader import check_step
from .by_hand import pick
from .test_buy import opened, tried
from .test_cloth_shrink import enter, heading, linen
from .test_whole_way import saved

pytestmark = pytest.mark.browser


def working(page: Page, label: str | re.Pattern[str]) -> None:
    """Open a figure's working, work every step out again from what the drawer shows, and close it."""
    page.get_by_role("button", name=label).first.click()
    drawer = page.locator(".working").last
    expect(drawer).to_be_visible()
    steps = drawer.locator("ol > li")
    assert steps.count() > 0
    for k in range(steps.count()):
        step = steps.nth(k)
        formula = step.locator(".formula").inner_text()
        put = [one.strip() for one in step.locator(".inputs span").all_inner_texts()]
        inputs = [(name, put_) for name, put_ in (split(one, formula) for one in put)]
        check_step(formula, inputs, step.locator(".result").inner_text().removeprefix("= "))
    page.get_by_role("button", name="Close", exact=True).last.click()
    expect(page.locator(".working")).to_have_count(0)


def split(shown: str, formula: str) -> tuple[str, str]:
    """The name and the quantity of an input as they stand side by side: the longest beginning that the formula has."""
    ends = [k for k, sign in enumerate(shown) if sign == " " and shown[:k] in formula]
    return shown[: max(ends)], shown[max(ends) + 1 :]


def test_figures_of_every_screen_open_and_can_be_worked_out(page: Page, demo: str) -> None:
    opened(page, demo, "Boxy overshirt", "Envelope")
    working(page, re.compile("^what the envelope says: "))
    working(page, re.compile("^the envelope's length before washing: "))
    page.get_by_role("button", name="Convert", exact=True).click()
    working(page, re.compile("^eighths of a yard: "))
    page.keyboard.press("Escape")
    opened(page, demo, "Boxy overshirt", "To ask for")
    # a measure that comes to its end moves what stands beneath it
    tried(page)
    for label in ("to buy", "the least any lay could ask for", "cost", "spare", "shrinkage along"):
        working(page, re.compile(f"^{label}: "))
    page.get_by_role("link", name="Lay", exact=True).click()
    for label in ("length of the lay", "bound", "share of the cloth in pieces", "usable width after washing"):
        working(page, re.compile(f"^{label}: "))
    page.locator('[aria-label^="Sleeve"]').first.click()
    working(page, re.compile("^tail to "))
    page.get_by_role("link", name="Plan", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("to cut")
    page.get_by_role("button", name=re.compile("^Sleeve")).first.click()
    working(page, re.compile("^length of Sleeve: "))
    page.get_by_role("link", name="True", exact=True).click()
    page.get_by_role("tab", name="First edge").click()
    working(page, re.compile("^both ends: "))
    page.get_by_role("link", name="Cloth", exact=True).click()
    page.get_by_role("button", name="Bars").click()
    working(page, re.compile("^repeat, across"))


def test_the_same_in_inches(page: Page, demo: str) -> None:
    opened(page, demo, "Boxy overshirt", "To ask for")
    page.get_by_text("in / yd", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("(")
    tried(page)
    try:
        for label in ("to buy", "cost", "spare", "shrinkage along"):
            working(page, re.compile(f"^{label}: "))
    finally:
        page.get_by_text("cm", exact=True).first.click()
        saved(page)


def test_what_can_be_read_two_ways_is_asked_back_where_it_was_typed(page: Page, own: str) -> None:
    linen(page, own)
    field = page.get_by_label("Width, reading 2", exact=True)
    for typed, says in (
        ('44/45"', "one of two widths"),
        ("1,260 mm", "could be 1260 mm"),
        ("9 mm", "a cloth’s width is"),
    ):
        field.fill(typed)
        field.press("Tab")
        expect(page.get_by_role("alert").filter(has_text=says)).to_be_visible()
        expect(field).to_have_value(typed)
    field.fill("55 in.")
    field.press("Enter")
    saved(page)
    expect(field).to_have_value("139.7 cm")


def test_a_swatch_belongs_to_how_it_was_washed(page: Page, own: str) -> None:
    linen(page, own)
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("button", name="Marked 25 cm both ways, three times").click()
    saved(page)
    for way, after in (("warp", "24.3 cm"), ("weft", "24.6 cm")):
        for k in (1, 2, 3):
            enter(page, f"{way} reading {k}, after", after)
    heading(page, "Plan with 3.0 % along")
    washed = page.get_by_label("The swatch’s wash")
    expect(washed).not_to_have_value("")
    # it was only washed by hand: for a garment in the machine that is a lower limit, and linen's range counts
    washed.select_option("cold-hand")
    saved(page)
    expect(page.get_by_text("the swatch is only a lower limit").first).to_be_visible()
    heading(page, "Plan with 8.0 % along")
    page.reload()
    heading(page, "Plan with 8.0 % along")


def test_strips_become_pieces_and_are_bought(page: Page, demo: str) -> None:
    opened(page, demo, "Bias slip", "Strips")
    enter(page, "Sewn to an edge of", "90 cm")
    enter(page, "Finished depth", "8 cm")
    expect(page.get_by_text("of these strips alone")).to_be_visible()
    page.get_by_role("button", name="Make pieces of: one long strip along the selvage").click()
    expect(page.get_by_text("✓ Pieces of this garment")).to_be_visible()
    # typed otherwise, they are made anew, and stay one piece
    enter(page, "Finished depth", "9 cm")
    page.get_by_role("button", name="Make anew the pieces of: one long strip").click()
    expect(page.get_by_text("✓ Pieces of this garment")).to_be_visible()
    page.get_by_role("link", name="Plan", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("^Ruffle, in one"))).to_have_count(1)


def test_another_cloth_is_planned_by_its_own_fibre(page: Page, demo: str) -> None:
    opened(page, demo, "Boxy overshirt", "Where to buy")
    page.get_by_role("button", name="Put an offer beside these").click()
    pick(page, "Made of", "cotton")
    saved(page)
    page.get_by_label("It is this cloth in another width: its swatch counts").click()
    expect(page.get_by_label("Made of")).to_have_count(0)
    page.get_by_label("It is this cloth in another width: its swatch counts").click()
    expect(page.locator(".entry", has_text="Made of")).to_contain_text("cotton")
    page.get_by_role("button", name="Done").click()
    tried(page)
    row = page.get_by_role("row").filter(has_text="Another width")
    expect(row).to_contain_text("shrinks 5.0 % × 4.0 %")
    row.get_by_role("button", name="Another width", exact=True).click()
    page.get_by_role("button", name="Take it out").click()
    expect(page.get_by_role("row").filter(has_text="Another width")).to_have_count(0)
