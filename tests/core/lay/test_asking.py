"""From bars, flaws and folds of the cloth to what the engine is asked."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.bars import Bar, read_bars
from idle_selvage.core.lay.asking import (
    FOLD_REACH_MM,
    FlawToLay,
    blocked,
    faded_fold,
    told_apart,
    washed_bars,
)
from idle_selvage.core.lay.problem import Bars, LayPiece
from idle_selvage.core.shrink.states import STAYS, Move

from ..buy.cases import rectangle


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


def test_flaws_move_with_the_shrinking_cloth() -> None:
    # by hand: 500 × 0.9 − 50 = 400, 540 × 0.9 − 50 = 436; across 100 × 0.95 − 10 = 85, 120 × 0.95 − 10 = 104
    surely = Move((10, 5), (10, 5), (10, 5))
    spot = blocked([FlawToLay((500, 100, 40, 20), surely)], 10, 50, 1000)
    assert spot == ((400.0, 85.0, 436.0, 104.0),)
    assert blocked([FlawToLay((0, 100, 40, 20), surely)], 10, 50, 1000) == (), "it goes with the end that is cut off"


def test_a_flaw_is_kept_off_between_its_places_at_the_low_and_the_high_shrinkage() -> None:
    # a flaw of 20 mm at 4500: with 8 to 12 % it lies somewhere from 4500 × 0.88 = 3960 to 4520 × 0.92 = 4158.4
    unsure = Move((8, 0), (10, 0), (12, 0))
    assert blocked([FlawToLay((4500, 100, 20, 20), unsure)], 0, 0, 1000) == ((3960.0, 100.0, 4158.4, 120.0),)


def test_a_faded_fold_is_kept_off_where_every_piece_fits_beside_it() -> None:
    # at 600 less a margin of 10: from 587 to 593 of 1000, so 587 lie on the wider side
    narrow, wide = LayPiece("A", rectangle(900, 580)), LayPiece("B", rectangle(900, 590))
    assert faded_fold(600.0, STAYS, 10, 1000, [narrow], False) == (0.0, 587.0, FOLD_REACH_MM, 593.0)
    assert faded_fold(600.0, STAYS, 10, 1000, [narrow, wide], False) is None
    assert faded_fold(5.0, STAYS, 10, 1000, [narrow], False) is None, "it lies in the margin"


@pytest.mark.parametrize(
    ("names", "told"),
    [
        (["Front", "Back"], ["Front", "Back"]),
        (["Front", "Front"], ["Front", "Front (2)"]),
        (["Front", "Front", "Front (2)"], ["Front", "Front (3)", "Front (2)"]),
        (["Front (2)", "Front", "Front", "Front"], ["Front (2)", "Front", "Front (3)", "Front (4)"]),
        (["", ""], ["", " (2)"]),
    ],
)
def test_pieces_of_one_name_are_told_apart(names: list[str], told: list[str]) -> None:
    assert told_apart(names) == told and len(set(told)) == len(told)


def test_a_flaw_is_kept_off_everywhere_it_may_lie() -> None:
    # a flaw at 4.5 m, 20 mm long; 11.1 % along at best, 11.44 % at most, 10.76 % at least: it lies at about 4000
    move = Move((10.76, 0.0), (11.11, 0.0), (11.44, 0.0))
    ((x0, _, x1, _),) = blocked([FlawToLay((4500.0, 100.0, 20.0, 20.0), move)], 0.0, 0.0, 1000.0)
    assert x0 == pytest.approx(4500 * (1 - 0.1144), abs=0.01) and x1 == pytest.approx(4520 * (1 - 0.1076), abs=0.01)
    best = 4500 * (1 - 0.1111)
    assert x0 < best < best + 20 * (1 - 0.1111) < x1
