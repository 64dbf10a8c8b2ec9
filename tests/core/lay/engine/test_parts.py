"""The parts of the engine on their own: convex parts, depth maps, the linear programme, tilings, bounds."""

from __future__ import annotations

import ast
import itertools
import random
import subprocess
import sys
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.affinity import translate
from shapely.geometry import Polygon

from idle_selvage.core.buy.proved import proved
from idle_selvage.core.lay.engine.bounds import bound_of
from idle_selvage.core.lay.engine.compact import TOUCH_MM, Motion, compact
from idle_selvage.core.lay.engine.convex import convex_parts, depth_between, hulls_of, worst_depth
from idle_selvage.core.lay.engine.depths import (
    FLIPS,
    chords_of,
    depth_at,
    fill_maps,
    make_maps,
    plan_maps,
    share_maps,
)
from idle_selvage.core.lay.engine.draws import below, generator, unit
from idle_selvage.core.lay.engine.jigsaw import Jigsaw
from idle_selvage.core.lay.engine.prepare import grow
from idle_selvage.core.lay.reading import read_problem

from ..lay_cases import problem, rectangle, strip_of


def blob(seed: int, points: int = 14) -> np.ndarray:
    """A random star-shaped outline with dents, least x and y of 0."""
    rng = random.Random(seed)
    angles = sorted(rng.uniform(0, 2 * np.pi) for _ in range(points))
    ring = np.array([[np.cos(a), np.sin(a)] for a in angles]) * np.array(
        [[rng.uniform(40, 160)] for _ in range(points)]
    )
    if not Polygon(ring).is_valid or Polygon(ring).area < 2000:
        return blob(seed + 100_000, points)
    moved: np.ndarray = ring - ring.min(axis=0)
    return moved


@given(st.integers(0, 2000))
@settings(max_examples=60)
def test_convex_parts_are_convex_and_make_up_the_whole(seed: int) -> None:
    ring = blob(seed)
    parts = [Polygon(p) for p in convex_parts(ring)]
    assert sum(p.area for p in parts) == pytest.approx(Polygon(ring).area, rel=1e-9)
    for part in parts:
        assert part.area == pytest.approx(part.convex_hull.area, rel=1e-9)
    for a, b in itertools.combinations(parts, 2):
        assert a.intersection(b).area < 1e-6


@given(st.integers(0, 500), st.floats(-300, 300), st.floats(-300, 300))
@settings(max_examples=80)
def test_depth_says_overlap_exactly_when_shapely_does(seed: int, dx: float, dy: float) -> None:
    a, b = blob(seed), blob(seed + 7)
    hulls = hulls_of([a, b])
    deep = float(depth_between(hulls, 0, 1, dx, dy, np.inf))
    shared = Polygon(a).intersection(translate(Polygon(b), dx, dy)).area
    assert (deep > 1e-6) == (shared > 1e-6) or shared < 0.05


@given(st.integers(0, 300), st.booleans())
@settings(max_examples=25)
def test_depth_maps_agree_with_the_shapes_to_a_cell(seed: int, flips: bool) -> None:
    cell = 4.0
    rings = [blob(seed), blob(seed + 31)]
    if flips:
        # mirrored and turned, both have maps to share
        rings = [r * f - (r * f).min(axis=0) for f in ([1, -1], [-1, -1]) for r in rings]
    chords = chords_of(rings, cell)
    maps = make_maps(plan_maps(rings, share_maps(rings, flips=flips), cell, cell, 4))
    fill_maps(chords, maps, 0, len(maps.own))
    assert len(maps.own) == (6 if flips else 3)
    a, b = Polygon(rings[0]), Polygon(rings[1])
    rng = random.Random(seed)
    for _ in range(40):
        dx, dy = rng.randint(-60, 60), rng.randint(-60, 60)
        deep = depth_at(maps, 0, 1, dx, dy)
        assert deep == depth_at(maps, 1, 0, -dx, -dy), "the other way round"
        moved = translate(a, dx * cell, dy * cell)
        if deep == 0:
            assert moved.buffer(-1.5 * cell).intersection(b.buffer(-1.5 * cell)).area < 1
        elif deep > 6:
            assert moved.intersects(b)


def test_compaction_shortens_and_never_overlaps() -> None:
    rings = [blob(k) for k in range(5)]
    hulls = hulls_of(rings)
    shape = np.arange(5)
    x, y = np.arange(5) * 330.0, np.array([0.0, 40, 10, 60, 5])
    length = np.array([float(r[:, 0].max()) for r in rings])
    high = np.array([400 - float(r[:, 1].max()) for r in rings])
    own = np.full(5, -1)
    motion = Motion(own, own, np.ones(5), np.zeros(5), high, length, np.ones(5, dtype=np.bool_))
    skip = np.eye(5, dtype=np.bool_)
    made = compact(hulls, skip, shape, x, y, motion, rounds=30)
    assert made is not None
    new_x, new_y, needed = made
    assert needed < float((x + length).max()) - 50
    assert worst_depth(hulls, skip, shape, new_x, new_y, np.inf) <= TOUCH_MM
    assert (new_x >= 0).all() and (new_y >= -1e-6).all() and (new_y <= high + 1e-6).all()


def test_a_group_moves_as_one_and_what_is_bound_does_not_move() -> None:
    square = np.array([[0.0, 0], [100, 0], [100, 100], [0, 100]])
    hulls = hulls_of([square])
    shape = np.zeros(3, dtype=np.int64)
    x, y = np.array([130.0, 250.0, 400.0]), np.zeros(3)
    groups = np.array([0, 0, -2])
    fixed = np.full(3, -2)
    motion = Motion(groups, fixed, np.ones(3), np.zeros(3), np.zeros(3), np.full(3, 100.0), np.ones(3, dtype=np.bool_))
    made = compact(hulls, np.eye(3, dtype=np.bool_), shape, x, y, motion, trust=40.0)
    assert made is not None
    assert made[0][1] - made[0][0] == pytest.approx(120) and made[0][2] == 400


@pytest.mark.parametrize("seed", range(6))
def test_a_cloth_cut_up_is_put_together_again(seed: int) -> None:
    rng = random.Random(seed)
    # columns of strips: cut points at random, pieces turned end for end and shuffled
    pieces: list[list[tuple[float, float]]] = []
    xs = sorted({0.0, 700.0, *(round(rng.uniform(60, 640), 1) for _ in range(2))})
    for a, b in itertools.pairwise(xs):
        ys = sorted({0.0, 500.0, *(round(rng.uniform(50, 450), 1) for _ in range(3))})
        for c, d in itertools.pairwise(ys):
            pieces.append(rectangle(f"p{len(pieces)}", b - a, d - c))
    rng.shuffle(pieces)
    strip = strip_of(problem(pieces, width=500), "open")
    placed = Jigsaw(strip).solve()
    assert placed is not None and len(placed) == len(pieces)
    assert max(p.x + float(p.variant.ring[:, 0].max()) for p in placed) == pytest.approx(700, abs=0.2)


def test_what_does_not_tile_is_given_up() -> None:
    strip = strip_of(problem([rectangle("a", 300, 260, copies=2), rectangle("b", 70, 90)], width=500), "open")
    assert Jigsaw(strip).solve() is None
    assert Jigsaw(strip_of(problem([rectangle("a", 300, 250, copies=2)], width=500, gap=1), "open")).solve() is None


@pytest.mark.parametrize("by", [1.0, 5.0, 60.0])
def test_growing_by_half_the_gap_keeps_the_gap(by: float) -> None:
    ring = blob(3)
    grown = Polygon(grow(ring, by, ""))
    assert grown.exterior.distance(Polygon(ring)) >= by - 0.03
    half = np.array([[0.0, 0], [200, 0], [150, 90], [0, 120]])
    kept = grow(half, by, "y")
    assert kept[:, 1].min() == pytest.approx(0, abs=1e-6) and kept[:, 0].min() == pytest.approx(-by, abs=0.03)
    lower = grow(half * [1, -1], by, "y")
    assert lower[:, 1].max() == pytest.approx(0, abs=1e-6)
    sideways = grow(half[:, ::-1].copy(), by, "x")
    assert sideways[:, 0].min() == pytest.approx(0, abs=1e-6)


def test_proved_means_the_same_purchase() -> None:
    # sold by 100 mm: 1210 and 1290 are the same purchase, 1190 is not; ends of 80 mm move where the steps fall
    assert proved(1290, 1210, 100) and not proved(1290, 1190, 100)
    assert not proved(1290, 1210, 100, needed_beyond=80) and proved(1310, 1230, 100, needed_beyond=80)
    assert proved(1200, 1200, 100) and proved(1290, 1289.95, 0) and not proved(1290, 1280, 0)


@pytest.mark.parametrize(
    "rule",
    [
        {"cloth": {"one_way": True}},
        {"cloth": {"gap": 6}},
        {"cloth": {"blocked": [[0, 0, 90, 90]]}},
        {"cloth": {"bars": {"x_repeat": 60, "x_axes": [0]}}},
        {"folds": ["lengthwise"]},
        {"pieces": {"one_way": True}},
    ],
)
def test_a_rule_more_never_lowers_a_bound(rule: dict[str, Any]) -> None:
    for seed in range(6):
        rng = random.Random(seed)
        pieces = [
            rectangle(
                f"p{k}", rng.uniform(100, 500), rng.uniform(100, 480), copies=2, grain=rng.choice(["lengthwise", "any"])
            )
            for k in range(3)
        ]
        plain = problem(pieces, width=1000)
        ruled = problem([{**p, **rule.get("pieces", {})} for p in pieces], width=1000, **rule.get("cloth", {}))
        fold = rule.get("folds", ["open"])[0]
        assert bound_of(read_problem(ruled), fold) >= bound_of(read_problem(plain), "open") - 1e-6


def test_the_generator_is_the_same_everywhere() -> None:
    state = generator(7)
    drawn = [int(below(state, 1000)) for _ in range(5)]
    again = generator(7)
    assert drawn == [int(below(again, 1000)) for _ in range(5)] and drawn != [
        int(below(generator(8), 1000)) for _ in range(5)
    ]
    values = [float(unit(state)) for _ in range(4000)]
    assert min(values) >= 0 and max(values) < 1 and abs(np.mean(values) - 0.5) < 0.03


COUNTED = """
from idle_selvage.core.lay.engine.warm import compile_ahead, compiled
compile_ahead()
print({f.py_func.__name__: len(f.signatures) for f in compiled()})
"""


def test_no_compiled_function_is_compiled_twice() -> None:
    # the first makes what a change of the sources has made old; the second finds all there is and compiles nothing
    for _ in range(2):
        told = subprocess.run([sys.executable, "-c", COUNTED], capture_output=True, text=True, check=True).stdout
    counts: dict[str, int] = ast.literal_eval(told)
    # what is only called by compiled code is read from the cache with it
    assert set(counts.values()) <= {0, 1}, "one signature each, so that set-up has made all there is"
    assert counts["decode"] == counts["separate"] == 1
    assert counts["convex_sum"] == 1, "the first piece that is dragged waits for no compiler"


@pytest.mark.parametrize("flips", [False, True])
@pytest.mark.parametrize("cell", [4.0, 7.3])
def test_depth_maps_read_the_same_both_ways_round(flips: bool, cell: float) -> None:
    """Else one side of a pair says that it is free, the other that it overlaps, and separation sticks."""
    rng = np.random.default_rng(5)
    rings = []
    for seed in range(3):
        ring = blob(seed)
        for flip in FLIPS:
            image = ring * np.array(flip, dtype=float)
            rings.append(np.ascontiguousarray(image - image.min(axis=0)))
    chords = chords_of(rings, cell)
    maps = make_maps(plan_maps(rings, share_maps(rings, flips=flips), cell, cell, 4))
    fill_maps(chords, maps, 0, len(maps.own))
    met = 0
    for s in range(len(rings)):
        for t in range(len(rings)):
            for dx, dy in rng.integers(-40, 40, (60, 2)).tolist():
                there, back = depth_at(maps, s, t, dx, dy), depth_at(maps, t, s, -dx, -dy)
                assert there == back, f"{s} in {t} by {dx}, {dy}"
                met += there > 0
    assert met > 500, "they were looked at where they overlap"
