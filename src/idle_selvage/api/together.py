"""Buy: several garments from one cloth."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.buy.purchase import purchase
from ..core.lay.problem import Problem, fingerprint
from ..core.working import Figure, Quantity, Step
from ..store import models, records, trials
from . import buying, present
from . import schemas as out
from . import schemas_buy as buy_out
from .context import begin, look, send, system
from .presenter import Presenter

blueprint = APIBlueprint("together", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class TogetherIn(out.In):
    projects: list[int] = Field(max_length=20)


@blueprint.get("/projects/<int:project_id>/together", operation_id="readTogether", responses={200: buy_out.TogetherOut})
def read_together(path: out.ProjectPath) -> Response:
    """What laying several garments together on this project's cloth saves."""
    with look() as session:
        return send(_together_out(session, records.project(session, path.project_id)))


@blueprint.put(
    "/projects/<int:project_id>/together", operation_id="chooseTogether", responses={200: buy_out.TogetherOut}
)
def choose_together(path: out.ProjectPath, body: TogetherIn) -> Response:
    """Choose which other projects are cut from the same cloth."""
    with begin() as session:
        row = records.project(session, path.project_id)
        numbers = [records.project(session, n).id for n in dict.fromkeys(body.projects) if n != row.id]
        records.kept_sheet(session, row.id).together = numbers
        session.flush()
        records.log(session, row.id, "buy", "Chose what shares this purchase.", projects=numbers)
        return send(_together_out(session, row))


def _together_out(session: Session, row: models.Project) -> buy_out.TogetherOut:
    show = Presenter(system())
    found, _, _ = present.work_up(session, row)
    chosen = buying.sharers(session, row)
    shared = buying.sharing(session, row, found, chosen)
    needed = buying.wanted(session, row, found, "together", None, show)
    there = trials.known(session, (w.fingerprint for w in needed))
    price = records.as_cloth(row.cloth).price_per_m

    def bought(problem: Problem | None) -> Figure | None:
        lay = trials.length_of(there.get(fingerprint(problem))) if problem is not None else None
        if lay is None or found.warp_taken.plan is None:
            return None
        return purchase(lay, found.warp_taken.plan, buying.order_of(row)).to_buy

    alone = {member.id: (bought(problem) if shared.together else None, why) for member, problem, why in shared.alone}
    apart = _sum([figure for figure, why in alone.values() if not why])
    both = bought(shared.together)
    saved = _saved(apart, both, price)
    others = [
        buy_out.SharerOut(
            project_id=p.id,
            name=p.name,
            same_cloth=p.cloth_id == row.cloth_id,
            chosen=p.id in chosen,
            why_not=alone[p.id][1] if p.id in alone else "",
            alone=show.figure(alone[p.id][0]) if p.id in alone else None,
        )
        for p in records.projects(session)
        if p.id != row.id
    ]
    own = buy_out.SharerOut(
        project_id=row.id,
        name=row.name,
        same_cloth=True,
        chosen=True,
        why_not=alone[row.id][1],
        alone=show.figure(alone[row.id][0]),
    )
    trial = there.get(fingerprint(shared.together)) if shared.together is not None else None
    return buy_out.TogetherOut(
        projects=[own, *others],
        apart=show.figure(apart),
        together=show.figure(both),
        saved=show.figure(saved),
        lay=buying.small(show, shared.together, trial) if shared.together is not None else None,
        told=shared.told or buying.why_not(show, trial),
        trials=buying.trials_out(session, row, "together", needed),
    )


def _sum(figures: list[Figure | None]) -> Figure | None:
    known = [f for f in figures if f is not None]
    if not known or len(known) < len(figures):
        return None
    total = sum(f.value for f in known)
    step = Step(
        "apart",
        "each bought on its own",
        tuple((f"purchase {k}", Quantity(f.value, "purchase")) for k, f in enumerate(known, 1)),
        Quantity(total, "purchase"),
    )
    return Figure(total, "purchase", steps=(step,), sources=known[0].sources)


def _saved(apart: Figure | None, together: Figure | None, price: float | None) -> Figure | None:
    if apart is None or together is None:
        return None
    saved = apart.value - together.value
    inputs = (("apart", Quantity(apart.value, "purchase")), ("together", Quantity(together.value, "purchase")))
    steps = [Step("saved", "apart − together", inputs, Quantity(saved, "purchase"))]
    if price is not None:
        money = Quantity(saved / 1000.0 * price, "money")
        steps.append(Step("saved money", "saved × price of a metre", (("price", Quantity(price, "money")),), money))
    return Figure(saved, "purchase", steps=tuple(steps), sources=apart.sources)
