"""How it came out: differences, what they teach (against numpy), and why (from the record)."""

from __future__ import annotations

import math
from datetime import UTC, datetime

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.project.outcome import (
    BY_KIND,
    BadOutcome,
    Bought,
    Outcome,
    OutcomeKind,
    Predicted,
    check_outcome,
    learned,
    overbought,
    shrunk,
)
from idle_selvage.core.project.why import COMPLAINTS, Record, reasons
from idle_selvage.core.wording import str_of

AT = datetime(2026, 6, 1, tzinfo=UTC)


def came(kind: OutcomeKind, measured: float, predicted: Predicted | None) -> Outcome:
    return Outcome(kind, "Front", measured, predicted, AT)


@given(st.lists(st.tuples(st.floats(0, 500), st.floats(0, 500)), min_size=1, max_size=40))
def test_statistics_are_numpys(pairs: list[tuple[float, float]]) -> None:
    found = learned([came("twist", m, Predicted(p)) for m, p in pairs])
    off = np.array([m - p for m, p in pairs])
    (one,) = found
    assert one.count == len(pairs)
    assert one.mean == pytest.approx(float(off.mean()), abs=1e-9)
    if len(pairs) > 1:
        assert one.spread == pytest.approx(float(off.std(ddof=1)), rel=1e-9, abs=1e-9)
    else:
        assert one.spread is None
    assert one.foreseen == int((np.abs(off) <= BY_KIND["twist"].within).sum())


def test_what_was_not_predicted_teaches_nothing_and_counts_for_nothing() -> None:
    assert learned([came("fit", 4, None), came("twist", 3, None)]) == ()
    assert came("twist", 3, None).foreseen is None and came("twist", 3, None).difference is None


@pytest.mark.parametrize(
    ("measured", "foreseen"), [(-0.5, True), (-0.6, False), (2.0, True), (3.5, True), (3.6, False)]
)
def test_inside_the_range_it_came_out_as_foreseen(measured: float, foreseen: bool) -> None:
    one = came("warp", measured, Predicted(1.5, 0.0, 3.0))
    assert one.foreseen is foreseen and one.difference == pytest.approx(measured - 1.5)


def test_the_same_distance_again() -> None:
    assert shrunk(250.0, 245.0) == pytest.approx(2.0)
    assert shrunk(250.0, 252.5) == pytest.approx(-1.0), "what got longer is negative"
    for before, after in ((0.0, 10.0), (10.0, 0.0)):
        with pytest.raises(BadOutcome):
            shrunk(before, after)


@pytest.mark.parametrize(
    ("kind", "value"), [("fit", 0), ("fit", 6), ("fit", 2.5), ("warp", 51), ("twist", -1), ("length", 10_001)]
)
def test_what_cannot_be_is_refused(kind: OutcomeKind, value: float) -> None:
    with pytest.raises(BadOutcome):
        check_outcome(kind, value)
    check_outcome("fit", 5)


@given(st.lists(st.tuples(st.floats(100, 5000), st.floats(100, 5000)), min_size=1, max_size=30))
def test_overbuying_is_summed(pairs: list[tuple[float, float]]) -> None:
    over, share = overbought([Bought(b, n, 20.0) for b, n in pairs])
    table = np.array(pairs)
    assert over == pytest.approx(float((table[:, 0] - table[:, 1]).sum()), abs=1e-6)
    assert share == pytest.approx(over / float(table[:, 1].sum()), abs=1e-9)
    assert Bought(2300, 2000, 20.0).cost == pytest.approx(6.0) and Bought(2300, 2000).cost is None


def test_a_twisted_leg_is_told_from_its_slant() -> None:
    """A leg of a metre on cloth that slants by 1.2 degrees turns by 21 mm (H × tan a)."""
    found = reasons("twist", Record(slant=1.2, off_grain=0.2, tall=1000.0, treated=True, at_rest=True))
    assert [one.key for one in found] == ["slant", "off-grain"]
    assert found[0].explains == pytest.approx(1000 * math.tan(math.radians(1.2)), abs=1e-9)
    assert round(found[0].explains or 0.0) == 21
    assert "1.2" in str_of(found[0].told) and found[0].next_time.startswith("Test the fold again")


def test_the_larger_part_comes_first_and_what_was_not_tested_last() -> None:
    found = reasons("twist", Record(off_grain=1.0, tall=900.0, treated=True, at_rest=False))
    assert [one.key for one in found] == ["off-grain", "unrested", "untested"]
    found = reasons("short", Record(tall=800.0, left=(4.0, None), treated=False, harder=True))
    assert found[0].key == "left" and found[0].explains == pytest.approx(32.0)
    assert {one.key for one in found[1:]} == {"harder", "untreated"}
    assert reasons("bars", Record(wide=400.0, slant=0.5, hand=2.0, foreseen=1.2))[0].key == "slant"
    assert reasons("dye", Record(rub=2, dark=True))[0].key == "rub"
    assert reasons("pucker", Record(unlike=3.0, treated=True, at_rest=True))[0].key == "unlike"


@given(
    st.sampled_from(sorted(COMPLAINTS)),
    st.builds(
        Record,
        slant=st.none() | st.floats(-5, 5),
        off_grain=st.none() | st.floats(-5, 5),
        tall=st.none() | st.floats(50, 2000),
        wide=st.none() | st.floats(50, 2000),
        left=st.tuples(st.none() | st.floats(0, 12), st.none() | st.floats(0, 12)),
        treated=st.booleans(),
        at_rest=st.none() | st.booleans(),
        skew=st.none() | st.floats(-5, 5),
        fold=st.none() | st.floats(0, 30),
        hand=st.none() | st.floats(0, 5),
        foreseen=st.none() | st.floats(0, 30),
        unlike=st.none() | st.floats(0, 9),
        rub=st.none() | st.integers(1, 5),
        dark=st.booleans(),
        harder=st.booleans(),
    ),
)
def test_any_record_gives_reasons_in_order(complaint: str, record: Record) -> None:
    found = reasons(complaint, record)  # type: ignore[arg-type]
    rank = {"reckoned": 0, "hinted": 1, "open": 2}
    assert [rank[one.sure] for one in found] == sorted(rank[one.sure] for one in found)
    reckoned = [one.explains or 0.0 for one in found if one.sure == "reckoned"]
    assert reckoned == sorted(reckoned, reverse=True) and all(by >= 1.0 for by in reckoned)
    assert len({one.key for one in found}) == len(found)
    assert all(str_of(one.told).endswith(".") and one.next_time.endswith(".") for one in found)
