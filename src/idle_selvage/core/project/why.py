"""Why did it come out so: from a complaint to the likely reasons in the garment's own record, most likely first.

A reason that can be reckoned says how much of what was measured it explains; one that the record only hints at follows
after those, and what was never tested comes last: it cannot be ruled out.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ..wording import Sentence
from ..working import Quantity, length, percent

Complaint = Literal["twist", "short", "narrow", "bars", "pucker", "dye"]
COMPLAINTS: dict[Complaint, str] = {
    "twist": "It twists at the hem",
    "short": "It came out too short",
    "narrow": "It came out too narrow",
    "bars": "Bars miss at a seam",
    "pucker": "Seams pucker",
    "dye": "The dye ran or faded",
}
#: How sure a reason is: reckoned from what was measured, hinted at by the record, or not ruled out by it.
Sureness = Literal["reckoned", "hinted", "open"]
_RANK: dict[Sureness, int] = {"reckoned": 0, "hinted": 1, "open": 2}
#: A part smaller than this explains nothing anybody would see, mm.
SEEN_MM = 1.0


@dataclass(frozen=True)
class Record:
    """What the garment's own record says; None: nothing was measured. ``slant``: of the weft as it was cut, degrees,
    ``off_grain``: how far the piece was pinned off its grain, degrees; ``tall``, ``wide``: of the piece, mm; ``left``:
    what the cloth could still lose along and across when it was cut, per cent; ``treated``: whether it was washed;
    ``at_rest``: whether its last measured wash took nothing more; ``skew``: by how much the swatch skewed in washing,
    per cent; ``fold``: how far the fold ran off grain, mm; ``hand``: how far pieces are laid off, mm; ``foreseen``: how
    far bars were to miss at the seam, mm; ``unlike``: by how many points cloths sewn together differ; ``rub``: the
    grade of the rubbed rag; ``dark``: whether the cloth is dark; ``harder``: whether it is washed harder than it was
    treated."""

    slant: float | None = None
    off_grain: float | None = None
    tall: float | None = None
    wide: float | None = None
    left: tuple[float | None, float | None] = (None, None)
    treated: bool = False
    at_rest: bool | None = None
    skew: float | None = None
    fold: float | None = None
    hand: float | None = None
    foreseen: float | None = None
    unlike: float | None = None
    rub: int | None = None
    dark: bool = False
    harder: bool = False


@dataclass(frozen=True)
class Reason:
    """One likely reason: what it is, how sure, how much of the complaint it explains (mm; None: not to be reckoned),
    and what to do next time."""

    key: str
    sure: Sureness
    told: Sentence
    next_time: str
    explains: float | None = None


def reasons(complaint: Complaint, record: Record) -> tuple[Reason, ...]:
    """The likely reasons, most likely first."""
    found = _BY[complaint](record)
    return tuple(sorted(found, key=lambda one: (_RANK[one.sure], -(one.explains or 0.0))))


def _twist(record: Record) -> list[Reason]:
    out = []
    tall = record.tall
    for key, angle, what, todo in (
        ("slant", record.slant, "The weft slanted by {angle} when it was cut",
         "Test the fold again after straightening, and cut only when it is true."),
        ("off-grain", record.off_grain, "The piece was pinned {angle} off its grain",
         "Measure from both ends of the arrow to the selvage, and pin when the two agree."),
    ):  # fmt: skip
        if angle is None:
            continue
        by = None if tall is None else tall * math.tan(math.radians(abs(angle)))
        if by is None:
            out.append(Reason(key, "hinted", Sentence(f"{what}.", angle=Quantity(abs(angle), "angle")), todo))
        elif by >= SEEN_MM:
            told = Sentence(f"{what}: over {{tall}} that comes to {{by}}.", angle=Quantity(abs(angle), "angle"),
                            tall=length(tall or 0.0), by=length(by))  # fmt: skip
            out.append(Reason(key, "reckoned", told, todo, by))
    if record.skew is not None and record.tall is not None and abs(record.skew) > 0:
        by = record.tall * abs(record.skew) / 100.0
        if by >= SEEN_MM:
            told = Sentence("The cloth itself skews in washing, its swatch by {skew}: over {tall} that comes to {by}.",
                            skew=percent(abs(record.skew)), tall=length(record.tall), by=length(by))  # fmt: skip
            out.append(Reason("skew", "reckoned", told, "Wash such cloth until it rests before it is trued.", by))
    out += _unrested(record)
    if record.slant is None:
        out.append(_open("untested", "Whether the weft stood square was never tested.",
                         "Make a true edge and hang the fold before cutting."))  # fmt: skip
    if record.off_grain is None:
        out.append(_open("unpinned", "Nobody measured how the piece lay on its grain.",
                         "Write down both distances of its arrow when it is pinned."))  # fmt: skip
    if record.fold is not None and record.fold > 2.0:
        told = Sentence(
            "The fold ran off grain by {fold}, so that the lower layer lay askew.", fold=length(record.fold)
        )
        out.append(Reason("fold", "hinted", told, "Measure fold to selvage at three places, and move the fold."))
    return out


def _short(record: Record) -> list[Reason]:
    return _smaller(record, 0, record.tall, "along")


def _narrow(record: Record) -> list[Reason]:
    return _smaller(record, 1, record.wide, "across")


def _smaller(record: Record, way: int, size: float | None, told_way: str) -> list[Reason]:
    out = []
    left = record.left[way]
    if left is not None and left > 0 and size is not None:
        by = size * left / 100.0
        if by >= SEEN_MM:
            said = f"The cloth had {{left}} left to lose {told_way} when it was cut: over {{size}} that is {{by}}."
            told = Sentence(said, left=percent(left), size=length(size), by=length(by))
            todo = "Wash the length until a wash takes less than half a per cent, and cut then."
            out.append(Reason("left", "reckoned", told, todo, by))
    if record.harder:
        out.append(_hint("harder", "It is washed harder than the cloth was before cutting.",
                         "Treat the cloth as the finished garment will be washed, or one step hotter."))  # fmt: skip
    out += _unrested(record)
    if left is None:
        out.append(_open("unknown", f"How much the cloth shrinks {told_way} was never measured.",
                         "Wash a marked swatch first."))  # fmt: skip
    return out


def _unrested(record: Record) -> list[Reason]:
    if not record.treated:
        return [_hint("untreated", "The cloth was cut without having been washed first.",
                      "Wash the whole length before cutting.")]  # fmt: skip
    if record.at_rest is False:
        return [_hint("unrested", "Its last measured wash still took something: it was not at rest.",
                      "Wash once more, and measure, before cutting.")]  # fmt: skip
    if record.at_rest is None:
        return [_open("unrested", "Whether it was at rest was not measured.",
                      "Measure the swatch after each wash.")]  # fmt: skip
    return []


def _bars(record: Record) -> list[Reason]:
    out = []
    if record.foreseen is not None and record.foreseen >= SEEN_MM:
        told = Sentence("The lay itself let them miss by {by}.", by=length(record.foreseen))
        out.append(Reason("lay", "reckoned", told, "Look at the seam under Seams before cutting.", record.foreseen))
    if record.slant is not None and record.wide is not None:
        by = record.wide * math.tan(math.radians(abs(record.slant)))
        if by >= SEEN_MM:
            told = Sentence("The weft slanted: over {wide} its bars climb by {by}.", wide=length(record.wide),
                            by=length(by))  # fmt: skip
            out.append(Reason("slant", "reckoned", told, "True the cloth before it is laid.", by))
    if record.hand is not None and record.hand >= SEEN_MM:
        told = Sentence("Pieces were laid off their places by about {by} each.", by=length(record.hand))
        out.append(Reason("hand", "reckoned", told, "Lay the cut piece on the cloth, bar on bar, for its second.",
                          record.hand))  # fmt: skip
    out.append(_open("sewing", "The layers may have crept while they were sewn.",
                     "One pin a bar on the seam line, baste by hand, use a walking foot."))  # fmt: skip
    return out


def _pucker(record: Record) -> list[Reason]:
    out = []
    if record.unlike is not None and record.unlike > 2.0:
        told = Sentence("Cloths sewn together shrink differently, by {by} points.", by=Quantity(record.unlike, "ratio"))
        out.append(Reason("unlike", "hinted", told, "Treat every cloth of a set before cutting."))
    out += _unrested(record)
    out.append(_open("thread", "The thread may have shrunk, or its tension been too high.",
                     "Sew a seam in a scrap and wash that first."))  # fmt: skip
    return out


def _dye(record: Record) -> list[Reason]:
    out = []
    if record.rub is not None and record.rub <= 3:
        told = Sentence("The rag already came off with grade {grade} before cutting.", grade=str(record.rub))
        out.append(Reason("rub", "hinted", told, "Wash again until the rag stays clean, and then cut."))
    if record.rub is None:
        out.append(_open("unrubbed", "Its dye was never tested with a wet white rag.",
                         "Rub it before the first wash, dark cloth above all."))  # fmt: skip
    if record.harder:
        out.append(_hint("harder", "It is washed harder than the cloth was before cutting.",
                         "Keep to the care it was tested for."))  # fmt: skip
    if record.dark:
        out.append(_hint("dark", "Dark cloth gives off dye over several washes.",
                         "Alone or with its like, inside out, cool, with a dye-catching sheet."))  # fmt: skip
    return out


def _hint(key: str, told: str, todo: str) -> Reason:
    return Reason(key, "hinted", Sentence(told), todo)


def _open(key: str, told: str, todo: str) -> Reason:
    return Reason(key, "open", Sentence(told), todo)


_BY = {"twist": _twist, "short": _short, "narrow": _narrow, "bars": _bars, "pucker": _pucker, "dye": _dye}
