"""Marks, printed arrows and sizes in drawings."""

from __future__ import annotations

import pytest

from idle_selvage.core.plan.draft import edges
from idle_selvage.formats.svg_pieces import PieceRead, read_svg

from .test_svg_pieces import svg


def only(inside: str) -> PieceRead:
    found = read_svg(svg(inside))
    assert len(found.what) == 1, found
    return found.what[0]


GRAIN = '<line class="grainline" x1="100" y1="180" x2="100" y2="60"/>'
PANEL = '<path d="M50,20 H150 V220 H50 Z"/>'


def test_the_grainline_is_kept_where_it_is_drawn() -> None:
    # upright on the sheet: 200 mm long, the arrow from 40 to 160 mm up, 50 mm from the right edge
    draft = only(f'<g class="piece">{PANEL}{GRAIN}</g>').draft
    assert draft.arrow is not None
    assert [*draft.arrow[0], *draft.arrow[1]] == pytest.approx([40.0, 50.0, 160.0, 50.0], abs=1e-3)


@pytest.mark.parametrize("leans", [1, -1])
def test_a_printed_arrow_on_the_bias_leaves_the_piece_as_it_stands(leans: int) -> None:
    x = 80 if leans > 0 else 120
    arrow = f'<line class="grainline" x1="{200 - x}" y1="140" x2="{x}" y2="100"/>'
    read = only(f'<g class="piece">{PANEL}{arrow}</g>')
    assert read.piece.slant == pytest.approx(45.0 * leans, abs=1e-3)
    xs = [p.along for p in read.draft.points]
    assert max(xs) - min(xs) == pytest.approx(200, abs=1e-3), "told along the piece, not along the arrow"


def test_marks_are_read_by_their_class() -> None:
    marks = (
        '<line class="notch" x1="146" y1="70" x2="154" y2="70"/><circle class="double-notch" cx="50" cy="120" r="2"/>'
        '<circle class="point" cx="100" cy="120" r="2"><title>pocket</title></circle>'
        '<polyline class="dart" points="90,220 100,150 110,220"/>'
        '<line class="button-line" x1="140" y1="30" x2="140" y2="200"/>'
        '<line class="level-bust" x1="50" y1="60" x2="150" y2="60"/>'
    )
    draft = only(f'<g class="piece">{PANEL}{GRAIN}{marks}</g>').draft
    assert sorted(n.double for n in draft.notches) == [False, True]
    assert {m.kind: (m.name, len(m.places)) for m in draft.marks} == {
        "point": ("pocket", 1), "dart": ("", 3), "buttons": ("", 2), "level": ("bust", 1),
    }  # fmt: skip
    assert next(m for m in draft.marks if m.kind == "level").places[0][0] == pytest.approx(160, abs=0.01)


def test_a_mark_that_cannot_be_is_listed() -> None:
    found = read_svg(svg(f'<g class="piece">{PANEL}{GRAIN}<polyline class="dart" points="90,220 100,150"/></g>'))
    assert [n.code for n in found.not_read] == ["mark"] and len(found.what) == 1


def test_outlines_of_one_group_are_sizes() -> None:
    grown = '<path class="size-38" d="M45,10 H155 V220 H45 Z"/>'
    read = only(
        f'<g class="piece"><title>P</title><path class="size-36" d="M50,20 H150 V220 H50 Z"/>{grown}{GRAIN}</g>'
    )
    assert [one.size for one in read.sizes] == ["36", "38"]
    for one, (long, wide) in zip(read.sizes, ((200, 100), (210, 110)), strict=True):
        xs, ys = zip(*one.places, strict=True)
        assert (max(xs) - min(xs), max(ys) - min(ys)) == pytest.approx((long, wide), abs=1e-3)


@pytest.mark.parametrize("layer", ['class="size-{}"', 'xmlns:i="urn:i" i:label="Size {}"'])
def test_layers_of_one_size_each_hold_the_same_pieces(layer: str) -> None:
    """Curves too: the same points at the same shares of their edges."""

    def piece(name: str, grow: float) -> str:
        d = f"M{50 - grow},20 C80,{40 - grow} 120,{40 - grow} {150 + grow},20 V{220 + grow} H{50 - grow} Z"
        return f'<g class="piece"><title>{name}</title><path d="{d}"/>{GRAIN}</g>'

    drawn = "".join(
        f"<g {layer.format(size)}>{piece('Front', 4.0 * k)}{piece('Back', 3.0 * k)}</g>"
        for k, size in enumerate(("36", "38", "40"))
    )
    found = read_svg(svg(drawn)).what
    assert [read.name for read in found] == ["Front", "Back"]
    for read in found:
        assert [one.size for one in read.sizes] == ["36", "38", "40"]
        assert {len(one.places) for one in read.sizes} == {len(read.draft.points)}
        assert len(edges(read.draft)) == 4


def test_sizes_with_other_corners_are_listed_and_not_read() -> None:
    other = '<path class="size-38" d="M45,10 H155 V220 L100,240 L45,220 Z"/>'
    found = read_svg(svg(f'<g class="piece"><path class="size-36" d="M50,20 H150 V220 H50 Z"/>{other}{GRAIN}</g>'))
    assert found.what == () and "not the same corners" in found.not_read[0].why
