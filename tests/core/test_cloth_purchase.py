from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.order import SHOP_STEPS_MM, Order, round_up
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.cloth.make import Make
from idle_selvage.core.cloth.width import BadCloth, Cloth, check_cloth, planned_width, usable_width
from idle_selvage.core.plan.piece import Piece
from idle_selvage.core.project.stages import StageFacts, stages
from idle_selvage.core.project.tally import ClothFacts, MeasuredLay, Wishes, bad_pieces, tally
from idle_selvage.core.shrink.history import Past
from idle_selvage.core.shrink.known import known_shrinkage
from idle_selvage.core.shrink.swatch import Swatch
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
    [(Cloth(()), "not known"), (Cloth((20.0,)), "ribbon"), (Cloth((1000.0,), 400.0, 200.0), "half the cloth")],
)
def test_cloth_that_cannot_be(cloth: Cloth, says: str) -> None:
    with pytest.raises(BadCloth, match=says):
        check_cloth(cloth)


def test_a_purchase_worked_by_hand() -> None:
    # 1273 lay + 100 ends + 20 spare = 1393; ÷ 0.935 = 1489.84; up to 10 cm = 1500; cost 1.5 × 21.20 = 31.80
    bought = purchase(1273, Figure(6.5, "percent"), Order(100, 20, 100, price_per_m=21.20, in_hand=1400))
    assert bought.to_buy.value == pytest.approx(1500)
    assert [round(line.adds, 1) for line in bought.lines] == [1273, 100, 20, 96.8, 10.2]
    assert bought.cost is not None and bought.cost.value == pytest.approx(31.80)
    assert bought.spare.value == pytest.approx(1500 * 0.935 - 1373)
    assert bought.in_hand_short is not None and bought.in_hand_short.value == pytest.approx(89.84, abs=0.01)
    assert bought.rule_of_thumb.value == pytest.approx(1393 * 1.065)


def test_steps_that_cannot_be() -> None:
    with pytest.raises(ValueError, match="step"):
        purchase(1000, FIVE, Order(0, 0, 0))
    with pytest.raises(ValueError, match="shrink"):
        purchase(1000, Figure(100, "percent"), Order(0, 0, 100))


@given(st.floats(1, 20_000), st.sampled_from(SHOP_STEPS_MM))
def test_rounding_never_goes_down(needed: float, step: float) -> None:
    up = round_up(needed, step)
    assert needed - 1e-5 <= up < needed + step
    assert up / step == pytest.approx(round(up / step), abs=1e-9)
    assert round_up(up, step) == pytest.approx(up), "a length the shop cuts stays as it is"


@given(st.floats(100, 5000), st.floats(0, 20), st.floats(0, 20), st.sampled_from(SHOP_STEPS_MM))
def test_more_shrinkage_never_buys_less(lay: float, s: float, more: float, step: float) -> None:
    def of(percent: float) -> float:
        return purchase(lay, Figure(percent, "percent"), Order(50, 0, step)).to_buy.value

    assert of(s + more) >= of(s) - 1e-6
    bought = purchase(lay, Figure(s, "percent"), Order(50, 0, step))
    assert sum(line.adds for line in bought.lines) == pytest.approx(bought.to_buy.value)
    assert bought.spare.value >= -1e-4, "what is bought always holds the lay"
    assert bought.rule_of_thumb.value <= lay + 50 + s / 100 * (lay + 50) + 1e-6


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


def test_own_history_stands_between_swatch_and_range() -> None:
    past = (Past("a", 5.0, 2.0), Past("b", 6.0, 3.0), Past("c", 7.0, 4.0))
    known = known_shrinkage(LINEN, Swatch(), past, "warp")
    # hand-worked: mean 6, sample standard deviation 1, planned with 6 + 2 × 1
    assert known.basis == "history" and known.figure is not None and known.plan is not None
    assert known.figure.value == pytest.approx(6) and known.plan.value == pytest.approx(8)
    assert known_shrinkage(LINEN, Swatch(), past[:2], "warp").basis == "range", "two tests are no history"
    assert known_shrinkage(LINEN, Swatch(((250, 240),)), past, "warp").basis == "swatch"


def test_what_is_cut_raw_or_was_treated_loses_nothing_more() -> None:
    cloth = Cloth((1120.0,) * 3, 10.0, 10.0)
    for given_ in (ClothFacts(LINEN, raw=True), ClothFacts(LINEN, treated=True)):
        found = tally(cloth, given_, MeasuredLay(1500.0), Wishes(ends=0.0, step=100.0))
        assert found.width is not None and found.width.value == pytest.approx(1100.0)
        assert found.purchase is not None and found.purchase.to_buy.value == pytest.approx(1500.0)
        assert found.warp.plan is not None and found.warp.plan.value > 0, "what the fibre does is still told"


def test_every_stage_has_a_state_and_says_why() -> None:
    base = dict(
        pieces=2,
        bad_pieces=0,
        width_readings=3,
        kind_known=True,
        marks_before=6,
        made_up=False,
        not_at_rest="",
        washed_both_ways=True,
        laying=False,
        laid=True,
        stale=(),
        can_buy=True,
        logged=3,
    )

    def of(**change: object) -> dict[str, str]:
        return {s.name: s.state for s in stages(StageFacts(**{**base, **change}))}  # type: ignore[arg-type]

    assert of() == {
        "plan": "done",
        "cloth": "done",
        "shrink": "done",
        "buy": "done",
        "true": "empty",
        "lay": "done",
        "cut": "not-built",
        "log": "begun",
    }
    assert of(pieces=0)["plan"] == "empty"
    assert of(bad_pieces=1)["plan"] == "look-again"
    assert of(width_readings=2)["cloth"] == "begun"
    assert of(washed_both_ways=False)["shrink"] == "begun"
    assert of(washed_both_ways=False, marks_before=0)["shrink"] == "empty"
    assert of(made_up=True)["shrink"] == "look-again" and of(not_at_rest="Wash once more.")["shrink"] == "begun"
    assert of(laying=True)["lay"] == "begun"
    assert of(true=("begun", "Go on."))["true"] == "begun"
    changed = of(stale=("the pieces were changed",))
    assert changed["lay"] == changed["buy"] == "look-again"
    assert "the pieces were changed" in next(
        s.why
        for s in stages(StageFacts(**{**base, "stale": ("the pieces were changed",)}))
        if s.name == "lay"  # type: ignore[arg-type]
    )


def test_bad_pieces_are_named() -> None:
    good = Piece("Good", ((0, 0), (100, 0), (100, 100), (0, 100)))
    bad = Piece("Knot", ((0, 0), (100, 100), (100, 0), (0, 100)))
    assert len(bad_pieces([good, bad])) == 1 and bad_pieces([good, bad])[0].startswith("Knot")
