"""What a cloth is made of."""

from __future__ import annotations

from idle_selvage.core.cloth.make import Make, blend_note, blend_text


def test_shares_that_do_not_make_a_whole_are_told() -> None:
    assert blend_note(Make((("linen", 55), ("cotton", 45)))) == "" == blend_note(Make())
    assert "90 %" in blend_note(Make((("linen", 50), ("cotton", 40))))
    assert blend_text(Make((("linen", 55), ("cotton", 45)))) == "55 % linen, 45 % cotton"
