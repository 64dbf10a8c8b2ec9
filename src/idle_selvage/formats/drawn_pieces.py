"""From what a drawing shows of one piece to the piece: its name, how it is cut, its draft and its sizes.

Readers of every format bring a drawing into the same shape (:class:`Drawn`: outlines, lines, marks, words); what those
mean is said here once.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field

from ..core.plan.allowance import cut_line
from ..core.plan.draft import Draft
from ..core.plan.drawn import HowCut, piece_of
from ..core.plan.outline import BadPiece, Outline, polygon_fault
from ..core.plan.piece import Grain, Piece
from ..core.plan.shorter import shortened
from ..core.plan.sizes import SizeOutline
from ..core.units import BadEntry, read_length
from .audit import Mended, NotRead
from .drawn_drafts import Drawn, Shape, axes_of, draft_of, drafted_in

#: Of what is wrong with a drawing, so much is listed.
MOST_REMARKS = 200


@dataclass(frozen=True)
class PieceRead:
    """A piece that was read: its draft, how it says it is cut, its sizes, and the core's piece of all that."""

    name: str
    draft: Draft
    how: HowCut
    sizes: tuple[SizeOutline, ...] = ()
    #: the size the draft is in, where the file says so
    size: str = ""

    @property
    def piece(self) -> Piece:
        """As it is on the paper, cut so."""
        return piece_of(self.name, self.draft, self.how)

    @property
    def cut(self) -> Outline:
        """The line it is cut along, shorter at its low end where it is told so. Raises :class:`BadPiece`."""
        return cut_line(shortened(self.piece, self.how.shorter))


@dataclass
class Remarks:
    """What a reader could not use, and what it put right; only so much of each is kept."""

    not_read: list[NotRead] = field(default_factory=list)
    mended: list[Mended] = field(default_factory=list)

    def skip(self, code: str, place: str, why: str) -> None:
        """Something was not used."""
        if len(self.not_read) < MOST_REMARKS:
            self.not_read.append(NotRead(code, place, why))

    def mend(self, code: str, place: str, how: str) -> None:
        """Something was put right or assumed."""
        if len(self.mended) < MOST_REMARKS:
            self.mended.append(Mended(code, place, how))


#: No allowance is wider, mm: as much as can be typed.
WIDEST_MM = 200.0


def check_read(read: PieceRead) -> None:
    """Raise :class:`BadPiece` for a piece that cannot be cut as a file tells it: one below nothing would be cut inside
    its own line."""
    for wide in (read.how.seam, read.draft.included, *(p.allowance or 0.0 for p in read.draft.points)):
        if not 0.0 <= wide <= WIDEST_MM:
            raise BadPiece(f"an allowance of {wide:g} mm; it is from 0 to {WIDEST_MM:g} mm.")
    if read.how.shorter < 0.0:
        raise BadPiece(f"cut {read.how.shorter:g} mm shorter; that is 0 or more.")
    _ = read.cut


def read_piece(name: str, drawn: Drawn, remarks: Remarks) -> PieceRead | None:
    """The piece a drawing shows; None, with the reason in ``remarks``, where it cannot be cut."""
    fold, grain_line = _lines(name, drawn, remarks)
    said = Said.of(drawn.words, drawn.texts)
    for word in said.unknown:
        remarks.skip("allowance", f"“{word}” in {name}", "could not be read as a length")
    try:
        fault = next((told for one in drawn.outlines if (told := polygon_fault(one.points))), None)
        if fault is not None:
            raise BadPiece(f"the outline {fault}.")
        axes = axes_of(drawn.outlines[drafted_in(drawn.outlines)].points, grain_line, fold)
        draft, sizes, faults = draft_of(drawn, axes, said.included)
        how = HowCut(said.copies, said.pair, fold is not None, said.grain, said.one_way, said.seam, said.bare,
                     said.shorter)  # fmt: skip
        read = PieceRead(name, draft, how, sizes, said.size)
        check_read(read)
    except BadPiece as error:
        remarks.skip("cannot_be_cut", name, str(error).split(": ", 1)[-1])
        return None
    for told in faults:
        remarks.skip("mark", name, told)
    if grain_line is None and fold is None:
        remarks.mend(
            "no_grainline", f"{name}: grainline", "none is drawn; the drawing's left-to-right is taken as the grain"
        )
    return read


def _lines(name: str, drawn: Drawn, remarks: Remarks) -> tuple[Shape | None, Shape | None]:
    """The fold edge and the grainline among the open lines of a piece."""
    fold: Shape | None = None
    grain_line: Shape | None = None
    for line in drawn.lines:
        if len(line.points) != 2 or math.dist(line.points[0], line.points[1]) < 1.0:
            remarks.skip(
                "open_curve",
                line.label or f"a line in {name}",
                "an open curve; only straight lines have a meaning here",
            )
        elif "fold-edge" in line.words or line.label.lower().startswith("fold-edge"):
            fold = line
        elif grain_line is None or "grainline" in line.words:
            grain_line = line
        else:
            remarks.skip(
                "second_grainline", line.label or f"a second line in {name}", "the piece has a grainline already"
            )
    return fold, grain_line


def split_words(text: str) -> list[str]:
    """The words of a text, small."""
    return re.findall(r"[^\s,;]+", text.lower())


_SAYS = re.compile(
    r"\b(?:copies\s*[-:=]?\s*(\d{1,3})|(\d{1,3})\s*copies)\b|\bpair\b|\bcross[- ]grain\b|\bbias\b|\bany[- ]grain\b"
    r"|\bone[- ]way\b|\bno[- ]allowance\b"
    r"|\bincludes[- ]([\d./,⁄½¼¾⅛⅜⅝⅞]+\s*(?:mm|cm|in|\"))"
    r"|\badd[- ](?:seam[- ])?([\d./,⁄½¼¾⅛⅜⅝⅞]+\s*(?:mm|cm|in|\"))|\bdrawn-in-(\S{1,20})"
    r"|\bshorter[- ]([\d./,⁄½¼¾⅛⅜⅝⅞]+\s*(?:mm|cm|in|\"))",
    re.IGNORECASE,
)


def says_something(text: str) -> bool:
    """Whether a text says how a piece is cut."""
    return _SAYS.search(text) is not None


@dataclass
class Said:
    """How a piece is cut, as words beside it say."""

    copies: int = 1
    pair: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False
    seam: float = 0.0
    bare: bool = False
    included: float = 0.0
    shorter: float = 0.0
    size: str = ""
    unknown: list[str] = field(default_factory=list)

    @classmethod
    def of(cls, words: list[str], texts: list[str]) -> Said:
        """What these words and texts say."""
        said = cls()
        for found in _SAYS.finditer(" ; ".join([*words, *texts])):
            said._take(found)
        if said.pair and said.copies == 1:
            # "pair" alone means one of each
            said.copies = 2
        return said

    def _take(self, found: re.Match[str]) -> None:
        """One thing that is said."""
        text = found.group(0).lower().replace(" ", "-")
        if found.group(5):
            self.size = found.group(5)
        elif "copies" in text:
            self.copies = int(found.group(1) or found.group(2))
        elif text == "pair":
            self.pair = True
        elif text == "one-way":
            self.one_way = True
        elif text == "no-allowance":
            self.bare = True
        elif text in _GRAIN_WORDS:
            self.grain = _GRAIN_WORDS[text]
        else:
            try:
                if found.group(3):
                    self.included = read_length(found.group(3))
                elif found.group(6):
                    self.shorter = read_length(found.group(6))
                else:
                    self.seam = read_length(found.group(4))
            except BadEntry:
                self.unknown.append(found.group(0))


_GRAIN_WORDS: dict[str, Grain] = {"cross-grain": "crosswise", "bias": "bias", "any-grain": "any"}
