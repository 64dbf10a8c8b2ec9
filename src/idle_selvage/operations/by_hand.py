"""A lay in the maker's hand: every gesture a change of her own lay, and where what she holds may lie."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.lay import moves
from ..core.lay.answer import Lay
from ..core.lay.answer import to_json as lay_json
from ..core.lay.broken import BY_ITSELF, Broken, broken
from ..core.lay.closing import closed, closing
from ..core.lay.hand import Change, HandLay
from ..core.lay.hand import Held as HeldPiece
from ..core.lay.lattice import Lattice, lattice
from ..core.lay.lit import Band, lit
from ..core.lay.moves import CannotMove, Table
from ..core.lay.seats import Grip
from ..core.lay.sliding import Legal, Near, caught
from ..core.plan.turning import Ring
from ..core.true.twist import twist_of
from ..core.wording import Sentence, listed
from ..core.working import length
from ..store import lay as lays
from ..store import lay_problem, models
from .log import note
from .refused import Refused

#: What a lay of the maker's own is called until she names it.
OWN_NAME = "By hand"
#: Grounds are kept for so many grips: those of one drag, and of a few before it.
GRIPS_KEPT = 24


@dataclass(frozen=True)
class Held:
    """What a window holds: placements of a lay by their keys, or a copy from the tray (``piece``, ``mirrored``).
    ``loose``: over flaws and into selvages, on purpose."""

    keys: tuple[str, ...] = ()
    piece: str = ""
    mirrored: bool = False
    loose: bool = False


@dataclass(frozen=True)
class _Asked:
    """A version of a lay with the margins of its cloth, by which grounds are kept."""

    version: lays.Version
    margins: tuple[float, float]
    held: Held


_Ground = tuple[Table, tuple[HeldPiece, ...], list[Legal]]
#: Grounds by what was asked; one process serves one person, and threads that fill the same entry fill it alike.
_grounds: dict[_Asked, _Ground] = {}


def _ground(session: Session, use: models.ClothUse, number: int, held: Held) -> _Ground:
    margins = _margins(session, use.cloth_id)
    asked = _Asked(lays.version_of(session, use.id, number), margins, held)
    found = _grounds.get(asked)
    if found is None:
        stored = lays.in_hand(lays.lay(session, use.id, number))
        table = Table(stored.hand, stored.problem, margins)
        try:
            if not held.piece and not held.keys:
                raise CannotMove("Choose a piece first.")
            if held.piece:
                ways = moves.takings(table, held.piece, held.mirrored)
                grounds = table.grounds_from_tray(ways, loose=held.loose)
            else:
                ways = tuple(table[key] for key in held.keys)
                grounds = table.grounds(Grip(held.keys, loose=held.loose))
        except CannotMove as why:
            raise Refused(why.args[0], code="cannot_move") from None
        found = (table, ways, grounds)
        while len(_grounds) >= GRIPS_KEPT:
            _grounds.pop(next(iter(_grounds)), None)
        _grounds[asked] = found
    return found


def _margins(session: Session, cloth_id: int) -> tuple[float, float]:
    low, high = session.execute(
        select(models.Cloth.margin_low, models.Cloth.margin_high).where(models.Cloth.id == cloth_id)
    ).one()
    return low, high


@dataclass(frozen=True)
class NearFound:
    """Where what is held comes to lie; ``outline``: of the first of it about its origin, where it lies otherwise than
    it was taken up."""

    near: Near
    outline: Ring | None


def near(
    session: Session, use: models.ClothUse, number: int, held: Held, at: tuple[float, float], within: float
) -> NearFound | None:
    """The nearest place at which what is held may lie; None where there is none. Raises NotFound and
    :class:`Refused`."""
    table, ways, grounds = _ground(session, use, number, held)
    meets = moves.meeting_places(table, held.keys) if held.keys else ()
    found = caught(grounds, *at, within, step=use.shop_step, bars=table.problem.bars, meets=meets)
    if found is None:
        return None
    was, seat = ways[0], found.seat
    same = not held.piece and (was.turn, was.mirrored, was.layers) == (seat.turn, seat.mirrored, seat.layers)
    return NearFound(found, None if same else seat.rings[0])


def light(session: Session, use: models.ClothUse, number: int, held: Held) -> tuple[Band, ...]:
    """The ground that what is held can cover."""
    table, _, grounds = _ground(session, use, number, held)
    return lit(grounds, table.hand.sections[-1].end + use.shop_step * 3)


def agreeing(session: Session, use: models.ClothUse, number: int, held: Held) -> Lattice:
    """The places at which the bars of what is held agree with those they are to meet. Raises :class:`Refused`."""
    stored = lays.in_hand(lays.lay(session, use.id, number))
    table = Table(stored.hand, stored.problem, _margins(session, use.cloth_id))
    try:
        if not held.keys:
            raise CannotMove("Choose a piece first.")
        return lattice(table, held.keys, loose=held.loose)
    except CannotMove as why:
        raise Refused(why.args[0], code="cannot_move") from None


def change(
    session: Session, use: models.ClothUse, number: int, gesture: Callable[[Table], Change], what: str = ""
) -> models.LayRecord:
    """Do one gesture on a lay; one that a search found is first made the maker's own. The lay as it is then. Raises
    NotFound and :class:`Refused`."""
    row = lays.lay(session, use.id, number)
    stored = lays.in_hand(row)
    table = Table(stored.hand, stored.problem, _margins(session, use.cloth_id))
    try:
        done = gesture(table)
    except CannotMove as why:
        raise Refused(why.args[0], code="cannot_move") from None
    if not row.name:
        row = lays.own_from(session, row, own_name(session, use))
    elif not row.chosen:
        lays.choose_lay(session, row, picked=True)
    lays.add_change(session, row, done)
    names = [table.pieces[key].called for key in _pieces_of(done, table)]
    reason = done.grain.why if done.grain is not None else ""
    said = what or (listed(list(dict.fromkeys(names))) if names else "nothing")
    note(session, use, "lay", "by-hand", did=done.kind, what=said, lay=row.name, why=reason)
    session.flush()
    return row


def _pieces_of(done: Change, table: Table) -> list[str]:
    if done.grain is not None:
        return [done.grain.piece]
    put = [one.piece for one in done.put]
    return [*put, *(table[key].piece for key in done.aside)]


def finish_closing(session: Session, job: models.Job, found: Lay) -> None:
    """Put what a search from a lay has found into it as its next change, or, where only what breaks was laid again,
    into another lay of the maker's own. Nothing happens when it is no shorter, or when the maker has gone on
    meanwhile."""
    use = session.get_one(models.ClothUse, job.use_id)
    row = session.get(models.LayRecord, job.params["closes"])
    if row is None or row.deleted_at is not None:
        return
    stored = lays.in_hand(row)
    if job.params["how"] == "mend":
        own = lays.own_from(session, row, own_name(session, use, row.name or OWN_NAME), lay_json(found))
        own.fingerprint, own.basis = job.params["answers"], job.params["basis"]
        session.flush()
        for grain in stored.hand.grains:
            lays.add_change(session, own, Change("grain", grain=grain))
        note(session, use, "lay", "lay-own", lay=own.name)
        return
    try:
        asked = closing(stored.hand, stored.problem, standing_of(stored).stay, job.params["how"])
    except CannotMove:
        return
    if asked.problem != lay_problem.problem(session, job.fingerprint or ""):
        # the maker has gone on meanwhile: her lay stays as she has it
        note(session, use, "lay", "closing-late", lay=row.name)
        return
    done = closed(stored.hand, asked, found)
    if done is not None:
        change(session, use, row.id, lambda _: done)


def own_name(session: Session, use: models.ClothUse, wish: str = OWN_NAME) -> str:
    """A name none of the maker's lays of this cloth has yet."""
    taken, name, n = set(lays.names(session, use.id)), wish, 1
    while name in taken:
        n += 1
        name = f"{wish} {n}"
    return name


def move(session: Session, use: models.ClothUse, number: int, held: Held, at: tuple[float, float], section: int
         ) -> models.LayRecord:  # fmt: skip
    """Leave what is held at a place that :func:`near` gave."""
    _, ways, grounds = _ground(session, use, number, held)
    if held.piece:
        return change(session, use, number, lambda t: moves.taken(t, ways, *at, section, grounds))
    grip = Grip(held.keys, loose=held.loose)
    return change(session, use, number, lambda t: moves.moved(t, grip, *at, section, grounds))


def accept(session: Session, use: models.ClothUse, number: int, sign: str, on: bool) -> models.LayRecord:
    """Mean a broken rule, or mean it no longer. Raises :class:`Refused` when none of that sign is broken."""
    row = lays.lay(session, use.id, number)
    found = next((one for one in standing_of(lays.in_hand(row)).broken if one.sign == sign), None)
    if found is None:
        raise Refused("That is not broken any more; look again.", code="cannot_move")
    done = Change("accepted", accept=(sign,)) if on else Change("no longer accepted", refuse=(sign,))
    return change(session, use, number, lambda _: done, what=found.told)


def begin_empty(session: Session, use: models.ClothUse, number: int) -> models.LayRecord:
    """A lay of the maker's own with everything on the tray, on the folds of another. Raises NotFound."""
    row = lays.lay(session, use.id, number)
    own = lays.own_from(session, row, own_name(session, use, "From the tray"))
    stored = lays.in_hand(own)
    lays.add_change(session, own, Change("put aside", aside=tuple(one.key for one in stored.hand.held)))
    note(session, use, "lay", "lay-own", lay=own.name)
    return own


def rename(session: Session, use: models.ClothUse, number: int, name: str) -> models.LayRecord:
    """Call a lay something; one that a search found is made the maker's own by it. Raises :class:`Refused`."""
    row = lays.lay(session, use.id, number)
    wanted = " ".join(name.split())
    if not wanted or len(wanted) > 60:
        raise Refused("Give the lay a name of at most 60 letters.", path="name")
    if wanted != row.name and wanted in lays.names(session, use.id):
        raise Refused(Sentence("Another lay is called “{name}”.", name=wanted), path="name")
    if not row.name:
        row = lays.own_from(session, row, wanted)
        note(session, use, "lay", "lay-own", lay=wanted)
    else:
        note(session, use, "lay", "lay-renamed", before={"name": row.name}, after={"name": wanted}, lay=row.name,
             name=wanted)  # fmt: skip
        row.name = wanted
    session.flush()
    return row


def put_away(session: Session, use: models.ClothUse, number: int) -> None:
    """Put a lay of the maker's own away; the shortest of the others is gone by then. Raises :class:`Refused`."""
    row = lays.lay(session, use.id, number)
    if not row.name:
        raise Refused("A lay that was found is not put away; the next search replaces it.", code="cannot_move")
    others = [one for one in lays.alternatives(session, row) if one.id != row.id]
    row.deleted_at = models.now()
    if row.chosen:
        row.chosen = False
        session.flush()
        same = [one for one in others if one.fingerprint == row.fingerprint] or others
        if same:
            lays.choose_lay(session, same[0])
    note(session, use, "lay", "lay-away", lay=row.name)
    session.flush()


@dataclass(frozen=True)
class HandStanding:
    """What is told of a lay in the hand: what is broken, each whether it is meant, and what lies on the tray."""

    stored: lays.AddedUp
    broken: tuple[Broken, ...]
    costs: Mapping[str, Sentence]

    @property
    def hand(self) -> HandLay:
        return self.stored.hand

    def meant(self, one: Broken) -> bool:
        """Whether a broken rule was accepted."""
        return one.sign in self.hand.accepted

    @property
    def stay(self) -> tuple[str, ...]:
        """Placements that break a rule by themselves: no search moves them."""
        return tuple(key for one in self.broken if one.kind in BY_ITSELF for key in one.keys)

    @property
    def unmeant(self) -> tuple[Broken, ...]:
        return tuple(one for one in self.broken if not self.meant(one))


def standing_of(stored: lays.AddedUp) -> HandStanding:
    """What is told of a lay as it is held."""
    found = _broken_of(stored)
    pieces = {p.id: p for p in stored.hand.asked(stored.problem).pieces}
    costs = {}
    for one in found:
        if one.off and one.piece in pieces:
            piece = pieces[one.piece]
            twist = twist_of(piece.called, piece.outline, piece.grain, one.off, on_fold=piece.on_fold)
            told = "Its hem will twist by about {twist} as it hangs ({verdict})."
            costs[one.sign] = Sentence(told, twist=length(twist.twist.value), verdict=twist.verdict)
        else:
            costs[one.sign] = one.cost
    return HandStanding(stored, found, costs)


_known_broken: dict[lays.Version, tuple[Broken, ...]] = {}


def _broken_of(stored: lays.AddedUp) -> tuple[Broken, ...]:
    if stored.version not in _known_broken:
        while len(_known_broken) >= GRIPS_KEPT:
            _known_broken.pop(next(iter(_known_broken)), None)
        _known_broken[stored.version] = broken(stored.hand, stored.problem)
    return _known_broken[stored.version]
