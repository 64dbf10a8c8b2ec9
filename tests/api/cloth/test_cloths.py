"""Cloths: the full record, the cupboard, sets, photos and washes."""

from __future__ import annotations

import base64
import io
from urllib.parse import quote

import pytest
from PIL import Image

from idle_selvage.store import models

from ...conftest import Person, data_of, photo

LINEN = [{"fibre": "linen", "share": 100}]


def names(told: dict[str, list[dict[str, dict[str, str]]]]) -> list[str]:
    return [line["cloth"]["name"] for line in told["cloths"]]


def test_the_full_record_is_kept_and_read(person: Person) -> None:
    person.ask("POST", "/cloths", 201, name="Corduroy, rust")
    kept = person.ask(
        "PATCH",
        "/cloths/1",
        blend=[{"fibre": "cotton", "share": "80"}, {"fibre": "polyester", "share": 20}],
        weave="corduroy",
        finish="washed",
        colouring="printed",
        width_readings=["140", "142", "138.5"],
        direction="nap",
        pile="down",
        pile_why="wears better",
        wales="11",
        face="the ribs",
        face_mark="chalk",
        reversible=False,
        rub_grade=3,
        style_number="C 11",
        place="Blue box",
        answers={"drape": "stiff"},
    )
    assert kept["made_of"] == "80 % cotton, 20 % polyester" and kept["blend_note"] == ""
    assert "1 cm apart" in kept["width_note"] and kept["one_way"] and "wears better" in kept["pile_note"]
    assert kept["wale_note"].startswith("Medium wale") and "gather" in kept["advice"][0]
    assert "grade 3" in kept["washed_alone"] and "dye-catching" in kept["dye_note"]
    assert "firm" not in kept["margin_hint"]
    assert "edge of the sequins" in person.ask("PATCH", "/cloths/1", weave="sequin")["margin_hint"]
    assert "turns firm" in person.ask("PATCH", "/cloths/1", weave="fur")["margin_hint"]
    part = person.ask("PATCH", "/cloths/1", answers={"sheer": "yes"})
    assert set(part["answers"]) == {"drape", "sheer"}, "an answer does not undo another"
    assert person.ask("PATCH", "/cloths/1", answers={"sheer": ""})["answers"] == {"drape": "stiff"}


def test_bars_are_read_off(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    red, ecru = {"width": "1 cm", "colour": "#A02020"}, {"width": "3 cm", "colour": "#E8E0D0"}
    told = person.ask("PATCH", "/projects/1/cloth", bars_across=[red, ecru], width_readings=["112"])
    across = told["cloth"]["across"]
    assert across["repeat"]["text"] == "4.0 cm" and across["balanced"] and across["axes"] == [5.0, 25.0]
    assert told["cloth"]["bars_across"][0]["text"] == "1.0 cm" and across["dominant"]["colour"] == "#A02020"
    assert any("say under Plan, Seams, what shall" in w["text"] for w in told["warnings"])
    printed = person.ask("PATCH", "/projects/1/cloth", colouring="printed")["cloth"]
    assert any("may not follow the threads" in note for note in printed["bars_note"])
    fine = person.ask("PATCH", "/projects/1/cloth", bars_across=[{**red, "width": 2}, {**ecru, "width": 2}])
    assert not fine["cloth"]["across"]["seen"] and not any("on Plan" in w["text"] for w in fine["warnings"])


def test_flaws_and_the_faded_fold(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    spot = {"x": "52 cm", "y": "96 cm", "w": "3 cm", "h": "2 cm", "what": "ink"}
    told = person.ask("PATCH", "/projects/1/cloth", width_readings=["138"], flaws=[spot], shop_fold="69 cm")
    assert told["cloth"]["flaws"][0]["x"]["text"] == "52.0 cm" and told["cloth"]["shop_fold"]["mm"] == 690
    beyond = person.refused("PATCH", "/projects/1/cloth", flaws=[{**spot, "y": "2 m"}])
    assert beyond["fields"][0]["path"] == "flaws.0.y" and "past the far selvage" in beyond["message"]
    assert "past" in person.refused("PATCH", "/projects/1/cloth", shop_fold="2 m")["message"]


def test_the_cupboard_is_searched_by_every_fact(person: Person) -> None:
    for name, place in (("Linen, oat", "Blue box"), ("Linen, rose", "Drawer"), ("Lawn", "Blue box")):
        number = person.ask("POST", "/cloths", name=name)["id"]
        person.ask("PATCH", f"/cloths/{number}", place=place, blend=LINEN if "Linen" in name else [], in_hand="60 cm")
    assert names(person.ask("GET", "/cloths")) == ["Lawn", "Linen, rose", "Linen, oat"]
    found = person.client.get("/api/cloths?words=blue+LINEN", base_url="http://127.0.0.1").get_json()
    assert names(found) == ["Linen, oat"] and found["of"] == 3
    line = found["cloths"][0]
    person.ask("POST", "/cloths/3/washes", how="40 °C")
    assert person.ask("GET", "/cloths")["cloths"][0]["left"] == "60.0 cm as bought, pre-treated"
    assert line["left"] == "60.0 cm" and "planning range" in line["shrinkage"] and line["projects"] == []


def test_a_cloth_in_use_stays_and_another_can_be_brought_back(person: Person) -> None:
    person.ask("POST", "/projects", name="Skirt")
    assert "used for Skirt" in person.ask("DELETE", "/cloths/1", 422)["message"]
    person.ask("POST", "/cloths", name="Spare")
    assert names(person.ask("DELETE", "/cloths/2")) == [""]
    person.ask("GET", "/cloths/2", 404)
    assert person.ask("POST", "/cloths/2/restore")["name"] == "Spare"


def test_a_project_is_made_of_a_cloth_of_the_cupboard(person: Person) -> None:
    person.ask("POST", "/projects", name="Skirt")
    person.ask("POST", "/cloths", name="Remnant")
    assert person.ask("PUT", "/projects/1/cloth/use", cloth_id=2)["cloth"]["name"] == "Remnant"
    assert names(person.ask("GET", "/cloths")) == ["Remnant"], "a cloth nothing was noted of is not kept"
    person.ask("PUT", "/projects/1/cloth/use", 404, cloth_id=9)


def test_cloths_that_go_together(person: Person) -> None:
    person.ask("POST", "/projects", name="Waistcoat")
    person.ask("PATCH", "/projects/1/cloth", name="Poly", blend=[{"fibre": "polyester", "share": 100}])
    sheer = person.ask("PATCH", "/projects/1/cloth", answers={"sheer": "yes"})["set"]
    assert "put a lining beside it" in sheer["wanted"][0]
    told = person.ask("POST", "/projects/1/uses", 201, name="Twill", role="lining")
    assert told["set"]["wanted"] == []
    assert [m["role"] for m in told["set"]["members"]] == ["main", "lining"]
    person.ask("PATCH", "/cloths/2", blend=[{"fibre": "viscose", "share": 100}])
    told = person.ask("GET", "/projects/1")
    # viscose 5–10 and 3–8, polyester 0–1: 7.5 − 0.5 and 5.5 − 0.5 points apart
    assert [m.split(":")[0] for m in told["set"]["mismatches"]] == [
        "Twill shrinks 7.0 points more along and 5.0 points more across than Poly"
    ]
    assert [w["level"] for w in told["warnings"] if "pucker" in w["text"]] == ["spoil"]
    person.ask("POST", "/cloths/2/washes", how="30 °C")
    assert "Twill was pre-treated, so Poly must be too." in person.ask("GET", "/projects/1")["set"]["all_washed"]
    assert person.ask("GET", "/projects/1")["set"]["mismatches"] == [], "what was treated shrinks no more"
    for body, says in (
        ({"role": "main", "name": "x"}, "must be one of"),
        ({"role": "trim"}, "Give it a name"),
    ):
        assert says in person.refused("POST", "/projects/1/uses", **body)["message"]
    assert "stays" in person.refused("DELETE", "/projects/1/uses/1")["message"]
    assert len(person.ask("DELETE", "/projects/1/uses/2")["set"]["members"]) == 1
    assert person.ask("POST", "/projects/1/uses/2/restore")["uses"][1]["name"] == "Twill"
    assert len(person.ask("GET", "/cloths")["cloths"]) == 2, "it stays in the cupboard"


def test_a_photo_is_kept_small_and_can_be_taken_away(person: Person) -> None:
    person.ask("POST", "/cloths", name="Linen")
    told = person.ask("PUT", "/cloths/1/photo", data=base64.b64encode(photo(2000, 1000)).decode())
    answer = person.client.get(told["photo"], base_url="http://127.0.0.1")
    assert answer.mimetype == "image/jpeg" and Image.open(io.BytesIO(answer.data)).size == (1600, 800)
    for bad in ("not base64!", base64.b64encode(b"text").decode()):
        assert person.refused("PUT", "/cloths/1/photo", data=bad)["fields"][0]["path"] == "data"
    assert person.ask("DELETE", "/cloths/1/photo")["photo"] is None
    person.ask("GET", "/cloths/1/photo", 404)
    assert person.ask("POST", "/cloths/1/photo/restore")["photo"] is not None
    person.ask("POST", "/cloths", name="Other")
    person.ask("DELETE", "/cloths/2/photo", 404)


def test_washes_of_the_length_until_the_rag_is_clean(person: Person) -> None:
    person.ask("POST", "/cloths", name="Denim")
    person.ask("PATCH", "/cloths/1", depth="dark", rub_grade=2, width_readings=["150"], in_hand="2 m", blend=LINEN)
    told = person.ask("POST", "/cloths/1/washes", 201, how="40 °C", grade=4, length_after="1,9 m")
    assert "again" in told["dye_note"] and told["washes"][0]["length_after"]["text"] == "190.0 cm"
    assert "nothing more" in person.ask("POST", "/cloths/1/washes", how="40 °C", grade=5)["dye_note"]
    assert person.refused("POST", "/cloths/1/washes", how=" ")["fields"][0]["path"] == "how"
    made = person.ask("POST", "/cloths/1/washes", stand_in=True)["washes"][-1]
    assert made["simulated"] and 1800 < made["length_after"]["mm"] < 2000 and made["width_after"]["mm"] < 1500
    assert len(person.ask("DELETE", "/cloths/1/washes/2")["washes"]) == 2, "one written down by mistake"
    assert len(person.ask("POST", "/cloths/1/washes/2/restore")["washes"]) == 3
    person.ask("POST", "/cloths", name="Unknown")
    person.ask("DELETE", "/cloths/2/washes/1", 404)
    assert "length in hand" in person.refused("POST", "/cloths/2/washes", stand_in=True)["message"]


@pytest.mark.parametrize(
    ("body", "path"),
    [
        ({"grade": 7, "how": "x"}, "grade"),
        ({"length_after": "long"}, "length_after"),
        ({"how": "x", "where": "y"}, "where"),
    ],
)
def test_washes_that_cannot_be(person: Person, body: dict[str, object], path: str) -> None:
    person.ask("POST", "/cloths", name="Linen")
    assert person.refused("POST", "/cloths/1/washes", **body)["fields"][0]["path"] == path


def test_what_was_measured_before_a_wash_is_shown_where_it_is_now(person: Person) -> None:
    """Bars and the faded shop fold shrink with the cloth; their entries stay what was read."""
    person.ask("POST", "/projects", name="A")
    red, ecru = {"width": "1 cm", "colour": "#A02020"}, {"width": "3 cm", "colour": "#E8E0D0"}
    known = {"width_readings": ["100"], "in_hand": "200", "shop_fold": "50", "bars_across": [red, ecru]}
    before = person.ask("PATCH", "/projects/1/cloth", **known)["cloth"]
    assert before["bars_now"] == [1.0, 1.0] and before["shop_fold_now"]["mm"] == 500.0
    person.ask("PUT", "/projects/1/swatch", warp=[["20", "19"]] * 3, weft=[["20", "18"]] * 3)
    person.ask("POST", "/cloths/1/washes", 201, how="40")
    after = person.ask("GET", "/projects/1")["cloth"]
    assert after["bars_now"] == pytest.approx([0.95, 0.9]) and after["bars_across"] == before["bars_across"]
    assert after["shop_fold_now"]["mm"] == pytest.approx(450.0) and after["shop_fold"]["mm"] == 500.0
    # read again on the washed cloth it is where it was read
    again = person.ask("PATCH", "/projects/1/cloth", shop_fold="46")["cloth"]
    assert again["shop_fold_now"]["mm"] == again["shop_fold"]["mm"] == 460.0


def test_a_reading_of_a_digital_tape_is_kept_as_such(person: Person) -> None:
    person.ask("POST", "/projects", name="A")

    def read_by() -> list[str]:
        with data_of(person.app).begin() as session:
            return [row.by for row in session.query(models.Reading).order_by(models.Reading.place)]

    person.ask("PATCH", "/projects/1/cloth", width_readings=["140", "141"])
    assert read_by() == ["tape", "tape"]
    answer = person.client.patch(
        "/api/projects/1/cloth",
        json={"width_readings": ["140", "142"]},
        headers={"X-Read-With": "device"},
        base_url="http://127.0.0.1",
    )
    assert answer.status_code == 200 and read_by() == ["tape", "device"]
    person.ask("PATCH", "/projects/1/cloth", width_readings=["140", "143"])
    assert read_by() == ["tape", "tape"], "the next one was typed again"


def test_the_cupboard_is_found_by_fibre_share_garment_and_any_letter(person: Person) -> None:
    for name, blend in (
        ("Ökru", [("linen", 55), ("cotton", 45)]),
        ("Plain", [("viscose", 100)]),
        ("50 % off", [("silk", 100)]),
    ):
        number = person.ask("POST", "/cloths", name=name)["id"]
        person.ask("PATCH", f"/cloths/{number}", blend=[{"fibre": f, "share": s} for f, s in blend], place="Box_1")
    person.ask("POST", "/projects", name="Apron")
    person.ask("PUT", "/projects/1/cloth/use", cloth_id=2)

    def found(words: str) -> set[str]:
        told = person.ask("GET", "/cloths?words=" + quote(words))
        return {line["cloth"]["name"] for line in told["cloths"]} - {""}

    assert found("ökru") == found("ÖK") == found("cotton") == found("55 % linen") == {"Ökru"}
    assert found("apron") == {"Plain"} and found("silk linen") == set()
    # what is a sign to the database is a letter to a person
    assert found("box_1") == {"Ökru", "Plain", "50 % off"} and found("bo%1") == set()
    assert person.ask("GET", "/cloths?words=silk")["of"] == person.ask("GET", "/cloths")["of"] > 2


def test_a_length_is_kept_for_the_state_that_is_meant(person: Person) -> None:
    person.ask("POST", "/projects", name="Skirt")
    person.ask("PATCH", "/projects/1/cloth", in_hand="3 m", width_readings=["140 cm"])
    wash = person.ask("POST", "/cloths/1/washes", 201, how="40 °C")["washes"][0]["id"]
    told = person.ask("PATCH", "/cloths/1", in_hand="2,8 m", state=wash)
    assert [s["length"]["text"] for s in told["states"]] == ["300.0 cm", "280.0 cm"]
    told = person.ask("PATCH", "/cloths/1", in_hand="2,9 m", state=0)
    assert [s["length"]["text"] for s in told["states"]] == ["290.0 cm", "280.0 cm"]
    refused = person.refused("PATCH", "/cloths/1", in_hand="2 m", state=wash + 1)
    assert refused["fields"][0]["path"] == "state"
