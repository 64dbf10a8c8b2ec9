"""The command line: serve, demo, lay, tape, backup, restore, doctor."""

from __future__ import annotations

import argparse
import os
import sys
import time
from pathlib import Path
from typing import NoReturn

from . import __version__
from .cli_files import add_commands
from .compiled import keep_compiled

OK, BAD_INPUT, LEFT_OVER = 0, 2, 3
DEFAULT_PORT = 8077


def home_folder(given: str | None, *, demo: bool = False) -> Path:
    """Where the data live: ``--home``, else IDLE_SELVAGE_HOME, else the user's data folder."""
    from platformdirs import user_data_path

    base = given or os.environ.get("IDLE_SELVAGE_HOME")
    home = Path(base).expanduser() if base else user_data_path("idle-selvage", appauthor=False)
    # the demo keeps apart from a person's own work, so that starting it afresh can never touch that
    return home / "demo" if demo else home


def main(argv: list[str] | None = None) -> int:
    """Entry point of ``idle-selvage``; returns the exit status."""
    args = _parser().parse_args(argv)
    keep_compiled(home_folder(getattr(args, "home", None)))
    try:
        status: int = args.run(args)
    except KeyboardInterrupt:
        status = 130
    except BrokenPipeError:
        status = 1
    return status


def entry() -> NoReturn:
    """For the installed command."""
    sys.exit(main())


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="idle-selvage",
        description="Pre-shrink woven cloth, work out yardage, and plan the lay before cutting.",
    )
    parser.add_argument("--version", action="version", version=f"idle-selvage {__version__}")
    commands = parser.add_subparsers(title="commands", required=True, metavar="COMMAND")

    def add(name: str, text: str) -> argparse.ArgumentParser:
        sub = commands.add_parser(name, help=text, description=text)
        return sub

    def at_home(sub: argparse.ArgumentParser) -> None:
        sub.add_argument(
            "--home", metavar="FOLDER", help="where the data live (default: IDLE_SELVAGE_HOME, or your data folder)"
        )

    for name, text, run in (
        ("serve", "Serve your own projects on this machine.", _serve),
        ("demo", "Serve the demo projects, kept apart from your own.", _demo),
    ):
        sub = add(name, text)
        at_home(sub)
        sub.add_argument(
            "--port",
            type=_port,
            default=DEFAULT_PORT,
            metavar="N",
            help=f"the port on 127.0.0.1 (default {DEFAULT_PORT}; 0: any free one, printed)",
        )
        sub.add_argument(
            "--steps",
            type=_count,
            metavar="N",
            help="how many steps every search takes, instead of its time; the same lay then comes out everywhere",
        )
        sub.add_argument(
            "--no-quiet",
            dest="quiet",
            action="store_false",
            help="do not search on for shorter lays while nobody waits",
        )
        sub.add_argument(
            "--lan",
            action="store_true",
            help="let tablets on the home's network in, each with the pairing code of the first screen; "
            "without it only this machine is answered",
        )
        if name == "demo":
            sub.add_argument("--reset", action="store_true", help="start the demo afresh; changes made to it are lost")
        sub.set_defaults(run=run)
    sub = add(
        "lay",
        "Lay a lay problem from a file, or check a lay of one. Exit status: 0 complete or sound, 3 pieces left over, "
        "2 bad input, 1 a lay that breaks a rule.",
    )
    sub.add_argument("problem", metavar="PROBLEM", type=Path, help="a file in idle-selvage/lay-problem/1")
    sub.add_argument("lay", metavar="LAY", type=Path, nargs="?", help="with --check: a file in idle-selvage/lay/1")
    sub.add_argument("--check", action="store_true", help="lay nothing; say every rule the LAY breaks")
    budget = sub.add_mutually_exclusive_group()
    budget.add_argument("--seconds", type=_positive, default=None, metavar="S", help="how long to search (default 10)")
    budget.add_argument(
        "--steps", type=_count, metavar="N", help="how many steps to search; the same seed then gives the same lay"
    )
    sub.add_argument("--seed", type=_count, default=1, metavar="K", help="which search to make (default 1)")
    sub.add_argument(
        "--workers",
        type=_workers,
        default=2,
        metavar="W",
        help="processes that search at the same time, 1 or 2 (default 2)",
    )
    sub.add_argument("--progress", action="store_true", help="a progress line also where there is no terminal")
    sub.add_argument("--out", type=Path, metavar="LAY", help="where to write the lay (default: standard output)")
    sub.add_argument("--svg", type=Path, metavar="FILE", help="draw the lay at 1:1 as well")
    sub.set_defaults(run=_lay)
    sub = add("tape", "Send a reading to the page that is open, as a digital tape would; its field in focus takes it.")
    at_home(sub)
    sub.add_argument("--demo", action="store_true", help="to the demo's page")
    sub.add_argument("reading", metavar="READING", help="millimetres, such as 248.5, or with a unit, such as 9 3/4 in")
    sub.set_defaults(run=_tape)
    sub = add("backup", "Write a consistent copy of the data, also while they are served.")
    at_home(sub)
    sub.add_argument("--demo", action="store_true", help="of the demo's data")
    sub.add_argument("file", metavar="FILE", type=Path, help="the file to write; it must not exist")
    sub.set_defaults(run=_backup)
    sub = add("restore", "Put a backup in place of the data; what was there is kept beside it.")
    at_home(sub)
    sub.add_argument("--demo", action="store_true", help="of the demo's data")
    sub.add_argument("file", metavar="FILE", type=Path, help="a file written by backup")
    sub.set_defaults(run=_restore)
    sub = add(
        "doctor",
        "Look the data over: whole, the owner's only, copies that can be gone back to. Exit status: 0 all well, "
        "1 something is wrong.",
    )
    at_home(sub)
    sub.add_argument("--demo", action="store_true", help="the demo's data")
    sub.add_argument("--mend", action="store_true", help="mend what can be mended; what is replaced is kept beside it")
    sub.set_defaults(run=_doctor)
    add_commands(add, at_home, lambda args: home_folder(args.home, demo=args.demo))
    return parser


def _port(text: str) -> int:
    number = int(text) if text.isdigit() else -1
    if not 0 <= number <= 65535:
        raise argparse.ArgumentTypeError(f"{text!r} is not a port; give a number from 0 to 65535")
    return number


def _positive(text: str) -> float:
    try:
        number = float(text)
    except ValueError:
        number = -1.0
    if not 0 < number <= 86_400:
        raise argparse.ArgumentTypeError(f"{text!r} is not a time; give seconds, such as 10")
    return number


def _workers(text: str) -> int:
    if text not in ("1", "2"):
        raise argparse.ArgumentTypeError(f"{text!r} is not a number of processes; give 1 or 2")
    return int(text)


def _count(text: str) -> int:
    if not text.isdigit() or int(text) > 2**31:
        raise argparse.ArgumentTypeError(f"{text!r} is not a whole number from 0 up")
    return int(text)


def _say(text: str) -> None:
    print(text, file=sys.stderr, flush=True)


def _serve(args: argparse.Namespace) -> int:
    return _served(args, demo=False)


def _demo(args: argparse.Namespace) -> int:
    return _served(args, demo=True, reset=args.reset)


def _served(args: argparse.Namespace, *, demo: bool, reset: bool = False) -> int:
    from .serving import CannotServe, Served, serve

    quiet = args.quiet and args.steps is None
    asked = Served(home_folder(args.home, demo=demo), args.port, args.steps, quiet, args.lan, demo=demo, reset=reset)
    try:
        serve(asked)
    except CannotServe as fault:
        _say(str(fault))
        return BAD_INPUT
    return OK


def _lay(args: argparse.Namespace) -> int:
    from .core.lay.drawing import draw
    from .core.lay.engine.solver import EngineFault, Progress, solve
    from .core.lay.problem import BadProblem
    from .formats.lay_json import lay_text, read_problem_file
    from .formats.svg_lay import write_svg
    from .jobs.partner import second_process

    if args.check:
        return _check(args)
    if args.lay is not None:
        _say("A LAY is only read with --check; where to write one is said with --out.")
        return BAD_INPUT
    seconds = args.seconds if args.seconds is not None or args.steps is not None else 10.0
    live = sys.stderr.isatty()

    def show(progress: Progress, _answer: object) -> None:
        if live or args.progress:
            print(
                f"{progress.seconds:6.1f} s  {progress.length / 10:.1f} cm {progress.fold}, "
                f"not under {progress.bound / 10:.1f} cm ",
                end="\r" if live else "\n",
                file=sys.stderr,
                flush=True,
            )

    try:
        problem = read_problem_file(args.problem)
        answer = solve(
            problem,
            seed=args.seed,
            seconds=seconds,
            steps=args.steps,
            clock=time.monotonic,
            on_progress=show,
            partner=second_process if args.workers > 1 else None,
        )
    except BadProblem as bad:
        for fault in bad.faults:
            _say(fault)
        return BAD_INPUT
    except EngineFault as fault:
        _say(str(fault))
        return 1
    if live:
        print(file=sys.stderr)
    lay = answer.lay
    try:
        if args.out is None:
            sys.stdout.write(lay_text(lay))
        else:
            args.out.write_text(lay_text(lay), encoding="utf-8")
        if args.svg is not None:
            picture = draw(lay, {p.id: p for p in problem.pieces}, problem.width)
            args.svg.write_text(write_svg(picture, title=args.problem.stem, system="metric"), encoding="utf-8")
    except OSError as error:
        _say(f"“{error.filename}” could not be written: {error.strerror}.")
        return BAD_INPUT
    if lay.complete:
        return OK
    missing = ", ".join(f"{copies} × {piece}" for piece, copies in lay.left_over)
    needed = f" The shortest complete lay found is {lay.needed_length:.0f} mm." if lay.needed_length else ""
    _say(f"Left over: {missing}.{needed}")
    return LEFT_OVER


def _check(args: argparse.Namespace) -> int:
    """The checker alone: every broken rule as a line, or that there is none."""
    from .core.lay.answer import to_json as lay_json
    from .core.lay.check import check_lay
    from .core.lay.problem import BadProblem
    from .core.lay.problem import to_json as problem_json
    from .formats.lay_json import read_lay_file, read_problem_file

    if args.lay is None:
        _say("--check needs the lay as well: idle-selvage lay --check PROBLEM LAY.")
        return BAD_INPUT
    try:
        problem, lay = read_problem_file(args.problem), read_lay_file(args.lay)
    except BadProblem as bad:
        for fault in bad.faults:
            _say(fault)
        return BAD_INPUT
    faults = check_lay(problem_json(problem), lay_json(lay))
    for fault in faults:
        _say(fault)
    if faults:
        return 1
    print(f"Sound: {len(lay.cut)} pieces on {lay.length:.1f} mm.")
    return OK


def _tape(args: argparse.Namespace) -> int:
    import json
    import urllib.error
    import urllib.request

    from .store.lock import served_at
    from .store.page_word import read_word

    home = home_folder(args.home, demo=args.demo)
    address = served_at(home)
    if not address:
        _say("Nothing is being served from this folder, so no page can take the reading. Start it first.")
        return BAD_INPUT
    try:
        value: float | str = float(args.reading)
    except ValueError:
        value = args.reading
    body = json.dumps({"value": value}).encode()
    headers = {"Content-Type": "application/json", "X-Page": read_word(home)}
    request = urllib.request.Request(f"{address}api/tape/readings", body, headers)
    try:
        with urllib.request.urlopen(request, timeout=10) as answer:
            print(json.load(answer)["length"]["text"])
    except urllib.error.HTTPError as refused:
        _say(json.load(refused)["message"])
        return BAD_INPUT
    except OSError:
        _say(f"The server at {address} does not answer.")
        return BAD_INPUT
    return OK


def _backup(args: argparse.Namespace) -> int:
    from .store.copies import BadBackup, backup

    try:
        backup(home_folder(args.home, demo=args.demo), args.file)
    except BadBackup as fault:
        _say(str(fault))
        return BAD_INPUT
    except OSError as error:
        _say(f"“{args.file}” could not be written: {error.strerror}.")
        return BAD_INPUT
    print(f"Copied to {args.file}.")
    return OK


def _restore(args: argparse.Namespace) -> int:
    from .store.copies import BadBackup, restore
    from .store.lock import HomeLock, InUse

    home = home_folder(args.home, demo=args.demo)
    try:
        with HomeLock(home):
            kept = restore(home, args.file)
    except (BadBackup, InUse) as fault:
        _say(str(fault))
        return BAD_INPUT
    except OSError as error:
        _say(f"The data could not be restored: {error.strerror}.")
        return BAD_INPUT
    print("Restored." + (f" What was there is kept as {kept.name}." if kept else ""))
    return OK


def _doctor(args: argparse.Namespace) -> int:
    from .doctor import examine, mended, report
    from .store.copies import BadBackup
    from .store.lock import InUse, served_at

    home = home_folder(args.home, demo=args.demo)
    if not home.is_dir():
        _say(f"There is no folder “{home.name}” yet; it is made when it is first served.")
        return BAD_INPUT
    if args.mend:
        try:
            for line in mended(home):
                print(f"done  {line}")
        except (InUse, BadBackup) as fault:
            _say(str(fault))
            return BAD_INPUT
        except OSError as fault:
            _say(f"It could not be mended: {fault.strerror}.")
            return BAD_INPUT
    where = served_at(home) if os.access(home, os.W_OK) else ""
    if where:
        print(f"note  It is being served at {where}")
    found = examine(home)
    print("\n".join(report(found)))
    return 1 if any(one.level == "bad" for one in found) else OK


if __name__ == "__main__":
    entry()
