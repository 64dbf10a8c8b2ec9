"""Names may hold anything a person types; in no file and no header are they more than text."""

from __future__ import annotations

import csv
import io
import re
from typing import Any
from xml.etree import ElementTree

import pypdf
import pytest
from icalendar import Calendar

from ..conftest import Person
from .cut.cutting import begun, settle

NAMES = [
    "<script>alert(1)</script>",
    '"><img src=x onerror=alert(1)>',
    "]]> & <!-- &amp; &#0; ' \"",
    '=HYPERLINK("http://evil.example","x")',
    "+1+1",
    "-2+3",
    "@SUM(A1)",
    "'=1",
    "a\r\nX-Evil: 1",
    "BEGIN:VEVENT\r\nSUMMARY:x",
    "a;b,c\\n",
    "../../etc/passwd",
    "\u202egnp.exe",
    "${7*7} {{7*7}} %s %(x)s",
    "<b>½ yd</b> é 🧵",
    "(\\) Tj ET endstream endobj",
]


def file_of(person: Person, path: str) -> tuple[bytes, Any]:
    answer = person.client.get(f"/api{path}", base_url="http://127.0.0.1")
    assert answer.status_code == 200, (path, answer.get_data(as_text=True)[:300])
    assert "\n" not in str(answer.headers.get("Content-Disposition")) and "X-Evil" not in answer.headers
    name = re.search(r'filename="([^"]*)"', answer.headers.get("Content-Disposition", 'filename="x"'))
    assert name is not None and re.fullmatch(r"[\w.-]+", name[1], re.ASCII) and not name[1].startswith(".")
    return answer.get_data(), answer


@pytest.fixture
def named(laid: Person, request: pytest.FixtureRequest) -> Person:
    laid.ask("PATCH", "/projects/1", name=request.param)
    laid.ask("PATCH", "/projects/1/cloth", name=request.param)
    laid.ask("PATCH", "/pieces/1", name=request.param)
    laid.ask("POST", "/log/notes", 201, text=request.param, project=1)
    laid.ask("POST", "/projects/1/list", kind="zip", name=request.param)
    return laid


@pytest.mark.parametrize("named", NAMES, indirect=True)
def test_every_file_holds_a_name_as_text(named: Person) -> None:
    shown = named.ask("GET", "/projects/1")["name"]
    assert "\n" not in shown and "\r" not in shown
    for path in ("/projects/1/lay.svg", "/projects/1/pieces.file?kind=svg"):
        drawing, _ = file_of(named, path)
        tree = ElementTree.fromstring(drawing)
        tags = {one.tag.rpartition("}")[2] for one in tree.iter()}
        assert not tags & {"script", "img", "image", "foreignObject", "b"}
        assert not any(key.lower().startswith("on") for one in tree.iter() for key in one.attrib)
    for path in ("/projects/1/list.csv", "/log.csv"):
        table, _ = file_of(named, path)
        cells = [cell for row in csv.reader(io.StringIO(table.decode())) for cell in row]
        assert any(shown in cell for cell in cells)
        assert not any(cell.startswith(("=", "+", "-", "@")) for cell in cells)
    table, _ = file_of(named, "/projects/1/pieces.file?kind=csv")
    names = {row["piece"] for row in csv.DictReader(io.StringIO(table.decode()))}
    assert not any(name.startswith(("=", "+", "-", "@")) for name in names)
    for path in ("/washday/plan.ics", "/projects/1/came-out.ics"):
        calendar, _ = file_of(named, path)
        read = Calendar.from_ical(calendar)
        assert next(one.name for one in read.walk()) == "VCALENDAR"
        assert len(read.walk("VEVENT")) == calendar.count(b"BEGIN:VEVENT\r\n"), "and no event of a name's own"
    for path in ("/projects/1/pieces.file?kind=dxf", "/projects/1/pieces.file?kind=json", "/archive.zip"):
        file_of(named, path)


@pytest.mark.parametrize("named", NAMES[:3] + NAMES[-3:], indirect=True)
def test_so_does_every_paper(named: Person) -> None:
    named.ask("PATCH", "/projects/1/cloth", in_hand="5 m")
    settle(named)
    begun(named)
    for path in ("sheet.pdf", "labels.pdf", "lay.pdf", "pieces.pdf"):
        data, _ = file_of(named, f"/projects/1/cut/{path}")
        paper = pypdf.PdfReader(io.BytesIO(data))
        assert len(paper.pages) >= 1 and "/JavaScript" not in str(paper.trailer["/Root"])
        assert all("/Annots" not in page for page in paper.pages), "no links made of a name"
    sheet = pypdf.PdfReader(io.BytesIO(file_of(named, "/projects/1/cut/sheet.pdf")[0]))
    words = re.sub(r"\s+", "", "".join(page.extract_text() for page in sheet.pages))
    shown = named.ask("GET", "/projects/1")["name"]
    # letters the embedded font has none for are left out
    assert re.sub(r"[\s🧵]+", "", shown)[:12] in words
