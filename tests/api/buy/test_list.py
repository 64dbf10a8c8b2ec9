"""The list for the shop."""

from __future__ import annotations

from idle_selvage.core.buy.shopping import dominant_colour
from idle_selvage.core.cloth.bars import Bar

from ...conftest import Person


def test_bars_without_a_width_do_not_stop_the_list(skirt: Person) -> None:
    bar = {"width": "0", "colour": "#a02020"}
    skirt.ask("PATCH", "/projects/1/cloth", bars_along=[bar, {"width": "0", "colour": "#ffffff"}])
    told = skirt.ask("GET", "/projects/1/list")
    thread = next(item for item in told["items"] if item["id"] == "thread")
    assert thread["colour"] == skirt.ask("GET", "/projects/1")["cloth"]["ground"].lower(), (
        "what cannot be seen does not decide"
    )


def test_the_colour_that_dominates_is_the_widest_and_the_ground_without_bars() -> None:
    wide, narrow = Bar(30.0, "#102030"), Bar(10.0, "#ffffff")
    assert dominant_colour("#c0c0c0", [wide, narrow])[0] == "#102030"
    assert dominant_colour("#c0c0c0") == ("#c0c0c0", 1.0)
    assert dominant_colour("#c0c0c0", [Bar(0.0, "#102030")])[0] == "#c0c0c0"
