"""The printed chart of a pattern envelope: the size to take, where row and column cross, and another width."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

from ..shrink.shrinkage import divide_not_add
from ..units import MM_PER_INCH, MM_PER_YARD, System
from ..wording import Sentence, sentence_of
from ..working import Figure, Inputs, Quantity, Source, Step, about, count, given, length, percent

Fit = Literal["close", "loose"]
#: What a row is printed for: cloth with nap or a direction, without, or either.
Nap = Literal["", "with", "without"]

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
#: A tape tells a width to so much, mm: a cloth narrower than a column by no more is of that column.
WIDTH_GIVE_MM = 1.0
#: A body this near to a size is that size, mm, by the units on the tape: 5 mm, or 1/4 in. Common practice, no source.
SIZE_GIVE_MM: dict[System, float] = {"metric": 5.0, "imperial": MM_PER_INCH / 4}


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
    """Read the chart: the row is the widest printed width that the cloth still has, or one in the same column of the
    handbook's table, whose widths are one width (44 and 45 in, 58 to 60).

    A cloth narrower than that cannot be cut by the row. Raises :class:`BadChart`.
    """
    if size not in chart.sizes:
        raise BadChart(f"The chart has no size {size}; it has {', '.join(chart.sizes) or 'none yet'}.")
    column = chart.sizes.index(size)
    rows = [k for k, w in enumerate(chart.widths) if _has(width, w)]
    if not rows:
        raise BadChart("Every width on the chart is wider than the cloth. Convert it from the narrowest printed width.")
    row = max(rows, key=lambda k: chart.widths[k])
    found = chart.lengths[row][column]
    if found is None:
        raise BadChart("Nothing is printed where this row and this column cross.")
    return Crossing(row, column, found)


def _has(width: float, printed: float) -> bool:
    """Whether a cloth is as wide as a printed width, or of one width with it."""
    here = _column(width)
    return printed <= width + WIDTH_GIVE_MM or (here is not None and here == _column(printed))


def _column(width: float) -> int | None:
    """The column whose range a width lies in; None between two."""
    return next(
        (k for k, ends in enumerate(WIDTHS_IN) if ends[0] - _GIVE_IN <= width / MM_PER_INCH <= ends[1] + _GIVE_IN), None
    )


_GIVE_IN = WIDTH_GIVE_MM / MM_PER_INCH
#: Past the widest column by more than this the table says nothing, inches. From memory.
PAST_IN = 2.0


def column_of(width: float) -> int:
    """The table's column for a cloth of a width in mm: its own, else the next narrower. Raises :class:`BadChart`."""
    inches = width / MM_PER_INCH
    fits = [k for k, (low, _) in enumerate(WIDTHS_IN) if low <= inches + _GIVE_IN]
    if not fits or inches > WIDTHS_IN[-1][1] + PAST_IN:
        raise BadChart(OUTSIDE)
    return fits[-1]


def printed_column(width: float) -> int:
    """The table's column for a printed width in mm: its own, else the next wider one, as if the length were printed for
    that, so that too little is never bought. Raises :class:`BadChart`."""
    inches = width / MM_PER_INCH
    fits = [k for k, (_, high) in enumerate(WIDTHS_IN) if high >= inches - _GIVE_IN]
    if inches + _GIVE_IN < WIDTHS_IN[0][0] or inches > WIDTHS_IN[-1][1] + PAST_IN:
        raise BadChart(OUTSIDE)
    return fits[0] if fits else len(WIDTHS_IN) - 1


OUTSIDE = "The table goes from 35 to 60 in (89 to 152 cm); this width lies outside it."


@dataclass(frozen=True)
class Converted:
    """A length for another width: ``length`` from the table, ``more`` on top of it, both mm, and why.

    ``row`` and ``columns`` say where in the table it was read. ``between``: the length stood between two rows, and the
    longer was taken; ``below``: it was shorter than the first row, which was taken; ``halves``: it was past the last
    row, so that half of it was converted and doubled.
    """

    length: float
    more: float
    why: tuple[str, ...]
    row: int
    columns: tuple[int, int]
    between: bool
    below: bool = False
    halves: int = 1

    @property
    def figure(self) -> Figure:
        """The length for the other width, with its working."""
        cell = Quantity(self.length / self.halves, "printed")
        put: Inputs = (("the table", cell), ("more", Quantity(self.more / self.halves, "printed")))
        formula = "the table + more"
        if self.halves > 1:
            put, formula = (*put, ("halves", count(self.halves))), "(the table + more) × halves"
        step = Step(
            "for this width", formula, put, Quantity(self.length + self.more, "printed"), " and ".join(self.why)
        )
        return Figure(self.length + self.more, "printed", steps=(step,), sources=(TABLE_SOURCE,))


def convert_width(
    printed_length: float, printed: float, wanted: float, *, one_way: bool = False, sleeves_in_one: bool = False
) -> Converted:
    """A length (mm) printed for one width, for another, by the handbook table. Raises :class:`BadChart`."""
    a, b = printed_column(printed), column_of(wanted)
    eighths = printed_length / MM_PER_YARD * 8
    halves = 1
    # past the last row it is halved, converted and doubled; twice over for a very long one
    while eighths / halves > TABLE_EIGHTHS[-1][a] + 1e-6 and halves < MOST_HALVES:
        halves *= 2
    eighths /= halves
    rows = [k for k, row in enumerate(TABLE_EIGHTHS) if row[a] >= eighths - 1e-6]
    if not rows:
        most = TABLE_EIGHTHS[-1][a] / 8 * MOST_HALVES
        raise BadChart(f"The table ends at {most:g} yd for this width, even in parts. Lay the pieces instead.")
    row = rows[0]
    why = []
    if abs(a - b) >= LARGE_COLUMNS:
        why.append("the widths differ much")
    if one_way:
        why.append("the cloth has a direction")
    if sleeves_in_one:
        why.append("the sleeves are cut in one with the body")
    # a length below the first row is the first row's, which is longer; a cloth as wide as the printed one needs no more
    found = TABLE_EIGHTHS[row][b] / 8 * MM_PER_YARD * halves
    off = abs(TABLE_EIGHTHS[row][a] - eighths) > 1e-6
    more = MORE_MM * halves if why else 0.0
    return Converted(found, more, tuple(why), row, (a, b), off and row > 0, off and row == 0, halves)


#: A length is read in halves, or in quarters at most.
HALF, MOST_HALVES = 2, 4


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
    sizes: Sequence[str],
    body: Sequence[float | tuple[float, float]],
    mine: float,
    fit: Fit,
    finished: Mapping[str, float] | None = None,
    give: float = SIZE_GIVE_MM["metric"],
) -> SizeChoice:
    """The size for a body measure (mm) from the measures each size is drafted for, smallest first: one measure, or the
    two ends of a range ("36–38").

    Within ``give`` mm of a size it is that size. Between two: down for loose-fitting garments, up for close-fitting
    ones; common practice. Raises :class:`BadChart`.
    """
    if not sizes or len(sizes) != len(body):
        raise BadChart("Give the body measure of every size on the envelope.")
    ends = [one if isinstance(one, tuple) else (one, one) for one in body]
    # ranges may touch, as 34–36 and 36–38; single measures may not
    if any(b <= a or b_low < a_high for (a_low, a_high), (b_low, b_high) in pairwise(ends)
           for a, b in ((a_low, b_low), (a_high, b_high))):  # fmt: skip
        raise BadChart("The body measures must grow from size to size.")
    last = len(sizes) - 1
    lows, highs = [low for low, _ in ends], [high for _, high in ends]
    away = [max(low - mine, mine - high, 0.0) for low, high in ends]
    near = [k for k in range(len(ends)) if away[k] <= min(away) + 1e-6]
    # where two ranges touch, as between two sizes
    nearest = near[0] if fit == "loose" else near[-1]
    if away[nearest] <= give + 1e-6:
        around: tuple[str, ...] = (sizes[nearest],)
        size, why = sizes[nearest], f"the measure of size {sizes[nearest]}"
    elif mine < lows[0]:
        step = lows[1] - lows[0] if last else 40.0
        if mine < lows[0] - step:
            raise BadChart(f"That is smaller than the smallest size, {sizes[0]}, by more than a size.")
        size, around = sizes[0], (sizes[0],)
        why = f"smaller than size {sizes[0]}, the smallest there is"
    elif mine > highs[-1]:
        step = highs[-1] - highs[-2] if last else 40.0
        if fit == "close" or mine > highs[-1] + step:
            raise BadChart(f"That is larger than the largest size, {sizes[-1]}; choose a pattern that goes further.")
        size, around = sizes[-1], (sizes[-1],)
        why = f"larger than size {sizes[-1]}, the largest there is, but the garment fits loosely"
    else:
        above = next(k for k, low in enumerate(lows) if low >= mine)
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
    """One size of the envelope: its name, the two ends of the body's measure (the same where one is printed), and the
    finished measure, mm, where printed."""

    name: str
    body: tuple[float, float] | None = None
    finished: float | None = None


@dataclass(frozen=True)
class ChartLine:
    """One row of a view's chart: the cloth's width and a length for each size, mm, None where nothing is printed;
    ``nap``: printed for cloth "with" or "without" nap, or for either."""

    width: float | None
    lengths: tuple[float | None, ...] = ()
    nap: Nap = ""


@dataclass(frozen=True)
class Envelope:
    """The envelope as typed: its sizes, the rows of the view at hand, and what is wished.

    ``give``: how near a body is to a size that counts as it, mm. ``measure`` names what decides the size and ``mine``
    is the maker's own, mm; ``size`` one chosen by hand.
    """

    sizes: tuple[SizeLine, ...]
    rows: tuple[ChartLine, ...]
    measure: str = "bust"
    mine: float | None = None
    fit: Fit = "loose"
    size: str = ""
    sleeves_in_one: bool = False
    give: float = SIZE_GIVE_MM["metric"]


@dataclass(frozen=True)
class EnvelopeReading:
    """What the envelope says. ``row`` and ``column`` are where it was read, numbered as typed.

    ``told`` are sentences, each with whether it asks for another look. ``answer`` is the length for the cloth's width
    as the chart means it, for cloth that does not shrink; ``washed`` the same divided by what the cloth keeps. Both are
    None where the chart cannot be read for this width.
    """

    size: str
    size_told: str
    ease_told: str
    row: int | None
    column: int | None
    printed: float | None
    converted: Converted | None
    answer: Figure | None
    washed: Figure | None
    told: tuple[tuple[str, bool], ...]
    faults: tuple[str, ...]


def read_envelope(
    envelope: Envelope, width: float | None, *, one_way: bool = False, shrinkage: Figure | None = None
) -> EnvelopeReading:
    """The size to take, where row and column cross, and the length for a cloth ``width`` mm wide as it is bought.

    ``shrinkage`` is the one along to plan with, per cent; None: not known.
    """
    faults: list[str] = []
    choice = _chosen_size(envelope, faults)
    size = envelope.size or (choice.size if choice else "")
    size_told = f"Size {choice.size}: {choice.why}." if choice else ""
    place = _place(envelope, width, size, one_way, faults)
    converted: Converted | None = None
    answer: Figure | None = None
    told: tuple[tuple[str, bool], ...] = ()
    if place is not None and width is not None:
        answer, converted, told = _for_width(envelope, place, width, one_way, faults)
    washed = None if answer is None or shrinkage is None else _before_washing(answer, shrinkage)
    if answer is not None and shrinkage is None:
        told = (*told, (NOT_SHRUNK, True))
    return EnvelopeReading(
        size,
        size_told,
        _ease_told(envelope, choice),
        place.row if place else None,
        place.column if place else None,
        place.crossing.length if place else None,
        converted,
        answer,
        washed,
        told,
        tuple(faults),
    )


NOT_SHRUNK = "The chart is for cloth that does not shrink, and how much this one does is not known: nothing was added."


def _before_washing(answer: Figure, shrinkage: Figure) -> Figure:
    """The chart's length for cloth that will shrink: divided by what is kept of it."""
    value = divide_not_add(answer.value, shrinkage.value)
    put = (("the chart says", length(answer.value)), ("shrinkage along", percent(shrinkage.value)))
    step = Step("before washing", "the chart says ÷ (1 − shrinkage along)", put, length(value))
    sources = (*answer.sources, *shrinkage.sources)
    return Figure(value, "length", steps=(*answer.steps, *shrinkage.steps, step), sources=sources, note=shrinkage.note)


PRINTED = Source("your own log", "the chart as you typed it from the envelope")


def _as_printed(mm: float) -> Figure:
    step = given("the chart says", Quantity(mm, "printed"), "where row and column cross")
    return Figure(mm, "printed", steps=(step,), sources=(PRINTED,))


def _chosen_size(envelope: Envelope, faults: list[str]) -> SizeChoice | None:
    named = [(s.name, s.body) for s in envelope.sizes if s.name]
    measured = [(name, body) for name, body in named if body is not None]
    if envelope.mine is None or not measured:
        return None
    finished = {s.name: s.finished for s in envelope.sizes if s.name and s.finished is not None}
    try:
        names, bodies = zip(*measured, strict=True)
        return choose_size(names, bodies, envelope.mine, envelope.fit, finished, envelope.give)
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
    nap: Nap


def _place(envelope: Envelope, width: float | None, size: str, one_way: bool, faults: list[str]) -> _Place | None:
    """Where row and column cross, among the rows for cloth with a direction or without; for a cloth narrower than every
    row, in the narrowest."""
    typed = [(k, row.width, row) for k, row in enumerate(envelope.rows) if row.width is not None]
    wrong: Nap = "without" if one_way else "with"
    # where the envelope prints only the other kind, that is read, and the rest is told
    rows = [one for one in typed if one[2].nap != wrong] or typed
    # of two rows of one width the one that is printed for just this cloth
    rows.sort(key=lambda one: one[2].nap in ("", wrong))
    if not rows or not size or width is None:
        return None
    names = tuple(s.name for s in envelope.sizes if s.name)
    lengths = tuple(tuple((*row.lengths, *[None] * len(names))[: len(names)]) for _, _, row in rows)
    chart = Chart(tuple(wide for _, wide, _ in rows), names, lengths)
    narrowest = min(chart.widths)
    narrower = not _has(width, narrowest)
    try:
        found = crossing(chart, narrowest if narrower else width, size)
    except BadChart as fault:
        faults.append(sentence_of(fault))
        return None
    column = [s.name for s in envelope.sizes].index(size)
    number, _, line = rows[found.row]
    return _Place(found, chart.widths[found.row], number, column, narrower, line.nap)


def _as_printed_with_nap(mm: float) -> Figure:
    """The chart's length where it is printed without nap only, and the cloth has a direction."""
    total = mm + MORE_MM
    put = (("the chart says", _printed(mm)), ("more", _printed(MORE_MM)))
    step = Step("with a direction", "the chart says + more", put, _printed(total), "as for cloth with a direction")
    plain = _as_printed(mm)
    return Figure(total, "printed", steps=(*plain.steps, step), sources=(*plain.sources, MORE))


MORE = Source("common practice", "a quarter of a yard more for nap or one-way cloth", "no source")


def _for_width(
    envelope: Envelope, place: _Place, width: float, one_way: bool, faults: list[str]
) -> tuple[Figure | None, Converted | None, tuple[tuple[str, bool], ...]]:
    """The length for the cloth: as printed where the row's width is the cloth's, else by the handbook table; None where
    that cannot be read."""
    told: list[tuple[str, bool]] = []
    printed = place.crossing.length
    # a row printed with nap has what the direction costs in it
    directed = one_way and place.nap != "with"
    # widths of one column of the table are one width, as 44 and 45 in
    here = _column(width)
    same = abs(place.width - width) <= WIDTH_GIVE_MM or (here is not None and here == _column(place.width))
    if place.nap == "with" and not one_way:
        told.append(("The chart is for cloth with nap; this has no direction and may need less.", False))
    if place.narrower and not same:
        told.append(("No row of the chart is as narrow as this cloth.", False))
    try:
        # a cloth wider than the row, but of no wider column, is cut by the row
        if same or (width > place.width and column_of(width) <= printed_column(place.width)):
            if not (one_way and place.nap == "without"):
                return _as_printed(printed), None, tuple(told)
            more = Sentence("The chart has no row with nap: {more} more for the direction.", more=_printed(MORE_MM))
            return _as_printed_with_nap(printed), None, (*told, (more, True))
        found = convert_width(printed, place.width, width, one_way=directed, sleeves_in_one=envelope.sleeves_in_one)
    except BadChart as fault:
        faults.append(sentence_of(fault))
        return None, None, tuple(told)
    said = "The handbook table turns {printed} of {from_width} into {length} of {width}{how}."
    parts = {"printed": _printed(printed), "length": _printed(found.length)}
    wide = {"from_width": length(place.width), "width": length(width)}
    told.append((Sentence(said, **parts, **wide, how=_how_read(found)), False))
    if found.more:
        more = Sentence("It asks for {more} more: {why}.", more=_printed(found.more), why=" and ".join(found.why))
        told.append((more, True))
    first, last = _as_printed(printed), found.figure
    answer = replace(last, steps=(*first.steps, *last.steps), sources=(*first.sources, *last.sources))
    return answer, found, tuple(told)


def _how_read(found: Converted) -> str:
    """Where in the table it was read, beside its rows."""
    told = ""
    if found.halves > 1:
        part = "half" if found.halves == HALF else "quarter"
        told = f" (past its last row: a {part} was turned and taken {found.halves} times)"
    if found.between:
        return f"{told} (between two of its rows: the longer was taken)"
    return f"{told} (below its first row, which was taken)" if found.below else told


def _printed(mm: float) -> Quantity:
    return Quantity(mm, "printed")


def envelope_headline(reading: EnvelopeReading) -> Sentence:
    """What the envelope says, in a few words: for cloth that does not shrink, and for this one."""
    if reading.answer is None:
        return Sentence("Read the envelope")
    says = Sentence("The envelope says {answer}", answer=_printed(reading.answer.value))
    if reading.washed is None or reading.washed.value - reading.answer.value < SAME_ANSWER_MM:
        return says
    return Sentence("{says}; before washing {washed}", says=says, washed=length(reading.washed.value))


#: An envelope that differs by less than this from what was worked out says the same, mm.
SAME_ANSWER_MM = 10.0


def compared(answer: float | None, needed: float | None) -> str:
    """What the envelope asks for before washing, beside what the pieces need (mm), or nothing."""
    if answer is None or needed is None:
        return ""
    said = Sentence("Laid piece by piece, this cloth needs {mine} before washing", mine=length(needed))
    more = answer - needed
    if abs(more) < SAME_ANSWER_MM:
        return Sentence("{said}: the same.", said=said)
    way = "more than that" if more > 0 else "less than that, and it would not do"
    return Sentence("{said}: the envelope asks for {by} {way}.", said=said, by=length(abs(more)), way=way)
