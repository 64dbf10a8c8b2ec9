"""The application factory: blueprints, errors in one shape, and who may talk to it."""

from __future__ import annotations

import logging
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

from flask import Response, current_app, make_response, request, send_from_directory
from flask_openapi3 import Info, OpenAPI
from pydantic import ValidationError
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import HTTPException

from .. import __version__
from ..core.lay.problem import BadProblem
from ..jobs.pool import Pool
from ..standins.shop import StandInShop
from ..standins.tape import Tape
from ..standins.washer import StandInWasher
from ..store import records
from ..store.database import Database
from . import (
    bench,
    buy,
    cloth,
    envelope,
    lay,
    logbook,
    offers,
    plan,
    shop_list,
    shrink,
    strips,
    tape,
    together,
    true,
    washday,
    will_it_do,
)
from .context import Refused
from .entries import current_system
from .schemas import ErrorOut, FieldFault

#: Room for the largest drawing plus its JSON quoting.
MAX_BODY = 9_000_000
WEB = Path(__file__).parent.parent / "web_dist"
_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
_CSP = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)

log = logging.getLogger(__name__)


def create_app(home: Path, pool: Pool | None = None, *, database: Database | None = None) -> OpenAPI:
    """The application on a home folder. Without a ``pool``, jobs stay waiting."""
    app = OpenAPI(
        __name__,
        info=Info(title="Idle Selvage", version=__version__),
        security_schemes={},
        doc_ui=False,
        static_folder=None,
        validation_error_status=422,
        validation_error_model=ErrorOut,
        validation_error_callback=_bad_entry,
        responses={500: ErrorOut},
    )
    if database is None:
        database = Database(home)
        database.migrate()
    app.config.update(
        DATABASE=database,
        POOL=pool,
        TAPE=Tape(),
        WASHER=StandInWasher(),
        SHOP=StandInShop(),
        MAX_CONTENT_LENGTH=MAX_BODY,
    )
    app.json.sort_keys = False  # type: ignore[attr-defined]
    for module in (
        bench,
        plan,
        cloth,
        shrink,
        washday,
        tape,
        buy,
        offers,
        together,
        will_it_do,
        envelope,
        strips,
        shop_list,
        true,
        lay,
        logbook,
    ):
        app.register_api(module.blueprint)
    app.before_request(_guard)
    app.after_request(_headers)
    _errors(app)
    _pages(app)
    return app


def _error(code: str, message: str, status: int, fields: list[FieldFault] | None = None) -> Response:
    return make_response(ErrorOut(code=code, message=message, fields=fields or []).model_dump(mode="json"), status)


def _guard() -> Response | None:
    """Only this machine's own pages may ask: a foreign site in the same browser may not."""
    host = urlsplit(f"//{request.host}").hostname or ""
    if (f"[{host}]" if ":" in host else host) not in _HOSTS:
        return _error("wrong_host", "This address is not served here. Open the page at 127.0.0.1.", 403)
    origin = request.headers.get("Origin")
    if origin and request.method not in ("GET", "HEAD") and urlsplit(origin).netloc != request.host:
        return _error("wrong_origin", "Another site asked for a change here; it was refused.", 403)
    if request.path.startswith("/api/"):
        with current_app.config["DATABASE"].look() as session:
            chosen = records.settings(session).system
        current_system.set("imperial" if chosen == "imperial" else "metric")
    return None


def _headers(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = _CSP
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "no-referrer"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    if request.path.startswith("/api/"):
        response.headers["Cache-Control"] = "no-store"
    return response


_SENTENCES = {
    "missing": "This is needed.",
    "extra_forbidden": "This entry is not known here.",
    "bool_type": "This must be yes or no.",
    "bool_parsing": "This must be yes or no.",
    "int_type": "This must be a whole number.",
    "string_type": "This must be a text.",
    "list_type": "This must be a list.",
    "json_invalid": "The request is not JSON.",
}


def sentence(fault: Any) -> str:
    """One pydantic fault as a sentence a dressmaker understands."""
    kind, context = fault["type"], fault.get("ctx") or {}
    if kind == "value_error":
        return str(context.get("error", fault["msg"]))
    if kind == "literal_error":
        return f"This must be one of {context.get('expected')}."
    if kind in ("greater_than_equal", "less_than_equal"):
        return (
            f"This must be {'at least' if kind.startswith('g') else 'at most'} {context.get('ge', context.get('le'))}."
        )
    if kind == "too_short":
        return f"At least {context.get('min_length')} are needed here."
    if kind in ("too_long", "string_too_long"):
        return f"At most {context.get('max_length')} are possible here."
    return _SENTENCES.get(kind, "This could not be read.")


def _bad_entry(error: ValidationError) -> Response:
    fields: list[FieldFault] = []
    for fault in error.errors():
        path = ".".join(str(part) for part in fault["loc"] if not str(part).startswith("function-"))
        if not any(f.path == path for f in fields):
            fields.append(FieldFault(path=path, message=sentence(fault)))
    first = fields[0].message if fields else "Something in this entry could not be read."
    return _error("bad_entry", first, 422, fields)


def _errors(app: OpenAPI) -> None:
    @app.errorhandler(Refused)
    def refused(error: Refused) -> Response:
        return _error(error.code, error.message, error.status, error.fields)

    @app.errorhandler(records.NotFound)
    def not_found(error: records.NotFound) -> Response:
        return _error("not_found", str(error), 404)

    @app.errorhandler(BadProblem)
    def bad_problem(error: BadProblem) -> Response:
        return _error("cannot_lay", " ".join(error.faults), 422, [FieldFault(path="", message=f) for f in error.faults])

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        told = {
            404: "There is nothing at this address.",
            405: "That cannot be done at this address.",
            413: "That is too large to be taken in.",
            400: "The request could not be read.",
            415: "The request must be JSON.",
        }
        answer = _error(
            error.name.lower().replace(" ", "_"),
            told.get(error.code or 500, error.description or ""),
            error.code or 500,
        )
        for key, value in error.get_headers():
            if key.lower() == "allow":
                answer.headers[key] = value
        return answer

    @app.errorhandler(OperationalError)
    def busy(error: OperationalError) -> Response:
        log.exception("database", exc_info=error)
        return _error("busy", "The data file could not be written just now. Nothing was lost; try again.", 503)

    @app.errorhandler(Exception)
    def fault(error: Exception) -> Response:
        log.exception("fault", exc_info=error)
        return _error("fault", "Something went wrong in the program, and nothing was changed. It is in the log.", 500)


def _pages(app: OpenAPI) -> None:
    """The built front end; every page address gives the one page."""

    @app.route("/assets/<path:name>")
    def asset(name: str) -> Response:
        answer = send_from_directory(WEB / "assets", name)
        answer.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return answer

    @app.route("/", defaults={"name": ""})
    @app.route("/<path:name>")
    def page(name: str) -> Response:
        if name.startswith("api/"):
            return _error("not_found", "There is nothing at this address.", 404)
        if name and "/" not in name and (WEB / name).is_file():
            return send_from_directory(WEB, name)
        if not (WEB / "index.html").is_file():
            return _error("not_built", "The pages are not built yet. Run “make setup”.", 503)
        answer = send_from_directory(WEB, "index.html")
        answer.headers["Cache-Control"] = "no-cache"
        return answer
