"""Pattern pieces as CSV (RFC 4180): one row for each point of an outline, or for each station read along a tape.

Points: ``piece, along, across, smooth, straight, allowance``. Stations: ``piece, along, left, right, corners``.
Lengths are millimetres, or say their unit (“3 1/8 in”). How a piece is cut stands in the first of its rows: ``copies,
pair, half, grain, one way, add, includes``; the ends of its arrow, its notches and marks in rows of their own kind.
"""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Mapping, Sequence

from ..core.plan.draft import MARKS, PLACES, Draft, DraftPoint, Mark, Notch, halved, keyed
from ..core.plan.drawn import HowCut
from ..core.plan.outline import BadPiece, Point
from ..core.plan.piece import GRAINS, Grain
from ..core.plan.stations import Corners, Station, points_from_stations
from ..core.units import BadEntry, read_length
from .audit import Found, Unreadable
from .cell import plain, unplain
from .drawn_pieces import PieceRead, Remarks, check_read

MAX_BYTES = 4_000_000
MAX_ROWS = 20_000
COLUMNS = ("piece", "row", "along", "across", "smooth", "straight", "allowance", "name",
           "copies", "pair", "half", "grain", "one way", "add", "no allowance", "shorter", "includes",
           "size")  # fmt: skip
#: Rows of these kinds are not points.
_TAIL, _HEAD, _NOTCH, _DOUBLE = "arrow tail", "arrow head", "notch", "double notch"
_YES = {"yes", "1", "true", "x", "y"}


class BadCsv(Unreadable):
    """A table that cannot be read; the message is a sentence."""


Row = Mapping[str, str]


def read_csv(data: bytes) -> Found[tuple[PieceRead, ...]]:
    """Pieces from a table of points or stations. Raises :class:`BadCsv`."""
    if len(data) > MAX_BYTES:
        raise BadCsv(f"The table is larger than {MAX_BYTES // 1_000_000} MB.")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", "replace")
    if "\0" in text:
        raise BadCsv("This is not a table in text.")
    head = text[: text.find("\n")] if "\n" in text else text
    cut_by = max(",;\t", key=head.count)
    try:
        rows = list(csv.DictReader(io.StringIO(text), delimiter=cut_by, strict=True))
    except csv.Error as fault:
        raise BadCsv(f"The table breaks off: {fault}.") from None
    if len(rows) > MAX_ROWS:
        raise BadCsv(f"The table has more than {MAX_ROWS} rows.")
    named = [{(k or "").strip().lower(): (v or "").strip() if isinstance(v, str) else "" for k, v in row.items()}
             for row in rows]  # fmt: skip
    known = set(named[0]) if named else set()
    if "along" not in known or not known & {"across", "left"}:
        raise BadCsv("The first row must name the columns: piece, along, across for points; piece, along, left, right "
                     "for stations read along a tape.")  # fmt: skip
    remarks = Remarks()
    for column in sorted(known - {*COLUMNS, "left", "right", "corners", ""}):
        remarks.skip("column", f"the column “{column[:40]}”", "is not known here")
    groups: dict[str, list[tuple[int, Row]]] = {}
    for number, row in enumerate(named, start=2):
        groups.setdefault(unplain(row.get("piece") or "piece"), []).append((number, row))
    found = []
    for name, of in groups.items():
        try:
            read = _piece(name[:80], of)
            check_read(read)
            found.append(read)
        except (BadPiece, BadEntry) as fault:
            remarks.skip("cannot_be_cut", name[:80], str(fault))
    if not found and not remarks.not_read:
        raise BadCsv("There is no row of a piece in this table.")
    return Found(tuple(found), tuple(remarks.not_read))


def _length(row: Row, column: str, number: int) -> float:
    text = row.get(column, "")
    try:
        value = float(text)
    except ValueError:
        try:
            sign = -1.0 if text.startswith("-") else 1.0
            value = sign * read_length(text.removeprefix("-"))
        except BadEntry as fault:
            raise BadEntry(f"row {number}, {column}: {fault}") from None
    if not math.isfinite(value) or abs(value) > 1e5:
        raise BadEntry(f"row {number}, {column}: “{text[:20]}” is no length a piece can have.")
    return value


def _piece(name: str, rows: Sequence[tuple[int, Row]]) -> PieceRead:
    first = rows[0][1]
    half = first.get("half", "").lower() in _YES
    if "across" not in first or (first.get("left") and not first.get("across")):
        draft = _stations(rows, half)
    else:
        draft = _points(rows, half)
    grain: Grain = next((one for one in GRAINS if one == first.get("grain")), "lengthwise")
    number = rows[0][0]
    copies = first.get("copies") or "1"
    if not copies.isdigit():
        raise BadEntry(f"row {number}, copies: “{copies[:20]}” is no number.")
    how = HowCut(
        int(copies[:6]), first.get("pair", "").lower() in _YES, half, grain, first.get("one way", "").lower() in _YES,
        _length(first, "add", number) if first.get("add") else 0.0, first.get("no allowance", "").lower() in _YES,
        _length(first, "shorter", number) if first.get("shorter") else 0.0,
    )  # fmt: skip
    return PieceRead(name, draft, how, (), unplain(first.get("size", ""))[:20])


def _stations(rows: Sequence[tuple[int, Row]], half: bool) -> Draft:
    corners: dict[str, Corners] = {"left": "left", "right": "right", "both": "both"}
    told = [
        Station(
            _length(row, "along", n),
            _length(row, "left", n) if row.get("left") else None,
            _length(row, "right", n) if row.get("right") else None,
            corners.get(row.get("corners", "").lower(), ""),
        )
        for n, row in rows
    ]
    return Draft(points_from_stations(told, smooth=True, half=half), half)


def _points(rows: Sequence[tuple[int, Row]], half: bool) -> Draft:
    points: list[DraftPoint] = []
    ends: dict[str, Point] = {}
    notches: list[tuple[int, float, bool]] = []
    marks: dict[tuple[str, str], list[Point]] = {}
    for number, row in rows:
        kind = row.get("row", "").lower()
        if kind in (_NOTCH, _DOUBLE):
            # after which point, and how far along the outline from there
            notches.append((int(_length(row, "name", number)), _length(row, "along", number), kind == _DOUBLE))
            continue
        at = (_length(row, "along", number), _length(row, "across", number))
        if kind in (_TAIL, _HEAD):
            ends[kind] = at
        elif kind in ("", "point of the outline"):
            wide = _length(row, "allowance", number) if row.get("allowance") else None
            points.append(DraftPoint(*at, row.get("smooth", "").lower() in _YES,
                                     row.get("straight", "").lower() in _YES, wide))  # fmt: skip
        else:
            marks.setdefault((kind.removeprefix("mark "), unplain(row.get("name", ""))[:40]), []).append(at)
    arrow = (ends[_TAIL], ends[_HEAD]) if len(ends) == 2 else None
    first = rows[0][1]
    included = _length(first, "includes", rows[0][0]) if first.get("includes") else 0.0
    found = []
    for (kind, name), places in marks.items():
        known = next((one for one in MARKS if one == kind), None)
        if known is None or len(places) % PLACES[known]:
            raise BadEntry(f"“{kind[:20]}” is no mark that is known, or has not as many rows as it has places.")
        size = PLACES[known]
        found += [Mark(known, tuple(places[k : k + size]), name) for k in range(0, len(places), size)]
    ring = keyed(points)
    draft = Draft(ring, half, arrow, included, tuple(Notch(a, at, double) for a, at, double in notches), tuple(found))
    return halved(draft) if half else draft


def write_csv(pieces: Sequence[PieceRead]) -> str:
    """The pieces as a table of points, in millimetres. Of a piece in several sizes the drafted one is written."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS)
    writer.writeheader()
    for read in pieces:
        draft, how = read.draft, read.how
        order = {point.key: number for number, point in enumerate(draft.points, start=1)}
        for number, point in enumerate(draft.points):
            row: dict[str, object] = {
                "piece": plain(read.name), "along": round(point.along, 4), "across": round(point.across, 4),
                "smooth": "yes" if point.smooth else "", "straight": "yes" if point.straight else "",
                "allowance": "" if point.allowance is None else f"{point.allowance:g}",
            }  # fmt: skip
            if number == 0:
                row |= {
                    "copies": how.copies, "pair": "yes" if how.pair else "", "half": "yes" if draft.half else "",
                    "grain": how.grain, "one way": "yes" if how.one_way else "", "add": f"{how.seam:g}",
                    "no allowance": "yes" if how.bare else "",
                    "shorter": f"{how.shorter:g}" if how.shorter else "", "includes": f"{draft.included:g}",
                    "size": plain(read.size),
                }  # fmt: skip
            writer.writerow(row)
        for kind, at in zip((_TAIL, _HEAD), draft.arrow or (), strict=False):
            writer.writerow(
                {"piece": plain(read.name), "row": kind, "along": round(at[0], 4), "across": round(at[1], 4)}
            )
        for notch in draft.notches:
            kind = _DOUBLE if notch.double else _NOTCH
            writer.writerow(
                {"piece": plain(read.name), "row": kind, "along": round(notch.at, 4), "name": order.get(notch.after, 1)}
            )
        for mark in draft.marks:
            for x, y in mark.places:
                writer.writerow({"piece": plain(read.name), "row": f"mark {mark.kind}", "along": round(x, 4),
                                 "across": round(y, 4), "name": plain(mark.name)})  # fmt: skip
    return out.getvalue()
