"""Shapes at their true size as one SVG, in millimetres."""

from __future__ import annotations

from collections.abc import Sequence
from xml.sax.saxutils import escape

from ..core.plan.outline import Point
from .pdf_tiles import TileShape

_BORDER = 20.0


def write_true_svg(shapes: Sequence[TileShape], *, title: str) -> str:
    """The shapes as SVG text: one user unit is one millimetre, along to the right, seen from the face."""
    xs = [x for shape in shapes for x, _ in shape.outline]
    ys = [y for shape in shapes for _, y in shape.outline]
    wide, high = max(xs) - min(xs) + 2 * _BORDER, max(ys) - min(ys) + 2 * _BORDER
    box = f"{min(xs) - _BORDER:.3f} {-max(ys) - _BORDER:.3f} {wide:.3f} {high:.3f}"
    out = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{high:.3f}mm" viewBox="{box}" '
        'font-family="sans-serif" fill="none" stroke="#23272e">',
        f"<title>{escape(title)}</title>",
    ]
    for shape in shapes:
        middle = (
            sum(x for x, _ in shape.outline) / len(shape.outline),
            sum(y for _, y in shape.outline) / len(shape.outline),
        )
        out.append(f'<g class="piece"><title>{escape(shape.name)}</title>')
        out.append(f'<polygon class="cut" points="{_run(shape.outline)}" stroke-width="0.6"/>')
        out += [f'<polyline class="mark" points="{_run(line)}" stroke-width="0.4"/>' for line in shape.lines]
        if shape.arrow is not None:
            out.append(f'<polyline class="grainline" points="{_run(shape.arrow)}" stroke-width="0.4"/>')
        out.append(
            f'<text x="{middle[0]:.3f}" y="{-middle[1]:.3f}" font-size="12" text-anchor="middle" stroke="none" '
            f'fill="#23272e">{escape(shape.name)}</text></g>'
        )
    out.append("</svg>")
    return "\n".join(out) + "\n"


def _run(points: Sequence[Point]) -> str:
    return " ".join(f"{x:.3f},{-y:.3f}" for x, y in points)
