"""What the search lays: parts on a strip. A fold turns a problem into strips, and knows how to open them.

Coordinates of a strip: x from its beginning, y as on the open cloth. A part is placed once; the copies that
come off the cloth for it are written down as images of that placement.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from .orientations import Ring


class CannotFold(ValueError):
    """This fold cannot take a piece; the sentence says why.

    When it is too wide: ``across`` mm in every turn, and the strip only ``width`` mm; else both are 0.
    """

    def __init__(self, piece: str, across: float, width: float, why: str = "", called: str = "") -> None:
        super().__init__(
            why
            or f"Piece “{called or piece}” is {across:.1f} mm across, and the cloth folded so is {width:.1f} mm wide."
        )
        self.piece, self.across, self.width, self.why = piece, across, width, why


@dataclass(frozen=True)
class Image:
    """One copy of a placement at (x, y): on the open cloth at ``along · x + shift``, ``across · y + lift``."""

    turn: int
    mirrored: bool
    along: float = 1.0
    shift: float = 0.0
    across: float = 1.0
    lift: float = 0.0


@dataclass(frozen=True)
class Variant:
    """One way a part may lie. ``ring`` is its outline about its origin; the rest says where that may be.

    ``low`` ≤ y ≤ ``high``; with a step, only ``base + k · step``. A group's free phase moves all its members
    together; ``y_sign`` −1 when mirrored. ``step`` 0 leaves an axis free.
    """

    turn: int
    mirrored: bool
    ring: Ring = field(repr=False)
    low: float
    high: float
    layers: int
    images: tuple[Image, ...]
    x_base: float = 0.0
    x_step: float = 0.0
    x_group: int = -1
    y_base: float = 0.0
    y_step: float = 0.0
    y_group: int = -1
    y_sign: int = 1


@dataclass(frozen=True)
class Part:
    """Something placed once. ``area`` is what it takes of the strip, mm². ``border`` parts may lie on the
    reserved strip. ``half``: its outline is half a piece whose edge on the fold lies on y = 0 ("y") or x = 0 ("x")."""

    piece: str
    copies: int
    area: float
    variants: tuple[Variant, ...]
    border: bool = False
    half: str = ""
    #: where it lies along the cloth now, of what may only slide
    now: float | None = None
    called: str = field(default="", compare=False)


@dataclass(frozen=True)
class Obstacle:
    """Ground no part may lie on; ``reserved`` ground is for border parts."""

    ring: Ring = field(repr=False)
    reserved: bool = False


@dataclass(frozen=True)
class Strip:
    """Parts to be laid between y ``low`` and ``high``. ``layers`` says how many lengths of strip the cloth is
    long (2 when folded crosswise). ``fold_at`` are the folds on the open cloth."""

    fold: str
    low: float
    high: float
    gap: float
    parts: tuple[Part, ...]
    obstacles: tuple[Obstacle, ...] = ()
    fold_at: tuple[float, ...] = ()
    lengths: int = 1
    #: the repeats of the cloth's bars, mm, which the raster must divide
    x_repeat: float = 0.0
    y_repeat: float = 0.0
    #: crosswise: the fold is taken to lie here, and the strip must not be longer; 0 when it does not matter
    folded_at: float = 0.0

    @property
    def width(self) -> float:
        return self.high - self.low


@dataclass(frozen=True)
class Placed:
    """A part's variant with its origin at (x, y) on the strip."""

    part: int
    variant: Variant
    x: float
    y: float
