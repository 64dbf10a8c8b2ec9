"""Whoever writes waits in the order they came."""

from __future__ import annotations

import threading
import time

import pytest

from idle_selvage.store.turns import Busy, Turns


def wait_until(there: int, turns: Turns) -> None:
    end = time.monotonic() + 10
    while len(turns._waiting) < there:
        assert time.monotonic() < end
        time.sleep(0.001)


def test_the_first_that_came_is_the_first() -> None:
    turns, order = Turns(), list[int]()

    def take(number: int) -> None:
        with turns.mine(30):
            order.append(number)

    with turns.mine(0):
        threads = [threading.Thread(target=take, args=(number,)) for number in range(30)]
        for k, thread in enumerate(threads):
            thread.start()
            wait_until(k + 1, turns)
    for thread in threads:
        thread.join()
    assert order == list(range(30))


def test_only_one_has_the_turn() -> None:
    turns, inside, most = Turns(), 0, 0

    def take() -> None:
        nonlocal inside, most
        for _ in range(200):
            with turns.mine(30):
                inside += 1
                most = max(most, inside)
                inside -= 1

    threads = [threading.Thread(target=take) for _ in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert (inside, most) == (0, 1)


def test_who_waited_too_long_goes_and_holds_nobody_up() -> None:
    turns = Turns()
    with turns.mine(0):
        with pytest.raises(Busy), turns.mine(0.01):
            raise AssertionError("it was not its turn")
        assert not turns._waiting
    with turns.mine(0):
        pass


def test_a_fault_in_a_turn_gives_it_on() -> None:
    turns = Turns()
    with pytest.raises(ZeroDivisionError), turns.mine(0):
        raise ZeroDivisionError
    with turns.mine(0):
        pass
