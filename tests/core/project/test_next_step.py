"""What to do next."""

from __future__ import annotations

from idle_selvage.core.project.next_step import next_over_all, next_step
from idle_selvage.core.project.stages import STAGES, Stage, StageState


def rail(**states: StageState) -> list[Stage]:
    """Every stage done, but for those given."""
    return [Stage(name, states.get(name, "done"), "" if name not in states else f"Mend {name}.") for name in STAGES]


def test_the_first_that_is_not_done_in_the_order_of_work() -> None:
    # buying waits for the lay, whatever the order on the rail
    assert next_step(rail(buy="empty", lay="begun")) == "Mend lay."
    assert next_step(rail(true="empty", buy="begun")) == "Mend buy."
    assert next_step(rail(cut="begun", true="begun")) == "Mend true."
    assert next_step(rail(cut="begun")) == "Mend cut."
    assert (
        next_step(rail(log="begun"))
        == next_step(rail())
        == ("All is cut: label the pieces, and put what is left into the cupboard.")
    )


def test_over_all_what_needs_another_look_comes_first() -> None:
    skirt, slip = ("Six-gore skirt", rail(shrink="empty")), ("Slip", rail(lay="look-again"))
    assert next_over_all([skirt, slip]) == "Next, the slip: mend lay."
    assert next_over_all([skirt, ("Slip", rail())]) == "Next, the six-gore skirt: mend shrink."
    assert next_over_all([("Slip", rail(log="begun"))]) == "Everything on the bench is cut"
    assert next_over_all([]) == "What will you make?"
