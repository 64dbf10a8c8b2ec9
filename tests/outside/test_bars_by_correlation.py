"""Repeat and mirror axes of bars, by correlation of the drawn bars with themselves (numpy), and drift along slanted
seams by dense numeric integration."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from idle_selvage.core.cloth.bars import Bar, read_bars
from idle_selvage.core.lay.problem import Bars
from idle_selvage.core.match.strip import strip
from idle_selvage.core.plan.seams import places_at

COLOURS = ("#111111", "#eeeeee", "#aa3333", "#33aa55")
SEQUENCES = st.lists(st.tuples(st.integers(3, 30), st.integers(0, 3)), min_size=2, max_size=6)


def drawn(sequence: list[Bar]) -> np.ndarray:
    """One colour a millimetre, as whole numbers that add up to no other colour."""
    number = {colour: n for n, colour in enumerate(COLOURS)}
    return np.concatenate([np.full(int(bar.width), number[bar.colour]) for bar in sequence])


def alike(a: np.ndarray, b: np.ndarray) -> float:
    """For each shift the share of places at which two rasters have one colour: a correlation of each colour."""
    planes = [np.fft.rfft(a == n) * np.conj(np.fft.rfft(b == n)) for n in range(len(COLOURS))]
    return np.fft.irfft(sum(planes), len(a)) / len(a)  # type: ignore[no-any-return, return-value]


@settings(max_examples=120, deadline=None)
@given(SEQUENCES)
def test_repeat_and_axes_are_where_the_bars_equal_themselves(told: list[tuple[int, int]]) -> None:
    sequence = [Bar(float(width), COLOURS[colour]) for width, colour in told]
    pattern = read_bars(sequence)
    raster = drawn(sequence)
    if len({bar.colour for bar in sequence}) < 2:
        assert pattern.repeat is None
        return
    shifts = np.flatnonzero(np.asarray(alike(raster, raster)) > 1 - 1e-9)
    least = next((int(s) for s in shifts if s > 0), len(raster))
    assert pattern.repeat == pytest.approx(least)
    # about an axis at m the raster read backwards equals itself: place i and 2m − 1 − i
    mirrored = np.flatnonzero(np.asarray(alike(raster, raster[::-1])) > 1 - 1e-9)
    axes = sorted({(((int(s) + len(raster)) / 2) % least) % (least / 2) for s in mirrored})
    ours = sorted({axis % (least / 2) for axis in pattern.axes})
    assert len(ours) == len(axes)
    if axes:
        off = [min(abs(a - b), abs(abs(a - b) - least / 2)) for a in ours for b in axes]
        assert min(off) < 1e-6
    assert pattern.balanced == bool(axes)


@settings(max_examples=60, deadline=None)
@given(st.floats(-40, 40), st.floats(-40, 40), st.floats(-0.002, 0.002), st.floats(-0.002, 0.002), st.floats(50, 500))
def test_drift_along_a_seam_is_the_integral_of_what_its_sides_do(
    first: float, second: float, bend_a: float, bend_b: float, long: float
) -> None:
    """Two sides that begin at given angles and bend at given rates (radians a mm): how far each comes up the cloth is
    the integral of the cosine of its angle over the sewn length."""
    dense = np.linspace(0.0, long, 20_001)

    def side(angle: float, bend: float) -> tuple[np.ndarray, np.ndarray]:
        turn = math.radians(angle) + bend * dense
        step = dense[1] - dense[0]
        x = np.concatenate([[0.0], np.cumsum((np.cos(turn)[1:] + np.cos(turn)[:-1]) / 2 * step)])
        y = np.concatenate([[0.0], np.cumsum((np.sin(turn)[1:] + np.sin(turn)[:-1]) / 2 * step)])
        return x, y

    (ax, ay), (bx, by) = side(first, bend_a), side(second, bend_b)
    run_a, run_b = (tuple(zip(x[::40].tolist(), y[::40].tolist(), strict=True)) for x, y in ((ax, ay), (bx, by)))
    at = np.linspace(0.0, long, 101)
    bars = Bars(10_000.0, None, (0.0,))
    found = strip("x", bars, at, places_at(run_a, at), places_at(run_b, at))
    assert found is not None and found.kind == "on"
    assert found.off == pytest.approx(ax[::200] - bx[::200], abs=0.02)
