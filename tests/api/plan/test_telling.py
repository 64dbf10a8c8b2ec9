"""A piece told in every way at the API, changed, graded, measured and printed."""

from __future__ import annotations

import math
from typing import Any

import pytest

from ...conftest import Person
from ...working_reader import check_step

SQUARE = [
    {"along": 0, "across": -100},
    {"along": 400, "across": -100},
    {"along": 400, "across": 100},
    {"along": 0, "across": 100},
]


@pytest.fixture
def panel(person: Person) -> Person:
    """Project 1 with a rectangle of 40 × 20 cm."""
    person.ask("POST", "/projects", name="Panels")
    person.ask("POST", "/projects/1/pieces", 201, name="Panel", points=SQUARE, seam="1.5 cm")
    return person


def draft(person: Person, number: int = 1) -> Any:
    return person.ask("GET", f"/pieces/{number}/draft")


WAYS = {
    "points": {"points": SQUARE},
    "tapes": {"tapes": {"apart": "40 cm", "points": [
        {"first": "10 cm", "second": math.hypot(400, 100), "side": side} for side in ("left",)
    ] + [{"first": 100, "second": math.hypot(400, 100), "side": "right"},
         {"first": math.hypot(400, 100), "second": 100, "side": "right"}]}},
    "measures": {"measures": {"shape": "rectangle", "first": "40 cm", "second": "20 cm"}},
    "stations": {"stations": [{"along": 0, "left": 100, "right": 100}, {"along": 400, "left": "10 cm", "right": "10"}]},
    "another": {"another": {"piece_id": 1, "change": "mirrored"}},
}  # fmt: skip


@pytest.mark.parametrize("way", WAYS)
def test_every_way_is_drawn_and_kept_alike(panel: Person, way: str) -> None:
    shown = panel.ask("POST", "/plan/outline", **WAYS[way])
    told = panel.ask("POST", "/projects/1/pieces", 201, name=way, **WAYS[way])
    kept = draft(panel, told["pieces"][-1]["id"])
    assert [p["key"] for p in kept["points"]] == [p["key"] for p in shown["points"]]
    assert kept["outline"] == shown["outline"]
    if way != "tapes":
        xs, ys = zip(*kept["outline"], strict=True)
        assert (max(xs) - min(xs), max(ys) - min(ys)) == pytest.approx((400, 200))


@pytest.mark.parametrize(
    ("body", "path", "says"),
    [
        ({"smooth": True}, "stations", "Tell the piece"),
        ({"points": SQUARE[:2]}, "points", "at least three points"),
        ({"points": [*SQUARE[:2], {"along": 0, "across": "x"}]}, "points.2.across", "“x”"),
        ({"points": [*SQUARE[:3], {"along": 0, "across": "left 3 right"}]}, "points.3.across", "two sides"),
        ({"points": [SQUARE[0], SQUARE[2], SQUARE[1], SQUARE[3]]}, "points", "crosses or touches itself"),
        ({"tapes": {"apart": 500, "points": [{"first": 99, "second": 99}] * 3}}, "tapes", "do not reach each other"),
        ({"measures": {"shape": "ring", "first": 700, "second": 500, "panels": 1}}, "measures", "two panels"),
        ({"measures": {"shape": "circle", "first": 0}}, "measures", "Give its measures"),
        ({"another": {"piece_id": 1, "change": "lengthened", "line": 900, "by": 9}}, "another", "must lie on"),
        ({"points": SQUARE, "arrow": {"tail": SQUARE[0], "head": SQUARE[0]}}, "arrow", "shorter than"),
        ({"points": SQUARE, "notches": [{"after": 9, "at": 10}]}, "notches.0", "no longer there"),
        ({"points": SQUARE, "marks": [{"kind": "dart", "places": SQUARE[:1]}]}, "marks.0", "3 places"),
        ({"points": SQUARE, "marks": [{"kind": "level", "places": SQUARE[:1]}]}, "marks.0.name", "needs a name"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_said_where_it_stands(panel: Person, body: dict[str, Any], path: str, says: str) -> None:
    told = panel.refused("POST", "/plan/outline", **body)
    assert told["fields"][0]["path"] == path and says in told["message"]
    before = panel.ask("GET", "/projects/1")["pieces"]
    panel.refused("POST", "/projects/1/pieces", name="P", **body)
    assert panel.ask("GET", "/projects/1")["pieces"] == before, "nothing was changed"


def test_a_change_of_one_point_keeps_all_else(panel: Person) -> None:
    marks = [{"kind": "point", "name": "pocket", "places": [{"along": 200, "across": 0}]}]
    panel.ask("PATCH", "/pieces/1", drawn={"points": SQUARE, "marks": marks, "notches": [{"after": 1, "at": "12 cm"}],
                                           "included": "1 cm"})  # fmt: skip
    now = draft(panel)
    points = [{"key": p["key"], "along": p["along"]["mm"], "across": p["across"]["mm"]} for p in now["points"]]
    points[2]["along"] = 430
    panel.ask("PATCH", "/pieces/1", drawn={"points": points, "included": now["included"]["mm"]})
    after = draft(panel)
    assert after["points"][2]["along"]["mm"] == 430
    assert after["included"]["mm"] == 10
    panel.ask("PATCH", "/pieces/1", name="Front panel")
    assert draft(panel)["points"] == after["points"]
    log = panel.ask("GET", "/projects/1/log")["entries"]
    assert "Changed the piece" in log[0]["what"]


def test_a_notch_is_told_by_a_place_too(panel: Person) -> None:
    shown = panel.ask("POST", "/plan/outline", points=SQUARE, notches=[{"place": [250, 104], "double": True}], seam=15)
    assert [(n["after"], n["at"]["mm"], n["double"]) for n in shown["notches"]] == [(3, 150, True)]
    ticks = [m["line"] for m in shown["drawn"] if m["kind"] == "notch"]
    assert len(ticks) == 2 and all(a[1] == 100 and b[1] == 115 for a, b in ticks), "out to the cut line"


def test_a_bias_piece_keeps_its_printed_arrow(panel: Person) -> None:
    arrow = {"tail": {"along": 150, "across": -50}, "head": {"along": 250, "across": 50}}
    told = panel.ask("POST", "/projects/1/pieces", 201, name="Collar", points=SQUARE, arrow=arrow)
    piece = told["pieces"][-1]
    assert piece["lean"] == "45.0°" and piece["own_arrow"] and math.dist(piece["arrow"][1], (250, 50)) < 0.001
    assert piece["how_cut"] == "1 to cut, bias by its arrow"
    assert piece["long"]["value"] == pytest.approx(400), "as long as on the paper"
    # the tape laid along the arrow instead: the same piece, turned
    slanted = [
        {"along": (p["along"] + p["across"]) / math.sqrt(2), "across": (p["across"] - p["along"]) / math.sqrt(2)}
        for p in SQUARE
    ]
    other = panel.ask("POST", "/plan/outline", points=slanted)
    assert other["lean"] == "" and other["area"] == panel.ask("POST", "/plan/outline", points=SQUARE)["area"]


def test_edges_have_allowances_and_interfacing_none(panel: Person) -> None:
    points = [*SQUARE[:3], {**SQUARE[3], "allowance": "4 cm", "ends": "folded"}]
    now = panel.ask("PATCH", "/pieces/1", drawn={"points": points})["pieces"][0]
    xs, ys = zip(*now["cut"], strict=True)
    assert (min(xs), max(xs), min(ys), max(ys)) == pytest.approx((-40, 415, -115, 115))
    edges = draft(panel)["edges"]
    assert [(e["name"], e["allowance"]["mm"], e["seam"]["mm"]) for e in edges] == [
        ("1–2", 15, 400), ("2–3", 15, 200), ("3–4", 15, 400), ("4–1", 40, 200),
    ]  # fmt: skip
    use = panel.ask("POST", "/projects/1/uses", name="Canvas", role="interfacing")["uses"][-1]["id"]
    panel.ask("PUT", f"/pieces/1/cuts/{use}", bare=True)
    bare = panel.ask("GET", f"/pieces/1/draft?use={use}")
    assert bare["cut"] == bare["outline"] and {e["allowance"]["mm"] for e in bare["edges"]} == {0}


def test_an_allowance_that_leaves_nothing_is_refused_and_changes_nothing(panel: Person) -> None:
    told = panel.refused("POST", "/plan/outline", points=SQUARE, included="12 cm")
    assert "break the piece into parts" in told["message"]
    panel.refused("PATCH", "/pieces/1", drawn={"points": SQUARE, "included": "12 cm"})
    assert draft(panel)["included"]["mm"] == 0


def test_half_a_character_is_refused_and_no_fault(panel: Person) -> None:
    told = panel.refused("POST", "/plan/outline", stations=[{"along": "\ud800", "left": 9, "right": 9}] * 2)
    assert told["fields"][0]["path"] == "stations.0.along"


def test_ticking_fold_before_or_after_gives_the_same_piece(panel: Person) -> None:
    before = panel.ask("POST", "/projects/1/pieces", 201, name="Before", points=SQUARE, on_fold=True)["pieces"][-1]
    panel.ask("POST", "/projects/1/pieces", 201, name="After", points=SQUARE)
    after = panel.ask("PATCH", "/pieces/3", on_fold=True)["pieces"][-1]
    assert (before["on_fold"], before["half"]) == (after["on_fold"], after["half"]) == (True, True)
    assert sorted(map(tuple, before["outline"])) == sorted(map(tuple, after["outline"]))
    assert before["fold"] == after["fold"] == [0, 400]


def test_other_cloths_follow_the_paper_from_half_to_whole_and_back(panel: Person) -> None:
    number = panel.ask("POST", "/projects/1/pieces", 201, name="Half", points=SQUARE, on_fold=True)["pieces"][-1]["id"]
    lining = panel.ask("POST", "/projects/1/uses", 201, name="Lining", role="lining")["uses"][-1]["id"]

    def cut(project: Any) -> tuple[bool, bool]:
        (there,) = [c for p in project["pieces"] if p["id"] == number for c in p["cuts"] if c["use_id"] == lining]
        return there["on_fold"], there["pair"]

    at = f"/pieces/{number}/cuts/{lining}"
    assert cut(panel.ask("PUT", at, copies=2, on_fold=True)) == (True, False)
    assert cut(panel.ask("PATCH", f"/pieces/{number}", on_fold=False)) == (False, False), "a whole is no pair by itself"
    assert cut(panel.ask("PUT", at, copies=2, pair=True)) == (False, True)
    assert cut(panel.ask("PATCH", f"/pieces/{number}", on_fold=True)) == (True, False), "a half on the fold is no pair"


def test_what_is_made_from_a_half_is_a_half_on_the_fold(panel: Person) -> None:
    panel.ask("POST", "/projects/1/pieces", 201, name="Back", points=SQUARE, on_fold=True)
    facing = {"another": {"piece_id": 2, "change": "facing", "edge": 0, "width": 60}}
    made = panel.ask("POST", "/projects/1/pieces", 201, name="Back facing", **facing)["pieces"][-1]
    assert made["half"] and made["on_fold"] and made["how_cut"] == "1 on the fold"
    assert made["wide"]["value"] == pytest.approx(200, abs=0.1), "opened out it is as wide as the back"


def test_a_drawing_read_instead_that_is_a_half_now_is_cut_on_the_fold(panel: Person) -> None:
    """Else half a back would be laid and bought."""
    fold = '<line class="fold-edge" x1="10" y1="190" x2="10" y2="20"/>'
    drawn = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 300 300"><g class="piece">'
        f'<title>Panel</title><rect x="10" y="10" width="100" height="200"/>{fold}</g></svg>'
    )
    told = panel.ask("POST", "/projects/1/pieces/svg", svg=drawn, file_name="half.svg", twice="instead")
    (piece,) = told["project"]["pieces"]
    assert piece["half"] and piece["on_fold"] and piece["wide"]["value"] == pytest.approx(2 * 115, abs=0.01)


def test_an_outline_of_many_corners_is_told_and_kept(panel: Person) -> None:
    ring = [{"along": 500 + r * math.cos(a), "across": r * math.sin(a)}
            for k in range(600) for a, r in [(2 * math.pi * k / 600, 400 + 10 * (k % 2))]]  # fmt: skip
    told = panel.ask("POST", "/projects/1/pieces", 201, name="Scallops", points=ring)
    assert told["pieces"][-1]["fault"] == "" and len(draft(panel, 2)["points"]) == 600


def test_what_looks_like_a_slip_is_asked_back_and_kept_if_insisted_on(panel: Person) -> None:
    wide = [{"along": 0, "left": "3 m", "right": 60}, {"along": 400, "left": 100, "right": 50}]
    assert "is it 300.0 cm to the left" in panel.ask("POST", "/plan/outline", stations=wide)["doubts"][0]
    told = panel.refused("POST", "/projects/1/pieces", name="Front", stations=wide)
    assert told["code"] == "asked" and "300.0 cm to the left" in told["message"]
    kept = panel.ask("POST", "/projects/1/pieces", 201, sure=True, name="Front", stations=wide)
    assert kept["pieces"][-1]["name"] == "Front"
    told = panel.refused("PATCH", "/projects/1/cloth", width_readings=["44 cm"])
    assert told["code"] == "asked" and "Is it 44.0 cm?" in told["message"]
    assert panel.ask("PATCH", "/projects/1/cloth", sure=True, width_readings=["44 cm"])["cloth"]["width_readings"]
    panel.ask("PATCH", "/projects/1/cloth", in_hand="2 m")
    flaw = [{"x": "2,5 m", "y": "10 cm", "w": "2 cm", "h": "2 cm", "what": "hole"}]
    told = panel.refused("PATCH", "/projects/1/cloth", flaws=flaw)
    assert told["code"] == "asked" and told["fields"][0]["path"] == "flaws.0.x" and "252.0 cm along" in told["message"]
    assert panel.ask("PATCH", "/projects/1/cloth", sure=True, flaws=flaw)["cloth"]["flaws"]


def test_sizes_are_graded_chosen_and_blended(panel: Person) -> None:
    marks = [
        {"kind": "level", "name": name, "places": [{"along": at, "across": 0}]}
        for name, at in (("bust", 400), ("hip", 0))
    ]
    panel.ask("PATCH", "/pieces/1", drawn={"points": SQUARE, "marks": marks})
    grades = [
        {"key": key, "along": 0, "across": across}
        for key, across in ((1, "1 cm right"), (2, -10), (3, 10), (4, "1 cm"))
    ]
    told = panel.ask("PUT", "/pieces/1/sizes", sizes=["38", "40", "42"], base="38", grades=grades)
    assert told["sizes"] == ["38", "40", "42"] and told["levels"] == ["bust", "hip"]
    wide = panel.ask("PATCH", "/projects/1", size="42")["pieces"][0]
    assert wide["wide"]["value"] == pytest.approx(200 + 40 + 30)
    both = panel.ask("PATCH", "/projects/1", size_at=[{"place": "bust", "size": "38"}, {"place": "hip", "size": "42"}])[
        "pieces"
    ][0]
    top = [y for x, y in both["outline"] if x > 399]
    low = [y for x, y in both["outline"] if x < 1]
    assert max(top) == 100 and max(low) == 120
    assert draft(panel)["base"] == "38" and len(draft(panel)["grades"]) == 4
    told = panel.ask("PATCH", "/projects/1", size="50", size_at=[])["pieces"][0]
    assert "not drawn in size 50" in told["fault"]
    for body, says in (
        ({"sizes": ["38"], "base": "36"}, "must be among"),
        ({"sizes": ["38", "38"], "base": "38"}, "one name"),
    ):
        assert says in panel.refused("PUT", "/pieces/1/sizes", **body)["message"]


def test_the_ease_of_two_edges_comes_out_of_its_working(panel: Person) -> None:
    panel.ask(
        "POST", "/projects/1/pieces", 201, name="Sleeve", measures={"shape": "rectangle", "first": 426, "second": 300}
    )
    body = {"longer": [{"piece_id": 2, "edge": 0}], "shorter": [{"piece_id": 1, "edge": 0}]}
    told = panel.ask("POST", "/projects/1/ease", 200, **body)
    assert told["ease"]["value"] == pytest.approx(26) and told["share"]["value"] == pytest.approx(6.5)
    for figure in (told["ease"], told["share"]):
        for step in figure["steps"]:
            check_step(step["formula"], [(i["name"], i["text"]) for i in step["inputs"]], step["result"])
    for edge in ({"piece_id": 1, "edge": 9}, {"piece_id": 99, "edge": 0}):
        panel.ask(
            "POST", "/projects/1/ease", 404 if edge["piece_id"] == 99 else 422, longer=[edge], shorter=body["shorter"]
        )


def test_the_sheet_and_the_pages(panel: Person) -> None:
    sheet = panel.ask("GET", "/projects/1/sheet")
    (piece,) = sheet["pieces"]
    assert (piece["long"], piece["wide"], piece["area"]) == ("43.0 cm", "23.0 cm", "989 cm²") and len(
        piece["edges"]
    ) == 4
    pages = panel.ask("GET", "/pieces/1/pages?paper=a4")
    assert [p["name"] for p in pages["pages"]] == ["A1", "A2", "B1", "B2"] and not pages["can_enlarge"]
    assert "not enlarged" in panel.refused("GET", "/pieces/1/pages?enlarged=true")["message"]
    panel.ask("PATCH", "/projects/1/treatment", school="fit")
    panel.ask("PATCH", "/projects/1/cloth", blend=[{"fibre": "cotton", "share": 100}], weave="denim")
    enlarged = panel.ask("GET", "/pieces/1/pages?enlarged=true")
    grown = {e["name"]: e["grown"]["mm"] for e in enlarged["edges"]}
    along = grown["1–2"] / 400
    assert along > 0.02 and grown["3–4"] == pytest.approx(400 * along) and grown["2–3"] > 0
    panel.ask("GET", "/pieces/99/pages", 404)


def test_one_piece_that_is_here_already_and_several_are_told_so(panel: Person) -> None:
    def drawn(*names: str) -> str:
        groups = [
            f'<g class="piece"><title>{name}</title><rect x="{10 + 90 * k}" y="10" width="80" height="200"/></g>'
            for k, name in enumerate(names)
        ]
        return (
            '<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 300 300">'
            f"{''.join(groups)}</svg>"
        )

    panel.ask("POST", "/projects/1/pieces/svg", svg=drawn("Cuff", "Yoke"), file_name="two.svg")
    one = panel.refused("POST", "/projects/1/pieces/svg", svg=drawn("Cuff"), file_name="one.svg")
    assert "“Cuff” is here already" in one["message"]
    two = panel.refused("POST", "/projects/1/pieces/svg", svg=drawn("Cuff", "Yoke"), file_name="two.svg")
    assert "“Cuff” and “Yoke” are here already" in two["message"]
