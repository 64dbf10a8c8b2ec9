"""Long work: from a problem to lays in the database, cancelled, resumed, and out of date."""

from __future__ import annotations

from pathlib import Path
from xml.etree import ElementTree

import pytest

from idle_selvage.api.app import create_app
from idle_selvage.core.lay.check import check_lay
from idle_selvage.jobs import laying
from idle_selvage.jobs.pool import Pool
from idle_selvage.store import job as jobs
from idle_selvage.store import lay as lays
from idle_selvage.store.database import Database

from ...conftest import SLEEVE, STEPS, Person, ready


def run(person: Person, seconds: int = 1) -> int:
    """Lay in this process, without a worker."""
    number: int = person.ask("POST", "/projects/1/lays", 202, seconds=seconds)["id"]
    laying.run(person.app.services.database, number, STEPS)
    return number


def test_from_pieces_to_a_lay_a_purchase_and_files(skirt: Person) -> None:
    job = skirt.ask("GET", f"/jobs/{run(skirt)}")
    assert job["state"] == "done" and job["progress"] and job["steps"] >= 2
    lay = skirt.ask("GET", "/projects/1/lay")["lay"]
    assert {a["fold"] for a in lay["alternatives"]} == {"open", "lengthwise", "partial", "crosswise"}
    assert lay["length"]["mm"] == min(a["length"]["mm"] for a in lay["alternatives"])
    assert lay["bound"]["mm"] <= lay["length"]["mm"] and lay["stale"] == []
    assert len(lay["opened"]["shapes"]) == 3
    for shape in lay["opened"]["shapes"]:
        assert shape["tail_distance"]["text"].endswith("cm")
    project = skirt.ask("GET", "/projects/1")
    bought = project["purchase"]
    s = skirt.ask("GET", "/projects/1/shrink")["warp_known"]["plan"]["value"] / 100
    assert bought["to_buy"]["value"] >= (lay["length"]["mm"] + 100) / (1 - s) - 0.01
    assert bought["to_buy"]["value"] % 100 < 1e-6 and bought["cost"]["value"] > 0
    assert {s["name"]: s["state"] for s in project["stages"]}["lay"] == "done"

    answer = skirt.client.get("/api/projects/1/lay.svg?view=opened", base_url="http://127.0.0.1")
    assert answer.mimetype == "image/svg+xml" and "attachment" in answer.headers["Content-Disposition"]
    root = ElementTree.fromstring(answer.data)
    assert sum(g.get("class") == "piece" for g in root.iter()) == 3
    made = skirt.client.get("/api/projects/1/lay.json", base_url="http://127.0.0.1").get_json()
    problem = skirt.client.get("/api/projects/1/lay-problem.json", base_url="http://127.0.0.1").get_json()
    assert made["format"] == "idle-selvage/lay/1" and check_lay(problem, made) == []
    said = [e["what"] for e in skirt.ask("GET", "/projects/1/log")["entries"]]
    assert any(w.startswith("Laid 3 pieces") for w in said)
    assert not any("away" in w for w in said), "looking writes nothing"


def test_another_way_can_be_chosen(skirt: Person) -> None:
    run(skirt)
    other = next(a for a in skirt.ask("GET", "/projects/1/lay")["lay"]["alternatives"] if not a["chosen"])
    project = skirt.ask("POST", "/projects/1/lay/choose", lay_id=other["lay_id"])
    assert next(t for t in project["tally"] if t["key"] == "lay")["figure"]["text"] == other["length"]["text"]
    skirt.ask("POST", "/projects/1/lay/choose", 404, lay_id=999)
    # what the maker picked is not taken back by a search that goes on
    with skirt.app.services.database.begin() as session:
        job = jobs.last_lays(session, [1])[1]
        chosen = lays.chosen_lays(session, [1]).get(1)
        assert chosen is not None
        rows = lays.alternatives(session, chosen)
        lays.keep_lays(session, job, [(r.fold, {**r.lay, "length": r.lay["length"] - 1}) for r in rows])
        chosen = lays.chosen_lays(session, [1]).get(1)
        assert chosen is not None and chosen.id == other["lay_id"] and chosen.lay["length"] < other["length"]["mm"]


def test_a_changed_swatch_makes_the_lay_out_of_date_and_says_why(skirt: Person) -> None:
    run(skirt)
    skirt.ask("PUT", "/projects/1/swatch", weft=[["25", "23"]] * 3)
    lay = skirt.ask("GET", "/projects/1/lay")["lay"]
    assert [why.split(" went")[0] for why in lay["stale"]] == ["the shrinkage across to plan with", "the usable width"]
    stages = {s["name"]: s for s in skirt.ask("GET", "/projects/1")["stages"]}
    assert stages["lay"]["state"] == stages["buy"]["state"] == "look-again" and "width" in stages["lay"]["why"]
    run(skirt)
    assert skirt.ask("GET", "/projects/1/lay")["lay"]["stale"] == []
    skirt.ask("PATCH", "/pieces/1", copies=4)
    assert skirt.ask("GET", "/projects/1/lay")["lay"]["stale"] == ["the pieces were changed"]
    skirt.ask("PATCH", "/projects/1/lay", gap="9 mm")
    skirt.ask("PATCH", "/projects/1/cloth", direction="nap")
    assert len(skirt.ask("GET", "/projects/1/lay")["lay"]["stale"]) == 3
    skirt.ask("DELETE", "/pieces/1")
    skirt.ask("DELETE", "/pieces/2")
    assert "can no longer be laid" in skirt.ask("GET", "/projects/1/lay")["lay"]["stale"][0]


def test_one_touch_brings_lay_and_purchase_up_to_date(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/lay", lay_seconds=1)
    run(skirt)
    before = skirt.ask("GET", "/projects/1")
    # along only: the lay still fits, so it is kept, and the purchase follows
    skirt.ask("PUT", "/projects/1/swatch", sure=True, warp=[["25", "20"]] * 3)
    stale = skirt.ask("GET", "/projects/1")
    assert {s["name"]: s["state"] for s in stale["stages"]}["buy"] == "look-again"
    assert "shrinkage along to plan with went from" in next(s["why"] for s in stale["stages"] if s["name"] == "buy")
    fresh = skirt.ask("POST", "/projects/1/lay/refresh")
    states = {s["name"]: s["state"] for s in fresh["stages"]}
    assert states["lay"] == states["buy"] == "done" and fresh["job"]["id"] == before["job"]["id"]
    assert fresh["purchase"]["to_buy"]["value"] > before["purchase"]["to_buy"]["value"]
    # across: the width is another, so it is laid again
    skirt.ask("PUT", "/projects/1/swatch", weft=[["25", "23"]] * 3)
    again = skirt.ask("POST", "/projects/1/lay/refresh")
    assert again["job"]["id"] > before["job"]["id"] and again["job"]["state"] == "waiting"
    laying.run(skirt.app.services.database, again["job"]["id"], STEPS)
    assert skirt.ask("GET", "/projects/1/lay")["lay"]["stale"] == []


def test_a_swatch_of_cloth_that_was_treated_already_changes_nothing(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/cloth", treated=True, width_readings=["108 cm"] * 3, in_hand="3 m")
    run(skirt)
    skirt.ask("PUT", "/projects/1/swatch", warp=[["25", "22"]] * 3, weft=[["25", "22"]] * 3)
    # the lay is as it was; only what would be bought anew shrinks more
    assert [why.split(" went")[0] for why in skirt.ask("GET", "/projects/1/lay")["lay"]["stale"]] == [
        "the shrinkage along to plan with",
        "the shrinkage across to plan with",
    ]
    assert skirt.ask("POST", "/projects/1/lay/refresh")["job"]["state"] == "done", "so nothing is laid again"


def test_pieces_enlarged_to_shrink_to_fit_are_laid_on_the_raw_width(skirt: Person) -> None:
    skirt.ask("POST", "/projects/1/pieces", name="Bias cuff", grain="bias", stations=SLEEVE[:3], smooth=False)
    washed = skirt.ask("GET", "/projects/1")
    raw = skirt.ask("PATCH", "/projects/1/treatment", school="fit")
    width = {p["school"]: next(t for t in p["tally"] if t["key"] == "width")["figure"]["value"] for p in (washed, raw)}
    assert width["fit"] == pytest.approx(1119 - 20) and width["fit"] > width[""]
    sleeve = raw["pieces"][0]
    long = {k: max(x for x, _ in sleeve[k]) - min(x for x, _ in sleeve[k]) for k in ("cut", "enlarged")}
    # the seam line is 550 mm, and grows by 1 ÷ (1 − 0.06); the allowances of 15 mm stay
    assert long["cut"] == pytest.approx(580, abs=0.1) and long["enlarged"] == pytest.approx(550 / 0.94 + 30, abs=0.1)
    run(skirt)
    lay = skirt.ask("GET", "/projects/1/lay")["lay"]
    cuff = next(s for s in lay["opened"]["shapes"] if s["piece"] == "Bias cuff")
    dx, dy = cuff["head"][0] - cuff["tail"][0], cuff["head"][1] - cuff["tail"][1]
    assert abs(dx) == pytest.approx(abs(dy), rel=0.02), "its arrow still lies on the bias"
    bought = skirt.ask("GET", "/projects/1")["purchase"]["lines"]
    assert next(line for line in bought if line["name"] == "shrinkage along")["adds"]["mm"] == 0
    skirt.ask("PATCH", "/projects/1/treatment", school="")
    assert "the pieces were changed" in skirt.ask("GET", "/projects/1/lay")["lay"]["stale"]


def test_a_fold_that_cannot_be_is_told_beside_the_one_that_can(skirt: Person) -> None:
    skirt.ask(
        "POST",
        "/projects/1/pieces",
        name="Wide",
        smooth=False,
        stations=[{"along": "0", "left": "40", "right": "40"}, {"along": "30", "left": "40", "right": "40"}],
    )
    run(skirt)
    lay = skirt.ask("GET", "/projects/1/lay")["lay"]
    assert lay["fold"] == "open" and lay["refused"][0]["fold"] == "lengthwise" and "Wide" in lay["refused"][0]["why"]


def test_a_job_that_cannot_be_done_says_why(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/lay", folds=["lengthwise"])
    skirt.ask(
        "POST",
        "/projects/1/pieces",
        name="Wide",
        smooth=False,
        stations=[{"along": "0", "left": "40", "right": "40"}, {"along": "30", "left": "40", "right": "40"}],
    )
    job = skirt.ask("GET", f"/jobs/{run(skirt)}")
    assert job["state"] == "failed" and "Wide" in job["error"]


def test_a_cancelled_job_keeps_its_first_answer(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/lay", folds=["open", "lengthwise"])
    number = skirt.ask("POST", "/projects/1/lays", seconds=60)["id"]
    skirt.ask("POST", f"/jobs/{number}/cancel")
    laying.run(skirt.app.services.database, number, STEPS)
    job = skirt.ask("GET", f"/jobs/{number}")
    assert job["state"] == "cancelled" and job["steps"] == 2, "one try for each fold, and no more"
    assert skirt.ask("GET", "/projects/1/lay")["lay"] is not None
    skirt.ask("POST", f"/jobs/{number}/cancel"), "twice does no harm"


def test_a_job_ended_already_is_not_run_again(skirt: Person) -> None:
    number = run(skirt)
    steps = skirt.ask("GET", f"/jobs/{number}")["steps"]
    laying.run(skirt.app.services.database, number, STEPS)
    assert skirt.ask("GET", f"/jobs/{number}")["steps"] == steps
    laying.run(skirt.app.services.database, 999, STEPS)


def test_a_worker_lays_and_cancels(timed: Person) -> None:
    worked = timed
    ready(worked)
    number = worked.ask("POST", "/projects/1/lays", seconds=1)["id"]
    assert worked.finished(number)["state"] == "done"
    # more sleeves than can be proved the shortest at once, or it would end by itself
    worked.ask("PATCH", "/pieces/1", copies=6)
    number = worked.ask("POST", "/projects/1/lays", seconds=100)["id"]
    assert worked.progressed(number)
    assert {s["name"]: s["state"] for s in worked.ask("GET", "/projects/1")["stages"]}["lay"] == "begun"
    worked.ask("POST", f"/jobs/{number}/cancel")
    assert worked.finished(number, 10)["state"] == "cancelled"


def test_a_new_laying_stops_the_one_before(timed: Person) -> None:
    worked = timed
    ready(worked)
    first = worked.ask("POST", "/projects/1/lays", seconds=100)["id"]
    second = worked.ask("POST", "/projects/1/lays", seconds=1)["id"]
    assert worked.finished(second)["state"] == "done"
    assert worked.finished(first)["state"] == "cancelled"


def test_work_left_by_a_dead_server_goes_on(tmp_path: Path) -> None:
    database = Database(tmp_path)
    database.migrate()
    person = Person(create_app(tmp_path, database=database))
    ready(person)
    number = person.ask("POST", "/projects/1/lays", seconds=2)["id"]
    with database.begin() as session:
        # as after a kill: under way, and silent since long ago
        row = jobs.job(session, number)
        row.state, row.spent = "running", 1.5
        row.heartbeat = row.created_at.replace(year=2001)
    pool = Pool(database, size=1)
    pool.start()
    try:
        job = person.finished(number)
    finally:
        pool.close()
    assert job["state"] == "done" and job["seconds"] >= 1.5
    assert job["progress"][0][0] >= 1.5, "the clock goes on from where it stopped"
    database.close()


STRIPE = [{"width": w, "colour": c} for w, c in (("12 mm", "#224466"), ("5 mm", "#eeeeee"), ("20 mm", "#aa3333"))]


def test_turning_on_bars_that_are_not_balanced_is_a_wish(skirt: Person) -> None:
    skirt.ask("PATCH", "/projects/1/cloth", bars_along=STRIPE)
    skirt.ask("PATCH", "/pieces/2", copies=4)
    skirt.sew(1, 2)
    assert skirt.ask("GET", "/projects/1")["wishes"]["turn_on_bars"] is False
    skirt.lay(1, seconds=1)
    # bars that read differently up and down are a direction, as nap is
    assert skirt.ask("GET", "/projects/1")["purchase"]["unmeasured"] == ["all tops one way", "meeting the bars"]
    changed = skirt.ask("PATCH", "/projects/1/lay", turn_on_bars=True)
    assert changed["wishes"]["turn_on_bars"] is True
    assert any("whether pieces may be turned on the bars was changed" in w["text"] for w in changed["warnings"])
    skirt.lay(1, seconds=1)
    after = skirt.ask("GET", "/projects/1")
    assert after["purchase"]["unmeasured"] == ["meeting the bars"], "allowed, it costs nothing any more"
    assert not any("out of date" in w["text"] for w in after["warnings"])
    assert skirt.ask("GET", "/projects/1/lay-problem.json")["turn_on_bars"] is True
    skirt.refused("PATCH", "/projects/1/lay", turn_on_bars="perhaps")
    undone = skirt.ask("GET", "/undo?project=1")["back"]
    assert undone is not None


def test_where_nothing_meets_the_wish_to_turn_changes_no_lay(skirt: Person) -> None:
    skirt.lay(1, seconds=1)
    changed = skirt.ask("PATCH", "/projects/1/lay", turn_on_bars=True)
    assert not any("out of date" in w["text"] for w in changed["warnings"])
