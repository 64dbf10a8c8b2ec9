"""Who may ask, and what every answer carries."""

from __future__ import annotations

import json
import secrets
from urllib.parse import urlsplit

from flask import Response, request

from ..operations import pairing
from ..operations.undo import deeds
from ..store.settings import settings_and_news
from .devices.pairing import token_sent
from .door import Door, is_here
from .errors import error
from .log.show import undo_out
from .pages import policy
from .services import look, services
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


#: A page says by it that it is ours, with every change: it was written into the page, where no other site can read it.
PAGE = "X-Page"
#: Methods that change nothing.
LOOKING = ("GET", "HEAD", "OPTIONS")
#: What the browser says of a request that another site's page began.
FOREIGN = ("cross-site", "same-site")

#: What a device that is not paired may ask for: to be paired.
PAIR = "/api/pairing/devices"
#: What only this machine itself may see and do: the code, whose pairing is taken back, going back to a copy.
AT_HOME = ("/api/pairing", "/api/copies", "/api/report")


def hosts_of(door: Door) -> list[str]:
    """The names by which other devices reach the server: its addresses on the home's network, and no other."""
    return [urlsplit(address).hostname or "" for address in door.addresses] if door.open else []


def before() -> Response | None:
    """Only our own pages may ask: a foreign site in the same browser may not. Other machines only where the door is
    open, and only with the token they were given."""
    refused = _from_another_site()
    if refused is not None:
        return refused
    if not is_here(request.remote_addr):
        refused = _from_elsewhere()
        if refused is not None:
            return refused
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


def _from_another_site() -> Response | None:
    """Whether what the page of another site asks is refused, and how. Opening a page of ours by a link is not."""
    origin = request.headers.get("Origin")
    of_api = request.path.startswith("/api/")
    foreign = of_api and request.headers.get("Sec-Fetch-Site") in FOREIGN
    if foreign or (origin is not None and _netloc(origin) != request.host):
        return error("wrong_origin", "Another site asked for something here; it was refused.", 403)
    if request.method in LOOKING:
        return None
    word = request.headers.get(PAGE, "").encode()
    if not secrets.compare_digest(word, services().word.encode()):
        return error("wrong_page", "Only a page of Idle Selvage may change something here. Load the page again.", 403)
    return None


def _netloc(origin: str) -> str | None:
    """The host and port of an origin; nothing where it is no address."""
    try:
        return urlsplit(origin).netloc
    except ValueError:
        return None


def _from_elsewhere() -> Response | None:
    """Whether what another machine asks is refused, and how."""
    door = services().door
    if not door.open:
        return error("not_here", "Only this machine itself may ask.", 403)
    if not request.path.startswith("/api/") or (request.path == PAIR and request.method == "POST"):
        return None
    with look() as session:
        device = pairing.known(session, token_sent())
        number = None if device is None else device.id
    if number is None:
        return error("not_paired", "This device is not paired yet: type the code of the first screen.", 401)
    door.saw(number)
    if request.path.startswith(AT_HOME):
        return error("at_home", "That is done on the machine itself.", 403)
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
