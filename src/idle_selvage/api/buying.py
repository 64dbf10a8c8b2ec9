"""From a project to the lays that Buy asks for: other widths, other garments beside it, another cloth, helps."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.buy.helps import Help, Missing, PieceFacts, helps
from ..core.buy.offers import OfferedCloth, usable
from ..core.buy.order import Order
from ..core.cloth.width import BadCloth
from ..core.lay.answer import Lay, from_json
from ..core.lay.drawing import draw
from ..core.lay.problem import Bars, Problem, too_wide
from ..core.plan.outline import BadPiece
from ..core.project.tally import Tally, tally
from ..core.working import Figure, Step, length, percent
from ..store import models, records, trials
from ..store.trials import TrialRequest
from . import measured, present
from .context import Refused
from .presenter import Presenter
from .schemas_buy import SmallLayOut, TrialsOut

#: A trial among many need not be searched as long as the lay itself, seconds.
MOST_SECONDS = 5.0
NO_PIECES = "it has no pieces yet"


def order_of(row: models.Project) -> Order:
    """What is asked for besides the lay."""
    return Order(row.ends, row.spare, row.shop_step, row.bought_extra, row.extra_why)


def seconds_of(session: Session, row: models.Project, what: str) -> float:
    """How long each lay of a part is searched for. What rules cost is compared with the lay, so it takes as long."""
    chosen = records.chosen_lay(session, row.id)
    if what == "extras" and chosen is not None and chosen.job_id:
        job = session.get(models.Job, chosen.job_id)
        if job is not None:
            return float(job.params["seconds"])
    return min(row.lay_seconds, MOST_SECONDS)


def offer_of(row: models.Offer, found: Tally, cut_raw: bool) -> OfferedCloth | None:
    """The core's offer, with the project's own shrinkage where it has none; None while that is not known."""
    warp, weft = found.warp_taken.plan, found.weft_taken.plan
    if not cut_raw:
        # a length still to be bought was not treated, even if the one in hand was
        warp, weft = found.warp.plan, found.weft.plan
        warp = Figure(row.warp, "percent", note="as given with the offer") if row.warp is not None else warp
        weft = Figure(row.weft, "percent", note="as given with the offer") if row.weft is not None else weft
    if warp is None or weft is None:
        return None
    price = records.per_metre(row.price, row.price_unit)
    return OfferedCloth(row.width, warp, weft, row.margin, price, row.step, row.least, row.stock)


def offers(session: Session, project_id: int) -> list[models.Offer]:
    """A project's offers in the order they came."""
    query = select(models.Offer).where(models.Offer.project_id == project_id, models.Offer.deleted_at.is_(None))
    return list(session.scalars(query.order_by(models.Offer.id)))


def offer_problem(
    session: Session, row: models.Project, found: Tally, offer: models.Offer
) -> tuple[Problem | None, OfferedCloth | None, str]:
    """The lay on an offered width, or why there can be none."""
    made = offer_of(offer, found, row.school == "fit")
    if made is None:
        return None, None, found.warp.missing or found.weft.missing
    width = usable(made)
    if width <= 10.0:
        return None, made, "Nothing is left of its width after washing and margins."
    rows = records.pieces(session, row.id)
    if not rows:
        return None, made, "Add the pattern pieces first."
    fit = present.fit_of(row, found)
    if row.school == "fit" and fit is None:
        return None, made, "Wash a swatch first: how much to enlarge the pieces is not known."
    try:
        problem = records.lay_problem(row, rows, width, (made.warp.value, made.weft.value), fit, flaws=False)
    except BadPiece as fault:
        return None, made, str(fault)
    return problem, made, ""


@dataclass(frozen=True)
class Sharing:
    """Garments laid together on one cloth, and each on its own."""

    together: Problem | None
    alone: tuple[tuple[models.Project, Problem | None, str], ...]
    told: str


def sharers(session: Session, row: models.Project) -> list[int]:
    """The other projects that share the purchase, without those deleted since."""
    open_ = {p.id for p in records.projects(session)}
    return [number for number in records.sheet_of(session, row.id).together if number in open_]


def sharing(session: Session, row: models.Project, found: Tally, others: Sequence[int]) -> Sharing:
    """The projects of ``others`` and ``row`` itself on this project's cloth."""
    alone: list[tuple[models.Project, Problem | None, str]] = []
    pieces = []
    members = [row, *(records.project(session, number) for number in others if number != row.id)]
    for member in members:
        problem, why = _on_cloth_of(session, member, row, found)
        alone.append((member, problem, why))
        if problem is not None:
            for piece in problem.pieces:
                match = tuple(replace(m, group=f"{member.name}: {m.group}") for m in piece.match)
                pieces.append(replace(piece, id=f"{member.name}: {piece.id}", match=match))
    own = alone[0][1]
    if own is None:
        why = alone[0][2]
        told = "Add the pattern pieces of this project first." if why == NO_PIECES else why
        return Sharing(None, tuple(alone), told[0].upper() + told[1:])
    if sum(problem is not None for _, problem, _ in alone) < 2:
        return Sharing(None, tuple(alone), "Choose another garment to be cut from the same cloth.")
    gap = max(problem.gap for _, problem, _ in alone if problem is not None)
    # a garment that meets nothing on the bars was given none; the one that does has the cloth's
    bars = next((p.bars for _, p, _ in alone if p is not None and p.bars != Bars()), own.bars)
    return Sharing(replace(own, pieces=tuple(pieces), gap=gap, bars=bars), tuple(alone), "")


def _on_cloth_of(
    session: Session, member: models.Project, row: models.Project, found: Tally
) -> tuple[Problem | None, str]:
    rows = records.pieces(session, member.id)
    if not rows:
        return None, NO_PIECES
    if found.width is None:
        return None, found.missing.get("width", "Measure the cloth's width first.")
    fit = present.fit_of(row, found)
    try:
        problem = records.lay_problem(
            member, rows, found.width.value, present.taken_of(found), fit, cloth_row=row.cloth, flaws=False
        )
    except BadPiece as fault:
        return None, str(fault)
    if too_wide(problem):
        return None, "a piece of it is wider than this cloth"
    return problem, ""


@dataclass(frozen=True)
class Fitting:
    """A cloth of the cupboard for a project: the problem, what is there of it, and what could help."""

    cloth: models.Cloth
    found: Tally
    problem: Problem | None
    there: Figure | None
    helps: tuple[Help, ...]
    missing: tuple[Missing, ...]
    told: str


def fitting(session: Session, row: models.Project, cloth_id: int, show: Presenter) -> Fitting:
    """What would have to be laid to know whether a cloth will do. Raises NotFound."""
    cloth = records.cloth(session, cloth_id)
    given = replace(
        records.given(session, row),
        make=records.as_make(cloth),
        swatch=records.as_swatch(records.swatch(session, cloth.id)),
        past=records.past_tests(session, cloth.like, cloth.id),
        treated=cloth.treated,
    )
    try:
        found = tally(records.as_cloth(cloth) if cloth.width_readings else None, given, None, records.as_wishes(row))
    except BadCloth as fault:
        raise Refused(str(fault)) from None

    def none(told: str, there: Figure | None = None) -> Fitting:
        return Fitting(cloth, found, None, there, (), (), told)

    if cloth.in_hand is None:
        return none("How much there is of it is not known: measure its length, under Cloth.")
    if found.width is None or found.warp_taken.plan is None:
        return none(found.missing.get("width") or found.warp_taken.missing)
    rows = records.pieces(session, row.id)
    if not rows:
        return none("Add the pattern pieces first.")
    there = _there(cloth.in_hand, found.warp_taken.plan, row.ends)
    fit = present.fit_of(row, found)
    if row.school == "fit" and fit is None:
        return none("Wash a swatch of it first: how much to enlarge the pieces is not known.", there)
    try:
        taken = present.taken_of(found)
        problem = records.lay_problem(row, rows, found.width.value, taken, fit, cloth_row=cloth)
    except BadPiece as fault:
        return none(str(fault), there)
    facts = {piece.id: PieceFacts(p.hidden, p.hem) for piece, p in zip(problem.pieces, rows, strict=True)}
    tries, missing = helps(problem, facts, lambda mm: show.length(mm).text)
    return Fitting(cloth, found, problem, there, tries, missing, "")


def _there(in_hand: float, warp: Figure, ends: float) -> Figure:
    left = in_hand * (1.0 - warp.value / 100.0) - ends
    inputs = (("in hand", length(in_hand)), ("shrinkage along", percent(warp.value)), ("both ends", length(ends)))
    step = Step("there to lay on", "in hand × (1 − shrinkage along) − both ends", inputs, length(left))
    return Figure(left, "length", steps=(*warp.steps, step), sources=warp.sources, note=warp.note)


def fitting_wanted(fit: Fitting) -> list[TrialRequest]:
    """The lay itself, and the helps only if it does not do; hems only until one is short enough."""
    if fit.problem is None or fit.there is None:
        return []
    enough = fit.there.value
    out = [TrialRequest(fit.problem, "as it is", enough)]
    for help_ in fit.helps:
        out.append(TrialRequest(help_.problem, "hem" if help_.kind == "hem" else "", enough, after="as it is"))
    return out


def wanted(
    session: Session, row: models.Project, found: Tally, what: str, cloth_id: int | None, show: Presenter
) -> list[TrialRequest]:
    """The lays a part of Buy needs."""
    if what == "extras":
        return measured.wanted(records.chosen_lay(session, row.id))
    if what == "offers":
        problems = [offer_problem(session, row, found, offer)[0] for offer in offers(session, row.id)]
        return [TrialRequest(p) for p in problems if p is not None and not too_wide(p)]
    if what == "together":
        shared = sharing(session, row, found, sharers(session, row))
        all_of = [shared.together, *(problem for _, problem, _ in shared.alone)] if shared.together else []
        return [TrialRequest(p) for p in all_of if p is not None]
    if cloth_id is None:
        raise Refused("Choose a cloth of the cupboard first.", path="cloth_id")
    return fitting_wanted(fitting(session, row, cloth_id, show))


def trials_out(session: Session, row: models.Project, what: str, needed: Sequence[TrialRequest]) -> TrialsOut:
    """How far the lays of a part are."""
    job = trials.running(session, row.id, what)
    lacking = len(trials.lacking(session, needed, seconds_of(session, row, what)))
    if job is None:
        return TrialsOut(
            what=what,
            job_id=None,
            state="idle",
            done=len(needed) - lacking,
            of=len(needed),
            lacking=lacking,
            error=trials.failed(session, row.id, what),
        )
    return TrialsOut.model_validate(
        {
            "what": what,
            "job_id": job.id,
            "state": job.state,
            "done": trials.done(session, job),
            "of": len(job.params["trials"]),
            "lacking": lacking,
            "error": "",
        }
    )


def small(show: Presenter, problem: Problem, trial: models.Trial | None) -> SmallLayOut | None:
    """The shortest lay of a trial, small, on the open cloth."""
    if trial is None or not trial.lays:
        return None
    fold, data = trial.lays[0]
    lay: Lay = from_json(data)
    picture = draw(lay, {p.id: p for p in problem.pieces}, problem.width, view="opened")
    return SmallLayOut(
        length=show.length(lay.length),
        width=problem.width,
        fold=present.FOLD_NAMES[fold],
        outlines=[[(round(x, 1), round(y, 1)) for x, y in s.outline] for s in picture.shapes],
    )


def why_not(show: Presenter, trial: models.Trial | None) -> str:
    """Why a trial has no lay, as a sentence, or nothing."""
    if trial is None:
        return ""
    wide = [show.too_wide(piece, across, width) for piece, across, width in trial.wide]
    return " ".join([*wide, *([trial.why] if trial.why else [])])
