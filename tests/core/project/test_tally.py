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
from idle_selvage.core.shrink.treatment import swatch_programme

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


def test_what_is_left_to_lay_on_is_of_the_cloth_as_it_is_cut() -> None:
    # by hand: 2500 mm in hand; a swatch of 250 → 240.4 thrice at r = 0.1 mm plans with little over 3.84 %
    swatch = Swatch(((250.0, 240.4),) * 3, ((250.0, 245.0),) * 3, 0.1)
    cloth = Cloth((1118.0,), 10.0, 12.0, in_hand=2500.0)
    found = tally(cloth, ClothFacts(LINEN, swatch), None, Wishes(ends=100.0))
    assert found.warp.plan is not None and found.left is not None
    assert found.left.value == pytest.approx(2500 * (1 - found.warp.plan.value / 100) - 100) and found.left.value < 2305
    # washed and measured it is what it is: 2380 × 1080, and nothing more is taken off
    states = (State((1118.0,), 2500.0), State((1080.0,), 2380.0, "after treatment 1"))
    done = tally(cloth, ClothFacts(LINEN, swatch, treatment="done", states=states), None, Wishes(ends=100.0))
    assert done.left is not None and done.left.value == 2280.0
    assert done.width is not None and done.width.value == 1080 - 22 == 1058


def test_left_alone_and_washed_later_spoils_in_either_direction() -> None:
    def said(treatment: str, later: bool, swatch: Swatch) -> list[tuple[str, str]]:
        facts = ClothFacts(LINEN, swatch, treatment=treatment, washed_later=later)  # type: ignore[arg-type]
        return [
            (level, text) for stage, level, text in tally(None, facts, None, Wishes()).warnings if stage == "shrink"
        ]

    # nothing along, 4 % across: the garment gets narrower
    across = Swatch(((250.0, 250.0),) * 3, ((250.0, 240.0),) * 3)
    assert any(level == "spoil" and "4.0 % across" in text for level, text in said("none", True, across))
    assert not any(level == "spoil" for level, _ in said("none", False, across)), "never washed, it never shrinks"
    assert not any(level == "spoil" for level, _ in said("coming", True, across))


def test_left_alone_it_is_said_where_nothing_is_known_of_its_shrinkage() -> None:
    for treatment, told in (("none", True), ("coming", False), ("done", False)):
        found = tally(Cloth((1120.0,) * 3), ClothFacts(treatment=treatment, washed_later=True), None, Wishes())
        assert any("how much it shrinks then is not known" in str(text) for _, _, text in found.warnings) is told


def test_never_washed_buys_no_shrinkage_and_keeps_its_width() -> None:
    cloth = Cloth((1500.0,), 10.0, 10.0)
    facts = ClothFacts(LINEN, treatment="none", washed_later=False)
    found = tally(cloth, facts, MeasuredLay(1500.0), Wishes(ends=0.0, step=1.0))
    assert found.width is not None and found.width.value == 1480.0
    assert found.purchase is not None and found.purchase.to_buy.value == 1500.0


def test_shrink_to_fit_on_pre_shrunk_cloth_says_what_is_left() -> None:
    swatch = Swatch(((250.0, 240.0, 239.0),) * 3, ((250.0, 245.0, 245.0),) * 3)
    states = (State((1118.0,), 2500.0), State((1080.0,), 2380.0, "after treatment 1"))
    facts = ClothFacts(LINEN, swatch, treatment="fit", states=states)
    told = [text for _, _, text in tally(Cloth((1118.0,)), facts, None, Wishes()).warnings]
    assert "It was pre-shrunk, so the pieces are enlarged only by what is left: 0.4 % along and 0.0 % across." in told


def test_how_the_swatch_was_washed_matters_only_while_the_length_is_planned_by_it() -> None:
    swatch = Swatch(((250.0, 240.0),) * 3, ((250.0, 245.0),) * 3, how=swatch_programme("cold-hand", "line"))
    hot = swatch_programme("60", "line")

    def said(treatment: str) -> bool:
        facts = ClothFacts(LINEN, swatch, treatment=treatment, how=hot)  # type: ignore[arg-type]
        return any("lower limit" in text for _, _, text in tally(None, facts, None, Wishes()).warnings)

    assert said("coming") and said("none") and said("fit") and not said("done")
