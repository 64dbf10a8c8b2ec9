"""Killing the server, a worker or the second process of the engine at a seeded moment, and what is there then."""

from __future__ import annotations

import base64
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
import urllib.parse
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from idle_selvage.api.app import create_app
from idle_selvage.store.data_file import FILE_NAME

from ..conftest import Person, data_of, ready
from .processes import SOON, Server, alive, below, stat, until

#: Which of the processes is killed.
WHO = ("server", "worker", "partner")
#: A start after a kill takes at most so long on an idle machine, seconds.
START = 3.0
SQUARE_SVG = base64.b64encode(
    b'<svg xmlns="http://www.w3.org/2000/svg" width="99mm" height="99mm" viewBox="0 0 99 99">'
    b'<rect id="square" width="99" height="99"/></svg>'
).decode()
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
    #: Pieces taken in from a file, by their names; archives taken in; pieces dragged on the lay.
    taken: set[str] = field(default_factory=set)
    archives: int = 0
    drags: int = 0
    #: Answers that should not have been.
    refused: list[str] = field(default_factory=list)

    def __len__(self) -> int:
        sets = (self.notes, self.names, self.copies, self.layings, self.taken)
        return sum(map(len, sets)) + self.archives + self.drags


def work(server: Server, seed: int, told: Confirmed, stop: threading.Event) -> None:
    """Change things as fast as they are confirmed, until nobody answers or it is to stop."""
    chance = random.Random(seed)
    try:
        made = [_garment(server, told, f"garment {seed} {n}") for n in range(2)]
        whole = base64.b64encode(server.bytes("/projects/1/archive.zip")).decode()
        at = server.ask("GET", "/projects/1/lay")["lay"]
        lay, keys = at["lay_id"], sorted({shape["pinned"] for shape in at["pinned"]["shapes"]})
        for n in range(100_000):
            if stop.is_set():
                return
            number, piece = chance.choice(made)
            match chance.randrange(9):
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
                case 4:
                    name = f"taken in {seed} {n}"
                    piece_asked = {"file": SQUARE_SVG, "file_name": "a.svg", "pieces": [{"number": 0, "name": name}]}
                    server.ask("POST", f"/projects/{number}/pieces/taken-in", piece_asked)
                    told.taken.add(name)
                case 5:
                    server.ask("POST", "/archives", {"file": whole, "cloths": "another"})
                    told.archives += 1
                case 6 | 7:
                    lay = _drag(server, lay, chance.choice(keys), chance)
                    told.drags += 1
                case _:
                    told.layings.add(server.ask("POST", f"/projects/{number}/lays", {"seconds": 4})["id"])
    except urllib.error.HTTPError as fault:
        told.refused.append(f"{fault.code} at {fault.url}: {fault.read()[:300]!r}")
    except (OSError, ValueError, http.client.HTTPException):
        # killed, also in the middle of an answer
        return


def _drag(server: Server, lay: int, key: str, chance: random.Random) -> int:
    """Carry a piece a little, look where it may be put, and let it go there; the number of the lay that is now."""
    query = urllib.parse.urlencode(
        {"lay_id": lay, "keys": key, "x": chance.uniform(0, 900), "y": chance.uniform(0, 900)}
    )
    near = server.ask("GET", f"/projects/1/lay/near?{query}")
    gesture = {"do": "lock", "keys": [key]}
    if near["there"]:
        gesture = {"do": "move", "keys": [key], "x": near["x"], "y": near["y"], "section": near["section"]}
    return int(server.ask("POST", f"/projects/1/lays/{lay}/hand", gesture)["lay"]["lay_id"])


def laid_home(home: Path) -> None:
    """A home with a first garment that is laid, and that can be taken along."""
    app = create_app(home)
    person = Person(app)
    ready(person)
    person.lay(1, seconds=1)
    data_of(app).close()


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
    time.sleep(chance.uniform(0.05, 5.0))
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
    faults += told.refused + missing(home, told)
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
        pieces = {row[0] for row in data.execute("SELECT name FROM piece WHERE id IN (SELECT piece_id FROM cut)")}
        faults += [f"lost: {name}" for name in told.taken - pieces]
        whole = data.execute(
            "SELECT count(piece.id) FROM project LEFT JOIN piece ON piece.project_id = project.id "
            "WHERE project.name LIKE 'Skirt%' GROUP BY project.id ORDER BY project.id"
        ).fetchall()
        if not told.archives < len(whole) <= told.archives + 2:
            faults.append(f"{len(whole) - 1} garments of {told.archives} archives taken in")
        if len(set(whole)) > 1:
            faults.append(f"garments taken in by halves: {whole}")
        drags = data.execute("SELECT count(*) FROM lay_change").fetchone()[0]
        if not told.drags <= drags <= told.drags + 2:
            faults.append(f"{drags} of {told.drags} drags are kept")
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
