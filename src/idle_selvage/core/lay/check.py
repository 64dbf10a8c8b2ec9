"""An independent judge of lays, written against the two formats alone.

It takes decoded JSON, rebuilds every copy with shapely and says every rule that is broken. It shares no
code with the solver on purpose: a mistake made there must not be made here too.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import shapely
from shapely.geometry import Polygon

TOLERANCE_MM = 0.1

_TURNS = {
    ("lengthwise", False): {0, 180},
    ("lengthwise", True): {0},
    ("crosswise", False): {90, 270},
    ("crosswise", True): {90},
    ("bias", False): {45, 135, 225, 315},
    ("bias", True): {45, 315},
    ("any", False): {0, 45, 90, 135, 180, 225, 270, 315},
    ("any", True): {0, 45, 90, 315},
}


def check_lay(problem: dict[str, Any], lay: dict[str, Any]) -> list[str]:
    """Every broken rule as a sentence; an empty list is a good lay. All to 0.1 mm."""
    pieces = {p["id"]: p for p in problem["pieces"]}
    cloth = problem["cloth"]
    faults: list[str] = []
    shapes: list[tuple[str, Any]] = []
    made: dict[str, list[dict[str, Any]]] = {name: [] for name in pieces}
    for entry in lay["cut"]:
        piece = pieces.get(entry["piece"])
        if piece is None:
            faults.append(f"“{entry['piece']}” is cut but not asked for.")
            continue
        made[entry["piece"]].append(entry)
        strict = bool(piece.get("one_way")) or bool(cloth.get("one_way"))
        if entry["turn"] not in _TURNS[(piece.get("grain", "lengthwise"), strict)]:
            faults.append(f"{_name(entry)} is turned by {entry['turn']}°, which its grain does not allow.")
        shapes.append((_name(entry), _outline(piece, entry)))
    faults += _count_faults(problem, lay, made)
    faults += _place_faults(cloth, lay, shapes)
    faults += _overlap_faults(cloth, shapes)
    faults += _fold_faults(problem, lay)
    return faults


def _name(entry: dict[str, Any]) -> str:
    return f"{entry['piece']} {entry['copy']}"


def _ring(points: np.ndarray, entry: dict[str, Any]) -> np.ndarray:
    flipped = points * np.array([1.0, -1.0]) if entry["mirrored"] else points
    angle = math.radians(entry["turn"])
    spin = np.array([[math.cos(angle), math.sin(angle)], [-math.sin(angle), math.cos(angle)]])
    moved: np.ndarray = flipped @ spin + np.array([entry["x"], entry["y"]])
    return moved


def _outline(piece: dict[str, Any], entry: dict[str, Any]) -> Any:
    points = np.asarray(piece["outline"], dtype=float)
    shape = Polygon(_ring(points, entry))
    if piece.get("on_fold"):
        other = Polygon(_ring(points * np.array([1.0, -1.0]), entry))
        # grown by a hair so that the halves merge where they meet on the fold
        shape = shapely.union_all([shape.buffer(1e-3, join_style="mitre"), other.buffer(1e-3, join_style="mitre")])
    return shape


def _symmetric(piece: dict[str, Any]) -> bool:
    points = np.asarray(piece["outline"], dtype=float)
    middle = (points.min(axis=0) + points.max(axis=0)) / 2
    shape = Polygon(points - middle)
    return any(
        shape.exterior.hausdorff_distance(Polygon((points - middle) * np.array(flip)).exterior) <= TOLERANCE_MM
        for flip in ([1.0, -1.0], [-1.0, 1.0])
    )


def _count_faults(problem: dict[str, Any], lay: dict[str, Any], made: dict[str, list[dict[str, Any]]]) -> list[str]:
    faults = []
    missing = {entry["piece"]: entry["copies"] for entry in lay.get("left_over", [])}
    if lay["complete"] and any(missing.values()):
        faults.append("The lay calls itself complete and lists pieces left over.")
    for piece in problem["pieces"]:
        name, wanted = piece["id"], piece.get("copies", 1)
        entries = made[name]
        if len(entries) + missing.get(name, 0) != wanted:
            faults.append(f"{name}: {wanted} copies are asked for, {len(entries)} are cut.")
        if len({entry["copy"] for entry in entries}) != len(entries):
            faults.append(f"{name}: a copy is cut twice.")
        mirrored = sum(1 for entry in entries if entry["mirrored"])
        free = bool(problem["cloth"].get("reversible")) or bool(piece.get("on_fold")) or _symmetric(piece)
        if piece.get("pair") and not missing.get(name) and not free and mirrored * 2 != len(entries):
            faults.append(f"{name}: half of a pair must be mirrored; {mirrored} of {len(entries)} are.")
        if not piece.get("pair") and mirrored and not free:
            faults.append(f"{name}: {mirrored} copies are mirrored, and it is cut as drawn.")
    return faults


def _place_faults(cloth: dict[str, Any], lay: dict[str, Any], shapes: list[tuple[str, Any]]) -> list[str]:
    faults = []
    for name, shape in shapes:
        x0, y0, x1, y1 = shape.bounds
        if y0 < -TOLERANCE_MM or y1 > cloth["width"] + TOLERANCE_MM:
            faults.append(f"{name} reaches over a selvage.")
        if x0 < -TOLERANCE_MM or x1 > lay["length"] + TOLERANCE_MM:
            faults.append(f"{name} reaches past an end of the lay.")
    if cloth.get("length") is not None and lay["complete"] and lay["length"] > cloth["length"] + TOLERANCE_MM:
        faults.append("The lay is longer than the cloth.")
    if lay["bound"] > lay["length"] + TOLERANCE_MM and lay["complete"]:
        faults.append("The lay is shorter than its own bound.")
    return faults


def _overlap_faults(cloth: dict[str, Any], shapes: list[tuple[str, Any]]) -> list[str]:
    faults = []
    gap = cloth.get("gap") or 0.0
    inner = [shape.buffer(-TOLERANCE_MM / 2) for _, shape in shapes]
    tree = shapely.STRtree([shape for _, shape in shapes])
    for i, (name, shape) in enumerate(shapes):
        for j in tree.query(shape.buffer(gap + 1.0)):
            if j <= i:
                continue
            if inner[i].intersects(inner[j]):
                faults.append(f"{name} and {shapes[j][0]} overlap.")
            elif gap and shape.distance(shapes[j][1]) < gap - TOLERANCE_MM:
                faults.append(f"{name} and {shapes[j][0]} are nearer than the gap of {gap:g} mm.")
    return faults


def _fold_faults(problem: dict[str, Any], lay: dict[str, Any]) -> list[str]:
    faults = []
    width = problem["cloth"]["width"]
    for section in lay["sections"]:
        if section["fold"] not in problem.get("folds", ["open"]):
            faults.append(f"The fold “{section['fold']}” is used but was not allowed.")
        if section["fold"] == "lengthwise" and [round(v, 3) for v in section["fold_at"]] != [round(width / 2, 3)]:
            faults.append("A lengthwise fold must lie in the middle of the width.")
    on_fold = {p["id"] for p in problem["pieces"] if p.get("on_fold")}
    pinned: dict[str, int] = {}
    for entry in lay["laid"]:
        section = lay["sections"][entry["section"]]
        folded = section["fold"] == "lengthwise"
        if entry["piece"] in on_fold and folded and abs(entry["y"] - section["fold_at"][0]) > TOLERANCE_MM:
            faults.append(f"{entry['piece']} is cut on the fold but does not lie on it.")
        both = folded and entry["layers"] == 2 and entry["piece"] not in on_fold
        pinned[entry["piece"]] = pinned.get(entry["piece"], 0) + (2 if both else 1)
    for name in {entry["piece"] for entry in lay["cut"]} | set(pinned):
        if pinned.get(name, 0) != sum(1 for entry in lay["cut"] if entry["piece"] == name):
            faults.append(f"{name}: what is pinned and what is cut are not the same number of copies.")
    return faults
