"""The curve through measured points."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely.geometry import LineString

from idle_selvage.core.plan.curve import Pin, chords, closed_run


def ring_of(pins: list[Pin]) -> list[tuple[float, float]]:
    return [p for run in closed_run(pins) for p in run]


@given(st.floats(40, 600), st.integers(3, 12), st.floats(0, 60))
def test_points_on_an_arc_give_the_arc(radius: float, between: int, turn: float) -> None:
    """A quarter with corners at both ends, read every 7 to 22 degrees, begun anywhere.

    A stretch may go past the box of its ends by 1.5 mm for certain (its control points by 2 mm), so an arc is told to
    half a millimetre by readings between which it rises by less than 2 mm.
    """

    def at(degrees: float) -> tuple[float, float]:
        return radius * math.cos(math.radians(degrees)), radius * math.sin(math.radians(degrees))

    assume(radius * (1.0 - math.cos(math.radians(45.0 / (between + 1)))) <= 1.95)
    angles = [turn + 90.0 * i / (between + 1) for i in range(between + 2)]
    pins = [Pin(at(a), i not in (0, between + 1)) for i, a in enumerate(angles)] + [Pin((0.0, 0.0))]
    for run in closed_run(pins)[: between + 1]:
        for p in run:
            assert abs(math.hypot(*p) - radius) <= 0.5


@pytest.mark.parametrize(
    "control",
    [
        ((620, 327), (620, 290), (650, 221), (700, 221)),
        ((0, 0), (0, 95), (95, 130), (95, 235)),
        ((0, 0), (0, 60), (140, 60), (140, 0)),
    ],
)
@pytest.mark.parametrize("between", [6, 9, 14])
def test_points_on_a_drafted_curve_give_the_curve(control: tuple[tuple[float, float], ...], between: int) -> None:
    dense = LineString([*chords(control, 0.001), control[-1]])
    places = [dense.interpolate(i / (between + 1), normalized=True) for i in range(between + 2)]
    pins = [Pin((p.x, p.y), 0 < i < between + 1) for i, p in enumerate(places)]
    drawn = LineString([*[p for run in closed_run(pins)[: between + 1] for p in run], control[-1]])
    assert drawn.hausdorff_distance(dense) <= 0.5


readings = st.lists(st.tuples(st.floats(15, 120), st.floats(20, 300)), min_size=3, max_size=9)


@given(readings)
def test_a_piece_is_nowhere_wider_than_it_was_read(read: list[tuple[float, float]]) -> None:
    along, pins = 0.0, []
    for i, (step, across) in enumerate(read):
        along += step
        pins.append(Pin((along, across), 0 < i < len(read) - 1))
    pins += [Pin((along, -10.0)), Pin((read[0][0], -10.0))]
    for (a, b), run in zip(zip(pins, [*pins[1:], pins[0]], strict=True), closed_run(pins), strict=True):
        assert run[0] == a.at, "it passes through every point"
        for x, y in run:
            for value, ends in ((x, (a.at[0], b.at[0])), (y, (a.at[1], b.at[1]))):
                # 2 mm past the box of its two ends, and a hair of rounding
                assert min(ends) - 2.001 <= value <= max(ends) + 2.001


@given(readings)
def test_it_bends_twice_only_where_its_points_do(read: list[tuple[float, float]]) -> None:
    along, pins = 0.0, []
    for i, (step, across) in enumerate(read):
        along += step
        pins.append(Pin((along, across), 0 < i < len(read) - 1))
    pins += [Pin((along, -500.0)), Pin((read[0][0], -500.0))]
    ways = [math.atan2(b.at[1] - a.at[1], b.at[0] - a.at[0]) for a, b in itertools.pairwise(pins)]
    for i, run in enumerate(closed_run(pins)[: len(read) - 1]):
        line = [*run, pins[i + 1].at]
        turns = [_turn(a, b, c) for a, b, c in zip(line, line[1:], line[2:], strict=False)]
        turns = [t for t in turns if abs(t) > 1e-9]
        changes = sum((a > 0) != (b > 0) for a, b in itertools.pairwise(turns))
        before = _between(ways[i - 1], ways[i]) if i > 0 else 0.0
        after = _between(ways[i], ways[i + 1]) if i < len(read) - 2 else 0.0
        assert changes <= (1 if before * after < 0 else 0)


def _turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return _between(math.atan2(b[1] - a[1], b[0] - a[0]), math.atan2(c[1] - b[1], c[0] - b[0]))


def _between(a: float, b: float) -> float:
    return (b - a + math.pi) % (2 * math.pi) - math.pi


def test_a_curve_runs_on_into_a_straight_stretch() -> None:
    """A crotch: straight down, and then round, without a kink where it begins to bend."""
    pins = [Pin((300, 0)), Pin((100, 0), True), Pin((40, 30), True), Pin((20, 90)), Pin((20, 200)), Pin((300, 200))]
    pins[0] = Pin((300, 0), False, True)
    runs = closed_run(pins)
    assert runs[0] == ((300, 0),), "straight"
    first, second = runs[1][0], runs[1][1]
    assert abs(math.degrees(math.atan2(second[1] - first[1], -(second[0] - first[0])))) < 6.0


def test_a_straight_stretch_stays_straight_between_smooth_points() -> None:
    pins = [Pin((0, 0)), Pin((100, 30), True, True), Pin((200, 30), True), Pin((300, 0)), Pin((150, -80))]
    assert closed_run(pins)[1] == ((100, 30),)
