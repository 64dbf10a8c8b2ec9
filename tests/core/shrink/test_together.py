"""Which cloths may be sewn together."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.make import Make
from idle_selvage.core.plan.piece import Grain
from idle_selvage.core.shrink.states import ClothStates
from idle_selvage.core.shrink.together import Member, headline, mismatches, one_washed_all_washed, wanted


def member(name: str, warp: float | None, weft: float | None, **cut: Grain) -> Member:
    return Member(name, "main", warp, weft, False, cut)


def test_more_than_two_points_apart_pucker() -> None:
    assert mismatches([member("A", 5.0, 3.0), member("B", 3.0, 3.0)]) == (), "just two points"
    (told,) = mismatches([member("A", 5.1, 3.0), member("B", 3.0, 3.0)])
    assert told.startswith("A shrinks 2.1 points more along than B")
    assert mismatches([member("A", 9.0, None), member("B", None, 3.0)]) == (), "only where both are known"


def test_both_ways_are_one_sentence_and_each_cloth_its_own() -> None:
    told = mismatches([member("A", 8.0, 1.0), member("B", 3.0, 5.0)])
    assert [t.split(":")[0] for t in told] == [
        "A shrinks 5.0 points more along than B",
        "B shrinks 4.0 points more across than A",
    ]


def test_seams_are_compared_as_the_pieces_lie_on_each_cloth() -> None:
    # 7 along and 1 across: cut on the cross grain it goes with a cloth that loses 1 along
    lining = {"front": "crosswise"}
    assert (
        mismatches([member("Check", 1.0, 7.0, front="lengthwise"), Member("Lining", "lining", 7.0, 1.0, False, lining)])
        == ()
    )
    straight = Member("Lining", "lining", 7.0, 1.0, False, {"front": "lengthwise"})
    assert len(mismatches([member("Check", 1.0, 7.0, front="lengthwise"), straight])) == 2
    # on the bias something of both: (7 + 1) ÷ 2 = 4, which is 3 more than 1
    slanted = Member("Lining", "lining", 7.0, 1.0, False, {"front": "bias"})
    (told,) = mismatches([member("Check", 1.0, 4.0, front="lengthwise"), slanted])
    assert "3.0 points more along" in told


#: Sixteen sets by table: what the planning ranges' middles say, in points along and across. The main cloth and what is
#: sewn to it, each as (blend, weave), how the second lies, and by how many points it differs where that is more than
#: two.
SETS: list[tuple[tuple[str, str], tuple[str, str], Grain, list[str]]] = [
    # double gauze 5–10 both ways (7.5), plain cotton 3–5 / 1–4 (4, 2.5)
    (("cotton", "gauze"), ("cotton", "plain"), "lengthwise", ["3.5 points more along and 5.0 points more across"]),
    (("cotton", "gauze"), ("cotton", "gauze"), "lengthwise", []),
    (("cotton", "gauze"), ("cotton", "gauze"), "crosswise", []),
    # viscose 5–10 / 3–8 (7.5, 5.5)
    (("cotton", "gauze"), ("viscose", "plain"), "lengthwise", []),
    (("cotton", "gauze"), ("viscose", "plain"), "crosswise", []),
    # silk 2–6 / 1–4 (4, 2.5)
    (("cotton", "gauze"), ("silk", "plain"), "lengthwise", ["3.5 points more along and 5.0 points more across"]),
    (("silk", "plain"), ("silk", "satin"), "lengthwise", []),
    (("silk", "plain"), ("cotton", "plain"), "lengthwise", []),
    (("silk", "plain"), ("viscose", "plain"), "lengthwise", ["3.5 points more along and 3.0 points more across"]),
    # cut on the cross grain the viscose loses 5.5 along the seam and 7.5 across it
    (("silk", "plain"), ("viscose", "plain"), "crosswise", ["5.0 points more across"]),
    # polyester 0–1 (0.5)
    (("silk", "plain"), ("polyester", "plain"), "lengthwise", ["3.5 points more along"]),
    # a blend goes by its worst fibre from a fifth on: polyester 60, linen 40 is linen, 4–8 / 3–6 (6, 4.5)
    (("polyester60 linen40", "plain"), ("linen", "plain"), "lengthwise", []),
    (
        ("polyester60 linen40", "plain"),
        ("polyester", "plain"),
        "lengthwise",
        ["5.5 points more along and 4.0 points more across"],
    ),
    # under a fifth it does not count: polyester
    (("polyester85 linen15", "plain"), ("polyester", "plain"), "lengthwise", []),
    # lyocell 2–5 / 1–4, wool 2–6 / 2–5: together 2–6 / 2–5 (4, 3.5)
    (("lyocell60 wool40", "plain"), ("silk", "plain"), "lengthwise", []),
    (("lyocell60 wool40", "plain"), ("viscose", "twill"), "lengthwise", ["3.5 points more along"]),
]


def made(blend: str, weave: str) -> Make:
    shares = [part.rstrip("0123456789") for part in blend.split()]
    parts = [(name, float(part.removeprefix(name) or 100)) for name, part in zip(shares, blend.split(), strict=True)]
    return Make(tuple(parts), weave)


@pytest.mark.parametrize(("main", "other", "grain", "told"), SETS)
def test_sixteen_sets_by_table(main: tuple[str, str], other: tuple[str, str], grain: Grain, told: list[str]) -> None:
    members = []
    for name, (blend, weave), lies in (("One", main, "lengthwise"), ("Two", other, grain)):
        states = ClothStates(make=made(blend, weave))
        both = [states.after(1, "warp").figure, states.after(1, "weft").figure]
        values = [None if figure is None else figure.value for figure in both]
        members.append(Member(name, "main", values[0], values[1], False, {"front": lies}))  # type: ignore[dict-item]
    found = [t.split(" shrinks ")[1].split(" than ")[0] for t in mismatches(members)]
    assert found == told


def test_one_washed_all_washed() -> None:
    washed = Member("Twill", "lining", 1.0, 1.0, True)
    assert one_washed_all_washed([member("Linen", 1.0, 1.0), washed]) == "Twill was pre-treated, so Linen must be too."
    assert one_washed_all_washed([washed]) == one_washed_all_washed([member("Linen", 1.0, 1.0)]) == ""


def test_a_sheer_cloth_wants_a_lining() -> None:
    assert "lining" in wanted([member("Crepe", None, None)], True)[0]
    assert wanted([member("Crepe", None, None), Member("Lawn", "lining", None, None, False)], True) == ()


def test_alike_is_only_said_where_it_is_known() -> None:
    assert headline([member("A", 5.0, 3.0), member("B", 4.0, 3.0)]) == "These shrink alike"
    assert "not known" in headline([member("A", 5.0, 3.0), member("B", 4.0, None)])
    assert "pucker" in headline([member("A", 9.0, 3.0), member("B", 4.0, 3.0), member("C", None, None)])
    assert headline([member("A", None, None)]).startswith("One cloth")


def test_a_difference_is_that_of_the_numbers_as_shown() -> None:
    # 5.94 and 3.86 are shown as 5.9 and 3.9: 2.0 apart, though 2.08 exactly
    assert mismatches([member("A", 5.94, 3.0), member("B", 3.86, 3.0)]) == ()
    (told,) = mismatches([member("A", 6.04, 3.0), member("B", 3.86, 3.0)])
    assert "2.1 points" in told
