"""What a person types, as pydantic types: lengths with units and fractions, and plain numbers.

A number in JSON is millimetres; a text is what was typed, in the units the person has chosen.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Annotated, Any

from pydantic import BeforeValidator, Field, ValidationInfo, WithJsonSchema

from ...core.units import LONGEST_MM, System, read_length, read_number, read_range, read_sided
from ...core.weights import read_cloth_weight, read_load_weight
from ...core.working import about, length
from ...core.written import quantity_text
from .person import current_system, insisted

#: What a plain number is where cloth is told by the yard.
YARDAGE: dict[System, str] = {"metric": "cm", "imperial": "yd"}
#: The largest plain number that is taken.
MOST = 1e6


class Asked(ValueError):
    """What was typed can be, but is hardly meant: said once more, it is kept."""


def _typed_text(text: str) -> str:
    """What was typed, with a question mark for half a character: no answer could repeat it."""
    return text.encode("utf-8", "replace").decode()


def _length(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise ValueError("Give a length, such as 126 cm or 49 1/2 in.")
    if isinstance(value, str):
        return read_length(_typed_text(value), current_system.get())
    # compared before it is made a float: a whole number may be too large for one
    if not 0 <= value <= LONGEST_MM:
        raise ValueError("A length must be from 0 to a kilometre, in millimetres.")
    return float(value)


def _length_or_yardage(value: Any, info: ValidationInfo) -> float:
    system = current_system.get()
    if isinstance(value, str) and info.data.get("yardage"):
        return read_length(_typed_text(value), system, unit=YARDAGE[system])
    return _length(value)


def _sided(value: Any) -> float:
    if isinstance(value, str):
        return read_sided(_typed_text(value), current_system.get())
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise ValueError("Give a length, such as 12 cm, or 12 cm right.")
    if not -LONGEST_MM <= value <= LONGEST_MM:
        raise ValueError("A length must be up to a kilometre, in millimetres.")
    return float(value)


def _weight(value: Any, read: Callable[[str, System], float]) -> float:
    if isinstance(value, str):
        value = read(_typed_text(value), current_system.get())
    return _number(value)


def _number(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise ValueError("Give a number, such as 3.5.")
    number = read_number(_typed_text(value)) if isinstance(value, str) else value
    if not 0 <= number <= MOST:
        raise ValueError("The number must be from 0 to a million.")
    return float(number)


def _name(value: Any) -> str:
    if not isinstance(value, str):
        raise ValueError("Give a text.")
    text = " ".join(value.split())
    if any(ord(c) < 32 or 0xD800 <= ord(c) <= 0xDFFF for c in text):
        raise ValueError("The text holds characters that cannot be shown.")
    if len(text) > 120:
        raise ValueError("That is too long for a name; use at most 120 letters.")
    return text


def _needed(value: Any) -> str:
    text = _name(value)
    if not text:
        raise ValueError("Give it a name.")
    return text


def _typed(
    what: str,
    least: float,
    most: float,
    *,
    unit: Mapping[System, str] | None = None,
    usual: tuple[float, float] | None = None,
) -> Any:
    """A length of some kind: from ``least`` to ``most`` mm, else it is refused; outside what is ``usual`` it is asked
    back, and kept if insisted on. ``unit``: what a plain number is taken to be in; None: the tape's."""

    def read(value: Any) -> float:
        system = current_system.get()
        if isinstance(value, str):
            value = _typed_text(value)
            mm = read_length(value, system, unit=None if unit is None else unit[system])
        else:
            mm = _length(value)
        if not least <= mm <= most:
            ends = tuple(quantity_text(about(end), system) for end in (least, most))
            shown = (
                f"“{value.strip()}” was read as {quantity_text(length(mm), system)}" if isinstance(value, str) else "It"
            )
            raise ValueError(
                f"{shown}; {what} is from {ends[0]} to {ends[1]}. Write the unit with it, such as {EXAMPLES[system]}."
            )
        if usual is not None and not usual[0] <= mm <= usual[1] and not insisted.get():
            ends = tuple(quantity_text(about(end), system) for end in usual)
            raise Asked(
                f"Is it {quantity_text(length(mm), system)}? {what[:1].upper()}{what[1:]} is usually from {ends[0]} to "
                f"{ends[1]}. If so, keep it once more."
            )
        return mm

    return Annotated[
        float,
        BeforeValidator(read),
        WithJsonSchema({**_TYPED, "description": f"{what}: millimetres as a number, or as typed"}),
    ]


def _ranged(what: str, least: float, most: float) -> Any:
    """A length of some kind, or the two ends of a range of it, as charts print them."""

    def read(value: Any) -> float | tuple[float, float]:
        system = current_system.get()
        if isinstance(value, str):
            low, high = read_range(_typed_text(value), system)
        elif isinstance(value, list) and len(value) == 2:
            low, high = (_length(end) for end in value)
        else:
            low = high = _length(value)
        if not least <= low <= high <= most:
            ends = tuple(quantity_text(about(end), system) for end in (least, most))
            example = "91–97 cm" if system == "metric" else "36–38 in"
            raise ValueError(f"{what[:1].upper()}{what[1:]} is from {ends[0]} to {ends[1]}, such as {example}.")
        return low if low == high else (low, high)

    both = {"type": "array", "items": {"type": "number", "minimum": 0}, "minItems": 2, "maxItems": 2}
    return Annotated[
        float | tuple[float, float],
        BeforeValidator(read),
        WithJsonSchema(
            {
                "anyOf": [*_TYPED["anyOf"], both],
                "description": f"{what} or a range of it: millimetres as a number or two, or as typed: “36–38 in”",
            }
        ),
    ]


#: How a length is written so that it can be read in one way only.
EXAMPLES: dict[System, str] = {"metric": "15 mm, 126 cm or 1.26 m", "imperial": "5/8 in or 1 3/8 yd"}

_TYPED = {"anyOf": [{"type": "string", "maxLength": 60}, {"type": "number", "minimum": 0}]}

LengthIn = Annotated[
    float,
    BeforeValidator(_length),
    WithJsonSchema({**_TYPED, "description": "millimetres as a number, or as typed: “126 cm”, “1 3/8 yd”"}),
]
#: One or the other, as the entry ``yardage`` before it says.
LengthOrYardageIn = Annotated[float, BeforeValidator(_length_or_yardage), WithJsonSchema({**_TYPED})]
NumberIn = Annotated[
    float, BeforeValidator(_number), WithJsonSchema({**_TYPED, "description": "a number, or as typed: “3,5”"})
]
#: What is left between seam and cut line, or turned in: more is another measure in another unit.
AllowanceIn = _typed("an allowance", 0.0, 200.0)
#: A cloth from selvage to selvage.
WidthIn = _typed("a cloth’s width", 2.0, 30_000.0, usual=(500.0, 3300.0))
#: A length of cloth, in hand or to be bought.
ClothLengthIn = _typed("a length of cloth", 100.0, 100_000.0, unit=YARDAGE, usual=(100.0, 30_000.0))
#: A length printed on an envelope: a plain number is in yards or metres, as charts have it.
ChartLengthIn = _typed("a length on a chart", 100.0, 30_000.0, unit={"metric": "m", "imperial": "yd"})
#: Cloth by the yard: a plain number is yards to whoever works in inches, and what is usual at home is not asked back.
YardageIn = _typed("a length of cloth", 0.0, 100_000.0, unit=YARDAGE, usual=(0.0, 30_000.0))
#: What cloth weighs, g/m², and what a load weighs, kg.
ClothWeightIn = Annotated[
    float,
    BeforeValidator(lambda value: _weight(value, read_cloth_weight)),
    WithJsonSchema({**_TYPED, "description": "g/m² as a number, or as typed: “180”, “5.3 oz”"}),
]
LoadWeightIn = Annotated[
    float,
    BeforeValidator(lambda value: _weight(value, read_load_weight)),
    WithJsonSchema({**_TYPED, "description": "kg as a number, or as typed: “7”, “15 lb”"}),
]
#: A place along or across a piece: left of the tape, or up it, is positive.
SidedIn = Annotated[
    float,
    BeforeValidator(_sided),
    WithJsonSchema(
        {
            "anyOf": [{"type": "string", "maxLength": 60}, {"type": "number"}],
            "description": "millimetres, right of the tape negative; or as typed: “12 cm”, “4 1/2 right”, “-12”",
        }
    ),
]
#: The body measures a size is drafted for, and the widths a row of a chart is printed for.
BodyRangeIn = _ranged("a body’s measure", 100.0, 3000.0)
WidthRangeIn = _ranged("a cloth’s width", 100.0, 5000.0)
#: A body's measure, or a finished garment's.
BodyIn = _typed("a body’s measure", 100.0, 3000.0)
Text = Annotated[str, BeforeValidator(_name), WithJsonSchema({"type": "string", "maxLength": 120})]
Name = Annotated[str, BeforeValidator(_needed), WithJsonSchema({"type": "string", "minLength": 1, "maxLength": 120})]

#: A number by which something is known: no row has a larger one, and SQLite could not hold it.
Number = Annotated[int, Field(ge=1, le=2**31, strict=True)]
#: Yes or no, one of a list, a colour: short texts that are no names.
Key = Annotated[str, Field(max_length=40)]
