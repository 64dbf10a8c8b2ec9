"""Printed sheets read back by pypdf and pdfminer.six: paper, text, scale and geometry."""

from __future__ import annotations

import io
import re
from typing import Any

import numpy as np
import pytest
from pdfminer.high_level import extract_pages
from pdfminer.layout import LAParams, LTCurve, LTLine, LTPage
from pypdf import PdfReader
from shapely import LineString, Point, Polygon, box
from shapely.ops import unary_union

from idle_selvage.core.cut.labels import Label
from idle_selvage.core.cut.template import gauges, graduations
from idle_selvage.core.plan.tiles import CHECK_MM, MARGIN_MM, PAPERS, TooManyPages, pages
from idle_selvage.formats.pdf_templates import write_gauges, write_labels, write_swatch
from idle_selvage.formats.pdf_tiles import TileShape, upright, write_tiles

MM = 72.0 / 25.4
FRONT = tuple(
    (float(x), float(y))
    for x, y in ((0, 0), (620, 0), (640, 120), (560, 200), (420, 240), (300, 236), (120, 262), (0, 255))
)
SHAPES = [
    TileShape("Front", FRONT, lines=(((100.0, 20.0), (110.0, 20.0)),), arrow=((60.0, 100.0), (500.0, 100.0))),
    TileShape("Cuff", tuple((x + 30.0, y + 400.0) for x, y in ((0, 0), (230, 0), (230, 95), (0, 95)))),
]


def drawn(data: bytes) -> list[tuple[LTPage, list[Any]]]:
    """Every page with the lines and curves on it."""
    found = []
    for page in extract_pages(io.BytesIO(data), laparams=LAParams()):
        found.append((page, [one for one in page if isinstance(one, LTCurve | LTLine)]))
    return found


def runs(one: Any) -> list[tuple[float, float]]:
    return [(x / MM, y / MM) for x, y in one.pts]


@pytest.mark.parametrize("paper", sorted(PAPERS))
def test_tiles_joined_again_are_the_shapes_to_a_tenth_of_a_millimetre(paper: str) -> None:
    data = write_tiles(SHAPES, title="Shirt", paper=paper, system="metric")
    laid = pages([shape.outline for shape in SHAPES], paper, 400)
    found = drawn(data)
    assert len(found) == len(laid) + 1
    wide, high = PAPERS[paper]
    for page in PdfReader(io.BytesIO(data)).pages:
        assert float(page.mediabox.width) / MM == pytest.approx(wide, abs=0.1)
        assert float(page.mediabox.height) / MM == pytest.approx(high, abs=0.1)
    for shape in SHAPES:
        ring = Polygon(upright(shape.outline))
        parts = []
        for tile, (_, curves) in zip(laid, found[1:], strict=True):
            # a pdf draws the whole shape on each page and clips it: what is inside the frame is what is printed
            frame = box(tile.x, tile.y, tile.x + tile.width, tile.y + tile.height)
            for one in curves:
                places = [(x - MARGIN_MM + tile.x, y - MARGIN_MM + tile.y) for x, y in runs(one)]
                if len(places) < len(shape.outline) or max(ring.exterior.distance(Point(p)) for p in places) > 0.1:
                    continue
                printed = LineString([*places, places[0]]).intersection(frame)
                assert printed.length == pytest.approx(ring.exterior.intersection(frame).length, abs=0.2)
                parts.append(printed)
        # every stretch of the outline is printed on some page, and in its place
        whole = unary_union([part for part in parts if not part.is_empty]).buffer(0.1)
        assert ring.exterior.difference(whole).length == pytest.approx(0.0, abs=1e-6)
        assert len(parts) == len(laid), "every page draws it, and clips it"


def test_the_first_page_has_the_square_to_measure_and_the_map() -> None:
    data = write_tiles(SHAPES, title="Shirt", paper="a4", system="metric")
    _, curves = drawn(data)[0]
    squares = [
        one for one in curves
        if one.width / MM == pytest.approx(CHECK_MM, abs=0.05) and one.height / MM == pytest.approx(CHECK_MM, abs=0.05)
    ]  # fmt: skip
    assert squares
    text = PdfReader(io.BytesIO(data)).pages[0].extract_text()
    assert "Print at 100 %" in text and "10.0 cm" in text and "B2" in text
    second = PdfReader(io.BytesIO(data)).pages[1].extract_text()
    assert "lay crosses on crosses" in second


def test_more_pages_than_anyone_tapes_are_refused() -> None:
    long = TileShape("Train", ((0.0, 0.0), (90_000.0, 0.0), (90_000.0, 800.0), (0.0, 800.0)))
    with pytest.raises(TooManyPages, match="at most 400"):
        write_tiles([long], title="Train", paper="a4", system="metric")


@pytest.mark.parametrize(("side", "paper"), [(250.0, "a4"), (254.0, "letter"), (150.0, "a4"), (400.0, "a3")])
def test_the_swatch_template_shows_shrinkage_where_an_edge_ends(side: float, paper: str) -> None:
    """ISO 3759 marks and measures a specimen; shrinkage is 100 × (before − after) ÷ before (AATCC TM135)."""
    data = write_swatch(side, paper=paper, system="metric")
    room = max(one.at for one in graduations(side)) + 22
    laid = pages([((0.0, 0.0), (room, 0.0), (room, room), (0.0, room))], paper)
    ticks: set[float] = set()
    for tile, (_, curves) in zip(laid, drawn(data), strict=True):
        for one in curves:
            places = [(x - MARGIN_MM + tile.x + room, y - MARGIN_MM + tile.y) for x, y in runs(one)]
            if len(places) != 2 or abs(places[0][0] - places[1][0]) > 0.01:
                continue
            (x, low), (_, top) = sorted(places, key=lambda at: at[1])
            if abs(low) < 0.05 and top < 20:
                ticks.add(round(x, 2))
    asked = [one.at for one in graduations(side)]
    for at in asked:
        assert min(abs(at - tick) for tick in ticks) < 0.1, f"the graduation at {at:.1f} mm"
    text = "".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages)
    assert "read its shrinkage in per cent" in text


def test_gauges_are_as_wide_as_the_allowances() -> None:
    found = gauges([("Front", 15.0), ("Collar", 10.0), ("Hem", 41.275)])
    data = write_gauges(found, paper="letter", system="imperial")
    heights = [one.height / MM for _, curves in drawn(data) for one in curves if one.width / MM > 150]
    for gauge in found:
        assert min(abs(gauge.wide - high) for high in heights) < 0.1


def test_labels_say_name_copy_face_grain_size_and_cloth() -> None:
    made = [Label("Front", k + 1, 40, "as drawn", "lengthwise grain", "38", "Linen stripe", "Shirt") for k in range(40)]
    data = write_labels(made, paper="a4")
    reader = PdfReader(io.BytesIO(data))
    assert len(reader.pages) == 2
    text = "".join(page.extract_text() for page in reader.pages)
    assert len(re.findall("Linen stripe", text)) == 40 and "40 of 40, as drawn" in text and "size 38" in text
    assert "wrong side" in text


def test_the_font_is_embedded_and_has_fractions() -> None:
    data = write_gauges(gauges([("Front", 15.875)]), paper="letter", system="imperial")
    fonts = PdfReader(io.BytesIO(data)).pages[0]["/Resources"]["/Font"]  # type: ignore[index]
    for font in fonts.values():  # type: ignore[union-attr]
        name = str(font.get_object().get("/BaseFont"))
        assert "SourceSans3" in name or "Helvetica" in name
    assert "⅝" in PdfReader(io.BytesIO(data)).pages[0].extract_text()


def test_the_same_content_gives_the_same_bytes() -> None:
    one, two = (write_tiles(SHAPES, title="Shirt", paper="a4", system="metric") for _ in range(2))
    assert one == two and np.frombuffer(one, dtype=np.uint8).size > 1000
