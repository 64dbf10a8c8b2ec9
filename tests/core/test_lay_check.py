"""The checker is tested by breaking good lays in every way it must notice."""

from __future__ import annotations

import copy
from collections.abc import Callable
from typing import Any

import pytest

from idle_selvage.core.lay.answer import to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.problem import read_problem
from idle_selvage.core.lay.solver import solve

from .lay_cases import shirt


@pytest.fixture(scope="module")
def good() -> tuple[dict[str, Any], dict[str, Any]]:
    data = shirt()
    data["folds"] = ["lengthwise"]
    lay = to_json(solve(read_problem(data), steps=100, clock=lambda: 0.0).lay)
    assert check_lay(data, lay) == []
    return data, lay


def entry(lay: dict[str, Any], piece: str) -> dict[str, Any]:
    found: dict[str, Any] = next(e for e in lay["cut"] if e["piece"] == piece)
    return found


def _overlap(_p: dict[str, Any], lay: dict[str, Any]) -> None:
    a, b = [e for e in lay["cut"] if e["piece"] == "front"]
    a.update(x=b["x"], y=b["y"], turn=b["turn"], mirrored=b["mirrored"])


def _fold(_p: dict[str, Any], lay: dict[str, Any]) -> None:
    next(e for e in lay["laid"] if e["piece"] == "back")["y"] += 5


BREAKS: list[tuple[str, Callable[[dict[str, Any], dict[str, Any]], Any]]] = [
    ("overlap", _overlap),
    ("over a selvage", lambda p, lay: entry(lay, "pocket").update(y=-20.0)),
    ("past an end", lambda p, lay: lay.update(length=lay["length"] - 1, bound=0)),
    ("past an end", lambda p, lay: entry(lay, "pocket").update(x=-30.0)),
    ("grain does not allow", lambda p, lay: entry(lay, "front").update(turn=90)),
    ("half of a pair", lambda p, lay: entry(lay, "front").update(mirrored=not entry(lay, "front")["mirrored"])),
    ("copies are asked for", lambda p, lay: lay["cut"].remove(entry(lay, "sleeve"))),
    ("cut twice", lambda p, lay: [e.update(copy=1) for e in lay["cut"]]),
    ("not asked for", lambda p, lay: lay["cut"].append({**entry(lay, "pocket"), "piece": "spare"})),
    ("nearer than the gap", lambda p, lay: p["cloth"].update(gap=60.0)),
    ("shorter than its own bound", lambda p, lay: lay.update(bound=lay["length"] + 5)),
    ("was not allowed", lambda p, lay: p.update(folds=["open"])),
    ("middle of the width", lambda p, lay: lay["sections"][0].update(fold_at=[400.0])),
    ("does not lie on it", _fold),
    ("not the same number", lambda p, lay: lay["laid"].pop()),
    ("longer than the cloth", lambda p, lay: p["cloth"].update(length=lay["length"] - 10)),
    ("lists pieces left over", lambda p, lay: lay.update(left_over=[{"piece": "front", "copies": 1}])),
    ("cut as drawn", lambda p, lay: next(q for q in p["pieces"] if q["id"] == "front").update(pair=False)),
    ("grain does not allow", lambda p, lay: (p["cloth"].update(one_way=True), entry(lay, "front").update(turn=180))),
]


@pytest.mark.parametrize(("says", "break_it"), BREAKS, ids=[f"{i}-{b[0]}" for i, b in enumerate(BREAKS)])
def test_every_broken_rule_is_noticed(
    good: tuple[dict[str, Any], dict[str, Any]], says: str, break_it: Callable[[dict[str, Any], dict[str, Any]], Any]
) -> None:
    data, lay = copy.deepcopy(good)
    break_it(data, lay)
    assert any(says in fault for fault in check_lay(data, lay)), check_lay(data, lay)


def test_a_hair_of_overlap_is_no_overlap(good: tuple[dict[str, Any], dict[str, Any]]) -> None:
    data, lay = copy.deepcopy(good)
    data["cloth"]["gap"] = 0.0
    pocket = entry(lay, "pocket")
    pocket["x"] += 0.02
    assert check_lay(data, lay) == []
