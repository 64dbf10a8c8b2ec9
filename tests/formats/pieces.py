"""Random pieces, and whether two are the same piece: what round trips of every format are tried with."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import shapely
from hypothesis import assume
from hypothesis import strategies as st
from shapely.geometry import Polygon

from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.draft import Draft, DraftPoint, Mark, keyed, notch_at, outline_of, place_on
from idle_selvage.core.plan.drawn import HowCut
from idle_selvage.core.plan.outline import BadPiece, Outline, Point
from idle_selvage.core.plan.sizes import SizeOutline
from idle_selvage.formats.drawn_pieces import PieceRead

#: What a round trip may move, mm.
WITHIN_MM = 0.05
NAMES = ("Front", "Sleeve, upper", "Cuff & band", "Yoke “left”", "Größe", "Band < 10")


@st.composite
def pieces_read(draw: st.DrawFn, *, sized: bool = True, marked: bool = True) -> PieceRead:
    """A piece round its middle, whole or a half on its fold, with straight edges and curves."""
    half = draw(st.booleans())
    count = draw(st.integers(5, 9))
    spread = math.pi if half else 2 * math.pi
    points = []
    for k in range(count):
        angle = spread * (k + draw(st.floats(-0.2, 0.2))) / count if not half else math.pi * k / (count - 1)
        far = draw(st.floats(120, 320))
        x, y = far * math.cos(angle) + 340, far * math.sin(angle)
        if half and k in (0, count - 1):
            y = 0.0
        smooth = draw(st.booleans()) and not (half and k in (0, count - 1))
        wide = draw(st.sampled_from([None, None, 18.0])) if not smooth else None
        points.append(DraftPoint(round(x, 3), round(y, 3) + 0.0, smooth, allowance=wide))
    ring = keyed(points)
    arrow = draw(st.sampled_from([None, ((260.0, 30.0), (420.0, 30.0))]))
    included = draw(st.sampled_from([0.0, 0.0, 12.0]))
    draft = Draft(ring, half, arrow, included)
    if marked:
        marks = draw(
            st.lists(
                st.sampled_from(
                    [
                        Mark("point", ((350.0, 45.0),), "pocket"),
                        Mark("dart", ((300.0, 40.0), (330.0, 60.0), (300.0, 70.0)), "waist"),
                        Mark("centre", ((290.0, 50.0), (390.0, 50.0))),
                        Mark("buttons", ((290.0, 55.0), (390.0, 55.0))),
                        Mark("fold", ((290.0, 65.0), (390.0, 65.0)), "facing"),
                        Mark("level", ((330.0, 0.0),), "Full hip"),
                    ]
                ),
                unique_by=lambda mark: mark.kind,
                max_size=3,
            )
        )
        places = draw(st.lists(st.tuples(st.floats(0, 600), st.floats(60, 300)), max_size=2))
        notches = tuple(notch_at(draft, place, double=k == 1) for k, place in enumerate(places))
        draft = Draft(ring, half, arrow, included, notches, tuple(marks))
    sizes: tuple[SizeOutline, ...] = ()
    if sized and draw(st.booleans()):
        sizes = tuple(
            SizeOutline(name, tuple((340 + (x - 340) * by, y * by) for x, y in (p.at for p in ring)))
            for name, by in draw(
                st.sampled_from(
                    [
                        (("36", 1.0), ("38", 1.05), ("40", 1.1)),
                        (("S", 0.95), ("M tall", 1.0), ('L "2" & up', 1.05)),
                    ]
                )
            )
        )
    pair = draw(st.booleans()) and not half
    how = HowCut(
        draw(st.integers(1, 4)) * (2 if pair else 1),
        pair,
        half,
        draw(st.sampled_from(["lengthwise", "crosswise"] if half else ["lengthwise", "crosswise", "any"])),
        draw(st.booleans()),
        0.0 if included else draw(st.sampled_from([0.0, 10.0, 15.0])),
        shorter=draw(st.sampled_from([0.0, 0.0, 20.0, 31.75])),
    )
    read = PieceRead(draw(st.sampled_from(NAMES)), draft, how, sizes)
    try:
        cut_line(read.piece)
        outline = Polygon(read.cut)
        steady = apart(read, _nudged(read)) < WITHIN_MM / 2
    except BadPiece:
        outline, steady = None, False
    # a corner so sharp that its allowance is only just not cut off is another one after any rounding
    assume(outline is not None and outline.is_valid and steady)
    return read


def _nudged(read: PieceRead) -> PieceRead:
    """The same piece, its points a hair elsewhere."""
    points = tuple(replace(p, along=p.along + 1e-3 * (-1) ** k) for k, p in enumerate(read.draft.points))
    return replace(read, draft=replace(read.draft, points=points))


def apart(a: PieceRead, b: PieceRead) -> float:
    """How far the lines at which two pieces are cut lie apart, at worst, mm; both moved to their lower left corner."""
    return _apart(a.cut, b.cut)


def _apart(a: Sequence[Point], b: Sequence[Point]) -> float:
    one, other = (Polygon(_cornered(ring)).exterior.segmentize(2.0) for ring in (a, b))
    return float(shapely.hausdorff_distance(one, other))


def _cornered(ring: Sequence[Point]) -> Outline:
    x0, y0 = min(x for x, _ in ring), min(y for _, y in ring)
    return tuple((x - x0, y - y0) for x, y in ring)


def marks_apart(a: PieceRead, b: PieceRead) -> float:
    """How far the marks of two pieces lie apart, notches with them, mm; infinite where there are other ones."""
    one, other = _marks(a), _marks(b)
    if [name for name, _ in one] != [name for name, _ in other]:
        return math.inf
    return max((math.dist(p, q) for (_, p), (_, q) in zip(one, other, strict=True)), default=0.0)


def _marks(read: PieceRead) -> list[tuple[str, Point]]:
    """Where each mark lies. A notch lies where it meets the line: the way its ticks point hangs on one chord there."""
    draft = read.draft
    ring = outline_of(draft)
    x0 = min(x for x, _ in ring)
    y0 = 0.0 if draft.half else min(y for _, y in ring)
    told = [(f"notch {notch.double}", place_on(draft, notch.after, notch.at)[0]) for notch in draft.notches]
    for mark in draft.marks:
        # a level is a height, wherever across it is drawn
        places = [(x, y0) for x, _ in mark.places] if mark.kind == "level" else mark.places
        told += [(f"{mark.kind} {mark.name}", place) for place in sorted(places)]
    return sorted((name, (x - x0, y - y0)) for name, (x, y) in told)
