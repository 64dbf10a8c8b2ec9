"""A sewing class: many makers at one server, each at a person's pace with a garment of their own."""

from __future__ import annotations

import random
import threading
import time
import urllib.error
from itertools import pairwise
from typing import Any

from .killing import SQUARE
from .processes import Server, until

#: Between two deeds of a maker, seconds: measuring, typing, looking.
PACE = (3.0, 9.0)


class Makers:
    """So many makers; ``took``: seconds of each answer, ``faults``: what was not answered as it should be."""

    def __init__(self, server: Server, count: int) -> None:
        self.server, self.count = server, count
        self.took: list[float] = []
        self.garments: dict[int, int] = {}
        self.faults: list[str] = []
        self._lock = threading.Lock()
        self._stop = threading.Event()

    def work(self, seconds: float) -> None:
        """All at once for so long."""
        threads = [threading.Thread(target=self._maker, args=(n,)) for n in range(self.count)]
        listeners = [threading.Thread(target=self._listen, args=(n,), daemon=True) for n in range(self.count)]
        for one in [*threads, *listeners]:
            one.start()
        self._stop.wait(seconds)
        self._stop.set()
        for one in threads:
            one.join(60)

    def _ask(self, method: str, path: str, body: Any = None) -> Any:
        begun = time.monotonic()
        found = self.server.ask(method, path, body)
        with self._lock:
            self.took.append(time.monotonic() - begun)
        return found

    def _listen(self, n: int) -> None:
        """The page keeps a question for news open, and asks for what it shows again whenever there are some."""
        since = 0
        while not self._stop.is_set():
            try:
                told = self.server.ask("GET", f"/news?since={since}&wait=25", seconds=60)["rung"]
                if told != since and n in self.garments:
                    self._ask("GET", f"/projects/{self.garments[n]}")
                since = told
                # the browser follows no more often
                self._stop.wait(1.0)
            except (OSError, ValueError) as fault:
                if not self._stop.is_set():
                    with self._lock:
                        self.faults.append(f"news: {fault}")
                return

    def _maker(self, n: int) -> None:
        chance = random.Random(n)
        try:
            number, piece = self._begin(n, chance)
            while not self._stop.wait(chance.uniform(*PACE)):
                self._deed(number, piece, chance)
        except urllib.error.HTTPError as fault:
            with self._lock:
                self.faults.append(f"maker {n}: {fault.code} {fault.read()[:200]!r}")
        except (OSError, ValueError) as fault:
            with self._lock:
                self.faults.append(f"maker {n}: {fault}")

    def _begin(self, n: int, chance: random.Random) -> tuple[int, int]:
        # they sit down one after another
        self._stop.wait(chance.uniform(0, 2 * PACE[1]))
        number = int(self._ask("POST", "/projects", {"name": f"Garment {n}"})["id"])
        self.garments[n] = number
        readings = [f"{chance.uniform(110, 150):.1f} cm" for _ in range(3)]
        self._stop.wait(chance.uniform(*PACE))
        self._ask("PATCH", f"/projects/{number}/cloth", {"width_readings": readings})
        self._stop.wait(chance.uniform(*PACE))
        self._ask("PATCH", f"/projects/{number}/cloth", {"blend": [{"fibre": "linen", "share": 100}]})
        piece = 0
        for name in ("Front", "Back", "Sleeve", "Yoke", "Collar"):
            self._stop.wait(chance.uniform(*PACE))
            made = self._ask(
                "POST", f"/projects/{number}/pieces", {"name": name, "stations": SQUARE, "smooth": False, "copies": 2}
            )
            piece = int(made["pieces"][0]["id"])
        return number, piece

    def _deed(self, number: int, piece: int, chance: random.Random) -> None:
        match chance.randrange(9):
            case 0:
                self._ask(
                    "PATCH", f"/projects/{number}/cloth", {"width_readings": [f"{chance.uniform(90, 150):.1f} cm"]}
                )
            case 1:
                self._ask("PATCH", f"/pieces/{piece}", {"copies": 2 * chance.randrange(1, 4)})
            case 2:
                self._ask("PATCH", f"/projects/{number}/purchase", {"spare": f"{chance.randrange(1, 20)} cm"})
            case 3:
                self._ask("POST", "/log/notes", {"text": "pressed from the back", "project": number})
            case 4:
                self._ask("GET", f"/projects/{number}/shrink")
            case 5:
                self._ask("GET", "/projects")
            case 6:
                self._ask("GET", f"/projects/{number}/sheet")
            case 7:
                self._ask("PATCH", f"/projects/{number}/true", {"now": {"offset": "12 mm", "side": "near"}})
            case _:
                self._ask("GET", f"/projects/{number}")


def laid_at_once(server: Server, count: int) -> tuple[list[float], int, int]:
    """Layings of so many garments begun at once: after how many seconds each had its first lay, how many were not told
    their place, and how many were begun before one that was asked for earlier."""
    numbers = []
    for n in range(count):
        number = int(server.ask("POST", "/projects", {"name": f"Garment {n}"})["id"])
        cloth = {"width_readings": ["120 cm"], "blend": [{"fibre": "linen", "share": 100}]}
        server.ask("PATCH", f"/projects/{number}/cloth", cloth)
        for name in ("Front", "Back", "Sleeve"):
            piece = {"name": name, "stations": SQUARE, "smooth": False, "copies": 4}
            server.ask("POST", f"/projects/{number}/pieces", piece)
        numbers.append(number)
    # the engine is warm, as on any day
    first = server.ask("POST", f"/projects/{numbers[0]}/lays", {"seconds": 1})["id"]
    until(60, lambda: server.ask("GET", f"/jobs/{first}")["state"] == "done")
    begun = time.monotonic()
    jobs: list[int] = [server.ask("POST", f"/projects/{number}/lays", {"seconds": 10})["id"] for number in numbers]
    firsts: dict[int, float] = {}
    begun_at: dict[int, int] = {}
    untold, looks = 0, 0
    while len(firsts) < count and time.monotonic() - begun < 120:
        looks += 1
        # the last one first: the queue moves on while it is asked
        states = {job: server.ask("GET", f"/jobs/{job}") for job in reversed(jobs)}
        for job in jobs:
            if states[job]["state"] != "waiting" or states[job]["progress"]:
                begun_at.setdefault(job, looks)
            if states[job]["progress"]:
                firsts.setdefault(job, time.monotonic() - begun)
        if looks == 1:
            # at first nearly all wait, each one place after the one before it; one that has had its first turn and
            # made way stands behind them
            waiting = [states[job] for job in jobs if states[job]["state"] == "waiting" and not states[job]["progress"]]
            untold = sum(a["ahead"] > b["ahead"] for a, b in pairwise(waiting)) + (waiting[-1]["ahead"] < count // 2)
        time.sleep(0.2)
    early = sum(begun_at.get(a, looks) > begun_at.get(b, looks) for a, b in pairwise(jobs))
    for job in jobs:
        server.ask("POST", f"/jobs/{job}/cancel", {})
    return [firsts.get(job, 120.0) for job in jobs], untold, early
