"""Bars across the garment against a search of all phases, and bars along it against the same."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from idle_selvage.core.lay.lengthwise import AcrossTie, lengthwise
from idle_selvage.core.lay.levels import Levels, Tie, apart, levels

REPEAT = 7
PIECES = "abcd"
TIES = st.lists(
    st.tuples(st.sampled_from(PIECES), st.sampled_from(PIECES), st.integers(0, 13), st.integers(0, 13)),
    min_size=1, max_size=6,
)  # fmt: skip


def of(found: list[tuple[str, str, int, int]]) -> list[Tie]:
    return [Tie(str(n), a, b, float(u), float(v)) for n, (a, b, u, v) in enumerate(found)]


def exact(found: Levels) -> tuple[bool, ...]:
    return tuple(found.standing[key] != "misses" for key in sorted(found.standing, key=int))


@settings(max_examples=150, deadline=None)
@given(TIES)
def test_as_many_seams_meet_by_priority_as_any_phases_allow(told: list[tuple[str, str, int, int]]) -> None:
    """Every phase of every piece is tried: none meets a seam that is missed without missing one that comes first."""
    ties = of(told)
    best = max(
        tuple((phase[t.a] + t.at_a - phase[t.b] - t.at_b) % REPEAT == 0 for t in ties)
        for phase in (
            dict(zip(PIECES, (0, *others), strict=True)) for others in itertools.product(range(REPEAT), repeat=3)
        )
    )
    found = levels(ties, float(REPEAT))
    assert exact(found) == best
    # what it says each seam misses by is what its places come to
    for tie in ties:
        off = apart(tie.at_a - found.zero[tie.a], tie.at_b - found.zero[tie.b], REPEAT)
        assert found.off[tie.key] == pytest.approx(off) and (found.standing[tie.key] == "misses") == (abs(off) > 0.05)


def test_a_group_begins_at_the_key_point_of_its_first_seam() -> None:
    found = levels([Tie("1", "a", "b", 50.0, 60.0), Tie("2", "c", "a", 10.0, 200.0)], 40.0)
    assert found.zero == {"a": 50.0, "b": 60.0, "c": -140.0} and set(found.group.values()) == {"1"}
    assert found.standing == {"1": "exact", "2": "exact"}


def test_a_ring_that_does_not_close_misses_where_the_priority_is_lowest() -> None:
    ring = [Tie("1", "a", "b", 0.0, 0.0), Tie("2", "b", "c", 0.0, 0.0), Tie("3", "c", "a", 5.0, 0.0)]
    found = levels(ring, 40.0)
    assert found.standing == {"1": "exact", "2": "exact", "3": "misses"} and found.off["3"] == pytest.approx(5.0)
    again = levels([ring[2], ring[0], ring[1]], 40.0)
    assert again.standing["3"] == "exact" and again.standing["2"] == "misses"
    assert levels([*ring[:2], Tie("3", "c", "a", 40.0, 0.0)], 40.0).standing["3"] == "follows", "a whole repeat is none"


ACROSS = st.lists(
    st.tuples(
        st.sampled_from(PIECES[:3]), st.sampled_from(PIECES[:3]), st.integers(0, 7), st.integers(0, 7), st.booleans()
    ),
    min_size=1, max_size=3,
)  # fmt: skip


@settings(max_examples=150, deadline=None)
@given(ACROSS, st.sets(st.sampled_from(PIECES[:3]), max_size=1), st.integers(0, 7))
def test_the_first_seam_along_the_garment_is_met_wherever_any_places_meet_it(
    told: list[tuple[str, str, int, int, bool]], centred: set[str], axis: int
) -> None:
    """On bars that repeat every 8, places in halves are all tried: the first seam is met if it can be, and what each
    misses by is what its places come to."""
    repeat = 8
    ties = [AcrossTie(str(n), a, b, float(u), float(v), m) for n, (a, b, u, v, m) in enumerate(told)]
    found = lengthwise(ties, centred, float(axis), float(repeat))

    def miss(tie: AcrossTie, place: dict[str, float]) -> float:
        there = place[tie.b] + tie.at_b
        return apart(place[tie.a] + tie.at_a, 2 * axis - there if tie.mirrors else there, repeat)

    halves = [n / 2 for n in range(2 * repeat)]
    named = sorted({piece for tie in ties for piece in (tie.a, tie.b)})
    choices = [[float(axis)] if piece in centred else halves for piece in named]
    possible = any(
        abs(miss(ties[0], dict(zip(named, places, strict=True)))) < 1e-9 for places in itertools.product(*choices)
    )
    assert (found.standing["0"] != "misses") == possible
    for tie in ties:
        assert found.off[tie.key] == pytest.approx(miss(tie, found.shift), abs=1e-9)
    for piece in centred & set(found.shift):
        assert found.shift[piece] == axis


def test_what_is_sewn_to_its_own_mirror_image_lies_with_its_seam_on_the_axis() -> None:
    found = lengthwise([AcrossTie("1", "front", "front", 30.0, 30.0, True)], (), 12.0, 54.0)
    assert found.standing["1"] != "misses" and (found.shift["front"] + 30.0 - 12.0) % 27.0 == pytest.approx(0, abs=1e-6)
