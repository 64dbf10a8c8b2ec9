"""A piece in several sizes."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.plan.draft import Draft, DraftPoint, Mark, Notch
from idle_selvage.core.plan.outline import BadPiece
from idle_selvage.core.plan.sizes import SizeAt, SizeChoice, followed, graded, in_size, shares

from .test_draft import box

SIZES = ("36", "38", "40", "42")
#: From size to size the right side goes 5 mm out, the left side too, the top 10 mm up.
STEPS = {1: (0.0, -5.0), 2: (10.0, -5.0), 3: (10.0, 5.0), 4: (0.0, 5.0)}


def panel() -> Draft:
    levels = (Mark("level", ((350.0, 0.0),), "bust"), Mark("level", ((50.0, 0.0),), "hip"))
    return Draft(box().points, notches=(Notch(1, 100.0),), marks=levels)


def test_each_size_is_a_step_from_the_one_before() -> None:
    sizes = graded(panel(), SIZES, "38", STEPS)
    for one, (long, wide) in zip(sizes, ((390, 190), (400, 200), (410, 210), (420, 220)), strict=True):
        xs, ys = zip(*one.places, strict=True)
        assert (max(xs) - min(xs), max(ys) - min(ys)) == (long, wide), one.size


def test_a_point_without_a_step_stays_where_it_is() -> None:
    smallest, drawn, *_ = graded(panel(), SIZES, "38", {2: (10.0, -5.0)})
    assert drawn.places == tuple((p.along, p.across) for p in panel().points)
    moved = [k for k, (a, b) in enumerate(zip(smallest.places, drawn.places, strict=True)) if a != b]
    assert [panel().points[k].key for k in moved] == [2]
    assert smallest.places[moved[0]] == (drawn.places[moved[0]][0] - 10.0, drawn.places[moved[0]][1] + 5.0)


@pytest.mark.parametrize(
    ("sizes", "base", "says"),
    [
        (SIZES, "44", "drawn in, 44, must be among"),
        (SIZES, "", "drawn in, none, must be among"),
        (("36", "36"), "36", "one name"),
        (tuple(map(str, range(40))), "3", "At most 30"),
    ],
)
def test_sizes_that_cannot_be(sizes: tuple[str, ...], base: str, says: str) -> None:
    with pytest.raises(BadPiece, match=says):
        graded(panel(), sizes, base, STEPS)


def test_one_size_is_one_choice_and_notches_keep_their_share() -> None:
    draft, sizes = panel(), graded(panel(), SIZES, "38", STEPS)
    found = in_size(draft, sizes, SizeChoice("42"))
    assert [p.at for p in found.points] == list(sizes[3].places)
    assert found.notches[0].at == pytest.approx(100.0 * 420 / 400), "a quarter of the way"
    assert in_size(draft, sizes, SizeChoice()) == draft and in_size(draft, (), SizeChoice("42")) == draft
    with pytest.raises(BadPiece, match="not drawn in size 50"):
        in_size(draft, sizes, SizeChoice("50"))


@given(st.floats(0, 400))
def test_between_two_heights_the_sizes_blend_linearly(along: float) -> None:
    """Bust 38 at 350, hip 42 at 50: a point's share of the bust's size grows evenly on the way up."""
    heights = [(50.0, "42"), (350.0, "38")]
    found = dict(shares(along, heights))
    wanted = min(1.0, max(0.0, (along - 50.0) / 300.0))
    assert found.get("38", 0.0) == pytest.approx(wanted) and sum(found.values()) == pytest.approx(1.0)


def test_a_piece_of_two_sizes() -> None:
    points = [*panel().points[:3], DraftPoint(200.0, 100.0, key=5), panel().points[3]]
    draft = Draft(tuple(points), marks=panel().marks)
    sizes = graded(draft, SIZES, "38", {**STEPS, 5: (0.0, 5.0)})
    found = in_size(draft, sizes, SizeChoice("40", (SizeAt("bust", "38"), SizeAt("hip", "42"))))
    at = {p.key: p.at for p in found.points}
    assert at[4] == (0.0, 110.0) and at[3] == (400.0, 100.0), "below the hip the 42, above the bust the 38"
    # halfway up: half of either
    assert at[5] == (200.0, pytest.approx(105.0))
    sleeve = in_size(box(), graded(box(), SIZES, "38", STEPS), SizeChoice("40", (SizeAt("bust", "38"),)))
    assert [p.at for p in sleeve.points][2] == (410.0, 105.0), "without a marked height: the garment's size"


def test_sizes_follow_the_points_they_belong_to() -> None:
    draft, sizes = panel(), graded(panel(), SIZES, "38", STEPS)
    moved = tuple(DraftPoint(p.along, p.across + (8.0 if p.key == 3 else 0.0), key=p.key) for p in draft.points)
    new = [*moved[:3], DraftPoint(200.0, 104.0, key=9), moved[3]]
    found = followed(sizes, draft.points, new)
    assert found[1].places == tuple(p.at for p in new), "the size it is told in"
    assert found[3].places[2] == (420.0, 118.0), "moved alike in every size"
    # a new point is graded as its neighbours: 3 goes (10, 5) a size, 4 goes (0, 5)
    assert found[2].places[3] == (205.0, 109.0)
