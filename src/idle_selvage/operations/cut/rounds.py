"""Rounds of cutting: begun on a lay as it is, gone through step by step, and added up."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from typing import cast

from sqlalchemy.orm import Session

from ...core.cut.handling import ClothInHand, Handling, handling
from ...core.cut.order import CutOrder, Follows, ToCut, cutting_order, foldings_of, goes_against
from ...core.cut.really_left import Counts, dressed, shape_of, whole_id
from ...core.cut.round import cuts_of
from ...core.cut.tally import CannotDo, CopyTold, Deed, DeedKind, Tally, after, tally
from ...core.cut.told import PieceTold, pieces_told, says
from ...core.lay.answer import Cut, Lay, from_json
from ...core.lay.answer import to_json as lay_json
from ...core.lay.asking import leans as leaning
from ...core.lay.drawing import Drawing, draw
from ...core.lay.folding import Folding, Sides, foldings
from ...core.lay.layers import pinned_keys
from ...core.lay.named import called_by, renamed
from ...core.lay.problem import LayPiece, Problem
from ...core.match.steps import CutStep, laid_by, steps
from ...core.plan.outline import Outline
from ...core.plan.piece import Piece
from ...core.wording import Sentence
from ...core.working import length
from ...store import cutting, lay_problem, models
from ..lay import lay_standing
from ..log import note
from ..refused import Refused
from ..standing import Standing
from .before import read_before

#: What is said in the log of each deed.
DEEDS: dict[DeedKind, str] = {
    "cut": "piece-cut",
    "not cut": "piece-not-cut",
    "spoilt": "piece-lost",
    "short": "piece-lost",
    "stained": "piece-lost",
    "missing": "piece-lost",
    "found": "piece-found",
    "left": "round-left",
}


@dataclass(frozen=True)
class Round:
    """A round: its row, its lay and problem, its pieces as they are called now."""

    row: models.Cutting
    problem: Problem
    lay: Lay
    margins: tuple[float, float]
    leans: Mapping[str, int]
    sides: Sides
    followers: tuple[Follows, ...]

    @property
    def number(self) -> int:
        return self.row.id

    @cached_property
    def pieces(self) -> dict[str, LayPiece]:
        return {piece.id: piece for piece in self.problem.pieces}

    @cached_property
    def keys(self) -> tuple[str, ...]:
        """Its placements, in the order of the lay."""
        return pinned_keys(self.lay.laid)

    @cached_property
    def cuts(self) -> dict[str, tuple[Cut, ...]]:
        """The copies each placement gives, on the open cloth."""
        return cuts_of(self.problem, self.lay)

    @cached_property
    def drawing(self) -> Drawing:
        """The lay as it is pinned."""
        return draw(
            self.lay,
            self.pieces,
            self.problem.width,
            margins=self.margins,
            view="pinned",
            leans=self.leans,
            blocked=self.problem.kept_off,
        )

    @cached_property
    def opened(self) -> Drawing:
        """Every copy on the open cloth."""
        return draw(self.lay, self.pieces, self.problem.width, margins=self.margins, view="opened", leans=self.leans)

    @property
    def foldings(self) -> tuple[Folding, ...]:
        """How the cloth is folded for it."""
        on_bars = bool(self.problem.bars.y_axes)
        return foldings(self.lay, self.problem.width, self.margins, self.sides, on_bars=on_bars)

    @cached_property
    def told(self) -> dict[str, PieceTold]:
        """Every placement as it is told at the table, by its key."""
        folds = {k: section.fold for k, section in enumerate(self.lay.sections)}
        return {one.key: one for one in pieces_told(self.drawing, folds, self.sides)}

    @cached_property
    def items(self) -> tuple[ToCut, ...]:
        """Its placements as they lie on the table."""
        return tuple(ToCut(s.pinned, whole_id(s.piece_id), s.section, s.outline) for s in self.drawing.shapes)

    @cached_property
    def computed(self) -> CutOrder:
        """The order that was computed for it."""
        return cutting_order(self.items, self.lay.sections, self.followers)

    @cached_property
    def order(self) -> tuple[str, ...]:
        """The order it is cut in: the maker's own, or the computed one."""
        own = [key for key in self.row.own_order if key in set(self.keys)]
        return tuple([*own, *(key for key in self.computed.keys if key not in set(own))])

    @property
    def unfoldings(self) -> int:
        """How often the cloth is folded anew in this order."""
        return foldings_of(self.order, self.items, self.lay.sections)

    @property
    def against(self) -> tuple[tuple[str, str], ...]:
        """Of an order of the maker's own, what should be cut the other way round, as keys."""
        return goes_against(self.order, self.items, self.followers) if self.row.own_order else ()

    def name(self, key: str) -> str:
        """What a placement is called."""
        return self.told[key].shape.name

    def gone(self, found: Tally) -> list[Outline]:
        """The true shapes of everything that was cut in it, on the open cloth."""
        return [
            shape_of(self.pieces[self.cuts[one.key][one.copy].piece], self.cuts[one.key][one.copy])
            for one in found.copies
            if one.round == self.number and one.gone
        ]

    def waiting(self, found: Tally) -> list[Outline]:
        """The shapes of what waits on it, on the open cloth."""
        return [shape_of(self.pieces[cut.piece], cut) for cut in self.of(found, "waits")]

    def of(self, found: Tally, state: str) -> list[Cut]:
        """Its copies in one state, on the open cloth."""
        return [self.cuts[one.key][one.copy] for one in found.copies if one.round == self.number and one.state == state]


@dataclass(frozen=True)
class Step:
    """One step at the table: which placement of which round, its place among those that are cut, what is said of it."""

    round: Round
    key: str
    number: int
    match: tuple[CutStep, ...]
    stop_at: tuple[str, ...]
    copies: tuple[CopyTold, ...]
    of: int
    allowance: Sentence

    @property
    def told(self) -> PieceTold:
        return self.round.told[self.key]

    @property
    def done(self) -> bool:
        return any(one.gone for one in self.copies)

    @property
    def says(self) -> Sentence:
        """It as it is read aloud."""
        return says(self.told, self.number, self.of, [one.told for one in self.match], self.stop_at)


@dataclass(frozen=True)
class CuttingStanding:
    """How the cutting of one cloth of a garment stands."""

    now: Standing
    rounds: tuple[Round, ...]
    deeds: tuple[models.CutDeed, ...]

    @property
    def begun(self) -> bool:
        return bool(self.rounds)

    @cached_property
    def tally(self) -> Tally:
        return tally([cutting.as_round(one.row) for one in self.rounds], [cutting.as_deed(row) for row in self.deeds])

    @cached_property
    def asked(self) -> dict[str, Counts]:
        """How many copies are asked for, by the lay that was begun with."""
        return cutting.asked_of_round(self.rounds[0].row) if self.rounds else {}

    @cached_property
    def owed(self) -> dict[str, Counts]:
        """Copies for which there is no place any more."""
        return self.tally.owed(self.asked)

    @property
    def of(self) -> int:
        """How many copies the garment needs of this cloth."""
        return sum(plain + over for plain, over in self.asked.values())

    @property
    def good(self) -> int:
        """How many of them are cut and good."""
        return self.tally.counted(self.asked)

    @property
    def done(self) -> bool:
        return self.begun and self.good == self.of

    @cached_property
    def steps(self) -> tuple[Step, ...]:
        """Every step of every round that was not given up, in order."""
        allowed = {one.key: one.piece for one in self.now.asked}
        led: dict[tuple[int, str], list[CutStep]] = {}
        for k, round_ in enumerate(self.rounds):
            for told in matching_steps(self.now, round_, first=self.rounds[0] if k else None):
                led.setdefault((round_.number, told.pieces[-1]), []).append(told)
        found = []
        for round_ in self.rounds:
            for key in round_.order:
                copies = self.tally.of(round_.number, key)
                if all(one.state == "left" for one in copies):
                    continue
                found.append((round_, key, copies))
        seen: set[tuple[int, str]] = set()
        out = []
        for number, (round_, key, copies) in enumerate(found, start=1):
            piece = copies[0].piece
            of = (round_.number, piece)
            match = tuple(led.get(of, ())) if of not in seen else ()
            seen.add(of)
            stops = tuple(round_.name(other) for other in round_.computed.stop_at.get(key, ()))
            out.append(Step(round_, key, number, match, stops, copies, len(found), allowance_told(allowed.get(piece))))
        return tuple(out)

    @property
    def at(self) -> int | None:
        """The step at hand: where she was, or else the first that is not done; None when all are."""
        steps = self.steps
        for k, one in enumerate(steps):
            if one.round.row.at == one.key and not one.done:
                return k
        return next((k for k, one in enumerate(steps) if not one.done), None)

    @property
    def last_cut(self) -> Step | None:
        """The last placement that was cut and still is: what a mistake would be taken back of."""
        steps = {(one.round.number, one.key): one for one in self.steps}
        for row in reversed(self.deeds):
            step = steps.get((row.cutting_id, row.key))
            if row.kind == "cut" and step is not None and step.done:
                return step
        return None

    @cached_property
    def handling(self) -> Handling:
        """How this cloth is held, marked and cut."""
        return handling_of(self.now)


def allowance_told(piece: Piece | None) -> Sentence:
    """What is cut beyond the seam line."""
    if piece is None:
        return Sentence("")
    if piece.bare:
        return Sentence("cut at the seam line, without an allowance")
    usual = piece.included if piece.included > 0 else piece.seam
    own = sorted({edge.width for edge in piece.edges if edge.width is not None and abs(edge.width - usual) > 0.05})
    if not own:
        return Sentence("as drawn here: allowance {usual}", usual=length(usual))
    parts = {f"w{k}": length(wide) for k, wide in enumerate(own)}
    others = Sentence(" and ".join("{" + name + "}" for name in parts), **parts)
    return Sentence("as drawn here: allowance {usual}, at some edges {others}", usual=length(usual), others=others)


def handling_of(now: Standing) -> Handling:
    """How a cloth is held, marked and cut for a garment."""
    row = now.cloth.row
    answers = row.answers
    cloth = ClothInHand(
        row.weave,
        row.direction,
        answers.get("hand") == "slips",
        answers.get("sheer") == "yes",
        answers.get("drape") == "fluid",
        answers.get("drape") == "stiff",
        row.mass,
        row.ground,
    )
    notched = [one.piece for one in now.asked if any(mark.kind == "notch" for mark in one.piece.marks)]
    return handling(cloth, min((piece.included or piece.seam for piece in notched), default=None))


def matching_steps(now: Standing, round_: Round, *, first: Round | None = None) -> tuple[CutStep, ...]:
    """The steps at which a piece of a round is laid by another, with the places on that round's own lay. Of a lay of
    the rest (``first``: the round before it all) they are told without places: what is laid by is cut already."""
    if not now.sewn or not now.cloth.bars_seen:
        return ()
    pieces, cuts = (round_.pieces, round_.lay.cut) if first is None else (first.pieces, ())
    return tuple(one for one in steps(now.sewn, pieces, cuts) if len(one.pieces) == 2)


def read_cutting(session: Session, now: Standing) -> CuttingStanding:
    """How the cutting of one cloth stands."""
    rows = cutting.rounds(session, now.use.id)
    return CuttingStanding(now, tuple(_round(now, row) for row in rows), tuple(cutting.deeds(session, now.use.id)))


def _round(now: Standing, row: models.Cutting) -> Round:
    problem, lay = cutting.problem_and_lay(row)
    problem = renamed(problem, now.names, now.problem)
    if now.problem is not None:
        problem = dressed(problem, now.problem)
    # parts and copies turned over are called after their piece
    problem = renamed(problem, {p.id: called_by(now.names, p.id) for p in problem.pieces if p.id not in now.names})
    return _made(now, row, problem, lay, row.cloth)


def _made(now: Standing, row: models.Cutting, problem: Problem, lay: Lay, cloth: models.Cloth) -> Round:
    turned = leaning(problem, now.asked) if now.problem is not None else {}
    followers = laid_by(now.sewn, {p.id: p for p in problem.pieces}) if now.cloth.bars_seen else ()
    margins = (cloth.margin_low, cloth.margin_high)
    return Round(row, problem, lay, margins, turned, cast(Sides, now.use.sides), followers)


def planned(now: Standing) -> Round | None:
    """The round that would be begun on the lay the garment goes by; None before there is one."""
    if now.chosen is None:
        return None
    found = lay_standing(now, now.chosen)
    problem = found.asked
    row = models.Cutting(id=0, use_id=now.use.id, cloth_id=now.use.cloth_id, own_order=[], at="")
    return _made(now, row, problem, found.lay, now.cloth.row)


def begin_cutting(session: Session, now: Standing, today: date) -> models.Cutting:
    """Begin to cut the lay the garment goes by, as it is now. Raises :class:`Refused` while the list before cutting is
    not clean."""
    if cutting.rounds(session, now.use.id):
        raise Refused("Cutting is begun already; go on with it.", code="not_ready")
    if now.chosen is None or now.problem is None:
        raise Refused(now.missing or "Lay the pieces first.", code="not_ready")
    open_ = [line.asks for line in read_before(session, now, today).lines if line.state == "open"]
    if open_:
        raise Refused(f"Not clean yet: {'; '.join(open_)}.", code="not_ready")
    found = lay_standing(now, now.chosen)
    problem = found.asked
    row = add_round(session, now, now.cloth.row, problem, found.lay)
    note(session, now.use, "cut", "cutting-begun", copies=len(found.lay.cut))
    return row


def add_round(session: Session, now: Standing, cloth: models.Cloth, problem: Problem, lay: Lay) -> models.Cutting:
    """Another round, on a lay of a problem."""
    row = models.Cutting(
        use_id=now.use.id, cloth_id=cloth.id, fingerprint=lay_problem.keep(session, problem), lay=lay_json(lay)
    )
    session.add(row)
    session.flush()
    session.refresh(row)
    return row


def do(
    session: Session,
    now: Standing,
    number: int,
    key: str,
    kind: DeedKind,
    *,
    copy: int = 0,
    why: str = "",
    really: bool = False,
) -> None:
    """One deed at the table. That something cut is whole after all is asked back unless it is ``really`` so: cloth that
    was cut never comes back. Raises NotFound and :class:`Refused`."""
    row = cutting.round_(session, now.use.id, number)
    found = read_cutting(session, now)
    try:
        after(found.tally, Deed(kind, row.id, key, copy))
    except CannotDo as fault:
        raise Refused(fault.args[0], code="cannot_do") from None
    round_ = next(one for one in found.rounds if one.number == row.id)
    name = round_.name(key)
    if kind == "not cut" and not really:
        told = f"Is the cloth of {name} really not cut? Cloth that was cut does not come back."
        raise Refused(told, code="asked")
    if kind == "not cut":
        _nothing_laid_since(found, row)
    session.add(models.CutDeed(cutting_id=row.id, kind=kind, key=key, copy=copy, why=why))
    session.flush()
    if kind == "cut":
        row.at = _next(found, round_, key)
    elif kind == "not cut":
        row.at = key
    copies = found.tally.of(row.id, key)
    one = f"{name} ({copy + 1} of {len(copies)})" if len(copies) > 1 and kind not in ("cut", "not cut") else name
    note(session, now.use, "cut", DEEDS[kind], what=one, how=kind, why=why)
    session.flush()


def _nothing_laid_since(found: CuttingStanding, row: models.Cutting) -> None:
    """Where the rest was laid again, that lay keeps off what was cut: its cloth cannot be whole."""
    later = [one for one in found.rounds if one.number > row.id and one.row.cloth_id == row.cloth_id]
    if later:
        raise Refused("The rest was laid again around it since, so it stays cut.", code="cannot_do")


def _next(found: CuttingStanding, round_: Round, key: str) -> str:
    """The placement after one, among those that are not cut."""
    order = list(round_.order)
    waiting = {one.key for one in found.tally.waiting if one.round == round_.number} - {key}
    coming = [*order[order.index(key) + 1 :], *order]
    return next((one for one in coming if one in waiting), "")


def go_to(session: Session, now: Standing, number: int, key: str) -> None:
    """Have another placement at hand. Raises NotFound and :class:`Refused`."""
    row = cutting.round_(session, now.use.id, number)
    if key not in pinned_keys(from_json(row.lay).laid):
        raise Refused("There is no such piece on this lay.", path="key")
    for other in cutting.rounds(session, now.use.id):
        other.at = key if other.id == row.id else ""
    session.flush()


def reorder(session: Session, now: Standing, number: int, keys: Sequence[str]) -> None:
    """Cut in an order of the maker's own; an empty one: as computed. Raises NotFound and :class:`Refused`."""
    row = cutting.round_(session, now.use.id, number)
    there = pinned_keys(from_json(row.lay).laid)
    if keys and sorted(keys) != sorted(there):
        raise Refused("An order names every piece of the lay once; look at it again.", path="keys")
    row.own_order = list(keys)
    session.flush()
    note(session, now.use, "cut", "order-own" if keys else "order-computed")
