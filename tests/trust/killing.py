"""Killing the server, a worker or the second process of the engine at a seeded moment, and what is there then."""

from __future__ import annotations

import contextlib
import http.client
import os
import random
import signal
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.error
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from idle_selvage.store.data_file import FILE_NAME

from .processes import SOON, Server, alive, below, stat, until

#: Which of the processes is killed.
WHO = ("server", "worker", "partner")
#: A start after a kill takes at most so long on an idle machine, seconds.
START = 3.0
SQUARE = [{"along": 0, "left": 100, "right": 100}, {"along": 300, "left": 140, "right": 100}]


@dataclass
class Confirmed:
    """What the client was told is kept: notes, and the last name a garment was given. ``asked`` may be there or not."""

    notes: set[str] = field(default_factory=set)
    names: dict[int, str] = field(default_factory=dict)
    asked: dict[int, str] = field(default_factory=dict)
    copies: dict[int, int] = field(default_factory=dict)
    asked_copies: dict[int, int] = field(default_factory=dict)
    layings: set[int] = field(default_factory=set)

    def __len__(self) -> int:
        return len(self.notes) + len(self.names) + len(self.copies) + len(self.layings)


def work(server: Server, seed: int, told: Confirmed, stop: threading.Event) -> None:
    """Change things as fast as they are confirmed, until nobody answers or it is to stop."""
    chance = random.Random(seed)
    try:
        made = [_garment(server, told, f"garment {seed} {n}") for n in range(2)]
        for n in range(100_000):
            if stop.is_set():
                return
            number, piece = chance.choice(made)
            match chance.randrange(5):
                case 0 | 1:
                    text = f"note {seed} {n}"
                    server.ask("POST", "/log/notes", {"text": text, "project": number})
                    told.notes.add(text)
                case 2:
                    name = f"garment {seed} {n}"
                    told.asked[number] = name
                    server.ask("PATCH", f"/projects/{number}", {"name": name})
                    told.names[number] = name
                case 3:
                    copies = chance.randrange(2, 14)
                    told.asked_copies[piece] = copies
                    server.ask("PATCH", f"/pieces/{piece}", {"copies": copies})
                    told.copies[piece] = copies
                case _:
                    told.layings.add(server.ask("POST", f"/projects/{number}/lays", {"seconds": 4})["id"])
    except urllib.error.HTTPError:
        raise
    except (OSError, ValueError, http.client.HTTPException):
        # killed, also in the middle of an answer
        return


def _garment(server: Server, told: Confirmed, name: str) -> tuple[int, int]:
    number = int(server.ask("POST", "/projects", {"name": name})["id"])
    told.names[number] = told.asked[number] = name
    server.ask(
        "PATCH",
        f"/projects/{number}/cloth",
        {"width_readings": ["100 cm"], "blend": [{"fibre": "linen", "share": 100}]},
    )
    made = server.ask("POST", f"/projects/{number}/pieces", {"name": "Square", "stations": SQUARE, "smooth": False})
    return number, int(made["pieces"][0]["id"])


@dataclass
class Killed:
    """What came of one kill. ``faults``: everything that is not as it must be."""

    who: str
    confirmed: int
    left_behind: int
    start: float
    faults: list[str]


def kill_once(home: Path, seed: int, soon: float = SOON) -> Killed:
    """Serve, work, kill at a seeded moment, look at what is there, serve again. ``soon``: after how many seconds none
    of ours may be left."""
    chance = random.Random(seed)
    who = WHO[seed % len(WHO)]
    server = Server(home, "--no-quiet")
    told, stop = Confirmed(), threading.Event()
    worker = threading.Thread(target=work, args=(server, seed, told, stop))
    worker.start()
    time.sleep(chance.uniform(0.05, 2.5))
    ours = below(server.process.pid)
    victim = _victim(server.process.pid, who)
    faults: list[str] = []
    if who == "server" or victim is None:
        server.process.kill()
        server.process.wait()
        stop.set()
        worker.join(30)
        gone = until(soon, lambda: not alive(ours))
        left = 0 if gone else len(alive(ours))
        if left:
            faults.append(f"{left} processes left behind")
    else:
        with contextlib.suppress(ProcessLookupError):
            os.kill(victim, signal.SIGKILL)
        time.sleep(0.3)
        stop.set()
        worker.join(30)
        left = 0
        # the server goes on answering
        server.ask("GET", "/projects")
        server.process.kill()
        server.process.wait()
        if not until(soon, lambda: not alive(ours)):
            left = len(alive(ours))
            faults.append(f"{left} processes left behind")
    faults += missing(home, told)
    again = Server(home, "--no-quiet")
    try:
        if not again.address:
            faults.append("it does not start again")
        else:
            faults += _goes_on(again, told)
    finally:
        again.end()
    return Killed(who, len(told), left, again.took, faults)


def _victim(root: int, who: str) -> int | None:
    """A worker below the server, or what a worker began."""
    workers = [n for n in below(root) if n in _children(root)]
    partners = [n for one in workers for n in _children(one)]
    found = workers if who == "worker" else partners
    return found[0] if found else None


def _children(parent: int) -> set[int]:
    numbers = [int(p.name) for p in Path("/proc").iterdir() if p.name.isdigit()]
    return {n for n in numbers if (told := stat(n)) is not None and told[1] == parent}


def missing(home: Path, told: Confirmed) -> list[str]:
    """What was confirmed and is not there, and what is not whole."""
    faults: list[str] = []
    with closing(sqlite3.connect(home / FILE_NAME)) as data:
        if data.execute("PRAGMA integrity_check").fetchone() != ("ok",):
            faults.append("the data file is damaged")
        if data.execute("PRAGMA foreign_key_check").fetchall():
            faults.append("rows that belong to nothing")
        lines = "\n".join(str(row) for row in data.execute('SELECT * FROM log_entry WHERE kind = "note"'))
        faults += [f"lost: {note}" for note in told.notes if note not in lines]
        names = dict(data.execute("SELECT id, name FROM project").fetchall())
        faults += [
            f"lost: the name {name}" for number, name in told.names.items()
            if names.get(number) not in (name, told.asked.get(number))
        ]  # fmt: skip
        copies: dict[int, set[int]] = {}
        for piece, count in data.execute("SELECT piece_id, copies FROM cut"):
            copies.setdefault(piece, set()).add(count)
        faults += [
            f"lost: {count} copies of {piece}" for piece, count in told.copies.items()
            if not copies.get(piece, set()) & {count, told.asked_copies.get(piece)}
        ]  # fmt: skip
        jobs = {row[0] for row in data.execute("SELECT id FROM job")}
        faults += [f"lost: laying {number}" for number in told.layings if number not in jobs]
    return faults


def _goes_on(server: Server, told: Confirmed) -> list[str]:
    """Layings that were under way end, with a lay; stopped here, so that the next kill need not wait for them."""
    faults = []
    for number in sorted(told.layings)[-2:]:
        server.ask("POST", f"/jobs/{number}/cancel", {})

        def ended(number: int = number) -> bool:
            return server.ask("GET", f"/jobs/{number}")["state"] not in ("waiting", "running")

        if not until(30, ended):
            faults.append(f"laying {number} neither goes on nor ends")
    return faults


def killed_while(home: Path, seed: int, *words: str) -> None:
    """Run a command of ours on a home folder and kill it at a seeded moment."""
    command = [sys.executable, "-m", "idle_selvage.cli", *words, "--home", str(home)]
    process = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    time.sleep(random.Random(seed).uniform(0.05, 1.6))
    process.kill()
    process.wait()


def state_of(path: Path) -> Any:
    """All rows of a data file, to be compared."""
    with closing(sqlite3.connect(path)) as data:
        assert data.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        tables = [row[0] for row in data.execute("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name")]
        return {table: sorted(map(repr, data.execute(f'SELECT * FROM "{table}"'))) for table in tables}
