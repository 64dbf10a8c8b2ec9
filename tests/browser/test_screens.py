"""Single screens: nothing typed is lost, a sleeve off a paper pattern, units, undo, and access for all."""

from __future__ import annotations

import pytest
from playwright.sync_api import APIResponse, Page, Route, expect

from .test_whole_way import saved

pytestmark = pytest.mark.browser


def begin(page: Page, address: str, name: str = "Test") -> None:
    page.goto(address)
    page.get_by_label("A new project").fill(name)
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Which pieces will be cut?")


def test_a_garment_that_is_not_there_is_asked_for_once(page: Page, own: str) -> None:
    asked: list[str] = []
    page.on("request", lambda one: asked.append(one.url) if one.url.endswith("/api/projects/999") else None)
    page.goto(f"{own}projects/999/plan")
    expect(page.get_by_role("heading", level=1)).to_have_text("This project cannot be opened")
    assert len(asked) == 1


def test_a_bad_entry_stays_and_says_what_is_wrong_even_after_a_reload(page: Page, own: str) -> None:
    begin(page, own)
    page.get_by_role("link", name="Cloth", exact=True).click()
    field = page.get_by_label("Width, reading 1")
    field.fill("12 cubits")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("“cubits” in “12 cubits” is not a unit known here")
    expect(page.locator(".saved")).to_have_attribute("data-state", "failed")
    page.reload()
    expect(page.get_by_label("Width, reading 1")).to_have_value("12 cubits")
    page.get_by_label("Width, reading 1").fill("44 1/2 in")
    page.get_by_label("Width, reading 1").press("Enter")
    saved(page)
    page.reload()
    expect(page.get_by_label("Width, reading 1")).to_have_value("113.0 cm")


def test_escape_takes_back_what_was_typed(page: Page, own: str) -> None:
    begin(page, own)
    page.get_by_role("link", name="Cloth", exact=True).click()
    field = page.get_by_label("Weight")
    field.fill("heavy")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    field.press("Escape")
    expect(field).to_have_value("")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_sleeve_off_a_paper_pattern_by_keys_alone(page: Page, own: str) -> None:
    begin(page, own)
    page.get_by_role("button", name="Read off with a tape").click()
    keys = page.keyboard
    keys.type("Sleeve")
    page.get_by_label("station 1, along").focus()
    strokes = 0
    for value in ("0", "12", "12", "40", "18", "18", "48", "14,5", "13.5", "55", "1", "1"):
        keys.press("Control+a")
        keys.type(value)
        strokes += len(value) + 2
        if value != "1" or strokes < 60:
            keys.press("Enter")
    assert strokes < 120, "a sleeve is a minute's typing"
    expect(page.locator(".preview polygon").first).to_be_visible()
    expect(page.get_by_text("55.0 cm long, 36.0 cm wide")).to_be_visible()
    # half-typed work is there again after the tab was closed
    page.reload()
    page.get_by_role("button", name="Read off with a tape").click()
    expect(page.get_by_label("Name", exact=True)).to_have_value("Sleeve")
    expect(page.get_by_label("station 3, left")).to_have_value("14,5")
    page.get_by_label("pair: half of the copies mirrored").check()
    page.get_by_label("Seam allowance to add").fill("5/8 in")
    page.get_by_role("button", name="Keep this piece").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("1 piece, 2 to cut")
    page.get_by_role("button", name="Sleeve, 1 pair").click()
    expect(page.get_by_text("1.6 cm seam allowance added")).to_be_visible()
    page.get_by_role("button", name="Read off with a tape").click()
    expect(page.get_by_label("Name", exact=True)).to_have_value("")


def test_a_station_that_cannot_be_is_marked_where_it_stands(page: Page, own: str) -> None:
    begin(page, own)
    page.get_by_role("button", name="Read off with a tape").click()
    page.get_by_label("station 1, left").fill("ten")
    page.get_by_label("station 1, right").fill("10")
    page.get_by_label("station 2, along").fill("40")
    page.get_by_label("station 2, left").fill("10")
    page.get_by_label("station 2, right").fill("10")
    expect(page.get_by_label("station 1, left")).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_role("alert")).to_contain_text("“ten”")
    page.get_by_role("button", name="Keep this piece").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    page.get_by_label("station 1, left").fill("10")
    page.get_by_role("button", name="Keep this piece").click()
    expect(page.get_by_text("Give it a name.")).to_be_visible()
    expect(page.get_by_label("station 2, along")).to_have_value("40")


def test_taking_out_can_be_undone(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Bow ties and cuffs").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("2 pieces, 6 to cut")
    page.get_by_role("button", name="Bow,").click()
    page.get_by_role("button", name="Take out").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("1 piece, 4 to cut")
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_have_text("2 pieces, 6 to cut")


def test_inches_and_yards_everywhere(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Boxy overshirt").click()
    page.get_by_text("in / yd").click()
    saved(page)
    expect(page.locator('[data-key="width"] small')).to_contain_text("in")
    page.get_by_role("link", name="Cloth", exact=True).click()
    expect(page.get_by_label("Width, reading 1")).to_have_value("59 7⁄16 in")
    expect(page.get_by_text("56 13⁄16 in usable width")).to_be_visible()
    page.get_by_text("cm", exact=True).click()
    expect(page.get_by_label("Width, reading 1")).to_have_value("151.0 cm")


def test_units_changed_while_a_page_still_loads_hold_for_it(page: Page, demo: str) -> None:
    page.goto(demo)
    address = demo + (page.get_by_role("link", name="Open Boxy overshirt").get_attribute("href") or "")[1:]
    number = address.split("/projects/")[1].split("/")[0]
    held: list[tuple[Route, APIResponse]] = []
    late = True

    def hold(route: Route) -> None:
        answer = route.fetch()
        if late:
            held.append((route, answer))
        else:
            route.fulfill(response=answer)

    page.route(f"**/api/projects/{number}", hold)
    with page.expect_request(f"**/api/projects/{number}"):
        page.goto(address)
    page.get_by_text("in / yd").click()
    saved(page)
    late = False
    for route, answer in held:
        route.fulfill(response=answer)
    expect(page.locator('[data-key="width"] small')).to_contain_text("in")
    page.get_by_text("cm", exact=True).click()
    expect(page.locator('[data-key="width"] small')).to_contain_text("cm")


def test_every_stage_can_be_entered_and_no_other_address(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Six-gore skirt").click()
    rail = page.get_by_role("navigation", name="Stages")
    expect(rail.get_by_text("not yet")).to_have_count(0)
    rail.get_by_role("link", name="Cut").click()
    expect(page.get_by_role("list", name="Before cutting")).to_be_visible()
    page.goto(f"{demo}projects/1/sew")
    expect(page.get_by_text("There is nothing at this address")).to_be_visible()


def test_turning_on_the_bars_is_wished_where_there_are_bars(page: Page, demo: str) -> None:
    page.goto(demo)
    for garment, bars in (("Six-gore skirt", True), ("Bias slip", False)):
        page.goto(demo)
        page.get_by_role("link", name=f"Open {garment}").click()
        page.get_by_role("link", name="Lay", exact=True).click()
        page.get_by_role("button", name="How to lay").click()
        expect(page.get_by_label("Room between pieces, to cut")).to_be_visible()
        tick = page.get_by_label("Turn pieces on bars that are not balanced")
        expect(tick).to_have_count(int(bars))
        if bars:
            tick.click()
            expect(tick).to_be_checked()
            saved(page)
            # what it asks of the lay is another one now
            page.keyboard.press("Escape")
            expect(page.get_by_text("whether pieces may be turned on the bars was changed").first).to_be_visible()
