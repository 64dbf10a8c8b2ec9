"""The real server as a process of its own, and every process that descends from it."""

from __future__ import annotations

import json
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from pathlib import Path
from typing import Any

from tools.own_page import asking

#: How soon after the server's end none of ours may live, seconds.
SOON = 2.0


def stat(number: int) -> tuple[str, int] | None:
    """State and parent of a process, or None when it is gone."""
    try:
        text = Path(f"/proc/{number}/stat").read_text()
    except OSError:
        return None
    state, parent = text.rpartition(")")[2].split()[:2]
    return state, int(parent)


def below(root: int) -> set[int]:
    """Every process that descends from one."""
    parents = {int(p.name): stat(int(p.name)) for p in Path("/proc").iterdir() if p.name.isdigit()}
    found = {root}
    while True:
        more = {n for n, told in parents.items() if told is not None and told[1] in found} - found
        if not more:
            return found - {root}
        found |= more


def alive(numbers: set[int]) -> set[int]:
    """Those that run; what has ended and only waits to be noticed does not."""
    return {n for n in numbers if (told := stat(n)) is not None and told[0] not in "ZX"}


def until(seconds: float, holds: Callable[[], object]) -> bool:
    """Whether something came to hold within so many seconds."""
    end = time.monotonic() + seconds
    while not holds():
        if time.monotonic() > end:
            return False
        time.sleep(0.02)
    return True


class Server:
    """``idle-selvage serve`` on a home folder; ``took``: seconds until it said where it is."""

    def __init__(self, home: Path, *more: str) -> None:
        begun = time.monotonic()
        self.process = subprocess.Popen(
            [sys.executable, "-m", "idle_selvage.cli", "serve", "--home", str(home), "--port", "0", *more],
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            text=True,
        )
        assert self.process.stdout is not None
        line = self.process.stdout.readline()
        self.took = time.monotonic() - begun
        self.address = next((word for word in line.split() if word.startswith("http")), "")
        self.headers = asking(self.address) if self.address else {}

    def ask(self, method: str, path: str, body: Any = None, *, seconds: float = 20) -> Any:
        """One request; raises :class:`OSError` when nobody answers, :class:`urllib.error.HTTPError` when refused."""
        sent = None if body is None else json.dumps(body).encode()
        asked = urllib.request.Request(f"{self.address}api{path}", sent, self.headers, method=method)
        with urllib.request.urlopen(asked, timeout=seconds) as answer:
            return json.load(answer)

    def bytes(self, path: str) -> bytes:
        """A file that is taken away."""
        asked = urllib.request.Request(f"{self.address}api{path}", headers=self.headers)
        with urllib.request.urlopen(asked, timeout=20) as answer:
            return bytes(answer.read())

    def end(self) -> None:
        """In order, or, where that takes too long, at once."""
        self.process.terminate()
        try:
            self.process.wait(10)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()
