"""The fold test and its bands."""

from __future__ import annotations

import pytest

from idle_selvage.core.true.slant import BANDS_MM, BadTest, FoldTest, band_of, read_test

from .cases import slant


@pytest.mark.parametrize(
    ("apart", "band"),
    [(0, "true"), (3, "true"), (3.1, "steam"), (12, "steam"), (12.1, "straighten"), (40, "straighten"), (41, "cut")],
)
def test_the_bands_of_the_trade(apart: float, band: str) -> None:
    assert band_of(apart) == band
    assert slant(apart).band == slant(-apart).band == band
    assert slant(0, bow=apart).band == band, "a bow counts as much as a slant"


def test_the_bands_are_a_setting() -> None:
    assert read_test(FoldTest(5), 1400, (6.0, 10.0, 20.0)).band == "true"
    with pytest.raises(BadTest, match="must grow"):
        read_test(FoldTest(5), 1400, (6.0, 5.0, 20.0))


@pytest.mark.parametrize(
    ("test", "width", "says"),
    [(FoldTest(5), 0, "width"), (FoldTest(1500), 1400, "further apart"), (FoldTest(1, -1), 1400, "bow")],
)
def test_readings_no_cloth_can_give(test: FoldTest, width: float, says: str) -> None:
    with pytest.raises(BadTest, match=says):
        read_test(test, width)


def test_the_usual_bands() -> None:
    assert BANDS_MM == (3.0, 12.0, 40.0)
