"""What cannot be done, and why."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..core.wording import Sentence
from ..core.working import length


class Refused(Exception):
    """Something asked for that cannot be done, with the sentence that says why.

    ``code`` says of which kind it is: ``bad_entry``, ``not_ready``, ``cannot_lay``, ``cannot_schedule``, ``in_use``,
    ``asked`` (it looks like a slip; said once more, it is kept), ``again`` (it is there already);
    ``cannot_do`` (at the table: it was done, or was not);
    ``path`` names the entry it is about, if one.
    """

    def __init__(self, message: str, *, code: str = "bad_entry", path: str = "") -> None:
        super().__init__(message)
        self.message, self.code, self.path = message, code, path


def within(given: Mapping[str, Any], limits: Mapping[str, tuple[float, float]]) -> None:
    """Refuse a length outside its limits, in millimetres."""
    for key, (least, most) in limits.items():
        if given.get(key) is not None and not least <= given[key] <= most:
            told = "That must be from {least} to {most}."
            raise Refused(Sentence(told, least=length(least), most=length(most)), path=key)
