"""The sheet for the table read back: every piece, every distance, in both systems and on both papers."""

from __future__ import annotations

import io
import re

import pytest
from pypdf import PdfReader

from ...conftest import Person
from .cutting import at, begun, deed, more_pieces, try_ways

PAPER_MM = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}


def read(person: Person, paper: str) -> tuple[PdfReader, str]:
    answer = person.client.get(f"/api/projects/1/cut/sheet.pdf?paper={paper}", base_url="http://127.0.0.1")
    reader = PdfReader(io.BytesIO(answer.get_data()))
    # cells wrap their words
    return reader, re.sub(r"\s+", " ", " ".join(page.extract_text() for page in reader.pages))


@pytest.mark.parametrize(("system", "paper"), [("metric", "a4"), ("imperial", "letter")])
def test_every_piece_and_every_distance_stands_on_it(skirt: Person, system: str, paper: str) -> None:
    more_pieces(skirt)
    skirt.lay(1, seconds=1)
    found = begun(skirt)
    skirt.ask("PATCH", "/settings", system=system)
    found = skirt.ask("GET", "/projects/1/cut")
    reader, text = read(skirt, paper)
    wide, high = PAPER_MM[paper]
    for page in reader.pages:
        assert float(page.mediabox.width) * 25.4 / 72 == pytest.approx(wide, abs=0.1)
        assert float(page.mediabox.height) * 25.4 / 72 == pytest.approx(high, abs=0.1)
    assert len(reader.pages) <= 2, "two pages for an ordinary garment"
    for step in found["steps"]:
        assert step["name"] in text
        assert f"{step['begins']['text']} to {step['ends']['text']} from the {step['from_what']}" in text
        assert f"{step['tail_distance']['text']} and {step['head_distance']['text']} to the {step['edge']}" in text
        for mark in step["marks"]:
            if mark["kind"] == "notch":
                assert f"{mark['along']['text']} / {mark['across']['text']}" in text
    # a box for each copy, and one in the head that says what boxes are for
    assert text.count("□") == found["of"] + 1
    for told in (
        found["handling"]["hold"],
        found["handling"]["cautions"][0],
        found["rounds"][0]["foldings"][0]["steps"][0],
    ):
        assert told.rstrip(".") in text
    for part in (
        "How to fold",
        "Pieces in the order they are cut",
        "How to hold and cut",
        "Take care",
        "Have at hand",
        "Working",
    ):
        assert part in text


def test_before_there_is_a_lay_there_is_no_sheet(skirt: Person) -> None:
    skirt.ask("GET", "/projects/1/cut/sheet.pdf", 404)
    skirt.ask("GET", "/projects/1/cut/labels.pdf", 404)


def test_laid_again_beside_what_waits_the_paper_has_every_lay_that_still_is_cut(skirt: Person) -> None:
    more_pieces(skirt)
    skirt.ask("PATCH", "/projects/1/cloth", in_hand="4 m")
    skirt.lay(1, seconds=1)
    first = begun(skirt)["steps"][0]
    deed(skirt, first)
    deed(skirt, first, "spoilt")
    try_ways(skirt)
    found = skirt.ask("POST", at(1, "/again"), 201, way="beside")
    _, text = read(skirt, "a4")
    assert "Lay 1, on" in text and "Lay 2, on" in text
    for step in found["steps"]:
        assert step["name"] in text
        assert f"{step['tail_distance']['text']} and {step['head_distance']['text']} to the {step['edge']}" in text
    labels = skirt.client.get("/api/projects/1/cut/labels.pdf", base_url="http://127.0.0.1").get_data()
    told = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(labels)).pages)
    # a label for every copy that is good or waits, none for the spoilt one
    assert told.count("grain") == found["of"]
