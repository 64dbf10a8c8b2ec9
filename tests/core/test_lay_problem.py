from __future__ import annotations

import copy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.lay.problem import BadProblem, allowed_turns, fingerprint, read_problem, to_json

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
        (problem([rectangle("a", 100, 50)], blocked=[[0, 0, 10, 10]]), "Blocked areas"),
        (problem([rectangle("a", 100, 50)], bars={"x_repeat": 0}), "bars.x_repeat"),
        (problem([rectangle("a", 100, 50)], folds=["origami"]), '“origami”|"origami" is not a fold'),
        (problem([rectangle("a", 100, 50)], folds=["double"]), "fold “double” cannot be laid yet"),
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
        (changed(match=[{"group": "g", "point": [0, 0], "along": True}]), "matching"),
        (changed(centre_on_axis="x"), "centre_on_axis"),
        (changed(id=""), "needs an id"),
        (changed(outline=[[0, 5], [100, 5], [100, 50], [0, 50]], on_fold=True), "no edge of it lies on the fold"),
    ],
)
def test_each_fault_is_one_sentence(data: Any, says: str) -> None:
    import re

    assert any(re.search(says, f) for f in faults(data)), faults(data)


def test_all_faults_are_told_at_once() -> None:
    data = problem([changed(copies=3, pair=True)["pieces"][0], {"id": "b", "outline": []}], folds=["double"])
    assert len(faults(data)) == 3


def test_round_trip_and_fingerprint() -> None:
    read = read_problem(shirt())
    assert read_problem(to_json(read)) == read
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
