"""Files that are cut off, in the wrong unit, open, doubled, far too large: each ends in a result or a sentence."""

from __future__ import annotations

import io
import random
import subprocess
import sys
import time
import zlib
from pathlib import Path

import ezdxf
import pytest

from idle_selvage.formats.audit import Unreadable
from idle_selvage.formats.drawn_pieces import PieceRead
from idle_selvage.formats.reading import Taken, Wishes, take_in
from idle_selvage.formats.svg_pieces import read_svg
from idle_selvage.formats.writing import write

from ..conftest import OUT_OF_PROPORTION

SVG = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="600mm" viewBox="0 0 400 600">'
    '<g class="piece copies-2 pair"><title>Front</title><path d="M20 20 H200 C240 200 260 300 200 560 H20 Z"/>'
    '<line class="grainline" x1="100" y1="500" x2="100" y2="80"/></g></svg>'
)


@pytest.fixture(scope="module")
def pieces() -> tuple[PieceRead, ...]:
    return read_svg(SVG.encode()).what


def told(data: bytes, name: str, wishes: Wishes | None = None) -> Taken | str:
    begun = time.process_time()
    try:
        found: Taken | str = take_in(data, name, wishes)
    except Unreadable as fault:
        found = str(fault)
        assert found.endswith((".", "…")) and len(found) < 400, found
    assert time.process_time() - begun < OUT_OF_PROPORTION
    return found


@pytest.fixture(scope="module", autouse=True)
def imported() -> None:
    # the first import of a reader takes its second, whatever is read
    take_in(write(read_svg(SVG.encode()).what, "dxf"), "a.dxf")
    take_in(write(read_svg(SVG.encode()).what, "pdf"), "a.pdf")


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "csv", "json"])
def test_cut_off_anywhere(kind: str, pieces: tuple[PieceRead, ...]) -> None:
    data = write(pieces, kind)
    for share in (0.0, 0.02, 0.1, 0.3, 0.5, 0.7, 0.9, 0.97, 0.999):
        told(data[: int(len(data) * share)], f"pieces.{kind}")


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "csv", "json"])
def test_bytes_changed_anywhere(kind: str, pieces: tuple[PieceRead, ...]) -> None:
    data = write(pieces, kind)
    pick = random.Random(7)
    for _ in range(15):
        broken = bytearray(data)
        for _ in range(pick.choice((1, 5, 60))):
            broken[pick.randrange(len(broken))] = pick.randrange(256)
        told(bytes(broken), f"pieces.{kind}")


@pytest.mark.parametrize("name", ["a.svg", "a.dxf", "a.pdf", "a.csv", "a.json", "a"])
@pytest.mark.parametrize("data", [b"", b"\0" * 4096, b"{" * 50_000, b"<" * 50_000, bytes(range(256)) * 40])
def test_what_is_nothing_at_all(name: str, data: bytes) -> None:
    assert isinstance(told(data, name), str)


def test_a_million_parts() -> None:
    line = "  0\nLINE\n  8\n1\n 10\n0.0\n 20\n0.0\n 11\n1.0\n 21\n1.0\n"
    dxf = ("  0\nSECTION\n  2\nENTITIES\n" + line * 1_000_000).encode()[:19_000_000]
    assert "more than 40000 parts" in str(told(dxf, "a.dxf"))
    svg = ('<svg xmlns="http://www.w3.org/2000/svg">' + "<line/>" * 500_000 + "</svg>").encode()
    assert "parts" in str(told(svg[:3_999_000], "a.svg"))
    drawn = b"0 0 m " + b"1 1 l 2 0 l " * 500_000 + b"S"
    assert "points" in str(told(pdf_of(drawn), "a.pdf"))


def test_a_page_that_unpacks_to_far_more() -> None:
    assert "MB of drawing" in str(told(pdf_of(b" " * 60_000_000), "a.pdf"))


def pdf_of(content: bytes) -> bytes:
    """A PDF of one page with this content, packed."""
    packed = zlib.compress(content)
    parts = [
        b"1 0 obj <</Type/Catalog/Pages 2 0 R>> endobj\n",
        b"2 0 obj <</Type/Pages/Kids[3 0 R]/Count 1>> endobj\n",
        b"3 0 obj <</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents 4 0 R>> endobj\n",
        b"4 0 obj <</Length %d/Filter/FlateDecode>> stream\n%b\nendstream endobj\n" % (len(packed), packed),
    ]
    out, places = b"%PDF-1.4\n", []
    for part in parts:
        places.append(len(out))
        out += part
    rows = b"".join(b"%010d 00000 n \n" % place for place in places)
    table = b"xref\n0 5\n0000000000 65535 f \n" + rows + b"trailer <</Size 5/Root 1 0 R>>\nstartxref\n%d\n%%%%EOF"
    return out + table % len(out)


def test_open_paths_and_lines_drawn_twice() -> None:
    doc = ezdxf.new("R2010", units=4)
    sheet = doc.modelspace()
    corners = [(0.0, 0.0), (300.0, 0.0), (300.0, 500.0), (0.0, 500.0)]
    for a, b in zip(corners, [*corners[1:], corners[0]], strict=True):
        for _ in range(2):
            sheet.add_line(a, b, dxfattribs={"layer": "1"})
    sheet.add_lwpolyline([(600, 0), (800, 0), (800, 300)], dxfattribs={"layer": "1"})
    out = io.StringIO()
    doc.write(out)
    found = told(out.getvalue().encode(), "a.dxf")
    assert isinstance(found, Taken) and len(found.pieces) == 1
    assert [one.code for one in found.mended if one.code == "joined"] == ["joined"]
    assert any("not closed" in one.why for one in found.not_read)


@pytest.mark.parametrize("word", ["add-900mm", "includes-900mm", "allowance-900mm"])
def test_an_allowance_no_piece_has_is_refused_and_said(word: str) -> None:
    own = f'<circle class="{word}" cx="20" cy="300" r="1"/>' if word.startswith("allowance") else ""
    found = told(
        SVG.replace("piece copies-2", f"piece {word} copies-2").replace("</g>", f"{own}</g>").encode(), "a.svg"
    )
    assert isinstance(found, Taken) and found.pieces == ()
    assert any("an allowance of 900 mm" in one.why for one in found.not_read)


@pytest.mark.parametrize("column", ["add", "includes", "allowance"])
@pytest.mark.parametrize("wide", ["-10", "900"])
def test_neither_is_one_of_a_table(column: str, wide: str) -> None:
    rows = ["piece,along,across," + column, f"A,0,0,{wide}", "A,0,200,", "A,300,200,", "A,300,0,"]
    found = told("\n".join(rows).encode(), "a.csv")
    assert isinstance(found, Taken) and found.pieces == ()
    assert any("an allowance of" in one.why for one in found.not_read)


def test_points_beside_an_outline_that_are_no_numbers_are_left(pieces: tuple[PieceRead, ...]) -> None:
    data = write(pieces, "svg")
    spoilt = data.replace(b"&quot;mitre&quot;", b"NaN").replace(b"[[", b"[[NaN,", 1)
    found = told(spoilt, "a.svg")
    assert isinstance(found, Taken) and len(found.pieces) == 1


def test_a_unit_nobody_says_is_guessed_and_can_be_chosen() -> None:
    doc = ezdxf.new("R2010", units=0)
    doc.modelspace().add_lwpolyline([(0, 0), (12, 0), (12, 24), (0, 24)], close=True, dxfattribs={"layer": "1"})
    out = io.StringIO()
    doc.write(out)
    found = told(out.getvalue().encode(), "a.dxf")
    # 24 mm is no piece of a garment, 24 cm hardly, 24 inches is
    assert isinstance(found, Taken) and found.choices.unit == "in"
    assert any(one.code == "unit" for one in found.mended)
    chosen = told(out.getvalue().encode(), "a.dxf", Wishes(unit="cm"))
    assert isinstance(chosen, Taken) and chosen.choices.unit == "cm"
    xs = [x for x, _ in chosen.pieces[0].piece.outline]
    assert max(xs) - min(xs) == pytest.approx(120.0)


def test_a_drawing_without_a_size_says_which_unit_it_may_be() -> None:
    small = b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 90"><rect width="40" height="70"/></svg>'
    found = told(small, "a.svg")
    assert isinstance(found, Taken) and "cm" in found.choices.units
    assert any(one.code == "unit" and "one cm" in one.how for one in found.mended)
    chosen = told(small, "a.svg", Wishes(unit="cm"))
    assert isinstance(chosen, Taken) and not [one for one in chosen.mended if one.code == "unit"]
    xs = [x for x, _ in chosen.pieces[0].piece.outline]
    assert max(xs) - min(xs) == pytest.approx(400.0)
    # what is as large as a piece is taken as it is, and what says its size has nothing to choose
    plain = small.replace(b"40", b"2000").replace(b'"70"', b'"3000"')
    large = told(plain, "a.svg")
    assert isinstance(large, Taken) and not [one for one in large.mended if one.code == "unit"]
    assert isinstance(said := told(SVG.encode(), "a.svg"), Taken) and said.choices.units == ()


def test_the_largest_of_them_take_little_memory() -> None:
    """A million parts, in each format, in a process of their own: under half a gigabyte."""
    script = Path(__file__).with_name("largest_files.py")
    done = subprocess.run([sys.executable, script], capture_output=True, text=True, timeout=120)
    assert done.returncode == 0, done.stderr
    assert 50 < int(done.stdout) < 500, f"{done.stdout} MB"


def test_a_dxf_that_is_not_whole_is_mended_and_said(pieces: tuple[PieceRead, ...]) -> None:
    data = write(pieces, "dxf")
    found = told(data[: data.rindex(b"OBJECTS")], "a.dxf")
    assert isinstance(found, Taken), found
    assert len(found.pieces) == 1 and any(one.code == "recovered" for one in found.mended)
