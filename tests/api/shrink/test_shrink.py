"""Shrink through the API: several washes, history, the stand-in washer, the tape, schools."""

from __future__ import annotations

import pytest

from idle_selvage.core.shrink.treatment import Programme
from idle_selvage.standins.washer import Report, Specimen

from ...conftest import Person

LINEN = [{"fibre": "linen", "share": 100}]


def project(person: Person, name: str = "A", after: str | None = None) -> int:
    number = int(person.ask("POST", "/projects", name=name)["id"])
    person.ask("PATCH", f"/projects/{number}/cloth", name=f"Linen of {name}", blend=LINEN)
    if after:
        person.ask("PUT", f"/projects/{number}/swatch", warp=[["25", after]] * 3, weft=[["25", "24.5"]] * 3)
    return number


def test_several_washes_a_shape_and_a_verdict(person: Person) -> None:
    project(person)
    kept = person.ask(
        "PUT",
        "/projects/1/swatch",
        warp=[["25", "23.8", "23.5", None]] * 3,
        weft=[["25", "24.5", "24.3"]] * 3,
        diagonals=[["35,4", "35,4"], None, ["34,2", "33,5"], None],
    )["shrink"]
    assert kept["washes"] == 2 and [c["wash"] for c in kept["cycles"]] == [1, 2]
    assert kept["verdict"] == "again" and "1.3 %" in kept["verdict_text"]
    assert kept["cycles"][1]["skew"]["number"] == "2.1" and kept["cycles"][0]["skew"] is None
    assert len(kept["before_corners"]) == len(kept["cycles"][1]["corners"]) == 4
    assert kept["cycles"][1]["corners"][3][0] > 0, "the far side leans the way of the longer diagonal"
    assert kept["warp_known"]["figure"]["number"] == "6.0" and kept["too_small"] is False


def test_one_diagonal_waits_for_the_other(person: Person) -> None:
    project(person, "A", "24")
    half = person.ask("PUT", "/projects/1/swatch", diagonals=[None, ["34,2", None]])["shrink"]
    assert half["diagonals"][1][0]["text"] == "34.2 cm" and half["diagonals"][1][1] is None
    assert half["cycles"][0]["skew"] is None, "one says nothing yet, and is kept"
    both = person.ask("PUT", "/projects/1/swatch", diagonals=[None, ["34,2", "33,5"]])["shrink"]
    assert both["cycles"][0]["skew"]["number"] == "2.1"
    assert person.ask("PUT", "/projects/1/swatch", diagonals=[None, [None, None]])["shrink"]["diagonals"] == []


def test_a_cloth_that_has_not_come_to_rest_is_not_done(person: Person) -> None:
    project(person)

    def shrink(*washes: str) -> tuple[str, str]:
        rows = [["25", *washes]] * 3
        told = person.ask("PUT", "/projects/1/swatch", warp=rows, weft=rows)["project"]
        return next((s["state"], s["why"]) for s in told["stages"] if s["name"] == "shrink")

    assert shrink("24")[0] == "done", "one wash does for most cloth"
    state, why = shrink("24", "23.7")
    assert state == "begun" and "wash once more" in why
    assert shrink("24", "23.7", "23.7")[0] == "done"


def test_a_swatch_too_small_to_tell_says_how_large_it_should_be(person: Person) -> None:
    project(person)
    told = person.ask("PUT", "/projects/1/swatch", warp=[["4", "3.9"]], weft=[["4", "3.9"]])["shrink"]
    assert told["too_small"] and told["marks_told"].startswith(
        "Too small to tell 1 % with this tape: mark at least 8.2 cm"
    )
    # marked as far apart as it says, it will do
    wider = person.ask("PUT", "/projects/1/swatch", warp=[["8.2", "8"]], weft=[["8.2", "8"]])["shrink"]
    assert not wider["too_small"] and "1 reading." in wider["marks_told"]


def test_own_tests_of_like_cloth_narrow_the_guess(person: Person) -> None:
    for name, after in (("A", "23.75"), ("B", "23.5"), ("C", "23.25")):
        number = project(person, name, after)
        assert person.ask("GET", f"/projects/{number}/shrink")["past"] == [], "nobody's first wash proves a rest"
    for number, after in ((1, "23.75"), (2, "23.5"), (3, "23.25")):
        rows = [["25", after, after]] * 3
        person.ask("PUT", f"/projects/{number}/swatch", warp=rows, weft=rows)
    assert "From 3 tests on" in person.ask("GET", "/projects/3/shrink")["past_note"]
    person.ask("POST", "/projects", name="D")
    assert person.ask("GET", "/projects/4/shrink")["past"] == [], "nothing is alike before the fibre is known"
    person.ask("PATCH", "/projects/4/cloth", blend=LINEN)
    told = person.ask("GET", "/projects/4/shrink")
    warp = told["warp_known"]
    # 5, 6 and 7 %: mean 6, spread 1, planned with 6 + 2.920 × 1 × √(1 + 1/3)
    assert warp["basis"] == "history" and warp["figure"]["number"] == "6.0" and warp["plan"]["number"] == "9.4"
    assert (
        len(told["past"]) == 3
        and told["past_note"].startswith("3 tests")
        and warp["figure"]["sources"][0]["kind"] == "your own log"
    )
    person.ask("PATCH", "/projects/4/cloth", weave="gauze", blend=[{"fibre": "cotton", "share": 100}])
    assert person.ask("GET", "/projects/4/shrink")["warp_known"]["basis"] == "range", "another kind is not alike"
    person.ask("PUT", "/projects/4/swatch", warp=[["25", "24"]], weft=[["25", "24"]])
    assert person.ask("GET", "/projects/4/shrink")["warp_known"]["basis"] == "swatch"


def test_made_up_readings_are_marked_and_teach_nothing(person: Person) -> None:
    for name in "ABC":
        number = project(person, name)
        person.ask("PUT", f"/projects/{number}/swatch", warp=[["25"]] * 3, weft=[["25"]] * 3)
        first = person.ask("POST", f"/projects/{number}/swatch/wash", cloth_id=None)["shrink"]
        assert first["simulated"] and first["washes"] == 1 and first["warp_known"]["basis"] == "swatch"
        told = person.ask("POST", f"/projects/{number}/swatch/wash", cloth_id=None)
        assert told["shrink"]["washes"] == 2
        assert next(s["state"] for s in told["project"]["stages"] if s["name"] == "shrink") == "look-again"
        assert any("made up" in w["text"] for w in told["project"]["warnings"])
    number = project(person, "D")
    assert person.ask("GET", f"/projects/{number}/shrink")["warp_known"]["basis"] == "range"
    assert "Mark the swatch" in person.refused("POST", f"/projects/{number}/swatch/wash", cloth_id=None)["message"]
    person.ask("PUT", f"/projects/{number}/swatch", warp=[["25", "24"], ["25"]], weft=[["25", "24"]])
    assert "missing" in person.refused("POST", f"/projects/{number}/swatch/wash", cloth_id=None)["message"]


def test_another_swatch_and_back(person: Person) -> None:
    project(person, "A", "23.5")
    fresh = person.ask("POST", "/projects/1/swatches", 201)["shrink"]
    assert fresh["washes"] == 0 and fresh["warp_known"]["basis"] == "swatch" and len(fresh["swatches"]) == 2
    person.ask("PUT", "/projects/1/swatch", warp=[["25", "24"]], weft=[["25", "24"]])
    back = person.ask("PUT", "/projects/1/swatch/use", swatch_id=1)["shrink"]
    assert back["warp_known"]["figure"]["number"] == "6.0" and [s["used"] for s in back["swatches"]] == [False, True]
    person.ask("PUT", "/projects/1/swatch/use", 404, swatch_id=9)


def test_a_lining_has_a_swatch_of_its_own(person: Person) -> None:
    project(person)
    lining = person.ask("POST", "/projects/1/uses", name="Twill", role="lining")["uses"][1]["id"]
    kept = person.ask("PUT", f"/projects/1/swatch?use={lining}", warp=[["25", "24"]], weft=[["25", "24"]])
    assert kept["shrink"]["cloth_name"] == "Twill" and kept["project"]["set"]["members"][1]["basis"] == "swatch"
    assert person.ask("GET", "/projects/1/shrink")["washes"] == 0
    project(person, "B")
    answer = person.client.get(f"/api/projects/2/shrink?use={lining}", base_url="http://127.0.0.1")
    assert answer.status_code == 404


def test_schools_of_treatment(person: Person) -> None:
    project(person)
    person.ask("PATCH", "/projects/1", wash="40", dry="tumble-low")
    advice = person.ask("GET", "/projects/1/shrink")["advice"]
    assert advice["school"]["value"] == "mirror" and not advice["chosen"]
    assert [s["value"] for s in advice["schools"]] == ["mirror", "harder", "soak", "leave", "fit"]
    person.ask("PATCH", "/projects/1/treatment", school="harder")
    advice = person.ask("GET", "/projects/1/shrink")["advice"]
    assert advice["chosen"] and any("60 °C" in s["text"] for s in advice["steps"])
    assert "Changed the treatment." in [e["what"] for e in person.ask("GET", "/projects/1/log")["entries"]]
    person.ask("PATCH", "/projects/1", wash="dry-clean")
    person.ask("PATCH", "/projects/1/treatment", school="")
    assert person.ask("GET", "/projects/1/shrink")["advice"]["school"]["value"] == "leave"


def test_shrink_to_fit_needs_to_know_how_much(person: Person) -> None:
    person.ask("POST", "/projects", name="A")
    person.ask("PATCH", "/projects/1/cloth", width_readings=["150"] * 3)
    stations = [{"along": "0", "left": "9", "right": "9"}, {"along": "40", "left": "9", "right": "9"}]
    person.ask("POST", "/projects/1/pieces", name="P", stations=stations)
    person.ask("PATCH", "/projects/1/treatment", school="fit")
    assert "how much to enlarge" in person.refused("POST", "/projects/1/lays", seed=1)["message"]


def test_readings_come_in_from_the_tape(person: Person) -> None:
    start = person.ask("GET", "/tape/readings")["last"]
    assert person.ask("POST", "/tape/readings", 201, value=248.5)["length"]["text"] == "24.9 cm"
    person.ask("POST", "/tape/readings", value="9 3/4 in")
    told = person.client.get(f"/api/tape/readings?after={start}", base_url="http://127.0.0.1").get_json()
    assert [round(r["length"]["mm"], 2) for r in told["readings"]] == [248.5, 247.65]
    assert "cubits" in person.refused("POST", "/tape/readings", value="3 cubits")["message"]


def test_a_real_washer_s_adapter_takes_the_stand_in_s_place(person: Person) -> None:
    class Steady:
        """An adapter: takes out just a twentieth both ways, every time."""

        def wash(self, specimen: Specimen, programme: Programme) -> Report:
            asked.append((specimen.washed, programme.wash))
            return Report(tuple(v * 0.95 for v in specimen.warp), tuple(v * 0.95 for v in specimen.weft), None, 5)

    asked: list[tuple[int, str]] = []
    person.app.services.washer = Steady()
    project(person)
    person.ask("PUT", "/projects/1/swatch", warp=[["25"]] * 3, weft=[["25"]] * 3)
    person.ask("POST", "/projects/1/swatch/wash")
    told = person.ask("POST", "/projects/1/swatch/wash")["shrink"]
    assert asked == [(0, "40"), (1, "40")]
    assert told["warp_known"]["figure"]["value"] == pytest.approx(100 * (1 - 0.95**2))
