"""Several garments from one cloth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy.orm import Session

from ...core.buy.purchase import purchase
from ...core.buy.sharing import Saving, Sharer, apart, saving, together
from ...core.lay.problem import Problem, fingerprint, too_wide
from ...core.plan.outline import BadPiece
from ...core.wording import capital, sentence_of
from ...core.working import Figure
from ...store import buy_sheet, models, trial
from ...store import cloth as cloths
from ...store import project as projects
from ..log import note
from ..standing import Standing, standings
from .trials import SmallLay, TrialRequest, small_of, why_not

NO_PIECES = "it has no pieces yet"


@dataclass(frozen=True)
class Member:
    """A garment that could share: whether it was chosen, why it cannot, and what it would buy alone."""

    garment: models.Project
    chosen: bool
    same_cloth: bool
    why_not: str = ""
    alone: Figure | None = None


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


def choose(session: Session, garment: models.Project, numbers: Sequence[int]) -> None:
    """Choose which other garments are cut from the same cloth. Raises NotFound."""
    chosen = [projects.project(session, n).id for n in dict.fromkeys(numbers) if n != garment.id]
    buy_sheet.kept_sheet(session, garment.id).together = chosen
    session.flush()
    note(session, garment, "buy", "Chose what shares this purchase.", projects=chosen)


def read_together(session: Session, now: Standing) -> TogetherStanding:
    """What laying the chosen garments together on this one's cloth saves."""
    open_ = projects.projects(session)
    numbers = [n for n in buy_sheet.sheet(session, now.garment.id).together if n in {p.id for p in open_}]
    rows = {row.id: row for row in open_}
    sharers = [(now, *_on_cloth_of(now, now))]
    sharers += [(one, *_on_cloth_of(one, now)) for one in standings(session, [rows[n] for n in numbers])]
    own, told = sharers[0][1], _told(sharers)
    both = None
    if own is not None and not told:
        both = together(own, [Sharer(one.garment.name, problem, why) for one, problem, why in sharers])
    wanted = [both, *(problem for _, problem, _ in sharers)] if both is not None else []
    requests = tuple(TrialRequest(problem) for problem in wanted if problem is not None)
    there = trial.known(session, (request.fingerprint for request in requests))

    def bought(problem: Problem | None) -> Figure | None:
        lay = trial.length_of(there.get(fingerprint(problem))) if problem is not None else None
        warp = now.tally.warp_taken.plan
        return None if lay is None or warp is None or both is None else purchase(lay, warp, now.order).to_buy

    alone = {one.garment.id: (bought(problem), why) for one, problem, why in sharers}
    each = apart([figure for figure, why in alone.values() if not why])
    shared = bought(both)
    others = [row for row in open_ if row.id != now.garment.id]
    members = [
        Member(
            row,
            row.id == now.garment.id or row.id in numbers,
            row.cloth_id == now.garment.cloth_id,
            alone[row.id][1] if row.id in alone else "",
            alone[row.id][0] if row.id in alone else None,
        )
        for row in (now.garment, *others)
    ]
    row = there.get(fingerprint(both)) if both is not None else None
    price = cloths.as_cloth(now.main.row).price_per_m
    return TogetherStanding(
        tuple(members),
        each,
        shared,
        saving(each, shared, price),
        small_of(both, row),
        told or why_not(row),
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
    if not member.rows.pieces:
        return None, NO_PIECES
    width = now.tally.width
    if width is None:
        return None, now.tally.missing.get("width", "Measure the cloth's width first.")
    try:
        problem = member.lay_on(now.main.row, width.value, now.coming, flaws=False)
    except BadPiece as fault:
        return None, sentence_of(fault)
    if too_wide(problem):
        return None, "a piece of it is wider than this cloth"
    return problem, ""
