"""Which lengths come together at a seam, and what is said of sides that differ."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from idle_selvage.core.plan.outline import Outline
from idle_selvage.core.plan.seams import Seam, SeamSide, Sewn, joints, sewing_order, sewn_with, unlike
from idle_selvage.core.plan.sides import Side, Spot

ANY = Side(Spot(1), Spot(2))


def seam(**said: object) -> Seam:
    return Seam("1", SeamSide("a", ANY), SeamSide("b", ANY), **said)  # type: ignore[arg-type]


def straight(long: float) -> Outline:
    return ((0.0, 0.0), (long, 0.0))


def sewn(long_a: float, long_b: float, **said: object) -> Sewn:
    return Sewn(seam(**said), straight(long_a), straight(long_b), straight(long_a), straight(long_b))


def at(one: Sewn, *places: float) -> list[float]:
    return [float(v) for v in one.meets(np.array(places))]


def test_ease_is_taken_in_evenly_or_where_it_was_said() -> None:
    even = sewn(440.0, 400.0, longer="a", ease=40.0)
    assert at(even, 0.0, 110.0, 440.0) == pytest.approx([0.0, 100.0, 400.0])
    # only in the second half of the longer side: 220 run one to one, the other 220 lose the 40
    half = sewn(440.0, 400.0, longer="a", ease=40.0, spread=(0.5, 1.0))
    assert at(half, 100.0, 220.0, 330.0, 440.0) == pytest.approx([100.0, 220.0, 310.0, 400.0])
    # the longer one may be the other side
    other = sewn(400.0, 440.0, longer="b", ease=40.0, spread=(0.5, 1.0))
    assert at(other, 100.0, 220.0, 310.0, 400.0) == pytest.approx([100.0, 220.0, 330.0, 440.0])


def test_a_key_point_meets_its_partner_exactly() -> None:
    keyed = sewn(440.0, 400.0, key_a=200.0, key_b=170.0)
    assert at(keyed, 0.0, 100.0, 200.0, 320.0, 440.0) == pytest.approx([0.0, 85.0, 170.0, 285.0, 400.0])
    assert keyed.key == ((200.0, 0.0), (170.0, 0.0))
    free = sewn(440.0, 400.0, key_a=220.0)
    assert free.key == ((220.0, 0.0), (200.0, 0.0)), "told on one side only, its partner lies at the same share"


@settings(max_examples=60)
@given(
    st.floats(50, 900), st.floats(50, 900), st.floats(0, 0.6), st.floats(0.1, 0.4),
    st.one_of(st.none(), st.tuples(st.floats(0.05, 0.95), st.floats(0.05, 0.95))),
)  # fmt: skip
def test_whatever_is_said_both_ends_meet_and_nothing_runs_back(
    a: float, b: float, begin: float, more: float, key: tuple[float, float] | None
) -> None:
    said = {"spread": (begin, begin + more)}
    keys = {} if key is None else {"key_a": key[0] * a, "key_b": key[1] * b}
    found = np.array(joints(seam(**said, **keys), a, b))
    assert found[0] == pytest.approx([0, 0]) and found[-1] == pytest.approx([a, b])
    assert (np.diff(found[:, 0]) > 0).all() and (np.diff(found[:, 1]) >= -1e-9).all()


def test_sides_that_differ_by_more_than_their_ease_are_said() -> None:
    assert unlike(sewn(401.5, 400.0), ("Front", "Back")) is None, "a tape read both"
    told = unlike(sewn(405.0, 400.0), ("Front", "Back"))
    assert told is not None and told.startswith("Front is 0.5 cm longer here than Back: say that it is eased in")
    assert unlike(sewn(430.0, 400.0, longer="a", ease=30.0), ("Sleeve", "Front")) is None
    more = unlike(sewn(440.0, 400.0, longer="a", ease=30.0), ("Sleeve", "Front"))
    assert more is not None and "4.0 cm longer here than Front, and 3.0 cm of ease were told" in more
    wrong = unlike(sewn(400.0, 430.0, longer="a", ease=30.0), ("Sleeve", "Front"))
    assert wrong is not None and "Front is 3.0 cm longer here than Sleeve, and the other was said" in wrong


def test_a_piece_laid_on_another_lies_with_its_key_point_at_the_place() -> None:
    laid = Seam("1", SeamSide("pocket", ANY), SeamSide("front", None, (300.0, 80.0)), kind="laid on", key_a=60.0)
    one = sewn_with(laid, lambda _: (((10.0, 60.0), (10.0, -60.0)),) * 2, (straight(1), straight(1)))
    assert one.key == ((10.0, 0.0), (300.0, 80.0)) and one.b == ((300.0, 140.0), (300.0, 20.0)) and not one.mirrors


def test_two_edges_drawn_in_one_sense_are_sewn_against_each_other_or_mirrored() -> None:
    round_left = ((0.0, 0.0), (9.0, 0.0), (9.0, 9.0), (0.0, 9.0))
    run = ((0.0, 0.0), (9.0, 0.0))
    for same_way in (False, True):
        for rings in ((round_left, round_left), (round_left, round_left[::-1])):
            found = sewn_with(seam(same_way=same_way), lambda _: (run, run), rings)
            assert found.mirrors == (same_way == (rings[0] == rings[1]))
            assert found.b == (run if same_way else run[::-1])


def test_pieces_stand_side_by_side_as_they_are_sewn() -> None:
    def joins(a: str, b: str) -> Seam:
        return Seam("", SeamSide(a, ANY), SeamSide(b, ANY))

    found = sewing_order(["back", "cuff", "front", "sleeve"], [joins("front", "back"), joins("sleeve", "front")])
    assert found[-1] == "cuff" and abs(found.index("front") - found.index("sleeve")) == 1
    assert sorted(found) == ["back", "cuff", "front", "sleeve"]
