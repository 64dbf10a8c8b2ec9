"""Long work that goes wrong ends with a sentence in its row, and raises only for a fault of ours."""

from __future__ import annotations

from typing import Any

import pytest

from idle_selvage.jobs import laying, trying, worker
from idle_selvage.store.database import Database
from idle_selvage.store.models import Job, LayProblem

from ..conftest import STEPS, Person, data_of


def job(database: Database, params: dict[str, Any], kind: str = "lay", **more: Any) -> int:
    with database.begin() as session:
        asked = params.pop("problem", None)
        if asked is not None:
            session.merge(LayProblem(fingerprint="x", problem=asked))
            session.flush()
            more.setdefault("fingerprint", "x" if kind == "lay" else None)
        row = Job(use_id=1, kind=kind, params=params, **more)
        session.add(row)
        session.flush()
        return row.id


def state(database: Database, number: int) -> tuple[str, str]:
    with database.look() as session:
        row = session.get_one(Job, number)
        return row.state, row.error


@pytest.fixture
def database(skirt: Person) -> Database:
    return data_of(skirt.app)


def test_a_problem_that_cannot_be_laid_fails_in_words(database: Database) -> None:
    number = job(database, {"problem": {"format": "nonsense"}, "seconds": 1, "seed": 1})
    laying.run(database, number, STEPS)
    now, why = state(database, number)
    assert now == "failed" and why.endswith(".") and "format" in why


def test_a_fault_of_ours_is_told_and_raised(database: Database, monkeypatch: pytest.MonkeyPatch, skirt: Person) -> None:
    number: int = skirt.ask("POST", "/projects/1/lays", seconds=1)["id"]

    def broken(*_: Any, **__: Any) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(laying, "solve", broken)
    with pytest.raises(ZeroDivisionError):
        laying.run(database, number, STEPS)
    now, why = state(database, number)
    assert now == "failed" and "ZeroDivisionError" in why and "Lay again" in why
    assert any("Laying failed" in e["what"] for e in skirt.ask("GET", "/projects/1/log")["entries"])


def test_what_has_ended_is_left_alone(database: Database) -> None:
    for kind in ("lay", "trials"):
        number = job(database, {"problem": {}, "seconds": 1, "seed": 1, "trials": []}, kind, state="cancelled")
        worker.run(database, number)
        assert state(database, number) == ("cancelled", "")


def test_a_trial_that_stops_on_a_fault_says_so(database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    number = job(database, {"what": "extras", "seconds": 1, "trials": [{"print": "x"}]}, "trials")
    with pytest.raises(KeyError):
        worker.run(database, number)
    assert state(database, number)[0] == "failed" and "Try again" in state(database, number)[1]


def test_a_trial_of_nothing_that_can_be_is_kept_with_its_reason(database: Database) -> None:
    asked = {"print": "x", "group": "", "after": "", "enough": None}
    number = job(
        database, {"problem": {"format": "nonsense"}, "what": "offers", "seconds": 1, "trials": [asked]}, "trials"
    )
    trying.run(database, number, STEPS)
    from idle_selvage.store.trial import known

    with database.look() as session:
        row = known(session, ["x"])["x"]
        assert row.lays == [] and row.why.endswith(".")
    assert state(database, number) == ("done", "")
