"""Taking pieces in from a file of any format: which one it is, what was understood of it, what may be chosen."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

from ..core.plan.draft import outline_of
from ..core.plan.outline import Point
from . import csv_points, dxf_pieces, pdf_pieces, problem_pieces, svg_pieces
from .audit import Mended, NotRead, Unreadable
from .drawn_pieces import PieceRead
from .unit_guess import guessed_unit, likely
from .upright import standing

#: What the formats are called.
FORMATS: dict[str, str] = {
    "svg": "SVG drawing",
    "dxf": "DXF drawing",
    "pdf": "PDF, printed at true size",
    "csv": "table of points or stations",
    "problem": "lay problem",
}
#: No file of pieces is larger.
MAX_BYTES = 20_000_000


@dataclass(frozen=True)
class Wishes:
    """What was chosen of what a file leaves open; see the readers of each format."""

    unit: str | None = None
    styles: tuple[str, ...] = ()
    columns: int | None = None
    places: Mapping[int, Point] | None = None


@dataclass(frozen=True)
class Choices:
    """What a file leaves open. ``units``: what a length of one may be (none where the file says so); ``styles``: kinds
    of line with how many outlines each has; ``nested``: whether they lie in one another as sizes do; ``pages``: the
    number of each page, its lower left corner and its size, mm, y upwards."""

    unit: str = ""
    units: tuple[str, ...] = ()
    styles: tuple[tuple[str, int], ...] = ()
    chosen: tuple[str, ...] = ()
    nested: bool = False
    pages: tuple[tuple[int, Point, Point], ...] = ()
    joined: str = ""


@dataclass(frozen=True)
class Taken:
    """What was understood of a file: its format, its pieces, its lines as they are drawn (mm, y downwards), what is
    left open, what was not read and what was put right."""

    format: str
    pieces: tuple[PieceRead, ...]
    lines: tuple[tuple[Point, ...], ...] = ()
    choices: Choices = field(default_factory=Choices)
    not_read: tuple[NotRead, ...] = ()
    mended: tuple[Mended, ...] = ()


def format_of(data: bytes, name: str = "") -> str:
    """Which format a file is in, by what stands in it and, where that does not tell, by its name. Raises
    :class:`Unreadable`."""
    head = data[:4096].lstrip(b"\xef\xbb\xbf \t\r\n")
    ending = name.lower().rsplit(".", 1)[-1] if "." in name else ""
    if not head:
        raise Unreadable("The file is empty.")
    if head.startswith(b"%PDF-"):
        return "pdf"
    if head.startswith(b"PK\x03\x04"):
        raise Unreadable("This is an archive. Whole garments and cloths are taken in on the first screen.")
    if head.startswith((b"AutoCAD Binary DXF", b"AC10")) or ending in ("dxf", "dwg"):
        return "dxf"
    if head.startswith(b"<") or ending == "svg":
        return "svg"
    if head.startswith((b"{", b"[")) or ending == "json":
        return "problem"
    if ending in ("csv", "tsv", "txt") or (b"along" in head.lower() and b"\n" in head):
        return "csv"
    if b"SECTION" in head:
        return "dxf"
    told = ", ".join(FORMATS.values())
    raise Unreadable(f"This is no file pieces are read from. Read are: {told}.")


def take_in(data: bytes, name: str = "", wishes: Wishes | None = None) -> Taken:
    """What can be understood of a file. Raises :class:`Unreadable` where nothing can."""
    if len(data) > MAX_BYTES:
        raise Unreadable(f"The file is larger than {MAX_BYTES // 1_000_000} MB. Save only the pieces.")
    kind = format_of(data, name)
    return _READERS[kind](data, wishes or Wishes())


def _unit(wishes: Wishes, known: Sequence[str]) -> str | None:
    return wishes.unit if wishes.unit in known else None


def _svg(data: bytes, wishes: Wishes) -> Taken:
    found = svg_pieces.read_svg_sheet(data, _unit(wishes, tuple(svg_pieces.UNITS)))
    read = found.what
    open_ = () if read.unit_said else tuple(svg_pieces.UNITS)
    choices, mended = Choices(read.unit, open_), found.mended
    taken = svg_pieces.UNITS[read.unit]
    if open_ and wishes.unit is None and not likely(read.lines, 1.0):
        as_drawn = [[(x / taken, y / taken) for x, y in line] for line in read.lines]
        name, size = guessed_unit(as_drawn)
        if likely(as_drawn, size):
            told = "it has no size of its own, so that one unit is taken for 1/96 in; by the size of its pieces it may "
            mended = (*mended, Mended("unit", "the drawing's unit", f"{told}be one {name}: choose it"))
    return Taken("svg", read.pieces, read.lines, choices, found.not_read, mended)


def _dxf(data: bytes, wishes: Wishes) -> Taken:
    units = ("mm", "cm", "in")
    found = dxf_pieces.read_dxf(data, _unit(wishes, units))
    read = found.what
    return Taken("dxf", read.pieces, read.lines, Choices(read.unit, units), found.not_read, found.mended)


def _pdf(data: bytes, wishes: Wishes) -> Taken:
    found = pdf_pieces.read_pdf(data, styles=wishes.styles, places=wishes.places, columns=wishes.columns)
    read = found.what
    styles = tuple((one.name, one.outlines) for one in read.styles)
    choices = Choices("mm", (), styles, read.read, read.nested, read.pages, read.joined)
    return Taken("pdf", read.pieces, read.lines, choices, found.not_read, found.mended)


def _csv(data: bytes, wishes: Wishes) -> Taken:
    found = csv_points.read_csv(data)
    return Taken("csv", found.what, _stood(found.what), Choices("mm"), found.not_read, found.mended)


def _problem(data: bytes, wishes: Wishes) -> Taken:
    found = problem_pieces.read_problem_pieces(data)
    return Taken("problem", found.what, _stood(found.what), Choices("mm"), found.not_read, found.mended)


def _stood(pieces: Sequence[PieceRead]) -> tuple[tuple[Point, ...], ...]:
    """The outlines of pieces that were told in numbers, side by side."""
    out = []
    for one in standing(pieces):
        ring = one.run(outline_of(one.read.draft))
        out.append(tuple((x, -y) for x, y in (*ring, ring[0])))
    return tuple(out)


_READERS: dict[str, Callable[[bytes, Wishes], Taken]] = {
    "svg": _svg,
    "dxf": _dxf,
    "pdf": _pdf,
    "csv": _csv,
    "problem": _problem,
}
