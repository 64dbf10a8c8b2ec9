"""The whole surface: the document, who may ask, the one error shape, and that nothing gives a 500."""

from __future__ import annotations

import os
import re
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from idle_selvage.store.data_file import HEAD
from idle_selvage.store.database import Database, alembic_config
from idle_selvage.store.models.base import Base

from ..conftest import Person
from .surface import BODIES, DOCUMENT, OPERATIONS, filled, prepared


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS, ids=[o["operationId"] for _, _, o in OPERATIONS])
def test_every_operation_answers_as_the_document_says(
    laid: Person, method: str, path: str, operation: dict[str, Any]
) -> None:
    import jsonschema_rs

    address, body = prepared(laid, path, operation)
    answer = laid.client.open(address, method=method.upper(), json=body, base_url="http://127.0.0.1")
    if operation["operationId"] in (
        "deleteProject",
        "deletePiece",
        "deleteCloth",
        "deletePhoto",
        "deleteWash",
        "deleteOffer",
        "deleteUse",
    ):
        laid.client.post(f"{address.partition('?')[0]}/restore", base_url="http://127.0.0.1")
    if operation["operationId"] == "deleteSeam":
        laid.ask("POST", "/undo?project=1")
    if operation["operationId"] in ("undo", "undoChange"):
        laid.ask("POST", "/redo?project=1")
    if operation["operationId"] == "deleteItem":
        laid.ask("POST", "/projects/1/list", kind="zip", name="Zip, 18 cm")
    promised = operation["responses"]
    assert str(answer.status_code) in promised and answer.status_code < 300, answer.get_data(as_text=True)
    content = promised[str(answer.status_code)]["content"]
    assert answer.mimetype in content
    if answer.mimetype == "application/json":
        schema = {**content["application/json"]["schema"], "components": DOCUMENT["components"]}
        jsonschema_rs.validator_for(schema).validate(answer.get_json())


def test_every_operation_is_named_and_can_be_refused() -> None:
    names = [o["operationId"] for _, _, o in OPERATIONS]
    assert len(set(names)) == len(names) > 25
    for _, _, operation in OPERATIONS:
        assert operation["summary"].endswith(".")
        refusal = operation["responses"]["422"]["content"]["application/json"]["schema"]
        assert refusal == {"$ref": "#/components/schemas/ErrorOut"}


@pytest.mark.parametrize("path", DOCUMENT["paths"])
def test_an_address_can_be_asked_what_the_document_says_and_nothing_else(person: Person, path: str) -> None:
    documented = {method.upper() for method in DOCUMENT["paths"][path]}
    # to ask for the head of what can be fetched, and what can be asked at all, goes without saying
    implied = {"OPTIONS"} | ({"HEAD"} if "GET" in documented else set())
    for method in ("GET", "POST", "PUT", "PATCH", "DELETE"):
        if method in documented:
            continue
        address = re.sub(r"\{\w+\}", "1", filled(path))
        answer = person.client.open(address, method=method, base_url="http://127.0.0.1")
        assert answer.status_code == 405 and answer.get_json()["code"] == "method_not_allowed"
        assert {word.strip() for word in answer.headers["Allow"].split(",")} == documented | implied


@pytest.mark.parametrize("method", ["GET", "POST", "PATCH", "DELETE"])
@pytest.mark.parametrize("path", ["/api", "/api/", "/api/nothing", "/api/projects/1/nothing", "/api/../api/nothing"])
def test_there_is_nothing_at_an_address_that_is_not_in_it(person: Person, method: str, path: str) -> None:
    answer = person.client.open(path, method=method, base_url="http://127.0.0.1")
    assert answer.status_code == 404 and answer.get_json()["message"] == "There is nothing at this address."


schema = schemathesis.openapi.from_dict(DOCUMENT)
#: So many calls of each operation; ``make trust`` asks for many more.
GENERATED = int(os.environ.get("TRUST_GENERATED", "10"))


@schema.parametrize()
@settings(max_examples=GENERATED, suppress_health_check=list(HealthCheck))
def test_no_request_gives_a_fault(case: schemathesis.Case[Any], laid: Person) -> None:
    sent = case.as_transport_kwargs(base_url="http://127.0.0.1")
    answer = laid.client.open(
        case.formatted_path,
        method=case.method,
        base_url="http://127.0.0.1",
        query_string=sent.get("params"),
        json=sent.get("json"),
    )
    assert answer.status_code < 500, answer.get_data(as_text=True)
    if answer.status_code >= 400:
        assert set(answer.get_json()) == {"code", "message", "fields", "both"}


def _entries(schema: dict[str, Any], depth: int = 0) -> list[Any]:
    """Bodies that put a whole number too large for anything in each place where something can be put, one at a time."""
    if "$ref" in schema:
        return _entries(DOCUMENT["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]], depth)
    if "anyOf" in schema:
        return [entry for one in schema["anyOf"] for entry in _entries(one, depth)]
    if "properties" in schema and depth < 4:
        return [{name: entry} for name, one in schema["properties"].items() for entry in _entries(one, depth + 1)]
    if schema.get("type") == "array" and depth < 4:
        return [[entry] for entry in _entries(schema.get("items", {}), depth + 1)] or [[HUGE]]
    return [HUGE, 2**63]


#: Too large for a float, as 2 to the power of 63 is too large for SQLite.
HUGE = 10**400


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS, ids=[o["operationId"] for _, _, o in OPERATIONS])
def test_a_whole_number_too_large_is_refused_wherever_it_stands(
    method: str, path: str, operation: dict[str, Any], laid: Person
) -> None:
    asked: list[tuple[str, Any]] = []
    usual = BODIES.get(operation["operationId"], {})
    if "requestBody" in operation:
        for entry in _entries(operation["requestBody"]["content"]["application/json"]["schema"]):
            asked.append((filled(path), {**usual, **entry}))
    for parameter in operation.get("parameters", []):
        for number in (HUGE, 2**63):
            if parameter["in"] == "path":
                asked.append((filled(path.replace(f"{{{parameter['name']}}}", str(number))), usual or None))
            else:
                asked.append((f"{filled(path)}?{parameter['name']}={number}", None))
    for where, body in asked:
        answer = laid.client.open(where, method=method.upper(), json=body, base_url="http://127.0.0.1")
        assert answer.status_code < 500, (where[:80], str(body)[:200])
        assert answer.status_code < 400 or answer.get_json()["message"], where[:80]


@given(st.sampled_from([(m, p) for m, p, o in OPERATIONS if "requestBody" in o]), st.binary(max_size=60))
@settings(max_examples=30, suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_any_bytes_as_a_body_are_refused_in_words(laid: Person, where: tuple[str, str], body: bytes) -> None:
    path = filled(where[1])
    answer = laid.client.open(
        path, method=where[0].upper(), data=body, content_type="application/json", base_url="http://127.0.0.1"
    )
    assert answer.status_code < 500
    if answer.status_code >= 400:
        assert answer.get_json()["message"]


@pytest.mark.parametrize(
    ("path", "status"),
    [
        ("/api/none", 404),
        ("/api/projects/0", 422),
        ("/api/projects/77", 404),
        ("/api/projects/99999999999999999999", 422),
        ("/api/jobs/77", 404),
        ("/api/projects/abc", 404),
    ],
)
def test_wrong_addresses(person: Person, path: str, status: int) -> None:
    answer = person.client.get(path, base_url="http://127.0.0.1")
    assert answer.status_code == status and answer.get_json()["message"].endswith(".")


def test_a_wrong_method_says_which_are_right(person: Person) -> None:
    answer = person.client.put("/api/health", base_url="http://127.0.0.1")
    assert answer.status_code == 405 and "GET" in answer.headers["Allow"]
    assert answer.get_json()["code"] == "method_not_allowed"


@pytest.mark.parametrize("host", ["http://example.test", "http://10.0.0.7:8077", "http://127.0.0.1.example.test"])
def test_other_hosts_are_turned_away(person: Person, host: str) -> None:
    assert person.client.get("/api/projects", base_url=host).status_code == 403


@pytest.mark.parametrize("host", ["http://127.0.0.1:8077", "http://localhost:9"])
def test_this_machine_is_let_in(person: Person, host: str) -> None:
    assert person.client.get("/api/projects", base_url=host).status_code == 200


def test_other_sites_may_not_change_anything(person: Person) -> None:
    for origin in ("http://evil.test", "http://127.0.0.1:9999", "null"):
        answer = person.client.post(
            "/api/projects", json={"name": "x"}, base_url="http://127.0.0.1:8077", headers={"Origin": origin}
        )
        assert answer.status_code == 403, origin
    answer = person.client.post(
        "/api/projects",
        json={"name": "x"},
        base_url="http://127.0.0.1:8077",
        headers={"Origin": "http://127.0.0.1:8077"},
    )
    assert answer.status_code == 201


def test_pages_carry_their_safety_headers(person: Person) -> None:
    answer = person.client.get("/", base_url="http://127.0.0.1")
    policy = answer.headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy and "script-src" not in policy, "scripts only from here, none inline"
    assert "unsafe-inline" not in policy, "nor styles, but those that carry the word of this very answer"
    word = re.search(r"'nonce-([\w-]{16,})'", policy)
    assert word and word[1] in answer.get_data(as_text=True)
    again = person.client.get("/", base_url="http://127.0.0.1").headers["Content-Security-Policy"]
    assert again != policy, "each answer has its own"
    assert answer.headers["X-Content-Type-Options"] == "nosniff"


def test_too_large_a_body_is_refused(person: Person) -> None:
    answer = person.client.post(
        "/api/projects", data=b"x" * 9_100_000, content_type="application/json", base_url="http://127.0.0.1"
    )
    assert answer.status_code in (413, 422) and answer.get_json()["message"]


def test_files_outside_the_pages_are_not_served(person: Person) -> None:
    for path in ("/assets/../../cli.py", "/assets/%2e%2e/%2e%2e/cli.py", "/..%2fcli.py"):
        assert b"argparse" not in person.client.get(path, base_url="http://127.0.0.1").data


def test_migrations_make_what_the_models_say(tmp_path: Path) -> None:
    base = Database(tmp_path)
    base.migrate()
    with base.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
        assert connection.execute(text("PRAGMA journal_mode")).scalar() == "wal"
        assert connection.execute(text("PRAGMA foreign_keys")).scalar() == 1
    head = ScriptDirectory.from_config(alembic_config(base.path)).get_current_head()
    assert head == HEAD
    base.migrate()
    base.close()
