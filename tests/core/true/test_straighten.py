"""What to do about a slant."""

from __future__ import annotations

from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.true.slant import accepted, true_angle
from idle_selvage.core.true.straighten import StraightenFacts, forbidden, plan, pull_corners

from .cases import slant

FACTS = st.builds(
    StraightenFacts,
    weave=st.sampled_from(["plain", "twill", "velveteen", "crepe", "satin"]),
    finish=st.sampled_from(["", "resin", "washed"]),
    colouring=st.sampled_from(["", "printed", "yarn-dyed"]),
    bars=st.booleans(),
    sheer=st.booleans(),
    slips=st.booleans(),
)


SWAP = str.maketrans({"≪": "≫", "≫": "≪"})


def mirrored(text: str) -> str:
    """The same sentence with the selvages exchanged."""
    return (
        text.replace("near selvage", "≪")
        .replace("far selvage", "≫")
        .translate(SWAP)
        .replace("≪", "near selvage")
        .replace("≫", "far selvage")
    )


@given(st.floats(-200, 200), FACTS, st.sampled_from(["pin", "pull", None]))
def test_mirrored_readings_mirror_the_advice(offset: float, facts: StraightenFacts, school: str | None) -> None:
    one, other = slant(offset), slant(-offset)
    assert one.skew.value == other.skew.value and true_angle(offset, 1400) == -true_angle(-offset, 1400)
    a, b = plan(one, facts, 5000, school), plan(other, facts, 5000, school)  # type: ignore[arg-type]
    assert [mirrored(step) for step in a.steps] == list(b.steps) if offset else a == b
    assert replace(a, steps=()) == replace(b, steps=())


@given(FACTS)
def test_nothing_apart_is_true_whatever_the_cloth(facts: StraightenFacts) -> None:
    made = plan(slant(0), facts)
    assert made.action == "nothing" and slant(0).skew.value == slant(0).angle.value == 0


@given(st.floats(12.5, 40), FACTS)
def test_what_must_not_be_pulled_never_is(offset: float, facts: StraightenFacts) -> None:
    made = plan(slant(offset), facts, school="pull")
    if forbidden(facts):
        assert made.school == "pin" and not any("Pull gently" in step for step in made.steps)
        assert made.forbids
    elif made.action == "straighten":
        assert made.school == "pull"


def test_two_schools_a_default_and_short_lengths() -> None:
    plain = StraightenFacts()
    assert plan(slant(20), plain).school == "pin"
    pulled = plan(slant(20), plain, 5000, "pull")
    assert "3 lengths of at most 2 m" in pulled.steps[0] and pulled.steps[1].startswith("Hold the near selvage")
    assert pull_corners(slant(-20))[0] == "the far selvage at this end"
    assert "at most 2 m" not in plan(slant(20), plain, 1500).steps[0]


def test_a_print_is_followed_or_refused() -> None:
    printed = StraightenFacts(colouring="printed", bars=True)
    assert plan(slant(28), printed).action == "follow", "28 mm on 1.40 m are 2 %"
    assert plan(slant(29), printed).action == "choose"
    fixed = plan(slant(20), StraightenFacts(finish="resin"))
    assert fixed.action == "choose" and "comes back" in fixed.steps[0] and "need not take it back" in fixed.else_[0]
    assert "take it back" in plan(slant(60), StraightenFacts()).else_[1]
    assert accepted(2.5, bars=False) and not accepted(2.5, bars=True)


def test_the_school_is_asked_for_where_something_is_straightened_or_cut() -> None:
    made = [
        plan(slant(offset), facts)
        for offset in (0, 2, 20, 60)
        for facts in (
            StraightenFacts(),
            StraightenFacts(finish="resin"),
            StraightenFacts(colouring="printed", bars=True),
        )
    ]
    asked = {one.action: one.chooses for one in made}
    assert asked == {action: action in ("straighten", "cut") for action in asked} and len(asked) >= 4, asked
