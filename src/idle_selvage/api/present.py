"""From core records and rows to what is sent, in the units of the person asking."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy.orm import Session

from ..core import treatment
from ..core.lay.drawing import Drawing, Shown, draw
from ..core.lay.problem import FOLDS_DONE, Problem, read_problem
from ..core.lay.problem import to_json as problem_json
from ..core.pieces import GRAINS, BadPiece, Point, cut_line, grainline
from ..core.purchase import SHOP_STEPS_MM, Purchase
from ..core.shrinkage import PLANNING_RANGES, least_swatch
from ..core.stages import Facts, Stage, stages
from ..core.tally import Known, Tally, bad_pieces, tally
from ..core.units import System, length_text, quantity_parts, quantity_text
from ..core.working import Figure, Quantity, Step, count, length
from ..store import models, records
from . import schemas as out

FOLD_LABELS = {"open": "single layer", "lengthwise": "folded selvage to selvage"}
GRAIN_LABELS = {"lengthwise": "lengthwise", "crosswise": "on the cross grain", "bias": "on the bias", "any": "any way"}


class Presenter:
    """Presents for one system of units."""

    def __init__(self, system: System) -> None:
        self.system = system

    def length(self, mm: float) -> out.LengthOut:
        return out.LengthOut(mm=mm, text=length_text(mm, self.system))

    def maybe(self, mm: float | None) -> out.LengthOut | None:
        return None if mm is None else self.length(mm)

    def quantity(self, quantity: Quantity, *, fine: bool = False) -> str:
        return quantity_text(quantity, self.system, fine=fine)

    def too_wide(self, piece: str, across: float, width: float) -> str:
        return (
            f"{piece} is {length_text(across, self.system)} across, and there are only "
            f"{length_text(width, self.system)} of cloth for it."
        )

    def figure(self, figure: Figure | None) -> out.FigureOut | None:
        return None if figure is None else self.surely(figure)

    def surely(self, figure: Figure) -> out.FigureOut:
        number, unit = quantity_parts(figure.quantity, self.system)
        sure = None
        if figure.low is not None and figure.high is not None:
            sure = "± " + self.quantity(Quantity((figure.high - figure.low) / 2, figure.unit))
        return out.FigureOut(
            value=figure.value,
            number=number,
            unit=unit,
            text=self.quantity(figure.quantity),
            low=None if figure.low is None else self.quantity(Quantity(figure.low, figure.unit)),
            high=None if figure.high is None else self.quantity(Quantity(figure.high, figure.unit)),
            sure=sure,
            note=figure.note,
            steps=[
                out.StepOut(
                    label=s.label,
                    formula=s.formula,
                    result=self.quantity(s.result, fine=True),
                    inputs=[out.InputOut(name=n, text=self.quantity(q, fine=True)) for n, q in s.inputs],
                )
                for s in figure.steps
            ],
            sources=[out.SourceOut(kind=s.kind, name=s.name, note=s.note) for s in dict.fromkeys(figure.sources)],
        )

    def cloth(self, row: models.Cloth) -> out.ClothOut:
        return out.ClothOut(
            name=row.name,
            kind=row.kind,
            width_readings=[self.length(v) for v in row.width_readings],
            margin_low=self.length(row.margin_low),
            margin_high=self.length(row.margin_high),
            in_hand=self.maybe(row.in_hand),
            mass=row.mass,
            price=row.price,
            price_unit="yd" if row.price_unit == "yd" else "m",
            one_way=row.one_way,
            depth=row.depth,
            ground=row.ground,
            bars_along=[out.BarOut(**b) for b in row.bars.get("along", [])],
            bars_across=[out.BarOut(**b) for b in row.bars.get("across", [])],
        )

    def piece(self, row: models.Piece) -> out.PieceOut:
        shape = records.as_piece(row)
        fault = ""
        try:
            cut = cut_line(shape)
        except BadPiece as error:
            cut, fault = shape.outline, str(error)
        return out.PieceOut(
            id=row.id,
            name=row.name,
            outline=list(shape.outline),
            cut=list(cut),
            arrow=list(grainline(cut, on_fold=row.on_fold)) if not fault else [],
            size=self.size(cut, row.on_fold),
            copies=row.copies,
            pair=row.pair,
            on_fold=row.on_fold,
            grain=row.grain,
            one_way=row.one_way,
            seam=self.length(row.seam),
            smooth=row.smooth,
            fault=fault,
            stations=[
                out.StationOut(along=self.length(a), left=self.length(b), right=self.length(c))
                for a, b, c in row.stations
            ],
        )

    def size(self, outline: Sequence[Point], on_fold: bool) -> str:
        if not outline:
            return ""
        xs, ys = [p[0] for p in outline], [p[1] for p in outline]
        wide = (max(ys) - min(ys)) * (2 if on_fold else 1)
        return f"{length_text(max(xs) - min(xs), self.system)} long, {length_text(wide, self.system)} wide"

    def known(self, known: Known) -> out.KnownOut:
        return out.KnownOut(
            basis=known.basis, figure=self.figure(known.figure), plan=self.figure(known.plan), missing=known.missing
        )

    def shrink(
        self, project: models.Project, swatch: models.Swatch | None, found: Tally, graduation: float
    ) -> out.ShrinkOut:
        def pairs(rows: list[list[float | None]]) -> list[out.PairOut]:
            return [out.PairOut(before=self.length(b), after=self.maybe(a)) for b, a in rows if b is not None]

        steps = treatment.mirror(project.wash, project.dry, project.cloth.kind)
        r = swatch.graduation if swatch else graduation
        n = max(1, len(swatch.warp) if swatch else 1)
        return out.ShrinkOut(
            warp=pairs(swatch.warp if swatch else []),
            weft=pairs(swatch.weft if swatch else []),
            graduation=self.length(r),
            warp_known=self.known(found.warp),
            weft_known=self.known(found.weft),
            steps=list(steps),
            cautions=list(treatment.cautions(project.wash, project.dry)),
            least_swatch=self.length(least_swatch(r, n)),
        )

    def purchase(self, bought: Purchase | None) -> out.PurchaseOut | None:
        if bought is None:
            return None
        return out.PurchaseOut(
            to_buy=self.surely(bought.to_buy),
            lines=[out.LineOut(name=line.name, adds=self.length(line.adds)) for line in bought.lines],
            rule_of_thumb=self.surely(bought.rule_of_thumb),
            spare=self.surely(bought.spare),
            cost=self.figure(bought.cost),
            in_hand_short=self.figure(bought.in_hand_short),
        )

    def job(self, row: models.Job) -> out.JobOut:
        last = row.progress[-1] if row.progress else None
        return out.JobOut.model_validate(
            {
                "id": row.id,
                "project_id": row.project_id,
                "state": row.state,
                "seconds": round(row.spent, 1),
                "asked_seconds": row.params["seconds"],
                "progress": [(p[0], p[1]) for p in row.progress],
                "length": self.maybe(min((p[1] for p in row.progress), default=None)),
                "bound": self.maybe(last[2] if last else None),
                "steps": last[4] if last else 0,
                "error": row.error,
            }
        )

    def drawing(self, drawing: Drawing) -> out.DrawingOut:
        return out.DrawingOut.model_validate(
            {
                "view": drawing.view,
                "length": drawing.length,
                "low": drawing.low,
                "high": drawing.high,
                "fold_at": drawing.fold_at,
                "shapes": [self.shape(s) for s in drawing.shapes],
            }
        )

    def shape(self, shape: Shown) -> out.ShapeOut:
        return out.ShapeOut(
            key=shape.key,
            piece=shape.piece,
            copy_number=shape.copy,
            layers=shape.layers,
            turn=shape.turn,
            mirrored=shape.mirrored,
            outline=[(round(x, 2), round(y, 2)) for x, y in shape.outline],
            tail=shape.tail,
            head=shape.head,
            edge=shape.edge,
            tail_distance=self.length(shape.tail_distance),
            head_distance=self.length(shape.head_distance),
            from_end=f"{length_text(shape.from_end[0], self.system)} to {length_text(shape.from_end[1], self.system)}",
        )


def work_up(session: Session, row: models.Project) -> tuple[Tally, models.LayRecord | None, models.Swatch | None]:
    """The tally of a project as it stands, with the lay and the swatch it rests on."""
    swatch = records.swatch(session, row.cloth_id)
    chosen = records.chosen_lay(session, row.id)
    cloth = records.as_cloth(row.cloth) if row.cloth.width_readings else None
    found = tally(
        cloth,
        row.cloth.kind,
        records.as_swatch(swatch),
        chosen.lay["length"] if chosen else None,
        records.as_wishes(row),
    )
    return found, chosen, swatch


def current_problem(session: Session, row: models.Project, found: Tally) -> tuple[Problem | None, str]:
    """The lay problem as things stand now, or the sentence that says what is missing."""
    rows = records.pieces(session, row.id)
    if not rows:
        return None, "Add the pattern pieces first."
    if found.width is None:
        return None, found.missing.get("width", "Measure the cloth's width first.")
    try:
        return records.lay_problem(row, rows, found.width.value), ""
    except BadPiece as fault:
        return None, str(fault)


def stale_reasons(
    chosen: models.LayRecord | None, problem: Problem | None, why: str, system: System
) -> tuple[str, ...]:
    """What changed since the lay was made, each as the end of a sentence."""
    if chosen is None:
        return ()
    if problem is None:
        return (f"it can no longer be laid ({why.rstrip('.')})",)
    then, present = chosen.problem, problem_json(problem)
    reasons = []
    a, b = then["cloth"], present["cloth"]
    if abs(a["width"] - b["width"]) > 0.05:
        reasons.append(
            f"the usable width went from {length_text(a['width'], system)} to {length_text(b['width'], system)}"
        )
    if a["one_way"] != b["one_way"]:
        reasons.append("the cloth's direction was changed")
    if a["gap"] != b["gap"]:
        reasons.append("the room between pieces was changed")
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
    stale = stale_reasons(chosen, problem, why, system)
    rows = records.pieces(session, row.id)
    facts = Facts(
        pieces=len(rows),
        bad_pieces=len(bad_pieces([records.as_piece(p) for p in rows])),
        width_readings=len(row.cloth.width_readings),
        kind_known=bool(row.cloth.kind),
        marks_before=len(swatch.warp) + len(swatch.weft) if swatch else 0,
        washed_both_ways=found.warp.basis == "swatch" and found.weft.basis == "swatch",
        laying=records.running_job(session, row.id) is not None,
        laid=chosen is not None,
        stale=stale,
        can_buy=found.purchase is not None,
        logged=records.log_count(session, row.id),
    )
    return stages(facts), stale


def next_step(found: Sequence[Stage]) -> str:
    """The first thing that is not done, in working order; buying waits for the lay."""
    order = ("plan", "cloth", "shrink", "lay", "buy")
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
    if row.cloth.bars:
        warnings.append(out.WarningOut(stage="lay", level="look", text="Bars are drawn but not matched yet."))
    return out.ProjectOut(
        id=row.id,
        name=row.name,
        note=row.note,
        wash=row.wash,
        dry=row.dry,
        cloth=show.cloth(row.cloth),
        wishes=out.WishesOut(
            gap=show.length(row.gap),
            folds=row.folds,
            lay_seconds=row.lay_seconds,
            ends=show.length(row.ends),
            spare=show.length(row.spare),
            shop_step=show.length(row.shop_step),
        ),
        pieces=[show.piece(p) for p in records.pieces(session, row.id)],
        shrink=show.shrink(row, swatch, found, records.settings(session).graduation),
        stages=[out.StageOut(name=s.name, state=s.state, why=s.why) for s in states],
        tally=tally_entries(show, found, chosen),
        warnings=warnings,
        purchase=show.purchase(found.purchase),
        job=show.job(job) if job else None,
        next_step=next_step(states),
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
            note=f"searched {made.steps} layings; cannot be shorter than {length_text(made.bound, show.system)}",
        )
    entries: list[tuple[str, str, Figure | None]] = [
        ("width", "width after washing", found.width),
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
        cloth=show.cloth(row.cloth),
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

    def drawn(record: models.LayRecord, view: str) -> Drawing:
        asked = read_problem(record.problem)
        return draw(
            records.lay_of(record),
            {p.id: p for p in asked.pieces},
            asked.width,
            margins=margins,
            view="pinned" if view == "pinned" else "opened",
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
        stale=list(stale_reasons(chosen, problem, why, system)),
        margins=margins,
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
        kinds=listed([(r.kind, r.label) for r in PLANNING_RANGES]),
        washes=listed(list(treatment.WASHES.items())),
        dries=listed([(k, v or "—") for k, v in treatment.DRIES.items() if v]),
        grains=listed([(g, GRAIN_LABELS[g]) for g in GRAINS]),
        folds=listed([(f, FOLD_LABELS[f]) for f in FOLDS_DONE]),
        steps=listed(steps[0] + steps[1] if system == "metric" else steps[1] + steps[0]),
    )
