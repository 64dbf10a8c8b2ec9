"""What several tests of this room share."""

from __future__ import annotations

from idle_selvage.core.true.slant import FoldTest, Slant, read_test


def slant(offset: float, bow: float = 0.0, width: float = 1400.0) -> Slant:
    return read_test(FoldTest(offset, bow), width)
