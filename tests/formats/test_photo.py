"""Photos: made small, freed of what the camera wrote, and no bytes that do harm."""

from __future__ import annotations

import io

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from idle_selvage.formats.photo import LONG_SIDE, MOST_BYTES, BadPhoto, read_photo

from ..conftest import photo


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_photo_is_made_smaller_and_keeps_its_shape(kind: str) -> None:
    with Image.open(io.BytesIO(read_photo(photo(3200, 800, kind)).what)) as small:
        assert small.format == "JPEG" and small.size == (LONG_SIDE, 400)


def test_what_the_camera_wrote_is_left_out_and_the_picture_stands_upright() -> None:
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x0112] = 6  # turned by a quarter
    exif[0x010F] = "Camera"
    Image.new("RGB", (300, 100), "#a03020").save(out, "JPEG", exif=exif)
    with Image.open(io.BytesIO(read_photo(out.getvalue()).what)) as small:
        assert small.size == (100, 300) and len(small.getexif()) == 0


@pytest.mark.parametrize("data", [b"", b"GIF89a" + b"\0" * 40, photo(40, 30)[:200], b"x" * (MOST_BYTES + 1)])
def test_what_is_no_photo_is_refused_in_words(data: bytes) -> None:
    with pytest.raises(BadPhoto, match=r"\.$"):
        read_photo(data)


@given(st.binary(max_size=300), st.integers(0, 600))
def test_any_bytes_give_a_picture_or_a_sentence(noise: bytes, at: int) -> None:
    good = photo(40, 30)
    try:
        read_photo(good[:at] + noise + good[at + len(noise) :])
    except BadPhoto as fault:
        assert str(fault).endswith(".")


def test_a_picture_that_would_fill_the_memory_is_not_opened() -> None:
    import struct
    import zlib

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    # sixty bytes that say they are a picture of 20 000 by 20 000 points
    head = struct.pack(">IIBBBBB", 20_000, 20_000, 8, 2, 0, 0, 0)
    bomb = (
        b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 100)) + chunk(b"IEND", b"")
    )
    with pytest.raises(BadPhoto, match="more points"):
        read_photo(bomb)
