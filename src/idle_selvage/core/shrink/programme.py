"""How a cloth or its swatch is washed and dried, and which of two treatments is the harsher one."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Cycle = Literal["hand", "gentle", "normal", "hot", "soak", "steam", "none"]
Dry = Literal["line", "flat", "tumble-low", "tumble-warm", "tumble-short", "none"]


@dataclass(frozen=True)
class Programme:
    """What is done with a length of cloth. ``wash`` is a key of WASHES, or ``soak``; ``""`` when it stays dry."""

    wash: str
    temperature: int
    cycle: Cycle
    dry: Dry
    press: bool = True

    @property
    def wet(self) -> bool:
        return self.cycle not in ("none", "steam")


#: From the mildest to the harshest: how it is moved in water, and how it is dried. Common practice, no source; drying
#: flat and drying on a line are both in the air.
AGITATION: dict[Cycle, int] = {"none": 0, "steam": 0, "soak": 1, "hand": 2, "gentle": 3, "normal": 4, "hot": 5}
HEAT_OF_DRYING: dict[Dry, int] = {
    "none": 0, "flat": 0, "line": 0, "tumble-short": 1, "tumble-low": 2, "tumble-warm": 3,
}  # fmt: skip

#: How a treatment stands to the one a swatch had.
Harshness = Literal["same", "milder", "harsher"]


def beside(swatch: Programme, coming: Programme) -> Harshness:
    """Whether what is coming is the same as, milder or harsher than what a swatch had.

    It is milder only where nothing of it is harsher: temperature, movement and drying. Steam and water cannot be
    compared, and what cannot is taken for harsher.
    """
    had = (swatch.temperature, AGITATION[swatch.cycle], HEAT_OF_DRYING[swatch.dry])
    will = (coming.temperature, AGITATION[coming.cycle], HEAT_OF_DRYING[coming.dry])
    if "steam" in (swatch.cycle, coming.cycle):
        return "same" if swatch.cycle == coming.cycle else "harsher"
    if had == will:
        return "same"
    return "milder" if all(b <= a for a, b in zip(had, will, strict=True)) else "harsher"
