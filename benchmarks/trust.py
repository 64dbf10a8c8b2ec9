"""The long run of ``make trust``: kills, spoilt requests, generated calls and a class of makers; written to
``docs/trust.md``, each figure beside its target.

``python -m benchmarks.trust --only kills,load`` runs a part; ``--kills N`` and the like make it shorter or longer.
"""

from __future__ import annotations

import argparse
import os
import platform
import re
import shutil
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from datetime import date
from pathlib import Path

from tests.trust.killing import START, kill_once, laid_home
from tests.trust.making import Makers, laid_at_once
from tests.trust.processes import Server

from idle_selvage.store.data_file import FILE_NAME
from idle_selvage.store.database import Database

HERE = Path(__file__).parents[1]
OUT = HERE / "docs" / "trust.md"
PARTS = ("kills", "calls", "load")


class Table:
    """Rows of what was measured beside its target."""

    def __init__(self) -> None:
        self.rows: list[tuple[str, str, str, str]] = []

    def most(self, what: str, value: float, target: float, unit: str = "") -> None:
        """What must not be more than its target."""
        met = "met" if value <= target else "**missed**"
        self.rows.append((what, f"{value:.4g} {unit}".strip(), f"≤ {target:g} {unit}".strip(), met))
        print(" | ".join(self.rows[-1]), flush=True)

    def told(self, what: str, value: str) -> None:
        """What has no target."""
        self.rows.append((what, value, "", ""))
        print(" | ".join(self.rows[-1]), flush=True)


def p95(values: list[float]) -> float:
    return statistics.quantiles(values, n=20)[18] if len(values) > 1 else max(values, default=0.0)


def fresh(folder: Path) -> Path:
    """A home with an empty data file."""
    folder.mkdir(parents=True)
    database = Database(folder)
    database.migrate()
    database.close()
    return folder


def kills(table: Table, count: int) -> None:
    """Kill so often, each on data of its own."""
    with tempfile.TemporaryDirectory() as folder:
        laid = Path(folder) / "laid"
        laid.mkdir()
        laid_home(laid)
        came = []
        for seed in range(count):
            home = Path(folder) / f"home-{seed}"
            home.mkdir()
            shutil.copy(laid / FILE_NAME, home)
            came.append(kill_once(home, seed))
            if came[-1].faults:
                print(f"seed {seed}, {came[-1].who}: {came[-1].faults}", flush=True)
            shutil.rmtree(home, ignore_errors=True)
    table.told("kills −9 of server, worker and second process in turn", str(len(came)))
    table.told("changes confirmed before them", str(sum(one.confirmed for one in came)))
    table.most("of these lost, or anything not whole", sum(len(one.faults) for one in came), 0)
    table.most("processes of ours left 2 s afterwards", sum(one.left_behind for one in came), 0)
    starts = [one.start for one in came]
    table.most("start after a kill, p95", p95(starts), START, "s")
    table.most("start after a kill, the longest", max(starts), 2 * START, "s")


def calls(table: Table, generated: int, spoilt: int, runs: int) -> None:
    """The API tests with many more examples, in a process of their own."""
    with tempfile.NamedTemporaryFile("r", suffix=".txt") as told:
        environment = {
            **os.environ,
            "TRUST_GENERATED": str(generated),
            "TRUST_SPOILT": str(spoilt),
            "TRUST_LONGEST": "2",
            "TRUST_LIVES": str(runs),
            "TRUST_LINKED": str(2 * runs),
        }
        done = subprocess.run(
            [
                sys.executable, "-m", "pytest", "-q", "-n", "2", "--timeout", "3600",
                "tests/api/test_spoiled.py", "tests/api/test_surface.py", "tests/api/test_life.py",
                "tests/api/test_linked.py", "-k", "spoilt or no_request or life or linked",
            ],
            cwd=HERE, env=environment, stdout=told.fileno(), check=False,
        )  # fmt: skip
        text = Path(told.name).read_text()
    faults = re.findall(r"^FAILED (.*)$", text, re.MULTILINE)
    for one in faults:
        print(one, flush=True)
    operations = _operations()
    table.told("operations of the API", str(operations))
    table.told("calls generated from the document", str(operations * generated))
    table.told("valid requests with one place spoilt", str(operations * spoilt))
    table.told("runs of 20 calls, each with what an earlier one gave", str(2 * runs))
    table.told("garments' lives of 20 deeds in any order", str(runs))
    # what ended otherwise than by a test that failed is a fault too
    told_500 = max(1, len(faults)) if done.returncode else 0
    what = "answers 500, slower than 2 s, not in words, or refused and changed all the same; undone and not as it was"
    table.most(what, told_500, 0)


def _operations() -> int:
    from tests.api.surface import OPERATIONS

    return len(OPERATIONS)


def load(table: Table, makers: int, seconds: int) -> None:
    """A sewing class at once, and ten layings begun at once."""
    with tempfile.TemporaryDirectory() as folder:
        home = fresh(Path(folder) / "class")
        server = Server(home, "--no-quiet")
        try:
            before = memory(server.process.pid)
            came = Makers(server, makers)
            came.work(seconds)
            table.told(f"{makers} makers at once for {seconds} s: questions and changes answered", str(len(came.took)))
            table.most("a figure after a change, p95", 1000 * p95(came.took), 300, "ms")
            table.most("any of them, p99", 1000 * statistics.quantiles(came.took, n=100)[98], 1000, "ms")
            table.most("errors", len(came.faults), 0)
            for fault in came.faults[:5]:
                print(fault, flush=True)
            table.most("memory of the server more than before", memory(server.process.pid) - before, 150, "MB")
        finally:
            server.end()
        server = Server(fresh(Path(folder) / "lays"), "--no-quiet")
        try:
            firsts, places, order = laid_at_once(server, 10)
            table.most("ten layings begun at once: the last of their first lays", max(firsts), 5, "s")
            table.most("of them not told their place", places, 0)
            table.most("of them begun before one that was asked for earlier", order, 0)
        finally:
            server.end()


def memory(number: int) -> float:
    """The most memory a process has had, MB."""
    text = Path(f"/proc/{number}/status").read_text()
    return next(int(line.split()[1]) / 1000 for line in text.splitlines() if line.startswith("VmHWM:"))


def write(table: Table, command: str, took: float) -> None:
    """The page of the documentation."""
    lines = [
        "# What was measured of trust",
        "",
        f"On {date.today().isoformat()} by `{command}`, in {took / 60:.0f} minutes, on a machine with "
        f"{os.cpu_count()} processors ({platform.system()}, Python {platform.python_version()}).",
        "",
        "| what | measured | target | |",
        "|---|---|---|---|",
        *("| " + " | ".join(row) + " |" for row in table.rows),
        "",
    ]
    OUT.write_text("\n".join(lines), encoding="utf-8")


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--only", default=",".join(PARTS))
    parser.add_argument("--kills", type=int, default=200)
    parser.add_argument("--generated", type=int, default=540, help="of each operation")
    parser.add_argument("--spoilt", type=int, default=60, help="of each operation")
    parser.add_argument("--lives", type=int, default=100, help="lives of a garment; twice as many runs of linked calls")
    parser.add_argument("--makers", type=int, default=30)
    parser.add_argument("--seconds", type=int, default=120)
    parser.add_argument("--keep", action="store_true", help=f"write {OUT.name}")
    args = parser.parse_args()
    table, begun = Table(), time.monotonic()
    parts: dict[str, Callable[[], None]] = {
        "kills": lambda: kills(table, args.kills),
        "calls": lambda: calls(table, args.generated, args.spoilt, args.lives),
        "load": lambda: load(table, args.makers, args.seconds),
    }
    for part in args.only.split(","):
        parts[part]()
    if args.keep:
        words = " ".join(sys.argv[1:])
        command = "make trust" if args.only == ",".join(PARTS) else f"python -m benchmarks.trust {words}"
        write(table, command, time.monotonic() - begun)
    return int(any("missed" in row[3] for row in table.rows))


if __name__ == "__main__":
    threading.excepthook = lambda told: print(told.exc_value, flush=True)
    sys.exit(main())
