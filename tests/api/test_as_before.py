"""Everything that is said of garments told at random is what was said before.

No figure here is known to be right: others see to that (``tests/outside``, ``test_every_working.py``). This notices
that a rule, a limit or a sentence became another one. Where that was meant, look at what changed and keep it:
``APPROVE=1 python -m pytest tests/api/test_as_before.py``, and the commit shows it line by line.
"""

from __future__ import annotations

import difflib
import hashlib
import json
import os
import re
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest

from idle_selvage.store import models

from ..conftest import Person
from ..random_maker import Maker

KEPT = Path(__file__).parent / "as_before"
GARMENTS = 24
#: When something was said changes every time.
A_MOMENT = re.compile(r"\d{4}-\d\d-\d\dT\d\d:\d\d.*")


def said(answer: Any, key: str = "") -> Iterator[str]:
    """Every sentence and figure of an answer, in its order."""
    if isinstance(answer, dict):
        for name, value in answer.items():
            if name not in {"steps", "sources"}:
                yield from said(value, name)
    elif isinstance(answer, list):
        for one in answer:
            yield from said(one, key)
    elif isinstance(answer, str) and re.search(r"\w.*[ .]", answer) and not A_MOMENT.fullmatch(answer):
        yield answer


def plain(answer: Any) -> Any:
    """An answer without what changes every time, to the ten thousandth."""
    if isinstance(answer, dict):
        # how long a search took is another time each time
        return {key: plain(value) for key, value in sorted(answer.items()) if key != "job"}
    if isinstance(answer, list):
        return [plain(one) for one in answer]
    if isinstance(answer, str) and A_MOMENT.fullmatch(answer):
        return "a moment"
    return round(answer, 4) + 0.0 if isinstance(answer, float) else answer


def record(told: list[tuple[str, Any]]) -> list[str]:
    """What was told, line by line; each sentence once, and of each answer a mark of all its figures."""
    lines: list[str] = []
    before: set[str] = set()
    for page, answer in told:
        mark = hashlib.sha256(json.dumps(plain(answer), ensure_ascii=False).encode()).hexdigest()[:12]
        lines.append(f"## {page} {mark}")
        for line in said(answer):
            if line not in before:
                before.add(line)
                lines.append(line.replace("\n", " ⏎ "))
    return lines


@pytest.mark.parametrize("number", range(GARMENTS))
def test_what_is_said_of_a_garment_is_what_was_said_before(
    person: Person, number: int, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    # one morning, for ever: a washing day is planned from now on
    monkeypatch.setattr(models, "now", lambda: datetime(2026, 3, 2, 8, 0, tzinfo=UTC))
    monkeypatch.setenv("TZ", "UTC")
    time.tzset()
    maker = Maker(person, number)
    maker.garment()
    # a lay is not the same when the engine becomes better, and half of all garments are enough
    if number % 2:
        maker.laid()
    maker.look()
    lines = record(maker.told)
    kept = KEPT / f"{number:02}.txt"
    if os.environ.get("APPROVE"):
        kept.write_text("\n".join(lines) + "\n", "utf-8")
    before = kept.read_text("utf-8").splitlines()
    if lines != before:
        whole = tmp_path / "answers.json"
        whole.write_text(json.dumps([[page, plain(answer)] for page, answer in maker.told], indent=1), "utf-8")
        change = "\n".join(difflib.unified_diff(before, lines, "before", "now", n=0, lineterm=""))
        pytest.fail(f"Garment {number} (all answers: {whole}):\n{change}")
