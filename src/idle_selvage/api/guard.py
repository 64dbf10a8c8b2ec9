"""Who may ask, and what every answer carries."""

from __future__ import annotations

import json
from urllib.parse import urlsplit

from flask import Response, request

from ..operations.undo import deeds
from ..store.settings import settings_and_news
from .errors import error
from .log.show import undo_out
from .pages import policy
from .services import look
from .shared.person import (
    HOUSE,
    INSIST,
    LIST,
    NEWS,
    READ_WITH,
    SEEN,
    UNDO,
    WINDOW,
    asked,
    asks,
    currency,
    current_system,
    insisted,
    news,
    read_with,
)

#: The names by which this machine reaches the server; Flask turns away whoever asks for another one.
HOSTS = ["127.0.0.1", "localhost"]


def before() -> Response | None:
    """Only this machine's own pages may ask: a foreign site in the same browser may not."""
    origin = request.headers.get("Origin")
    if origin and request.method not in ("GET", "HEAD") and urlsplit(origin).netloc != request.host:
        return error("wrong_origin", "Another site asked for a change here; it was refused.", 403)
    if request.path.startswith("/api/"):
        asks(request.headers.get(WINDOW), request.headers.get(SEEN))
        with look() as session:
            # before the answer is made: it shows at least so much
            row, newest = settings_and_news(session, asked().window)
            chosen = row.system
            currency.set(row.currency)
            news.set(newest)
        current_system.set("imperial" if chosen == "imperial" else "metric")
        read_with(request.headers.get(READ_WITH))
        insisted.set(request.headers.get(INSIST) == "1")
    return None


def after(response: Response) -> Response:
    """No script but our own, no guessing of types, no keeping of answers."""
    response.headers.setdefault("Content-Security-Policy", policy())
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "no-referrer"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    if request.path.startswith("/api/"):
        response.headers["Cache-Control"] = "no-store"
        response.headers[NEWS] = str(news.get())
        of = request.headers.get(LIST, "")
        if request.method not in ("GET", "HEAD") and response.status_code < 400 and (of == HOUSE or _whole(of)):
            with look() as session:
                told = undo_out(deeds(session, None if of == HOUSE else int(of)))
            # a header holds no letter beyond ASCII
            response.headers[UNDO] = json.dumps(told.model_dump(mode="json"))
    return response


def _whole(text: str) -> bool:
    """Whether it is the number of something."""
    return text.isascii() and text.isdigit() and len(text) < 10
