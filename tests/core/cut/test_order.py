"""In which order pieces are cut: against brute force on small lays."""

from __future__ import annotations

import itertools
import random
from collections.abc import Sequence

import pytest
from shapely import Polygon, box
from shapely.affinity import translate

from idle_selvage.core.cut.order import (
    OVERRUN_MM,
    Follows,
    ToCut,
    cutting_order,
    endangers,
    foldings_of,
    goes_against,
    precedences,
)
from idle_selvage.core.lay.answer import Section

FOLDS = (("open", ()), ("lengthwise", (500.0,)), ("partial", (200.0,)))


def square(key: str, piece: str, section: int, x: float, y: float, size: float = 100.0) -> ToCut:
    return ToCut(key, piece, section, ((x, y), (x + size, y), (x + size, y + size), (x, y + size)))


def random_table(seed: int) -> tuple[list[ToCut], list[Section], list[Follows]]:
    """Up to seven pieces on up to four stretches, some laid by others."""
    chance = random.Random(seed)
    sections = []
    for k in range(chance.randint(2, 4)):
        fold, at = chance.choice(FOLDS)
        sections.append(Section(k * 1000.0, (k + 1) * 1000.0, fold, at))
    items: list[ToCut] = []
    for n in range(chance.randint(3, 7)):
        k = chance.randrange(len(sections))
        # now and then so near to another that a corner runs into it
        x, y = k * 1000.0 + chance.choice((0.0, 104.0, 300.0, 404.0)), chance.choice((0.0, 54.0, 104.0, 300.0))
        one = square(f"p{n}·1", f"p{n % 4}", k, x, y, chance.choice((50.0, 100.0)))
        if any(Polygon(one.outline).intersects(Polygon(other.outline)) for other in items):
            continue
        items.append(one)
    names = sorted({one.piece for one in items})
    follows = [(a, b) for a, b in itertools.combinations(names, 2) if chance.random() < 0.3]
    return items, sections, follows


def keeps(order: Sequence[str], items: Sequence[ToCut], follows: Sequence[Follows]) -> bool:
    first, _ = precedences(items, follows)
    place = {key: k for k, key in enumerate(order)}
    return all(place[items[a].key] < place[items[b].key] for a, b in first)


@pytest.mark.parametrize("seed", range(60))
def test_the_cloth_is_folded_anew_as_seldom_as_can_be(seed: int) -> None:
    items, sections, follows = random_table(seed)
    found = cutting_order(items, sections, follows)
    keys = [one.key for one in items]
    assert sorted(found.keys) == sorted(keys) and keeps(found.keys, items, follows)
    every = [order for order in itertools.permutations(keys) if keeps(order, items, follows)]
    least = min(foldings_of(order, items, sections) for order in every)
    assert found.unfoldings == foldings_of(found.keys, items, sections) == least


def test_random_tables_do_have_orders_that_matter() -> None:
    """Else the brute force above would say nothing."""
    folded, bound, knots = 0, 0, 0
    for seed in range(60):
        items, sections, follows = random_table(seed)
        found = cutting_order(items, sections, follows)
        folded += found.unfoldings > 1
        first, stops = precedences(items, follows)
        bound += bool(first)
        knots += bool(stops)
    assert folded > 10 and bound > 30 and knots > 3


@pytest.mark.parametrize("seed", range(200))
def test_a_corner_runs_into_a_neighbour_where_shapely_says_so(seed: int) -> None:
    """A rectangle whose edges are prolonged by the overrun covers what its shears may reach."""
    chance = random.Random(seed)
    one = square("a", "a", 0, 0.0, 0.0).outline
    other = translate(box(0, 0, 40, 40), chance.uniform(-160, 160), chance.uniform(-160, 160))
    if other.intersects(box(0, 0, 100, 100)):
        return
    runs = []
    for x, y in one:
        runs.append(box(min(x, x - OVERRUN_MM if x == 0 else x), y, max(x, x + OVERRUN_MM if x == 100 else x), y))
        runs.append(box(x, min(y, y - OVERRUN_MM if y == 0 else y), x, max(y, y + OVERRUN_MM if y == 100 else y)))
    inner = other.buffer(-0.05)
    ring = tuple((float(x), float(y)) for x, y in other.exterior.coords[:-1])
    assert endangers(one, ring) == any(run.intersects(inner) for run in runs)
    # told the other way round it is the same piece
    assert endangers(one[::-1], ring) == endangers(one, ring)


def test_a_curve_has_no_corners_to_run_over() -> None:
    import math

    ring = tuple((100 * math.cos(k / 20), 100 * math.sin(k / 20)) for k in range(126))
    assert not endangers(ring, ((102.0, -50.0), (150.0, -50.0), (150.0, 50.0), (102.0, 50.0)))


def test_large_and_matched_pieces_come_first_and_small_ones_last_from_the_cut_end() -> None:
    sections = [Section(0.0, 3000.0, "open")]
    items = [
        square("button·1", "button", 0, 300.0, 0.0, 40.0),
        square("back·1", "back", 0, 1000.0, 0.0, 400.0),
        square("pocket·1", "pocket", 0, 500.0, 0.0, 60.0),
        square("front·1", "front", 0, 0.0, 600.0, 390.0),
    ]
    found = cutting_order(items, sections, [("front", "pocket")])
    assert found.keys == ("front·1", "pocket·1", "back·1", "button·1") and found.unfoldings == 0
    assert found.leads == {"front": ("pocket",)}
    # an order of the maker's own says what it does against
    own = ("pocket·1", "button·1", "back·1", "front·1")
    assert goes_against(own, items, [("front", "pocket")]) == (("front·1", "pocket·1"),)
    assert goes_against(found.keys, items, [("front", "pocket")]) == ()


def test_where_two_corners_need_each_other_the_shears_stop() -> None:
    sections = [Section(0.0, 400.0, "open")]
    knot = [square("a·1", "a", 0, 0.0, 0.0), square("b·1", "b", 0, 103.0, -50.0)]
    assert endangers(knot[0].outline, knot[1].outline) and endangers(knot[1].outline, knot[0].outline)
    found = cutting_order(knot, sections)
    assert found.stop_at == {found.keys[0]: (found.keys[1],)}


def test_nothing_to_cut_is_in_order() -> None:
    assert cutting_order([], []).keys == ()
