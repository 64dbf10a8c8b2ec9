"""One place of a valid request spoilt: an answer in words, soon, and a refused one changes nothing."""

from __future__ import annotations

import json
import os
import random
import sqlite3
import time
from collections.abc import Iterator
from contextlib import closing
from typing import Any

import pytest

from ..conftest import OUT_OF_PROPORTION, Person, data_of
from .spoiler import RAW, spoilt, spoilt_address
from .surface import OPERATIONS, prepared

#: So many of each operation; ``make trust`` asks for many more.
EACH = int(os.environ.get("TRUST_SPOILT", "4"))
#: No answer takes longer, seconds of the processor; ``make trust`` asks for 2 s.
LONGEST = float(os.environ.get("TRUST_LONGEST", OUT_OF_PROPORTION))
#: What is written whether or not a change is made: work that was begun is looked at, not kept.
SHAPE = {"code", "message", "fields", "both"}


def kept(person: Person) -> str:
    """All that is in the data file, as text."""
    with closing(sqlite3.connect(data_of(person.app).path)) as data:
        return "\n".join(data.iterdump())


def spoiled(person: Person, operation: tuple[str, str, Any], seed: str, count: int) -> Iterator[str]:
    """Ask an operation so often with one place spoilt; what was wrong with an answer, each as a line."""
    method, path, told = operation
    chance = random.Random(f"{told['operationId']} {seed}")
    address, body = prepared(person, path, told)
    raw = list(RAW)
    chance.shuffle(raw)
    for n in range(count):
        sent: Any = None
        where = address
        if body is not None and n % 3 == 2 and raw:
            sent = raw.pop()
        elif body and chance.random() < 0.85:
            sent = json.dumps(spoilt(body, chance)).encode()
        else:
            where, sent = spoilt_address(address, chance), None if body is None else json.dumps(body).encode()
        before = kept(person)
        begun = time.process_time()
        answer = person.client.open(
            where, method=method.upper(), data=sent, content_type="application/json", base_url="http://127.0.0.1"
        )
        took = time.process_time() - begun
        asked = f"{method} {where[:120]} {(sent or b'')[:200]!r}"
        if answer.status_code >= 500:
            yield f"{answer.status_code}: {asked}"
        if took > LONGEST:
            yield f"{took:.1f} s: {asked}"
        if answer.status_code >= 400:
            if answer.mimetype != "application/json" or set(answer.get_json()) != SHAPE:
                yield f"not in words: {asked}"
            if kept(person) != before:
                yield f"refused with {answer.status_code} and changed something all the same: {asked}"
        elif method == "get" and kept(person) != before:
            yield f"a question changed something: {asked}"


@pytest.mark.parametrize("operation", OPERATIONS, ids=[o["operationId"] for _, _, o in OPERATIONS])
def test_a_spoilt_request_is_answered_in_words_and_changes_nothing(
    laid: Person, operation: tuple[str, str, Any]
) -> None:
    assert list(spoiled(laid, operation, "tests", EACH)) == []


def test_a_seed_spoils_alike() -> None:
    """The same requests are spoilt in the same way again, or nothing found could be looked into."""
    once, again = (
        [spoilt({"a": [1, {"b": "x"}], "c": 2}, random.Random(seed)) for seed in range(200)] for _ in range(2)
    )
    assert once == again and len({json.dumps(one) for one in once}) > 100
