"""Photos of cloth: read with care, made smaller, and freed of what the camera wrote into them."""

from __future__ import annotations

import io
from typing import TYPE_CHECKING, Any

from .audit import Found, Mended, Unreadable

if TYPE_CHECKING:
    from PIL import Image

MOST_BYTES = 6_000_000
#: A JPEG can be read at half or a quarter of its size; a PNG or WebP is opened whole. With more points than this a
#: picture is not opened: it could fill the memory.
MOST_POINTS = {"JPEG": 60_000_000, "PNG": 24_000_000, "WEBP": 24_000_000}
LONG_SIDE = 1600
TOO_MANY = "The photo has more points than can be kept; take a smaller one."


class BadPhoto(Unreadable):
    """Bytes that are no picture that can be kept; the message is a sentence."""


def read_photo(data: bytes) -> Found[bytes]:
    """The picture as a JPEG of at most 1600 points on its long side, upright, without metadata.

    Reads JPEG, PNG and WebP. Raises :class:`BadPhoto`.
    """
    # a third of a second to import, and only this needs it
    from PIL import Image

    if len(data) > MOST_BYTES:
        raise BadPhoto(f"The photo is larger than {MOST_BYTES // 1_000_000} MB; take a smaller one.")
    try:
        with Image.open(io.BytesIO(data), formats=("JPEG", "PNG", "WEBP")) as picture:
            if picture.width * picture.height > MOST_POINTS[picture.format or "PNG"]:
                raise BadPhoto(TOO_MANY)
            mended = _mended(picture)
            # read small at once where the format can; what is turned and copied is small then
            picture.draft("RGB", (LONG_SIDE, LONG_SIDE))
            small = picture.convert("RGB")
            small.thumbnail((LONG_SIDE, LONG_SIDE))
            upright = _upright(small, _written(picture))
            # a new picture takes the points along and nothing else
            bare = Image.new("RGB", upright.size)
            bare.paste(upright)
            out = io.BytesIO()
            bare.save(out, "JPEG", quality=85)
    except BadPhoto:
        raise
    except Image.DecompressionBombError:
        raise BadPhoto(TOO_MANY) from None
    # whatever a decoder of another's stumbles over: there is no list of what broken pictures raise
    except Exception:
        raise BadPhoto("This is not a photo that can be read; use JPEG, PNG or WebP.") from None
    return Found(out.getvalue(), mended=mended)


def _written(picture: Image.Image) -> dict[int, Any]:
    """What the camera wrote into a picture; nothing where that cannot be read: the picture can all the same."""
    try:
        return dict(picture.getexif())
    except Exception:
        return {}


def _upright(picture: Image.Image, written: dict[int, Any]) -> Image.Image:
    """The picture as it was held. Only the turn is read of what the camera wrote, and one that is no turn is left."""
    from PIL import ExifTags, Image

    turns = {
        2: Image.Transpose.FLIP_LEFT_RIGHT, 3: Image.Transpose.ROTATE_180, 4: Image.Transpose.FLIP_TOP_BOTTOM,
        5: Image.Transpose.TRANSPOSE, 6: Image.Transpose.ROTATE_270, 7: Image.Transpose.TRANSVERSE,
        8: Image.Transpose.ROTATE_90,
    }  # fmt: skip
    said = written.get(ExifTags.Base.Orientation)
    turn = turns.get(said) if isinstance(said, int) else None
    return picture if turn is None else picture.transpose(turn)


def _mended(picture: Image.Image) -> tuple[Mended, ...]:
    """What is done to a picture before it is kept."""
    found = []
    if max(picture.size) > LONG_SIDE:
        found.append(Mended("smaller", "the picture", f"made smaller, to {LONG_SIDE} points on its long side"))
    if _written(picture):
        found.append(Mended("metadata", "the picture", "what the camera wrote into it is left out"))
    return tuple(found)


def is_photo(data: bytes) -> bool:
    """Whether these bytes are a JPEG as we keep them: one that opens, and is not too large."""
    if not data.startswith(b"\xff\xd8"):
        return False
    try:
        read_photo(data)
    except BadPhoto:
        return False
    return True
