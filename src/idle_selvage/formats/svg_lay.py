"""A lay as an SVG at 1:1, in millimetres, with labels; for printing or cutting by."""

from __future__ import annotations

from xml.sax.saxutils import escape

from ..core.lay.drawing import Drawing, PlacedShape
from ..core.lay.table import Line
from ..core.units import System
from ..core.written import length_text

_BORDER = 30.0


def write_svg(drawing: Drawing, *, title: str, system: System) -> str:
    """The drawing as SVG text; one user unit is one millimetre, y turned so that the face looks up."""
    low = min(one.low - one.margins[0] for one in drawing.stretches)
    high = max(one.high + one.margins[1] for one in drawing.stretches)
    width, height = drawing.length + 2 * _BORDER, high - low + 2 * _BORDER
    out = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="{-_BORDER:.3f} {-high - _BORDER:.3f} {width:.3f} {height:.3f}" font-family="sans-serif">',
        f"<title>{escape(title)}</title>",
    ]
    for one in drawing.stretches:
        top, bottom = one.high + one.margins[1], one.low - one.margins[0]
        out.append(
            f'<rect class="cloth" x="{one.start:.3f}" y="{-top:.3f}" width="{one.end - one.start:.3f}" '
            f'height="{top - bottom:.3f}" fill="none" stroke="#8a8478" stroke-width="0.6"/>'
        )
        out += [_line(line) for line in one.lines]
    for area in drawing.kept_off:
        points = " ".join(f"{min(x, drawing.length):.3f},{-y:.3f}" for x, y in area.outline)
        out.append(
            f'<polygon class="kept-off" points="{points}" fill="none" stroke="#a03030" stroke-width="0.6" '
            f'stroke-dasharray="{"6 3" if area.under else "2 2"}"/>'
        )
    out += [_piece(shape, system) for shape in drawing.shapes]
    out.append(
        f'<text x="0" y="{-low + 20:.3f}" font-size="10">{escape(title)}: '
        f"{escape(length_text(drawing.length, system))} long, {escape(length_text(high - low, system))} across. "
        "Printed right when this lay measures so.</text>"
    )
    out.append("</svg>")
    return "\n".join(out) + "\n"


#: How each line of the cloth is drawn: its width and its dashes, mm.
_LINES = {
    "fold": (1.2, "12 4"),
    "cut": (1.0, "none"),
    "meeting line": (0.8, "2 2"),
    "crease": (0.4, "12 4"),
}


def _line(line: Line) -> str:
    (x1, y1), (x2, y2) = line.start, line.end
    wide, dashes = _LINES.get(line.kind, (0.4, "4 3"))
    return (
        f'<line class="{line.kind.replace(" ", "-")}" x1="{x1:.3f}" y1="{-y1:.3f}" x2="{x2:.3f}" y2="{-y2:.3f}" '
        f'stroke="#23272e" stroke-width="{wide}" stroke-dasharray="{dashes}"/>'
    )


def _piece(shape: PlacedShape, system: System) -> str:
    points = " ".join(f"{x:.3f},{-y:.3f}" for x, y in shape.outline)
    (tx, ty), (hx, hy) = shape.tail, shape.head
    mx, my = (tx + hx) / 2, (ty + hy) / 2
    flags = [f"copy {shape.copy}"]
    if shape.layers == 2:
        flags.append("two layers")
    if shape.mirrored:
        flags.append("face down")
    distance = (
        f"{length_text(shape.tail_distance, system)} and {length_text(shape.head_distance, system)} to {shape.edge}"
    )
    arrow = _arrow_head(tx, ty, hx, hy)
    return (
        f'<g class="piece"><title>{escape(shape.piece)}</title>'
        f'<polygon points="{points}" fill="none" stroke="#23272e" stroke-width="0.8"/>'
        f'<line class="grainline" x1="{tx:.3f}" y1="{-ty:.3f}" x2="{hx:.3f}" y2="{-hy:.3f}" stroke="#23272e" '
        f'stroke-width="0.6"/>{arrow}'
        f'<text x="{mx:.3f}" y="{-my - 4:.3f}" font-size="12" text-anchor="middle">{escape(shape.piece)}</text>'
        f'<text x="{mx:.3f}" y="{-my + 12:.3f}" font-size="7" text-anchor="middle">'
        f"{escape(', '.join(flags))}; {escape(distance)}</text></g>"
    )


def _arrow_head(tx: float, ty: float, hx: float, hy: float) -> str:
    long = ((hx - tx) ** 2 + (hy - ty) ** 2) ** 0.5 or 1.0
    ux, uy = (hx - tx) / long, (hy - ty) / long
    back_x, back_y = hx - 8 * ux, hy - 8 * uy
    a, b = (back_x - 3 * uy, back_y + 3 * ux), (back_x + 3 * uy, back_y - 3 * ux)
    return f'<polygon points="{hx:.3f},{-hy:.3f} {a[0]:.3f},{-a[1]:.3f} {b[0]:.3f},{-b[1]:.3f}" fill="#23272e"/>'
