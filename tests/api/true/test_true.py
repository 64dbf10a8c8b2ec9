"""True: readings, the log of tests, what is lost flowing on, and the checks at the table."""

from __future__ import annotations

from typing import Any

import pytest

from idle_selvage.jobs import laying

from ...conftest import STEPS, Person


@pytest.fixture
def table(skirt: Person) -> Person:
    """Project 1, laid, its cloth on the table."""
    job = skirt.ask("POST", "/projects/1/lays", seconds=1)["id"]
    laying.run(skirt.app.services.database, job, STEPS)
    return skirt


def change(person: Person, **body: Any) -> dict[str, Any]:
    told: dict[str, Any] = person.ask("PATCH", "/projects/1/true", **body)
    return told["true"]  # type: ignore[no-any-return]


def written(person: Person, offset: str, side: str = "far", **more: Any) -> dict[str, Any]:
    change(person, now={"offset": offset, "side": side, **more})
    told: dict[str, Any] = person.ask("POST", "/projects/1/true/tests", 201)
    return told["true"]  # type: ignore[no-any-return]


def stage(person: Person, name: str) -> dict[str, Any]:
    return next(s for s in person.ask("GET", "/projects/1")["stages"] if s["name"] == name)


def test_a_reading_is_told_with_what_to_do(table: Person) -> None:
    assert table.ask("GET", "/projects/1/true")["advice"] is None and stage(table, "true")["state"] == "empty"
    found = change(table, now={"offset": "2 cm", "side": "near"})
    # 20 mm over the narrowest of the three readings, 1119 mm
    assert found["skew"]["value"] == pytest.approx(2000 / 1119)
    assert found["now"]["signed"] == -20 and found["now"]["long_side"] == "near"
    assert found["advice"]["band"] == "straighten" and found["advice"]["school"] == "pin"
    pulled = change(table, school="pull")["advice"]
    assert pulled["school"] == "pull" and "the far selvage at this end" in pulled["steps"][0]
    # the side is kept when the number is typed anew, and the number when the side is chosen
    assert change(table, now={"offset": "8 mm"})["now"]["signed"] == -8
    assert change(table, now={"side": "far"})["now"]["signed"] == 8
    assert change(table, now={"bow": "15 mm"})["advice"]["band"] == "straighten"


def test_the_reading_at_hand_is_what_is_taken_back(table: Person) -> None:
    """And not what was read before it."""
    table.ask("PATCH", "/projects/1/true", edge=["2 cm", "3 cm"])
    before = table.ask("GET", "/projects/1/true")
    table.ask("PATCH", "/projects/1/true", now={"offset": "12 mm", "side": "near"})
    read = table.ask("GET", "/projects/1/true")
    assert read["now"] != before["now"]
    assert table.ask("GET", "/undo?project=1")["back"]["what"] == "Changed the reading at hand."
    table.ask("POST", "/undo?project=1")
    assert table.ask("GET", "/projects/1/true") == before
    table.ask("POST", "/redo?project=1")
    assert table.ask("GET", "/projects/1/true") == read


def test_a_side_alone_is_no_reading(table: Person) -> None:
    found = change(table, now={"side": "near"})
    assert not found["now"]["read"] and found["advice"] is None and found["now"]["long_side"] == "near"
    assert change(table, now={"offset": "5 mm"})["now"]["signed"] == -5, "the side said before counts"


def test_readings_that_cannot_be(table: Person) -> None:
    told = table.refused("PATCH", "/projects/1/true", now={"offset": "2 m"})
    assert "further apart" in told["message"] and told["fields"][0]["path"] == "now.offset"
    assert "must grow" in table.refused("PATCH", "/projects/1/true", bands=["1 cm", "5 mm", "4 cm"])["message"]
    assert "Three bands" in table.refused("PATCH", "/projects/1/true", bands=["1 cm"])["message"]
    assert "Read the edge first" in table.refused("POST", "/projects/1/true/tests")["message"]
    no_piece = table.refused("PATCH", "/projects/1/true", check={"key": "Nobody·1", "tail": "3 cm"})
    assert "not on the chosen lay" in no_piece["message"]


def test_every_test_is_logged_until_it_is_true_or_enough(table: Person) -> None:
    for offset in ("30 mm", "20 mm", "20 mm"):
        found = written(table, offset, done="pin")
    assert found["loop_state"] == "go-on" and stage(table, "true")["state"] == "begun"
    found = written(table, "21 mm", done="pull")
    assert found["loop_state"] == "stop" and "happy medium" in found["headline"]
    assert found["basis"].startswith("the test at") and found["twists"][0]["twist"]["value"] > 0
    assert [t["offset"]["mm"] for t in found["tests"]] == [30, 20, 20, 21]
    log = [e["what"] for e in table.ask("GET", "/projects/1/log")["entries"] if e["stage"] == "true"]
    assert sum("Fold test" in what for what in log) == 4
    assert change(table, accepted=True)["accepted"] and stage(table, "true")["state"] == "done"
    # a struck-out test counts no more, and can be brought back; the log keeps both
    gone = table.ask("DELETE", "/projects/1/true/tests/4")["true"]
    assert gone["loop_state"] == "go-on" and len(gone["tests"]) == 3
    assert len(table.ask("POST", "/projects/1/true/tests/4/restore")["true"]["tests"]) == 4
    table.ask("DELETE", "/projects/1/true/tests/77", 404)
    assert written(table, "2 mm")["loop_state"] == "true"
    assert not table.ask("GET", "/projects/1/true")["accepted"], "a new test is judged anew"


def test_the_bands_are_a_setting_of_the_project(table: Person) -> None:
    change(table, now={"offset": "5 mm"})
    assert change(table, bands=["6 mm", "12 mm", "40 mm"])["advice"]["band"] == "true"
    assert change(table, bands=[])["advice"]["band"] == "steam"


def test_from_a_good_place_on_the_rest_is_cut_off_and_flows_on(table: Person) -> None:
    table.ask("PATCH", "/projects/1/cloth", in_hand="4 m")
    for offset, place in (("45 mm", "0"), ("20 mm", "50 cm"), ("4 mm", "1 m")):
        found = written(table, offset, place=place)
    assert found["good_from"]["mm"] == 1000
    before = table.ask("GET", "/projects/1")["purchase"]["to_buy"]["value"]
    told = table.ask("PATCH", "/projects/1/true", cut_off="1 m")
    assert told["true"]["cost"]["cut_off"]["mm"] == 1000
    # a drawn thread takes 30 mm as usual at this end, 1000 are cut off, and 30 go at the other
    assert told["project"]["wishes"]["ends"]["mm"] == 1060 and told["true"]["cost"]["in_hand_after"]["text"]
    # what is left of the 4 m is what they will be after washing, on the safe side, less both ends
    plan = table.ask("GET", "/projects/1/shrink")["warp_known"]["plan"]["value"]
    left = told["true"]["cost"]["in_hand_after"]["value"]
    assert left == pytest.approx(4000 * (1 - plan / 100) - 1060) and left < 2940
    # 960 mm more than the 100 planned before, over what shrinks: at least a metre
    assert told["project"]["purchase"]["to_buy"]["value"] >= before + 1000
    assert "Nothing would be left" in table.refused("PATCH", "/projects/1/true", cut_off="5 m")["message"]


def test_the_readings_of_the_cut_edge_flow_into_buy_and_lay(table: Person) -> None:
    told = table.ask("PATCH", "/projects/1/true", edge=["3 cm", "4,5 cm", "2 cm"])
    # 25 uneven, 10 for the thread, 30 at the other end
    assert told["true"]["cost"]["this_end"]["value"] == 35 and told["true"]["cost"]["measured"]
    assert told["project"]["wishes"]["ends"]["mm"] == 65
    line = next(x for x in told["project"]["purchase"]["lines"] if x["key"] == "ends")
    assert line["adds"]["mm"] == 65
    flawed = table.ask("PATCH", "/projects/1/cloth", flaws=[{"x": "20 cm", "y": "20 cm", "w": "3 cm", "h": "3 cm"}])
    assert any("flaws" in w["text"] for w in flawed["warnings"])
    job = table.ask("POST", "/projects/1/lays", seconds=1)["id"]
    laying.run(table.app.services.database, job, STEPS)
    problem = table.client.get("/api/projects/1/lay-problem.json", base_url="http://127.0.0.1").get_json()
    warp = table.ask("GET", "/projects/1/shrink")["warp_known"]["plan"]["value"] / 100
    assert problem["cloth"]["blocked"][0][0] == pytest.approx(200 * (1 - warp) - 35, abs=0.01)
    # another edge moves the flaw on the cloth, so the lay is old
    torn = table.ask("PATCH", "/projects/1/true", edge_way="tear")
    assert torn["true"]["cost"]["this_end"]["value"] == 45 and torn["project"]["wishes"]["ends"]["mm"] == 95
    assert any("out of date: the flaws" in w["text"] for w in torn["project"]["warnings"])


def test_buy_and_true_agree_on_what_the_ends_lose(table: Person) -> None:
    table.ask("PATCH", "/projects/1/true", edge=["3 cm", "4,5 cm", "2 cm"], cut_off="20 cm")
    # chosen in Buy, the way counts with what was read and cut off: 25 uneven, 20 for a tear, 200, and 50 at the other
    assert table.ask("PATCH", "/projects/1/purchase", edge_way="tear")["wishes"]["ends"]["mm"] == 295
    typed = table.ask("PATCH", "/projects/1/purchase", ends="8 cm")
    assert typed["wishes"]["ends"]["mm"] == 80 and not table.ask("GET", "/projects/1/true")["cost"]["measured"]


def test_what_the_cloth_forbids(table: Person) -> None:
    table.ask("PATCH", "/projects/1/cloth", weave="velveteen")
    found = change(table, now={"offset": "2 cm"}, school="pull")
    assert found["advice"]["school"] == "pin" and "Pile is never pulled" in found["advice"]["forbids"][0]
    assert [s["forbidden"] for s in found["advice"]["schools"]] == [False, True]
    table.ask("PATCH", "/projects/1/cloth", weave="plain", finish="resin")
    assert "cannot be trued" in change(table, school="")["headline"]


def test_does_it_matter(table: Person) -> None:
    found = change(table, now={"offset": "4 cm"})
    sleeve = next(t for t in found["twists"] if t["piece"] == "Sleeve")
    # 55 cm with 1.5 cm allowance at either end; 40 mm over 1119
    assert sleeve["twist"]["value"] == pytest.approx(580 * 40 / 1119, rel=1e-6) and sleeve["verdict"] == "visible"
    assert found["matters"].startswith("Band twists by") and len(sleeve["hangs"]) == len(sleeve["outline"])
    dark, pale = {"width": "1 cm", "colour": "#334455"}, {"width": "4 cm", "colour": "#ddeeff"}
    table.ask("PATCH", "/projects/1/cloth", bars_across=[dark, pale])
    assert not any(t["drift_told"] for t in table.ask("GET", "/projects/1/true")["twists"]), "stripes along stay"
    table.ask("PATCH", "/projects/1/cloth", bars_along=[dark, pale])
    told = {t["piece"]: t["drift_told"] for t in table.ask("GET", "/projects/1/true")["twists"]}
    assert told["Sleeve"] == "bars do not meet at the seam"
    assert change(table, now={"offset": "0"})["matters"].startswith("It does not matter")


def test_fold_pieces_and_bars_at_the_table(table: Person) -> None:
    stations = [{"along": "0", "distance": "55 cm"}, {"along": "40 cm", "distance": "55,6 cm"}]
    assert change(table, fold=stations)["fold"]["good"] is None, "three stations at least"
    fold = change(table, fold=[*stations, {"along": "80 cm", "distance": "55,3 cm"}], ripple="in")["fold"]
    assert fold["good"] is False and fold["stations"][1]["told"] == "move 0.3 cm towards the selvages"
    assert "top layer towards" in fold["torque"]

    check = table.ask("GET", "/projects/1/true")["checks"][0]
    one = change(table, check={"key": check["key"], "tail": check["wanted_tail"]["value"] + 30})["checks"][0]
    assert one["good"] is None, "one end says nothing"
    both = change(table, check={"key": check["key"], "head": check["wanted_head"]["value"] + 35})["checks"][0]
    assert both["good"] is False and both["told"].startswith("move the head 0.5 cm towards")
    fine = change(table, check={"key": check["key"], "head": check["wanted_head"]["value"] + 31})["checks"][0]
    assert fine["good"] and fine["told"] == "on grain"

    bars = change(table, bars=[{"place": "20 cm", "off": "9 mm"}, {"place": "50 cm", "off": "1 mm", "side": "in"}])
    assert bars["plaid"]["headline"].startswith("1 of 2 bars to shift")
    assert bars["plaid"]["bars"][0]["told"].startswith("shift its far end 0.9 cm away from")
    assert bars["plaid"]["bars"][1]["told"] == "square"


def test_without_a_width_nothing_is_told_of_a_slant(person: Person) -> None:
    person.ask("POST", "/projects", name="New")
    found = change(person, now={"offset": "2 cm"})
    assert found["width"] is None and "width first" in found["missing"] and found["advice"] is None
    assert found["checks_missing"].startswith("Lay the pieces first")
