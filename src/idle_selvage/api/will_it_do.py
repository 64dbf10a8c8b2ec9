"""Buy: whether a cloth of the cupboard will do, and what would help."""

from __future__ import annotations

from typing import Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field
from sqlalchemy.orm import Session

from ..core.buy.helps import Help
from ..core.lay.problem import fingerprint
from ..store import models, records, trials
from . import buying
from . import schemas as out
from . import schemas_buy as buy_out
from .context import look, send, system
from .presenter import Presenter

blueprint = APIBlueprint(
    "will_it_do", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut}
)


class ClothQuery(out.In):
    cloth_id: int | None = Field(default=None, ge=1, le=2**31)


@blueprint.get(
    "/projects/<int:project_id>/will-it-do", operation_id="readWillItDo", responses={200: buy_out.WillItDoOut}
)
def read_will_it_do(path: out.ProjectPath, query: ClothQuery) -> Response:
    """Whether a cloth of the cupboard will do, and what would help."""
    with look() as session:
        row = records.project(session, path.project_id)
        show = Presenter(system())
        if query.cloth_id is None:
            return send(
                buy_out.WillItDoOut(
                    cloth_id=None,
                    cloth_name="",
                    headline="Will a piece from the cupboard do?",
                    does=None,
                    needs=None,
                    over=None,
                    lay=None,
                    helps=[],
                    hints=[],
                    warnings=[],
                    trials=buying.trials_out(session, row, "cupboard", []),
                )
            )
        return send(_will_it_do(session, show, row, query.cloth_id))


def _will_it_do(session: Session, show: Presenter, row: models.Project, cloth_id: int) -> buy_out.WillItDoOut:
    fit = buying.fitting(session, row, cloth_id, show)
    name = fit.cloth.name or "This cloth"
    needed = buying.fitting_wanted(fit)
    there = trials.known(session, (w.fingerprint for w in needed))
    base = there.get(fingerprint(fit.problem)) if fit.problem is not None else None
    lay = trials.length_of(base)
    over = fit.there.value - lay if fit.there is not None and lay is not None else None
    does = None if over is None else over >= -0.05
    why = fit.told or buying.why_not(show, base)
    if why:
        headline = f"{name} cannot be tried yet" if fit.told else f"{name} will not do"
    elif over is None:
        headline = f"Will {name} do?"
    elif does:
        headline = f"{name} will do: {show.length(over).text} are left"
    else:
        headline = f"{name} is {show.length(-over).text} short"
    told: list[buy_out.HelpOut] = []
    for help_ in fit.helps:
        # a hem is let off no further than it has to be
        if help_.kind == "hem" and any(h.kind == "hem" and h.state == "does" for h in told):
            continue
        told.append(help_out(show, help_, there.get(fingerprint(help_.problem)), fit, lay, does))
    warnings = [text for stage, _, text in fit.found.warnings if stage != "buy"]
    if why:
        warnings.insert(0, why)
    return buy_out.WillItDoOut(
        cloth_id=fit.cloth.id,
        cloth_name=name,
        headline=headline,
        does=does,
        there=show.figure(fit.there),
        needs=show.maybe(lay),
        over=show.maybe(over),
        lay=buying.small(show, fit.problem, base) if fit.problem is not None else None,
        helps=[] if does else told,
        hints=[] if does or why else [f"{m.name[0].upper()}{m.name[1:]}: {m.why}" for m in fit.missing],
        warnings=warnings,
        trials=buying.trials_out(session, row, "cupboard", needed),
    )


def help_out(
    show: Presenter,
    help_: Help,
    trial: models.Trial | None,
    fit: buying.Fitting,
    plain: float | None,
    does: bool | None,
) -> buy_out.HelpOut:
    """What trying a help came to."""
    state: Literal["does", "short", "worse", "refused", "waiting", "not-needed"] = "waiting"
    told = "not tried yet"
    length = trials.length_of(trial)
    if does:
        state, told = "not-needed", ""
    elif trial is not None and length is None:
        state, told = "refused", buying.why_not(show, trial)
    elif length is not None and plain is not None and fit.there is not None:
        over = fit.there.value - length
        saves = plain - length
        if over >= -0.05:
            state, told = "does", f"it does: {show.length(over).text} are left"
        elif saves > 0.5:
            state, told = "short", f"saves {show.length(saves).text}, still {show.length(-over).text} short"
        else:
            state, told = "worse", "saves nothing"
    return buy_out.HelpOut(
        kind=help_.kind,
        name=help_.name,
        costs=help_.costs,
        state=state,
        told=told,
        lay=buying.small(show, help_.problem, trial) if state == "does" else None,
    )
