"""How far each stage is."""

from __future__ import annotations

from idle_selvage.core.project.stages import StageFacts, stages


def test_every_stage_has_a_state_and_says_why() -> None:
    base = dict(
        pieces=2,
        bad_pieces=0,
        width_readings=3,
        kind_known=True,
        marks_before=6,
        made_up=False,
        not_at_rest="",
        washed_both_ways=True,
        laying=False,
        laid=True,
        stale=(),
        can_buy=True,
        logged=3,
    )

    def of(**change: object) -> dict[str, str]:
        return {s.name: s.state for s in stages(StageFacts(**{**base, **change}))}  # type: ignore[arg-type]

    assert of() == {
        "plan": "done",
        "cloth": "done",
        "shrink": "done",
        "buy": "done",
        "true": "empty",
        "lay": "done",
        "cut": "empty",
        "log": "begun",
    }
    assert of(pieces=0)["plan"] == "empty"
    assert of(bad_pieces=1)["plan"] == "look-again"
    assert of(width_readings=2)["cloth"] == "begun"
    assert of(washed_both_ways=False)["shrink"] == "begun"
    assert of(washed_both_ways=False, marks_before=0)["shrink"] == "empty"
    assert of(made_up=True)["shrink"] == "look-again" and of(not_at_rest="Wash once more.")["shrink"] == "begun"
    assert of(laying=True)["lay"] == "begun"
    assert of(true=("begun", "Go on."))["true"] == "begun"
    changed = of(stale=("the pieces were changed",))
    assert changed["lay"] == changed["buy"] == "look-again"
    assert "the pieces were changed" in next(
        s.why
        for s in stages(StageFacts(**{**base, "stale": ("the pieces were changed",)}))
        if s.name == "lay"  # type: ignore[arg-type]
    )
