"""The list before cutting of one cloth of a garment."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime

from sqlalchemy.orm import Session

from ...core.cloth.make import NO_GRAIN
from ...core.cut.before import BeforeFacts, Faulty, Line, before_cutting, ready
from ...core.lay.answer import to_json as lay_json
from ...core.lay.broken import off_grain
from ...core.lay.check import Fault, faults_of
from ...core.lay.hand import mirrors_freely
from ...core.lay.problem import to_json as problem_json
from ...core.shrink.swatch import AT_REST, BOTH_WAYS
from ...core.true.fold_line import FoldReading, fold_line
from ...core.wording import Sentence
from ...core.working import percent
from ...store import cutting, models
from ..lay import LayStanding, lay_standing
from ..log import note
from ..match import matching
from ..refused import Refused
from ..standing import Standing

#: Which broken rules of a lay by hand are answered by what the maker meant, not by the checker.
_MEANT = ("turn", "flaw", "selvage", "count", "sides", "border", "match", "centre")


@dataclass(frozen=True)
class BeforeCutting:
    """The list, and whether nothing in it is open."""

    lines: tuple[Line, ...]

    @property
    def ready(self) -> bool:
        return ready(self.lines)


def read_before(session: Session, now: Standing, today: date) -> BeforeCutting:
    """The list as it stands on a day."""
    rows = cutting.lines(session, now.use.id)
    ticks = {row.key: _day(row.at) for row in rows if not row.why}
    accepted = {row.key: row.why for row in rows if row.why}
    return BeforeCutting(before_cutting(_facts(session, now, today), ticks, accepted))


def _day(at: datetime) -> date:
    """The day on the maker's own calendar."""
    return at.astimezone().date()


def _facts(session: Session, now: Standing, today: date) -> BeforeFacts:
    row = now.cloth.row
    widths = [one for one in row.readings if one.kind == "width" and one.wash_id == row.state_id]
    at = now.cutting.at == now.cutting.states.current
    tests = now.rows.true_tests
    folds = [one for one in now.use.readings if one.kind == "fold" and one.wash_id == row.state_id]
    line = fold_line([FoldReading(one.place, one.value) for one in folds])
    on_lay = _of_lay(session, now)
    return BeforeFacts(
        today,
        width_read=_day(max(one.at for one in widths)) if widths and at else None,
        width_readings=len(widths),
        has_grain=row.weave not in NO_GRAIN,
        trued=_day(max(test.at for test in tests)) if tests else None,
        true_enough=now.truth.progress[0] == "done",
        treatment=now.cutting.treatment,
        not_at_rest=_not_at_rest(now),
        untreated=tuple(
            one.name for one in now.whole.uses if one is not now and not one.idle and one.cutting.treatment == "coming"
        ),
        cut_before=_cut_before(session, now),
        fold_read=_day(max(one.at for one in folds)) if folds else None,
        fold_spread=line.spread if line is not None and line.enough else None,
        fold_good=line is not None and line.good,
        **on_lay,  # type: ignore[arg-type]
    )


def _not_at_rest(now: Standing) -> Sentence | str:
    """That a cloth which was treated may still lose more than counts as nothing."""
    left = [now.cutting.left(way) for way in BOTH_WAYS]
    if all(one is None or one < AT_REST for one in left):
        return ""
    along, across = (percent(max(0.0, one or 0.0)) for one in left)
    told = "It may still lose {along} along and {across} across: wash it once more, or go on knowing it."
    return Sentence(told, along=along, across=across)


def _cut_before(session: Session, now: Standing) -> tuple[str, ...]:
    """The other garments that were cut from its cloth."""
    uses = {row.use_id for row in cutting.cut_of_cloth(session, now.use.cloth_id)} - {now.use.id}
    rows = [session.get_one(models.ClothUse, use) for use in sorted(uses)]
    return tuple(dict.fromkeys(row.project.name for row in rows))


def _of_lay(session: Session, now: Standing) -> Mapping[str, object]:
    """What the lay comes to, as entries of :class:`BeforeFacts`."""
    if now.chosen is None:
        return {"lay": False}
    found = lay_standing(now, now.chosen)
    problem = found.asked
    judged = matching(session, now).judged if now.sewn else ()
    pieces = {piece.id: piece for piece in problem.pieces}
    return {
        "stale": now.stale,
        "checked": _checked(found),
        "meant": tuple(one.told for one in found.hand.broken if found.hand.meant(one)) if now.chosen.name else (),
        "tray": tuple(pieces[piece].called for piece, _ in found.lay.left_over),
        "seams": tuple(
            (one.sewn.seam.name or "A seam", one.worst, one.verdict == "meets")
            for one in judged
            if one.sewn.seam.asked and now.cloth.bars_seen
        ),
        "folded": any(section.fold != "open" for section in found.lay.sections),
        "directed": problem.directed,
        "pairs": sum(p.copies // 2 for p in problem.pieces if p.pair and not mirrors_freely(p, problem)),
        "flaws": len(problem.kept_off),
    }


def _checked(found: LayStanding) -> Faulty:
    """What the independent checker says of a lay now, by kinds. Of what the maker has meant in a lay of her own the
    lines say what she left unmeant."""
    own = bool(found.row.name)
    problem = found.asked
    kinds: dict[str, list[str]] = {}
    by_hand = {one.kind for one in found.hand.broken} if own else set()
    for fault in faults_of(problem_json(problem, named=True), lay_json(found.lay)):
        if own and fault.kind in _MEANT and fault.kind in by_hand:
            continue
        kinds.setdefault(_kind(fault, found), []).append(fault.told)
    if own:
        for one in found.hand.unmeant:
            kind = "direction" if one.kind == "turn" and not one.off else one.kind
            kinds.setdefault(kind, []).append(one.told)
    return Faulty({kind: tuple(dict.fromkeys(told)) for kind, told in kinds.items()})


def _kind(fault: Fault, found: LayStanding) -> str:
    """A fault by the line it belongs to: a turn off the grain is another thing than one against the cloth."""
    if fault.kind != "turn" or not fault.copies:
        return fault.kind
    pieces = {piece.id: piece for piece in found.problem.pieces}
    cuts = {(cut.piece, cut.copy): cut for cut in found.lay.cut}
    cut = cuts.get(fault.copies[0])
    if cut is None or off_grain(pieces[cut.piece], found.problem, cut.turn):
        return "turn"
    return "direction"


def tick(session: Session, now: Standing, key: str, today: date, *, on: bool) -> None:
    """Tick a line that only the maker can answer, or take the tick away. Raises :class:`Refused`."""
    line = _line(session, now, key, today)
    if not line.by_hand:
        raise Refused("That line is answered by what was measured and laid; mend it there.", path="key")
    if on:
        cutting.keep_line(session, now.use.id, key, "")
        note(session, now.use, "cut", "before-ticked", what=line.asks)
    elif cutting.forget_line(session, now.use.id, key):
        note(session, now.use, "cut", "before-unticked", what=line.asks)


def accept(session: Session, now: Standing, key: str, why: str, today: date) -> None:
    """Go on knowingly though a line is not so; without a reason, no longer. Raises :class:`Refused`."""
    line = _line(session, now, key, today)
    if not why:
        if cutting.forget_line(session, now.use.id, key):
            note(session, now.use, "cut", "before-unaccepted", what=line.asks)
        return
    if not line.can_accept:
        told = "That one cannot be passed over: it spoils the cloth or the hand." if not line.by_hand else ""
        raise Refused(told or "Look, and tick it: nobody else can tell.", path="key")
    if line.state == "clean":
        raise Refused("That line is clean; nothing needs to be accepted.", path="key")
    cutting.keep_line(session, now.use.id, key, why)
    note(session, now.use, "cut", "before-accepted", what=line.asks, why=why)


def _line(session: Session, now: Standing, key: str, today: date) -> Line:
    line = next((one for one in read_before(session, now, today).lines if one.key == key), None)
    if line is None:
        raise Refused("There is no such line in the list before cutting.", path="key")
    return line
