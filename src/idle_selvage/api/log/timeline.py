"""The log as a timeline, its file, its notes and photos."""

from __future__ import annotations

import base64
import binascii
from datetime import UTC, timedelta, timezone
from typing import Any

from flask import Response, make_response

from ...formats.csv_list import log_csv
from ...operations import timeline
from ...operations.project import garment
from ...operations.refused import Refused
from ...store import log_entry
from ...store.cloth import cloth
from ..services import begin, look, send
from ..shared.figures import presenter
from ..shared.files import attachment
from . import schemas as out

#: A file of the log has at most so many lines.
MOST_IN_FILE = 100_000


def read_timeline(query: out.TimelineQuery) -> Response:
    """What was done: of a garment, of a cloth, or of everything, the newest first, so far as it is asked for."""
    with look() as session:
        found = timeline.read_timeline(session, _asked(query), _zone(query), presenter().told)
        groups = [[out.ToldOut(**_line(one)) for one in group] for group in found.groups]
        return send(out.TimelineOut(groups=groups, earlier=found.earlier))


def timeline_csv(query: out.TimelineQuery) -> Response:
    """The same lines as a file, RFC 4180; all of them."""
    zone, show = _zone(query), presenter()
    query.before, query.lines = None, MOST_IN_FILE
    with look() as session:
        found = timeline.read_timeline(session, _asked(query), zone, show.told)
        rows = []
        for one in found.lines:
            at = one.line.at.astimezone(zone)
            names = (one.project[1] if one.project else "", one.cloth[1] if one.cloth else "")
            back = "" if one.line.stands else "yes"
            rows.append((f"{at:%Y-%m-%d}", f"{at:%H:%M}", *names, one.line.stage, show.told(one.line.what), back))
    return attachment(log_csv(rows), "text/csv", "log.csv")


def add_note(body: out.NoteIn) -> Response:
    """Write a note of one's own, with a photo if there is one."""
    try:
        photo = None if body.photo is None else base64.b64decode(body.photo, validate=True)
    except (binascii.Error, ValueError):
        raise Refused("This is no picture in base64.", path="photo") from None
    with begin() as session:
        project = None if body.project is None else garment(session, body.project)
        of = None if body.cloth is None else cloth(session, body.cloth)
        timeline.add_note(session, body.text, project=project, cloth=of, photo=photo)
    with look() as session:
        asked = timeline.Asked(body.project, body.cloth, lines=1)
        found = timeline.read_timeline(session, asked, UTC)
        return send(out.ToldOut(**_line(found.lines[0])), 201)


def read_line_photo(path: out.LinePath) -> Response:
    """The photo beside a line."""
    with look() as session:
        answer = make_response(log_entry.photo(session, path.line_id).jpeg)
        answer.headers["Content-Type"] = "image/jpeg"
        return answer


def _asked(query: out.TimelineQuery) -> timeline.Asked:
    stages = () if query.stage is None else (query.stage,)
    return timeline.Asked(
        query.project, query.cloth, stages, query.since, query.until, query.text, query.before, query.lines
    )


def _zone(query: out.TimelineQuery) -> timezone:
    return timezone(timedelta(minutes=query.minutes))


def _line(one: timeline.Told) -> dict[str, Any]:
    line = one.line
    return {
        "id": line.id, "at": line.at, "stage": line.stage, "kind": line.kind, "what": line.what,
        "values": dict(line.values), "before": dict(line.before), "after": dict(line.after), "change": line.change,
        "stands": line.stands, "project_id": one.project[0] if one.project else None,
        "project": one.project[1] if one.project else "", "cloth_id": one.cloth[0] if one.cloth else None,
        "cloth": one.cloth[1] if one.cloth else "", "photo": one.photo,
    }  # fmt: skip
