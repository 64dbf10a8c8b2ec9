"""Which cloths share water, and the steps of a load."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.dye import Dye
from idle_selvage.core.shrink.treatment import TreatmentFacts, programme
from idle_selvage.core.washday.loads import group, learned_time, load_steps, weight_of

from .cases import batch

LINE = programme("40", "line", "mirror", TreatmentFacts(("cotton",)))[0]


def test_half_a_drum_and_no_more() -> None:
    # 2 m × 1.4 m × 200 g/m² = 0.56 kg; six fit into half of 7 kg, the seventh goes on its own
    loads = group([batch(str(i)) for i in range(7)], 7.0)
    assert [len(load.batches) for load in loads] == [6, 1]
    assert loads[0].kilograms == pytest.approx(3.36) and not loads[0].too_heavy
    assert group([batch("a", metres=20)], 7.0)[0].too_heavy


def test_who_goes_together() -> None:
    light, dark = Dye("light"), Dye("dark", 5)
    loads = group(
        [
            batch("light", dye=light),
            batch("dark", dye=dark),
            batch("line", programme=LINE),
            batch("bleeds", dye=Dye("medium", 2)),
            batch("nap", napped=True),
            batch("second light", dye=light),
        ],
        7.0,
    )
    together = {frozenset(b.key for b in load.batches): load.why for load in loads}
    assert frozenset({"light", "second light"}) in together
    assert together[frozenset({"bleeds"})].startswith("alone: its dye") and "pile" in together[frozenset({"nap"})]
    assert all(load.why for load in loads) and len(loads) == 5


def test_steps_and_their_times() -> None:
    steps = load_steps([batch("a")], {})
    assert [(s.machine, s.minutes) for s in steps] == [("washer", 75), ("dryer", 40), ("board", 20), ("rest", 30)]
    own = load_steps([batch("a")], {"normal": 62.0, "press": 5.0})
    assert [(s.machine, s.minutes) for s in own][:3] == [("washer", 65), ("dryer", 40), ("board", 10)]
    heavy = load_steps([batch("a", mass=350.0, programme=LINE)], {})
    assert heavy[1].machine == "line" and heavy[1].minutes == 720 and heavy[1].bound == "start"
    assert batch("a", mass=None).kilograms == pytest.approx(0.56), "what is not known is reckoned as usual"


def test_the_median_of_the_last_five_is_learned() -> None:
    assert learned_time([]) is None and learned_time([40.0]) == 40.0 and learned_time([40.0, 50.0]) == 45.0
    assert learned_time([999.0, 40.0, 41.0, 60.0, 42.0, 43.0]) == 42.0


def test_a_weight_that_was_not_given_is_marked() -> None:
    given_, guessed = batch("a", mass=200.0).weighed, batch("b", mass=None).weighed
    assert given_.value == guessed.value == pytest.approx(560.0) and not given_.note
    assert guessed.note == "its weight was not given: reckoned as 200 g/m²" and guessed.sources[0].kind == "from memory"
    both = weight_of([given_, guessed])
    assert both.value == pytest.approx(1120.0) and "not given" in both.note


def test_light_cloth_keeps_from_colours_that_were_never_tested() -> None:
    dyes = {"light": Dye("light"), "medium": Dye("medium"), "tested": Dye("medium", 5)}
    loads = group([batch(key, dye=dye) for key, dye in dyes.items()], 7.0)
    assert not any({"light", "medium"} <= {b.key for b in load.batches} for load in loads)
