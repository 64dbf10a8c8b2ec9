"""What a slant does to a piece."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.true.twist import HANGS_MM, SEEN_MM, sheared, twist_of

PANEL = ((0.0, 0.0), (1000.0, 0.0), (1000.0, 200.0), (0.0, 300.0))


@given(st.floats(0, 12), st.sampled_from(["lengthwise", "crosswise", "bias"]), st.booleans())
def test_more_slant_never_twists_less(angle: float, grain: str, bars: bool) -> None:
    one = twist_of("A", PANEL, grain, angle, bars=bars)  # type: ignore[arg-type]
    more = twist_of("A", PANEL, grain, angle + 0.5, bars=bars)  # type: ignore[arg-type]
    assert more.twist.value > one.twist.value and more.drift.value > one.drift.value
    order = ["harmless", "visible", "will not hang"]
    assert order.index(more.verdict) >= order.index(one.verdict)
    assert one == twist_of("A", PANEL, grain, -angle, bars=bars)  # type: ignore[arg-type]
    assert (one.verdict == "harmless") == (one.twist.value <= SEEN_MM)
    assert (one.verdict == "will not hang") == (one.twist.value > HANGS_MM)


def test_bars_across_a_seam_by_hand() -> None:
    # a panel 300 wide: 0.2° lets a bar climb 1.05 mm, 0.5° 2.6 mm, 1° 5.2 mm
    told = [twist_of("A", PANEL, "lengthwise", a, bars=True).drift_told for a in (0.2, 0.5, 1.0)]
    assert told == [
        "bars still meet at the seam",
        "bars miss each other a little at the seam",
        "bars do not meet at the seam",
    ]
    assert twist_of("A", PANEL, "bias", 1.0, bars=True).drift_told == ""
    half = twist_of("A", PANEL, "lengthwise", 1.0, on_fold=True)
    assert half.drift.value == pytest.approx(2 * twist_of("A", PANEL, "lengthwise", 1.0).drift.value)


def test_a_piece_hangs_from_its_top() -> None:
    hung = sheared(PANEL, 2.0)
    assert hung[1] == PANEL[1] and hung[2] == PANEL[2], "the top stays where it is"
    assert hung[0][1] - PANEL[0][1] == pytest.approx(34.92, abs=0.01)
