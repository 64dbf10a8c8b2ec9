"""Lay problems for tests: small ones by hand, and random garments from a seed."""

from __future__ import annotations

import random
from typing import Any

from idle_selvage.core.lay.engine.draws import generator
from idle_selvage.core.lay.engine.folds import strip_for, ways
from idle_selvage.core.lay.engine.matching import Matching
from idle_selvage.core.lay.engine.strips import Strip
from idle_selvage.core.lay.reading import read_problem

FORMAT = "idle-selvage/lay-problem/1"


def rectangle(name: str, long: float, wide: float, **more: Any) -> dict[str, Any]:
    return {"id": name, "outline": [[0, 0], [long, 0], [long, wide], [0, wide]], **more}


def problem(
    pieces: list[dict[str, Any]], width: float = 1000.0, folds: list[str] | None = None, **cloth: Any
) -> dict[str, Any]:
    return {"format": FORMAT, "cloth": {"width": width, **cloth}, "folds": folds or ["open"], "pieces": pieces}


def shirt() -> dict[str, Any]:
    return problem(
        [
            {
                "id": "front",
                "outline": [[0, 0], [620, 0], [600, 120], [450, 190], [410, 255], [0, 260]],
                "copies": 2,
                "pair": True,
            },
            {
                "id": "back",
                "outline": [[0, 0], [640, 0], [630, 120], [470, 190], [410, 250], [0, 260]],
                "on_fold": True,
            },
            {
                "id": "sleeve",
                "outline": [[0, -160], [400, -220], [480, -100], [540, 0], [480, 110], [400, 220], [0, 160]],
                "copies": 2,
                "pair": True,
            },
            rectangle("collar", 420, 80, copies=2, grain="crosswise"),
            rectangle("pocket", 150, 130, copies=2),
        ],
        1120.0,
        ["open", "lengthwise"],
        gap=3.0,
    )


def random_problem(seed: int) -> dict[str, Any]:
    """A few random pieces, convex and not, on random cloth."""
    rng = random.Random(seed)
    pieces = []
    for n in range(rng.randint(1, 5)):
        long, wide = rng.uniform(60, 500), rng.uniform(40, 300)
        kind = rng.choice(["plain", "pair", "fold"])
        if kind == "fold":
            outline = [[0, 0], [long, 0], [long * rng.uniform(0.5, 1), wide / 2], [0, wide / 2 * rng.uniform(0.4, 1)]]
        else:
            notch = rng.uniform(0.1, 0.7)
            outline = [
                [0, 0],
                [long * rng.uniform(0.6, 1), rng.uniform(0, 0.3) * wide],
                [long, wide * 0.9],
                [long * notch, wide * rng.uniform(0.4, 0.7)],
                [0, wide],
            ]
        pieces.append(
            {
                "id": f"p{n}",
                "outline": outline,
                "copies": rng.choice([2, 4]) if kind == "pair" else rng.choice([1, 2, 3]),
                "pair": kind == "pair",
                "on_fold": kind == "fold",
                "one_way": rng.random() < 0.3,
                "grain": "lengthwise" if kind == "fold" else rng.choice(["lengthwise", "crosswise", "bias", "any"]),
            }
        )
    return problem(
        pieces,
        rng.uniform(1100, 1500),
        rng.choice([["open"], ["lengthwise"], ["open", "lengthwise"]]),
        gap=rng.choice([0.0, 3.0, 8.0]),
        one_way=rng.random() < 0.3,
        reversible=rng.random() < 0.2,
    )


def rich_problem(seed: int) -> dict[str, Any]:
    """A random problem with everything the format can say: every fold, flaws, bars, fixed and border pieces."""
    rng = random.Random(f"rich {seed}")
    data = random_problem(seed)
    cloth, pieces = data["cloth"], data["pieces"]
    width = cloth["width"]
    folds = ["open", "lengthwise", "partial", "double", "crosswise", "combination"]
    data["folds"] = rng.sample(folds, rng.randint(1, 4))
    if rng.random() < 0.4:
        cloth["blocked"] = [
            [x, y, x + rng.uniform(10, 120), y + rng.uniform(10, 90)]
            for x, y in ((rng.uniform(0, 900), rng.uniform(-20, width)) for _ in range(rng.randint(1, 3)))
        ]
        if rng.random() < 0.5:
            # what was cut already: a triangle, or a corner with a bay in it
            x, y, long, wide = rng.uniform(0, 600), rng.uniform(0, width), rng.uniform(60, 300), rng.uniform(60, 300)
            ring = [[x, y], [x + long, y + wide * 0.2], [x + long * 0.8, y + wide], [x + long * 0.4, y + wide * 0.3]]
            cloth["blocked"].append(ring[:3] if rng.random() < 0.5 else ring[::-1])
    if rng.random() < 0.5:
        across, along = rng.uniform(40, 130), rng.uniform(40, 160)
        cloth["bars"] = {
            "x_repeat": along if rng.random() < 0.7 else None,
            "y_repeat": across if rng.random() < 0.7 else None,
            "x_axes": [],
            "y_axes": [],
        }
        bars = cloth["bars"]
        if bars["x_repeat"] and rng.random() < 0.7:
            bars["x_axes"] = [0.0, along / 2]
        if bars["y_repeat"] and rng.random() < 0.8:
            bars["y_axes"] = [10.0, 10.0 + across / 2]
        for piece in pieces:
            if rng.random() < 0.6 and (bars["x_repeat"] or bars["y_repeat"]):
                point = [rng.uniform(0, 200), rng.uniform(0, 100)]
                match = {
                    "group": rng.choice(["side", "waist"]),
                    "point": point,
                    "along": bool(bars["x_repeat"]) and rng.random() < 0.8,
                    "across": bool(bars["y_repeat"]) and rng.random() < 0.6,
                }
                if rng.random() < 0.2:
                    match["phase"] = rng.uniform(0, 60)
                if match["along"] or match["across"]:
                    piece["match"] = [match]
            elif rng.random() < 0.2 and bars["y_axes"]:
                piece["centre_on_axis"] = "x"
    for piece in pieces:
        if not piece.get("match") and not piece.get("centre_on_axis") and rng.random() < 0.1:
            piece["border"] = {
                "edge": "hem",
                "selvage": rng.choice(["low", "high"]),
                "distance": rng.uniform(0, 60),
            }
            piece["grain"] = "crosswise"
            piece["on_fold"] = False
        elif piece["grain"] == "lengthwise" and not piece["on_fold"] and not piece.get("match") and rng.random() < 0.12:
            piece["fixed"] = {
                "x": rng.uniform(0, 500),
                "y": rng.uniform(0, width - 300),
                "turn": 0,
                "mirrored": False,
                **({"slides": True} if rng.random() < 0.4 else {}),
            }
    if rng.random() < 0.15:
        cloth["length"] = rng.uniform(300, 2000)
    if rng.random() < 0.2:
        data["turn_on_bars"] = True
    return data


def strip_of(data: dict[str, Any], fold: str, **more: Any) -> Strip:
    """The strip of the first way to make a fold."""
    asked = read_problem(data)
    matching = Matching(asked)
    return strip_for(asked, ways(asked, fold)[0], matching, matching.choose(generator(1), first=True), **more)
