"""What a request brings, bounded once for every address: how deep, how many values, how large a number, whole letters.

Fields bound what they mean; here is bounded what nothing of ours ever means, before anything is made of it.
"""

from __future__ import annotations

import json
from functools import cached_property
from typing import Any

from flask import Request
from pydantic_core import from_json

from ..operations.refused import Refused

#: No entry of ours lies deeper than lists in lists of lists of a seam's ends.
DEEPEST = 24
#: The points of a garment of 40 pieces are some twenty thousand numbers.
MOST_VALUES = 100_000
#: A whole number from here on is not the same as a float, and is larger than any of ours.
LARGEST = 2**53
#: A file in base64, the longest of them.
LONGEST_TEXT = 27_000_000


class Asking(Request):
    """A request whose JSON is read with bounds; whatever is beyond them is refused with a sentence."""

    @cached_property
    def told(self) -> Any:
        """What the body holds, nothing where there is none. Raises :class:`Refused`."""
        if not self.is_json:
            return None
        data = self.get_data(cache=False)
        # nothing is asked with nothing, whatever its head says it is
        return bounded(data) if data else None

    def get_json(self, force: bool = False, silent: bool = False, cache: bool = True) -> Any:
        return self.told


def bounded(data: bytes) -> Any:
    """JSON of bounded size, as Python has it. Raises :class:`Refused`."""
    try:
        found = from_json(data, allow_inf_nan=False)
    except ValueError as fault:
        raise Refused(_said(str(fault)), path=_half_letter(data) if "hex escape" in str(fault) else "") from None
    if not isinstance(found, dict | list):
        raise Refused("The request must be entries with their names, in JSON.")
    _within(found)
    return found


def _said(fault: str) -> str:
    """Why a text is no JSON of ours; ``fault``: what the reader said."""
    if "hex escape" in fault or "unicode" in fault:
        return "A text of the request holds half a letter, which nobody can read; type it again."
    if "recursion" in fault:
        return f"The request is nested deeper than {DEEPEST} levels; nothing here is."
    if "out of range" in fault:
        return "A number of the request is too large; nothing here is."
    return "The request could not be read as JSON."


def _half_letter(data: bytes) -> str:
    """In which entry half a letter stands, so that it can be told there; empty when that cannot be found."""
    try:
        level = [("", json.loads(data))]
    except (ValueError, RecursionError):
        return ""
    for _ in range(DEEPEST):
        below: list[tuple[str, Any]] = []
        for path, one in level:
            if isinstance(one, str) and not one.isascii() and any(0xD800 <= ord(letter) <= 0xDFFF for letter in one):
                return path
            inside = one.items() if isinstance(one, dict) else enumerate(one) if isinstance(one, list) else ()
            below += [(f"{path}.{key}" if path else str(key), value) for key, value in inside]
        level = below[:MOST_VALUES]
    return ""


def _within(found: Any) -> None:
    """Raise :class:`Refused` where something lies too deep, is too large, or there is too much."""
    level, seen = [found], 0
    for _ in range(DEEPEST):
        below: list[Any] = []
        for one in level:
            inside = one.values() if isinstance(one, dict) else one
            seen += len(one)
            if seen > MOST_VALUES:
                raise Refused(f"The request holds more than {MOST_VALUES} values; give less at a time.")
            for value in inside:
                if isinstance(value, dict | list):
                    below.append(value)
                elif isinstance(value, str):
                    if len(value) > LONGEST_TEXT:
                        raise Refused("A text of the request is too long.")
                elif isinstance(value, int | float) and not abs(value) <= LARGEST:
                    raise Refused("A number of the request is too large; nothing here is.")
        if not below:
            return
        level = below
    raise Refused(f"The request is nested deeper than {DEEPEST} levels; nothing here is.")
