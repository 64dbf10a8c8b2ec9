"""Cloths that are sewn together must agree: shrinkage side by side, and one washed, all washed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..wording import listed

#: Two cloths of one garment may differ by so many points in the same direction. Common practice, no source.
MOST_POINTS = 2.0


ROLES: dict[str, str] = {
    "main": "main cloth",
    "second": "second cloth",
    "lining": "lining",
    "interfacing": "interfacing",
    "trim": "trim",
}


@dataclass(frozen=True)
class Member:
    """One cloth of a set: shrinkage still to come in per cent (None when unknown), and whether it was washed."""

    name: str
    role: str
    warp: float | None
    weft: float | None
    washed: bool


def mismatches(members: Sequence[Member]) -> tuple[str, ...]:
    """Every pair that differs too much, as sentences."""
    out = []
    for i, a in enumerate(members):
        for b in members[i + 1 :]:
            for direction, x, y in (("along", a.warp, b.warp), ("across", a.weft, b.weft)):
                if x is not None and y is not None and abs(x - y) > MOST_POINTS:
                    more, less = (a, b) if x > y else (b, a)
                    out.append(
                        f"{more.name} shrinks {abs(x - y):.1f} points more {direction} than {less.name}: "
                        "sewn together they would pucker. Pre-shrink both, or change one."
                    )
    return tuple(out)


def one_washed_all_washed(members: Sequence[Member]) -> str:
    """Who still has to be washed because another was, or nothing."""
    washed = [m.name for m in members if m.washed]
    dry = [m.name for m in members if not m.washed]
    if not washed or not dry:
        return ""
    return f"{listed(washed)} {'was' if len(washed) == 1 else 'were'} pre-treated, so {listed(dry)} must be too."


def wanted(members: Sequence[Member], needs_lining: bool) -> tuple[str, ...]:
    """Cloths that are missing beside the main one, as sentences."""
    if needs_lining and not any(member.role == "lining" for member in members):
        return ("The main cloth shows what is under it: put a lining beside it, or leave it sheer on purpose.",)
    return ()
