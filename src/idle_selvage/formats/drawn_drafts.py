"""From the shapes of one drawn piece to its draft: its axes, its points, its sizes and the marks drawn on it."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from statistics import median

import shapely
from shapely.geometry import LineString
from shapely.geometry import Point as Place

from ..core.plan.draft import Draft, DraftPoint, Mark, MarkKind, Notch, edges, halved, keyed, notch_at
from ..core.plan.fit import WITHIN_MM, fitted, fitted_alike, outline_within
from ..core.plan.outline import BadPiece, Point
from ..core.plan.sizes import SizeOutline

#: An arrow that leans so far from the sheet's edges is printed aslant: the piece stands as it is drawn, degrees.
ASLANT_FROM, ASLANT_TO = 30.0, 60.0
#: A fold edge leans so little from its grainline, degrees.
PARALLEL_DEGREES = 1.0

#: The classes of lines and dots inside a piece that are marks, and the mark each is.
LINES: dict[str, MarkKind] = {"dart": "dart", "fold-line": "fold", "centre-line": "centre", "button-line": "buttons"}
NOTCHES = {"notch": False, "double-notch": True}
DOTS = ("point", "drill")
#: The classes of a line along which the piece is sewn.
SEAMS = ("seam-line", "sew-line")
#: Points that are written beside an outline are those it is told by while their curve strays from it by no more, mm.
TOLD_MM = 0.05
#: Allowances that differ by less are one, mm: lines are drawn no finer.
SAME_ALLOWANCE_MM = 0.25
#: An edge whose seam line lies further off has none there, mm: no hem is deeper.
DEEPEST_MM = 150.0
_SIZE = re.compile(r"size-(\S.{0,19})$")
_LEVEL = re.compile(r"level-(\S.{0,39})$")
_OWN = re.compile(r"allowance-([\d.]{1,8})mm$")


@dataclass
class Shape:
    """A run of points on the sheet, mm, y downwards."""

    label: str
    words: list[str]
    points: list[Point]
    closed: bool
    #: the points it is told by, on the sheet, where the file says them
    told: tuple[DraftPoint, ...] = ()


def size_of(shape: Shape) -> str | None:
    """The size an outline is drawn in, if it says so: ``size-38``."""
    return next((found.group(1) for word in shape.words if (found := _SIZE.match(word))), None)


_LAYER = re.compile(r"size[\s_-]+(\S{1,20})$", re.IGNORECASE)


def layer_size(label: str, words: Sequence[str]) -> str | None:
    """The size a whole layer is drawn in: by its class ``size-38``, or its label “Size 38”."""
    found = next((size for word in words if (size := _SIZE.match(word))), None) or _LAYER.match(label)
    return found.group(1) if found else None


@dataclass(frozen=True)
class Drawn:
    """What a drawing shows of one piece: its outlines (one, or one a size), open lines, marks, and what is said."""

    words: list[str]
    texts: list[str]
    outlines: list[Shape]
    lines: list[Shape]
    marks: list[Shape]
    seams: list[Shape] = field(default_factory=list)
    #: how near the points found for its curves keep to them, mm
    within: float = WITHIN_MM


#: Of several sizes the one whose points are those of the draft; where none says so, the first.
DRAFTED = "drafted"


def all_sizes(layers: Sequence[tuple[str, Drawn]], drafted: str = "") -> Drawn:
    """One piece of what several layers show of it, each in its own size; all else as the layer of the ``drafted`` size
    has it, or the first."""
    first = next((one for size, one in layers if size == drafted), layers[0][1])
    outlines = [
        Shape(shape.label, [f"size-{size}", *([DRAFTED] if one is first else [])], shape.points, True, shape.told)
        for size, one in layers
        for shape in one.outlines[:1]
    ]
    return Drawn(first.words, first.texts, outlines, first.lines, first.marks, first.seams)


def is_seam(shape: Shape) -> bool:
    """Whether a shape is the line a piece is sewn along."""
    return any(word in SEAMS for word in shape.words)


def is_mark(shape: Shape) -> bool:
    """Whether a shape inside a piece is a mark, and neither its outline nor its grainline."""
    return any(
        word in LINES or word in NOTCHES or word in DOTS or _LEVEL.match(word) or _OWN.match(word)
        for word in shape.words
    )


@dataclass(frozen=True)
class Axes:
    """How a piece is turned from the sheet: ``place`` gives the place in the piece's own axes."""

    place: Callable[[Point], Point]
    arrow: tuple[Point, Point] | None
    half: bool


def axes_of(outline: Sequence[Point], grain: Shape | None, fold: Shape | None) -> Axes:
    """The grain along +x, or the sheet's upwards where the arrow is printed aslant; a fold edge on y = 0, half above.

    Raises :class:`BadPiece` where fold edge and grainline disagree.
    """

    def line(shape: Shape) -> tuple[Point, Point]:
        (ax, ay), (bx, by) = shape.points
        # the screen's y runs down; a piece seen from its face has y up
        return (ax, -ay), (bx, -by)

    tail, head = line(grain or fold) if (grain or fold) else ((0.0, 0.0), (1.0, 0.0))  # type: ignore[arg-type]
    angle = math.atan2(head[1] - tail[1], head[0] - tail[0])
    if fold is not None and grain is not None:
        a, b = line(fold)
        off = math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]) - angle)
        if abs((off + 90) % 180 - 90) > PARALLEL_DEGREES:
            raise BadPiece("the fold edge and the grainline are not parallel; a piece on the fold needs both alike.")
    aslant = fold is None and grain is not None and ASLANT_FROM < math.degrees(angle) % 90.0 < ASLANT_TO
    if aslant:
        angle = math.pi / 2
    c, s = math.cos(-angle), math.sin(-angle)

    def turn(p: Point) -> Point:
        return (c * p[0] - s * p[1], s * p[0] + c * p[1])

    ring = [turn((x, -y)) for x, y in outline]
    x0 = min(x for x, _ in ring)
    at, sign = min(y for _, y in ring), 1.0
    if fold is not None:
        at = sum(turn(p)[1] for p in line(fold)) / 2
        # a half below its fold is reflected: opened out it is the same piece
        sign = 1.0 if sum(y - at for _, y in ring) >= 0 else -1.0

    def place(p: Point) -> Point:
        x, y = turn((p[0], -p[1]))
        return (round(x - x0, 4), round(sign * (y - at), 4) + 0.0)

    unmarked = grain is None or "unmarked" in grain.words
    arrow = None if unmarked or grain is None else (place(grain.points[0]), place(grain.points[1]))
    if arrow is not None and not aslant:
        arrow = (arrow[0], (arrow[1][0], arrow[0][1]))
    return Axes(place, arrow, fold is not None)


def draft_of(drawn: Drawn, axes: Axes, included: float = 0.0) -> tuple[Draft, tuple[SizeOutline, ...], list[str]]:
    """The draft of a piece with its sizes, the first outline's as drafted; and what is wrong with marks that could not
    be placed. ``included``: the allowance said to lie inside the line, mm. Raises :class:`BadPiece`."""
    outlines, base = drawn.outlines, drafted_in(drawn.outlines)
    rings = [[axes.place(p) for p in shape.points] for shape in outlines]
    told = _told(outlines, axes, rings)
    found = told or (
        [fitted(rings[0], drawn.within, faithful=2 * drawn.within)]
        if len(rings) == 1
        else fitted_alike(rings, drawn.within)
    )
    if axes.half:
        found = [_onto_fold(points) for points in found]
    draft = Draft(found[base], axes.half, axes.arrow, included)
    if axes.half:
        draft = halved(draft)
    sizes: tuple[SizeOutline, ...] = ()
    if len(outlines) > 1:
        if any(len(points) != len(draft.points) for points in found):
            raise BadPiece("its sizes do not lie on the fold alike.")
        sizes = tuple(
            SizeOutline(size_of(shape) or str(number), tuple(p.at for p in points))
            for number, (shape, points) in enumerate(zip(outlines, found, strict=True), start=1)
        )
    marks, notches, faults = _marks(draft, axes, drawn.marks)
    draft = replace(draft, notches=notches, marks=marks)
    if drawn.seams and not (told and included > 0):
        draft = _with_seam_line(draft, [axes.place(p) for p in drawn.seams[0].points], drawn.seams[0].closed)
    return _with_own_allowances(draft, axes, drawn.marks), sizes, faults


def drafted_in(outlines: Sequence[Shape]) -> int:
    """Which of the outlines, from 0, is that of the draft."""
    return next((k for k, shape in enumerate(outlines) if DRAFTED in shape.words), 0)


def _told(outlines: Sequence[Shape], axes: Axes, rings: Sequence[Sequence[Point]]) -> list[tuple[DraftPoint, ...]]:
    """The points written beside the outlines, as long as each is the outline still: who drew on it elsewhere may have
    left them behind."""
    out = []
    for shape, ring in zip(outlines, rings, strict=True):
        if len(shape.told) < 3:
            return []
        placed = keyed([_placed(point, axes) for point in shape.told])
        try:
            # what is no number is no outline either
            if not outline_within(placed, tuple(ring)) <= TOLD_MM:
                return []
        except (BadPiece, ValueError, ZeroDivisionError, shapely.errors.GEOSException):
            return []
        out.append(placed)
    return out


def _placed(point: DraftPoint, axes: Axes) -> DraftPoint:
    along, across = axes.place(point.at)
    return replace(point, along=along, across=across)


def _with_seam_line(draft: Draft, seam: Sequence[Point], closed: bool) -> Draft:
    """What lies between the drawn line, which is cut, and the line it is sewn along: the usual allowance, and that of
    each edge that has another."""
    line = LineString([*seam, seam[0]] if closed else seam)
    found = []
    for edge in edges(draft):
        if edge.on_fold:
            continue
        # between its ends: there the next seam is nearer
        run = LineString(edge.line)
        places = [run.interpolate(share, normalized=True) for share in (0.3, 0.4, 0.5, 0.6, 0.7)]
        found.append((edge.first.key, run.length, median(line.distance(place) for place in places)))
    there = [(key, long, wide) for key, long, wide in found if wide <= DEEPEST_MM]
    if not there:
        return draft
    groups: dict[float, float] = {}
    for _, run, wide in there:
        near = float(next((g for g in groups if abs(g - wide) <= SAME_ALLOWANCE_MM), wide))
        groups[near] = groups.get(near, 0.0) + run
    usual = round(max(groups.items(), key=lambda one: one[1])[0], 2)
    own = {key: round(wide, 2) for key, _, wide in there if abs(wide - usual) > SAME_ALLOWANCE_MM}
    points = tuple(replace(p, allowance=own.get(p.key, p.allowance)) for p in draft.points)
    return replace(draft, points=points, included=usual)


def _with_own_allowances(draft: Draft, axes: Axes, shapes: Sequence[Shape]) -> Draft:
    """Edges beside which an allowance of their own is written: the dot or tick nearest to them."""
    own: dict[int, float] = {}
    for shape in shapes:
        said = next((found for word in shape.words if (found := _OWN.match(word))), None)
        if said is not None:
            places = [axes.place(p) for p in shape.points]
            middle = (sum(x for x, _ in places) / len(places), sum(y for _, y in places) / len(places))
            near = min(edges(draft), key=lambda e: LineString(e.line).distance(Place(middle)))
            own[near.first.key] = float(said.group(1))
    if not own:
        return draft
    points = tuple(replace(p, allowance=own.get(p.key, p.allowance)) for p in draft.points)
    return replace(draft, points=points)


def _onto_fold(points: Sequence[DraftPoint]) -> tuple[DraftPoint, ...]:
    """What lies on the fold lies on it exactly: the curve was fitted to a twentieth of a millimetre."""
    return tuple(replace(p, across=0.0) if abs(p.across) <= TOLD_MM else p for p in points)


def _marks(draft: Draft, axes: Axes, shapes: Sequence[Shape]) -> tuple[tuple[Mark, ...], tuple[Notch, ...], list[str]]:
    marks: list[Mark] = []
    notches: list[Notch] = []
    faults: list[str] = []
    for shape in shapes:
        places = tuple(axes.place(p) for p in shape.points)
        middle = (sum(x for x, _ in places) / len(places), sum(y for _, y in places) / len(places))
        named = shape.label if shape.label not in shape.words else ""
        for word in shape.words:
            level = _LEVEL.match(word)
            if word in NOTCHES:
                # a tick that crosses the outline, or a dot on it: where it is nearest
                notches.append(notch_at(draft, middle, double=NOTCHES[word]))
            elif level is not None:
                marks.append(Mark("level", ((middle[0], 0.0),), level.group(1)))
            elif word in DOTS:
                marks.append(Mark("point", (middle,), named[:40]))
            elif word in LINES:
                kind = LINES[word]
                if len(places) != (3 if kind == "dart" else 2):
                    faults.append(f"a {word} of {len(places)} points: a dart has its two feet and the tip between "
                                  "them, a line two ends")  # fmt: skip
                else:
                    marks.append(Mark(kind, places, named[:40]))
            else:
                continue
            break
    return tuple(marks), tuple(notches), faults
