"""An archive as a file: a zip of one JSON document by the published schema, its pictures, and drawings to look at.

``archive.json`` is what counts; photos lie under ``photos/``, and each garment's pieces as SVG under ``pieces/``, for
whoever opens the archive without this program.
"""

from __future__ import annotations

import io
import json
import re
import zipfile
import zlib
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from .audit import Unreadable

DOCUMENT = "archive.json"
SCHEMA = "archive.schema.json"
#: Unpacked an archive is at most so large, and its document.
MAX_UNPACKED = 200_000_000
MAX_DOCUMENT = 60_000_000
#: Its document holds at most so many values, and so many lists and objects: each takes far more memory than letters.
MAX_VALUES, MAX_LISTS = 3_000_000, 800_000
MAX_FILES = 5000
MAX_PHOTO = 20_000_000
_PHOTO = re.compile(r"photos/[a-z_]{1,20}-\d{1,12}\.jpg")


class BadArchive(Unreadable):
    """A file that is no archive that can be read; the message is a sentence."""


@dataclass(frozen=True)
class ArchiveRead:
    """The document of an archive, and its photos by the names the document calls them by."""

    document: dict[str, Any]
    photos: Mapping[str, bytes]


def write_archive(
    document: Mapping[str, Any], schema: str, photos: Mapping[str, bytes], drawings: Mapping[str, str]
) -> bytes:
    """The archive; ``drawings`` by their names under ``pieces/``."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr(DOCUMENT, json.dumps(document, indent=1, ensure_ascii=False, allow_nan=False))
        file.writestr(SCHEMA, schema)
        for name, photo in photos.items():
            # pictures are packed already
            file.writestr(name, photo, zipfile.ZIP_STORED)
        for name, text in drawings.items():
            file.writestr(f"pieces/{name}", text)
    return out.getvalue()


def read_archive(data: bytes) -> ArchiveRead:
    """What is in an archive. Raises :class:`BadArchive`."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as file:
            infos = file.infolist()
            if len(infos) > MAX_FILES or sum(info.file_size for info in infos) > MAX_UNPACKED:
                raise BadArchive("This archive unpacks to more than any home holds.")
            if DOCUMENT not in file.namelist():
                raise BadArchive(f"There is no “{DOCUMENT}” in this file, so it is no archive of garments and cloths.")
            document = _document(_bytes(file, DOCUMENT, MAX_DOCUMENT))
            photos: dict[str, bytes] = {}
            left = MAX_UNPACKED
            for info in infos:
                if _PHOTO.fullmatch(info.filename):
                    photos[info.filename] = _bytes(file, info.filename, min(MAX_PHOTO, left))
                    left -= len(photos[info.filename])
    except (zipfile.BadZipFile, zlib.error, EOFError, OSError, ValueError, NotImplementedError, RuntimeError) as fault:
        if isinstance(fault, BadArchive):
            raise
        raise BadArchive("This is not an archive, or it breaks off: it could not be unpacked.") from None
    return ArchiveRead(document, photos)


def _bytes(file: zipfile.ZipFile, name: str, most: int) -> bytes:
    with file.open(name) as part:
        # what its own table says of its size is only what it says
        found = part.read(most + 1)
    if len(found) > most:
        raise BadArchive(f"“{name}” in this archive is larger than {most // 1_000_000} MB.")
    return found


def _document(data: bytes) -> dict[str, Any]:
    if data.count(b",") > MAX_VALUES or data.count(b"[") + data.count(b"{") > MAX_LISTS:
        raise BadArchive(f"“{DOCUMENT}” in this archive holds more than any home does.")
    try:
        found = json.loads(data, parse_constant=_no_number)
    except ValueError as fault:
        if isinstance(fault, BadArchive):
            raise
        raise BadArchive(f"“{DOCUMENT}” in this archive is no JSON: {str(fault)[:80]}.") from None
    except RecursionError:
        raise BadArchive(f"“{DOCUMENT}” in this archive is nested too deeply.") from None
    if not isinstance(found, dict):
        raise BadArchive(f"“{DOCUMENT}” in this archive holds no object.")
    return found


def _no_number(name: str) -> float:
    raise BadArchive(f"“{DOCUMENT}” in this archive holds {name}, which is no number.")
