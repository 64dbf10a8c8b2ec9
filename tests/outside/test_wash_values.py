"""Washing against standards and reference packages, each source beside its check."""

from __future__ import annotations

import math
from datetime import UTC, datetime, timedelta

import icalendar
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.cloth.dye import GRADES, GREY_SCALE
from idle_selvage.core.shrink.shrinkage import expanded_uncertainty
from idle_selvage.core.shrink.swatch import Swatch, in_all, skew_of
from idle_selvage.core.shrink.swatch import skew_from_diagonals as skew_of_diagonals
from idle_selvage.core.true.slant import skew_angle, skew_percent
from idle_selvage.formats.ics import Entry, write_ics


def sheared(side: float, shift: float) -> tuple[float, float, float, float]:
    """A made-up marked square whose far side has slid by ``shift``: its two diagonals, side and height."""
    a, b, c, d = np.array([0, 0]), np.array([side, 0]), np.array([side + shift, side]), np.array([shift, side])
    return float(np.linalg.norm(c - a)), float(np.linalg.norm(d - b)), side, shift


@pytest.mark.parametrize("shift", [-12.0, -3.0, 0.0, 2.5, 10.0])
@pytest.mark.parametrize("side", [250.0, 460.0])
def test_skew_of_a_marked_square(side: float, shift: float) -> None:
    # source: AATCC TM179 (from memory), 100 × 2 (AC − BD) / (AC + BD); ASTM D3882, 100 × d / W. On one and the same
    # sheared square the two say the same, to the second order in the slant
    ac, bd, _, _ = sheared(side, shift)
    tm179 = 100 * 2 * (ac - bd) / (ac + bd)
    assert skew_of_diagonals(ac, bd) == pytest.approx(tm179)
    figure = skew_of(Swatch(diagonals=((ac, bd),)), 0)
    assert figure is not None and figure.value == pytest.approx(tm179)
    assert tm179 == pytest.approx(skew_percent(shift, side), abs=0.02)


def test_skew_check_values() -> None:
    # source: ASTM D3882 definition; W = 44 in, d = 1 in → 2.27 %, 1.30°
    assert skew_percent(25.4, 44 * 25.4) == pytest.approx(2.27, abs=0.005)
    assert skew_angle(25.4, 44 * 25.4) == pytest.approx(1.30, abs=0.005)
    assert skew_angle(25.4, 44 * 25.4) == pytest.approx(math.degrees(float(np.arctan(1 / 44))))


@pytest.mark.parametrize(
    ("washes", "each"),
    [((460.0, 437.0, 432.4), (-5.0, -6.0)), ((250.0, 242.5, 241.0), (-3.0, -3.6))],
)
def test_dimensional_change_after_repeated_washing(washes: tuple[float, ...], each: tuple[float, float]) -> None:
    # source: AATCC TM135 and ISO 5077: DC% = 100 (B − A) / A, A before any washing, B after the named number of them
    test = Swatch((washes,) * 3, (washes,) * 3)
    for wash, change in enumerate(each, start=1):
        figure = in_all(test, "warp", wash)
        assert figure is not None and -figure.value == pytest.approx(change)


@pytest.mark.parametrize(
    ("before", "r", "n"), [(250.0, 1.0, 1), (254.0, 25.4 / 16, 3), (460.0, 1.0, 6), (165.0, 1.6, 2)]
)
def test_uncertainty_against_a_hundred_thousand_draws(before: float, r: float, n: int) -> None:
    # source: a uniform error of one graduation has the standard deviation r/√12 (any handbook of statistics)
    rng = np.random.default_rng(11)
    b = before + rng.uniform(-r / 2, r / 2, (100_000, n)).mean(axis=1)
    a = before * 0.97 + rng.uniform(-r / 2, r / 2, (100_000, n)).mean(axis=1)
    drawn = 2 * (100 * (b - a) / b).std()
    assert drawn == pytest.approx(expanded_uncertainty(before, r, n), rel=0.05)


def test_crocking_grades_are_the_standard_s_scale() -> None:
    # source: ISO 105-X12 graded by ISO 105-A03's grey scale: 5 no staining down to 1, the most (half steps left out)
    assert sorted(GRADES) == [1, 2, 3, 4, 5]
    assert "clean" in GRADES[5] and "heavily" in GRADES[1]
    assert "ISO 105-X12" in GREY_SCALE.name and "ISO 105-A03" in GREY_SCALE.name


def test_a_calendar_is_read_back_by_the_icalendar_package() -> None:
    # source: RFC 5545, by the package icalendar as the independent reader
    start = datetime(2026, 3, 2, 7, 0, tzinfo=UTC)
    later = start + timedelta(hours=2)
    entries = [
        Entry(1, "washer, wash at 40 °C", "Linen; oat, 100 %", "alone: its dye comes off", start, later),
        Entry(2, "line, hang to dry", "Linen\nroll", "a note " * 40, later, start + timedelta(hours=12)),
    ]
    data = write_ics(entries, start)
    assert data.startswith(b"BEGIN:VCALENDAR\r\n") and all(len(line) <= 75 for line in data.split(b"\r\n"))
    read = icalendar.Calendar.from_ical(data)
    events = [e for e in read.walk("VEVENT")]
    assert [(e["dtstart"].dt, e["dtend"].dt) for e in events] == [(e.start, e.end) for e in entries]
    assert [str(e["summary"]) for e in events] == [f"{e.what}: {e.cloths}" for e in entries]
    assert str(events[1]["description"]) == entries[1].note and len({str(e["uid"]) for e in events}) == 2
    assert all(len(e.walk("VALARM")) == 1 for e in events) and str(read["version"]) == "2.0"


words = st.text(st.characters(exclude_categories=["Cs", "Cc"]), min_size=1, max_size=60)


@given(words, words, words)
def test_any_words_come_back_from_a_calendar(what: str, cloths: str, note: str) -> None:
    # source: RFC 5545 §3.3.11, escaping of text; read back by the package icalendar
    start = datetime(2026, 3, 2, 7, 0, tzinfo=UTC)
    data = write_ics([Entry(7, what, cloths, note, start, start + timedelta(hours=1))], start)
    event = icalendar.Calendar.from_ical(data).walk("VEVENT")[0]
    assert str(event["summary"]) == f"{what}: {cloths}" and str(event["description"]) == note
