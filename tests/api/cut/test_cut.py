"""Cutting over the API: the list before, the table, what went wrong, what is left."""

from __future__ import annotations

import re
from datetime import timedelta
from typing import Any

import pytest
from shapely import Polygon

from idle_selvage.store.models import BeforeLine, Reading

from ...conftest import Person, data_of
from .cutting import at, begun, cut, deed, more_pieces, settle, try_ways


@pytest.fixture
def laid(skirt: Person) -> Person:
    more_pieces(skirt)
    skirt.ask("PATCH", "/projects/1/cloth", in_hand="4 m")
    skirt.lay(1, seconds=1)
    return skirt


def lines(person: Person) -> dict[str, str]:
    return {line["key"]: line["state"] for line in cut(person)["before"]["lines"]}


def test_before_a_lay_nothing_can_be_begun(skirt: Person) -> None:
    found = cut(skirt)
    assert found["missing"] and not found["begun"] and found["rounds"] == [] and found["steps"] == []
    assert found["headline"] == "Nothing is laid yet"
    settle(skirt)
    assert skirt.refused("POST", at(1))["code"] == "not_ready"


def test_cutting_begins_only_when_every_line_is_clean_or_accepted(laid: Person) -> None:
    before = cut(laid)
    assert before["before"]["open"] > 0 and before["rounds"][0]["shapes"]
    told = laid.refused("POST", at(1))
    assert "The shears are sharp" in told["message"]
    # what only the maker can tell is ticked, not accepted; what was measured is neither
    assert laid.refused("PUT", at(1, "/before"), key="shears", why="never mind")["fields"][0]["path"] == "key"
    assert laid.refused("PUT", at(1, "/before"), key="copies", ticked=True)["code"] == "bad_entry"
    assert laid.refused("PUT", at(1, "/before"), key="nonsense", ticked=True)["message"].startswith("There is no such")
    assert "clean" in laid.refused("PUT", at(1, "/before"), key="copies", why="x")["message"]
    after = settle(laid)
    assert after["before"]["ready"] and after["headline"] == "Ready to cut"
    found = begun(laid)
    assert found["begun"] and found["at"] == 0 and found["headline"] == f"0 of {found['of']} pieces are cut"
    assert laid.refused("POST", at(1))["code"] == "not_ready"


def test_a_width_measured_today_ticks_itself_and_one_of_yesterday_does_not(laid: Person) -> None:
    assert lines(laid)["width"] == "open", "it was measured as bought, and is cut after washing"
    laid.ask("POST", "/cloths/1/washes", how="40 °C")
    laid.ask("PATCH", "/projects/1/cloth", width_readings=["144 cm", "144.2 cm", "144.1 cm"])
    assert lines(laid)["width"] == "clean"
    with data_of(laid.app).begin() as session:
        for one in session.query(Reading).filter(Reading.kind == "width"):
            one.at = one.at - timedelta(days=2)
    found = next(line for line in cut(laid)["before"]["lines"] if line["key"] == "width")
    assert found["state"] == "open" and "2 days ago" in found["told"]


def test_ticks_are_of_today_and_undone_like_anything_else(laid: Person) -> None:
    laid.ask("PUT", at(1, "/before"), key="shears", ticked=True)
    assert lines(laid)["shears"] == "clean"
    laid.ask("POST", "/undo?project=1")
    assert lines(laid)["shears"] == "open"
    laid.ask("PUT", at(1, "/before"), key="shears", ticked=True)
    with data_of(laid.app).begin() as session:
        for one in session.query(BeforeLine):
            one.at = one.at - timedelta(days=1)
    assert lines(laid)["shears"] == "open"


def test_step_by_step_to_the_last_piece(laid: Person) -> None:
    found = begun(laid)
    steps = found["steps"]
    assert [one["number"] for one in steps] == list(range(1, len(steps) + 1))
    for one in steps:
        assert one["says"].startswith(f"Piece {one['number']} of {len(steps)}: {one['name']}.")
        assert one["tail_distance"]["text"] and one["face"].startswith("paper printed side")
    for k, one in enumerate(steps):
        found = deed(laid, one)
        assert found["last_cut"]["key"] == one["key"]
        assert found["at"] == (k + 1 if k + 1 < len(steps) else None)
    assert found["done"] and found["headline"] == f"All {found['of']} pieces are cut"
    stages = {s["name"]: s["state"] for s in laid.ask("GET", "/projects/1")["stages"]}
    assert stages["cut"] == "done"
    assert [one["kind"] for one in laid.ask("GET", "/projects/1/log")["entries"]][:2] == ["piece-cut", "piece-cut"]


def test_a_piece_is_cut_once_and_cut_cloth_comes_back_by_no_undo(laid: Person) -> None:
    one = begun(laid)["steps"][0]
    deed(laid, one)
    again = laid.refused("POST", at(1, "/deeds"), round=one["round"], key=one["key"], kind="cut")
    assert again["message"] == "That is cut already." and again["code"] == "cannot_do"
    # the undo of the page takes back what was done before cutting, and never a cut
    back = laid.ask("GET", "/undo?project=1")["back"]
    assert back is None or "Cut" not in back["what"]
    asked = laid.refused("POST", at(1, "/deeds"), round=one["round"], key=one["key"], kind="not cut")
    assert asked["code"] == "asked" and "does not come back" in asked["message"]
    assert cut(laid)["good"] >= 1
    found = deed(laid, one, "not cut", really=True)
    assert found["good"] == 0 and found["at"] == 0 and found["last_cut"] is None
    line = laid.ask("GET", "/projects/1/log")["entries"][0]
    assert line["what"].startswith("It was marked by mistake") and line["change"] is None


def test_another_device_goes_on_where_the_first_one_was(laid: Person) -> None:
    found = begun(laid)
    third = found["steps"][2]
    laid.ask("PUT", at(1, "/at"), round=third["round"], key=third["key"])
    assert Person(laid.app).ask("GET", at(1))["at"] == 2
    laid.refused("PUT", at(1, "/at"), round=third["round"], key="nothing·1")
    laid.ask("PUT", at(1, "/at"), 404, round=77, key=third["key"])


def test_an_order_of_ones_own_is_kept_and_says_what_it_does_against(laid: Person) -> None:
    found = begun(laid)
    number, keys = found["rounds"][0]["round"], [one["key"] for one in found["steps"]]
    own = laid.ask("PUT", at(1, "/order"), round=number, keys=keys[::-1])
    assert [one["key"] for one in own["steps"]] == keys[::-1] and own["rounds"][0]["own_order"]
    assert laid.refused("PUT", at(1, "/order"), round=number, keys=keys[:-1])["fields"][0]["path"] == "keys"
    laid.refused("PUT", at(1, "/order"), round=number, keys=[*keys[:-1], keys[0]])
    back = laid.ask("PUT", at(1, "/order"), round=number, keys=[])
    assert [one["key"] for one in back["steps"]] == keys and back["rounds"][0]["against"] == []


def test_a_spoilt_piece_is_laid_again_on_what_is_really_left(laid: Person) -> None:
    found = begun(laid)
    steps = found["steps"]
    deed(laid, steps[0])
    found = deed(laid, steps[0], "spoilt", why="ran over the corner")
    assert found["owed"] and "no place any more" in found["headline"]
    stage = {s["name"]: s for s in laid.ask("GET", "/projects/1")["stages"]}["cut"]
    assert stage["state"] == "look-again" and "went wrong" in stage["why"]
    log = laid.ask("GET", "/projects/1/log")["entries"][0]["what"]
    assert "spoilt, ran over the corner" in log
    ways = {way["key"]: way for way in try_ways(laid)["ways"]}
    assert {"beside", "rest", "bought"} <= ways.keys()
    assert ways["bought"]["state"] == "buy" and ways["bought"]["cost"] is not None
    assert laid.refused("POST", at(1, "/again"), way="bought")["fields"][0]["path"] == "way"
    assert laid.refused("POST", at(1, "/again"), way="nonsense")["message"].startswith("That way is not open")
    assert ways["beside"]["state"] == "does" and ways["beside"]["gone"]
    after = laid.ask("POST", at(1, "/again"), 201, way="beside")
    assert after["owed"] == [] and len(after["rounds"]) == 2
    new = [one for one in after["steps"] if one["round"] == after["rounds"][1]["round"]]
    assert sum(len(one["copies"]) for one in new) == 1
    # what waits lies where it lay
    assert [one["key"] for one in after["steps"] if not one["done"]][: len(steps) - 1] == [s["key"] for s in steps[1:]]
    # and what was cut stays cut, since another lay was made around it
    told = laid.refused(
        "POST", at(1, "/deeds"), round=steps[0]["round"], key=steps[0]["key"], kind="not cut", really=True
    )
    assert "good after all" in told["message"] or "laid again around it" in told["message"]


def test_of_cloth_whose_length_was_not_measured_no_more_is_taken_than_the_lay_took(laid: Person) -> None:
    laid.ask("PATCH", "/projects/1/cloth", in_hand=None)
    steps = begun(laid)["steps"]
    long = cut(laid)["rounds"][0]["length"]
    for one in steps:
        deed(laid, one)
    deed(laid, steps[0], "spoilt")
    for way in try_ways(laid)["ways"]:
        if way["lay"] is None or way["state"] == "buy":
            continue
        if way["lay"]["length"]["mm"] > long + 0.1:
            assert way["state"] == "short" and "beyond what the lay took" in way["came"], way["key"]
        else:
            assert way["state"] == "does"


def test_all_that_is_not_cut_can_be_laid_again(laid: Person) -> None:
    steps = begun(laid)["steps"]
    deed(laid, steps[0])
    deed(laid, steps[0], "missing")
    ways = {way["key"]: way for way in try_ways(laid)["ways"]}
    assert ways["rest"]["state"] == "does"
    after = laid.ask("POST", at(1, "/again"), 201, way="rest")
    assert after["owed"] == [] and {one["round"] for one in after["steps"] if not one["done"]} == {
        after["rounds"][1]["round"]
    }
    for one in after["steps"]:
        if not one["done"]:
            after = deed(laid, one)
    assert after["done"] and after["good"] == after["of"]


def test_what_was_only_thought_lost_is_good_again(laid: Person) -> None:
    one = begun(laid)["steps"][0]
    deed(laid, one)
    assert deed(laid, one, "missing")["owed"]
    assert deed(laid, one, "found")["owed"] == []
    told = laid.refused("POST", at(1, "/deeds"), round=one["round"], key=one["key"], kind="found")
    assert told["message"] == "Nothing is wrong with that one."
    assert laid.ask("GET", at(1, "/again"))["ways"] == []


def seen(remnant: dict[str, Any]) -> dict[str, float]:
    """How a remnant is told from every other one."""
    return {name: remnant[name] for name in ("x", "y", "area")}


def test_remnants_go_into_the_cupboard_with_the_facts_of_their_cloth(laid: Person) -> None:
    assert not laid.ask("GET", at(1, "/left"))["there"]
    for one in begun(laid)["steps"][:2]:
        deed(laid, one)
    found = laid.ask("GET", at(1, "/left"))
    assert found["there"] and found["used"]["steps"] and found["remnants"]
    first = found["remnants"][0]
    # what waits for the shears is no remnant
    waits = [Polygon(shape["outline"]) for shape in cut(laid)["rounds"][0]["shapes"] if shape["state"] == "waits"]
    there = Polygon([(x + first["x"], y + first["y"]) for x, y in first["outline"]], [
        [(x + first["x"], y + first["y"]) for x, y in hole] for hole in first["holes"]
    ])  # fmt: skip
    assert waits and all(there.intersection(one).area < 30.0 for one in waits)
    kept = laid.ask("POST", at(1, "/left"), 201, **seen(first))
    assert kept["remnants"][0]["kept"]
    assert "already" in laid.refused("POST", at(1, "/left"), **seen(first))["message"]
    assert "Look at the list again" in laid.refused("POST", at(1, "/left"), x=77, y=0, area=1e6)["message"]
    line = next(c for c in laid.ask("GET", "/cloths")["cloths"] if "remnant" in c["cloth"]["name"])
    cloth = line["cloth"]
    old = laid.ask("GET", "/projects/1")["cloth"]
    assert cloth["blend"] == old["blend"] and cloth["weave"] == old["weave"]
    # as long and as wide as its outline at the most, never more
    assert cloth["in_hand"]["mm"] == pytest.approx(first["along"]["mm"], abs=0.2)
    # what was cut, what waits, what is left and the scraps are all of the cloth
    told = {one["name"]: one["text"] for one in found["used"]["steps"][0]["inputs"]} | {"": found["scrap_told"]}
    cm2 = {name: float(re.findall(r"([\d.]+) cm²", text)[0]) for name, text in told.items()}
    rest = sum(one["area"] for one in found["remnants"]) / 100 + sum(one.area for one in waits) / 100
    assert cm2["cut"] + cm2[""] + rest == pytest.approx(cm2["the whole cloth"], rel=1e-3)
    # a larger scrap size leaves fewer remnants
    assert len(laid.ask("PUT", at(1, "/scrap"), least="90 cm")["remnants"]) <= len(found["remnants"])
    assert laid.refused("PUT", at(1, "/scrap"), least="3 m")["fields"][0]["path"] == "least"


def test_a_remnant_that_is_another_by_now_is_not_put_away(laid: Person) -> None:
    """In another window a piece was cut from what this one still shows."""
    laid.ask("PATCH", "/projects/1/cloth", in_hand="5 m")
    steps = begun(laid)["steps"]
    deed(laid, steps[0])
    before = laid.ask("GET", at(1, "/left"))["remnants"]
    deed(laid, steps[0], "spoilt")
    try_ways(laid)
    for one in laid.ask("POST", at(1, "/again"), 201, way="beside")["steps"]:
        if not one["done"]:
            deed(laid, one)
    after = laid.ask("GET", at(1, "/left"))["remnants"]
    changed = [one for one in before if not any(where(one).equals_exact(where(other), 0.1) for other in after)]
    assert changed, "something was cut from what was left"
    for one in changed:
        assert "has changed" in laid.refused("POST", at(1, "/left"), **seen(one))["message"]
    assert len(laid.ask("GET", "/cloths")["cloths"]) == 1


def where(remnant: dict[str, Any]) -> Polygon:
    """A remnant as it lies on the cloth it is cut from."""
    x0, y0 = remnant["x"], remnant["y"]
    rings = [[(x + x0, y + y0) for x, y in ring] for ring in (remnant["outline"], *remnant["holes"])]
    return Polygon(rings[0], rings[1:])


def test_cloth_that_is_in_the_cupboard_is_no_part_of_what_is_left_later(laid: Person) -> None:
    """The rest is laid anew, so that other ground is free than when a remnant was put away: none of it is had twice."""
    more_pieces(laid)
    laid.lay(1, seconds=1)
    laid.ask("PATCH", "/projects/1/cloth", in_hand="5 m")
    steps = begun(laid)["steps"]
    deed(laid, steps[0])
    there = laid.ask("GET", at(1, "/left"))["remnants"]
    first = there[-1]
    laid.ask("POST", at(1, "/left"), 201, **seen(first))
    deed(laid, steps[0], "spoilt")
    try_ways(laid)
    laid.ask("POST", at(1, "/again"), 201, way="rest")
    remnants = laid.ask("GET", at(1, "/left"))["remnants"]
    assert [one["kept"] for one in remnants].count(True) == 1
    assert where(next(one for one in remnants if one["kept"])).equals_exact(where(first), 1.0)
    for k, one in enumerate(remnants):
        for other in remnants[k + 1 :]:
            assert where(one).intersection(where(other)).area < 100.0, "a remnant is no part of another"
    for one in remnants:
        if not one["kept"]:
            laid.ask("POST", at(1, "/left"), 201, **seen(one))
    assert all(one["kept"] for one in laid.ask("GET", at(1, "/left"))["remnants"])


def inside(outline: list[list[float]], rings: list[list[list[float]]]) -> bool:
    outer, *holes = rings
    return bool(Polygon(outer, holes).buffer(0.5).contains(Polygon(outline)))


def test_will_this_piece_do_works_on_the_remnants_true_outline(laid: Person) -> None:
    from idle_selvage.jobs import trying

    for one in begun(laid)["steps"]:
        deed(laid, one)
    first = laid.ask("GET", at(1, "/left"))["remnants"][0]
    laid.ask("POST", at(1, "/left"), 201, **seen(first))
    cloth = next(c for c in laid.ask("GET", "/cloths")["cloths"] if "remnant" in c["cloth"]["name"])["cloth"]
    # a pouch of two bits as large as half the remnant's largest rectangle, and nothing lost at the ends
    laid.ask("POST", "/projects", name="Pouch")
    r = first["rectangles"][0]
    half = [{"along": 0, "left": r["across"]["mm"] / 5, "right": r["across"]["mm"] / 5}]
    half.append({**half[0], "along": r["along"]["mm"] / 3})
    laid.ask("POST", "/projects/2/pieces", 201, name="Bit", stations=half, copies=2)
    laid.ask("PATCH", "/projects/2", wash="never")
    laid.ask("PATCH", "/projects/2/purchase", ends="0 mm")
    job = laid.ask("POST", "/projects/2/trials", what="cupboard", cloth_id=cloth["id"])["job_id"]
    trying.run(data_of(laid.app), job, 40)
    told = laid.ask("GET", f"/projects/2/will-it-do?cloth_id={cloth['id']}")
    assert told["does"] is True, told["headline"]
    rings = [first["outline"], *first["holes"]]
    for outline in told["lay"]["outlines"]:
        assert inside(outline, rings), "no bit lies where there is no cloth"


def test_paper_comes_out_and_bad_wishes_are_refused(laid: Person) -> None:
    for what in ("sheet.pdf", "lay.pdf", "pieces.pdf", "labels.pdf", "gauges.pdf", "pieces.svg"):
        for paper in ("a4", "letter"):
            answer = laid.client.get(f"/api/projects/1/cut/{what}?paper={paper}", base_url="http://127.0.0.1")
            assert answer.status_code == 200, what
            assert answer.get_data()[:4] == (b"%PDF" if what.endswith("pdf") else b"<?xm")
            assert "attachment" in answer.headers["Content-Disposition"]
    laid.refused("GET", "/projects/1/cut/sheet.pdf?paper=a7")
    laid.ask("GET", "/projects/1/cut/pieces.pdf?piece=77", 404)
    assert laid.refused("GET", "/swatch-template.pdf?side=3 mm")["fields"][0]["path"] == "side"
    assert laid.refused("GET", "/swatch-template.pdf?side=nonsense")["message"]
    assert laid.client.get("/api/swatch-template.pdf?side=30 cm", base_url="http://127.0.0.1").status_code == 200


def test_a_picture_is_calibrated_or_refused_with_a_sentence(laid: Person) -> None:
    found = laid.ask(
        "POST", "/true-size", wide="60 cm", high="40 cm", corners=[[9, 9], [900, 12], [880, 600], [12, 590]]
    )
    assert len(found["css"]) == 16 and found["matrix"][2][2] == 1.0
    assert laid.refused("POST", "/true-size", wide="60 cm", high="40 cm")["fields"][0]["path"] == "corners"
    crossed = [[9, 9], [880, 600], [900, 12], [12, 590]]
    assert "cross no side" in laid.refused("POST", "/true-size", wide="60 cm", high="40 cm", corners=crossed)["message"]
    assert laid.ask("POST", "/true-size/check", meant="20 cm", measured="20.05 cm")["good"]
    assert not laid.ask("POST", "/true-size/check", meant="20 cm", measured="20.3 cm")["good"]


def test_a_second_garment_is_told_that_its_cloth_was_cut(laid: Person) -> None:
    for one in begun(laid)["steps"]:
        deed(laid, one)
    laid.ask("POST", "/projects", name="Bag")
    laid.ask("PUT", "/projects/2/cloth/use", cloth_id=1)
    told = next(line for line in cut(laid, 2)["before"]["lines"] if line["key"] == "whole")
    assert told["state"] == "open" and "Skirt was cut from it" in told["told"]
    assert "whole" not in lines(laid), "of what this garment cut itself nothing is said"
    # nor does it count as gone where nobody knows where it lies
    assert not laid.ask("GET", at(2, "/left"))["there"]


def test_a_piece_joined_of_two_is_cut_when_both_parts_are(laid: Person) -> None:
    steps = begun(laid)["steps"]
    for one in steps:
        deed(laid, one)
    found = cut(laid)
    # a whole piece that is not on the bias: the lay again is tried with a join
    deed(laid, steps[0], "short")
    way = next(way for way in try_ways(laid)["ways"] if way["kind"] == "joined")
    assert way["state"] == "does" and len(way["joins"]) == 2, "the join is drawn on both parts"
    after = laid.ask("POST", at(1, "/again"), 201, way=way["key"])
    parts = [one for one in after["steps"] if not one["done"]]
    assert [part["name"].split(", ")[1] for part in parts] in (
        ["lower part", "upper part"],
        ["upper part", "lower part"],
    )
    assert not deed(laid, parts[0])["done"]
    done = deed(laid, parts[1])
    assert done["done"] and done["good"] == found["of"]


def test_what_is_in_the_cupboard_is_no_longer_on_the_cloth(laid: Person) -> None:
    steps = begun(laid)["steps"]
    deed(laid, steps[0])
    laid.ask("POST", at(1, "/left"), 201, **seen(laid.ask("GET", at(1, "/left"))["remnants"][0]))
    first = laid.ask("GET", at(1, "/left"))["remnants"][0]
    assert first["kept"]
    deed(laid, steps[0], "spoilt")
    ways = {way["key"]: way for way in try_ways(laid)["ways"]}
    remnant = Polygon([(x + first["x"], y + first["y"]) for x, y in first["outline"]])
    for outline in (ways["beside"]["lay"] or {"outlines": []})["outlines"]:
        assert Polygon(outline).intersection(remnant).area < 30.0
    assert any(way["kind"] == "remnant" for way in ways.values()), "it is offered as a cloth of its own"
