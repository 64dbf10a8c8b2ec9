"""The guided search's own parts: rows of pairs, lists of what is near, depths that are kept, coarse cells."""

from __future__ import annotations

import math

import numpy as np
import pytest

from idle_selvage.core.lay.engine.depths import (
    HALF,
    Maps,
    chords_of,
    depth_at,
    fill_maps,
    make_maps,
    plan_maps,
    share_maps,
)
from idle_selvage.core.lay.engine.draws import generator
from idle_selvage.core.lay.engine.folds import strip_for, ways
from idle_selvage.core.lay.engine.matching import Matching
from idle_selvage.core.lay.engine.prepare import Frame, coarse_for, pair_table
from idle_selvage.core.lay.engine.separate import (
    NEAR,
    Field,
    Here,
    _look_around,
    _weighted,
    know_all,
    pair_depth,
    separate,
)
from idle_selvage.core.lay.reading import read_problem

from .test_parts import blob


@pytest.mark.parametrize("rest", [0.0, 0.5, 0.49999, -1.5])
def test_a_pair_is_as_deep_from_either_side(rest: float) -> None:
    """Half a cell beyond is rounded the same way from both."""
    cell = 4.0
    ring = np.array([[0.0, 0.0], [60.0, 0.0], [60.0, 44.0], [0.0, 30.0]])
    maps = make_maps(plan_maps([ring], share_maps([ring], flips=False), cell, cell, 4))
    fill_maps(chords_of([ring], cell), maps, 0, len(maps.own))
    two = np.arange(2)
    zero, ones = np.zeros(2, dtype=np.int64), np.ones(2, dtype=np.int64)
    rests = np.array([0.0, rest * cell])
    field = Field(two, two + 1, np.zeros(2, dtype=bool), np.zeros((2, 2), dtype=bool), zero, np.full(2, 60.0),
                  zero, ones, zero, ones, ones, rests, rests, **pair_table(maps, zero, rests, rests))  # fmt: skip
    for x in range(-18, 19):
        for y in range(-14, 15):
            there = pair_depth(maps, field, 0, x, y, 1, 0, 0)
            assert there == pair_depth(maps, field, 1, 0, 0, 0, x, y)


def _messy(seed: int) -> tuple[Maps, Field, Here]:
    """Blobs thrown onto a strip, each free to lie as it is or turned end for end."""
    rng = np.random.default_rng(seed)
    rings = []
    for k in range(4):
        for flip in ((1.0, 1.0), (-1.0, -1.0)):
            image = blob(seed + k) * np.array(flip)
            rings.append(np.ascontiguousarray(image - image.min(axis=0)))
    maps = make_maps(plan_maps(rings, share_maps(rings, flips=True), 4.0, 4.0, 4))
    fill_maps(chords_of(rings, 4.0), maps, 0, len(maps.own))
    start = np.array([0, 2, 4, 6, 0, 2, 4, 6])
    shape = np.arange(8)
    zero, ones = np.zeros(8, dtype=np.int64), np.ones(8, dtype=np.int64)
    rests = np.round(rng.uniform(0, 4, 8), 2)
    skip = np.eye(8, dtype=bool)
    skip[2, 5] = skip[5, 2] = True
    field = Field(start, start + 2, np.arange(8) == 7, skip, shape, np.array([float(r[:, 0].max()) for r in rings]),
                  zero, ones, zero, ones, ones * 40, rests, rests, **pair_table(maps, shape, rests, rests))  # fmt: skip
    here = Here(start + rng.integers(0, 2, 8), rng.integers(0, 30, 8), rng.integers(0, 40, 8))
    return maps, field, here


@pytest.mark.parametrize("seed", range(4))
def test_the_row_of_a_pair_says_what_its_map_says(seed: int) -> None:
    """What both have beyond their cells, told again with plain rounding."""
    maps, field, _ = _messy(seed)
    met = 0
    for v in range(8):
        for u in range(8):
            sign = 1 if field.kind[v] <= field.kind[u] else -1
            beyond = [
                sign * math.floor(sign * float(rest[v] - rest[u]) / 4.0 + HALF) for rest in (field.x_rest, field.y_rest)
            ]
            for x, y in ((0, 0), (7, -3), (-12, 9), (30, 2)):
                there = pair_depth(maps, field, v, x, y, u, 1, 2)
                s, t = int(field.shape[v]), int(field.shape[u])
                assert there == depth_at(maps, s, t, x - 1 + beyond[0], y - 2 + beyond[1])
                met += there > 0
    assert met > 60


@pytest.mark.parametrize("seed", range(4))
def test_what_is_far_off_is_not_missed_by_a_descent(seed: int) -> None:
    """Within the reach of a list, the listed parts give the whole overlap."""
    maps, field, here = _messy(seed)
    near, weights = np.zeros(8, dtype=np.int64), np.ones((8, 8))
    shorter = 0
    for i in range(8):
        v, x, y = (int(part[i]) for part in here)
        count = _look_around(maps, field, here, i, v, x, y, near)
        shorter += count < 7
        for dx, dy in ((0, 0), (NEAR, 0), (-NEAR, NEAR), (5, -NEAR), (-NEAR, -NEAR)):
            whole = sum(
                pair_depth(maps, field, v, x + dx, y + dy, int(here.v[j]), int(here.x[j]), int(here.y[j]))
                for j in range(8)
                if not field.skip[i, j]
            )
            assert whole == _weighted(maps, field, here, weights, i, v, x + dx, y + dy, near, count, np.inf)
    assert shorter, "some lists leave something out"


@pytest.mark.parametrize("seed", range(6))
def test_depths_that_are_kept_are_those_of_where_the_parts_lie(seed: int) -> None:
    maps, field, here = _messy(seed)
    least = Here(*(part.copy() for part in here))
    weights, depths, fresh = np.ones((8, 8)), np.zeros((8, 8), dtype=np.int64), np.zeros((8, 8), dtype=np.int64)
    each, order, tally = np.zeros(8), np.zeros(8, dtype=np.int64), np.array([0, 0, 2**60, 0])
    sums, rng = np.zeros(100_000, np.float32), generator(seed)
    held = [int(part[7]) for part in here]
    before = None
    for _ in range(6):
        state = separate(maps, field, here, least, weights, depths, 260.0, rng, sums, each, order, tally, 20)
        know_all(maps, field, here, fresh)
        assert np.array_equal(depths, fresh) and not depths[field.skip].any()
        assert before is None or tally[2] <= before, "the least overlap never grows"
        before = int(tally[2])
        know_all(maps, field, least, fresh)
        assert fresh.sum() // 2 >= tally[2], "least is what was told of it"
        assert [int(part[7]) for part in here] == held, "what is held lies still"
        if state == 1:
            assert not depths.any()
            break
    assert tally[0] > 0


@pytest.mark.parametrize(("small", "cells"), [(10.0, 4), (90.0, 4), (91.0, 8), (180.0, 8), (182.0, 16), (2000.0, 16)])
def test_coarse_cells_are_as_large_as_the_pieces_allow(small: float, cells: int) -> None:
    """A quarter of the middle piece's smaller extent, in cells of 4 mm, to the nearest power of two from 4 to 16."""
    outline = [[0, 0], [max(300.0, small), 0], [max(300.0, small), small], [0, small]]
    tiny = [[0, 0], [20, 0], [20, 8], [0, 8]]
    pieces = [{"id": "a", "outline": outline, "copies": 3}, {"id": "b", "outline": tiny, "copies": 2}]
    told = {"format": "idle-selvage/lay-problem/1", "cloth": {"width": 2500}, "folds": ["open"], "pieces": pieces}
    problem = read_problem(told)
    way = ways(problem, "open")[0]
    matching = Matching(problem)
    assert coarse_for(Frame(strip_for(problem, way, matching, matching.choose(generator(1), first=True)))) == cells
