"""Seams over the API: made, changed, ordered, taken out; what they come to; nothing half-told is kept."""

from __future__ import annotations

from typing import Any

import pytest

from idle_selvage.demo import drafts

from ...conftest import Person, steep_edges

CHECK = [{"width": w, "colour": c} for w, c in (("5 mm", "#336677"), ("35 mm", "#ddeeee"))]
P = "/projects/1"


@pytest.fixture
def shirt(skirt: Person) -> Person:
    """The overshirt beside the skirt's pieces, on a check."""
    svg = drafts.drawing(drafts.overshirt(), "shirt")
    skirt.ask("POST", f"{P}/pieces/svg", 201, svg=svg, file_name="shirt.svg", twice="beside")
    for piece in skirt.ask("GET", P)["pieces"][:2]:
        skirt.ask("DELETE", f"/pieces/{piece['id']}")
    skirt.ask("PATCH", f"{P}/cloth", bars_along=CHECK, bars_across=CHECK)
    skirt.ask("PATCH", f"{P}/lay", folds=["open"])
    return skirt


def match(person: Person) -> dict[str, Any]:
    found: dict[str, Any] = person.ask("GET", f"{P}/match")
    return found


def pieces(person: Person) -> dict[str, dict[str, Any]]:
    return {p["name"]: p for p in match(person)["pieces"]}


def seam(found: dict[str, Any], name: str) -> dict[str, Any]:
    told: dict[str, Any] = next(s for s in found["seams"] if s["name"] == name)
    return told


def take_all(person: Person) -> dict[str, Any]:
    found = match(person)
    told: dict[str, Any] = person.ask(
        "POST", f"{P}/seams/proposed", 201, which=[p["number"] for p in found["proposed"]]
    )
    return told


def test_what_is_proposed_is_taken_and_not_proposed_again(shirt: Person) -> None:
    before = match(shirt)
    assert before["seams"] == [] and [p["name"] for p in before["proposed"]][:2] == ["Centre front", "Side seam"]
    after = take_all(shirt)
    assert [s["name"] for s in after["seams"]] == [p["name"] for p in before["proposed"]] and after["proposed"] == []
    assert [s["priority"] for s in after["seams"]] == list(range(1, len(after["seams"]) + 1))
    assert all(s["unlike"] == "" and s["gone"] == "" for s in after["seams"])
    # before a lay: levels are known, what runs along is not
    assert (
        seam(after, "Side seam")["verdict"] == "meets"
        and "known once it is laid" in seam(after, "Collar at centre back")["told"]
    )
    shirt.refused("POST", f"{P}/seams/proposed", which=[0])
    undone = shirt.ask("POST", "/undo?project=1")
    assert undone["again"] is not None and match(shirt)["seams"] == []
    shirt.ask("POST", "/redo?project=1")
    assert len(match(shirt)["seams"]) == len(before["proposed"])


def test_two_edges_are_sewn_and_what_is_said_of_the_seam_is_kept(shirt: Person) -> None:
    found = pieces(shirt)
    front, back = found["Front"], found["Back"]
    a, b = ({"piece_id": p["id"], **steep_edges(p)[0]} for p in (front, back))
    told = shirt.ask("POST", f"{P}/seams", 201, a=a, b=b, name="Side")
    one = seam(told, "Side")
    assert one["kind"] == "sewn" and one["levels"] and not one["lengthwise"] and one["a"]["piece"] == "Front"
    # the lower ends meet, whichever way both are drawn round
    assert one["a"]["run"][0][0] == pytest.approx(one["b"]["run"][0][0], abs=25) or one["a"]["run"][0][0] > 100
    changed = shirt.ask(
        "PATCH", f"/seams/{one['id']}", longer="a", ease="1 cm", key_a="10 cm", key_b="9,5 cm", spread_from=0.5,
        spread_to=1.0, lengthwise=True, name="Side seam",
    )  # fmt: skip
    one = seam(changed, "Side seam")
    assert (one["ease"]["text"], one["key_a"]["text"], one["key_b"]["text"]) == ("1.0 cm", "10.0 cm", "9.5 cm")
    assert one["spread"] == [0.5, 1.0] and one["lengthwise"]
    assert "1.0 cm of ease were told" in one["unlike"], "both sides are equally long"
    freed = seam(shirt.ask("PATCH", f"/seams/{one['id']}", free_key=True), "Side seam")
    assert freed["key_a"] is None and freed["key_b"] is None
    assert shirt.ask("DELETE", f"/seams/{one['id']}")["seams"] == []
    shirt.ask("PATCH", f"/seams/{one['id']}", 404, levels=False)
    shirt.ask("POST", "/undo?project=1")
    assert len(match(shirt)["seams"]) == 1
    log = [entry["what"] for entry in shirt.ask("GET", f"{P}/log")["entries"]]
    assert any("Made the seam “Side”" in line for line in log)


def test_a_seam_that_cannot_be_is_refused_and_changes_nothing(shirt: Person) -> None:
    found = pieces(shirt)
    front, back = found["Front"], found["Back"]
    a, b = ({"piece_id": p["id"], **steep_edges(p)[0]} for p in (front, back))
    refusals: list[tuple[dict[str, Any], str]] = [
        ({"a": a, "b": {"piece_id": back["id"]}}, "Touch an edge of the other piece"),
        ({"a": {**a, "begin": {"after": 99}}, "b": b}, "no longer there"),
        ({"a": a, "b": {**b, "piece_id": 999}}, "two pieces of this garment"),
        ({"a": a, "b": a, "same_way": False}, "its own mirror image"),
        ({"a": a, "b": {"piece_id": back["id"]}, "kind": "laid on"}, "Say where on the other piece"),
        ({"a": a, "b": b, "ease": "9 m"}, "an allowance is from"),
        ({"a": a, "b": b, "key_a": "somewhere"}, ""),
    ]
    for body, why in refusals:
        if body["b"].get("piece_id") == 999:
            shirt.ask("POST", f"{P}/seams", 404, **body)
            continue
        assert why in shirt.refused("POST", f"{P}/seams", **body)["message"], body
    assert match(shirt)["seams"] == []
    told = shirt.ask("POST", f"{P}/seams", 201, a=a, b=b)
    number = told["seams"][0]["id"]
    shirt.refused("PATCH", f"/seams/{number}", spread_from=0.8, spread_to=0.2)
    shirt.ask("PUT", f"{P}/seams/order", 404, seams=[number, 77])
    shirt.ask("PUT", f"{P}/seams/order", 404, seams=[number, number])
    assert match(shirt)["seams"][0]["spread"] == [0.0, 1.0]


def test_which_comes_first_decides_which_meets(shirt: Person) -> None:
    found = pieces(shirt)
    names = ("Front", "Back", "Sleeve")
    sides = {name: {"piece_id": found[name]["id"], **steep_edges(found[name])[0]} for name in names}
    for a, b, key in (("Front", "Back", "5 cm"), ("Back", "Sleeve", "5 cm"), ("Sleeve", "Front", "6,1 cm")):
        shirt.ask("POST", f"{P}/seams", 201, a=sides[a], b=sides[b], name=f"{a} {b}", key_a="5 cm", key_b=key)
    told = match(shirt)
    standing = {s["name"]: s["standing"] for s in told["seams"]}
    assert list(standing.values()).count("exact") == 2 and standing["Sleeve Front"] == "misses"
    assert "Front Back comes first" in seam(told, "Sleeve Front")["graph"]
    warned = [w["text"] for w in shirt.ask("GET", P)["warnings"]]
    assert any("Bars cannot meet at Sleeve Front as well" in text for text in warned)
    order = [seam(told, n)["id"] for n in ("Sleeve Front", "Front Back", "Back Sleeve")]
    again = {s["name"]: s["standing"] for s in shirt.ask("PUT", f"{P}/seams/order", seams=order)["seams"]}
    assert again["Sleeve Front"] == "exact" and again["Back Sleeve"] == "misses"


def test_a_lay_is_judged_and_drawn_and_told_at_the_table(shirt: Person) -> None:
    told = take_all(shirt)
    for one in told["seams"]:
        asked = {"levels": one["kind"] == "sewn", "lengthwise": one["kind"] == "laid on"}
        shirt.ask("PATCH", f"/seams/{one['id']}", **asked)
    number = seam(told, "Side seam")["id"]
    assert "Lay the pieces first" in shirt.refused("GET", f"{P}/seams/{number}/preview")["message"]
    shirt.lay(1, seconds=1)
    found = match(shirt)
    assert found["laid"] and not found["out_of_date"]
    side = seam(found, "Side seam")
    assert side["verdict"] == "meets" and side["worst"]["mm"] < 0.2 and 0 < side["chance"] < 1
    assert [c["name"] for c in side["couples"]] == [
        "one side of the body, copy 1 to copy 1", "the other side of the body, copy 2 to copy 1",
    ]  # fmt: skip
    assert seam(found, "Pocket on Front")["verdict"] == "meets"
    # the worst one is told first
    ranks = [next(s for s in found["seams"] if s["id"] == n)["verdict"] for n in found["worst_first"]]
    assert ranks == sorted(ranks, key=["misses", "nearly", "unknown", "meets", "not asked"].index)
    steps = [step["told"] for step in found["steps"]]
    assert steps[0].startswith("Square the bars") and "from the cut end" in steps[1]
    shown = shirt.ask("GET", f"{P}/seams/{number}/preview?couple=1")
    assert len(shown["couples"]) == 2 and len(shown["a"]["matrix"]) == 6 and shown["gap"]["mm"] < 5
    assert {s["way"] for s in shown["strips"]} == {"levels", "lengthwise"}
    shirt.ask("GET", f"{P}/seams/{number}/preview?at_cut=true")
    shirt.refused("GET", f"{P}/seams/{number}/preview?couple=7")
    shirt.ask("GET", f"{P}/seams/999/preview", 404)
    shirt.ask("GET", f"{P}/match?lay_id=999", 404)
    shirt.ask("PATCH", "/settings", system="imperial")
    inches = seam(match(shirt), "Side seam")
    assert inches["worst"]["text"].endswith("in") and "cm" not in " ".join(s["told"] for s in match(shirt)["steps"])
    # what a seam is called, and which of two that both meet comes first, asks nothing else of the lay
    shirt.ask("PATCH", f"/seams/{number}", name="Side seams")
    first, second, *others = (s["id"] for s in found["seams"])
    shirt.ask("PUT", f"{P}/seams/order", seams=[second, first, *others])
    assert not match(shirt)["out_of_date"]
    # a change of the garment is told: the lay was made before it
    shirt.ask("PATCH", f"/seams/{number}", key_a="1 in", key_b="2 in")
    assert match(shirt)["out_of_date"]


def test_a_piece_laid_on_another_keeps_its_place(shirt: Person) -> None:
    found = pieces(shirt)
    pocket, front = found["Pocket"], found["Front"]
    top = max((e for e in pocket["edges"] if e["whole"]), key=lambda e: sum(p[0] for p in e["line"]) / len(e["line"]))
    told = shirt.ask(
        "POST", f"{P}/seams", 201, kind="laid on", name="Pocket", key_a="6,5 cm", lengthwise=True,
        a={"piece_id": pocket["id"], "begin": top["begin"], "end": top["end"]},
        b={"piece_id": front["id"], "along": "40 cm", "across": "12 cm right"},
    )  # fmt: skip
    one = seam(told, "Pocket")
    assert one["at_along"]["text"] == "40.0 cm" and one["at_across"]["text"] == "12.0 cm right"
    assert one["b"]["key"] == pytest.approx([400.0, -120.0], abs=1e-6)
    moved = seam(shirt.ask("PATCH", f"/seams/{one['id']}", along="38 cm"), "Pocket")
    assert moved["b"]["key"][0] == pytest.approx(380.0)


def test_corners_are_set_and_a_seam_whose_edge_is_gone_says_so(shirt: Person) -> None:
    found = pieces(shirt)
    sleeve = found["Sleeve"]
    inner = next(c for c in sleeve["corners"] if not c["corner"])
    told = shirt.ask("PUT", f"/pieces/{sleeve['id']}/corners", key=inner["key"], corner=True)
    after = next(p for p in told["pieces"] if p["name"] == "Sleeve")
    assert len(after["edges"]) == len(sleeve["edges"]) + 1
    assert next(c for c in after["corners"] if c["key"] == inner["key"])["said"]
    shirt.refused("PUT", f"/pieces/{sleeve['id']}/corners", key=999, corner=True)
    back = shirt.ask("PUT", f"/pieces/{sleeve['id']}/corners", key=inner["key"], corner=None)
    assert len(next(p for p in back["pieces"] if p["name"] == "Sleeve")["edges"]) == len(sleeve["edges"])
    (number,) = shirt.sew(1, found["Front"]["id"], found["Back"]["id"])
    shirt.ask("DELETE", f"/pieces/{found['Back']['id']}")
    gone = match(shirt)["seams"]
    assert (
        gone[0]["id"] == number and gone[0]["gone"] == "One of its pieces was taken out." and gone[0]["worst"] is None
    )
    shirt.ask("POST", f"/pieces/{found['Back']['id']}/restore")
    assert match(shirt)["seams"][0]["gone"] == ""
    # redrawn, its points are others
    stations = [
        {"along": "0 cm", "left": "20 cm", "right": "20 cm"},
        {"along": "50 cm", "left": "9 cm", "right": "9 cm"},
    ]
    shirt.ask("PATCH", f"/pieces/{found['Front']['id']}", drawn={"stations": stations})
    assert "no longer there" in match(shirt)["seams"][0]["gone"]


def test_a_wish_for_a_bar_fixes_the_phase_of_its_group(shirt: Person) -> None:
    found = pieces(shirt)
    shirt.sew(1, found["Front"]["id"], found["Back"]["id"], key="0 cm")
    named = match(shirt)["named_bars"]
    bar = next(b for b in named if b["way"] == "levels" and "seen first" in b["name"])
    assert {b["way"] for b in named} == {"levels", "lengthwise"} and bar["bar"] == pytest.approx(2.5)
    told = shirt.ask("PUT", f"{P}/bars-wished", piece_id=found["Front"]["id"], way="levels", at=0.0, bar=bar["bar"])
    assert [(w["piece_id"], w["bar"]) for w in told["wishes"]] == [(found["Front"]["id"], 2.5)]

    def phases() -> list[Any]:
        problem = shirt.ask("GET", f"{P}/lay-problem.json")
        return [m.get("phase") for p in problem["pieces"] for m in p["match"] if m["along"]]

    shirt.lay(1, seconds=1)
    with_it = phases()
    assert len(with_it) == 2 and with_it[0] is not None and with_it[0] == with_it[1]
    # laid, the middle of that bar falls on the front's low seam line
    lay = shirt.ask("GET", f"{P}/lay.json")
    bars = match(shirt)["bars"]
    front = next(c for c in lay["cut"] if c["piece"] == str(found["Front"]["id"]))
    off = (front["x"] - bars["x"][0]["begins"] - bars["x"][0]["width"] / 2) % bars["x_repeat"]
    assert min(off, bars["x_repeat"] - off) < 0.2 or front["turn"] == 180
    assert "which bar falls where" in shirt.ask("GET", P)["purchase"]["unmeasured"]
    free = shirt.ask("PUT", f"{P}/bars-wished", piece_id=found["Front"]["id"], way="levels", bar=None)
    assert free["wishes"] == []
    shirt.ask("PATCH", f"{P}/cloth", bars_across=[])
    shirt.refused("PUT", f"{P}/bars-wished", piece_id=found["Front"]["id"], way="lengthwise", bar=1.0)
    shirt.refused("PUT", f"{P}/bars-wished", piece_id=999, way="levels", bar=1.0)


def test_uneven_repeats_and_the_makers_own_hand_make_it_less_sure(shirt: Person) -> None:
    take_all(shirt)
    shirt.lay(1, seconds=1)
    sure = seam(match(shirt), "Side seam")["chance"]
    assert "from memory" in match(shirt)["how_sure"]
    told = shirt.ask("PATCH", f"{P}/cloth", repeats_along=["40 mm", "42 mm", "38 mm"])["cloth"]["along"]
    assert [r["mm"] for r in told["readings"]] == [40, 42, 38] and "differ by 2.0 mm" in told["uneven"]
    assert seam(match(shirt), "Side seam")["chance"] <= sure and "repeats that differ" in match(shirt)["how_sure"]
    even = shirt.ask("PATCH", f"{P}/cloth", repeats_along=["4 cm", "4 cm"])["cloth"]["along"]
    assert even["uneven"].startswith("The repeats are even")
    off = shirt.ask("PATCH", f"{P}/cloth", repeats_along=["4,4 cm"])["cloth"]["along"]
    assert "measure them over several repeats again" in off["uneven"]
    # pieces that were pinned and measured say how this maker lays
    shapes = shirt.ask("GET", f"{P}/lay")["lay"]["pinned"]["shapes"]
    for n, shape in enumerate(shapes[:4]):
        by = 4.0 if n % 2 else -4.0
        read = {end: shape[f"{end}_distance"]["mm"] + by for end in ("tail", "head")}
        shirt.ask("PATCH", f"{P}/true", check={"key": shape["key"], **read})
    assert "with a hand that lays a piece within 4.0 mm" in match(shirt)["how_sure"]
    assert seam(match(shirt), "Side seam")["chance"] < sure


def test_on_the_table_a_matched_piece_steps_from_bar_to_bar(shirt: Person) -> None:
    take_all(shirt)
    shirt.lay(1, seconds=1)
    lay = shirt.ask("GET", f"{P}/lay")["lay"]
    front = next(s for s in lay["pinned"]["shapes"] if s["name"].startswith("Front"))
    where = f"lay_id={lay['lay_id']}&keys={front['pinned']}"
    found = shirt.ask("GET", f"{P}/lay/agreeing?{where}")
    assert found["along"]["mm"] == pytest.approx(40, abs=5) and len(found["group"]) > 2 and found["places"]
    shirt.refused("GET", f"{P}/lay/agreeing?lay_id={lay['lay_id']}")
    moved = shirt.ask("POST", f"{P}/lays/{lay['lay_id']}/hand", do="step", keys=[front["pinned"]], x=1, y=0)["lay"]
    now = next(s for s in moved["pinned"]["shapes"] if s["pinned"] == front["pinned"])
    repeat = found["along"]["mm"]
    steps = (now["origin"][0] - front["origin"][0]) / repeat
    assert steps > 0.5 and steps == pytest.approx(round(steps), abs=0.01)
    assert seam(match(shirt), "Side seam")["verdict"] == "meets", "it still meets where it lies now"
    cuff = next(s for s in lay["pinned"]["shapes"] if s["name"].startswith("Cuff"))
    refused = shirt.refused("POST", f"{P}/lays/{moved['lay_id']}/hand", do="step", keys=[cuff["pinned"]], x=1, y=0)
    assert "no steps" in refused["message"]


def test_a_piece_that_is_cut_across_says_that_its_bars_run_the_other_way(shirt: Person) -> None:
    told = take_all(shirt)
    collar = seam(told, "Collar at centre back")
    assert collar["graph"] == "Collar is cut on the cross grain: its bars run the other way, and are not placed to meet"
    silent = shirt.ask("PATCH", f"/seams/{collar['id']}", levels=False, lengthwise=False)
    assert seam(silent, "Collar at centre back")["graph"] == ""


def test_a_pocket_with_its_allowance_inside_is_laid_on_by_the_middle_of_its_seam_line(shirt: Person) -> None:
    corners = [("0", "6,5 cm right"), ("15 cm", "6,5 cm right"), ("15 cm", "6,5 cm"), ("0", "6,5 cm")]
    points = [{"along": along, "across": across} for along, across in corners]
    shirt.ask("POST", f"{P}/pieces", 201, name="Patch", points=points, included="1,5 cm", copies=2)
    patch, front = pieces(shirt)["Patch"], pieces(shirt)["Front"]
    top = max((e for e in patch["edges"] if e["whole"]), key=lambda e: sum(p[0] for p in e["line"]))
    told = shirt.ask(
        "POST", f"{P}/seams", 201, kind="laid on", name="Patch", lengthwise=True,
        a={"piece_id": patch["id"], "begin": top["begin"], "end": top["end"]},
        b={"piece_id": front["id"], "along": "40 cm", "across": "12 cm right"},
    )  # fmt: skip
    one = seam(told, "Patch")
    # 13 cm at the cut edge less 1.5 cm at either side: 10 cm are sewn, and their middle lies in the pocket's middle
    assert top["long"]["mm"] == pytest.approx(130) and one["key_a"]["mm"] == pytest.approx(50)
    assert one["a"]["key"] == pytest.approx([135.0, 0.0], abs=0.01)
