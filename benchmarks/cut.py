"""What the cutting table costs: a piece marked as cut, the whole answer, the sheet, the lay at its true size, on a
garment of some 40 copies. ``python -m benchmarks.cut``, part of ``make bench``."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path

from idle_selvage.api.memory import settle
from idle_selvage.jobs import laying

from .match import Maker
from .run import percentile, row

STEPS = 60


def main() -> None:
    """Print a table of times."""
    with tempfile.TemporaryDirectory() as home:
        maker = Maker(Path(home))
        job = maker.ask("POST", f"{maker.at}/lays", seconds=2)["id"]
        laying.run(maker.database, job, STEPS)
        settle()
        cut = f"{maker.at}/cut"
        for line in maker.ask("GET", cut)["before"]["lines"]:
            if line["state"] == "open" and (line["by_hand"] or line["can_accept"]):
                said = {"ticked": True} if line["by_hand"] else {"why": "measured here"}
                maker.ask("PUT", f"{cut}/before", key=line["key"], **said)
        steps = maker.ask("POST", cut)["steps"]
        marked = []
        for step in steps:
            begun = time.perf_counter()
            maker.ask("POST", f"{cut}/deeds", round=step["round"], key=step["key"], kind="cut")
            marked.append((time.perf_counter() - begun) * 1e3)
        told("a piece marked as cut", marked, 150.0, f" of {len(steps)} placements")
        told("cut as it stands", [maker.timed("GET", cut) for _ in range(20)], 150.0)
        for what, most in (("sheet.pdf", 500.0), ("lay.pdf", 3000.0), ("left", 500.0)):
            told(what, [maker.timed("GET", f"{cut}/{what}") for _ in range(5)], most)
        maker.database.close()


def told(what: str, times: list[float], most: float, more: str = "") -> None:
    """One line of the table: the 95th of a hundred, ms."""
    found = percentile(times, 0.95)
    row(f"Cut: {what}{more}, p95", f"{found:.0f} ms", f"{most:.0f} ms", found <= most)


if __name__ == "__main__":
    main()
