"""The words of the trade, what they mean, and what else people call the same. Common usage, no source."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Word:
    """One word: what it means, in a sentence or two, and the other names it goes by."""

    word: str
    means: str
    also: tuple[str, ...] = ()


GLOSSARY: tuple[Word, ...] = (
    Word(
        "selvage",
        "The firm finished edge along both long sides of woven cloth. It is not used in the garment.",
        ("selvedge", "self-edge"),
    ),
    Word(
        "warp",
        "The yarns that run along the cloth, beside the selvage: its firmest direction.",
        ("lengthwise grain", "straight grain", "ends"),
    ),
    Word(
        "weft",
        "The yarns that run across the cloth, from selvage to selvage; they give a little.",
        ("cross grain", "crosswise grain", "filling", "picks"),
    ),
    Word(
        "grainline",
        "The arrow on a pattern piece. It lies along the selvage, unless the piece is cut across or aslant.",
        ("grain arrow", "place on straight grain"),
    ),
    Word("bias", "Any direction off the grain. Cloth stretches and drapes there.", ("on the cross", "diagonal")),
    Word(
        "true bias",
        "Exactly half way between warp and weft, at 45°: the direction with the most stretch.",
        ("true cross",),
    ),
    Word(
        "nap",
        "A raised surface that lies one way, so that the cloth looks darker one way up than the other.",
        ("pile", "brushed side"),
    ),
    Word("wale", "One rib of corduroy. They are counted over an inch: many are fine, few are wide.", ("cord", "rib")),
    Word("repeat", "The distance after which a stripe, a check or a print begins again.", ("pattern repeat",)),
    Word(
        "balanced", "A check whose bars read the same in both directions, so that it can be mirrored.", ("even plaid",)
    ),
    Word("right side", "The side that shows when the garment is worn.", ("face",)),
    Word("wrong side", "The side that lies inside.", ("back", "reverse")),
    Word(
        "on the fold",
        "Half a piece whose straight edge lies on a fold of the cloth: it opens to one whole piece.",
        ("cut on fold", "half piece"),
    ),
    Word("notch", "A mark on the cut line that meets another one when the pieces are sewn.", ("balance mark", "snip")),
    Word("seam allowance", "The strip between the line that is sewn and the line that is cut.", ("turnings", "inlay")),
    Word("lay", "How all pieces lie on the cloth, ready to be cut.", ("cutting layout", "marker")),
    Word("true", "To bring the weft square to the selvage again.", ("straighten the grain", "block")),
    Word("skew", "The weft crosses at a slant.", ("off-grain", "bias skew")),
    Word("bow", "The weft crosses in an arc: the middle is ahead of the selvages, or behind them.", ("bowing",)),
    Word(
        "rigid",
        "Held by a finish or by its weave so that it cannot be pulled square; it is used as it lies.",
        ("heat-set", "permanent press"),
    ),
    Word("sizing", "Starch put in at the mill. It washes out and leaves the cloth softer.", ("size", "dressing")),
    Word(
        "pre-shrink",
        "To wash or steam cloth before it is cut, so that the garment does not shrink later.",
        ("pre-wash", "pre-treat", "preshrunk"),
    ),
    Word(
        "swatch",
        "A small piece that is marked, washed and measured again, to learn how the cloth shrinks.",
        ("test square", "sample"),
    ),
    Word("crocking", "Dye that comes off when the cloth is rubbed.", ("rubbing off",)),
    Word("bleeding", "Dye that comes off in water.", ("running",)),
    Word("interfacing", "Cloth that stiffens another from inside, sewn or glued to it.", ("stiffening",)),
    Word("fusible", "With glue on one side that melts under an iron.", ("iron-on",)),
    Word(
        "underlining",
        "Cloth sewn to the back of each piece before the seams are sewn, so that both are one.",
        ("mounting", "flat lining"),
    ),
    Word("viscose", "Yarn spun from wood pulp; weak when wet.", ("rayon",)),
    Word(
        "pair",
        "Two copies of a piece of which one is mirrored, as a left and a right sleeve.",
        ("one left, one right",),
    ),
    Word("one way", "Every top points the same way along the cloth, because of its nap or its print.", ("with nap",)),
    Word(
        "grain",
        "The direction of the yarns: along the cloth, across it, or at a slant to both.",
        ("thread direction", "straight of goods"),
    ),
    Word("weave", "How warp and weft cross: it decides what a cloth is called and how it behaves.", ("structure",)),
    Word(
        "border",
        "A strip along one selvage that is printed, embroidered or finished otherwise than the rest.",
        ("edging",),
    ),
    Word(
        "yarn-dyed",
        "Woven from coloured yarns, so that bars are threads; a print need not follow them.",
        ("woven stripe",),
    ),
    Word(
        "shop fold",
        "The fold along the middle in which a length lay on its roll; it can be faded or dirty.",
        ("centre crease",),
    ),
    Word("ease", "How much longer one side of a seam is than the other; it is spread over the seam.", ("fullness",)),
)


def glossary() -> tuple[Word, ...]:
    """All of them in the order of the alphabet."""
    return tuple(sorted(GLOSSARY, key=lambda one: one.word))
