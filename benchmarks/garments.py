"""Our own lay problems for measuring: garments drafted from a seed, curves and all.

Every kind draws its measures from the seed, so that each seed is another body and another taste. Lengths in
millimetres; the grain runs along +x and the top of a piece lies towards +x.
"""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from typing import Any

FORMAT = "idle-selvage/lay-problem/1"
Points = list[list[float]]


def _curve(a: tuple[float, float], b: tuple[float, float], bow: float, steps: int = 8) -> Points:
    """Points from a to b, b left out, bowed to the left of the way by ``bow`` millimetres in the middle."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    long = math.hypot(dx, dy) or 1.0
    nx, ny = -dy / long, dx / long
    made = []
    for k in range(steps):
        t = k / steps
        lift = 4 * t * (1 - t) * bow
        made.append([a[0] + t * dx + lift * nx, a[1] + t * dy + lift * ny])
    return made


def _rounded(outline: Points) -> Points:
    return [[round(x, 2), round(y, 2)] for x, y in outline]


def _piece(name: str, outline: Points, **more: Any) -> dict[str, Any]:
    return {"id": name, "outline": _rounded(outline), **more}


def _box(name: str, long: float, wide: float, **more: Any) -> dict[str, Any]:
    return _piece(name, [[0, 0], [long, 0], [long, wide], [0, wide]], **more)


def _bodice(name: str, long: float, chest: float, neck: float, drop: float, **more: Any) -> dict[str, Any]:
    """A quarter of a top: centre on y = 0, hem at x = 0, neck, shoulder and armhole towards +x."""
    shoulder = (long - 25.0, neck + 0.45 * chest)
    under = (long * 0.66, chest)
    outline = [[0.0, 0.0], [long - drop, 0.0]]
    outline = [[0.0, 0.0], *_curve((long - drop, 0.0), (long, neck), drop * 0.25), [long, neck]]
    outline += _curve(shoulder, under, 0.18 * chest)
    outline += [[under[0], under[1]], [0.0, chest * 1.04]]
    return _piece(name, outline, **more)


def _sleeve(name: str, long: float, wide: float, cap: float, **more: Any) -> dict[str, Any]:
    half = wide / 2
    outline = [[0.0, -half * 0.75], [long - cap, -half]]
    outline = [[0.0, -half * 0.75]]
    outline += _curve((long - cap, -half), (long, 0.0), -cap * 0.12)
    outline += _curve((long, 0.0), (long - cap, half), -cap * 0.16)
    outline += [[long - cap, half], [0.0, half * 0.75]]
    return _piece(name, outline, **more)


def _leg(name: str, long: float, hip: float, hem: float, crotch: float, **more: Any) -> dict[str, Any]:
    """A trouser leg: hem at x = 0, the crotch reaching out at two thirds of the length."""
    rise = long * 0.25
    outline = [[0.0, -hem / 2], *_curve((0.0, -hem / 2), (long - rise, -hip / 2 - crotch), -18.0)[1:]]
    outline += _curve((long - rise, -hip / 2 - crotch), (long, -hip * 0.3), crotch * 0.45)
    outline += [[long, -hip * 0.3], [long - 12.0, hip * 0.42]]
    outline += _curve((long - 12.0, hip * 0.42), (long - rise, hip / 2), -8.0, 4)[1:]
    outline += _curve((long - rise, hip / 2), (0.0, hem / 2), -10.0, 5)
    outline += [[0.0, hem / 2]]
    return _piece(name, outline, **more)


def _gore(name: str, long: float, top: float, hem: float, **more: Any) -> dict[str, Any]:
    outline = [*_curve((0.0, hem / 2), (0.0, -hem / 2), hem * 0.06, 6), [0.0, -hem / 2]]
    return _piece(name, [*outline, [long, -top / 2], [long, top / 2]], **more)


def _collar(name: str, long: float, wide: float, bow: float, **more: Any) -> dict[str, Any]:
    outline = [*_curve((0.0, 0.0), (long, 0.0), bow), [long, 0.0], [long + 12.0, wide]]
    outline += _curve((long + 12.0, wide), (-12.0, wide), -bow * 0.8)[1:]
    return _piece(name, [*outline, [-12.0, wide]], **more)


def shirt(rng: random.Random) -> list[dict[str, Any]]:
    long, chest = rng.uniform(680, 800), rng.uniform(250, 320)
    return [
        _bodice("front", long, chest, 80, 75, copies=2, pair=True),
        _bodice("half back", long - 40, chest, 85, 20, copies=2, pair=True),
        _sleeve("sleeve", rng.uniform(520, 620), rng.uniform(380, 450), 130, copies=2, pair=True),
        _box("yoke", 110, 2 * chest * 0.8, copies=2),
        _collar("collar", 430, 75, 8, copies=2, grain="crosswise"),
        _collar("stand", 460, 38, 6, copies=2, grain="crosswise"),
        _box("cuff", 240, 70, copies=4),
        _piece("pocket", [[0, 0], [20, -15], [140, -15], [140, 115], [20, 115], [0, 100], [-14, 50]], copies=2),
        _box("placket", 170, 48, copies=2),
    ]


def trousers(rng: random.Random) -> list[dict[str, Any]]:
    long, hip = rng.uniform(980, 1120), rng.uniform(250, 300)
    return [
        _leg("front leg", long, hip, rng.uniform(180, 260), 45, copies=2, pair=True),
        _leg("back leg", long + 20, hip + 30, rng.uniform(200, 280), 95, copies=2, pair=True),
        _box("waistband", rng.uniform(760, 940), 80, copies=1),
        _piece("pocket bag", [[0, 0], *_curve((0, 0), (280, 0), -25), [280, 0], [310, 160], [40, 170]], copies=4),
        _box("fly", 190, 60, copies=2),
        _piece("back pocket", [[0, 0], [150, 0], [170, 75], [150, 150], [0, 150]], copies=2),
        _box("loop", 90, 30, copies=5),
    ]


def gored_skirt(rng: random.Random) -> list[dict[str, Any]]:
    long, top = rng.uniform(620, 820), rng.uniform(120, 150)
    gores = rng.choice([6, 8])
    return [
        _gore("gore", long, top, rng.uniform(270, 380), copies=gores),
        _box("waistband", rng.uniform(700, 860), 80, copies=1, grain=rng.choice(["lengthwise", "crosswise"])),
        _box("tie", 420, 60, copies=2),
    ]


def waistcoat(rng: random.Random) -> list[dict[str, Any]]:
    long, chest = rng.uniform(520, 600), rng.uniform(240, 290)
    front: list[list[float]] = [[0, 40], [-70, 130], [20, chest], [long * 0.6, chest * 0.98]]
    front += _curve((long * 0.6, chest * 0.98), (long, 150), -40)[1:]
    front += [[long, 150], [long - 10, 80], [long * 0.5, 0]]
    return [
        _piece("front", front, copies=2, pair=True),
        _bodice("back", long - 20, chest, 80, 25, copies=2, pair=True),
        _piece(
            "front facing",
            [[0, 0], [long * 0.5, -20], [long, 60], [long, 130], [long * 0.5, 70], [0, 90]],
            copies=2,
            pair=True,
        ),
        _box("welt", 120, 50, copies=4, grain="crosswise"),
        _box("strap", 220, 55, copies=2),
        _piece(
            "neck facing",
            [
                [0, 0],
                *_curve((0, 0), (0, 180), -45),
                [0, 180],
                [55, 190],
                *_curve((55, 190), (55, -10), 45)[1:],
                [55, -10],
            ],
            copies=2,
        ),
    ]


def coat(rng: random.Random) -> list[dict[str, Any]]:
    """A lined coat: shell and lining from one cloth."""
    long, chest = rng.uniform(980, 1120), rng.uniform(290, 350)
    made = []
    for what, less in (("", 0.0), (" lining", 24.0)):
        made += [
            _bodice(f"front{what}", long - less, chest - less / 2, 95, 90, copies=2, pair=True),
            _bodice(f"back{what}", long - 20 - less, chest - less / 2, 90, 25, copies=2, pair=True),
            _piece(
                f"upper sleeve{what}",
                [
                    [0, -120],
                    *_curve((450, -160), (620 - less, 0), -40),
                    *_curve((620 - less, 0), (500, 170), -40),
                    [500, 170],
                    [240, 150],
                    [0, 120],
                ],
                copies=2,
                pair=True,
            ),
            _piece(
                f"under sleeve{what}",
                [
                    [0, -80],
                    [240, -90],
                    [460, -105],
                    *_curve((460, -105), (480, 110), 35)[1:],
                    [480, 110],
                    [240, 105],
                    [0, 80],
                ],
                copies=2,
                pair=True,
            ),
        ]
    made += [
        _piece(
            "front facing",
            [[0, 0], [long * 0.6, -10], [long - 40, 60], [long, 120], [long - 20, 190], [long * 0.6, 110], [0, 120]],
            copies=2,
            pair=True,
        ),
        _collar("collar", 460, 110, 14, copies=2, grain="crosswise"),
        _box("pocket flap", 190, 75, copies=4),
        _box("pocket", 210, 180, copies=4),
        _box("belt", 880, 80, copies=2),
        _box("loop", 110, 40, copies=3),
    ]
    return made


def childs_dress(rng: random.Random) -> list[dict[str, Any]]:
    chest = rng.uniform(150, 190)
    return [
        _bodice("bodice front", 260, chest, 55, 55, copies=2, pair=True),
        _bodice("bodice back", 255, chest, 55, 20, copies=2, pair=True),
        _box("skirt panel", rng.uniform(340, 430), rng.uniform(520, 640), copies=2),
        _sleeve("sleeve", 190, 300, 90, copies=2, pair=True),
        _collar("collar", 190, 60, -30, copies=4),
        _box("sash", 620, 90, copies=2),
        _box("pocket", 110, 100, copies=2),
        _box("cuff", 200, 50, copies=2),
    ]


def bias_slip(rng: random.Random) -> list[dict[str, Any]]:
    long = rng.uniform(760, 900)
    body: list[list[float]] = [
        *_curve((0, 300), (0, -300), 30),
        [0, -300],
        [long * 0.6, -190],
        *_curve((long * 0.8, -215), (long, -40), 30),
        [long, -40],
        [long, 40],
        *_curve((long, 40), (long * 0.8, 215), 30)[1:],
        [long * 0.8, 215],
        [long * 0.6, 190],
    ]
    return [
        _piece("front", body, grain="bias"),
        _piece("back", [[x * 0.96, y] for x, y in body], grain="bias"),
        _piece(
            "facing",
            [[0, -60], *_curve((0, -60), (0, 220), 20)[1:], [0, 220], [70, 215], [70, -55]],
            copies=4,
            grain="bias",
        ),
        _box("strap", 480, 32, copies=4, grain="bias"),
        _box("binding", 620, 38, copies=3, grain="bias"),
    ]


def quilt(rng: random.Random) -> list[dict[str, Any]]:
    side = rng.uniform(95, 140)
    root = side / math.sqrt(2)
    hexagon = [[side * 0.6 * math.cos(k * math.pi / 3), side * 0.6 * math.sin(k * math.pi / 3)] for k in range(6)]
    return [
        _box("square", side, side, copies=8),
        _piece("half square", [[0, 0], [side, 0], [0, side]], copies=10, grain="any"),
        _piece("quarter", [[0, 0], [root * 1.4, 0], [root * 0.7, root * 0.7]], copies=8, grain="any"),
        _piece("hexagon", hexagon, copies=7),
        _piece("kite", [[0, 0], [side * 0.5, -side * 0.3], [side * 1.4, 0], [side * 0.5, side * 0.3]], copies=6),
    ]


KINDS: dict[str, tuple[Callable[[random.Random], list[dict[str, Any]]], tuple[float, ...]]] = {
    "shirt": (shirt, (1120, 1400, 1480)),
    "trousers": (trousers, (1120, 1400, 1480)),
    "gored skirt": (gored_skirt, (1120, 1400)),
    "waistcoat": (waistcoat, (900, 1120, 1400)),
    "coat": (coat, (1400, 1480)),
    "child's dress": (childs_dress, (1120, 1400)),
    "bias slip": (bias_slip, (1120, 1400)),
    "quilt": (quilt, (900, 1100)),
}


def garment(kind: str, seed: int, **cloth: Any) -> dict[str, Any]:
    """A garment of one kind as a lay problem on open cloth; ``cloth`` and ``folds`` may be given."""
    rng = random.Random(f"{kind} {seed}")
    draft, widths = KINDS[kind]
    pieces = draft(rng)
    folds = cloth.pop("folds", ["open"])
    width = cloth.pop("width", None) or rng.choice(widths)
    return {"format": FORMAT, "cloth": {"width": float(width), **cloth}, "folds": folds, "pieces": pieces}


def copies(problem: dict[str, Any]) -> int:
    return sum(int(p.get("copies", 1)) for p in problem["pieces"])


def on_bars(
    kind: str, seed: int, along: float | None, across: float | None, *, balanced: bool = True
) -> dict[str, Any]:
    """A garment on stripes or a plaid: every piece on the straight grain meets the bars with its own first point.

    ``along``, ``across``: the repeats, mm. Along, the bars have mirror axes only when ``balanced``; across they always
    do, or nothing could be cut in pairs.
    """
    data = garment(kind, seed)
    data["cloth"]["bars"] = {
        "x_repeat": along,
        "y_repeat": across,
        "x_axes": [0.0, along / 2] if along and balanced else [],
        "y_axes": [0.0, across / 2] if across else [],
    }
    for piece in data["pieces"]:
        if piece.get("grain", "lengthwise") == "lengthwise":
            piece["match"] = [
                {"group": "all", "point": [0, 0], "along": along is not None, "across": across is not None}
            ]
    return data


def mixed(seed: int, *, large: bool = False) -> dict[str, Any]:
    """Pieces for several folds at once: some on the fold, some single and one-sided, one wider than half the cloth.

    ``large``: a whole lined coat beside the single ones, on wide cloth.
    """
    rng = random.Random(f"mixed {seed}")
    width = rng.choice([1120.0, 1400.0, 1480.0])
    long, chest = rng.uniform(640, 760), rng.uniform(250, 310)
    wide = rng.uniform(0.56, 0.72) * width
    pieces = [
        _bodice("front on the fold", long, chest, 80, 75, on_fold=True),
        _bodice("back on the fold", long - 30, chest, 85, 20, on_fold=True),
        _sleeve("sleeve", rng.uniform(520, 600), rng.uniform(360, 420), 130, copies=2, pair=True),
        _piece("wrap front", [[0, 0], [long, 60], [long * 0.7, wide * 0.8], [0, wide]], copies=1),
        _piece("draped side", [[0, 0], [420, -40], [520, 160], [300, 330], [-30, 280]], copies=1),
        _piece("one-sided collar", [[0, 0], [380, 20], [430, 120], [120, 150]], copies=1),
        _box("facing", 300, 90, copies=2),
        _box("belt", rng.uniform(700, 900), 90, copies=1),
    ]
    if large:
        width = 1480.0
        pieces = [p for p in pieces if not p.get("on_fold") and p.get("copies") == 1]
        pieces += [{**p, "id": f"coat {p['id']}"} for p in coat(rng)]
    return {"format": FORMAT, "cloth": {"width": width}, "folds": ["open"], "pieces": pieces}
