"""How *this* cloth is held, marked and cut at the table, and what to take care of."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

from ..cloth.make import PILE
from ..wording import Sentence
from ..working import length

MarkKind = Literal["notch", "point", "dart", "fold", "centre", "buttons"]
#: What marks are called, in the order in which they are made.
MARKS: dict[MarkKind, str] = {
    "notch": "notches",
    "point": "points",
    "dart": "darts",
    "fold": "fold lines",
    "centre": "centre lines",
    "buttons": "button lines",
}
ONE_MARK: dict[MarkKind, str] = {
    "notch": "notch",
    "point": "point",
    "dart": "dart",
    "fold": "fold line",
    "centre": "centre line",
    "buttons": "button line",
}

#: A notch is snipped so deep at most, and never deeper than this share of the allowance. Common practice, no source.
SNIP_MM = 3.0
SNIP_SHARE = 1 / 3
#: From so many grams a square metre on two layers are heavy to cut. Common practice, no source.
HEAVY_GSM = 300.0
#: A cut edge of fur has lost its pile for up to so much, mm. Common practice, no source.
FUR_LOSS_MM = 20.0


@dataclass(frozen=True)
class ClothInHand:
    """What of a cloth decides how it is cut; ``ground``: its colour, for what shows on it."""

    weave: str = "plain"
    direction: str = "none"
    slips: bool = False
    see_through: bool = False
    fluid: bool = False
    stiff: bool = False
    mass: float | None = None
    ground: str = "#C9D3D6"

    @property
    def dark(self) -> bool:
        """Whether light chalk shows better on it than dark."""
        red, green, blue = (int(self.ground[k : k + 2], 16) / 255 for k in (1, 3, 5))
        # relative luminance of ITU-R BT.709, on the plain values
        return 0.2126 * red + 0.7152 * green + 0.0722 * blue < 0.4


@dataclass(frozen=True)
class Told:
    """What to do, and why."""

    do: str
    why: str = ""


@dataclass(frozen=True)
class Handling:
    """How a cloth is held, marked and cut: ``marks`` by the kind of mark."""

    hold: Told
    cut: tuple[Told, ...]
    marks: Mapping[MarkKind, Told]
    cautions: tuple[str, ...]


Knows = Callable[[ClothInHand], bool]


def _woven(*weaves: str) -> Knows:
    return lambda cloth: cloth.weave in weaves


def _heavy(cloth: ClothInHand) -> bool:
    return cloth.weave == "denim" or (cloth.mass or 0.0) >= HEAVY_GSM


def _slippery(cloth: ClothInHand) -> bool:
    return cloth.slips or cloth.fluid or (cloth.weave == "satin" and not cloth.stiff)


#: The first that holds is said. Common practice, no source, where a rule has none beside it.
_HOLD: tuple[tuple[Knows, Told], ...] = (
    (
        _woven("fur"),
        Told(
            "Lay it backing up in a single layer, and hold the paper with weights or draw round it on the backing.",
            "pins vanish in the pile, and two layers shift",
        ),
    ),
    (
        _woven("sequin"),
        Told(
            "Hold the paper with weights or clips at the allowance; no pins inside the piece.", "sequins crack at pins"
        ),
    ),
    (
        _woven("velveteen", "corduroy"),
        Told(
            "Lay it wrong side up in a single layer; pins inside the allowance only, weights elsewhere.",
            "two pile faces creep on one another, and pins leave marks in the pile",
        ),
    ),
    (
        _slippery,
        Told(
            "Lay paper or a sheet beneath, square the cloth on it, and pin through both with many fine pins.",
            "the cloth cannot slide while its ground holds it",
        ),
    ),
    (
        _woven("gauze", "lace"),
        Told(
            "Let it lie without pulling, and hold the paper with weights.",
            "it stretches open under the hand, and pins fall through",
        ),
    ),
    (
        lambda cloth: cloth.see_through,
        Told("Pin fine silk pins in the allowance, or use weights.", "holes of pins stay to be seen"),
    ),
    (
        _heavy,
        Told("Hold the paper with weights, and pin at the corners only.", "pins lift thick cloth from the table"),
    ),
)
_HOLD_ANY = Told(
    "Pin tissue at the grain line first, then at the corners, every hand’s breadth along the edges; weights for stiff "
    "paper.",
    "the grain line stays where it was measured",
)

_CUT: tuple[tuple[Knows, Told], ...] = (
    (
        _woven("fur"),
        Told(
            "Slit the backing only, from the back, with the point of a blade; draw the pile apart.",
            "the pile stays long at the edge; shears crop it",
        ),
    ),
    (
        _woven("sequin"),
        Told("Cut straight through small sequins with old shears; take off loose ones in the allowance.", ""),
    ),
    (
        _woven("velveteen", "corduroy"),
        Told("Cut with the pile and in long strokes, one layer at a time.", "layers of pile push each other aside"),
    ),
    (
        _slippery,
        Told(
            "Cut through cloth and paper with sharp shears or a rotary blade; do not lift the cloth.",
            "lifted, it drifts off its grain",
        ),
    ),
    (
        _woven("gauze"),
        Told("Cut slowly with long shears, both layers flat on the table; overlock or stay edges soon.", "it frays"),
    ),
    (
        _woven("lace"),
        Told("Cut round the motifs where a seam crosses them, if they are to run on.", "a seam across one shows"),
    ),
    (
        lambda cloth: cloth.see_through,
        Told("Cut on paper, and trim threads at once.", "everything inside the allowance shows through"),
    ),
    (_heavy, Told("Cut one layer at a time, with long-bladed shears.", "the lower layer of thick cloth comes longer")),
)
_CUT_ANY = Told(
    "Cut flat on the table in long strokes, the lower blade on the table; stop at corners.",
    "short snips leave steps in the edge",
)

SNIP, CHALK, TACK, PIN, THREAD = "snip", "chalk", "tailor’s tack", "pin", "thread"


def _no_snips(cloth: ClothInHand) -> bool:
    return cloth.weave in ("gauze", "lace", "sequin", "fur") or cloth.see_through


def notch_told(cloth: ClothInHand, allowance: float | None) -> Told:
    """How notches are marked; ``allowance`` mm is what there is to snip into, None while that is not known."""
    if cloth.weave == "fur":
        return Told("Mark notches on the backing with a pen.", "snips are lost in the pile")
    if _no_snips(cloth):
        return Told("Mark notches with thread.", "snips fray out, or show through")
    if allowance is not None and snip_depth(allowance) <= 0:
        return Told("Mark notches with thread or chalk.", "cut at the seam line, there is nothing to snip into")
    deep = length(SNIP_MM if allowance is None else snip_depth(allowance))
    return Told(
        Sentence("Snip notches {deep} into the allowance, no deeper.", deep=deep), "a deep snip weakens the seam"
    )


def snip_depth(allowance: float) -> float:
    """How deep a notch is snipped into an allowance, both mm."""
    return min(SNIP_MM, allowance * SNIP_SHARE)


def _inside(cloth: ClothInHand) -> Told:
    """How points inside a piece are marked."""
    if cloth.weave in (*PILE, "sequin", "gauze", "lace") or cloth.see_through:
        return Told("Mark with tailor’s tacks.", "chalk does not hold on it, or marks for good")
    if _slippery(cloth):
        return Told("Mark with tailor’s tacks or fine thread.", "chalk drags slippery cloth along")
    return Told(f"Mark with {_chalk(cloth)} on the wrong side, a pin through both layers.", "try it on a scrap first")


def _lines(cloth: ClothInHand) -> Told:
    if cloth.weave in (*PILE, "sequin", "gauze", "lace") or cloth.see_through or _slippery(cloth):
        return Told("Baste along it with thread in long stitches.", "it is seen from both sides and comes out again")
    return Told(f"Draw it with {_chalk(cloth)} on the wrong side, along a ruler.", "")


def _chalk(cloth: ClothInHand) -> str:
    return "light chalk" if cloth.dark else "dark chalk"


def handling(cloth: ClothInHand, allowance: float | None = None) -> Handling:
    """How a cloth is held, marked and cut. ``allowance``: the least that notches are snipped into, mm."""
    hold = next((told for knows, told in _HOLD if knows(cloth)), _HOLD_ANY)
    cuts = tuple(told for knows, told in _CUT if knows(cloth)) or (_CUT_ANY,)
    if cloth.direction in ("nap", "stroke", "print"):
        way = Told("Put a chalk arrow on the wrong side of every piece, top up.", "turned pieces look alike until sewn")
        cuts = (*cuts, way)
    if cloth.weave == "fur":
        lost = Sentence("Where shears were used, trim the allowance’s pile: up to {lost} of it is gone there.",
                        lost=length(FUR_LOSS_MM))  # fmt: skip
        cuts = (*cuts, Told(lost, "short pile at an edge shows as a line"))
    inside, lines = _inside(cloth), _lines(cloth)
    marks: dict[MarkKind, Told] = {
        "notch": notch_told(cloth, allowance),
        "point": inside,
        "dart": inside,
        "fold": lines,
        "centre": lines,
        "buttons": lines,
    }
    return Handling(hold, cuts, marks, cautions(cloth))


#: What is said of any cutting. trade: rotary blades, pins.
BLADE = "Lock a rotary blade after every cut, cut away from the body, and wear a cut-resistant glove."
PINS = "Count the pins out and in again."


def cautions(cloth: ClothInHand) -> tuple[str, ...]:
    """What to take care of while this cloth is cut."""
    found = []
    if cloth.weave == "fur":
        found.append("Loose pile flies: wear a mask, vacuum the table and the pieces, and keep it from the dryer.")
    if cloth.weave == "sequin":
        found.append("Shield the eyes: bits of sequin fly from the shears.")
    return (*found, BLADE, PINS)
