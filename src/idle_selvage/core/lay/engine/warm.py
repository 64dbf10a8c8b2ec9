"""Compiling ahead: a small problem of every kind is laid once, so that no first user waits for the compiler."""

from __future__ import annotations

import itertools
from typing import Any

from ..hand import held
from ..moves import Table
from ..reading import read_problem
from ..seats import Grip
from ..sliding import caught
from . import convex, depths, draws, exact, rows, separate, slides
from .solver import solve

_MODULES = (convex, depths, draws, exact, rows, separate, slides)


def _problem() -> dict[str, object]:
    """Curves, pairs, a fold, bars, a flaw and a border: whatever reaches other compiled code."""
    plaid = {"group": "seam", "point": [100, 0], "along": True, "across": True}
    return {
        "format": "idle-selvage/lay-problem/1",
        "cloth": {
            "width": 700,
            "gap": 2,
            "blocked": [[200, 300, 240, 340]],
            "bars": {"x_repeat": 40, "y_repeat": 50, "x_axes": [0], "y_axes": [0]},
        },
        "folds": ["open"],
        "pieces": [
            {"id": "a", "outline": [[0, 0], [300, 0], [150, 60], [300, 180], [0, 200]], "copies": 4, "match": [plaid]},
            {"id": "b", "outline": [[0, 0], [200, 0], [180, 120], [0, 90]], "copies": 4, "pair": True},
            {"id": "c", "outline": [[0, 0], [90, 0], [70, 60], [0, 50]], "copies": 8, "grain": "any"},
        ],
    }


def compile_ahead() -> int:
    """Make sure everything is compiled and cached; how many compiled functions there are."""
    clock = itertools.count()
    asked = read_problem(_problem())
    lay = solve(asked, steps=3000, clock=lambda: next(clock) / 1000).lay
    # where a piece may be dragged to
    table = Table(held(lay), asked)
    first = table.hand.held[0]
    caught(table.grounds(Grip((first.key,))), first.x, first.y, 5.0)
    return sum(len(f.signatures) for f in compiled())


def compiled() -> list[Any]:
    """Every compiled function of the engine."""
    found = []
    for module in _MODULES:
        for value in vars(module).values():
            if hasattr(value, "signatures") and getattr(value, "__module__", "") == module.__name__:
                found.append(value)
    return found
