"""What is refused, at its limit and just past it: the last that is taken, and the first that is not."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any

import pytest

from idle_selvage.core.buy.bias import bias_tape
from idle_selvage.core.buy.envelope import choose_size, column_of, printed_column
from idle_selvage.core.buy.order import Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.buy.ruffles import Ruffle, ways
from idle_selvage.core.cloth.direction import wale_class
from idle_selvage.core.cloth.width import Cloth, check_cloth, check_place, past_the_end, usable_width
from idle_selvage.core.lay.reading import BadProblem, read_problem
from idle_selvage.core.plan.draft import Draft, DraftPoint, keyed, lean, outline_of, place_on
from idle_selvage.core.plan.from_another import facing, lengthened
from idle_selvage.core.plan.outline import MAX_POINTS
from idle_selvage.core.plan.shapes import Measures, shaped
from idle_selvage.core.plan.sizes import graded
from idle_selvage.core.plan.stations import Station, points_from_stations
from idle_selvage.core.plan.tapes import TwoTapes, point_by_tapes
from idle_selvage.core.plan.tiles import pages
from idle_selvage.core.shrink.shrinkage import check_readings
from idle_selvage.core.true.pinned import check_grain
from idle_selvage.core.true.slant import FoldTest, read_test
from idle_selvage.core.units import read_length
from idle_selvage.core.working import Figure

from .lay.lay_cases import problem, rectangle

IN = 25.4
SQUARE = Draft(keyed([DraftPoint(0, 0), DraftPoint(400, 0), DraftPoint(400, 100), DraftPoint(0, 100)]))
RUFFLE = Ruffle(edge=500.0, fullness=2.0, depth=100.0, hem=10.0, seam=10.0, width=1000.0)
ORDER = Order(0.0, 0.0, 100.0)


def percent(value: float) -> Figure:
    return Figure(value, "percent")


def arrow(long: float) -> Draft:
    return replace(SQUARE, arrow=((0.0, 0.0), (long, 0.0)))


def on_fold(rise: float) -> Draft:
    return replace(SQUARE, half=True, arrow=((0.0, 10.0), (1000.0, 10.0 + rise)))


def many(count: int) -> Draft:
    # a saw: every point is a corner
    teeth = [DraftPoint(float(i), 100.0 + 5.0 * (i % 2)) for i in range(count - 2)]
    return Draft(keyed([DraftPoint(0.0, 0.0), *reversed(teeth), DraftPoint(float(count), 0.0)][::-1]))


def asked(**change: Any) -> dict[str, Any]:
    return problem([rectangle("a", 100, 50, **change)])


def round_piece(name: str, count: int) -> dict[str, Any]:
    ring = [(500 * math.cos(2 * math.pi * k / count), 500 * math.sin(2 * math.pi * k / count)) for k in range(count)]
    return {"id": name, "outline": ring}


def matching(group: str) -> dict[str, Any]:
    told = asked(match=[{"group": group, "point": [0, 0], "along": True}])
    return told | {"cloth": {**told["cloth"], "bars": {"x_repeat": 100.0}}}


@dataclass(frozen=True)
class Limit:
    """What is refused: ``taken`` at the limit is done, ``refused`` just past it is not."""

    name: str
    act: Callable[[Any], object]
    taken: Any
    refused: Any
    more: dict[str, Any] = field(default_factory=dict)


LIMITS = [
    Limit("shrinks by all of itself", lambda s: purchase(500.0, percent(s), ORDER), 99.9, 100.0),
    Limit("the shop's step", lambda s: purchase(500.0, percent(5.0), Order(0.0, 0.0, s)), 0.1, 0.0),
    # 70 × √2 = 98.995
    Limit("a strip in a rectangle", lambda b: bias_tape(500.0, b, 70.0), 99.0, 98.99),
    Limit("a tape of nothing", lambda t: bias_tape(500.0, 300.0, t), 0.5, 0.0),
    Limit("a rectangle beside its allowances", lambda s: bias_tape(500.0, 300.0, 20.0, s), 149.9, 150.0),
    Limit("fullness, least", lambda f: ways(replace(RUFFLE, fullness=f)), 1.0, 0.99),
    Limit("fullness, most", lambda f: ways(replace(RUFFLE, fullness=f)), 10.0, 10.01),
    Limit("cloth of two allowances", lambda w: ways(replace(RUFFLE, width=w)), 40.0, 20.0),
    Limit("an edge of nothing", lambda e: ways(replace(RUFFLE, edge=e)), 0.1, 0.0),
    # 500 strips of 980 mm between their seams, and two ends
    Limit("strips in all", lambda e: ways(replace(RUFFLE, edge=e, fullness=1.0)), 490_000.0, 490_100.0),
    Limit("cloth past the table", column_of, 62.0 * IN, 62.1 * IN),
    Limit("printed past the table", printed_column, 62.0 * IN, 62.1 * IN),
    Limit("larger than all sizes", lambda m: choose_size(("1", "2"), (900.0, 950.0), m, "loose"), 1000.0, 1000.1),
    Limit("smaller than all sizes", lambda m: choose_size(("1", "2"), (900.0, 950.0), m, "loose"), 850.0, 849.9),
    Limit("wales, least", wale_class, 1, 0.9),
    Limit("wales, most", wale_class, 30, 30.1),
    Limit("margins of half the cloth", lambda m: check_cloth(Cloth((1000.0,), m, 200.0)), 299.9, 300.0),
    # 1000 × 0.55 − 2 × 245 = 60
    Limit("nothing left of the width", lambda s: usable_width(Cloth((1000.0,), 245.0, 245.0), percent(s)), 50.9, 51.0),
    Limit("past the far selvage", lambda y: check_place(y, Cloth((990.0, 1000.0)), "flaw"), 1000.0, 1000.1),
    Limit("marks a centimetre apart", lambda c: point_by_tapes(c, TwoTapes(50.0, 50.0)), 10.0, 9.9),
    Limit("tapes that miss", lambda a: point_by_tapes(400.0, TwoTapes(a, 50.0)), 452.0, 452.1),
    Limit("tapes that do not reach", lambda a: point_by_tapes(400.0, TwoTapes(a, 50.0)), 348.0, 347.9),
    Limit("the line to lengthen at", lambda at: lengthened(SQUARE, at, 10.0), 399.0, 400.0),
    Limit("the same at its foot", lambda at: lengthened(SQUARE, at, 10.0), 1.0, 0.0),
    Limit("folded down over a point", lambda by: lengthened(SQUARE, 350.0, by), -50.0, -50.1),
    Limit("the width of a facing", lambda w: facing(SQUARE, 0, w), 1.0, 0.9),
    Limit("how far a facing goes", lambda w: facing(SQUARE, 0, 20.0, w), 1.0, 0.9),
    Limit("which edge a facing is of", lambda n: facing(SQUARE, n, 20.0), 3, 4),
    Limit("the length of an arrow", lambda at: lean(arrow(at)), 1.0, 0.9),
    # 1° over a metre is 17.455 mm
    Limit("an arrow beside the fold", lambda rise: lean(on_fold(rise)), 17.4, 17.5),
    Limit("a notch along the outline", lambda at: place_on(SQUARE, SQUARE.points[0].key, at), 1000.0, 1000.1),
    Limit("points of an outline", lambda n: outline_of(many(n)), MAX_POINTS, MAX_POINTS + 1),
    Limit("a circle of nothing", lambda d: shaped(Measures("circle", d)), 1.0, 0.0),
    Limit("a rectangle of nothing", lambda w: shaped(Measures("rectangle", 100.0, w)), 1.0, 0.0),
    Limit("panels of a ring", lambda n: shaped(Measures("ring", 700.0, 300.0, 0.5, n)), 1, 0),
    Limit("a ring all the way round", lambda n: shaped(Measures("ring", 700.0, 300.0, 1.0, n)), 2, 1),
    Limit("the same on the fold", lambda s: shaped(Measures("ring", 700.0, 300.0, s), half=True), 1.0, 1.01),
    Limit("sizes of a piece", lambda n: graded(SQUARE, [str(k) for k in range(n)], "0", {}), 30, 31),
    Limit("stations", lambda n: points_from_stations([Station(k * 9.0, 5.0, 5.0) for k in range(n)], smooth=False,
                                                     half=False), 2, 1),
    # a sheet of A4 is 277 mm high within its edges, and 10 mm of it lie on the next one: 120 × 267 + 10
    Limit("sheets of a piece", lambda n: pages([((0.0, 0.0), (n, 0.0), (n, 90.0), (0.0, 90.0))], "a4"), 32_050.0,
          32_050.1),
    Limit("a typed length", read_length, "1000 m", "1000.001 m"),
    Limit("letters of a length", read_length, "1" + " " * 56 + "cm", "0" * 61),
    Limit("an arrow of a pinned piece", lambda long: check_grain((10.0, 10.0), (10.0, 10.0), long), 0.1, 0.0),
    Limit("a cloth without width", lambda w: read_test(FoldTest(0.0, 0.0), w), 1.0, 0.0),
    Limit("edges apart", lambda d: read_test(FoldTest(d, 0.0), 1000.0), 999.9, 1000.0),
    Limit("a bow", lambda bow: read_test(FoldTest(0.0, bow), 1000.0), 999.9, 1000.0),
    Limit("grown", lambda a: check_readings([100.0], [a], "warp"), 120.0, 120.5),
    Limit("shrunk", lambda a: check_readings([100.0], [a], "warp"), 50.0, 49.5),
    Limit("pieces at once", lambda n: read_problem(problem([rectangle(str(k), 9, 9) for k in range(n)])), 200, 201),
    Limit("copies at once", lambda n: read_problem(problem([rectangle(str(k), 9, 9, copies=n) for k in range(4)])), 100,
          101),
    Limit("points at once", lambda n: read_problem(problem([round_piece(f"p{k}", n) for k in range(25)])), 2000, 2001),
    Limit("copies of a piece", lambda n: read_problem(asked(copies=n)), 200, 201),
    Limit("letters of an id", lambda n: read_problem(problem([rectangle("a" * n, 9, 9)])), 200, 201),
    Limit("letters of a name", lambda n: read_problem(problem([{**rectangle("a", 9, 9), "name": "a" * n}])), 200, 201),
    Limit("letters of a group", lambda n: read_problem(matching("a" * n)), 200, 201),
    Limit("matches of a piece", lambda n: read_problem(matching("g") | {"pieces": [rectangle("a", 100, 50, match=[
        {"group": f"g{k}", "point": [0, 0], "along": True} for k in range(n)])]}), 20, 21),
]  # fmt: skip


@pytest.mark.parametrize("limit", LIMITS, ids=lambda limit: limit.name)
def test_the_last_is_taken_and_the_first_past_it_is_refused(limit: Limit) -> None:
    limit.act(limit.taken)
    with pytest.raises((ValueError, BadProblem)) as refused:
        limit.act(limit.refused)
    assert str(refused.value)


def test_what_reaches_past_a_length_in_hand_is_asked_back() -> None:
    assert past_the_end(900.0, 100.0, 1000.0) is None
    assert past_the_end(900.0, 100.1, 1000.0) is not None
    assert past_the_end(900.0, 100.1, None) is None
