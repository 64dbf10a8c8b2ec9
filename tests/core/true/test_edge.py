"""The first edge: how it is made and what it costs."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.true.edge import CLEAN_MM, METHODS, EdgeFacts, advise_edge, edge_cost, sparing_edge


@pytest.mark.parametrize(
    ("facts", "way"),
    [
        (EdgeFacts(), "tear"),
        (EdgeFacts(linen=True), "thread"),
        (EdgeFacts("velveteen"), "thread"),
        (EdgeFacts(sheer=True), "thread"),
        (EdgeFacts("crepe", slips=True), "thread"),
        (EdgeFacts(colouring="yarn-dyed", bars_across=True), "bar"),
        (EdgeFacts(colouring="printed", bars_across=True), "tear"),
        (EdgeFacts("sequin"), "square"),
    ],
)
def test_the_first_edge_follows_the_cloth(facts: EdgeFacts, way: str) -> None:
    advice = advise_edge(facts)
    assert advice.way == way and {advice.way, *(key for key, _ in advice.others)} == set(METHODS)


def test_printed_bars_and_pile_are_refused_with_the_reason() -> None:
    others = dict(advise_edge(EdgeFacts(colouring="printed", bars_across=True)).others)
    assert "printed" in others["bar"]
    assert "pile" in dict(advise_edge(EdgeFacts("velveteen")).others)["tear"]
    assert all(0 < m.loss <= 50.8 and m.steps for m in METHODS.values()), "within the usual 2 in an end"


def test_what_the_cut_edge_costs() -> None:
    # by hand: 38 − 22 = 16 uneven, and a drawn thread takes 10 more
    cost = edge_cost([30, 38, 22, 29], "thread")
    assert cost.value == 26 and cost.note == ""
    assert (
        edge_cost([], "thread").value == METHODS["thread"].loss and edge_cost([], "thread").note == "not measured yet"
    )
    assert edge_cost([25, 25], "bar").value == CLEAN_MM["bar"], "a level edge only loses what the way takes"


@given(st.lists(st.floats(0, 200), min_size=1, max_size=8), st.floats(0, 200), st.sampled_from(list(METHODS)))
def test_one_more_reading_never_makes_the_edge_cheaper(readings: list[float], more: float, way: str) -> None:
    assert edge_cost([*readings, more], way).value >= edge_cost(readings, way).value - 1e-9  # type: ignore[arg-type]
    assert edge_cost([r + 7 for r in readings], way).value == pytest.approx(edge_cost(readings, way).value)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("facts", "way", "loss"),
    [
        (EdgeFacts(), "thread", 30.0),
        (EdgeFacts(bars_across=True, colouring="yarn-dyed"), "bar", 20.0),
        (EdgeFacts(bars_across=True, colouring="printed"), "thread", 30.0),
        (EdgeFacts(weave="velveteen"), "thread", 30.0),
        (EdgeFacts(weave="lace"), "square", 50.0),
    ],
)
def test_what_an_end_loses_at_least(facts: EdgeFacts, way: str, loss: float) -> None:
    found = sparing_edge(facts)
    assert (found.key, found.loss) == (way, loss)
