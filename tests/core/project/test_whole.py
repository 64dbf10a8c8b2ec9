"""A garment's cloths as one."""

from __future__ import annotations

from idle_selvage.core.project.stages import Stage
from idle_selvage.core.project.whole import combined, whole_cost
from idle_selvage.core.working import Figure


def dots(**states: str) -> list[Stage]:
    usual = dict.fromkeys(("plan", "cloth", "shrink", "buy", "true", "lay", "cut"), "done")
    return [
        Stage(name, state, "" if state == "done" else f"{name} is {state}.")  # type: ignore[arg-type]
        for name, state in {**usual, "log": "begun", **states}.items()
    ]


def test_the_worst_stands_and_says_of_which_cloth() -> None:
    found = {
        s.name: s
        for s in combined([("Check", dots(shrink="begun")), ("the lining", dots(shrink="empty", lay="look-again"))])
    }
    assert (found["shrink"].state, found["shrink"].of) == ("empty", "the lining")
    assert found["shrink"].why == "The lining: shrink is empty."
    assert (found["lay"].state, found["lay"].of) == ("look-again", "the lining")
    assert found["buy"].state == "done" and found["buy"].of == ""
    assert found["log"].why == "log is begun.", "what is the garment's has no cloth"


def test_one_cloth_needs_no_name() -> None:
    one = dots(true="begun")
    assert combined([("Check", one)]) == tuple(one)


def test_the_cost_is_the_sum_and_says_what_it_lacks() -> None:
    total, missing = whole_cost([("Check", Figure(40.0, "money")), ("Lining", None), ("Tape", Figure(2.5, "money"))])
    assert total is not None and total.value == 42.5 and missing == ("Lining",) and "Lining" in total.note
    assert [q.value for _, q in total.steps[0].inputs] == [40.0, 2.5]
    assert whole_cost([("Check", None)]) == (None, ("Check",))
