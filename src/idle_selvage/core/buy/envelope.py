"""The printed chart of a pattern envelope: the size to take, where row and column cross, and another width."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from ..units import MM_PER_INCH, MM_PER_YARD
from ..wording import Sentence, sentence_of
from ..working import Quantity, Source, about, length

Fit = Literal["close", "loose"]

TABLE_SOURCE = Source(
    "handbook", "width conversion table of home-economics extension services", "typed from memory; yards"
)

#: Widths of the table's columns, inches: the range printed at the head of each.
WIDTHS_IN: tuple[tuple[float, float], ...] = ((35, 36), (39, 39), (41, 41), (44, 45), (50, 50), (52, 54), (58, 60))
#: Eighths of a yard, one row per length.
TABLE_EIGHTHS: tuple[tuple[int, ...], ...] = (
    (14, 12, 12, 11, 10, 9, 8),
    (16, 14, 14, 13, 12, 11, 10),
    (18, 16, 16, 14, 13, 12, 11),
    (20, 18, 18, 17, 14, 14, 13),
    (23, 20, 20, 18, 16, 15, 14),
    (25, 22, 22, 20, 18, 16, 15),
    (27, 24, 23, 22, 19, 18, 16),
    (30, 26, 25, 23, 21, 19, 18),
    (34, 28, 27, 25, 22, 21, 19),
    (36, 30, 29, 27, 24, 22, 21),
    (38, 32, 31, 29, 26, 23, 22),
    (40, 34, 33, 31, 27, 25, 23),
)
#: The quarter yard that the table itself asks for on top.
MORE_MM = MM_PER_YARD / 4


def more_told() -> Sentence:
    """When the table asks for more."""
    told = (
        "Other widths by the handbook’s conversion table, typed from memory. It asks for {more} more for a large "
        "difference in width, one-way cloth, or sleeves cut in one."
    )
    return Sentence(told, more=about(MORE_MM))


#: Columns that lie this far apart are a large difference in width. The table does not say; from memory.
LARGE_COLUMNS = 3
#: A cloth this much narrower than the width its chart names still counts as that width, inches; common practice,
#: as loom widths vary.
NEAR_IN = 1.0


class BadChart(ValueError):
    """A chart or a wish that cannot be read; the message is a sentence."""


@dataclass(frozen=True)
class Chart:
    """One view's printed chart: lengths in mm by width (rows, mm) and size (columns); None where nothing is printed."""

    widths: tuple[float, ...]
    sizes: tuple[str, ...]
    lengths: tuple[tuple[float | None, ...], ...]


@dataclass(frozen=True)
class Crossing:
    """Where row and column cross: their numbers, and the length, mm."""

    row: int
    column: int
    length: float


def crossing(chart: Chart, width: float, size: str) -> Crossing:
    """Read the chart: the row is the widest printed width that the cloth still has, give or take an inch.

    A cloth narrower than that cannot be cut by the row. Raises :class:`BadChart`.
    """
    if size not in chart.sizes:
        raise BadChart(f"The chart has no size {size}; it has {', '.join(chart.sizes) or 'none yet'}.")
    column = chart.sizes.index(size)
    rows = [k for k, w in enumerate(chart.widths) if w <= width + NEAR_IN * MM_PER_INCH]
    if not rows:
        raise BadChart("Every width on the chart is wider than the cloth. Convert it from the narrowest printed width.")
    row = max(rows, key=lambda k: chart.widths[k])
    found = chart.lengths[row][column]
    if found is None:
        raise BadChart("Nothing is printed where this row and this column cross.")
    return Crossing(row, column, found)


def column_of(width: float) -> int:
    """The table's column for a width in mm: the widest that the cloth still has. Raises :class:`BadChart`."""
    inches = width / MM_PER_INCH
    fits = [k for k, (low, _) in enumerate(WIDTHS_IN) if low <= inches + NEAR_IN]
    if not fits or inches > WIDTHS_IN[-1][1] + 2 * NEAR_IN:
        raise BadChart("The table goes from 35 to 60 in (89 to 152 cm); this width lies outside it.")
    return fits[-1]


@dataclass(frozen=True)
class Converted:
    """A length for another width: ``length`` from the table, ``more`` on top of it, both mm, and why.

    ``row`` and ``columns`` say where in the table it was read; ``between``: the length stood between two rows, and
    the longer was taken.
    """

    length: float
    more: float
    why: tuple[str, ...]
    row: int
    columns: tuple[int, int]
    between: bool


def convert_width(
    printed_length: float, printed: float, wanted: float, *, one_way: bool = False, sleeves_in_one: bool = False
) -> Converted:
    """A length (mm) printed for one width, for another, by the handbook table. Raises :class:`BadChart`."""
    a, b = column_of(printed), column_of(wanted)
    eighths = printed_length / MM_PER_YARD * 8
    rows = [k for k, row in enumerate(TABLE_EIGHTHS) if row[a] >= eighths - 1e-6]
    if not rows:
        most = TABLE_EIGHTHS[-1][a]
        raise BadChart(f"The table ends at {most / 8:g} yd for this width. Convert half the length and double it.")
    row = rows[0]
    why = []
    if abs(a - b) >= LARGE_COLUMNS:
        why.append("the widths differ much")
    if one_way:
        why.append("the cloth has a direction")
    if sleeves_in_one:
        why.append("the sleeves are cut in one with the body")
    found = TABLE_EIGHTHS[row][b] / 8 * MM_PER_YARD
    between = abs(TABLE_EIGHTHS[row][a] - eighths) > 1e-6
    return Converted(found, MORE_MM if why else 0.0, tuple(why), row, (a, b), between)


@dataclass(frozen=True)
class SizeChoice:
    """The size to take; ``neighbours`` are the two it lies between (one when it is met), ``why`` a sentence.

    ``ease``: finished measure less the body's, mm, when the finished measure of that size is known.
    """

    size: str
    neighbours: tuple[str, ...]
    why: str
    ease: float | None


def choose_size(
    sizes: Sequence[str], body: Sequence[float], mine: float, fit: Fit, finished: Mapping[str, float] | None = None
) -> SizeChoice:
    """The size for a body measure (mm) from the measures each size is drafted for, smallest first.

    Between two sizes: down for loose-fitting garments, up for close-fitting ones; common practice.
    Raises :class:`BadChart`.
    """
    if not sizes or len(sizes) != len(body):
        raise BadChart("Give the body measure of every size on the envelope.")
    if any(b <= a for a, b in pairwise(body)):
        raise BadChart("The body measures must grow from size to size.")
    last = len(sizes) - 1
    if mine < body[0] - 1e-6:
        step = body[1] - body[0] if last else 40.0
        if mine < body[0] - step:
            raise BadChart(f"That is smaller than the smallest size, {sizes[0]}, by more than a size.")
        around: tuple[str, ...] = (sizes[0],)
        size, why = sizes[0], f"smaller than size {sizes[0]}, the smallest there is"
    elif mine > body[-1] + 1e-6:
        step = body[-1] - body[-2] if last else 40.0
        if fit == "close" or mine > body[-1] + step:
            raise BadChart(f"That is larger than the largest size, {sizes[-1]}; choose a pattern that goes further.")
        size, around = sizes[-1], (sizes[-1],)
        why = f"larger than size {sizes[-1]}, the largest there is, but the garment fits loosely"
    else:
        above = next(k for k, value in enumerate(body) if value >= mine - 1e-6)
        if abs(body[above] - mine) <= 1e-6 or above == 0:
            size, around, why = sizes[above], (sizes[above],), f"the measure of size {sizes[above]} itself"
        else:
            below = above - 1
            around = (sizes[below], sizes[above])
            loose = fit == "loose"
            size = sizes[below] if loose else sizes[above]
            way = "down, because it fits loosely and has room" if loose else "up, because it fits closely"
            why = f"between {sizes[below]} and {sizes[above]}: {way}"
    ease = None
    if finished and size in finished:
        ease = finished[size] - mine
    return SizeChoice(size, around, why, ease)


@dataclass(frozen=True)
class SizeLine:
    """One size of the envelope: its name, and the body's and the finished measure, mm, where printed."""

    name: str
    body: float | None = None
    finished: float | None = None


@dataclass(frozen=True)
class ChartLine:
    """One row of a view's chart: the cloth's width and a length for each size, mm, None where nothing is printed."""

    width: float | None
    lengths: tuple[float | None, ...] = ()


@dataclass(frozen=True)
class Envelope:
    """The envelope as typed: its sizes, the rows of the view at hand, and what is wished.

    ``measure`` names what decides the size and ``mine`` is the maker's own, mm; ``size`` one chosen by hand.
    """

    sizes: tuple[SizeLine, ...]
    rows: tuple[ChartLine, ...]
    measure: str = "bust"
    mine: float | None = None
    fit: Fit = "loose"
    size: str = ""
    sleeves_in_one: bool = False


@dataclass(frozen=True)
class EnvelopeReading:
    """What the envelope says. ``row`` and ``column`` are where it was read, numbered as typed.

    ``told`` are sentences, each with whether it asks for another look; ``answer`` is the length for the cloth, mm.
    """

    size: str
    size_told: str
    ease_told: str
    row: int | None
    column: int | None
    printed: float | None
    converted: Converted | None
    answer: float | None
    told: tuple[tuple[str, bool], ...]
    faults: tuple[str, ...]


#: A cloth this much off a row's width, mm, is read by the row itself.
ROW_GIVE_MM = 15.0


def read_envelope(envelope: Envelope, width: float | None, *, one_way: bool = False) -> EnvelopeReading:
    """The size to take, where row and column cross, and the length for a cloth ``width`` mm wide."""
    faults: list[str] = []
    choice = _chosen_size(envelope, faults)
    size = envelope.size or (choice.size if choice else "")
    size_told = f"Size {choice.size}: {choice.why}." if choice else ""
    place = _place(envelope, width, size, faults)
    converted: Converted | None = None
    told: tuple[tuple[str, bool], ...] = ()
    if place is not None and width is not None:
        converted, told = _for_width(envelope, place, width, one_way, faults)
    printed = place.crossing.length if place else None
    return EnvelopeReading(
        size,
        size_told,
        _ease_told(envelope, choice),
        place.row if place else None,
        place.column if place else None,
        printed,
        converted,
        converted.length + converted.more if converted else printed,
        told,
        tuple(faults),
    )


def _chosen_size(envelope: Envelope, faults: list[str]) -> SizeChoice | None:
    named = [(s.name, s.body) for s in envelope.sizes if s.name]
    measured = [(name, body) for name, body in named if body is not None]
    if envelope.mine is None or not measured:
        return None
    finished = {s.name: s.finished for s in envelope.sizes if s.name and s.finished is not None}
    try:
        names, bodies = zip(*measured, strict=True)
        return choose_size(names, bodies, envelope.mine, envelope.fit, finished)
    except BadChart as fault:
        faults.append(sentence_of(fault))
        return None


def _ease_told(envelope: Envelope, choice: SizeChoice | None) -> str:
    if choice is None or choice.ease is None:
        return ""
    kind = "ease" if choice.ease >= 0 else "smaller than the body: only for cloth that gives"
    told = "{ease} {kind} at the {measure}."
    return Sentence(told, ease=length(abs(choice.ease)), kind=kind, measure=envelope.measure)


@dataclass(frozen=True)
class _Place:
    crossing: Crossing
    width: float
    row: int
    column: int
    narrower: bool


def _place(envelope: Envelope, width: float | None, size: str, faults: list[str]) -> _Place | None:
    """Where row and column cross; for a cloth narrower than every row, in the narrowest."""
    rows = [(k, row.width, row) for k, row in enumerate(envelope.rows) if row.width is not None]
    if not rows or not size or width is None:
        return None
    names = tuple(s.name for s in envelope.sizes if s.name)
    lengths = tuple(tuple((*row.lengths, *[None] * len(names))[: len(names)]) for _, _, row in rows)
    chart = Chart(tuple(wide for _, wide, _ in rows), names, lengths)
    narrowest = min(chart.widths)
    narrower = narrowest > width + NEAR_IN * MM_PER_INCH
    try:
        found = crossing(chart, narrowest if narrower else width, size)
    except BadChart as fault:
        faults.append(sentence_of(fault))
        return None
    column = [s.name for s in envelope.sizes].index(size)
    return _Place(found, chart.widths[found.row], rows[found.row][0], column, narrower)


def _for_width(
    envelope: Envelope, place: _Place, width: float, one_way: bool, faults: list[str]
) -> tuple[Converted | None, tuple[tuple[str, bool], ...]]:
    """The length by the handbook table, where the row's width is another than the cloth's."""
    told: list[tuple[str, bool]] = []
    if place.narrower:
        told.append(("No row of the chart is as narrow as this cloth.", False))
    try:
        if abs(place.width - width) <= ROW_GIVE_MM or column_of(place.width) == column_of(width):
            return None, tuple(told)
        printed = place.crossing.length
        found = convert_width(printed, place.width, width, one_way=one_way, sleeves_in_one=envelope.sleeves_in_one)
    except BadChart as fault:
        faults.append(sentence_of(fault))
        return None, tuple(told)
    between = " (between two of its rows: the longer was taken)" if found.between else ""
    said = "The handbook table turns {printed} of {from_width} into {length} of {width}{between}."
    parts = {"printed": _printed(printed), "length": _printed(found.length)}
    wide = {"from_width": length(place.width), "width": length(width)}
    told.append((Sentence(said, **parts, **wide, between=between), False))
    if found.more:
        more = Sentence("It asks for {more} more: {why}.", more=_printed(found.more), why=" and ".join(found.why))
        told.append((more, True))
    return found, tuple(told)


def _printed(mm: float) -> Quantity:
    return Quantity(mm, "printed")


def envelope_headline(answer: float | None) -> Sentence:
    """What the envelope says, in a few words."""
    if answer is None:
        return Sentence("Read the envelope")
    return Sentence("The envelope says {answer}", answer=_printed(answer))


#: An envelope that differs by less than this from what was worked out says the same, mm.
SAME_ANSWER_MM = 10.0


def compared(answer: float | None, needed: float | None) -> str:
    """What the envelope asks for, beside what the pieces need before washing (mm), or nothing."""
    if answer is None or needed is None:
        return ""
    said = Sentence("Laid piece by piece, this cloth needs {mine} before washing", mine=length(needed))
    more = answer - needed
    if abs(more) < SAME_ANSWER_MM:
        return Sentence("{said}: the same.", said=said)
    way = "more than that" if more > 0 else "less than that, and it would not do"
    return Sentence("{said}: the envelope asks for {by} {way}.", said=said, by=length(abs(more)), way=way)
