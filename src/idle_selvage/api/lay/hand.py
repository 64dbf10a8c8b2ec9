"""Laying by hand: where what is held may lie, and every gesture."""

from __future__ import annotations

import json
from collections.abc import Callable

from flask import Response
from sqlalchemy.orm import Session

from ...core.lay import lattice, moves
from ...core.lay.hand import Change
from ...core.lay.moves import Table
from ...operations import by_hand, lay
from ...operations.by_hand import Held
from ...operations.project import cloth_use, read_garment
from ...operations.refused import Refused
from ...store import models
from ..services import begin, look, send, submit
from ..shared.figures import presenter, rounded
from ..shared.schemas import UseQuery
from . import schemas as out
from .show import compare_out, job_out, lay_out, light_out, near_out


def near_place(path: out.ProjectPath, query: out.NearQuery) -> Response:
    """The nearest place at which what is held may lie."""
    with look() as session:
        use = cloth_use(session, path.project_id, query.use)
        found = by_hand.near(session, use, query.lay_id, _held(query), (query.x, query.y), query.within)
        return send(near_out(found))


def light_ground(path: out.ProjectPath, query: out.HeldQuery) -> Response:
    """The ground that what is held can cover."""
    with look() as session:
        use = cloth_use(session, path.project_id, query.use)
        return send(light_out(by_hand.light(session, use, query.lay_id, _held(query))))


def agreeing_places(path: out.ProjectPath, query: out.HeldQuery) -> Response:
    """The places at which the bars of what is held agree with those they are to meet."""
    with look() as session:
        use = cloth_use(session, path.project_id, query.use)
        found = by_hand.agreeing(session, use, query.lay_id, _held(query))
        show = presenter()
        return send(
            out.AgreeingOut(
                places=rounded(found.places, 3),
                along=show.maybe(found.along),
                across=show.maybe(found.across),
                group=list(found.group),
            )
        )


def _held(query: out.HeldQuery) -> Held:
    return Held(tuple(query.keys), query.piece, query.mirrored, query.loose)


def lay_by_hand(path: out.LayPath, query: UseQuery, body: out.HandIn) -> Response:
    """Do one gesture on a lay; one that was found becomes the maker's own by it."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        _do(session, use, path.lay_id, body)
        now = read_garment(session, path.project_id, query.use)
        found = lay.read_lay(session, now)
        shown = None if found is None else lay_out(presenter(), now, found)
        return send(out.MaybeLayOut(lay=shown, missing=""))


def close_up(path: out.LayPath, query: UseQuery, body: out.ClosingIn) -> Response:
    """Search on from a lay: locked pieces stay, the rest moves along only, or anywhere; or only broken ones anew."""
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        search = lay.Search(body.seconds, body.seed)
        answer = job_out(presenter(), lay.begin_closing(session, use, path.lay_id, body.how, search))
    submit(answer.id)
    return send(answer, 202)


def compare_lays(path: out.ProjectPath, query: UseQuery) -> Response:
    """Every lay there is, side by side."""
    with look() as session:
        now = read_garment(session, path.project_id, query.use)
        return send(compare_out(presenter(), lay.compare(session, now)))


def take_in(path: out.ProjectPath, query: UseQuery, body: out.TakenIn) -> Response:
    """Take in a lay from outside, for the pieces there are."""
    try:
        data = json.loads(body.text)
    except (ValueError, RecursionError):
        raise Refused("That is no JSON, so it is no lay.", path="text") from None
    with begin() as session:
        use = cloth_use(session, path.project_id, query.use)
        lay.take_in(session, use, data)
        now = read_garment(session, path.project_id, query.use)
        found = lay.read_lay(session, now)
        shown = None if found is None else lay_out(presenter(), now, found)
        return send(out.MaybeLayOut(lay=shown, missing=""))


def _do(session: Session, use: models.ClothUse, number: int, body: out.HandIn) -> None:
    if body.do == "move":
        held = Held(tuple(body.keys), body.piece, body.mirrored, body.loose)
        by_hand.move(session, use, number, held, (body.x, body.y), body.section)
    elif body.do in ("accept", "refuse"):
        by_hand.accept(session, use, number, body.sign, body.do == "accept")
    elif body.do == "rename":
        by_hand.rename(session, use, number, body.name)
    elif body.do == "away":
        by_hand.put_away(session, use, number)
    elif body.do == "empty":
        by_hand.begin_empty(session, use, number)
    else:
        by_hand.change(session, use, number, _gesture(body))


def _gesture(body: out.HandIn) -> Callable[[Table], Change]:
    keys = tuple(body.keys)
    first = keys[0] if keys else ""
    gestures: dict[str, Callable[[Table], Change]] = {
        "nudge": lambda t: moves.nudged(t, keys, body.x, body.y, loose=body.loose),
        "step": lambda t: lattice.stepped(t, keys, round(body.x), round(body.y), loose=body.loose),
        "turn": lambda t: moves.posed(t, first, by=body.by, loose=body.loose),
        "over": lambda t: moves.posed(t, first, over=True, loose=body.loose),
        "aside": lambda t: moves.put_aside(t, keys),
        "take": lambda t: moves.taken_anywhere(t, body.piece),
        # pressed twice in a hurry it is locked and free again, whatever the page still showed
        "lock": lambda t: moves.locked(t, keys),
        "lock-all": lambda t: moves.locked(t, [one.key for one in t.hand.held], True),
        "one-layer": lambda t: moves.in_one_layer(t, first),
        "two-layers": lambda t: moves.on_two_layers(t, first),
        "grain": lambda t: moves.with_grain(t, body.piece, body.grain, body.why),
        "push": lambda t: moves.pushed(t),
        "stretch": lambda t: moves.with_stretch(t, body.fold, body.depth),
        "no-stretch": lambda t: moves.without_stretch(t),
    }
    return gestures[body.do]
