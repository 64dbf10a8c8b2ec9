"""Cloth: what is known of it."""

from __future__ import annotations

from typing import Literal

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field

from ..core.cloth import BadCloth, check_cloth
from ..core.shrinkage import planning_range
from ..store import records
from . import present
from . import schemas as out
from .context import Refused, begin, send, system
from .entries import LengthIn, NumberIn, Text

blueprint = APIBlueprint("cloth", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class BarIn(out.In):
    width: LengthIn
    colour: str = Field(pattern=r"^#[0-9A-Fa-f]{6}$")


class ClothChange(out.In):
    """Any of a cloth's entries; what is left out stays, and null clears what may be unknown."""

    name: Text | None = None
    kind: str | None = None
    width_readings: list[LengthIn] | None = Field(default=None, max_length=20)
    margin_low: LengthIn | None = None
    margin_high: LengthIn | None = None
    in_hand: LengthIn | None = None
    mass: NumberIn | None = None
    price: NumberIn | None = None
    price_unit: Literal["m", "yd"] | None = None
    one_way: bool | None = None
    depth: Literal["light", "medium", "dark"] | None = None
    ground: str | None = Field(default=None, pattern=r"^#[0-9A-Fa-f]{6}$")
    bars_along: list[BarIn] | None = Field(default=None, max_length=60)
    bars_across: list[BarIn] | None = Field(default=None, max_length=60)


_CLEARED = {"in_hand", "mass", "price"}
_NAMES = {
    "name": "name",
    "kind": "fibre",
    "width_readings": "width readings",
    "margin_low": "near selvage",
    "margin_high": "far selvage",
    "in_hand": "length in hand",
    "mass": "weight",
    "price": "price",
    "price_unit": "price",
    "one_way": "direction",
    "depth": "colour depth",
    "ground": "colour",
    "bars_along": "bars",
    "bars_across": "bars",
}


@blueprint.patch("/projects/<int:project_id>/cloth", operation_id="changeCloth", responses={200: out.ProjectOut})
def change_cloth(path: out.ProjectPath, body: ClothChange) -> Response:
    """Change what is known of a project's cloth."""
    given = {
        key: value for key, value in body.model_dump(exclude_unset=True).items() if value is not None or key in _CLEARED
    }
    if given.get("kind") and planning_range(str(given["kind"])) is None:
        raise Refused("That fibre is not in the list; choose the nearest one.", path="kind")
    with begin() as session:
        project = records.project(session, path.project_id)
        row = project.cloth
        bars = dict(row.bars)
        for key, value in given.items():
            if key.startswith("bars_"):
                bars[key.removeprefix("bars_")] = value
            else:
                setattr(row, key, value)
        row.bars = bars if any(bars.values()) else {}
        cloth = records.as_cloth(row)
        if cloth.width_readings:
            try:
                check_cloth(cloth)
            except BadCloth as fault:
                raise Refused(str(fault), path=next(iter(given), "")) from None
        session.flush()
        if given:
            records.log(
                session,
                project.id,
                "cloth",
                "Noted " + ", ".join(dict.fromkeys(_NAMES[k] for k in given)) + ".",
                **{k: v for k, v in given.items() if not k.startswith("bars_")},
            )
        return send(present.project_out(session, project, system()))
