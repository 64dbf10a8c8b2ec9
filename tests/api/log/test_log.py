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


def test_the_log_is_sent_so_many_lines_at_a_time(skirt: Person) -> None:
    for spare in range(1, 8):
        skirt.ask("PATCH", "/projects/1/purchase", spare=f"{spare} cm")
    whole = skirt.ask("GET", "/projects/1/log")
    assert whole["earlier"] is None and whole["total"] == len(whole["entries"]) > 7
    found: list[int] = []
    asked = "/projects/1/log?lines=3"
    while True:
        part = skirt.ask("GET", asked)
        assert part["total"] == whole["total"]
        found += [entry["id"] for entry in part["entries"]]
        if part["earlier"] is None:
            break
        assert len(part["entries"]) == 3
        asked = f"/projects/1/log?lines=3&before={part['earlier']}"
    assert found == [entry["id"] for entry in whole["entries"]]
    # the last line is the end also where it is the last of its part
    assert skirt.ask("GET", f"/projects/1/log?lines={whole['total']}")["earlier"] is None
    assert skirt.ask("GET", f"/projects/1/log?lines={whole['total'] - 1}")["earlier"] == found[-2]
    for wrong in ("lines=0", "lines=1001", "lines=many", "before=0"):
        skirt.refused("GET", f"/projects/1/log?{wrong}")
