"""Rules of thumb beside what was worked out."""

from __future__ import annotations

import pytest

from idle_selvage.core.buy.order import Extra, Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.buy.thumbs import Thumb
from idle_selvage.core.wording import say
from idle_selvage.core.working import Figure


@pytest.mark.parametrize(
    ("off", "verdict", "told"),
    [
        (0.0, "right", "about right here"),
        (4.9, "right", "about right here"),
        (-5.1, "short", "0.5 cm short of what is needed"),
        (254.0, "more", "25.4 cm more than is needed"),
    ],
)
def test_a_verdict_is_a_word_and_a_sentence(off: float, verdict: str, told: str) -> None:
    thumb = Thumb("a rule", Figure(1000.0, "length"), off)
    assert thumb.verdict == verdict and thumb.told == told


def test_they_are_told_in_the_units_of_who_reads() -> None:
    bought = purchase(1500.0, Figure(5.0, "percent"), Order(), extras=[Extra("nap", 1400.0, 1500.0)])
    names = [say(t.name, "imperial") for t in bought.thumbs]
    assert "¼ yd more for nap" in names and "2 in at each end to straighten" in names
    assert not any("cm" in name for name in names)
