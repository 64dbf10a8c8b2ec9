"""Shrink: the swatch, before and after."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import Field

from ..core.shrinkage import BadReadings, Direction, check_readings
from ..core.units import length_text
from ..store import models, records
from . import present
from . import schemas as out
from .context import Refused, begin, send, system
from .entries import LengthIn

blueprint = APIBlueprint("shrink", __name__, url_prefix="/api", abp_responses={422: out.ErrorOut, 404: out.ErrorOut})


class PairIn(out.In):
    before: LengthIn
    after: LengthIn | None = None


class SwatchIn(out.In):
    """A swatch's readings; those after washing may still be missing. What is left out stays."""

    warp: list[PairIn] | None = Field(default=None, max_length=30)
    weft: list[PairIn] | None = Field(default=None, max_length=30)
    graduation: LengthIn | None = None


@blueprint.put("/projects/<int:project_id>/swatch", operation_id="keepSwatch", responses={200: out.ProjectOut})
def keep_swatch(path: out.ProjectPath, body: SwatchIn) -> Response:
    """Keep a swatch's readings."""
    if body.graduation is not None and not 0.1 <= body.graduation <= 20:
        raise Refused("A tape's graduation lies between 0.1 mm and 2 cm; 1 mm or 1/16 in are usual.", path="graduation")
    directions: tuple[Direction, Direction] = ("warp", "weft")
    with begin() as session:
        project = records.project(session, path.project_id)
        row = records.swatch(session, project.cloth_id)
        if row is None:
            row = models.Swatch(
                cloth_id=project.cloth_id, warp=[], weft=[], graduation=records.settings(session).graduation
            )
            session.add(row)
        said = []
        for direction in directions:
            pairs: list[PairIn] | None = getattr(body, direction)
            if pairs is None:
                continue
            _check(pairs, direction)
            setattr(row, direction, [[p.before, p.after] for p in pairs])
            washed = sum(1 for p in pairs if p.after is not None)
            said.append(f"{direction} {len(pairs)} before, {washed} after")
        if body.graduation is not None:
            row.graduation = body.graduation
            said.append(f"tape read to {length_text(body.graduation, system())}")
        row.updated_at = models.now()
        session.flush()
        if said:
            records.log(
                session, project.id, "shrink", f"Swatch readings: {'; '.join(said)}.", warp=row.warp, weft=row.weft
            )
        return send(present.project_out(session, project, system()))


def _check(pairs: list[PairIn], direction: Direction) -> None:
    """Refuse single readings that cannot be, at their own place."""
    for place, pair in enumerate(pairs):
        if pair.after is None:
            continue
        try:
            check_readings([pair.before], [pair.after], direction)
        except BadReadings as fault:
            raise Refused(
                str(fault).replace("Reading 1", f"Reading {place + 1}"), path=f"{direction}.{place}.after"
            ) from None
