"""How a garment came out: what can be measured of it, what was predicted, what that teaches; and why it came out so."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import cast

from sqlalchemy.orm import Session

from ..core.buy.order import per_metre
from ..core.match.chance import HAND_MM, hand_from
from ..core.plan.allowance import seam_line
from ..core.plan.outline import BadPiece
from ..core.project.outcome import (
    BY_KIND,
    KINDS,
    BadOutcome,
    Bought,
    KindFacts,
    Learned,
    Outcome,
    OutcomeKind,
    Predicted,
    check_outcome,
    learned,
    overbought,
    shrunk,
)
from ..core.project.why import Complaint, Reason, Record, reasons
from ..core.shrink.programme import beside
from ..core.shrink.shrinkage import Direction
from ..core.shrink.swatch import BOTH_WAYS, skew_of, verdict
from ..core.shrink.treatment import finished
from ..core.true.slant import skew_angle
from ..store import models, outcome
from ..store import piece as pieces
from .log import note
from .match import laid_off, matching, slant_left
from .refused import Refused
from .standing import Standing
from .true import TrueStanding

#: A hand is within twice its standard deviation nineteen times of twenty.
SURE = 2.0


@dataclass(frozen=True)
class Measurable:
    """One thing that can be measured of a garment, with what is predicted of it now: its kind, of which piece or seam
    (by number, None: of the whole), and what that is called."""

    facts: KindFacts
    number: int | None
    name: str
    predicted: Predicted | None


@dataclass(frozen=True)
class OutcomeGiven:
    """What was measured. Of a shrinkage the distance ``before`` and ``after``, mm; else ``measured``: mm or a grade."""

    kind: OutcomeKind
    number: int | None = None
    measured: float | None = None
    before: float | None = None
    after: float | None = None
    washes: int = 0
    note: str = ""


@dataclass(frozen=True)
class OutcomeStanding:
    """How a garment came out, looked at through one of its cloths."""

    session: Session
    now: Standing

    @cached_property
    def kept(self) -> tuple[tuple[models.OutcomeRow, Outcome], ...]:
        """What was measured so far, the newest first."""
        rows = outcome.outcomes(self.session, self.now.garment.id)
        return tuple((row, outcome.as_outcome(row)) for row, _, _ in reversed(rows))

    @property
    def headline(self) -> str:
        """How many came out as foreseen, in a few words."""
        judged = [one.foreseen for _, one in self.kept if one.foreseen is not None]
        if judged:
            return f"{sum(judged)} of {len(judged)} came out as foreseen"
        return f"{len(self.kept)} measured so far" if self.kept else "How did it come out?"

    @cached_property
    def measurable(self) -> tuple[Measurable, ...]:
        """Everything that can be measured of it, with what is predicted now."""
        out = []
        for facts in KINDS:
            if facts.of == "piece":
                out += [self._piece(facts, row) for row, _ in self.now.rows.cuts]
            elif facts.of == "seam":
                out += [self._seam(facts, row) for row in self.now.whole.rows.seams]
            elif facts.of == "cloth":
                out.append(Measurable(facts, None, self.now.name, self._of_cloth(facts)))
            else:
                out.append(Measurable(facts, None, self.now.garment.name, None))
        return tuple(out)

    def _of_cloth(self, facts: KindFacts) -> Predicted | None:
        return self._still_to_lose("warp" if facts.kind == "warp" else "weft") if facts.unit == "percent" else None

    def _still_to_lose(self, way: Direction) -> Predicted | None:
        # from the state it is cut in: what it lost before is not in the garment
        states, since = self.now.cutting.states, self.now.cutting.at
        figure = states.coming(since, max(1, states.washes, states.current, since), way).figure
        return None if figure is None else Predicted(figure.value, figure.low, figure.high)

    def _left(self, way: Direction) -> float | None:
        found = self._still_to_lose(way)
        return None if found is None else found.value

    def _piece(self, facts: KindFacts, row: models.Piece) -> Measurable:
        if facts.kind == "twist":
            twist = next((one.twist.twist for one in self._true.twists if one.piece.id == row.id), None)
            predicted = None if twist is None else Predicted(twist.value, twist.low, twist.high)
        elif facts.kind == "laying":
            predicted = Predicted(self.hand, 0.0, SURE * self.hand)
        else:
            predicted = self._long(row)
        return Measurable(facts, row.id, row.name, predicted)

    def _long(self, row: models.Piece) -> Predicted | None:
        """The finished length of a piece, from seam to seam, after what the cloth still loses."""
        size = self.size_of(row)
        left = self._still_to_lose("warp")
        cut = row.cut_from(self.now.use.id)
        if size is None or left is None or cut is None or cut.grain != "lengthwise":
            return None
        # what shrinks more comes out shorter
        return Predicted(*(size[0] * (1.0 - by / 100.0) for by in (left.value, left.high or 0.0, left.low or 0.0)))

    def size_of(self, row: models.Piece) -> tuple[float, float] | None:
        """A finished piece along and across, from seam to seam, mm; None for one that cannot be cut."""
        cut = row.cut_from(self.now.use.id)
        if cut is None:
            return None
        shape = pieces.as_piece(row, cut, self.now.size)
        try:
            ring = seam_line(shape)
        except BadPiece:
            return None
        xs, ys = [x for x, _ in ring], [y for _, y in ring]
        return max(xs) - min(xs) - cut.shorter, (max(ys) - min(ys)) * (2 if shape.on_fold else 1)

    def _seam(self, facts: KindFacts, row: models.SeamRow) -> Measurable:
        worst = self.worst_at.get(row.id) if facts.kind == "seam" else None
        return Measurable(facts, row.id, row.name, None if worst is None else Predicted(worst))

    @cached_property
    def worst_at(self) -> Mapping[int, float]:
        """How far bars are to miss at each seam, mm."""
        found = matching(self.session, self.now).seams
        return {
            one.row.id: one.judged.worst for one in found if one.judged is not None and one.judged.worst is not None
        }

    @cached_property
    def _true(self) -> TrueStanding:
        return TrueStanding(self.now)

    @cached_property
    def hand(self) -> float:
        """How far off this maker lays a piece, one standard deviation, mm."""
        own = hand_from([*laid_off(self.now), *outcome.laid_off(self.session)])
        return HAND_MM if own is None else own

    def why(self, complaint: Complaint, number: int | None) -> tuple[Reason, ...]:
        """The likely reasons for a complaint; ``number``: of the piece it is about, or of bars and puckers the seam."""
        return reasons(complaint, self._record(complaint, number))

    def _record(self, complaint: Complaint, number: int | None) -> Record:
        now, cutting = self.now, self.now.cutting
        seam = next((s for s in now.whole.rows.seams if s.id == number), None)
        of_seam = complaint in ("bars", "pucker")
        wanted = (seam.a_piece_id if seam is not None else None) if of_seam else number
        row = next((r for r, _ in now.rows.cuts if r.id == wanted), None)
        if row is None:
            # the largest stands for the whole
            row = max((r for r, _ in now.rows.cuts), key=lambda r: (self.size_of(r) or (0.0, 0.0))[0], default=None)
        size = None if row is None else self.size_of(row)
        tested = bool(now.rows.true_tests) or self._true.read_now
        checks = [c.check for c in self._true.checks if c.check is not None and row is not None
                  and c.shape.piece_id == str(row.id)]  # fmt: skip
        test = now.cloth.test
        rests, _ = verdict(test)
        washes = max(test.washes(way) for way in BOTH_WAYS)
        skew = skew_of(test, washes) if washes else None
        how, worn = cutting.how, finished(now.garment.wash, now.garment.dry, now.cloth.treatment_facts)
        lefts = [one.cutting.left("warp") for one in now.whole.uses]
        known = [left for left in lefts if left is not None]
        dye = now.cloth.dye
        return Record(
            slant=slant_left(now) if now.rows.true_tests else self._slant_at_hand() if tested else None,
            off_grain=max((abs(check.tilt) for check in checks), default=None),
            tall=None if size is None else size[0],
            wide=None if size is None else size[1],
            left=(self._left("warp"), self._left("weft")),
            treated=bool(cutting.states.current),
            at_rest=True if rests == "stable" else False if rests == "again" else None,
            skew=None if skew is None else skew.value,
            fold=None if self._true.fold is None else self._true.fold.spread,
            hand=self.hand if laid_off(now) or outcome.laid_off(self.session) else None,
            foreseen=None if number is None else self.worst_at.get(number) if of_seam else None,
            unlike=max(known) - min(known) if len(known) > 1 else None,
            rub=dye.last,
            dark=dye.depth == "dark",
            harder=how is not None and worn is not None and beside(how, worn) == "harsher",
        )

    def _slant_at_hand(self) -> float | None:
        width = self._true.width
        return None if not width else abs(skew_angle(self._true.reading.offset, width))


def why_told(found: Sequence[Reason]) -> str:
    """How far the record explains a complaint, in a few words."""
    if not found:
        return "Nothing in its record explains it"
    if all(one.sure != "reckoned" for one in found):
        return "Its record only hints at it"
    return f"{len(found)} likely reasons, the likeliest first" if len(found) > 1 else "One likely reason"


def keep_outcome(session: Session, now: Standing, given: OutcomeGiven) -> models.OutcomeRow:
    """Write down what was measured, beside what is predicted of it now. Raises :class:`Refused`."""
    stands = OutcomeStanding(session, now)
    found = next((m for m in stands.measurable if m.facts.kind == given.kind and m.number == given.number), None)
    if found is None:
        what = {"piece": "a piece that is cut from this cloth", "seam": "a seam of this garment"}
        raise Refused(f"Choose {what.get(BY_KIND[given.kind].of, 'what it is of')}.", path="number")
    measured = given.measured
    try:
        if found.facts.unit == "percent":
            if given.before is None or given.after is None:
                raise BadOutcome("Give the marked distance before the washes, and after them.")
            measured = shrunk(given.before, given.after)
        if measured is None:
            raise BadOutcome(f"{found.facts.name}: give what was measured.")
        check_outcome(given.kind, measured)
    except BadOutcome as fault:
        raise Refused(str(fault), path="before" if found.facts.unit == "percent" else "measured") from None
    predicted = found.predicted
    row = models.OutcomeRow(
        use_id=now.use.id, kind=given.kind, name=found.name[:120], measured=measured,
        piece_id=given.number if found.facts.of == "piece" else None,
        seam_id=given.number if found.facts.of == "seam" else None,
        before=given.before if found.facts.unit == "percent" else None,
        after=given.after if found.facts.unit == "percent" else None,
        predicted=None if predicted is None else predicted.value,
        low=None if predicted is None else predicted.low,
        high=None if predicted is None else predicted.high,
        washes=given.washes, note=given.note,
    )  # fmt: skip
    session.add(row)
    session.flush()
    note(session, now.use, "log", "came-out", what=found.facts.name, name=found.name)
    return row


def strike_out(session: Session, row: models.OutcomeRow, now: Standing) -> None:
    """Strike a measure out; undo brings it back."""
    row.deleted_at = models.now()
    session.flush()
    kind = BY_KIND[cast(OutcomeKind, row.kind)]
    note(session, now.use, "log", "came-out-struck", what=kind.name, name=row.name)


@dataclass(frozen=True)
class BoughtOf:
    """What was bought of one cloth, for all garments that are cut from it."""

    garment: str
    cloth: str
    bought: Bought


@dataclass(frozen=True)
class WhatItTeaches:
    """What all outcomes teach: of each kind, one by one, the own hand, and what was bought too much."""

    learned: tuple[Learned, ...]
    outcomes: tuple[tuple[str, Outcome], ...]
    hand: float | None
    laid: int
    bought: tuple[BoughtOf, ...]

    @property
    def over(self) -> tuple[float, float]:
        """Bought too much in all, mm, and as a share of what was needed."""
        return overbought([one.bought for one in self.bought])


def what_it_teaches(session: Session, standings: Sequence[Standing]) -> WhatItTeaches:
    """Of all garments. ``standings``: every cloth of every garment."""
    rows = outcome.outcomes(session)
    found = tuple((project.name, outcome.as_outcome(row)) for row, _, project in rows)
    off = [*outcome.laid_off(session), *(by for now in standings for by in laid_off(now))]
    by_cloth: dict[int, list[Standing]] = {}
    for now in standings:
        by_cloth.setdefault(now.use.cloth_id, []).append(now)
    bought = [one for one in map(_bought, by_cloth.values()) if one is not None]
    return WhatItTeaches(learned([one for _, one in found]), found, hand_from(off), len(off), tuple(bought))


def _bought(uses: Sequence[Standing]) -> BoughtOf | None:
    """Of a cloth that was bought, which is told by its length as it was bought; what every garment needs of it is
    known, or nothing is told."""
    cloth = uses[0].cloth.row
    length = cloth.length_in(None)
    needed = [now.bought.before for now in uses if now.bought is not None]
    if length is None or len(needed) < len(uses) or cloth.remnant_of is not None:
        return None
    names = ", ".join(dict.fromkeys(now.garment.name for now in uses))
    return BoughtOf(names, uses[0].name, Bought(length, sum(needed), per_metre(cloth.price, cloth.price_unit)))
