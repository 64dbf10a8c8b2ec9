"""Cut as it is sent."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from ...core.cut.handling import MARKS
from ...core.cut.really_left import holes
from ...core.cut.tally import FAULTS, CopyTold
from ...core.cut.told import PieceTold
from ...core.lay.in_two import JOIN
from ...core.units import MM_PER_INCH
from ...core.working import Quantity
from ...operations.buy.trials import TrialsStanding
from ...operations.cut.again import Again, WayTried, missing_told
from ...operations.cut.before import BeforeCutting
from ...operations.cut.left import ClothLeft
from ...operations.cut.rounds import CuttingStanding, Round, Step
from ...operations.standing import Standing
from ..buy.show import small_out, trials_out
from ..lay.schemas import KeptOffOut
from ..lay.show import folding_out, stretch_out
from ..plan.schemas import DrawnOut
from ..shared.figures import Presenter, rounded
from . import schemas as out

#: What is written beside a copy.
STATES: dict[str, str] = {
    "waits": "waits",
    "good": "cut",
    **{str(key): label for key, label in FAULTS.items()},
    "left": "given up",
}


def before_out(show: Presenter, found: BeforeCutting) -> out.BeforeCuttingOut:
    """The list before cutting."""
    lines = [
        out.BeforeLineOut(
            key=line.key,
            asks=line.asks,
            state=line.state,
            told=show.told(line.told),
            picture=line.picture,
            mend=line.mend,
            by_hand=line.by_hand,
            can_accept=line.can_accept,
            ticked=line.by_hand and line.state == "clean",
            why=line.why,
        )
        for line in found.lines
    ]
    return out.BeforeCuttingOut(lines=lines, ready=found.ready, open=sum(line.state == "open" for line in lines))


def cut_out(
    show: Presenter, now: Standing, before: BeforeCutting, found: CuttingStanding, ahead: Round | None
) -> out.CuttingOut:
    """Cut as it stands; ``ahead``: the round that would be begun."""
    rounds = found.rounds or ((ahead,) if ahead is not None else ())
    numbers = {(step.round.number, step.key): step.number for step in found.steps}
    if not found.rounds and ahead is not None:
        numbers = {(ahead.number, key): k for k, key in enumerate(ahead.order, start=1)}
    last = found.last_cut
    return out.CuttingOut(
        missing="" if now.chosen is not None or found.begun else now.missing or "Lay the pieces first.",
        before=before_out(show, before),
        begun=found.begun,
        done=found.done,
        at=found.at,
        good=found.good,
        of=found.of or (0 if ahead is None else len(ahead.lay.cut)),
        owed=[] if not found.begun else list(missing_told(now, found.owed, found.asked)),
        headline=_headline(before, found, ahead),
        rounds=[_round(show, one, found, numbers) for one in rounds],
        steps=[_step(show, now, step) for step in found.steps],
        faults=[out.FaultOut(value=str(key), label=label) for key, label in FAULTS.items()],
        handling=_handling(show, found),
        last_cut=None
        if last is None
        else out.LastCutOut(round=last.round.number, key=last.key, name=last.told.shape.name),
    )


def _headline(before: BeforeCutting, found: CuttingStanding, ahead: Round | None) -> str:
    if not found.begun:
        if ahead is None:
            return "Nothing is laid yet"
        open_ = sum(line.state == "open" for line in before.lines)
        if open_:
            return "One line is open before cutting" if open_ == 1 else f"{open_} lines are open before cutting"
        return "Ready to cut"
    if found.owed:
        lost = sum(sum(counts) for counts in found.owed.values())
        return "One piece has no place any more" if lost == 1 else f"{lost} pieces have no place any more"
    if found.done:
        spare = len(found.tally.waiting)
        return f"All {found.of} pieces are cut" + (f"; {spare} that still lie there are not needed" if spare else "")
    return f"{found.good} of {found.of} pieces are cut"


def _round(show: Presenter, one: Round, found: CuttingStanding, numbers: Mapping[tuple[int, str], int]) -> out.RoundOut:
    drawing = one.drawing
    places = {shape.pinned: shape for shape in drawing.shapes}
    route = [_middle(places[key].outline) for key in one.order if (one.number, key) in numbers]
    return out.RoundOut(
        round=one.number,
        cloth=one.row.cloth.name if one.number else "",
        length=drawing.length,
        low=drawing.low,
        high=drawing.high,
        stretches=[stretch_out(each) for each in drawing.stretches],
        kept_off=[KeptOffOut(outline=rounded(area.outline, 2), under=area.under) for area in drawing.kept_off],
        shapes=[
            out.CutShapeOut(
                key=shape.pinned,
                round=one.number,
                piece_id=shape.piece_id,
                name=shape.name,
                number=numbers.get((one.number, shape.pinned), 0),
                section=shape.section,
                layers=shape.layers,
                outline=rounded(shape.outline, 2),
                tail=shape.tail,
                head=shape.head,
                marks=[DrawnOut(kind=m.kind, line=rounded(m.line, 2), name=m.name) for m in shape.marks],
                state=_state(found.tally.of(one.number, shape.pinned)),
            )
            for shape in drawing.shapes
        ],
        foldings=[folding_out(show, each) for each in one.foldings],
        unfoldings=one.unfoldings,
        own_order=bool(one.row.own_order),
        against=[f"{one.name(b)} before {one.name(a)}" for a, b in one.against],
        route=route,
        ruler=100.0 if show.system == "metric" else 4 * MM_PER_INCH,
    )


def _middle(outline: Sequence[tuple[float, float]]) -> tuple[float, float]:
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


def _state(copies: Sequence[CopyTold]) -> Literal["waits", "cut", "lost", "left"]:
    if any(one.lost for one in copies):
        return "lost"
    if any(one.gone for one in copies):
        return "cut"
    return "left" if copies and all(one.state == "left" for one in copies) else "waits"


def _step(show: Presenter, now: Standing, step: Step) -> out.TableStepOut:
    told: PieceTold = step.told
    shape = told.shape
    drawing = step.round.drawing
    cloth = step.round.row.cloth
    return out.TableStepOut(
        round=step.round.number,
        key=step.key,
        number=step.number,
        of=step.of,
        name=shape.name,
        cloth=(cloth.name or "a remnant") if cloth.id != now.use.cloth_id else "",
        done=step.done,
        copies=[
            out.CopyOut(copy_number=one.copy, state=one.state, label=STATES[one.state], mirrored=one.mirrored)
            for one in step.copies
        ],
        begins=show.length(max(0.0, shape.from_end[0])),
        ends=show.length(shape.from_end[1]),
        from_what=told.from_what,
        edge=shape.edge,
        tail_distance=show.length(shape.tail_distance),
        head_distance=show.length(shape.head_distance),
        lies_told=shape.lies_told,
        face=told.face,
        turned=told.turned,
        layers=told.layers,
        marks=[
            out.CutMarkOut(
                kind=mark.kind,
                label=MARKS[mark.kind],
                name=mark.name,
                along=show.length(mark.along),
                across=show.length(mark.across),
            )
            for mark in told.marks
        ],
        marked=told.marked,
        allowance=show.told(step.allowance),
        match=[show.told(one.told) for one in step.match],
        stop_at=list(step.stop_at),
        beside=[drawing.shapes[k].pinned for k in told.beside],
        says=show.told(step.says),
    )


def _handling(show: Presenter, found: CuttingStanding) -> out.HandlingOut:
    hold = found.handling
    return out.HandlingOut(
        hold=show.told(hold.hold.do),
        hold_why=hold.hold.why,
        cut=[show.told(one.do) for one in hold.cut],
        marks=[
            out.CutMarkHow(kind=kind, label=MARKS[kind], do=show.told(one.do), why=one.why)
            for kind, one in hold.marks.items()
        ],
        cautions=list(hold.cautions),
    )


def again_out(show: Presenter, found: Again, trials: TrialsStanding) -> out.AgainOut:
    """What can be done about what is missing."""
    return out.AgainOut(
        missing=list(found.missing), ways=[_way(show, one) for one in found.ways], trials=trials_out(trials)
    )


def _way(show: Presenter, one: WayTried) -> out.AgainWayOut:
    return out.AgainWayOut(
        key=one.way.key,
        kind=one.way.kind,
        told=show.told(one.way.told),
        costs=show.told(one.way.costs),
        state=one.state,
        came=show.told(one.came),
        cost=show.figure(one.cost),
        lay=small_out(show, one.lay),
        gone=[rounded(shape, 1) for shape in one.way.problem.blocked_shapes],
        joins=[]
        if one.lay is None
        else [rounded(mark.line, 1) for shape in one.lay.drawing.shapes for mark in shape.marks if mark.kind == JOIN],
    )


def left_out(show: Presenter, found: ClothLeft | None, least: float) -> out.ClothLeftOut:
    """What is left of a cloth."""
    if found is None:
        return out.ClothLeftOut(
            there=False, long=show.length(0.0), known=False, width=0.0, remnants=[], gone=[], scraps=0, scrap_told="",
            used=None, least=show.length(least),
        )  # fmt: skip
    area, scraps = show.quantity(Quantity(found.left.scrap_area, "area")), found.left.scraps
    told = f"{area} in slivers between the pieces"
    if scraps:
        told = f"{'one scrap' if scraps == 1 else f'{scraps} scraps'}, {area} with the slivers between the pieces"
    return out.ClothLeftOut(
        there=True,
        long=show.length(found.long),
        known=found.known,
        width=found.width,
        remnants=[
            out.RemnantOut(
                number=k,
                area=round(one.area, 1),
                x=one.x,
                y=one.y,
                outline=rounded(one.outline, 1),
                holes=[rounded(hole, 1) for hole in one.holes],
                along=show.length(one.along),
                across=show.length(one.across),
                rectangles=[
                    out.RectangleOut(x=r.x, y=r.y, along=show.length(r.along), across=show.length(r.across))
                    for r in one.rectangles
                ],
                border=show.length(one.border) if one.border else None,
                kept=one.kept,
            )
            for k, one in enumerate(found.left.remnants)
        ],
        gone=[rounded(shape, 1) for shape in holes(found.gone)],
        scraps=found.left.scraps,
        scrap_told=told,
        used=show.figure(found.left.used),
        least=show.length(found.least),
    )
