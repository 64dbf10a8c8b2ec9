"""Figures as they are shown."""

from __future__ import annotations

from idle_selvage.api.shared.figures import Presenter
from idle_selvage.api.shared.person import current_system
from idle_selvage.api.shared.schemas import Out
from idle_selvage.core.lay.problem import too_wide_told
from idle_selvage.core.working import Figure


def test_a_figure_is_shown_in_either_system() -> None:
    figure = Figure(1270.0, "length", 1260.0, 1280.0)
    metric, imperial = Presenter("metric").surely(figure), Presenter("imperial").surely(figure)
    assert (metric.text, metric.sure, metric.low) == ("127.0 cm", "± 1.0 cm", "126.0 cm")
    assert (imperial.text, imperial.number, imperial.unit) == ("50 in", "50", "in")


def test_a_sentence_is_written_in_the_units_of_who_asks() -> None:
    wide = too_wide_told("Front", 1100.0, 500.0)

    class Told(Out):
        why: str
        several: list[str]

    before = current_system.set("metric")
    try:
        assert "110.0 cm across" in Told(why=wide, several=[]).why
        current_system.set("imperial")
        told = Told(why=wide, several=["as it is", wide])
    finally:
        current_system.reset(before)
    assert " in across" in told.why and "cm" not in told.why + told.several[1] and told.several[0] == "as it is"


def test_a_range_that_is_lopsided_is_told_by_its_ends() -> None:
    # a lower limit of 3 %, planned with 8: it is not “5 ± 2.5”
    told = Presenter("metric").surely(Figure(5.0, "percent", 3.0, 8.0))
    assert told.sure == "(3.0 % to 8.0 %)"
    assert Presenter("metric").surely(Figure(5.5, "percent", 3.0, 8.0)).sure == "± 2.5 %"
