"""From core records and rows to what is sent, in the units of the person asking."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy.orm import Session

from ..core.buy.order import RULES, SHOP_STEPS_MM, round_up
from ..core.cloth.direction import CLOTH_DIRECTIONS, PILE_RUNS
from ..core.cloth.dye import GRADES, GREY_SCALE
from ..core.cloth.hand import QUESTIONS
from ..core.cloth.make import COLOURINGS, FIBRES, FINISHES, WEAVES
from ..core.lay.asking import FOLD_REACH_MM
from ..core.lay.drawing import Drawing, draw
from ..core.lay.problem import Problem
from ..core.lay.problem import to_json as problem_json
from ..core.lay.reading import read_problem
from ..core.plan.outline import BadPiece
from ..core.plan.piece import GRAINS
from ..core.project.stages import Stage, StageFacts, stages
from ..core.project.tally import Tally, bad_pieces, tally
from ..core.shrink import treatment
from ..core.shrink.shrinkage import divide_not_add
from ..core.shrink.swatch import verdict
from ..core.shrink.together import ROLES
from ..core.true.edge import METHODS, advise_edge
from ..core.units import System
from ..core.working import Figure, Step, count, length
from ..core.written import length_text
from ..store import models, records
from . import measured
from . import schemas as out
from .presenter import Presenter
from .show_cloth import cloth_out, set_out
from .true_state import stage_of

#: The folds the screen offers and draws; the engine lays more.
FOLD_LABELS = {"open": "single layer", "lengthwise": "folded selvage to selvage"}
#: Every fold, for a small picture's caption.
FOLD_NAMES = {
    **FOLD_LABELS,
    "partial": "one selvage folded up",
    "double": "both selvages to the middle",
    "crosswise": "folded end to end",
    "combination": "folded and open stretches",
}
GRAIN_LABELS = {"lengthwise": "lengthwise", "crosswise": "on the cross grain", "bias": "on the bias", "any": "any way"}


def work_up(session: Session, row: models.Project) -> tuple[Tally, models.LayRecord | None, models.Swatch | None]:
    """The tally of a project as it stands, with the lay and the swatch it rests on."""
    swatch = records.swatch(session, row.cloth_id)
    chosen = records.chosen_lay(session, row.id)
    cloth = records.as_cloth(row.cloth) if row.cloth.width_readings else None
    laid, _ = measured.laid(session, chosen)
    found = tally(cloth, records.given(session, row), laid, records.as_wishes(row))
    return found, chosen, swatch


def fit_of(row: models.Project, found: Tally) -> tuple[float, float] | None:
    """The shrinkages by which pieces are enlarged, when the garment is sewn first and shrunk to fit.

    The mean, and not the pessimistic end: a garment too large is as wrong as one too small.
    """
    if row.school != "fit" or found.warp.figure is None or found.weft.figure is None:
        return None
    return max(0.0, found.warp.figure.value), max(0.0, found.weft.figure.value)


def taken_of(found: Tally) -> tuple[float, float]:
    """The shrinkages along and across that are still to come before cutting, as planned with, per cent."""
    warp, weft = found.warp_taken.plan, found.weft_taken.plan
    return (warp.value if warp else 0.0, weft.value if weft else 0.0)


def basis_of(found: Tally) -> dict[str, float]:
    """The shrinkages a lay made now would rest on: those still to come before cutting."""
    return {k.direction: round(k.plan.value, 3) for k in (found.warp_taken, found.weft_taken) if k.plan}


def current_problem(session: Session, row: models.Project, found: Tally) -> tuple[Problem | None, str]:
    """The lay problem as things stand now, or the sentence that says what is missing."""
    rows = records.pieces(session, row.id)
    if not rows:
        return None, "Add the pattern pieces first."
    if found.width is None:
        return None, found.missing.get("width", "Measure the cloth's width first.")
    fit = fit_of(row, found)
    if row.school == "fit" and fit is None:
        return None, "Wash a swatch first: how much to enlarge the pieces is not known."
    try:
        return records.lay_problem(row, rows, found.width.value, taken_of(found), fit), ""
    except BadPiece as fault:
        return None, str(fault)


def stale_reasons(
    chosen: models.LayRecord | None, problem: Problem | None, why: str, found: Tally, system: System
) -> tuple[str, ...]:
    """What changed since the lay was made, each as the end of a sentence."""
    if chosen is None:
        return ()
    if problem is None:
        return (f"it can no longer be laid ({why.rstrip('.')})",)
    then, present = chosen.problem, problem_json(problem)
    reasons = []
    for direction, way in (("warp", "along"), ("weft", "across")):
        before, after = chosen.basis.get(direction), basis_of(found).get(direction)
        if before is not None and after is not None and abs(before - after) > 0.05:
            reasons.append(f"the shrinkage {way} to plan with went from {before:.1f} % to {after:.1f} %")
    a, b = then["cloth"], present["cloth"]
    if abs(a["width"] - b["width"]) > 0.05:
        reasons.append(
            f"the usable width went from {length_text(a['width'], system)} to {length_text(b['width'], system)}"
        )
    if a["one_way"] != b["one_way"]:
        reasons.append("the cloth's direction was changed")
    if a["reversible"] != b["reversible"]:
        reasons.append("which side shows was changed")
    if a["gap"] != b["gap"]:
        reasons.append("the room between pieces was changed")
    if a["blocked"] != b["blocked"]:
        reasons.append("the flaws to lay around were changed")
    if a["bars"] != b["bars"]:
        reasons.append("the bars to meet were changed")
    if then["pieces"] != present["pieces"]:
        reasons.append("the pieces were changed")
    return tuple(reasons)


def project_stages(
    session: Session,
    row: models.Project,
    found: Tally,
    chosen: models.LayRecord | None,
    swatch: models.Swatch | None,
    system: System,
) -> tuple[tuple[Stage, ...], tuple[str, ...]]:
    """The rail's dots, and why the lay is out of date, if it is."""
    problem, why = current_problem(session, row, found)
    stale = stale_reasons(chosen, problem, why, found, system)
    rows = records.pieces(session, row.id)
    # the newest laying: beginning one stops any other
    job = records.last_job(session, row.id)
    facts = StageFacts(
        pieces=len(rows),
        bad_pieces=len(bad_pieces([records.as_piece(p) for p in rows])),
        width_readings=len(row.cloth.width_readings),
        kind_known=bool(row.cloth.blend),
        marks_before=len(swatch.warp) + len(swatch.weft) if swatch else 0,
        washed_both_ways=(found.warp.basis == "swatch" and found.weft.basis == "swatch") or row.cloth.treated,
        made_up=swatch is not None and swatch.simulated,
        not_at_rest="" if row.cloth.treated else _not_at_rest(row.cloth, swatch),
        laying=job is not None and job.state in ("waiting", "running"),
        laid=chosen is not None,
        stale=stale,
        can_buy=found.purchase is not None,
        logged=records.log_count(session, row.id),
        true=stage_of(session, row),
    )
    return stages(facts), stale


def _not_at_rest(cloth: models.Cloth, swatch: models.Swatch | None) -> str:
    """What the swatch's last wash leaves open, as a sentence, or nothing."""
    state, said = verdict(records.as_swatch(swatch), cloth.like)
    return said if state in ("again", "unsure") else ""


def next_step(found: Sequence[Stage]) -> str:
    """The first thing that is not done, in working order; buying waits for the lay."""
    order = ("plan", "cloth", "shrink", "lay", "buy", "true")
    by_name = {stage.name: stage for stage in found}
    for name in order:
        if by_name[name].state != "done":
            return by_name[name].why
    return "All done so far: the lay can be printed."


def project_out(session: Session, row: models.Project, system: System) -> out.ProjectOut:
    """A project whole."""
    show = Presenter(system)
    found, chosen, swatch = work_up(session, row)
    states, stale = project_stages(session, row, found, chosen, swatch, system)
    job = records.last_job(session, row.id)
    warnings = [
        out.WarningOut.model_validate({"stage": s, "level": level, "text": t}) for s, level, t in found.warnings
    ]
    warnings += [out.WarningOut(stage="lay", level="look", text=f"The lay is out of date: {why}.") for why in stale]
    along, across = records.as_bars(row.cloth)
    met = any(p.meets or p.centred for p in records.pieces(session, row.id))
    if (along.seen or across.seen) and not met:
        told = "No piece meets another on the bars: say on Plan which do."
        warnings.append(out.WarningOut(stage="plan", level="look", text=told))
    problem, _ = current_problem(session, row, found) if row.cloth.shop_fold is not None else (None, "")
    if problem is not None and not any(x1 >= FOLD_REACH_MM for _, _, x1, _ in problem.blocked):
        told = "The faded fold cannot be kept off: a piece is wider than the cloth on either side of it."
        warnings.append(out.WarningOut(stage="lay", level="look", text=told))
    if swatch is not None and swatch.simulated:
        told = "The swatch's readings are made up by the stand-in washer."
        warnings.append(out.WarningOut(stage="shrink", level="look", text=told))
    if not row.cloth.treated and any(not w.simulated for w in records.washes(session, row.cloth_id)):
        told = "It was pre-treated: measure width and length again, and say so under Kept."
        warnings.append(out.WarningOut(stage="cloth", level="look", text=told))
    beside = set_out(session, show, row)
    warnings += [out.WarningOut(stage="shrink", level="spoil", text=text) for text in beside.mismatches]
    if beside.all_washed:
        warnings.append(out.WarningOut(stage="shrink", level="look", text=beside.all_washed))
    return out.ProjectOut(
        id=row.id,
        name=row.name,
        note=row.note,
        wash=row.wash,
        dry=row.dry,
        school=row.school,
        cloth=cloth_out(session, show, row.cloth),
        set=beside,
        wishes=out.WishesOut(
            gap=show.length(row.gap),
            folds=row.folds,
            lay_seconds=row.lay_seconds,
            ends=show.length(row.ends),
            spare=show.length(row.spare),
            shop_step=show.length(row.shop_step),
            edge_way=row.edge_way,
            edge=edge_out(show, row.cloth),
            bought_extra=show.length(row.bought_extra),
            extra_why=row.extra_why,
        ),
        pieces=[show.piece(p, fit_of(row, found)) for p in records.pieces(session, row.id)],
        stages=[out.StageOut(name=s.name, state=s.state, why=s.why) for s in states],
        tally=tally_entries(show, found, chosen),
        warnings=warnings,
        purchase=purchase_out(session, show, row, found, chosen),
        job=show.job(job) if job else None,
        next_step=next_step(states),
    )


def purchase_out(
    session: Session, show: Presenter, row: models.Project, found: Tally, chosen: models.LayRecord | None
) -> out.PurchaseOut | None:
    """The purchase, beside what it would be if the lay were as short as it can be."""
    if found.purchase is None or chosen is None:
        return None
    _, pending = measured.laid(session, chosen)
    shorter = chosen.lay["length"] - chosen.lay["bound"]
    s = found.warp_taken.plan.value if found.warp_taken.plan else 0.0
    asked = found.purchase.before - divide_not_add(shorter, s) + row.bought_extra
    return show.purchase(found.purchase, round_up(asked, row.shop_step), [RULES[rule] for rule in pending])


def edge_out(show: Presenter, cloth: models.Cloth) -> out.EdgeOut:
    """Every way to make the first edge, the one that suits this cloth first."""
    advice = advise_edge(records.edge_facts(cloth))
    whys = {advice.way: advice.why, **dict(advice.others)}
    return out.EdgeOut(
        way=advice.way,
        why=advice.why,
        ways=[
            out.EdgeWayOut(
                key=key,
                name=METHODS[key].name,
                loss=show.length(METHODS[key].loss),
                why=why,
                steps=list(METHODS[key].steps),
                caution=METHODS[key].caution,
            )
            for key, why in whys.items()
        ],
    )


def tally_entries(show: Presenter, found: Tally, chosen: models.LayRecord | None) -> list[out.TallyEntryOut]:
    """The foot of the screen, left to right."""
    bought = found.purchase
    lay = None
    if chosen is not None:
        made = records.lay_of(chosen)
        pieces, tries = ("pieces cut", count(len(made.cut))), ("tries", count(made.steps))
        steps = (
            Step("the lay", "as far as any piece reaches from the cut end", (pieces, tries), length(made.length)),
            Step(
                "cannot be shorter than",
                "the greatest of: area of the pieces ÷ width; the longest piece; what tall "
                "pieces take of the middle line",
                (("width", length(chosen.problem["cloth"]["width"])),),
                length(made.bound),
            ),
        )
        lay = Figure(
            made.length,
            "length",
            steps=steps,
            note=f"searched {made.steps} steps; cannot be shorter than {length_text(made.bound, show.system)}",
        )
    entries: list[tuple[str, str, Figure | None]] = [
        ("width", "usable width" if found.weft_taken.basis == "raw" else "width after washing", found.width),
        ("lay", "lay", lay),
        ("to_buy", "to buy", bought.to_buy if bought else None),
        ("shrinkage_warp", "shrinkage along", found.warp.figure),
        ("cost", "cost", bought.cost if bought else None),
        ("spare", "spare", bought.spare if bought else None),
    ]
    return [
        out.TallyEntryOut(
            key=key,
            label=label,
            figure=show.figure(figure),
            missing="" if figure else found.missing.get(key, "Lay the pieces first."),
        )
        for key, label, figure in entries
    ]


def line_out(session: Session, row: models.Project, system: System) -> out.ProjectLineOut:
    """A project as one strip on the bench."""
    show = Presenter(system)
    found, chosen, swatch = work_up(session, row)
    states, _ = project_stages(session, row, found, chosen, swatch, system)
    return out.ProjectLineOut(
        id=row.id,
        name=row.name,
        note=row.note,
        cloth=cloth_out(session, show, row.cloth),
        stages=[out.StageOut(name=s.name, state=s.state, why=s.why) for s in states],
        pieces=len(records.pieces(session, row.id)),
        to_buy=show.quantity(found.purchase.to_buy.quantity) if found.purchase else "",
        next_step=next_step(states),
    )


def lay_out(session: Session, row: models.Project, chosen: models.LayRecord, system: System) -> out.LayOut:
    """The chosen lay, drawn both ways, with its alternatives."""
    show = Presenter(system)
    found, _, _ = work_up(session, row)
    problem, why = current_problem(session, row, found)
    margins = (row.cloth.margin_low, row.cloth.margin_high)
    pieces = records.pieces(session, row.id)

    def drawn(record: models.LayRecord, view: str) -> Drawing:
        asked = read_problem(record.problem)
        return draw(
            records.lay_of(record),
            {p.id: p for p in asked.pieces},
            asked.width,
            margins=margins,
            view="pinned" if view == "pinned" else "opened",
            leans=records.leans(record.problem, pieces),
        )

    made = records.lay_of(chosen)
    others = []
    rows = records.lays_of_job(session, chosen.job_id) if chosen.job_id else [chosen]
    for record in rows:
        picture, lay = drawn(record, "pinned"), records.lay_of(record)
        others.append(
            out.AlternativeOut(
                lay_id=record.id,
                fold=record.fold,
                label=FOLD_LABELS[record.fold],
                length=show.length(lay.length),
                cuts=len(lay.laid),
                chosen=record.id == chosen.id,
                low=picture.low,
                high=picture.high,
                outlines=[[(round(x, 1), round(y, 1)) for x, y in s.outline] for s in picture.shapes],
            )
        )
    job = session.get(models.Job, chosen.job_id) if chosen.job_id else None
    return out.LayOut(
        lay_id=chosen.id,
        fold=chosen.fold,
        fold_label=FOLD_LABELS[chosen.fold],
        length=show.length(made.length),
        bound=show.length(made.bound),
        utilisation=made.utilisation,
        stale=list(stale_reasons(chosen, problem, why, found, system)),
        margins=margins,
        blocked=[out.AreaOut(x0=a, y0=b, x1=c, y1=d) for a, b, c, d in chosen.problem["cloth"]["blocked"]],
        pinned=show.drawing(drawn(chosen, "pinned")),
        opened=show.drawing(drawn(chosen, "opened")),
        alternatives=others,
        seed=made.seed,
        steps=made.steps,
        refused=[
            out.RefusedOut(fold=fold, label=FOLD_LABELS[fold], why=show.too_wide(piece, across, width))
            for fold, piece, across, width in (job.refused if job else [])
        ],
    )


def choices(system: System) -> out.ChoicesOut:
    """What the lists on the screens offer."""

    def listed(pairs: Sequence[tuple[str, str]]) -> list[out.ChoiceOut]:
        return [out.ChoiceOut(value=value, label=label) for value, label in pairs]

    metric, yards = SHOP_STEPS_MM[:3], SHOP_STEPS_MM[3:]
    names = {114.3: "⅛ yd", 228.6: "¼ yd", 457.2: "½ yd"}
    steps = [(str(v), f"{v / 10:.0f} cm") for v in metric], [(str(v), names[v]) for v in yards]
    return out.ChoicesOut(
        fibres=listed(list(FIBRES.items())),
        weaves=listed(list(WEAVES.items())),
        finishes=listed(list(FINISHES.items())),
        colourings=listed(list(COLOURINGS.items())),
        directions=listed(list(CLOTH_DIRECTIONS.items())),
        piles=listed([(k, name) for k, (name, _) in PILE_RUNS.items()]),
        grades=listed([(str(k), f"{k}: {told}") for k, told in GRADES.items()]),
        grade_scale=f"{GREY_SCALE.name}: {GREY_SCALE.note}",
        roles=listed([(k, label) for k, label in ROLES.items() if k != "main"]),
        questions=[out.QuestionOut(key=q.key, asks=q.asks, how=q.how, answers=listed(q.answers)) for q in QUESTIONS],
        washes=listed(list(treatment.WASHES.items())),
        dries=listed([(k, v or "—") for k, v in treatment.DRIES.items() if v]),
        grains=listed([(g, GRAIN_LABELS[g]) for g in GRAINS]),
        folds=listed([(f, FOLD_LABELS[f]) for f in FOLD_LABELS]),
        steps=listed(steps[0] + steps[1] if system == "metric" else steps[1] + steps[0]),
    )
