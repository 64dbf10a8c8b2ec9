"""The bell: heard by all who wait, kept by none who went away."""

from __future__ import annotations

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest

from idle_selvage.store import bell as module
from idle_selvage.store.bell import MOST_WAITING, Bell
from idle_selvage.store.database import Database

from ..conftest import until


def test_everybody_who_waits_hears_it() -> None:
    bell = Bell()
    before = bell.rung
    with ThreadPoolExecutor(4) as pool:
        heard = [pool.submit(bell.wait, before, 30) for _ in range(4)]
        assert until(lambda: len(bell._waiting) == 4)
        bell.ring()
        assert {one.result(timeout=10) for one in heard} == {bell.rung} and bell.rung > before
    assert not bell._waiting


def test_who_has_not_heard_the_last_ring_does_not_wait() -> None:
    bell = Bell()
    before = bell.rung
    bell.ring()
    assert bell.wait(before, 30) == bell.rung
    assert bell.wait(bell.rung, 0) == bell.rung, "nor who has no time"


def test_a_page_is_not_told_of_what_it_did_itself() -> None:
    bell = Bell()
    before = bell.rung
    bell.ring("a")
    assert bell.heard("a") == before < bell.heard("b") == bell.heard()
    assert bell.wait(before, 0.01, besides="a") == before
    bell.ring("b")
    told = bell.wait(before, 30, besides="a")
    assert told == bell.rung > before
    bell.ring("a")
    bell.ring("a")
    assert bell.heard("a") == told and bell.heard("b") == bell.rung
    bell.ring()
    assert bell.heard("a") == bell.heard("b") == bell.heard() == bell.rung, "work that was begun is news to all"


def test_who_went_away_is_not_waited_for(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(module, "LOOK_EVERY", 0.01)
    bell, gone = Bell(), threading.Event()
    with ThreadPoolExecutor(1) as pool:
        waits = pool.submit(bell.wait, bell.rung, 600, gone.is_set)
        assert until(lambda: len(bell._waiting) == 1)
        gone.set()
        waits.result(timeout=10)


def test_of_too_many_the_first_one_goes() -> None:
    bell = Bell()
    with ThreadPoolExecutor(MOST_WAITING + 1) as pool:
        waits = []
        for n in range(MOST_WAITING):
            waits.append(pool.submit(bell.wait, bell.rung, 600))
            assert until(lambda n=n: len(bell._waiting) == n + 1)  # type: ignore[misc]
        waits.append(pool.submit(bell.wait, bell.rung, 600))
        waits[0].result(timeout=10)
        assert not any(one.done() for one in waits[1:])
        bell.close()
        for one in waits:
            one.result(timeout=10)


def test_it_rings_when_a_change_is_kept_and_not_when_it_failed(database: Database) -> None:
    before = database.bell.rung
    with pytest.raises(ZeroDivisionError), database.begin():
        raise ZeroDivisionError
    assert database.bell.rung == before
    with database.begin():
        pass
    assert database.bell.rung > before
