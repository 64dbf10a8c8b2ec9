"""How it came out over the API: measured beside predicted, what it teaches, why, and the reminder."""

from __future__ import annotations

import math
from typing import Any

import pytest
from icalendar import Calendar

from idle_selvage.operations.match import matching
from idle_selvage.operations.project import read_garment
from idle_selvage.operations.true import TrueStanding

from ...conftest import Person, data_of

P = "/projects/1"


@pytest.fixture
def slanted(skirt: Person) -> Person:
    """A skirt whose weft was found to slant, and left so."""
    skirt.ask("PATCH", f"{P}/true", now={"offset": "30 mm", "side": "far"})
    skirt.ask("POST", f"{P}/true/tests")
    return skirt


def outcomes(person: Person) -> Any:
    return person.ask("GET", f"{P}/outcomes")


def measurable(person: Person, kind: str, what: str | None = None) -> Any:
    return next(one for one in outcomes(person)["measurable"] if one["kind"] == kind and what in (None, one["what"]))


def test_a_twist_stands_beside_what_was_predicted_then(slanted: Person) -> None:
    one = measurable(slanted, "twist")
    assert one["predicted"]["value"] > 0 and "hem" in one["how"]
    with data_of(slanted.app).look() as session:
        shown = {t.piece.name: t.twist.twist.value for t in TrueStanding(read_garment(session, 1)).twists}
    assert one["predicted"]["value"] == pytest.approx(shown[one["what"]])
    found = slanted.ask("POST", f"{P}/outcomes", 201, kind="twist", number=one["number"], measured="35 mm", washes=3,
                        note="after the concert")  # fmt: skip
    (kept,) = found["kept"]
    assert kept["measured"]["value"] == 35.0 and kept["predicted"]["value"] == one["predicted"]["value"]
    assert kept["difference"]["value"] == pytest.approx(35.0 - one["predicted"]["value"])
    assert kept["washes"] == 3 and kept["what"] == one["what"]
    # what was predicted then stays, though the cloth is told to be true since
    slanted.ask("PATCH", f"{P}/true", now={"offset": "0 mm", "side": "far"})
    slanted.ask("POST", f"{P}/true/tests")
    assert measurable(slanted, "twist", one["what"])["predicted"]["value"] == pytest.approx(0.0, abs=1e-6)
    assert outcomes(slanted)["kept"][0]["predicted"] == kept["predicted"]


def test_shrinkage_again_is_worked_out_from_the_same_distance(skirt: Person) -> None:
    assert "before the washes" in skirt.refused("POST", f"{P}/outcomes", kind="warp")["message"]
    found = skirt.ask("POST", f"{P}/outcomes", 201, kind="warp", before="25 cm", after="24.5 cm", washes=5)
    assert found["kept"][0]["measured"]["value"] == pytest.approx(2.0)
    # the cloth will have been washed when it is cut: nothing was to come, and two per cent came
    assert found["kept"][0]["predicted"]["value"] == 0.0
    assert found["kept"][0]["difference"]["value"] == pytest.approx(2.0) and not found["kept"][0]["foreseen"]
    told = skirt.refused("POST", f"{P}/outcomes", kind="weft", before="25 cm", after="1 cm")
    assert "more than cloth does" in told["message"]


def test_what_cannot_be_is_refused(skirt: Person) -> None:
    assert "a piece" in skirt.refused("POST", f"{P}/outcomes", kind="twist", measured="1 cm")["message"]
    assert "a piece" in skirt.refused("POST", f"{P}/outcomes", kind="twist", number=99, measured="1 cm")["message"]
    assert "from 1 to 5" in skirt.refused("POST", f"{P}/outcomes", kind="fit", grade=6)["message"]
    assert "give what" in skirt.refused("POST", f"{P}/outcomes", kind="fit")["message"]
    skirt.refused("POST", f"{P}/outcomes", kind="nonsense")
    assert skirt.ask("POST", f"{P}/outcomes", 201, kind="fit", grade=4)["kept"][0]["foreseen"] is None


def test_struck_out_and_brought_back_by_undo(skirt: Person) -> None:
    kept = skirt.ask("POST", f"{P}/outcomes", 201, kind="fit", grade=4)["kept"]
    assert skirt.ask("DELETE", f"{P}/outcomes/{kept[0]['id']}")["kept"] == []
    skirt.ask("DELETE", f"{P}/outcomes/{kept[0]['id']}", 404)
    skirt.ask("POST", "/undo?project=1")
    assert outcomes(skirt)["kept"] == kept


def test_why_did_it_twist(slanted: Person) -> None:
    twisted = measurable(slanted, "twist")
    found = slanted.ask("GET", f"{P}/why?complaint=twist&number={twisted['number']}")
    first = found["reasons"][0]
    assert first["sure"] == "reckoned" and "slanted" in first["told"]
    assert first["explains"]["mm"] == pytest.approx(twisted["predicted"]["value"], rel=0.1)
    sure = [one["sure"] for one in found["reasons"]]
    assert sure == sorted(sure, key=["reckoned", "hinted", "open"].index)
    for complaint in ("short", "narrow", "bars", "pucker", "dye"):
        assert slanted.ask("GET", f"{P}/why?complaint={complaint}")["headline"]
    slanted.refused("GET", f"{P}/why?complaint=ugly")


def test_the_own_hand_is_learned_from_cut_pieces_and_used_by_match(skirt: Person) -> None:
    piece = measurable(skirt, "laying")["number"]
    for off in ("2 mm", "3 mm", "2 mm", "1 mm"):
        skirt.ask("POST", f"{P}/outcomes", 201, kind="laying", number=piece, measured=off)
    found = skirt.ask("GET", "/teaches")
    hand = math.sqrt((4 + 9 + 4 + 1) / 4)
    assert found["laid"] == 4 and found["hand"]["mm"] == pytest.approx(hand, abs=0.01)
    with data_of(skirt.app).look() as session:
        doubt = matching(session, read_garment(session, 1)).doubt
    assert doubt.learned == 4 and doubt.hand == pytest.approx(hand)
    (laying,) = [one for one in found["learned"] if one["kind"] == "laying"]
    assert laying["count"] == 4 and len(laying["points"]) == 4


def test_what_was_bought_too_much(skirt: Person) -> None:
    skirt.lay(1, seconds=1)
    skirt.ask("PATCH", f"{P}/cloth", in_hand="4 m", price="20")
    found = skirt.ask("GET", "/teaches")
    (one,) = found["bought"]
    assert one["over"]["mm"] == pytest.approx(abs(4000.0 - one["needed"]["mm"]), abs=1.0) and not one["short"]
    assert "more" in found["over_told"] and one["cost"]


def test_a_cloth_of_two_garments_was_bought_once(skirt: Person) -> None:
    skirt.lay(1, seconds=1)
    skirt.ask("PATCH", f"{P}/cloth", in_hand="4 m", price="20")
    (alone,) = skirt.ask("GET", "/teaches")["bought"]
    cloth = skirt.ask("GET", P)["uses"][0]["cloth_id"]
    skirt.ask("POST", "/projects", name="Second")
    skirt.ask("POST", "/projects/2/uses", role="lining", cloth_id=cloth)
    # what the second needs is not known yet, so nothing is told
    assert [one["cloth"] for one in skirt.ask("GET", "/teaches")["bought"]] == []
    assert alone["garment"] == "Skirt"


def test_a_reminder_for_the_calendar(skirt: Person) -> None:
    answer = skirt.client.get("/api/projects/1/came-out.ics?days=10", base_url="http://127.0.0.1")
    (event,) = Calendar.from_ical(answer.get_data()).walk("VEVENT")
    assert "Skirt" in str(event["summary"]) and "measure again" in str(event["description"])
    skirt.refused("GET", f"{P}/came-out.ics?days=0")
