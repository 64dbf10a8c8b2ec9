"""Log: what was done, the newest first; taking it back, and doing it again."""

from __future__ import annotations

from flask import Response, request

from ...operations import log, undo
from ...operations.project import garment
from ...store.journal import newest
from ..services import begin, look, send, services
from ..shared.person import asked, news
from ..shared.schemas import ProjectPath
from . import schemas as out
from .show import undo_out


def read_log(path: ProjectPath, query: out.LogQuery) -> Response:
    """The steps of a project so far, the newest first, so many at a time."""
    with look() as session:
        found = garment(session, path.project_id)
        # one more, to know whether there are any
        lines = log.read_log(session, found, query.before, query.lines + 1)
        return send(
            out.LogOut(
                entries=[_line(line) for line in lines[: query.lines]],
                total=log.length_of_log(session, found),
                earlier=lines[query.lines - 1].id if len(lines) > query.lines else None,
            )
        )


def _line(line: log.LogLine) -> out.LogLineOut:
    return out.LogLineOut(
        id=line.id,
        at=line.at,
        stage=line.stage,
        kind=line.kind,
        what=line.what,
        values=dict(line.values),
        before=dict(line.before),
        after=dict(line.after),
        change=line.change,
        stands=line.stands,
    )


def read_house_log() -> Response:
    """What was done on the bench and in the cupboard, the newest first."""
    with look() as session:
        lines = [_line(line) for line in log.read_house_log(session)]
        return send(out.LogOut(entries=lines, total=len(lines), earlier=None))


def read_news(query: out.NewsQuery) -> Response:
    """Whether another window, work that was begun, or the tape has something new.

    Waits for it, where the page says how far it has heard.
    """
    gone = request.environ.get("waitress.client_disconnected", lambda: False)
    rung = services().database.bell.wait(query.since, query.wait, gone, besides=asked().window)
    with look() as session:
        news.set(newest(session, besides=asked().window))
    return send(out.NewsOut(newest=news.get(), rung=rung, tape=services().tape.last))


def read_undo(query: out.UndoQuery) -> Response:
    """What the next undo takes back."""
    with look() as session:
        return send(undo_out(undo.deeds(session, query.project)))


def undo_last(query: out.UndoQuery) -> Response:
    """Take back the last thing done."""
    with begin() as session:
        done = undo.undo(session, query.project)
    return _told(query.project, done)


def redo_last(query: out.UndoQuery) -> Response:
    """Do again what was taken back last."""
    with begin() as session:
        done = undo.redo(session, query.project)
    return _told(query.project, done)


def undo_change(path: out.ChangePath, query: out.UndoQuery) -> Response:
    """Take back one change from the log."""
    with begin() as session:
        done = undo.take_back(session, path.change_id)
    return _told(query.project, done)


def _told(project_id: int | None, done: undo.Deed) -> Response:
    with look() as session:
        return send(undo_out(undo.deeds(session, project_id), done))
