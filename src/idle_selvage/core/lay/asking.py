"""From the cloth, the pieces and the wishes to what the lay engine is asked.

What is told of the cloth is given as it lay when it was measured, from the cut end and the near selvage, and is
moved here by the shrinkage since: bars by its best value, flaws kept off everything between its two ends.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from ..cloth.bars import NONE, BarPattern
from ..cloth.border import ClothBorder
from ..plan.allowance import cut_line
from ..plan.drawn import carried
from ..plan.outline import BadPiece, Outline
from ..plan.piece import Grain, Piece
from ..plan.seams import Sewn
from ..plan.shorter import shortened
from ..shrink.states import STAYS, Move
from ..shrink.to_fit import TURN, enlarge, enlarged, holds_at_one_turn, onto_cloth
from .joined import BarWish, Carry, Joined, Joining, Met, Way, joined
from .outlined import around
from .problem import Bars, Border, BorderEdge, LayPiece, Problem, Selvage, too_wide


def washed_bars(along: BarPattern, across: BarPattern, warp: float, weft: float, margin: float) -> Bars:
    """The bars on the usable cloth after washing; only those whose matching can be seen.

    ``along`` follow one another along the cloth and ``across`` across it, in the measures of the unwashed cloth
    from the cut end and the near selvage; ``warp`` and ``weft`` are shrinkages still to come, per cent; ``margin``
    is left off at the near selvage, mm after washing. Along the cloth only the distances between axes count: where
    the lay begins on the bars is open until the first edge is made, so the first axis stands for the beginning.
    """
    start = along.axes[0] * (1.0 - warp / 100.0) if along.axes else 0.0
    x_repeat, x_axes = _washed(along, warp, start)
    y_repeat, y_axes = _washed(across, weft, margin)
    return Bars(x_repeat, y_repeat, x_axes, y_axes)


def _washed(bars: BarPattern, shrinkage: float, off: float) -> tuple[float | None, tuple[float, ...]]:
    if bars.repeat is None or not bars.seen:
        return None, ()
    left = 1.0 - shrinkage / 100.0
    repeat = round(bars.repeat * left, 3)
    return repeat, tuple(sorted(round((axis * left - off) % repeat, 3) for axis in bars.axes))


Area = tuple[float, float, float, float]


@dataclass(frozen=True)
class FlawToLay:
    """A flaw (x, y, w, h) as it lay when it was measured, and what lies between then and the cutting."""

    area: Area
    move: Move = STAYS


def blocked(flaws: Sequence[FlawToLay], margin: float, trim: float, width: float) -> tuple[Area, ...]:
    """Flaws as rectangles (x0, y0, x1, y1) on the usable cloth as it is cut: everything between their places at the
    low and the high shrinkage, because nobody knows where between."""
    out = []
    for flaw in flaws:
        x, y, w, h = flaw.area
        (near_x, near_y), (far_x, far_y) = _left(flaw.move.high), _left(flaw.move.low)
        x0, x1 = max(0.0, x * near_x - trim), (x + w) * far_x - trim
        y0, y1 = max(0.0, y * near_y - margin), min(width, (y + h) * far_y - margin)
        if x1 > x0 and y1 > y0:
            out.append((round(x0, 2), round(y0, 2), round(x1, 2), round(y1, 2)))
    return tuple(out)


def _left(shrinkage: tuple[float, float]) -> tuple[float, float]:
    return 1.0 - shrinkage[0] / 100.0, 1.0 - shrinkage[1] / 100.0


def faded_fold(
    shop_fold: float, move: Move, margin: float, width: float, pieces: Sequence[LayPiece], one_way: bool
) -> Area | None:
    """A faded shop fold as a strip all along the usable washed cloth, or None where it cannot be kept off.

    It cannot when a piece is wider than what lies on either side of it: then it has to be laid where it shows least.
    """
    near, far = shop_fold * _left(move.high)[1] - margin, shop_fold * _left(move.low)[1] - margin
    low, high = max(0.0, near - FOLD_MARK_MM), min(width, far + FOLD_MARK_MM)
    if high <= low:
        return None
    widest = max(low, width - high)
    if widest <= 0 or too_wide(Problem(widest, tuple(pieces), one_way=one_way)):
        return None
    return (0.0, round(low, 2), FOLD_REACH_MM, round(high, 2))


#: A faded or dusty shop fold is kept off by so much on either side. Common practice, from memory.
FOLD_MARK_MM = 3.0
#: How far along the cloth it is kept off: more than any lay of a home dressmaker.
FOLD_REACH_MM = 30_000.0


@dataclass(frozen=True)
class ClothToLay:
    """What of a cloth decides a lay. Lengths in mm: ``margin`` at the near selvage, ``shop_fold`` from the near
    selvage; ``one_way``: nap, stroke or a print with a top; ``any_way``: it has no grain. ``bars_move`` and
    ``fold_move``: what lies between when bars and fold were measured and the cutting."""

    margin: float = 0.0
    along: BarPattern = NONE
    across: BarPattern = NONE
    one_way: bool = False
    reversible: bool = False
    flaws: tuple[FlawToLay, ...] = ()
    shop_fold: float | None = None
    any_way: bool = False
    bars_move: Move = STAYS
    fold_move: Move = STAYS
    border: ClothBorder | None = None
    far_margin: float = 0.0
    #: a remnant's own outline and then its holes, mm, and what lies between when they were told and the cutting
    outline: tuple[Outline, ...] = ()
    outline_move: Move = STAYS


#: By which edge a piece lies on a border: on the cross grain by its hem; along the cloth it is a strip off it in one.
ON_BORDER: dict[Grain, BorderEdge] = {"crosswise": "hem", "lengthwise": "side"}


@dataclass(frozen=True)
class PieceToLay:
    """A piece as it is cut from a cloth, by its key.

    ``centred``: its middle lies on a mirror axis of the bars that run along the cloth; a pair is mirrored about one
    instead; ``shorter``: how much its low end is shorter than on the paper, mm; ``border``: the selvage its hem lies
    ``border_at`` mm from.
    """

    piece: Piece
    key: str = ""
    centred: bool = False
    shorter: float = 0.0
    border: Selvage | None = None
    border_at: float = 0.0


@dataclass(frozen=True)
class LayRules:
    """What the maker wishes for the lay: room between pieces and what is trimmed off the tested end, mm; folds; whether
    pieces may be turned on bars that are not balanced."""

    gap: float = 0.0
    folds: tuple[str, ...] = ("open",)
    trim: float = 0.0
    turn_on_bars: bool = False


def ask(
    cloth: ClothToLay,
    pieces: Sequence[PieceToLay],
    rules: LayRules,
    width: float,
    fit: tuple[float, float] | None = None,
    *,
    flaws: bool = True,
    seams: Sequence[Sewn] = (),
    wishes: Sequence[WishedBar] = (),
) -> Problem:
    """The lay problem of ``pieces`` on a usable ``width`` mm. Raises BadPiece for a piece that cannot be cut.

    ``fit``: the shrinkages by which pieces are enlarged so that the sewn garment shrinks to its size, per cent.
    ``flaws`` False: for a length that is still to be bought, whose flaws nobody knows. ``seams``: at which bars shall
    meet; ``wishes``: which bar shall fall where.
    """
    bars = bars_laid(cloth)
    met = joined_on(cloth, pieces, bars, fit, seams, wishes)
    one_way = cloth.one_way or (bars.directed and not rules.turn_on_bars)
    names = told_apart([asked.piece.name for asked in pieces])
    laid = [_laid(one, name, fit, met.of(one.key or name), cloth) for one, name in zip(pieces, names, strict=True)]
    if not any(piece.match or piece.centre_on_axis for piece in laid):
        bars = Bars()
    return Problem(
        round(width, 3),
        tuple(laid),
        None,
        one_way,
        cloth.reversible,
        rules.gap,
        rules.folds,
        _kept_off(cloth, rules.trim, width, laid, one_way) if flaws else (),
        bars,
        # where nothing meets, the wish asks for nothing: a lay does not become another one by it
        rules.turn_on_bars and bars != Bars(),
        no_cloth(cloth, rules.trim, width),
    )


def no_cloth(cloth: ClothToLay, trim: float, width: float) -> tuple[Outline, ...]:
    """What is no cloth beside a remnant of its own outline."""
    if not cloth.outline:
        return ()
    ring, *holes = frame_of(cloth, trim)
    return (*around(ring, max(x for x, _ in ring), width), *holes)


def frame_of(cloth: ClothToLay, trim: float) -> tuple[Outline, ...]:
    """A remnant's own outline and then its holes where it is laid on, as small as it may be by then; nothing of cloth
    that is as wide all along."""
    along, across = _left(cloth.outline_move.high)
    return tuple(tuple((x * along - trim, y * across - cloth.margin) for x, y in one) for one in cloth.outline)


def told_apart(names: Sequence[str]) -> list[str]:
    """A second piece of one name is called “Front (2)”, or by the next number that nobody has."""
    taken, seen = set(names), set[str]()
    out = []
    for name in names:
        told, number = name, 1
        while told in seen or (number > 1 and told in taken):
            number += 1
            told = f"{name} ({number})"
        seen.add(told)
        out.append(told)
    return out


def bars_laid(cloth: ClothToLay) -> Bars:
    """Its bars as they are laid: washed, within the margins, and only those whose matching can be seen."""
    return washed_bars(cloth.along, cloth.across, *cloth.bars_move.best, cloth.margin)


@dataclass(frozen=True)
class WishedBar:
    """Which place of the bars shall fall where on a piece, as :class:`~.joined.BarWish`; ``bar`` counted from where the
    first typed bar begins, in the measures of the cloth when its bars were measured."""

    piece: str
    way: Way
    at: float
    bar: float


def wish_laid(wish: WishedBar, cloth: ClothToLay) -> BarWish:
    """A wish with its bar as it is laid."""
    warp, weft = cloth.bars_move.best
    start = cloth.along.axes[0] if cloth.along.axes else 0.0
    bar = (wish.bar - start) * (1 - warp / 100) if wish.way == "levels" else wish.bar * (1 - weft / 100) - cloth.margin
    return BarWish(wish.piece, wish.way, wish.at, bar)


def meets_bars(asked: PieceToLay, cloth: ClothToLay) -> bool:
    """Whether bars can meet on a piece: it is cut along the cloth, and does not lie on a border. One that was turned,
    or is on the bias, has none to meet."""
    return asked.piece.grain == "lengthwise" and asked.border is None and (asked.piece.on_fold or not cloth.any_way)


def joined_on(
    cloth: ClothToLay,
    pieces: Sequence[PieceToLay],
    bars: Bars,
    fit: tuple[float, float] | None,
    seams: Sequence[Sewn],
    wishes: Sequence[WishedBar] = (),
) -> Joined:
    """What the seams come to on the bars of a cloth."""
    return _joined_on(cloth, tuple(pieces), bars, fit, tuple(seams), tuple(wishes))


@lru_cache(maxsize=128)
def _joined_on(
    cloth: ClothToLay,
    pieces: tuple[PieceToLay, ...],
    bars: Bars,
    fit: tuple[float, float] | None,
    seams: tuple[Sewn, ...],
    wishes: tuple[WishedBar, ...],
) -> Joined:
    may = {one.key: Joining(one.piece, one.centred) for one in pieces if meets_bars(one, cloth)}

    def carry(_key: str) -> Carry:
        # enlarged pieces meet as far up as the cloth will shrink to
        return lambda place: place if fit is None else enlarge([place], "lengthwise", *fit)[0]

    found = joined(may, seams, bars, carry, [wish_laid(one, cloth) for one in wishes if one.piece in may])
    return found


@lru_cache(maxsize=512)
def _laid(asked: PieceToLay, name: str, fit: tuple[float, float] | None, met: Met, cloth: ClothToLay) -> LayPiece:
    shape = shortened(asked.piece, asked.shorter)
    grain = shape.grain
    if fit is not None:
        shape = enlarged(shape, fit)
    outline = cut_line(shape)
    drawn = shape
    if fit is not None and holds_at_one_turn(grain, fit):
        # enlarged for one slant only, so it is given turned, and may only be turned end for end
        move = onto_cloth(outline, grain)
        outline, drawn, grain = move(outline), carried(shape, move), "lengthwise"
    border = None
    if asked.border is not None:
        if grain not in ON_BORDER:
            told = (
                "lies with its hem on the border, so it is cut on the cross grain, or along it as a strip: choose that."
            )
            raise BadPiece(f"{asked.piece.name or 'The piece'} {told}")
        border = Border(asked.border, asked.border_at, ON_BORDER[grain])
    elif cloth.any_way and not shape.on_fold:
        grain = "any"
    return LayPiece(
        asked.key or name,
        outline,
        shape.copies,
        shape.pair or met.paired,
        shape.on_fold,
        grain,
        shape.one_way and not cloth.any_way,
        match=met.matches,
        centre_on_axis="x" if met.centred else None,
        border=border,
        name=name,
        arrow=drawn.arrow,
        marks=drawn.marks,
    )


def _kept_off(
    cloth: ClothToLay, trim: float, width: float, laid: Sequence[LayPiece], one_way: bool
) -> tuple[Area, ...]:
    """What no piece may touch on this cloth: its flaws, and its faded fold where that can be kept off."""
    off = (*blocked(cloth.flaws, cloth.margin, trim, width), *_border(cloth, width))
    if cloth.shop_fold is None:
        return off
    fold = faded_fold(cloth.shop_fold, cloth.fold_move, cloth.margin, width, laid, one_way)
    return off if fold is None else (*off, fold)


def _border(cloth: ClothToLay, width: float) -> tuple[Area, ...]:
    """The border as a strip all along its selvage: pieces whose hem lies there may lie on it, all others keep off."""
    if cloth.border is None:
        return ()
    low = cloth.border.side == "low"
    deep = min(width, cloth.border.usable(cloth.margin if low else cloth.far_margin))
    if deep <= 0:
        return ()
    return ((0.0, 0.0, FOLD_REACH_MM, round(deep, 2)) if low else (0.0, round(width - deep, 2), FOLD_REACH_MM, width),)


def keeps_off_the_fold(problem: Problem) -> bool:
    """Whether a lay problem keeps off a faded shop fold all along the cloth."""
    edges = (0.0, problem.width)
    return any(x1 >= FOLD_REACH_MM and low not in edges and high not in edges for _, low, x1, high in problem.blocked)


def leans(problem: Problem, pieces: Sequence[PieceToLay]) -> dict[str, int]:
    """Pieces that a problem holds turned already (bias pieces enlarged to shrink to fit), and their turn, by key."""
    grains = {piece.id: piece.grain for piece in problem.pieces}
    return {
        asked.key: TURN["bias"]
        for asked in pieces
        if asked.piece.grain == "bias" and grains.get(asked.key) == "lengthwise"
    }
