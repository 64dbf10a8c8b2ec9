"""The log: written once, read in either system, and never by looking."""

from __future__ import annotations

from ...conftest import Person


def lines(person: Person) -> list[str]:
    return [entry["what"] for entry in person.ask("GET", "/projects/1/log")["entries"]]


def test_a_length_in_the_log_is_told_in_the_units_of_who_reads_it(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/true", now={"offset": "1 in", "side": "far"})
    skirt.ask("POST", "/projects/1/true/tests")
    assert lines(skirt)[0].startswith("Fold test: 2.5 cm")
    skirt.ask("PATCH", "/settings", system="imperial")
    assert lines(skirt)[0].startswith("Fold test: 1 in")


def test_a_sentence_inside_a_line_is_told_so_too(skirt: Person) -> None:
    skirt.ask("PUT", "/projects/1/swatch", graduation="1/8 in", warp=[["25 cm", "24 cm"]])
    assert lines(skirt)[0] == "Swatch readings: warp 1 marked, 1 wash; tape read to 3.2 mm."
    skirt.ask("PATCH", "/settings", system="imperial")
    assert lines(skirt)[0] == "Swatch readings: warp 1 marked, 1 wash; tape read to ⅛ in."


def test_looking_at_anything_writes_nothing(skirt: Person) -> None:
    before = lines(skirt)
    for path in ("", "/lay", "/shrink", "/true", "/offers", "/together", "/envelope", "/strips", "/list", "/list.csv",
                 "/shop", "/trials?what=extras", "/lay.svg", "/lay.json", "/lay-problem.json"):  # fmt: skip
        skirt.client.get(f"/api/projects/1{path}", base_url="http://127.0.0.1")
    assert lines(skirt) == before
