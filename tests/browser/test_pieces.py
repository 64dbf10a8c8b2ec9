"""Pieces as they are on the paper: told in every way, changed on the picture, printed."""

from __future__ import annotations

import json
import re
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from .test_screens import begin
from .test_whole_way import saved

pytestmark = pytest.mark.browser

#: A front with a notched lapel, going round its edge: along, across (right of the grainline: −), smooth.
LAPEL = [
    ("0", "6 1/4", False), ("0", "-2 3/4", False), ("12 1/4", "-2 7/8", True), ("16 1/2", "-4", True),
    ("20", "-5 1/2", False), ("20 1/2", "-3", False), ("22", "-3 3/8", False), ("25 1/4", "-3/8", False),
    ("24 3/8", "4 3/4", False), ("22", "3 3/4", True), ("19 1/4", "4", True), ("16 1/4", "7", False),
]  # fmt: skip
MOST_ENTRIES = 40


def told(address: str, path: str) -> dict:  # type: ignore[type-arg]
    with urllib.request.urlopen(f"{address}api{path}") as answer:
        found: dict = json.load(answer)  # type: ignore[type-arg]
    return found


def form(page: Page) -> None:
    page.get_by_role("button", name="Read off with a tape").click()
    expect(page.get_by_label("Name", exact=True)).to_be_focused()


def kept(page: Page, name: str) -> None:
    page.get_by_role("button", name="Keep this piece").click()
    expect(page.get_by_role("button", name=re.compile(f"^{name}, "))).to_be_visible()


def test_a_lapel_front_by_tape_and_keys_alone(page: Page, own: str) -> None:
    begin(page, own, "Jacket")
    page.get_by_text("in / yd").click()
    page.get_by_role("button", name="Read off with a tape").press("Enter")
    keys = page.keyboard
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    keys.type("Front")
    entries = 1
    # point by point, chosen by key; Enter leads from the name into the table
    page.get_by_role("button", name="Point by point").press("Enter")
    page.get_by_label("Name", exact=True).focus()
    keys.press("Enter")
    expect(page.get_by_label("point 1, along")).to_be_focused()
    was = False
    for i, (along, across, smooth) in enumerate(LAPEL):
        keys.type(along)
        keys.press("Enter")
        keys.type(across)
        entries += 2
        # a new point is as smooth as the one before
        if smooth != (was if i > 2 else False):
            keys.press("Tab")
            keys.press("Space")
            keys.press("Shift+Tab")
            entries += 1
        was = smooth
        if i < len(LAPEL) - 1:
            keys.press("Enter")
            expect(page.get_by_label(f"point {i + 2}, along")).to_be_focused()
    expect(page.locator(".knot")).to_have_count(len(LAPEL))
    page.get_by_label("pair: half of the copies mirrored").press("Space")
    page.get_by_label("Seam allowance to add").fill("5/8")
    entries += 2
    page.get_by_role("button", name="Keep this piece").press("Enter")
    expect(page.get_by_role("button", name="Front, 1 pair")).to_be_visible()
    assert entries <= MOST_ENTRIES, entries
    draft = told(own, "/pieces/1/draft")
    places = [(p["along"]["text"], p["smooth"]) for p in draft["points"]]
    assert [smooth for _, smooth in places] == [smooth for *_, smooth in LAPEL]
    assert draft["points"][4]["across"]["text"] == "5 ½ in right"


def test_every_way_in(page: Page, own: str) -> None:
    begin(page, own, "All ways")
    # stations, with a point on one side only and a corner
    form(page)
    page.get_by_label("Name", exact=True).fill("Yoke")
    page.get_by_label("Name", exact=True).press("Enter")
    for value in ("0", "20", "18", "10", "22", "", "25", "12", "9"):
        page.keyboard.press("Control+a")
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    page.get_by_label("station 2, corner").select_option("left")
    expect(page.get_by_text("25.0 cm long")).to_be_visible()
    page.get_by_role("button", name="Remove station 4").click()
    kept(page, "Yoke")

    # two tapes: a triangle of 30, 40, 50
    form(page)
    page.get_by_label("Name", exact=True).fill("Gusset")
    page.get_by_role("button", name="By two tapes").click()
    page.get_by_label("From the first mark to the second").fill("50")
    page.get_by_label("From the first mark to the second").press("Enter")
    for value in ("0", "50", "50", "0", "30", "40"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    expect(page.get_by_text("50.0 cm long, 24.0 cm wide")).to_be_visible()
    page.get_by_role("button", name="Remove point 4").click()
    kept(page, "Gusset")

    # by its measures, in four entries
    form(page)
    page.get_by_label("Name", exact=True).fill("Skirt panel")
    page.get_by_role("button", name="By its measures").click()
    page.get_by_label("It is", exact=True).select_option("ring")
    page.get_by_label("Its inner edge, all round").fill("72")
    page.get_by_label("Deep, from there to the hem").fill("60")
    page.get_by_label("Of a circle").select_option("0.5")
    expect(page.locator(".piece-picture .knot").first).to_be_visible()
    kept(page, "Skirt panel")

    # from another piece: mirrored, lengthened, the facing of an edge
    for name, how in (("Yoke, other way", "mirrored"), ("Longer yoke", "lengthened"), ("Facing", "facing")):
        form(page)
        page.get_by_label("Name", exact=True).fill(name)
        page.get_by_role("button", name="From another piece").click()
        page.get_by_label("From", exact=True).select_option(label="Yoke")
        page.get_by_label("It is", exact=True).select_option(how)
        if how == "lengthened":
            page.get_by_label("The line lies, along").fill("5")
            page.get_by_label("Longer by").fill("4")
            expect(page.get_by_text("29.0 cm long")).to_be_visible()
        if how == "facing":
            page.get_by_label("Wide", exact=True).fill("6")
        expect(page.locator(".piece-picture .knot").first).to_be_visible()
        kept(page, name)
    expect(page.get_by_role("heading", level=1)).to_have_text("6 pieces, 6 to cut")


def taken_in(page: Page, drawing: Path) -> None:
    """A file is looked into, and all of it kept."""
    page.locator('input[type="file"]').set_input_files(drawing)
    page.get_by_role("button", name=re.compile("^Keep th")).click()


def test_a_file_is_confirmed_before_anything_of_it_is_kept(page: Page, own: str) -> None:
    begin(page, own, "Confirmed")
    drawing = Path(__file__).parents[2] / "web" / "public" / "example-pieces.svg"
    page.locator('input[type="file"]').set_input_files(drawing)
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_have_text("7 pieces understood in “example-pieces.svg”")
    listed = page.get_by_role("list", name="What was understood")
    expect(listed.get_by_label("Name")).to_have_count(7)
    assert told(own, "/projects/1")["pieces"] == []
    # one is left out, one gets another name and more copies
    listed.get_by_label("Keep Collar stand").uncheck()
    listed.locator("li").filter(has=page.get_by_label("Keep Pocket")).get_by_label("Name").fill("Breast pocket")
    pocket = listed.locator("li").filter(has=page.get_by_label("Keep Breast pocket"))
    pocket.get_by_label("Copies to cut").fill("no")
    page.get_by_role("button", name="Keep these 6 pieces").click()
    expect(page.get_by_role("alert").first).to_be_visible()
    expect(pocket.get_by_label("Name")).to_have_value("Breast pocket")
    pocket.get_by_label("Copies to cut").fill("1")
    page.get_by_role("button", name="Keep these 6 pieces").dblclick()
    expect(heading).to_have_text(re.compile("^6 pieces, "))
    kept = {one["name"]: one["copies"] for one in told(own, "/projects/1")["pieces"]}
    assert kept["Breast pocket"] == 1 and "Collar stand" not in kept and len(kept) == 6
    page.get_by_text("Take the pieces to another program").click()
    expect(page.get_by_role("link", name="DXF")).to_be_visible()


def test_a_drawn_piece_is_changed_on_the_picture_and_by_keys(page: Page, own: str) -> None:
    begin(page, own, "Drawn")
    drawing = Path(__file__).parents[2] / "web" / "public" / "example-pieces.svg"
    taken_in(page, drawing)
    expect(page.get_by_role("heading", level=1)).to_have_text("7 pieces, 15 to cut")
    page.get_by_role("button", name=re.compile("^Pocket, ")).click()
    page.get_by_role("button", name="Change", exact=True).click()
    knots = page.locator(".knot")
    expect(knots).to_have_count(5)
    number = told(own, "/projects/1")["pieces"][-1]["id"]
    before = told(own, f"/pieces/{number}/draft")["points"]

    # by the mouse: the first point 30 pixels up
    box = knots.first.locator("rect").bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 15, steps=3)
    page.mouse.move(x, y - 30, steps=3)
    page.mouse.up()
    expect(page.get_by_label("point 1, along")).not_to_have_value(before[0]["along"]["text"])
    # by keys: a nudge of a millimetre, a turn into a smooth point, one more, one less
    second = page.locator(".knot").nth(1)
    second.focus()
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("Shift+ArrowLeft")
    expect(page.get_by_label("point 2, across")).not_to_have_value(before[1]["across"]["text"])
    page.keyboard.press("Space")
    expect(page.get_by_label("point 2, smooth")).to_be_checked()
    page.keyboard.press("+")
    expect(knots).to_have_count(6)
    page.get_by_role("button", name="Remove point 6").click()
    expect(knots).to_have_count(5)
    page.get_by_role("button", name="Keep the change").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    saved(page)
    after = told(own, f"/pieces/{number}/draft")["points"]
    assert after[1]["smooth"] and after[1]["across"]["mm"] == pytest.approx(before[1]["across"]["mm"] + 11, abs=0.51)
    assert after[0]["along"]["mm"] > before[0]["along"]["mm"] + 3


def test_reading_a_drawing_twice_asks(page: Page, own: str) -> None:
    begin(page, own, "Twice")
    drawing = Path(__file__).parents[2] / "web" / "public" / "example-pieces.svg"
    taken_in(page, drawing)
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_have_text("7 pieces, 15 to cut")
    for answer, count in (
        ("Leave it", "7 pieces, 15 to cut"),
        ("Instead", "7 pieces, 15 to cut"),
        ("Both", "14 pieces, 30 to cut"),
    ):
        taken_in(page, drawing)
        asks = page.get_by_role("alertdialog")
        expect(asks).to_contain_text("are here already")
        page.get_by_role("button", name=answer).click()
        expect(asks).to_have_count(0)
        expect(heading).to_have_text(count)


def test_what_is_absurd_is_asked_back_and_kept_if_insisted_on(page: Page, own: str) -> None:
    begin(page, own, "Slip")
    page.get_by_text("in / yd").click()
    form(page)
    page.get_by_label("Name", exact=True).fill("Front")
    page.get_by_label("Name", exact=True).press("Enter")
    for value in ("0", "300", "6", "13", "10", "6", "26", "9", "5"):
        page.keyboard.press("Control+a")
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    page.get_by_role("button", name="Remove station 4").click()
    page.get_by_role("button", name="Keep this piece").click()
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("is it 300 in to the left, on a piece 26 in long?")
    expect(page.get_by_label("station 1, left")).to_have_value("300")
    page.get_by_role("button", name="Keep it so").click()
    expect(page.get_by_role("button", name=re.compile("^Front, "))).to_be_visible()
    # a width in a single field: Enter once more keeps it, leaving the field does not
    page.get_by_role("link", name="Cloth", exact=True).click()
    field = page.get_by_label("Width, reading 1")
    field.fill("900")
    field.press("Enter")
    expect(alert.first).to_contain_text("Is it 900 in?")
    field.focus()
    field.blur()
    expect(page.locator(".saved")).to_have_attribute("data-state", "failed")
    assert told(own, "/projects/1")["cloth"]["width_readings"] == []
    field.press("Enter")
    saved(page)
    assert told(own, "/projects/1")["cloth"]["width_readings"][0]["text"] == "900 in"


def test_edges_marks_sizes_the_sheet_and_true_size(page: Page, own: str) -> None:
    begin(page, own, "Panels")
    form(page)
    page.get_by_label("Name", exact=True).fill("Panel")
    page.get_by_role("button", name="By its measures").click()
    page.get_by_label("Long, along the grain").fill("40")
    page.get_by_label("Wide", exact=True).fill("20")
    page.get_by_label("Seam allowance to add").fill("1,5")
    expect(page.get_by_text("43.0 cm long, 23.0 cm wide")).to_be_visible()
    page.get_by_text(re.compile("^Edges and their allowances")).click()
    page.get_by_label("edge 4–1, allowance").fill("4")
    page.get_by_label("edge 4–1, at its corners").select_option("folded")
    expect(page.get_by_text("45.5 cm long, 23.0 cm wide")).to_be_visible()
    page.get_by_text(re.compile("^Notches, darts and lines")).click()
    page.get_by_role("button", name="A notch").click()
    page.get_by_label("notch 1, along the edge").fill("12")
    page.get_by_label("Add a mark").select_option("dart")
    for place, along, across in (("one foot", "0", "3"), ("its tip", "10", "4"), ("other foot", "0", "5")):
        page.get_by_label(f"mark 1, {place}, along").fill(along)
        page.get_by_label(f"mark 1, {place}, across").fill(across)
    expect(page.locator(".piece-picture .mark-notch")).to_have_count(1)
    expect(page.locator(".piece-picture .mark-dart")).to_have_count(1)
    # drawn: a notch where the picture is touched, measured from the beginning of its edge
    page.get_by_label("Draw a mark on the picture").select_option("notch")
    box = page.locator(".piece-picture .piece-cut").bounding_box()
    assert box is not None
    page.mouse.click(box["x"] + box["width"] / 2, box["y"] + 10)
    expect(page.locator(".piece-picture .mark-notch")).to_have_count(2)
    expect(page.get_by_label("notch 2, after point")).to_have_value("2")
    expect(page.get_by_label("notch 2, along the edge")).to_have_value(re.compile(r"^(9\.[5-9]|10\.[0-5]) cm$"))
    kept(page, "Panel")

    # sizes: half a centimetre to either side
    page.get_by_role("button", name=re.compile("^Panel, ")).click()
    page.get_by_role("button", name="Change", exact=True).click()
    page.get_by_text(re.compile("^Sizes")).click()
    page.get_by_label("Its sizes, smallest first").fill("36 38 40")
    page.get_by_label("Drawn in size").fill("36")
    for point, left in ((1, "-1"), (2, "-1"), (3, "1"), (4, "1")):
        page.get_by_label(f"point {point}, left a size").fill(left)
    page.get_by_role("button", name="Keep the sizes").click()
    expect(page.get_by_text("The sizes are kept.")).to_be_visible()
    page.get_by_role("button", name="Close", exact=True).click()
    page.get_by_label("is cut in size").select_option("40")
    saved(page)
    expect(page.get_by_text("27.0 cm", exact=True)).to_be_visible()

    # the sheet: edges along the seam, and two of them compared
    page.get_by_role("tab", name="The sheet").click()
    panel = page.get_by_role("region", name="Panel")
    expect(panel).to_contain_text("45.5 cm long, 27.0 cm wide")
    expect(panel.get_by_role("row", name=re.compile("^4–1"))).to_contain_text("24.0 cm")
    page.get_by_label("Panel, edge 1–2, side").select_option("0")
    page.get_by_label("Panel, edge 4–1, side").select_option("1")
    expect(page.get_by_role("status").filter(has_text="ease")).to_contain_text("16.0 cm")

    # at its true size: 45.5 × 27 cm, each sheet as large as the paper
    page.get_by_role("tab", name="The pieces").click()
    page.get_by_role("button", name=re.compile("^Panel, ")).click()
    page.get_by_role("link", name="Print it").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Panel at its true size, on 4 sheets")
    page.emulate_media(media="print")
    sheet = page.locator(".print-page").first.bounding_box()
    assert sheet is not None
    # a CSS millimetre is 96 / 25.4 pixels
    assert sheet["width"] == pytest.approx(210 * 96 / 25.4, abs=1) and sheet["height"] == pytest.approx(
        297 * 96 / 25.4, abs=1
    )
    check = page.locator(".print-check").bounding_box()
    assert check is not None and check["width"] == pytest.approx(100 * 96 / 25.4, abs=1.5)
    expect(page.locator(".rail")).to_be_hidden()


def test_the_arrow_stays_where_the_paper_has_it(page: Page, demo: str) -> None:
    page.goto(demo)
    page.get_by_role("link", name="Open Notched waistcoat").click()
    page.get_by_role("button", name=re.compile("^Under collar, ")).click()
    expect(page.get_by_text("its arrow leans 45.0°")).to_be_visible()
    page.get_by_role("link", name="Lay", exact=True).click()
    piece = page.locator('.laid[aria-label^="Under collar, 1"]').first
    expect(piece).to_be_visible(timeout=30_000)
    arrow = piece.locator(".grain line")
    ends = [float(arrow.get_attribute(end) or "nan") for end in ("y1", "y2")]
    assert ends[0] == pytest.approx(ends[1], abs=0.01), "it runs along the selvage"
