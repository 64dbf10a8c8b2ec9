"""Swatches, treatments and sets as they are sent."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.cloth.dye import GRADES
from ...core.cloth.make import blend_text
from ...core.shrink import history, treatment
from ...core.shrink.known import Shrinkage
from ...core.shrink.swatch import Cycle, Row, how_to_begin, marks_told
from ...core.shrink.together import ROLES, Member
from ...core.shrink.treatment import SCHOOLS, SWATCH_DRIES, SWATCH_WASHES, Advice, School, programme_text
from ...operations.shrink import SwatchLine, SwatchStanding
from ...operations.standing import SetStanding, Standing
from ..shared.figures import Presenter
from ..shared.schemas import ChoiceOut
from . import schemas as out


def known_out(show: Presenter, known: Shrinkage) -> out.KnownOut:
    return out.KnownOut(
        basis=known.basis,
        figure=show.figure(known.figure),
        plan=show.figure(known.plan),
        missing=known.missing,
        told=known.told,
    )


def shrink_out(show: Presenter, now: Standing, found: SwatchStanding) -> out.ShrinkOut:
    """One cloth's swatch, what follows from it, and how to treat the cloth."""
    known = found.cloth
    row, test, kept = known.row, known.test, known.rows.swatch
    past = known.rows.past
    return out.ShrinkOut(
        use_id=now.use.id,
        cloth_id=row.id,
        cloth_name=row.name or "the cloth",
        role=now.role,
        warp=[_row(show, r) for r in test.warp],
        weft=[_row(show, r) for r in test.weft],
        diagonals=[[show.maybe(d[0]), show.maybe(d[1])] if d else None for d in (kept.diagonals if kept else [])],
        washes=max(test.washes("warp"), test.washes("weft")),
        graduation=show.graduation(found.graduation),
        wash=kept.wash if kept else "",
        dry=kept.dry if kept else "",
        washes_offered=[ChoiceOut(value=key, label=show.told(told)) for key, told in SWATCH_WASHES.items()],
        dries_offered=[ChoiceOut(value=key, label=told) for key, told in SWATCH_DRIES.items()],
        simulated=kept.simulated if kept else False,
        before_corners=list(found.shape(0)),
        cycles=[_cycle(show, found, cycle) for cycle in found.cycles],
        verdict=found.verdict,
        verdict_text=found.verdict_told,
        warp_known=known_out(show, now.tally.warp),
        weft_known=known_out(show, now.tally.weft),
        past=[out.PastOut(cloth=p.cloth, warp=f"{p.warp:.1f} %", weft=f"{p.weft:.1f} %") for p in past],
        past_note=history.told(past),
        advice=advice_out(show, now.advice, known.treatment_facts.kinds),
        swatches=[_swatch_line(show, line) for line in found.lines],
        marks_told=marks_told(found.least, found.too_small, found.readings),
        too_small=found.too_small is not None,
        how_to_begin=how_to_begin(),
    )


def _row(show: Presenter, row: Row) -> out.RowOut:
    return out.RowOut(values=[show.maybe(v) for v in row])


def _cycle(show: Presenter, found: SwatchStanding, cycle: Cycle) -> out.CycleOut:
    return out.CycleOut(
        wash=cycle.wash,
        warp=show.figure(cycle.warp),
        weft=show.figure(cycle.weft),
        warp_added=cycle.warp_added,
        weft_added=cycle.weft_added,
        skew=show.figure(cycle.skew),
        corners=list(found.shape(cycle.wash)),
    )


def _swatch_line(show: Presenter, line: SwatchLine) -> out.SwatchLineOut:
    text = line.fault or "not washed yet"
    if line.warp is not None and line.weft is not None:
        times = "one wash" if line.washes == 1 else f"{line.washes} washes"
        text = f"{times}: {show.figure_text(line.warp)} along, {show.figure_text(line.weft)} across"
    return out.SwatchLineOut(id=line.row.id, used=line.row.used, simulated=line.row.simulated, text=text)


def school_out(school: School) -> out.SchoolOut:
    label, why = SCHOOLS[school]
    return out.SchoolOut(value=school, label=label, why=why)


def advice_out(show: Presenter, advice: Advice, kinds: Sequence[str]) -> out.AdviceOut:
    """How to treat a cloth."""
    return out.AdviceOut(
        school=school_out(advice.school),
        chosen=advice.chosen,
        why=advice.why,
        schools=[school_out(school) for school in SCHOOLS],
        changed=[show.told(text) for text in advice.changed],
        forbids=list(advice.forbids),
        usual=list(treatment.usual(kinds, advice.programme)),
        steps=[
            out.TreatStepOut(text=show.told(s.text), materials=list(s.materials), caution=s.caution)
            for s in advice.steps
        ],
        cautions=list(treatment.cautions(advice.programme)),
    )


def set_out(show: Presenter, found: SetStanding) -> out.SetOut:
    """Every cloth of a project, side by side."""
    return out.SetOut(
        members=[_member(show, now, member) for now, member in zip(found.cloths, found.members, strict=True)],
        headline=found.headline,
        mismatches=list(found.mismatches),
        all_washed=found.all_washed,
        wanted=list(found.wanted),
    )


def _member(show: Presenter, now: Standing, member: Member) -> out.MemberOut:
    cloth = now.cloth
    return out.MemberOut(
        use_id=now.use.id,
        cloth_id=cloth.row.id,
        name=member.name,
        role=now.role,
        role_label=ROLES[now.role],
        made_of=blend_text(cloth.make),
        warp=show.figure(now.tally.warp.figure),
        weft=show.figure(now.tally.weft.figure),
        basis=cloth.basis,
        washed=member.washed,
        treatment=show.told(programme_text(now.advice.programme)),
        rub=f"{cloth.dye.last}: {GRADES[cloth.dye.last]}" if cloth.dye.last else "",
    )
