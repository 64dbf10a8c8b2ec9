"""The quiet search: while nobody waits for anything, the engine goes on with the lays that are gone by.

What it finds is offered and never put in by itself; a minute in all for each problem, or until the purchase is proved.
"""

from __future__ import annotations

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ..store import job as jobs
from ..store import lay as lays
from ..store import models
from .standing import standing

#: So long a problem is searched in all, and so long at a time, seconds.
IN_ALL_SECONDS = 60.0
AT_A_TIME_SECONDS = 10.0
#: What is left of the minute is not worth beginning for, seconds.
LEAST_SECONDS = 1.0
#: Every quiet search begins from another seed than the one the maker waited for.
FIRST_SEED = 101


def next_search(session: Session) -> models.Job | None:
    """The next quiet search, written down as waiting; None while anybody waits, or when there is nothing to search."""
    if session.scalar(select(func.count()).select_from(models.Job).where(models.Job.state.in_(jobs.OPEN))):
        return None
    query = (
        select(models.LayRecord)
        .join(models.ClothUse, models.ClothUse.id == models.LayRecord.use_id)
        .join(models.Project, models.Project.id == models.ClothUse.project_id)
        .where(models.LayRecord.chosen, models.LayRecord.deleted_at.is_(None))
        .where(models.ClothUse.deleted_at.is_(None), models.Project.deleted_at.is_(None))
        .order_by(models.LayRecord.id.desc())
    )
    for row in session.scalars(query):
        spent, count = session.execute(
            select(func.coalesce(func.sum(models.Job.spent), 0.0), func.count()).where(
                models.Job.fingerprint == row.fingerprint, models.Job.kind == "quiet"
            )
        ).one()
        left = IN_ALL_SECONDS - float(spent)
        if left < LEAST_SECONDS:
            continue
        now = standing(session, session.get_one(models.ClothUse, row.use_id))
        if now.stale or now.proved or now.bought is None:
            continue
        params = {"seconds": min(AT_A_TIME_SECONDS, left), "seed": FIRST_SEED + int(count), "basis": row.basis}
        job = models.Job(use_id=row.use_id, kind="quiet", fingerprint=row.fingerprint, params=params)
        session.add(job)
        session.flush()
        return job
    return None


def shortest_found(session: Session, chosen: models.LayRecord) -> models.LayRecord | None:
    """The shortest lay of the chosen one's problem that was found quietly and is shorter; of a fold the maker picked,
    one of that fold."""
    query = (
        select(models.LayRecord)
        .join(models.Job, models.Job.id == models.LayRecord.job_id)
        .where(models.Job.kind == "quiet", models.LayRecord.use_id == chosen.use_id)
        .where(models.LayRecord.fingerprint == chosen.fingerprint, models.LayRecord.id != chosen.id)
    )
    fold = lays.as_lay(chosen).sections[0].fold
    found = [row for row in session.scalars(query) if not chosen.picked or row.fold == fold]
    best = min(found, key=lays.length_of, default=None)
    return best if best is not None and lays.length_of(best) < lays.length_of(chosen) - lays.SAME_LENGTH_MM else None
