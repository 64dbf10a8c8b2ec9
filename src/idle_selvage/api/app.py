"""The application factory."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from flask_openapi3 import Info

from .. import __version__
from ..formats.reading import take_in
from ..jobs.pool import Workers
from ..operations.taking_in import Reader
from ..store.database import Database
from ..store.page_word import page_word
from . import errors, guard, pages, routes
from .door import Door
from .services import Application, Services
from .shared.schemas import ErrorOut

#: Room for the largest file of pieces in base64.
MAX_BODY = 28_000_000


def create_app(
    home: Path,
    pool: Workers | None = None,
    *,
    database: Database | None = None,
    example: Callable[[Database], int] | None = None,
    described: bool = False,
    door: Door | None = None,
    read: Reader = take_in,
) -> Application:
    """The application on a home folder. Without a ``pool``, jobs stay waiting; ``example`` puts in a garment to look
    at; ``described``: with the document of its addresses; ``door``: open for other devices; ``read``: whoever reads
    files of pieces."""
    app = Application(
        __name__,
        info=Info(title="Idle Selvage", version=__version__),
        security_schemes={},
        doc_ui=False,
        static_folder=None,
        validation_error_status=422,
        validation_error_model=ErrorOut,
        validation_error_callback=errors.bad_entry,
        responses={500: ErrorOut},
    )
    if database is None:
        database = Database(home)
        database.migrate()
    app.services = Services(
        database, pool, example=example, door=door or Door(), word=page_word(database.home), read=read
    )
    app.config.update(MAX_CONTENT_LENGTH=MAX_BODY, TRUSTED_HOSTS=[*guard.HOSTS, *guard.hosts_of(app.services.door)])
    app.register_api(routes.addresses(described))
    app.before_request(guard.before)
    app.after_request(guard.after)
    errors.register(app)
    pages.register(app)
    return app
