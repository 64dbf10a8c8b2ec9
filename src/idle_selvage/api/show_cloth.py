"""Cloths, swatches, treatments and sets as they are sent."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy.orm import Session

from ..core.cloth import hand as judgements
from ..core.cloth.bars import BarPattern, told
from ..core.cloth.direction import PILE_RUNS, is_one_way, wale_class
from ..core.cloth.dye import GRADES, alone
from ..core.cloth.dye import verdict as dye_verdict
from ..core.cloth.make import blend_note, blend_text
from ..core.cloth.width import BadCloth, planned_width
from ..core.shrink import history, treatment
from ..core.shrink.known import Shrinkage, known_shrinkage
from ..core.shrink.ranges import blend_range
from ..core.shrink.shrinkage import BadReadings, least_swatch
from ..core.shrink.swatch import Row, Swatch, corners, cycles, in_all, too_small, verdict
from ..core.shrink.together import ROLES, Member, mismatches, one_washed_all_washed
from ..core.shrink.treatment import DRIES, SCHOOLS, WASHES, Advice, Programme, School
from ..store import models, records
from ..store.database import remember
from . import schemas as out
from .presenter import Presenter


def margin_hint(weave: str) -> str:
    """Where a margin is measured to, for a kind of cloth. Common practice, no source."""
    if weave == "sequin":
        return "Measure from the backing's selvage to the edge of the sequins."
    if weave in ("fur", "lace"):
        return "The soft edge stretches: measure to where the cloth turns firm."
    return "Measure the edge you will not use: pin holes, lettering, the tight weave."


def width_note(row: models.Cloth) -> str:
    """How the width readings agree, in a sentence, or nothing."""
    try:
        figure = planned_width(records.as_cloth(row))
    except BadCloth as fault:
        return str(fault) if row.width_readings else ""
    if figure.note:
        return figure.note[0].upper() + figure.note[1:] + "."
    return ""


def bar_out(show: Presenter, width: float, colour: str) -> out.BarOut:
    return out.BarOut(width=width, colour=colour, text=show.length(width).text)


def bars_out(show: Presenter, found: BarPattern) -> out.BarsOut:
    return out.BarsOut(
        repeat=show.maybe(found.repeat),
        axes=[round(a, 2) for a in found.axes],
        balanced=found.balanced,
        seen=found.seen,
        dominant=bar_out(show, found.dominant.width, found.dominant.colour) if found.dominant else None,
    )


def cloth_out(session: Session, show: Presenter, row: models.Cloth) -> out.ClothOut:
    """Everything that is known of a cloth."""
    make, dye = records.as_make(row), records.as_dye(session, row)
    along, across = records.as_bars(row)
    wale_note = ""
    if row.wales and row.weave == "corduroy":
        name, suits = wale_class(row.wales)
        wale_note = f"{name[0].upper()}{name[1:]} wale: {suits}."
    photo = records.photo(session, row.id)
    return out.ClothOut(
        id=row.id,
        name=row.name,
        blend=[out.ShareOut(fibre=fibre, share=share) for fibre, share in row.blend],
        made_of=blend_text(make),
        blend_note=blend_note(make),
        weave=row.weave,
        finish=row.finish,
        colouring=row.colouring,
        width_readings=[show.length(v) for v in row.width_readings],
        width_note=width_note(row),
        margin_low=show.length(row.margin_low),
        margin_high=show.length(row.margin_high),
        margin_hint=margin_hint(row.weave),
        in_hand=show.maybe(row.in_hand),
        mass=row.mass,
        price=row.price,
        price_unit="yd" if row.price_unit == "yd" else "m",
        direction=row.direction,
        pile=row.pile,
        pile_why=row.pile_why,
        pile_note=PILE_RUNS[row.pile][1] if row.direction in ("nap", "stroke") else "",
        one_way=is_one_way(row.direction),
        wales=row.wales,
        wale_note=wale_note,
        face=row.face,
        face_mark=row.face_mark,
        reversible=row.reversible,
        depth=row.depth,
        rub_grade=row.rub_grade,
        dye_note=dye_verdict(dye),
        washed_alone=alone(dye),
        ground=row.ground,
        bars_along=[bar_out(show, b["width"], b["colour"]) for b in row.bars.get("along", [])],
        bars_across=[bar_out(show, b["width"], b["colour"]) for b in row.bars.get("across", [])],
        along=bars_out(show, along),
        across=bars_out(show, across),
        bars_note=list(bars_told(along, across, row)),
        flaws=[
            out.FlawOut(**{k: show.length(flaw[k]) for k in ("x", "y", "w", "h")}, what=flaw["what"])
            for flaw in row.flaws
        ],
        shop_fold=show.maybe(row.shop_fold),
        answers=dict(row.answers),
        advice=list(judgements.advice(row.answers)),
        style_number=row.style_number,
        place=row.place,
        treated=row.treated,
        washes=[
            out.WashOut(
                id=w.id,
                at=w.at,
                how=w.how,
                grade=w.grade,
                length_after=show.maybe(w.length_after),
                width_after=show.maybe(w.width_after),
                simulated=w.simulated,
            )
            for w in records.washes(session, row.id)
        ],
        photo=f"/api/cloths/{row.id}/photo?at={int(photo.at.timestamp())}" if photo else None,
    )


def bars_told(along: BarPattern, across: BarPattern, row: models.Cloth) -> tuple[str, ...]:
    """What the bars mean, with a warning for printed ones."""
    said = told(along, across)
    if said and row.colouring == "printed":
        return (*said, "Printed bars may not follow the threads: check them against the grain under True.")
    return said


def cupboard_line(session: Session, show: Presenter, row: models.Cloth) -> out.CupboardLineOut:
    """A cloth with what is left of it."""
    left = show.length(row.in_hand).text if row.in_hand else "none in hand"
    if row.in_hand and row.width_readings:
        left += f" of {show.length(min(row.width_readings)).text} cloth"
    times = len(records.washes(session, row.id))
    if row.treated:
        left += ", pre-treated"
    elif times:
        left += ", washed once" if times == 1 else f", washed {times} times"
    warp, weft = both_known(session, row)
    shrinkage = ""
    if warp.figure and weft.figure:
        basis = {"swatch": "from a swatch", "history": "from your tests", "range": "a planning range"}[warp.basis]
        shrinkage = f"{show.figure_text(warp.figure)} along, {show.figure_text(weft.figure)} across, {basis}"
    return out.CupboardLineOut(
        cloth=cloth_out(session, show, row),
        left=left,
        shrinkage=shrinkage,
        projects=[p.name for p in records.projects_of_cloth(session, row.id)],
    )


def both_known(session: Session, row: models.Cloth) -> tuple[Shrinkage, Shrinkage]:
    """Shrinkage of a cloth in both directions, and what it rests on."""
    return remember(session, ("known", row.id), lambda: _both_known(session, row))


def _both_known(session: Session, row: models.Cloth) -> tuple[Shrinkage, Shrinkage]:
    make, test = records.as_make(row), records.as_swatch(records.swatch(session, row.id))
    past = records.past_tests(session, row.like, row.id)
    return known_shrinkage(make, test, past, "warp"), known_shrinkage(make, test, past, "weft")


def found_by(line: out.CupboardLineOut, words: str) -> bool:
    """Whether every word is found somewhere in a cloth's facts."""
    cloth = line.cloth
    facts = (cloth.name, cloth.made_of, cloth.weave, cloth.place, cloth.style_number, cloth.depth, *line.projects)
    text = " ".join(facts).lower()
    return all(word in text for word in words.lower().split())


def known_out(show: Presenter, known: Shrinkage) -> out.KnownOut:
    return out.KnownOut(
        basis=known.basis, figure=show.figure(known.figure), plan=show.figure(known.plan), missing=known.missing
    )


def shrink_out(session: Session, show: Presenter, project: models.Project, row: models.Cloth) -> out.ShrinkOut:
    """One cloth's swatch, what follows from it, and how to treat the cloth."""
    kept = records.swatch(session, row.id)
    test = records.as_swatch(kept)
    graduation = kept.graduation if kept else records.settings(session).graduation
    warp, weft = both_known(session, row)
    entry = blend_range(records.as_make(row))
    state, said = verdict(test, entry.kind if entry else "")
    readings = max(1, len(test.warp), len(test.weft))
    needed = too_small(test)
    past = records.past_tests(session, row.like, row.id)
    return out.ShrinkOut(
        cloth_id=row.id,
        cloth_name=row.name or "the cloth",
        role="main" if row.id == project.cloth_id else "beside",
        warp=[_row(show, r) for r in test.warp],
        weft=[_row(show, r) for r in test.weft],
        diagonals=[[show.maybe(d[0]), show.maybe(d[1])] if d else None for d in (kept.diagonals if kept else [])],
        washes=max(test.washes("warp"), test.washes("weft")),
        graduation=show.length(graduation),
        simulated=kept.simulated if kept else False,
        before_corners=list(_shape(test, 0)),
        cycles=_cycles(show, test),
        verdict=state,
        verdict_text=said,
        warp_known=known_out(show, warp),
        weft_known=known_out(show, weft),
        past=[out.PastOut(cloth=p.cloth, warp=f"{p.warp:.1f} %", weft=f"{p.weft:.1f} %") for p in past],
        past_note=history.told(past),
        advice=advice_out(records.advice(session, project, row), records.treat_facts(session, row).kinds),
        swatches=[_swatch_line(show, s) for s in records.swatches(session, row.id)],
        least_swatch=show.length(least_swatch(graduation, readings)),
        too_small=show.maybe(needed),
    )


def _row(show: Presenter, row: Row) -> out.RowOut:
    return out.RowOut(values=[show.maybe(v) for v in row])


def _mean(test: Swatch, direction: str, wash: int) -> float | None:
    rows = test.warp if direction == "warp" else test.weft
    values = [v for r in rows if len(r) > wash and (v := r[wash]) is not None]
    return sum(values) / len(values) if values else None


def _shape(test: Swatch, wash: int) -> tuple[tuple[float, float], ...]:
    along, across = _mean(test, "warp", wash), _mean(test, "weft", wash)
    if along is None or across is None:
        return ()
    pair = test.diagonals[wash] if wash < len(test.diagonals) else None
    return corners(along, across, *(pair or (None, None)))


def _cycles(show: Presenter, test: Swatch) -> list[out.CycleOut]:
    try:
        found = cycles(test)
    except BadReadings:
        return []
    return [
        out.CycleOut(
            wash=c.wash,
            warp=show.figure(c.warp),
            weft=show.figure(c.weft),
            warp_added=c.warp_added,
            weft_added=c.weft_added,
            skew=show.figure(c.skew),
            corners=list(_shape(test, c.wash)),
        )
        for c in found
    ]


def _swatch_line(show: Presenter, row: models.Swatch) -> out.SwatchLineOut:
    test = records.as_swatch(row)
    text = "not washed yet"
    try:
        warp, weft = in_all(test, "warp"), in_all(test, "weft")
        if warp is not None and weft is not None:
            n = max(test.washes("warp"), test.washes("weft"))
            times = "one wash" if n == 1 else f"{n} washes"
            text = f"{times}: {show.figure_text(warp)} along, {show.figure_text(weft)} across"
    except BadReadings as fault:
        text = str(fault)
    return out.SwatchLineOut(id=row.id, used=row.used, simulated=row.simulated, text=text)


def school_out(school: School) -> out.SchoolOut:
    label, why = SCHOOLS[school]
    return out.SchoolOut(value=school, label=label, why=why)


def advice_out(advice: Advice, kinds: Sequence[str]) -> out.AdviceOut:
    return out.AdviceOut(
        school=school_out(advice.school),
        chosen=advice.chosen,
        why=advice.why,
        schools=[school_out(school) for school in SCHOOLS],
        changed=list(advice.changed),
        forbids=list(advice.forbids),
        usual=list(treatment.usual(kinds)),
        steps=[out.TreatStepOut(text=s.text, materials=list(s.materials), caution=s.caution) for s in advice.steps],
        cautions=list(treatment.cautions(advice.programme)),
    )


def programme_text(programme: Programme) -> str:
    """A treatment in a few words."""
    if programme.cycle == "none":
        return "left as it is"
    if programme.cycle == "steam":
        return "steamed all over"
    wash = "soak" if programme.wash == "soak" else WASHES[programme.wash].removeprefix("Machine ")
    wash = wash[0].lower() + wash[1:]
    dry = "tumble 10 min, then flat" if programme.dry == "tumble-short" else DRIES[programme.dry]
    return f"{wash}, {dry}"


def _value(known: Shrinkage) -> float | None:
    return known.plan.value if known.plan is not None else None


def set_out(session: Session, show: Presenter, project: models.Project) -> out.SetOut:
    """Every cloth of a project, side by side."""
    rows: list[tuple[str, models.Cloth]] = [("main", project.cloth)]
    rows += [(beside.role, beside.cloth) for beside in records.set_cloths(session, project.id)]
    members: list[Member] = []
    shown: list[out.MemberOut] = []
    for role, row in rows:
        warp, weft = both_known(session, row)
        washed = row.treated or bool(records.washes(session, row.id))
        name = row.name or ROLES[role].capitalize()
        along, across = (None, None) if row.treated else (_value(warp), _value(weft))
        members.append(Member(name, role, along, across, washed))
        dye = records.as_dye(session, row)
        shown.append(
            out.MemberOut(
                cloth_id=row.id,
                name=name,
                role=role,
                role_label=ROLES[role],
                made_of=blend_text(records.as_make(row)),
                warp=show.figure(warp.figure),
                weft=show.figure(weft.figure),
                basis=warp.basis if warp.basis == weft.basis else f"{warp.basis} and {weft.basis}",
                washed=washed,
                treatment=programme_text(records.advice(session, project, row).programme),
                rub=f"{dye.last}: {GRADES[dye.last]}" if dye.last else "",
            )
        )
    wanted = []
    if judgements.needs_lining(project.cloth.answers) and not any(m.role == "lining" for m in members):
        wanted.append("The main cloth shows what is under it: put a lining beside it, or leave it sheer on purpose.")
    return out.SetOut(
        members=shown,
        mismatches=list(mismatches(members)),
        all_washed=one_washed_all_washed(members),
        wanted=wanted,
    )
