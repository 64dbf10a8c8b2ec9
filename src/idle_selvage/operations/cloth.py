"""Cloths: what is known of them, the cupboard, their washes and photos, and which of them a garment is made of."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from ..core.cloth import hand
from ..core.cloth.direction import CLOTH_DIRECTIONS, PILE_RUNS, wale_class
from ..core.cloth.make import COLOURINGS, FIBRES, FINISHES, WEAVES, blend_text
from ..core.cloth.width import BadCloth, check_cloth, check_place
from ..core.shrink.ranges import like_key
from ..core.shrink.together import ROLES
from ..core.shrink.treatment import programme_text
from ..core.wording import sentence_of
from ..formats.photo import BadPhoto, read_photo
from ..standins.washer import Appliance, Specimen
from ..store import cloth as cloths
from ..store import models, photo
from ..store import project as projects
from ..store import wash as washes
from .log import note, note_cloth
from .refused import Refused
from .standing import ClothStanding, cloth_standing, cloth_standings

#: What may be unknown again.
CLEARED = {"in_hand", "mass", "price", "wales", "rub_grade", "shop_fold"}
_TABLES: dict[str, Mapping[str, Any]] = {
    "weave": WEAVES,
    "finish": FINISHES,
    "colouring": COLOURINGS,
    "direction": CLOTH_DIRECTIONS,
    "pile": PILE_RUNS,
}
_NAMES = {
    "name": "name",
    "blend": "fibres",
    "weave": "weave",
    "finish": "finish",
    "colouring": "colouring",
    "width_readings": "width readings",
    "margin_low": "near selvage",
    "margin_high": "far selvage",
    "in_hand": "length in hand",
    "mass": "weight",
    "price": "price",
    "price_unit": "price",
    "direction": "direction",
    "pile": "the way the pile runs",
    "pile_why": "the way the pile runs",
    "wales": "wales",
    "face": "face",
    "face_mark": "how the face is marked",
    "reversible": "whether both sides may show",
    "depth": "colour depth",
    "rub_grade": "rub test",
    "ground": "colour",
    "bars_along": "bars",
    "bars_across": "bars",
    "flaws": "flaws",
    "shop_fold": "the faded shop fold",
    "answers": "judgements by hand",
    "style_number": "style number",
    "place": "where it is kept",
    "treated": "that it was measured after pre-treatment",
}


def change_cloth(session: Session, row: models.Cloth, given: Mapping[str, Any]) -> None:
    """Change what is known of a cloth, whichever garments use it. Raises :class:`Refused` for one that cannot be."""
    _check_entries(given)
    _apply(row, given)
    _check_whole(row, given)
    session.flush()
    if given:
        names = ", ".join(dict.fromkeys(_NAMES[k] for k in given))
        kept = {k: v for k, v in given.items() if not k.startswith("bars_")}
        note_cloth(session, row, "cloth", f"Noted {names}" + (f" of {row.name}." if row.name else "."), **kept)


def _check_entries(given: Mapping[str, Any]) -> None:
    """Refuse single entries that are in no list."""
    for key, table in _TABLES.items():
        if key in given and given[key] not in table:
            raise Refused(f"That is not in the list; choose one of: {', '.join(k for k in table if k)}.", path=key)
    for place, part in enumerate(given.get("blend", [])):
        if part["fibre"] not in FIBRES:
            raise Refused("That fibre is not in the list; choose the nearest one.", path=f"blend.{place}.fibre")
        if not 0 < part["share"] <= 100:
            raise Refused("A share must be more than 0 and at most 100 per cent.", path=f"blend.{place}.share")
    if given.get("wales") is not None:
        try:
            wale_class(given["wales"])
        except ValueError as fault:
            raise Refused(str(fault), path="wales") from None
    fault_ = hand.check(given.get("answers", {}))
    if fault_:
        raise Refused(fault_, path="answers")


def _apply(row: models.Cloth, given: Mapping[str, Any]) -> None:
    bars = dict(row.bars)
    for key, value in given.items():
        if key.startswith("bars_"):
            bars[key.removeprefix("bars_")] = value
        elif key == "blend":
            row.blend = [[part["fibre"], part["share"]] for part in value]
        elif key == "answers":
            row.answers = {k: v for k, v in {**row.answers, **value}.items() if v}
        else:
            setattr(row, key, value)
    row.bars = bars if any(bars.values()) else {}
    row.like = like_key(cloths.as_make(row))


def _check_whole(row: models.Cloth, given: Mapping[str, Any]) -> None:
    """Refuse a cloth that cannot be: no wider than its margins, or a place past its far selvage."""
    cloth = cloths.as_cloth(row)
    if not cloth.width_readings:
        return
    path = next(iter(given), "")
    try:
        check_cloth(cloth)
        for place, flaw in enumerate(row.flaws):
            path = f"flaws.{place}.y"
            check_place(flaw["y"], cloth, "flaw")
        path = "shop_fold"
        check_place(row.shop_fold or 0.0, cloth, "fold")
    except BadCloth as fault:
        raise Refused(sentence_of(fault), path=path) from None


@dataclass(frozen=True)
class CupboardLine:
    """A cloth, and the garments that use it."""

    cloth: ClothStanding
    used_for: tuple[str, ...]


def cupboard(session: Session, words: str = "") -> tuple[list[CupboardLine], int]:
    """Every cloth in whose facts all the words are found, and how many there are in all."""
    names = projects.names_by_cloth(session)
    known = cloth_standings(session, cloths.cupboard(session))
    lines = [CupboardLine(one, tuple(names.get(one.row.id, ()))) for one in known]
    return [line for line in lines if _found_by(line, words)], len(lines)


def _found_by(line: CupboardLine, words: str) -> bool:
    row = line.cloth.row
    facts = (row.name, blend_text(line.cloth.make), row.weave, row.place, row.style_number, row.depth, *line.used_for)
    text = " ".join(facts).lower()
    return all(word in text for word in words.lower().split())


def read_cloth(session: Session, number: int) -> ClothStanding:
    """What is known of a cloth. Raises NotFound."""
    return cloth_standing(session, cloths.cloth(session, number))


def add_cloth(session: Session, name: str) -> models.Cloth:
    """Put a cloth into the cupboard."""
    row = _new_cloth(session, name)
    note(session, None, "cloth", f"Put {row.name} into the cupboard.", cloth=row.id)
    return row


def _new_cloth(session: Session, name: str) -> models.Cloth:
    row = models.Cloth(name=name)
    session.add(row)
    session.flush()
    session.refresh(row)
    return row


def take_out(session: Session, row: models.Cloth) -> None:
    """Take a cloth out of the cupboard. It can be brought back. Raises :class:`Refused` while it is used."""
    used = projects.of_cloth(session, row.id)
    if used:
        raise Refused(f"{row.name or 'This cloth'} is used for {used[0].name}; put that away first.", code="in_use")
    row.deleted_at = models.now()
    note(session, None, "cloth", f"Took {row.name or 'a cloth'} out of the cupboard.", cloth=row.id)
    session.flush()


def bring_back(session: Session, number: int) -> models.Cloth:
    """Bring back a cloth that was taken out. Raises NotFound."""
    row = cloths.cloth(session, number, deleted=True)
    if row.deleted_at is not None:
        row.deleted_at = None
        note(session, None, "cloth", f"Brought {row.name or 'a cloth'} back.", cloth=row.id)
        session.flush()
    return row


def keep_photo(session: Session, row: models.Cloth, picture: bytes) -> None:
    """Keep a photo of a cloth: made smaller, without what the camera wrote into it. Raises :class:`Refused`."""
    try:
        photo.keep(session, row.id, read_photo(picture).what)
    except BadPhoto as fault:
        raise Refused(str(fault), path="data") from None


def hide_photo(session: Session, row: models.Cloth, *, gone: bool) -> None:
    """Take a photo away, or bring it back. Raises NotFound."""
    photo.hide(session, row.id, models.now() if gone else None)


@dataclass(frozen=True)
class WashGiven:
    """One wash of a length as it is told: how, the rag's grade, and what it measured afterwards, mm."""

    how: str = ""
    grade: int | None = None
    length_after: float | None = None
    width_after: float | None = None


def add_wash(session: Session, row: models.Cloth, given: WashGiven, washer: Appliance | None = None) -> None:
    """Write down a wash of the length. A ``washer`` makes up what was not measured, and it is kept as made up.

    Raises :class:`Refused`.
    """
    wash = models.Wash(
        cloth_id=row.id,
        how=given.how,
        grade=given.grade,
        length_after=given.length_after,
        width_after=given.width_after,
        simulated=washer is not None,
    )
    if washer is not None:
        _wash_in(session, row, wash, washer)
    if not (wash.how or wash.grade or wash.length_after or wash.width_after):
        raise Refused("Say how it was washed, or what it measured afterwards.", path="how")
    session.add(wash)
    session.flush()
    grade = f"; rag grade {wash.grade}" if wash.grade else ""
    note_cloth(session, row, "shrink", f"Washed {row.name or 'the cloth'}: {wash.how}{grade}.")


def _wash_in(session: Session, row: models.Cloth, wash: models.Wash, washer: Appliance) -> None:
    """Let a washer wash the length, as the first garment that uses it would."""
    if not row.in_hand or not row.width_readings:
        raise Refused("The stand-in needs a length in hand and a width to wash.", path="stand_in")
    using = projects.of_cloth(session, row.id)
    garment = using[0] if using else models.Project(wash="40", dry="line", school="")
    known = cloth_standing(session, row)
    programme = known.advice(garment).programme
    before = [w for w in known.rows.washes if w.simulated]
    last = before[-1] if before else None
    specimen = Specimen(
        kinds=known.treatment_facts.kinds,
        warp=((last.length_after if last else None) or row.in_hand,),
        weft=((last.width_after if last else None) or min(row.width_readings),),
        washed=len(before),
        number=row.id,
        depth=row.depth,
        finish=row.finish,
    )
    report = washer.wash(specimen, programme)
    wash.how = wash.how or f"{programme_text(programme)} (stand-in)"
    wash.grade, wash.length_after, wash.width_after = report.grade, report.warp[0], report.weft[0]


def strike_wash(session: Session, row: models.Cloth, number: int, *, gone: bool) -> None:
    """Strike out a wash that was written down by mistake, or bring it back. Raises NotFound."""
    wash = washes.wash(session, row.id, number)
    at: datetime | None = models.now() if gone else None
    wash.deleted_at = at
    session.flush()
    said = "Struck out" if gone else "Brought back"
    note_cloth(session, row, "shrink", f"{said} a wash of {row.name or 'the cloth'}: {wash.how or 'washed'}.")


def use_cloth(session: Session, garment: models.Project, row: models.Cloth) -> None:
    """Make a garment of a cloth out of the cupboard; the one it had goes into the cupboard. Raises :class:`Refused`."""
    if session.get(models.SetCloth, (garment.id, row.id)) is not None:
        raise Refused(f"{row.name} is in this project already, beside the main cloth.", path="cloth_id")
    former = garment.cloth
    garment.cloth_id = row.id
    session.flush()
    session.refresh(garment)
    if former.id != row.id and not former.name and not projects.of_cloth(session, former.id):
        # nothing was ever noted of it
        former.deleted_at = models.now()
    note(session, garment, "cloth", f"Took {row.name or 'a cloth'} from the cupboard.", cloth=row.id)
    session.flush()


def add_beside(
    session: Session, garment: models.Project, role: str, *, cloth_id: int | None, name: str
) -> models.Cloth:
    """Put a lining, interfacing, trim or second cloth beside the main one: one of the cupboard, or a new one by name.

    Raises :class:`Refused`.
    """
    if role not in ROLES or role == "main":
        raise Refused(f"It must be one of: {', '.join(k for k in ROLES if k != 'main')}.", path="role")
    if cloth_id is None and not name:
        raise Refused("Give it a name, or choose a cloth of the cupboard.", path="name")
    row = cloths.cloth(session, cloth_id) if cloth_id else _new_cloth(session, name)
    if row.id == garment.cloth_id or session.get(models.SetCloth, (garment.id, row.id)) is not None:
        raise Refused(f"{row.name or 'This cloth'} is in this project already.", path="cloth_id")
    session.add(models.SetCloth(project_id=garment.id, cloth_id=row.id, role=role))
    session.flush()
    note(session, garment, "shrink", f"Put {row.name} beside the main cloth, as {ROLES[role]}.")
    return row


def remove_beside(session: Session, garment: models.Project, cloth_id: int) -> None:
    """Take a cloth from beside the main one; it stays in the cupboard."""
    beside = session.get(models.SetCloth, (garment.id, cloth_id))
    if beside is not None:
        note(session, garment, "shrink", f"Took {beside.cloth.name or 'a cloth'} from the set.")
        session.delete(beside)
        session.flush()
