"""Every stage through the API: what is kept, what is refused, and in which words."""

from __future__ import annotations

import pytest
from sqlalchemy.exc import IntegrityError

from ...conftest import SLEEVE, Person, asks

LINEN = {"blend": [{"fibre": "linen", "share": 100}]}


def test_a_new_project_says_what_to_do_first(person: Person) -> None:
    made = person.ask("POST", "/projects", 201, name="  Summer   skirt ", note="for June")
    assert made["name"] == "Summer skirt" and made["next_step"] == "Add the pattern pieces."
    states = {s["name"]: s["state"] for s in made["stages"]}
    assert states["cut"] == states["true"] == states["plan"] == "empty"
    assert [t["key"] for t in made["tally"]] == ["width", "lay", "to_buy", "shrinkage_warp", "cost", "spare"]
    assert all(t["missing"] for t in made["tally"])


@pytest.mark.parametrize(
    "body", [{}, {"name": ""}, {"name": "  "}, {"name": 4}, {"name": "x" * 200}, {"name": "a", "b": 1}]
)
def test_projects_that_cannot_be(person: Person, body: dict[str, object]) -> None:
    told = person.refused("POST", "/projects", **body)
    assert told["fields"]


def test_deleting_can_be_undone(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    assert person.ask("DELETE", "/projects/1")["projects"] == []
    person.ask("GET", "/projects/1", 404)
    assert person.ask("POST", "/projects/1/restore")["name"] == "A"
    person.ask("POST", "/projects/1/pieces", name="S", stations=SLEEVE)
    assert person.ask("DELETE", "/pieces/1")["pieces"] == []
    assert person.ask("POST", "/pieces/1/restore")["pieces"][0]["name"] == "S"
    said = [e["what"] for e in person.ask("GET", "/projects/1/log")["entries"]]
    assert said[:2] == ["Brought back the piece “S”.", "Took out the piece “S”."]


def test_lengths_are_typed_in_any_unit_and_shown_in_the_person_s(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    kept = person.ask("PATCH", "/projects/1/cloth", width_readings=["1 1/4 yd", "114,3", 1143])
    assert [r["mm"] for r in kept["cloth"]["width_readings"]] == pytest.approx([1143, 1143, 1143])
    assert kept["cloth"]["width_readings"][0]["text"] == "114.3 cm"
    person.ask("PATCH", "/settings", system="imperial")
    shown = person.ask("GET", "/projects/1")
    assert shown["cloth"]["width_readings"][0]["text"] == "45 in"
    kept = person.ask("PATCH", "/projects/1/cloth", width_readings=["44 1/2"])
    assert kept["cloth"]["width_readings"][0]["mm"] == pytest.approx(44.5 * 25.4), "bare numbers are inches now"
    assert person.ask("POST", "/lengths/read", text="3/8")["text"] == "⅜ in"


def test_a_bad_entry_names_its_field_and_changes_nothing(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    person.ask("PATCH", "/projects/1/cloth", width_readings=["112 cm"])
    told = person.refused("PATCH", "/projects/1/cloth", width_readings=["112 cm", "12 cubits"], name="New")
    assert told["fields"] == [{"path": "width_readings.1", "message": told["message"]}] and "cubits" in told["message"]
    cloth = person.ask("GET", "/projects/1")["cloth"]
    assert cloth["name"] == "" and len(cloth["width_readings"]) == 1


@pytest.mark.parametrize(
    ("path", "body", "field"),
    [
        ("cloth", {"blend": [{"fibre": "unobtainium", "share": 100}]}, "blend.0.fibre"),
        ("cloth", {"blend": [{"fibre": "linen", "share": 0}]}, "blend.0.share"),
        ("cloth", {"weave": "knit"}, "weave"),
        ("cloth", {"direction": "sideways"}, "direction"),
        ("cloth", {"wales": "80"}, "wales"),
        ("cloth", {"rub_grade": 6}, "rub_grade"),
        ("cloth", {"answers": {"smell": "good"}}, "answers"),
        ("cloth", {"answers": {"drape": "odd"}}, "answers"),
        ("cloth", {"bars_across": [{"width": "wide", "colour": "#ffffff"}]}, "bars_across.0.width"),
        ("cloth", {"reversible": "perhaps"}, "reversible"),
        ("treatment", {"school": "magic"}, "school"),
        ("cloth", {"width_readings": ["2 cm"]}, "width_readings.0"),
        ("cloth", {"width_readings": ["60"], "margin_low": "18 cm", "margin_high": "18 cm"}, "width_readings"),
        ("cloth", {"margin_low": "60 cm"}, "margin_low"),
        ("cloth", {"in_hand": "2 3/4"}, "in_hand"),
        ("cloth", {"price": "dear"}, "price"),
        ("cloth", {"mass": "-3"}, "mass"),
        ("cloth", {"depth": "murky"}, "depth"),
        ("cloth", {"ground": "red"}, "ground"),
        ("cloth", {"in_hand": True}, "in_hand"),
        ("", {"wash": "volcano"}, "wash"),
        ("", {"dry": "moon"}, "dry"),
        ("lay", {"folds": []}, "folds"),
        ("lay", {"folds": ["knotted"]}, "folds"),
        ("lay", {"gap": "1 m"}, "gap"),
        ("purchase", {"shop_step": 0}, "shop_step"),
        ("lay", {"lay_seconds": 0}, "lay_seconds"),
        ("lay", {"lay_seconds": "soon"}, "lay_seconds"),
    ],
)
def test_entries_that_cannot_be(person: Person, path: str, body: dict[str, object], field: str) -> None:
    person.ask("POST", "/projects", name="A")
    told = person.refused("PATCH", f"/projects/1/{path}".rstrip("/"), **body)
    assert told["fields"][0]["path"] == field


def test_optional_entries_can_be_cleared(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    person.ask("PATCH", "/projects/1/cloth", price="12", in_hand="2 m", mass="150")
    person.client.patch(
        "/api/projects/1/cloth", json={"price": None, "in_hand": None, "mass": None}, base_url="http://127.0.0.1"
    )
    cloth = person.ask("GET", "/projects/1")["cloth"]
    assert cloth["price"] is None and cloth["in_hand"] is None and cloth["mass"] is None


def test_a_swatch_may_be_half_measured(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    half = person.ask("PUT", "/projects/1/swatch", warp=[["25 cm"]] * 3)
    assert half["shrink"]["warp_known"]["basis"] == "none" and half["shrink"]["washes"] == 0
    stage = next(s for s in half["project"]["stages"] if s["name"] == "shrink")
    assert stage["state"] == "begun" and "measure it again" in stage["why"]
    whole = person.ask("PUT", "/projects/1/swatch", warp=[["25 cm", "23.5 cm"]] * 3)
    figure = whole["shrink"]["warp_known"]["figure"]
    assert figure["number"] == "6.0" and figure["sure"].startswith("± ")
    assert figure["steps"] and figure["sources"][0]["kind"] == "standard"


@pytest.mark.parametrize(
    ("body", "path", "says"),
    [
        ({"warp": [["25 cm", "2.35 cm"]]}, "warp.0.1", "shrunk by 91 %"),
        ({"weft": [["25"], ["25", "40"]]}, "weft.1.1", "Reading 2"),
        ({"warp": [["wide"]]}, "warp.0.0", "wide"),
        ({"warp": [[None, "24"]]}, "warp.0.0", "before washing first"),
        ({"diagonals": [["35", "10"]]}, "diagonals.0", "differ by more than 30 %"),
        ({"diagonals": [["35"]]}, "diagonals.0", "both diagonals"),
        ({"graduation": "1 m"}, "graduation", "graduation"),
    ],
)
def test_readings_that_cannot_be(person: Person, body: dict[str, object], path: str, says: str) -> None:
    person.ask("POST", "/projects", name="A")
    told = person.refused("PUT", "/projects/1/swatch", **body)
    assert told["fields"][0]["path"] == path and says in told["message"]


def test_a_piece_is_drawn_while_it_is_typed(person: Person) -> None:
    drawn = person.ask("POST", "/plan/outline", stations=SLEEVE, seam="1,5 cm")
    assert len(drawn["outline"]) > 20 and drawn["size"].startswith("58.0 cm long") and len(drawn["arrow"]) == 2
    told = person.refused("POST", "/plan/outline", stations=[{"along": "0", "left": "x", "right": "1"}, SLEEVE[1]])
    assert told["fields"][0]["path"] == "stations.0.left"
    assert "same place" in person.refused("POST", "/plan/outline", stations=[SLEEVE[0], SLEEVE[0]])["message"]
    assert "At least 2" in person.refused("POST", "/plan/outline", stations=[SLEEVE[0]])["message"]


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"copies": 3, "pair": True}, "even number"),
        ({"on_fold": True, "pair": True, "copies": 2}, "no pair"),
        ({"grain": "diagonal"}, "one of"),
        ({"copies": 0}, "Copies must be a whole number from 1."),
        ({"name": ""}, "name"),
        ({"seam": "wide"}, "wide"),
    ],
)
def test_pieces_that_cannot_be(person: Person, change: dict[str, object], says: str) -> None:
    person.ask("POST", "/projects", name="A")
    told = person.refused("POST", "/projects/1/pieces", **{"name": "S", "stations": SLEEVE, **change})
    assert says in told["message"]
    assert person.ask("GET", "/projects/1")["pieces"] == []


def test_a_piece_is_changed_and_drawn_again(skirt: Person) -> None:
    before = skirt.ask("GET", "/projects/1")["pieces"][0]
    after = skirt.ask("PATCH", "/pieces/1", drawn={"stations": SLEEVE[:3]}, copies=4)["pieces"][0]
    assert after["copies"] == 4 and after["outline"] != before["outline"]
    told = skirt.refused("PATCH", "/pieces/1", copies=5)
    assert "even number" in told["message"]
    assert skirt.ask("GET", "/projects/1")["pieces"][0]["copies"] == 4


def test_a_drawing_is_read_and_the_rest_listed(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    svg = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 300 300">'
        '<rect id="cuff" class="copies-2" x="0" y="0" width="100" height="50"/><image id="photo"/></svg>'
    )
    told = person.ask("POST", "/projects/1/pieces/svg", 201, file_name="cuffs.svg", svg=svg)
    assert told["added"] == ["cuff"] and any("photo" in n["what"] for n in told["not_read"])
    assert told["project"]["pieces"][0]["copies"] == 2
    assert "not an SVG" in person.refused("POST", "/projects/1/pieces/svg", svg="nonsense")["message"]
    log = person.ask("GET", "/projects/1/log")["entries"][0]
    assert "cuffs.svg" in log["what"] and log["values"]["not_read"]


def test_what_must_come_first_is_said(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    assert "pieces" in person.refused("POST", "/projects/1/lays", seed=1)["message"]
    person.ask("POST", "/projects/1/pieces", name="S", stations=SLEEVE)
    assert "width" in person.refused("POST", "/projects/1/lays", seed=1)["message"]
    person.ask("PATCH", "/projects/1/cloth", width_readings=["300 mm"], sure=True, **LINEN)
    told = person.refused("POST", "/projects/1/lays", seed=1)
    assert told["code"] == "cannot_lay" and "across, and there are only" in told["message"] and " cm" in told["message"]
    person.ask("GET", "/projects/1/lay.svg", 404)
    assert person.ask("GET", "/projects/1/lay")["lay"] is None


def test_the_log_only_grows(skirt: Person) -> None:
    entries = skirt.ask("GET", "/projects/1/log")["entries"]
    assert [e["stage"] for e in reversed(entries)] == ["plan", "cloth", "shrink", "plan", "plan"]
    assert all(e["what"].endswith(".") for e in entries)
    with skirt.app.services.database.engine.connect() as connection:
        for change in ("UPDATE log_entry SET kind = 'nothing'", "DELETE FROM log_entry"):
            with pytest.raises(IntegrityError, match="only grows"):
                connection.exec_driver_sql(change)


def test_the_tape_s_graduation_is_kept(person: Person) -> None:
    assert person.ask("PATCH", "/settings", graduation="1/16 in")["graduation"]["mm"] == pytest.approx(25.4 / 16)
    assert person.ask("PATCH", "/settings", system="imperial")["graduation"]["text"] == "1⁄16 in"
    assert person.ask("PATCH", "/settings", system="metric")["graduation"]["mm"] == 1.0, "a usual tape of either unit"
    person.ask("PATCH", "/settings", graduation="2 mm")
    assert person.ask("PATCH", "/settings", system="imperial")["graduation"]["mm"] == 2.0, "one's own stays"
    assert person.refused("PATCH", "/settings", graduation="30 cm")["fields"][0]["path"] == "graduation"


def test_many_at_once_on_a_fresh_folder(person: Person) -> None:
    # the first requests of a page come together, and a worker writes meanwhile
    from concurrent.futures import ThreadPoolExecutor

    def ask(n: int) -> int:
        client = asks(person.app)
        if n % 3 == 0:
            return client.post("/api/projects", json={"name": f"P{n}"}, base_url="http://127.0.0.1").status_code
        return client.get(["/api/projects", "/api/settings"][n % 2], base_url="http://127.0.0.1").status_code

    with ThreadPoolExecutor(8) as threads:
        assert set(threads.map(ask, range(30))) == {200, 201}
    assert len(person.ask("GET", "/projects")["projects"]) == 10


def test_a_cloth_is_not_known_before_it_was_measured(person: Person) -> None:
    person.ask("POST", "/projects", name="Apron")
    person.ask("PATCH", "/projects/1/cloth", blend=[{"fibre": "cotton", "share": 100}])

    def state() -> str:
        stages = {stage["name"]: stage["state"] for stage in person.ask("GET", "/projects/1")["stages"]}
        return str(stages["cloth"])

    seen = [state()]
    for count in (1, 2, 3):
        person.ask("PATCH", "/projects/1/cloth", width_readings=["140 cm"] * count)
        seen.append(state())
    assert seen == ["begun", "begun", "begun", "done"]
