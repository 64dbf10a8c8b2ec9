"""What is judged by hand."""

from __future__ import annotations

from idle_selvage.core.cloth import hand as judgements


def test_answers_by_hand_change_later_advice() -> None:
    assert judgements.advice({}) == ()
    said = judgements.advice({"sheer": "yes", "drape": "stiff"})
    assert "gather" in said[0] and "line it" in said[1], "in the order of the questions"
    assert judgements.needs_lining({"sheer": "shadow"}) and not judgements.needs_lining({"sheer": "no"})
    assert judgements.check({"sheer": "yes", "drape": ""}) == ""
    assert "no question" in judgements.check({"smell": "good"}) and "no answer" in judgements.check({"sheer": "maybe"})
