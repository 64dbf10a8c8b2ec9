"""Files made to do harm, for every reader: each ends in a result or a sentence, soon, and nothing of them is run, read
or written elsewhere."""

from __future__ import annotations

import io
import json
import random
import struct
import time
import warnings
import zipfile
import zlib
from collections.abc import Callable
from typing import Any

import pytest
from PIL import Image

from idle_selvage.formats.archive import DOCUMENT, BadArchive, read_archive
from idle_selvage.formats.audit import Unreadable
from idle_selvage.formats.photo import BadPhoto, read_photo
from idle_selvage.formats.reading import Taken
from idle_selvage.jobs.apart import BUSY, Apart

from ..conftest import OUT_OF_PROPORTION, photo

#: As the server reads what people bring: apart, within bounds.
take_in = Apart(in_all=20.0).take_in
HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" '
MM = 'width="300mm" height="300mm" viewBox="0 0 300 300">'


def within(read: Callable[[], Any]) -> Any:
    """What a reader gives, or its sentence; in time, and without holding anything else up."""
    begun, here = time.monotonic(), time.process_time()
    try:
        found = read()
    except Unreadable as fault:
        found = str(fault)
        assert found.endswith((".", "?")) and "Traceback" not in found and len(found) < 600
    assert time.process_time() - here < OUT_OF_PROPORTION and time.monotonic() - begun < 4 * max(BUSY.values())
    return found


SVGS = {
    "entities": '<!DOCTYPE x [<!ENTITY a "' + "x" * 999 + '">'
    + "".join(f'<!ENTITY {b} "{f"&{a};" * 30}">' for a, b in zip("abcdef", "bcdefg", strict=True))
    + f"]>{HEAD}{MM}<text>&g;</text></svg>",
    "external": f'<!DOCTYPE x [<!ENTITY f SYSTEM "file:///etc/passwd">]>{HEAD}{MM}<text>&f;</text></svg>',
    "dtd": f'<!DOCTYPE svg SYSTEM "http://127.0.0.1:9/x.dtd">{HEAD}{MM}<rect width="200" height="200"/></svg>',
    "script": f'{HEAD}{MM}<script>alert(1)</script><rect id="a" width="200" height="200" onload="alert(1)"/></svg>',
    "image": f'{HEAD}{MM}<image xlink:href="file:///etc/passwd" width="9" height="9"/></svg>',
    "loop": f'{HEAD}{MM}<g id="a"><use xlink:href="#b"/></g><g id="b"><use xlink:href="#a"/></g></svg>',
    "doubling": f'{HEAD}{MM}<g id="g0"><rect width="9" height="9"/></g>'
    + "".join(f'<g id="g{n}"><use href="#g{n - 1}"/><use href="#g{n - 1}"/></g>' for n in range(1, 40)) + "</svg>",
    "deep": f"{HEAD}{MM}" + "<g>" * 20_000 + "</g>" * 20_000 + "</svg>",
    "points": f'{HEAD}{MM}<polygon points="' + "1,1 2,3 " * 240_000 + '"/></svg>',
    "commands": f'{HEAD}{MM}<path d="M0 0' + "l1 1" * 900_000 + 'z"/></svg>',
    "arcs": f'{HEAD}{MM}<path d="M0 0' + "a1e8 1e-8 0 1 1 1 1" * 100_000 + 'z"/></svg>',
    "blanks": f'{HEAD}{MM}<rect id="' + " " * 3_000_000 + '" width="200" height="200"/></svg>',
    "blank words": f'{HEAD}{MM}<rect class="' + "piece " * 400_000 + '" width="200" height="200"/></svg>',
    "transforms": f'{HEAD}{MM}<rect transform="' + "rotate(1) " * 300_000 + '" width="200" height="200"/></svg>',
    "nothing": f'{HEAD}{MM}<rect width="NaN" height="1e400"/><path d="M NaN 1e999 L inf 0 z"/></svg>',
    "huge": f'{HEAD} width="1e308mm" height="1e308mm" viewBox="-1e308 -1e308 1e-308 1e308"><rect width="1"/></svg>',
    "tiny": f'{HEAD} width="300mm" height="300mm" viewBox="0 0 1e-320 1e-320"><rect width="1" height="1"/></svg>',
    "far": f'{HEAD}{MM}<rect x="1e300" y="-1e300" width="200" height="200"/></svg>',
    "spaces": f'{HEAD}{MM}<rect xmlns:a="' + "http://x/" * 100_000 + '" width="200" height="200"/></svg>',
    "encoding": '<?xml version="1.0" encoding="utf-7"?>+ADw-svg/+AD4-',
}  # fmt: skip


@pytest.mark.parametrize("name", SVGS)
def test_a_hostile_svg(name: str) -> None:
    found = within(lambda: take_in(SVGS[name].encode(), "a.svg"))
    said = found if isinstance(found, str) else json.dumps([p.name for p in found.pieces], default=str)
    assert "root:" not in said and "alert" not in said


DXF = "0\nSECTION\n2\nENTITIES\n{}0\nENDSEC\n0\nEOF\n"
DXFS = {
    "infinite": DXF.format("0\nLINE\n8\n1\n10\nNaN\n20\n1e999\n11\ninf\n21\n-inf\n"),
    "bulge": DXF.format("0\nLWPOLYLINE\n8\n1\n90\n2\n70\n1\n10\n0\n20\n0\n42\n1e300\n10\n1\n20\n1\n42\n-1e300\n"),
    "circle": DXF.format("0\nCIRCLE\n8\n1\n10\n0\n20\n0\n40\n1e300\n"),
    "spline": DXF.format("0\nSPLINE\n8\n1\n70\n8\n71\n500000\n72\n3\n73\n3\n" + "40\n0\n" * 3 + "10\n0\n20\n0\n" * 3),
    "counted": DXF.format("0\nLWPOLYLINE\n8\n1\n90\n2000000000\n10\n0\n20\n0\n"),
    "itself": "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n0\nINSERT\n2\nA\n10\n0\n20\n0\n0\nENDBLK\n0\nENDSEC\n"
    + DXF.format("0\nINSERT\n2\nA\n10\n0\n20\n0\n"),
    "rows": "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n0\nLINE\n8\n1\n10\n0\n20\n0\n11\n1\n21\n1\n0\nENDBLK\n0\nENDSEC\n"
    + DXF.format("0\nINSERT\n2\nA\n10\n0\n20\n0\n70\n30000\n71\n30000\n44\n1\n45\n1\n"),
    "include": DXF.format("0\nXREF\n1\n/etc/passwd\n"),
    "text": DXF.format("0\nTEXT\n8\n15\n10\n0\n20\n0\n40\n1\n1\n" + "Name: x " * 200_000 + "\n"),
}


@pytest.mark.parametrize("name", DXFS)
def test_a_hostile_dxf(name: str) -> None:
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        within(lambda: take_in(DXFS[name].encode(), "a.dxf"))


def pdf(*objects: bytes, root: bytes = b"1 0 R") -> bytes:
    body = b"".join(b"%d 0 obj %b endobj\n" % (n, one) for n, one in enumerate(objects, 1))
    return b"%PDF-1.4\n" + body + b"trailer <</Size %d/Root %b>>\n%%%%EOF" % (len(objects) + 1, root)


def stream(content: bytes, filters: int = 1) -> bytes:
    for _ in range(filters):
        content = zlib.compress(content)
    return b"<</Length %d/Filter[%b]>> stream\n%b\nendstream" % (len(content), b"/FlateDecode" * filters, content)


PAGE = b"<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents 4 0 R>>"
PDFS = {
    "own parent": pdf(b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[2 0 R]/Count 9>>"),
    "own contents": pdf(
        b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[3 0 R]/Count 1>>", PAGE, b"4 0 R"
    ),
    "packed thrice": pdf(
        b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[3 0 R]/Count 1>>", PAGE, stream(b" " * 300_000_000, 3)
    ),
    "saved states": pdf(
        b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[3 0 R]/Count 1>>", PAGE, stream(b"q " * 900_000)
    ),
    "deep": pdf(
        b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[3 0 R]/Count 1>>", PAGE,
        stream(b"[" * 200_000 + b"]" * 200_000 + b" 0 d"),
    ),
    "a form in itself": pdf(
        b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[3 0 R]/Count 1>>",
        PAGE[:-2] + b"/Resources<</XObject<</F 5 0 R>>>>>>", stream(b"/F Do"),
        b"<</Type/XObject/Subtype/Form/BBox[0 0 9 9]/Resources<</XObject<</F 5 0 R>>>>/Length 5>>"
        b" stream\n/F Do\nendstream",
    ),
    "many pages": pdf(
        b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[" + b"3 0 R " * 200_000 + b"]/Count 200000>>", PAGE,
        stream(b"0 0 m 9 9 l S"),
    ),
    "large": pdf(
        b"<</Type/Catalog/Pages 2 0 R>>", b"<</Type/Pages/Kids[3 0 R]/Count 1>>", PAGE,
        stream(b"1e999 0 m 1e308 -1e308 l 9" + b"9" * 400 + b" 0 l s"),
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", PDFS)
def test_a_hostile_pdf(name: str) -> None:
    within(lambda: take_in(PDFS[name], "a.pdf"))


@pytest.mark.parametrize(
    "data",
    [
        b"piece,along,across\n" + b'"' + b"x" * 3_000_000,
        b"piece,along,across\n" + b"A," * 900_000,
        b"piece,along,across\nA,1e400,NaN\nA,inf,-inf\nA,1e308,1e308\n",
        b"piece,along,across\n" + b"\n" * 2_000_000,
        b"piece,along,across\n" + " ".join(["=cmd|' /C calc'!A0"] * 3).encode() + b",0,0\n",
        "piece,along,across\nA,٣,½\n".encode(),
        b"\x00" * 1_000_000,
    ],
    ids=["one cell", "one row", "no numbers", "empty rows", "formula", "other digits", "nothing"],
)
def test_a_hostile_table(data: bytes) -> None:
    within(lambda: take_in(data, "a.csv"))


@pytest.mark.parametrize(
    "data",
    [
        b"[" * 900_000,
        b'{"format":"idle-selvage/lay-problem/1","width":' + b"9" * 400 + b"}",
        b'{"format":"idle-selvage/lay-problem/1","width":1400,"pieces":' + b"[" * 400 + b"]" * 400 + b"}",
        b'{"format":"idle-selvage/lay-problem/1","width":1400,"pieces":[{"id":"\\ud83e","outline":[]}]}',
        b'{"format":"idle-selvage/lay-problem/1","width":NaN,"pieces":[{"id":"a","outline":[[0,0],[1e999,0],[0,1]]}]}',
        b'{"a":' * 100_000 + b"1" + b"}" * 100_000,
    ],
    ids=["brackets", "width", "nested", "half a letter", "no numbers", "objects"],
)
def test_a_hostile_lay_problem(data: bytes) -> None:
    within(lambda: take_in(data, "a.json"))


def packed(files: list[tuple[str, bytes]], method: int = zipfile.ZIP_DEFLATED) -> bytes:
    out = io.BytesIO()
    with warnings.catch_warnings(), zipfile.ZipFile(out, "w", method) as file:
        warnings.simplefilter("ignore")
        for name, data in files:
            file.writestr(name, data)
    return out.getvalue()


def linked() -> bytes:
    """An archive whose document is a link to a file of this machine."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as file:
        info = zipfile.ZipInfo(DOCUMENT)
        info.external_attr = 0o120777 << 16
        file.writestr(info, "/etc/passwd")
    return out.getvalue()


def lying() -> bytes:
    """An archive that says its document is small; it unpacks to a gigabyte."""
    data = bytearray(packed([(DOCUMENT, b" " * 900_000_000)]))
    for at in (data.find(b"PK\x03\x04") + 22, data.rfind(b"PK\x01\x02") + 24):
        data[at : at + 4] = struct.pack("<I", 10)
    return bytes(data)


@pytest.mark.parametrize(
    "make",
    [
        lambda: packed([(DOCUMENT, b" " * 900_000_000)]),
        lying,
        linked,
        lambda: packed([(f"photos/cloth-{n}.jpg", b"") for n in range(20_000)]),
        lambda: packed([(DOCUMENT, b"{}"), (DOCUMENT, b"[]"), ("../../x", b"x"), ("/etc/x", b"x")]),
        lambda: packed([(DOCUMENT, b"[" * 900_000)]),
        lambda: packed([(DOCUMENT, b"[" + b"[],[],[]," * 300_000 + b"0]")]),
        lambda: packed([(DOCUMENT, b"[" + b"1," * 20_000_000 + b"0]")]),
        lambda: packed([(DOCUMENT, b'{"a":1e999,"b":' + b"9" * 5000 + b"}")]),
        lambda: packed([(DOCUMENT, b'{"a":NaN}')]),
        lambda: packed([(DOCUMENT, b"{}"), ("photos/../../x.jpg", photo(9, 9)), ("photos/cloth-1.jpg", b"no photo")]),
        lambda: packed([(DOCUMENT, b"{}")])[:60],
        lambda: b"PK\x03\x04" + bytes(200),
    ],
    ids=[
        "bomb", "lying", "link", "files", "twice", "brackets", "lists", "values", "numbers", "nan", "outside", "torn",
        "head",
    ],
)  # fmt: skip
def test_a_hostile_archive(make: Callable[[], bytes]) -> None:
    data = make()
    found = within(lambda: _read(data))
    if not isinstance(found, str):
        assert all(name.count("/") == 1 and ".." not in name for name in found.photos)
        assert found.document == {} or "root" not in str(found.document)


def _read(data: bytes) -> Any:
    return read_archive(data)


def test_a_sentence_for_every_torn_archive() -> None:
    whole, chance = packed([(DOCUMENT, b'{"a":1}'), ("photos/cloth-1.jpg", photo(30, 30))]), random.Random(3)
    for _ in range(400):
        torn = bytearray(whole)
        for _ in range(chance.choice((1, 1, 3, 20))):
            torn[chance.randrange(len(torn))] = chance.randrange(256)
        try:
            read_archive(bytes(torn))
        except BadArchive as fault:
            assert str(fault).endswith(".")


def picture(kind: str, size: tuple[int, int] = (64, 48), mode: str = "RGB", **more: Any) -> bytes:
    out = io.BytesIO()
    Image.new(mode, size, 0).save(out, kind, **more)
    return out.getvalue()


def written(tag: int, value: Any) -> bytes:
    exif = Image.Exif()
    exif[tag] = value
    return exif.tobytes()


@pytest.mark.parametrize(
    "turn", [0, 1, 3, 6, 8, 9, 65535, "6", b"\x06\x00", (6, 6), 6.0], ids=str
)  # fmt: skip
def test_a_turn_of_the_wrong_kind_leaves_the_picture_as_it_is(turn: Any) -> None:
    try:
        exif = written(0x0112, turn)
    except (TypeError, ValueError, struct.error, AttributeError):
        exif = (
            b"Exif\x00\x00II*\x00\x08\x00\x00\x00\x01\x00\x12\x01\x02\x00\x02\x00\x00\x006\x00\x00\x00\x00\x00\x00\x00"
        )
    with Image.open(io.BytesIO(read_photo(picture("JPEG", exif=exif)).what)) as found:
        assert sorted(found.size) == [48, 64] and len(found.getexif()) == 0


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_broken_photos_are_pictures_or_a_sentence(kind: str) -> None:
    """One byte to a hundred changed, cut off, doubled: never another fault than a sentence."""
    whole, chance = picture(kind, exif=written(0x010F, "Camera")), random.Random(kind)
    for n in range(400):
        torn = bytearray(whole)
        for _ in range(chance.choice((1, 2, 8, 100))):
            torn[chance.randrange(len(torn))] = chance.randrange(256)
        if n % 5 == 0:
            del torn[chance.randrange(len(torn)) :]
        if n % 7 == 0:
            torn[20:20] = torn[: chance.randrange(len(torn))]
        try:
            assert read_photo(bytes(torn)).what.startswith(b"\xff\xd8")
        except BadPhoto as fault:
            assert str(fault).endswith(".")


@pytest.mark.parametrize(
    ("kind", "mode"), [("PNG", "P"), ("PNG", "RGBA"), ("PNG", "I;16"), ("JPEG", "CMYK"), ("PNG", "1")]
)
def test_photos_of_every_kind_of_colour(kind: str, mode: str) -> None:
    with Image.open(io.BytesIO(read_photo(picture(kind, (3000, 20), mode)).what)) as found:
        assert found.size == (1600, 11) and found.mode == "RGB"


def test_a_drawing_of_a_million_points_says_so_or_is_read() -> None:
    found = within(lambda: take_in(SVGS["points"].encode(), "a.svg"))
    assert isinstance(found, str | Taken)
