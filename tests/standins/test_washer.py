"""The stand-in washer."""

from __future__ import annotations

from dataclasses import replace

import pytest

from idle_selvage.core.shrink.ranges import planning_range
from idle_selvage.core.shrink.swatch import Swatch, verdict
from idle_selvage.core.shrink.treatment import TreatmentFacts, programme
from idle_selvage.standins.washer import Appliance, Specimen, StandInWasher

WARM = programme("40", "tumble-low", "mirror", TreatmentFacts(("linen",)))[0]


SQUARE = Specimen(("linen",), (250.0,) * 3, (250.0,) * 3, number=3, diagonals=(353.5, 353.5))


def test_the_same_cloth_shrinks_the_same_and_another_otherwise() -> None:
    washer: Appliance = StandInWasher()
    assert washer.wash(SQUARE, WARM) == StandInWasher().wash(SQUARE, WARM)
    assert washer.wash(SQUARE, WARM) != washer.wash(replace(SQUARE, number=4), WARM)
    assert washer.wash(SQUARE, WARM) != StandInWasher(seed=2).wash(SQUARE, WARM)


@pytest.mark.parametrize("kind", ["linen", "cotton", "viscose", "denim-raw", "polyester"])
def test_it_stays_near_the_planning_range_and_comes_to_rest(kind: str) -> None:
    entry = planning_range(kind)
    assert entry is not None
    for number in range(1, 12):
        now, rows = replace(SQUARE, kinds=(kind,), number=number, diagonals=None), [[250.0], [250.0]]
        for wash in range(6):
            report = StandInWasher().wash(replace(now, washed=wash), WARM)
            now = replace(now, warp=report.warp, weft=report.weft)
            rows[0].append(sum(report.warp) / 3)
            rows[1].append(sum(report.weft) / 3)
        shrunk = 100 * (250 - rows[0][-1]) / 250
        assert entry.warp[0] * 0.9 - 0.8 <= shrunk <= entry.warp[1] + 0.8
        assert verdict(Swatch((tuple(rows[0]),), (tuple(rows[1]),), 0.2))[0] == "stable"


def test_heat_takes_out_more_and_dye_comes_clean() -> None:
    hot = programme("60", "tumble-warm", "mirror", TreatmentFacts(("linen",)))[0]
    cold = programme("cold-hand", "line", "mirror", TreatmentFacts(("linen",)))[0]
    truth = [StandInWasher().truth(SQUARE, p, 1)[0] for p in (cold, WARM, hot)]
    assert truth == sorted(truth) and truth[0] < truth[2]
    grades = [StandInWasher().wash(replace(SQUARE, depth="dark", washed=n), WARM).grade for n in range(5)]
    assert grades == sorted(grades) and grades[0] < 4 and grades[-1] == 5
