"""What to ask for: measured extras, rules of thumb, offers, and what helps when the cloth is short."""

from __future__ import annotations

import time
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.extras import extras, ladder, rules_of, without
from idle_selvage.core.buy.helps import HEMS_MM, PieceFacts, helps
from idle_selvage.core.buy.offers import OfferedCloth, cheapest, least_waste, usable, weigh
from idle_selvage.core.buy.order import Extra, Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.cloth.bars import Bar, read_bars
from idle_selvage.core.lay.asking import FOLD_REACH_MM, Meeting, blocked, centred_on, faded_fold, matches, washed_bars
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.problem import Bars, LayPiece, Match, Problem, pieces_area
from idle_selvage.core.plan.outline import Outline
from idle_selvage.core.true.edge import METHODS, EdgeFacts, advise_edge
from idle_selvage.core.working import Figure

FIVE = Figure(5.0, "percent")


def rectangle(long: float, wide: float) -> Outline:
    return ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide))


def percent(value: float) -> Figure:
    return Figure(value, "percent")


# --- the stack ---------------------------------------------------------------------------------------------------


def test_every_line_of_a_purchase_worked_by_hand() -> None:
    # a lay of 1273: 1182 plain, + 91 for the bars; 40 for ends, 20 spare: 1333 after washing
    # ÷ 0.935 = 1425.67 before; + 100 on purpose = 1525.67; up to 10 cm: 1600
    order = Order(40, 20, 100, bought_extra=100, why="clearance")
    bought = purchase(1273, percent(6.5), order, extras=[Extra("matching", 1182, 1273)], repeat=60, main_pieces=6)
    assert bought.to_buy.value == pytest.approx(1600)
    lines = {line.key: (line.name, round(line.adds, 2)) for line in bought.lines}
    assert lines == {
        "lay": ("the lay, without rules", 1182),
        "matching": ("meeting the bars", 91),
        "ends": ("a true edge at both ends", 40),
        "spare": ("spare", 20),
        "shrinkage": ("shrinkage along", 92.67),
        "extra": ("bought on purpose: clearance", 100),
        "step": ("up to what the shop cuts", 74.33),
    }
    assert all(line.figure.steps and line.figure.value == line.adds for line in bought.lines)
    thumbs = {t.name: t for t in bought.thumbs}
    # 10 % added: 1333 × 1.1 = 1466.3, that is 40.63 more than needed
    assert thumbs["10 % more for shrinkage"].off == pytest.approx(1466.3 - 1425.668, abs=0.01)
    # six repeats of 60 instead of the 91 that matching costs here: (1333 − 91 + 360) ÷ 0.935
    assert thumbs["one repeat for each main piece"].figure.value == pytest.approx(1602 / 0.935)
    # 101.6 for the ends instead of 40
    assert thumbs["2 in at each end to straighten"].off == pytest.approx(61.6 / 0.935)
    assert "¼ yd more for nap" not in thumbs, "this cloth has no direction"


def test_what_the_shop_cuts_at_least_is_bought_at_least() -> None:
    bought = purchase(200, FIVE, Order(0, 0, 100, least=500))
    assert bought.to_buy.value == pytest.approx(500)
    assert sum(line.adds for line in bought.lines) == pytest.approx(500)


@given(
    st.floats(100, 4000), st.floats(0, 300), st.floats(0, 300), st.floats(0, 15), st.floats(0, 500), st.floats(0, 2000)
)
def test_lines_add_up_and_more_is_never_less(
    lay: float, nap: float, bars: float, s: float, more: float, least: float
) -> None:
    steps = (Extra("nap", lay, lay + nap), Extra("matching", lay + nap, lay + nap + bars))
    order = Order(50, 10, 114.3, bought_extra=more, why="to be sure", least=least)
    bought = purchase(lay + nap + bars, percent(s), order, extras=steps)
    assert sum(line.adds for line in bought.lines) == pytest.approx(bought.to_buy.value)
    assert all(line.adds >= -1e-6 for line in bought.lines)
    plain = purchase(lay + nap + bars, percent(s), Order(50, 10, 114.3))
    assert bought.to_buy.value >= plain.to_buy.value - 1e-6


# --- what a rule costs -------------------------------------------------------------------------------------------


def ruled() -> Problem:
    fronts = LayPiece(
        "Front", rectangle(300, 200), 2, True, match=(Match("side", (10.0, 0.0), along=True),), centre_on_axis=None
    )
    return Problem(
        700,
        (fronts, LayPiece("Band", rectangle(500, 60))),
        one_way=True,
        blocked=((0.0, 0.0, 50.0, 50.0),),
        bars=Bars(40.0, None, (20.0,), ()),
    )


def test_rules_are_taken_away_one_after_another() -> None:
    full = ruled()
    assert rules_of(full) == ("nap", "matching", "flaws")
    (_, plain), (_, napped), (_, matched) = ladder(full)
    assert rules_of(plain) == () and rules_of(napped) == ("nap",) and rules_of(matched) == ("nap", "matching")
    assert matched.pieces == full.pieces and not matched.blocked
    assert [p.outline for p in plain.pieces] == [p.outline for p in full.pieces]


def test_bars_that_read_differently_up_and_down_are_a_direction_and_go_with_it() -> None:
    full = ruled()
    unbalanced = Problem(full.width, full.pieces, folds=full.folds, bars=Bars(40.0, None, (), ()))
    assert rules_of(unbalanced) == ("nap", "matching")
    assert not without(unbalanced, ["nap"]).directed
    assert without(unbalanced, ["matching"]).directed, "without matching, the tops still lie one way"


def test_an_unlucky_search_never_makes_a_rule_pay_out() -> None:
    found = extras(ruled(), 1000.0, {"nap": 900.0, "matching": 1040.0, "flaws": 990.0})
    # the lay with nap alone came out longer than the one with nap and matching: the shorter holds for both
    assert [(e.rule, e.adds) for e in found] == [("nap", 90.0), ("matching", 0.0), ("flaws", 10.0)]
    assert extras(ruled(), 1000.0, {"nap": 900.0}) == (), "nothing is told before all is measured"
    assert sum(e.adds for e in found) + 900 == pytest.approx(1000)


# --- bars and flaws on the washed cloth --------------------------------------------------------------------------


def test_bars_shrink_with_the_cloth_and_begin_inside_the_margin() -> None:
    across = read_bars([Bar(10, "#000000"), Bar(40, "#ffffff")])
    along = read_bars([Bar(10, "#000000"), Bar(20, "#ffffff"), Bar(5, "#ff0000"), Bar(25, "#00ff00")])
    bars = washed_bars(along, across, 5.0, 10.0, 12.0)
    # 50 × 0.9 = 45; axes at 5 and 30 on the raw cloth: 4.5 − 12 → 37.5, 27 − 12 = 15
    assert bars.y_repeat == pytest.approx(45.0) and bars.y_axes == pytest.approx((15.0, 37.5))
    assert bars.x_repeat == pytest.approx(57.0) and bars.x_axes == (), "four colours in a row never mirror"
    # along the cloth the first axis is where the lay begins: a check that mirrors at 3 and 33 mirrors at 0 and 30
    check = washed_bars(read_bars([Bar(6, "#000000"), Bar(54, "#ffffff")]), across, 0.0, 0.0, 0.0)
    assert check.x_axes == (0.0, 30.0)
    fine = read_bars([Bar(2, "#000000"), Bar(2, "#ffffff")])
    assert washed_bars(fine, fine, 0, 0, 0) == Bars(), "bars under 3 mm are not asked to meet"


def test_match_points_lie_on_the_seam_line() -> None:
    seam_line = ((100.0, 0.0), (400.0, 0.0), (400.0, 90.0))
    bars = Bars(40.0, 30.0, (0.0,), (15.0,))
    met = matches(Meeting("side", 60.0, centred=True), "Front", seam_line, True, bars)
    assert met[0] == Match("side", (160.0, 0.0), along=True)
    assert met[1].across and not centred_on(Meeting(centred=True), True, bars), "a pair mirrors, it is not centred"
    assert centred_on(Meeting(centred=True), False, bars)
    assert matches(Meeting("side", centred=True), "Front", seam_line, True, Bars()) == ()


def test_flaws_move_with_the_shrinking_cloth() -> None:
    # by hand: 500 × 0.9 − 50 = 400, 540 × 0.9 − 50 = 436; across 100 × 0.95 − 10 = 85, 120 × 0.95 − 10 = 104
    spot = blocked([(500, 100, 40, 20)], 10, 5, 10, 50, 1000)
    assert spot == ((400.0, 85.0, 436.0, 104.0),)
    assert blocked([(0, 100, 40, 20)], 10, 5, 10, 50, 1000) == (), "it goes with the end that is cut off"


def test_a_faded_fold_is_kept_off_where_every_piece_fits_beside_it() -> None:
    # at 600 less a margin of 10: from 587 to 593 of 1000, so 587 lie on the wider side
    narrow, wide = LayPiece("A", rectangle(900, 580)), LayPiece("B", rectangle(900, 590))
    assert faded_fold(600.0, 0, 10, 1000, [narrow], False) == (0.0, 587.0, FOLD_REACH_MM, 593.0)
    assert faded_fold(600.0, 0, 10, 1000, [narrow, wide], False) is None
    assert faded_fold(5.0, 0, 10, 1000, [narrow], False) is None, "it lies in the margin"


# --- offers ------------------------------------------------------------------------------------------------------


def test_an_offer_weighed_by_hand() -> None:
    offer = OfferedCloth(1000, FIVE, percent(10), margin=20, price_per_m=20, step=100, least=300, stock=900)
    assert usable(offer) == pytest.approx(880)
    # 855 + 95 ends = 950 ÷ 0.95 = 1000; washed 950 × 900 = 0.855 m²; 0.684 m² of pieces leave 20 %
    weighed = weigh(offer, 855, 684_000, Order(95, 0))
    assert weighed.purchase.to_buy.value == pytest.approx(1000)
    assert weighed.purchase.cost is not None and weighed.purchase.cost.value == pytest.approx(20)
    assert weighed.waste.value == pytest.approx(20) and weighed.lacking == pytest.approx(100)


def test_what_cannot_be_had_is_neither_cheapest_nor_least_waste() -> None:
    def of(price: float | None, stock: float | None, area: float) -> object:
        return weigh(OfferedCloth(1000, FIVE, FIVE, price_per_m=price, stock=stock), 900, area, Order(0, 0))

    rows = [of(20, None, 5e5), of(10, 500, 8e5), of(15, 5000, 6e5), of(None, None, 7e5), None]
    assert cheapest(rows) == 2 and least_waste(rows) == 3  # type: ignore[arg-type]
    assert cheapest([None]) is None and least_waste([]) is None


def test_wider_cloth_never_needs_a_longer_lay_when_the_bound_is_met() -> None:
    pieces = [LayPiece("Panel", rectangle(400, 200), 4), LayPiece("Band", rectangle(400, 100), 2)]
    lengths = []
    for width in (200, 300, 400, 500, 700, 1000):
        lay = solve(Problem(width, tuple(pieces)), seed=1, steps=400, clock=time.monotonic).lay
        assert lay.length >= lay.bound - 0.01
        if lay.length - lay.bound < 2.0:
            lengths.append(lay.length)
    assert len(lengths) >= 4, "these tile, so most of them meet their bound"
    assert all(b <= a + 0.1 for a, b in pairwise(lengths))


# --- will it do --------------------------------------------------------------------------------------------------


def short_of_cloth() -> tuple[Problem, dict[str, PieceFacts]]:
    pieces = [
        LayPiece("Skirt", rectangle(600, 300), 2, True),
        LayPiece("Facing", rectangle(400, 80)),
    ]
    facts = {"Skirt": PieceFacts(hem=True), "Facing": PieceFacts(hidden=True)}
    return Problem(640, tuple(pieces), gap=4.0, folds=("lengthwise",)), facts


def test_helps_come_from_harmless_to_a_compromise_and_each_is_a_lay_of_its_own() -> None:
    asked, facts = short_of_cloth()
    tries, missing = helps(asked, facts, lambda mm: f"{mm:g} mm")
    assert missing == ()
    by = {h.name: h.problem for h in tries}
    assert by["single layer, every piece on its own"].folds == ("open",)
    assert set(by["any other way to fold"].folds) > set(asked.folds)
    assert by["pieces edge to edge instead of 4 mm apart"].gap == 0
    assert [p.grain for p in by["Facing on the cross grain"].pieces] == ["lengthwise", "crosswise"]
    assert [p.id for p in by["Facing from another cloth"].pieces] == ["Skirt"]
    for less in HEMS_MM:
        shorter = by[f"hems {less:g} mm shorter"]
        assert pieces_area(shorter) == pytest.approx(pieces_area(asked) - 2 * 300 * less)
    kinds = [h.kind for h in tries]
    assert kinds.index("folds") < kinds.index("gap") < kinds.index("cross") < kinds.index("other") < kinds.index("hem")


def test_a_joined_piece_has_an_allowance_on_either_side_of_the_join() -> None:
    asked, facts = short_of_cloth()
    joins = [h for h in helps(asked, facts, lambda mm: f"{mm:g}")[0] if h.kind == "join"]
    assert [(h.piece, h.join_at) for h in joins] == [("Facing", 200.0), ("Skirt", 300.0)], "what does not show first"
    parts = [p for p in joins[0].problem.pieces if p.id.startswith("Facing")]
    # 400 long, joined in the middle: two of 200 + 15
    assert [max(x for x, _ in p.outline) - min(x for x, _ in p.outline) for p in parts] == [215.0, 215.0]


def test_helps_say_what_must_be_told_first() -> None:
    asked, _ = short_of_cloth()
    _, missing = helps(asked, {}, str)
    assert {m.kind for m in missing} == {"cross", "hem"} and all("Say on Plan" in m.why for m in missing)


# --- the first edge ----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("facts", "way"),
    [
        (EdgeFacts(), "tear"),
        (EdgeFacts(linen=True), "thread"),
        (EdgeFacts("velveteen"), "thread"),
        (EdgeFacts(sheer=True), "thread"),
        (EdgeFacts("crepe", slips=True), "thread"),
        (EdgeFacts(colouring="yarn-dyed", bars_across=True), "bar"),
        (EdgeFacts(colouring="printed", bars_across=True), "tear"),
        (EdgeFacts("sequin"), "square"),
    ],
)
def test_the_first_edge_follows_the_cloth(facts: EdgeFacts, way: str) -> None:
    advice = advise_edge(facts)
    assert advice.way == way and {advice.way, *(key for key, _ in advice.others)} == set(METHODS)


def test_printed_bars_and_pile_are_refused_with_the_reason() -> None:
    others = dict(advise_edge(EdgeFacts(colouring="printed", bars_across=True)).others)
    assert "printed" in others["bar"]
    assert "pile" in dict(advise_edge(EdgeFacts("velveteen")).others)["tear"]
    assert all(0 < m.loss <= 50.8 and m.steps for m in METHODS.values()), "within the usual 2 in an end"
