"""What a person types, as pydantic types: lengths with units and fractions, and plain numbers.

A number in JSON is millimetres; a text is what was typed, in the units the person has chosen.
"""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import BeforeValidator, Field, WithJsonSchema

from ...core.units import LONGEST_MM, read_length, read_number
from .person import current_system

#: The largest plain number that is taken.
MOST = 1e6


def _length(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise ValueError("Give a length, such as 126 cm or 49 1/2 in.")
    if isinstance(value, str):
        return read_length(value, current_system.get())
    # compared before it is made a float: a whole number may be too large for one
    if not 0 <= value <= LONGEST_MM:
        raise ValueError("A length must be from 0 to a kilometre, in millimetres.")
    return float(value)


def _number(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise ValueError("Give a number, such as 3.5.")
    number = read_number(value) if isinstance(value, str) else value
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


_TYPED = {"anyOf": [{"type": "string", "maxLength": 60}, {"type": "number", "minimum": 0}]}

LengthIn = Annotated[
    float,
    BeforeValidator(_length),
    WithJsonSchema({**_TYPED, "description": "millimetres as a number, or as typed: “126 cm”, “1 3/8 yd”"}),
]
NumberIn = Annotated[
    float, BeforeValidator(_number), WithJsonSchema({**_TYPED, "description": "a number, or as typed: “3,5”"})
]
Text = Annotated[str, BeforeValidator(_name), WithJsonSchema({"type": "string", "maxLength": 120})]
Name = Annotated[str, BeforeValidator(_needed), WithJsonSchema({"type": "string", "minLength": 1, "maxLength": 120})]

#: A number by which something is known: no row has a larger one, and SQLite could not hold it.
Number = Annotated[int, Field(ge=1, le=2**31, strict=True)]
#: Yes or no, one of a list, a colour: short texts that are no names.
Key = Annotated[str, Field(max_length=40)]
