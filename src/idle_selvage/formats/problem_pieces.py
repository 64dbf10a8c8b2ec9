"""Pattern pieces from and to a lay problem (``idle-selvage/lay-problem/1``): the lines they are cut along, and how."""

from __future__ import annotations

import json
from collections.abc import Sequence

from ..core.lay.problem import BadProblem, LayPiece, Problem, to_json
from ..core.plan.draft import Draft
from ..core.plan.drawn import HowCut
from ..core.plan.fit import fitted
from ..core.plan.outline import BadPiece
from .audit import Found, Unreadable
from .drawn_pieces import PieceRead, Remarks
from .lay_json import MAX_BYTES, parse_problem

#: Curves are chords already in a problem: points are found so near to them, mm.
WITHIN_MM = 0.02


class BadPieces(Unreadable):
    """A lay problem that cannot be read; the message is a sentence."""


def read_problem_pieces(data: bytes) -> Found[tuple[PieceRead, ...]]:
    """The pieces of a lay problem; its cloth is not read. Raises :class:`BadPieces`."""
    if len(data) > MAX_BYTES:
        raise BadPieces(f"The file is larger than {MAX_BYTES // 1_000_000} MB; simplify its outlines.")
    try:
        problem = parse_problem(data)
    except BadProblem as fault:
        raise BadPieces(" ".join(fault.faults[:5])) from None
    remarks = Remarks()
    out = []
    for piece in problem.pieces:
        try:
            draft = Draft(fitted(piece.outline, WITHIN_MM, faithful=2 * WITHIN_MM), piece.on_fold, piece.arrow)
        except BadPiece as fault:
            remarks.skip("cannot_be_cut", piece.called, str(fault))
            continue
        how = HowCut(piece.copies, piece.pair, piece.on_fold, piece.grain, piece.one_way)
        out.append(PieceRead(piece.called[:80], draft, how))
        if piece.match or piece.centre_on_axis is not None or piece.fixed or piece.border is not None:
            remarks.skip("rules", piece.called, "matching, centring, locks and borders belong to a cloth and its seams")
    return Found(tuple(out), tuple(remarks.not_read))


def write_problem(pieces: Sequence[PieceRead], width: float) -> str:
    """A problem that lays these pieces on open cloth of a usable width, mm. Raises BadPiece."""
    laid = []
    for number, read in enumerate(pieces, start=1):
        how, piece = read.how, read.piece
        laid.append(
            LayPiece(str(number), read.cut, how.copies, how.pair, how.on_fold, how.grain, how.one_way,
                     name=read.name, arrow=piece.arrow)
        )  # fmt: skip
    return json.dumps(to_json(Problem(width, tuple(laid)), named=True), indent=1, allow_nan=False) + "\n"
