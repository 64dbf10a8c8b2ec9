"""The commands that read and write files: import, export, convert, check.

Exit status of all four: 0 all of it; 1 something was not understood, or left out; 2 bad input, nothing was done. With
``--json`` what is told on standard output is one JSON object, for other programs.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from sqlalchemy.orm import Session

    from .formats.audit import Mended, NotRead
    from .formats.reading import Taken, Wishes

OK, PART, BAD_INPUT = 0, 1, 2
_STATUS = "Exit status: 0 all of it, 1 something not understood or left out, 2 bad input."


class _Bad(Exception):
    """What was asked cannot be done; the message is a sentence."""


def add_commands(
    add: Callable[[str, str], argparse.ArgumentParser],
    at_home: Callable[[argparse.ArgumentParser], None],
    home_of: Callable[[argparse.Namespace], Path],
) -> None:
    """Add the four commands to a parser."""

    def common(sub: argparse.ArgumentParser, *, home: bool) -> None:
        sub.add_argument("--json", action="store_true", help="tell what came of it as JSON")
        if home:
            at_home(sub)
            sub.add_argument("--demo", action="store_true", help="the demo's data")
            sub.set_defaults(home_of=home_of)

    def open_(sub: argparse.ArgumentParser) -> None:
        sub.add_argument("--unit", choices=["mm", "cm", "in", "pt", "px"], help="what a length of one is in the file")
        sub.add_argument("--line", action="append", default=[], metavar="STYLE",
                         help="of a PDF only lines like this: '#ff0000 dashed' (may be given again)")  # fmt: skip
        sub.add_argument("--columns", type=int, metavar="N", help="so many pages of a PDF stand in a row")

    sub = add("import", f"Take an archive in, or pieces into a garment, also while the data are served. {_STATUS}")
    sub.add_argument("file", metavar="FILE", type=Path)
    sub.add_argument("--into", type=int, metavar="N", help="the number of the garment that pieces are for")
    sub.add_argument("--cloths", choices=["ask", "same", "another"], default="ask",
                     help="of a cloth that is here already: it is the same one, or another")  # fmt: skip
    sub.add_argument("--twice", choices=["ask", "instead", "beside"], default="ask",
                     help="a piece whose name is there already: refused, drawn anew, or put beside it")  # fmt: skip
    sub.add_argument("--what-can-be", action="store_true", help="of a broken archive, what can be read")
    open_(sub)
    common(sub, home=True)
    sub.set_defaults(run=_told(_import))
    sub = add("export", f"Write an archive (.zip), or the pieces of a garment (.svg .dxf .pdf .csv .json). {_STATUS}")
    sub.add_argument("out", metavar="OUT", type=Path, help="the file to write; it must not exist")
    one = sub.add_mutually_exclusive_group()
    one.add_argument("--garment", type=int, metavar="N", help="only this garment, by its number")
    one.add_argument("--cloth", type=int, metavar="N", help="only this cloth, by its number")
    common(sub, home=True)
    sub.set_defaults(run=_told(_export))
    sub = add("convert", f"Pieces from one format into another, by the files' endings. {_STATUS}")
    sub.add_argument("file", metavar="IN", type=Path)
    sub.add_argument("out", metavar="OUT", type=Path, help="the file to write; it must not exist")
    sub.add_argument("--paper", choices=["a4", "a3", "letter"], default="a4", help="for PDF")
    sub.add_argument("--width", type=float, default=1400.0, metavar="MM", help="of the cloth, for a lay problem")
    open_(sub)
    common(sub, home=False)
    sub.set_defaults(run=_told(_convert))
    sub = add("check", f"Say what is understood of a file of pieces, or of an archive; nothing is kept. {_STATUS}")
    sub.add_argument("file", metavar="FILE", type=Path)
    open_(sub)
    common(sub, home=False)
    sub.set_defaults(run=_told(_check))


def _told(run: Callable[[argparse.Namespace], tuple[dict[str, Any], int]]) -> Callable[[argparse.Namespace], int]:
    """A command that tells what came of it, in words or as JSON."""

    def command(args: argparse.Namespace) -> int:
        try:
            told, status = run(args)
        except _Bad as fault:
            told, status = {"error": str(fault)}, BAD_INPUT
        if args.json:
            print(json.dumps(told, ensure_ascii=False))
        else:
            for line in _lines(told):
                print(line, file=sys.stderr if status == BAD_INPUT else sys.stdout)
        return status

    return command


def _lines(told: dict[str, Any]) -> Iterator[str]:
    if "error" in told:
        yield told["error"]
    if "format" in told:
        yield f"{told['format']}"
    for piece in told.get("pieces", []):
        yield f"{piece['name']}: {piece['how']}, {piece['long_mm']:g} × {piece['wide_mm']:g} mm"
    for key, name in (("garments", "garment"), ("cloths", "cloth")):
        for one in told.get(key, []):
            yield f"{name} {one['id']}: {one['name']}"
    if told.get("settings"):
        yield "units, what the shop cuts in and the hours of the day: as there"
    if "written" in told:
        yield f"Written: {told['written']}"
    for one in told.get("assumed", []):
        yield f"assumed: {one}"
    for one in told.get("not_read", []):
        yield f"not understood: {one}"
    for one in told.get("left_out", []):
        yield f"left out: {one}"


def _bytes(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except FileNotFoundError:
        raise _Bad(f"There is no file “{path.name}” there.") from None
    except IsADirectoryError:
        raise _Bad(f"“{path.name}” is a folder, not a file.") from None
    except OSError as error:
        raise _Bad(f"“{path.name}” could not be read: {error.strerror}.") from None


def _write(path: Path, data: bytes) -> None:
    try:
        with path.open("xb") as file:
            file.write(data)
    except FileExistsError:
        raise _Bad(f"“{path.name}” is there already, and is not overwritten.") from None
    except OSError as error:
        raise _Bad(f"“{path.name}” could not be written: {error.strerror}.") from None


def _wishes(args: argparse.Namespace) -> Wishes:
    from .formats.reading import Wishes

    return Wishes(args.unit, tuple(args.line), args.columns)


def _read(args: argparse.Namespace) -> Taken:
    from .formats.audit import Unreadable
    from .jobs.apart import Apart

    try:
        return Apart().take_in(_bytes(args.file), args.file.name, _wishes(args))
    except Unreadable as fault:
        raise _Bad(str(fault)) from None


def _remarks(not_read: Sequence[NotRead], mended: Sequence[Mended]) -> dict[str, list[str]]:
    return {
        "not_read": [f"{one.place}: {one.why}" for one in not_read],
        "assumed": [f"{one.place}: {one.how}" for one in mended],
    }


def _of_pieces(taken: Taken) -> dict[str, Any]:
    from .core.plan.allowance import cut_line
    from .core.plan.piece import how_cut
    from .formats.reading import FORMATS

    pieces = []
    for read in taken.pieces:
        ring = cut_line(read.piece)
        xs, ys = [x for x, _ in ring], [y for _, y in ring]
        pieces.append({
            "name": read.name, "copies": read.how.copies, "pair": read.how.pair, "on_fold": read.how.on_fold,
            "grain": read.how.grain, "sizes": [one.size for one in read.sizes], "how": how_cut(read.piece),
            "long_mm": round(max(xs) - min(xs), 2), "wide_mm": round(max(ys) - min(ys), 2),
        })  # fmt: skip
    choices = taken.choices
    return {
        "format": FORMATS[taken.format],
        "unit": choices.unit,
        "lines": [{"style": name, "outlines": count} for name, count in choices.styles],
        "pieces": pieces,
        **_remarks(taken.not_read, taken.mended),
    }


def _check(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    data = _bytes(args.file)
    if data.startswith(b"PK\x03\x04"):
        return _check_archive(data)
    taken = _read(args)
    return _of_pieces(taken), PART if taken.not_read else OK


def _check_archive(data: bytes) -> tuple[dict[str, Any], int]:
    from .formats.archive import BadArchive, read_archive
    from .operations.archive import looked_into
    from .operations.refused import Refused

    try:
        found = read_archive(data)
        tables, faults = looked_into(found.document)
    except (BadArchive, Refused) as fault:
        raise _Bad(str(fault)) from None
    told = {
        "format": "archive",
        "garments": [{"id": row.get("id"), "name": row.get("name")} for row in tables.get("project", [])],
        "cloths": [{"id": row.get("id"), "name": row.get("name")} for row in tables.get("cloth", [])],
        "not_read": faults,
    }
    return told, PART if faults else OK


def _convert(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from .core.plan.outline import BadPiece
    from .core.plan.tiles import TooManyPages
    from .formats.writing import MEDIA, write

    kind = args.out.suffix.lower().removeprefix(".")
    if kind not in MEDIA:
        raise _Bad(f"“{args.out.name}” says no format that is written; these are: {', '.join(f'.{k}' for k in MEDIA)}.")
    if not 100 <= args.width <= 10_000:
        raise _Bad("The cloth's width is from 100 to 10000 mm.")
    taken = _read(args)
    if not taken.pieces:
        raise _Bad(f"No piece of “{args.file.name}” could be understood.")
    try:
        data = write(taken.pieces, kind, title=args.file.stem, paper=args.paper, width=args.width)
    except (BadPiece, TooManyPages) as fault:
        raise _Bad(str(fault)) from None
    _write(args.out, data)
    return {**_of_pieces(taken), "written": args.out.name}, PART if taken.not_read else OK


@contextmanager
def _session(args: argparse.Namespace, *, writing: bool) -> Iterator[Session]:
    from .operations.refused import Refused
    from .store.data_file import FILE_NAME, BadData
    from .store.database import Database
    from .store.errors import NotFound

    home = args.home_of(args)
    if not (home / FILE_NAME).is_file() and not writing:
        raise _Bad("There are no data in this folder yet.")
    database = Database(home)
    try:
        database.migrate()
        with database.begin() if writing else database.look() as session:
            yield session
    except (Refused, BadData) as fault:
        raise _Bad(str(fault)) from None
    except NotFound as fault:
        raise _Bad(str(fault)) from None
    finally:
        database.close()


def _import(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    data = _bytes(args.file)
    if data.startswith(b"PK\x03\x04"):
        from .operations import archive

        with _session(args, writing=True) as session:
            came = archive.take_in(session, data, cloths=args.cloths, what_can_be=args.what_can_be)
        told: dict[str, Any] = {
            "format": "archive",
            "garments": [{"id": number, "name": name} for number, name in came.projects],
            "cloths": [{"id": number, "name": name} for number, name in came.cloths],
            "left_out": list(came.left_out),
            "settings": came.settings,
        }
        return told, PART if came.left_out else OK
    if args.into is None:
        raise _Bad("Say which garment the pieces are for: --into N. Its number stands in the address of its page.")
    from .operations import taking_in
    from .operations.project import garment

    taken = _read(args)
    with _session(args, writing=True) as session:
        project = garment(session, args.into)
        confirmed = [
            taking_in.Confirmed(k, read.name, read.how.copies, read.how.pair, read.how.grain, read.how.one_way,
                                read.how.seam)
            for k, read in enumerate(taken.pieces)
        ]  # fmt: skip
        taking_in.keep_taken(session, project, taken, args.file.name, confirmed, args.twice)
    return _of_pieces(taken), PART if taken.not_read else OK


def _export(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from .formats.writing import MEDIA
    from .operations import archive, taking_in
    from .operations.project import read_garment
    from .store.models import now

    kind = args.out.suffix.lower().removeprefix(".")
    with _session(args, writing=False) as session:
        if kind == "zip":
            data, _ = archive.write(session, now(), project=args.garment, cloth=args.cloth)
        elif kind in MEDIA and args.garment is not None:
            data = taking_in.write_pieces(read_garment(session, args.garment), kind)
        elif kind in MEDIA:
            raise _Bad("Say whose pieces: --garment N. Its number stands in the address of its page.")
        else:
            known = ", ".join(f".{k}" for k in ("zip", *MEDIA))
            raise _Bad(f"“{args.out.name}” says no format that is written; these are: {known}.")
    _write(args.out, data)
    return {"written": args.out.name, "bytes": len(data)}, OK
