"""The core beside the second writing of the trade's formulas, over 2 000 seeded random projects."""

from __future__ import annotations

import random
from fractions import Fraction
from itertools import pairwise
from pathlib import Path

import pytest

from idle_selvage.core.buy.bias import bias_tape
from idle_selvage.core.buy.envelope import BadChart, choose_size, convert_width
from idle_selvage.core.buy.order import Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.buy.ruffles import Ruffle, ways
from idle_selvage.core.cloth.make import Make
from idle_selvage.core.cloth.state import State
from idle_selvage.core.cloth.width import Cloth
from idle_selvage.core.lay.asking import FlawToLay, blocked
from idle_selvage.core.project.tally import ClothFacts, MeasuredLay, Wishes, states_for, tally
from idle_selvage.core.shrink.history import Past, from_history
from idle_selvage.core.shrink.swatch import Swatch
from idle_selvage.core.true.slant import FoldTest, read_test
from idle_selvage.core.true.twist import twist_of
from idle_selvage.core.working import Figure

from . import second_writing as again

PROJECTS = 2000
NEAR = {"rel": 1e-9, "abs": 1e-6}


class Project:
    """A random project, as it is told to both writings."""

    def __init__(self, number: int) -> None:
        rng = self.rng = random.Random(number)
        first, second = rng.sample(list(again.RANGES), 2)
        share = rng.choice([100, 85, 60, 50])
        self.fibres = [(first, float(share))] + ([(second, 100.0 - share)] if share < 100 else [])
        self.gauze = rng.random() < 0.2
        self.washes = rng.randint(0, 3)
        self.r = rng.choice([0.5, 1.0, 25.4 / 16])
        self.rows = (
            [self.marks(0.08) for _ in range(rng.randint(1, 5))],
            [self.marks(0.05) for _ in range(rng.randint(1, 5))],
        )
        self.widths = [rng.uniform(850, 1600) + rng.uniform(-6, 6) for _ in range(rng.randint(1, 4))]
        self.margins = rng.uniform(0, 25), rng.uniform(0, 25)
        self.ends, self.spare = rng.uniform(0, 200), rng.uniform(0, 300)
        self.step = rng.choice([100.0, 250.0, 500.0, 114.3, 228.6, 457.2])
        self.extra = rng.choice([0.0, rng.uniform(10, 500)])
        self.lay = rng.uniform(200, 6000)
        self.in_hand = rng.uniform(500, 8000)

    def marks(self, most: float) -> list[float]:
        row = [self.rng.uniform(90, 480)]
        for k in range(self.washes):
            row.append(row[-1] * (1 - self.rng.uniform(-0.002, most) / (k + 1)))
        return row

    @property
    def make(self) -> Make:
        return Make(tuple(self.fibres), "gauze" if self.gauze else "plain")

    @property
    def swatch(self) -> Swatch:
        if not self.washes:
            return Swatch()
        warp, weft = (tuple(tuple(row) for row in rows) for rows in self.rows)
        return Swatch(warp, weft, self.r)

    def loses(self, way: int) -> tuple[float, float, float]:
        """Low, best and high of what it loses in all."""
        if self.washes:
            return again.swatch(self.rows[way], self.washes, self.r)
        return again.expected(self.fibres, self.gauze, way)


@pytest.mark.parametrize("start", range(0, PROJECTS, 100))
def test_a_hundred_projects(start: int) -> None:
    for number in range(start, start + 100):
        one = Project(number)
        check_tally(one)
        check_treated(one)
        check_buying(one)
        check_table(one)


def check_tally(one: Project) -> None:
    """Before any treatment: shrinkage, usable width, purchase, what is left."""
    cloth = Cloth(tuple(one.widths), *one.margins, in_hand=one.in_hand, price_per_m=7.5)
    facts = ClothFacts(one.make, one.swatch)
    wishes = Wishes(ends=one.ends, spare=one.spare, step=one.step, bought_extra=one.extra, why="x")
    found = tally(cloth, facts, MeasuredLay(one.lay), wishes)
    (low, best, high), (_, _, across) = one.loses(0), one.loses(1)
    assert found.warp.figure is not None and found.warp.plan is not None
    assert (found.warp.figure.low, found.warp.figure.value) == (
        pytest.approx(100 * low, **NEAR),
        pytest.approx(100 * best, **NEAR),
    )
    assert found.warp.plan.value == pytest.approx(100 * max(0.0, high), **NEAR)
    assert found.width is not None
    assert found.width.value == pytest.approx(again.usable(one.widths, across, sum(one.margins)), **NEAR)
    bought = again.to_buy(one.lay, one.ends, one.spare, high, one.step, one.extra)
    assert found.purchase is not None and found.purchase.to_buy.value == pytest.approx(bought, **NEAR)
    assert found.purchase.cost is not None and found.purchase.cost.value == pytest.approx(bought / 1000 * 7.5, **NEAR)
    assert found.left is not None and found.left.value == pytest.approx(
        one.in_hand * (1 - max(0.0, high)) - one.ends, **NEAR
    )
    # a flaw, before it was washed
    x, w = one.rng.uniform(50, 5000), one.rng.uniform(5, 60)
    moved = states_for(cloth, facts).move(0, max(1, one.washes))
    area = blocked([FlawToLay((x, 10.0, w, 10.0), moved)], 0.0, 0.0, 1e6)[0]
    assert (area[0], area[2]) == pytest.approx(again.flaw(x, w, low, high), abs=0.006)


def check_treated(one: Project) -> None:
    """After one treatment, measured or not: what is left of the length, and the width, as they are."""
    after = one.in_hand * one.rng.uniform(0.9, 0.99)
    narrow = [w * one.rng.uniform(0.93, 0.99) for w in one.widths]
    measured = one.rng.random() < 0.5
    states = (
        State(tuple(one.widths), one.in_hand),
        State(tuple(narrow), after, "after treatment 1") if measured else State(name="after treatment 1"),
    )
    facts = ClothFacts(one.make, one.swatch, treatment="done", states=states)
    found = tally(
        Cloth(tuple(one.widths), *one.margins), facts, MeasuredLay(one.lay), Wishes(ends=one.ends, spare=one.spare)
    )
    assert found.width is not None and found.left is not None
    if measured:
        assert found.width.value == pytest.approx(min(narrow) - sum(one.margins), **NEAR)
        assert found.left.value == pytest.approx(after - one.ends, **NEAR)
        return
    lost = [
        again.swatch(one.rows[way], 1, one.r) if one.washes else again.expected(one.fibres, one.gauze, way)
        for way in (0, 1)
    ]
    assert found.width.value == pytest.approx(again.usable(one.widths, lost[1][2], sum(one.margins)), **NEAR)
    assert found.left.value == pytest.approx(one.in_hand * (1 - max(0.0, lost[0][2])) - one.ends, **NEAR)


def check_buying(one: Project) -> None:
    """Own history, strips, tape, and a purchase with a least length."""
    rng = one.rng
    tests = [rng.uniform(1, 9) for _ in range(rng.randint(3, 9))]
    found = from_history([Past("", value, 1.0) for value in tests], "warp")
    assert found is not None and (found.value, found.high) == pytest.approx(again.next_of(tests), rel=1e-9)
    edge, full, wide, seam, ring = (
        rng.uniform(200, 3000),
        rng.uniform(1, 3),
        rng.uniform(700, 1500),
        rng.uniform(0, 20),
        rng.random() < 0.5,
    )
    across = next(w for w in ways(Ruffle(edge, full, 120, wide, 20, seam, ring)) if w.key == "across")
    n, joined = again.strips_needed(edge, full, wide, seam, ring)
    assert (across.strips, across.joined.value) == (n, pytest.approx(joined))
    long, short, tape, a = rng.uniform(200, 1500), rng.uniform(150, 900), rng.uniform(15, 60), rng.uniform(3, 12)
    assert bias_tape(long, short, tape, a).strips.value == pytest.approx(
        again.bias_strips(long, short, tape, a), abs=1e-6
    )
    least = rng.uniform(0, 1000)
    order = Order(one.ends, one.spare, one.step, one.extra, least=least)
    high = max(0.0, one.loses(0)[2])
    bought = purchase(one.lay, Figure(100 * high, "percent"), order)
    assert bought.to_buy.value == pytest.approx(
        again.to_buy(one.lay, one.ends, one.spare, high, one.step, one.extra, least)
    )


def check_table(one: Project) -> None:
    """The envelope's table and sizes, and the fold test."""
    rng = one.rng
    yards = Fraction(rng.randint(2, 70), 8)
    printed = rng.choice([35, 36, 38, 39, 43, 44, 45, 48, 50, 54, 57, 60])
    cloth = rng.choice([35, 38, 43, 44, 45, 49, 50, 51, 54, 57, 58, 60])
    wanted, apart = again.converted(yards, printed, cloth)
    try:
        table = convert_width(float(yards) * again.YARD, printed * again.INCH, cloth * again.INCH)
    except BadChart:
        raise AssertionError(f"{yards} yd of {printed} in for {cloth} in") from None
    assert table.length / again.YARD == pytest.approx(float(wanted)) and bool(table.more) == (apart >= 3)
    bodies = sorted(rng.uniform(700, 1300) for _ in range(4))
    mine, loose = rng.uniform(680, 1320), rng.random() < 0.5
    if min(b - a for a, b in pairwise(bodies)) > 11:
        wanted_size = again.size(bodies, mine, loose)
        try:
            got = "ABCD".index(choose_size("ABCD", bodies, mine, "loose" if loose else "close").size)
        except BadChart:
            got = -1
        assert got == (-1 if wanted_size is None else wanted_size)
    d, width, height = rng.uniform(0, 80), min(one.widths), rng.uniform(300, 1200)
    slant = read_test(FoldTest(d), width)
    assert (slant.skew.value, slant.angle.value) == pytest.approx(again.skew(d, width))
    piece = ((0.0, 0.0), (height, 0.0), (height, 300.0), (0.0, 300.0))
    turned = twist_of("leg", piece, "lengthwise", slant.angle.value)
    assert turned.twist.value == pytest.approx(again.twist(height, again.skew(d, width)[1]))


def test_the_second_writing_knows_nothing_of_the_core() -> None:
    assert "idle_selvage" not in Path(again.__file__).read_text()
