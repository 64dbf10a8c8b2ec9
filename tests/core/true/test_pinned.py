"""Is a pinned piece on grain."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.true.pinned import check_grain


@given(st.floats(10, 600), st.floats(10, 600), st.floats(-20, 20), st.floats(100, 900))
def test_only_the_difference_of_the_two_distances_counts(
    tail: float, elsewhere: float, off: float, arrow: float
) -> None:
    check = check_grain((elsewhere, elsewhere + off), (tail, tail), arrow)
    again = check_grain((elsewhere, elsewhere + off + check.move), (tail, tail), arrow)
    assert again.tilt == pytest.approx(0, abs=1e-9) and again.good
    assert (check.tilt > 0) == (elsewhere + off - elsewhere > 0) or abs(off) < 1e-9
    turned = check_grain((elsewhere + off, elsewhere), (tail, tail), arrow)
    assert turned.tilt == pytest.approx(-check.tilt, abs=1e-9)


def test_a_grainline_checked_by_hand() -> None:
    # a bias arrow: the lay wants 100 and 500; read 103 and 507: the head is 4 mm too far
    check = check_grain((103, 507), (100, 500), 566)
    assert check.move == -4 and not check.good and check.tilt == pytest.approx(0.405, abs=0.001)
    with pytest.raises(ValueError, match="arrow"):
        check_grain((1, 1), (1, 1), 0)
