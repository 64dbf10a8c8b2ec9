"""Archives: everything, a garment or a cloth as one file; and such files taken in."""

from __future__ import annotations

import base64
import binascii

from flask import Response

from ...operations import archive
from ...operations.refused import Refused
from ...store.models import now
from ..services import begin, look, send
from ..shared.files import attachment
from ..shared.schemas import ClothPath, ProjectPath
from . import schemas as out

ZIP = "application/zip"


def whole_archive() -> Response:
    """Everything as one archive: garments, cloths, photos and the log, but nothing that was put away."""
    with look() as session:
        data, name = archive.write(session, now())
        return attachment(data, ZIP, f"{name}.archive.zip")


def garment_archive(path: ProjectPath) -> Response:
    """A garment with the cloths it is cut from, as one archive."""
    with look() as session:
        data, name = archive.write(session, now(), project=path.project_id)
        return attachment(data, ZIP, f"{name}.archive.zip")


def cloth_archive(path: ClothPath) -> Response:
    """A cloth with all that was measured of it, as one archive."""
    with look() as session:
        data, name = archive.write(session, now(), cloth=path.cloth_id)
        return attachment(data, ZIP, f"{name}.archive.zip")


def take_archive_in(body: out.ArchiveIn) -> Response:
    """Take an archive in. A cloth that is here already is asked about."""
    try:
        data = base64.b64decode(body.file, validate=True)
    except (binascii.Error, ValueError):
        raise Refused("This is no file in base64.", path="file") from None
    with begin() as session:
        came = archive.take_in(session, data, cloths=body.cloths, what_can_be=body.what_can_be)
    return send(
        out.ArchiveOut(
            garments=[out.NamedOut(id=number, name=name) for number, name in came.projects],
            cloths=[out.NamedOut(id=number, name=name) for number, name in came.cloths],
            left_out=list(came.left_out),
            settings=came.settings,
        ),
        201,
    )
