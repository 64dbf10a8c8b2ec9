"""Reading a lay problem from JSON, and every way it can be wrong.

All faults are collected, one sentence each, so that a person mends a file once and not five times.
"""

from __future__ import annotations

import json
import math
from collections.abc import Mapping
from typing import Any, cast

import numpy as np
from shapely.geometry import Polygon

from ..plan.outline import MAX_POINTS, Outline, fold_fault, is_mirror_symmetric, polygon_fault, whole_polygon
from ..plan.piece import GRAINS, MAX_COPIES
from .engine.orientations import pose
from .problem import (
    FOLDS,
    FORMAT,
    MAX_ALL_COPIES,
    MAX_ALL_POINTS,
    MAX_PIECES,
    TOLERANCE_MM,
    Axis,
    BadProblem,
    Bars,
    Border,
    BorderEdge,
    Fixed,
    LayPiece,
    Match,
    Problem,
    Selvage,
    too_wide,
    turns_of,
)

MAX_BLOCKED = 200
MAX_MATCHES = 20
#: Bars finer than this cannot be seen to match.
FINEST_REPEAT_MM = 1.0

_TOP = {"format", "cloth", "folds", "turn_on_bars", "partial_at", "pieces"}
_CLOTH = {"width", "length", "one_way", "reversible", "gap", "blocked", "bars"}
_BARS = {"x_repeat", "y_repeat", "x_axes", "y_axes"}
_PIECE = {
    "name",
    "grainline",
    "id",
    "outline",
    "copies",
    "pair",
    "on_fold",
    "grain",
    "one_way",
    "match",
    "centre_on_axis",
    "fixed",
    "border",
}


def read_problem(data: object) -> Problem:
    """Read a decoded lay problem. Raises :class:`BadProblem` with every fault found."""
    reader = _Reader()
    problem = reader.problem(data)
    if reader.faults or problem is None:
        raise BadProblem(reader.faults)
    return problem


_MATCH = {"group", "point", "along", "across", "phase"}
_FIXED = {"x", "y", "turn", "mirrored", "slides"}
_BORDER = {"edge", "selvage", "distance"}


class _Reader:
    def __init__(self) -> None:
        self.faults: list[str] = []

    def fault(self, sentence: str) -> None:
        if len(self.faults) < 50:
            self.faults.append(sentence)

    def keys(self, data: Mapping[str, Any], known: set[str], where: str) -> None:
        for key in data:
            if key not in known:
                self.fault(f"{where} has an unknown key “{str(key)[:40]}”; known are {', '.join(sorted(known))}.")

    def number(self, value: object, where: str, *, least: float, most: float = 1e6) -> float | None:
        if isinstance(value, bool) or not isinstance(value, int | float):
            self.fault(f"{where} must be a number of millimetres, not {_shown(value)}.")
            return None
        if not math.isfinite(value):
            self.fault(f"{where} is not a finite number.")
            return None
        if not least <= value <= most:
            self.fault(f"{where} is {value:g} mm; it must be from {least:g} to {most:g} mm.")
            return None
        return float(value)

    def flag(self, value: object, where: str) -> bool:
        if not isinstance(value, bool):
            self.fault(f"{where} must be true or false, not {_shown(value)}.")
            return False
        return value

    def problem(self, data: object) -> Problem | None:
        if not isinstance(data, dict):
            self.fault("The file must hold one JSON object, a lay problem.")
            return None
        if data.get("format") != FORMAT:
            self.fault(f"“format” must be “{FORMAT}”, not {_shown(data.get('format'))}.")
        self.keys(data, _TOP, "The problem")
        cloth = data.get("cloth")
        if not isinstance(cloth, dict):
            self.fault('“cloth” is missing; it holds the usable width, such as {"width": 1120}.')
            cloth = {}
        self.keys(cloth, _CLOTH, "“cloth”")
        width = self.number(cloth.get("width"), "cloth.width", least=10, most=10_000)
        length = None
        if cloth.get("length") is not None:
            length = self.number(cloth["length"], "cloth.length", least=1)
        gap = self.number(cloth.get("gap", 0.0), "cloth.gap", least=0, most=200)
        one_way = self.flag(cloth.get("one_way", False), "cloth.one_way")
        reversible = self.flag(cloth.get("reversible", False), "cloth.reversible")
        blocked, shapes = self.blocked(cloth.get("blocked"))
        bars = self.bars(cloth.get("bars"))
        folds = self.folds(data.get("folds", ["open"]))
        turn_on_bars = self.flag(data.get("turn_on_bars", False), "turn_on_bars")
        partial_at = None
        if data.get("partial_at") is not None:
            partial_at = self.number(data["partial_at"], "partial_at", least=1, most=(width or 10_000) / 2)
        pieces = self.pieces(data.get("pieces"))
        if self.faults or width is None or gap is None:
            return None
        problem = Problem(
            width, pieces, length, one_way, reversible, gap, folds, blocked, bars, turn_on_bars, shapes, partial_at
        )
        self.fits(problem)
        self.matches(problem)
        self.borders(problem)
        self.locked(problem)
        return problem

    def blocked(self, areas: object) -> tuple[tuple[tuple[float, float, float, float], ...], tuple[Outline, ...]]:
        """Rectangles, and outlines."""
        if areas is None:
            return (), ()
        if not isinstance(areas, list) or len(areas) > MAX_BLOCKED:
            self.fault(
                f"“cloth.blocked” must be a list of at most {MAX_BLOCKED} areas, each a rectangle [x0, y0, x1, y1] or "
                "a list of [x, y] points."
            )
            return (), ()
        read, shapes = [], []
        for number, area in enumerate(areas, start=1):
            if isinstance(area, list) and area and isinstance(area[0], list | tuple):
                shapes.append(self.outline(area, f"Blocked area {number}"))
                continue
            if not isinstance(area, list | tuple) or len(area) != 4:
                self.fault(
                    "A blocked area must be four numbers [x0, y0, x1, y1] or a list of [x, y] points, not "
                    f"{_shown(area)}."
                )
                continue
            sides = [self.number(v, "cloth.blocked", least=-1e6) for v in area]
            x0, y0, x1, y1 = (0.0 if v is None else v for v in sides)
            if None not in sides and (x0 >= x1 or y0 >= y1):
                self.fault(f"The blocked area {_shown(area)} has no extent; x0 must be under x1, and y0 under y1.")
            read.append((x0, y0, x1, y1))
        if (points := sum(len(outline) for outline in shapes)) > MAX_ALL_POINTS:
            self.fault(f"The blocked areas have {points} points together; at most {MAX_ALL_POINTS} can be worked with.")
        return tuple(read), tuple(shapes)

    def bars(self, bars: object) -> Bars:
        if bars is None:
            return Bars()
        if not isinstance(bars, dict):
            self.fault("“cloth.bars” must be an object with x_repeat, y_repeat, x_axes and y_axes.")
            return Bars()
        self.keys(bars, _BARS, "“cloth.bars”")
        repeats: dict[str, float | None] = {}
        axes: dict[str, tuple[float, ...]] = {}
        for axis in ("x", "y"):
            key = f"{axis}_repeat"
            repeats[axis] = None
            if bars.get(key) is not None:
                repeats[axis] = self.number(bars[key], f"cloth.bars.{key}", least=FINEST_REPEAT_MM, most=5000)
            places = bars.get(f"{axis}_axes", [])
            if not isinstance(places, list) or len(places) > 100:
                self.fault(f"cloth.bars.{axis}_axes must be a list of positions.")
                places = []
            read = [self.number(v, f"cloth.bars.{axis}_axes", least=0) for v in places]
            if read and bars.get(key) is None:
                self.fault(f"cloth.bars.{axis}_axes are positions within a repeat, and there is no {key}.")
            axes[axis] = tuple(v for v in read if v is not None)
        return Bars(repeats["x"], repeats["y"], axes["x"], axes["y"])

    def folds(self, folds: object) -> tuple[str, ...]:
        names = [folds] if isinstance(folds, str) else folds
        if not isinstance(names, list) or not names:
            self.fault('“folds” must name at least one fold, such as ["open"].')
            return ()
        for name in names:
            if name not in FOLDS:
                self.fault(f"{_shown(name)} is not a fold; known are {', '.join(FOLDS)}.")
        return tuple(dict.fromkeys(str(n) for n in names))

    def pieces(self, pieces: object) -> tuple[LayPiece, ...]:
        if not isinstance(pieces, list) or not pieces:
            self.fault("“pieces” must be a list with at least one piece.")
            return ()
        if len(pieces) > MAX_PIECES:
            self.fault(f"There are {len(pieces)} pieces; at most {MAX_PIECES} can be laid at once.")
            return ()
        read: list[LayPiece] = []
        seen: set[str] = set()
        points = 0
        for place, entry in enumerate(pieces, start=1):
            piece = self.piece(entry, place)
            if piece is None:
                continue
            if piece.id in seen:
                self.fault(f"Two pieces are called “{piece.id}”; each needs an id of its own.")
            seen.add(piece.id)
            points += len(piece.outline)
            read.append(piece)
        if points > MAX_ALL_POINTS:
            self.fault(f"The outlines have {points} points together; at most {MAX_ALL_POINTS} can be worked with.")
        if sum(p.copies for p in read) > MAX_ALL_COPIES:
            self.fault(f"More than {MAX_ALL_COPIES} copies are to be laid at once; lay them in parts.")
        return tuple(read)

    def piece(self, entry: object, place: int) -> LayPiece | None:
        if not isinstance(entry, dict):
            self.fault(f"Piece {place} must be an object with an id and an outline.")
            return None
        before = len(self.faults)
        name = entry.get("id")
        if not isinstance(name, str) or not name.strip() or len(name) > 200:
            self.fault(f"Piece {place} needs an id, a short text.")
            name = f"piece {place}"
        called = entry.get("name", "")
        if not isinstance(called, str) or len(called) > 200:
            self.fault(f"Piece “{name[:60]}”: name must be a short text, not {_shown(called)}.")
            called = ""
        where = f"Piece “{(called or name)[:60]}”"
        self.keys(entry, _PIECE, where)
        outline = self.outline(entry.get("outline"), where)
        copies = entry.get("copies", 1)
        if isinstance(copies, bool) or not isinstance(copies, int) or not 1 <= copies <= MAX_COPIES:
            self.fault(f"{where}: copies must be a whole number from 1 to {MAX_COPIES}, not {_shown(copies)}.")
            copies = 1
        pair = self.flag(entry.get("pair", False), f"{where}: pair")
        on_fold = self.flag(entry.get("on_fold", False), f"{where}: on_fold")
        one_way = self.flag(entry.get("one_way", False), f"{where}: one_way")
        grain = entry.get("grain", "lengthwise")
        if grain not in GRAINS:
            self.fault(f"{where}: grain must be one of {', '.join(GRAINS)}, not {_shown(grain)}.")
            grain = "lengthwise"
        if pair and copies % 2:
            self.fault(f"{where}: a pair needs an even number of copies, not {copies}.")
        if pair and on_fold:
            self.fault(f"{where}: a piece on the fold is symmetrical and has no pair; choose one of the two.")
        if on_fold and grain in ("bias", "any"):
            self.fault(
                f"{where}: a piece on the fold never lies on the bias; its grain must be lengthwise or crosswise."
            )
        match = self.match(entry.get("match"), where)
        centre = entry.get("centre_on_axis")
        if centre not in (None, "x", "y"):
            self.fault(f'{where}: centre_on_axis must be "x", "y" or null, not {_shown(centre)}.')
        fixed = self.fixed(entry.get("fixed"), where)
        arrow = self.grainline(entry.get("grainline"), where)
        border = self.border(entry.get("border"), where)
        if len(fixed) > copies:
            self.fault(f"{where}: {len(fixed)} copies are fixed, and there are only {copies}.")
        if border is not None and (match or centre is not None):
            self.fault(f"{where}: a border piece lies by its hem and cannot be matched as well.")
        if on_fold and outline:
            fault = fold_fault(outline)
            if fault:
                self.fault(f"{where} {fault}.")
        if len(self.faults) > before:
            return None
        return LayPiece(
            name,
            outline,
            copies,
            pair,
            on_fold,
            grain,
            one_way,
            match,
            cast("Axis | None", centre),
            fixed,
            border,
            called,
            arrow,
        )

    def match(self, entries: object, where: str) -> tuple[Match, ...]:
        if entries is None:
            return ()
        if not isinstance(entries, list) or len(entries) > MAX_MATCHES:
            self.fault(f"{where}: match must be a list of at most {MAX_MATCHES} points.")
            return ()
        read = []
        for entry in entries:
            if not isinstance(entry, dict):
                self.fault(f"{where}: a match must be an object with group, point, along and across.")
                continue
            self.keys(entry, _MATCH, f"{where}: match")
            group = entry.get("group")
            if not isinstance(group, str) or not group.strip() or len(group) > 200:
                self.fault(f"{where}: a match needs a group, a short text.")
                continue
            point = self.point(entry.get("point"), f"{where}: the point of match “{group[:40]}”")
            along = self.flag(entry.get("along", False), f"{where}: along")
            across = self.flag(entry.get("across", False), f"{where}: across")
            if not along and not across:
                self.fault(f"{where}: match “{group[:40]}” is neither along nor across; say which bars must meet.")
            phase = entry.get("phase")
            phases: list[float | None] = [None, None]
            if isinstance(phase, list):
                if len(phase) != 2:
                    self.fault(f"{where}: phase must be a number, or two of them [x, y], not {_shown(phase)}.")
                    continue
                phases = [None if v is None else self.number(v, f"{where}: phase", least=-1e6) for v in phase]
            elif phase is not None:
                phases = [self.number(phase, f"{where}: phase", least=-1e6)] * 2
            read.append(Match(group, point, along, across, phases[0] if along else None, phases[1] if across else None))
        return tuple(read)

    def point(self, value: object, where: str) -> tuple[float, float]:
        if isinstance(value, list | tuple) and len(value) == 2:
            x, y = (self.number(v, where, least=-1e5, most=1e5) for v in value)
            return (x or 0.0, y or 0.0)
        self.fault(f"{where} must be two numbers [x, y], not {_shown(value)}.")
        return (0.0, 0.0)

    def grainline(self, value: Any, where: str) -> tuple[tuple[float, float], tuple[float, float]] | None:
        """The piece's own arrow, if it stands there: two places."""
        if value is None:
            return None
        ends = [end for end in value if self.is_place(end)] if isinstance(value, list) else []
        if len(ends) != 2 or len(value) != 2:
            self.fault(f"{where}: grainline must be two places such as [[20, 90], [400, 90]], not {_shown(value)}.")
            return None
        (ax, ay), (bx, by) = ends
        return ((float(ax), float(ay)), (float(bx), float(by)))

    def is_place(self, value: Any) -> bool:
        """Whether it is two finite numbers."""
        return (
            isinstance(value, list)
            and len(value) == 2
            and all(isinstance(c, int | float) and not isinstance(c, bool) and abs(c) < 1e6 for c in value)
        )

    def fixed(self, value: object, where: str) -> tuple[Fixed, ...]:
        if value is None:
            return ()
        entries = value if isinstance(value, list) else [value]
        read = []
        for entry in entries:
            if not isinstance(entry, dict):
                self.fault(f"{where}: fixed must be an object with x, y, turn and mirrored, or a list of such.")
                continue
            self.keys(entry, _FIXED, f"{where}: fixed")
            x = self.number(entry.get("x"), f"{where}: fixed x", least=-1e6)
            y = self.number(entry.get("y"), f"{where}: fixed y", least=-1e6)
            turn = entry.get("turn", 0)
            if isinstance(turn, bool) or not isinstance(turn, int) or turn not in range(0, 360, 45):
                self.fault(f"{where}: fixed turn must be 0, 45, 90 … 315 degrees, not {_shown(turn)}.")
                turn = 0
            mirrored = self.flag(entry.get("mirrored", False), f"{where}: fixed mirrored")
            slides = self.flag(entry.get("slides", False), f"{where}: fixed slides")
            read.append(Fixed(x or 0.0, y or 0.0, turn, mirrored, slides))
        return tuple(read)

    def border(self, value: object, where: str) -> Border | None:
        if value is None:
            return None
        if not isinstance(value, dict):
            self.fault(f"{where}: border must be an object with edge, selvage and distance.")
            return None
        self.keys(value, _BORDER, f"{where}: border")
        edge = value.get("edge", "hem")
        if edge not in ("hem", "side"):
            self.fault(f"{where}: the border is laid by the piece's “hem” or its “side”, not by {_shown(edge)}.")
            edge = "hem"
        selvage = value.get("selvage")
        if selvage not in ("low", "high"):
            self.fault(f'{where}: border selvage must be "low" or "high", not {_shown(selvage)}.')
            selvage = "low"
        distance = self.number(value.get("distance", 0.0), f"{where}: border distance", least=0, most=10_000)
        return Border(cast("Selvage", selvage), distance or 0.0, cast("BorderEdge", edge))

    def outline(self, value: object, where: str) -> Outline:
        if not isinstance(value, list):
            self.fault(f"{where} needs an outline, a list of [x, y] points.")
            return ()
        if len(value) > MAX_POINTS:
            self.fault(f"{where} has {len(value)} points; at most {MAX_POINTS} can be worked with.")
            return ()
        points: list[tuple[float, float]] = []
        for point in value:
            if (
                not isinstance(point, list | tuple)
                or len(point) != 2
                or any(isinstance(c, bool) or not isinstance(c, int | float) for c in point)
            ):
                self.fault(f"{where} has a point {_shown(point)}; each must be two numbers [x, y].")
                return ()
            points.append((float(point[0]), float(point[1])))
        fault = polygon_fault(points)
        if fault:
            self.fault(f"{where} {fault}.")
            return ()
        return tuple(points)

    def fits(self, problem: Problem) -> None:
        for piece, across in too_wide(problem):
            self.fault(
                f"Piece “{piece[:60]}” is {across:.1f} mm across in every turn it may lie in, and the cloth "
                f"is {problem.width:.1f} mm wide."
            )

    def matches(self, problem: Problem) -> None:
        bars = problem.bars
        for piece in problem.pieces:
            where = f"Piece “{piece.called[:60]}”"
            if any(m.along for m in piece.match) and bars.x_repeat is None:
                self.fault(f"{where} is to match along the cloth, and the cloth has no x_repeat.")
            if any(m.across for m in piece.match) and bars.y_repeat is None:
                self.fault(f"{where} is to match across the cloth, and the cloth has no y_repeat.")
            if piece.centre_on_axis and not (bars.x_axes or bars.y_axes):
                self.fault(f"{where} is to be centred on a mirror axis, and the cloth's bars have none.")
            unbalanced = bars.y_repeat is not None and not bars.y_axes and not problem.reversible
            if piece.pair and unbalanced and any(m.across for m in piece.match):
                self.fault(
                    f"{where} is a mirrored pair to match across, and the bars are unbalanced across: a mirrored pair "
                    "cannot match on them. Leave “across” out, or give the bars' mirror axes."
                )

    def borders(self, problem: Problem) -> None:
        for piece in problem.pieces:
            if piece.border is None:
                continue
            # across the cloth lies the length of a hem's piece, and the width of a strip
            k = 0 if piece.border.edge == "hem" else 1
            how = ("long", "wide")[k]
            long = max(p[k] for p in piece.outline) - min(p[k] for p in piece.outline)
            if piece.border.distance + long > problem.width + TOLERANCE_MM:
                self.fault(
                    f"Piece “{piece.called[:60]}” is {long:.1f} mm {how} and its {piece.border.edge} lies "
                    f"{piece.border.distance:.1f} mm from the selvage; the cloth is only {problem.width:.1f} mm wide."
                )

    def locked(self, problem: Problem) -> None:
        """Fixed copies must lie where pieces may lie, each and together."""
        shapes: list[tuple[str, Polygon]] = []
        for piece in problem.pieces:
            where = f"Piece “{piece.called[:60]}”"
            if piece.pair and not problem.reversible:
                for mirrored in (False, True):
                    if sum(f.mirrored == mirrored for f in piece.fixed) * 2 > piece.copies:
                        self.fault(f"{where} is a pair; at most half of its copies can be fixed one way round.")
            ring = np.array(whole_polygon(piece.outline).exterior.coords if piece.on_fold else piece.outline)
            free = piece.pair or piece.on_fold or problem.reversible or is_mirror_symmetric(piece.outline)
            for f in piece.fixed:
                if piece.centre_on_axis is not None and not _centred(piece.centre_on_axis, f, problem.bars):
                    self.fault(f"{where} is to be centred on a mirror axis, and is fixed where it is not.")
                if f.mirrored and not free:
                    self.fault(f"{where} is fixed mirrored, and it is cut as drawn.")
                if f.turn not in turns_of(piece, problem):
                    self.fault(f"{where} is fixed at {f.turn}°, which its grain does not allow.")
                shape = Polygon(pose(ring, f.turn, f.mirrored).ring + np.array([f.x, f.y]))
                x0, y0, x1, y1 = shape.bounds
                over = y0 < -TOLERANCE_MM or y1 > problem.width + TOLERANCE_MM
                if f.slides:
                    # where along it lies is not said yet
                    if over:
                        self.fault(f"{where} may only slide along where it reaches over a selvage.")
                    continue
                over = over or x0 < -TOLERANCE_MM
                if over or (problem.length is not None and x1 > problem.length + TOLERANCE_MM):
                    self.fault(f"{where} is fixed where it reaches over the edge of the cloth.")
                for outline in problem.kept_off:
                    if piece.border is None and shape.buffer(-TOLERANCE_MM / 2).intersects(Polygon(outline)):
                        self.fault(f"{where} is fixed on a blocked area.")
                for other, taken in shapes:
                    inner = shape.buffer(-TOLERANCE_MM / 2)
                    if inner.intersects(taken) or inner.distance(taken) < problem.gap:
                        self.fault(f"{where} is fixed over, or too near to, “{other[:60]}”.")
                shapes.append((piece.id, shape))


def _centred(centre: Axis, f: Fixed, bars: Bars) -> bool:
    """Whether a fixed copy's own line lies on a mirror axis; it runs along unless turned to the cross grain."""
    along = (centre == "x") == (f.turn in (0, 180))
    if f.slides and not along:
        return True
    at, repeat, axes = (f.y, bars.y_repeat, bars.y_axes) if along else (f.x, bars.x_repeat, bars.x_axes)
    if repeat is None or f.turn % 90:
        return False
    return any(abs((at - a + repeat / 2) % repeat - repeat / 2) <= TOLERANCE_MM for a in axes)


def _shown(value: object) -> str:
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 40 else text[:37] + "…"
