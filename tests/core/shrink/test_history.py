"""One's own past tests of like cloth."""

from __future__ import annotations

import math
import statistics

import pytest

from idle_selvage.core.shrink.history import Past, from_history, told


def test_mean_and_spread_as_a_reference_library_has_them() -> None:
    # reference: statistics of the standard library, whose stdev is the sample standard deviation
    tests = [Past("a", 4.0, 2.0), Past("b", 5.5, 2.5), Past("c", 7.0, 1.5), Past("d", 4.5, 3.0)]
    for direction in ("warp", "weft"):
        values = [getattr(test, direction) for test in tests]
        found = from_history(tests, direction)  # type: ignore[arg-type]
        assert found is not None and found.value == pytest.approx(statistics.mean(values))
        # Student's t for 0.95 one-sided at three degrees of freedom is 2.353 (any table of it)
        beside = 2.353 * statistics.stdev(values) * math.sqrt(1 + 1 / 4)
        assert found.high == pytest.approx(statistics.mean(values) + beside, abs=1e-3)
        assert found.steps[-1].result.value == found.high, "the working ends with what is planned"


def test_too_few_say_nothing_and_say_so() -> None:
    few = [Past("a", 4.0, 2.0)] * 2
    assert from_history(few, "warp") is None and "there are 2" in told(few) and "From 3 tests" in told(few)
    assert "there is 1" in told(few[:1]) and told([]) == ""
    assert from_history([*few, few[0]], "warp") is not None and "3 tests" in told([*few, few[0]])
