"""Pieces: finding them, and the core's piece of a row as it is cut from one cloth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.lay.asking import PieceToLay
from ..core.lay.problem import Selvage
from ..core.plan.draft import Draft, DraftPoint, Ends, Mark, MarkKind, Notch
from ..core.plan.drawn import HowCut, piece_of
from ..core.plan.outline import BadPiece
from ..core.plan.piece import Grain
from ..core.plan.piece import Piece as PaperPiece
from ..core.plan.sizes import SizeAt, SizeChoice, SizeOutline, in_size
from ..core.wording import sentence_of
from .errors import NotFound
from .models import Cut, Piece, Project

#: A piece that is cut from no cloth yet is drawn as if one were cut as it is.
UNCUT = Cut(copies=1, pair=False, on_fold=False, grain="lengthwise", one_way=False, seam=0.0, bare=False, shorter=0.0,
            hidden=False, border="", border_at=0.0)  # fmt: skip
#: No size chosen: pieces as they were drafted.
AS_DRAFTED = SizeChoice()


def piece(session: Session, number: int, *, deleted: bool = False) -> Piece:
    """A piece by its number. Raises :class:`NotFound`."""
    row = session.get(Piece, number)
    if row is None or (row.deleted_at is not None and not deleted):
        raise NotFound("There is no such piece; it may have been deleted.")
    return row


def pieces(session: Session, project_id: int) -> list[Piece]:
    """The pieces of a project in the order they came."""
    query = select(Piece).where(Piece.project_id == project_id, Piece.deleted_at.is_(None)).order_by(Piece.id)
    return list(session.scalars(query))


def as_draft(row: Piece) -> Draft:
    """The core's draft of a piece, as it was drafted."""
    # JSON columns are put in place whole, never changed in place: the same lists are the same draft
    parts = (row.points, row.half, row.arrow, row.included, row.notches, row.marks, row.corners)
    kept: tuple[tuple[Any, ...], Draft] | None = row.__dict__.get("_draft")
    if kept is None or any(a is not b for a, b in zip(kept[0], parts, strict=True)):
        kept = row.__dict__["_draft"] = (parts, _same(_as_draft(row)))
    return kept[1]


@lru_cache(maxsize=2048)
def _same(draft: Draft) -> Draft:
    """The draft that was equal before, so that whatever is known of it is found at a glance."""
    return draft


def _as_draft(row: Piece) -> Draft:
    return Draft(
        tuple(
            DraftPoint(along, across, smooth, straight, allowance, cast(Ends, ends), key)
            for along, across, smooth, straight, allowance, ends, key in row.points
        ),
        row.half,
        None if row.arrow is None else (_place(row.arrow[0]), _place(row.arrow[1])),
        row.included,
        tuple(Notch(after, at, double) for after, at, double in row.notches),
        tuple(
            Mark(cast(MarkKind, m["kind"]), tuple(_place(p) for p in m["places"]), m["name"]) for m in row.marks
        ),
        tuple((key, corner) for key, corner in row.corners or ()),
    )  # fmt: skip


def _place(pair: Sequence[float]) -> tuple[float, float]:
    return (float(pair[0]), float(pair[1]))


def keep_draft(row: Piece, draft: Draft) -> None:
    """Put a draft into its row."""
    row.points = [[p.along, p.across, p.smooth, p.straight, p.allowance, p.ends, p.key] for p in draft.points]
    row.half = draft.half
    row.arrow = None if draft.arrow is None else [list(end) for end in draft.arrow]
    row.included = draft.included
    row.notches = [[n.after, n.at, n.double] for n in draft.notches]
    row.marks = [{"kind": m.kind, "places": [list(p) for p in m.places], "name": m.name} for m in draft.marks]
    row.corners = [list(one) for one in draft.corners]


def as_sizes(row: Piece) -> tuple[SizeOutline, ...]:
    """The sizes a piece is drawn in."""
    return tuple(SizeOutline(one["size"], tuple(_place(p) for p in one["places"])) for one in row.sizes)


def keep_sizes(row: Piece, sizes: Sequence[SizeOutline]) -> None:
    """Put the sizes of a piece into its row."""
    row.sizes = [{"size": one.size, "places": [list(p) for p in one.places]} for one in sizes]


def chosen_size(project: Project) -> SizeChoice:
    """The size a garment is cut in."""
    return SizeChoice(project.size, tuple(SizeAt(one["place"], one["size"]) for one in project.size_at))


@lru_cache(maxsize=512)
def _sized(draft: Draft, sizes: tuple[SizeOutline, ...], choice: SizeChoice) -> tuple[Draft, str]:
    try:
        return in_size(draft, sizes, choice), ""
    except BadPiece as fault:
        return draft, sentence_of(fault)


def sized_draft(row: Piece, choice: SizeChoice) -> tuple[Draft, str]:
    """The draft in the size that is cut, or as drafted with what is wrong with that size."""
    return _sized(as_draft(row), as_sizes(row), choice)


def as_how(cut: Cut) -> HowCut:
    """How it is cut from one cloth."""
    return HowCut(cut.copies, cut.pair, cut.on_fold, cast(Grain, cut.grain), cut.one_way, cut.seam, cut.bare,
                  cut.shorter)  # fmt: skip


def as_piece(row: Piece, cut: Cut, choice: SizeChoice = AS_DRAFTED) -> PaperPiece:
    """The core's piece as it is cut from one cloth, in the size that was chosen."""
    draft, fault = sized_draft(row, choice)
    found = piece_of(row.name, draft, as_how(cut))
    return replace(found, fault=fault) if fault else found


def as_asked(row: Piece, cut: Cut, choice: SizeChoice = AS_DRAFTED) -> PieceToLay:
    """The piece as it is laid on one cloth, with what is to meet on it."""
    return PieceToLay(
        as_piece(row, cut, choice),
        str(row.id),
        row.centred,
        cut.shorter,
        cast(Selvage, cut.border) if cut.border else None,
        cut.border_at,
    )
