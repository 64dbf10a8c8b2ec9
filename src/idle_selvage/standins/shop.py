"""A stand-in for a shop's price list: seeded, invented cloths, served as a real list's adapter would serve them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

import numpy as np

from ..core.cloth.make import FIBRES, Make
from ..core.units import MM_PER_INCH


@dataclass(frozen=True)
class Quote:
    """One cloth on the list. ``width`` selvage to selvage, ``step`` what is cut in, ``least`` the shortest length cut,
    ``stock`` the longest piece there is, all mm; ``price`` of a metre."""

    number: str
    name: str
    make: Make
    width: float
    price: float
    step: float
    least: float
    stock: float


class PriceList(Protocol):
    """What an adapter of a real price list must do."""

    @property
    def name(self) -> str:
        """The shop's name."""
        ...

    def like(self, make: Make) -> tuple[Quote, ...]:
        """Cloths of the same leading fibre, the best match first; all of them when nothing is known."""
        ...


#: Widths that are met in shops, inches. Common practice.
WIDTHS_IN = (36, 44, 45, 51, 55, 58, 60)
_TONES = ("oat", "tern grey", "kelp", "slate", "rope", "chalk", "harbour blue", "rust", "samphire", "ink")
_PRICES = {
    "cotton": (9, 19),
    "linen": (15, 29),
    "viscose": (10, 20),
    "lyocell": (13, 24),
    "silk": (26, 60),
    "wool": (24, 55),
    "polyester": (6, 15),
    "nylon": (8, 18),
    "acetate": (6, 12),
    "elastane": (8, 16),
    "cupro": (12, 22),
    "acrylic": (6, 14),
}
_STEPS = ((100.0, 300.0), (100.0, 500.0), (250.0, 500.0), (500.0, 500.0), (100.0, 100.0))


class StandInShop:
    """The simulated one. The same ``seed`` gives the same list."""

    name = "Quayside remnants and lengths (made up)"

    def __init__(self, seed: int = 1, each: int = 5) -> None:
        rng = np.random.default_rng(seed)
        found: list[Quote] = []
        for fibre, label in FIBRES.items():
            low, high = _PRICES[fibre]
            for _ in range(each):
                width = float(rng.choice(WIDTHS_IN)) * MM_PER_INCH
                step, least = _STEPS[int(rng.integers(len(_STEPS)))]
                # wide cloth costs more by the metre and less by its area
                price = rng.uniform(low, high) * (width / 1120.0) ** 0.8
                found.append(
                    Quote(
                        f"Q{len(found) + 101}",
                        f"{label.split(' ')[0].capitalize()}, {_TONES[int(rng.integers(len(_TONES)))]}",
                        Make(((fibre, 100.0),), "plain"),
                        float(round(width / 5.0) * 5.0),
                        round(float(price), 1),
                        step,
                        least,
                        float(rng.integers(2, 60)) * 250.0,
                    )
                )
        self.quotes = tuple(found)

    def like(self, make: Make) -> tuple[Quote, ...]:
        """Cloths of the same leading fibre, the widest first."""
        wanted = max(make.blend, key=lambda share: share[1])[0] if make.blend else None
        found = [q for q in self.quotes if wanted is None or q.make.blend[0][0] == wanted]
        return tuple(sorted(found, key=lambda q: (-q.width, q.price)))
