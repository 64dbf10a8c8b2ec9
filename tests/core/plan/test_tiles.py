"""A piece at its true size on many sheets."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import union_all
from shapely.geometry import Polygon, box

from idle_selvage.core.plan.draft import outline_of
from idle_selvage.core.plan.tiles import PAPERS, TooManyPages, pages

from .tailored import HARD


@pytest.mark.parametrize("name", HARD)
@pytest.mark.parametrize("paper", PAPERS)
def test_the_sheets_cover_the_piece_and_overlap(name: str, paper: str) -> None:
    outline = outline_of(HARD[name]())
    found = pages([outline], paper)
    upright = Polygon([(-y, x) for x, y in outline])
    boxes = [box(p.x, p.y, p.x + p.width, p.y + p.height) for p in found]
    assert union_all(boxes).buffer(1e-6).covers(upright)
    assert all(one.intersects(upright) for one in boxes), "no empty sheet"
    for p, q in itertools.pairwise(found):
        if p.row == q.row and q.column == p.column + 1:
            assert p.x + p.width - q.x == pytest.approx(10.0)
    wide, high = PAPERS[paper]
    assert all((p.width, p.height) == (wide - 20, high - 20) for p in found)


@given(st.floats(20, 189.9), st.floats(20, 276.9))
def test_a_small_piece_takes_one_sheet(wide: float, long: float) -> None:
    (only,) = pages([((0, 0), (long, 0), (long, wide), (0, wide))], "a4")
    assert only.name == "A1"


def test_just_over_one_sheet_takes_two() -> None:
    assert len(pages([((0, 0), (100, 0), (100, 190.1), (0, 190.1))], "a4")) == 2


def test_more_than_anybody_tapes_together_is_refused() -> None:
    with pytest.raises(TooManyPages, match=r"takes .* sheets; at most 120"):
        pages([((0, 0), (4000, 0), (4000, 3000), (0, 3000))], "a4")
