"""Which stage waits for which: what must be done there before anything can be done here."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Wait:
    """``stage`` waits for stage ``on``; ``why`` says what is to be done there, as a sentence."""

    stage: str
    on: str
    why: str


@dataclass(frozen=True)
class WaitFacts:
    """What decides it, of one cloth: ``missing`` before anything can be laid, as (stage, why), and whether it is laid,
    can be bought, goes by the metre and has its width; ``not_bought``: why nothing can be bought though it is laid."""

    missing: tuple[str, str] | None
    laid: bool
    can_buy: bool
    trim: bool
    width_known: bool
    not_bought: str = ""


def waits(facts: WaitFacts) -> tuple[Wait, ...]:
    """Every stage that waits, each for the first thing that has to be done."""
    found: list[Wait] = []
    if not facts.trim and not facts.laid and facts.missing is not None:
        on, why = facts.missing
        found.append(Wait("lay", on, why))
    if not facts.trim and not facts.can_buy:
        if facts.laid:
            found.append(Wait("buy", "shrink", facts.not_bought))
        else:
            on, why = facts.missing or ("lay", "Lay the pieces first.")
            found.append(Wait("buy", on, why))
    if not facts.trim and not facts.laid:
        on, why = facts.missing or ("lay", "Lay the pieces first.")
        found.append(Wait("cut", on, why))
    # how wide a trim is decides nothing
    if not facts.trim and not facts.width_known:
        found.append(
            Wait("true", "cloth", "Measure the cloth’s width in three places: how far off it is counts over it.")
        )
    return tuple(found)
