"""A lay made by hand after the cloth changed: what breaks is said, and only that is laid anew."""

from __future__ import annotations

from dataclasses import replace

import pytest

from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.hand import held
from idle_selvage.core.lay.moves import CannotMove
from idle_selvage.core.lay.problem import to_json as problem_json
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.core.lay.recheck import mending, recheck

from .test_hand import begun

ASKED, LAYS = begun("plain")
OPEN = dict(LAYS)["open"]


def test_nothing_breaks_where_nothing_changed() -> None:
    assert recheck(held(OPEN), ASKED, OPEN) == ()


def test_a_narrower_cloth_breaks_what_lies_at_the_far_selvage() -> None:
    narrow = replace(ASKED, width=ASKED.width - 60.0)
    told = recheck(held(OPEN), narrow, OPEN)
    assert told and {one.kind for one in told} <= {"selvage", "outside"}
    mend = mending(held(OPEN), narrow, OPEN)
    fixed = {(p.id, f.x, f.y) for p in mend.pieces for f in p.fixed}
    wrong = {key.split("·")[0] for one in told for key in one.keys}
    assert fixed and wrong and len(fixed) < len(OPEN.cut)
    lay = solve(read_problem(problem_json(mend)), steps=100, clock=lambda: 0.0).lay
    there = {(c.piece, c.x, c.y) for c in lay.cut}
    assert fixed <= there, "what is right stays"


def test_larger_pieces_overlap_and_a_folded_lay_must_be_folded_anew() -> None:
    large = replace(
        ASKED,
        pieces=tuple(
            replace(p, outline=tuple((1.04 * x, 1.04 * y) for x, y in p.outline)) if p.id == "sleeve" else p
            for p in ASKED.pieces
        ),
    )
    told = recheck(held(OPEN), large, OPEN)
    assert any("overlap" in one.told for one in told) and all(one.keys for one in told)
    folded = dict(LAYS)["lengthwise"]
    wider = replace(ASKED, width=ASKED.width + 80.0)
    said = recheck(held(folded), wider, folded)
    assert any("fold no longer lies" in one.told for one in said)
    assert all(not p.fixed for p in mending(held(folded), wider, folded).pieces)


def test_a_piece_that_is_gone_and_one_that_is_new_are_told() -> None:
    fewer = replace(ASKED, pieces=tuple(p for p in ASKED.pieces if p.id != "tie"))
    assert recheck(held(OPEN), fewer, OPEN) == ()
    more = replace(ASKED, pieces=(*ASKED.pieces, replace(ASKED.pieces[-1], id="belt", name="Belt")))
    (told,) = recheck(held(OPEN), more, OPEN)
    assert told.kind == "count" and "Belt" in told.told


def test_folded_end_to_end_it_is_laid_again_as_a_whole() -> None:
    across = dict(LAYS)["crosswise"]
    with pytest.raises(CannotMove, match="laid again as a whole"):
        mending(held(across), ASKED, across)
