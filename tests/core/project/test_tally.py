"""The few figures a project is steered by."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.make import Make
from idle_selvage.core.cloth.state import State
from idle_selvage.core.cloth.width import Cloth
from idle_selvage.core.plan.piece import Piece
from idle_selvage.core.project.tally import ClothFacts, MeasuredLay, Wishes, bad_pieces, tally
from idle_selvage.core.shrink.known import known_shrinkage
from idle_selvage.core.shrink.swatch import Swatch

LINEN = Make((("linen", 100.0),))


def test_tally_says_what_is_missing_and_on_what_it_rests() -> None:
    nothing = tally(None, ClothFacts(), None, Wishes())
    assert nothing.width is None and nothing.purchase is None
    assert "three places" in nothing.missing["width"] and "swatch" in nothing.missing["shrinkage_warp"]
    ranged = tally(Cloth((1120.0,) * 3), ClothFacts(LINEN), MeasuredLay(1500.0), Wishes())
    assert ranged.warp.basis == "range" and ranged.purchase is not None
    assert any("planning range" in text for _, _, text in ranged.warnings)
    washed = Swatch(((250, 240),) * 3, ((250, 245),) * 3)
    known = tally(Cloth((1120.0,) * 3, in_hand=500.0), ClothFacts(LINEN, washed), MeasuredLay(1500.0), Wishes())
    assert known.warp.basis == "swatch" and not any("range" in text for _, _, text in known.warnings)
    assert ("buy", "spoil", "The length in hand is too short for this lay.") in known.warnings
    assert "cost" in known.missing


def test_a_half_measured_swatch_counts_only_what_was_washed() -> None:
    known = known_shrinkage(LINEN, Swatch(((250, 240), (250, None))), (), "warp")
    assert known.basis == "swatch" and known.figure is not None and known.figure.value == pytest.approx(4)
    assert known_shrinkage(LINEN, Swatch(((250, 20),)), (), "warp").missing


def test_what_is_cut_raw_or_was_treated_loses_nothing_more() -> None:
    cloth = Cloth((1120.0,) * 3, 10.0, 10.0)
    done = (State(), State(cloth.width_readings, None, "after treatment 1"))
    for given_ in (
        ClothFacts(LINEN, treatment="fit"),
        ClothFacts(LINEN, treatment="none", washed_later=False),
        ClothFacts(LINEN, treatment="done", states=done),
    ):
        found = tally(cloth, given_, MeasuredLay(1500.0), Wishes(ends=0.0, step=100.0))
        assert found.width is not None and found.width.value == pytest.approx(1100.0)
        assert found.purchase is not None
        # what is bought anew would be treated again: linen's range says up to 8 %, 1500 ÷ 0.92 = 1630.4
        bought = 1700.0 if given_.treatment == "done" else 1500.0
        assert found.purchase.to_buy.value == pytest.approx(bought)
        assert found.warp.plan is not None and found.warp.plan.value > 0, "what the fibre does is still told"


def test_bad_pieces_are_named() -> None:
    good = Piece("Good", ((0, 0), (100, 0), (100, 100), (0, 100)))
    bad = Piece("Knot", ((0, 0), (100, 100), (100, 0), (0, 100)))
    assert len(bad_pieces([good, bad])) == 1 and bad_pieces([good, bad])[0].startswith("Knot")
