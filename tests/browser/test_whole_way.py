"""The whole way through, once with the demo by mouse, once with a new project by keyboard."""

from __future__ import annotations

import json
import re
from pathlib import Path
from xml.etree import ElementTree

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.browser

SVG = """<svg xmlns="http://www.w3.org/2000/svg" width="800mm" height="800mm" viewBox="0 0 800 800">
<g id="panel" class="piece"><title>Panel</title><path d="M40,20 L160,20 L260,620 L0,620 Z"/>
<line class="grainline" x1="120" y1="600" x2="120" y2="60"/><text>copies 4</text></g>
<g id="yoke" class="piece"><title>Yoke</title><path d="M300,20 C400,60 420,60 520,20 L560,160 L300,160 Z"/>
<line class="grainline" x1="360" y1="150" x2="360" y2="50"/><text>pair, add 15 mm</text></g>
<image id="photo"/></svg>"""


def saved(page: Page) -> None:
    expect(page.locator(".saved")).to_have_attribute("data-state", "saved")


def tab(page: Page, name: str) -> None:
    """Go by the Tab key to whatever is called so."""
    for _ in range(90):
        page.keyboard.press("Tab")
        here = page.evaluate(
            "(document.activeElement.labels?.[0]?.innerText ?? document.activeElement.ariaLabel "
            "?? document.activeElement.innerText ?? '').trim()"
        )
        if here.startswith(name):
            return
    raise AssertionError(f"{name!r} cannot be reached by keyboard")


def test_the_demo_by_mouse(page: Page, demo: str, tmp_path: Path) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Notched waistcoat").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("6 pieces, 22 to cut")

    page.get_by_role("link", name="Cloth", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("usable width after washing")
    before = page.locator('[data-key="width"] b').inner_text()
    third = page.get_by_label("Width, reading 3")
    third.fill("1,10 m")
    expect(page.locator(".say", has_text="= 110.0 cm")).to_be_visible()
    third.press("Tab")
    saved(page)
    expect(page.locator('[data-key="width"] b')).not_to_have_text(before)

    page.get_by_role("link", name="Lay", exact=True).click()
    expect(page.locator("main").get_by_text("Out of date: the usable width went from")).to_be_visible()
    expect(page.locator('.rail-stage[href$="/lay"] .dot-look-again')).to_be_visible()
    page.get_by_role("button", name="How to lay").click()
    seconds = page.get_by_label("Time to search")
    seconds.fill("1")
    seconds.press("Enter")
    saved(page)
    page.get_by_role("button", name="Close", exact=True).click()
    page.get_by_role("button", name="Lay again").click()
    expect(page.get_by_role("button", name="Good enough")).to_be_visible()
    expect(page.get_by_role("button", name="Lay again")).to_be_visible(timeout=30_000)
    expect(page.locator("main").get_by_text("Out of date")).to_have_count(0)

    page.get_by_role("button", name=re.compile("^Front, 1")).click()
    facts = page.get_by_role("region", name="The chosen piece")
    told = re.findall(r"\d+\.\d cm", facts.locator("b").all_inner_texts()[0] + facts.locator("b").all_inner_texts()[1])
    assert len(told) == 2 and told[0] == told[1], "on grain: both ends of the arrow measure the same"
    expect(page.locator(".distances text")).to_have_text(told)

    page.get_by_role("button", name=re.compile("folded selvage to selvage")).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("folded selvage to selvage")
    pinned = page.locator(".laid").count()
    page.get_by_text("opened out").click()
    expect(page.locator(".laid")).to_have_count(15)
    assert pinned < 15

    with page.expect_download() as download:
        page.get_by_role("link", name="Take it away 1:1 (SVG)").click()
    svg = tmp_path / "lay.svg"
    download.value.save_as(svg)
    assert ElementTree.parse(svg).getroot().get("width", "").endswith("mm")

    page.get_by_role("link", name="Buy", exact=True).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Ask for")
    page.get_by_label("The shop cuts in steps of").select_option("¼ yd")
    saved(page)
    page.get_by_role("button", name=re.compile("^to buy")).first.click()
    working = page.get_by_role("dialog")
    expect(working).to_contain_text("needed ÷ (1 − shrinkage along)")
    expect(working).to_contain_text("AATCC TM135")
    expect(working).to_contain_text("0.2286 m")
    page.keyboard.press("Escape")

    page.get_by_role("link", name="Log", exact=True).click()
    expect(page.locator(".log-lines li").filter(has_text="shop's step")).to_be_visible()
    # a list for each day: the way may lead over midnight
    expect(page.locator(".log-lines").first).to_be_visible()
    expect(page.locator(".log-lines").filter(has_text="away")).to_have_count(0)


@pytest.mark.timed
def test_a_new_project_by_keyboard_from_a_drawing(page: Page, own: str, tmp_path: Path) -> None:
    drawing = tmp_path / "panels.svg"
    drawing.write_text(SVG)
    keys = page.keyboard

    def tab_to(name: str) -> None:
        tab(page, name)

    # asking for choosers now: asked for as late as the key press, the browser may open its own instead
    page.on("filechooser", lambda _chooser: None)
    page.goto(own)
    expect(page.get_by_role("heading", level=1)).to_have_text("What will you make?")
    tab_to("A new project")
    keys.type("Panelled skirt")
    keys.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("Which pieces will be cut?")
    tab_to("Take in a file")
    with page.expect_file_chooser() as chooser:
        keys.press("Enter")
    chooser.value.set_files(drawing)
    expect(page.get_by_role("heading", level=1)).to_have_text("2 pieces understood in “panels.svg”")
    expect(page.get_by_text("image “photo”: a picture, not an outline")).to_be_visible()
    tab_to("Keep these 2 pieces")
    keys.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("2 pieces, 6 to cut")

    page.locator("body").click(position={"x": 600, "y": 5})
    tab_to("Cloth")
    keys.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_have_text("How wide is the cloth?")
    tab_to("Name")
    keys.type("Striped linen\n")
    saved(page)
    tab_to("Width, reading")
    for reading in ("59 1/8 in", "1,50 m", "150.4"):
        # Enter goes on to the next of them
        keys.type(reading)
        keys.press("Enter")
        saved(page)
    expect(page.get_by_label("Width, reading 1")).to_have_value("150.2 cm")
    tab_to("Near selvage")
    keys.press("Control+a")
    keys.type("9 mm\n")
    saved(page)
    tab_to("Fibre")
    keys.type("linen\n")
    saved(page)

    page.get_by_role("link", name="Shrink", exact=True).press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Plan with 8.0 % along")
    expect(page.get_by_text("not of your cloth")).to_be_visible()
    page.get_by_role("button", name="Marked 25 cm both ways, three times").press("Enter")
    expect(page.get_by_label("weft reading 3, before")).to_have_value("25.0 cm")
    after = page.get_by_label("warp reading 1, after")
    after.focus()
    for value in ("23.6", "23 cm 5 mm", "236 mm"):
        keys.type(value)
        keys.press("Enter")
        saved(page)
    page.get_by_label("weft reading 1, after").focus()
    for value in ("24.4", "24.3", "24.4"):
        keys.type(value)
        keys.press("Enter")
        saved(page)
    expect(page.get_by_text("from the washed swatch")).to_have_count(2)
    expect(page.locator(".answer-number").first).to_have_text("5.7")

    page.get_by_role("link", name="Lay", exact=True).press("Enter")
    page.get_by_role("button", name="Lay the pieces").press("Enter")
    expect(page.locator(".laid").first).to_be_visible(timeout=20_000)
    page.get_by_role("button", name="Good enough").press("Enter")
    expect(page.get_by_role("button", name="Lay again")).to_be_visible(timeout=20_000)
    first = page.locator(".laid").first
    first.focus()
    keys.press("ArrowRight")
    expect(page.locator(".laid.chosen")).to_have_count(1)
    keys.press("Escape")
    expect(page.locator(".laid.chosen")).to_have_count(0)
    with page.expect_download() as download:
        page.get_by_role("link", name="as JSON").press("Enter")
    lay = json.loads(Path(download.value.path()).read_text())
    assert lay["format"] == "idle-selvage/lay/1" and len(lay["cut"]) == 6
    expect(page.locator('[data-key="to_buy"] b')).to_be_visible()
    page.get_by_role("link", name="Log", exact=True).press("Enter")
    for line in ("Read 2 pieces from “panels.svg”.", "stopped early"):
        expect(page.locator(".log-lines li").filter(has_text=line).first).to_be_visible()
