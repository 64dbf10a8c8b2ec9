"""What every route needs: the database, the workers, and the devices; made once with the application."""

from __future__ import annotations

import secrets
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager
from dataclasses import dataclass, field
from typing import Protocol, runtime_checkable

from flask import Response, current_app, make_response
from flask_openapi3 import OpenAPI
from pydantic import BaseModel
from sqlalchemy.orm import Session

from ..formats.reading import take_in
from ..jobs.pool import Workers
from ..operations.taking_in import Reader
from ..standins.shop import PriceList, StandInShop
from ..standins.tape import Tape
from ..standins.washer import Appliance, StandInWasher
from ..store.database import Database
from .asking import Asking
from .door import Door
from .shared.person import asked


@dataclass
class Services:
    """What the routes work with. Devices are the stand-ins, unless an adapter of a real one is put in their place."""

    database: Database
    pool: Workers | None = None
    tape: Tape = field(default_factory=Tape)
    washer: Appliance = field(default_factory=StandInWasher)
    shop: PriceList = field(default_factory=StandInShop)
    #: for other devices on the home's network; shut unless it was asked for
    door: Door = field(default_factory=Door)
    #: whoever reads files of pieces: here and now, unless it is given another
    read: Reader = take_in
    #: by which our own pages are known
    word: str = field(default_factory=lambda: secrets.token_urlsafe(24))
    #: puts a garment to look at into the data, and gives its number; none where the demo does not ship
    example: Callable[[Database], int] | None = None


class Application(OpenAPI):
    """The application, with what its routes work with."""

    services: Services
    request_class = Asking


def services() -> Services:
    """Those of the application that answers."""
    assert isinstance(current_app, Application)
    return current_app.services


def begin() -> AbstractContextManager[Session]:
    """A session for one change; it commits before the answer is sent."""
    return services().database.begin(asked())


@contextmanager
def look() -> Iterator[Session]:
    """A session for reading."""
    with services().database.look() as session:
        yield session


def submit(job_id: int | None) -> None:
    """Hand work to the pool, once it is confirmed in the database."""
    pool = services().pool
    if job_id is not None and pool is not None:
        pool.submit(job_id)


@runtime_checkable
class Writes(Protocol):
    """A model that knows a shorter way to its JSON."""

    @property
    def written(self) -> str: ...


def send(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON."""
    answer = make_response(model.written if isinstance(model, Writes) else model.model_dump_json(), status)
    answer.headers["Content-Type"] = "application/json"
    return answer
