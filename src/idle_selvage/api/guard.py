"""Who may ask, and what every answer carries."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Response, request

from ..store.journal import newest
from ..store.settings import settings
from .errors import error
from .services import look
from .shared.person import (
    INSIST,
    NEWS,
    READ_WITH,
    SEEN,
    WINDOW,
    asked,
    asks,
    currency,
    current_system,
    insisted,
    news,
    read_with,
)

_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
_CSP = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)


def before() -> Response | None:
    """Only this machine's own pages may ask: a foreign site in the same browser may not."""
    host = urlsplit(f"//{request.host}").hostname or ""
    if (f"[{host}]" if ":" in host else host) not in _HOSTS:
        return error("wrong_host", "This address is not served here. Open the page at 127.0.0.1.", 403)
    origin = request.headers.get("Origin")
    if origin and request.method not in ("GET", "HEAD") and urlsplit(origin).netloc != request.host:
        return error("wrong_origin", "Another site asked for a change here; it was refused.", 403)
    if request.path.startswith("/api/"):
        asks(request.headers.get(WINDOW), request.headers.get(SEEN))
        with look() as session:
            row = settings(session)
            chosen = row.system
            currency.set(row.currency)
            # before the answer is made: it shows at least so much
            news.set(newest(session, besides=asked().window))
        current_system.set("imperial" if chosen == "imperial" else "metric")
        read_with(request.headers.get(READ_WITH))
        insisted.set(request.headers.get(INSIST) == "1")
    return None


def after(response: Response) -> Response:
    """No script but our own, no guessing of types, no keeping of answers."""
    response.headers["Content-Security-Policy"] = _CSP
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "no-referrer"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    if request.path.startswith("/api/"):
        response.headers["Cache-Control"] = "no-store"
        response.headers[NEWS] = str(news.get())
    return response
