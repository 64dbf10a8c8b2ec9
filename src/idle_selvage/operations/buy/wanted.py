"""The lays a part of Buy needs, and of Cut when something went wrong."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy.orm import Session

from ..cut.again import read_again
from ..refused import Refused
from ..standing import Standing
from .cupboard import will_it_do
from .offers import read_offers
from .together import read_together
from .trials import Part, TrialRequest


def extras_wanted(now: Standing) -> list[TrialRequest]:
    """The lays that must be tried to know what each rule of the cloth costs."""
    return [] if now.ladder is None else [TrialRequest(rung.problem) for rung in now.ladder.rungs]


def wanted(session: Session, now: Standing, part: Part, cloth_id: int | None = None) -> Sequence[TrialRequest]:
    """The lays a part needs. Raises :class:`Refused` for the cupboard without a cloth."""
    if part == "extras":
        return extras_wanted(now)
    if part == "offers":
        return read_offers(session, now).wanted
    if part == "together":
        return read_together(session, now).wanted
    if part == "again":
        return read_again(session, now).wanted
    if cloth_id is None:
        raise Refused("Choose a cloth of the cupboard first.", path="cloth_id")
    return will_it_do(session, now, cloth_id).wanted
