"""Layings are begun as they were asked for; one that has nothing to show yet is let in; each is told its place."""

from __future__ import annotations

from datetime import timedelta

import pytest

from idle_selvage.jobs import laying
from idle_selvage.store import job as jobs
from idle_selvage.store.database import Database
from idle_selvage.store.models import Job, LayProblem, now

from ..conftest import Person, data_of, until


@pytest.fixture
def database(skirt: Person) -> Database:
    skirt.lay(1, seconds=1)
    return data_of(skirt.app)


def ask(database: Database, kind: str = "lay", *, spent: float = 0.0, seconds: float = 30.0, **more: object) -> int:
    """Work that waits since a minute."""
    with database.begin() as session:
        asked = session.query(LayProblem).first()
        assert asked is not None
        params = {"seconds": seconds, "seed": 1, "basis": {}, **more}
        row = Job(
            use_id=1, kind=kind, fingerprint=asked.fingerprint, params=params, spent=spent,
            created_at=now() - timedelta(minutes=1),
        )  # fmt: skip
        session.add(row)
        session.flush()
        return row.id


def test_the_order_of_what_waits(database: Database) -> None:
    trials, begun, first, quiet, second = (
        ask(database, "trials"), ask(database, spent=1.0), ask(database), ask(database, "quiet"), ask(database)
    )  # fmt: skip
    with database.look() as session:
        rows = [session.get_one(Job, n) for n in (trials, begun, first, quiet, second)]
        assert [row.id for row in sorted(rows, key=jobs.turn)] == [first, second, begun, trials, quiet]
        assert {row.id: jobs.ahead(row) for row in rows} == {first: 0, second: 1, begun: 2, trials: 3, quiet: 4}


def test_a_laying_makes_way_for_one_that_has_nothing_yet_and_goes_on_later(database: Database) -> None:
    here, other = ask(database), ask(database)
    assert laying.run(database, here), "it is to go on"
    with database.begin() as session:
        row = session.get_one(Job, here)
        assert row.state == "waiting" and 0.3 < row.spent < 20 and row.progress and row.finished_at is None
        spent, before = row.spent, row.progress[-1][1]
        row.params = {**row.params, "seconds": spent + 2.0}
        session.get_one(Job, other).state = "done"
    assert not laying.run(database, here)
    with database.look() as session:
        row = session.get_one(Job, here)
        assert row.state == "done" and spent + 1.5 < row.spent < spent + 20
        assert min(one[1] for one in row.progress) <= before
        assert all(a[0] <= b[0] for a, b in zip(row.progress, row.progress[1:], strict=False)), "its time goes on"


@pytest.mark.parametrize(("kind", "spent", "cancel"), [("trials", 0.0, False), ("lay", 1.0, False), ("lay", 0.0, True)])
def test_nothing_else_makes_it_stop(database: Database, kind: str, spent: float, cancel: bool) -> None:
    here, other = ask(database, seconds=1.5), ask(database, kind, spent=spent)
    with database.begin() as session:
        session.get_one(Job, other).cancel = cancel
    assert not laying.run(database, here)
    with database.look() as session:
        assert session.get_one(Job, here).state == "done"


def test_a_number_of_steps_is_taken_without_a_break(database: Database) -> None:
    here, _ = ask(database, steps=200), ask(database)
    assert not laying.run(database, here)
    with database.look() as session:
        assert session.get_one(Job, here).state == "done"


def test_who_stops_a_laying_that_made_way_ends_it(timed: Person) -> None:
    """Good enough, said while it waits for its next turn."""
    timed.ask("POST", "/projects", name="Slip")
    timed.ask("PATCH", "/projects/1/cloth", width_readings=["100 cm"], blend=[{"fibre": "linen", "share": 100}])
    square = [{"along": 0, "left": 100, "right": 100}, {"along": 200, "left": 100, "right": 100}]
    timed.ask("POST", "/projects/1/pieces", name="Square", stations=square, smooth=False)
    number = timed.ask("POST", "/projects/1/lays", seconds=20)["id"]
    assert timed.progressed(number)
    told = timed.ask("POST", f"/jobs/{number}/cancel")
    assert told["id"] == number
    assert until(lambda: timed.ask("GET", f"/jobs/{number}")["state"] == "cancelled", 20)
