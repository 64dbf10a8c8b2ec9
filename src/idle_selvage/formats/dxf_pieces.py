"""Pattern pieces from and to DXF, as practice has them: a block for each piece and size, its lines on numbered layers.

The numbers of the layers and the texts of a block (“Piece Name: …”, “Size: …”, “Quantity: …”) are those of ASTM D6673
and of the apparel makers' association before it, from memory. Files are read and written by ezdxf.
"""

from __future__ import annotations

import io
import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from itertools import islice
from typing import Any

from ..core.plan.draft import ENDS, DraftPoint, Ends, outline_of
from ..core.plan.outline import Point
from ..core.units import MM_PER_INCH
from .audit import Found, Unreadable
from .drawn_drafts import LINES, Drawn, Shape, all_sizes
from .drawn_pieces import PieceRead, Remarks, read_piece, says_something
from .gather import gathered, ring_area
from .unit_guess import guessed_unit
from .upright import Standing, drafted_size, grain_of, notches_of, sewn_along, standing, ticks

MAX_BYTES = 20_000_000
#: ezdxf takes a second for ten thousand.
MAX_ENTITIES = 40_000
MOST_DEEP = 8
#: Nothing lies further off than this, in the file's unit.
FARTHEST = 1e7
#: Curves become chords that stray from them by at most this.
FLATNESS_MM = 0.02
#: What stands in a DXF file before every entity.
_ENTITY = re.compile(rb"(?m)^[ \t]*0[ \t]*\r?\n[ \t]*[A-Z]")

CUT, TURN, CURVE, NOTCH, MIRROR, GRAIN, INSIDE, DRILL, SEW, TEXT = "1", "2", "3", "4", "6", "7", "8", "13", "14", "15"
#: What else a layer may be called, and the number it stands for.
_NAMED: tuple[tuple[str, str], ...] = (
    ("sew", SEW), ("seam", SEW), ("stitch", SEW), ("cut", CUT), ("bound", CUT), ("outline", CUT), ("notch", NOTCH),
    ("grain", GRAIN), ("mirror", MIRROR), ("fold", MIRROR), ("drill", DRILL), ("point", DRILL), ("intern", INSIDE),
    ("text", TEXT), ("annot", TEXT),
)  # fmt: skip
#: Units of length by their number in the header ($INSUNITS), mm; 0: not said.
UNITS: dict[int, tuple[str, float]] = {
    1: ("in", MM_PER_INCH), 2: ("ft", 12 * MM_PER_INCH), 4: ("mm", 1.0), 5: ("cm", 10.0), 6: ("m", 1000.0),
}  # fmt: skip
#: A turn or curve point lies on the outline when it is no further off, mm.
SAME_PLACE_MM = 0.01
#: A word by which a block tells in which size the piece is drafted.
_SAMPLE = "sample-size-"
#: Under this name a file keeps what its layers cannot tell.
APP = "IDLE_SELVAGE"


class BadDxf(Unreadable):
    """A file that is no DXF that can be read; the message is a sentence."""


@dataclass
class _Block:
    """What one block, or the sheet itself, shows: runs by layer, points by layer, texts."""

    name: str
    runs: list[tuple[str, list[Point], bool, str, str]] = field(default_factory=list)
    points: list[tuple[str, Point, str, str]] = field(default_factory=list)
    texts: list[tuple[str, Point]] = field(default_factory=list)

    @property
    def empty(self) -> bool:
        return not self.runs


@dataclass(frozen=True)
class DxfRead:
    """Pieces, the unit they were read in (its name, and whether the file says so), and every line for a picture."""

    pieces: tuple[PieceRead, ...]
    unit: str
    unit_said: bool
    lines: tuple[tuple[Point, ...], ...]


def read_dxf(data: bytes, unit: str | None = None) -> Found[DxfRead]:
    """Pieces from a DXF file. ``unit``: what a length of one is (``mm``, ``cm``, ``in``), whatever the file says.
    Raises :class:`BadDxf`."""
    remarks = Remarks()
    doc = _document(data, remarks)
    said = _unit_said(doc)
    blocks = list(_blocks(doc, remarks))
    of_texts = _unit_in_texts(blocks)
    name, scale = _unit(unit, of_texts, said, blocks)
    if unit is None and of_texts is None and said is None:
        remarks.mend("unit", "the file's unit", f"the file does not say one; by the size of its pieces it is {name}")
    pieces = _pieces([_scaled(block, scale) for block in blocks], remarks)
    lines = tuple(tuple((x * scale, -y * scale) for x, y in run) for block in blocks for _, run, _, _, _ in block.runs)
    if not pieces and not remarks.not_read:
        raise BadDxf("There is no closed outline in this file.")
    known = unit is not None or of_texts is not None or said is not None
    return Found(DxfRead(tuple(pieces), name, known, lines), tuple(remarks.not_read), tuple(remarks.mended))


def _document(data: bytes, remarks: Remarks) -> Any:
    # a second to import, and only this needs it
    import ezdxf
    from ezdxf import recover
    from ezdxf.lldxf.tagger import binary_tags_loader

    if len(data) > MAX_BYTES:
        raise BadDxf(f"The file is larger than {MAX_BYTES // 1_000_000} MB. Save only the pieces and sizes you need.")
    if data[:4] in (b"AC10", b"AC1."):
        raise BadDxf("This is a DWG file. Save it as DXF, which is open, and read that.")
    if sum(1 for _ in zip(_ENTITY.finditer(data), range(MAX_ENTITIES + 1), strict=False)) > MAX_ENTITIES:
        raise BadDxf(f"The file has more than {MAX_ENTITIES} parts. Save only the pieces and sizes you need.")
    try:
        if data.startswith(b"AutoCAD Binary DXF"):
            return ezdxf.document.Drawing.load(binary_tags_loader(data))
        return ezdxf.read(io.StringIO(_text(data), newline=None))
    except Exception:  # noqa: S110
        # whatever a broken file makes of the reader: what can be found in it still is
        pass
    try:
        doc, auditor = recover.read(io.BytesIO(data))
    except Exception:
        raise BadDxf("This is not a DXF file, or it breaks off before there is anything to be read.") from None
    remarks.mend("recovered", "the file", "it is not whole; what could be found in it was read")
    for one in auditor.fixes[:20]:
        remarks.mend("repaired", "the file", str(one.message)[:120])
    return doc


def _text(data: bytes) -> str:
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", "replace")


def _unit_said(doc: Any) -> int | None:
    number = doc.header.get("$INSUNITS", 0)
    return number if number in UNITS else None


def _unit_in_texts(blocks: Sequence[_Block]) -> str | None:
    """By a text “Units: METRIC” or “Units: ENGLISH”."""
    for block in blocks:
        for text, _ in block.texts:
            found = re.match(r"units?\s*:\s*(\w+)", text, re.IGNORECASE)
            if found:
                return {"metric": "mm", "english": "in", "mm": "mm", "cm": "cm", "inch": "in"}.get(found[1].lower())
    return None


def _unit(asked: str | None, of_texts: str | None, said: int | None, blocks: Sequence[_Block]) -> tuple[str, float]:
    sizes = dict(UNITS.values())
    if asked is not None:
        return asked, sizes[asked]
    if of_texts is not None:
        return of_texts, sizes[of_texts]
    if said is not None:
        return UNITS[said]
    return guessed_unit([run for block in blocks for _, run, _, _, _ in block.runs])


def _blocks(doc: Any, remarks: Remarks) -> Iterator[_Block]:
    """A block for each one that is placed on the sheet; else the sheet itself, or blocks nobody placed."""
    sheet = _Block("")
    found = []
    names = []
    for entity in doc.modelspace():
        if entity.dxftype() == "INSERT":
            block = _Block(str(entity.dxf.name))
            names.append(block.name)
            for part in _parts(entity, 0):
                _take(block, part, remarks)
            found.append(block)
        else:
            _take(sheet, entity, remarks)
    if not found and sheet.empty:
        for layout in doc.blocks:
            if not layout.name.startswith("*"):
                block = _Block(str(layout.name))
                for entity in layout:
                    _take(block, entity, remarks)
                found.append(block)
    if not sheet.empty or sheet.texts:
        found.insert(0, sheet)
    yield from (block for block in found if not block.empty or block.texts)


def _parts(insert: Any, deep: int) -> Iterator[Any]:
    if deep > MOST_DEEP:
        return
    try:
        for part in islice(insert.virtual_entities(), MAX_ENTITIES):
            if part.dxftype() == "INSERT":
                yield from _parts(part, deep + 1)
            else:
                yield part
    except Exception:
        return


def _take(block: _Block, entity: Any, remarks: Remarks) -> None:
    from ezdxf.path import make_path

    kind = entity.dxftype()
    # what is no drawing has no layer
    on = str(entity.dxf.get("layer", "0")) if entity.dxf.is_supported("layer") else "0"
    layer = _layer(on)
    try:
        told, name = _own(entity)
        if kind in ("TEXT", "MTEXT", "ATTRIB", "ATTDEF"):
            text = entity.plain_text() if kind == "MTEXT" else entity.dxf.text
            at = entity.dxf.insert
            block.texts.append((" ".join(str(text).split())[:200], (float(at.x), float(at.y))))
        elif kind == "POINT":
            at = entity.dxf.location
            block.points.append((layer, (float(at.x), float(at.y)), told, name))
        else:
            path = make_path(entity)
            # before chords are made of it: of a circle as wide as the sky there would be no end of them
            if not all(abs(c) < FARTHEST for at in path.control_vertices() for c in (at.x, at.y)):
                raise ValueError("out of bounds")
            # one unit may be an inch: chords are made fine for that, too
            run = [(float(p.x), float(p.y)) for p in path.flattening(FLATNESS_MM / MM_PER_INCH, segments=4)]
            if len(run) >= 2 and all(math.isfinite(c) and abs(c) < FARTHEST for p in run for c in p):
                block.runs.append((layer, run, bool(path.is_closed), told, name))
    except Exception:
        remarks.skip("entity", f"{kind} on layer {on}", "not a kind of line that is read")


def _own(entity: Any) -> tuple[str, str]:
    """What a mark is, and its name, where we wrote it."""
    if not entity.has_xdata(APP):
        return "", ""
    said = [str(tag.value) for tag in entity.get_xdata(APP) if tag.code == 1000]
    return (said[0] if said else "", said[1] if len(said) > 1 else "")


def _layer(name: str) -> str:
    if name.strip().isdigit():
        return str(int(name))
    small = name.lower()
    return next((number for word, number in _NAMED if word in small), name)


def _scaled(block: _Block, scale: float) -> _Block:
    def at(place: Point) -> Point:
        return (place[0] * scale, place[1] * scale)

    return _Block(
        block.name,
        [(layer, [at(p) for p in run], closed, told, name) for layer, run, closed, told, name in block.runs],
        [(layer, at(p), told, name) for layer, p, told, name in block.points],
        [(text, at(p)) for text, p in block.texts],
    )


def _pieces(blocks: Sequence[_Block], remarks: Remarks) -> list[PieceRead]:
    sized: dict[str, list[tuple[str, Drawn]]] = {}
    for block in blocks:
        for name, size, drawn in _drawn(block, remarks):
            sized.setdefault(name, []).append((size, drawn))
    out = []
    for name, layers in sized.items():
        several = len({size for size, _ in layers}) > 1
        drafted = next((word.removeprefix(_SAMPLE) for _, one in layers for word in one.words
                        if word.startswith(_SAMPLE)), "")  # fmt: skip
        for drawn in [all_sizes(layers, drafted)] if several else [drawn for _, drawn in layers]:
            read = read_piece(name, drawn, remarks)
            if read is not None:
                out.append(replace(read, size="" if several else read.size or layers[0][0]))
    return out


def _drawn(block: _Block, remarks: Remarks) -> Iterator[tuple[str, str, Drawn]]:
    """What a block shows: one piece; the sheet itself holds as many as it has outlines."""
    cut = [(run, closed) for layer, run, closed, _, _ in block.runs if layer == CUT]
    if not cut:
        # a drawing without numbered layers: whatever closes
        known = {NOTCH, GRAIN, INSIDE, SEW, MIRROR, DRILL}
        cut = [(run, closed) for layer, run, closed, _, _ in block.runs if layer not in known]
    found = gathered([run if not closed or run[0] == run[-1] else [*run, run[0]] for run, closed in cut])
    if found.joined:
        remarks.mend("joined", block.name or "the sheet", f"{found.joined} lines were joined into outlines")
    rings = sorted(found.rings, key=lambda ring: -abs(ring_area(ring)))
    if not rings:
        if not block.empty:
            remarks.skip("open", block.name or "the sheet", "its outline does not close")
        return
    outer = rings[:1] if block.name else _outermost(rings)
    for ring in rings:
        if ring not in outer:
            remarks.skip("inner_outline", f"a line inside {block.name or 'a piece'}", "a piece has one cut line")
    for number, ring in enumerate(outer, start=1):
        yield _one(block, ring, f"piece {number}" if not block.name else block.name, len(outer) == 1, remarks)
    if not block.name:
        for run in found.open:
            if len(run) > 2 or not any(_inside(run[0], ring) for ring in outer):
                remarks.skip("stray_line", "an open line", "not closed, and not inside a piece")


def _outermost(rings: Sequence[tuple[Point, ...]]) -> list[tuple[Point, ...]]:
    out: list[tuple[Point, ...]] = []
    for ring in rings:
        if not any(_inside(ring[0], other) for other in out):
            out.append(ring)
    return out


def _one(block: _Block, ring: tuple[Point, ...], called: str, alone: bool, remarks: Remarks) -> tuple[str, str, Drawn]:
    def here(place: Point) -> bool:
        return alone or _inside(place, ring, by=8.0)

    name, size, words, texts = called, "", [], []
    for text, at in block.texts:
        if not here(at):
            continue
        key, _, value = (part.strip() for part in text.partition(":"))
        small = key.lower()
        if value and small in ("piece name", "piece"):
            name = value
        elif value and small == "size":
            size = value
        elif value and small == "sample size":
            words.append(_SAMPLE + value)
        elif small == "quantity":
            words += _quantity(value)
        elif small in ("annotation", "note") or says_something(text):
            texts.append(value or text)
        elif small not in (
            "units",
            "unit",
            "style",
            "style name",
            "rule table",
            "author",
            "product",
            "creation date",
            "creation time",
            "version",
            "grading method",
            "material",
            "category",
        ):
            if not block.name and alone is False and name == called and ":" not in text:
                name = text
            elif text:
                remarks.skip("text", f"the text “{text[:40]}” in {name}", "says nothing that is known here")
    drawn = Drawn(words, texts, [Shape("", [], _down(ring), True, _told(block, ring))], [], [])
    if size:
        drawn.words.append(f"drawn-in-{size.replace(' ', '-')}")
    for layer, run, _, told, label in block.runs:
        if layer in (CUT, TEXT) or not here(run[0]):
            continue
        kind = told or {NOTCH: "notch", GRAIN: "grainline", MIRROR: "fold-edge", SEW: "seam-line"}.get(layer, "")
        closed = layer == SEW and math.dist(run[0], run[-1]) < 0.01
        shape = Shape(label or kind, [kind, *kind.split()], _down(run[:-1] if closed else run), closed)
        if kind.split()[:1] in (["grainline"], ["fold-edge"]):
            drawn.lines.append(shape)
        elif kind == "seam-line":
            drawn.seams.append(shape)
        elif kind:
            drawn.marks.append(shape)
        elif layer == INSIDE:
            remarks.skip("internal_line", f"a line inside {name}", "the file does not say what it is: mark it by hand")
    for layer, at, told, label in block.points:
        if layer in (TURN, CURVE) or not here(at):
            continue
        kind = told or {NOTCH: "notch", DRILL: "point"}.get(layer, "")
        if kind:
            drawn.marks.append(Shape(label or kind, [kind], _down([at]), False))
    return name[:80], size, drawn


def _quantity(value: str) -> list[str]:
    """“2”; or “1,1”: so many as drawn, so many mirrored."""
    numbers = [int(n) for n in re.findall(r"\d{1,3}", value)]
    if len(numbers) > 1 and numbers[0] == numbers[1] > 0:
        return [f"copies-{sum(numbers[:2])}", "pair"]
    return [f"copies-{numbers[0]}"] if numbers and numbers[0] else []


def _told(block: _Block, ring: Sequence[Point]) -> tuple[DraftPoint, ...]:
    """The points a piece is told by: turn points are corners, curve points smooth, in the order of its outline. What
    goes on straight, and the allowance of an edge, is told beside the points where we wrote them."""
    kinds = [(layer, at, told) for layer, at, told, _ in block.points if layer in (TURN, CURVE)]
    if len(kinds) < 3:
        return ()
    # a quarter of a second to import
    from scipy.spatial import cKDTree

    away, which = cKDTree([at for _, at, _ in kinds]).query(ring)
    out = []
    for (x, y), off, found in zip(ring, away, which, strict=True):
        if off <= SAME_PLACE_MM:
            layer, _, told = kinds[found]
            words = dict(part.split("=", 1) for part in told.split() if "=" in part)
            ends: Ends = next((one for one in ENDS if one == words.get("ends")), "mitre")
            wide = _number(words.get("allowance", ""))
            key = int(_number(words.get("key", "")) or 0)
            out.append(DraftPoint(x, -y, layer == CURVE, "straight=1" in told, wide, ends, key))
    return tuple(out)


def _number(text: str) -> float | None:
    return float(text) if re.fullmatch(r"\d{1,6}(\.\d{1,6})?", text) else None


def _down(run: Sequence[Point]) -> list[Point]:
    """On a sheet whose y runs down."""
    return [(x, -y) for x, y in run]


def _inside(place: Point, ring: Sequence[Point], by: float = 0.0) -> bool:
    from shapely.geometry import Point as Place
    from shapely.geometry import Polygon

    shape = Polygon(ring)
    return bool((shape if shape.is_valid else shape.buffer(0)).distance(Place(place)) <= by)


_KINDS = {kind: name for name, kind in LINES.items()}


def write_dxf(pieces: Sequence[PieceRead]) -> bytes:
    """The pieces as DXF, in millimetres. Raises :class:`~.core.plan.outline.BadPiece`."""
    import ezdxf
    from ezdxf.enums import TextEntityAlignment

    doc = ezdxf.new("R2010", units=4)
    doc.header["$MEASUREMENT"] = 1
    doc.appids.add(APP)
    for layer in (CUT, TURN, CURVE, NOTCH, MIRROR, GRAIN, INSIDE, DRILL, SEW, TEXT):
        doc.layers.add(layer)
    sheet = doc.modelspace()
    text = {"height": 6.0, "layer": TEXT}
    sheet.add_text("Units: METRIC", dxfattribs=text).set_placement((0, -20), align=TextEntityAlignment.LEFT)
    for number, one in enumerate(standing(pieces), start=1):
        for size, points in _sizes(one.read):
            block = doc.blocks.new(f"PIECE_{number}" + (f"_{re.sub(r'[^A-Za-z0-9]', '_', size)}" if size else ""))
            base = drafted_size(one.read)
            _write(block, _in_points(one, points), size, base, text)
            sheet.add_blockref(block.name, (0, 0), dxfattribs={"layer": CUT})
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode("utf-8", "replace")


def _sizes(read: PieceRead) -> list[tuple[str, tuple[DraftPoint, ...]]]:
    if not read.sizes:
        return [(read.size, read.draft.points)]
    out = []
    for size in read.sizes:
        points = tuple(replace(p, along=x, across=y) for p, (x, y) in zip(read.draft.points, size.places, strict=True))
        out.append((size.size, points))
    return out


def _in_points(one: Standing, points: tuple[DraftPoint, ...]) -> Standing:
    """The piece where it stands, in the points of one of its sizes."""
    return replace(one, read=replace(one.read, draft=replace(one.read.draft, points=points)))


def _write(block: Any, one: Standing, size: str, base: str, text: dict[str, Any]) -> None:
    read, draft = one.read, one.read.draft
    ring = one.run(outline_of(draft))
    block.add_lwpolyline(ring, close=True, dxfattribs={"layer": CUT})
    for point in draft.points:
        made = block.add_point(one.place(point.at), dxfattribs={"layer": CURVE if point.smooth else TURN})
        wide = "" if point.allowance is None else f" allowance={point.allowance:g}"
        told = f"straight={int(point.straight)} ends={point.ends} key={point.key}{wide}"
        made.set_xdata(APP, [(1000, told), (1000, "")])
    arrow, printed = grain_of(draft)
    line = block.add_line(*one.run(arrow), dxfattribs={"layer": GRAIN})
    line.set_xdata(APP, [(1000, "grainline" if printed else "grainline unmarked"), (1000, "")])
    if draft.half:
        on_fold = [x for x, y in outline_of(draft) if abs(y) <= 0.1]
        block.add_line(*one.run([(min(on_fold), 0.0), (max(on_fold), 0.0)]), dxfattribs={"layer": MIRROR})
    sewn = sewn_along(read)
    if sewn is not None:
        block.add_lwpolyline(one.run(sewn), close=True, dxfattribs={"layer": SEW})
    if size == base or not read.sizes:
        for place, way, double in notches_of(draft):
            # one tick, from the line inwards and outwards: a double notch says so beside it
            tick = block.add_line(*one.run(ticks(place, way, double=False)[0]), dxfattribs={"layer": NOTCH})
            tick.set_xdata(APP, [(1000, "double-notch" if double else "notch"), (1000, "")])
        for mark in draft.marks:
            kind = f"level-{mark.name}" if mark.kind == "level" else _KINDS.get(mark.kind, "point")
            run = one.run(mark.places)
            made = (
                block.add_point(run[0], dxfattribs={"layer": DRILL})
                if len(run) == 1
                else block.add_lwpolyline(run, dxfattribs={"layer": INSIDE})
            )
            made.set_xdata(APP, [(1000, kind), (1000, mark.name)])
    how = read.how
    said = [f"Piece Name: {read.name}", *([f"Size: {size}"] if size else [])]
    said += [f"Sample Size: {base}"] if base else []
    said.append(f"Quantity: {f'{how.copies // 2},{how.copies // 2}' if how.pair else how.copies}")
    grain = {"lengthwise": "", "crosswise": "cross grain", "bias": "bias", "any": "any grain"}[how.grain]
    for told in (
        grain,
        "one way" if how.one_way else "",
        "no allowance" if how.bare else "",
        f"add {how.seam:g} mm" if how.seam > 0 else "",
        f"shorter {how.shorter:g} mm" if how.shorter > 0 else "",
        f"includes {draft.included:g} mm" if draft.included > 0 else "",
    ):
        if told:
            said.append(f"Annotation: {told}")
    x, y = one.place(grain_of(draft)[0][0])
    for k, line_ in enumerate(said):
        block.add_text(line_, dxfattribs=text).set_placement((x, y - 8 * k))
