"""What is left when everything is cut."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon, box
from shapely.ops import unary_union

from idle_selvage.core.cloth.bars import Bar, read_bars
from idle_selvage.core.cut.remnants import bars_from, what_is_left


def rectangle(x: float, y: float, long: float, wide: float) -> tuple[tuple[float, float], ...]:
    return ((x, y), (x + long, y), (x + long, y + wide), (x, y + wide))


def cuts(seed: int) -> list[tuple[tuple[float, float], ...]]:
    """Up to twelve rectangles cut anywhere from cloth of 1500 by 1000 mm."""
    chance = random.Random(seed)
    gone = [
        rectangle(chance.uniform(0, 1200), chance.uniform(0, 700), chance.uniform(30, 400), chance.uniform(30, 300))
        for _ in range(chance.randint(1, 12))
    ]
    return [tuple((min(x, 1500.0), min(y, 1000.0)) for x, y in one) for one in gone]


def test_a_remnant_is_cloth_and_its_rectangles_lie_in_it() -> None:
    gone = [rectangle(0, 0, 600, 400), rectangle(0, 650, 900, 350)]
    found = what_is_left(1000.0, 1500.0, gone)
    assert len(found.remnants) == 1
    one = found.remnants[0]
    ring = Polygon([(x + one.x, y + one.y) for x, y in one.outline])
    assert not ring.intersects(unary_union([Polygon(g) for g in gone]).buffer(-0.01))
    assert ring.within(box(0, 0, 1500, 1000).buffer(0.01))
    for r in one.rectangles:
        assert ring.buffer(0.6).contains(box(one.x + r.x, one.y + r.y, one.x + r.x + r.along, one.y + r.y + r.across))
    assert one.rectangles[0].along >= 590 and one.near_selvage and one.far_selvage
    assert found.used.value == pytest.approx(100 * (600 * 400 + 900 * 350) / 1.5e6)


@pytest.mark.parametrize("seed", range(25))
def test_what_is_cut_kept_and_scrapped_adds_up_to_the_cloth(seed: int) -> None:
    gone = cuts(seed)
    found = what_is_left(1000.0, 1500.0, gone)
    kept = sum(one.area for one in found.remnants)
    assert found.cut_area + kept + found.scrap_area == pytest.approx(1.5e6, rel=1e-6)
    assert found.cut_area == pytest.approx(unary_union([Polygon(g) for g in gone]).area, rel=1e-9)
    cut = unary_union([Polygon(g) for g in gone])
    rings = []
    for one in found.remnants:
        outer, *holes = ([(x + one.x, y + one.y) for x, y in ring] for ring in one.rings)
        rings.append(Polygon(outer, holes))
        assert rings[-1].area == pytest.approx(one.area, rel=1e-3)
    for k, ring in enumerate(rings):
        # no cloth that is not there, but for the tenth of a millimetre to which it is told
        assert cut.intersection(ring.buffer(-0.2)).area < 1.0
        assert all(ring.intersection(other).area < 1.0 for other in rings[k + 1 :])
        for r in found.remnants[k].rectangles:
            x, y = found.remnants[k].x + r.x, found.remnants[k].y + r.y
            assert cut.intersection(box(x, y, x + r.along, y + r.across)).area < 2.0 * (r.along + r.across)


@pytest.mark.parametrize("seed", range(25))
def test_a_remnant_is_the_one_seen_until_more_is_cut_from_it(seed: int) -> None:
    gone = cuts(seed)
    found = what_is_left(1000.0, 1500.0, gone).remnants
    first = found[0]
    put = [tuple((x + first.x, y + first.y) for x, y in ring) for ring in first.rings]
    there = what_is_left(1000.0, 1500.0, gone, put=[put]).remnants
    for one in found:
        same = [other for other in there if other.is_as_seen(one.x, one.y, one.area)]
        assert len(same) == 1 and same[0].kept == (one is first)
    r = first.rectangles[0]
    cut = rectangle(first.x + r.x + 10, first.y + r.y + 10, 60, 60)
    later = what_is_left(1000.0, 1500.0, [*gone, cut]).remnants
    assert not any(one.is_as_seen(first.x, first.y, first.area) for one in later)


def test_what_hangs_by_a_strip_comes_apart_and_small_bits_are_scraps() -> None:
    # two fields joined by a strip 12 mm wide
    gone = [rectangle(400, 0, 100, 494), rectangle(400, 506, 100, 494)]
    found = what_is_left(1000.0, 900.0, gone)
    assert len(found.remnants) == 2
    assert what_is_left(1000.0, 900.0, gone, least=500.0).scraps == 2
    assert what_is_left(1000.0, 900.0, [rectangle(0, 0, 900, 1000)]).remnants == ()


def test_a_border_is_left_on_what_lies_along_its_selvage() -> None:
    gone = [rectangle(400, 0, 200, 1000)]
    low = what_is_left(1000.0, 900.0, gone, border=("low", 80.0))
    assert [one.border for one in low.remnants] == [80.0, 80.0]
    high = what_is_left(1000.0, 900.0, [rectangle(0, 400, 900, 600)], border=("high", 80.0))
    assert [one.border for one in high.remnants] == [0.0]


def test_of_a_remnant_only_its_own_cloth_is_left() -> None:
    frame = ((0.0, 0.0), (500.0, 0.0), (500.0, 200.0), (0.0, 400.0))
    found = what_is_left(400.0, 500.0, [rectangle(0, 0, 200, 150)], frame=[frame])
    assert found.whole_area == Polygon(frame).area
    assert sum(one.area for one in found.remnants) <= Polygon(frame).area - 200 * 150


BARS = st.lists(
    st.builds(Bar, st.integers(2, 40).map(float), st.sampled_from(["#000000", "#ffffff", "#aa0000"])),
    min_size=2,
    max_size=7,
)


@given(BARS, st.floats(0, 500))
def test_bars_read_from_a_remnants_corner_are_the_same_bars(bars: list[Bar], begin: float) -> None:
    """Its axes lie where they lay, seen from the new corner."""
    old, new = read_bars(bars), read_bars(bars_from(bars, begin))
    assert (old.repeat is None) == (new.repeat is None)
    if old.repeat is None or new.repeat is None:
        return
    assert new.repeat == pytest.approx(old.repeat, abs=0.3)
    moved = sorted((axis - begin) % old.repeat for axis in old.axes)
    found = sorted(new.axes)
    assert len(moved) == len(found)
    for a in moved:
        assert min(abs((a - b + old.repeat / 2) % old.repeat - old.repeat / 2) for b in found) < 0.3


def test_what_waits_for_the_shears_is_neither_left_nor_cut() -> None:
    cut, waits = rectangle(0, 0, 300, 1000), rectangle(300, 0, 300, 1000)
    found = what_is_left(1000.0, 900.0, [cut], waits=[waits])
    assert found.used.value == pytest.approx(100 / 3) and [one.x for one in found.remnants] == pytest.approx(
        [600.2], abs=0.5
    )
