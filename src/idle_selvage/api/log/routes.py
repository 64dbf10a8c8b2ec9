"""Log: what was done, the newest first; taking it back, and doing it again."""

from __future__ import annotations

from flask import Response

from ...operations import log, undo
from ...operations.project import garment
from ..services import begin, look, send
from ..shared.person import news
from ..shared.schemas import ProjectPath
from . import schemas as out


def read_log(path: ProjectPath) -> Response:
    """Every step of a project so far."""
    with look() as session:
        lines = log.read_log(session, garment(session, path.project_id))
        return send(out.LogOut(entries=[_line(line) for line in lines]))


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
        return send(out.LogOut(entries=[_line(line) for line in log.read_house_log(session)]))


def read_news() -> Response:
    """Whether another window, or work that was begun, has changed anything."""
    return send(out.NewsOut(newest=news.get()))


def read_undo(query: out.UndoQuery) -> Response:
    """What the next undo takes back."""
    with look() as session:
        return send(_undo(undo.deeds(session, query.project)))


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
        return send(_undo(undo.deeds(session, project_id), done))


def _undo(deeds: undo.Deeds, done: undo.Deed | None = None) -> out.UndoOut:
    return out.UndoOut(back=_deed(deeds.back), again=_deed(deeds.again), done=_deed(done))


def _deed(deed: undo.Deed | None) -> out.DeedOut | None:
    return None if deed is None else out.DeedOut(change=deed.change, at=deed.at, what=deed.what)
