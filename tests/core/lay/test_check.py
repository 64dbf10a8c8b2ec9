"""The checker is tested by breaking good lays in every way it must notice."""

from __future__ import annotations

import copy
from collections.abc import Callable
from typing import Any

import pytest

from idle_selvage.core.lay.answer import to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.reading import read_problem

from .lay_cases import problem, rectangle, shirt


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
    ("nowhere pinned", lambda p, lay: lay["laid"].pop()),
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


BARS = {"x_repeat": 60, "y_repeat": 50, "x_axes": [0, 30], "y_axes": [0, 25]}
PAIR = {"id": "front", "outline": [[0, 0], [400, 0], [300, 150], [0, 200]], "copies": 2, "pair": True}


def lay_of(data: dict[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
    lay = to_json(solve(read_problem(data), steps=150, clock=lambda: 0.0).lay)
    assert check_lay(data, lay) == []
    return data, lay


def plaid(fold: str) -> dict[str, Any]:
    both = {"group": "side", "point": [60, 40], "along": True, "across": True}
    pieces = [{**PAIR, "match": [both]}, rectangle("band", 300, 80, centre_on_axis="x", copies=2)]
    return problem(pieces, width=1000, folds=[fold], bars=BARS)


CASES: dict[str, dict[str, Any]] = {
    "plaid": plaid("open"),
    "plaid folded": plaid("lengthwise"),
    "border": problem(
        [
            rectangle("panel", 300, 200, border={"edge": "hem", "selvage": "low", "distance": 20}),
            rectangle("plain", 300, 200, fixed={"x": 300, "y": 400, "turn": 0, "mirrored": False}),
        ],
        width=900,
        blocked=[[0, 0, 2000, 90], [500, 700, 520, 720]],
        gap=4.0,
    ),
    "partial": problem([rectangle("back", 400, 150, on_fold=True), PAIR], width=900, folds=["partial"]),
    "double": problem([rectangle("back", 400, 150, on_fold=True), PAIR], width=900, folds=["double"]),
    "crosswise": problem([PAIR, rectangle("band", 300, 80, copies=2)], width=500, folds=["crosswise"]),
    "combination": problem([PAIR, rectangle("wide", 300, 900)], width=1000, folds=["combination"]),
}


def _cut(lay: dict[str, Any], piece: str, **change: float) -> None:
    """Move a copy, and what is pinned for it too, so that only the rule itself is broken."""
    for entry in (*lay["cut"], *lay["laid"]):
        if entry["piece"] == piece:
            for key, by in change.items():
                entry[key] += by


MORE: list[tuple[str, str, Callable[[dict[str, Any], dict[str, Any]], Any]]] = [
    ("plaid", "do not meet along the bars", lambda p, lay: entry(lay, "front").update(x=entry(lay, "front")["x"] + 7)),
    ("plaid", "do not meet across the bars", lambda p, lay: entry(lay, "front").update(y=entry(lay, "front")["y"] + 7)),
    (
        "plaid",
        "do not meet along",
        lambda p, lay: p["pieces"][0]["match"][0].update(phase=[lay["cut"][0]["x"] + 77, None]),
    ),
    ("plaid", "not centred on a mirror axis", lambda p, lay: entry(lay, "band").update(y=entry(lay, "band")["y"] + 4)),
    ("plaid", "do not meet across", lambda p, lay: p["cloth"]["bars"].update(y_axes=[11])),
    ("plaid folded", "does not lie on a mirror axis", lambda p, lay: lay["sections"][0].update(fold_at=[509.0])),
    ("border", "has its hem", lambda p, lay: _cut(lay, "panel", y=3)),
    ("border", "has its hem", lambda p, lay: p["pieces"][0]["border"].update(distance=31)),
    ("border", "lies on the blocked area", lambda p, lay: _cut(lay, "plain", y=-395)),
    (
        "border",
        "nearer than the gap of 4 mm to a blocked",
        lambda p, lay: p["cloth"]["blocked"].append([400, 601, 420, 640]),
    ),
    ("border", "was fixed at 300, 400 mm and is not there", lambda p, lay: _cut(lay, "plain", x=2)),
    ("border", "grain does not allow", lambda p, lay: entry(lay, "panel").update(turn=270)),
    ("border", "lies on the blocked area", lambda p, lay: p["pieces"][0].pop("border")),
    ("border", "fixed at y = 100 mm and is not", lambda p, lay: p["pieces"][1]["fixed"].update(y=100, slides=True)),
    (
        "border",
        "fixed at y = 400 mm and is not there",
        # two may slide there, and there is one
        lambda p, lay: p["pieces"][1].update(copies=1, fixed=[{**p["pieces"][1]["fixed"], "slides": True}] * 2),
    ),
    (
        "border",
        "lies on the blocked area that begins at 250, 300 mm",
        lambda p, lay: p["cloth"]["blocked"].append([[250, 300], [700, 500], [250, 700]]),
    ),
    (
        "border",
        "nearer than the gap of 4 mm to a blocked",
        # the corner of a triangle, 2 mm from where the fixed piece begins
        lambda p, lay: p["cloth"]["blocked"].append([[298, 500], [200, 450], [200, 550]]),
    ),
    ("partial", "lies where the cloth cannot be folded", lambda p, lay: lay["sections"][0].update(fold_at=[600.0])),
    ("partial", "does not lie on it", lambda p, lay: _cut(lay, "back", y=30)),
    (
        "partial",
        "on two layers where the cloth lies in one",
        lambda p, lay: lay["sections"][0].update(fold="open", fold_at=[]),
    ),
    ("double", "meeting line", lambda p, lay: lay["laid"].append({**lay["laid"][-1], "y": 400.0, "layers": 1})),
    ("double", "a quarter of the width", lambda p, lay: lay["sections"][0].update(fold_at=[200.0, 675.0])),
    ("double", "has 2 fold lines", lambda p, lay: lay["sections"][0].update(fold_at=[225.0])),
    ("crosswise", "in the middle of its section", lambda p, lay: lay["sections"][0].update(fold_at=[90.0])),
    ("crosswise", "cannot be folded crosswise", lambda p, lay: p["cloth"].update(one_way=True)),
    (
        "crosswise",
        "pinned over the end of its section",
        lambda p, lay: lay["laid"][0].update(x=lay["laid"][0]["x"] + 500),
    ),
    ("combination", "do not follow one another", lambda p, lay: lay["sections"][-1].update({"from": 5.0})),
    ("combination", "do not add up to the length", lambda p, lay: lay["sections"][-1].update(to=lay["length"] + 9)),
    ("combination", "belongs to no piece or section", lambda p, lay: lay["laid"][0].update(section=7)),
    ("combination", "are not the same", lambda p, lay: lay["laid"][0].update(x=lay["laid"][0]["x"] + 1.5)),
]


@pytest.fixture(scope="module")
def lays() -> dict[str, tuple[dict[str, Any], dict[str, Any]]]:
    return {name: lay_of(data) for name, data in CASES.items()}


@pytest.mark.parametrize(("case", "says", "break_it"), MORE, ids=[f"{i}-{b[0]}-{b[1]}" for i, b in enumerate(MORE)])
def test_every_further_rule_is_noticed(
    lays: dict[str, tuple[dict[str, Any], dict[str, Any]]],
    case: str,
    says: str,
    break_it: Callable[[dict[str, Any], dict[str, Any]], Any],
) -> None:
    data, lay = copy.deepcopy(lays[case])
    break_it(data, lay)
    assert any(says in fault for fault in check_lay(data, lay)), check_lay(data, lay)


def test_several_sections_need_a_combination() -> None:
    data, lay = lay_of(CASES["combination"])
    half = lay["length"] / 2
    lay["sections"] = [
        {"from": 0.0, "to": half, "fold": "open", "fold_at": []},
        {"from": half, "to": lay["length"], "fold": "open", "fold_at": []},
    ]
    assert any("several sections" in f for f in check_lay({**data, "folds": ["open"]}, lay))


def test_a_fixed_copy_told_without_its_turn_and_side_lies_as_it_is_drawn() -> None:
    data = problem([rectangle("a", 300, 200, fixed={"x": 100, "y": 50}), PAIR], width=900)
    data, lay = lay_of(data)
    fixed = entry(lay, "a")
    assert (fixed["turn"], fixed["mirrored"]) == (0, False)
    fixed["mirrored"] = True
    assert any("was fixed at 100, 50 mm and is not there" in fault for fault in check_lay(data, lay))


def test_where_the_bars_have_no_axis_a_mirrored_copy_meets_nothing() -> None:
    data, lay = lay_of(plaid("open"))
    data["cloth"]["bars"] = {**data["cloth"]["bars"], "y_axes": []}
    first = [e for e in lay["cut"] if e["piece"] == "front"]
    lay["cut"].sort(key=lambda e: not e["mirrored"])
    assert any(e["mirrored"] for e in first)
    assert any("front" in fault and "do not meet across the bars" in fault for fault in check_lay(data, lay))
