"""The selvage margins."""

from __future__ import annotations

from idle_selvage.core.cloth.make import WEAVES
from idle_selvage.core.cloth.margins import both_margins, margin_hint


def test_another_cloth_of_the_kind_takes_what_was_measured_or_what_is_usual() -> None:
    assert both_margins(8.0, 12.0) == 20.0 and both_margins(8.0, 0.0) == 8.0
    assert both_margins(0.0, 0.0) == 20.0, "never nothing: a selvage cannot be used"


def test_every_kind_has_a_hint_and_soft_edges_one_of_their_own() -> None:
    hints = {weave: margin_hint(weave) for weave in WEAVES}
    assert all(hint.endswith(".") for hint in hints.values())
    assert hints["fur"] == hints["lace"] != hints["plain"] != hints["sequin"]
