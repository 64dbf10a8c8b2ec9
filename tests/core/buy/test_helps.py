"""What helps when the cloth is too short."""

from __future__ import annotations

import pytest

from idle_selvage.core.buy.helps import HEMS_MM, EndsFacts, PieceFacts, help_came_to, helps
from idle_selvage.core.lay.problem import LayPiece, Problem, pieces_area

from .cases import rectangle


def short_of_cloth() -> tuple[Problem, dict[str, PieceFacts]]:
    pieces = [
        LayPiece("Skirt", rectangle(600, 300), 2, True),
        LayPiece("Facing", rectangle(400, 80)),
    ]
    facts = {"Skirt": PieceFacts(hem=True), "Facing": PieceFacts(hidden=True)}
    return Problem(640, tuple(pieces), gap=4.0, folds=("lengthwise",)), facts


def test_helps_come_from_harmless_to_a_compromise_and_each_is_a_lay_of_its_own() -> None:
    asked, facts = short_of_cloth()
    tries, missing = helps(asked, facts)
    assert missing == ()
    by = {h.name: h.problem for h in tries}
    assert by["single layer, every piece on its own"].folds == ("open",)
    assert set(by["any other way to fold"].folds) > set(asked.folds)
    assert by["pieces edge to edge instead of 0.4 cm apart"].gap == 0
    assert [p.grain for p in by["Facing on the cross grain"].pieces] == ["lengthwise", "crosswise"]
    assert [p.id for p in by["Facing from another cloth"].pieces] == ["Skirt"]
    for less in HEMS_MM:
        shorter = by[f"hems {less / 10:.1f} cm shorter"]
        assert pieces_area(shorter) == pytest.approx(pieces_area(asked) - 2 * 300 * less)
    kinds = [h.kind for h in tries]
    assert kinds.index("folds") < kinds.index("gap") < kinds.index("cross") < kinds.index("other") < kinds.index("hem")


def test_a_joined_piece_has_an_allowance_on_either_side_of_the_join() -> None:
    asked, facts = short_of_cloth()
    joins = [h for h in helps(asked, facts)[0] if h.kind == "join"]
    assert [(h.piece, h.join_at) for h in joins] == [("Facing", 200.0), ("Skirt", 300.0)], "what does not show first"
    parts = [p for p in joins[0].problem.pieces if p.id.startswith("Facing")]
    # 400 long, joined in the middle: two of 200 + 15
    assert [max(x for x, _ in p.outline) - min(x for x, _ in p.outline) for p in parts] == [215.0, 215.0]


def test_straightening_less_and_leaving_out_a_small_piece_are_helps() -> None:
    pieces = (LayPiece("Front", rectangle(600, 300)), LayPiece("Pocket", rectangle(150, 120)),
              LayPiece("Facing", rectangle(100, 80)), LayPiece("Collar", rectangle(300, 100)))  # fmt: skip
    asked = Problem(640, pieces)
    facts = {"Facing": PieceFacts(hidden=True)}
    found, _ = helps(asked, facts, EndsFacts(100.0, 60.0, "draw a thread"))
    (ends,) = [h for h in found if h.kind == "ends"]
    assert ends.gains == 40.0 and ends.problem == asked and "6.0 cm" in ends.name and "10.0 cm" in ends.name
    left = [h for h in found if h.kind == "leave"]
    # what does not show comes from another cloth; a front is never left out
    assert [h.piece for h in left] == ["Pocket", "Collar"]
    assert all({p.id for p in h.problem.pieces} == {p.id for p in pieces} - {h.piece} for h in left)
    for least in (100.0, 96.0):
        assert not [h for h in helps(asked, facts, EndsFacts(100.0, least))[0] if h.kind == "ends"]


def test_what_a_help_came_to() -> None:
    assert help_came_to(1000, 1100, 1000) == ("does", "it does: 0.0 cm are left")
    assert help_came_to(1000, 1030, 1030, gains=40.0) == ("does", "it does: 1.0 cm are left")
    assert help_came_to(1000, 1100, 1040)[0] == "short" and help_came_to(1000, 1100, 1100)[0] == "worse"
    assert help_came_to(1000, None, 1040) == ("short", "it can be laid, and is 4.0 cm short")
    assert help_came_to(1000, None, 990)[0] == "does"
    assert help_came_to(1000, 1100, 990, how="double fold")[1].startswith("it does, double fold")


def test_helps_say_what_must_be_told_first() -> None:
    asked, _ = short_of_cloth()
    _, missing = helps(asked, {})
    assert {m.kind for m in missing} == {"cross", "hem"} and all("Say on Plan" in m.why for m in missing)
