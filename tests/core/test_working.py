"""A figure's working must lead to the figure: every step is worked again from the numbers it shows."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.order import Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.cloth.width import Cloth, usable_width
from idle_selvage.core.project.tally import ClothFacts, Wishes, tally
from idle_selvage.core.shrink.history import Past, from_history
from idle_selvage.core.shrink.ranges import planned_from_range, planning_range
from idle_selvage.core.shrink.shrinkage import plan_with, swatch_shrinkage
from idle_selvage.core.shrink.swatch import Swatch, skew_of
from idle_selvage.core.units import read_length
from idle_selvage.core.working import Figure, Quantity
from idle_selvage.core.written import fine_length, quantity_parts, quantity_text

from ..working_reader import check_step


def check(figure: Figure) -> None:
    """Every step gives its result again from the digits shown, and some step ends in the figure itself."""
    assert figure.steps and figure.sources
    for system in ("metric", "imperial"):
        for step in figure.steps:
            put = [(name, quantity_text(value, system, fine=True)) for name, value in step.inputs]  # type: ignore[arg-type]
            check_step(str(step.formula), put, quantity_text(step.result, system, fine=True))  # type: ignore[arg-type]
    for end in (figure.value, figure.low, figure.high):
        assert end is None or any(step.result.value == pytest.approx(end, abs=1e-9) for step in figure.steps), end
    names = {source.kind for source in figure.sources}
    assert names <= {"standard", "handbook", "common practice", "from memory", "your own log"}


readings = st.lists(st.tuples(st.floats(200, 300), st.floats(0.85, 1.0)), min_size=1, max_size=6)


@given(readings, readings, st.floats(300, 4000), st.floats(0, 200), st.sampled_from([100.0, 114.3, 250.0]))
def test_every_step_of_every_figure(
    warp: list[tuple[float, float]], weft: list[tuple[float, float]], lay: float, ends: float, step: float
) -> None:
    along = swatch_shrinkage([b for b, _ in warp], [b * k for b, k in warp], 1.0, "warp")
    across = swatch_shrinkage([b for b, _ in weft], [b * k for b, k in weft], 1.0, "weft")
    width = usable_width(Cloth((1500.0, 1495.0, 1498.0), 10.0, 12.0), plan_with(across))
    bought = purchase(lay, plan_with(along), Order(ends, 20.0, step, price_per_m=12.5, in_hand=900.0))
    for figure in (along, across, plan_with(along), width, bought.to_buy, bought.rule_of_thumb, bought.spare):
        check(figure)
    assert bought.cost is not None and bought.in_hand_short is not None
    check(bought.cost)
    check(bought.in_hand_short)
    assert width.steps[-1].result.value == pytest.approx(width.value)
    assert bought.to_buy.steps[-1].result.value == pytest.approx(bought.to_buy.value)


@pytest.mark.parametrize("kind", ["linen", "viscose", "polyester"])
def test_a_range_is_worked_too(kind: str) -> None:
    entry = planning_range(kind)
    assert entry is not None
    for direction in ("warp", "weft"):
        check(planned_from_range(entry, direction))  # type: ignore[arg-type]
        check(plan_with(planned_from_range(entry, direction)))  # type: ignore[arg-type]


def test_history_skew_and_raw_cloth_are_worked_too() -> None:
    history = from_history([Past("a", 5.5, 2), Past("b", 6, 2.5), Past("c", 7.25, 4)], "warp")
    skew = skew_of(Swatch(diagonals=((354.0, 352.0),)), 0)
    raw = tally(Cloth((1500.0,)), ClothFacts(treatment="fit"), None, Wishes()).warp_taken.figure
    for figure in (history, skew, raw):
        assert figure is not None
        check(figure)


@given(st.floats(1, 5000))
def test_lengths_inside_a_working_keep_their_decimals(mm: float) -> None:
    number, unit = fine_length(mm, "metric")
    assert read_length(f"{number} {unit}") == pytest.approx(mm, abs=0.0051)
    number, unit = fine_length(mm, "imperial")
    assert read_length(f"{number} {unit}") == pytest.approx(mm, abs=0.0128)


@pytest.mark.parametrize(
    ("quantity", "metric", "imperial"),
    [
        (Quantity(1270.0, "length"), "127.0 cm", "50 in"),
        (Quantity(1371.6, "purchase"), "1 ½ yd (1.38 m)", "1 ½ yd"),
        (Quantity(6.06, "percent"), "6.1 %", "6.1 %"),
        (Quantity(-0.4, "points"), "−0.4 points", "−0.4 points"),
        (Quantity(31.8, "money"), "31.80", "31.80"),
        (Quantity(412.4, "mass"), "412 g", "14.5 oz"),
        (Quantity(1.302, "angle"), "1.30°", "1.30°"),
        (Quantity(6, "count"), "6", "6"),
        (Quantity(0.935, "ratio"), "0.935", "0.935"),
    ],
)
def test_every_kind_of_quantity_in_both_systems(quantity: Quantity, metric: str, imperial: str) -> None:
    assert quantity_text(quantity, "metric") == metric
    assert quantity_text(quantity, "imperial") == imperial
    number, unit = quantity_parts(quantity, "metric")
    assert number in metric and unit in metric
