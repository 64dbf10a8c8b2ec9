"""Which of two treatments is the harsher one."""

from __future__ import annotations

from itertools import product

import pytest

from idle_selvage.core.shrink.programme import beside
from idle_selvage.core.shrink.treatment import SWATCH_DRIES, SWATCH_WASHES, swatch_programme

#: Every way a swatch may have been treated.
WAYS = [swatch_programme(wash, dry) for wash, dry in product(SWATCH_WASHES, SWATCH_DRIES)]


@pytest.mark.parametrize(
    ("swatch", "coming", "stands"),
    [
        (("40", "line"), ("40", "line"), "same"),
        (("40", "line"), ("40", "flat"), "same"),
        (("40", "line"), ("30-gentle", "line"), "milder"),
        (("40", "line"), ("60", "line"), "harsher"),
        (("40", "line"), ("40", "tumble-low"), "harsher"),
        (("60", "tumble-warm"), ("cold-hand", "line"), "milder"),
        # cooler, but tumbled: something of it is harsher
        (("40", "line"), ("30-gentle", "tumble-low"), "harsher"),
        (("40", "line"), ("soak", "line"), "milder"),
        (("steam", "line"), ("steam", "flat"), "same"),
        (("steam", "line"), ("cold-hand", "line"), "harsher"),
        (("60", "line"), ("steam", "line"), "harsher"),
    ],
)
def test_beside(swatch: tuple[str, str], coming: tuple[str, str], stands: str) -> None:
    assert beside(swatch_programme(*swatch), swatch_programme(*coming)) == stands


def test_of_two_ways_never_both_are_milder() -> None:
    for one, other in product(WAYS, WAYS):
        assert {beside(one, other), beside(other, one)} != {"milder"}
        assert (beside(one, other) == "same") == (beside(other, one) == "same")
