"""Cloth and Shrink on their screens: the record, the cupboard, swatches, treatment, the washing day, the tape."""

from __future__ import annotations

import re
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect
from tools.own_page import asking

from ..conftest import photo
from .by_hand import pick
from .test_screens import begin
from .test_whole_way import saved, tab

pytestmark = pytest.mark.browser


def heading(page: Page, text: str) -> None:
    expect(page.get_by_role("heading", level=1)).to_contain_text(text)


def enter(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")
    saved(page)


def send(address: str, value: str) -> None:
    """A reading of the tape."""
    request = urllib.request.Request(f"{address}api/tape/readings", f'{{"value": "{value}"}}'.encode(), asking(address))
    urllib.request.urlopen(request, timeout=10).close()


def linen(page: Page, address: str, name: str = "Linen, oat") -> None:
    """A project whose cloth is named and measured."""
    begin(page, address)
    page.get_by_role("link", name="Cloth", exact=True).click()
    enter(page, "Name", name)
    pick(page, "Fibre", "linen")
    saved(page)
    for place in (1, 2, 3):
        enter(page, f"Width, reading {place}", "140")
    enter(page, "Length in hand, if any", "2 m")


def test_the_record_of_a_cloth(page: Page, own: str, tmp_path: Path) -> None:
    linen(page, own)
    page.get_by_role("button", name="Another fibre").click()
    expect(page.get_by_text("The shares add up to 101 %")).to_be_visible()
    shares = page.get_by_label("Share")
    shares.nth(0).fill("80")
    shares.nth(0).press("Enter")
    saved(page)
    shares.nth(1).fill("20")
    shares.nth(1).press("Enter")
    expect(page.get_by_text("The shares add up")).to_have_count(0)

    parts = page.get_by_role("group", name="Facts of the cloth")
    parts.get_by_role("button", name="Face").click()
    page.get_by_label("Direction").select_option("nap")
    page.get_by_label("The pile will run").select_option("up")
    expect(page.get_by_text("the colour looks deeper").last).to_be_visible()

    parts.get_by_role("button", name="Bars").click()
    begins = page.get_by_role("button", name="Begin with a bar").first
    begins.click()
    enter(page, "Across, from the near selvage: bar 1, width", "1 cm")
    page.get_by_role("button", name="Another bar").click()
    enter(page, "Across, from the near selvage: bar 2, width", "3 cm")
    expect(page.get_by_text("Repeat 4.0 cm, balanced")).to_be_visible()
    expect(page.locator(".axis")).not_to_have_count(0)

    parts.get_by_role("button", name="By hand").click()
    page.get_by_label("Can you see through it?").select_option("yes")
    expect(page.get_by_text("See-through: line it")).to_be_visible()
    page.get_by_label("Does the dye rub off?").select_option("3")
    expect(page.get_by_text("Wash it on its own, with a dye-catching sheet")).to_be_visible()

    parts.get_by_role("button", name="Kept").click()
    enter(page, "Where it is kept", "Blue box")
    picture = tmp_path / "cloth.jpg"
    picture.write_bytes(photo(200, 120))
    page.get_by_label("Photo of the cloth").set_input_files(picture)
    shown = page.get_by_alt_text("Linen, oat, as photographed")
    expect(shown).to_be_visible()
    assert shown.evaluate("e => e.decode().then(() => e.naturalWidth)") == 200


def test_a_flaw_is_drawn_by_pointer_and_moved_by_tape(page: Page, own: str) -> None:
    linen(page, own)
    page.get_by_role("group", name="Facts of the cloth").get_by_role("button", name="Flaws").click()
    cloth = page.get_by_role("img", name="The cloth to scale")
    box = cloth.bounding_box()
    assert box is not None
    scale = float(cloth.get_attribute("data-scale") or 0)
    x, y = box["x"] + 66 + 500 * scale, box["y"] + 44 + 400 * scale
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 100 * scale, y + 60 * scale, steps=5)
    page.mouse.up()
    saved(page)
    told = [page.get_by_label(name, exact=True).input_value() for name in ("From the cut end", "Along", "Across")]
    assert [float(t.split()[0]) for t in told] == pytest.approx([50, 10, 6], abs=1.0)
    enter(page, "From the cut end", "75 cm")
    enter(page, "What it is", "ink")
    expect(page.locator(".flaw text")).to_have_text("ink")
    left = page.locator(".flaw rect").get_attribute("x")
    assert float(left or 0) == pytest.approx(66 + 750 * scale, abs=1)
    enter(page, "A faded shop fold, from the near selvage", "70")
    expect(page.get_by_text("faded shop fold", exact=True)).to_be_visible()
    page.get_by_role("button", name="Remove this flaw").click()
    expect(page.locator(".flaw")).to_have_count(0)


def test_the_cupboard(page: Page, own: str) -> None:
    page.goto(own)
    page.get_by_role("link", name="Cupboard").click()
    heading(page, "The cupboard is empty")
    page.get_by_label("Put in").fill("Remnant, rose")
    page.get_by_label("Put in").press("Enter")
    heading(page, "Remnant, rose")
    enter(page, "Length in hand, if any", "85 cm")
    page.get_by_role("link", name="Back to the cupboard").click()
    heading(page, "1 cloth in the cupboard")
    page.get_by_label("Find").fill("rose velvet")
    expect(page.get_by_text("No cloth has all these words")).to_be_visible()
    page.get_by_label("Find").fill("ROSE")
    page.get_by_role("button", name="Remnant, rose, 85.0 cm").click()
    page.get_by_role("button", name="Take it out").click()
    heading(page, "The cupboard is empty")
    page.get_by_role("button", name="Undo", exact=True).click()
    heading(page, "1 cloth in the cupboard")
    begin(page, own, "Bow ties")
    page.get_by_role("link", name="Cloth", exact=True).click()
    page.get_by_role("button", name="From the cupboard").click()
    page.get_by_role("dialog").get_by_role("button", name="Remnant, rose").click()
    expect(page.get_by_label("Name", exact=True)).to_have_value("Remnant, rose")


def test_a_swatch_over_several_washes(page: Page, own: str) -> None:
    linen(page, own)
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("button", name="Marked 25 cm both ways, three times").click()
    saved(page)
    for direction, after in (("warp", ("23.8", "23,8", "23.9")), ("weft", ("24.5", "24.4", "24.5"))):
        for i, value in enumerate(after, start=1):
            enter(page, f"{direction} reading {i}, after", value)
    expect(page.locator(".verdict")).to_contain_text("One wash took 4.7 %")
    page.get_by_text("The diagonals, to see a slant").click()
    enter(page, "diagonal A to C, before", "35.4")
    page.reload()
    expect(page.get_by_label("diagonal A to C, before")).to_have_value("35.4 cm")
    enter(page, "diagonal B to D, before", "35.4")
    page.get_by_role("button", name="It was washed again").click()
    for direction, value in (("warp", "23.5"), ("weft", "24.3")):
        for i in (1, 2, 3):
            enter(page, f"{direction} reading {i}, after wash 2", value)
            if direction == "warp" and i == 1:
                # the column stays while it is being filled
                expect(page.get_by_label("weft reading 1, after wash 2")).to_be_visible()
    expect(page.locator(".verdict")).to_contain_text("wash once more")
    expect(page.locator(".cycle-warp text")).to_have_text(["4.7", "6.0"])
    page.get_by_role("button", name="Another swatch").click()
    expect(page.get_by_text("Swatch 1: 2 washes: 6.0 % along, 2.8 % across")).to_be_visible()
    page.get_by_role("button", name="Go by this one").click()
    expect(page.locator(".answer-number").first).to_have_text("6.0")


def test_the_stand_in_washer_says_that_it_made_the_readings_up(page: Page, own: str) -> None:
    linen(page, own)
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("button", name="Marked 25 cm both ways, three times").click()
    page.get_by_role("button", name="Wash it in the stand-in washer").click()
    expect(page.get_by_text("These readings are made up by the stand-in washer")).to_be_visible()
    expect(page.get_by_label("warp reading 1, after")).not_to_have_value("")


def test_treatment_dye_and_shrink_to_fit(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Six-gore skirt").click()
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("tab", name="How to wash it").click()
    heading(page, "As the garment")
    page.get_by_role("radio", name=re.compile("One step hotter")).click()
    heading(page, "One step hotter")
    expect(page.get_by_text("Machine wash at 60 °C.")).to_be_visible()
    expect(page.get_by_text("Hot water scalds")).to_be_visible()
    page.get_by_label("How", exact=True).fill("60 °C, tumbled")
    page.get_by_label("The rag afterwards").select_option("4")
    page.get_by_role("button", name="Write it down").click()
    expect(page.locator(".washes li")).to_contain_text("60 °C, tumbled, rag grade 4")
    page.get_by_role("radio", name=re.compile("shrink to fit")).press("Space")
    heading(page, "Sew first, shrink to fit")
    page.get_by_role("link", name="Plan", exact=True).first.click()
    expect(page.locator(".piece-enlarged")).to_have_count(3)
    page.get_by_role("link", name="Buy", exact=True).click()
    expect(
        page.locator("main").get_by_text(re.compile("^Out of date: the shrinkage along .* and the shrinkage across"))
    ).to_be_visible()
    page.get_by_role("link", name="Lay", exact=True).click()
    expect(page.get_by_text("the shrinkage across to plan with went from").first).to_be_visible()
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("tab", name="How to wash it").click()
    page.get_by_role("button", name="Back to the default of its care").click()
    heading(page, "As the garment")


def test_cloths_together(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Notched waistcoat").click()
    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("tab", name="Cloths together").click()
    heading(page, "would pucker")
    page.get_by_label("Its name").fill("Edging, cotton")
    page.get_by_label("Put beside it").select_option("trim")
    page.get_by_role("button", name="Put beside", exact=True).click()
    expect(page.get_by_role("row", name=re.compile("Edging, cotton"))).to_contain_text("trim")
    page.get_by_role("button", name="Take Edging, cotton from the set").click()
    expect(page.get_by_role("row", name=re.compile("Edging, cotton"))).to_have_count(0)
    page.get_by_role("tab", name="Swatch", exact=True).click()
    page.get_by_role("navigation", name="Cloths of this garment").get_by_role("link", name="Lining twill").click()
    expect(page.get_by_text("These are the ranges of common practice")).to_be_visible()


@pytest.mark.clock
def test_the_washing_day_and_its_timer(page: Page, own: str) -> None:
    linen(page, own)
    page.clock.install()
    page.goto(f"{own}washday")
    heading(page, "1 cloth waits")
    page.get_by_role("button", name="The house").click()
    enter(page, "The washer takes at most", "6")
    page.get_by_role("button", name="Close", exact=True).click()
    page.get_by_role("button", name="Plan the day").click()
    heading(page, "All is treated, dry and at rest by")
    expect(page.locator(".slot")).to_have_count(3)
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("timer")).to_contain_text(re.compile("1 h 1[45] min left"))
    page.reload()
    expect(page.get_by_role("timer")).to_contain_text("left")
    page.clock.fast_forward("01:20:00")
    bar = page.locator(".timers")
    expect(bar).to_contain_text("the time is up")
    page.get_by_role("link", name="Cupboard").click()
    expect(bar).to_be_visible()
    bar.get_by_role("button", name="Done").click()
    expect(bar).to_have_count(0)
    page.get_by_role("link", name="Washing day").click()
    page.get_by_role("button", name="take back").click()
    expect(page.get_by_role("timer")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="Take it away (calendar)").click()
    assert Path(download.value.path()).read_bytes().startswith(b"BEGIN:VCALENDAR")
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_role("region", name="Washing day")).to_be_visible()


def test_the_next_reading_of_the_tape_fills_the_field_in_focus_and_moves_on(page: Page, own: str) -> None:
    begin(page, own)
    page.get_by_role("link", name="Cloth", exact=True).click()
    expect(page.get_by_text("tape: ready")).to_have_count(0)
    page.get_by_label("Width, reading 1").focus()
    expect(page.get_by_text("tape: ready")).to_be_visible()
    for value in ("1402 mm", "1398 mm"):
        send(own, value)
    expect(page.get_by_label("Width, reading 1")).to_have_value("140.2 cm")
    expect(page.get_by_label("Width, reading 2")).to_have_value("139.8 cm")
    expect(page.get_by_label("Width, reading 3")).to_be_focused()
    page.get_by_role("link", name="Plan", exact=True).click()
    page.get_by_role("button", name="Read off with a tape").click()
    page.get_by_label("station 1, left").focus()
    expect(page.get_by_text("tape: ready")).to_be_visible()
    send(own, "120 mm")
    expect(page.get_by_label("station 1, left")).to_have_value("12.0 cm")
    expect(page.get_by_label("station 1, right")).to_be_focused()


def test_a_changed_swatch_is_brought_up_to_date_in_one_touch(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Boxy overshirt").click()
    page.get_by_role("link", name="Shrink", exact=True).click()
    for i in (1, 2, 3):
        enter(page, f"warp reading {i}, after wash 2", "22")
    expect(page.locator('.rail-stage[href$="/buy"] .dot-look-again')).to_be_visible()
    expect(page.locator('.rail-stage[href$="/lay"] .dot-look-again')).to_be_visible()
    page.get_by_role("link", name="Buy", exact=True).click()
    # in the page: the rail says it too, in what comes up under the resting pointer
    expect(page.locator("main").get_by_text("the shrinkage along to plan with went from")).to_be_visible()
    page.get_by_role("button", name="Bring up to date").click()
    expect(page.locator("main").get_by_text("Out of date")).to_have_count(0)
    expect(page.locator(".dot-look-again")).to_have_count(0)


def test_half_typed_entries_of_one_cloth_do_not_show_at_another(page: Page, own: str) -> None:
    for name in ("Linen", "Lawn"):
        page.goto(f"{own}cupboard")
        page.get_by_label("Put in").fill(name)
        page.get_by_label("Put in").press("Enter")
        heading(page, name)
    page.get_by_label("Weight").fill("heavy")
    page.get_by_label("Weight").press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    page.goto(f"{own}cupboard/1")
    heading(page, "Linen")
    expect(page.get_by_label("Weight")).to_have_value("")
    page.goto(f"{own}cupboard/2")
    expect(page.get_by_label("Weight")).to_have_value("heavy")


def test_shrink_by_keyboard_alone(page: Page, own: str) -> None:
    linen(page, own)
    keys = page.keyboard

    def tab_to(name: str) -> None:
        tab(page, name)

    def next_part(now: str) -> None:
        """To the tab after the one that is chosen: tabs are one stop, arrows go from one to the next."""
        tab_to("Tab ")
        assert now in page.evaluate("document.activeElement.innerText")
        keys.press("ArrowRight")
        keys.press("Enter")

    tab_to("Shrink")
    keys.press("Enter")
    tab_to("Marked 25 cm")
    keys.press("Enter")
    saved(page)
    page.get_by_label("warp reading 1, after").focus()
    for value in ("23.5", "23.5", "23.5"):
        keys.type(value)
        keys.press("Enter")
        saved(page)
    expect(page.get_by_label("warp reading 3, after")).to_have_value("23.5 cm")
    next_part("Swatch")
    heading(page, "As the garment")
    tab_to("As the garment")
    keys.press("ArrowDown")
    heading(page, "One step hotter")
    tab_to("Back to the default")
    keys.press("Enter")
    heading(page, "As the garment")
    next_part("How to wash it")
    heading(page, "One cloth, and nothing beside it yet")
    tab_to("Its name")
    keys.type("Twill\n")
    expect(page.get_by_role("row", name=re.compile("Twill"))).to_contain_text("lining")
    next_part("Cloths together")
    heading(page, "1 cloth waits")
    tab_to("Plan the day")
    keys.press("Enter")
    heading(page, "All is treated, dry and at rest by")
    tab_to("Begin")
    keys.press("Enter")
    expect(page.get_by_role("timer")).to_contain_text("left")


def test_what_was_taken_away_is_brought_back(page: Page, own: str, tmp_path: Path) -> None:
    linen(page, own)
    page.get_by_role("group", name="Facts of the cloth").get_by_role("button", name="Kept").click()
    picture = tmp_path / "cloth.png"
    picture.write_bytes(photo(80, 60, "PNG"))
    page.get_by_label("Photo of the cloth").set_input_files(picture)
    shown = page.get_by_alt_text("Linen, oat, as photographed")
    expect(shown).to_be_visible()
    page.get_by_role("button", name="Remove it").click()
    expect(shown).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(shown).to_be_visible()
    page.get_by_label("Photo of the cloth").set_input_files(
        {"name": "notes.jpg", "mimeType": "image/jpeg", "buffer": b"no photo at all"}
    )
    expect(page.get_by_role("alert")).to_contain_text("not a photo that can be read")

    page.get_by_role("link", name="Shrink", exact=True).click()
    page.get_by_role("tab", name="How to wash it").click()
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("alert")).to_contain_text("Say how it was washed")
    page.get_by_label("How", exact=True).fill("40 °C")
    page.get_by_role("button", name="Write it down").click()
    expect(page.locator(".washes li")).to_have_count(1)
    page.get_by_role("button", name="strike out").click()
    expect(page.locator(".washes li")).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.locator(".washes li")).to_have_count(1)
