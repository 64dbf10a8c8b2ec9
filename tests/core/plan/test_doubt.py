"""What is asked back: each limit just under and just over, typed as numbers."""

from __future__ import annotations

import pytest

from idle_selvage.core.plan.doubt import doubts
from idle_selvage.core.plan.draft import DraftPoint
from idle_selvage.core.wording import say

IN = 25.4


def piece(long: float, *across: float) -> list[DraftPoint]:
    return [DraftPoint(long * i / max(1, len(across) - 1), y) for i, y in enumerate(across)]


@pytest.mark.parametrize(
    ("points", "says"),
    [
        (piece(26 * IN, 11 * IN, 300 * IN, 9 * IN, -6 * IN), "is it 300 in to the left, on a piece 26 in long?"),
        (piece(26 * IN, 11 * IN, 9 * IN, -300 * IN, 5 * IN), "is it 300 in to the right"),
        (piece(600, 153 * IN, -153 * IN, 153 * IN), "Is Front 306 in wide? Cloth is at most"),
        (piece(600, 1601, -1600, 100), "wide? Cloth is at most 3 ½ yd"),
        (piece(5001, 100, -100, 100), "long? Pattern pieces are hardly longer"),
    ],
)
def test_what_looks_like_a_slip_is_asked_with_its_number(points: list[DraftPoint], says: str) -> None:
    found = [say(text, "imperial") for text in doubts(points, "Front")]
    assert len(found) == 1 and says in found[0], found


@pytest.mark.parametrize(
    "points",
    [
        piece(600, 1600, -1600, 100),
        piece(5000, 100, -100, 100),
        # five times its neighbour but no more; shorter than the piece; small
        piece(300, 350, 70, -70),
        piece(800, 700, 60, -60),
        piece(200, 299, 10, -10),
        piece(70, 400, -400, 400, -400),
    ],
)
def test_what_can_be_is_left_alone(points: list[DraftPoint]) -> None:
    assert doubts(points) == ()


def test_one_reading_six_times_the_next_is_asked() -> None:
    assert len(doubts(piece(300, 421, 70, -70))) == 1
