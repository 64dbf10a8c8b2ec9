"""The built front end; every page address gives the one page."""

from __future__ import annotations

from pathlib import Path

from flask import Response, send_from_directory
from flask_openapi3 import OpenAPI

from .errors import error

WEB = Path(__file__).parent.parent / "web_dist"


def register(app: OpenAPI) -> None:
    """Serve the pages."""

    @app.route("/assets/<path:name>")
    def asset(name: str) -> Response:
        answer = send_from_directory(WEB / "assets", name)
        answer.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return answer

    @app.route("/", defaults={"name": ""})
    @app.route("/<path:name>")
    def page(name: str) -> Response:
        if name.startswith("api/"):
            return error("not_found", "There is nothing at this address.", 404)
        if name and "/" not in name and (WEB / name).is_file():
            return send_from_directory(WEB, name)
        if not (WEB / "index.html").is_file():
            return error("not_built", "The pages are not built yet. Run “make setup”.", 503)
        answer = send_from_directory(WEB, "index.html")
        answer.headers["Cache-Control"] = "no-cache"
        return answer
