"""Quantities as they are written: round lengths that a rule names, printed ones, and those of a working."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.units import read_length
from idle_selvage.core.working import Quantity, about
from idle_selvage.core.written import length_text, quantity_text, round_length, sided_text


@pytest.mark.parametrize(
    ("mm", "metric", "imperial"),
    [
        (0.5, "0.5 mm", "1⁄32 in"),
        (3.0, "3 mm", "⅛ in"),
        (25.4, "2.5 cm", "1 in"),
        (250.0, "25 cm", "10 in"),
        (228.6, "23 cm", "¼ yd"),
        (914.4, "91 cm", "1 yd"),
        (2000.0, "2 m", "2 ¼ yd"),
        (200_000.0, "200 m", "219 yd"),
        # where another unit or another fraction begins
        (9.94, "9.9 mm", "⅜ in"),
        (10.0, "1 cm", "⅜ in"),
        (29.9, "3 cm", "1 ¼ in"),
        (994.0, "99 cm", "1 yd"),
        (1000.0, "1 m", "1 yd"),
        (1000.4, "1 m", "1 yd"),
        (11.9, "1.2 cm", "7⁄16 in"),
        (12.0, "1.2 cm", "½ in"),
        (50.0, "5 cm", "2 in"),
        (9100.0, "9.1 m", "10 yd"),
    ],
)
def test_a_length_that_a_rule_names_is_a_round_one(mm: float, metric: str, imperial: str) -> None:
    assert quantity_text(about(mm), "metric") == metric
    if mm > 1:
        assert quantity_text(about(mm), "imperial") == imperial


@given(st.floats(2.0, 90_000.0))
def test_a_round_length_is_near_the_one_it_stands_for(mm: float) -> None:
    for system in ("metric", "imperial"):
        number, unit = round_length(mm, system)  # type: ignore[arg-type]
        assert read_length(f"{number} {unit}") == pytest.approx(mm, rel=0.15, abs=0.8)


def test_whole_eighths_of_a_yard_are_told_as_they_are_printed() -> None:
    eighths = Quantity(17 / 8 * 914.4, "printed")
    assert quantity_text(eighths, "imperial") == "2 ⅛ yd" and quantity_text(eighths, "metric").startswith("2 ⅛ yd (194")
    odd = Quantity(1000.0, "printed")
    assert quantity_text(odd, "metric") == length_text(1000.0, "metric")


#: a count is a whole number, and never below nothing
KINDS = ["length", "about", "purchase", "printed", "percent", "points", "money", "angle", "ratio", "mass"]


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("system", ["metric", "imperial"])
def test_nothing_is_written_as_minus_nothing_and_minus_is_a_minus_sign(kind: str, system: str) -> None:
    assert not quantity_text(Quantity(-1e-9, kind), system).startswith(("−", "-"))  # type: ignore[arg-type]
    if kind not in ("about", "printed"):
        assert quantity_text(Quantity(-12.0, kind), system).startswith("−")  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("mm", "says"),
    [(29.6, ("3", "cm")), (28.6, ("2.9", "cm")), (30.6, ("3", "cm")), (9.96, ("10", "mm")), (31.4, ("3", "cm"))],
)
def test_a_rule_s_length_is_told_to_the_millimetre_under_three_centimetres_only(
    mm: float, says: tuple[str, str]
) -> None:
    assert round_length(mm, "metric") == says


def test_a_length_to_one_side_says_which_unless_it_is_none() -> None:
    assert sided_text(-25.4, "imperial") == "1 in right" and sided_text(25.4, "imperial") == "1 in"
    assert sided_text(-25.0, "metric") == "2.5 cm right" and sided_text(-0.01, "metric") == "0.0 cm"
