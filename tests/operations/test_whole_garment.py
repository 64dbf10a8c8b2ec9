"""A garment from the first idea to the log through the operations alone: no HTTP, no Flask, no units' texts.

A lined jacket with lapels in a napped wool, and a length of raw denim that bleeds: nothing of the demo's.
"""

from __future__ import annotations

import subprocess
import sys
from datetime import timedelta
from typing import Any

import pytest
from sqlalchemy import event
from sqlalchemy.orm import Session

from idle_selvage.core.buy.order import Order
from idle_selvage.core.buy.purchase import purchase as reckon
from idle_selvage.core.plan.stations import Station
from idle_selvage.core.shrink.shrinkage import plan_with, swatch_shrinkage
from idle_selvage.core.wording import say
from idle_selvage.jobs import laying, trying
from idle_selvage.operations import cloth, lay, log, plan, project, shrink, true, washday
from idle_selvage.operations.buy import cupboard, envelope, offers, purchase, strips, together, trials, wanted
from idle_selvage.operations.buy import list as shop_list
from idle_selvage.operations.refused import Refused
from idle_selvage.operations.telling import by_stations
from idle_selvage.standins.shop import StandInShop
from idle_selvage.store import models
from idle_selvage.store.database import Database
from idle_selvage.store.errors import NotFound

from ..conftest import STEPS

#: An inch, mm: this maker measures in inches, which is nobody's business here.
IN = 25.4


def told(session: Session, number: int) -> list[str]:
    return [line.what for line in log.read_log(session, project.garment(session, number))]


def jacket(database: Database) -> int:
    """Its pieces, its cloth, a washed swatch: ready to be laid."""
    with database.begin() as session:
        row = project.create_garment(session, "Lined jacket", "for the autumn concert")
        project.change_garment(session, row, {"wash": "30-gentle", "dry": "flat"})
        pieces: dict[str, tuple[list[tuple[float, ...]], dict[str, Any]]] = {
            "Front with lapel": ([(0, 0, 11), (14, 0, 12), (24, 2, 9), (29, 3.5, 1)], {"copies": 2, "pair": True}),
            "Back": ([(0, 10.5, 0), (15, 10, 0), (27, 3, 0)], {"on_fold": True}),
            "Sleeve": ([(0, 5, 5), (17, 7.5, 7.5), (22, 1, 1)], {"copies": 2, "pair": True}),
            "Undercollar": ([(0, 2, 2), (8, 2.5, 2.5)], {"copies": 2, "pair": True, "grain": "bias", "smooth": False}),
        }
        for name, (stations, how) in pieces.items():
            placed = [Station(a * IN, b * IN, c * IN) for a, b, c in stations]
            told = by_stations(placed, smooth=how.pop("smooth", True))
            plan.add_piece(session, row.main, told, {"name": name, "seam": 0.625 * IN, **how})
        known = {
            "name": "Doeskin",
            "blend": [{"fibre": "wool", "share": 100.0}],
            "width_readings": [59 * IN, 58.75 * IN, 59 * IN],
            "margin_low": 0.5 * IN,
            "margin_high": 0.5 * IN,
            "direction": "nap",
            "price": 40.0,
        }
        cloth.change_cloth(session, row.cloth, known)
        lining = cloth.add_use(session, row, "lining", name="Twill lining").cloth
        cloth.change_cloth(session, lining, {"blend": [{"fibre": "viscose", "share": 100.0}]})
        marks = [[10 * IN, 9.5 * IN]] * 3
        shrink.keep_reading(session, row.main, shrink.Readings(warp=marks, weft=[[10 * IN, 9.75 * IN]] * 3))
        lay.change_wishes(session, row.main, {"gap": 3.0, "folds": ["open", "lengthwise"], "lay_seconds": 1})
        return row.id


def laid(database: Database) -> int:
    number = jacket(database)
    with database.begin() as session:
        job = lay.begin_laying(session, project.cloth_use(session, number), lay.Search(seconds=1.0, seed=3)).id
    laying.run(database, job, STEPS)
    return number


def try_lays(database: Database, number: int, part: trials.Part) -> None:
    with database.begin() as session:
        now = project.read_garment(session, number)
        job = trials.begin_trials(session, now, part, wanted.wanted(session, now, part))
        begun = None if job is None else job.id
    if begun is not None:
        trying.run(database, begun, STEPS)


def test_a_search_lasts_as_long_as_it_was_told_to_or_as_the_garment_wishes(database: Database) -> None:
    number = jacket(database)
    with database.begin() as session:
        use = project.cloth_use(session, number)
        wished = lay.begin_laying(session, use)
        assert (wished.params["seconds"], wished.params["seed"], "steps" in wished.params) == (1, 1, False)
        told = lay.begin_laying(session, use, lay.Search(seconds=7.0, seed=4, steps=30))
        assert (told.params["seconds"], told.params["seed"], told.params["steps"]) == (7.0, 4, 30)
        assert wished.cancel and not told.cancel, "one search at a time"


def test_from_nothing_to_the_counter(database: Database) -> None:
    with database.begin() as session:
        row = project.create_garment(session, "Lined jacket")
        empty = project.read_garment(session, row.id)
        assert (empty.problem is None and empty.missing == empty.next_step == "Add the pattern pieces first.") or (
            empty.missing == "Add the pattern pieces first."
        )
        with pytest.raises(Refused, match="pattern pieces"):
            lay.begin_laying(session, row.main)
        project.put_away(session, row)
        with pytest.raises(NotFound):
            project.garment(session, row.id)
    number = laid(database)
    with database.look() as session:
        now = project.read_garment(session, number)
        # every figure again from the core, from what was typed
        warp = plan_with(swatch_shrinkage([254.0] * 3, [241.3] * 3, now.cloth.test.graduation, "warp"))
        assert now.tally.warp.plan is not None and now.tally.warp.plan.value == pytest.approx(warp.value)
        assert now.tally.width is not None and now.tally.width.value < (58.75 - 1) * IN
        assert now.chosen is not None and now.tally.purchase is not None
        again = reckon(now.chosen.lay["length"], warp, Order())
        assert now.tally.purchase.to_buy.value == again.to_buy.value
        found = lay.read_lay(session, now)
        assert found is not None and {one.row.fold for one in (found.chosen, *found.others)} == {"open", "lengthwise"}
        drawn = found.chosen.drawn("opened")
        assert len(drawn.shapes) == 7, "a back on the fold is one piece, and three pairs"
        assert all(shape.lies == "bias" for shape in drawn.shapes if shape.piece == "Undercollar")
        assert {s.name: s.state for s in now.stages}["lay"] == "done" and now.stale == ()
        assert now.least is not None and now.least.value <= now.tally.purchase.to_buy.value


def test_a_kept_reading_reaches_lay_purchase_and_log(database: Database) -> None:
    number = laid(database)
    with database.begin() as session:
        row = project.garment(session, number)
        before = project.read_garment(session, number).tally.purchase
        shrink.keep_reading(session, row.main, shrink.Readings(weft=[[10 * IN, 9.25 * IN]] * 3))
        now = project.read_garment(session, number)
        assert [why.split(" went")[0] for why in now.stale] == [
            "the shrinkage across to plan with",
            "the usable width",
        ]
        assert "in" in say(now.stale[1], "imperial").split()
        assert {s.name: s.state for s in now.stages}["buy"] == "look-again" and now.next_step.startswith("Out of date")
        assert any(w.stage == "lay" and "out of date" in w.text for w in now.warnings)
        assert before is not None and "Swatch" in told(session, number)[0]
        with pytest.raises(Refused, match="has grown by 900 %") as refused:
            shrink.keep_reading(session, row.main, shrink.Readings(warp=[[10 * IN, 100 * IN]]))
        assert refused.value.path == "warp.0.1"
        job = lay.refresh_lay(session, row.main)
        assert job is not None
        begun = job.id
    laying.run(database, begun, STEPS)
    with database.look() as session:
        assert project.read_garment(session, number).stale == ()


def test_everything_of_buy(database: Database) -> None:
    number = laid(database)
    try_lays(database, number, "extras")
    with database.begin() as session:
        row = project.garment(session, number)
        now = project.read_garment(session, number)
        assert now.pending == () and now.tally.purchase is not None
        assert [line.key for line in now.tally.purchase.lines][:2] == ["lay", "nap"]
        purchase.change_purchase(session, row.main, {"spare": 50.0, "shop_step": 114.3})
        with pytest.raises(Refused) as refused:
            purchase.change_purchase(session, row.main, {"bought_extra": 200.0})
        assert refused.value.path == "extra_why", "more bought on purpose needs its reason"
        shop = StandInShop()
        offers.add_offer(session, row.main, {"name": "Narrow", "width": 45 * IN, "price": 20.0}, shop)
        offers.add_offer(session, row.main, {"name": "Sliver", "width": 150.0}, shop)
    try_lays(database, number, "offers")
    with database.begin() as session:
        row = project.garment(session, number)
        now = project.read_garment(session, number)
        found = offers.read_offers(session, now)
        assert found.offers[0].row is None, "the cloth itself comes first"
        narrow = next(o for o in found.offers if o.row is not None and o.row.name == "Narrow")
        sliver = next(o for o in found.offers if o.row is not None and o.row.name == "Sliver")
        assert narrow.weighed is not None and sliver.weighed is None and "across" in sliver.told
        assert sum(o.cheapest for o in found.offers) == 1
        envelope.change_envelope(session, row.main, {"mine": 36 * IN, "to_width": 45 * IN})
        assert envelope.read(session, now, 5.0).typed["mine"] == 36 * IN
        strips.change_strips(session, row.main, {"edge": 1000.0, "depth": 80.0, "fullness": 2.0})
        assert strips.read(session, project.read_garment(session, number)).ways
        together.choose(session, row.main, [])
        shop_list.add_item(session, row, "button", "horn, 20 mm", "3")
        items = shop_list.read_list(session, project.read_garment(session, number).whole)
        assert {"Doeskin", "horn, 20 mm"} <= {item.name for item in items}
        assert any("Twill lining" in item.name for item in items)


def test_will_a_remnant_do(database: Database) -> None:
    number = laid(database)
    with database.begin() as session:
        short = cloth.add_cloth(session, "Short end")
        known = {"blend": [{"fibre": "wool", "share": 100.0}], "width_readings": [1500.0] * 3, "in_hand": 600.0}
        cloth.change_cloth(session, short, known)
        now = project.read_garment(session, number)
        found = cupboard.will_it_do(session, now, short.id)
        assert found.does is None and found.wanted, "it is not known before it was laid on it"
        job = trials.begin_trials(session, now, "cupboard", found.wanted)
        assert job is not None
        begun = job.id
    trying.run(database, begun, STEPS)
    with database.look() as session:
        again = cupboard.will_it_do(session, project.read_garment(session, number), short.id)
        assert again.does is False and again.helps, "60 cm are not enough for a jacket, and what would help is tried"


def test_the_washing_day_of_two_cloths(database: Database) -> None:
    number = jacket(database)
    with database.begin() as session:
        row = project.create_garment(session, "Work trousers")
        project.change_garment(session, row, {"wash": "40", "dry": "line"})
        raw = {
            "name": "Raw denim",
            "blend": [{"fibre": "cotton", "share": 100.0}],
            "weave": "twill",
            "finish": "raw",
            "depth": "dark",
            "width_readings": [800.0] * 3,
            "in_hand": 3000.0,
        }
        cloth.change_cloth(session, row.cloth, raw)
        cloth.change_cloth(session, project.garment(session, number).cloth, {"in_hand": 2500.0})
        at = models.now().replace(hour=8, minute=0, second=0, microsecond=0)
        washday.plan_day(session, at, at - timedelta(hours=8))
        day = washday.read_day(session)
        named = [{c.name for c in load.cloths} for load in day.loads]
        assert {"Raw denim"} in named and not any({"Raw denim", "Doeskin"} <= one for one in named)
        alone = next(load for load in day.loads if {c.name for c in load.cloths} == {"Raw denim"})
        with pytest.raises(Refused, match="not done yet"):
            washday.begin_step(session, alone.steps[-1].id)
        for step in alone.steps:
            washday.begin_step(session, step.id)
            washday.end_step(session, step.id)
        assert not project.read_garment(session, row.id).cloth.needs_treatment
        assert any("Pre-treated Raw denim" in line for line in told(session, row.id))
        washday.take_step_back(session, alone.steps[-1].id)


def test_at_the_table(database: Database) -> None:
    number = laid(database)
    with database.begin() as session:
        row = project.cloth_use(session, number)
        with pytest.raises(Refused) as refused:
            true.add_test(session, row)
        assert refused.value.path == "now.offset"
        true.keep_at_table(session, row, {"edge_way": "thread", "edge": [12.0, 30.0, 20.0]})
        assert row.ends > 30.0, "what the edge loses is bought"
        for offset in (30.0, 15.0, 2.0):
            reading = {"offset": offset, "side": "near", "bow": 0.0, "place": 0.0, "done": "pull"}
            true.keep_at_table(session, row, {"now": reading})
            true.add_test(session, row)
        now = project.read_garment(session, number)
        assert now.truth.loop.state == "true" and {s.name: s.state for s in now.stages}["true"] == "done"
        found = true.read_true(session, row)
        assert len(found.twists) == 4 and {t.twist.piece for t in found.twists} >= {"Back", "Sleeve"}
        line = next(
            w for w in log.read_log(session, project.garment(session, number)) if w.what.startswith("Fold test")
        )
        assert "0.2 cm" in line.what and "in" in say(line.what, "imperial") and "cm" not in say(line.what, "imperial")


def test_twenty_garments_take_as_many_queries_as_one(database: Database) -> None:
    number = jacket(database)

    def queries() -> int:
        asked: list[str] = []
        note = lambda *a: asked.append(a[2])  # noqa: E731
        event.listen(database.engine, "before_cursor_execute", note)
        with database.look() as session:
            for garment in project.list_garments(session):
                for now in garment.uses:
                    assert now.next_step and now.tally is not None and now.warnings is not None
        event.remove(database.engine, "before_cursor_execute", note)
        return len(asked)

    one = queries()
    with database.begin() as session:
        for k in range(19):
            row = project.create_garment(session, f"Jacket {k}")
            cloth.use_cloth(session, row.main, project.garment(session, number).cloth)
    assert 0 < queries() <= one + 2


def test_reading_writes_nothing(database: Database) -> None:
    number = laid(database)
    with database.begin() as session:
        row, written = project.garment(session, number), []
        now = project.read_garment(session, number)
        event.listen(
            database.engine,
            "before_cursor_execute",
            lambda *a: written.append(a[2]) if a[2].split()[0] in ("INSERT", "UPDATE", "DELETE") else None,
        )
        lay.read_lay(session, now), offers.read_offers(session, now), shop_list.read_list(session, now.whole)
        envelope.read(session, now, 5.0), strips.read(session, now), together.read_together(session, now)
        (
            true.read_true(session, row.main),
            washday.read_day(session),
            cloth.cupboard(session),
            log.read_log(session, row),
        )
        session.flush()
    assert written == []


def test_the_operations_load_no_web() -> None:
    code = (
        "import sys, pkgutil, importlib, idle_selvage.operations as o\n"
        "for m in pkgutil.walk_packages(o.__path__, o.__name__ + '.'): importlib.import_module(m.name)\n"
        "assert not {'flask', 'flask_openapi3', 'pydantic'} & set(sys.modules)\n"
    )
    subprocess.run([sys.executable, "-c", code], check=True)
