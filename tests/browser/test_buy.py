"""Buy, as somebody in the shop and at the cupboard uses it."""

from __future__ import annotations

import json
import re
import urllib.request
from pathlib import Path
from typing import Literal

import pytest
from playwright.sync_api import Page, expect
from tools.own_page import asking

from .test_cloth_shrink import enter, saved

pytestmark = pytest.mark.browser


def opened(page: Page, demo: str, project: str, part: str, role: Literal["tab", "button"] = "tab") -> None:
    """A part of Buy, of a project whose lays on the side are searched for a second only."""
    page.goto(demo)
    href = page.get_by_role("link", name=f"Open {project}").get_attribute("href") or ""
    number = re.findall(r"\d+", href)[0]
    request = urllib.request.Request(
        f"{demo}api/projects/{number}/lay",
        json.dumps({"lay_seconds": 1}).encode(),
        asking(demo),
        method="PATCH",
    )
    urllib.request.urlopen(request, timeout=10).close()
    page.goto(f"{demo}projects/{number}/buy")
    page.get_by_role(role, name=part, exact=True).click()


def tried(page: Page) -> None:
    expect(page.locator(".progress [role=progressbar]")).to_have_count(0, timeout=60_000)


def test_the_stack_and_what_each_rule_costs(page: Page, demo: str) -> None:
    opened(page, demo, "Notched waistcoat", "To ask for")
    nap = page.locator(".stack-line.stack-nap")
    expect(nap).to_be_attached(timeout=60_000)
    page.get_by_role("button", name=re.compile("^all tops one way: ")).click()
    working = page.locator(".working")
    expect(working).to_contain_text("with it − without it")
    page.get_by_role("button", name="Close", exact=True).click()
    expect(page.get_by_text("23 cm more for nap")).to_be_visible()

    # a wish that needs no lay moves the stack at once
    before = page.get_by_role("heading", level=1).inner_text()
    enter(page, "Spare, after washing", "45 cm")
    expect(page.get_by_role("heading", level=1)).not_to_have_text(before)
    expect(page.get_by_role("button", name=re.compile("^spare: 45.0 cm"))).to_be_visible()
    expect(page.locator(".progress [role=progressbar]")).to_have_count(0)

    # more on purpose wants its reason; what was typed stays
    more = page.get_by_label("Bought on purpose", exact=True)
    more.fill("30 cm")
    more.press("Enter")
    expect(page.get_by_text("Say why more is bought on purpose")).to_be_visible()
    expect(more).to_have_value("30 cm")
    expect(page.get_by_role("list", name="Not saved")).to_contain_text("Bought on purpose")
    page.get_by_label("Why buy more", exact=True).fill("clearance")
    page.get_by_label("Why buy more", exact=True).press("Enter")
    more.press("Enter")
    saved(page)
    expect(page.get_by_role("list", name="Not saved")).to_have_count(0)
    expect(page.locator(".stack-extra")).to_contain_text("bought on purpose: clearance")
    page.get_by_role("link", name="Log", exact=True).click()
    expect(page.get_by_text("Changed what is bought on purpose.").first).to_be_visible()


def test_offers_are_laid_compared_and_sorted(page: Page, demo: str) -> None:
    opened(page, demo, "Boxy overshirt", "Where to buy")
    rows = page.locator("main .offers-table tbody tr")
    expect(rows).to_have_count(4)
    expect(page.locator("main .offers-table .small-lay")).to_have_count(4, timeout=60_000)
    expect(page.get_by_text("✓ cheapest")).to_have_count(1)
    expect(page.get_by_text("the shop is")).to_be_visible()
    page.get_by_role("columnheader", name="cost").press("Enter")
    costs = [float(text) for text in page.locator("main .offers-table tbody tr td:nth-child(6)").all_inner_texts()]
    assert costs == sorted(costs) and len(costs) == 4

    page.get_by_role("button", name="Look at the shop’s list").click()
    page.get_by_role("button", name=re.compile("^Put Linen, .* beside$")).first.click()
    expect(page.get_by_text("✓ beside")).to_be_visible()
    page.get_by_role("button", name="Close", exact=True).click()
    expect(page.locator("main .offers-table .small-lay")).to_have_count(5, timeout=60_000)

    page.get_by_role("button", name="Linen stripe, narrow loom", exact=True).click()
    enter(page, "Price", "1")
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_role("row", name=re.compile("narrow loom"))).to_contain_text("cheapest")
    page.get_by_role("button", name="Linen stripe, narrow loom", exact=True).click()
    page.get_by_role("button", name="Take it out").click()
    expect(rows).to_have_count(4)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(rows).to_have_count(5)


def test_what_the_cupboard_holds_is_tried(page: Page, demo: str) -> None:
    opened(page, demo, "Bow ties and cuffs", "Will this piece do?")
    page.get_by_role("button", name="Linen, slate blue").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("will do", timeout=60_000)
    page.get_by_role("button", name="Linen, washed rose").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("short", timeout=60_000)
    tried(page)
    helps = page.locator(".helps li")
    expect(helps.first).to_contain_text("single layer")
    expect(page.locator('.helps li[data-state="waiting"]')).to_have_count(0, timeout=60_000)
    expect(page.get_by_text("Say on Plan which pieces do not show")).to_be_visible()
    asked: list[str] = []
    page.on("request", lambda sent: asked.append(sent.url) if sent.method != "GET" else None)
    page.get_by_role("button", name="Linen, slate blue").click()
    # it was tried before: the answer is there without another search
    expect(page.get_by_role("heading", level=1)).to_contain_text("will do")
    assert asked == []
    page.get_by_role("button", name="Make this the project’s cloth").click()
    expect(page.get_by_text("It is this project’s cloth already")).to_be_visible()


def test_two_garments_share_a_length(page: Page, demo: str) -> None:
    opened(page, demo, "Six-gore skirt", "Share a length")
    page.get_by_label("Bow ties and cuffs").click()
    expect(page.get_by_label("Bow ties and cuffs")).to_be_checked()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Together", timeout=120_000)
    expect(page.get_by_text("Bought apart")).to_be_visible()
    expect(page.locator(".small-lay polygon").first).to_be_visible()


def test_envelope_strips_and_conversions(page: Page, demo: str) -> None:
    opened(page, demo, "Boxy overshirt", "Envelope")
    expect(page.locator(".crossing input")).to_have_value("1 ⅞ yd")
    page.get_by_label("The garment fits").select_option("close")
    expect(page.locator(".crossing input")).to_have_value("2 yd")
    cell = page.get_by_label("Row 2, size L", exact=True)
    cell.fill("2 1/4 yd")
    cell.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("2 ¼ yd")
    enter(page, "The cloth is wide", "112 cm")
    expect(page.get_by_role("heading", level=1)).to_contain_text("2 ⅝ yd")
    page.get_by_role("button", name="Convert", exact=True).click()
    page.get_by_label("A length or a weight, in any unit").fill("1,26 m")
    expect(page.locator(".spoken")).to_contain_text("1 ½ yd")
    page.get_by_label("A length or a weight, in any unit").fill("so wide")
    expect(page.get_by_role("alert").filter(has_text="no number before it")).to_be_visible()
    page.get_by_role("button", name="Close", exact=True).click()

    page.get_by_role("tab", name="Strips", exact=True).click()
    enter(page, "Sewn to an edge of", "120 cm")
    enter(page, "Finished depth", "14 cm")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Cut one strip 17.5 cm deep")
    expect(page.get_by_text("✓ less cloth")).to_have_count(1)


def test_the_list_on_a_telephone(page: Page, demo: str) -> None:
    page.set_viewport_size({"width": 390, "height": 780})
    opened(page, demo, "Six-gore skirt", "The list", role="button")
    expect(page.get_by_role("heading", level=1)).to_have_text("5 things to bring")
    page.get_by_label("Trouser hook is in the house").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("4 things to bring")
    wide = page.evaluate("document.querySelector('.shop-list').scrollWidth")
    assert wide <= 390, "nothing has to be pushed sideways"
    page.get_by_label("What it is").fill("Interfacing, 20 cm")
    page.get_by_role("button", name="Put on").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("5 things to bring")
    with page.expect_download() as download:
        page.get_by_role("link", name="Take it away (CSV)").click()
    assert "Interfacing, 20 cm" in Path(download.value.path()).read_text()


def test_where_pieces_meet_is_said_on_plan(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Six-gore skirt").click()
    page.get_by_role("tab", name="Seams").click()
    page.get_by_role("button", name=re.compile("^The seam Gore to the next")).click()
    # a key point higher up on one side puts them on other bars
    enter(page, "Key point, from where it begins", "10 cm")
    enter(page, "and on Gore", "16 cm")
    expect(page.locator("main").get_by_text("cannot meet as well")).to_be_visible()
    asked = page.get_by_label("bars across the garment meet here")
    asked.click()
    expect(asked).not_to_be_checked()
    page.get_by_role("link", name="Lay", exact=True).click()
    expect(page.locator("main").get_by_text(re.compile("Out of date: .*the pieces were changed"))).to_be_visible()
