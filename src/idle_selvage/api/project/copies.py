"""The daily copies: which there are, going back to one; and what is told of a fault."""

from __future__ import annotations

import platform
import sys
from datetime import datetime

from flask import Response

from ... import __version__
from ...doctor import examine, report
from ...operations.refused import Refused
from ...program_log import read_log
from ...store.copies import BadBackup, copies, go_back
from ..services import send, services
from ..shared.files import attachment
from . import schemas as out

_REPORT = """Idle Selvage {version}, what went wrong

This file holds what is below and nothing else: no name of a garment or a cloth, no measure, no photo.
Read it before you give it away. What you did just before is not in it: write it here.



Program
  Idle Selvage {version}, Python {python}, {system}

The data folder
{doctor}

The log of the program, the newest last
{log}
"""


def read_copies() -> Response:
    """The copies that can be gone back to, the newest first."""
    return send(_copies())


def _copies() -> out.DailyCopiesOut:
    there = [(one, one.why.rstrip("0123456789 ")) for one in copies(services().database.home)]
    return out.DailyCopiesOut(
        copies=[out.DailyCopyOut(name=one.name, day=one.day, why=why, size=one.size) for one, why in there]
    )


def go_back_to(body: out.GoBackIn) -> Response:
    """Put a copy in place of what is there; that is kept as a copy first."""
    try:
        go_back(services().database, body.name, datetime.now())
    except BadBackup as fault:
        raise Refused(str(fault), path="name") from None
    except OSError as fault:
        raise Refused(f"The copy could not be put in place: {fault.strerror}. Nothing was changed.") from None
    return send(_copies())


def read_report() -> Response:
    """What can be told of a fault, as a text a person can read before giving it away."""
    home = services().database.home
    told = _REPORT.format(
        version=__version__,
        python=sys.version.split()[0],
        system=platform.system(),
        doctor="\n".join(f"  {line}" for line in report(examine(home))),
        log="\n".join(f"  {line}" for line in read_log(home)) or "  It is empty.",
    )
    return attachment(told, "text/plain", "what-went-wrong.txt")
