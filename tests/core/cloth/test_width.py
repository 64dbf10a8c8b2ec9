"""Widths: the narrowest is planned with."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.width import BadCloth, Cloth, check_cloth, planned_width, usable_width
from idle_selvage.core.working import Figure

FIVE = Figure(5.0, "percent")


def test_the_narrowest_reading_is_planned_with() -> None:
    figure = planned_width(Cloth((1120.0, 1115.0, 1118.0)))
    assert figure.value == 1115.0 and figure.note == ""
    assert "1 cm apart" in planned_width(Cloth((1120.0, 1100.0, 1118.0))).note
    assert "three places" in planned_width(Cloth((1120.0,))).note


def test_usable_width_after_washing() -> None:
    # hand-worked: 1120 × 0.95 − 10 − 12 = 1042
    assert usable_width(Cloth((1120.0,), 10.0, 12.0), FIVE).value == pytest.approx(1042.0)


@pytest.mark.parametrize(
    ("cloth", "says"),
    [(Cloth(()), "not known"), (Cloth((1.0,)), "ribbon"), (Cloth((1000.0,), 400.0, 200.0), "half the cloth")],
)
def test_cloth_that_cannot_be(cloth: Cloth, says: str) -> None:
    with pytest.raises(BadCloth, match=says):
        check_cloth(cloth)


def test_margins_of_half_the_cloth_are_too_much_and_a_little_less_is_not() -> None:
    with pytest.raises(BadCloth, match="half the cloth"):
        check_cloth(Cloth((1000.0,), 300.0, 200.0))
    check_cloth(Cloth((1000.0,), 300.0, 199.9))
