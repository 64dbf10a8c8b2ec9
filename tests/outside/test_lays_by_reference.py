"""Bounds and lays beside a general strip packer (reference library: spyrrow 0.9.0), on our own garments.

It packs free-turning outlines on a strip, which is the open lay without gap, fold, flaw or bars. Its lays are
legal, so no bound of ours may lie above one; and ours may not be much longer.
"""

from __future__ import annotations

import itertools
from typing import Any

import numpy as np
import pytest
import spyrrow
from benchmarks.garments import garment
from benchmarks.lay import reference
from shapely.geometry import Polygon

from idle_selvage.core.lay.engine.bounds import bound_of
from idle_selvage.core.lay.engine.climb import climb
from idle_selvage.core.lay.engine.convex import depth_between, hulls_of
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.reading import read_problem


@pytest.mark.parametrize(("kind", "decisions"), [("gored skirt", 12), ("waistcoat", 12), ("quilt", 2)])
def test_no_bound_lies_above_a_lay_of_the_reference(kind: str, decisions: int) -> None:
    data = garment(kind, 11)
    theirs = reference(data, 1, 1)
    asked = read_problem(data)
    proved = {"open": bound_of(asked, "open")}
    assert proved["open"] <= theirs
    for raised in itertools.islice(climb(asked, proved), decisions):
        assert raised["open"] <= theirs
    ours = solve(asked, steps=4000, clock=lambda: 0.0)
    assert ours.lay.length <= theirs * 1.05


def test_its_lays_pass_our_test_of_overlap() -> None:
    data: dict[str, Any] = garment("quilt", 4)
    items = [
        spyrrow.Item(str(k), [(float(x), float(y)) for x, y in [*p["outline"], p["outline"][0]]], 2, [0.0, 180.0])
        for k, p in enumerate(data["pieces"])
    ]
    task = spyrrow.StripPackingInstance("quilt", data["cloth"]["width"], items)
    made = task.solve(spyrrow.StripPackingConfig(total_computation_time=1, num_workers=1, seed=1))
    rings = []
    for place in made.placed_items:
        ring = np.array(data["pieces"][int(place.id)]["outline"], dtype=float)
        angle = np.radians(place.rotation)
        spin = np.array([[np.cos(angle), np.sin(angle)], [-np.sin(angle), np.cos(angle)]])
        rings.append(ring @ spin + np.array(place.translation))
    hulls = hulls_of(rings)
    for i in range(len(rings)):
        for j in range(i):
            assert depth_between(hulls, i, j, 0.0, 0.0, np.inf) < 0.1, (i, j)
            assert Polygon(rings[i]).intersection(Polygon(rings[j])).area < 1
