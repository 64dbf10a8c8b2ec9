"""Cutting at the table: by touch on a tablet, by keys, across a reload and on another device."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, expect
from tools.own_page import asking

SKIRT, SHIRT = 8, 7
TABLET = {"width": 820, "height": 1180}


def ask(page: Page, demo: str, method: str, path: str, body: dict[str, Any] | None = None) -> Any:
    answer = page.request.fetch(f"{demo}api{path}", method=method, data=body, headers=asking(demo))
    assert answer.ok, answer.text()
    return answer.json()


def settle(page: Page, demo: str, garment: int) -> None:
    """Everything before cutting ticked or accepted."""
    for line in ask(page, demo, "GET", f"/projects/{garment}/cut")["before"]["lines"]:
        if line["state"] == "open":
            said = {"ticked": True} if line["by_hand"] else {"why": "it is only tried"}
            ask(page, demo, "PUT", f"/projects/{garment}/cut/before", {"key": line["key"], **said})


def at_table(page: Page, demo: str, garment: int = SKIRT) -> None:
    settle(page, demo, garment)
    ask(page, demo, "POST", f"/projects/{garment}/cut")
    page.goto(f"{demo}projects/{garment}/cut")
    expect(page.get_by_role("heading", level=1)).to_contain_text("1 of ")


def test_the_list_is_gone_through_and_cutting_begins(page: Page, demo: str) -> None:
    page.goto(f"{demo}projects/{SKIRT}/cut")
    lines = page.get_by_role("list", name="Before cutting")
    expect(page.get_by_role("button", name="Begin to cut")).to_be_disabled()
    # each open line comes up by itself, with its picture and the way to mend it
    while page.locator(".line-open").count():
        left = page.locator(".line-open").count()
        one = page.locator(".before-one")
        expect(one.locator(".line-picture")).to_be_visible()
        if one.get_by_role("button", name="I have looked: it is so").count():
            one.get_by_role("button", name="I have looked: it is so").click()
        else:
            expect(one.get_by_role("button", name=re.compile("^Mend it under"))).to_be_visible()
            one.get_by_label("Or go on knowing it, because").fill("it is only tried")
            one.get_by_label("Or go on knowing it, because").press("Enter")
        expect(page.locator(".line-open")).to_have_count(left - 1)
    expect(lines.get_by_text("Accepted, since it is only tried.").first).to_be_visible()
    page.get_by_role("button", name="Begin to cut").dblclick()
    expect(page.get_by_role("button", name="It is cut")).to_be_visible()


def test_mending_a_line_leads_to_its_stage(page: Page, demo: str) -> None:
    page.goto(f"{demo}projects/{SKIRT}/cut")
    page.get_by_role("button", name=re.compile("^The cloth is trued today|The cloth is trued today")).click()
    page.get_by_role("button", name="Mend it under True").click()
    expect(page).to_have_url(re.compile(f"/projects/{SKIRT}/true"))


def test_by_touch_every_piece_is_cut_with_nothing_to_scroll(browser: Browser, demo: str) -> None:
    context = browser.new_context(viewport=TABLET, has_touch=True, locale="en-GB")
    page = context.new_page()
    at_table(page, demo)
    # everything of the step is on the screen, and large enough for a finger
    stage = page.locator("main.stage")
    assert stage.evaluate("one => one.scrollHeight <= one.clientHeight + 1"), "the step at hand is scrolled for"
    for name in ("It is cut", "← Back", "Next →", "Went wrong"):
        box = page.get_by_role("button", name=name, exact=True).bounding_box()
        assert box and box["height"] >= 56 and box["width"] >= 56, name
    facts = page.locator(".table-facts")
    expect(facts).to_contain_text("Arrow from the")
    expect(facts).to_contain_text("paper printed side")
    count = int(re.findall(r"of (\d+)", page.get_by_role("heading", level=1).inner_text())[0])
    for number in range(1, count + 1):
        expect(page.get_by_role("heading", level=1)).to_contain_text(f"{number} of {count}")
        # the second touch of a double one is meant for the same piece
        page.wait_for_timeout(600)
        page.get_by_role("button", name="It is cut", exact=True).tap()
        if number == 3:
            # on after a reload, and on another device
            page.reload()
            expect(page.get_by_role("heading", level=1)).to_contain_text(f"4 of {count}")
            other = browser.new_context(viewport=TABLET, locale="en-GB")
            there = other.new_page()
            there.goto(f"{demo}projects/{SKIRT}/cut")
            expect(there.get_by_role("heading", level=1)).to_contain_text(f"4 of {count}")
            other.close()
    expect(page.get_by_role("heading", level=1)).to_contain_text(re.compile("remnant|scraps"))
    context.close()


def test_by_keys_a_piece_is_cut_taken_back_and_looked_at(page: Page, demo: str) -> None:
    at_table(page, demo)
    heading = page.get_by_role("heading", level=1)
    expect(page.locator(".cut-shape.here").first).to_be_visible()
    page.keyboard.press("Enter")
    expect(heading).to_contain_text("2 of ")
    page.keyboard.press("ArrowLeft")
    expect(heading).to_contain_text("1 of ")
    expect(page.get_by_role("button", name="Is cut")).to_be_disabled()
    # Enter at a piece that is cut already does nothing
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="1 of 11 pieces are cut")).to_be_visible()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    expect(heading).to_contain_text("3 of ")
    page.keyboard.press("u")
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("does not come back")
    dialog.get_by_role("button", name="It is cut").click()
    expect(dialog).to_be_hidden()
    expect(page.get_by_role("status").filter(has_text="1 of 11 pieces are cut")).to_be_visible()
    page.keyboard.press("Control+z")
    dialog.get_by_role("button", name="It is not cut: take it back").click()
    expect(page.get_by_role("status").filter(has_text="0 of 11 pieces are cut")).to_be_visible()
    expect(heading).to_contain_text("1 of ")


def test_a_double_touch_cuts_one_piece(page: Page, demo: str) -> None:
    at_table(page, demo)
    page.get_by_role("button", name="It is cut", exact=True).dblclick()
    expect(page.get_by_role("status").filter(has_text="1 of 11 pieces are cut")).to_be_visible()
    page.wait_for_timeout(400)
    expect(page.get_by_role("status").filter(has_text="1 of 11 pieces are cut")).to_be_visible()


def test_what_goes_wrong_finds_another_place(page: Page, demo: str) -> None:
    ask(page, demo, "PATCH", f"/projects/{SKIRT}/cloth", {"in_hand": "4 m"})
    at_table(page, demo)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("2 of ")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("w")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("In your own words, if you like").fill("the shears slipped")
    dialog.get_by_role("button", name="It is cut too short").click()
    # the page goes to the ways out by itself, and back to the table
    expect(page.get_by_role("heading", name="One piece has no place any more")).to_be_visible()
    way = page.get_by_role("listitem").filter(has_text="a place beside what still waits")
    expect(way.locator("b.good")).to_have_text("does", timeout=60_000)
    expect(way.locator("polygon.gone").first).to_be_attached()
    expect(way.locator("polygon.now").first).to_be_attached()
    way.get_by_role("button", name="Cut it so").click()
    expect(page.get_by_role("status").filter(has_text="0 of 11 pieces are cut")).to_be_visible()


def test_the_order_is_changed_and_computed_again(page: Page, demo: str) -> None:
    at_table(page, demo)
    page.get_by_role("tab", name="Order").click()
    names = page.get_by_role("list", name="Order of cutting").locator(".order-name")
    expect(names.nth(1)).to_be_visible()
    before = names.all_inner_texts()
    page.get_by_role("button", name=re.compile("later$")).first.click()
    expect(names.first).to_contain_text(before[1].split(" ", 1)[1])
    page.get_by_role("button", name="Back to the computed order").click()
    expect(names.first).to_contain_text(before[0].split(" ", 1)[1])
    expect(page.locator(".route")).to_be_attached()


def test_a_remnant_is_put_into_the_cupboard_with_one_touch(page: Page, demo: str) -> None:
    at_table(page, demo)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("2 of ")
    page.get_by_role("tab", name="What is left").click()
    page.get_by_role("button", name="Put it into the cupboard").first.click()
    page.get_by_role("link", name="cupboard").first.click()
    expect(page.get_by_text(re.compile("remnant 1")).first).to_be_visible()


def test_the_lay_is_thrown_on_the_table_at_its_size(page: Page, demo: str) -> None:
    at_table(page, demo)
    page.goto(f"{demo}projects/{SKIRT}/true-size")
    page.get_by_role("button", name="A screen on the table").click()
    # the square has 360 points a side: 120 by 120 mm are three points a millimetre
    page.get_by_label("From left to right").fill("12 cm")
    page.get_by_label("From top to bottom").fill("12 cm")
    page.get_by_role("button", name="Take it so").click()
    shape = page.locator(".true-shape.here polygon")
    expect(shape).to_be_visible()
    drawn = [[float(n) for n in at.split(",")] for at in (shape.get_attribute("points") or "").split()]
    wide = max(x for x, _ in drawn) - min(x for x, _ in drawn)
    found = ask(page, demo, "GET", f"/projects/{SKIRT}/cut")
    step = found["steps"][0]
    real = next(s for s in found["rounds"][0]["shapes"] if s["key"] == step["key"])["outline"]
    assert wide == pytest.approx(3 * (max(x for x, _ in real) - min(x for x, _ in real)), abs=0.3)
    page.get_by_role("button", name="Check the size").click()
    page.get_by_label(re.compile("^The thick line should measure 20 cm")).fill("20.4 cm")
    page.get_by_role("button", name="Compare").click()
    expect(page.get_by_text("calibrate again before anything is cut")).to_be_visible()
    # a device keeps its calibration
    page.reload()
    expect(page.locator(".true-shape.here polygon")).to_be_visible()
    page.get_by_role("button", name="Calibrate", exact=True).click()
    # corners are pushed with the keys, and crossed ones are refused
    corner = page.get_by_role("button", name=re.compile("^The upper left corner"))
    corner.focus()
    page.keyboard.press("Shift+ArrowRight")
    page.get_by_label("Long side").fill("60 cm")
    page.get_by_label("Short side").fill("nonsense")
    page.get_by_role("button", name="Take it so").click()
    expect(page.get_by_role("alert")).to_be_visible()
    page.get_by_label("Short side").fill("40 cm")
    page.get_by_role("button", name="Take it so").click()
    expect(page.locator(".true-shape.here polygon")).to_be_visible()


def test_paper_is_fetched_in_the_makers_own_size(page: Page, demo: str) -> None:
    page.goto(f"{demo}projects/{SHIRT}/cut?part=papers")
    page.get_by_text("Letter", exact=True).click()
    with page.expect_download() as taken:
        page.get_by_role("link", name="The cutting sheet").click()
    assert taken.value.suggested_filename == "boxy-overshirt-cutting-sheet.pdf"
    page.get_by_label("Square of").fill("20 cm")
    with page.expect_download() as taken:
        page.get_by_role("link", name="Print it", exact=True).click()
    assert taken.value.suggested_filename == "swatch-template.pdf"


def test_a_tablet_is_paired_by_the_code_of_the_first_screen(
    page: Page, demo: str, request: pytest.FixtureRequest
) -> None:
    from idle_selvage.api.door import Door

    request.getfixturevalue("application").services.door = Door(True, (demo,))
    page.goto(demo)
    code = page.locator(".pairing .code").inner_text()
    expect(page.get_by_role("img", name="The address with its code")).to_be_visible()
    page.goto(f"{demo}pair?code=WRONGWRONG")
    expect(page).to_have_url(f"{demo}pair")
    page.get_by_role("button", name="Pair it").click()
    expect(page.get_by_role("alert")).to_contain_text("not the code on the first screen")
    page.get_by_label("Code").fill(code)
    page.get_by_label("What this device is called").fill("Kitchen tablet")
    page.get_by_label("What this device is called").press("Enter")
    expect(page.get_by_text("Kitchen tablet")).to_be_visible()
    page.get_by_role("button", name="Take the pairing of Kitchen tablet back").click()
    expect(page.get_by_text("Kitchen tablet")).to_have_count(0)


def test_a_second_window_follows_and_cuts_nothing_twice(browser: Browser, page: Page, demo: str) -> None:
    at_table(page, demo)
    other = browser.new_context(viewport=TABLET, locale="en-GB").new_page()
    other.goto(f"{demo}projects/{SKIRT}/cut")
    expect(other.get_by_role("heading", level=1)).to_contain_text("1 of 11")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("2 of 11")
    # without a touch there
    expect(other.get_by_role("heading", level=1)).to_contain_text("2 of 11")
    expect(other.get_by_role("status").filter(has_text="1 of 11 pieces are cut")).to_be_visible()
    other.context.close()
