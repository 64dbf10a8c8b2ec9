"""An independent judge of lays, written against the two formats alone.

It takes decoded JSON, rebuilds every copy with shapely and says every rule that is broken. It shares no
code with the solver on purpose: a mistake made there must not be made here too.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
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


@dataclass(frozen=True)
class Fault:
    """A broken rule: of which kind, as a sentence, and the copies it is about (piece, copy); none: the whole lay."""

    kind: str
    told: str
    copies: tuple[tuple[str, int], ...] = ()
    #: of bars: the group, and along which axis; of the ground of a fold: the piece
    what: tuple[str, str] = ("", "")


def check_lay(problem: dict[str, Any], lay: dict[str, Any]) -> list[str]:
    """Every broken rule as a sentence; an empty list is a good lay. All to 0.1 mm."""
    return [fault.told for fault in faults_of(problem, lay)]


def faults_of(problem: dict[str, Any], lay: dict[str, Any]) -> list[Fault]:
    """Every broken rule of a lay; both in their formats, decoded."""
    pieces = {p["id"]: p for p in problem["pieces"]}
    cloth = problem["cloth"]
    faults: list[Fault] = []
    shapes: list[tuple[dict[str, Any], Any]] = []
    made: dict[str, list[dict[str, Any]]] = {name: [] for name in pieces}
    for entry in lay["cut"]:
        piece = pieces.get(entry["piece"])
        if piece is None:
            faults.append(Fault("count", f"“{entry['piece']}” is cut but not asked for.", _who(entry)))
            continue
        made[entry["piece"]].append(entry)
        if entry["turn"] not in _turns(piece, problem):
            told = f"{_name(entry)} is turned by {entry['turn']}°, which its grain does not allow."
            faults.append(Fault("turn", told, _who(entry)))
        shapes.append((entry, _outline(piece, entry)))
        faults += _border_faults(piece, cloth, entry, shapes[-1][1])
        faults += _blocked_faults(problem, piece, entry, shapes[-1][1])
    faults += _count_faults(problem, lay, made)
    faults += _place_faults(cloth, lay, shapes)
    faults += _overlap_faults(cloth, shapes)
    faults += _fixed_faults(problem, made, lay)
    for axis in ("x", "y"):
        faults += _match_faults(problem, made, axis)
        faults += _centre_faults(problem, made, axis)
    faults += _section_faults(problem, lay)
    faults += _pinned_faults(problem, lay, pieces)
    return faults


def _turns(piece: dict[str, Any], problem: dict[str, Any]) -> set[int]:
    if piece.get("border"):
        if piece["border"].get("edge") == "side":
            return {0} if piece.get("one_way") or _points(problem) else {0, 180}
        return {90} if piece["border"]["selvage"] == "low" else {270}
    directed = _points(problem)
    return _TURNS[(piece.get("grain", "lengthwise"), bool(piece.get("one_way")) or directed)]


def _points(problem: dict[str, Any]) -> bool:
    """Whether all tops lie one way: the maker may allow that a turned piece sees the bars the other way round; nap she
    may not."""
    cloth = problem["cloth"]
    return bool(cloth.get("one_way")) if problem.get("turn_on_bars") else _directed(cloth)


def _directed(cloth: dict[str, Any]) -> bool:
    """Nap, a one-way print, or bars without a mirror axis along the cloth."""
    bars = cloth.get("bars") or {}
    return bool(cloth.get("one_way")) or (bool(bars.get("x_repeat")) and not bars.get("x_axes"))


def _name(entry: dict[str, Any]) -> str:
    return f"{entry['piece']} {entry['copy']}"


def _who(entry: dict[str, Any]) -> tuple[tuple[str, int], ...]:
    return ((entry["piece"], entry["copy"]),)


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


def _count_faults(problem: dict[str, Any], lay: dict[str, Any], made: dict[str, list[dict[str, Any]]]) -> list[Fault]:
    faults = []
    missing = {entry["piece"]: entry["copies"] for entry in lay.get("left_over", [])}
    if lay["complete"] and any(missing.values()):
        faults.append(Fault("count", "The lay calls itself complete and lists pieces left over."))
    for piece in problem["pieces"]:
        name, wanted = piece["id"], piece.get("copies", 1)
        entries = made[name]
        if len(entries) + missing.get(name, 0) != wanted:
            told = f"{name}: {wanted} copies are asked for, {len(entries)} are cut."
            faults.append(Fault("count", told, ((name, 0),)))
        if len({entry["copy"] for entry in entries}) != len(entries):
            faults.append(Fault("copies", f"{name}: a copy is cut twice."))
        mirrored = sum(1 for entry in entries if entry["mirrored"])
        free = bool(problem["cloth"].get("reversible")) or bool(piece.get("on_fold")) or _symmetric(piece)
        if piece.get("pair") and not missing.get(name) and not free and mirrored * 2 != len(entries):
            told = f"{name}: half of a pair must be mirrored; {mirrored} of {len(entries)} are."
            faults.append(Fault("sides", told, ((name, 0),)))
        if not piece.get("pair") and mirrored and not free:
            told = f"{name}: {mirrored} copies are mirrored, and it is cut as drawn."
            faults.append(Fault("sides", told, ((name, 0),)))
    return faults


def _place_faults(cloth: dict[str, Any], lay: dict[str, Any], shapes: list[tuple[dict[str, Any], Any]]) -> list[Fault]:
    faults = []
    for entry, shape in shapes:
        name = _name(entry)
        x0, y0, x1, y1 = shape.bounds
        if y0 < -TOLERANCE_MM or y1 > cloth["width"] + TOLERANCE_MM:
            faults.append(Fault("selvage", f"{name} reaches over a selvage.", _who(entry)))
        if x0 < -TOLERANCE_MM or x1 > lay["length"] + TOLERANCE_MM:
            faults.append(Fault("end", f"{name} reaches past an end of the lay.", _who(entry)))
    if cloth.get("length") is not None and lay["length"] > cloth["length"] + TOLERANCE_MM:
        faults.append(Fault("length", "The lay is longer than the cloth."))
    if lay["bound"] > lay["length"] + TOLERANCE_MM and lay["complete"]:
        faults.append(Fault("bound", "The lay is shorter than its own bound."))
    return faults


def _overlap_faults(cloth: dict[str, Any], shapes: list[tuple[dict[str, Any], Any]]) -> list[Fault]:
    faults = []
    gap = cloth.get("gap") or 0.0
    inner = [shape.buffer(-TOLERANCE_MM / 2) for _, shape in shapes]
    tree = shapely.STRtree([shape for _, shape in shapes])
    for i, (entry, shape) in enumerate(shapes):
        for j in tree.query(shape.buffer(gap + 1.0)):
            if j <= i:
                continue
            other = shapes[j][0]
            both, who = f"{_name(entry)} and {_name(other)}", (*_who(entry), *_who(other))
            if inner[i].intersects(inner[j]):
                faults.append(Fault("overlap", f"{both} overlap.", who))
            elif gap and shape.distance(shapes[j][1]) < gap - TOLERANCE_MM:
                faults.append(Fault("gap", f"{both} are nearer than the gap of {gap:g} mm.", who))
    return faults


def _border_faults(piece: dict[str, Any], cloth: dict[str, Any], entry: dict[str, Any], shape: Any) -> list[Fault]:
    border = piece.get("border")
    if not border:
        return []
    hem = shape.bounds[1] if border["selvage"] == "low" else cloth["width"] - shape.bounds[3]
    wanted = border.get("distance", 0.0)
    # whole pieces cut on the fold were grown by a hair
    if abs(hem - wanted) > TOLERANCE_MM + 2e-3:
        told = f"{_name(entry)} has its hem {hem:.1f} mm from the selvage and not {wanted:.1f} mm."
        return [Fault("border", told, _who(entry))]
    return []


def _blocked_faults(problem: dict[str, Any], piece: dict[str, Any], entry: dict[str, Any], shape: Any) -> list[Fault]:
    cloth = problem["cloth"]
    gap = cloth.get("gap") or 0.0
    sides = {p["border"]["selvage"] for p in problem["pieces"] if p.get("border")}
    faults = []
    for off in cloth.get("blocked") or []:
        if isinstance(off[0], list | tuple):
            area, told = shapely.Polygon(off), "that begins at {:g}, {:g} mm".format(*off[0])
            faults += _off_faults(entry, shape, area, told, gap)
            continue
        x0, y0, x1, y1 = off
        on_edge = ("low" in sides and y0 <= TOLERANCE_MM) or ("high" in sides and y1 >= cloth["width"] - TOLERANCE_MM)
        reserved = on_edge and x0 <= TOLERANCE_MM and x1 - x0 >= 2 * (y1 - y0)
        if reserved and piece.get("border"):
            continue
        told = f"{x0:g}, {y0:g} to {x1:g}, {y1:g} mm"
        faults += _off_faults(entry, shape, shapely.box(x0, y0, x1, y1), told, gap)
    return faults


def _off_faults(entry: dict[str, Any], shape: Any, area: Any, told: str, gap: float) -> list[Fault]:
    if shape.buffer(-TOLERANCE_MM / 2).intersects(area.buffer(-TOLERANCE_MM / 2)):
        return [Fault("flaw", f"{_name(entry)} lies on the blocked area {told}.", _who(entry))]
    if gap and shape.distance(area) < gap - TOLERANCE_MM:
        near = f"{_name(entry)} is nearer than the gap of {gap:g} mm to a blocked area."
        return [Fault("flaw", near, _who(entry))]
    return []


def _fixed_faults(problem: dict[str, Any], made: dict[str, list[dict[str, Any]]], lay: dict[str, Any]) -> list[Fault]:
    faults = []
    left_out = {entry["piece"]: entry["copies"] for entry in lay.get("left_over") or []}
    for piece in problem["pieces"]:
        fixed = piece.get("fixed") or []
        left = list(made[piece["id"]])
        # each copy answers for one place; what may slide takes what is left
        for place in sorted(fixed if isinstance(fixed, list) else [fixed], key=lambda f: bool(f.get("slides"))):
            there = [entry for entry in left if _is_at(entry, place)]
            if there:
                left.remove(there[0])
                continue
            # there was no room for it: that is told of the lay as a whole
            if place.get("slides") and left_out.get(piece["id"], 0) > 0:
                left_out[piece["id"]] -= 1
                continue
            told = f"at y = {place['y']:g}" if place.get("slides") else f"at {place['x']:g}, {place['y']:g}"
            faults.append(Fault("fixed", f"{piece['id']}: a copy was fixed {told} mm and is not there."))
    return faults


def _is_at(entry: dict[str, Any], place: dict[str, Any]) -> bool:
    along = bool(place.get("slides")) or abs(entry["x"] - place["x"]) <= TOLERANCE_MM
    across = abs(entry["y"] - place["y"]) <= TOLERANCE_MM
    same = entry["turn"] == place.get("turn", 0) and entry["mirrored"] == place.get("mirrored", False)
    return bool(along and across and same)


def _modulo(a: float, b: float, repeat: float) -> float:
    """How far two positions are apart on bars that repeat."""
    return abs((a - b + repeat / 2) % repeat - repeat / 2)


def _match_faults(problem: dict[str, Any], made: dict[str, list[dict[str, Any]]], axis: str) -> list[Fault]:
    bars = problem["cloth"].get("bars") or {}
    repeat = bars.get(f"{axis}_repeat") or 0.0
    wanted = "along" if axis == "x" else "across"
    #: per group: for every copy the phases that would do, and the phases that are given
    groups: dict[str, list[tuple[str, list[float]]]] = {}
    given: dict[str, list[float]] = {}
    for piece in problem["pieces"]:
        for match in piece.get("match") or []:
            if not match.get(wanted) or not repeat:
                continue
            phase = match.get("phase")
            if isinstance(phase, list):
                phase = phase[0 if axis == "x" else 1]
            if phase is not None:
                given.setdefault(match["group"], []).append(phase)
            for entry in made[piece["id"]]:
                at = float(_ring(np.array([match["point"]], dtype=float), entry)[0][0 if axis == "x" else 1])
                choices = [at]
                if axis == "y" and entry["mirrored"]:
                    choices = [2 * a - at for a in bars.get("y_axes") or []]
                groups.setdefault(match["group"], []).append((_name(entry), choices))
    faults = []
    for group, copies in groups.items():
        candidates = given.get(group) or copies[0][1]
        misses = [
            [name for name, choices in copies if not any(_modulo(c, p, repeat) <= TOLERANCE_MM for c in choices)]
            for p in candidates
        ]
        off = min(misses, key=len) if misses else [name for name, _ in copies]
        if any(_modulo(a, b, repeat) > TOLERANCE_MM for a in given.get(group, []) for b in given[group]):
            off = off or [copies[0][0]]
        if off:
            told = f"{', '.join(off[:3])}: the points of group “{group}” do not meet {wanted} the bars."
            faults.append(Fault("match", told, what=(group, axis)))
    return faults


def _centre_faults(problem: dict[str, Any], made: dict[str, list[dict[str, Any]]], axis: str) -> list[Fault]:
    bars = problem["cloth"].get("bars") or {}
    faults = []
    for piece in problem["pieces"]:
        centre = piece.get("centre_on_axis")
        if centre is None:
            continue
        for entry in made[piece["id"]]:
            # its line y = 0 ("x") runs along the cloth unless it is turned to the cross grain
            along = (centre == "x") == (entry["turn"] in (0, 180))
            line, name = ("y", "along") if along else ("x", "across")
            if line != axis:
                continue
            repeat, axes = bars.get(f"{line}_repeat") or 0.0, bars.get(f"{line}_axes") or []
            off = not repeat or all(_modulo(entry[line], a, repeat) > TOLERANCE_MM for a in axes)
            if off or entry["turn"] % 90:
                told = f"{_name(entry)} is not centred on a mirror axis {name} the cloth."
                faults.append(Fault("centre", told, _who(entry)))
    return faults


def _section_faults(problem: dict[str, Any], lay: dict[str, Any]) -> list[Fault]:
    allowed = problem.get("folds", ["open"])
    faults = []
    if "combination" in allowed:
        allowed = [*allowed, "open", "lengthwise", "partial", "double"]
    at = 0.0
    for section in lay["sections"]:
        fold, folds = section["fold"], section["fold_at"]
        if fold not in allowed:
            faults.append(Fault("fold", f"The fold “{fold}” is used but was not allowed."))
        if abs(section["from"] - at) > TOLERANCE_MM or section["to"] < section["from"]:
            faults.append(Fault("sections", "The sections do not follow one another."))
        at = section["to"]
        faults += _fold_line_faults(problem, section, fold, folds)
    if abs(at - lay["length"]) > TOLERANCE_MM:
        faults.append(Fault("sections", "The sections do not add up to the length of the lay."))
    if len(lay["sections"]) > 1 and "combination" not in problem.get("folds", ["open"]):
        faults.append(Fault("sections", "The lay has several sections, and a combination was not allowed."))
    return faults


def _fold_line_faults(problem: dict[str, Any], section: dict[str, Any], fold: str, folds: list[float]) -> list[Fault]:
    cloth = problem["cloth"]
    width = cloth["width"]
    count = {"open": 0, "lengthwise": 1, "partial": 1, "double": 2, "crosswise": 1}.get(fold, 0)
    if len(folds) != count:
        return [Fault("fold", f"The fold “{fold}” has {count} fold lines, not {len(folds)}.")]
    if fold == "crosswise":
        faults = []
        if abs(2 * folds[0] - section["from"] - section["to"]) > 2 * TOLERANCE_MM:
            faults.append(Fault("fold", "A crosswise fold must lie in the middle of its section."))
        if _directed(cloth):
            faults.append(Fault("fold", "The cloth has a direction, so it cannot be folded crosswise."))
        return faults
    bars = cloth.get("bars") or {}
    axes, repeat = bars.get("y_axes") or [], bars.get("y_repeat") or 0.0
    wanted = problem.get("partial_at")
    if fold == "partial" and wanted is not None and abs(folds[0] - wanted) > TOLERANCE_MM:
        return [Fault("fold", f"The fold “partial” lies at {folds[0]:g} mm and not at {wanted:g} mm.")]
    ideal = {"lengthwise": [width / 2], "double": [width / 4, width * 3 / 4]}.get(fold, [])
    faults = []
    if repeat and axes:
        if any(all(_modulo(at, a, repeat) > TOLERANCE_MM for a in axes) for at in folds):
            faults.append(Fault("fold", f"The fold “{fold}” does not lie on a mirror axis of the bars."))
    elif any(abs(at - want) > TOLERANCE_MM for at, want in zip(folds, ideal, strict=False)):
        told = (
            "A lengthwise fold must lie in the middle of the width."
            if fold == "lengthwise"
            else "A double fold must lie a quarter of the width from each selvage."
        )
        faults.append(Fault("fold", told))
    if any(not 0 < at < width for at in folds) or (fold == "partial" and folds[0] > width / 2 + TOLERANCE_MM):
        faults.append(Fault("fold", f"The fold “{fold}” lies where the cloth cannot be folded so."))
    return faults


def _grounds(section: dict[str, Any], width: float, layers: int) -> list[tuple[float, float]]:
    """The stretches across on which a placement may lie."""
    fold, at = section["fold"], section["fold_at"]
    if len(at) != {"lengthwise": 1, "partial": 1, "double": 2}.get(fold, len(at)):
        # told elsewhere
        return [(0.0, width)]
    if fold == "lengthwise":
        return [(at[0], at[0] + min(at[0], width - at[0]))]
    if fold == "partial":
        return [(at[0], 2 * at[0])] if layers == 2 else [(at[0], width)]
    if fold == "double":
        return [(at[0], 2 * at[0]), (2 * at[1] - width, at[1])]
    return [(0.0, width)]


def _pinned_faults(problem: dict[str, Any], lay: dict[str, Any], pieces: dict[str, Any]) -> list[Fault]:
    """Every placement lies on its ground, and what is pinned gives exactly what is cut."""
    width = problem["cloth"]["width"]
    faults: list[Fault] = []
    expected: list[dict[str, Any]] = []
    for entry in lay["laid"]:
        piece = pieces.get(entry["piece"])
        if piece is None or not 0 <= entry["section"] < len(lay["sections"]):
            faults.append(Fault("ground", f"{entry['piece']} is pinned and belongs to no piece or section."))
            continue
        section = lay["sections"][entry["section"]]
        fold, at = section["fold"], section["fold_at"]
        expected.append(entry)
        half = False
        if entry["layers"] == 2 and fold == "crosswise" and at:
            half = bool(piece.get("on_fold")) and abs(entry["x"] - at[0]) <= TOLERANCE_MM and entry["turn"] in (90, 270)
            if not half:
                expected.append(
                    {
                        **entry,
                        "x": 2 * at[0] - entry["x"],
                        "turn": (180 - entry["turn"]) % 360,
                        "mirrored": not entry["mirrored"],
                    }
                )
        elif entry["layers"] == 2:
            if not at:
                told = f"{entry['piece']} is pinned on two layers where the cloth lies in one."
                faults.append(Fault("ground", told))
                continue
            # of two folds, the one on whose side the piece lies
            middle = _middle(piece, entry)
            line = min(at, key=lambda y: abs(y - middle))
            half = bool(piece.get("on_fold")) and abs(entry["y"] - line) <= TOLERANCE_MM and entry["turn"] in (0, 180)
            if not half:
                expected.append(
                    {
                        **entry,
                        "y": 2 * line - entry["y"],
                        "turn": -entry["turn"] % 360,
                        "mirrored": not entry["mirrored"],
                    }
                )
        faults += _ground_faults(piece, entry, section, width, half)
    left = list(lay["cut"])
    for want in expected:
        found = next((c for c in left if _same_place(c, want)), None)
        if found is None:
            faults.append(Fault("pinned", f"{want['piece']}: what is pinned and what is cut are not the same."))
        else:
            left.remove(found)
    faults += [Fault("pinned", f"{_name(c)} is cut but nowhere pinned.", _who(c)) for c in left]
    return faults


def _middle(piece: dict[str, Any], entry: dict[str, Any]) -> float:
    ys = _ring(np.asarray(piece["outline"], dtype=float), entry)[:, 1]
    return float(ys.min() + ys.max()) / 2


def _same_place(a: dict[str, Any], b: dict[str, Any]) -> bool:
    return bool(
        a["piece"] == b["piece"]
        and abs(a["x"] - b["x"]) <= TOLERANCE_MM
        and abs(a["y"] - b["y"]) <= TOLERANCE_MM
        and a["turn"] == b["turn"]
        and a["mirrored"] == b["mirrored"]
    )


def _ground_faults(
    piece: dict[str, Any], entry: dict[str, Any], section: dict[str, Any], width: float, half: bool
) -> list[Fault]:
    points = np.asarray(piece["outline"], dtype=float)
    if piece.get("on_fold") and not half:
        points = np.concatenate([points, points * np.array([1.0, -1.0])])
    ring = _ring(points, entry)
    (x0, y0), (x1, y1) = ring.min(axis=0).tolist(), ring.max(axis=0).tolist()
    faults = []
    start = (
        section["fold_at"][0]
        if section["fold"] == "crosswise" and section["fold_at"] and entry["layers"] == 2
        else section["from"]
    )
    if x0 < start - TOLERANCE_MM or x1 > section["to"] + TOLERANCE_MM:
        faults.append(Fault("ground", f"{entry['piece']} is pinned over the end of its section."))
    fixed = bool(piece.get("fixed"))
    inside = any(
        y0 >= low - TOLERANCE_MM and y1 <= high + TOLERANCE_MM
        for low, high in _grounds(section, width, entry["layers"])
    )
    # what the maker has fixed may lie on the hidden layer
    if not inside and not fixed:
        if piece.get("on_fold") and entry["layers"] == 2:
            faults.append(Fault("ground", f"{entry['piece']} is cut on the fold but does not lie on it."))
        else:
            told = f"{entry['piece']} lies off the ground of its fold, over a fold, or over the meeting line."
            faults.append(Fault("ground", told, what=(entry["piece"], "")))
    return faults
