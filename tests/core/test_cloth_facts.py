"""Fibres and blends, direction and wales, judgements by hand, dye, cloths together."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.cloth import hand as judgements
from idle_selvage.core.cloth.direction import PILE_RUNS, is_one_way, wale_class
from idle_selvage.core.cloth.dye import GRADES, Dye, all_share, alone, may_share, verdict
from idle_selvage.core.cloth.make import FIBRES, FINISHES, WEAVES, Make, blend_note, blend_text, deciding_kinds
from idle_selvage.core.shrink.ranges import blend_range, like_key, planning_range
from idle_selvage.core.shrink.together import Member, mismatches, one_washed_all_washed


@pytest.mark.parametrize(
    ("make", "kind"),
    [
        (Make((("cotton", 100),)), "cotton"),
        (Make((("cotton", 100),), "gauze"), "gauze"),
        (Make((("cotton", 98), ("elastane", 2)), "denim", "raw"), "denim-raw"),
        (Make((("cotton", 100),), "denim", "washed"), "denim-washed"),
        (Make((("cotton", 100),), "corduroy"), "velveteen"),
        (Make((("polyester", 100),), "fur"), "fur"),
        (Make((("viscose", 100),), "crepe"), "viscose"),
        (Make(), ""),
        (Make((("elastane", 100),)), ""),
    ],
)
def test_what_a_cloth_is_planned_as(make: Make, kind: str) -> None:
    assert like_key(make) == kind


def test_the_worst_fibre_of_at_least_a_fifth_decides() -> None:
    # common practice: linen 4–8 / 3–6, polyester 0–1 / 0–1; viscose at 15 % does not count
    mixed = blend_range(Make((("polyester", 50), ("linen", 35), ("viscose", 15))))
    assert mixed is not None and mixed.kind == "linen" and (mixed.warp, mixed.weft) == ((4, 8), (3, 6))
    assert "any wash" in mixed.pre_treatment and "warm wash" in mixed.pre_treatment
    # each direction by itself: lyocell 2–5 / 1–4, wool 2–6 / 2–5
    both = blend_range(Make((("lyocell", 60), ("wool", 40))))
    assert both is not None and both.warp == (2, 6) and both.weft == (2, 5)


blends = st.lists(st.tuples(st.sampled_from(list(FIBRES)), st.floats(1, 100)), max_size=4)


@given(blends, st.sampled_from(list(WEAVES)), st.sampled_from(list(FINISHES)))
def test_a_blend_shrinks_as_much_as_the_worst_fibre_that_decides(
    blend: list[tuple[str, float]], weave: str, finish: str
) -> None:
    make = Make(tuple(blend), weave, finish)
    entry, kinds = blend_range(make), deciding_kinds(make)
    assert (entry is None) == (not kinds)
    if entry is not None:
        worst = [planning_range(kind) for kind in kinds]
        assert entry.warp[1] == max(e.warp[1] for e in worst if e) and entry.weft[1] == max(
            e.weft[1] for e in worst if e
        )


def test_shares_that_do_not_make_a_whole_are_told() -> None:
    assert blend_note(Make((("linen", 55), ("cotton", 45)))) == "" == blend_note(Make())
    assert "90 %" in blend_note(Make((("linen", 50), ("cotton", 40))))
    assert blend_text(Make((("linen", 55), ("cotton", 45)))) == "55 % linen, 45 % cotton"


def test_direction_and_wales() -> None:
    assert [is_one_way(d) for d in ("none", "nap", "print", "stroke")] == [False, True, True, True]
    assert "deeper" in PILE_RUNS["up"][1] and "wears better" in PILE_RUNS["down"][1]
    # common practice, no source: 3–8 wide, 10–14 medium, 16–23 fine
    assert [wale_class(n)[0] for n in (3, 8, 10, 14, 16, 23, 9, 15)] == [
        "wide", "wide", "medium", "medium", "fine", "fine", "wide", "medium",
    ]  # fmt: skip
    for wrong in (0, 31):
        with pytest.raises(ValueError, match="wales to the inch"):
            wale_class(wrong)


def test_answers_by_hand_change_later_advice() -> None:
    assert judgements.advice({}) == ()
    said = judgements.advice({"sheer": "yes", "drape": "stiff"})
    assert "gather" in said[0] and "line it" in said[1], "in the order of the questions"
    assert judgements.needs_lining({"sheer": "shadow"}) and not judgements.needs_lining({"sheer": "no"})
    assert judgements.check({"sheer": "yes", "drape": ""}) == ""
    assert "no question" in judgements.check({"smell": "good"}) and "no answer" in judgements.check({"sheer": "maybe"})


def test_dye_is_washed_until_the_rag_stays_clean() -> None:
    assert list(GRADES) == [1, 2, 3, 4, 5]
    assert verdict(Dye("light")) == "" and "wet white rag" in verdict(Dye("dark"))
    assert "dye-catching" in verdict(Dye("dark", 2)) and "again" in verdict(Dye("dark", 2, (3, 4)))
    assert "nothing more" in verdict(Dye("dark", 2, (3, 5)))


def test_who_may_share_water() -> None:
    light, medium, dark = Dye("light", 5), Dye("medium"), Dye("dark", 5)
    assert may_share(light, medium) and may_share(medium, dark) and not may_share(light, dark)
    assert alone(Dye("dark")) and alone(Dye("medium", 3)) and not alone(Dye("medium", 4))
    assert not may_share(medium, Dye("medium", 3)) and may_share(medium, Dye("medium", 3, (4,)))
    assert all_share([light, medium, light]) and not all_share([light, medium, dark])


@given(*[st.builds(Dye, st.sampled_from(["light", "medium", "dark"]), st.none() | st.integers(1, 5))] * 2)
def test_sharing_is_mutual(a: Dye, b: Dye) -> None:
    assert may_share(a, b) == may_share(b, a)


def test_cloths_together() -> None:
    main, lining = Member("Velveteen", "main", 3.6, 1.8, False), Member("Twill", "lining", 5.6, 4.0, False)
    # 2.0 points are allowed, 2.2 are not
    said = mismatches([main, lining, Member("Tape", "trim", None, None, False)])
    assert len(said) == 1 and "2.2 points more across" in said[0] and said[0].startswith("Twill")
    assert one_washed_all_washed([main, lining]) == ""
    washed = Member("Velveteen", "main", 0, 0, True)
    assert one_washed_all_washed([washed, lining]) == "Velveteen was pre-treated, so Twill must be too."
    assert one_washed_all_washed([washed, washed]) == ""
