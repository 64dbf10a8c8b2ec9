"""The lay problem: what is to be laid, on what, and every way it can be wrong.

The format is ``idle-selvage/lay-problem/1`` (docs/lay-formats.md). Reading collects *all* faults, one
sentence each, so that a person mends a file once and not five times.
"""

from __future__ import annotations

import hashlib
import json
import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from shapely.geometry import Polygon

from ..pieces import GRAINS, MAX_COPIES, MAX_POINTS, Grain, Outline, fold_fault, polygon_fault

FORMAT = "idle-selvage/lay-problem/1"
FOLDS = ("open", "lengthwise", "partial", "double", "crosswise", "combination")
FOLDS_DONE = ("open", "lengthwise")
MAX_PIECES = 200
MAX_ALL_COPIES = 400
MAX_ALL_POINTS = 50_000
#: Everything is compared to a tenth of a millimetre.
TOLERANCE_MM = 0.1

_TOP = {"format", "cloth", "folds", "pieces"}
_CLOTH = {"width", "length", "one_way", "reversible", "gap", "blocked", "bars"}
_BARS = {"x_repeat", "y_repeat", "x_axes", "y_axes"}
_PIECE = {"id", "outline", "copies", "pair", "on_fold", "grain", "one_way", "match", "centre_on_axis"}


class BadProblem(ValueError):
    """A problem that cannot be laid. ``faults`` holds one sentence per fault."""

    def __init__(self, faults: list[str]) -> None:
        super().__init__(" ".join(faults))
        self.faults = faults


@dataclass(frozen=True)
class LayPiece:
    """A piece of a lay problem; see docs/lay-formats.md for what the fields mean."""

    id: str
    outline: Outline
    copies: int = 1
    pair: bool = False
    on_fold: bool = False
    grain: Grain = "lengthwise"
    one_way: bool = False


@dataclass(frozen=True)
class Problem:
    """A lay problem this engine can take on. Lengths in millimetres."""

    width: float
    pieces: tuple[LayPiece, ...]
    length: float | None = None
    one_way: bool = False
    reversible: bool = False
    gap: float = 0.0
    folds: tuple[str, ...] = ("open",)


def allowed_turns(grain: Grain, one_way: bool) -> tuple[int, ...]:
    """The turns, degrees counter-clockwise, that the grain and the direction leave."""
    turns = {
        "lengthwise": ((0, 180), (0,)),
        "crosswise": ((90, 270), (90,)),
        "bias": ((45, 135, 225, 315), (45, 315)),
        "any": ((0, 45, 90, 135, 180, 225, 270, 315), (0, 45, 90, 315)),
    }
    return turns[grain][1 if one_way else 0]


def read_problem(data: object) -> Problem:
    """Read a decoded lay problem. Raises :class:`BadProblem` with every fault found."""
    reader = _Reader()
    problem = reader.problem(data)
    if reader.faults or problem is None:
        raise BadProblem(reader.faults)
    return problem


def to_json(problem: Problem) -> dict[str, Any]:
    """The problem in its format, ready for :func:`json.dumps`."""
    return {
        "format": FORMAT,
        "cloth": {
            "width": problem.width,
            "length": problem.length,
            "one_way": problem.one_way,
            "reversible": problem.reversible,
            "gap": problem.gap,
            "blocked": [],
            "bars": {"x_repeat": None, "y_repeat": None, "x_axes": [], "y_axes": []},
        },
        "folds": list(problem.folds),
        "pieces": [
            {
                "id": p.id,
                "outline": [list(point) for point in p.outline],
                "copies": p.copies,
                "pair": p.pair,
                "on_fold": p.on_fold,
                "grain": p.grain,
                "one_way": p.one_way,
                "match": [],
                "centre_on_axis": None,
            }
            for p in problem.pieces
        ],
    }


def fingerprint(problem: Problem) -> str:
    """A short name for exactly this problem; it changes when anything that matters to the lay does."""
    text = json.dumps(to_json(problem), sort_keys=True, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()[:16]


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
        if cloth.get("blocked") not in (None, []):
            self.fault("Blocked areas (“cloth.blocked”) are not laid around yet; this version would cut into them.")
        self.bars(cloth.get("bars"))
        folds = self.folds(data.get("folds", ["open"]))
        pieces = self.pieces(data.get("pieces"))
        if self.faults or width is None or gap is None:
            return None
        problem = Problem(width, pieces, length, one_way, reversible, gap, folds)
        self.fits(problem)
        return problem

    def bars(self, bars: object) -> None:
        if bars is None:
            return
        if not isinstance(bars, dict):
            self.fault("“cloth.bars” must be an object with x_repeat, y_repeat, x_axes and y_axes.")
            return
        self.keys(bars, _BARS, "“cloth.bars”")
        for key in ("x_repeat", "y_repeat"):
            if bars.get(key) is not None:
                self.number(bars[key], f"cloth.bars.{key}", least=0.1)
        for key in ("x_axes", "y_axes"):
            axes = bars.get(key, [])
            if not isinstance(axes, list):
                self.fault(f"cloth.bars.{key} must be a list of positions.")
                continue
            for value in axes[:100]:
                self.number(value, f"cloth.bars.{key}", least=0)

    def folds(self, folds: object) -> tuple[str, ...]:
        names = [folds] if isinstance(folds, str) else folds
        if not isinstance(names, list) or not names:
            self.fault('“folds” must name at least one fold, such as ["open"].')
            return ()
        for name in names:
            if name not in FOLDS:
                self.fault(f"{_shown(name)} is not a fold; known are {', '.join(FOLDS)}.")
            elif name not in FOLDS_DONE:
                self.fault(f"The fold “{name}” cannot be laid yet; this version does {' and '.join(FOLDS_DONE)}.")
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
        where = f"Piece “{name[:60]}”"
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
        if entry.get("match") not in (None, []):
            self.fault(f"{where}: matching (“match”) is not done yet by this version.")
        if entry.get("centre_on_axis") is not None:
            self.fault(f"{where}: “centre_on_axis” is not done yet by this version.")
        if on_fold and outline:
            fault = fold_fault(outline)
            if fault:
                self.fault(f"{where} {fault}.")
        if len(self.faults) > before:
            return None
        return LayPiece(name, outline, copies, pair, on_fold, grain, one_way)

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


def too_wide(problem: Problem) -> list[tuple[str, float]]:
    """Pieces that reach over the cloth in every turn they may lie in, with their least extent across, mm."""
    found = []
    for piece in problem.pieces:
        least = min(_across(piece, turn) for turn in allowed_turns(piece.grain, piece.one_way or problem.one_way))
        if least > problem.width + TOLERANCE_MM:
            found.append((piece.id, least))
    return found


def _across(piece: LayPiece, turn: int) -> float:
    angle = math.radians(turn)
    s, c = math.sin(angle), math.cos(angle)
    points = list(piece.outline)
    if piece.on_fold:
        points += [(x, -y) for x, y in points]
    ys = [s * x + c * y for x, y in points]
    return max(ys) - min(ys)


def _shown(value: object) -> str:
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 40 else text[:37] + "…"


def piece_area(piece: LayPiece) -> float:
    """Area of one finished copy, mm²."""
    return float(Polygon(piece.outline).area) * (2.0 if piece.on_fold else 1.0)
