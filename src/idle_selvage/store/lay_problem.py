"""Lay problems, each kept once under its fingerprint."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from sqlalchemy import CompoundSelect, delete, select, union
from sqlalchemy.orm import Session

from ..core.lay.problem import Problem, fingerprint, to_json
from ..core.lay.reading import read_problem
from .models import Cutting, Job, LayProblem, LayRecord, Trial, now

#: A problem nobody points to is kept so long: a job that tries it may be about to begin.
KEPT = timedelta(days=1)


def keep(session: Session, problem: Problem) -> str:
    """Keep a problem, with what its pieces are called now; its fingerprint."""
    found, asked = fingerprint(problem), to_json(problem, named=True)
    row = session.get(LayProblem, found)
    if row is None:
        session.add(LayProblem(fingerprint=found, problem=asked))
    else:
        row.problem = asked
    session.flush()
    return found


def asked(session: Session, print_: str) -> dict[str, Any]:
    """A problem in its format, by its fingerprint."""
    return session.get_one(LayProblem, print_).problem


def problem(session: Session, print_: str) -> Problem:
    """A problem by its fingerprint."""
    return read_problem(asked(session, print_))


def forget_unasked(session: Session) -> None:
    """Forget problems that no lay, job, trial or cutting points to any more."""
    pointed: CompoundSelect[tuple[str]] = union(
        select(LayRecord.fingerprint),
        select(Job.fingerprint).where(Job.fingerprint.is_not(None)),
        select(Trial.fingerprint),
        select(Cutting.fingerprint),
    )
    old = LayProblem.created_at < now() - KEPT
    session.execute(delete(LayProblem).where(LayProblem.fingerprint.not_in(pointed), old))
