"""What folds are called."""

from __future__ import annotations

from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.named import FOLDS_NAMED, fold_name, laid_how
from idle_selvage.core.lay.problem import FOLDS
from idle_selvage.core.lay.reading import read_problem

from .lay_cases import problem, rectangle


def test_every_fold_of_the_format_has_a_name() -> None:
    assert set(FOLDS_NAMED) == set(FOLDS)
    assert len({fold_name(fold) for fold in FOLDS}) == len(FOLDS)


def test_a_lay_is_named_by_how_it_lies() -> None:
    pieces = [rectangle("a", 300, 200, copies=2)]
    for fold in FOLDS[:-1]:
        asked = read_problem(problem(pieces, width=1000, folds=[fold]))
        assert laid_how(solve(asked, steps=5, clock=lambda: 0.0).lay) == FOLDS_NAMED[fold][1]
