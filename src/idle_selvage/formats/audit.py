"""What a reader found, what it could not read, and what it mended on the way: one shape for every format.

A file that cannot be read at all raises :class:`Unreadable`; anything less is in the answer, so that nothing is dropped
in silence and nothing is changed unsaid.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, TypeVar

T = TypeVar("T")


class Unreadable(ValueError):
    """A file that cannot be read at all; the message is a sentence."""


@dataclass(frozen=True)
class NotRead:
    """Something that was not used: a ``code`` for programs, its ``place`` in the file, and ``why``, for people."""

    code: str
    place: str
    why: str


@dataclass(frozen=True)
class Mended:
    """Something that was put right or assumed: a ``code``, its ``place`` in the file, and ``how``."""

    code: str
    place: str
    how: str


@dataclass(frozen=True)
class Found(Generic[T]):
    """What came out, and what there is to say about it."""

    what: T
    not_read: tuple[NotRead, ...] = ()
    mended: tuple[Mended, ...] = ()
