"""The demo scenario: loaded through the same doors, complete, and ours."""

from __future__ import annotations

from typing import Any

import pytest

from ..conftest import Person


@pytest.fixture
def outfits(choir: Person) -> dict[str, dict[str, Any]]:
    lines = choir.ask("GET", "/projects")["projects"]
    return {line["name"]: choir.ask("GET", f"/projects/{line['id']}") for line in lines}


def test_six_garments_of_one_choir(outfits: dict[str, dict[str, Any]]) -> None:
    garments = ("Six-gore skirt", "Boxy overshirt", "Notched waistcoat", "Bias slip", "Bow ties and cuffs")
    assert set(outfits) == {*garments, "Check waistcoat"}
    assert all(p["pieces"] and not any(piece["fault"] for piece in p["pieces"]) for p in outfits.values())
    assert outfits["Notched waistcoat"]["cloth"]["one_way"] and outfits["Notched waistcoat"]["cloth"]["pile"] == "up"
    skirt = outfits["Six-gore skirt"]["cloth"]
    assert skirt["along"]["balanced"] and not skirt["across"]["balanced"] and skirt["colouring"] == "yarn-dyed"
    assert outfits["Boxy overshirt"]["cloth"]["across"]["balanced"], "a stripe that mirrors"
    assert outfits["Bow ties and cuffs"]["cloth"]["flaws"] and outfits["Bow ties and cuffs"]["cloth"]["shop_fold"]
    assert {p["grain"] for p in outfits["Bias slip"]["pieces"]} == {"bias"}


def test_each_shrinkage_rests_on_something_else(choir: Person, outfits: dict[str, dict[str, Any]]) -> None:
    def basis(name: str) -> str:
        return str(choir.ask("GET", f"/projects/{outfits[name]['id']}/shrink")["warp_known"]["basis"])

    assert basis("Boxy overshirt") == "swatch" and basis("Bias slip") == "range"
    # three linens of earlier years are in the cupboard: a new linen is planned from them
    number = choir.ask("POST", "/projects", name="Apron")["id"]
    # they were washed at 40 °C and hung to dry, as it will be
    choir.ask("PATCH", f"/projects/{number}", wash="40", dry="line")
    choir.ask("PATCH", f"/projects/{number}/cloth", blend=[{"fibre": "linen", "share": 100}])
    told = choir.ask("GET", f"/projects/{number}/shrink")
    assert told["warp_known"]["basis"] == "history" and len(told["past"]) == 3, (
        "the overshirt's own was washed once: nothing proves its rest"
    )


def test_what_the_demo_warns_of(outfits: dict[str, dict[str, Any]]) -> None:
    said = {name: " ".join(w["text"] for w in p["warnings"]) for name, p in outfits.items()}
    assert "would pucker" in said["Notched waistcoat"] and "would pucker" not in said["Boxy overshirt"]
    assert "say under Plan, Seams, what shall" not in said["Six-gore skirt"] and "planning range" in said["Bias slip"]
    assert "say under Plan, Seams, what shall" in said["Bow ties and cuffs"], "a border that nothing is matched to"
    assert "The faded fold cannot be kept off" in said["Bow ties and cuffs"], "a bow reaches over it"
    assert "fewer than three places" in said["Bow ties and cuffs"]
    assert outfits["Bias slip"]["set"]["wanted"], "a crepe that shows what is under it asks for a lining"


def test_the_demo_can_be_gone_through_without_water(choir: Person, outfits: dict[str, dict[str, Any]]) -> None:
    number = outfits["Bias slip"]["id"]
    choir.ask("PUT", f"/projects/{number}/swatch", warp=[["25 cm"]] * 3, weft=[["25 cm"]] * 3)
    for wash in range(1, 9):
        told = choir.ask("POST", f"/projects/{number}/swatch/wash")["shrink"]
        assert told["washes"] == wash and told["simulated"]
        if told["verdict"] == "stable":
            break
    assert told["verdict"] == "stable" and told["advice"]["school"]["value"] == "mirror"


def test_the_cupboard_of_the_demo(choir: Person, outfits: dict[str, dict[str, Any]]) -> None:
    lines = choir.ask("GET", "/cloths")["cloths"]
    assert len(lines) == 12 and all(line["cloth"]["name"] for line in lines)
    treated = [line for line in lines if line["cloth"]["treated"]]
    assert len(treated) == 3 and all("pre-treated" in line["left"] and not line["projects"] for line in treated)
