"""The lay: what is pinned on the folded cloth, and what leaves it. Format ``idle-selvage/lay/1``."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Any

FORMAT = "idle-selvage/lay/1"


@dataclass(frozen=True)
class Section:
    """A stretch of cloth with one fold. ``fold_at`` are the y of its fold lines on the open cloth."""

    start: float
    end: float
    fold: str
    fold_at: tuple[float, ...] = ()


@dataclass(frozen=True)
class Placement:
    """One placement on the folded cloth."""

    piece: str
    section: int
    x: float
    y: float
    turn: int
    mirrored: bool
    layers: int


@dataclass(frozen=True)
class Cut:
    """One copy on the open cloth."""

    piece: str
    copy: int
    x: float
    y: float
    turn: int
    mirrored: bool


@dataclass(frozen=True)
class Lay:
    """A lay. ``bound``: no lay of these pieces on this cloth is shorter. Lengths in millimetres."""

    length: float
    bound: float
    utilisation: float
    complete: bool
    seconds: float
    seed: int
    steps: int
    sections: tuple[Section, ...]
    laid: tuple[Placement, ...]
    cut: tuple[Cut, ...]
    left_over: tuple[tuple[str, int], ...] = ()
    #: for a fixed length that does not do: the shortest complete lay found
    needed_length: float | None = None

    @property
    def layers(self) -> int:
        """The most layers any placement is cut through."""
        return max((entry.layers for entry in self.laid), default=0)

    @property
    def cuts(self) -> int:
        """How many outlines are cut; two layers are cut at once."""
        return len(self.laid)

    @property
    def unfoldings(self) -> int:
        """How often the cloth must be folded anew while cutting."""
        return sum(a.fold != b.fold or a.fold_at != b.fold_at for a, b in pairwise(self.sections))


def to_json(lay: Lay) -> dict[str, Any]:
    """The lay in its format, ready for :func:`json.dumps`."""
    data: dict[str, Any] = {
        "format": FORMAT,
        "length": lay.length,
        "bound": lay.bound,
        "utilisation": lay.utilisation,
        "complete": lay.complete,
        "seconds": lay.seconds,
        "seed": lay.seed,
        "steps": lay.steps,
        "sections": [{"from": s.start, "to": s.end, "fold": s.fold, "fold_at": list(s.fold_at)} for s in lay.sections],
        "laid": [vars(entry) for entry in lay.laid],
        "cut": [vars(entry) for entry in lay.cut],
    }
    if not lay.complete:
        data["left_over"] = [{"piece": piece, "copies": copies} for piece, copies in lay.left_over]
        data["needed_length"] = lay.needed_length
    return data


def from_json(data: dict[str, Any]) -> Lay:
    """Read a lay that :func:`to_json` wrote. Raises KeyError or TypeError when it is not one."""
    if data.get("format") != FORMAT:
        raise KeyError("format")
    return Lay(
        data["length"],
        data["bound"],
        data["utilisation"],
        data["complete"],
        data["seconds"],
        data["seed"],
        data["steps"],
        tuple(Section(s["from"], s["to"], s["fold"], tuple(s["fold_at"])) for s in data["sections"]),
        tuple(Placement(**entry) for entry in data["laid"]),
        tuple(Cut(**entry) for entry in data["cut"]),
        tuple((entry["piece"], entry["copies"]) for entry in data.get("left_over", [])),
        data.get("needed_length"),
    )
