"""Matching, on cases worked by hand beside each assertion."""

from __future__ import annotations

import random
from typing import Any

import pytest

from idle_selvage.core.lay.answer import Cut, to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.engine.draws import generator
from idle_selvage.core.lay.engine.matching import Matching
from idle_selvage.core.lay.problem import BadProblem
from idle_selvage.core.lay.reading import read_problem

from ..lay_cases import problem, rectangle
from .test_folds import best, lay


def match(group: str, point: list[float], **more: Any) -> dict[str, Any]:
    return {"group": group, "point": point, **more}


def cuts(made: Any, piece: str) -> list[Cut]:
    return [c for c in made.cut if c.piece == piece]


def test_along_a_piece_waits_for_its_bar() -> None:
    # too wide to lie side by side: 100 mm pieces at 0, 120 and 240, for 60 mm bars; free they would take 300
    piece = rectangle("a", 100, 600, copies=3, match=[match("hem", [0, 0], along=True)])
    made = best(problem([piece], bars={"x_repeat": 60, "x_axes": [0]}))
    assert made.length == pytest.approx(340, abs=0.1)
    assert sorted(c.x for c in made.cut) == pytest.approx([0, 120, 240], abs=0.1)


def test_a_given_phase_costs_what_it_costs() -> None:
    # the bar is at 25: the first piece begins there, and the second at 25 + 120
    piece = rectangle("a", 100, 600, copies=2, match=[match("hem", [0, 0], along=True, phase=25)])
    made = best(problem([piece], bars={"x_repeat": 60, "x_axes": [0]}))
    assert made.length == pytest.approx(245, abs=0.1)


def test_pieces_of_one_group_meet_at_their_points() -> None:
    # the sleeve's point lies 30 mm along, the body's 10: wherever one is, the other is 20 mm off in the repeat
    body = rectangle("body", 200, 600, match=[match("underarm", [10, 0], along=True)])
    sleeve = rectangle("sleeve", 150, 600, match=[match("underarm", [30, 0], along=True)])
    made = best(problem([body, sleeve], bars={"x_repeat": 70, "x_axes": [0]}), 30_000)
    gone = (cuts(made, "body")[0].x + 10 - cuts(made, "sleeve")[0].x - 30) % 70
    assert min(gone, 70 - gone) < 0.1
    # sleeve first: 150 long, its point at 30; the body's point must be at 30 + 70 k, so it begins at 160
    # body first: its point at 10, so the sleeve begins at 10 + 70 k − 30 ≥ 200, at 260: longer. 160 + 200 = 360
    assert made.length == pytest.approx(360, abs=0.2)


def test_two_groups_keep_their_own_phases() -> None:
    pieces = [
        rectangle("a", 100, 600, copies=2, match=[match("one", [0, 0], along=True, phase=0)]),
        rectangle("b", 100, 600, copies=2, match=[match("two", [0, 0], along=True, phase=30)]),
    ]
    made = best(problem(pieces, bars={"x_repeat": 60, "x_axes": [0]}))
    assert all(c.x % 60 < 0.1 or c.x % 60 > 59.9 for c in cuts(made, "a"))
    assert all(abs(c.x % 60 - 30) < 0.1 for c in cuts(made, "b"))


def test_across_mirrored_copies_lie_mirrored_about_an_axis() -> None:
    piece = {
        "id": "front",
        "outline": [[0, 0], [500, 0], [450, 180], [0, 200]],
        "copies": 2,
        "pair": True,
        "match": [match("bar", [100, 50], across=True)],
    }
    made = best(problem([piece], bars={"y_repeat": 80, "y_axes": [12]}))
    plain = next(c for c in made.cut if not c.mirrored)
    mirrored = next(c for c in made.cut if c.mirrored)
    # point at y + 50 on the one and y − 50 on the other; together twice an axis, give or take repeats
    gone = ((plain.y + 50) + (mirrored.y - 50) - 2 * 12) % 80
    assert min(gone, 80 - gone) < 0.1


def test_a_plaid_matches_both_ways_without_losing_contact() -> None:
    # 120 × 100 mm on 60 × 50 mm bars: they tile, and must
    piece = rectangle("a", 120, 100, copies=8, match=[match("m", [0, 0], along=True, across=True)])
    made = best(problem([piece], width=400, bars={"x_repeat": 60, "y_repeat": 50, "x_axes": [0], "y_axes": [0]}))
    assert made.length == pytest.approx(240, abs=0.1)


def test_a_centred_piece_lies_on_an_axis() -> None:
    piece = {"id": "back", "outline": [[0, -150], [500, -150], [500, 150], [0, 150]], "centre_on_axis": "x"}
    made = best(problem([piece], width=500, bars={"y_repeat": 70, "y_axes": [10]}))
    assert (made.cut[0].y - 10) % 70 == pytest.approx(0, abs=0.1)
    none = {"id": "back", "outline": [[0, -150], [500, -150], [500, 150], [0, 150]], "centre_on_axis": "x"}
    with pytest.raises(BadProblem, match="no place across"):
        # axes at 10 and 210 only; the piece needs 150 on either side of one, within 310
        lay(problem([none], width=310, bars={"y_repeat": 200, "y_axes": [10]}))


def test_a_centred_piece_ties_its_group_to_the_axes() -> None:
    back = {
        "id": "back",
        "outline": [[0, -100], [300, -100], [300, 100], [0, 100]],
        "centre_on_axis": "x",
        "match": [match("side", [50, 100], across=True)],
    }
    asked = read_problem(problem([back], bars={"y_repeat": 80, "y_axes": [12]}))
    matching = Matching(asked)
    # the axis and 100 mm more: 112, which is 32 in the repeat
    assert [root.choices for root in matching.roots] == [[pytest.approx(32)]] and not matching.free


def test_points_that_contradict_one_another_are_told() -> None:
    a = rectangle("a", 300, 100, match=[match("one", [0, 0], along=True), match("two", [20, 0], along=True)])
    b = rectangle("b", 300, 100, match=[match("one", [0, 0], along=True), match("two", [35, 0], along=True)])
    with pytest.raises(BadProblem, match="cannot both match"):
        lay(problem([a, b], bars={"x_repeat": 60, "x_axes": [0]}))


def test_phases_that_contradict_one_another_are_told() -> None:
    a = rectangle("a", 300, 100, match=[match("one", [0, 0], along=True, phase=5)])
    b = rectangle("b", 300, 100, match=[match("one", [0, 0], along=True, phase=9)])
    with pytest.raises(BadProblem, match="different places on the bars"):
        lay(problem([a, b], bars={"x_repeat": 60, "x_axes": [0]}))


def test_unbalanced_along_is_one_way() -> None:
    piece = {"id": "a", "outline": [[0, 0], [300, 40], [300, 160], [0, 200]], "copies": 6}
    unbalanced = best(problem([piece], bars={"x_repeat": 60, "x_axes": []}))
    assert {c.turn for c in unbalanced.cut} == {0}
    balanced = best(problem([piece], bars={"x_repeat": 60, "x_axes": [0]}), 1500)
    assert {c.turn for c in balanced.cut} == {0, 180} and balanced.length <= unbalanced.length + 0.1


def test_unbalanced_across_cannot_mirror() -> None:
    piece = rectangle("a", 300, 100, copies=2, pair=True, match=[match("m", [0, 0], across=True)])
    with pytest.raises(BadProblem, match="a mirrored pair cannot match"):
        read_problem(problem([piece], bars={"y_repeat": 60, "y_axes": []}))
    turned_over = problem([piece], bars={"y_repeat": 60, "y_axes": []}, reversible=True)
    assert not any(c.mirrored for c in best(turned_over).cut), "turned over, the sequence runs on round the body"


def test_a_fixed_piece_sets_the_phase_of_its_group() -> None:
    a = rectangle("a", 300, 100, fixed={"x": 13, "y": 0, "turn": 0}, match=[match("m", [0, 0], along=True)])
    b = rectangle("b", 300, 600, match=[match("m", [0, 0], along=True)])
    made = best(problem([a, b], width=650, bars={"x_repeat": 60, "x_axes": [0]}))
    assert cuts(made, "a")[0].x == 13 and (cuts(made, "b")[0].x - 13) % 60 == pytest.approx(0, abs=0.1)


def test_a_free_phase_is_mostly_one_at_which_pieces_lie_flush() -> None:
    piece = rectangle("a", 100, 600, copies=3, match=[match("hem", [37, 0], along=True)])
    # bars that read differently up and down: nothing is turned, so no phase is pinned to an axis
    matching = Matching(read_problem(problem([piece], bars={"x_repeat": 60, "x_axes": []})))
    rng = generator(3)
    phases = [matching.choose(rng)[0] for _ in range(200)]
    flush = sum(abs(p.value - 37) < 0.1 for p in phases)
    assert matching.free and 100 < flush < 180 and not any(p.pinned for p in phases)


def wedge(**more: Any) -> dict[str, Any]:
    """300 long, 150 wide at its low end and 50 at its top: two of them fit into 200 when one is turned."""
    outline = [[0, 0], [300, 0], [300, 50], [0, 150]]
    return {"id": "wedge", "outline": outline, "copies": 2, "match": [match("hem", [0, 0], along=True)], **more}


def test_balanced_bars_let_a_piece_be_turned_where_its_point_lies_on_an_axis() -> None:
    # upright at 0, turned about 300: both points at a multiple of 60, on the axis at 0
    made = best(problem([wedge()], width=200, bars={"x_repeat": 60, "x_axes": [0, 30]}))
    assert made.length == pytest.approx(300, abs=0.1)
    assert sorted(c.turn for c in made.cut) == [0, 180]


@pytest.mark.parametrize(
    "bars",
    [
        {"x_repeat": 60, "x_axes": []},
        # the point is held half way between the axes, where a turned piece would meet at its point only
        {"x_repeat": 60, "x_axes": [0, 30], "phase": 15},
    ],
)
def test_elsewhere_tops_stay_up(bars: dict[str, Any]) -> None:
    phase = bars.get("phase")
    given = {} if phase is None else {"match": [match("hem", [0, 0], along=True, phase=phase)]}
    cloth = {k: v for k, v in bars.items() if k != "phase"}
    made = best(problem([wedge(**given)], width=200, bars=cloth))
    assert {c.turn for c in made.cut} == {0} and made.length >= 600 - 0.1


ACROSS = {"match": [match("side", [0, 0], across=True)]}
BOTH = {"match": [match("side", [0, 0], along=True, across=True)]}


@pytest.mark.parametrize(
    ("more", "bars"),
    [
        (ACROSS, {"y_repeat": 60, "y_axes": [0, 30]}),
        (BOTH, {"x_repeat": 60, "x_axes": [0, 30], "y_repeat": 60, "y_axes": [0, 30]}),
        # across the cloth it is not asked to meet, so there its bars need no axis
        (ACROSS, {"x_repeat": 60, "x_axes": [0, 30], "y_repeat": 60, "y_axes": [0, 30]}),
    ],
)
def test_bars_balanced_the_other_way_let_a_piece_be_turned_too(more: dict[str, Any], bars: dict[str, Any]) -> None:
    # upright at 0; turned it needs 200 beside it, and the next place at which its point lies on a bar is 240
    made = best(problem([wedge(**more)], width=240, bars=bars))
    assert made.length == pytest.approx(300, abs=0.1)
    assert sorted(c.turn for c in made.cut) == [0, 180]


@pytest.mark.parametrize(
    ("more", "bars"),
    [
        (ACROSS, {"y_repeat": 60, "y_axes": []}),
        # balanced along, and not across, where it has to meet as well
        (BOTH, {"x_repeat": 60, "x_axes": [0, 30], "y_repeat": 60, "y_axes": []}),
        # the point is held between two axes
        ({"match": [match("side", [0, 0], across=True, phase=15)]}, {"y_repeat": 60, "y_axes": [0, 30]}),
    ],
)
def test_where_one_way_is_not_balanced_tops_stay_up(more: dict[str, Any], bars: dict[str, Any]) -> None:
    made = best(problem([wedge(**more)], width=240, bars=bars))
    # one behind the other; along, where they need not meet, their slants reach a little into one another
    assert {c.turn for c in made.cut} == {0} and made.length > 500


@pytest.mark.parametrize(
    ("more", "bars"),
    [
        (ACROSS, {"y_repeat": 60, "y_axes": []}),
        (BOTH, {"x_repeat": 60, "x_axes": [], "y_repeat": 60, "y_axes": []}),
        ({"match": [match("side", [0, 0], across=True, phase=15)]}, {"y_repeat": 60, "y_axes": [0, 30]}),
    ],
)
def test_the_maker_may_allow_turning_on_any_bars(more: dict[str, Any], bars: dict[str, Any]) -> None:
    # 15 of the width are lost before the phase that is given
    asked = {**problem([wedge(**more)], width=255, bars=bars), "turn_on_bars": True}
    made = best(asked)
    assert made.length == pytest.approx(300, abs=0.1)
    assert sorted(c.turn for c in made.cut) == [0, 180]
    refused = check_lay({**asked, "turn_on_bars": False}, to_json(made))
    assert any("grain does not allow" in fault for fault in refused) == bool(bars.get("x_repeat"))


def test_nap_is_never_turned_whatever_is_wished_of_the_bars() -> None:
    asked = problem([wedge(**ACROSS)], width=255, bars={"y_repeat": 60, "y_axes": []}, one_way=True)
    assert {c.turn for c in best({**asked, "turn_on_bars": True}).cut} == {0}
    folded = problem([wedge(copies=2)], width=400, folds=["crosswise"], bars={"x_repeat": 60, "x_axes": []})
    with pytest.raises(BadProblem, match="against it"):
        lay({**folded, "turn_on_bars": True})


@pytest.mark.parametrize("seed", range(16))
def test_every_piece_turned_on_stripes_or_a_check_lies_on_their_axes(seed: int) -> None:
    rng = random.Random(100 + seed)
    bars: dict[str, Any] = {}
    for axis in ("x", "y"):
        if axis == "y" or seed % 2:
            repeat = rng.uniform(40, 90)
            first = rng.uniform(0, repeat / 2)
            bars |= {f"{axis}_repeat": repeat, f"{axis}_axes": [first, first + repeat / 2]}
    both = {"along": bool(seed % 2), "across": True}
    pieces = []
    for n in range(3):
        long, low, top = rng.uniform(150, 400), rng.uniform(80, 200), rng.uniform(30, 80)
        outline = [[0, -low / 2], [long, -top / 2], [long, top / 2], [0, low / 2]]
        point = [rng.uniform(0, long), rng.uniform(-top, top) / 2]
        group = rng.choice(["one", "two"])
        pair = rng.random() < 0.3
        pieces.append({"id": f"p{n}", "outline": outline, "copies": 2 + pair * 2, "pair": pair,
                       "match": [match(group, point, **both)]})  # fmt: skip
    asked = problem(pieces, width=520, bars=bars, gap=2.0)
    made = best(asked, 3_000)
    points = {p["id"]: p["match"][0]["point"] for p in asked["pieces"]}
    turned = [cut for cut in made.cut if cut.turn == 180]
    for cut in turned:
        x, y = points[cut.piece]
        at = {"x": cut.x - x, "y": cut.y + (y if cut.mirrored else -y)}
        for axis, place in at.items():
            if f"{axis}_repeat" in bars:
                length, axes = bars[f"{axis}_repeat"], bars[f"{axis}_axes"]
                assert min(min((place - a) % length, (a - place) % length) for a in axes) < 0.1
    assert seed > 1 or turned, "the first two of them do turn some"


@pytest.mark.parametrize("seed", range(12))
def test_every_turned_piece_lies_on_an_axis(seed: int) -> None:
    rng = random.Random(seed)
    repeat = rng.uniform(40, 90)
    axes = [rng.uniform(0, repeat / 2)]
    axes.append(axes[0] + repeat / 2)
    pieces = []
    for n in range(3):
        long, low, top = rng.uniform(150, 400), rng.uniform(80, 200), rng.uniform(30, 80)
        outline = [[0, 0], [long, (low - top) / 2], [long, (low + top) / 2], [0, low]]
        point = [rng.uniform(0, long), 0]
        group = rng.choice(["one", "two"])
        pieces.append({"id": f"p{n}", "outline": outline, "copies": 3, "match": [match(group, point, along=True)]})
    asked = problem(pieces, width=420, bars={"x_repeat": repeat, "x_axes": axes}, gap=2.0)
    made = best(asked, 3_000)
    points = {p["id"]: p["match"][0]["point"][0] for p in asked["pieces"]}
    turned = 0
    for cut in made.cut:
        if cut.turn == 180:
            turned += 1
            at = cut.x - points[cut.piece]
            assert min(min((at - a) % repeat, (a - at) % repeat) for a in axes) < 0.1
    assert seed or turned, "the first of them does turn some"
