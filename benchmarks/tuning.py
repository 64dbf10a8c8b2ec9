"""Two states of the engine beside each other, on garments that the judging bench does not use.

``python -m benchmarks.tuning --out now.json`` lays every kind with several seeds for equal CPU seconds of one process;
``--against before.json`` then tells the lengths as shares of what another state got. Garments here are drafted with
the seeds in :data:`DRAFTS`; ``make bench-lay`` judges by others.
"""

from __future__ import annotations

import argparse
import json
import math
import statistics
import time
from pathlib import Path

from benchmarks import garments
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.reading import read_problem

#: The garments that changes are tried on (the judging bench drafts from 500 on), and the seeds each is laid with.
DRAFTS, SEEDS = (901, 902), (1, 2, 3)
KINDS = ("shirt", "coat", "quilt", "child's dress")
#: What counts as early, CPU seconds.
EARLY = 1.5


def measured(kinds: list[str], seconds: float) -> dict[str, list[float]]:
    """Per garment and seed: the length, the length early on, and the steps."""
    found: dict[str, list[float]] = {}
    for kind in kinds:
        for draft in DRAFTS:
            problem = read_problem(garments.garment(kind, draft))
            # nothing is compiled, and nothing read from the cache, on the clock
            solve(problem, seed=1, steps=300, clock=time.process_time)
            for seed in SEEDS:
                answer = solve(problem, seed=seed, seconds=seconds, clock=time.process_time)
                early = min(p.length for p in answer.progress if p.seconds <= max(EARLY, answer.progress[0].seconds))
                found[f"{kind} {draft} {seed}"] = [answer.lay.length, early, answer.lay.steps]
                print(f"{kind:<16} {draft} {seed}  {answer.lay.length:9.1f} mm  {answer.lay.steps} steps", flush=True)
    return found


def tell(now: dict[str, list[float]], before: dict[str, list[float]]) -> None:
    """Shares of what was got before: geometric means, and how far one garment's may be off by chance."""
    for what, column in (("length", 0), ("early", 1), ("steps", 2)):
        logs = {name: math.log(now[name][column] / before[name][column]) for name in now if name in before}
        kinds = {name.rsplit(" ", 2)[0] for name in logs}
        each = {k: math.exp(statistics.mean(v for n, v in logs.items() if n.startswith(k + " "))) for k in kinds}
        spread = statistics.stdev(logs.values()) / math.sqrt(len(logs))
        mean = math.exp(statistics.mean(logs.values()))
        parts = ", ".join(f"{k} {v:.4f}" for k, v in sorted(each.items()))
        print(f"{what:<7} {mean:.4f} ± {spread:.4f} of before ({parts})")


def main() -> None:
    ask = argparse.ArgumentParser(description=__doc__)
    ask.add_argument("--seconds", type=float, default=4.0, help="CPU seconds for each lay")
    ask.add_argument("--kinds", nargs="*", default=list(KINDS))
    ask.add_argument("--out", type=Path)
    ask.add_argument("--against", type=Path)
    asked = ask.parse_args()
    found = measured(asked.kinds, asked.seconds)
    if asked.out:
        asked.out.write_text(json.dumps(found, indent=1))
    if asked.against:
        tell(found, json.loads(asked.against.read_text()))


if __name__ == "__main__":
    main()
