"""The rows of garments, loaded together."""

from __future__ import annotations

from idle_selvage.operations import cloth, project, shrink
from idle_selvage.store import garment as stored
from idle_selvage.store import models
from idle_selvage.store import project as projects
from idle_selvage.store.database import Database


def test_each_garment_gets_its_own_rows_and_no_other_s(database: Database) -> None:
    with database.begin() as session:
        one = projects.project(session, 1)
        two = project.create_garment(session, "Slip")
        shrink.keep_reading(session, two.main, shrink.Readings(warp=[[250.0, 240.0]]))
        lining = cloth.add_use(session, two, "lining", name="Lining")
        session.flush()
        # before its log was kept
        bare = models.Project(name="Slip of long ago")
        bare.all_uses.append(models.ClothUse(cloth=models.Cloth()))
        session.add(bare)
        session.flush()
        assert [one.logged for one in stored.garments(session, [two, bare])] == [True, False]
        first, second = stored.garments(session, [one, two])
        assert (first.project.id, second.project.id) == (1, two.id)
        one_main, two_main = first.uses[0].cloth, second.uses[0].cloth
        assert one_main.cloth.id != two_main.cloth.id and one_main.swatch is None
        assert two_main.swatch is not None and two_main.swatch.warp == [[250.0, 240.0]]
        assert [(one.use.role, one.use.id) for one in second.uses[1:]] == [("lining", lining.id)]
        assert len(first.uses) == 1 and first.uses[0].chosen is None and not first.pieces
        assert second.logged


def test_one_s_own_tests_of_like_cloth_are_those_of_other_cloths(database: Database) -> None:
    with database.begin() as session:
        made = []
        for name in ("a", "b"):
            row = project.create_garment(session, name)
            cloth.change_cloth(session, row.cloth, {"blend": [{"fibre": "linen", "share": 100.0}]})
            rows = [[250.0, 240.0, 240.0]] * 3
            shrink.keep_reading(session, row.main, shrink.Readings(warp=rows, weft=rows))
            made.append(row)
        first, second = stored.garments(session, made)
        assert len(first.uses[0].cloth.past) == len(second.uses[0].cloth.past) == 1, "the other one's, never its own"
