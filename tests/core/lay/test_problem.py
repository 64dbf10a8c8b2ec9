from __future__ import annotations

import copy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.lay.problem import BadProblem, allowed_turns, fingerprint, to_json
from idle_selvage.core.lay.reading import read_problem

from .lay_cases import problem, rectangle, shirt


def faults(data: Any) -> list[str]:
    with pytest.raises(BadProblem) as told:
        read_problem(data)
    assert all(f.endswith(".") for f in told.value.faults)
    return told.value.faults


def changed(**change: Any) -> dict[str, Any]:
    return problem([{**rectangle("a", 100, 50), **change}])


@pytest.mark.parametrize(
    ("data", "says"),
    [
        ([], "one JSON object"),
        ({**shirt(), "format": "other/1"}, "“format” must be"),
        ({**shirt(), "colour": "red"}, "unknown key “colour”"),
        (problem([rectangle("a", 100, 50)], glitter=1), "unknown key “glitter”"),
        (problem([]), "at least one piece"),
        (problem([rectangle("a", 100, 50)], width=float("nan")), "not a finite number"),
        (problem([rectangle("a", 100, 50)], width="wide"), "must be a number"),
        (problem([rectangle("a", 100, 50)], width=True), "must be a number"),
        (problem([rectangle("a", 100, 50)], gap=-1), "from 0 to 200"),
        (problem([rectangle("a", 100, 50)], one_way="yes"), "true or false"),
        (problem([rectangle("a", 100, 50)], blocked=[[0, 0, 10]]), "four numbers"),
        (problem([rectangle("a", 100, 50)], blocked=[[10, 0, 0, 10]]), "has no extent"),
        (problem([rectangle("a", 100, 50)], blocked={"x": 1}), "list of at most 200 areas"),
        (problem([rectangle("a", 100, 50)], blocked=[[0, 0, 9, 9], [[0, 0], [9, 9]]]), "Blocked area 2"),
        (problem([rectangle("a", 100, 50)], blocked=[[[0, 0], [9, 9], [9, 0], [0, 9]]]), "Blocked area 1 crosses"),
        (problem([rectangle("a", 100, 50)], blocked=[[[0, 0], [9, "b"], [9, 9]]]), "Blocked area 1 has a point"),
        (problem([rectangle("a", 100, 50)], blocked=[[]]), "four numbers"),
        (problem([rectangle("a", 100, 50)], bars={"x_axes": [1]}), "there is no x_repeat"),
        (problem([rectangle("a", 100, 50)], bars={"x_repeat": 0}), "bars.x_repeat"),
        (problem([rectangle("a", 100, 50)], folds=["origami"]), '“origami”|"origami" is not a fold'),
        (problem([rectangle("a", 100, 50)], folds=[]) | {"folds": []}, "at least one fold"),
        (problem([rectangle("a", 100, 50), rectangle("a", 90, 50)]), "Two pieces are called"),
        (problem([rectangle("a", 100, 1200)]), "in every turn it may lie in"),
        (changed(outline=[[0, 0], [100, 100], [100, 0], [0, 100]]), "crosses or touches itself"),
        (changed(outline=[[0, 0], [100, float("nan")], [100, 0]]), "not a number"),
        (changed(outline=[[0, 0, 1]]), "two numbers"),
        (changed(outline="square"), "needs an outline"),
        (changed(outline=[[i, i * i] for i in range(9000)]), "at most 5000"),
        (changed(copies=3, pair=True), "even number of copies, not 3"),
        (changed(copies=2.5), "whole number"),
        (changed(copies=True), "whole number"),
        (changed(pair=True, copies=2, on_fold=True), "no pair"),
        (changed(on_fold=True, grain="bias"), "never lies on the bias"),
        (changed(grain="sideways"), "grain must be one of"),
        (changed(match=[{"group": "g", "point": [0, 0], "along": True}]), "has no x_repeat"),
        (changed(match=[{"group": "g", "point": [0, 0], "across": True}]), "has no y_repeat"),
        (changed(match=[{"group": "g", "point": [0, 0]}]), "neither along nor across"),
        (changed(match=[{"group": "", "point": [0, 0], "along": True}]), "needs a group"),
        (changed(match=[{"group": "g", "point": [0], "along": True}]), "must be two numbers"),
        (changed(match=[{"group": "g", "point": [0, 0], "along": True, "phase": [1]}]), "or two of them"),
        (changed(match=["g"]), "must be an object with group"),
        (changed(match="g"), "list of at most 20 points"),
        (changed(centre_on_axis="x"), "the cloth's bars have none"),
        (changed(centre_on_axis="z"), "centre_on_axis must be"),
        (changed(fixed={"x": 0, "y": 0, "turn": 90}), "which its grain does not allow"),
        (
            problem(
                [rectangle("a", 100, 50, centre_on_axis="x", fixed={"x": 0, "y": 33, "turn": 0})],
                bars={"y_repeat": 40, "y_axes": [10]},
            ),
            "fixed where it is not",
        ),
        (changed(fixed={"x": 0, "y": 0, "turn": 30}), "0, 45, 90"),
        (changed(fixed={"x": 0, "y": 990, "turn": 0}), "over the edge of the cloth"),
        (changed(fixed=[{"x": 0, "y": 0}, {"x": 200, "y": 0}]), "2 copies are fixed, and there are only 1"),
        (changed(fixed=[{"x": 0, "y": 0}, {"x": 50, "y": 20}], copies=2), "fixed over, or too near to"),
        (changed(fixed=7), "fixed must be an object"),
        (changed(border={"edge": "top", "selvage": "low"}), "laid by the piece's “hem”"),
        (changed(border={"selvage": "left"}), 'must be "low" or "high"'),
        (changed(border={"selvage": "low", "distance": 950}), "the cloth is only 1000.0 mm wide"),
        (changed(border="hem"), "border must be an object"),
        (changed(id=""), "needs an id"),
        (changed(outline=[[0, 5], [100, 5], [100, 50], [0, 50]], on_fold=True), "no edge of it lies on the fold"),
    ],
)
def test_each_fault_is_one_sentence(data: Any, says: str) -> None:
    import re

    assert any(re.search(says, f) for f in faults(data)), faults(data)


def test_all_faults_are_told_at_once() -> None:
    data = problem([changed(copies=3, pair=True)["pieces"][0], {"id": "b", "outline": []}], folds=["origami"])
    assert len(faults(data)) == 3


def test_round_trip_and_fingerprint() -> None:
    read = read_problem(shirt())
    assert read_problem(to_json(read)) == read and not read.turn_on_bars
    wished = read_problem({**shirt(), "turn_on_bars": True})
    assert read_problem(to_json(wished)) == wished and wished.turn_on_bars
    assert fingerprint(read) == fingerprint(read_problem(copy.deepcopy(shirt())))
    other = shirt()
    other["cloth"]["width"] += 1
    assert fingerprint(read_problem(other)) != fingerprint(read)


def test_one_way_keeps_the_top_towards_plus_x() -> None:
    assert allowed_turns("lengthwise", True) == (0,) and allowed_turns("crosswise", True) == (90,)
    assert allowed_turns("bias", True) == (45, 315) and set(allowed_turns("bias", True)) < set(
        allowed_turns("bias", False)
    )


junk = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8),
    lambda inner: (
        st.lists(inner, max_size=4)
        | st.dictionaries(
            st.sampled_from(["format", "cloth", "folds", "pieces", "width", "id", "outline", "copies", "grain", "x"]),
            inner,
            max_size=5,
        )
    ),
    max_leaves=25,
)


@given(junk, st.sampled_from(["cloth", "folds", "pieces", "outline", "whole"]))
def test_no_input_is_anything_but_a_problem_or_faults(thing: Any, where: str) -> None:
    data: Any = shirt()
    if where == "whole":
        data = thing
    elif where == "outline":
        data["pieces"][0]["outline"] = thing
    else:
        data[where] = thing
    try:
        read_problem(data)
    except BadProblem as told:
        assert told.faults


def test_blocked_outlines_are_written_as_they_were_read_and_change_the_problem() -> None:
    bay = [[0.0, 0.0], [90.0, 0.0], [90.0, 80.0], [50.0, 20.0]]
    told = problem([rectangle("a", 100, 50)], blocked=[bay, [5, 6, 7, 8]])
    read = read_problem(told)
    assert read.blocked == ((5.0, 6.0, 7.0, 8.0),) and read.blocked_shapes == (tuple(map(tuple, bay)),)
    assert read.kept_off == (((5.0, 6.0), (7.0, 6.0), (7.0, 8.0), (5.0, 8.0)), tuple(map(tuple, bay)))
    assert to_json(read)["cloth"]["blocked"] == [[5.0, 6.0, 7.0, 8.0], bay]
    assert read_problem(to_json(read)) == read
    bay[3] = [50.0, 21.0]
    assert fingerprint(read_problem(told)) != fingerprint(read)


def test_a_piece_is_not_fixed_on_a_blocked_outline_but_in_its_bay() -> None:
    bay = [[0, 0], [300, 0], [300, 300], [200, 300], [200, 100], [0, 100]]
    for x, y, wrong in ((90, 110, False), (90, 90, True), (120, 110, True)):
        fixed = {"x": x, "y": y, "turn": 0, "mirrored": False}
        told = problem([rectangle("a", 100, 50, fixed=fixed)], blocked=[bay])
        if wrong:
            with pytest.raises(BadProblem, match="is fixed on a blocked area"):
                read_problem(told)
        else:
            read_problem(told)


def test_what_slides_is_written_only_where_it_does() -> None:
    at = {"x": 0.0, "y": 5.0, "turn": 0, "mirrored": False}
    told = problem([rectangle("a", 100, 50, copies=2, fixed=[at, {**at, "y": 60.0, "slides": True}])])
    read = read_problem(told)
    assert to_json(read)["pieces"][0]["fixed"] == told["pieces"][0]["fixed"]
    assert [f.y for f in read.pieces[0].held] == [5.0] and [f.y for f in read.pieces[0].sliding] == [60.0]
    told["pieces"][0]["fixed"][1]["slides"] = "yes"
    with pytest.raises(BadProblem, match="fixed slides must be true or false"):
        read_problem(told)


@pytest.mark.parametrize(
    ("grain", "free", "one_way"),
    [
        ("lengthwise", (0, 180), (0,)),
        ("crosswise", (90, 270), (90,)),
        ("bias", (45, 135, 225, 315), (45, 315)),
        ("any", (0, 45, 90, 135, 180, 225, 270, 315), (0, 45, 90, 315)),
    ],
)
def test_the_turns_of_each_grain(grain: Any, free: tuple[int, ...], one_way: tuple[int, ...]) -> None:
    assert allowed_turns(grain, False) == free and allowed_turns(grain, True) == one_way
