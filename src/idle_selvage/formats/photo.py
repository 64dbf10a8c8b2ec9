"""Photos of cloth: read with care, made smaller, and freed of what the camera wrote into them."""

from __future__ import annotations

import io
import struct
from typing import TYPE_CHECKING

from .audit import Found, Mended, Unreadable

if TYPE_CHECKING:
    from PIL import Image

MOST_BYTES = 6_000_000
#: A picture with more points than this is not opened: it could fill the memory.
MOST_PIXELS = 60_000_000
LONG_SIDE = 1600
TOO_MANY = "The photo has more points than can be kept; take a smaller one."


class BadPhoto(Unreadable):
    """Bytes that are no picture that can be kept; the message is a sentence."""


def read_photo(data: bytes) -> Found[bytes]:
    """The picture as a JPEG of at most 1600 points on its long side, upright, without metadata.

    Reads JPEG, PNG and WebP. Raises :class:`BadPhoto`.
    """
    # a third of a second to import, and only this needs it
    from PIL import Image, ImageOps, UnidentifiedImageError

    if len(data) > MOST_BYTES:
        raise BadPhoto(f"The photo is larger than {MOST_BYTES // 1_000_000} MB; take a smaller one.")
    try:
        with Image.open(io.BytesIO(data), formats=("JPEG", "PNG", "WEBP")) as picture:
            if picture.width * picture.height > MOST_PIXELS:
                raise BadPhoto(TOO_MANY)
            mended = _mended(picture)
            upright = ImageOps.exif_transpose(picture).convert("RGB")
            upright.thumbnail((LONG_SIDE, LONG_SIDE))
            # a new picture takes the points along and nothing else
            bare = Image.new("RGB", upright.size)
            bare.paste(upright)
            out = io.BytesIO()
            bare.save(out, "JPEG", quality=85)
    except BadPhoto:
        raise
    except Image.DecompressionBombError:
        raise BadPhoto(TOO_MANY) from None
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, TypeError, struct.error, LookupError):
        raise BadPhoto("This is not a photo that can be read; use JPEG, PNG or WebP.") from None
    return Found(out.getvalue(), mended=mended)


def _mended(picture: Image.Image) -> tuple[Mended, ...]:
    """What is done to a picture before it is kept."""
    found = []
    if max(picture.size) > LONG_SIDE:
        found.append(Mended("smaller", "the picture", f"made smaller, to {LONG_SIDE} points on its long side"))
    if picture.getexif():
        found.append(Mended("metadata", "the picture", "what the camera wrote into it is left out"))
    return tuple(found)
