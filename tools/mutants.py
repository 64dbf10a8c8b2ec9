"""Changes the rules one at a time and looks whether a test notices: ``make mutants``.

Every module of the core but the engine, and of the operations, is changed in one place: a number by one, a comparison
at its limit, an operator into its opposite, a condition to one side. mutmut's operators make the changes; what a text
says and what a call is given are left out, for pictures and the type checker look at those. The tests that run through
the changed line, found by one run under coverage, are run on the changed module in a process of its own. What no test
notices is listed.

Two changes that nothing could notice are not made: zip's ``strict``, which guards against a length that never differs,
and whether a measured number may lie exactly on the tolerance it is compared with.

mutmut's own runner leaves out constants, properties and everything decorated, where most rules stand; so only its
operators are used. ``--share 0.1`` tries a random tenth, ``--only PART`` the modules whose path has PART in it.
"""

from __future__ import annotations

import argparse
import ast
import importlib
import importlib.abc
import importlib.util
import json
import os
import random
import re
import signal
import subprocess
import sys
import time
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from importlib.machinery import ModuleSpec
from pathlib import Path
from types import ModuleType
from typing import Any

ROOT = Path(__file__).parent.parent
SOURCE = ROOT / "src"
PLACES = ("idle_selvage/core", "idle_selvage/operations")
LEFT_OUT = ("lay/engine/", "__init__.py")
#: What is run under coverage, in two processes: everything but the engine's own tests and what drives whole programs.
TESTS = (
    ["tests/core", "tests/outside", "tests/formats", "--ignore=tests/core/lay/engine"],
    ["tests/operations", "tests/api", "tests/store"],
)
NOT_RUN = (
    "--ignore=tests/outside/test_lays_by_reference.py", "--ignore=tests/outside/test_lays_by_shapely.py",
    "--ignore=tests/api/test_surface.py", "--ignore=tests/api/lay/test_laying.py",
)  # fmt: skip
KEPT = ROOT / ".mutants"
#: Of the tests that run through a line so many are tried, the quickest first, and of all together so many seconds long
#: under coverage, of one with many cases some of them; what takes far longer never ends.
MOST_TESTS, MOST_SECONDS, OF_ONE_SECONDS, NO_END_SECONDS = 60, 150.0, 40.0, 400
#: What is compared with one of these lies on this side or on that.
TOLERANCES = re.compile(r"TOLERANCE|SAME_PLACE|\bNEAR\b|TINY|\b1e-\d")
#: Every constant, and every value that is taken where nothing is said, is typed a second time here.
NUMBERS = ("tests/core/test_numbers.py", "tests/core/test_usual_values.py")


@dataclass(frozen=True)
class Mutant:
    """One change: in which module, at which line, what stood there and what stands there now; from which to which
    character of the module."""

    path: str
    line: int
    was: str
    now: str
    span: tuple[int, int]

    @property
    def module(self) -> str:
        return self.path.removesuffix(".py").replace("/", ".")

    @property
    def source(self) -> str:
        """The changed module whole."""
        text = (SOURCE / self.path).read_text("utf-8")
        return text[: self.span[0]] + self.now + text[self.span[1] :]


def modules(only: str) -> list[str]:
    """The paths of all modules that are changed, below ``src``."""
    found = [str(p.relative_to(SOURCE)) for place in PLACES for p in sorted((SOURCE / place).rglob("*.py"))]
    return [path for path in found if only in path and not any(part in path for part in LEFT_OUT)]


def mutants(path: str) -> list[Mutant]:
    """Every change of one module."""
    import libcst as cst
    from libcst.metadata import ByteSpanPositionProvider, MetadataWrapper
    from mutmut.mutation import mutators as made

    operators: list[tuple[Any, Any]] = [
        (cst.BaseNumber, made.operator_number),
        (cst.Name, made.operator_name),
        (cst.AugAssign, made.operator_augmented_assignment),
        (cst.UnaryOperation, made.operator_remove_unary_ops),
        (cst.CSTNode, made.operator_keywords),
        (cst.CSTNode, made.operator_swap_op),
        (cst.IfExp, made.operator_if_exp),
    ]
    text = (SOURCE / path).read_text("utf-8")
    wrapper = MetadataWrapper(cst.parse_module(text))
    places = wrapper.resolve(ByteSpanPositionProvider)
    whole, raw = wrapper.module, text.encode()
    found: list[Mutant] = []
    at_tolerance: set[int] = set()

    class Look(cst.CSTVisitor):
        def on_visit(self, node: cst.CSTNode) -> bool:
            # a decorator is no rule, and an annotation is the type checker's
            if isinstance(node, cst.Decorator | cst.Annotation | cst.ImportFrom | cst.Import):
                return False
            if isinstance(node, cst.Arg) and node.keyword is not None and node.keyword.value == "strict":
                return False
            if isinstance(node, cst.Comparison) and TOLERANCES.search(whole.code_for_node(node)):
                at_tolerance.update(id(one) for one in node.comparisons)
            if id(node) in at_tolerance:
                return True
            for kind, operator in operators:
                if isinstance(node, kind):
                    span = places[node]
                    start = len(raw[: span.start].decode())
                    was = raw[span.start : span.start + span.length].decode()
                    for new in operator(node):
                        # a node has its parentheses outside its place
                        old, code = (whole.code_for_node(one) for one in (node, new))
                        head, _, tail = old.partition(was)
                        code = code.removeprefix(head).removesuffix(tail)
                        line = text.count("\n", 0, start) + 1
                        found.append(Mutant(path, line, was, code, (start, start + len(was))))
            return True

    wrapper.module.visit(Look())
    return [one for one in found if one.was != one.now]


class Coverage:
    """Which tests run through which line, and how long each takes."""

    def __init__(self) -> None:
        import coverage

        self._data = coverage.CoverageData(str(KEPT / "coverage"))
        self._data.read()
        self.seconds: dict[str, float] = json.loads((KEPT / "seconds.json").read_text())
        #: the cases of each test, the function as coverage knows it
        self._cases: dict[str, list[str]] = {}
        for name in self.seconds:
            self._cases.setdefault(self._known(name), []).append(name)
        rng = random.Random(0)
        for cases in self._cases.values():
            rng.shuffle(cases)

    @staticmethod
    def _known(name: str) -> str:
        """A test as coverage knows it, by its function, from how pytest knows it."""
        path, _, rest = name.partition("::")
        return path.removesuffix(".py").replace("/", ".") + "." + rest.partition("[")[0].replace("::", ".")

    def of(self, mutant: Mutant) -> list[str]:
        """The functions of the tests that may notice a change, the quickest first."""
        lines = self._data.contexts_by_lineno(str(SOURCE / mutant.path))
        found, first = set(lines.get(mutant.line, ())) - {""}, list[str]()
        if not found:
            found, first = self._users(mutant, lines), [*NUMBERS]
        chosen = [self._some(self._cases[one]) for one in found & self._cases.keys()]
        kept, spent = list[str](), 0.0
        for cases in sorted(chosen, key=lambda some: sum(self.seconds[case] for case in some)):
            spent += sum(self.seconds[case] for case in cases)
            if spent > MOST_SECONDS or len(kept) >= MOST_TESTS:
                break
            kept += cases if len(cases) < len(self._cases[self._known(cases[0])]) else [cases[0].partition("[")[0]]
        return first + kept

    def _some(self, cases: list[str]) -> list[str]:
        """As many cases of one test as there is time for, and one at least."""
        kept, spent = cases[:1], self.seconds[cases[0]]
        for case in cases[1:]:
            spent += self.seconds[case]
            if spent > OF_ONE_SECONDS:
                break
            kept.append(case)
        return kept

    def _users(self, mutant: Mutant, lines: dict[int, list[str]]) -> set[str]:
        """A constant is made when its module is read; it is noticed where it is named. What is of a class is noticed
        where the module is run at all."""
        tree = ast.parse((SOURCE / mutant.path).read_text("utf-8"))
        names = {
            target.id
            for one in tree.body
            if one.lineno <= mutant.line <= (one.end_lineno or one.lineno)
            for target in (
                one.targets if isinstance(one, ast.Assign) else [one.target] if isinstance(one, ast.AnnAssign) else []
            )
            if isinstance(target, ast.Name)
        }
        found: set[str] = set()
        if not names:
            return {test for tests in lines.values() for test in tests}
        for path in SOURCE.rglob("*.py"):
            text = path.read_text("utf-8")
            if not any(name in text for name in names):
                continue
            there = self._data.contexts_by_lineno(str(path))
            for node in ast.walk(ast.parse(text)):
                said = node.id if isinstance(node, ast.Name) else node.attr if isinstance(node, ast.Attribute) else None
                if said in names:
                    found |= set(there.get(node.lineno, ()))  # type: ignore[attr-defined]
        return found - {""} or {test for tests in lines.values() for test in tests}


def cover() -> None:
    """Run the tests under coverage once, unless that was done already."""
    if (KEPT / "seconds.json").is_file():
        return
    KEPT.mkdir(exist_ok=True)
    (KEPT / "rc").write_text(
        f"[run]\ndynamic_context = test_function\nsource = {SOURCE}\nparallel = True\ndata_file = {KEPT}/coverage\n"
    )
    said = [KEPT / f"tests-{n}.xml" for n in range(len(TESTS))]
    command = [sys.executable, "-m", "coverage", "run", f"--rcfile={KEPT}/rc", "-m", "pytest", "-p", "no:randomly"]
    running = [
        subprocess.Popen([*command, "--timeout=900", f"--junitxml={xml}", *NOT_RUN, *tests], cwd=ROOT)
        for tests, xml in zip(TESTS, said, strict=True)
    ]
    if any([one.wait() for one in running]):
        raise SystemExit("The tests must pass before anything is changed.")
    subprocess.run([sys.executable, "-m", "coverage", "combine", f"--rcfile={KEPT}/rc"], cwd=ROOT, check=True)
    seconds: dict[str, float] = {}
    from defusedxml.ElementTree import parse

    for xml in said:
        for case in parse(xml).iter("testcase"):
            file = case.get("classname").replace(".", "/") + ".py"
            seconds[f"{file}::{case.get('name')}"] = float(case.get("time"))
    (KEPT / "seconds.json").write_text(json.dumps(seconds))


class _Changed(importlib.abc.MetaPathFinder, importlib.abc.Loader):
    """Gives the changed module when it is asked for."""

    def __init__(self, mutant: Mutant) -> None:
        self.mutant = mutant

    def find_spec(self, name: str, _path: Any, _target: ModuleType | None = None) -> ModuleSpec | None:
        if name != self.mutant.module:
            return None
        return importlib.util.spec_from_loader(name, self, origin=str(SOURCE / self.mutant.path))

    def exec_module(self, module: ModuleType) -> None:
        exec(compile(self.mutant.source, str(SOURCE / self.mutant.path), "exec"), module.__dict__)


def preload() -> None:
    """What every test needs and no change touches."""
    for name in (
        "alembic.command", "flask_openapi3", "hypothesis.strategies", "icalendar", "numba", "PIL.Image", "pytest",
        "ortools.sat.python.cp_model", "scipy.interpolate", "scipy.optimize", "shapely", "sqlalchemy.orm",
        "svgelements", "waitress",
    ):  # fmt: skip
        importlib.import_module(name)


def notice(mutant: Mutant, tests: list[str]) -> bool:
    """Whether one of these tests fails on the changed module; run in this process, which ends after it."""
    import pytest

    assert not any(name.startswith("idle_selvage") for name in sys.modules)
    sys.meta_path.insert(0, _Changed(mutant))
    os.chdir(ROOT)
    null = os.open(os.devnull, os.O_WRONLY)
    os.dup2(null, 1)
    os.dup2(null, 2)
    plain = ["-x", "-q", "-p", "no:cacheprovider", "-p", "no:randomly", "-p", "no:playwright", "-p", "no:xdist"]
    return pytest.main([*plain, "--no-header", "--tb=no", *tests]) != 0


#: These begin in a moment; the others make an application first.
QUICK = ("tests/core", "tests/outside", "tests/formats", "tests/operations")


def tried(mutant: Mutant, tests: list[str]) -> str:
    """What became of a change: noticed, not noticed, or not run by any test."""
    quick = [one for one in tests if one.startswith(QUICK)]
    rest = [one for one in tests if not one.startswith(QUICK)]
    told = "no test"
    for some in (quick, rest):
        if some:
            told = _tried(mutant, some)
        if told == "noticed":
            break
    return told


def _tried(mutant: Mutant, tests: list[str]) -> str:
    child = os.fork()
    if child == 0:
        status = 3
        try:
            os.setsid()
            status = 1 if notice(mutant, tests) else 0
        finally:
            os._exit(status)
    end = time.monotonic() + NO_END_SECONDS
    while time.monotonic() < end:
        ended, status = os.waitpid(child, os.WNOHANG)
        if ended:
            return "survived" if os.waitstatus_to_exitcode(status) == 0 else "noticed"
        time.sleep(0.02)
    os.killpg(child, signal.SIGKILL)
    os.waitpid(child, 0)
    return "noticed"


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("--share", type=float, default=1.0, help="of all changes, this share, chosen at random")
    asked.add_argument("--only", default="", help="only modules with this in their path")
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--jobs", type=int, default=os.cpu_count() or 1)
    asked.add_argument("--list", type=Path, default=KEPT / "survivors.txt", help="where the list is written")
    args = asked.parse_args()
    cover()
    rng = random.Random(args.seed)
    made = [one for path in modules(args.only) for one in mutants(path) if rng.random() < args.share]
    rng.shuffle(made)
    where = Coverage()
    work = [(one, where.of(one)) for one in made]
    preload()
    told: Counter[str] = Counter()
    left: list[str] = []
    with ThreadPoolExecutor(args.jobs) as pool:
        for n, ((mutant, _), became) in enumerate(zip(work, pool.map(lambda one: tried(*one), work), strict=True), 1):
            told[became] += 1
            if became != "noticed":
                left.append(f"{mutant.path}:{mutant.line}: {mutant.was} → {mutant.now} ({became})")
            if n % 25 == 0 or n == len(work):
                print(f"{n} of {len(work)}: {dict(told)}", file=sys.stderr, flush=True)
                args.list.write_text("\n".join(sorted(left)) + "\n")
    print("\n".join(sorted(left)))
    print(f"{len(work)} changes, {len(left)} not noticed: {100 * len(left) / max(1, len(work)):.1f} %")


if __name__ == "__main__":
    main()
