"""What a request costs: time, queries and bytes, at several sizes of a house. ``python -m benchmarks.requests``."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from sqlalchemy import event

from .houses import House

ROUNDS = 60


@dataclass(frozen=True)
class Cost:
    """What one kind of request costs: milliseconds (median and 95th percentile), queries, bytes of its answer."""

    middle: float
    high: float
    queries: int
    size: int


@contextmanager
def counted(house: House) -> Iterator[list[str]]:
    """The statements sent to the database meanwhile."""
    said: list[str] = []

    def note(_connection: Any, _cursor: Any, statement: str, *_rest: Any) -> None:
        said.append(statement)

    event.listen(house.database.engine, "before_cursor_execute", note)
    try:
        yield said
    finally:
        event.remove(house.database.engine, "before_cursor_execute", note)


def cost(house: House, method: str, path: str, body: Any = None) -> Cost:
    """Ask again and again."""
    times: list[float] = []
    size = 0
    for _ in range(ROUNDS):
        begun = time.perf_counter()
        answer = house.client.open(f"/api{path}", method=method, json=body, base_url="http://127.0.0.1")
        times.append((time.perf_counter() - begun) * 1000)
        assert answer.status_code < 400, answer.get_data(as_text=True)
        size = len(answer.get_data())
    with counted(house) as said:
        house.client.open(f"/api{path}", method=method, json=body, base_url="http://127.0.0.1")
        queries = len([s for s in said if s not in ("BEGIN", "BEGIN IMMEDIATE")])
    return Cost(statistics.median(times), sorted(times)[int(len(times) * 0.95)], queries, size)


def tell(what: str, found: Cost, queries: int | None = None, ms: float | None = None) -> bool:
    """One line; whether the targets were met."""
    met = (queries is None or found.queries <= queries) and (ms is None or found.high <= ms)
    wanted = ", ".join(
        [*([f"≤ {queries} queries"] if queries is not None else []), *([f"≤ {ms:g} ms"] if ms is not None else [])]
    )
    print(
        f"{what:<58} {found.queries:>4} queries {found.middle:>7.1f} ms, p95 {found.high:>7.1f} ms "
        f"{found.size / 1000:>8.1f} kB  {wanted:<24} {'' if not wanted else 'met' if met else 'MISSED'}",
        flush=True,
    )
    return met


def main() -> None:
    for pieces, lines in ((10, 100), (10, 10_000), (40, 100), (100, 100), (100, 10_000)):
        with tempfile.TemporaryDirectory() as home:
            house = House(Path(home), pieces=pieces, lines=lines)
            at = f"/projects/{house.garment}"
            size = f"{pieces} pieces, {lines} lines"
            limit = 25.0 if pieces == 10 else 40.0 if pieces == 100 else None
            tell(f"project, {size}", cost(house, "GET", at), 10, limit)
            kept = {"warp": [["25 cm", "24.0 cm"]] * 3}
            tell(f"swatch kept, {size}", cost(house, "PUT", f"{at}/swatch", kept))
            tell(f"spare changed, {size}", cost(house, "PATCH", f"{at}/purchase", {"spare": "2 cm"}))
            tell(f"log, {size}", cost(house, "GET", f"{at}/log"))
            house.close()
    for projects in (5, 100):
        with tempfile.TemporaryDirectory() as home:
            house = House(Path(home), projects=projects)
            tell(f"bench, {projects} projects", cost(house, "GET", "/projects"), 8)
            house.close()
    for cloths in (10, 500):
        with tempfile.TemporaryDirectory() as home:
            house = House(Path(home), cloths=cloths)
            tell(f"cupboard, {cloths} cloths", cost(house, "GET", "/cloths"), 6)
            tell(f"cupboard, {cloths} cloths, “silk chest”", cost(house, "GET", "/cloths?words=silk+chest"), 6)
            house.close()


if __name__ == "__main__":
    main()
