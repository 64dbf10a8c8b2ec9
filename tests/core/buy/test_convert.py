"""One length in every unit."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.buy.convert import spoken, yard_table

IN = 25.4
YD = 914.4


@given(st.floats(1, 20_000))
def test_what_is_asked_for_at_a_counter_is_rounded_up_and_said_so(mm: float) -> None:
    yards, inches, metres, tape = spoken(mm)
    assert yards.mm >= mm - 1e-5 and metres.mm >= mm - 1e-5
    assert yards.mm - mm < YD / 8 and metres.mm - mm < 10 and abs(inches.mm - mm) <= IN / 32 + 1e-9
    for one in (yards, inches, metres, tape):
        assert (one.rounded == "exact") == (abs(one.mm - mm) <= 1e-6)


def test_fractions_of_a_yard() -> None:
    rows = yard_table()
    assert [str(r.fraction) for r in rows] == ["1/8", "1/4", "1/3", "3/8", "1/2", "5/8", "2/3", "3/4", "7/8", "1"]
    assert rows[0].inches * 2 == 9 and rows[0].centimetres.text == "11.5 cm" and rows[0].centimetres.rounded == "up"
