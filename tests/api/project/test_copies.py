"""The daily copies on the screen, and what is told of a fault."""

from __future__ import annotations

import logging
from datetime import datetime

import pytest

from idle_selvage.program_log import Bare, keep_log, read_log
from idle_selvage.store import database
from idle_selvage.store.copies import daily_copy

from ...conftest import Person, data_of


def test_gone_back_and_come_back(skirt: Person) -> None:
    home = data_of(skirt.app).home
    assert skirt.ask("GET", "/copies") == {"copies": []}
    daily_copy(home, datetime(2026, 5, 1))
    skirt.ask("PATCH", "/projects/1", name="Another")
    (copy,) = skirt.ask("GET", "/copies")["copies"]
    assert copy["day"] == "2026-05-01" and copy["why"] == "" and copy["size"] > 10_000
    there = skirt.ask("POST", "/copies/back", name=copy["name"])["copies"]
    assert skirt.ask("GET", "/projects/1")["name"] != "Another"
    (before,) = [one for one in there if one["why"]]
    assert before["why"] == "before going back"
    skirt.ask("POST", "/copies/back", name=before["name"])
    assert skirt.ask("GET", "/projects/1")["name"] == "Another"


def test_going_back_while_somebody_writes_for_long_is_told_as_that(
    skirt: Person, monkeypatch: pytest.MonkeyPatch
) -> None:
    data = data_of(skirt.app)
    daily_copy(data.home, datetime(2026, 5, 1))
    monkeypatch.setattr(database, "WAIT", 0.05)
    with data.alone():
        told = skirt.ask("POST", "/copies/back", 503, name="2026-05-01.sqlite3")
        assert told["code"] == "busy" and "could not be written just now" in told["message"]
        # and so is any other change
        assert skirt.ask("PATCH", "/projects/1", 503, name="Another")["message"] == told["message"]
    assert skirt.ask("PATCH", "/projects/1", name="Another")["name"] == "Another"


@pytest.mark.parametrize("name", ["", "none.sqlite3", "../idle-selvage.sqlite3", "/etc/passwd", "2026-05-01"])
def test_what_is_no_copy_is_refused(skirt: Person, name: str) -> None:
    daily_copy(data_of(skirt.app).home, datetime(2026, 5, 1))
    before = skirt.ask("GET", "/projects/1")
    skirt.refused("POST", "/copies/back", name=name)
    assert skirt.ask("GET", "/projects/1") == before


def test_a_torn_copy_is_refused_and_nothing_is_changed(skirt: Person) -> None:
    home = data_of(skirt.app).home
    copy = daily_copy(home, datetime(2026, 5, 1))
    assert copy is not None
    copy.write_bytes(copy.read_bytes()[:5000])
    assert "damaged" in skirt.refused("POST", "/copies/back", name=copy.name)["message"]
    assert skirt.ask("GET", "/projects/1")


def test_the_report_names_nothing_of_the_person(skirt: Person) -> None:
    home = data_of(skirt.app).home
    keep_log(home)
    secret = "Grandmother’s velvet"
    skirt.ask("PATCH", "/projects/1", name=secret)
    skirt.ask("PATCH", "/projects/1/cloth", name=secret)

    try:
        raise ValueError(secret) from KeyError(secret)
    except ValueError:
        logging.getLogger("idle_selvage.test").exception("fault")
    answer = skirt.client.get("/api/report.txt", base_url="http://127.0.0.1")
    told = answer.get_data(as_text=True)
    for handler in [one for one in logging.getLogger().handlers if isinstance(one.formatter, Bare)]:
        logging.getLogger().removeHandler(handler)
        handler.close()
    assert "ValueError" in told and "KeyError" in told and "test_copies.py" in told, "where it went wrong"
    assert secret not in told and "Grandmother" not in "\n".join(read_log(home)) and str(home.parent) not in told
    assert "The data file is whole" in told and answer.headers["Content-Disposition"].endswith('.txt"')


def test_the_log_of_the_program_stays_small(skirt: Person) -> None:
    home = data_of(skirt.app).home
    keep_log(home)
    for _ in range(12_000):
        logging.getLogger("idle_selvage.test").warning("x" * 200)
    for handler in [one for one in logging.getLogger().handlers if isinstance(one.formatter, Bare)]:
        logging.getLogger().removeHandler(handler)
        handler.close()
    parts = list((home / "log").iterdir())
    assert 1 < len(parts) <= 4 and sum(one.stat().st_size for one in parts) < 2_100_000
    assert len(read_log(home)) == 400
