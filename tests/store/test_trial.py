"""Lays tried on the side, kept by their problem."""

from __future__ import annotations

from typing import Any

import pytest
from sqlalchemy.orm import Session

from idle_selvage.store import job as jobs
from idle_selvage.store import trial
from idle_selvage.store.database import Database
from idle_selvage.store.models import Job, LayProblem, Trial


def kept(session: Session, print_: str, seconds: float, **found: Any) -> Trial:
    session.merge(LayProblem(fingerprint=print_, problem={}))
    session.flush()
    return trial.keep(session, print_, seconds, **found)


def test_of_two_searches_the_shorter_lay_of_each_fold_is_kept(database: Database) -> None:
    with database.begin() as session:
        kept(session, "p", 2.0, lays=[["open", {"length": 900.0}], ["lengthwise", {"length": 950.0}]])
        row = kept(session, "p", 1.0, lays=[["open", {"length": 940.0}], ["lengthwise", {"length": 800.0}]])
        assert [(fold, lay["length"]) for fold, lay in row.lays] == [("lengthwise", 800.0), ("open", 900.0)]
        assert row.seconds == 2.0, "the longest search it had"
        assert trial.length_of(row) == 800.0 and trial.length_of(None) is None
        session.flush()
        assert trial.count(session, ["p", "q"]) == 1 and set(trial.known(session, ["p", "q", "p"])) == {"p"}
        assert trial.known(session, []) == {}


def test_what_cannot_be_laid_says_why_until_it_can(database: Database) -> None:
    with database.begin() as session:
        row = kept(session, "p", 1.0, wide=[["Front", 1100.0, 900.0]], why="Too wide.")
        assert trial.length_of(row) is None
        row = kept(session, "p", 2.0, lays=[["open", {"length": 900.0}]])
        assert (row.why, row.wide, trial.length_of(row)) == ("", [], 900.0)


def test_the_oldest_are_forgotten(database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(trial, "MOST_KEPT", 2)
    for name in ("a", "b", "c"):
        with database.begin() as session:
            kept(session, name, 1.0, lays=[])
    with database.begin() as session:
        trial.forget_old(session)
        assert set(trial.known(session, ["a", "b", "c"])) == {"b", "c"}


def test_a_part_knows_its_own_work_and_why_it_failed(database: Database) -> None:
    with database.begin() as session:
        for what in ("extras", "offers"):
            session.add(Job(use_id=1, kind="trials", params={"what": what}))
        session.flush()
        running = trial.running(session, 1, "offers")
        assert running is not None and running.params["what"] == "offers"
        assert trial.running(session, 1, "cupboard") is None and trial.failed(session, 1, "offers") == ""
        jobs.finish(running, "failed", "It stopped.")
        session.flush()
        assert trial.running(session, 1, "offers") is None and trial.failed(session, 1, "offers") == "It stopped."
        assert trial.failed(session, 1, "extras") == ""
        other = trial.running(session, 1, "extras")
        assert other is not None
        other.cancel = True
        session.flush()
        assert trial.running(session, 1, "extras") is None, "what was stopped is not waited for"
