"""A figure carried from one stage, unit or state to the next: seen through the operations, as a person works."""

from __future__ import annotations

from typing import Any

import pytest
from sqlalchemy.orm import Session

from idle_selvage.core.plan.stations import Station
from idle_selvage.jobs import laying, trying
from idle_selvage.operations import cloth, lay, plan, project, shrink, true
from idle_selvage.operations.buy import list as shop_list
from idle_selvage.operations.buy import offers, purchase, strips, together, trials
from idle_selvage.operations.buy.wanted import wanted
from idle_selvage.operations.refused import Refused
from idle_selvage.operations.standing import Standing, garment_standing
from idle_selvage.operations.telling import by_stations
from idle_selvage.standins.shop import StandInShop
from idle_selvage.store import models
from idle_selvage.store.database import Database
from idle_selvage.store.settings import settings

from ..conftest import STEPS

LINEN = {"blend": [{"fibre": "linen", "share": 100.0}]}


def begun(session: Session, name: str, **facts: Any) -> models.Project:
    """A garment of linen with one panel."""
    row = project.create_garment(session, name)
    project.change_garment(session, row, {"wash": "40", "dry": "line"})
    cloth.change_cloth(session, row.cloth, {**LINEN, "width_readings": [1118.0] * 3, **facts})
    plan.add_piece(
        session, row.main, by_stations([Station(0, 200, 200), Station(500, 200, 200)], smooth=False),
        {"name": "Panel", "copies": 2},
    )  # fmt: skip
    return row


def now(session: Session, row: models.Project) -> Standing:
    session.flush()
    return garment_standing(session, row).uses[0]


def lay_it(database: Database, number: int, *, and_together: bool = False) -> None:
    with database.begin() as session:
        job = lay.begin_laying(session, project.garment(session, number).main, lay.Search(1.0)).id
    laying.run(database, job, STEPS)
    if and_together:
        with database.begin() as session:
            row = project.garment(session, number)
            standing = now(session, row)
            job_ = trials.begin_trials(session, standing, "together", wanted(session, standing, "together"))
            number_ = None if job_ is None else job_.id
        if number_ is not None:
            trying.run(database, number_, STEPS)


def test_true_and_lay_go_by_the_washed_cloth(database: Database) -> None:
    with database.begin() as session:
        row = begun(session, "Shirt", in_hand=2500.0, margin_low=10.0, margin_high=12.0)
        rows = [[250.0, 240.0]] * 3
        shrink.keep_reading(session, row.main, shrink.Readings(warp=rows, weft=rows, graduation=0.1))
        purchase.change_purchase(session, row.main, {"ends": 100.0})
        standing = now(session, row)
        plan_ = standing.tally.warp.plan
        assert plan_ is not None and plan_.value == pytest.approx(4.019, abs=0.005)
        assert standing.tally.left is not None and standing.tally.left.value == pytest.approx(2299.5, abs=0.2)
        # washed and measured: 2380 × 1080 is what is there, and what the slant is read over
        cloth.add_wash(session, row.cloth, cloth.WashGiven("40 °C, line", None, 2380.0, 1080.0))
        true.keep_at_table(session, row.main, {"now": {"offset": 25.0, "side": "far"}})
        found = true.read_true(session, row.main)
        assert found.reading.slant is not None and found.reading.slant.skew.value == pytest.approx(2.315, abs=0.001)
        assert found.left_in_hand is not None and found.left_in_hand.value == 2280.0
        width = now(session, row).tally.width
        assert width is not None and width.value == 1058.0


def test_a_swatch_knows_how_it_was_washed(database: Database) -> None:
    with database.begin() as session:
        row = begun(session, "Shirt")
        rows = [[250.0, 245.0]] * 3
        shrink.keep_reading(session, row.main, shrink.Readings(warp=rows, weft=rows))
        standing = now(session, row)
        swatch = standing.rows.cloth.swatch
        assert swatch is not None and (swatch.wash, swatch.dry) == ("40", "line"), "as the garment will be"
        at_40 = standing.tally.warp.plan
        project.change_garment(session, row, {"wash": "60"})
        at_60 = now(session, row)
        assert at_40 is not None and at_60.tally.warp.plan is not None
        assert at_60.tally.warp.basis == "limit" and at_60.tally.warp.plan.value == 8.0 > at_40.value
        assert any("lower limit" in w.text for w in at_60.warnings_here)
        # it was washed at 60 °C, said by hand: then it counts
        shrink.keep_reading(session, row.main, shrink.Readings(wash="60"))
        told = now(session, row)
        assert told.tally.warp.basis == "swatch" and not any("lower limit" in w.text for w in told.warnings_here)
        with pytest.raises(Refused, match="one of"):
            shrink.keep_reading(session, row.main, shrink.Readings(wash="volcano"))


def test_another_cloth_of_the_shop_does_not_inherit_the_swatch(database: Database) -> None:
    with database.begin() as session:
        row = begun(session, "Shirt")
        rows = [[250.0, 248.3]] * 3
        shrink.keep_reading(session, row.main, shrink.Readings(warp=rows, weft=rows, graduation=0.1))
        number = row.id
    lay_it(database, number)
    with database.begin() as session:
        row = project.garment(session, number)
        shop = StandInShop()
        quote = next(q for q in shop.like(now(session, row).cloth.make) if q.make.blend[0][0] == "linen")
        offers.add_offer(session, row.main, {}, shop, quote.number)
        typed = offers.add_offer(session, row.main, {"name": "Another", "width": 1500.0}, shop)
        same = offers.add_offer(session, row.main, {"name": "Wider", "width": 1500.0, "same": True}, shop)
        cotton = offers.add_offer(session, row.main, {"name": "Cotton", "width": 1500.0, "fibre": "cotton"}, shop)
        found = {one.row.id: one.offered for one in offers.read_offers(session, now(session, row)).offers if one.row}
        own = now(session, row).tally.warp.plan
        assert own is not None and own.value < 1.0
        for number_, most in ((typed.id, 8.0), (same.id, own.value), (cotton.id, 5.0)):
            offered = found[number_]
            assert offered is not None and offered.warp.value == pytest.approx(most)
        shops = [one for number_, one in found.items() if number_ not in (typed.id, same.id, cotton.id)]
        assert shops[0] is not None and shops[0].warp.value == 8.0
        assert all(source.kind != "standard" for source in shops[0].warp.sources)
        with pytest.raises(Refused):
            offers.change_offer(session, row.main, cotton.id, {"fibre": "unobtainium"})


def test_together_keeps_the_other_garment_s_spare(database: Database) -> None:
    with database.begin() as session:
        one, two = begun(session, "Shirt"), begun(session, "Apron")
        purchase.change_purchase(session, two.main, {"spare": 400.0})
        together.choose(session, one.main, [two.main.id])
        first, second = one.id, two.main.id
    lay_it(database, first, and_together=True)
    with database.begin() as session:
        found = together.read_together(session, now(session, project.garment(session, first)))
        assert found.lay is not None and found.together is not None
        need = (found.lay.lay.length + 100.0 + 400.0) / (1 - 0.08)
        assert found.together.value >= need > found.together.value - 100.0
        alone = {member.now.use.id: member.alone for member in found.members}
        mine, theirs = alone[project.garment(session, first).main.id], alone[second]
        assert mine is not None and theirs is not None and theirs.value > mine.value + 300


def test_strips_are_bought_once_they_are_pieces(database: Database) -> None:
    with database.begin() as session:
        row = begun(session, "Skirt")
        strips.change_strips(
            session, row.main, {"edge": 1200.0, "depth": 100.0, "long": 500.0, "wide": 400.0, "tape": 30.0}
        )
        found = strips.read(session, now(session, row))
        assert "of these strips alone" in strips.strips_told(found) and not found.pieces
        lines = shop_list.read_list(session, garment_standing(session, row))
        assert [one.amount for one in lines if one.kind == "trim"] == ["not in what is bought of the cloth yet"] * 2
        strips.make_pieces(session, now(session, row), "across")
        strips.make_pieces(session, now(session, row), "tape")
        standing = now(session, row)
        ruffle = next(piece for piece in standing.asked if piece.piece.name == "Ruffle strip")
        assert (ruffle.piece.grain, ruffle.piece.copies) == (
            "crosswise",
            found.ways[0].strips if found.ways[0].key == "across" else found.ways[1].strips,
        )
        told = strips.read(session, standing)
        assert told.pieces["across"].as_typed and "laid and bought with it" in strips.strips_told(told)
        # typed otherwise, the piece is not what is typed any more; made anew it is, and is the same piece
        strips.change_strips(session, row.main, {"depth": 150.0})
        changed = strips.read(session, now(session, row))
        assert not changed.pieces["across"].as_typed and "make them anew" in strips.strips_told(changed)
        strips.make_pieces(session, now(session, row), "along")
        names = [piece.piece.name for piece in now(session, row).asked]
        assert names.count("Ruffle, in one") == 1 and "Ruffle strip" not in names, "one ruffle, cut one way"
        number = row.id
    lay_it(database, number)
    with database.begin() as session:
        standing = now(session, project.garment(session, number))
        assert standing.bought is not None and len(standing.asked) == 3
        assert any("bought with it" in one.amount for one in shop_list.read_list(session, standing.whole))


def test_a_fold_test_lies_on_the_cloth(database: Database) -> None:
    with database.begin() as session:
        row = begun(session, "Shirt", in_hand=2500.0)
        with pytest.raises(Refused, match="only 250") as fault:
            true.keep_at_table(session, row.main, {"now": {"place": 3000.0, "offset": 5.0}})
        assert fault.value.path == "now.place"
        true.keep_at_table(session, row.main, {"now": {"place": 2400.0, "offset": 5.0}})


def test_a_length_in_hand_that_does_is_what_the_list_says(database: Database) -> None:
    with database.begin() as session:
        row = begun(session, "Shirt", in_hand=2500.0)
        number = row.id
    lay_it(database, number)
    with database.begin() as session:
        standing = now(session, project.garment(session, number))
        assert standing.bought is not None and standing.bought.in_hand_does
        line = next(one for one in shop_list.read_list(session, standing.whole) if one.kind == "cloth")
        assert line.amount == "nothing to buy: 250.0 cm in hand will do" and line.enough and line.have


def test_a_maker_in_inches_begins_with_eighths_of_a_yard(database: Database) -> None:
    with database.begin() as session:
        settings(session).system = "imperial"
        row = project.create_garment(session, "Shirt")
        lining = cloth.add_use(session, row, "lining", name="Lawn")
        assert [(use.shop_step, use.ends) for use in (row.main, lining)] == [(114.3, 101.6)] * 2
        settings(session).system = "metric"
        assert project.create_garment(session, "Apron").main.shop_step == 100.0
