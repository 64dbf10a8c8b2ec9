"""Pieces taken in from a file: looked at first, with what was understood, and kept only when they are confirmed; and
pieces of a garment written for other programs."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from sqlalchemy.orm import Session

from ..core.plan.outline import BadPiece
from ..core.plan.piece import Grain
from ..core.plan.tiles import TooManyPages
from ..core.units import System
from ..core.wording import sentence_of
from ..formats.audit import Unreadable
from ..formats.drawn_pieces import PieceRead
from ..formats.reading import Taken, Wishes, take_in
from ..formats.writing import write
from ..store import models
from ..store import piece as pieces
from .plan import DrawingRead, Sketch, Twice, keep_read, sketch_of
from .refused import Refused
from .standing import Standing


@dataclass(frozen=True)
class Confirmed:
    """One piece that is to be kept: its number in the file from 0, and what was changed of it: its name, how it is cut,
    from which cloth of the garment (None: its main one)."""

    number: int
    name: str
    copies: int
    pair: bool
    grain: Grain
    one_way: bool
    seam: float
    use_id: int | None = None


#: Whoever reads a file: here and now, or in a process apart.
Reader = Callable[[bytes, str, Wishes], Taken]


def look_into(data: bytes, name: str, wishes: Wishes, read: Reader = take_in) -> Taken:
    """What can be understood of a file; nothing is kept. Raises :class:`Refused`."""
    try:
        return read(data, name, wishes)
    except Unreadable as fault:
        raise Refused(str(fault), path="file") from None


def sketches(taken: Taken) -> list[Sketch | None]:
    """Every piece as it is cut; None for one that cannot be."""
    out: list[Sketch | None] = []
    for read in taken.pieces:
        try:
            out.append(sketch_of(read.name, read.draft, read.how))
        except Refused:
            out.append(None)
    return out


def keep_taken(
    session: Session,
    project: models.Project,
    taken: Taken,
    name: str,
    confirmed: Sequence[Confirmed],
    twice: Twice,
) -> DrawingRead:
    """Keep what was confirmed of a file that was read before, so that nobody waits for that to write. Raises
    :class:`Refused`."""
    uses: Mapping[int, models.ClothUse] = {use.id: use for use in project.uses}
    found = []
    for one in confirmed:
        if not 0 <= one.number < len(taken.pieces):
            raise Refused(f"There is no piece number {one.number + 1} in this file.", path="pieces")
        read = taken.pieces[one.number]
        use = uses.get(one.use_id) if one.use_id is not None else project.main
        if use is None:
            raise Refused("This garment has no such cloth.", path="pieces")
        found.append((_as_confirmed(read, one), use))
    if not found:
        raise Refused("Choose at least one piece to be kept.", path="pieces")
    added = keep_read(session, found, name, taken.not_read, twice)
    return DrawingRead(added, taken.not_read, taken.mended)


def _as_confirmed(read: PieceRead, one: Confirmed) -> PieceRead:
    how = replace(
        read.how, copies=one.copies, pair=one.pair, grain=one.grain, one_way=one.one_way, seam=one.seam,
        bare=read.how.bare and one.seam <= 0,
    )  # fmt: skip
    changed = replace(read, name=one.name, how=how)
    try:
        sketch_of(changed.name, changed.draft, changed.how)
    except Refused as fault:
        raise Refused(str(fault), path="pieces") from None
    return changed


#: Formats that hold a piece in all its sizes; the others hold the one that is cut.
IN_ALL_SIZES = ("svg", "dxf")


def pieces_of(now: Standing, *, sizes: bool = True) -> tuple[PieceRead, ...]:
    """The pieces of a garment, each with how it is cut from the cloth at hand, or from the first it is cut from: as
    they are told with all their ``sizes``, or in the size that is cut."""
    out = []
    for row in now.pieces:
        cut = row.cut_from(now.use.id) or (row.cuts[0] if row.cuts else pieces.UNCUT)
        how = pieces.as_how(cut)
        if sizes:
            out.append(PieceRead(row.name, pieces.as_draft(row), how, pieces.as_sizes(row)))
            continue
        draft, fault = pieces.sized_draft(row, now.size)
        if fault:
            raise Refused(f"{row.name}: {fault}", path="kind")
        out.append(PieceRead(row.name, draft, how, (), now.size.size))
    return tuple(out)


def write_pieces(now: Standing, kind: str, *, paper: str = "a4", system: System = "metric") -> bytes:
    """The pieces of a garment in a format. Raises :class:`Refused`."""
    found = pieces_of(now, sizes=kind in IN_ALL_SIZES)
    if not found:
        raise Refused("There are no pieces yet.", path="kind")
    width = now.tally.width
    wide = {"width": width.value} if width is not None and kind == "json" else {}
    try:
        return write(found, kind, title=now.garment.name, paper=paper, system=system, **wide)
    except BadPiece as fault:
        raise Refused(sentence_of(fault), path="kind") from None
    except TooManyPages as fault:
        raise Refused(str(fault), path="kind") from None
