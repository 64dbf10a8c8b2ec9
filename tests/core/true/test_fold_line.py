"""Is the fold on grain."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.true.fold_line import FoldReading, fold_line, torque


def test_the_fold_is_moved_to_where_it_moves_least() -> None:
    # by hand: 720, 726, 717 and 721 are 721 on the mean; the spread is 9
    line = fold_line([FoldReading(0, 720), FoldReading(400, 726), FoldReading(800, 717), FoldReading(1200, 721)])
    assert line is not None and line.spread == 9 and line.mean == 721 and not line.good and line.enough
    assert [(m.along, m.by) for m in line.moves] == [(0, 1), (400, -5), (800, 4)]
    fine = fold_line([FoldReading(0, 720), FoldReading(400, 722), FoldReading(800, 721)])
    assert fine is not None and fine.good and fine.moves == ()
    few = fold_line([FoldReading(0, 720), FoldReading(400, 720)])
    assert few is not None and not few.enough
    assert fold_line([]) is None


@given(st.dictionaries(st.integers(0, 3000), st.floats(300, 900), min_size=1, max_size=8))
def test_moving_as_told_brings_the_fold_on_grain(stations: dict[int, float]) -> None:
    line = fold_line([FoldReading(a, d) for a, d in stations.items()])
    assert line is not None
    by = {m.along: m.by for m in line.moves}
    moved = [d + by.get(a, 0.0) for a, d in stations.items()]
    again = fold_line([FoldReading(a, d) for a, d in zip(stations, moved, strict=True)])
    assert again is not None and again.good


def test_which_layer_is_slid_which_way() -> None:
    assert torque("") == ""
    assert "top layer away from" in torque("out") and "top layer towards" in torque("in")
