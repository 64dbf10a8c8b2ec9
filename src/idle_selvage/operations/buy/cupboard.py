"""Whether a cloth of the cupboard will do, and what would help."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from sqlalchemy.orm import Session

from ...core.buy.helps import (
    EndsFacts,
    Help,
    HelpState,
    Missing,
    PieceFacts,
    does,
    help_came_to,
    helps,
    left_over,
    taken,
)
from ...core.cloth.width import BadCloth
from ...core.lay.named import fold_name
from ...core.lay.problem import Problem, fingerprint
from ...core.plan.outline import BadPiece
from ...core.project.tally import Tally
from ...core.true.edge import sparing_edge
from ...core.wording import Sentence, capital, sentence_of
from ...core.working import Figure, length
from ...store import cloth as cloths
from ...store import models, trial
from ..refused import Refused
from ..standing import Cutting, Standing, cloth_standing, washed_for
from .trials import SmallLay, TrialRequest, small_of, why_not

#: Of these no more is done than has to be: they are tried one after another until one is enough.
STEPWISE = ("hem", "leave")


@dataclass(frozen=True)
class _Fitting:
    """A cloth for a garment: the problem, what is there of it, what could help; ``told``: why it cannot be tried."""

    cloth: models.Cloth
    found: Tally
    problem: Problem | None = None
    there: Figure | None = None
    helps: tuple[Help, ...] = ()
    missing: tuple[Missing, ...] = ()
    told: str = ""

    @property
    def wanted(self) -> tuple[TrialRequest, ...]:
        """The lay itself, and the helps only if it does not do; hems only until one is short enough."""
        if self.problem is None or self.there is None:
            return ()
        enough = self.there.value
        rest = (
            TrialRequest(one.problem, one.kind if one.kind in STEPWISE else "", enough, after="as it is")
            for one in self.helps
            if not one.gains
        )
        return (TrialRequest(self.problem, "as it is", enough), *rest)


@dataclass(frozen=True)
class HelpTried:
    """One thing that could help, and what trying it came to."""

    help: Help
    state: HelpState
    told: str
    lay: SmallLay | None


@dataclass(frozen=True)
class WillItDo:
    """Whether a cloth will do: ``does`` None while that is not known. Lengths in mm, ``over`` below nothing: short."""

    cloth: models.Cloth
    headline: str
    does: bool | None
    there: Figure | None
    needs: Figure | None
    over: Figure | None
    lay: SmallLay | None
    helps: tuple[HelpTried, ...]
    hints: tuple[str, ...]
    warnings: tuple[str, ...]
    wanted: tuple[TrialRequest, ...]


def will_it_do(session: Session, now: Standing, cloth_id: int) -> WillItDo:
    """Whether a cloth of the cupboard will do for a garment, and what would help. Raises NotFound."""
    fit = _fitting(session, now, cloth_id)
    wanted = fit.wanted
    there = trial.known(session, (request.fingerprint for request in wanted))
    base = there.get(fingerprint(fit.problem)) if fit.problem is not None else None
    needs = trial.length_of(base)
    left = left_over(fit.there, needs) if fit.there is not None and needs is not None else None
    over = None if left is None else left.value
    fits = None if fit.there is None or needs is None else does(fit.there.value, needs)
    why = fit.told or why_not(base, now.names)
    tried = () if fits else _tried(fit, there, needs)
    warnings = [text for stage, _, text in fit.found.warnings if stage != "buy"]
    return WillItDo(
        fit.cloth,
        _headline(fit, why, fits, over, tried=base is None or not base.fault),
        fits,
        fit.there,
        None if needs is None else taken(needs),
        left,
        small_of(fit.problem, base),
        tried,
        () if fits or why else tuple(f"{capital(m.name)}: {m.why}" for m in fit.missing),
        tuple([why, *warnings] if why else warnings),
        wanted,
    )


def _headline(fit: _Fitting, why: str, fits: bool | None, over: float | None, *, tried: bool) -> Sentence:
    name = fit.cloth.name or "This cloth"
    if why and not fit.told and not tried:
        return Sentence("{name} could not be tried", name=name)
    if why:
        return Sentence("{name} cannot be tried yet" if fit.told else "{name} will not do", name=name)
    if over is None:
        return Sentence("Will {name} do?", name=name)
    told = "{name} will do: {by} are left" if fits else "{name} is {by} short"
    return Sentence(told, name=name, by=length(over if fits else -over))


def _tried(fit: _Fitting, there: Mapping[str, models.Trial], plain: float | None) -> tuple[HelpTried, ...]:
    found: list[HelpTried] = []
    for one in fit.helps:
        if one.kind in STEPWISE and any(h.help.kind == one.kind and h.state == "does" for h in found):
            continue
        came = _came_to(fit, one, there.get(fingerprint(one.problem)), plain)
        if came is not None:
            found.append(came)
    return tuple(found)


def _came_to(fit: _Fitting, one: Help, row: models.Trial | None, plain: float | None) -> HelpTried | None:
    """What a help came to; None where it can be no help, because the pieces cannot be laid that way."""
    helped = trial.length_of(row)
    if row is not None and helped is None:
        return None
    if helped is None or fit.there is None:
        return HelpTried(one, "waiting", "not tried yet", None)
    small = small_of(one.problem, row)
    how = fold_name(small.fold) if small is not None and one.kind == "folds" and len(one.problem.folds) > 1 else ""
    state, told = help_came_to(fit.there.value, plain, helped, one.gains, how)
    return HelpTried(one, state, told, small if state == "does" else None)


def _fitting(session: Session, now: Standing, cloth_id: int) -> _Fitting:
    """What would have to be laid to know whether a cloth will do."""
    cloth = cloth_standing(session, cloths.cloth(session, cloth_id))
    cutting = Cutting(now.garment, now.use, washed_for(now.garment, now.use, cloth))
    row = cutting.cloth.row
    try:
        found = cutting.tally(None)
    except BadCloth as fault:
        raise Refused(sentence_of(fault)) from None
    if cutting.cloth.length_now is None:
        told = "How much there is of it is not known: measure its length, under Cloth."
        return _Fitting(row, found, told=told)
    if found.width is None or found.left is None:
        return _Fitting(row, found, told=found.missing.get("width") or found.warp_taken.missing)
    if not now.rows.cuts:
        return _Fitting(row, found, told=now.missing)
    if now.to_fit and cutting.fit is None:
        told = "Wash a swatch of it first: how much to enlarge the pieces is not known."
        return _Fitting(row, found, there=found.left, told=told)
    try:
        problem = now.lay_on(cutting.laid, found.width.value, cutting.fit)
    except BadPiece as fault:
        return _Fitting(row, found, there=found.left, told=sentence_of(fault))
    facts = {str(piece.id): PieceFacts(cut.hidden, piece.hem) for piece, cut in now.rows.cuts}
    return _Fitting(row, found, problem, found.left, *helps(problem, facts, _ends(now, row)))


def _ends(now: Standing, cloth: models.Cloth) -> EndsFacts | None:
    """What both ends lose, and what at least; None for the garment's own cloth once its edge was read."""
    if cloth.id == now.use.cloth_id and now.use.first_end is not None:
        return None
    way = sparing_edge(cloths.as_edge_facts(cloth))
    return EndsFacts(now.use.ends, 2 * way.loss, way.name)
