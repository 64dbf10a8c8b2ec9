"""Closing up: pushed together or searched on from where it lies, it never gets longer, and what is locked stays."""

from __future__ import annotations

from dataclasses import replace

import pytest

from idle_selvage.core.lay.closing import closed, closing
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.hand import Change, HandLay, applied, held, tray
from idle_selvage.core.lay.moves import CannotMove, Table, locked, nudged, posed, pushed, put_aside
from idle_selvage.core.lay.problem import Problem
from idle_selvage.core.lay.problem import to_json as problem_json
from idle_selvage.core.lay.reading import read_problem

from .test_hand import CASES, begun, found

STEPS = 200


def spread(kind: str, fold: str) -> tuple[Problem, HandLay, str]:
    """A lay with air in it, and the key of a locked piece."""
    asked, lays = begun(kind)
    hand = held(dict(lays)[fold])
    pieces = {p.id: p for p in asked.pieces}
    for one in sorted(hand.held, key=lambda h: -h.x)[:4]:
        try:
            hand = applied(hand, nudged(Table(hand, asked), (one.key,), 120.0, 0.0), pieces)
        except CannotMove:
            continue
    key = min(hand.held, key=lambda h: h.x).key
    return asked, applied(hand, locked(Table(hand, asked), [key], True), pieces), key


def searched(hand: HandLay, asked: Problem, how: str, seed: int = 1) -> Change | None:
    question = closing(hand, asked, [], how)  # type: ignore[arg-type]
    answer = solve(read_problem(problem_json(question.problem)), seed=seed, steps=STEPS, clock=lambda: 0.0)
    return closed(hand, question, answer.lay)


ALONG = [case for case in CASES if case[1] != "crosswise" and case[0] in ("plain", "flaw", "bars", "narrow")]


@pytest.mark.parametrize("how", ["along", "anywhere"])
@pytest.mark.parametrize(("kind", "fold"), ALONG)
def test_searching_on_never_lengthens_and_never_moves_what_is_locked(kind: str, fold: str, how: str) -> None:
    asked, hand, fast = spread(kind, fold)
    pieces = {p.id: p for p in asked.pieces}
    base = dict(begun(kind)[1])[fold]
    done = searched(hand, asked, how)
    assert done == searched(hand, asked, how), "the same seed and steps give the same lay"
    if done is None:
        return
    after = applied(hand, done, pieces)
    assert after.sections[-1].end < hand.sections[-1].end
    assert after[fast] == hand[fast]
    assert found(after, asked, base) == set()
    assert [s.fold_at for s in after.sections] == [s.fold_at for s in hand.sections], "the fold stays as she has it"
    assert tray(after, asked) == tray(hand, asked)
    if how == "along":
        assert sorted((h.piece, round(h.y, 1)) for h in after.held) == sorted(
            (h.piece, round(h.y, 1)) for h in hand.held
        )


@pytest.mark.parametrize(("kind", "fold"), [c for c in CASES if c[0] in ("plain", "bars", "border", "narrow")])
def test_pushing_together_moves_along_only_and_breaks_nothing(kind: str, fold: str) -> None:
    asked, hand, fast = spread(kind, fold)
    pieces = {p.id: p for p in asked.pieces}
    base = dict(begun(kind)[1])[fold]
    try:
        done = pushed(Table(hand, asked))
    except CannotMove as why:
        assert "gives" in str(why)
        return
    after = applied(hand, done, pieces)
    assert after.sections[-1].end <= hand.sections[-1].end
    assert found(after, asked, base) == set()
    if fold != "crosswise":
        assert after[fast] == hand[fast]
    for one in hand.held:
        there = after[one.key]
        assert (there.y, there.turn, there.mirrored, there.layers) == (one.y, one.turn, one.mirrored, one.layers)
    with pytest.raises(CannotMove, match="Nothing gives"):
        pushed(Table(after, asked))


def test_what_breaks_a_rule_on_purpose_stays_where_it_was_put() -> None:
    asked, hand, _ = spread("plain", "open")
    pieces = {p.id: p for p in asked.pieces}
    hand = applied(hand, posed(Table(hand, asked), "pocket·1", by=7), pieces)
    question = closing(hand, asked, ["pocket·1"], "anywhere")
    assert question.out == ("pocket·1",)
    lay = solve(question.problem, steps=STEPS, clock=lambda: 0.0).lay
    done = closed(hand, question, lay)
    assert done is not None
    after = applied(hand, done, pieces)
    assert after["pocket·1"] == hand["pocket·1"]
    base = dict(begun("plain")[1])["open"]
    assert found(after, asked, base) == {("turn", "pocket·1")}


def test_what_stays_at_the_far_end_leaves_nothing_to_gain() -> None:
    asked, hand, _ = spread("plain", "open")
    pieces = {p.id: p for p in asked.pieces}
    # the only copy of its piece, off its grain and furthest of all
    hand = applied(hand, nudged(Table(hand, asked), ("back·1",), 2500.0, 0.0), pieces)
    hand = applied(hand, posed(Table(hand, asked), "back·1", by=4), pieces)
    question = closing(hand, asked, ["back·1"], "anywhere")
    assert question.reach == pytest.approx(hand.sections[-1].end, abs=0.01)
    lay = solve(question.problem, steps=STEPS, clock=lambda: 0.0).lay
    assert lay.length < question.reach - 200 and closed(hand, question, lay) is None


def test_half_a_pair_stays_while_its_other_half_lies_aside() -> None:
    asked, lays = begun("plain")
    pieces = {p.id: p for p in asked.pieces}
    hand = held(dict(lays)["open"])
    hand = applied(hand, put_aside(Table(hand, asked), ["sleeve·1"]), pieces)
    question = closing(hand, asked, [], "anywhere")
    assert question.out == ("sleeve·2",)
    assert "sleeve" not in {p.id for p in question.problem.pieces}


def test_what_cannot_be_searched_is_said() -> None:
    asked, lays = begun("plain")
    pieces = {p.id: p for p in asked.pieces}
    across = held(dict(lays)["crosswise"])
    with pytest.raises(CannotMove, match="the fold itself moves"):
        closing(across, asked, [], "along")
    fast = applied(across, locked(Table(across, asked), [across.held[0].key], True), pieces)
    with pytest.raises(CannotMove, match="the fold itself moves"):
        closing(fast, asked, [], "anywhere")
    empty = replace(across, held=())
    with pytest.raises(CannotMove, match="Nothing is laid"):
        closing(empty, asked, [], "anywhere")
    flawed, hand, _ = spread("flaw", "crosswise")
    with pytest.raises(CannotMove, match="flaws under the pieces"):
        pushed(Table(hand, flawed))


def test_a_lay_that_is_no_shorter_changes_nothing() -> None:
    asked, lays = begun("plain")
    base = dict(lays)["open"]
    hand = held(base)
    question = closing(hand, asked, [], "anywhere")
    assert closed(hand, question, base) is None
