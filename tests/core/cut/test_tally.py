"""What is cut and what is still owed, added up from deeds."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.cut.tally import FAULTS, CannotDo, Deed, RoundToCut, Tally, after, begun, progress, tally

FIRST = RoundToCut(
    1,
    {"front·1": 2, "back·1": 1, "pocket·1": 2},
    {"front·1": "front", "back·1": "back", "pocket·1": "pocket"},
    {"front·1": (False, True), "back·1": (False,), "pocket·1": (False, True)},
)
#: A pocket is its own mirror image, so it is all one how it is cut.
ASKED = {"front": (1, 1), "back": (1, 0), "pocket": (2, 0)}


def test_a_placement_gives_all_its_copies_at_once() -> None:
    found = after(begun([FIRST]), Deed("cut", 1, "front·1"))
    assert [one.state for one in found.of(1, "front·1")] == ["good", "good"]
    assert found.good == 2 and len(found.waiting) == 3 and found.owed(ASKED) == {}


def test_what_goes_wrong_is_owed_by_its_side_and_good_again_where_it_was_only_thought() -> None:
    found = tally([FIRST], [Deed("cut", 1, "front·1"), Deed("spoilt", 1, "front·1", 1)])
    assert found.owed(ASKED) == {"front": (0, 1)}
    assert after(found, Deed("found", 1, "front·1", 1)).owed(ASKED) == {}
    either = tally([FIRST], [Deed("cut", 1, "pocket·1"), Deed("missing", 1, "pocket·1", 1)])
    assert either.owed(ASKED) == {"pocket": (1, 0)}, "which side a pocket is cut from is all one"


def test_a_round_that_is_given_up_owes_what_was_not_cut_in_it() -> None:
    found = tally([FIRST], [Deed("cut", 1, "back·1"), Deed("left", 1)])
    assert found.owed(ASKED) == {"front": (1, 1), "pocket": (2, 0)} and found.waiting == ()
    again = RoundToCut(2, {"front·1": 2}, {"front·1": "front"}, {"front·1": (False, True)})
    more = tally([FIRST, again], [Deed("cut", 1, "back·1"), Deed("left", 1)])
    assert more.owed(ASKED) == {"pocket": (2, 0)}
    with pytest.raises(CannotDo, match="from the new lay"):
        after(more, Deed("cut", 1, "front·1"))


@pytest.mark.parametrize(
    ("deeds", "why"),
    [
        ([Deed("cut", 1, "sleeve·1")], "no such piece"),
        ([Deed("cut", 2, "front·1")], "no such piece"),
        ([Deed("cut", 1, "back·1"), Deed("cut", 1, "back·1")], "cut already"),
        ([Deed("not cut", 1, "back·1")], "not cut yet"),
        ([Deed("spoilt", 1, "back·1")], "not cut yet"),
        ([Deed("cut", 1, "back·1"), Deed("stained", 1, "back·1", 4)], "no such copy"),
        ([Deed("cut", 1, "back·1"), Deed("found", 1, "back·1")], "Nothing is wrong"),
        ([Deed("cut", 1, "back·1"), Deed("spoilt", 1, "back·1"), Deed("not cut", 1, "back·1")], "good after all"),
    ],
)
def test_what_cannot_be_is_refused_with_a_sentence(deeds: list[Deed], why: str) -> None:
    with pytest.raises(CannotDo, match=why):
        tally([FIRST], deeds)


KINDS = ["cut", "not cut", *FAULTS, "found", "left"]
DEEDS = st.builds(
    Deed,
    st.sampled_from(KINDS),
    st.just(1),
    st.sampled_from(["front·1", "back·1", "pocket·1"]),
    st.integers(0, 1),
)


@given(st.lists(DEEDS, max_size=40))
def test_whatever_is_done_no_copy_is_counted_twice_or_forgotten(deeds: list[Deed]) -> None:
    found: Tally = begun([FIRST])
    done = []
    for deed in deeds:
        try:
            found = after(found, deed)
        except CannotDo:
            continue
        done.append(deed)
        counted = [one.state for one in found.copies]
        assert len(counted) == 5
        missing = sum(sum(counts) for counts in found.owed(ASKED).values())
        # every copy asked for is good, waits, or is owed
        assert found.good == found.counted(ASKED) and found.good + len(found.waiting) + missing == 5
    assert tally([FIRST], done) == found, "the same deeds give the same tally"


def test_progress_tells_what_to_do_next() -> None:
    assert progress(Tally(), {}, begun=False, laid=False) == ("empty", "Lay the pieces first.")
    assert progress(Tally(), {}, begun=False, laid=True)[0] == "empty"
    found = tally([FIRST], [Deed("cut", 1, "front·1")])
    assert progress(found, ASKED, begun=True, laid=True) == ("begun", "3 of 5 pieces wait for the shears.")
    lost = after(found, Deed("spoilt", 1, "front·1", 0))
    assert progress(lost, ASKED, begun=True, laid=True) == (
        "look-again",
        "A piece went wrong: find it a place again.",
    )
    every = tally([FIRST], [Deed("cut", 1, key) for key in FIRST.copies])
    assert progress(every, ASKED, begun=True, laid=True) == ("done", "")


def test_one_too_many_of_a_piece_counts_for_no_other() -> None:
    again = RoundToCut(2, {"front·1": 1}, {"front·1": "front"}, {"front·1": (True,)})
    deeds = [Deed("cut", 1, "front·1"), Deed("missing", 1, "front·1", 1), Deed("cut", 2, "front·1")]
    found = tally([FIRST, again], [*deeds, Deed("found", 1, "front·1", 1)])
    assert found.good == 3 and found.counted(ASKED) == 2
    assert progress(found, ASKED, begun=True, laid=True) == ("begun", "3 of 5 pieces wait for the shears.")


def test_a_piece_joined_of_two_is_there_when_both_parts_are() -> None:
    joined = RoundToCut(
        2,
        {"low·1": 1, "high·1": 1},
        {"low·1": "back", "high·1": "back"},
        {"low·1": (False,), "high·1": (False,)},
        {"low·1": ", lower part", "high·1": ", upper part"},
    )
    deeds = [Deed("cut", 1, key) for key in FIRST.copies] + [Deed("spoilt", 1, "back·1")]
    found = tally([FIRST, joined], deeds)
    assert found.owed(ASKED) == {} and found.counted(ASKED) == 4
    half = after(found, Deed("cut", 2, "low·1"))
    assert half.counted(ASKED) == 4 and progress(half, ASKED, begun=True, laid=True)[0] == "begun"
    assert after(half, Deed("cut", 2, "high·1")).counted(ASKED) == 5
    # a part that is spoilt owes the piece
    lost = tally([FIRST, joined], [*deeds, Deed("cut", 2, "low·1"), Deed("spoilt", 2, "low·1")])
    assert lost.owed(ASKED) == {"back": (1, 0)}
