"""The search on one strip, the lanes, the sections and the second process, each on its own."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from benchmarks import chart, garments, jigsaws
from shapely.geometry import Polygon

from idle_selvage.core.lay.engine.divisions import expected
from idle_selvage.core.lay.engine.folds import ways
from idle_selvage.core.lay.engine.lanes import FoldLane
from idle_selvage.core.lay.engine.matching import Matching
from idle_selvage.core.lay.engine.search import Found, StripSearch
from idle_selvage.core.lay.engine.sections import CombinationLane
from idle_selvage.core.lay.engine.solver import Lanes
from idle_selvage.core.lay.engine.strips import CannotFold
from idle_selvage.core.lay.problem import Problem
from idle_selvage.core.lay.reading import read_problem

from ..lay_cases import problem, rectangle, shirt, strip_of

WEDGE = [[0, 0], [400, 0], [300, 150], [0, 220]]


def overlaps(search: StripSearch) -> int:
    """Pairs of placed outlines that share more than the tolerance."""
    assert search.best is not None
    shapes = [Polygon(p.variant.ring + np.array([p.x, p.y])).buffer(-0.05) for p in search.best.placed]
    return sum(a.intersects(b) for k, a in enumerate(shapes) for b in shapes[:k])


def test_every_batch_leaves_a_lay_that_does_not_overlap_and_is_no_longer() -> None:
    search = StripSearch(strip_of(shirt(), "open"), 5)
    assert search.first() and search.best is not None
    lengths = [search.best.length]
    for _ in range(120):
        if search.batch():
            assert overlaps(search) == 0
        lengths.append(search.best.length)
    assert lengths == sorted(lengths, reverse=True) and lengths[-1] < lengths[0] * 0.97


def test_the_guided_search_beats_the_order_search_by_far() -> None:
    data = garments.garment("gored skirt", 3)
    search = StripSearch(strip_of(data, "open"), 1)
    search.first()
    assert search.best is not None
    first = search.best.length
    while search.steps < 4000:
        search.batch()
    assert search.best.length < first * 0.96 and overlaps(search) == 0


def test_a_limit_leaves_out_what_does_not_fit() -> None:
    strip = strip_of(problem([rectangle("a", 300, 600, copies=3)]), "open")
    search = StripSearch(strip, 1, limit=650.0)
    search.first()
    assert search.best is not None and search.best.rank == (1, 600.0)


def test_a_lay_from_elsewhere_is_taken_over_only_when_it_is_better() -> None:
    strip = strip_of(shirt(), "open")
    one, two = StripSearch(strip, 1), StripSearch(strip, 2)
    one.first()
    two.first()
    for _ in range(200):
        one.batch()
    assert one.best is not None and two.best is not None and one.best.length < two.best.length
    assert not one.adopt(two.best) and two.adopt(one.best)
    for _ in range(60):
        two.batch()
    assert two.best.length <= one.best.length and overlaps(two) == 0
    assert not two.offer(one.best.placed[::-1]) or two.best.length < one.best.length


def test_a_part_without_any_place_is_told() -> None:
    piece = rectangle("a", 200, 195, match=[{"group": "g", "point": [0, 0], "across": True, "phase": 100}])
    strip = strip_of(problem([piece], width=250, bars={"y_repeat": 200, "y_axes": [0]}), "open")
    with pytest.raises(CannotFold, match="no place across"):
        StripSearch(strip, 1)


@pytest.mark.parametrize("fold", ["open", "lengthwise", "partial", "double", "crosswise"])
def test_a_lane_makes_what_it_says(fold: str) -> None:
    data = problem([{"id": "a", "outline": WEDGE, "copies": 4, "pair": True}], width=1100, folds=[fold])
    lane = FoldLane(read_problem(data), fold, 1)
    lane.first()
    before = lane.outcome()
    for _ in range(80):
        lane.batch()
    after = lane.outcome()
    assert after.rank <= before.rank and len(after.cut) == 4 and lane.steps > 80
    assert after.sections[0].end == pytest.approx(after.score) and after.sections[0].fold == fold
    other = FoldLane(read_problem(data), fold, 2)
    other.first()
    other.adopt(after)
    assert other.outcome().rank <= max(before.rank, after.rank)


def test_partial_folds_try_every_depth_that_is_worth_it() -> None:
    pieces = [rectangle(f"p{k}", 300, d, on_fold=True) for k, d in enumerate((120, 180, 250))]
    tried = [way.fold_at[0] for way in ways(read_problem(problem(pieces, width=1000)), "partial")]
    # and the deepest there is: selvage to selvage, or as near to it as a bar allows
    assert tried == [500.0, 250.0, 180.0, 120.0]
    bars = {"y_repeat": 100, "y_axes": [0]}
    on_bars = ways(read_problem(problem(pieces, width=1000, bars=bars)), "partial")
    assert [way.fold_at[0] for way in on_bars] == [500.0, 300.0, 200.0]


def test_sections_move_copies_while_the_whole_gets_shorter() -> None:
    pieces: list[dict[str, Any]] = [
        {"id": "pair", "outline": WEDGE, "copies": 6, "pair": True},
        rectangle("wide", 250, 800),
        rectangle("back", 500, 230, on_fold=True),
    ]
    lane = CombinationLane(read_problem(problem(pieces, width=1000, folds=["combination"])), 4)
    lane.first()
    first = lane.score
    for _ in range(150):
        lane.batch()
    made = lane.outcome()
    assert lane.score <= first and made.score == pytest.approx(lane.score, abs=0.01)
    assert sum(c.piece == "pair" for c in made.cut) == 6 and len(made.cut) == 8
    assert [s.start for s in made.sections[1:]] == [s.end for s in made.sections[:-1]]


def two_folds(**cloth: Any) -> Problem:
    pieces: list[dict[str, Any]] = [
        {"id": "pair", "outline": WEDGE, "copies": 4, "pair": True},
        rectangle("wide", 250, 800),
        rectangle("back", 500, 230, on_fold=True),
    ]
    return read_problem(problem(pieces, width=1000, folds=["combination"], **cloth))


def test_what_a_division_may_come_to_is_told_from_its_areas() -> None:
    lane = CombinationLane(two_folds(), 1)
    assert [way.fold for way in lane.kinds] == ["lengthwise", "open"]
    everything = {"pair": 4, "wide": 1, "back": 1}
    nothing = dict.fromkeys(everything, 0)
    wedge = abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(WEDGE, [*WEDGE[1:], WEDGE[0]], strict=True))) / 2
    # two of a pair on two layers are one part, a piece on the fold is its half, a single one lies on one layer
    folded = (2 * wedge + 250 * 800 + 500 * 230) / (500 * 0.85)
    opened = (4 * wedge + 250 * 800 + 2 * 500 * 230) / (1000 * 0.85)
    assert expected(lane.problem, lane.kinds, (everything, nothing)) == pytest.approx(folded)
    assert expected(lane.problem, lane.kinds, (nothing, everything)) == pytest.approx(max(opened, 500))
    # never shorter than the longest piece in it
    back = {**nothing, "back": 1}
    assert expected(lane.problem, lane.kinds, (back, nothing)) == pytest.approx(500)


def test_what_gains_nothing_by_two_layers_lies_open_in_every_division() -> None:
    lane = CombinationLane(two_folds(), 1)
    assert lane.queue, "there is something to divide"
    lengths = [expected(lane.problem, lane.kinds, shares) for shares in lane.queue]
    assert lengths == sorted(lengths)
    for folded, opened in lane.queue:
        assert folded["wide"] == 0 and opened["wide"] == 1
        assert any(folded.values()), "one section alone is tried anyway"
        assert all(folded[p] + opened[p] == n for p, n in {"pair": 4, "wide": 1, "back": 1}.items())


@pytest.mark.parametrize("blocked", [[], [[100, 0, 150, 60]]])
def test_a_race_of_divisions_never_loses_its_best(blocked: list[list[float]]) -> None:
    lane = CombinationLane(two_folds(blocked=blocked), 3)
    lane.first()
    seen, scores, sections = 0, [lane.score], set()
    for _ in range(700):
        better = lane.batch()
        assert better == (lane.score < scores[-1] - 1e-6)
        assert lane.score <= scores[-1] + 1e-9
        scores.append(lane.score)
        seen = max(seen, len(lane.pool))
        sections |= {sum(s is not None for s in one.searches) for one in lane.pool}
    assert seen > 1 and sections == {1, 2}, "several divisions were in the race"
    assert lane.score == min(scores) == pytest.approx(lane.outcome().sections[-1].end)
    assert len(lane.outcome().cut) == 6


def test_phases_are_searched_by_rivals() -> None:
    match = [{"group": "m", "point": [30, 0], "along": True}]
    pieces = [
        rectangle("body", 200, 600, match=[{**match[0], "point": [10, 0]}]),
        rectangle("s", 150, 600, match=match),
    ]
    lane = FoldLane(read_problem(problem(pieces, bars={"x_repeat": 70, "x_axes": [0]})), "open", 1)
    assert lane.many and Matching(lane.problem).free
    lane.first()
    for _ in range(600):
        lane.batch()
    assert lane.outcome().score == pytest.approx(360, abs=0.2)


def asked() -> Problem:
    return read_problem(shirt())


def test_lanes_keep_the_better_of_what_they_are_offered() -> None:
    one, two = Lanes(asked(), 1), Lanes(asked(), 2)
    for _ in range(60):
        two.slice()
    for outcome in two.best.values():
        taken = one.adopt(outcome)
        assert taken == (one.best[outcome.fold] is outcome)
    assert all(one.best[f].rank <= two.best[f].rank for f in one.best)


@pytest.mark.parametrize("kind", sorted(garments.KINDS))
def test_measured_garments_are_problems(kind: str) -> None:
    data = garments.garment(kind, 17)
    read = read_problem(data)
    assert sum(p.copies for p in read.pieces) == garments.copies(data) >= 10
    assert garments.garment(kind, 17) == data != garments.garment(kind, 18)


@pytest.mark.parametrize("kind", jigsaws.KINDS)
def test_jigsaws_need_just_the_length_they_say(kind: str) -> None:
    data, length = jigsaws.jigsaw(kind, 21)
    read = read_problem(data)
    area = sum(Polygon(p.outline).area * p.copies for p in read.pieces)
    hole = sum((b[2] - b[0]) * (b[3] - b[1]) for b in read.blocked)
    assert area + hole == pytest.approx(length * read.width, rel=1e-6)
    less, _ = jigsaws.jigsaw(kind, 21, kerf=1.5, left_out=1)
    assert len(less["pieces"]) == len(data["pieces"]) - 1


def test_the_chart_shows_every_kind() -> None:
    values = {"one": [0.97, 0.99], "two": [1.0]}
    drawn = chart.chart({"garments": {"ratios": values}, "jigsaws": {"whole": values, "kerf": values}})
    assert drawn.startswith("<svg") and drawn.count(">one<") == 3 and drawn.count("<circle") == 9


def test_found_ranks_by_what_is_left_out_first() -> None:
    assert Found((), 500.0, (1,)).rank > Found((), 900.0).rank > Found((), 800.0).rank
