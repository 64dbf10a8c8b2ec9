"""What is asked back of a swatch, and what a new swatch leaves standing."""

from __future__ import annotations

from ...conftest import Person


def test_a_reading_that_looks_like_a_slip_is_asked_back(skirt: Person) -> None:
    grown = {"warp": [["25 cm", "29.7 cm"], *[["25 cm", "23.5 cm"]] * 2]}
    told = skirt.refused("PUT", "/projects/1/swatch", **grown)
    assert told["code"] == "asked" and told["fields"][0]["path"] == "warp.0.1" and "grown by 18.8 %" in told["message"]
    skirt.ask("PUT", "/projects/1/swatch", sure=True, **grown)
    # what was kept once is not asked again when another row is typed
    skirt.ask("PUT", "/projects/1/swatch", warp=[*grown["warp"], ["25 cm", "23.4 cm"]])
    assert skirt.refused("PUT", "/projects/1/swatch", weft=[["25 cm", "21 cm"]])["code"] == "asked"


def test_a_measured_swatch_stands_until_the_next_one_is_measured(skirt: Person) -> None:
    def along() -> str:
        return str(skirt.ask("GET", "/projects/1/shrink")["warp_known"]["figure"]["number"])

    before = along()
    skirt.ask("POST", "/projects/1/swatches")
    assert along() == before
    skirt.ask("PUT", "/projects/1/swatch", warp=[["25 cm"]] * 3, weft=[["25 cm"]] * 3)
    assert along() == before, "marked, and not washed yet"
    skirt.ask("PUT", "/projects/1/swatch", warp=[["25 cm", "24.5 cm"]] * 3)
    assert along() != before


def test_a_milder_wash_is_said_and_set_aside(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1", wash="40")
    skirt.ask("POST", "/cloths/1/washes", wash="30-gentle")
    told = [w for w in skirt.ask("GET", "/projects/1")["warnings"] if "more mildly" in w["text"]]
    assert len(told) == 1 and told[0]["aside"] == ""
    left = skirt.ask("PUT", "/projects/1/asides", key=told[0]["key"], why="it will be washed cold")
    assert left["warnings"][-1]["aside"] == "it will be washed cold"
    skirt.ask("PUT", "/projects/1/asides", key=told[0]["key"])
    assert not any(w["aside"] for w in skirt.ask("GET", "/projects/1")["warnings"])
    skirt.ask("POST", "/cloths/1/washes", wash="40")
    assert not [w for w in skirt.ask("GET", "/projects/1")["warnings"] if "more mildly" in w["text"]]


def test_a_trim_of_two_centimetres_is_a_cloth(skirt: Person) -> None:
    skirt.ask("POST", "/projects/1/uses", name="Ribbon", role="trim")
    assert skirt.refused("PATCH", "/projects/1/cloth?use=2", width_readings=["2 cm"])["code"] == "asked"
    told = skirt.ask("PATCH", "/projects/1/cloth?use=2", sure=True, width_readings=["2 cm"], weave="ribbon")
    assert told["cloth"]["width_readings"][0]["mm"] == 20
