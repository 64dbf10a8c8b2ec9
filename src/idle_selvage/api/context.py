"""What every route needs: the database, the workers, and the units of the person asking."""

from __future__ import annotations

from contextlib import AbstractContextManager
from typing import Any, cast

from flask import Response, current_app, make_response
from pydantic import BaseModel
from sqlalchemy.orm import Session

from ..core.units import System
from ..jobs.pool import Pool
from ..standins.washer import Appliance
from ..store.database import Database
from .entries import current_system
from .schemas import FieldFault


class Refused(Exception):
    """A request that cannot be done, with the sentence that says why. Becomes the error shape."""

    def __init__(self, message: str, *, status: int = 422, code: str = "bad_entry", path: str = "") -> None:
        super().__init__(message)
        self.message, self.status, self.code = message, status, code
        self.fields = [FieldFault(path=path, message=message)] if path else []


def database() -> Database:
    return cast(Database, current_app.config["DATABASE"])


def pool() -> Pool | None:
    return cast("Pool | None", current_app.config["POOL"])


def washer() -> Appliance:
    """The washer: the stand-in, unless an adapter of a real one was put in its place."""
    return cast(Appliance, current_app.config["WASHER"])


def begin() -> AbstractContextManager[Session]:
    """A session for one change; it commits before the answer is sent."""
    return database().begin()


def look() -> AbstractContextManager[Session]:
    """A session for reading."""
    return database().look()


def system() -> System:
    return current_system.get()


def send(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON."""
    body: Any = model.model_dump(mode="json")
    return make_response(body, status)
