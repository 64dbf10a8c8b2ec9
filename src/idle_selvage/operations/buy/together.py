"""Several garments from one cloth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy.orm import Session

from ...core.buy.order import Order
from ...core.buy.purchase import purchase
from ...core.buy.sharing import Saving, Sharer, apart, own_order, saving, shared_order, together
from ...core.lay.problem import Problem, fingerprint, too_wide
from ...core.plan.outline import BadPiece
from ...core.shrink.together import ROLES
from ...core.wording import capital, sentence_of
from ...core.working import Figure
from ...store import cloth as cloths
from ...store import models, shared_purchase, trial
from ...store import project as projects
from ...store.errors import NotFound
from ..log import note
from ..standing import Standing, standings
from .trials import SmallLay, TrialRequest, small_of, why_not

NO_PIECES = "it has no pieces yet"


@dataclass(frozen=True)
class Member:
    """A cloth of a garment that could share: whether it was chosen, why it cannot, and what it would buy alone."""

    now: Standing
    chosen: bool
    same_cloth: bool
    why_not: str = ""
    alone: Figure | None = None

    @property
    def name(self) -> str:
        """The garment, and which of its cloths where it is not the main one."""
        garment = self.now.garment.name
        return garment if self.now.role == "main" else f"{garment}, {ROLES[self.now.role]}"


@dataclass(frozen=True)
class TogetherStanding:
    """Garments laid together on one cloth, and each on its own."""

    members: tuple[Member, ...]
    apart: Figure | None
    together: Figure | None
    saving: Saving | None
    lay: SmallLay | None
    told: str
    wanted: tuple[TrialRequest, ...]


def choose(session: Session, use: models.ClothUse, numbers: Sequence[int]) -> None:
    """Choose which cloths of other garments are cut from the same length, by the numbers of their uses. Raises
    NotFound."""
    there = {one.id for garment in projects.projects(session) for one in garment.uses}
    chosen = [number for number in dict.fromkeys(numbers) if number != use.id]
    if not there.issuperset(chosen):
        raise NotFound("One of these is not there any more; it may have been put away.")
    before = shared_purchase.others(session, use.id)
    shared_purchase.choose(session, use.id, chosen)
    note(session, use, "buy", "shared", before={"uses": before}, after={"uses": chosen})


def read_together(session: Session, now: Standing) -> TogetherStanding:
    """What laying the chosen cloths together on this one saves."""
    numbers = set(shared_purchase.others(session, now.use.id))
    there = [
        one
        for garment in standings(session, projects.projects(session))
        for one in garment.uses
        if one.use.id != now.use.id and not one.trim and not one.idle
    ]
    sharers = [(one, *_on_cloth_of(one, now)) for one in (now, *(one for one in there if one.use.id in numbers))]
    own, told = sharers[0][1], _told(sharers)
    both = None
    if own is not None and not told:
        both = together(own, [Sharer(str(one.use.id), problem, why) for one, problem, why in sharers])
    wanted = [both, *(problem for _, problem, _ in sharers)] if both is not None else []
    requests = tuple(TrialRequest(problem) for problem in wanted if problem is not None)
    tried = trial.known(session, (request.fingerprint for request in requests))

    def bought(problem: Problem | None, order: Order) -> Figure | None:
        lay = trial.length_of(tried.get(fingerprint(problem))) if problem is not None else None
        warp = now.tally.warp_taken.plan
        return None if lay is None or warp is None or both is None else purchase(lay, warp, order).to_buy

    alone = {one.use.id: (bought(problem, own_order(one.order, now.order)), why) for one, problem, why in sharers}
    each = apart([figure for figure, why in alone.values() if not why])
    others = [one.order for one, problem, _ in sharers[1:] if problem is not None]
    shared = bought(both, shared_order(now.order, others))
    members = [
        Member(
            one,
            one.use.id == now.use.id or one.use.id in numbers,
            one.use.cloth_id == now.use.cloth_id,
            alone[one.use.id][1] if one.use.id in alone else "",
            alone[one.use.id][0] if one.use.id in alone else None,
        )
        for one in (now, *there)
    ]
    row = tried.get(fingerprint(both)) if both is not None else None
    names = {key: name for one, _, _ in sharers for key, name in one.names.items()}
    price = cloths.as_cloth(now.cloth.row).price_per_m
    return TogetherStanding(
        tuple(members),
        each,
        shared,
        saving(each, shared, price),
        small_of(both, row),
        told or why_not(row, names),
        requests,
    )


def _told(sharers: Sequence[tuple[Standing, Problem | None, str]]) -> str:
    """What stands in the way of laying them together, as a sentence, or nothing."""
    _, own, why = sharers[0]
    if own is None:
        return capital("Add the pattern pieces of this project first." if why == NO_PIECES else why)
    if sum(problem is not None for _, problem, _ in sharers) < 2:
        return "Choose another garment to be cut from the same cloth."
    return ""


def _on_cloth_of(member: Standing, now: Standing) -> tuple[Problem | None, str]:
    """A garment on another one's cloth, or why not, as the end of a sentence."""
    if not member.rows.cuts:
        return None, NO_PIECES
    width = now.tally.width
    if width is None:
        return None, now.tally.missing.get("width", "Measure the cloth's width first.")
    try:
        problem = member.lay_on(now.cutting.laid, width.value, now.fit, flaws=False)
    except BadPiece as fault:
        return None, sentence_of(fault)
    if too_wide(problem):
        return None, "a piece of it is wider than this cloth"
    return problem, ""
