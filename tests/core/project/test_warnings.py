"""What to look at: each warning by itself, with the stage where it is mended."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from idle_selvage.core.project.warnings import Watched, warnings
from idle_selvage.core.wording import Sentence, say
from idle_selvage.core.working import length


def test_nothing_is_nothing() -> None:
    assert warnings(Watched()) == ()
    # bars that meet, and a fold that can be kept off, are no reason to look
    assert warnings(Watched(bars_seen=True, any_meets=True, fold_kept_off=True)) == ()
    (missed,) = warnings(Watched(bars_seen=True, any_meets=True, cannot_meet=("Side seam", "Sleeve to back")))
    assert missed.stage == "plan" and "cannot meet at Side seam and Sleeve to back" in missed.text


@pytest.mark.parametrize(
    ("given", "stage", "level", "told"),
    [
        ({"stale": ("the pieces were changed",)}, "lay", "look", "out of date: the pieces were changed."),
        ({"bars_seen": True}, "plan", "look", "on the bars"),
        ({"fold_kept_off": False}, "lay", "look", "faded fold cannot be kept off"),
        ({"made_up": True}, "shrink", "look", "made up"),
        ({"washed_unmeasured": True}, "cloth", "look", "measure its width and length again"),
        ({"mismatches": ("The lining shrinks more.",)}, "shrink", "spoil", "lining shrinks more"),
        ({"all_washed": "Wash the rest too."}, "shrink", "look", "Wash the rest"),
        ({"tally": (("buy", "spoil", "Too little."),)}, "buy", "spoil", "Too little"),
    ],
)
def test_each_by_itself(given: dict[str, Any], stage: str, level: str, told: str) -> None:
    (found,) = warnings(replace(Watched(), **given))
    assert (found.stage, found.level) == (stage, level) and told in found.text


def test_lengths_stay_lengths() -> None:
    why = Sentence("the usable width went from {a} to {b}", a=length(1016.0), b=length(1000.0))
    (found,) = warnings(Watched(stale=(why,)))
    assert "40 in" in say(found.text, "imperial")
