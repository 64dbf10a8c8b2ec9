"""Swatches over several washes: per wash and in all, shape, and when a cloth has come to rest."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.shrink.shrinkage import expanded_uncertainty
from idle_selvage.core.shrink.swatch import (
    Row,
    Swatch,
    added,
    corners,
    cycles,
    how_to_begin,
    in_all,
    marks_told,
    odd_reading,
    row_fault,
    skew_from_diagonals,
    sure_of,
    too_small,
    verdict,
)
from idle_selvage.core.wording import say

TWICE = Swatch(((250, 238, 235),) * 3, ((250, 245, 243),) * 3)


def test_per_wash_and_in_all() -> None:
    # hand-worked: 250 → 238 is 4.8 %; 238 → 235 adds 1.26 %; 250 → 235 is 6.0 % in all
    first, second = cycles(TWICE)
    assert first.warp is not None and first.warp.value == pytest.approx(4.8) and first.warp_added == pytest.approx(4.8)
    assert second.warp is not None and second.warp.value == pytest.approx(6.0)
    assert second.warp_added == pytest.approx(100 * 3 / 238) and second.weft_added == pytest.approx(100 * 2 / 245)


@pytest.mark.parametrize(
    ("rows", "kind", "state"),
    [
        ((250,), "", "unwashed"),
        ((250, 240), "linen", "once"),
        ((250, 240), "denim-raw", "again"),
        ((250, 240, 238), "linen", "again"),
        ((250, 240, 239.5), "linen", "stable"),
        ((250, 249.5), "polyester", "stable"),
        ((250, 240, 243), "linen", "again"),
    ],
)
def test_the_verdict(rows: tuple[float, ...], kind: str, state: str) -> None:
    found, said = verdict(Swatch((rows,) * 3, (rows,) * 3), kind)
    assert found == state and said.endswith(".")


def test_a_swatch_too_small_to_tell_is_not_called_stable() -> None:
    small = Swatch(((60, 57, 57),), ((60, 58, 58),), graduation=2.0)
    assert verdict(small)[0] == "unsure" and too_small(small) is not None
    assert too_small(TWICE) is None
    needed = too_small(small)
    assert needed is not None and too_small(Swatch(((needed, None),), ((needed, None),), 2.0)) is None


def test_gaps_in_the_readings_are_left_out() -> None:
    gaps = Swatch(((250, None, 235), (250, 238), (250,)), ((250, 245),))
    figure = in_all(gaps, "warp")
    assert figure is not None and figure.value == pytest.approx(6.0), "only the row that has the last wash"
    assert added(gaps, "warp", 2) is None and added(gaps, "warp", 1) == pytest.approx(4.8)
    assert in_all(Swatch(), "weft") is None and cycles(Swatch()) == ()


@given(st.floats(50, 600), st.floats(50, 600), st.floats(-0.4, 0.4))
def test_corners_have_the_sides_and_diagonals_that_were_measured(a: float, b: float, lean: float) -> None:
    shift = lean * b
    high = math.sqrt(b * b - shift * shift)
    ac, bd = math.hypot(a + shift, high), math.hypot(a - shift, high)
    points = corners(a, b, ac, bd)
    assert math.dist(points[0], points[2]) == pytest.approx(ac, rel=1e-6)
    assert math.dist(points[1], points[3]) == pytest.approx(bd, rel=1e-6)
    assert math.dist(points[0], points[3]) == pytest.approx(b, rel=1e-6)
    assert skew_from_diagonals(ac, bd) * shift >= -1e-6, "the slant leans the way the longer diagonal says"
    assert corners(a, b) == ((0.0, 0.0), (a, 0.0), (a, b), (0.0, b))


def test_rows_that_cannot_be() -> None:
    assert "before washing" in row_fault([]) and "before washing" in row_fault([None, 3.0])
    assert "too small" in row_fault([5.0]) and "At most" in row_fault([250.0] * 12)
    assert row_fault([250.0, None, 240.0]) == ""
    # before washing, and after eight washes
    assert row_fault([250.0] * 9) == "" and "At most 8" in row_fault([250.0] * 10)


def test_how_far_apart_marks_must_be_is_told_in_the_units_of_who_reads() -> None:
    assert marks_told(46.8, None, 3) == "Marks 4.7 cm apart or more tell 1 % with this tape and 3 readings."
    assert (
        say(marks_told(50.8, None, 1), "imperial") == "Marks 2 in apart or more tell 1 % with this tape and 1 reading."
    )
    assert "at least 8.2 cm" in marks_told(46.8, 81.6, 1)
    assert "25 cm" in how_to_begin() and "10 in" in say(how_to_begin(), "imperial")


@pytest.mark.parametrize(
    ("warp", "weft", "state", "says"),
    [
        # the first wash was not measured: what the second added is not known
        ((250, None, 240), (250, None, 245), "unsure", "after the first wash, so what the second"),
        # the warp alone was measured again, and lost 1.25 % more
        ((250, 240, 237), (250, 245), "again", "second wash still took 1.2"),
        # the warp alone again, at rest: the weft may not be
        ((250, 240, 240), (250, 245), "unsure", "along the weft"),
    ],
)
def test_a_verdict_needs_the_measure_it_speaks_of(warp: Row, weft: Row, state: str, says: str) -> None:
    found, said = verdict(Swatch((warp,) * 3, (weft,) * 3))
    assert found == state and says in said, said


def test_a_change_that_cannot_be_told_is_not_told() -> None:
    # read to a sixteenth of an inch on four inches, one reading
    coarse = Swatch(((101.6, 96.8, 96.8),), ((101.6, 98.4, 98.4),), 25.4 / 16)
    assert verdict(coarse)[0] == "unsure" and "± 1.3 %" in verdict(coarse)[1]
    taken = Swatch(((101.6, 96.8, 96.0),), ((101.6, 98.4, 98.4),), 25.4 / 16)
    assert verdict(taken)[0] == "unsure" and "seems" in verdict(taken)[1]
    # readings that scatter tell a mean no better
    wild = Swatch(((250, 240, 241), (250, 240, 239), (250, 240, 240)), ((250, 245, 245),) * 3, 0.5)
    assert verdict(wild)[0] == "unsure"


def test_marks_that_must_be_so_far_apart_are_told_rounded_up() -> None:
    # 47.14 mm: 4.7 cm would be too little
    assert "Marks 4.8 cm apart" in marks_told(47.14, None, 3)
    assert "Marks 1 ⅞ in apart" in say(marks_told(47.14, None, 3), "imperial")
    assert "at least 8.2 cm" in marks_told(1.0, 81.65, 1)


@pytest.mark.parametrize(("long", "graduation"), [(250.0, 1.0), (500.0, 1.0), (250.0, 0.5)])
def test_how_unsure_a_wash_is_by_the_tape_goes_by_the_mean_of_what_was_marked(long: float, graduation: float) -> None:
    """Three readings without scatter: what the tape leaves, of one mean distance, whatever their number."""
    rows = tuple((long + by, (long + by) * 0.96) for by in (-1.0, 0.0, 1.0))
    swatch = Swatch(warp=rows, graduation=graduation)
    assert sure_of(swatch, "warp", 1) == pytest.approx(expanded_uncertainty(long, graduation, 3), rel=1e-6)
    assert sure_of(swatch, "weft", 1) == 0.0


@pytest.mark.parametrize(
    ("after", "says"), [(215.1, ""), (214.9, "shrunk by 14.0 %"), (254.9, ""), (255.1, "grown by 2.0 %")]
)
def test_what_is_asked_back_as_a_slip(after: float, says: str) -> None:
    asked = odd_reading([[250.0, after]])
    assert (asked is None) if not says else (asked is not None and says in str(asked))
