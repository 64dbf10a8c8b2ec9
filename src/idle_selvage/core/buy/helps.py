"""When the cloth in hand is too short: what could help, each as a lay to be tried, from harmless to a compromise."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from ..lay.in_two import in_two
from ..lay.problem import FOLDS, LayPiece, Problem, pieces_area
from ..plan.shorter import part_between
from ..wording import Sentence, listed
from ..working import Figure, Source, Step, given, length

Kind = Literal["folds", "gap", "ends", "cross", "other", "hem", "leave", "join"]

#: Hems are let off in these steps, mm, until the piece will do.
HEMS_MM = (10.0, 20.0, 30.0, 50.0)


@dataclass(frozen=True)
class PieceFacts:
    """What may be done to a piece: ``hidden`` (does not show when worn: facing, pocket bag), ``hem`` at its low end."""

    hidden: bool = False
    hem: bool = False


@dataclass(frozen=True)
class Help:
    """One thing to try. ``join_at``: where the join lies, mm from the low end of piece ``piece``'s cut line;
    ``gains``: by how much more there is to lay on, mm."""

    kind: Kind
    name: str
    costs: str
    problem: Problem
    piece: str = ""
    join_at: float = 0.0
    gains: float = 0.0


@dataclass(frozen=True)
class EndsFacts:
    """What both ends lose when they are straightened, mm together, and what they would lose at least, and how."""

    both: float = 0.0
    least: float = 0.0
    way: str = ""


@dataclass(frozen=True)
class Missing:
    """A help that cannot be tried, and what to do so that it can."""

    kind: Kind
    name: str
    why: str


#: Straightening that saves less than this is not worth the trouble, mm.
WORTH_MM = 5.0
#: So many small pieces are tried left out, each up to this share of the largest.
LEFT_OUT_MOST, SMALL_SHARE = 4, 0.5


def helps(
    problem: Problem, facts: Mapping[str, PieceFacts], ends: EndsFacts | None = None
) -> tuple[tuple[Help, ...], tuple[Missing, ...]]:
    """What to try, in the order in which it would be missed least; ``ends``: None where they are measured already."""
    found: list[Help] = []
    missing: list[Missing] = []
    hidden = [p for p in problem.pieces if facts.get(p.id, PieceFacts()).hidden]
    hemmed = [p for p in problem.pieces if facts.get(p.id, PieceFacts()).hem]
    if set(problem.folds) != {"open"}:
        name = "single layer, every piece on its own"
        found.append(Help("folds", name, "more cutting, nothing else", replace(problem, folds=("open",))))
    # every other one; the engine leaves out, with its reason, what does not suit
    other = tuple(fold for fold in FOLDS if fold not in problem.folds)
    if other:
        found.append(
            Help(
                "folds",
                "any other way to fold",
                "folding anew while cutting",
                replace(problem, folds=problem.folds + other),
            )
        )
    if problem.gap > 0:
        name = Sentence("pieces edge to edge instead of {gap} apart", gap=length(problem.gap))
        found.append(Help("gap", name, "careful cutting: one cut makes two edges", replace(problem, gap=0.0)))
    if ends is not None and ends.both - ends.least >= WORTH_MM:
        name = Sentence("straightened with {least} off both ends together instead of {both}", least=length(ends.least),
                        both=length(ends.both))  # fmt: skip
        told = f"{ends.way}, with care: a second try takes more"
        found.append(Help("ends", name, told, problem, gains=ends.both - ends.least))
    turned = {
        p.id for p in hidden if p.grain == "lengthwise" and not p.one_way and not p.match and not p.centre_on_axis
    }
    if turned:
        across = _changed(problem, lambda p: replace(p, grain="crosswise") if p.id in turned else p)
        told = f"{listed(sorted(p.called for p in hidden if p.id in turned))} on the cross grain"
        found.append(Help("cross", told, "a little more give where it does not show", across))
    left = tuple(p for p in problem.pieces if p not in hidden)
    if hidden and left:
        told = f"{listed([p.called for p in hidden])} from another cloth"
        found.append(
            Help("other", told, "a thin, firm cloth of like care beside this one", replace(problem, pieces=left))
        )
    if not hidden:
        todo = "Say on Plan which pieces do not show: facings, pocket bags, inner bands."
        missing.append(Missing("cross", "hidden pieces on the cross grain or from another cloth", todo))
    for less in HEMS_MM if hemmed else ():
        shorter = _changed(problem, lambda p, n=less: _shortened(p, n) if p in hemmed else p)  # type: ignore[misc]
        name = Sentence("hems {less} shorter", less=length(less))
        who = f"{listed([p.called for p in hemmed])} {'ends' if len(hemmed) == 1 else 'end'}"
        found.append(Help("hem", name, Sentence("{who} {less} higher", who=who, less=length(less)), shorter))
    if not hemmed:
        missing.append(Missing("hem", "a shorter hem", "Say on Plan which pieces have a hem at their low end."))
    found += _left_out(problem, hidden)
    found += _joins(problem, facts)
    return tuple(found), tuple(missing)


def _changed(problem: Problem, change: Callable[[LayPiece], LayPiece]) -> Problem:
    return replace(problem, pieces=tuple(change(piece) for piece in problem.pieces))


def _shortened(piece: LayPiece, less: float) -> LayPiece:
    """The piece with ``less`` mm off its low end; a piece that short stays as it is."""
    xs = [x for x, _ in piece.outline]
    low, high = min(xs) + less, max(xs)
    part = part_between(piece.outline, low, high) if high - low > less else None
    if part is None:
        return piece
    # what met at a place that is gone now meets at the new low end, as far up as before
    match = tuple(replace(m, point=(max(m.point[0], low), m.point[1])) for m in piece.match)
    return replace(piece, outline=part, match=match)


def _left_out(problem: Problem, hidden: list[LayPiece]) -> list[Help]:
    """The small pieces that show, one at a time, the smallest first: a pocket, a collar, a belt."""

    def area(piece: LayPiece) -> float:
        return pieces_area(replace(problem, pieces=(piece,)))

    shown = sorted((p for p in problem.pieces if p not in hidden), key=area)
    small = [p for p in shown if area(p) <= SMALL_SHARE * area(shown[-1])]
    costs = "the garment goes without, or a second cloth beside this one"
    return [
        Help(
            "leave",
            f"{piece.called} left out, or cut from another cloth",
            costs,
            replace(problem, pieces=tuple(p for p in problem.pieces if p is not piece)),
            piece.id,
        )
        for piece in small[:LEFT_OUT_MOST]
    ]


def _joins(problem: Problem, facts: Mapping[str, PieceFacts]) -> list[Help]:
    """The longest piece joined half way, one that does not show before one that does."""

    def long(piece: LayPiece) -> float:
        xs = [x for x, _ in piece.outline]
        return max(xs) - min(xs)

    may = [p for p in problem.pieces if p.grain != "bias" and not p.match and not p.centre_on_axis and not p.fixed]
    out: list[Help] = []
    for group in (True, False):
        of = [p for p in may if facts.get(p.id, PieceFacts()).hidden == group]
        if not of:
            continue
        piece = max(of, key=long)
        parts = in_two(piece)
        if parts is None:
            continue
        pieces = tuple(q for p in problem.pieces for q in (parts if p is piece else (p,)))
        at = long(piece) / 2
        shows = "does not show" if group else "shows: put it where a seam may be"
        name = Sentence("{piece} joined, {at} from its low end", piece=piece.called, at=length(at))
        out.append(Help("join", name, f"one more seam, which {shows}", replace(problem, pieces=pieces), piece.id, at))
    return out


#: A lay longer than the cloth by less than this still fits it, mm.
FITS_MM = 0.05
#: A help that saves less than this saves nothing, mm.
NOTHING_MM = 0.5

HelpState = Literal["does", "short", "worse", "waiting"]


TRIED = Source("common practice", "laid on what is there", "as it is cut, after its ends are straightened")


def taken(lay: float) -> Figure:
    """What the lay takes of a cloth, mm."""
    return Figure(lay, "length", steps=(given("the lay takes", length(lay), "as it was laid"),), sources=(TRIED,))


def left_over(there: Figure, lay: float) -> Figure:
    """What is left of what is there, mm; below nothing: so much is short."""
    left = there.value - lay
    put = (("there", length(there.value)), ("the lay takes", length(lay)))
    step = Step("left over", "there − the lay takes", put, length(left), "below nothing: so much is short")
    return Figure(left, "length", steps=(*there.steps, step), sources=(TRIED, *there.sources))


def does(there: float, lay: float) -> bool:
    """Whether a lay fits what is there, both mm."""
    return there - lay >= -FITS_MM


def help_came_to(
    there: float, plain: float | None, helped: float, gains: float = 0.0, how: str = ""
) -> tuple[HelpState, Sentence]:
    """What trying a help came to: the lay without it (None: without it nothing can be laid) and with it, what is there,
    and how much more there is, mm; ``how`` the cloth lies then."""
    over = there + gains - helped
    if does(there + gains, helped):
        return "does", Sentence("it does{how}: {left} are left", how=f", {how}" if how else "", left=length(over))
    if plain is None:
        return "short", Sentence("it can be laid, and is {short} short", short=length(-over))
    saves = plain - helped + gains
    if saves > NOTHING_MM:
        told = "saves {saves}, still {short} short"
        return "short", Sentence(told, saves=length(saves), short=length(-over))
    return "worse", Sentence("saves nothing")
