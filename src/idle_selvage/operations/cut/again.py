"""When something went wrong: a place is found again for what is missing, and what each way costs.

Every way is a lay problem that is tried on the side, on the cloth that is really left: what was cut is gone in its true
shape.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from sqlalchemy.orm import Session

from ...core.cut.really_left import Counts, rest_pieces, rest_problem, shape_of
from ...core.cut.tally import FAULTS
from ...core.lay.answer import Cut
from ...core.lay.answer import to_json as lay_json
from ...core.lay.check import check_lay
from ...core.lay.in_two import PARTS, in_two
from ...core.lay.problem import Problem, fingerprint
from ...core.lay.problem import to_json as problem_json
from ...core.plan.outline import BadPiece, Outline
from ...core.project.tally import MeasuredLay
from ...core.wording import Sentence, listed
from ...core.working import Figure, length
from ...store import cutting, models, trial
from ..buy.trials import SmallLay, TrialRequest, small_of, why_not
from ..log import note
from ..refused import Refused
from ..standing import Cutting, Standing, cloth_standing, standing, washed_for
from .rounds import CuttingStanding, Round, add_round, planned, read_cutting

WayKind = Literal["beside", "rest", "remnant", "set", "turned", "joined", "bought"]
#: ``buy``: it needs a length that is not there yet.
WayState = Literal["waits", "does", "short", "cannot", "buy"]
#: A lay longer than the cloth by less than this still fits it, mm. As under Buy.
FITS_MM = 0.05


@dataclass(frozen=True)
class Way:
    """One way out. ``key`` names it; ``told`` what is done; ``costs`` besides cloth; ``problem`` to be laid on
    ``cloth``; ``there``: how long that is at least, mm, and whether it was ``measured``; ``leaves``: whether the rounds
    on that cloth are given up for it."""

    key: str
    kind: WayKind
    told: Sentence
    costs: Sentence
    problem: Problem
    cloth: models.Cloth
    there: float
    measured: bool = True
    leaves: bool = False


@dataclass(frozen=True)
class WayTried:
    """A way and what trying it came to; ``cost``: what is to be bought for it costs."""

    way: Way
    state: WayState
    came: str
    lay: SmallLay | None
    cost: Figure | None = None


@dataclass(frozen=True)
class Again:
    """What is missing, in words, and every way out."""

    missing: tuple[str, ...]
    ways: tuple[WayTried, ...]
    wanted: tuple[TrialRequest, ...]


def read_again(session: Session, now: Standing) -> Again:
    """What can be done about what is missing."""
    found = read_cutting(session, now)
    if not found.owed:
        return Again((), (), ())
    ways = _ways(session, found)
    wanted = tuple(TrialRequest(way.problem) for way in ways)
    there = trial.known(session, (one.fingerprint for one in wanted))
    tried = tuple(_tried(now, way, there.get(fingerprint(way.problem))) for way in ways)
    return Again(missing_told(now, found.owed, found.asked), tried, wanted)


def missing_told(now: Standing, owed: Mapping[str, Counts], asked: Mapping[str, Counts]) -> tuple[str, ...]:
    """What is missing, a phrase for each piece; of a pair which hand."""
    out = []
    for piece, (plain, over) in owed.items():
        name = now.names.get(piece, piece)
        if not asked[piece][1]:
            out.append(f"{name}, {plain}")
            continue
        parts = [f"{plain} as drawn"] * bool(plain) + [f"{over} turned over"] * bool(over)
        out.append(f"{name}, {' and '.join(parts)}")
    return tuple(out)


def _tried(now: Standing, way: Way, row: models.Trial | None) -> WayTried:
    if row is None:
        return WayTried(way, "waits", "not tried yet", None)
    small = small_of(way.problem, row)
    if small is None:
        return WayTried(way, "cannot", why_not(row, now.names) or "There is no room for it this way.", None)
    if not small.lay.complete:
        return WayTried(way, "cannot", "There is no room for all of it.", None)
    if way.kind == "bought":
        return _bought(now, way, small)
    if small.lay.length <= way.there + FITS_MM:
        return WayTried(way, "does", "it does, with no more cloth", small)
    short = small.lay.length - way.there
    if not way.measured:
        told = "{short} beyond what the lay took are needed: say under Cloth how long the cloth is"
        return WayTried(way, "short", Sentence(told, short=length(short)), small)
    return WayTried(way, "short", Sentence("{short} of cloth are short", short=length(short)), small)


def _bought(now: Standing, way: Way, small: SmallLay) -> WayTried:
    """What a new length for it would come to at the counter."""
    bought = now.cutting.tally(MeasuredLay(small.lay.length)).purchase
    if bought is None:
        return WayTried(way, "buy", Sentence("{long} as it is cut", long=length(small.lay.length)), small)
    return WayTried(way, "buy", Sentence("buy {long} more", long=bought.to_buy.quantity), small, bought.cost)


def _ways(session: Session, found: CuttingStanding) -> list[Way]:
    ways = [*_here(session, found), *_elsewhere(session, found)]
    return [way for way in ways if way.problem.pieces]


@dataclass(frozen=True)
class _Left:
    """What is left of the cloth of a round: what was cut of it, its true shapes, and what waits on it."""

    round: Round
    cut: tuple[Cut, ...]
    gone: tuple[Outline, ...]
    waits: tuple[Cut, ...]


def gone_of(session: Session, now: Standing, cloth: models.Cloth) -> list[Outline]:
    """The true shapes of everything that was cut from a cloth. Of the garment's own cloth what this garment cut: where
    another one began on it, nobody has told. Of another cloth what any garment cut from it, for each begins at its own
    corner; and where nothing was cut yet, what is laid on it to be cut."""
    own = cloth.id == now.use.cloth_id
    out: list[Outline] = []
    for row in cutting.cut_of_cloth(session, cloth.id):
        same = row.use_id == now.use.id
        if own and not same:
            continue
        found = read_cutting(session, now if same else standing(session, session.get_one(models.ClothUse, row.use_id)))
        out += [shape for one in found.rounds if one.number == row.id for shape in one.gone(found.tally)]
        out += [shape for one in found.rounds if one.number == row.id for shape in _waiting(one, found)]
    if not own and not out:
        for other in now.whole.uses:
            ahead = planned(other) if other.use.cloth_id == cloth.id else None
            if ahead is not None:
                out += [shape_of(ahead.pieces[cut.piece], cut) for cut in ahead.lay.cut]
    return out


def _waiting(round_: Round, found: CuttingStanding) -> list[Outline]:
    """What waits on another cloth: its place is taken. Of one's own cloth each way out says what becomes of it."""
    if round_.row.cloth_id == found.now.use.cloth_id:
        return []
    return round_.waiting(found.tally)


def put_away(session: Session, cloth: models.Cloth) -> list[tuple[Outline, ...]]:
    """The remnants of a cloth that are in the cupboard, where they lay on it, each its outline and then its holes: they
    are cloths of their own by now."""
    out = []
    for row in cutting.remnants_of(session, cloth.id):
        if row.cut_at and row.outline:
            # its outline begins where its margin did when it was put away, whatever that is by now
            x0, y0 = row.cut_at[0], row.cut_at[1] - min(y for _, y in row.outline[0])
            out.append(tuple(tuple((x + x0, y + y0) for x, y in ring) for ring in row.outline))
    return out


def left_of(session: Session, found: CuttingStanding) -> _Left:
    """What is left of the use's own cloth, by its newest round."""
    mine = [one for one in found.rounds if one.row.cloth_id == found.now.use.cloth_id]
    newest = mine[-1]
    cut = [cut for one in mine for state in ("good", *FAULTS) for cut in one.of(found.tally, state)]
    waits = [cut for one in mine for cut in one.of(found.tally, "waits")]
    cloth = found.now.cloth.row
    gone = [*gone_of(session, found.now, cloth), *(rings[0] for rings in put_away(session, cloth))]
    return _Left(newest, tuple(cut), tuple(gone), tuple(waits))


def there_of(now: Standing) -> float | None:
    """How much of the cloth there is to lay on, mm, at least; None while its length was not measured."""
    left = now.tally.left
    if left is None:
        return None
    return left.value if left.low is None else left.low


def _here(session: Session, found: CuttingStanding) -> list[Way]:
    """On the cloth itself: beside what waits, with the rest laid again, turned, joined of two."""
    now, left = found.now, left_of(session, found)
    whole = found.rounds[0].problem
    cloth, measured = now.cloth.row, there_of(now)
    # what was laid on is there in any case, and no more is known of it
    laid = max(one.lay.length for one in found.rounds if one.row.cloth_id == cloth.id)
    there = laid if measured is None else measured
    known_long = measured is not None
    # everything that was cut or waits says where on the bars the rest must lie
    known = _of_whole(found, (*left.cut, *left.waits))
    beside = rest_problem(whole, found.owed, known, [*left.gone, *_shapes(found, left.waits)])
    names = listed([piece.called for piece in beside.pieces]) if beside.pieces else ""
    ways = [
        Way(
            "beside",
            "beside",
            Sentence("Find {names} a place beside what still waits", names=names),
            Sentence("Nothing else moves."),
            beside,
            cloth,
            there,
            known_long,
        )
    ]
    if left.waits:
        everything = _with_waiting(found.owed, found)
        rest = rest_problem(whole, everything, _of_whole(found, left.cut), left.gone, folds=_folds(whole))
        told = Sentence("Lay all that is not cut again on what is left")
        costs = Sentence("What waits is pinned anew, maybe in another fold.")
        ways.append(Way("rest", "rest", told, costs, rest, cloth, there, known_long, leaves=True))
    ways += [
        replace(way, measured=known_long)
        for way in (*_turned(found, beside, cloth, there), *_joined(beside, cloth, there))
    ]
    new = replace(beside, blocked=(), blocked_shapes=(), pieces=rest_pieces(whole, found.owed))
    told = Sentence("Buy a new length of the same cloth for it")
    costs = Sentence("Dye lots differ: lay the two side by side in daylight first, and wash the new one as the old.")
    ways.append(Way("bought", "bought", told, costs, new, cloth, 0.0))
    return ways


def _folds(problem: Problem) -> tuple[str, ...]:
    """Folds to lay the rest on: with holes in the cloth a second layer often is not there."""
    return tuple(fold for fold in ("open", "lengthwise") if fold in problem.folds or fold == "open")


def _shapes(found: CuttingStanding, cuts: Sequence[Cut]) -> list[Outline]:
    pieces = {key: piece for one in found.rounds for key, piece in one.pieces.items()}
    return [shape_of(pieces[cut.piece], cut) for cut in cuts]


def _of_whole(found: CuttingStanding, cuts: Sequence[Cut]) -> list[Cut]:
    """Those copies that lie as the pieces of the first lay are drawn; what was turned over says the same of the bars by
    its other half."""
    known = found.rounds[0].pieces
    return [cut for cut in cuts if cut.piece in known]


def _with_waiting(owed: Mapping[str, Counts], found: CuttingStanding) -> dict[str, Counts]:
    """What is owed with what still waits on the cloth itself; two parts of a joined piece are one."""
    here = {one.number for one in found.rounds if one.row.cloth_id == found.now.use.cloth_id}
    out = dict(owed)
    for one in found.tally.waiting:
        if one.round not in here or one.part == PARTS[1]:
            continue
        plain, over = out.get(one.piece, (0, 0))
        freely = found.asked[one.piece][1] == 0
        out[one.piece] = (plain + 1, over) if freely or not one.mirrored else (plain, over + 1)
    return out


def _turned(found: CuttingStanding, beside: Problem, cloth: models.Cloth, there: float) -> list[Way]:
    """With the lost pieces on the cross grain; never where the cloth or its bars say otherwise."""
    may = [p for p in beside.pieces if p.grain == "lengthwise" and not p.match and p.centre_on_axis is None]
    if not may or beside.directed or found.now.cloth.row.direction not in ("none", ""):
        return []
    turned = replace(
        beside, pieces=tuple(replace(p, grain="crosswise", border=None) if p in may else p for p in beside.pieces)
    )
    told = Sentence("Cut {names} on the cross grain", names=listed([p.called for p in may]))
    costs = Sentence("It hangs and gives otherwise than the pieces beside it, and shrinks by the other figure.")
    return [Way("turned", "turned", told, costs, turned, cloth, there)]


def _joined(beside: Problem, cloth: models.Cloth, there: float) -> list[Way]:
    """With a lost piece joined of two, each part with a seam allowance."""
    out = []
    for piece in beside.pieces:
        if piece.match or piece.centre_on_axis is not None or piece.grain == "bias":
            continue
        parts = in_two(piece)
        if parts is None:
            continue
        xs = [x for x, _ in piece.outline]
        pieces = tuple(q for p in beside.pieces for q in (parts if p is piece else (p,)))
        at = length((max(xs) - min(xs)) / 2)
        told = Sentence("Join {piece} of two, {at} from its low end", piece=piece.called, at=at)
        costs = Sentence("One more seam: put it where it does not show.")
        out.append(Way(f"joined {piece.id}", "joined", told, costs, replace(beside, pieces=pieces), cloth, there))
    return out


def _elsewhere(session: Session, found: CuttingStanding) -> list[Way]:
    """From remnants of the same cloth, and from the other cloths of the set."""
    now = found.now
    out = []
    for row in cutting.remnants_of(session, now.use.cloth_id):
        way = _on(session, found, row, "remnant")
        if way is not None:
            out.append(way)
    for other in now.whole.uses:
        if other.use.cloth_id != now.use.cloth_id and not other.trim:
            way = _on(session, found, other.cloth.row, "set")
            if way is not None:
                out.append(way)
    return out


def _on(session: Session, found: CuttingStanding, row: models.Cloth, kind: WayKind) -> Way | None:
    """The missing pieces on another cloth, around what was cut from that; None where it cannot be laid on."""
    now = found.now
    cloth = cloth_standing(session, row)
    cutting_ = Cutting(now.garment, now.use, washed_for(now.garment, now.use, cloth))
    there = cutting_.tally(None)
    if there.width is None or there.left is None:
        return None
    try:
        problem = now.lay_on(cutting_.laid, there.width.value, cutting_.fit)
    except BadPiece:
        return None
    gone = gone_of(session, now, row)
    asked = replace(rest_problem(problem, found.owed, (), gone), pieces=rest_pieces(problem, found.owed))
    long = there.left.value if there.left.low is None else there.left.low
    name = row.name or "a remnant"
    if kind == "remnant":
        told = Sentence("Cut it from the remnant {name}", name=name)
        eye = "Bars are met by eye: lay the cut pieces on it."
        costs = Sentence(eye if now.sewn and now.cloth.bars_seen else "Nothing else moves.")
    else:
        told = Sentence("Cut it from {name}", name=name)
        costs = Sentence("It is another cloth: only where it does not show, or on purpose.")
    return Way(f"{kind} {row.id}", kind, told, costs, asked, row, long)


def take_way(session: Session, now: Standing, key: str) -> None:
    """Go one of the ways: another round of cutting begins on its lay. Raises :class:`Refused`."""
    tried = next((one for one in read_again(session, now).ways if one.way.key == key), None)
    if tried is None:
        raise Refused("That way is not open any more; look at them again.", path="way")
    if tried.state != "does" or tried.lay is None:
        raise Refused("That way has no lay that fits what is left.", path="way")
    way = tried.way
    faults = check_lay(problem_json(way.problem), lay_json(tried.lay.lay))
    if faults:
        raise Refused(f"That lay breaks a rule: {faults[0]}", path="way")
    found = read_cutting(session, now)
    if way.leaves:
        for one in found.rounds:
            if one.row.cloth_id == way.cloth.id and one.of(found.tally, "waits"):
                session.add(models.CutDeed(cutting_id=one.number, kind="left", key=""))
                note(session, now.use, "cut", "round-left")
    row = add_round(session, now, way.cloth, way.problem, tried.lay.lay)
    row.at = ""
    note(session, now.use, "cut", "cut-again", way=way.told)
    session.flush()
