"""Lay problems for tests: small ones by hand, and random garments from a seed."""

from __future__ import annotations

import random
from typing import Any

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
