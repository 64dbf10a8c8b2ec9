"""True at the table: the edge dragged, typed and taped, the log of tests, and what each check says to move."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from .test_cloth_shrink import enter, saved, send

pytestmark = pytest.mark.browser


def opened(page: Page, demo: str, project: str, part: str = "Fold test") -> None:
    page.goto(demo)
    page.get_by_role("link", name=f"Open {project}").click()
    page.get_by_role("link", name="True", exact=True).click()
    page.get_by_role("tab", name=part, exact=True).click()


def headline(page: Page, text: str | re.Pattern[str]) -> None:
    expect(page.get_by_role("heading", level=1)).to_contain_text(text)


def test_the_edge_is_dragged_and_the_number_follows(page: Page, demo: str) -> None:
    opened(page, demo, "Bias slip")
    corner = page.get_by_role("slider", name="the far selvage's corner")
    box = corner.bounding_box()
    scale = float(page.locator(".hanging svg").get_attribute("data-mm") or 0)
    assert box is not None and scale > 1
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 10 * scale, y, steps=4)
    page.mouse.move(x - 20 * scale, y, steps=4)
    field = page.get_by_label("Edges apart", exact=True)
    expect(field).to_have_value("2.0 cm")
    expect(page.locator(".hanging .reading text")).to_have_text("2.0 cm")
    page.mouse.up()
    saved(page)
    expect(field).to_have_value("2.0 cm")
    headline(page, "Straighten it: pin and steam")
    # 20 mm over the narrowest reading of 140.0 cm
    expect(page.get_by_role("button", name=re.compile("^skew: 1.4 %"))).to_be_visible()

    # to the other side of level: the near selvage sticks out
    box = corner.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    scale = float(page.locator(".hanging svg").get_attribute("data-mm") or 0)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 28 * scale, y, steps=6)
    page.mouse.up()
    saved(page)
    expect(field).to_have_value("0.8 cm")
    expect(page.get_by_label("The longer side")).to_have_value("near")
    headline(page, "Steam and press it to shape")

    # by keys, a millimetre at a time
    corner.focus()
    page.keyboard.press("ArrowLeft")
    saved(page)
    expect(field).to_have_value("0.7 cm")

    # typed, the picture moves before it is kept; taken back, it goes back
    before = corner.bounding_box()
    field.fill("3 cm")
    expect(page.locator(".hanging .reading text")).to_have_text("3.0 cm")
    after = corner.bounding_box()
    assert before is not None and after is not None and after["x"] > before["x"] + 20
    field.press("Escape")
    expect(field).to_have_value("0.7 cm")
    expect(page.locator(".hanging .reading text")).to_have_text("0.7 cm")


def test_tests_are_written_down_until_two_tries_bring_nothing(page: Page, demo: str) -> None:
    opened(page, demo, "Notched waistcoat")
    field = page.get_by_label("Edges apart", exact=True)
    field.focus()
    expect(page.get_by_text("tape: ready")).to_be_visible()
    send(demo, "30 mm")
    expect(field).to_have_value("3.0 cm")
    expect(page.get_by_text("Pile is never pulled")).to_be_visible()
    expect(page.get_by_label("Pull along the shorter diagonal")).to_be_disabled()
    page.get_by_role("button", name="Write this test down").click()
    expect(field).to_have_value("")
    for value in ("2.2 cm", "2.2 cm", "2.3 cm"):
        page.get_by_label("Done before it").select_option("pin")
        enter(page, "Edges apart", value)
        page.get_by_role("button", name="Write this test down").click()
        expect(field).to_have_value("")
    headline(page, "No better in two tries")
    expect(
        page.get_by_role("img", name=re.compile("^Offset over 4 tries: 3.0 cm, 2.2 cm, 2.2 cm, 2.3 cm"))
    ).to_be_visible()
    page.get_by_role("tab", name="Does it matter?").click()
    headline(page, re.compile("twists by .* at the hem"))
    page.get_by_role("button", name="Back", exact=True).click()
    expect(page.get_by_role("img", name=re.compile("^Back as it hangs"))).to_be_visible()
    page.get_by_role("tab", name="Fold test").click()
    page.get_by_role("button", name="Take the happy medium").click()
    # the velveteen is done; of its lining nothing was tested yet, and the dot stands for both
    dot = page.locator('.rail-stage[href$="/true"]')
    expect(dot).to_have_attribute("aria-description", re.compile("Lining twill, slate: Make a true edge"))
    page.get_by_role("button", name="Strike out the test of 2.3 cm").click()
    expect(page.get_by_role("img", name=re.compile("^Offset over 3 tries"))).to_be_visible()
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_role("img", name=re.compile("^Offset over 4 tries"))).to_be_visible()


def test_good_cloth_further_in_is_laid_from_there(page: Page, demo: str) -> None:
    opened(page, demo, "Six-gore skirt")
    for offset, place in (("4.5 cm", "0"), ("2 cm", "60 cm"), ("4 mm", "120 cm")):
        enter(page, "Read at, along", place)
        enter(page, "Edges apart", offset)
        page.get_by_role("button", name="Write this test down").click()
        expect(page.get_by_label("Edges apart", exact=True)).to_have_value("")
    before = page.locator('[data-key="to_buy"] b').inner_text()
    expect(page.get_by_text("From 120.0 cm on it is good")).to_be_visible()
    page.get_by_role("button", name="Lay from there").click()
    expect(page.locator('[data-key="to_buy"] b')).not_to_have_text(before)
    page.get_by_role("tab", name="First edge").click()
    expect(page.get_by_label("Cut off at this end")).to_have_value("120.0 cm")
    enter(page, "Cut off at this end, because it could not be straightened", "0")
    for n, value in enumerate(("3 cm", "3.8 cm", "2.2 cm"), 1):
        enter(page, f"Cut edge, reading {n}", value)
    # 16 mm uneven and 5 for a woven bar
    headline(page, "Follow a woven bar: this end loses 2.1 cm")
    page.get_by_label(re.compile("snip past the selvage and tear")).click()
    headline(page, "this end loses 3.6 cm")
    page.get_by_role("link", name="Buy", exact=True).click()
    expect(page.get_by_label("Both ends, to straighten")).to_have_value("8.6 cm")


def test_the_fold_the_pinned_pieces_and_the_bars(page: Page, demo: str) -> None:
    opened(page, demo, "Bias slip", "The fold")
    for n, value in enumerate(("69.0 cm", "69.6 cm", "69.1 cm"), 1):
        field = page.get_by_label(re.compile(f"^Station {n}, at"))
        field.fill(value)
        field.press("Enter")
        expect(page.get_by_label(f"Station {n}, fold to selvage")).to_have_value(value)
    headline(page, "The fold wanders by 0.6 cm")
    expect(page.get_by_text("40.0 cm: move 0.4 cm towards the selvages")).to_be_visible()

    page.get_by_role("tab", name="Pinned pieces").click()
    enter(page, "Front, 1, tail", "20 cm")
    enter(page, "Front, 1, head", "90 cm")
    headline(page, re.compile("Front: move the head"))

    page.get_by_role("tab", name="Bars square?").click()
    page.get_by_role("button", name="Another bar").click()
    enter(page, "off at the far selvage", "9 mm")
    headline(page, "1 of 1 bars to shift")
    expect(page.get_by_text("shift its far end 0.9 cm away from the tested end")).to_be_visible()
