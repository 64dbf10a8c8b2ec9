"""Swatches before and after, and how the cloth is treated."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from sqlalchemy.orm import Session

from ..core.shrink.ranges import blend_range
from ..core.shrink.shrinkage import BadReadings, Direction, check_graduation, least_swatch
from ..core.shrink.swatch import (
    BOTH_WAYS,
    MOST_WASHES,
    BadReading,
    Cycle,
    RestVerdict,
    Swatch,
    check_rows,
    cycles,
    in_all,
    odd_reading,
    read_diagonals,
    shape_of,
    too_small,
    trimmed,
    verdict,
)
from ..core.shrink.treatment import SCHOOLS, SWATCH_DRIES, SWATCH_WASHES
from ..core.wording import Sentence, sentence_of
from ..core.working import Figure, about
from ..standins.washer import Appliance, Specimen
from ..store import models
from ..store import swatch as swatches
from ..store.errors import NotFound
from ..store.settings import settings
from .log import note
from .project import change
from .refused import Refused
from .standing import ClothStanding, Cutting, cloth_standing

Rows = Sequence[Sequence[float | None]]


@dataclass(frozen=True)
class Readings:
    """Readings of a swatch as they are told; None leaves what is there. Lengths in mm.

    ``warp`` and ``weft``: a row per marked distance, before and then after each wash, None where not measured.
    """

    warp: Rows | None = None
    weft: Rows | None = None
    diagonals: Sequence[Sequence[float | None] | None] | None = None
    graduation: float | None = None
    #: how it was washed and dried, keys of SWATCH_WASHES and SWATCH_DRIES
    wash: str | None = None
    dry: str | None = None


def keep_reading(
    session: Session, cloth_use: models.ClothUse, given: Readings, by: models.By = "tape", *, sure: bool = True
) -> None:
    """Keep the readings of the swatch of one cloth of a garment. Raises :class:`Refused` for readings that cannot
    be, and, unless ``sure``, for new ones that look like a slip."""
    row = _swatch(session, cloth_use.cloth)
    before = {"warp": row.warp, "weft": row.weft, "wash": row.wash, "dry": row.dry}
    said: list[str] = []
    try:
        if given.graduation is not None:
            check_graduation(given.graduation)
    except BadReadings as fault:
        raise Refused(sentence_of(fault), path="graduation") from None
    told: Mapping[Direction, Rows | None] = {"warp": given.warp, "weft": given.weft}
    for direction in BOTH_WAYS:
        rows = told[direction]
        if rows is None:
            continue
        kept = [trimmed(r) for r in rows]
        try:
            check_rows(kept, direction)
        except BadReading as fault:
            raise Refused(fault.told, path=f"{direction}.{fault.place}.{fault.wash}") from None
        odd = None if sure else odd_reading(_changed_rows(getattr(row, direction), kept))
        if odd is not None:
            raise Refused(odd.told, code="asked", path=f"{direction}.{odd.place}.{odd.wash}")
        row.keep_marks(direction, kept, by)
        washed = max((len(r) for r in kept), default=1) - 1
        said.append(f"{direction} {len(kept)} marked, {washed} {'wash' if washed == 1 else 'washes'}")
    if given.diagonals is not None:
        try:
            row.keep_diagonals(read_diagonals(given.diagonals), by)
        except BadReading as fault:
            raise Refused(fault.told, path=f"diagonals.{fault.place}") from None
        said.append("diagonals")
    if given.graduation is not None:
        row.graduation = given.graduation
        said.append(Sentence("tape read to {graduation}", graduation=about(given.graduation)))
    if given.wash is not None or given.dry is not None:
        _keep_how(row, given.wash, given.dry)
        said.append("how it was washed")
    elif not row.wash and max(len(r) for r in ((), *row.warp, *row.weft)) > 1:
        # nothing was said: it was washed as the length will be
        how = Cutting(cloth_use.project, cloth_use, cloth_standing(session, cloth_use.cloth)).how
        if how is not None:
            swatches.keep_how(row, how)
    _kept(session, row)
    if said:
        after = {"warp": row.warp, "weft": row.weft, "wash": row.wash, "dry": row.dry}
        note(session, cloth_use, "shrink", "swatch-read", before=before, after=after, said=said)


def _changed_rows(before: Rows, after: Rows) -> list[Sequence[float | None]]:
    """The rows as they are now; of those that were not changed only the marked distance."""
    return [row if i >= len(before) or list(before[i]) != list(row) else row[:1] for i, row in enumerate(after)]


def _keep_how(row: models.Swatch, wash: str | None, dry: str | None) -> None:
    """How it was washed, as told; an empty wash: not known any more."""
    for key, told, of in (("wash", wash, SWATCH_WASHES), ("dry", dry, SWATCH_DRIES)):
        if told and told not in of:
            raise Refused(f"It must be one of: {', '.join(of)}.", path=key)
    if wash is not None and wash != row.wash:
        row.wash, row.temperature = wash, None
    if dry is not None:
        row.dry = dry


def _swatch(session: Session, cloth: models.Cloth) -> models.Swatch:
    return swatches.used_swatch(session, cloth.id) or _new_swatch(session, cloth)


def _new_swatch(session: Session, cloth: models.Cloth) -> models.Swatch:
    row = models.Swatch(cloth_id=cloth.id, used=True, simulated=False, graduation=settings(session).graduation)
    session.add(row)
    return row


def _kept(session: Session, row: models.Swatch) -> None:
    row.updated_at = models.now()
    session.flush()


def add_swatch(session: Session, cloth_use: models.ClothUse) -> None:
    """Begin another swatch of a cloth; earlier ones are kept, and one can go back to them."""
    for old in swatches.swatches(session, cloth_use.cloth_id):
        old.used = False
    _kept(session, _new_swatch(session, cloth_use.cloth))
    note(session, cloth_use, "shrink", "swatch-begun")


def use_swatch(session: Session, cloth_use: models.ClothUse, number: int) -> None:
    """Go by another of the cloth's swatches. Raises NotFound."""
    row = swatches.swatch(session, number)
    if row.cloth_id != cloth_use.cloth_id:
        raise NotFound("That swatch is of another cloth.")
    before = swatches.used_swatch(session, row.cloth_id)
    for other in swatches.swatches(session, row.cloth_id):
        other.used = other.id == row.id
    _kept(session, row)
    was = {"swatch": before.id if before else None}
    note(session, cloth_use, "shrink", "swatch-used", before=was, after={"swatch": row.id})


def wash_swatch(session: Session, cloth_use: models.ClothUse, washer: Appliance) -> None:
    """Wash the swatch in a stand-in washer: its readings are made up, and marked so. Raises :class:`Refused`."""
    cloth = cloth_use.cloth
    row = swatches.used_swatch(session, cloth.id)
    if row is None or not row.warp or not row.weft:
        raise Refused("Mark the swatch both ways first, then wash it.", code="not_ready")
    known = cloth_standing(session, cloth)
    done = max(known.test.washes("warp"), known.test.washes("weft"))
    if done >= MOST_WASHES:
        raise Refused(f"At most {MOST_WASHES} washes of one swatch can be kept.", code="not_ready")
    columns = {direction: _column(known.test, direction, done) for direction in BOTH_WAYS}
    programme = Cutting(cloth_use.project, cloth_use, known).advice.programme
    report = washer.wash(
        Specimen(
            kinds=known.treatment_facts.kinds,
            warp=columns["warp"],
            weft=columns["weft"],
            washed=done,
            number=cloth.id,
            depth=cloth.depth,
            finish=cloth.finish,
            graduation=row.graduation,
            diagonals=known.test.diagonals[done] if len(known.test.diagonals) > done else None,
        ),
        programme,
    )
    row.keep_marks("warp", [[*r, v] for r, v in zip(row.warp, report.warp, strict=True)], "made up")
    row.keep_marks("weft", [[*r, v] for r, v in zip(row.weft, report.weft, strict=True)], "made up")
    if report.diagonals is not None:
        row.keep_diagonals([*row.diagonals, list(report.diagonals)], "made up")
    row.simulated = True
    if not row.wash:
        swatches.keep_how(row, programme)
    _kept(session, row)
    note(session, cloth_use, "shrink", "swatch-made-up")


def _column(test: Swatch, direction: Direction, wash: int) -> tuple[float, ...]:
    values = [r[wash] if len(r) > wash else None for r in test.rows(direction)]
    if any(v is None for v in values):
        raise Refused("Some reading after the last wash is missing; give it first.", code="not_ready")
    return tuple(v for v in values if v is not None)


def choose_school(session: Session, cloth_use: models.ClothUse, school: str) -> None:
    """Choose how the cloth is treated before cutting; an empty text goes back to the default. Raises
    :class:`Refused`."""
    if school and school not in SCHOOLS:
        raise Refused(f"It must be one of: {', '.join(SCHOOLS)}.", path="school")
    change(session, cloth_use, {"school": school}, "shrink")


@dataclass(frozen=True)
class SwatchLine:
    """One of a cloth's swatches: what it came to both ways, or what is wrong with it."""

    row: models.Swatch
    washes: int
    warp: Figure | None
    weft: Figure | None
    fault: str = ""


@dataclass(frozen=True)
class SwatchStanding:
    """One cloth's swatch for a garment, and what follows from it. Lengths in mm.

    ``too_small``: the marked distance that would do where the tape alone leaves too much; ``least``: the one at which
    it is fine enough, with so many ``readings``.
    """

    cloth: ClothStanding
    graduation: float
    cycles: tuple[Cycle, ...]
    verdict: RestVerdict
    verdict_told: str
    lines: tuple[SwatchLine, ...]
    least: float
    too_small: float | None
    readings: int

    def shape(self, wash: int) -> tuple[tuple[float, float], ...]:
        """The swatch's true shape after a wash (0: before any)."""
        return shape_of(self.cloth.test, wash)


def read_swatch(session: Session, known: ClothStanding) -> SwatchStanding:
    """One cloth's swatch, and what follows from it."""
    test, row = known.test, known.rows.swatch
    graduation = row.graduation if row else settings(session).graduation
    entry = blend_range(known.make)
    state, said = verdict(test, entry.kind if entry else "")
    readings = max(1, len(test.warp), len(test.weft))
    return SwatchStanding(
        known,
        graduation,
        _cycles(test),
        state,
        said,
        tuple(_line(one) for one in swatches.swatches(session, known.row.id)),
        least_swatch(graduation, readings),
        too_small(test),
        readings,
    )


def _cycles(test: Swatch) -> tuple[Cycle, ...]:
    try:
        return cycles(test)
    except BadReadings:
        return ()


def _line(row: models.Swatch) -> SwatchLine:
    test = swatches.as_swatch(row)
    washes = max(test.washes("warp"), test.washes("weft"))
    try:
        return SwatchLine(row, washes, in_all(test, "warp"), in_all(test, "weft"))
    except BadReadings as fault:
        return SwatchLine(row, washes, None, None, sentence_of(fault))
