"""What can be done about a seam that misses: each way is tried, and comes to what it says."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import pytest

from idle_selvage.core.cloth.bars import NONE, Bar, read_bars
from idle_selvage.core.lay.joined import Joined
from idle_selvage.core.lay.levels import Tie, levels
from idle_selvage.core.lay.problem import Bars
from idle_selvage.core.match.helps import Way, ways
from idle_selvage.core.match.judged import foreseen
from idle_selvage.core.plan.outline import Outline
from idle_selvage.core.plan.seams import Sewn

from .cases import LEFT, RIGHT, panel, sewn

BARS = Bars(40.0, None, (0.0,))


def again(every: Sequence[Sewn]) -> Joined:
    ordered = sorted(every, key=lambda one: one.seam.priority)
    return Joined(levels=levels(
        [Tie(s.seam.key, s.seam.a.piece, s.seam.b.piece, s.key[0][0], s.key[1][0]) for s in ordered], 40.0
    ))  # fmt: skip


def tried(which: Sewn, *others: Sewn, reversible: bool = False, across: object = NONE) -> dict[str, Way]:
    every = (which, *others)
    before = {one.sewn.seam.key: one for one in foreseen(every, again(every), BARS)}
    judged = before[which.seam.key]
    pieces = {key: panel(key) for key in ("front", "back", "sleeve")}
    pieces["pocket"] = panel("pocket", ((0.0, 0.0), (100.0, 0.0), (100.0, 100.0), (0.0, 100.0)))
    found = ways(judged, every, before, again, BARS, pieces, across=across, reversible=reversible)  # type: ignore[arg-type]
    return {way.what: way for way in found}


def slanted(degrees: float) -> Outline:
    a = math.radians(degrees)
    return ((0.0, 0.0), (300 * math.cos(a), 300 * math.sin(a)))


def test_the_key_point_is_moved_to_where_both_ends_miss_alike() -> None:
    drift = sewn("front", slanted(3), "back", slanted(10))
    found = tried(drift)["key"]
    # by hand: it drifts by 4.147 in all, so by half of it to either side
    assert found.worst == pytest.approx(4.147 / 2, abs=0.02) and found.key_a == pytest.approx(150.0, abs=1.0)
    assert "2.1 mm" in found.told
    moved = replace(drift, seam=replace(drift.seam, key_a=found.key_a))
    assert foreseen([moved], again([moved]), BARS)[0].worst == pytest.approx(found.worst)
    assert "key" not in tried(moved), "there is no better place any more"


def test_put_first_it_meets_and_says_which_one_misses_for_it() -> None:
    def named(key: str, a: str, b: str, at: float, name: str) -> Sewn:
        run = ((at, -100.0), (at + 400.0, -100.0))
        one = sewn(a, RIGHT, b, run)
        return replace(one, seam=replace(one.seam, key=key, priority=int(key), name=name))

    first = named("1", "front", "back", 0.0, "Side seam")
    second = named("2", "back", "sleeve", 0.0, "Sleeve to back")
    last = named("3", "sleeve", "front", 6.0, "Sleeve to front")
    found = tried(last, first, second)["first"]
    assert found.worst == pytest.approx(0.0, abs=1e-6) and "Sleeve to back no longer meets" in found.told


def test_small_pieces_may_go_on_the_bias_and_what_cannot_be_is_bound() -> None:
    on = replace(sewn("pocket", slanted(3), "front", slanted(30)))
    found = tried(on)
    assert "Pocket on the bias" in found["bias"].told and found["binding"].worst is None
    assert "bias" not in tried(sewn("front", slanted(3), "back", slanted(30))), "a front is looked at"
    assert tried(sewn("front", RIGHT, "back", LEFT)) == {}, "its bars meet: nothing needs to be done"


def test_cloth_without_a_wrong_side_is_turned_over_where_its_bars_never_mirror() -> None:
    never = read_bars([Bar(10, "#111111"), Bar(20, "#eeeeee"), Bar(5, "#aa0000"), Bar(9, "#00aa00")])
    miss = sewn("front", slanted(3), "back", slanted(20), lengthwise=True)
    assert "over" in tried(miss, across=never, reversible=True)
    assert "over" not in tried(miss, across=never) and "over" not in tried(miss, reversible=True)
