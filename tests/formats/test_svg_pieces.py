from __future__ import annotations

import math
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from idle_selvage.core.plan.piece import Piece
from idle_selvage.formats.svg_pieces import BadDrawing, Drawing, read_svg

ROOT = Path(__file__).parents[2]


def svg(inside: str, head: str = 'width="400mm" height="300mm" viewBox="0 0 400 300"') -> bytes:
    return f'<svg xmlns="http://www.w3.org/2000/svg" {head}>{inside}</svg>'.encode()


def only(drawing: Drawing) -> Piece:
    assert len(drawing.what) == 1, drawing
    return drawing.what[0].piece


def size(piece: Piece) -> tuple[float, float]:
    xs, ys = [p[0] for p in piece.outline], [p[1] for p in piece.outline]
    return max(xs) - min(xs), max(ys) - min(ys)


RECT = '<rect id="cuff" x="10" y="20" width="100" height="40"/>'


@pytest.mark.parametrize(
    ("head", "long"),
    [
        ('width="400mm" height="300mm" viewBox="0 0 400 300"', 100),
        ('width="40cm" height="30cm" viewBox="0 0 400 300"', 100),
        ('width="800mm" height="600mm" viewBox="0 0 400 300"', 200),
        ('viewBox="0 0 400 300"', 100 * 25.4 / 96),
        ("", 100 * 25.4 / 96),
        ('width="4in" height="3in" viewBox="0 0 400 300"', 25.4),
        ('width="100%" height="100%" viewBox="0 0 400 300"', 100 * 25.4 / 96),
        ('width="400mm" height="900mm" viewBox="0 0 400 300"', 100),
    ],
)
def test_units_and_view_box_are_honoured(head: str, long: float) -> None:
    assert size(only(read_svg(svg(RECT, head)))) == pytest.approx((long, long * 0.4), rel=1e-5)


def test_transforms_are_honoured_and_nested() -> None:
    inside = f'<g transform="translate(50,0) scale(2)"><g transform="rotate(90)">{RECT}</g></g>'
    assert size(only(read_svg(svg(inside)))) == pytest.approx((80, 200), rel=1e-5)


@pytest.mark.parametrize(
    ("shape", "area"),
    [
        ('<polygon points="0,0 100,0 100,50 0,50"/>', 5000),
        ('<path d="M0 0 h100 v50 h-100 z"/>', 5000),
        ('<path d="M0,0 L100,0 L100,50 L0,50 L0,0"/>', 5000),
        ('<circle cx="60" cy="60" r="50"/>', math.pi * 2500),
        ('<ellipse cx="60" cy="60" rx="50" ry="20"/>', math.pi * 1000),
        ('<rect width="100" height="50" rx="10"/>', 5000 - (4 - math.pi) * 100),
        ('<path d="M0,0 C0,60 100,60 100,0 Z"/>', 3600),
        ('<path d="M0,0 Q50,60 100,0 Z"/>', 2000),
        ('<polyline points="0,0 100,0 100,50 0,50 0,0"/>', 5000),
    ],
)
def test_closed_shapes_of_every_kind(shape: str, area: float) -> None:
    piece = only(read_svg(svg(shape)))
    assert Polygon(piece.outline).area == pytest.approx(area, rel=1e-2), (
        "curves stray by a quarter of a millimetre at most"
    )


def test_the_grainline_turns_the_piece_and_points_to_its_top() -> None:
    # drawn upright: grain up the sheet, the top a narrow end
    inside = (
        '<g class="piece"><title>Gore</title><path d="M40,10 L60,10 L90,200 L10,200 Z"/>'
        '<line class="grainline" x1="50" y1="190" x2="50" y2="20"/></g>'
    )
    piece = only(read_svg(svg(inside)))
    assert piece.name == "Gore" and size(piece) == pytest.approx((190, 80), rel=1e-5)
    top = [y for x, y in piece.outline if x > 189]
    assert max(top) - min(top) == pytest.approx(20, rel=1e-4), "the narrow end is the top, towards +x"


def test_a_drawn_piece_is_turned_and_never_mirrored() -> None:
    # an L: seen on the sheet its foot points right; with the grain up, right on the sheet is −y
    inside = (
        '<g class="piece"><path d="M0,0 L20,0 L20,80 L60,80 L60,100 L0,100 Z"/>'
        '<line class="grainline" x1="10" y1="90" x2="10" y2="10"/></g>'
    )
    piece = only(read_svg(svg(inside)))
    ys_at_foot = [y for x, y in piece.outline if x < 1]
    ys_at_top = [y for x, y in piece.outline if x > 99]
    assert min(ys_at_foot) < min(ys_at_top) and max(ys_at_foot) == pytest.approx(max(ys_at_top))


@pytest.mark.parametrize("side", ["left", "right"])
def test_the_fold_edge_becomes_y_zero(side: str) -> None:
    x = 10 if side == "left" else 60
    inside = (
        '<g id="back" class="piece"><rect x="10" y="10" width="50" height="120"/>'
        f'<line class="fold-edge" x1="{x}" y1="120" x2="{x}" y2="20"/></g>'
    )
    piece = only(read_svg(svg(inside)))
    assert piece.on_fold and size(piece) == pytest.approx((120, 50), rel=1e-5)
    assert min(y for _, y in piece.outline) == pytest.approx(0, abs=0.01)


@pytest.mark.parametrize(
    ("says", "wanted"),
    [
        ("copies 4, pair", {"copies": 4, "pair": True}),
        ("pair", {"copies": 2, "pair": True}),
        ("3 copies", {"copies": 3}),
        ("cross grain; one way", {"grain": "crosswise", "one_way": True}),
        ("bias", {"grain": "bias"}),
        ("any-grain", {"grain": "any"}),
        ("add seam 15 mm", {"seam": 15.0}),
        ("add 5/8 in", {"seam": 15.875}),
        ("add 1,5 cm", {"seam": 15.0}),
        ("Repairs welcome, compare with the copiest", {"copies": 1, "pair": False}),
    ],
)
def test_words_in_labels_and_classes(says: str, wanted: dict[str, object]) -> None:
    inside = f'<g class="piece">{RECT}<text>{says}</text></g>'
    piece = only(read_svg(svg(inside)))
    assert {key: getattr(piece, key) for key in wanted} == wanted


def test_words_in_classes() -> None:
    piece = only(read_svg(svg('<path class="copies-2 pair bias" d="M0,0 H90 V50 H0 Z"/>')))
    assert (piece.copies, piece.pair, piece.grain) == (2, True, "bias")


@pytest.mark.parametrize(
    ("inside", "why"),
    [
        (RECT + '<image id="photo"/>', "a picture"),
        (RECT + '<use href="#a"/>', "clone"),
        (RECT + '<path id="loose" d="M0,0 L50,50 L90,10"/>', "not closed"),
        (RECT + '<path id="knot" d="M0,0 L90,90 L90,0 L0,90 Z"/>', "crosses or touches itself"),
        (RECT + '<path id="odd" d="M0,0 L banana"/>', ""),
        (RECT + '<rect id="wild" width="10" height="10" transform="skew(me)"/>', ""),
        (RECT + '<blink id="b"/>', "not a kind of shape"),
        (RECT + "<text>hello</text>", "not inside the group"),
        (f'<g class="piece">{RECT}<circle id="hole" cx="40" cy="40" r="5"/></g>', "inside another outline"),
        (RECT + "<svg><rect width='9' height='9'/></svg>", "drawing inside the drawing"),
        (RECT + '<circle id="dot" r="0"/>', "could not be read"),
        (f'<g class="piece">{RECT}<text>add 1/0 in</text></g>', "could not be read as a length"),
        (
            f'<g class="piece">{RECT}<line class="fold-edge" x1="10" y1="20" x2="110" y2="20"/>'
            '<line class="grainline" x1="20" y1="30" x2="20" y2="50"/></g>' + RECT,
            "not parallel",
        ),
    ],
)
def test_what_could_not_be_read_is_listed(inside: str, why: str) -> None:
    drawing = read_svg(svg(inside))
    assert drawing.what, "the rest is still read"
    if why:
        assert any(why in n.why for n in drawing.not_read), drawing.not_read


def test_a_missing_grainline_is_told() -> None:
    assert any("none is drawn" in m.how for m in read_svg(svg(RECT)).mended)


BOMB = '<!DOCTYPE svg [<!ENTITY a "b"><!ENTITY c "&a;&a;">]>'


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "not an SVG"),
        (b"hello", "not an SVG"),
        (b"<html></html>", "outermost element"),
        (svg(""), "empty"),
        ((BOMB + svg("&c;").decode()).encode(), "entities"),
        (svg(RECT, 'viewBox="0 0 0 0"'), "viewBox|read"),
        (svg(RECT, 'width="nonsense" viewBox="0 0 10 10"'), "could not be read"),
        (svg("<g>" * 60 + RECT + "</g>" * 60), "nested"),
        (svg("<path/>" * 21_000), "parts"),
        (b" " * 4_100_000, "larger than"),
        (svg('<path d="M0,0 C1e9,0 0,1e9 5,5 Z"/>'), "too large"),
    ],
)
def test_drawings_that_cannot_be(data: bytes, says: str) -> None:
    with pytest.raises(BadDrawing, match=says):
        read_svg(data)


@given(st.binary(max_size=200))
def test_any_bytes_are_refused_in_words(data: bytes) -> None:
    with pytest.raises(BadDrawing):
        read_svg(data)


@given(
    st.sampled_from(["rect", "path", "polygon", "circle", "ellipse", "line", "polyline", "g", "text", "use"]),
    st.dictionaries(
        st.sampled_from(
            ["d", "points", "x", "y", "r", "rx", "ry", "width", "height", "transform", "x1", "class", "cx", "id"]
        ),
        st.sampled_from(
            [
                "",
                "0",
                "-5",
                "10",
                "1e400",
                "nan",
                "12mm",
                "50%",
                "M0,0 H90 V50 Z",
                "M",
                "A 1 1 0 0",
                "0,0 9,9",
                "scale(0)",
                "rotate(",
                "matrix(1 2 3)",
                "copies-99999",
                "0,0 90,0 90,90",
                "inf",
            ]
        ),
        max_size=5,
    ),
)
def test_any_shape_is_read_or_listed(tag: str, attributes: dict[str, str]) -> None:
    text = " ".join(f'{key}="{value}"' for key, value in attributes.items())
    drawing = read_svg(svg(f"<{tag} {text}/>{RECT}"))
    assert any(p.name == "cuff" for p in drawing.what)


def test_the_example_of_the_documentation_is_read_whole() -> None:
    drawing = read_svg((ROOT / "web" / "public" / "example-pieces.svg").read_bytes())
    assert drawing.not_read == ()
    assert {p.name for p in drawing.what} >= {"Back", "Front", "Sleeve", "Collar"}
    back = next(p.piece for p in drawing.what if p.name == "Back")
    assert back.on_fold and back.seam == 15 and size(back)[0] == pytest.approx(700, rel=1e-4)


def test_clones_are_read_where_they_are_shown() -> None:
    cuff = '<defs><symbol id="s"><rect width="100" height="40"/></symbol></defs>'
    cuff += '<g id="g"><rect width="200" height="90"/></g>'
    shown = (
        '<use href="#g" x="300" transform="scale(2)"/>'
        '<use xmlns:xlink="http://www.w3.org/1999/xlink" xlink:href="#s" y="500"/>'
    )
    read = read_svg(svg(cuff + shown))
    assert not read.not_read
    sizes = sorted(tuple(round(side) for side in size(piece.piece)) for piece in read.what)
    assert sizes == [(100, 40), (200, 90), (400, 180)]


@pytest.mark.parametrize(
    "body",
    [
        '<g id="a"><use href="#a"/></g>',
        '<use id="a" href="#b"/><use id="b" href="#a"/>',
        "".join(f'<g id="n{k}">' + f'<use href="#n{k - 1}"/>' * 12 + "</g>" for k in range(1, 12)) + RECT,
    ],
)
def test_clones_without_end_are_refused(body: str) -> None:
    with pytest.raises(BadDrawing, match=r"deep|parts"):
        read_svg(svg(body))


@pytest.mark.parametrize(
    ("shape", "sides"),
    [
        ('<rect width="200" height="100" rx="500"/>', (200, 100)),
        ('<circle cx="9" cy="9" r="50"/>', (100, 100)),
        ('<ellipse rx="60" ry="30"/>', (120, 60)),
        ('<polygon points="0,0 80,0 80,60"/>', (80, 60)),
        # a length with a unit is so many of the drawing's own at 96 to the inch
        ('<rect width="2in" height="1in"/>', (192, 96)),
    ],
)
def test_every_shape_has_its_size(shape: str, sides: tuple[float, float]) -> None:
    assert size(only(read_svg(svg(shape)))) == pytest.approx(sides, abs=0.2)
