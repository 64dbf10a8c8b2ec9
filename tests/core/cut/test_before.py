"""The list before cutting."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta

import pytest

from idle_selvage.core.cut.before import BeforeFacts, Faulty, Line, before_cutting, ready

TODAY = date(2026, 11, 27)
BEFORE = TODAY - timedelta(days=1)
FINE = BeforeFacts(
    TODAY,
    width_read=TODAY,
    width_readings=3,
    trued=TODAY,
    true_enough=True,
    seams=(("Side seam", 0.4, True),),
    pairs=2,
    flaws=1,
    directed=True,
)
TICKED = {"shears": TODAY, "blade": TODAY}


def lines(facts: BeforeFacts, **more: object) -> dict[str, Line]:
    ticks = more.get("ticks", TICKED)
    accepted = more.get("accepted", {})
    return {line.key: line for line in before_cutting(facts, ticks, accepted)}  # type: ignore[arg-type]


def test_what_was_done_elsewhere_ticks_itself_and_the_rest_is_ticked_by_hand() -> None:
    found = lines(FINE)
    assert all(line.state == "clean" for line in found.values()) and ready(list(found.values()))
    assert list(found) == [
        "width", "trued", "checked", "copies", "pairs", "direction", "grain", "fold", "flaws", "broken", "seams",
        "washed", "set", "shears", "blade",
    ]  # fmt: skip
    untouched = lines(FINE, ticks={})
    assert [key for key, line in untouched.items() if line.state == "open"] == ["shears", "blade"]
    assert lines(FINE, ticks={"shears": BEFORE, "blade": TODAY})["shears"].told == "Ticked another day: look once more."


@pytest.mark.parametrize(
    ("change", "key", "says"),
    [
        ({"cut_before": ("Skirt",)}, "whole", "Skirt was cut from it"),
        ({"width_read": None}, "width", "not measured as the cloth is now"),
        ({"width_read": BEFORE}, "width", "Last measured yesterday"),
        ({"width_read": TODAY - timedelta(days=9)}, "width", "9 days ago"),
        ({"width_read": TODAY + timedelta(days=3)}, "width", "on a later day"),
        ({"width_readings": 2}, "width", "2 of 3 places"),
        ({"trued": None}, "trued", "not tested"),
        ({"trued": BEFORE}, "trued", "yesterday"),
        ({"true_enough": False}, "trued", "no happy medium"),
        ({"stale": ("the width changed",)}, "checked", "out of date: the width changed"),
        ({"tray": ("Cuff",)}, "copies", "Not laid: Cuff."),
        ({"treatment": "coming"}, "washed", "still to be treated"),
        ({"not_at_rest": "It may still lose 2 %."}, "washed", "may still lose"),
        ({"untreated": ("Lining", "Tape")}, "set", "Lining and Tape"),
        ({"seams": (("Side seam", 3.25, False), ("Yoke", None, False))}, "seams", "Side seam misses by 3.2"),
        ({"folded": True}, "fold", "three places"),
        ({"folded": True, "fold_spread": 1.0, "fold_read": BEFORE, "fold_good": True}, "fold", "three places"),
        ({"folded": True, "fold_spread": 6.0, "fold_read": TODAY}, "fold", "spreads 0.6 cm"),
    ],
)
def test_every_line_says_what_is_not_so(change: dict[str, object], key: str, says: str) -> None:
    found = lines(replace(FINE, **change))  # type: ignore[arg-type]
    assert found[key].state == "open" and says in found[key].told
    assert [k for k, line in found.items() if line.state == "open"] == [key], "and no other line"
    assert found[key].mend in ("cloth", "true", "lay", "shrink")


@pytest.mark.parametrize(
    ("kind", "key"),
    [
        ("overlap", "checked"), ("end", "checked"), ("selvage", "checked"), ("pinned", "checked"), ("gap", "checked"),
        ("bound", "checked"), ("sections", "checked"), ("count", "copies"), ("sides", "pairs"),
        ("direction", "direction"), ("turn", "grain"), ("border", "grain"), ("centre", "grain"), ("fold", "fold"),
        ("ground", "fold"), ("flaw", "flaws"), ("match", "seams"),
    ],
)  # fmt: skip
def test_what_the_checker_finds_opens_its_line(kind: str, key: str) -> None:
    found = lines(replace(FINE, checked=Faulty({kind: ("Front is wrong.",)})))
    assert found[key].state == "open" and found[key].told == "Front is wrong."


def test_what_spoils_cloth_cannot_be_accepted_and_the_rest_only_with_a_reason() -> None:
    overlap = replace(FINE, checked=Faulty({"overlap": ("a on b.",), "sides": ("cut from the wrong side.",)}))
    found = lines(overlap, accepted={"checked": "never mind", "pairs": "never mind"})
    assert found["checked"].state == found["pairs"].state == "open"
    old = lines(replace(FINE, width_read=BEFORE), accepted={"width": "it hung over night"})
    assert old["width"].state == "accepted" and old["width"].why == "it hung over night"
    # what is clean stays clean, whatever was accepted once
    assert lines(FINE, accepted={"width": "it hung over night"})["width"].state == "clean"


def test_without_a_lay_there_is_nothing_to_accept() -> None:
    found = lines(replace(FINE, lay=False), accepted={"checked": "x", "grain": "x"})
    assert found["checked"].state == found["grain"].state == "open"
    assert found["grain"].told == "Nothing is laid yet."


def test_cloth_without_a_grain_is_not_trued_and_a_fold_measured_today_is_told() -> None:
    assert "trued" not in lines(replace(FINE, has_grain=False))
    good = lines(replace(FINE, folded=True, fold_spread=1.0, fold_good=True, fold_read=TODAY))
    assert good["fold"].state == "clean" and "0.1 cm" in good["fold"].told
    looked = lines(replace(FINE, folded=True), ticks={**TICKED, "fold": TODAY})
    assert looked["fold"].state == "clean"
    assert "on purpose" in lines(replace(FINE, meant=("Front lies 5° off its grain.",)))["broken"].told
    assert lines(replace(FINE, treatment="fit"))["washed"].state == "clean"
