"""Tables of the trade, typed a second time and compared with what the program plans with."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.direction import WALES, wale_class
from idle_selvage.core.cloth.make import LEAST_SHARE, Make
from idle_selvage.core.shrink.ranges import blend_range
from idle_selvage.core.shrink.swatch import AT_REST, Swatch, verdict
from idle_selvage.core.shrink.together import MOST_POINTS
from idle_selvage.core.shrink.treatment import TreatmentFacts, advise, programme
from idle_selvage.core.washday.loads import DRYING, MINUTES, Batch, load_steps

# source: common practice, from memory; (fibre, weave, finish), warp range, weft range, in per cent
RANGES = [
    (("cotton", "plain", ""), (3, 5), (1, 4)),
    (("cotton", "flannel", ""), (5, 10), (3, 8)),
    (("cotton", "gauze", ""), (5, 10), (5, 10)),
    (("cotton", "denim", "raw"), (7, 10), (3, 6)),
    (("cotton", "denim", "washed"), (2, 3), (1, 3)),
    (("cotton", "corduroy", ""), (3, 6), (1, 3)),
    (("cotton", "velveteen", ""), (3, 6), (1, 3)),
    (("linen", "plain", ""), (4, 8), (3, 6)),
    (("viscose", "crepe", ""), (5, 10), (3, 8)),
    (("lyocell", "twill", ""), (2, 5), (1, 4)),
    (("silk", "satin", ""), (2, 6), (1, 4)),
    (("wool", "twill", ""), (2, 6), (2, 5)),
    (("polyester", "plain", ""), (0, 1), (0, 1)),
    (("nylon", "plain", ""), (0, 2), (0, 2)),
    (("acetate", "satin", ""), (1, 3), (1, 3)),
    (("polyester", "fur", ""), (0, 2), (0, 2)),
]


@pytest.mark.parametrize(("make", "warp", "weft"), RANGES)
def test_every_row_of_the_planning_ranges(
    make: tuple[str, str, str], warp: tuple[int, int], weft: tuple[int, int]
) -> None:
    entry = blend_range(Make(((make[0], 100.0),), make[1], make[2]))
    assert entry is not None and (entry.warp, entry.weft) == (warp, weft)


def test_blends_go_by_the_worst_fibre_of_at_least_a_fifth() -> None:
    # source: common practice, from memory
    assert LEAST_SHARE == 20
    for share, warp in ((19.0, (0, 1)), (20.0, (5, 10))):
        entry = blend_range(Make((("polyester", 100 - share), ("viscose", share))))
        assert entry is not None and entry.warp == warp


@pytest.mark.parametrize(
    ("cycle", "minutes"),
    [("soak", 30), ("hand", 30), ("gentle", 45), ("normal", 75), ("hot", 90), ("tumble-short", 10), ("rest", 30)],
)
def test_times_to_begin_with(cycle: str, minutes: int) -> None:
    # source: common practice, no source: hand soak 30 min, gentle 45, normal 75, hot 90, 10 for corduroy, rest 30
    assert MINUTES[cycle] == minutes


def test_times_that_depend_on_the_cloth() -> None:
    # source: common practice, no source: tumble 30–45 min; line 4 h light to 12 h heavy; flat 12–24 h; press 10 min/m
    assert 30 <= MINUTES["tumble"] <= 45 and MINUTES["press-metre"] == 10
    assert [(line / 60, flat / 60) for _, line, flat in DRYING] == [(4, 12), (8, 16), (12, 24)]
    line = programme("40", "line", "mirror", TreatmentFacts(("cotton",)))[0]
    for mass, hours in ((90.0, 4), (250.0, 8), (400.0, 12)):
        steps = {s.machine: s.minutes for s in load_steps([Batch("a", "a", line, 3000, 1400, mass)], {})}
        assert steps["line"] == hours * 60 and steps["board"] == 30, "three metres take half an hour to press"


def test_mass_of_a_length() -> None:
    # hand-worked: 2.5 m × 1.5 m × 200 g/m² = 750 g
    plan = programme("40", "line", "mirror", TreatmentFacts(("cotton",)))[0]
    assert Batch("a", "a", plan, 2500, 1500, 200).kilograms == pytest.approx(0.75)


def test_limits_of_the_trade() -> None:
    # source: common practice, no source: stop when a wash adds less than 0.5 %; cloths may differ by 2 points
    assert AT_REST == 0.5 and MOST_POINTS == 2
    just, over = (Swatch((row,) * 3, (row,) * 3, 0.5) for row in ((250, 240, 238.85), (250, 240, 238.75)))
    assert verdict(just)[0] == "stable" and verdict(over)[0] == "again"


@pytest.mark.parametrize("row", WALES)
def test_wales_to_the_inch(row: tuple[int, int, str, str]) -> None:
    # source: common practice, no source: 3–8 wide, 10–14 medium, 16–23 fine
    assert {"wide": (3, 8), "medium": (10, 14), "fine": (16, 23)}[row[2]] == row[:2]
    assert wale_class(row[0])[0] == wale_class(row[1])[0] == row[2]


@pytest.mark.parametrize(
    ("kinds", "wash", "dry", "never"),
    [
        (("viscose",), "40", "line", "Hang it"),
        (("viscose",), "40", "tumble-warm", "Tumble"),
        (("velveteen",), "60", "tumble-warm", "60 °C"),
        (("wool",), "60", "tumble-warm", "Machine wash"),
        (("gauze",), "40", "line", "press it dry"),
        (("fur",), "40", "tumble-low", "Tumble"),
        (("cotton", "acetate"), "60", "line", "Hang it"),
    ],
)
def test_what_the_trade_forbids_is_in_no_step(kinds: tuple[str, ...], wash: str, dry: str, never: str) -> None:
    # source: common practice, no source: viscose never hung, pile never overloaded or hot, wool never agitated, gauze
    # never pressed flat before cutting, no dryer heat for synthetic pile, acetate weak when wet
    for school in ("mirror", "harder", "soak"):
        told = " ".join(s.text for s in advise(wash, dry, TreatmentFacts(kinds), school).steps)  # type: ignore[arg-type]
        assert never not in told
