"""Lays: begun, followed, looked at, chosen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from sqlalchemy.orm import Session

from ..core.lay.answer import Lay
from ..core.lay.asking import leans
from ..core.lay.drawing import Drawing, draw
from ..core.lay.named import FOLDS_DRAWN, fold_name
from ..core.lay.problem import Problem, too_wide, too_wide_told
from ..core.lay.problem import to_json as problem_json
from ..core.lay.reading import read_problem
from ..core.wording import joined
from ..store import job as jobs
from ..store import lay as lays
from ..store import models
from ..store import piece as pieces
from ..store.errors import NotFound
from .log import note
from .project import change
from .refused import Refused, within
from .standing import Standing, standing

View = Literal["pinned", "opened"]

_NAMES = {"gap": "room between pieces", "folds": "folds to try", "lay_seconds": "time to search"}
_LIMITS = {"gap": (0.0, 200.0)}


def change_wishes(session: Session, garment: models.Project, given: Mapping[str, Any]) -> None:
    """Change the room between pieces, the folds to try, or how long to search. Raises :class:`Refused`."""
    within(given, _LIMITS)
    entries = dict(given)
    if "folds" in entries:
        if not entries["folds"]:
            raise Refused("Choose at least one way to fold.", path="folds")
        for fold in entries["folds"]:
            if fold not in FOLDS_DRAWN:
                told = f"The fold “{fold[:30]}” cannot be laid yet; choose from {', '.join(FOLDS_DRAWN)}."
                raise Refused(told, path="folds")
        entries["folds"] = list(dict.fromkeys(entries["folds"]))
    change(session, garment, entries, "lay", _NAMES)


@dataclass(frozen=True)
class Search:
    """How to search: for how long (None: as the garment wishes), and from which seed."""

    seconds: float | None = None
    seed: int = 1


def begin_laying(session: Session, garment: models.Project, search: Search | None = None) -> models.Job:
    """A new laying of a garment as it stands, waiting for a worker; one under way is stopped. Raises
    :class:`Refused` while something is missing, BadProblem for a problem no file may hold either."""
    now = standing(session, garment)
    return _begin(session, now, search or Search())


def _begin(session: Session, now: Standing, search: Search) -> models.Job:
    problem = _ready(now)
    asked = problem_json(problem)
    # the same questions as for a file: what it refuses there is refused here, by name
    read_problem(asked)
    earlier = jobs.running_lay(session, now.garment.id)
    if earlier is not None:
        earlier.cancel = True
    params = {
        "problem": asked,
        "seconds": search.seconds or now.garment.lay_seconds,
        "seed": search.seed,
        "basis": now.tally.basis,
    }
    job = models.Job(project_id=now.garment.id, params=params)
    session.add(job)
    session.flush()
    copies = sum(p.copies for p in problem.pieces)
    note(session, now.garment, "lay", f"Began laying {copies} pieces.", job=job.id)
    return job


def _ready(now: Standing) -> Problem:
    if now.problem is None:
        raise Refused(now.missing, code="not_ready")
    wide = too_wide(now.problem)
    if wide:
        told = [too_wide_told(piece, across, now.problem.width) for piece, across in wide]
        raise Refused(joined(told), code="cannot_lay")
    return now.problem


def refresh_lay(session: Session, garment: models.Project) -> models.Job | None:
    """Bring lay and purchase up to date: lay again if the lay no longer fits, else go on with it as it is.

    The laying that was begun, if one was.
    """
    now = standing(session, garment)
    if now.chosen is None or now.ladder is None or now.problem != now.ladder.problem:
        return _begin(session, now, Search())
    for row in lays.alternatives(session, now.chosen):
        row.basis = now.tally.basis
    note(session, garment, "lay", "Looked at the lay again: it stays as it is, and the purchase follows.")
    session.flush()
    return None


def job(session: Session, number: int) -> models.Job:
    """A laying or a try by its number. Raises NotFound."""
    return jobs.job(session, number)


def cancel(session: Session, number: int) -> models.Job:
    """Stop a laying; the best lay found so far is kept. Raises NotFound."""
    row = jobs.job(session, number)
    if row.state in jobs.OPEN:
        row.cancel = True
        session.flush()
    return row


def choose_lay(session: Session, garment: models.Project, number: int) -> None:
    """Go by another of the lays that were found. Raises NotFound."""
    row = lays.lay(session, garment.id, number)
    lays.choose_lay(session, row, picked=True)
    note(session, garment, "lay", f"Chose the lay in {fold_name(row.fold)}.", length=row.lay["length"])
    session.flush()


@dataclass(frozen=True)
class LayStanding:
    """One lay that was found, with the problem it answers, ready to be drawn."""

    row: models.LayRecord
    lay: Lay
    problem: Problem
    margins: tuple[float, float]
    leans: Mapping[str, int]

    def drawn(self, view: View) -> Drawing:
        """The lay on its cloth, as pinned or opened out."""
        return draw(
            self.lay,
            {p.id: p for p in self.problem.pieces},
            self.problem.width,
            margins=self.margins,
            view=view,
            leans=self.leans,
            blocked=self.problem.blocked,
        )


def lay_standing(now: Standing, row: models.LayRecord) -> LayStanding:
    """A lay of a garment, read."""
    problem = read_problem(row.problem)
    cloth = now.main.row
    turned = leans(problem, [pieces.as_piece(p) for p in now.rows.pieces])
    return LayStanding(row, lays.as_lay(row), problem, (cloth.margin_low, cloth.margin_high), turned)


def chosen(now: Standing) -> LayStanding:
    """The lay a garment goes by. Raises NotFound before there is one."""
    if now.chosen is None:
        raise NotFound("Nothing was laid yet, so there is no lay to take away.")
    return lay_standing(now, now.chosen)


def pinned(now: Standing) -> Drawing | None:
    """The chosen lay as it is pinned, or None before there is one."""
    return None if now.chosen is None else lay_standing(now, now.chosen).drawn("pinned")


@dataclass(frozen=True)
class LayFound:
    """The chosen lay beside the others of its search, and the folds that were refused with the reason."""

    chosen: LayStanding
    others: tuple[LayStanding, ...]
    refused: tuple[tuple[str, str], ...]


def read_lay(session: Session, now: Standing) -> LayFound | None:
    """The lay a garment goes by, with its alternatives; None before there is one."""
    if now.chosen is None:
        return None
    others = tuple(lay_standing(now, row) for row in lays.alternatives(session, now.chosen))
    job_ = session.get(models.Job, now.chosen.job_id) if now.chosen.job_id else None
    refused = tuple(
        (fold, too_wide_told(piece, across, width)) for fold, piece, across, width in (job_.refused if job_ else [])
    )
    return LayFound(lay_standing(now, now.chosen), others, refused)
