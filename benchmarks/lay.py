"""The lay engine measured: ``make bench-lay`` prints its table of targets and writes chart and baseline.

Ours and the reference (a general strip packer, spyrrow) run one after the other on the same problems, for
equal seconds with equal processes. Every number printed is measured in this run.
"""

from __future__ import annotations

import argparse
import json
import math
import os
import statistics
import subprocess
import sys
import time
from datetime import date
from pathlib import Path
from typing import Any

import numpy as np

from benchmarks import garments, jigsaws
from benchmarks.chart import chart
from idle_selvage.core.lay.answer import to_json
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.engine.solver import Answer, NoFold, solve
from idle_selvage.core.lay.engine.warm import compile_ahead
from idle_selvage.core.lay.hand import held
from idle_selvage.core.lay.moves import Table as HandTable
from idle_selvage.core.lay.problem import allowed_turns
from idle_selvage.core.lay.reading import read_problem
from idle_selvage.core.lay.seats import Grip
from idle_selvage.core.lay.sliding import caught
from idle_selvage.jobs.partner import second_process

HERE = Path(__file__).parent
#: Ways that lay cloth on two layers all along.
FOLDED = ("lengthwise", "partial")
#: Processes the reference may use: as many as ours.
WORKERS = 2


class Table:
    """Rows of what was measured beside its target; kept for the baseline."""

    def __init__(self) -> None:
        self.rows: list[dict[str, Any]] = []
        print(f"{'':<66} {'measured':>12} {'target':>10}")

    def row(self, what: str, value: float, target: float, unit: str = "", *, least: bool = False) -> None:
        good = value >= target if least else value <= target
        sign = "≥" if least else "≤"
        self.rows.append({"what": what, "measured": round(value, 4), "target": target, "unit": unit, "met": good})
        shown = f"{value:.4g} {unit}".strip()
        print(f"{what:<66} {shown:>12} {f'{sign} {target:g}':>10}  {'met' if good else 'MISSED'}", flush=True)


def ours(data: dict[str, Any], seconds: float, seed: int) -> tuple[Answer, int]:
    """Our lay, and how many rules it breaks by the checker."""
    answer = solve(read_problem(data), seed=seed, seconds=seconds, clock=time.perf_counter, partner=second_process)
    return answer, len(check_lay(data, to_json(answer.lay)))


def reference(data: dict[str, Any], seconds: int, seed: int) -> float:
    """The length the reference packer finds for the same pieces, turns and width."""
    import spyrrow

    items: list[Any] = []
    for piece in data["pieces"]:
        turns = [float(t) for t in allowed_turns(piece.get("grain", "lengthwise"), False)]
        copies = int(piece.get("copies", 1))
        outlines = [piece["outline"]]
        if piece.get("pair"):
            outlines.append([[x, -y] for x, y in piece["outline"]])
            copies //= 2
        for outline in outlines:
            ring = [(float(x), float(y)) for x, y in [*outline, outline[0]]]
            items.append(spyrrow.Item(str(len(items)), ring, copies, turns))
    task = spyrrow.StripPackingInstance("lay", data["cloth"]["width"], items)
    config = spyrrow.StripPackingConfig(
        early_termination=False, total_computation_time=seconds, num_workers=WORKERS, seed=seed
    )
    return float(task.solve(config).width)


def geometric(values: list[float]) -> float:
    return math.exp(statistics.mean(math.log(v) for v in values))


def measure_garments(table: Table, kinds: list[str], seeds: list[int], seconds: int) -> dict[str, Any]:
    """Free lays of every kind beside the reference."""
    ratios: dict[str, list[float]] = {k: [] for k in kinds}
    early: list[float] = []
    firsts: list[float] = []
    bounds: list[float] = []
    broken = 0
    for kind in kinds:
        for seed in seeds:
            data = garments.garment(kind, seed)
            answer, faults = ours(data, seconds, seed)
            other = reference(data, seconds, seed)
            at_two = min(p.length for p in answer.progress if p.seconds <= max(2.0, answer.progress[0].seconds))
            ratios[kind].append(answer.lay.length / other)
            early.append(at_two / other)
            firsts.append(answer.progress[0].seconds)
            bounds.append(answer.lay.bound / answer.lay.length)
            broken += faults
        print(
            f"   {kind:<16} {geometric(ratios[kind]):.4f} of the reference, "
            f"{min(ratios[kind]):.4f} to {max(ratios[kind]):.4f}, {garments.copies(data)} pieces",
            flush=True,
        )
    flat = [r for values in ratios.values() for r in values]
    table.row("first checked answer, garments, worst", max(firsts), 0.15, "s")
    print(f"   median {statistics.median(firsts):.3f} s")
    table.row(f"length against the reference, {seconds} s, geometric mean", geometric(flat), 0.985)
    table.row("the worst garment's mean", max(geometric(v) for v in ratios.values()), 0.998)
    table.row(f"length at 2 s against the reference at {seconds} s", geometric(early), 0.995)
    table.row("violations at 0.1 mm", broken, 0)
    table.row("bound against lay, mean", statistics.mean(bounds), 0.88, least=True)
    return {"ratios": ratios, "early": early, "firsts": firsts, "bounds": bounds}


def measure_bars(table: Table, seeds: list[int], seconds: int) -> dict[str, Any]:
    """Garments on stripes and plaids: how near the bound the lays come, and what turning on balanced bars saves."""
    found: dict[str, list[list[float]]] = {}
    broken = 0
    for name, along, across in (("stripes", 90.0, None), ("plaid", 90.0, 70.0)):
        for kind in ("shirt", "gored skirt", "trousers"):
            shown = []
            for seed in seeds:
                lengths = []
                for balanced in (False, True):
                    data = garments.on_bars(kind, seed, along, across, balanced=balanced)
                    answer, faults = ours(data, seconds, seed)
                    broken += faults
                    lengths += [answer.lay.length, answer.lay.bound]
                shown.append(lengths)
            found[f"{name} {kind}"] = shown
            strict, turned = (statistics.mean(one[k + 1] / one[k] for one in shown) for k in (0, 2))
            saved = geometric([one[2] / one[0] for one in shown])
            print(
                f"   {name:<8} {kind:<12} bound {strict:.3f} of the lay, {turned:.3f} where pieces may turn; "
                f"turning {saved:.3f}",
                flush=True,
            )
    plaids = [one[1] / one[0] for name, shown in found.items() if name.startswith("plaid") for one in shown]
    table.row("bound against lay, plaid, tops all one way, mean", statistics.mean(plaids), 0.75, least=True)
    skirts = [one[2] / one[0] for one in found["stripes gored skirt"]]
    table.row("gored skirt in stripes: balanced against not", geometric(skirts), 0.75)
    table.row("violations at 0.1 mm, bars", broken, 0)
    return found


def measure_mixed(table: Table, seeds: list[int], seconds: int) -> dict[str, Any]:
    """Pieces no one fold suits: each way searched alone, so that none takes over what another found."""
    found: dict[str, list[dict[str, Any]]] = {}
    broken = 0
    for size in ("small", "large"):
        shown = []
        for seed in seeds:
            lengths: dict[str, Any] = {}
            for fold in ("open", "lengthwise", "partial", "combination"):
                try:
                    answer, faults = ours(
                        {**garments.mixed(seed, large=size == "large"), "folds": [fold]}, seconds, seed
                    )
                except NoFold:
                    continue
                broken += faults
                lengths[fold] = answer.lay.length
                if fold == "combination":
                    lengths["sections"] = len(answer.lay.sections)
            shown.append(lengths)
        found[size] = shown
        folded = geometric([one["combination"] / min(one.get(f, math.inf) for f in FOLDED) for one in shown])
        opened = geometric([one["combination"] / one["open"] for one in shown])
        two = sum(one["sections"] > 1 for one in shown)
        print(
            f"   {size:<8} combination {folded:.3f} of the best fold, {opened:.3f} of open cloth; "
            f"{two} of {len(shown)} have two sections",
            flush=True,
        )
        table.row(f"mixed pieces, {size}: combination against the best fold", folded, 1.0)
    table.row("violations at 0.1 mm, mixed pieces", broken, 0)
    return found


def measure_jigsaws(table: Table, seeds: list[int], seconds: float) -> dict[str, Any]:
    """Cloths of known length."""
    found: dict[str, dict[str, list[float]]] = {"whole": {}, "kerf": {}}
    broken = 0
    for name, kerf, out in (("whole", 0.0, 0), ("kerf", 1.5, 1)):
        for kind in jigsaws.KINDS:
            shares = []
            for seed in seeds:
                data, length = jigsaws.jigsaw(kind, seed, kerf=kerf, left_out=out)
                answer, faults = ours(data, seconds, seed)
                broken += faults
                shares.append(length / answer.lay.length)
            found[name][kind] = shares
            print(f"   {name:<6} {kind:<18} {statistics.mean(shares):.3f}, least {min(shares):.3f}", flush=True)
    whole = [s for v in found["whole"].values() for s in v]
    table.row("jigsaws that tile, share of the optimum, mean", statistics.mean(whole), 0.99, least=True)
    table.row("jigsaws that tile, share of the optimum, least", min(whole), 0.99, least=True)
    kerfed = [s for v in found["kerf"].values() for s in v]
    table.row("jigsaws with a kerf and a piece left out, mean", statistics.mean(kerfed), 0.9, least=True)
    table.row("violations at 0.1 mm, jigsaws", broken, 0)
    return found


def many(count: int) -> dict[str, Any]:
    """About ``count`` copies of mixed garments on one cloth."""
    pieces: list[dict[str, Any]] = []
    for seed, kind in enumerate(list(garments.KINDS) * 8):
        for piece in garments.garment(kind, seed, width=1480)["pieces"]:
            total = sum(p.get("copies", 1) for p in pieces)
            if total + piece.get("copies", 1) <= count:
                pieces.append({**piece, "id": f"{seed} {piece['id']}"})
    return {"format": garments.FORMAT, "cloth": {"width": 1480.0}, "folds": ["open"], "pieces": pieces}


def measure_growth(table: Table) -> dict[str, Any]:
    """Time to the first answer from 5 to 200 pieces, and where a dragged piece may go among 40."""
    sizes, times = [], []
    for count in (5, 10, 20, 40, 80, 120, 200):
        data = many(count)
        asked = read_problem(data)
        spent = []
        for _ in range(3):
            begun = time.perf_counter()
            solve(asked, steps=0, clock=time.perf_counter)
            spent.append(time.perf_counter() - begun)
        sizes.append(garments.copies(data))
        times.append(statistics.median(spent))
        print(f"   {sizes[-1]:>4} pieces: first answer after {times[-1]:.3f} s", flush=True)
    power = float(np.polyfit(np.log(sizes), np.log(times), 1)[0])
    table.row("growth of the first answer, 5 to 200 pieces: power of n", power, 2.0)
    asked = read_problem(many(40))
    answer = solve(asked, steps=200, clock=time.perf_counter)
    spent = []
    table_ = HandTable(held(answer.lay), asked)
    for one in table_.hand.held:
        begun = time.perf_counter()
        caught(table_.grounds(Grip((one.key,))), one.x + 40.0, one.y, 6.0)
        spent.append((time.perf_counter() - begun) * 1000)
    table.row("where a piece among 40 may lie, first asked, worst", max(spent[1:]), 50, "ms")
    return {"sizes": sizes, "times": times, "drag": spent}


def measure_process(table: Table) -> dict[str, Any]:
    """Memory of one run and the cold start, each in a process of its own."""
    code = (
        "import time, sys, resource; t = time.perf_counter(); sys.path.insert(0, '.')\n"
        "import json; from idle_selvage.core.lay.reading import read_problem\n"
        "from idle_selvage.core.lay.engine.solver import solve\n"
        "from idle_selvage.jobs.partner import second_process\n"
        "asked = read_problem(json.loads(sys.stdin.read()))\n"
        "answer = solve(asked, {budget}, clock=time.perf_counter, partner={partner})\n"
        "first = time.perf_counter() - t if '{budget}' == 'steps=0' else 0\n"
        "mine = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss\n"
        "child = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss\n"
        "print(json.dumps([first, mine / 1024, child / 1024]))\n"
    )

    def run(data: dict[str, Any], budget: str, partner: str) -> list[float]:
        made = subprocess.run(
            [sys.executable, "-c", code.format(budget=budget, partner=partner)],
            input=json.dumps(data),
            capture_output=True,
            text=True,
            check=True,
            cwd=HERE.parent,
        )
        values: list[float] = json.loads(made.stdout)
        return values

    cold = [run(garments.garment("shirt", 7), "steps=0", "None")[0] for _ in range(3)]
    table.row("cold start to the first answer, compiled code cached", statistics.median(cold), 1.3, "s")
    _, mine, child = run(many(40), "seconds=10", "second_process")
    table.row("memory of one run, 40 pieces, the larger process", max(mine, child), 400, "MB")
    return {"cold": cold, "memory": [mine, child]}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seeds", type=int, default=5)
    parser.add_argument("--jigsaw-seeds", type=int, default=3)
    parser.add_argument("--bar-seeds", type=int, default=2)
    parser.add_argument("--seconds", type=int, default=10)
    parser.add_argument("--kinds", default=",".join(garments.KINDS))
    parser.add_argument("--keep", action="store_true", help="write the chart and the dated baseline")
    args = parser.parse_args()
    compile_ahead()
    table = Table()
    measured: dict[str, Any] = {}
    measured["growth"] = measure_growth(table)
    measured["process"] = measure_process(table)
    measured["bars"] = measure_bars(table, list(range(520, 520 + args.bar_seeds)), args.seconds)
    measured["mixed"] = measure_mixed(table, list(range(520, 520 + args.bar_seeds)), args.seconds)
    measured["jigsaws"] = measure_jigsaws(table, list(range(300, 300 + args.jigsaw_seeds)), args.seconds)
    seeds = list(range(500, 500 + args.seeds))
    measured["garments"] = measure_garments(table, args.kinds.split(","), seeds, args.seconds)
    if args.keep:
        baseline = {
            "date": date.today().isoformat(),
            "cores": os.cpu_count(),
            "seconds": args.seconds,
            "seeds": args.seeds,
            "table": table.rows,
            "measured": measured,
        }
        (HERE / f"lay-{date.today().isoformat()}.json").write_text(json.dumps(baseline, indent=1) + "\n")
        (HERE / "lay.svg").write_text(chart(measured))
    missed = [r["what"] for r in table.rows if not r["met"]]
    print(
        f"{len(table.rows) - len(missed)} of {len(table.rows)} targets met"
        + (f"; missed: {'; '.join(missed)}" if missed else "")
    )


if __name__ == "__main__":
    main()
