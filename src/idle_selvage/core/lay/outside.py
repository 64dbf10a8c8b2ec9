"""A lay from outside, in ``idle-selvage/lay/1``: taken in for the pieces there are, where it can lie so at all."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from ..wording import Sentence
from .answer import FORMAT, Lay, Section, from_json, to_json
from .check import faults_of
from .hand import as_lay, held
from .problem import FOLDS, MAX_ALL_COPIES, BadProblem, Problem
from .problem import to_json as problem_json

#: What no lay may have, whoever made it; what else it breaks is told and may be meant.
_NEVER = ("overlap", "gap", "ground", "pinned", "copies", "end", "sections")
#: No cloth is longer, mm.
LONGEST_MM = 100_000.0


def taken_in(data: Any, problem: Problem) -> Lay:
    """A lay of this problem's pieces from decoded JSON. Raises :class:`BadProblem` with a sentence per fault."""
    lay = _read(data)
    ids = _ids(lay, problem)
    lay = replace(lay, laid=tuple(replace(entry, piece=ids[entry.piece]) for entry in lay.laid))
    found = as_lay(held(lay), problem, replace(lay, bound=0.0))
    asked = problem_json(replace(problem, folds=FOLDS))
    faults = [fault.told for fault in faults_of(asked, to_json(found)) if fault.kind in _NEVER]
    for piece in problem.pieces:
        cut = sum(entry.piece == piece.id for entry in found.cut)
        if cut > piece.copies:
            told = "The lay cuts {name} {cut} times, and {copies} are asked for."
            faults.append(Sentence(told, name=piece.called, cut=cut, copies=piece.copies))
    if faults:
        raise BadProblem(faults[:5])
    return found


def _read(data: Any) -> Lay:
    if not isinstance(data, Mapping) or data.get("format") != FORMAT:
        raise BadProblem([f"That is no lay: a lay’s file says “{FORMAT}” of itself."])
    try:
        lay = from_json({**data, "bound": data.get("bound", 0.0)})
        entries = [
            replace(e, x=float(e.x), y=float(e.y), turn=int(e.turn), mirrored=bool(e.mirrored), layers=int(e.layers))
            for e in lay.laid
        ]
        sections = [
            Section(float(s.start), float(s.end), str(s.fold), tuple(map(float, s.fold_at))) for s in lay.sections
        ]
    except (KeyError, TypeError, ValueError, AttributeError):
        raise BadProblem(["The lay’s file is not complete: it needs its length, sections and what is laid."]) from None
    numbers = [n for e in entries for n in (e.x, e.y)] + [n for s in sections for n in (s.start, s.end, *s.fold_at)]
    if not all(math.isfinite(n) and abs(n) <= LONGEST_MM for n in numbers):
        raise BadProblem(["A place in the lay’s file is no length on a cloth."])
    if not sections or any(s.fold not in FOLDS[:-1] for s in sections) or len(entries) > MAX_ALL_COPIES:
        raise BadProblem(["The lay’s file has no sections, a fold that is not known, or too many pieces."])
    if any(not 0 <= e.section < len(sections) or e.layers not in (1, 2) or not 0 <= e.turn < 360 for e in entries):
        raise BadProblem(["An entry of the lay’s file lies on no section, on no layer, or is turned by no angle."])
    return replace(lay, sections=tuple(sections), laid=tuple(entries))


def _ids(lay: Lay, problem: Problem) -> dict[str, str]:
    """By its key, or else by its name, which piece of ours each of theirs is."""
    keys = {p.id: p.id for p in problem.pieces}
    names = {p.called: p.id for p in problem.pieces}
    found, unknown = {}, []
    for piece in dict.fromkeys(str(entry.piece) for entry in lay.laid):
        mine = keys.get(piece) or names.get(piece)
        if mine is None:
            unknown.append(piece[:40])
        else:
            found[piece] = mine
    if unknown:
        raise BadProblem(
            [Sentence("The lay has a piece “{piece}” that this garment has not.", piece=u) for u in unknown]
        )
    return found
