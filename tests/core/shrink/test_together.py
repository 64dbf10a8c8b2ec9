"""Cloths that are sewn together."""

from __future__ import annotations

from idle_selvage.core.shrink.together import Member, mismatches, one_washed_all_washed


def test_cloths_together() -> None:
    main, lining = Member("Velveteen", "main", 3.6, 1.8, False), Member("Twill", "lining", 5.6, 4.0, False)
    # 2.0 points are allowed, 2.2 are not
    said = mismatches([main, lining, Member("Tape", "trim", None, None, False)])
    assert len(said) == 1 and "2.2 points more across" in said[0] and said[0].startswith("Twill")
    assert one_washed_all_washed([main, lining]) == ""
    washed = Member("Velveteen", "main", 0, 0, True)
    assert one_washed_all_washed([washed, lining]) == "Velveteen was pre-treated, so Twill must be too."
    assert one_washed_all_washed([washed, washed]) == ""
