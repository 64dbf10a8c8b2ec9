"""A border along one selvage of a cloth: what it is, how deep, and which hems lie on it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence, listed
from ..working import length

BorderKind = Literal["edge", "embroidery", "print", "free"]
Side = Literal["low", "high"]

#: What a border may be. Of a finished edge nothing is cut off: it becomes the hem itself.
KINDS: dict[BorderKind, str] = {
    "edge": "a finished edge, such as lace or a scallop",
    "embroidery": "embroidery along a selvage that is cut off",
    "print": "a printed or woven border",
    "free": "a strip to be kept free",
}
SIDES: dict[str, str] = {"": "none", "low": "along the near selvage", "high": "along the far selvage"}
#: The deepest border there is, mm. From memory: hardly any is deeper than half of a wide cloth.
DEEPEST_MM = 800.0
#: Hems that differ by less lie alike, mm. Common practice, no source.
ALIKE_MM = 1.0


@dataclass(frozen=True)
class ClothBorder:
    """A border ``deep`` mm from the edge of the cloth along a selvage."""

    side: Side
    kind: BorderKind
    deep: float

    def usable(self, margin: float) -> float:
        """How deep it is on the usable cloth, with ``margin`` mm of that selvage left off."""
        return max(0.0, self.deep - margin)


@dataclass(frozen=True)
class HemOnBorder:
    """A piece whose hem lies so far from a selvage, mm."""

    piece: str
    side: Side
    distance: float


def apart(hems: Sequence[HemOnBorder]) -> tuple[Sentence, ...]:
    """Of pieces on one border whose hems lie at different distances, that they do: both ends of a side seam are to
    lie at the same place of the border."""
    told = []
    for side in ("low", "high"):
        here = [hem for hem in hems if hem.side == side]
        least, most = (min(here, key=_distance), max(here, key=_distance)) if here else (None, None)
        if least is not None and most is not None and most.distance - least.distance > ALIKE_MM:
            said = "On one border {one} lies with its hem {near} from the edge and {other} {far}: what is sewn together"
            said += " at the sides is to lie alike."
            near, far = length(least.distance), length(most.distance)
            told.append(Sentence(said, one=least.piece, near=near, other=most.piece, far=far))
    return tuple(told)


def _distance(hem: HemOnBorder) -> float:
    return hem.distance


def without_border(hems: Sequence[HemOnBorder], border: ClothBorder | None) -> tuple[Sentence, ...]:
    """That hems are asked to lie on a border the cloth has not on that side."""
    names = [hem.piece for hem in hems if border is None or hem.side != border.side or border.kind == "free"]
    if not names or border is None:
        return ()
    what = "is to be kept free" if border.kind == "free" else f"lies {SIDES[border.side]}"
    return (
        Sentence("{names}: the hem is asked onto a border, and the cloth’s {what}.", names=listed(names), what=what),
    )
