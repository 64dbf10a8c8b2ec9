"""Direction, pile and wales."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.direction import PILE_RUNS, direction_asked, is_one_way, wale_class


def test_direction_and_wales() -> None:
    assert [is_one_way(d) for d in ("none", "nap", "print", "stroke")] == [False, True, True, True]
    assert "deeper" in PILE_RUNS["up"][1] and "wears better" in PILE_RUNS["down"][1]
    # common practice, no source: 3–8 wide, 10–14 medium, 16–23 fine
    assert [wale_class(n)[0] for n in (3, 8, 10, 14, 16, 23, 9, 15)] == [
        "wide", "wide", "medium", "medium", "fine", "fine", "wide", "medium",
    ]  # fmt: skip
    for wrong in (0, 31):
        with pytest.raises(ValueError, match="wales to the inch"):
            wale_class(wrong)


def test_pile_without_a_direction_and_a_print_on_its_side_are_asked_about() -> None:
    assert "corduroy" in direction_asked("none", "corduroy", ())[0]
    assert "velveteen" in direction_asked("none", "velveteen", ("Yoke",))[0]
    assert direction_asked("nap", "corduroy", ("Yoke",)) == direction_asked("none", "twill", ("Yoke",)) == ()
    assert direction_asked("none", "plain", ("Yoke",), ("Skirt",)) == direction_asked("border", "plain", ()) == ()
    turned, along = direction_asked("border", "plain", ("Yoke",), ("Skirt", "Slip"))
    assert turned.startswith("Yoke: cut on the cross grain of border cloth") and along.startswith("Skirt and Slip: cut")
    assert direction_asked("print", "plain", ("Yoke", "Cuff"))[0].startswith("Yoke and Cuff: cut on the cross grain")
