"""What is said of an entry that two pages changed."""

from __future__ import annotations

from typing import Any

import pytest

from idle_selvage.core.wording import Sentence
from idle_selvage.core.working import length
from idle_selvage.operations.both import told
from idle_selvage.store.journal import Cell, ChangedElsewhere


@pytest.mark.parametrize(
    ("column", "value", "says"),
    [
        ("note", None, "nothing"),
        ("note", "", "nothing"),
        ("folds", [], "nothing"),
        # a millimetre entry that is nought is a length all the same
        ("gap", 0, Sentence("{value}", value=length(0.0))),
        ("gap", 12, Sentence("{value}", value=length(12.0))),
        ("gap", 12.5, Sentence("{value}", value=length(12.5))),
        # what is no length is a plain number, also where it stands beside one
        ("copies", 2, "2"),
        ("mass", 0.5, "0.5"),
        # yes and no are no numbers, whatever the column
        ("gap", True, "yes"),
        ("reversible", False, "no"),
        ("folds", ["open", "partial"], "open, partial"),
        ("flaws", [{"x": 1}], "something else"),
        ("readings", [[1.0], [2.0]], "something else"),
        ("face", {"side": "pins"}, "something else"),
        ("note", "for the concert", "for the concert"),
    ],
)
def test_both_values_are_told_as_they_would_be_typed(column: str, value: Any, says: Any) -> None:
    (one,) = told(ChangedElsewhere([Cell("cloth", "1", column, value, None)]))
    assert one.theirs == says and one.mine == "nothing" and one.path == column


def test_one_entry_is_told_once_however_many_rows_hold_it() -> None:
    cells = [Cell("reading", str(k), "first_end", 1.0, 2.0) for k in range(3)]
    assert [one.name for one in told(ChangedElsewhere(cells))] == [told(ChangedElsewhere(cells[:1]))[0].name]
    assert len(told(ChangedElsewhere([*cells, Cell("reading", "9", "first_end", 1.0, 3.0)]))) == 2
