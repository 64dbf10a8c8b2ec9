"""The JSON Schema of an archive, made from the tables: ``python -m idle_selvage.store.archive_schema`` prints it.

It is published as docs/archive.schema.json; a test holds both together.
"""

from __future__ import annotations

import json
from typing import Any

from sqlalchemy import JSON, Boolean, Column, Float, Integer, LargeBinary, String, Text

from .archive import tables
from .database import HEAD
from .models import Cloth, ClothUse, LogEntry, Piece, Project, Reading, UtcTime

#: What an archive is known by. The name is reserved for what is not on any network (RFC 2606).
ID = "https://idle-selvage.invalid/schemas/archive/1"
FORMAT = "idle-selvage/archive/1"
_TOLD: dict[str, str] = {
    model.__tablename__: (model.__doc__ or "").split("\n\n", 1)[0].replace("\n", " ").strip()
    for model in (Cloth, ClothUse, LogEntry, Piece, Project, Reading)
}
#: A time: ISO 8601, in UTC.
_TIME = {
    "type": "object", "required": ["$time"], "additionalProperties": False,
    "properties": {"$time": {"type": "string", "format": "date-time"}},
}  # fmt: skip
#: What is kept in a file of its own in the archive.
_FILE = {
    "type": "object", "required": ["$file"], "additionalProperties": False,
    "properties": {"$file": {"type": "string", "pattern": "^photos/[a-z_]+-[0-9]+[.]jpg$"}},
}  # fmt: skip


def archive_schema() -> dict[str, Any]:
    """The schema (JSON Schema 2020-12)."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": ID,
        "title": "An archive of Idle Selvage",
        "description": "Garments and cloths with all that was kept of them. Lengths are millimetres, shrinkages per "
        "cent. Rows call one another by their numbers, which are the archive's own.",
        "type": "object",
        "required": ["format", "shape", "what", "tables"],
        "additionalProperties": False,
        "properties": {
            "$schema": {"const": ID},
            "format": {"const": FORMAT},
            "shape": {"type": "string", "pattern": "^[0-9]{4}$", "description": f"of the rows; now {HEAD}"},
            "what": {"enum": ["garment", "cloth", "everything"]},
            "written": {"type": "string", "format": "date-time"},
            "by": {"type": "string"},
            "tables": {
                "type": "object",
                "additionalProperties": False,
                "properties": {table.name: {"type": "array", "items": row_schema(table)} for table in tables()},
            },
        },
    }


def row_schema(table: Any) -> dict[str, Any]:
    """The schema of a row of a table."""
    told = {"description": _TOLD[table.name]} if table.name in _TOLD else {}
    return {
        **told,
        "type": "object",
        "additionalProperties": False,
        "required": sorted(c.name for c in table.columns if not c.nullable),
        "properties": {column.name: _value(column) for column in table.columns},
    }


def _value(column: Column[Any]) -> dict[str, Any]:
    kind = column.type
    if isinstance(kind, UtcTime):
        found: dict[str, Any] = _TIME
    elif isinstance(kind, LargeBinary):
        found = _FILE
    elif isinstance(kind, JSON):
        # small documents, checked when they are read
        found = {"type": ["object", "array"]}
    elif isinstance(kind, Boolean):
        found = {"type": "boolean"}
    elif isinstance(kind, Integer):
        found = {"type": "integer", "minimum": -(2**53), "maximum": 2**53}
    elif isinstance(kind, Float):
        found = {"type": "number", "minimum": -1e12, "maximum": 1e12}
    elif isinstance(kind, String | Text):
        found = {"type": "string", **({"maxLength": kind.length} if kind.length else {})}
    else:
        found = {}
    return {"anyOf": [found, {"type": "null"}]} if column.nullable and found else found


def text() -> str:
    """The schema as it is published."""
    return json.dumps(archive_schema(), indent=1, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    print(text(), end="")
