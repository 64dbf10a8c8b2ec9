"""Dye that comes off."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.cloth.dye import GRADES, Dye, all_share, alone, may_share, verdict


def test_dye_is_washed_until_the_rag_stays_clean() -> None:
    assert list(GRADES) == [1, 2, 3, 4, 5]
    assert verdict(Dye("light")) == "" and "wet white rag" in verdict(Dye("dark"))
    assert "dye-catching" in verdict(Dye("dark", 2)) and "again" in verdict(Dye("dark", 2, (3, 4)))
    assert "nothing more" in verdict(Dye("dark", 2, (3, 5)))


def test_who_may_share_water() -> None:
    light, medium, dark = Dye("light", 5), Dye("medium", 5), Dye("dark", 5)
    untested = Dye("medium")
    assert not may_share(light, untested) and may_share(untested, dark) and may_share(Dye("light"), light)
    assert may_share(light, medium) and may_share(medium, dark) and not may_share(light, dark)
    assert alone(Dye("dark")) and alone(Dye("medium", 3)) and alone(Dye("medium", 4)) and not alone(Dye("medium", 5))
    assert not may_share(medium, Dye("medium", 4)) and may_share(medium, Dye("medium", 3, (5,)))
    assert all_share([light, medium, light]) and not all_share([light, medium, dark])


@given(*[st.builds(Dye, st.sampled_from(["light", "medium", "dark"]), st.none() | st.integers(1, 5))] * 2)
def test_sharing_is_mutual(a: Dye, b: Dye) -> None:
    assert may_share(a, b) == may_share(b, a)
