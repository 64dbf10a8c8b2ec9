"""Weights as people type them."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.units import BadEntry, System
from idle_selvage.core.weights import (
    cloth_weight_text,
    load_weight_text,
    read_cloth_weight,
    read_load_weight,
    told_weights,
)
from idle_selvage.core.written import with_fahrenheit


@pytest.mark.parametrize(
    ("text", "system", "grams"),
    [
        ("180", "metric", 180.0),
        ("180 g/m²", "imperial", 180.0),
        ("200 gsm", "imperial", 200.0),
        # one ounce a square yard: 28.349523125 g on 0.83612736 m²
        ("1", "imperial", 33.9057),
        ("5,3 oz/yd²", "metric", 179.70),
        ("6 oz", "metric", 203.434),
    ],
)
def test_cloth_is_weighed_by_its_area(text: str, system: System, grams: float) -> None:
    assert read_cloth_weight(text, system) == pytest.approx(grams, rel=1e-4)


def test_a_load_is_weighed_in_kilograms_or_pounds() -> None:
    assert read_load_weight("7", "metric") == read_load_weight("7 kg", "imperial") == 7.0
    assert read_load_weight("15", "imperial") == pytest.approx(6.80388555)
    assert read_load_weight("15 lbs", "metric") == pytest.approx(6.80388555)


@pytest.mark.parametrize("text", ["", "heavy", "5 stone", "oz"])
def test_what_is_no_weight_is_refused(text: str) -> None:
    with pytest.raises(BadEntry):
        read_cloth_weight(text, "metric")


@given(st.floats(20, 900), st.sampled_from(["metric", "imperial"]))
def test_what_is_shown_is_read_again(grams: float, system: System) -> None:
    assert read_cloth_weight(cloth_weight_text(grams, system), system) == pytest.approx(grams, rel=5e-3)
    assert read_load_weight(load_weight_text(grams / 50, system), system) == pytest.approx(grams / 50, rel=5e-3)


def test_temperatures_stand_in_both_scales_for_whoever_works_in_inches() -> None:
    assert (
        with_fahrenheit("wash at 40 °C, then at 60 °C", "imperial") == "wash at 40 °C (104 °F), then at 60 °C (140 °F)"
    )
    assert with_fahrenheit("wash at 40 °C", "metric") == "wash at 40 °C"
    assert with_fahrenheit("30 °C (86 °F)", "imperial") == "30 °C (86 °F)"


@pytest.mark.parametrize(
    ("text", "told"),
    [
        # 1 oz = 28.349523125 g, 1 lb = 453.59237 g: international yard and pound agreement, 1959
        ("2 lb", ("907 g", "0.91 kg", "32.0 oz", "2 lb 0.0 oz")),
        ("250 g", ("250 g", "0.25 kg", "8.8 oz", "0 lb 8.8 oz")),
        ("1,5 kg", ("1500 g", "1.50 kg", "52.9 oz", "3 lb 4.9 oz")),
        ("453.59 g", ("454 g", "0.45 kg", "16.0 oz", "1 lb 0.0 oz")),
        ("180 g/m²", ("180 g/m²", "5.3 oz/yd²")),
        ("12 oz/yd2", ("407 g/m²", "12.0 oz/yd²")),
        ("1 3/8 yd", ()), ("so heavy", ()), ("", ()), ("12", ()),
    ],
)  # fmt: skip
def test_a_weight_in_every_unit(text: str, told: tuple[str, ...]) -> None:
    assert tuple(text for _, text in told_weights(text)) == told


def test_a_weight_is_told_in_every_unit_to_its_last_figure() -> None:
    told = dict(told_weights("50 kg"))
    assert told["grams"] == "50000 g" and told["kilograms"] == "50.00 kg" and told["ounces"] == "1763.7 oz"
