"""Garments: begun, changed, put away and brought back; and the settings of whoever makes them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, cast

from sqlalchemy.orm import Session

from ..core.buy.order import USUAL_ENDS_MM, USUAL_STEP_MM
from ..core.shrink.shrinkage import TAPES_MM, BadReadings, check_graduation
from ..core.shrink.treatment import DRIES, WASHES
from ..core.units import System
from ..core.wording import Sentence, sentence_of
from ..core.working import Quantity, about
from ..store import models, use
from ..store import project as projects
from ..store.settings import settings
from .log import note
from .refused import Refused
from .standing import GarmentStanding, Standing, garment_standing, standings


def create_garment(session: Session, name: str, remark: str = "") -> models.Project:
    """Begin a garment, with a cloth of its own."""
    # priced as the shops of whoever works in these units do
    cloth = models.Cloth(price_unit="yd" if settings(session).system == "imperial" else "m")
    session.add(cloth)
    session.flush()
    row = models.Project(name=name, note=remark)
    row.all_uses.append(models.ClothUse(cloth=cloth, **usual_purchase(session)))
    session.add(row)
    session.flush()
    session.refresh(row)
    note(session, row, "plan", "garment-begun", name=row.name)
    return row


def usual_purchase(session: Session) -> dict[str, float]:
    """What the shop cuts in and what both ends lose until it is said otherwise, mm, in the maker's own units."""
    return {"shop_step": shop_step(session), "ends": USUAL_ENDS_MM[cast(System, settings(session).system)]}


def shop_step(session: Session) -> float:
    """What this person's shop cuts in, mm."""
    row = settings(session)
    return row.shop_step or USUAL_STEP_MM[cast(System, row.system)]


def garment(session: Session, number: int) -> models.Project:
    """A garment by its number. Raises NotFound."""
    return projects.project(session, number)


def cloth_use(session: Session, number: int, use_id: int | None = None) -> models.ClothUse:
    """One of a garment's cloths by the number of its use, the main one when None. Raises NotFound."""
    return use.of_project(garment(session, number), use_id)


def read_garment(session: Session, number: int, use_id: int | None = None) -> Standing:
    """How a garment stands, seen through one of its cloths, the main one when None. Raises NotFound."""
    row = garment(session, number)
    return garment_standing(session, row).of(use.of_project(row, use_id).id)


def list_garments(session: Session) -> list[GarmentStanding]:
    """How every garment stands, the newest first."""
    return standings(session, projects.projects(session))


def change(session: Session, row: models.Project | models.ClothUse, given: Mapping[str, Any], stage: str) -> None:
    """Set entries of a garment or of one of its cloths, and write into the log which they were and became."""
    before = {key: getattr(row, key) for key in given}
    for key, value in given.items():
        setattr(row, key, value)
    if given:
        session.flush()
        note(session, row, stage, "changed", before=before, after=given, entries=list(given))


def change_garment(session: Session, row: models.Project, given: Mapping[str, Any]) -> None:
    """Change a garment's name, note or care. Raises :class:`Refused`."""
    for key, table, what in (("wash", WASHES, "Washing"), ("dry", DRIES, "Drying")):
        if key in given and given[key] not in table:
            raise Refused(f"{what} must be one of: {', '.join(table)}.", path=key)
    change(session, row, given, "plan")


def set_aside(session: Session, row: models.Project, told: str, why: str) -> None:
    """Set a warning aside as it is told, or, without a reason, look at it again."""
    known = next((one for one in row.asides if one.told == told), None)
    if why and known is None:
        row.asides.append(models.Aside(told=told, why=why))
        note(session, row, "plan", "set-aside", told=told, why=why)
    elif why and known is not None and known.why != why:
        known.why = why
        note(session, row, "plan", "set-aside", told=told, why=why)
    elif not why and known is not None:
        row.asides.remove(known)
        note(session, row, "plan", "look-again", told=told)
    session.flush()


def put_away(session: Session, row: models.Project) -> None:
    """Put a garment away. It can be brought back."""
    row.deleted_at = models.now()
    note(session, row, "plan", "garment-away", name=row.name)
    session.flush()


def bring_back(session: Session, number: int) -> models.Project:
    """Bring back a garment that was put away. Raises NotFound."""
    row = projects.project(session, number, deleted=True)
    if row.deleted_at is not None:
        row.deleted_at = None
        note(session, row, "plan", "garment-back", name=row.name)
        session.flush()
    return row


@dataclass(frozen=True)
class SettingsGiven:
    """What is told of how this person measures and buys; None leaves what is there. Lengths in mm."""

    system: str | None = None
    graduation: float | None = None
    shop_step: float | None = None
    currency: str | None = None
    asked: bool | None = None


def change_settings(session: Session, given: SettingsGiven) -> models.Settings:
    """Change the units, what the tape is read to, what the shop cuts in, how money is written. What garments have of it
    as usual follows; what was chosen for one of them stays. Raises :class:`Refused`."""
    row = settings(session)
    before = shop_step(session)
    if given.graduation is not None:
        try:
            check_graduation(given.graduation)
        except BadReadings as fault:
            raise Refused(sentence_of(fault), path="graduation") from None
        row.graduation = given.graduation
    if given.system is not None and given.system != row.system:
        row.system = given.system
        if given.graduation is None and row.graduation in TAPES_MM.values():
            # a tape in the other unit, unless this person's is a finer or a coarser one
            row.graduation = TAPES_MM[given.system]
    if given.shop_step is not None:
        if not LEAST_STEP_MM <= given.shop_step <= MOST_STEP_MM:
            told = Sentence("A shop cuts in steps from {least} to {most}.", **_steps_told())
            raise Refused(told, path="shop_step")
        row.shop_step = given.shop_step
        _follow_step(session, before, given.shop_step)
    if given.currency is not None and len(given.currency) > MOST_CURRENCY:
        raise Refused(f"Use at most {MOST_CURRENCY} letters, such as €, £ or CHF.", path="currency")
    if given.currency is not None:
        row.currency = given.currency
    if given.asked is not None:
        row.asked = given.asked
    session.flush()
    return row


#: So many letters stand behind money at most.
MOST_CURRENCY = 8
#: What a shop may cut in, mm. From memory.
LEAST_STEP_MM, MOST_STEP_MM = 1.0, 5000.0


def _steps_told() -> dict[str, Quantity]:
    return {"least": about(LEAST_STEP_MM), "most": about(MOST_STEP_MM)}


def _follow_step(session: Session, before: float, now: float) -> None:
    for row in projects.projects(session):
        for one in row.uses:
            if abs(one.shop_step - before) < SAME_STEP_MM:
                one.shop_step = now


#: Steps nearer than this are the same, mm.
SAME_STEP_MM = 0.01
