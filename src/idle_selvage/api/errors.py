"""Every error in one shape, with a sentence a dressmaker understands."""

from __future__ import annotations

import logging
from collections.abc import Sequence
from typing import Any

from flask import Response
from flask_openapi3 import OpenAPI
from pydantic import ValidationError
from sqlalchemy.exc import DatabaseError, OperationalError
from werkzeug.exceptions import HTTPException, SecurityError

from ..core.lay.problem import BadProblem
from ..core.wording import capital, say
from ..operations.both import told as both_told
from ..operations.events import ENTRIES
from ..operations.refused import Refused
from ..store.data_file import Trouble, trouble
from ..store.errors import NotFound
from ..store.journal import ChangedElsewhere
from ..store.turns import Busy
from .services import send
from .shared.entries import Asked
from .shared.person import system
from .shared.schemas import Both, ErrorOut, FieldFault

log = logging.getLogger(__name__)


def error(code: str, message: str, status: int, fields: list[FieldFault] | None = None) -> Response:
    """An error as it is sent."""
    return send(ErrorOut(code=code, message=message, fields=fields or []), status)


_SENTENCES = {
    "missing": "This is needed.",
    "extra_forbidden": "This entry is not known here.",
    "bool_type": "{name} must be yes or no.",
    "bool_parsing": "{name} must be yes or no.",
    "int_type": "{name} must be a whole number.",
    "string_type": "{name} must be a text.",
    "list_type": "{name} must be a list.",
    "json_invalid": "The request is not JSON.",
    "model_type": "The request must be entries with their names, in JSON.",
}


def sentence(fault: Any) -> str:
    """One pydantic fault as a sentence a dressmaker understands."""
    kind, context = fault["type"], fault.get("ctx") or {}
    name = _named(fault["loc"])
    if kind == "value_error":
        return str(context.get("error", fault["msg"]))
    if kind == "literal_error":
        return f"{name} must be one of {context.get('expected')}."
    if kind in ("greater_than_equal", "less_than_equal"):
        end = "from" if kind.startswith("g") else "up to"
        number = "a whole number" if isinstance(fault["input"], int) else "a number"
        return f"{name} must be {number} {end} {context.get('ge', context.get('le'))}."
    if kind == "too_short":
        return f"At least {context.get('min_length')} are needed here."
    if kind in ("too_long", "string_too_long"):
        return f"At most {context.get('max_length')} are possible here."
    return _SENTENCES.get(kind, "{name} could not be read.").format(name=name)


def _named(loc: Sequence[Any]) -> str:
    """What an entry is called at the head of a sentence."""
    word = next((part for part in reversed(loc) if isinstance(part, str) and not part.startswith("function-")), "")
    name = ENTRIES.get(word, word.replace("_", " "))
    return capital(name) if name else "This"


def bad_entry(fault: ValidationError) -> Response:
    """What was asked does not have the shape it must have."""
    fields: list[FieldFault] = []
    for one in fault.errors():
        path = ".".join(str(part) for part in one["loc"] if not str(part).startswith("function-"))
        if not any(f.path == path for f in fields):
            fields.append(FieldFault(path=path, message=sentence(one)))
    first = fields[0].message if fields else "Something in this entry could not be read."
    asked = fields and all(isinstance((one.get("ctx") or {}).get("error"), Asked) for one in fault.errors())
    return error("asked" if asked else "bad_entry", first, 422, fields)


_HTTP = {
    404: "There is nothing at this address.",
    405: "That cannot be done at this address.",
    413: "That is too large to be taken in.",
    400: "The request could not be read.",
    415: "The request must be JSON.",
}


#: What is told when the data file cannot be read or written.
_BUSY = "The data file could not be written just now. Nothing was lost; try again."
_DISK: dict[Trouble, str] = {
    "full": "There is no room left on the disk, so this was not kept. What you typed is still here: make room, then "
    "try again.",
    "readonly": "The data folder cannot be written, so this was not kept. What you typed is still here: allow writing, "
    "then try again.",
    "held": "Another program holds the data file just now, so this was not kept. What you typed is still here; try "
    "again in a moment.",
    "disk": "The disk could not be read or written, so this was not kept. What you typed is still here; try again.",
}
_DAMAGED = (
    "The data file is damaged, so this was not kept. Stop the server, and run “idle-selvage doctor”: it tells which "
    "copies there are."
)


def register(app: OpenAPI) -> None:
    """Answer every error an operation, the store or the framework raises."""

    @app.errorhandler(Refused)
    def refused(fault: Refused) -> Response:
        fields = [FieldFault(path=fault.path, message=fault.message)] if fault.path else []
        return error(fault.code, fault.message, 409 if fault.code == "changed_since" else 422, fields)

    @app.errorhandler(ChangedElsewhere)
    def changed_elsewhere(fault: ChangedElsewhere) -> Response:
        both = [
            Both(path=one.path, name=one.name, theirs=say(one.theirs, system()), mine=say(one.mine, system()))
            for one in both_told(fault)
        ]
        names = ", ".join(dict.fromkeys(one.name for one in both))
        message = f"In another window this was changed since it was shown here: {names}. Nothing was overwritten."
        fields = [FieldFault(path=one.path, message=message) for one in both]
        return send(ErrorOut(code="changed_elsewhere", message=message, fields=fields, both=both), 409)

    @app.errorhandler(NotFound)
    def not_found(fault: NotFound) -> Response:
        return error("not_found", str(fault), 404)

    @app.errorhandler(BadProblem)
    def bad_problem(fault: BadProblem) -> Response:
        told = [say(one, system()) for one in fault.faults]
        return error("cannot_lay", " ".join(told), 422, [FieldFault(path="", message=one) for one in told])

    @app.errorhandler(SecurityError)
    def wrong_host(_fault: SecurityError) -> Response:
        return error("wrong_host", "This address is not served here. Open the page at 127.0.0.1.", 403)

    @app.errorhandler(HTTPException)
    def http(fault: HTTPException) -> Response:
        answer = error(
            fault.name.lower().replace(" ", "_"),
            _HTTP.get(fault.code or 500, fault.description or ""),
            fault.code or 500,
        )
        for key, value in fault.get_headers():
            if key.lower() == "allow":
                answer.headers[key] = value
        return answer

    @app.errorhandler(Busy)
    def waits(_fault: Busy) -> Response:
        return error("busy", _BUSY, 503)

    @app.errorhandler(OperationalError)
    def busy(fault: OperationalError) -> Response:
        log.exception("database", exc_info=fault)
        return error("busy", _DISK.get(trouble(fault.orig), _BUSY), 503)

    @app.errorhandler(DatabaseError)
    def damaged(fault: DatabaseError) -> Response:
        log.exception("database", exc_info=fault)
        if trouble(fault.orig) != "damaged":
            return unforeseen(fault)
        return error("damaged", _DAMAGED, 503)

    @app.errorhandler(Exception)
    def unforeseen(fault: Exception) -> Response:
        log.exception("fault", exc_info=fault)
        return error("fault", "Something went wrong in the program, and nothing was changed. It is in the log.", 500)
