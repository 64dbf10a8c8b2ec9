"""What several tests of this room share."""

from __future__ import annotations

from idle_selvage.core.shrink.treatment import TreatmentFacts, programme
from idle_selvage.core.washday.loads import Batch

COTTON = programme("40", "tumble-low", "mirror", TreatmentFacts(("cotton",)))[0]


def batch(key: str, metres: float = 2.0, mass: float | None = 200.0, **more: object) -> Batch:
    return Batch(key, key, more.pop("programme", COTTON), metres * 1000, 1400.0, mass, **more)  # type: ignore[arg-type]
