"""What still has to be treated."""

from __future__ import annotations

from idle_selvage.core.cloth.make import Make
from idle_selvage.core.washday.needs import WashDone, napped, needs_treatment


def test_a_length_needs_treating_until_it_was_and_its_dye_stays() -> None:
    assert needs_treatment([])
    assert not needs_treatment([WashDone()]) and not needs_treatment([WashDone(grade=5)])
    # the rag was stained: again, until it is clean
    assert needs_treatment([WashDone(grade=3)])
    assert not needs_treatment([WashDone(grade=3), WashDone(grade=5)])
    assert needs_treatment([WashDone(grade=5), WashDone(grade=4)])


def test_what_a_stand_in_made_up_treats_nothing() -> None:
    assert needs_treatment([WashDone(made_up=True)])
    assert not needs_treatment([WashDone(), WashDone(grade=2, made_up=True)])


def test_pile_wants_the_water_to_itself() -> None:
    assert napped(Make(weave="velveteen")) and not napped(Make(weave="twill"))


def test_a_nap_said_by_hand_wants_the_water_to_itself() -> None:
    plain = Make((("cotton", 100.0),), "plain")
    assert napped(plain, "nap") and napped(plain, "stroke")
    assert not napped(plain, "print") and not napped(plain) and napped(Make((("cotton", 100.0),), "corduroy"))
