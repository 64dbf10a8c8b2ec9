"""Properties of the whole engine on random problems that use everything the format can say."""

from __future__ import annotations

import copy
import itertools
import random
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from idle_selvage.core.lay.answer import from_json, to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.engine.solver import Answer, solve
from idle_selvage.core.lay.problem import BadProblem
from idle_selvage.core.lay.problem import to_json as problem_json
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.jobs.partner import second_process

from ..lay_cases import problem, random_problem, rectangle, rich_problem, shirt


def solved(data: dict[str, Any], steps: int = 60, seed: int = 1, workers: int = 1) -> Answer:
    partner = second_process if workers > 1 else None
    return solve(read_problem(data), steps=steps, seed=seed, clock=lambda: 0.0, partner=partner)


@given(st.integers(0, 100_000))
@settings(max_examples=40)
def test_any_problem_gives_checked_lays_or_a_named_reason(seed: int) -> None:
    data = rich_problem(seed)
    try:
        answer = solved(data, 60, seed)
    except BadProblem as told:
        assert told.faults
        assert all(f.endswith(".") and ("“" in f or "fold" in f or "cloth" in f) for f in told.faults), told.faults
        return
    for fold, lay in answer.alternatives:
        # the whole cloth opened out: nothing overlaps, nothing reaches over an edge, every rule is kept
        assert check_lay(data, to_json(lay)) == [], fold
        assert lay.bound <= lay.length + 1e-6 or not lay.complete
        assert from_json(to_json(lay)) == lay
    for fold, why in answer.refused:
        assert fold in data["folds"] and str(why).endswith(".")
    if answer.lay.complete:
        assert answer.lay.length == min(lay.length for _, lay in answer.alternatives)
    complete = {fold: lay.length for fold, lay in answer.alternatives if lay.complete}
    for fold, long in complete.items():
        assert complete.get("open", long) <= long + 1e-3, "what is cut folded can be cut open"
        if fold != "crosswise":
            assert complete.get("combination", long) <= long + 1e-3, "one section alone is a combination"


@pytest.mark.parametrize("seed", range(12))
def test_open_cloth_is_never_longer_than_a_fold_nor_a_combination_than_what_it_is_made_of(seed: int) -> None:
    folds = ["open", "lengthwise", "partial", "double", "crosswise", "combination"]
    answer = solved({**random_problem(seed), "folds": folds}, 40, seed)
    lengths = {fold: lay.length for fold, lay in answer.alternatives}
    assert {"open", "combination"} <= lengths.keys() and len(lengths) > 2
    assert lengths["open"] == min(lengths.values())
    assert lengths["combination"] <= min(long for fold, long in lengths.items() if fold != "crosswise") + 1e-3
    same = [fold for fold, long in lengths.items() if long <= answer.lay.length + 1e-3]
    assert answer.alternatives[0][0] in same
    fewest = min(len(lay.laid) for fold, lay in answer.alternatives if fold in same)
    assert len(answer.lay.laid) == fewest, "of two that are as long, the one with less to pin"


@pytest.mark.parametrize("seed", [110, 136, 141, 186, 196, 7, 8, 9])
def test_what_is_pushed_together_is_never_longer_than_it_lay(seed: int) -> None:
    """Of the first five the search alone, from anywhere, found longer lays."""
    data = random_problem(seed)
    data["folds"] = [random.Random(seed).choice(["open", "lengthwise", "partial", "double"])]
    before = solved(data, 150, seed).lay
    for piece in data["pieces"]:
        piece["fixed"] = [
            {"x": c.x, "y": c.y, "turn": c.turn, "mirrored": c.mirrored, "slides": True}
            for c in before.cut
            if c.piece == piece["id"]
        ]
    after = solved(data, 100, seed).lay
    assert check_lay(data, to_json(after)) == [] and after.length <= before.length + 0.15
    assert sum(p.layers for p in after.laid) == sum(p.layers for p in before.laid)


@given(st.integers(0, 100_000))
@settings(max_examples=60)
def test_a_problem_reads_back_as_it_was_written(seed: int) -> None:
    try:
        asked = read_problem(rich_problem(seed))
    except BadProblem:
        return
    assert read_problem(problem_json(asked)) == asked


@pytest.mark.parametrize("seed", range(4))
@pytest.mark.parametrize("workers", [1, 2])
def test_the_same_seed_and_steps_give_the_same_lay(seed: int, workers: int) -> None:
    data = rich_problem(seed + 900) if workers == 1 else shirt()
    try:
        one, two = solved(data, 700, seed, workers), solved(data, 700, seed, workers)
    except BadProblem:
        return
    assert one.lay.cut == two.lay.cut and one.lay.steps == two.lay.steps


def test_two_processes_are_never_worse_than_either() -> None:
    both = solved(shirt(), 600, 3, 2)
    assert both.lay.length <= solved(shirt(), 600, 3).lay.length
    shared = solve(read_problem(shirt()), seconds=0.8, seed=3, clock=_ticking(), partner=second_process)
    assert check_lay(shirt(), to_json(shared.lay)) == []


def _ticking() -> Any:
    import time

    return time.monotonic


@pytest.mark.parametrize("seed", range(5))
def test_moving_an_outline_changes_nothing(seed: int) -> None:
    data = random_problem(seed + 50)
    moved = copy.deepcopy(data)
    for piece in moved["pieces"]:
        up = 0 if piece["on_fold"] else -35
        piece["outline"] = [[x + 640, y + up] for x, y in piece["outline"]]
    try:
        one = solved(data, 80, 2)
    except BadProblem:
        return
    assert solved(moved, 80, 2).lay.length == pytest.approx(one.lay.length, abs=0.1)


@pytest.mark.parametrize("unit", [0.5, 2.0, 25.4 / 10])
@pytest.mark.parametrize("seed", [3, 4])
def test_a_lay_in_another_unit_is_a_lay_of_the_problem_in_that_unit(unit: float, seed: int) -> None:
    data = random_problem(seed)
    data["cloth"]["gap"] = 0.0
    lay = to_json(solved(data, 80, 2).lay)
    other = copy.deepcopy(data)
    other["cloth"]["width"] *= unit
    for piece in other["pieces"]:
        piece["outline"] = [[x * unit, y * unit] for x, y in piece["outline"]]
    again = solved(other, 80, 2).lay
    assert again.bound == pytest.approx(lay["bound"] * unit, rel=0.01, abs=2)
    for entry in (*lay["cut"], *lay["laid"]):
        entry.update(x=entry["x"] * unit, y=entry["y"] * unit)
    for section in lay["sections"]:
        section.update(
            {
                "from": section["from"] * unit,
                "to": section["to"] * unit,
                "fold_at": [a * unit for a in section["fold_at"]],
            }
        )
    lay.update(length=lay["length"] * unit, bound=again.bound)
    assert [f for f in check_lay(other, lay) if "overlap" not in f or unit <= 1] == []


@pytest.mark.parametrize(
    "rule", [{"one_way": True}, {"gap": 8}, {"blocked": [[0, 0, 80, 700]]}, {"bars": {"x_repeat": 90, "x_axes": [0]}}]
)
def test_a_rule_more_never_shortens_a_proved_best(rule: dict[str, Any]) -> None:
    pieces = [rectangle(f"p{k}", 300, 350, copies=2, match=[]) for k in range(3)]
    plain = solved(problem(pieces, width=700), 300).lay
    assert plain.length == pytest.approx(plain.bound, abs=0.3), "900 mm, and proved"
    if "bars" in rule:
        for piece in pieces:
            piece["match"] = [{"group": "g", "point": [0, 0], "along": True}]
    assert solved(problem(pieces, width=700, **rule), 300).lay.length >= plain.length - 0.3


def test_a_met_bound_ends_the_search() -> None:
    answer = solve(
        read_problem(problem([rectangle("a", 300, 500, copies=2)])), seconds=1e9, clock=itertools.count().__next__
    )
    assert answer.lay.length == pytest.approx(300, abs=0.2) and not answer.cancelled


def test_cancelling_is_looked_at_all_the_time() -> None:
    asked = read_problem(shirt())
    looks = itertools.count()
    answer = solve(asked, seconds=1e9, clock=lambda: 0.0, cancelled=lambda: next(looks) > 25)
    assert answer.cancelled and next(looks) <= 28 and answer.lay.complete
