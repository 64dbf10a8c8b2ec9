"""Pattern pieces as an SVG drawing, by the same habits by which they are read (docs/svg-pieces.md)."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import replace
from xml.sax.saxutils import escape, quoteattr

from ..core.plan.draft import DraftPoint, outline_of
from ..core.plan.outline import Point
from .drawn_drafts import DRAFTED, LINES
from .drawn_pieces import PieceRead
from .upright import Standing, drafted_size, grain_of, notches_of, sewn_along, standing

_EDGE = 20.0
_CLASSES = {kind: name for name, kind in LINES.items()}


def write_svg(pieces: Sequence[PieceRead], *, title: str = "Pattern pieces") -> str:
    """The drawing: one user unit is one millimetre. Raises :class:`~.core.plan.outline.BadPiece`."""
    stood = list(standing(pieces))
    body, places = [], [(0.0, 0.0)]
    for one in stood:
        lines, there = _piece(one)
        body += lines
        places += there
    x0, x1 = min(x for x, _ in places) - _EDGE, max(x for x, _ in places) + _EDGE
    y0, y1 = min(y for _, y in places) - _EDGE, max(y for _, y in places) + _EDGE
    box = f"{x0:.3f} {-y1:.3f} {x1 - x0:.3f} {y1 - y0:.3f}"
    return "\n".join(
        [
            '<?xml version="1.0" encoding="UTF-8"?>',
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{x1 - x0:.3f}mm" height="{y1 - y0:.3f}mm" '
            f'viewBox="{box}" font-family="sans-serif" fill="none" stroke="#23272e" stroke-width="0.5">',
            f"<title>{escape(title)}</title>",
            *body,
            "</svg>",
            "",
        ]
    )


def _piece(one: Standing) -> tuple[list[str], list[Point]]:
    read, draft = one.read, one.read.draft
    out = [f'<g class="{" ".join(["piece", *_words(read)])}"><title>{escape(read.name)}</title>']
    places: list[Point] = []
    rings, base = [(outline_of(draft), draft.points, "")], ""
    if read.sizes:
        rings = []
        base = drafted_size(read)
        for told in read.sizes:
            points = _at(draft.points, told.places)
            rings.append((outline_of(replace(draft, points=points)), points, told.size))
    for ring, points, size in rings:
        run = one.run(ring)
        places += run
        name = "cut-line" if not size else f"size {DRAFTED}" if size == base else "size"
        named = f" data-size={quoteattr(size)}" if size else ""
        rows = json.dumps([_row(one, p) for p in points], separators=(",", ":"))
        out.append(f'<polygon class="{name}"{named} points="{_run(run)}" data-points={quoteattr(rows)}/>')
    seam = sewn_along(read) if not read.sizes else None
    if seam is not None:
        out.append(f'<polygon class="seam-line" points="{_run(one.run(seam))}" stroke-dasharray="4 2"/>')
    out += _lines(one)
    middle = one.place(_middle(rings[0][0]))
    out.append(
        f'<text x="{middle[0]:.3f}" y="{-middle[1]:.3f}" font-size="12" text-anchor="middle" stroke="none" '
        f'fill="#23272e">{escape(read.name)}</text></g>'
    )
    return out, places


def _words(read: PieceRead) -> list[str]:
    how = read.how
    grain = {"lengthwise": [], "crosswise": ["cross-grain"], "bias": ["bias"], "any": ["any-grain"]}[how.grain]
    return [
        f"copies-{how.copies}",
        *(["pair"] if how.pair else []),
        *grain,
        *(["one-way"] if how.one_way else []),
        *(["no-allowance"] if how.bare else []),
        *([f"add-{how.seam:g}mm"] if how.seam > 0 else []),
        *([f"shorter-{how.shorter:g}mm"] if how.shorter > 0 else []),
        *([f"includes-{read.draft.included:g}mm"] if read.draft.included > 0 else []),
        *([f"drawn-in-{read.size}"] if read.size else []),
    ]


def _at(points: Sequence[DraftPoint], places: Sequence[Point]) -> tuple[DraftPoint, ...]:
    return tuple(replace(p, along=x, across=y) for p, (x, y) in zip(points, places, strict=True))


def _row(one: Standing, point: DraftPoint) -> list[object]:
    x, y = one.place(point.at)
    return [round(x, 4), round(-y, 4), int(point.smooth), int(point.straight), point.allowance, point.ends, point.key]


def _lines(one: Standing) -> list[str]:
    draft = one.read.draft
    arrow, printed = grain_of(draft)
    out = [_line(f"grainline{'' if printed else ' unmarked'}", one.run(arrow))]
    if draft.half:
        on_fold = [x for x, y in outline_of(draft) if abs(y) <= 0.1]
        out.append(_line("fold-edge", one.run([(min(on_fold), 0.0), (max(on_fold), 0.0)])))
    for place, way, double in notches_of(draft):
        tick = [(place[0] - 3 * way[0], place[1] - 3 * way[1]), (place[0] + 3 * way[0], place[1] + 3 * way[1])]
        out.append(_line("double-notch" if double else "notch", one.run(tick)))
    for mark in draft.marks:
        level = mark.kind == "level"
        name = "level" if level else _CLASSES.get(mark.kind, "point")
        named = f" data-level={quoteattr(mark.name)}" if level else ""
        run = one.run(mark.places)
        titled = f"<title>{escape(mark.name)}</title>" if mark.name and not level else ""
        if len(run) == 1:
            (x, y) = run[0]
            out.append(f'<circle class="{name}"{named} cx="{x:.4f}" cy="{-y:.4f}" r="1">{titled}</circle>')
        else:
            out.append(f'<polyline class="{name}" points="{_run(run)}">{titled}</polyline>')
    return out


def _line(name: str, run: Sequence[Point]) -> str:
    (ax, ay), (bx, by) = run
    return f'<line class="{name}" x1="{ax:.4f}" y1="{-ay:.4f}" x2="{bx:.4f}" y2="{-by:.4f}"/>'


def _run(points: Sequence[Point]) -> str:
    return " ".join(f"{x:.4f},{-y:.4f}" for x, y in points)


def _middle(ring: Sequence[Point]) -> Point:
    return sum(x for x, _ in ring) / len(ring), sum(y for _, y in ring) / len(ring)
