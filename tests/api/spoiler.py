"""Valid requests with one place of them spoilt, the same ones for a seed."""

from __future__ import annotations

import copy
import random
from collections.abc import Iterator
from typing import Any

#: What is put in a place: each was once, somewhere, more than a program expected.
WORST: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 2**31, 2**53, 2**63, 2**64, 10**400, 0.0, -0.0, 1e-300, 5e-324, -1e-9, 1e300, -1e300,
    "", " ", "\t\n", "0", "-1", "1e400", "1e-300", "NaN", "∞", "½", "1/0", "1/3 in", "9" * 70, "1 " * 200, "x" * 5000,
    "\x00", "\u202e", "é" * 61, "'; DROP TABLE cloth; --", "<script>alert(1)</script>", "=1+1", "../../x", "a\r\nb: c",
    "🧵" * 60, [], {}, [[]], [None], [{}], {"": ""}, [0] * 500, ["x"] * 500, [[0, 0]] * 300, {"x": 1},
)  # fmt: skip
#: Bodies that are no JSON of ours at all.
RAW: tuple[bytes, ...] = (
    b"", b"null", b"1", b'"x"', b"[]", b"{", b"\xff\xfe", b"\xef\xbb\xbf{}", b"[" * 2000 + b"]" * 2000,
    b'{"name":' + b"[" * 100 + b"]" * 100 + b"}", b'{"name":"\\ud800"}', b'{"name":NaN}', b'{"name":1e999}',
    b'{"name":' + b"9" * 6000 + b"}", b'{"name":1,"name":2}', b'"{\\"name\\":1}"', b"[" + b"0," * 150_000 + b"0]",
)  # fmt: skip


def places(body: Any, at: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """Every place of a body, the inner ones too."""
    if at:
        yield at
    inside = body.items() if isinstance(body, dict) else enumerate(body) if isinstance(body, list) else ()
    for key, value in inside:
        yield from places(value, (*at, key))


def spoilt(body: Any, chance: random.Random) -> Any:
    """A body with one place spoilt: another value there, a name nobody knows, or the place left out or doubled."""
    found = copy.deepcopy(body)
    there = list(places(found))
    if not there or chance.random() < 0.05:
        return {**found, chance.choice(("x", "id", "__class__", "")): chance.choice(WORST)}
    at = chance.choice(there)
    inside = found
    for key in at[:-1]:
        inside = inside[key]
    how = chance.random()
    if how < 0.08:
        del inside[at[-1]]
    elif how < 0.12 and isinstance(inside, list):
        inside.extend([inside[at[-1]]] * chance.choice((1, 300)))
    else:
        inside[at[-1]] = chance.choice(WORST)
    return found


def spoilt_address(address: str, chance: random.Random) -> str:
    """An address with one number or what is asked spoilt."""
    path, _, query = address.partition("?")
    parts = path.split("/")
    numbers = [i for i, part in enumerate(parts) if part.isdigit()]
    if numbers and chance.random() < 0.7:
        parts[chance.choice(numbers)] = chance.choice(("0", "-1", "999", "9" * 30, "1.5", "x", "%00", "1" + "%20" * 9))
        return "/".join(parts) + (f"?{query}" if query else "")
    name = query.partition("=")[0] or chance.choice(("use", "x", "minutes", "since", "before"))
    values = ("", "0", "-1", "9" * 400, "1e400", "nan", "%ff%fe", "%00", "x" * 3000, "%F0%9F%A7%B5", "2100-02-30")
    return f"{path}?{name}={chance.choice(values)}"
