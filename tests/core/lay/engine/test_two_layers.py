"""Folding and unfolding: what is pinned on two layers leaves the cloth as two mirror images."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from idle_selvage.core.lay.answer import Lay
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.problem import BadProblem, Problem
from idle_selvage.core.lay.reading import read_problem

from ..lay_cases import problem, random_problem, rectangle, strip_of

CHEVRON = [[0, 0], [300, 0], [240, 90], [300, 200], [0, 160]]


def outline(asked: Problem, entry: Any) -> np.ndarray:
    """A copy's corners on the open cloth, sorted, by the rule of the format."""
    points = np.array(next(p for p in asked.pieces if p.id == entry.piece).outline)
    if entry.mirrored:
        points = points * [1, -1]
    angle = np.radians(entry.turn)
    turned = points @ np.array([[np.cos(angle), np.sin(angle)], [-np.sin(angle), np.cos(angle)]])
    placed: np.ndarray = turned + np.array([entry.x, entry.y])
    return placed


def lay_folded(data: dict[str, Any]) -> tuple[Problem, Lay]:
    asked = read_problem({**data, "folds": ["lengthwise"]})
    return asked, solve(asked, steps=20, clock=lambda: 0.0).lay


@given(st.integers(0, 5000))
@settings(max_examples=40)
def test_the_two_copies_of_a_folded_placement_mirror_each_other_about_the_fold(seed: int) -> None:
    try:
        asked, lay = lay_folded(random_problem(seed))
    except BadProblem:
        return
    on_fold = {p.id for p in asked.pieces if p.on_fold and p.grain == "lengthwise"}
    copies = iter(lay.cut)
    for pinned in lay.laid:
        first = next(copies)
        assert (first.piece, first.x, first.y, first.turn) == (pinned.piece, pinned.x, pinned.y, pinned.turn)
        if pinned.layers == 2 and pinned.piece not in on_fold:
            second = next(copies)
            mirrored = outline(asked, first) * [1, -1] + [0, asked.width]
            assert np.allclose(mirrored, outline(asked, second), atol=0.01), "corner for corner"
    assert next(copies, None) is None, "nothing is cut that was not pinned"


def test_a_one_way_cross_grain_pair_is_laid_in_single_layers() -> None:
    # the other layer of a lengthwise fold runs it the other way round, which the direction forbids
    data = problem([{"id": "yoke", "outline": CHEVRON, "copies": 2, "pair": True, "grain": "crosswise"}], one_way=True)
    _, lay = lay_folded(data)
    assert [entry.layers for entry in lay.laid] == [1, 1]
    assert {entry.turn for entry in lay.cut} == {90} and sorted(e.mirrored for e in lay.cut) == [False, True]


def test_a_cross_grain_pair_without_direction_uses_both_layers() -> None:
    data = problem([{"id": "yoke", "outline": CHEVRON, "copies": 2, "pair": True, "grain": "crosswise"}])
    _, lay = lay_folded(data)
    assert [entry.layers for entry in lay.laid] == [2] and {e.turn for e in lay.cut} == {90, 270}


@pytest.mark.parametrize(
    ("more", "layers"),
    [
        ({"copies": 4, "pair": True}, [2, 2]),
        ({"copies": 3}, [1, 1, 1]),
        ({"copies": 2}, [1, 1]),
    ],
)
def test_how_many_layers_a_piece_takes(more: dict[str, Any], layers: list[int]) -> None:
    strip = strip_of(problem([{"id": "a", "outline": CHEVRON, **more}], folds=["lengthwise"]), "lengthwise")
    assert [part.copies for part in strip.parts] == layers


def test_a_symmetric_piece_and_reversible_cloth_may_be_cut_double() -> None:
    plain = problem([rectangle("strip", 300, 60, copies=3)], folds=["lengthwise"])
    assert [i.copies for i in strip_of(plain, "lengthwise").parts] == [2, 1]
    reversible = problem([{"id": "a", "outline": CHEVRON, "copies": 2}], folds=["lengthwise"], reversible=True)
    assert [i.copies for i in strip_of(reversible, "lengthwise").parts] == [2]


def test_an_on_fold_piece_turned_end_for_end_stays_above_the_fold() -> None:
    half = {"id": "back", "outline": [[0, 0], [600, 0], [600, 80], [0, 240]], "on_fold": True, "copies": 2}
    item = strip_of(problem([half], folds=["lengthwise"]), "lengthwise").parts[0]
    assert {(p.turn, p.mirrored) for p in item.variants} == {(0, False), (180, True)}
    assert all(p.ring[:, 1].min() >= -1e-9 for p in item.variants)
    one_way = problem([half], folds=["lengthwise"], one_way=True)
    only = strip_of(one_way, "lengthwise").parts[0].variants
    assert [(p.turn, p.mirrored) for p in only] == [(0, False)]
