"""The process files are split off to may be ended by somebody, at any moment."""

from __future__ import annotations

from typing import Any

import pytest

from idle_selvage.formats.audit import Unreadable
from idle_selvage.jobs.apart import NO_READER, Apart

SQUARE = b'<svg xmlns="http://www.w3.org/2000/svg" width="99mm" height="99mm"><rect width="99" height="99"/></svg>'


class Failing:
    """As the context of processes, whose first ones do not begin."""

    def __init__(self, there: Any, times: int, fault: type[Exception]) -> None:
        self.there, self.times, self.fault = there, times, fault

    def __getattr__(self, name: str) -> Any:
        return getattr(self.there, name)

    def Process(self, **how: Any) -> Any:  # noqa: N802
        process = self.there.Process(**how)
        if self.times > 0:
            self.times -= 1
            process.start = self._fails
        return process

    def _fails(self) -> None:
        raise self.fault


@pytest.mark.parametrize("fault", [EOFError, ConnectionResetError, BrokenPipeError])
def test_a_reader_that_does_not_begin_is_begun_anew(fault: type[Exception]) -> None:
    apart = Apart(in_all=60)
    apart._context = Failing(apart._context, 1, fault)
    assert apart.take_in(SQUARE, "a.svg").format == "svg"


def test_one_that_never_begins_is_told() -> None:
    apart = Apart(in_all=60)
    apart._context = Failing(apart._context, 9, EOFError)
    with pytest.raises(Unreadable, match=NO_READER):
        apart.take_in(SQUARE, "a.svg")
