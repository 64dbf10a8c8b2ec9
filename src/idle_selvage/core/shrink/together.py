"""Cloths that are sewn together must agree: shrinkage side by side, and one washed, all washed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from ..plan.piece import Grain
from ..wording import listed

#: Two cloths of one garment may differ by so many points in the same direction. Common practice, no source.
MOST_POINTS = 2.0


ROLES: dict[str, str] = {
    "main": "main cloth",
    "lining": "lining",
    "interfacing": "interfacing",
    "contrast": "contrast",
    "pocketing": "pocketing",
    "underlining": "underlining",
    "trim": "trim",
}


@dataclass(frozen=True)
class Member:
    """One cloth of a set: what it may still lose as it is now, per cent (None when unknown), and whether it was washed.

    ``cut``: how each piece that is cut from it lies on it, by the piece's key.
    """

    name: str
    role: str
    warp: float | None
    weft: float | None
    washed: bool
    cut: Mapping[str, Grain] = field(default_factory=dict)

    def along(self, grain: Grain) -> float | None:
        """What a piece cut at this grain loses along its own length."""
        if grain == "lengthwise":
            return self.warp
        if grain == "crosswise":
            return self.weft
        # aslant, or any way round: something of both
        return None if self.warp is None or self.weft is None else (self.warp + self.weft) / 2.0

    def across(self, grain: Grain) -> float | None:
        """What a piece cut at this grain loses across its own length."""
        turned: dict[Grain, Grain] = {"lengthwise": "crosswise", "crosswise": "lengthwise"}
        return self.along(turned.get(grain, grain))


def _seams(a: Member, b: Member) -> set[tuple[Grain, Grain]]:
    """How two cloths lie where they are sewn together: by the pieces cut from both, else as both lie on the roll."""
    both = {(a.cut[key], b.cut[key]) for key in a.cut if key in b.cut}
    return both or {("lengthwise", "lengthwise")}


def mismatches(members: Sequence[Member]) -> tuple[str, ...]:
    """Every pair that differs too much in the direction of its seams, a sentence each."""
    out = []
    for i, a in enumerate(members):
        for b in members[i + 1 :]:
            ways = [(way, points) for way in ("along", "across") if abs(points := _apart(a, b, way)) > MOST_POINTS]
            for more, less, sign in ((a, b, 1.0), (b, a, -1.0)):
                told = " and ".join(
                    f"{points * sign:.1f} points more {way}" for way, points in ways if points * sign > 0
                )
                if told:
                    out.append(
                        f"{more.name} shrinks {told} than {less.name}: "
                        "sewn together they would pucker. Pre-shrink both, or change one."
                    )
    return tuple(out)


def _apart(a: Member, b: Member, way: str) -> float:
    """By how many points the first shrinks more than the second, where they differ most; nought where it is not
    known."""
    pairs = ((getattr(a, way)(one), getattr(b, way)(other)) for one, other in _seams(a, b))
    # of the numbers as they are shown, so that the difference can be worked out again from them
    return max(
        (round(round(x, 1) - round(y, 1), 1) for x, y in pairs if x is not None and y is not None), key=abs, default=0.0
    )


def headline(members: Sequence[Member]) -> str:
    """How the cloths of a set stand to one another, in a few words; alike only where it is known of all of them."""
    if len(members) == 1:
        return "One cloth, and nothing beside it yet"
    if mismatches(members):
        return "Some of these would pucker, sewn together"
    if any(one.warp is None or one.weft is None for one in members):
        return "Of some of these it is not known how they shrink"
    return "These shrink alike"


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
