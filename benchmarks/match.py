"""What matching costs: every seam and the preview of a garment of 20 pieces after a move, and the first lay of a
matched garment beside the same without matching. ``python -m benchmarks.match``, part of ``make bench``."""

from __future__ import annotations

import statistics
import tempfile
import time
from pathlib import Path
from typing import Any

from idle_selvage.api.app import create_app
from idle_selvage.api.memory import settle
from idle_selvage.core.buy.extras import without
from idle_selvage.core.lay.answer import Lay
from idle_selvage.core.lay.engine.solver import Answer, Progress, solve
from idle_selvage.core.lay.problem import Problem
from idle_selvage.demo import drafts
from idle_selvage.jobs import laying
from idle_selvage.operations.standing import garment_standing
from idle_selvage.store.database import Database
from idle_selvage.store.project import project

from .run import percentile, row

ROUNDS = 40
CHECK = [{"width": w, "colour": c} for w, c in (("5 mm", "#336677"), ("35 mm", "#ddeeee"))]


class Maker:
    """Somebody with a garment of 20 pieces on a check, each sewn to the next, at the API in this process."""

    def __init__(self, home: Path) -> None:
        app = create_app(home)
        self.database: Database = app.services.database
        self.client = app.test_client()
        self.number = self.ask("POST", "/projects", name="Coat")["id"]
        self.at = f"/projects/{self.number}"
        blend = [{"fibre": "cotton", "share": 100}]
        facts = {"width_readings": ["150 cm"] * 3, "blend": blend, "bars_along": CHECK, "bars_across": CHECK}
        self.ask("PATCH", f"{self.at}/cloth", **facts)
        for _ in range(4):
            pieces = drafts.check_waistcoat()
            self.ask(
                "POST", f"{self.at}/pieces/svg", svg=drafts.drawing(pieces, "t"), file_name="t.svg", twice="beside"
            )
        self.ask("PATCH", f"{self.at}/lay", folds=["open"], lay_seconds=2)
        found = self.ask("GET", f"{self.at}/match")
        self.ask("POST", f"{self.at}/seams/proposed", which=[p["number"] for p in found["proposed"]])

    def ask(self, method: str, path: str, **body: Any) -> Any:
        """One request."""
        answer = self.client.open(f"/api{path}", method=method, json=body or None, base_url="http://127.0.0.1")
        assert answer.status_code < 400, answer.get_data(as_text=True)
        return answer.get_json()

    def timed(self, method: str, path: str) -> float:
        """Milliseconds of one request."""
        begun = time.perf_counter()
        self.ask(method, path)
        return (time.perf_counter() - begun) * 1000

    def lay(self) -> int:
        """Lay it here and now; the lay's number."""
        job = self.ask("POST", f"{self.at}/lays", seconds=2)["id"]
        laying.run(self.database, job)
        return int(self.ask("GET", f"{self.at}/lay")["lay"]["lay_id"])

    def problem(self) -> Problem:
        """What is asked of the engine."""
        with self.database.look() as session:
            found = garment_standing(session, project(session, self.number)).uses[0].problem
        assert found is not None
        return found


def first_answer(problem: Problem) -> float:
    """Seconds until the first whole lay."""
    begun = time.perf_counter()
    first: list[float] = []

    def heard(_progress: Progress, answer: Answer) -> None:
        lay: Lay | None = answer.lay
        if not first and lay is not None and lay.complete:
            first.append(time.perf_counter() - begun)

    solve(problem, seconds=1.5, seed=1, clock=time.monotonic, on_progress=heard, cancelled=lambda: bool(first))
    return first[0] if first else time.perf_counter() - begun


def main() -> None:
    with tempfile.TemporaryDirectory() as home:
        maker = Maker(Path(home))
        lay = maker.lay()
        found = maker.ask("GET", f"{maker.at}/match")
        seam = next(s for s in found["seams"] if s["couples"])
        shapes = maker.ask("GET", f"{maker.at}/lay")["lay"]["pinned"]["shapes"]
        # as the server does once it has started
        settle()
        every, shown = [], []
        for n in range(ROUNDS):
            # a gesture between: nothing that was worked out for the lay before it serves
            key = shapes[n % len(shapes)]["pinned"]
            lay = maker.ask("POST", f"{maker.at}/lays/{lay}/hand", do="lock", keys=[key])["lay"]["lay_id"]
            every.append(maker.timed("GET", f"{maker.at}/match"))
            shown.append(maker.timed("GET", f"{maker.at}/seams/{seam['id']}/preview"))
        what = f"Match: all {len(found['seams'])} seams of {len(found['pieces'])} pieces after a move"
        row(f"{what} (median {statistics.median(every):.0f} ms), p95", f"{percentile(every, 0.95):.0f} ms", "100 ms",
            percentile(every, 0.95) <= 100)  # fmt: skip
        row(f"Match: a seam as it will be seen (median {statistics.median(shown):.0f} ms), p95",
            f"{percentile(shown, 0.95):.0f} ms", "100 ms", percentile(shown, 0.95) <= 100)  # fmt: skip
        problem = maker.problem()
        matched, plain = first_answer(problem), first_answer(without(problem, ("matching",)))
        row(f"Match: first lay, matched (unmatched {plain:.2f} s)", f"{matched:.2f} s", "0.5 s", matched <= 0.5)
        maker.database.close()


if __name__ == "__main__":
    main()
