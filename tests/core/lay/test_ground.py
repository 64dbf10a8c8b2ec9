"""Fixed pieces, border pieces, blocked ground, fixed lengths: what is given stays, and the rest goes round it."""

from __future__ import annotations

import pytest

from idle_selvage.core.lay.problem import BadProblem

from .engine.test_folds import best, lay
from .lay_cases import problem, rectangle


def test_what_is_fixed_stays_and_the_rest_is_laid_around_it() -> None:
    held = rectangle("held", 200, 300, fixed={"x": 100, "y": 350, "turn": 0, "mirrored": False})
    made = best(problem([held, rectangle("a", 200, 340, copies=2), rectangle("b", 90, 250)], width=1000))
    assert [(c.x, c.y) for c in made.cut if c.piece == "held"] == [(100, 350)]
    # 340 above and below the held piece, and the small one before it
    assert made.length == pytest.approx(300, abs=0.2)


def test_two_fixed_copies_that_mirror_each_other_are_one_placement_on_two_layers() -> None:
    places = [
        {"x": 50, "y": 600, "turn": 0, "mirrored": False},
        {"x": 50, "y": 400, "turn": 0, "mirrored": True},
    ]
    held = {"id": "f", "outline": [[0, 0], [300, 0], [200, 150]], "copies": 2, "pair": True, "fixed": places}
    made = best(problem([held, rectangle("a", 300, 250, copies=2)], width=1000, folds=["lengthwise"]))
    layers = [e.layers for e in made.laid if e.piece == "f"]
    assert layers == [2] and made.length == pytest.approx(350, abs=0.2)


def test_a_fold_through_a_fixed_piece_is_refused_with_the_reason() -> None:
    held = rectangle("held", 200, 300, fixed={"x": 0, "y": 400, "turn": 0})
    answer = lay(problem([held, rectangle("a", 200, 200)], width=1000, folds=["lengthwise", "open"]))
    assert [f for f, _ in answer.alternatives] == ["open"]
    assert "fold would run through it" in str(answer.refused[0][1])


def test_fixed_pieces_alone_are_a_lay() -> None:
    held = rectangle("held", 200, 300, fixed={"x": 270, "y": 300, "turn": 180, "mirrored": False})
    made = best(problem([held], width=1000))
    assert made.complete and made.length == pytest.approx(270) and made.bound <= made.length


def test_a_hem_lies_on_the_border_and_others_keep_off() -> None:
    # the border runs 80 mm deep along the low selvage
    panel = rectangle("panel", 500, 300, border={"edge": "hem", "selvage": "low", "distance": 10}, copies=2)
    data = problem([panel, rectangle("plain", 200, 150, copies=2)], width=900, blocked=[[-10, 0, 5000, 80]])
    made = best(data)
    for c in made.cut:
        if c.piece == "panel":
            assert c.turn == 90 and c.y == pytest.approx(10, abs=0.1)
        else:
            assert c.y >= 79.9
    # two panels of 300 side by side along the selvage; the plain ones fit above them
    assert made.length == pytest.approx(600, abs=0.2)


def test_a_border_at_the_far_selvage_turns_the_hem_there() -> None:
    panel = {
        "id": "panel",
        "outline": [[0, 0], [400, 40], [400, 200], [0, 240]],
        "border": {"edge": "hem", "selvage": "high", "distance": 25},
    }
    (only,) = best(problem([panel], width=700)).cut
    # turned 270°, (x, y) goes to (y, −x): the hem x = 0 lies at y = 700 − 25
    assert only.turn == 270 and only.y == pytest.approx(675, abs=0.1)
    with pytest.raises(BadProblem, match="lays the selvages elsewhere"):
        lay(problem([panel], width=700, folds=["lengthwise"]))


def test_a_flaw_is_laid_around_with_the_gap() -> None:
    data = problem([rectangle("a", 300, 400)], width=400, gap=10, blocked=[[0, 0, 50, 400]])
    assert best(data).length == pytest.approx(360, abs=0.2)
    free = problem([rectangle("a", 300, 400)], width=500, blocked=[[0, 0, 50, 90]])
    assert best(free).length == pytest.approx(300, abs=0.2), "it fits beside the flaw"


def test_a_fixed_length_says_what_is_left_over_and_how_far_short_it_is() -> None:
    data = problem([rectangle("a", 300, 600, copies=3), rectangle("b", 100, 300)], length=700.0)
    made = best(data)
    assert not made.complete and dict(made.left_over) == {"a": 1}
    assert made.needed_length == pytest.approx(900, abs=0.2) and made.length <= 700
    every = best(problem([rectangle("a", 300, 600, copies=3)], length=900.0, folds=["combination", "open"]))
    assert every.complete and every.left_over == ()


def test_a_fixed_length_on_a_crosswise_fold_counts_both_layers() -> None:
    data = problem([rectangle("a", 300, 600, copies=4)], folds=["crosswise"], length=1000.0)
    made = best(data)
    assert dict(made.left_over) == {"a": 2} and made.length <= 1000.1


@pytest.mark.parametrize("fold", ["open", "lengthwise", "partial", "double", "crosswise", "combination"])
def test_cloth_too_short_for_anything_leaves_everything_over(fold: str) -> None:
    made = best(problem([rectangle("a", 300, 200, copies=2)], folds=[fold], length=100.0), 50)
    assert made.length == 0 and dict(made.left_over) == {"a": 2} and made.needed_length in (300, 600)
