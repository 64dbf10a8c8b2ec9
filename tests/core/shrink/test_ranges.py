"""Planning ranges, by what a cloth is made of."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.cloth.make import FIBRES, FINISHES, WEAVES, Make, deciding_kinds
from idle_selvage.core.shrink import ranges
from idle_selvage.core.shrink import shrinkage as sh
from idle_selvage.core.shrink.ranges import blend_range, like_key, planning_range


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


def test_the_range_is_marked_as_a_range() -> None:
    entry = ranges.planning_range("linen")
    assert entry is not None
    figure = ranges.planned_from_range(entry, "warp")
    assert (figure.low, figure.high) == (4, 8) and figure.sources[0].kind == "from memory"
    assert sh.plan_with(figure).value == 8
    assert ranges.planning_range("moonbeam") is None


def test_crinkled_cloth_shrinks_as_crinkled_cloth_whatever_it_is_of() -> None:
    for fibre in ("cotton", "silk", "polyester", "linen"):
        entry = blend_range(Make(((fibre, 100.0),), "gauze"))
        assert entry is not None and entry.warp == (5, 10) and entry.weft == (5, 10), fibre
    blend = blend_range(Make((("viscose", 50.0), ("cotton", 50.0)), "gauze"))
    assert blend is not None and blend.warp == (5, 10) and blend.weft == (5, 10)
    # it is washed as its fibre is all the same
    assert deciding_kinds(Make((("silk", 100.0),), "gauze")) == ("gauze", "silk")
