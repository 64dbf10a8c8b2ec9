"""What a change writes into the log, and what it does not."""

from __future__ import annotations

from idle_selvage.operations import project
from idle_selvage.operations.log import note, read_log
from idle_selvage.store import log_entry
from idle_selvage.store.database import Database


def test_a_line_knows_its_garment_its_use_and_its_cloth(database: Database) -> None:
    with database.begin() as session:
        row = project.create_garment(session, "Skirt")
        note(session, row.main, "lay", "lay-kept")
        note(session, row, "plan", "garment-away", name="Skirt")
        of_use, of_garment = log_entry.entries(session, row.id)[:2][::-1]
        assert (of_use.project_id, of_use.use_id, of_use.cloth_id) == (row.id, row.main.id, row.cloth.id)
        assert (of_garment.project_id, of_garment.use_id, of_garment.cloth_id) == (row.id, None, None)


def test_a_warning_set_aside_twice_for_the_same_reason_is_told_once(database: Database) -> None:
    with database.begin() as session:
        row = project.create_garment(session, "Skirt")

        def lines() -> list[str]:
            return [line.kind for line in read_log(session, row) if line.kind in ("set-aside", "look-again")]

        project.set_aside(session, row, "The check is narrow.", "it is hidden")
        project.set_aside(session, row, "The check is narrow.", "it is hidden")
        assert lines() == ["set-aside"]
        project.set_aside(session, row, "The check is narrow.", "the belt hides it")
        assert lines() == ["set-aside"] * 2 and [one.why for one in row.asides] == ["the belt hides it"]
        project.set_aside(session, row, "The check is narrow.", "")
        project.set_aside(session, row, "The check is narrow.", "")
        assert lines() == ["look-again", "set-aside", "set-aside"] and row.asides == []
