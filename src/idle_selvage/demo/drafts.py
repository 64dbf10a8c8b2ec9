"""Pattern drafts of the demo, worked out from a few body and style measures, in millimetres.

``python -m idle_selvage.demo.drafts`` writes the overshirt as the example drawing of docs/svg-pieces.md.
"""

from __future__ import annotations

from dataclasses import dataclass
from xml.sax.saxutils import escape

#: (along, left, right) in millimetres
Stations = list[tuple[float, float, float]]


def gore(*, waist: float, hip: float, hem: float, length: float, panels: int = 6, hip_depth: float = 200.0) -> Stations:
    """One gore of a skirt of ``panels`` equal gores, without seam allowance, grain down its middle."""
    w, h, f = (girth / panels / 2 for girth in (waist, hip, hem))
    knee = length - hip_depth
    return [
        (0, f, f),
        (knee * 0.5, (f + h) / 2 - 4, (f + h) / 2 - 4),
        (knee, h, h),
        (length - hip_depth * 0.4, (w + h) / 2 + 3, (w + h) / 2 + 3),
        (length, w, w),
    ]


def strip(length: float, width: float) -> Stations:
    """A straight strip with its grain along it."""
    return [(0, width / 2, width / 2), (length, width / 2, width / 2)]


def slip_panel(*, bust: float, hip: float, hem: float, length: float) -> Stations:
    """Front or back of a slip, whole, grain down the middle (it is then laid on the bias)."""
    b, h, f = bust / 4, hip / 4, hem / 4
    return [
        (0, f, f),
        (length * 0.45, h + 6, h + 6),
        (length * 0.72, b * 0.88, b * 0.88),
        (length * 0.9, b, b),
        (length, b * 0.62, b * 0.62),
    ]


@dataclass(frozen=True)
class Drawn:
    """A piece of a drawing: path data and lines in its own corner, top upwards, with what it says."""

    name: str
    says: str
    path: str
    width: float
    height: float
    grain: tuple[float, float, float, float]
    fold: tuple[float, float, float, float] | None = None
    marks: str = ""


def _box(name: str, says: str, width: float, height: float) -> Drawn:
    return Drawn(
        name, says, f"M0,0 H{width:g} V{height:g} H0 Z", width, height, (width / 2, height - 15, width / 2, 15)
    )


def overshirt(
    *, chest: float = 1180.0, length: float = 700.0, sleeve: float = 500.0, neck: float = 400.0
) -> list[Drawn]:
    """A boxy overshirt with a yoke-less back on the fold. Seam allowances are to be added by the reader."""
    half = chest / 4
    armhole = 250.0
    nw, nd = neck / 5 - 5, neck / 5
    slope = 42.0
    seam = "add seam 15 mm"
    back = (
        f"M0,18 C{nw * 0.5:g},18 {nw:g},12 {nw:g},0 L{half - 18:g},{slope:g} "
        f"C{half - 30:g},{armhole * 0.55:g} {half - 22:g},{armhole - 25:g} {half:g},{armhole:g} "
        f"L{half:g},{length:g} L0,{length:g} Z"
    )
    band = 32.0
    front = (
        f"M0,{nd:g} L{band:g},{nd:g} C{band + nw * 0.55:g},{nd:g} {band + nw:g},{nd * 0.6:g} {band + nw:g},0 "
        f"L{band + half - 18:g},{slope:g} C{band + half - 42:g},{armhole * 0.6:g} "
        f"{band + half - 34:g},{armhole - 20:g} {band + half:g},{armhole:g} "
        f"L{band + half:g},{length:g} L0,{length:g} Z"
    )
    # its head is a little longer than both armholes together
    top, cuff = 395.0, 290.0
    cap = 90.0
    arm = (
        f"M0,{cap:g} C{top * 0.2:g},{cap:g} {top * 0.28:g},0 {top / 2:g},0 C{top * 0.72:g},0 {top * 0.8:g},{cap:g} "
        f"{top:g},{cap:g} L{(top + cuff) / 2:g},{cap + sleeve:g} L{(top - cuff) / 2:g},{cap + sleeve:g} Z"
    )
    collar = f"M0,12 C{neck * 0.25:g},0 {neck * 0.75:g},0 {neck:g},12 L{neck + 14:g},72 L-14,72 Z"
    pocket = "M0,0 H130 V125 L65,150 L0,125 Z"
    breast = _point("Pocket", band + half * 0.46, armhole - 20)
    return [
        Drawn(
            "Back", f"{seam}", back, half, length, (half * 0.45, length - 60, half * 0.45, 90), (0, length - 40, 0, 40)
        ),
        Drawn(
            "Front",
            f"copies 2, pair, {seam}",
            front,
            band + half,
            length,
            (half * 0.55, length - 60, half * 0.55, 150),
            marks=breast,
        ),
        Drawn("Sleeve", f"copies 2, pair, {seam}", arm, top, cap + sleeve, (top / 2, cap + sleeve - 40, top / 2, 60)),
        Drawn("Collar", "copies 2, cross-grain, add seam 10 mm", collar, neck + 14, 72, (neck / 2, 66, neck / 2, 8)),
        _box("Collar stand", "copies 2, cross-grain, add seam 10 mm", neck + 2 * band, 34),
        _box("Cuff", "copies 4, add seam 10 mm", 68, cuff + 10),
        Drawn("Pocket", "copies 2, add seam 10 mm", pocket, 130, 150, (65, 140, 65, 12)),
    ]


def waistcoat(*, bust: float = 960.0, length: float = 560.0) -> list[Drawn]:
    """A notched waistcoat: pair of fronts with lapels and points, back on the fold, facings, an under collar whose
    printed arrow lies on the bias, welts. Seam allowances are to be added by the reader."""
    half = bust / 4
    arm = 230.0
    shoulder = 105.0
    neck = 78.0
    seam = "add seam 15 mm"
    # the lapel reaches so far over the front edge, with a notch where the collar meets it
    lap = 42.0
    edge = lap + half + 18
    lapel = (
        f"M{lap:g},{length * 0.47:g} C{lap - 16:g},{length * 0.38:g} {lap - 36:g},{length * 0.3:g} 0,{length * 0.2:g} "
        f"L{lap + neck * 0.42:g},{length * 0.17:g} L{lap + neck * 0.5:g},{length * 0.125:g} L{lap + neck:g},0 "
    )
    front = (
        f"{lapel}L{lap + neck + shoulder:g},32 C{lap + neck + shoulder - 22:g},{arm * 0.55:g} "
        f"{edge - 46:g},{arm - 12:g} {edge:g},{arm:g} L{edge - 8:g},{length - 45:g} "
        f"L{lap + half * 0.45:g},{length - 62:g} L{lap + half * 0.22:g},{length:g} L{lap:g},{length - 55:g} Z"
    )
    back = (
        f"M0,14 C{neck * 0.5:g},14 {neck:g},10 {neck:g},0 L{neck + shoulder:g},30 "
        f"C{neck + shoulder - 14:g},{arm * 0.6:g} {half - 30:g},{arm - 8:g} {half:g},{arm:g} "
        f"L{half - 8:g},{length - 45:g} L0,{length - 50:g} Z"
    )
    facing = (
        f"{lapel}L{lap + neck + 42:g},12 L{lap + 62:g},{length * 0.5:g} L{lap + 62:g},{length - 60:g} "
        f"L{lap:g},{length - 55:g} Z"
    )
    under_collar = "M0,16 C50,2 110,0 168,10 L176,58 C120,44 60,46 12,62 Z"
    middle = lap + half * 0.5
    marks = "".join(
        (
            _line("notch", edge - 6, (arm + length) / 2, edge + 2, (arm + length) / 2),
            _line("button-line", lap + 16, length * 0.5, lap + 16, length - 70),
            f'    <polyline class="dart" points="{middle - 11:g},{length * 0.78:g} {middle:g},{length * 0.5:g} '
            f'{middle + 11:g},{length * 0.78:g}" fill="none" stroke="#23272E"/>\n',
        )
    )
    back_notch = _line("notch", half - 12, (arm + length) / 2, half - 2, (arm + length) / 2)
    return [
        Drawn(
            "Front",
            f"copies 2, pair, {seam}",
            front,
            edge,
            length,
            (lap + half * 0.3, length - 90, lap + half * 0.3, 140),
            marks=marks,
        ),
        Drawn(
            "Back",
            f"{seam}",
            back,
            half,
            length - 50,
            (half * 0.5, length - 100, half * 0.5, 90),
            (0, length - 90, 0, 40),
            back_notch,
        ),
        Drawn(
            "Facing",
            f"copies 2, pair, {seam}",
            facing,
            lap + neck + 42,
            length,
            (lap + 30, length - 80, lap + 30, length * 0.55),
        ),
        Drawn("Under collar", "copies 2, pair, add seam 10 mm", under_collar, 176, 62, (74, 46, 106, 14)),
        _box("Pocket welt", "copies 4, add seam 10 mm", 130, 44),
        _box("Back belt", "copies 4, add seam 10 mm", 46, 260),
    ]


def check_waistcoat(*, bust: float = 980.0, length: float = 560.0) -> list[Drawn]:
    """A buttoned waistcoat with patch pockets, flaps and a flat collar; its front edge is the centre front with what
    laps over. Seam allowances are to be added by the reader."""
    half = bust / 4
    arm, shoulder, neck = 230.0, 105.0, 78.0
    seam = "add seam 15 mm"
    side = f"L{half:g},{arm:g} L{half - 6:g},{length:g} L0,{length:g} Z"
    armhole = (
        f"L{neck + shoulder:g},32 C{neck + shoulder - 18:g},{arm * 0.58:g} {half - 38:g},{arm - 10:g} {half:g},{arm:g}"
    )
    opening = f"C{neck * 0.3:g},{length * 0.2:g} {neck * 0.8:g},{length * 0.08:g} {neck:g},0"
    front = f"M0,{length * 0.34:g} {opening} {armhole} {side}"
    back = f"M0,16 C{neck * 0.5:g},16 {neck:g},12 {neck:g},0 {armhole} {side}"
    middle, down = half * 0.52, length * 0.66
    marks = _point("Pocket", middle, down) + _point("Flap", middle, down - 14)
    collar = "M0,0 H172 L160,58 L0,62 Z"
    return [
        Drawn("Back", seam, back, half, length, (half * 0.5, length - 60, half * 0.5, 120), (0, length - 60, 0, 80)),
        Drawn("Front", f"copies 2, pair, {seam}", front, half, length, (half * 0.5, length - 60, half * 0.5, 260),
              marks=marks),
        Drawn("Collar", "copies 2, add seam 10 mm", collar, 172, 62, (60, 52, 60, 12), (0, 56, 0, 6)),
        _box("Pocket", "copies 2, add seam 10 mm", 112, 124),
        _box("Flap", "copies 4, add seam 10 mm", 116, 44),
    ]  # fmt: skip


def _point(name: str, x: float, y: float) -> str:
    return f'    <circle class="point" cx="{x:g}" cy="{y:g}" r="2"><title>{name}</title></circle>\n'


def _line(kind: str, x1: float, y1: float, x2: float, y2: float) -> str:
    return f'    <line class="{kind}" x1="{x1:g}" y1="{y1:g}" x2="{x2:g}" y2="{y2:g}" stroke="#23272E"/>\n'


def drawing(pieces: list[Drawn], title: str) -> str:
    """The pieces side by side on one SVG sheet, by the convention of docs/svg-pieces.md."""
    gap = 40.0
    x = gap
    body = []
    for piece in pieces:
        slug = piece.name.lower().replace(" ", "-")
        a, b, c, d = piece.grain
        lines = f'    <line class="grainline" x1="{a:g}" y1="{b:g}" x2="{c:g}" y2="{d:g}" stroke="#2A3B6B"/>\n'
        if piece.fold:
            e, f, g, h = piece.fold
            ends = f'x1="{e:g}" y1="{f:g}" x2="{g:g}" y2="{h:g}"'
            lines += f'    <line class="fold-edge" {ends} stroke="#A1362B"/>\n'
        body.append(
            f'  <g id="{slug}" class="piece" transform="translate({x:g},{gap:g})">\n'
            f"    <title>{escape(piece.name)}</title>\n"
            f'    <path d="{piece.path}" fill="none" stroke="#23272E"/>\n{lines}{piece.marks}'
            f'    <text x="8" y="{piece.height / 2:g}" font-size="14">{escape(piece.says)}</text>\n  </g>\n'
        )
        x += piece.width + gap
    high = max(p.height for p in pieces) + 2 * gap
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{x:g}mm" height="{high:g}mm" viewBox="0 0 {x:g} {high:g}">\n'
        f"  <title>{escape(title)}</title>\n{''.join(body)}</svg>\n"
    )


if __name__ == "__main__":
    print(drawing(overshirt(), "Overshirt, pieces for reading in"), end="")
