"""The built front end; every page address gives the one page."""

from __future__ import annotations

import secrets
from functools import cache
from pathlib import Path

from flask import Response, make_response, send_from_directory
from flask_openapi3 import OpenAPI
from werkzeug.routing import PathConverter

from .errors import error
from .services import services

#: Where the page has the word by which its own styles are known, and the one by which it is.
NONCE, WORD = "__NONCE__", "__WORD__"
WEB = Path(__file__).parent.parent / "web_dist"


def policy(nonce: str = "") -> str:
    """What a page may load: what is ours, and styles it makes itself if they carry the word of this answer."""
    styles = f"'self' 'nonce-{nonce}'" if nonce else "'self'"
    return (
        f"default-src 'self'; style-src {styles}; img-src 'self' data:; font-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    )


@cache
def _files() -> frozenset[str]:
    """The files beside the page that are served by their own names."""
    return (
        frozenset(one.name for one in WEB.iterdir() if one.is_file()) - {"index.html"} if WEB.is_dir() else frozenset()
    )


class PagePath(PathConverter):
    """Any address but one of the API: there a method that is not known is refused as such, and not answered with a
    page."""

    regex = "(?!api(?:/|$))[^/].*?"


def register(app: OpenAPI) -> None:
    """Serve the pages."""
    app.url_map.converters["page"] = PagePath

    @app.route("/assets/<path:name>")
    def asset(name: str) -> Response:
        answer = send_from_directory(WEB / "assets", name)
        answer.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return answer

    @app.route("/", defaults={"name": ""})
    @app.route("/<page:name>")
    def page(name: str) -> Response:
        if name in _files():
            return send_from_directory(WEB, name)
        if not (WEB / "index.html").is_file():
            return error("not_built", "The pages are not built yet. Run “make setup”.", 503)
        nonce = secrets.token_urlsafe(16)
        answer = make_response(
            (WEB / "index.html").read_text("utf-8").replace(NONCE, nonce).replace(WORD, services().word)
        )
        answer.headers["Content-Security-Policy"] = policy(nonce)
        answer.headers["Cache-Control"] = "no-cache"
        return answer
