"""Weights as people type them: grams a square metre or ounces a square yard of cloth, kilograms or pounds of a load.

An ounce is 28.349523125 g and a pound 16 of them (international yard and pound agreement, 1959).
"""

from __future__ import annotations

import re

from .units import MM_PER_YARD, BadEntry, System, read_number

GRAMS_PER_OUNCE = 28.349523125
GRAMS_PER_POUND = 16 * GRAMS_PER_OUNCE
#: Square metres of a square yard.
YARD2_M2 = (MM_PER_YARD / 1000.0) ** 2
#: g/m² of one oz/yd².
OUNCE_A_YARD2 = GRAMS_PER_OUNCE / YARD2_M2

_WRITTEN = re.compile(r"^\s*(?P<number>[^a-zA-Z]+?)\s*(?P<unit>[a-zA-Z].*)?$")
_CLOTH = {"g": 1.0, "gsm": 1.0, "gm2": 1.0, "oz": OUNCE_A_YARD2, "ozyd2": OUNCE_A_YARD2, "ozsqyd": OUNCE_A_YARD2}
_LOAD = {"kg": 1.0, "g": 1e-3, "lb": GRAMS_PER_POUND / 1000.0, "lbs": GRAMS_PER_POUND / 1000.0}


def cloth_unit(system: System) -> str:
    """What cloth is weighed in."""
    return "g/m²" if system == "metric" else "oz/yd²"


def load_unit(system: System) -> str:
    """What a load is weighed in."""
    return "kg" if system == "metric" else "lb"


def read_cloth_weight(text: str, system: System) -> float:
    """Grams a square metre: ``180``, ``180 g/m²``, ``5.3 oz``. Raises :class:`~.units.BadEntry`."""
    return _read(text, _CLOTH, 1.0 if system == "metric" else OUNCE_A_YARD2, "180 g/m² or 5.3 oz/yd²")


def read_load_weight(text: str, system: System) -> float:
    """Kilograms: ``7``, ``7 kg``, ``15 lb``. Raises :class:`~.units.BadEntry`."""
    return _read(text, _LOAD, 1.0 if system == "metric" else GRAMS_PER_POUND / 1000.0, "7 kg or 15 lb")


def cloth_weight_text(grams: float, system: System) -> str:
    """Grams a square metre as a number in the person's unit, without it."""
    return f"{grams:.4g}" if system == "metric" else f"{grams / OUNCE_A_YARD2:.3g}"


def load_weight_text(kilograms: float, system: System) -> str:
    """Kilograms as a number in the person's unit, without it."""
    return f"{kilograms:.4g}" if system == "metric" else f"{kilograms * 1000.0 / GRAMS_PER_POUND:.3g}"


def told_weights(text: str) -> tuple[tuple[str, str], ...]:
    """A typed weight in every unit, as (unit, text): of cloth by its area where a square metre or yard is named, else
    of a thing. Nothing where it is no weight: ``5.3 oz/yd²``, ``180 g/m²``, ``2 lb``, ``250 g``."""
    found = _WRITTEN.match(text)
    unit = "" if found is None else _plain_unit(found["unit"])
    if found is None or not unit or unit not in {**_CLOTH, **_LOAD}:
        return ()
    number = read_number(found["number"])
    if unit in _CLOTH and unit not in ("g", "oz"):
        grams = number * _CLOTH[unit]
        return (("grams a square metre", f"{grams:.0f} g/m²"),
                ("ounces a square yard", f"{grams / OUNCE_A_YARD2:.1f} oz/yd²"))  # fmt: skip
    grams = number * (GRAMS_PER_OUNCE if unit == "oz" else _LOAD[unit] * 1000.0)
    pounds, ounces = divmod(round(grams / GRAMS_PER_OUNCE, 1), 16)
    return (
        ("grams", f"{grams:.0f} g"),
        ("kilograms", f"{grams / 1000.0:.2f} kg"),
        ("ounces", f"{grams / GRAMS_PER_OUNCE:.1f} oz"),
        ("pounds and ounces", f"{pounds:.0f} lb {ounces:.1f} oz"),
    )


def _plain_unit(unit: str | None) -> str:
    return re.sub(r"[^a-z2]", "", (unit or "").lower().replace("²", "2"))


def _read(text: str, units: dict[str, float], bare: float, example: str) -> float:
    found = _WRITTEN.match(text)
    if found is None:
        raise BadEntry(f"“{text.strip()[:30]}” is no weight; write it as {example}.")
    unit = _plain_unit(found["unit"])
    if unit and unit not in units:
        raise BadEntry(f"“{(found['unit'] or '').strip()[:20]}” is no weight known here; write it as {example}.")
    return read_number(found["number"]) * (units[unit] if unit else bare)
