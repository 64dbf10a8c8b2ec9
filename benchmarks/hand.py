"""How fast the lay follows the hand, through the real server and in the real page: part of ``make bench``.

From a movement of the pointer to the picture that shows it, with 40 and with 200 pieces on the cloth; from the press of
*Lay the pieces* to the first lay in the page; and the time of a frame while 200 pieces are panned.
"""

from __future__ import annotations

import json
import random
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from typing import Any

from playwright.sync_api import Page, sync_playwright
from tools.chromium import ARGS, CHROMIUM
from tools.own_page import asking

from . import garments

#: Seconds a lay is searched before it is dragged about.
SEARCHED = 2
#: Movements of the pointer on each drag, and drags.
MOVES, DRAGS = 60, 6

#: Notes when the page asks for a place, by which movement of the pointer, and when the picture that shows it is drawn.
WATCH = """() => {
  window.__took = [];
  let moved = 0, asked = 0;
  addEventListener('pointermove', () => (moved = performance.now()), true);
  const real = window.fetch;
  window.fetch = (...given) => {
    const url = String(given[0]?.url ?? given[0]);
    if (url.includes('/lay/near')) asked = moved;
    return real(...given);
  };
  new MutationObserver((seen) => {
    if (!asked || !seen.some((m) => m.target.closest?.('.in-hand') || m.target.querySelector?.('.in-hand'))) return;
    const from = asked;
    asked = 0;
    requestAnimationFrame(() => window.__took.push(performance.now() - from));
  }).observe(document.querySelector('.lay-picture svg'), {
    subtree: true, childList: true, attributes: true, attributeFilter: ['transform', 'points', 'data-x', 'data-y'],
  });
}"""

#: Pans for two seconds, a little each frame, and gives the time of every frame.
PAN = """() => new Promise((done) => {
  const box = document.querySelector('.lay-picture');
  const times = [];
  let last = performance.now();
  const begun = last;
  function step(now) {
    times.push(now - last);
    last = now;
    box.scrollLeft += 12;
    if (now - begun < 2000) requestAnimationFrame(step);
    else done(times.slice(2));
  }
  requestAnimationFrame(step);
})"""


def _percentile(values: list[float], share: float) -> float:
    return sorted(values)[min(len(values) - 1, int(len(values) * share))]


def _row(what: str, measured: str, target: str, good: bool) -> None:
    print(f"{what:<58} {measured:>14}  {target:>12}  {'met' if good else 'MISSED'}", flush=True)


class _Server:
    """The application on a home of its own, as a person starts it."""

    def __init__(self) -> None:
        with socket.create_server(("127.0.0.1", 0)) as free:
            self.port = free.getsockname()[1]
        self.home = tempfile.TemporaryDirectory()
        command = [sys.executable, "-m", "idle_selvage.cli", "serve", "--no-quiet", "--home", self.home.name]
        self.process = subprocess.Popen([*command, "--port", str(self.port)], stderr=subprocess.DEVNULL)
        self.address = f"http://127.0.0.1:{self.port}/"
        for _ in range(200):
            time.sleep(0.1)
            try:
                urllib.request.urlopen(f"{self.address}api/health", timeout=2)
                return
            except OSError:
                continue
        raise RuntimeError("The server did not start.")

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        sent = None if body is None else json.dumps(body).encode()
        headers = asking(self.address)
        request = urllib.request.Request(f"{self.address}api{path}", sent, headers, method=method)
        with urllib.request.urlopen(request) as answer:
            return json.load(answer)

    def close(self) -> None:
        self.process.terminate()
        self.process.wait(timeout=20)
        self.home.cleanup()


def _outlines(count: int) -> list[list[list[float]]]:
    """Outlines of garments one after another, so many."""
    found: list[list[list[float]]] = []
    kinds = list(garments.KINDS)
    for k in range(count):
        for piece in garments.garment(kinds[k % len(kinds)], k + 1)["pieces"]:
            outline = piece["outline"]
            if piece.get("on_fold"):
                outline = [*outline, *([x, -y] for x, y in reversed(outline) if y > 0)]
            ys = [y for _, y in outline]
            if max(ys) - min(ys) < 1300:
                found.append(outline)
        if len(found) >= count:
            break
    random.Random(count).shuffle(found)
    return found[:count]


def _garment(server: _Server, count: int) -> int:
    """A garment of so many pieces on plain cloth; its number."""
    number = int(server.ask("POST", "/projects", {"name": f"{count} pieces"})["id"])
    cloth = {"blend": [{"fibre": "linen", "share": 100}], "width_readings": ["150 cm", "150 cm", "150 cm"]}
    server.ask("PATCH", f"/projects/{number}/cloth", cloth)
    paths = []
    for k, outline in enumerate(_outlines(count)):
        points = " ".join(f"{x:.2f},{y:.2f}" for x, y in outline)
        paths.append(f'<polygon id="P{k + 1}" points="{points}"/>')
    svg = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="3000mm" height="3000mm" viewBox="0 0 3000 3000">'
        + "".join(paths)
        + "</svg>"
    )
    server.ask("POST", f"/projects/{number}/pieces/svg", {"svg": svg})
    server.ask("PATCH", f"/projects/{number}/lay", {"lay_seconds": SEARCHED, "folds": ["open"]})
    return number


def _drags(page: Page) -> list[float]:
    """Milliseconds from a movement of the pointer to the picture that shows it."""
    page.evaluate(WATCH)
    rng = random.Random(5)
    names = page.eval_on_selector_all(".laid", "all => all.map(one => one.dataset.pinned)")
    for name in rng.sample(names, DRAGS):
        box = page.locator(f'.laid[data-pinned="{name}"]').bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        for _ in range(MOVES):
            x = min(900.0, max(150.0, x + rng.uniform(-14, 22)))
            y = min(640.0, max(200.0, y + rng.uniform(-14, 14)))
            page.mouse.move(x, y)
            page.wait_for_timeout(8)
        page.keyboard.press("Escape")
        page.mouse.up()
        page.wait_for_timeout(600)
    found: list[float] = page.evaluate("window.__took")
    return found


def measure() -> None:
    """Print the table."""
    server = _Server()
    try:
        with sync_playwright() as play:
            browser = play.chromium.launch(executable_path=CHROMIUM, args=ARGS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            for count, most in ((15, 0.0), (40, 50.0), (200, 100.0)):
                number = _garment(server, count)
                page.goto(f"{server.address}projects/{number}/lay")
                press = page.get_by_role("button", name="Lay the pieces")
                press.wait_for()
                page.wait_for_timeout(2500)
                begun = time.perf_counter()
                press.click()
                page.locator(".laid").first.wait_for(timeout=60_000)
                first = time.perf_counter() - begun
                if count == 15:
                    _row("first lay in the page from the press, 15 pieces", f"{first:.2f} s", "1 s", first <= 1.0)
                page.get_by_role("button", name="Lay again").and_(page.locator(":enabled")).wait_for(timeout=60_000)
                page.wait_for_timeout(800)
                if not most:
                    continue
                took = _drags(page)
                high = _percentile(took, 0.95)
                what = f"pointer to picture, {count} pieces (median {statistics.median(took):.0f} ms), p95"
                _row(what, f"{high:.0f} ms", f"{most:.0f} ms", high <= most)
            for _ in range(5):
                page.get_by_role("button", name="Nearer").click()
            page.wait_for_timeout(500)
            frames: list[float] = page.evaluate(PAN)
            high = _percentile(frames, 0.95)
            _row(
                f"a frame while 200 pieces are panned ({len(frames)} frames), p95",
                f"{high:.0f} ms",
                "33 ms",
                high <= 33,
            )
            browser.close()
    finally:
        server.close()


if __name__ == "__main__":
    measure()
