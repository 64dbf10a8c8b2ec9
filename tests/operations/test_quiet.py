"""The quiet search: only while nobody waits, a minute in all, and what it finds is offered and never put in."""

from __future__ import annotations

import pytest

from idle_selvage.jobs import laying
from idle_selvage.operations import quiet
from idle_selvage.store import lay as lays
from idle_selvage.store import models

from ..conftest import STEPS, Person, data_of


@pytest.fixture
def laid(skirt: Person) -> Person:
    skirt.lay(1, seconds=1)
    # as if the search had not come far: nothing is proved
    with data_of(skirt.app).begin() as session:
        for row in session.query(models.LayRecord):
            row.lay = {**row.lay, "length": row.lay["length"] + 700.0}
    return skirt


def searched(person: Person) -> int | None:
    with data_of(person.app).begin() as session:
        job = quiet.next_search(session)
        return None if job is None else job.id


def test_it_begins_while_nobody_waits_and_only_once(laid: Person) -> None:
    assert searched(laid) is not None
    assert searched(laid) is None, "one at a time"


def test_whoever_lays_stops_it(laid: Person) -> None:
    number = searched(laid)
    laid.ask("POST", "/projects/1/lays", 202, seconds=1)
    with data_of(laid.app).look() as session:
        assert session.get_one(models.Job, number).cancel
    assert searched(laid) is None


def test_it_ends_after_a_minute_in_all(laid: Person) -> None:
    number = searched(laid)
    with data_of(laid.app).begin() as session:
        job = session.get_one(models.Job, number)
        job.state, job.spent = "done", quiet.IN_ALL_SECONDS - 3.0
    again = searched(laid)
    with data_of(laid.app).begin() as session:
        job = session.get_one(models.Job, again)
        assert job.params["seconds"] == pytest.approx(3.0) and job.params["seed"] != quiet.FIRST_SEED
        job.state, job.spent = "done", 3.0
    assert searched(laid) is None


def test_a_lay_out_of_date_is_not_searched(laid: Person) -> None:
    laid.ask("PATCH", "/projects/1/lay", gap="2 cm")
    assert searched(laid) is None


def test_what_it_finds_is_offered_and_not_put_in(laid: Person) -> None:
    before = laid.ask("GET", "/projects/1/lay")["lay"]
    assert before["shorter"] is None
    number = searched(laid)
    laying.run(data_of(laid.app), number or 0, STEPS)
    after = laid.ask("GET", "/projects/1/lay")["lay"]
    assert after["lay_id"] == before["lay_id"] and after["length"] == before["length"]
    said = [line["kind"] for line in laid.ask("GET", "/projects/1/log")["entries"] if "kind" in line]
    assert said.count("laid") <= 1
    # one that is a good deal shorter would change what is bought
    with data_of(laid.app).begin() as session:
        row = next(r for r in session.query(models.LayRecord) if r.job_id == number and r.fold == before["fold"])
        row.lay = {**row.lay, "length": before["length"]["mm"] - 400.0}
        ids = {r.id for r in session.query(models.LayRecord) if r.job_id == number}
    found = laid.ask("GET", "/projects/1/lay")["lay"]["shorter"]
    assert found["lay_id"] in ids and found["would_do"] != found["instead_of"]
    assert laid.ask("GET", "/projects/1/lay")["lay"]["lay_id"] == before["lay_id"]


def test_of_a_fold_that_was_picked_only_that_fold_is_offered(laid: Person) -> None:
    found = laid.ask("GET", "/projects/1/lay")["lay"]
    folded = next(a for a in found["alternatives"] if a["fold"] == "lengthwise")
    laid.ask("POST", "/projects/1/lay/choose", lay_id=folded["lay_id"])
    number = searched(laid)
    laying.run(data_of(laid.app), number or 0, STEPS)
    with data_of(laid.app).begin() as session:
        for row in session.query(models.LayRecord).filter(models.LayRecord.job_id == number):
            row.lay = {**row.lay, "length": 100.0}
        session.flush()
        chosen = lays.lay(session, 1, folded["lay_id"])
        best = quiet.shortest_found(session, chosen)
        assert best is not None and best.fold == "lengthwise"
