"""What a request brings is bounded once, for every address, with a sentence."""

from __future__ import annotations

import pytest

from idle_selvage.api.asking import bounded
from idle_selvage.operations.refused import Refused

from ..conftest import Person


@pytest.mark.parametrize(
    ("data", "told"),
    [
        (b"", "JSON"),
        (b"{", "JSON"),
        (b'"{}"', "entries with their names"),
        (b"7", "entries with their names"),
        (b'{"a":' + b"[" * 24 + b"]" * 24 + b"}", "nested deeper"),
        (b"[" * 5000 + b"]" * 5000, "nested deeper"),
        (b'{"a":"\\ud83e"}', "half a letter"),
        (b'{"a":"\xff"}', "half a letter"),
        (b'{"a":NaN}', "JSON"),
        (b'{"a":1e999}', "too large"),
        (b'{"a":' + b"9007199254740993" + b"}", "too large"),
        (b'{"a":-' + b"9" * 5000 + b"}", "too large"),
        (b"[" + b"0," * 100_000 + b"0]", "values"),
    ],
)
def test_beyond_the_bounds_is_refused(data: bytes, told: str) -> None:
    with pytest.raises(Refused, match=told) as fault:
        bounded(data)
    assert fault.value.message.endswith(".")


def test_within_the_bounds_is_as_it_was_sent() -> None:
    sent = b'{"a":[1,2.5,-3,true,null,"' + "½ 🧵".encode() + b'",9007199254740992,1e-300]}'
    assert bounded(sent) == {"a": [1, 2.5, -3, True, None, "½ 🧵", 2**53, 1e-300]}
    nested = b"[" * 23 + b"]" * 23
    assert bounded(nested)


def test_every_address_reads_through_it(person: Person) -> None:
    for data in (b'{"name":"\\ud83e"}', b"[" * 3000 + b"]" * 3000, b'{"name":' + b"9" * 5000 + b"}"):
        answer = person.client.post(
            "/api/projects", data=data, content_type="application/json", base_url="http://127.0.0.1"
        )
        assert answer.status_code == 422 and answer.get_json()["message"].endswith(".")
    assert person.ask("GET", "/projects")["projects"] == []
