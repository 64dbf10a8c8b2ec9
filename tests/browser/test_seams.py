"""Seams made by pointer and by keys, seen before cutting, and their bars wished for."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

GARMENTS = {"Notched waistcoat": 6, "Boxy overshirt": 7, "Six-gore skirt": 8, "Check waistcoat": 9}


def open_seams(page: Page, demo: str, garment: str) -> None:
    page.goto(f"{demo}projects/{GARMENTS[garment]}/plan?part=seams")
    expect(page.locator(".garment-diagram")).to_be_visible()


def test_two_edges_are_touched_and_sewn(page: Page, demo: str) -> None:
    open_seams(page, demo, "Notched waistcoat")
    page.get_by_role("button", name=re.compile("^Front, edge from .*28.5 cm")).dispatch_event("click")
    expect(page.get_by_role("status").filter(has_text="touch the edge it is sewn to")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Back, edge from .*28.5 cm")).dispatch_event("click")
    seam = page.get_by_role("button", name=re.compile("^The seam Front to Back"))
    expect(seam).to_be_visible()
    seam.click()
    facts = page.get_by_role("region", name="The chosen seam")
    facts.get_by_label("Called").fill("Side")
    facts.get_by_label("Called").press("Enter")
    expect(facts.get_by_role("heading", name="Side")).to_be_visible()
    facts.get_by_role("button", name="Take out").click()
    expect(page.get_by_role("button", name="The seam Side")).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("^The seam Side"))).to_be_visible()


def test_by_keys_alone_an_edge_is_sewn_to_its_own_mirror_image(page: Page, demo: str) -> None:
    open_seams(page, demo, "Notched waistcoat")
    edge = page.get_by_role("button", name=re.compile("^Facing, edge from")).first
    edge.focus()
    page.keyboard.press("Enter")
    expect(edge).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("Escape")
    expect(edge).to_have_attribute("aria-pressed", "false")
    for _ in range(2):
        edge.focus()
        page.keyboard.press("Enter")
    seam = page.get_by_role("button", name=re.compile("^The seam Facing to Facing"))
    expect(seam).to_be_visible()
    seam.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="The chosen seam")).to_be_visible()


def test_what_is_proposed_is_taken_with_one_touch(page: Page, demo: str) -> None:
    open_seams(page, demo, "Notched waistcoat")
    proposed = page.get_by_role("region", name="Proposed seams")
    boxes = proposed.get_by_role("checkbox")
    expect(boxes.first).to_be_visible()
    count = boxes.count()
    boxes.first.uncheck()
    proposed.get_by_role("button", name=re.compile("^Make th")).click()
    expect(page.locator(".thread")).to_have_count(count - 1)
    expect(proposed.get_by_role("checkbox")).to_have_count(1)


def test_a_seam_is_seen_before_it_is_cut(page: Page, demo: str) -> None:
    page.goto(f"{demo}projects/{GARMENTS['Check waistcoat']}/lay")
    expect(page.locator(".laid").first).to_be_visible()
    page.get_by_text("Seams", exact=True).click()
    beside = page.get_by_role("region", name="Seams on this lay")
    expect(beside.get_by_role("listitem").filter(has_text="Square the bars first")).to_be_visible()
    beside.get_by_role("button", name=re.compile("Side seam")).click()
    drawer = page.get_by_role("dialog")
    picture = drawer.locator(".seam-shown")
    expect(picture).to_be_visible()
    box = picture.bounding_box()
    assert box is not None and box["height"] >= 400 and box["width"] >= 400
    expect(
        drawer.get_by_role("img", name=re.compile("Along the seam the bars miss each other by at most"))
    ).to_be_visible()
    before = picture.get_attribute("viewBox")
    drawer.get_by_text("× 4").click()
    expect(picture).not_to_have_attribute("viewBox", before or "")
    drawer.get_by_text("at the cut edge").click()
    expect(drawer.get_by_text("The seam lies further in")).to_be_visible()


def test_a_pocket_is_laid_on_a_front_and_bars_are_wished_for(page: Page, demo: str) -> None:
    open_seams(page, demo, "Check waistcoat")
    page.get_by_role("button", name="The seam Pocket on Front").click()
    facts = page.get_by_role("region", name="The chosen seam")
    facts.get_by_role("button", name="Take out").click()
    page.get_by_role("button", name="Lay one on another").click()
    page.get_by_role("button", name=re.compile("^Pocket, edge from .*11.2 cm")).first.dispatch_event("click")
    front = page.get_by_role("button", name="On Front", exact=True)
    front.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^The seam Pocket to Front"))).to_be_visible()
    page.get_by_label("this bar").select_option(label="bar 1, the one seen first")
    expect(page.get_by_label("this bar")).to_have_value("0")
    # by dragging the bars they fall elsewhere
    page.get_by_role("button", name="Drag the bars over it").click()
    bars = page.locator(".bars-over")
    box = bars.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2 + 12, steps=4)
    page.mouse.up()
    expect(page.get_by_label("this bar").locator("option:checked")).to_have_text("where it was dragged to")


def test_corners_are_touched_and_a_tablet_shows_all_of_it(page: Page, demo: str) -> None:
    page.set_viewport_size({"width": 820, "height": 1180})
    open_seams(page, demo, "Boxy overshirt")
    edges = page.get_by_role("button", name=re.compile("^Sleeve, edge from"))
    expect(edges.first).to_be_attached()
    before = edges.count()
    page.get_by_role("button", name="Corners").click()
    corner = page.get_by_role("checkbox", name=re.compile("^Sleeve, point")).and_(page.locator("[aria-checked=false]"))
    corner.first.dispatch_event("click")
    expect(edges).to_have_count(before + 1)
    wide = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
    assert wide <= 0, "nothing reaches out of the page sideways"


def test_on_the_lay_a_matched_piece_steps_from_bar_to_bar(page: Page, demo: str) -> None:
    page.goto(f"{demo}projects/{GARMENTS['Six-gore skirt']}/lay")
    gore = page.locator('.laid[aria-label^="Gore, 2"]').first
    gore.click()
    bars = page.get_by_role("region", name="On the bars")
    expect(bars.get_by_text("Its bars agree every 5.8 cm along")).to_be_visible()
    expect(page.locator(".agreeing path").first).to_be_attached()
    pinned = gore.get_attribute("data-pinned")

    def from_end() -> str:
        return page.locator(f'.laid[data-pinned="{pinned}"]').get_attribute("aria-label") or ""

    before = from_end()
    bars.get_by_role("button", name="Bars on").click()
    expect(page.locator(f'.laid[data-pinned="{pinned}"]')).not_to_have_attribute("aria-label", before)
    page.locator(f'.laid[data-pinned="{pinned}"]').focus()
    page.keyboard.press("Alt+ArrowLeft")
    expect(page.locator(f'.laid[data-pinned="{pinned}"]')).to_have_attribute("aria-label", before)
    bars.get_by_role("button", name="All that meet it").click()
    expect(page.get_by_role("heading", name="6 pieces chosen")).to_be_visible()
