"""Jigsaws: a cloth cut up at random, so that the shortest lay is known. From a seed, our own.

Kinds: straight cuts, curved cuts, one way, folded selvage to selvage, with a flaw, on a lattice of bars along
only, and on a lattice both ways. A kerf may be taken off all round, and a piece left out.
"""

from __future__ import annotations

import math
import random
from typing import Any

from shapely.affinity import translate
from shapely.geometry import LineString, Polygon, box
from shapely.ops import split

FORMAT = "idle-selvage/lay-problem/1"
KINDS = ("straight", "curved", "one way", "folded", "flaw", "lattice along", "lattice both ways")
REPEAT_X, REPEAT_Y = 60.0, 50.0


def _cut(rng: random.Random, shape: Polygon, curved: bool, lattice: str) -> list[Polygon]:
    x0, y0, x1, y1 = shape.bounds
    middle = shape.centroid
    along = (x1 - x0) >= (y1 - y0)
    if lattice:
        # on bars both ways all cuts follow them; with bars along only, cuts across do
        if along:
            x = REPEAT_X * round((middle.x + rng.uniform(-0.15, 0.15) * (x1 - x0)) / REPEAT_X)
            line = LineString([(x, y0 - 1), (x, y1 + 1)])
        else:
            y = middle.y + rng.uniform(-0.15, 0.15) * (y1 - y0)
            if lattice == "both":
                y = REPEAT_Y * round(y / REPEAT_Y)
            line = LineString([(x0 - 1, y), (x1 + 1, y)])
    else:
        angle = (math.pi / 2 if along else 0.0) + rng.uniform(-0.5, 0.5)
        long = math.hypot(x1 - x0, y1 - y0)
        dx, dy = math.cos(angle), math.sin(angle)
        shift = rng.uniform(-0.12, 0.12) * long
        bow = rng.uniform(-0.07, 0.07) * long if curved else 0.0
        points = []
        for k in range(13):
            t = (k / 6 - 1) * long
            lift = bow * math.sin(math.pi * t / long * 2) + shift * (0.4 if along else 1.0)
            points.append((middle.x + t * dx - lift * dy, middle.y + t * dy + lift * dx))
        line = LineString(points)
    parts = [p for p in split(shape, line).geoms if p.geom_type == "Polygon"]
    return parts if len(parts) == 2 and min(p.area for p in parts) > 0.2 * shape.area else [shape]


def jigsaw(kind: str, seed: int, *, kerf: float = 0.0, left_out: int = 0) -> tuple[dict[str, Any], float]:
    """A jigsaw as a lay problem, and the length it is known to need."""
    rng = random.Random(f"{kind} {seed}")
    width, length = 1000.0, rng.choice([900.0, 1200.0, 1500.0])
    count = rng.randint(8, 36)
    folded = kind == "folded"
    ground = box(0, 0, length, width / 2 if folded else width)
    blocked = []
    if kind == "flaw":
        x, deep = rng.uniform(0.2, 0.7) * length, rng.uniform(80, 200)
        blocked = [[x, 0.0, x + rng.uniform(60, 200), deep]]
        ground = ground.difference(box(*blocked[0]))
    lattice = {"lattice along": "along", "lattice both ways": "both"}.get(kind, "")
    shapes = [ground]
    for _ in range(400):
        if len(shapes) >= count:
            break
        shapes.sort(key=lambda s: -s.area)
        pick = 0 if rng.random() < 0.8 else rng.randrange(min(4, len(shapes)))
        shapes[pick : pick + 1] = _cut(rng, shapes[pick], kind == "curved", lattice)
    if left_out:
        shapes.sort(key=lambda s: s.area)
        del shapes[rng.randrange(len(shapes) // 3)]
    pieces = []
    for k, shape in enumerate(shapes):
        x0, y0, _, _ = shape.bounds
        if lattice:
            x0, y0 = REPEAT_X * math.floor(x0 / REPEAT_X + 0.5), REPEAT_Y * math.floor(y0 / REPEAT_Y + 0.5)
        moved = translate(shape, -x0, -y0).buffer(-kerf / 2, join_style="mitre") if kerf else translate(shape, -x0, -y0)
        piece: dict[str, Any] = {
            "id": f"p{k}",
            "outline": [[round(x, 6), round(y, 6)] for x, y in moved.exterior.coords[:-1]],
            "copies": 2 if folded else 1,
            "pair": folded,
            "one_way": kind == "one way",
        }
        if lattice:
            piece["match"] = [{"group": "bars", "point": [0, 0], "along": True, "across": lattice == "both"}]
        pieces.append(piece)
    bars = {"x_repeat": REPEAT_X, "y_repeat": REPEAT_Y, "x_axes": [0.0], "y_axes": [0.0]} if lattice else {}
    cloth = {"width": width, "blocked": blocked, "bars": bars}
    folds = ["lengthwise"] if folded else ["open"]
    return {"format": FORMAT, "cloth": cloth, "folds": folds, "pieces": pieces}, length
