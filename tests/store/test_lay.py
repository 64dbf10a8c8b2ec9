"""Lays that were found: the best of each fold is kept, and what the maker picked is gone by."""

from __future__ import annotations

from typing import Any

import pytest
from sqlalchemy.orm import Session

from idle_selvage.store import lay as lays
from idle_selvage.store.database import Database
from idle_selvage.store.errors import NotFound
from idle_selvage.store.models import Job, LayProblem


def made(length: float) -> dict[str, Any]:
    return {"length": length}


def problem(session: Session) -> str:
    session.add(LayProblem(fingerprint="x", problem={}))
    session.flush()
    return "x"


def test_the_shortest_is_gone_by_until_another_is_picked(database: Database) -> None:
    with database.begin() as session:
        job = Job(use_id=1, fingerprint=problem(session), params={"basis": {"warp": 6.5}})
        session.add(job)
        session.flush()
        lays.keep_lays(session, job, [("open", made(900.0)), ("lengthwise", made(1100.0))])
        first = lays.chosen_lays(session, [1]).get(1)
        assert first is not None and (first.fold, first.basis) == ("open", {"warp": 6.5})
        # a longer one of the same fold is not news, a shorter one is; the fold that got shorter is gone by
        lays.keep_lays(session, job, [("open", made(950.0)), ("lengthwise", made(880.0))])
        assert [(r.fold, r.lay["length"]) for r in lays.alternatives(session, first)] == [
            ("lengthwise", 880.0),
            ("open", 900.0),
        ]
        again = lays.chosen_lays(session, [1]).get(1)
        assert again is not None and again.fold == "lengthwise"
        lays.choose_lay(session, first, picked=True)
        lays.keep_lays(session, job, [("lengthwise", made(700.0))])
        kept = lays.chosen_lays(session, [1]).get(1)
        assert kept is not None and kept.id == first.id, "a search that goes on does not take it back"
        assert lays.chosen_lays(session, [1, 2]) == {1: kept}


def test_another_garment_s_lay_is_not_found(database: Database) -> None:
    with database.begin() as session:
        job = Job(use_id=1, fingerprint=problem(session), params={})
        session.add(job)
        session.flush()
        lays.keep_lays(session, job, [("open", made(900.0))])
        row = lays.chosen_lays(session, [1]).get(1)
        assert row is not None and lays.lay(session, 1, row.id) is row
        for garment, number in ((2, row.id), (1, row.id + 1)):
            with pytest.raises(NotFound):
                lays.lay(session, garment, number)
