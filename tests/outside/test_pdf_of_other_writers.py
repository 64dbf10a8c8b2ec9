"""PDF that other libraries wrote is read in: matplotlib and cairo draw the same pieces, at their true size."""

from __future__ import annotations

import io
import math
from pathlib import Path
from typing import Any

import pytest
from shapely.geometry import Polygon

from idle_selvage.core.plan.outline import Point
from idle_selvage.core.plan.sides import corners
from idle_selvage.formats.pdf_pieces import read_pdf
from idle_selvage.formats.svg_pieces import read_svg
from idle_selvage.formats.writing import write

MM = 72 / 25.4
#: A sleeve with a curved head, mm, y upwards.
HEAD = [(180 - 160 * math.cos(t * math.pi / 24), 300 + 110 * math.sin(t * math.pi / 24)) for t in range(25)]
SLEEVE: list[Point] = [(50.0, 20.0), *HEAD, (310.0, 20.0)]
GRAIN = ((180.0, 60.0), (180.0, 280.0))


def by_matplotlib(sizes: list[tuple[str, float]]) -> bytes:
    import matplotlib

    matplotlib.use("pdf")
    from matplotlib import pyplot

    wide, high = 400.0, 480.0
    figure = pyplot.figure(figsize=(wide / 25.4, high / 25.4))
    axes = figure.add_axes((0.0, 0.0, 1.0, 1.0), frameon=False)
    axes.set_xlim(0, wide)
    axes.set_ylim(0, high)
    axes.set_axis_off()
    for colour, by in sizes:
        ring = [(180 + (x - 180) * by, 20 + (y - 20) * by) for x, y in [*SLEEVE, SLEEVE[0]]]
        axes.plot([x for x, _ in ring], [y for _, y in ring], color=colour, linewidth=0.7)
    axes.plot([p[0] for p in GRAIN], [p[1] for p in GRAIN], color="black", linewidth=0.5)
    axes.text(190, 150, "Sleeve", fontsize=20)
    axes.text(190, 120, "copies 2, pair", fontsize=9)
    out = io.BytesIO()
    figure.savefig(out, format="pdf")
    pyplot.close(figure)
    return out.getvalue()


def by_cairo() -> bytes:
    import cairocffi

    out = io.BytesIO()
    surface: Any = cairocffi.PDFSurface(out, 400 * MM, 480 * MM)
    context: Any = cairocffi.Context(surface)
    context.scale(MM, MM)
    # cairo's y runs down
    context.set_line_width(0.3)
    context.move_to(SLEEVE[0][0], 480 - SLEEVE[0][1])
    for x, y in SLEEVE[1:]:
        context.line_to(x, 480 - y)
    context.close_path()
    context.stroke()
    context.move_to(GRAIN[0][0], 480 - GRAIN[0][1])
    context.line_to(GRAIN[1][0], 480 - GRAIN[1][1])
    context.stroke()
    surface.finish()
    return out.getvalue()


def strayed(ring: list[Point], outline: tuple[Point, ...]) -> float:
    """How far what was read (its grain along +x) strays from what was drawn (its grain upwards), mm."""
    low, left = min(y for _, y in ring), max(x for x, _ in ring)
    drawn = Polygon([(y - low, left - x) for x, y in ring]).exterior
    x0, y0 = min(x for x, _ in outline), min(y for _, y in outline)
    read = Polygon([(x - x0, y - y0) for x, y in outline]).exterior
    return float(drawn.segmentize(2.0).hausdorff_distance(read.segmentize(2.0)))


def test_matplotlib() -> None:
    found = read_pdf(by_matplotlib([("black", 1.0)]))
    (piece,) = found.what.pieces
    assert piece.name == "Sleeve" and (piece.how.copies, piece.how.pair) == (2, True)
    assert strayed(SLEEVE, piece.piece.outline) <= 0.05


def test_a_curve_is_one_edge_and_not_as_many_as_it_has_chords() -> None:
    """An overshirt printed on many pages keeps the edges its pieces have: else nothing could be sewn to them."""
    drawn = read_svg((Path(__file__).parents[2] / "web" / "public" / "example-pieces.svg").read_bytes()).what
    printed = {one.name: one for one in read_pdf(write(drawn, "pdf")).what.pieces}
    for read in drawn:
        back = printed[read.name]
        assert len(corners(back.draft)) == len(corners(read.draft)), read.name


def test_cairo() -> None:
    found = read_pdf(by_cairo())
    (piece,) = found.what.pieces
    assert strayed(SLEEVE, piece.piece.outline) <= 0.05


@pytest.mark.parametrize(("colour", "by"), [("#ff0000", 1.0), ("#0000ff", 0.9)])
def test_sizes_in_colours_are_chosen_from(colour: str, by: float) -> None:
    data = by_matplotlib([("red", 1.0), ("blue", 0.9)])
    open_ = read_pdf(data).what
    assert open_.nested and {style.name for style in open_.styles} >= {"#ff0000", "#0000ff"}
    found = read_pdf(data, styles=[colour]).what
    (piece,) = found.pieces
    ring = [(180 + (x - 180) * by, 20 + (y - 20) * by) for x, y in SLEEVE]
    assert found.read == (colour,) and strayed(ring, piece.piece.outline) <= 0.05
