"""Seams and bars: what shall meet, what a lay comes to at each seam, and how it will look."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.cloth.bars import Bar, unevenness
from ..core.lay.answer import Cut
from ..core.lay.asking import bars_laid, joined_on
from ..core.lay.joined import Joined
from ..core.lay.joined import Way as BarWay
from ..core.lay.problem import Bars, LayPiece
from ..core.match import told
from ..core.match.chance import HAND_MM, Doubt, chances, hand_from
from ..core.match.couples import Couple
from ..core.match.helps import Way, ways
from ..core.match.judged import Judged, foreseen, in_lay_axes, on_lay
from ..core.match.shown import Preview, preview
from ..core.match.steps import CutStep, steps
from ..core.match.wishes import NamedPlace, WishSpot, named_places, wish_spots
from ..core.plan.allowance import seam_line
from ..core.plan.draft import Draft, run_length
from ..core.plan.outline import BadPiece, Outline
from ..core.plan.piece import Piece
from ..core.plan.proposals import Proposable, proposals
from ..core.plan.seams import KINDS, Seam, Sewn, unlike
from ..core.plan.sides import Side, Spot, run_of, seam_run
from ..core.shrink.to_fit import enlarge
from ..core.true.slant import skew_angle
from ..core.true.squareness import BarReading, headline, squareness
from ..core.wording import Sentence, sentence_of
from ..store import cloth as cloths
from ..store import models, outcome, true_sheet
from ..store import piece as pieces
from ..store import seam as seams
from ..store.errors import NotFound
from ..store.true_test import as_attempts
from .lay import LayStanding, lay_standing
from .log import note
from .refused import Refused
from .standing import Standing
from .true import TrueStanding

#: So many seams are kept of one garment.
MOST_SEAMS = 200


# -- keeping them


def add_seam(session: Session, cloth_use: models.ClothUse, given: Mapping[str, Any]) -> models.SeamRow:
    """Keep a seam. Raises :class:`Refused`."""
    there = seams.seams(session, cloth_use.project_id)
    if len(there) >= MOST_SEAMS:
        raise Refused(f"A garment can have at most {MOST_SEAMS} seams.")
    last = max((row.priority for row in there), default=0)
    row = _with_defaults(models.SeamRow(project_id=cloth_use.project_id, **{"priority": last + 1, **given}))
    _check(session, row)
    session.add(row)
    session.flush()
    note(session, cloth_use, "plan", "seam-added", name=_called(row), seam=row.id)
    return row


def told_sides(session: Session, cloth_use: models.ClothUse, given: Mapping[str, Any]) -> dict[str, Any]:
    """A seam as it is told, with what was left open: that the lower ends of both sides meet, and that a piece is laid
    on another with the middle of its edge. Raises NotFound and :class:`Refused`."""
    if given.get("kind") == "laid on":
        return {**given, "same_way": False, "key_a": _middle(session, given)}
    if given.get("same_way") is not None:
        return dict(given)
    upwards = []
    for letter in ("a", "b"):
        draft = pieces.as_draft(pieces.piece(session, given[f"{letter}_piece_id"]))
        spots = [given.get(f"{letter}_{end}") for end in ("begin", "end")]
        if spots[0] is None or spots[1] is None:
            return {**given, "same_way": False}
        side = Side(*(Spot(given[f"{letter}_{end}"], given[f"{letter}_{end}_at"]) for end in ("begin", "end")))
        try:
            run = run_of(draft, side)
        except BadPiece as fault:
            raise Refused(sentence_of(fault), path=f"{letter}_begin") from None
        upwards.append(run[-1][0] >= run[0][0])
    return {**given, "same_way": upwards[0] == upwards[1]}


def _middle(session: Session, given: Mapping[str, Any]) -> float | None:
    """How far along its seam line the middle of an edge lies, mm; what was told stays."""
    if given.get("key_a") is not None or given.get("a_begin") is None:
        return given.get("key_a")
    row = pieces.piece(session, given["a_piece_id"])
    side = Side(Spot(given["a_begin"], given["a_begin_at"]), Spot(given["a_end"], given["a_end_at"]))
    try:
        run = seam_run(pieces.as_piece(row, row.cuts[0] if row.cuts else pieces.UNCUT), pieces.as_draft(row), side)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path="a_begin") from None
    return round(run_length(run) / 2, 1)


def change_seam(session: Session, row: models.SeamRow, cloth_use: models.ClothUse, given: Mapping[str, Any]) -> None:
    """Change a seam. Raises :class:`Refused`."""
    before = {key: getattr(row, key) for key in given}
    for key, value in given.items():
        setattr(row, key, value)
    _check(session, row)
    session.flush()
    note(session, cloth_use, "plan", "seam-changed", before=before, after=given, name=_called(row), seam=row.id)


def take_out_seam(session: Session, row: models.SeamRow, cloth_use: models.ClothUse) -> None:
    """Take a seam out; undo brings it back."""
    row.deleted_at = models.now()
    session.flush()
    note(session, cloth_use, "plan", "seam-out", name=_called(row), seam=row.id)


def order_seams(session: Session, cloth_use: models.ClothUse, numbers: Sequence[int]) -> None:
    """Which seams come first, by their numbers; those left out come after them. Raises NotFound."""
    there = {row.id: row for row in seams.seams(session, cloth_use.project_id)}
    if set(numbers) - there.keys() or len(set(numbers)) < len(numbers):
        raise NotFound("One of these seams is not here any more.")
    before = {str(row.id): row.priority for row in there.values()}
    for place, number in enumerate([*numbers, *(n for n in there if n not in set(numbers))], start=1):
        there[number].priority = place
    session.flush()
    after = {str(row.id): row.priority for row in there.values()}
    if after != before:
        note(session, cloth_use, "plan", "seams-ordered", before=before, after=after)


def take_proposed(session: Session, now: Standing, which: Sequence[int]) -> None:
    """Keep seams that were proposed, by their places in the list. Raises :class:`Refused`."""
    found = proposed(now)
    if any(not 0 <= number < len(found) for number in which):
        raise Refused("What was proposed is not the same any more; look at it again.", code="not_ready")
    for number in which:
        add_seam(session, now.use, _entries(found[number]))


def _entries(seam: Seam) -> dict[str, Any]:
    """A seam of the core as entries of a row."""
    given: dict[str, Any] = {
        "name": seam.name[:60], "kind": seam.kind, "same_way": seam.same_way, "longer": seam.longer, "ease": seam.ease,
        "spread_from": seam.spread[0], "spread_to": seam.spread[1], "key_a": seam.key_a, "key_b": seam.key_b,
        "levels": seam.levels, "lengthwise": seam.lengthwise,
    }  # fmt: skip
    for letter, side in (("a", seam.a), ("b", seam.b)):
        given[f"{letter}_piece_id"] = int(side.piece)
        if side.side is not None:
            given |= {
                f"{letter}_begin": side.side.begin.after, f"{letter}_begin_at": side.side.begin.at,
                f"{letter}_end": side.side.end.after, f"{letter}_end_at": side.side.end.at,
            }  # fmt: skip
    if seam.b.place is not None:
        given |= {"b_along": seam.b.place[0], "b_across": seam.b.place[1]}
    return given


def _check(session: Session, row: models.SeamRow) -> None:
    """Refuse a seam that cannot be sewn."""
    if row.kind not in KINDS:
        raise Refused(f"A seam is one of these: {', '.join(KINDS)}.", path="kind")
    drafts = {}
    for letter in ("a", "b"):
        piece = session.get(models.Piece, getattr(row, f"{letter}_piece_id"))
        if piece is None or piece.deleted_at is not None or piece.project_id != row.project_id:
            raise Refused("Choose two pieces of this garment.", path=f"{letter}_piece_id")
        drafts[letter] = pieces.as_draft(piece)
    if row.kind == "laid on" and (row.b_along is None or row.b_across is None):
        raise Refused("Say where on the other piece it lies.", path="b_along")
    if row.kind == "sewn" and (row.b_begin is None or row.b_end is None):
        raise Refused("Touch an edge of the other piece as well.", path="b_begin")
    if not 0.0 <= row.spread_from < row.spread_to <= 1.0:
        raise Refused("Ease is spread between two places along the longer side, the first before the last.",
                      path="spread_from")  # fmt: skip
    seam = seams.as_seam(row)
    for letter, side in (("a", seam.a), ("b", seam.b)):
        if side.side is None:
            continue
        try:
            run_of(drafts[letter], side.side)
        except BadPiece as fault:
            raise Refused(sentence_of(fault), path=f"{letter}_begin") from None
    if seam.kind == "sewn" and seam.a.piece == seam.b.piece and seam.a.side == seam.b.side and not seam.same_way:
        raise Refused("An edge is sewn to its own mirror image the same way round; choose that, or another edge.",
                      path="same_way")  # fmt: skip


def _with_defaults(row: models.SeamRow) -> models.SeamRow:
    """A row that was not kept yet lacks what the table gives."""
    for column in models.SeamRow.__table__.columns:
        if getattr(row, column.key) is None and column.default is not None and column.default.is_scalar:
            setattr(row, column.key, column.default.arg)
    return row


def _called(row: models.SeamRow) -> str:
    return row.name or "a seam"


def set_corner(session: Session, row: models.Piece, cloth_use: models.ClothUse, key: int, corner: bool | None) -> None:
    """Say that a point of a piece is a corner of its seams, or is none (None: as it is found). Raises
    :class:`Refused`."""
    draft = pieces.as_draft(row)
    if all(point.key != key for point in draft.points):
        raise Refused("That point is not there any more.", path="key")
    before = list(row.corners or [])
    row.corners = [one for one in before if one[0] != key] + ([] if corner is None else [[key, corner]])
    session.flush()
    if row.corners != before:
        was, now = {"corners": before}, {"corners": row.corners}
        note(session, cloth_use, "plan", "piece-changed", before=was, after=now, name=row.name, piece=row.id)


def wish_bar(session: Session, now: Standing, piece_id: int, way: str, at: float, bar: float | None) -> None:
    """Say which place of the bars shall fall where on a piece, or (``bar`` None) that it is free. Raises
    :class:`Refused`."""
    if all(row.id != piece_id for row, _ in now.rows.cuts):
        raise Refused("That piece is not cut from this cloth.", path="piece_id")
    pattern = now.cloth.bars[0 if way == "levels" else 1]
    if bar is not None and (pattern.repeat is None or not pattern.seen):
        raise Refused("This cloth has no such bars that could be seen.", path="way")
    query = select(models.BarWishRow).where(
        models.BarWishRow.use_id == now.use.id, models.BarWishRow.piece_id == piece_id, models.BarWishRow.way == way
    )
    row = session.scalar(query)
    if bar is None:
        if row is not None:
            session.delete(row)
    elif row is None:
        session.add(models.BarWishRow(use_id=now.use.id, piece_id=piece_id, way=way, at=at, bar=bar))
    else:
        row.at, row.bar = at, bar
    session.flush()
    name = next(row.name for row, _ in now.rows.cuts if row.id == piece_id)
    note(session, now.use, "plan", "bar-wished" if bar is not None else "bar-free", name=name)


# -- what they come to


@dataclass(frozen=True)
class SeamStanding:
    """One seam: its row, what it comes to, and what is said of it; ``judged`` None where its pieces or edges are not on
    this cloth, which ``gone`` says."""

    row: models.SeamRow
    judged: Judged | None
    gone: Sentence | None = None
    unlike: Sentence | None = None
    graph: Sentence | None = None
    chance: float | None = None


@dataclass(frozen=True)
class Matching:
    """The seams of a garment on one of its cloths, reckoned once; ``lay``: the one they are looked at on."""

    now: Standing
    lay: LayStanding | None
    #: how far cut pieces of all garments were found beside their places, mm
    measured_after: tuple[float, ...] = ()

    @cached_property
    def bars(self) -> Bars:
        """The bars as they are laid."""
        return bars_laid(self.now.cutting.laid)

    @cached_property
    def joined(self) -> Joined:
        """What the seams come to on the bars."""
        return self.now.joined

    def _again(self, sewn: Sequence[Sewn]) -> Joined:
        """What seams come to that are in the axes in which the pieces are laid."""
        now = self.now
        return joined_on(now.cutting.laid, now.asked, self.bars, None, sewn, now.wished)

    @cached_property
    def sewn(self) -> tuple[Sewn, ...]:
        """The seams between pieces as they are laid."""
        fit = self.now.fit
        if fit is None:
            return self.now.sewn

        def larger(run: Outline) -> Outline:
            return enlarge(run, "lengthwise", *fit)

        return tuple(in_lay_axes(one, larger) for one in self.now.sewn)

    @property
    def cuts(self) -> Sequence[Cut]:
        """The copies as they leave the cloth; none before there is a lay."""
        return () if self.lay is None else self.lay.lay.cut

    @cached_property
    def pieces(self) -> dict[str, LayPiece]:
        """The pieces as they are laid, by their keys."""
        problem = self.lay.problem if self.lay is not None else self.now.problem
        return {} if problem is None else {piece.id: piece for piece in problem.pieces}

    @cached_property
    def judged(self) -> tuple[Judged, ...]:
        """Every seam on the lay; before there is one as it is foreseen."""
        if self.lay is None:
            return foreseen(self.sewn, self.joined, self.bars)
        return on_lay(self.sewn, self.pieces, self.cuts, self.bars)

    @property
    def out_of_date(self) -> bool:
        """Whether the lay was made for other pieces or another cloth."""
        return self.lay is not None and bool(self.now.stale)

    @cached_property
    def doubt(self) -> Doubt:
        """What is not known of cloth and hand."""
        row = self.now.cloth.row
        uneven = (unevenness(row.repeats("along")), unevenness(row.repeats("across")))
        off = [*laid_off(self.now), *self.measured_after]
        own = hand_from(off)
        return Doubt(HAND_MM if own is None else own, slant_left(self.now), uneven, 0 if own is None else len(off))

    @cached_property
    def seams(self) -> tuple[SeamStanding, ...]:
        """All seams of the garment, in the order of their priority."""
        by = {one.sewn.seam.key: one for one in self.judged}
        sure = dict(zip(by, chances(self.judged, self.bars, self.doubt), strict=True))
        return tuple(self._standing(row, by, sure) for row in self.now.whole.rows.seams)

    def _standing(
        self, row: models.SeamRow, by: Mapping[str, Judged], sure: Mapping[str, float | None]
    ) -> SeamStanding:
        key = str(row.id)
        judged = by.get(key)
        if judged is None:
            return SeamStanding(row, None, self._gone(row))
        names = (self.now.names[str(row.a_piece_id)], self.now.names[str(row.b_piece_id)])
        levels = self.joined.levels
        graph = self._askew(row) or told.standing_told(
            levels.standing.get(key), levels.off.get(key, 0.0), self._first(key)
        )
        return SeamStanding(row, judged, None, unlike(judged.sewn, names), graph, sure[key])

    def _askew(self, row: models.SeamRow) -> Sentence | None:
        """That one of a seam's pieces is not cut along the cloth, so that its bars cannot be placed."""
        if not (row.levels or row.lengthwise):
            return None
        for one in self.now.asked:
            if one.key in (str(row.a_piece_id), str(row.b_piece_id)) and one.piece.grain != "lengthwise":
                return told.askew_told(self.now.names[one.key], one.piece.grain)
        return None

    def _first(self, key: str) -> str:
        """The seam with the highest priority of those that keep another from meeting."""
        group = self.joined.levels.group
        mine = next((one for one in self.sewn if one.seam.key == key), None)
        first = next(
            (one for one in self.sewn if mine is not None and one is not mine and one.seam.levels
             and group.get(one.seam.a.piece) == group.get(mine.seam.a.piece)),
            None,
        )  # fmt: skip
        return "" if first is None else first.seam.name

    def _gone(self, row: models.SeamRow) -> Sentence:
        here = {one.key for one in self.now.asked}
        there = {str(piece.id) for piece in self.now.pieces}
        for side in (str(row.a_piece_id), str(row.b_piece_id)):
            if side not in there:
                return Sentence("One of its pieces was taken out.")
            if side not in here:
                return Sentence("{name} is not cut from this cloth.", name=self.now.names[side])
        return Sentence("The edge it was told from is no longer there: choose it again.")

    @cached_property
    def _ahead(self) -> dict[str, Judged]:
        """Every seam as it is foreseen."""
        return {one.sewn.seam.key: one for one in foreseen(self.sewn, self.joined, self.bars)}

    def ways_of(self, number: int) -> tuple[Way, ...]:
        """What can be done about a seam, by its number. Raises NotFound."""
        one = next((judged for judged in self.judged if judged.sewn.seam.key == str(number)), None)
        if one is None:
            raise NotFound("There is no such seam on this cloth; it may have been taken out.")
        return self.ways(one)

    def ways(self, one: Judged) -> tuple[Way, ...]:
        """What can be done about a seam whose bars do not meet."""
        cloth = self.now.cloth
        known = (self.sewn, self._ahead, self._again, self.bars, self.pieces)
        return ways(one, *known, across=cloth.bars[1], reversible=cloth.row.reversible)

    @cached_property
    def steps(self) -> tuple[CutStep, ...]:
        """The steps at the table."""
        found = [BarReading(a, b) for a, b in true_sheet.pairs(self.now.use, "bar")]
        width = 0.0 if self.now.tally.width is None else self.now.tally.width.value
        squared = headline(squareness(found, width), len(found)) if found else Sentence("")
        return steps(self.sewn, self.pieces, self.cuts, squared)

    @cached_property
    def consequences(self) -> tuple[Sentence, ...]:
        """What the sequence of bars means for these pieces."""
        along, across = self.now.cloth.bars
        pairs = tuple(one.piece.name for one in self.now.asked if one.piece.pair and one.piece.grain == "lengthwise")
        bias = tuple(one.piece.name for one in self.now.asked if one.piece.grain == "bias")
        row = self.now.cloth.row
        return told.consequences(along, across, pairs=pairs, reversible=row.reversible,
                                 printed=row.colouring == "printed", bias=bias)  # fmt: skip

    def preview(self, number: int, couple: int, *, at_cut: bool) -> tuple[Judged, Preview]:
        """A seam as one will see it. Raises NotFound and :class:`Refused`."""
        if self.lay is None:
            raise Refused("Lay the pieces first: the bars a seam will have are those of the lay.", code="not_ready")
        found = on_lay(self.sewn, self.pieces, self.cuts, self.bars, at_cut=at_cut)
        one = next((judged for judged in found if judged.sewn.seam.key == str(number)), None)
        if one is None:
            raise NotFound("There is no such seam on this cloth; it may have been taken out.")
        if not 0 <= couple < len(one.mets):
            raise Refused(one.why or "It is not sewn so often.", code="not_ready")
        pair: Couple | None = one.mets[couple].couple
        if pair is None:
            raise Refused("Lay the pieces first.", code="not_ready")
        a, b = one.sewn.seam.a.piece, one.sewn.seam.b.piece
        return one, preview(
            one.sewn, pair, (self.pieces[a], self.pieces[b]), (self._net(a), self._net(b)), at_cut=at_cut
        )

    def _net(self, key: str) -> Outline:
        """A piece without its allowances, in the axes it is laid in."""
        net = seam_line(next(one.piece for one in self.now.asked if one.key == key))
        return net if self.now.fit is None else enlarge(net, "lengthwise", *self.now.fit)

    @cached_property
    def named_bars(self) -> dict[BarWay, tuple[NamedPlace, ...]]:
        """Places of the bars that can be wished for by name."""
        row, (along, across) = self.now.cloth.row, self.now.cloth.bars
        return {
            "levels": named_places(cloths.bar_sequence(row, "along"), along),
            "lengthwise": named_places(cloths.bar_sequence(row, "across"), across),
        }

    def spots(self, row: models.Piece, draft: Draft, piece: Piece) -> tuple[WishSpot, ...]:
        """Places of a piece on which a bar can be wished for."""
        return () if piece.fault else wish_spots(str(row.id), draft, piece, self.now.sewn)

    @property
    def bars_left(self) -> tuple[float, float]:
        """What is left of the bars as they were measured, along and across."""
        warp, weft = self.now.cutting.laid.bars_move.best
        return 1 - warp / 100, 1 - weft / 100

    @cached_property
    def bars_drawn(self) -> tuple[tuple[tuple[float, Bar], ...], tuple[tuple[float, Bar], ...]]:
        """The bars of one repeat along the lay and across it: where each begins on the cloth as it is laid, mm, and how
        wide it is then."""
        laid, row = self.now.cutting.laid, self.now.cloth.row
        along, across = self.bars_left
        start = laid.along.axes[0] if laid.along.axes else 0.0
        return (
            _drawn(cloths.bar_sequence(row, "along"), along, -start * along),
            _drawn(cloths.bar_sequence(row, "across"), across, -laid.margin),
        )


def _drawn(sequence: Sequence[Bar], left: float, begins: float) -> tuple[tuple[float, Bar], ...]:
    out, at = [], begins
    for bar in sequence:
        out.append((at, replace(bar, width=bar.width * left)))
        at += bar.width * left
    return tuple(out)


def laid_off(now: Standing) -> tuple[float, ...]:
    """By how much each piece that was pinned and measured at both ends of its arrow lies beside its place, mm."""
    # drawn only where something was read
    if not any(reading.piece_id is not None for reading in now.use.readings):
        return ()
    return tuple(
        ((one.tail - one.shape.tail_distance) + (one.head - one.shape.head_distance)) / 2
        for one in TrueStanding(now).checks
        if one.tail is not None and one.head is not None
    )


def slant_left(now: Standing) -> float:
    """How far the weft still leans after what was done under True, degrees; 0 where nothing was read."""
    tests = as_attempts(now.rows.true_tests)
    width = now.cloth.width_now
    if not tests or width is None or width.value <= 0:
        return 0.0
    return abs(skew_angle(tests[-1].offset, width.value))


def matching(session: Session, now: Standing, lay_id: int | None = None) -> Matching:
    """The seams of a garment on the cloth that is looked at, on the lay it goes by. Raises NotFound for a lay that is
    not there."""
    row = now.chosen
    if lay_id is not None and (row is None or row.id != lay_id):
        row = session.get(models.LayRecord, lay_id)
        if row is None or row.use_id != now.use.id or row.deleted_at is not None:
            raise NotFound("There is no such lay.")
    stood = None if row is None else lay_standing(now, row)
    return Matching(now, stood, tuple(outcome.laid_off(session)))


def drafted(now: Standing) -> tuple[tuple[models.Piece, Draft, Piece], ...]:
    """The pieces cut from the cloth that is looked at, each with its draft in the size that is cut."""
    return tuple(
        (row, pieces.sized_draft(row, now.size)[0], one.piece)
        for one, (row, _) in zip(now.asked, now.rows.cuts, strict=True)
    )


def proposed(now: Standing) -> tuple[Seam, ...]:
    """Seams that are likely and not there yet."""
    of = [
        Proposable(str(row.id), row.name, draft, piece, cut.hidden)
        for (row, draft, piece), (_, cut) in zip(drafted(now), now.rows.cuts, strict=True)
        if not piece.fault
    ]
    return proposals(of, [seams.as_seam(row) for row in now.whole.rows.seams])
