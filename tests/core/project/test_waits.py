"""Which stage waits for which."""

from __future__ import annotations

import pytest

from idle_selvage.core.project.waits import WaitFacts, waits

NO_PIECES = ("plan", "Add the pattern pieces first.")
NO_WIDTH = ("cloth", "Measure the cloth's width in three places.")


@pytest.mark.parametrize(
    ("facts", "waiting"),
    [
        (
            WaitFacts(NO_PIECES, False, False, False, False),
            {"lay": "plan", "buy": "plan", "cut": "plan", "true": "cloth"},
        ),
        (
            WaitFacts(NO_WIDTH, False, False, False, False),
            {"lay": "cloth", "buy": "cloth", "cut": "cloth", "true": "cloth"},
        ),
        (WaitFacts(None, False, False, False, True), {"buy": "lay", "cut": "lay"}),
        # laid once: a piece that was taken out since makes it out of date, and nobody waits
        (WaitFacts(NO_PIECES, True, True, False, True), {}),
        (WaitFacts(None, True, False, False, True, "Wash a swatch."), {"buy": "shrink"}),
        # a trim is bought by its edges, which are said under Buy itself
        (WaitFacts(NO_PIECES, False, False, True, True), {}),
        (WaitFacts(NO_PIECES, False, False, True, False), {}),
    ],
)
def test_each_waits_for_the_first_thing_to_be_done(facts: WaitFacts, waiting: dict[str, str]) -> None:
    found = waits(facts)
    assert {one.stage: one.on for one in found} == waiting
    assert all(one.why.endswith(".") for one in found)
