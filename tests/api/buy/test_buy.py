"""Buy: lays tried on the side and kept, offers, sharing, the cupboard, and the sheets."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
from sqlalchemy import select

from idle_selvage.core.lay.engine.solver import EngineFault
from idle_selvage.jobs import laying, trying
from idle_selvage.store import job as jobs
from idle_selvage.store import models, trial

from ...conftest import STEPS, Person

LINEN = [{"fibre": "linen", "share": 100}]


@pytest.fixture
def laid(skirt: Person) -> Person:
    """Project 1, laid for a second on cloth with nap, stripes that meet and a flaw."""
    skirt.ask(
        "PATCH",
        "/projects/1/cloth",
        direction="nap",
        bars_along=[{"width": "1 cm", "colour": "#334455"}, {"width": "4 cm", "colour": "#ddeeff"}],
        flaws=[{"x": "20 cm", "y": "20 cm", "w": "3 cm", "h": "3 cm", "what": "slub"}],
    )
    skirt.sew(1, *(piece["id"] for piece in skirt.ask("GET", "/projects/1")["pieces"]), key="5 cm")
    skirt.ask("PATCH", "/projects/1/lay", folds=["open"], lay_seconds=1)
    job = skirt.ask("POST", "/projects/1/lays", seconds=1)["id"]
    laying.run(skirt.app.services.database, job, STEPS)
    return skirt


def run(person: Person, what: str, project: int = 1, **more: Any) -> dict[str, Any]:
    """Begin the trials of a part, and do them in this process."""
    told = person.ask("POST", f"/projects/{project}/trials", 202, what=what, **more)
    if told["job_id"]:
        trying.run(person.app.services.database, told["job_id"], STEPS)
    query = f"?what={what}" + "".join(f"&{k}={v}" for k, v in more.items())
    found: dict[str, Any] = person.ask("GET", f"/projects/{project}/trials{query}")
    return found


def lines(project: dict[str, Any]) -> dict[str, float]:
    return {line["key"]: line["adds"]["mm"] for line in project["purchase"]["lines"]}


def test_the_lay_shows_what_it_was_laid_around(laid: Person) -> None:
    (area,) = laid.ask("GET", "/projects/1/lay")["lay"]["pinned"]["kept_off"]
    shrink = laid.ask("GET", "/projects/1/shrink")

    def left(way: str, end: str) -> float:
        return 1 - float(shrink[f"{way}_known"]["figure"][f"{end}_value"]) / 100

    # the flaw lies at 20 cm both ways, 3 cm each; half of the 10 cm for the ends and 1 cm of margin are off. How much
    # the cloth shrinks is known within its sureness: kept off is everything between
    xs, ys = zip(*area["outline"], strict=True)
    x0, x1, y0 = min(xs), max(xs), min(ys)
    assert not area["under"]
    assert x0 == pytest.approx(200 * left("warp", "high") - 50, abs=0.01)
    assert x1 == pytest.approx(230 * left("warp", "low") - 50, abs=0.01)
    assert y0 == pytest.approx(200 * left("weft", "high") - 10, abs=0.01)


def test_what_nap_bars_and_flaws_cost_is_measured(laid: Person) -> None:
    before = laid.ask("GET", "/projects/1")
    assert before["purchase"]["unmeasured"] == ["all tops one way", "meeting the bars", "laid around the flaws"]
    assert "nap" not in lines(before)
    after = run(laid, "extras")
    assert after["state"] == "idle" and after["lacking"] == 0 and after["of"] == 3
    project = laid.ask("GET", "/projects/1")
    found = lines(project)
    assert project["purchase"]["unmeasured"] == [] and {"nap", "matching", "flaws"} <= set(found)
    assert all(found[key] >= 0 for key in ("nap", "matching", "flaws"))
    lay = next(t["figure"]["value"] for t in project["tally"] if t["key"] == "lay")
    assert sum(found[key] for key in ("lay", "nap", "matching", "flaws")) == pytest.approx(lay)
    assert sum(found.values()) == pytest.approx(project["purchase"]["to_buy"]["value"])
    assert {t["name"] for t in project["purchase"]["thumbs"]} >= {
        "23 cm more for nap",
        "one repeat for each main piece",
    }
    assert project["purchase"]["least"]["value"] <= project["purchase"]["to_buy"]["value"]


def test_going_back_is_instant_and_a_changed_rule_is_measured_anew(laid: Person) -> None:
    run(laid, "extras")
    again = laid.ask("POST", "/projects/1/trials", 202, what="extras")
    assert again["job_id"] is None, "everything is there"
    # changes that need no lay only change the sums
    wished = laid.ask("PATCH", "/projects/1/purchase", spare="12 cm", shop_step=250)
    assert lines(wished)["spare"] == 120 and wished["purchase"]["unmeasured"] == []


def test_a_trial_stops_when_asked_and_goes_on_where_it_was(laid: Person) -> None:
    database = laid.app.services.database
    told = laid.ask("POST", "/projects/1/trials", 202, what="extras")
    laid.ask("POST", f"/jobs/{told['job_id']}/cancel")
    trying.run(database, told["job_id"], STEPS)
    assert laid.ask("GET", f"/jobs/{told['job_id']}")["state"] == "cancelled"
    assert laid.ask("GET", "/projects/1/trials?what=extras")["lacking"] == 3
    # a worker killed in the middle: one lay is there already, and is not tried again
    told = laid.ask("POST", "/projects/1/trials", 202, what="extras")
    with database.begin() as session:
        one = jobs.job(session, told["job_id"]).params["trials"][0]
        there = models.Trial(fingerprint=one["print"], lays=[], why="as it was", seconds=99.0)
        session.add(there)
    trying.run(database, told["job_id"], STEPS)
    with database.look() as session:
        row = session.get(models.Trial, one["print"])
        assert row is not None and row.why == "as it was"
    assert laid.ask("GET", "/projects/1/trials?what=extras")["lacking"] == 0


def test_only_the_newest_trials_are_kept(laid: Person, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(trial, "MOST_KEPT", 2)
    run(laid, "extras")
    laid.ask("PATCH", "/projects/1/lay", gap="1 cm")
    laid.ask("POST", "/projects/1/offers", name="Wide", width="150 cm")
    with laid.app.services.database.look() as session:
        assert len(session.scalars(select(models.Trial)).all()) == 3
    run(laid, "offers")
    with laid.app.services.database.look() as session:
        assert len(session.scalars(select(models.Trial)).all()) == 3, "two of the old ones, and the new one"


def test_a_wider_offer_is_laid_weighed_and_marked(laid: Person) -> None:
    laid.ask("POST", "/projects/1/offers", name="Wide", width="150 cm", price="12")
    laid.ask("POST", "/projects/1/offers", name="Dear", width="150 cm", price="40", stock="10 cm")
    found = laid.ask("POST", "/projects/1/offers", name="Ribbon", width="14 cm")
    assert [o["name"] for o in found["offers"]] == ["Linen", "Wide", "Dear", "Ribbon"]
    assert "across" in found["offers"][3]["told"], "a piece is wider than it"
    assert found["trials"]["lacking"] == 1, "two offers of one width ask for one lay"
    run(laid, "offers")
    own, wide, dear, ribbon = laid.ask("GET", "/projects/1/offers")["offers"]
    assert wide["lay"]["length"]["mm"] <= own["lay"]["length"]["mm"] + 30 and len(wide["lay"]["outlines"]) == 3
    # the price of a metre, and what is bought
    assert wide["cost"]["value"] == pytest.approx(wide["to_buy"]["value"] / 1000 * 12)
    assert dear["lacking"]["value"] == pytest.approx(dear["to_buy"]["value"] - 100)
    assert not dear["cheapest"] and not ribbon["cheapest"] and own["cheapest"] != wide["cheapest"]
    yards = laid.ask("PATCH", "/projects/1/offers/1", price_unit="yd")["offers"][1]
    assert yards["cost"]["value"] == pytest.approx(wide["cost"]["value"] / 0.9144)
    assert [o["name"] for o in laid.ask("DELETE", "/projects/1/offers/1")["offers"]] == ["Linen", "Dear", "Ribbon"]
    assert len(laid.ask("POST", "/projects/1/offers/1/restore")["offers"]) == 4


def test_offers_that_cannot_be(laid: Person) -> None:
    assert laid.refused("POST", "/projects/1/offers", name="No width")["fields"][0]["path"] == "width"
    assert "per cent" in laid.refused("POST", "/projects/1/offers", name="A", width="1 m", warp="60")["message"]
    assert "from" in laid.refused("POST", "/projects/1/offers", name="A", width="1 cm")["message"]
    assert "no such cloth" in laid.refused("POST", "/projects/1/offers", shop_number="Q9999")["message"]
    laid.ask("DELETE", "/projects/1/offers/99", 404)


def test_the_shops_list_serves_offers(laid: Person) -> None:
    shop = laid.ask("GET", "/projects/1/shop")
    assert shop["stand_in"] and shop["quotes"] and all("linen" in q["made_of"] for q in shop["quotes"])
    first = shop["quotes"][0]
    found = laid.ask("POST", "/projects/1/offers", shop_number=first["number"])["offers"][-1]
    assert found["name"] == first["name"] and found["width"] == first["width"] and found["stock"] == first["stock"]
    assert laid.ask("GET", "/projects/1/shop")["quotes"][0]["added"]


def test_two_garments_from_one_length(laid: Person) -> None:
    laid.ask("POST", "/projects", name="Apron")
    laid.ask("PATCH", "/projects/2/lay", folds=["open"], lay_seconds=1)
    assert "no pieces yet" in laid.ask("PUT", "/projects/1/together", uses=[2])["uses"][1]["why_not"]
    band = [{"along": "0", "left": "20", "right": "20"}, {"along": "50", "left": "20", "right": "20"}]
    laid.ask("POST", "/projects/2/pieces", name="Bib", smooth=False, stations=band)
    waiting = laid.ask("PUT", "/projects/1/together", uses=[2])
    assert waiting["trials"]["lacking"] == 3 and waiting["together"] is None
    run(laid, "together")
    found = laid.ask("GET", "/projects/1/together")
    apart, both = found["apart"]["value"], found["together"]["value"]
    assert apart == pytest.approx(sum(p["alone"]["value"] for p in found["uses"] if p["chosen"]))
    assert found["saved"]["value"] == pytest.approx(apart - both)
    assert both < apart, "one pair of ends and one rounding less"
    assert len(found["lay"]["outlines"]) == 4
    laid.ask("DELETE", "/projects/2")
    assert len(laid.ask("GET", "/projects/1/together")["uses"]) == 1, "a deleted project shares nothing"


def remnant(person: Person, length: str) -> int:
    number: int = person.ask("POST", "/cloths", name="Remnant")["id"]
    person.ask(
        "PATCH",
        f"/cloths/{number}",
        blend=LINEN,
        width_readings=["112 cm", "112 cm", "112 cm"],
        margin_low="1 cm",
        margin_high="1 cm",
        in_hand=length,
        treated=True,
    )
    return number


def test_a_long_remnant_will_do(laid: Person) -> None:
    number = remnant(laid, "3 m")
    asked = f"/projects/1/will-it-do?cloth_id={number}"
    assert laid.ask("GET", asked)["does"] is None
    run(laid, "cupboard", cloth_id=number)
    found = laid.ask("GET", asked)
    # treated: nothing shrinks any more; 3 m less two ends of 5 cm
    assert found["does"] and found["there"]["value"] == pytest.approx(2900)
    assert found["over"]["value"] == pytest.approx(2900 - found["needs"]["value"]) and found["helps"] == []


def test_a_short_remnant_is_told_how_short_and_what_helps(laid: Person) -> None:
    pieces = {p["name"]: p["id"] for p in laid.ask("GET", "/projects/1")["pieces"]}
    laid.ask("PATCH", f"/pieces/{pieces['Band']}", hidden=True)
    for seam in laid.ask("GET", "/projects/1/match")["seams"]:
        laid.ask("PATCH", f"/seams/{seam['id']}", levels=False)
    laid.ask("PATCH", f"/pieces/{pieces['Sleeve']}", hem=True)
    number = remnant(laid, "66 cm")
    run(laid, "cupboard", cloth_id=number)
    found = laid.ask("GET", f"/projects/1/will-it-do?cloth_id={number}")
    # the sleeve is 58 cm long with its allowances, 66 − 10 are there; the band is 70 cm long
    assert not found["does"] and found["over"]["value"] < 0 and "short" in found["headline"]
    helps = {h["kind"]: h for h in found["helps"]}
    assert helps["cross"]["name"] == "Band on the cross grain"
    assert any("Band joined, 35.0 cm" in h["name"] for h in found["helps"])
    assert helps["cross"]["state"] in ("short", "does") and all(h["state"] != "waiting" for h in found["helps"])
    # two centimetres off the hem and nothing else: the band is longer than that
    assert helps["hem"]["state"] != "does"
    # torn or cut by eye an end loses 5 cm; a thread drawn, 3 cm: 4 cm more to lay on
    assert "6.0 cm off both ends" in helps["ends"]["name"] and helps["ends"]["state"] in ("short", "does")
    # what cannot be laid is no help, and is not shown as one
    assert {h["state"] for h in found["helps"]} <= {"does", "short", "worse"}
    assert found["trials"]["lacking"] == 0


def test_a_cloth_of_unknown_length_cannot_be_tried(laid: Person) -> None:
    number = laid.ask("POST", "/cloths", name="Bolt")["id"]
    found = laid.ask("GET", f"/projects/1/will-it-do?cloth_id={number}")
    assert found["does"] is None and "measure its length" in found["warnings"][0]
    assert "Choose a cloth" in laid.refused("POST", "/projects/1/trials", what="cupboard")["message"]
    laid.ask("GET", "/projects/1/will-it-do?cloth_id=99", 404)


def test_more_bought_on_purpose_needs_its_reason_and_stands_in_the_log(laid: Person) -> None:
    told = laid.refused("PATCH", "/projects/1/purchase", bought_extra="50 cm")
    assert told["fields"][0]["path"] == "extra_why"
    bought = laid.ask("PATCH", "/projects/1/purchase", bought_extra="50 cm", extra_why="clearance")
    line = next(x for x in bought["purchase"]["lines"] if x["key"] == "extra")
    assert line["adds"]["mm"] == 500 and "clearance" in line["name"]
    assert laid.ask("GET", "/projects/1/log")["entries"][0]["after"]["extra_why"] == "clearance"


def test_the_way_the_first_edge_is_made_sets_what_the_ends_take(laid: Person) -> None:
    assert laid.ask("GET", "/projects/1")["wishes"]["edge"]["way"] == "thread", "linen is not torn"
    torn = laid.ask("PATCH", "/projects/1/purchase", edge_way="tear")
    assert torn["wishes"]["ends"]["mm"] == 100 and lines(torn)["ends"] == 100
    advised = laid.ask("PATCH", "/projects/1/purchase", edge_way="")
    assert advised["wishes"]["ends"]["mm"] == 60
    assert laid.ask("PATCH", "/projects/1/purchase", ends="4 cm")["wishes"]["ends"]["mm"] == 40


def test_flaws_and_bars_put_the_lay_out_of_date(laid: Person) -> None:
    told = laid.ask("PATCH", "/projects/1/cloth", flaws=[])
    assert any("the flaws to lay around were changed" in w["text"] for w in told["warnings"])
    bars = [{"width": "2 cm", "colour": "#334455"}, {"width": "4 cm", "colour": "#ddeeff"}]
    told = laid.ask("PATCH", "/projects/1/cloth", bars_along=bars)
    assert any("the bars to meet were changed" in w["text"] for w in told["warnings"])


ENVELOPE: dict[str, Any] = {
    "sizes": [{"name": "12", "body": "90 cm", "finished": "104 cm"}, {"name": "14", "body": "95 cm"}],
    "measure": "bust",
    "mine": "92 cm",
    "fit": "loose",
    "views": [{"name": "A", "rows": [{"width": "60 in", "lengths": ["2 1/8 yd", "2 1/4 yd"]}]}],
}


def test_the_envelope_is_read_converted_and_compared(laid: Person) -> None:
    found = laid.ask("PATCH", "/projects/1/envelope", **ENVELOPE)
    assert found["chosen_size"] == "12" and "down" in found["size_told"] and "12.0 cm ease" in found["ease_told"]
    assert (found["row"], found["column"]) == (0, 0) and found["printed"]["mm"] == pytest.approx(2.125 * 914.4)
    # cloth of 111.9 cm is the table's 44–45 in: 2⅛ yd of 60 in lie under the table's 2¼,
    # and in that row stand 2⅞ for 44–45 in; and it asks for more for the nap
    assert found["converted"]["mm"] == pytest.approx(2.875 * 914.4) and found["more"]["mm"] == pytest.approx(228.6)
    assert any("direction" in t["text"] and t["look"] for t in found["told"]) and "more than that" in found["compared"]
    close = laid.ask("PATCH", "/projects/1/envelope", fit="close")
    assert close["chosen_size"] == "14" and close["column"] == 1
    wide = laid.ask("PATCH", "/projects/1/envelope", to_width="60 in")
    assert wide["converted"] is None and "2 ¼ yd" in wide["headline"]
    own = laid.ask("PATCH", "/projects/1/envelope", size="12")
    assert own["chosen_size"] == "12" and laid.ask("GET", "/projects/1/envelope") == own
    assert "no number" in laid.refused("PATCH", "/projects/1/envelope", mine="so wide")["message"]


def test_an_envelope_prints_ranges_and_rows_for_nap(laid: Person) -> None:
    rows = [
        {"width": "44–45 in", "nap": nap, "lengths": [yards]}
        for nap, yards in (("without", "2 yd"), ("with", "2 1/4 yd"))
    ]
    given = {"sizes": [{"name": "S", "body": "36–38 in"}], "views": [{"name": "A", "rows": rows}], "mine": "37 in"}
    found = laid.ask("PATCH", "/projects/1/envelope", **given)
    body, width = found["sizes"][0]["body"], found["views"][0]["rows"][0]["width"]
    assert (body["mm"], body["to"]) == pytest.approx((36 * 25.4, 38 * 25.4)) and found["chosen_size"] == "S"
    assert (width["mm"], width["to"]) == pytest.approx((44 * 25.4, 45 * 25.4))
    # the cloth has nap: the row with nap is read, and nothing is added to it
    assert found["row"] == 1 and found["printed"]["mm"] == pytest.approx(2.25 * 914.4)
    assert found["answer"]["value"] == pytest.approx(2.25 * 914.4)
    # sent back as it was got, it is the same
    again = [{**r, "width": [r["width"]["mm"], r["width"]["to"]], "lengths": [x["mm"] for x in r["lengths"]]}
             for r in found["views"][0]["rows"]]  # fmt: skip
    assert laid.ask("PATCH", "/projects/1/envelope", views=[{"name": "A", "rows": again}]) == found
    assert (
        "91–97 cm" in laid.refused("PATCH", "/projects/1/envelope", sizes=[{"name": "S", "body": "2–3 cm"}])["message"]
    )


def test_strips_and_tape(laid: Person) -> None:
    found = laid.ask("PATCH", "/projects/1/strips", edge="80 cm", depth="12 cm", ring=False)
    assert {w["key"] for w in found["ways"]} == {"across", "along"} and found["ways"][0]["least"]
    along = next(w for w in found["ways"] if w["key"] == "along")
    assert along["cloth"]["value"] == along["each"]["mm"] == 1600, "a strip along takes its own length of cloth"
    assert "of these strips alone" in found["told"] and along["planned"] == "no"
    assert laid.ask("PATCH", "/projects/1/strips", fullness="0,5")["fault"].startswith("Fullness")
    tape = laid.ask("PATCH", "/projects/1/strips", long="50 cm", wide="40 cm", tape="3 cm", fullness="2")
    assert tape["cut_strips"]["value"] > 5000 and tape["joins"] > 3 and tape["rounds"] > 3 and not tape["fault"]
    assert "too small" in laid.ask("PATCH", "/projects/1/strips", tape="40 cm")["tape_fault"]


def test_the_list_forgets_nothing_and_is_taken_away(laid: Person) -> None:
    laid.ask("POST", "/projects/1/uses", name="Lawn", role="lining")
    found = laid.ask("POST", "/projects/1/list", kind="zip", name="Zip, 18 cm", amount="1")
    assert [i["kind"] for i in found["items"]] == ["cloth", "lining", "thread", "zip"]
    assert "soak" in found["items"][3]["pretreat"] and found["items"][0]["amount"].endswith("m")
    assert "97 %" not in found["items"][2]["name"] and "80 %" in found["items"][2]["name"], "4 cm in 5 are pale"
    ticked = laid.ask("PUT", "/projects/1/list/own-1/have", have=True)
    assert ticked["items"][3]["have"] and ticked["headline"] == "3 things to bring"
    answer = laid.client.get("/api/projects/1/list.csv", base_url="http://127.0.0.1")
    rows = list(csv.reader(io.StringIO(answer.get_data(as_text=True))))
    assert rows[4][:3] == ["zip", "Zip, 18 cm", "1"] and rows[4][5] == "yes" and len(rows) == 5
    assert "kind from" in laid.refused("POST", "/projects/1/list", kind="boat", name="A")["message"]
    laid.ask("DELETE", "/projects/1/list/cloth", 404)
    laid.ask("PUT", "/projects/1/list/own-7/have", 404, have=True)
    laid.ask("DELETE", "/projects/1/list/own-٣", 404)
    gone = laid.ask("DELETE", "/projects/1/list/own-1")
    assert len(gone["items"]) == 3
    again = laid.ask("POST", "/projects/1/list", kind="button", name="Buttons")
    assert not again["items"][3]["have"], "what is new was not ticked off"


def test_lengths_are_converted_with_the_way_they_were_rounded(person: Person) -> None:
    told = person.ask("GET", "/convert?length=1,26 m")
    assert told["spoken"][0]["text"] == "1 ½ yd" and "rounded up" in told["spoken"][0]["rounded"]
    assert len(told["table"]) == 10 and "0.9144" in told["source"]
    assert "no number" in person.refused("GET", "/convert?length=so wide")["message"]
    heavy = person.ask("GET", "/convert?length=5.3 oz/yd²")
    assert [w["text"] for w in heavy["weights"]] == ["180 g/m²", "5.3 oz/yd²"] and heavy["spoken"] == []
    assert person.ask("GET", "/convert?length=2 lb")["weights"][0]["text"] == "907 g"


def test_a_search_that_failed_is_no_verdict_on_the_cloth(laid: Person, monkeypatch: pytest.MonkeyPatch) -> None:
    def fails(*_: Any, **__: Any) -> None:
        raise EngineFault("The engine made a lay that its checker refuses: Sleeve and Band overlap.")

    number = remnant(laid, "66 cm")
    monkeypatch.setattr(trying, "solve", fails)
    run(laid, "cupboard", cloth_id=number)
    found = laid.ask("GET", f"/projects/1/will-it-do?cloth_id={number}")
    assert found["headline"] == "Remnant could not be tried" and found["does"] is None and found["helps"] == []
    assert found["warnings"][0].startswith("The search failed here") and "checker" not in str(found)


def test_every_other_wish_is_another_to_be_laid(laid: Person) -> None:
    told = laid.ask("POST", "/projects/1/offers", 201, name="Wide", width="150 cm", shop_number="")
    first = told["trials"]["asks"]
    number = told["offers"][-1]["id"]
    changed = laid.ask("PATCH", f"/projects/1/offers/{number}", width="110 cm")["trials"]
    assert first and changed["asks"] and changed["asks"] != first and changed["lacking"] == told["trials"]["lacking"]
    begun = laid.ask("POST", "/projects/1/trials", 202, what="offers")
    assert begun["under_way"]
    # typed while that is under way: the job under way does not try it
    typed = laid.ask("PATCH", f"/projects/1/offers/{number}", width="90 cm")["trials"]
    assert typed["job_id"] == begun["job_id"] and not typed["under_way"] and typed["asks"]


def test_what_is_in_hand_shows_alike_everywhere(laid: Person) -> None:
    def shown() -> tuple[str, str, str, bool]:
        project = laid.ask("GET", "/projects/1")
        line = next(i for i in laid.ask("GET", "/projects/1/list")["items"] if i["id"] == f"use-{project['use_id']}")
        bench = next(p for p in laid.ask("GET", "/projects")["projects"] if p["id"] == 1)
        told = {bench["buying"], project["uses"][0]["buying"], project["purchase"]["told"]}
        assert {one.replace("m to buy:", "m:") for one in told} == {line["amount"]}
        tally = next(t for t in project["tally"] if t["key"] == "to_buy")
        return line["amount"], tally["figure"]["text"], laid.ask("GET", "/projects/1/offers")["headline"], line["have"]

    laid.ask("PATCH", "/projects/1/cloth", in_hand="20 cm")
    amount, tally, _, have = shown()
    assert amount.startswith(tally) and "20.0 cm in hand is" in amount and amount.endswith("short") and not have
    laid.ask("PATCH", "/projects/1/cloth", in_hand="5 m")
    assert shown() == (
        "nothing to buy: 500.0 cm in hand will do",
        "0.00 m",
        "Nothing to buy: 500.0 cm in hand will do",
        True,
    )
