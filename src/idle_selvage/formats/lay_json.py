"""Lay problems and lays as JSON text, with limits and sentences for what cannot be read."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from ..core.lay.answer import Lay
from ..core.lay.answer import from_json as lay_from_json
from ..core.lay.answer import to_json as lay_to_json
from ..core.lay.problem import BadProblem, Problem
from ..core.lay.reading import read_problem

#: A lay problem of 400 copies takes a tenth of this.
MAX_BYTES = 5_000_000


def parse_problem(text: str | bytes) -> Problem:
    """A problem from JSON text. Raises :class:`BadProblem` with a sentence per fault."""
    return read_problem(_decode(text, "a lay problem"))


def read_problem_file(path: Path) -> Problem:
    """A problem from a file. Raises :class:`BadProblem`."""
    return parse_problem(_bytes(path))


def read_lay_file(path: Path) -> Lay:
    """A lay from a file. Raises :class:`BadProblem`."""
    data = _decode(_bytes(path), "a lay")
    try:
        return lay_from_json(data)
    except (KeyError, TypeError, AttributeError, ValueError) as fault:
        raise BadProblem(
            [f"“{path.name}” is not a lay in idle-selvage/lay/1: {fault!r} is missing or not as it is there."]
        ) from None


def lay_text(lay: Lay) -> str:
    """A lay as JSON text."""
    return json.dumps(lay_to_json(lay), indent=1, allow_nan=False) + "\n"


def _bytes(path: Path) -> bytes:
    try:
        with path.open("rb") as file:
            data = file.read(MAX_BYTES + 1)
    except FileNotFoundError:
        raise BadProblem([f"There is no file “{path.name}” there."]) from None
    except IsADirectoryError:
        raise BadProblem([f"“{path.name}” is a folder, not a file."]) from None
    except OSError as error:
        raise BadProblem([f"“{path.name}” could not be read: {error.strerror}."]) from None
    if len(data) > MAX_BYTES:
        raise BadProblem([f"“{path.name}” is larger than {MAX_BYTES // 1_000_000} MB; simplify its outlines."])
    return data


def _not_finite(name: str) -> float:
    raise BadProblem([f"The file holds {name}, which is not a number; every coordinate must be one."])


def _decode(text: str | bytes, what: str) -> Any:
    try:
        return json.loads(text, parse_constant=_not_finite)
    except BadProblem:
        raise
    except json.JSONDecodeError as error:
        raise BadProblem(
            [f"This is not JSON: {error.msg} in line {error.lineno}, column {error.colno}. It must hold {what}."]
        ) from None
    except UnicodeDecodeError:
        raise BadProblem([f"The file is not text in UTF-8; it must hold {what}."]) from None
    except (RecursionError, ValueError):
        raise BadProblem([f"The file is nested too deeply or holds a number too long to be {what}."]) from None
