"""Pieces at the API: typed, read from a drawing, changed."""

from __future__ import annotations

import pytest

from ...conftest import SLEEVE, Person

DRAWING = """<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="300mm" viewBox="0 0 400 300">
<g id="Yoke"><polygon points="0,0 180,0 170,90 10,90"/><line class="grainline" x1="90" y1="80" x2="90" y2="10"/></g>
<g id="Pocket"><polygon points="200,0 300,0 300,120 200,120"/></g>
<text x="1" y="290">a note</text><path d="M0 200 L50 200"/>
</svg>"""


def drawn(person: Person) -> dict[str, dict[str, object]]:
    person.ask("POST", "/projects", name="Overshirt")
    told = person.ask("POST", "/projects/1/pieces/svg", svg=DRAWING, file_name="yoke.svg")
    return {piece["name"]: piece for piece in told["project"]["pieces"]}


def test_what_was_not_read_and_what_was_assumed_are_told_apart(person: Person) -> None:
    person.ask("POST", "/projects", name="Overshirt")
    told = person.ask("POST", "/projects/1/pieces/svg", svg=DRAWING, file_name="yoke.svg")
    assert told["added"] == ["Yoke", "Pocket"]
    assert [(m["what"], "grain" in m["why"]) for m in told["mended"]] == [("Pocket: grainline", True)]
    assert told["not_read"] and all(n["code"] and n["why"] and "grain" not in n["why"] for n in told["not_read"])


def test_a_piece_read_from_a_drawing_can_be_changed_as_the_form_sends_it(person: Person) -> None:
    yoke = drawn(person)["Yoke"]
    # the form sends every entry of how it is cut, and only what was drawn anew
    body = {"on_fold": False, "seam": "1 cm", "name": "Yoke, back", "copies": 2,
            "pair": True, "grain": "lengthwise", "one_way": False}  # fmt: skip
    told = person.ask("PATCH", f"/pieces/{yoke['id']}", **body)
    changed = next(p for p in told["pieces"] if p["id"] == yoke["id"])
    assert (changed["name"], changed["copies"], changed["pair"]) == ("Yoke, back", 2, True)
    assert changed["outline"] == yoke["outline"] and changed["cut"] != yoke["cut"] and changed["seam"]["mm"] == 10


@pytest.mark.parametrize("count", [0, 1])
def test_a_typed_piece_needs_two_stations(skirt: Person, count: int) -> None:
    told = skirt.refused("POST", "/projects/1/pieces", name="Cuff", stations=SLEEVE[:count])
    assert told["fields"][0]["path"] == "stations"
    if count:
        assert skirt.refused("PATCH", "/pieces/1", drawn={"stations": SLEEVE[:count]})["fields"][0]["path"].startswith(
            "drawn.stations"
        )


def test_how_a_piece_is_cut_and_where_its_fold_lies_are_sent(skirt: Person) -> None:
    stations = [{"along": "0", "left": "20", "right": "0"}, {"along": "60", "left": "18", "right": "0"}]
    told = skirt.ask("POST", "/projects/1/pieces", name="Back", stations=stations, on_fold=True, smooth=False)
    back, sleeve = told["pieces"][-1], told["pieces"][0]
    assert back["how_cut"] == "1 on the fold" and back["fold"] == [0, 600]
    assert sleeve["how_cut"] == "1 pair" and sleeve["fold"] == []
    outline = skirt.ask("POST", "/plan/outline", stations=stations, on_fold=True, smooth=False, seam="0")
    assert outline["fold"] == [0, 600]
