"""Workers that die, queues that fill, and drafts of any size: the parts around the way through."""

from __future__ import annotations

import os
import signal
import time
from pathlib import Path

import pytest

from idle_selvage.api.app import create_app
from idle_selvage.api.present import Presenter
from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.piece import Piece, check_piece
from idle_selvage.core.plan.stations import Station, outline_from_stations
from idle_selvage.core.working import Figure
from idle_selvage.demo import drafts
from idle_selvage.formats.svg_pieces import read_svg
from idle_selvage.jobs.pool import Pool
from idle_selvage.store.database import Database

from ..conftest import Person, ready


def test_a_killed_worker_s_job_is_picked_up_again(tmp_path: Path) -> None:
    database = Database(tmp_path)
    database.migrate()
    pool = Pool(database, size=1)
    pool.start()
    person = Person(create_app(tmp_path, pool, database=database))
    try:
        ready(person)
        number = person.ask("POST", "/projects/1/lays", seconds=3)["id"]
        while not person.ask("GET", f"/jobs/{number}")["progress"]:
            time.sleep(0.05)
        os.kill(pool._workers[0].process.pid, signal.SIGKILL)
        job = person.finished(number, 90)
        assert job["state"] == "done" and person.ask("GET", "/projects/1/lay")["lay"] is not None
    finally:
        pool.close()
        database.close()


def test_jobs_wait_for_their_turn(worked: Person) -> None:
    ready(worked)
    worked.ask("POST", "/projects", name="Other")
    worked.ask("PATCH", "/projects/2/cloth", width_readings=["100 cm"], blend=[{"fibre": "linen", "share": 100}])
    square = [{"along": 0, "left": 100, "right": 100}, {"along": 200, "left": 100, "right": 100}]
    worked.ask("POST", "/projects/2/pieces", name="Square", stations=square, smooth=False)
    numbers = [worked.ask("POST", f"/projects/{n}/lays", seconds=1)["id"] for n in (1, 2)]
    assert [worked.finished(n)["state"] for n in numbers] == ["done", "done"]


@pytest.mark.parametrize("chest", [840, 1000, 1180, 1400])
@pytest.mark.parametrize("length", [560, 700, 820])
def test_overshirts_of_every_size_are_read_whole(chest: float, length: float) -> None:
    drawing = read_svg(drafts.drawing(drafts.overshirt(chest=chest, length=length), "t").encode())
    assert drawing.not_read == () and len(drawing.pieces) == 7
    back = next(p for p in drawing.pieces if p.name == "Back")
    assert max(x for x, _ in back.outline) == pytest.approx(length, abs=0.01)
    assert max(y for _, y in back.outline) == pytest.approx(chest / 4, abs=0.01), "a quarter of the chest from the fold"
    assert all(p.copies == 2 and p.pair for p in drawing.pieces if p.name in ("Front", "Sleeve"))


@pytest.mark.parametrize("bust", [800, 960, 1200])
def test_waistcoats_of_every_size_are_read_whole(bust: float) -> None:
    drawing = read_svg(drafts.drawing(drafts.waistcoat(bust=bust), "t").encode())
    assert drawing.not_read == () and sum(p.copies for p in drawing.pieces) == 13


@pytest.mark.parametrize("panels", [4, 6, 8])
def test_gores_add_up_to_the_skirt(panels: int) -> None:
    stations = drafts.gore(waist=720, hip=1000, hem=2000, length=700, panels=panels)
    outline = outline_from_stations([Station(*s) for s in stations], smooth=True, on_fold=False)
    check_piece(Piece("Gore", outline))
    hem = [y for x, y in outline if x == 0]
    waist = [y for x, y in outline if x == 700]
    assert (max(hem) - min(hem)) * panels == pytest.approx(2000)
    assert (max(waist) - min(waist)) * panels == pytest.approx(720)
    assert len(cut_line(Piece("Gore", outline, seam=15))) >= 4


def test_a_figure_is_shown_in_either_system() -> None:
    figure = Figure(1270.0, "length", 1260.0, 1280.0)
    metric, imperial = Presenter("metric").surely(figure), Presenter("imperial").surely(figure)
    assert (metric.text, metric.sure, metric.low) == ("127.0 cm", "± 1.0 cm", "126.0 cm")
    assert (imperial.text, imperial.number, imperial.unit) == ("50 in", "50", "in")
    assert "in across" in Presenter("imperial").too_wide("Front", 1100.0, 500.0)
