"""Cloths: what is known of them, the cupboard, their washes and photos, and which of them a garment is made of."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy.orm import Session

from ..core.cloth import hand
from ..core.cloth.border import DEEPEST_MM
from ..core.cloth.direction import CLOTH_DIRECTIONS, PILE_RUNS, wale_class
from ..core.cloth.make import COLOURINGS, FIBRES, FINISHES, WEAVES, fibre_label
from ..core.cloth.width import BadCloth, check_cloth, check_place, past_the_end
from ..core.shrink.ranges import like_key
from ..core.shrink.together import ROLES
from ..core.shrink.treatment import SWATCH_WASHES, programme_text
from ..core.wording import Sentence, joined, sentence_of
from ..core.working import length as length_of
from ..formats.photo import BadPhoto, read_photo
from ..standins.washer import Appliance, Specimen
from ..store import cloth as cloths
from ..store import models, photo, use
from ..store import project as projects
from ..store import wash as washes
from ..store.errors import NotFound
from .log import note, note_cloth
from .project import usual_purchase
from .refused import Refused
from .standing import ClothStanding, Cutting, cloth_standing, cloth_standings

#: A garment is cut from so many cloths at most.
MOST_USES = 12
BAR_WAYS: tuple[cloths.Way, ...] = ("along", "across")
#: What may be unknown again.
CLEARED = {"in_hand", "mass", "price", "wales", "rub_grade", "shop_fold"}
_TABLES: dict[str, Mapping[str, Any]] = {
    "weave": WEAVES,
    "finish": FINISHES,
    "colouring": COLOURINGS,
    "direction": CLOTH_DIRECTIONS,
    "pile": PILE_RUNS,
}

#: What belongs to one state of the cloth, and is kept as readings.
#: The repeat of its bars, measured at several places: entry → way.
REPEATS: dict[str, cloths.Way] = {"repeats_along": "along", "repeats_across": "across"}
MEASURED = ("width_readings", "in_hand")
#: What a cloth that is said to be treated, with no wash written down, is said to have had.
TREATED_BEFORE = "treated before it was written down"


def name_of(cloth_use: models.ClothUse) -> str:
    """What a cloth of a garment is called: its name, or else what it is for."""
    return cloth_use.cloth.name or ROLES[cloth_use.role].capitalize()


def change_cloth(
    session: Session,
    row: models.Cloth,
    given: Mapping[str, Any],
    state: int | None = None,
    by: models.By = "tape",
    *,
    sure: bool = True,
) -> None:
    """Change what is known of a cloth, whichever garments use it. Raises :class:`Refused` for one that cannot be.

    Widths and length are those of the state it is in, or of ``state``: the number of a wash, 0 for as it was bought.
    ``treated``: it was treated before anything was written down; what was measured before stays as it was. A flaw past
    the cloth's end is asked back unless it is ``sure``.
    """
    _check_entries(given)
    before = _entries(row, given)
    if "treated" in given:
        _treated_before(session, row, given["treated"])
    at = _state(row, state)
    _apply(row, given, at, by)
    _check_whole(row, given, at)
    if "flaws" in given and not sure:
        _ask_about_flaws(row)
    session.flush()
    if given:
        kept = {"before": before, "after": _entries(row, given)}
        note_cloth(session, row, "cloth", "cloth-noted", **kept, name=row.name, entries=list(given))


def _entries(row: models.Cloth, given: Mapping[str, Any]) -> dict[str, Any]:
    """Entries of a cloth as they are, those that are to be changed."""
    there: dict[str, Any] = {
        "width_readings": list(row.widths_in(row.state_id)),
        "in_hand": row.length_in(row.state_id),
        "treated": row.state_id is not None,
        "flaws": [{"x": f.x, "y": f.y, "w": f.w, "h": f.h, "what": f.what} for f in row.flaws],
        **{key: list(row.repeats(way)) for key, way in REPEATS.items()},
        **{f"bars_{way}": [[b.width, b.colour] for b in cloths.bar_sequence(row, way)] for way in BAR_WAYS},
    }
    return {key: there[key] if key in there else getattr(row, key) for key in given}


def _state(row: models.Cloth, state: int | None) -> int | None:
    """The state that is meant: None as bought, else a wash."""
    if state is None:
        return row.state_id
    if state == 0:
        return None
    if state not in row.states:
        raise Refused("The cloth was never in that state; the wash may have been struck out.", path="state")
    return state


def _treated_before(session: Session, row: models.Cloth, treated: bool) -> None:
    if treated and row.state_id is None:
        session.add(models.Wash(cloth_id=row.id, how=TREATED_BEFORE))
    elif not treated:
        for wash in row.treatments:
            if wash.how == TREATED_BEFORE:
                wash.deleted_at = models.now()
    session.flush()
    session.refresh(row, ["washes"])


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
    if given.get("border_deep") is not None and not 0 <= given["border_deep"] <= DEEPEST_MM:
        raise Refused(Sentence("A border is at most {most} deep.", most=length_of(DEEPEST_MM)), path="border_deep")
    fault_ = hand.check(given.get("answers", {}))
    if fault_:
        raise Refused(fault_, path="answers")


def _apply(row: models.Cloth, given: Mapping[str, Any], at: int | None, by: models.By) -> None:
    for key, value in given.items():
        if key == "bars_along":
            cloths.keep_bars(row, "along", value, by)
        elif key == "bars_across":
            cloths.keep_bars(row, "across", value, by)
        elif key == "width_readings":
            cloths.keep_widths(row, at, value, by)
        elif key in REPEATS:
            cloths.keep_repeats(row, REPEATS[key], value, by)
        elif key == "in_hand":
            cloths.keep_length(row, at, value, by)
        elif key == "shop_fold":
            cloths.keep_shop_fold(row, value, by)
        elif key == "flaws":
            cloths.keep_flaws(row, value, by)
        elif key == "blend":
            row.blend = [[part["fibre"], part["share"]] for part in value]
        elif key == "answers":
            row.answers = {k: v for k, v in {**row.answers, **value}.items() if v}
        elif key != "treated":
            setattr(row, key, value)
    if row.border and row.border_kind == "edge" and given.keys() & {"border", "border_kind"}:
        # a finished edge is worn: nothing of it is left off
        setattr(row, "margin_low" if row.border == "low" else "margin_high", 0.0)
    row.like = like_key(cloths.as_make(row))


def _check_whole(row: models.Cloth, given: Mapping[str, Any], at: int | None) -> None:
    """Refuse a cloth that cannot be: no wider than its margins, or a place past its far selvage."""
    widths = row.widths_in(at)
    if not widths:
        return
    cloth = replace(cloths.as_cloth(row), width_readings=widths)
    path = next(iter(given), "")
    try:
        check_cloth(cloth)
        widest = replace(cloth, width_readings=tuple(w for state in row.states for w in row.widths_in(state)))
        for place, flaw in enumerate(row.flaws):
            path = f"flaws.{place}.y"
            check_place(flaw.y, widest, "flaw")
        path = "shop_fold"
        check_place(row.shop_fold or 0.0, widest, "fold")
    except BadCloth as fault:
        raise Refused(sentence_of(fault), path=path) from None


def _ask_about_flaws(row: models.Cloth) -> None:
    """Ask back a flaw that lies past the end of the longest the cloth ever was."""
    lengths = [found for state in row.states for found in [row.length_in(state)] if found is not None]
    for place, flaw in enumerate(row.flaws):
        asked = past_the_end(flaw.x, flaw.w, max(lengths, default=None))
        if asked is not None:
            raise Refused(joined([asked, "If so, keep it once more."]), code="asked", path=f"flaws.{place}.x")


@dataclass(frozen=True)
class CupboardLine:
    """A cloth, and the garments that use it."""

    cloth: ClothStanding
    used_for: tuple[str, ...]


def cupboard(session: Session, words: str = "") -> tuple[list[CupboardLine], int]:
    """Every cloth in whose facts all the words are found, and how many there are in all."""
    # a share is found by its number
    asked = [word for word in words.casefold().split() if word != "%"]
    fibres = {word: [fibre for fibre in FIBRES if word in fibre_label(fibre).casefold()] for word in asked}
    names = projects.names_by_cloth(session)
    known = cloth_standings(session, cloths.cupboard(session, asked, fibres))
    lines = [CupboardLine(one, tuple(names.get(one.row.id, ()))) for one in known]
    return lines, cloths.in_cupboard(session) if asked else len(lines)


def read_cloth(session: Session, number: int) -> ClothStanding:
    """What is known of a cloth. Raises NotFound."""
    return cloth_standing(session, cloths.cloth(session, number))


def add_cloth(session: Session, name: str) -> models.Cloth:
    """Put a cloth into the cupboard."""
    row = _new_cloth(session, name)
    note(session, None, "cloth", "cloth-added", cloth=row, name=row.name)
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
    note(session, None, "cloth", "cloth-out", cloth=row, name=row.name or "a cloth")
    session.flush()


def bring_back(session: Session, number: int) -> models.Cloth:
    """Bring back a cloth that was taken out. Raises NotFound."""
    row = cloths.cloth(session, number, deleted=True)
    if row.deleted_at is not None:
        row.deleted_at = None
        note(session, None, "cloth", "cloth-back", cloth=row, name=row.name or "a cloth")
        session.flush()
    return row


def keep_photo(session: Session, row: models.Cloth, picture: bytes) -> None:
    """Keep a photo of a cloth: made smaller, without what the camera wrote into it. Raises :class:`Refused`."""
    try:
        photo.keep(session, row.id, read_photo(picture).what)
    except BadPhoto as fault:
        raise Refused(str(fault), path="data") from None
    note_cloth(session, row, "cloth", "photo-kept", name=row.name or "the cloth")


def hide_photo(session: Session, row: models.Cloth, *, gone: bool) -> None:
    """Take a photo away, or bring it back. Raises NotFound."""
    photo.hide(session, row.id, models.now() if gone else None)
    note_cloth(session, row, "cloth", "photo-out" if gone else "photo-back", name=row.name or "the cloth")


@dataclass(frozen=True)
class WashGiven:
    """One wash of a length as it is told: how, the rag's grade, and what it measured afterwards, mm."""

    how: str = ""
    grade: int | None = None
    length_after: float | None = None
    width_after: float | None = None
    #: which kind of wash that was, a key of SWATCH_WASHES; empty: not said
    wash: str = ""


def add_wash(session: Session, row: models.Cloth, given: WashGiven, washer: Appliance | None = None) -> None:
    """Write down a wash of the length: the cloth is in a new state, as measured then. A ``washer`` makes up what was
    not measured, and it is kept as made up, and changes nothing.

    Raises :class:`Refused`.
    """
    if given.wash and given.wash not in SWATCH_WASHES:
        raise Refused(f"It must be one of: {', '.join(SWATCH_WASHES)}.", path="wash")
    how = given.how or (SWATCH_WASHES[given.wash] if given.wash else "")
    wash = models.Wash(cloth_id=row.id, how=how, wash=given.wash, grade=given.grade, simulated=washer is not None)
    length, width = given.length_after, given.width_after
    if washer is not None:
        length, width = _wash_in(session, row, wash, washer)
    if not (wash.how or wash.grade or length or width):
        raise Refused("Say how it was washed, or what it measured afterwards.", path="how")
    session.add(wash)
    session.flush()
    session.refresh(row, ["washes"])
    by: models.By = "made up" if washer is not None else "tape"
    _measured_after(row, wash, length, width, by)
    session.flush()
    told = {"name": row.name, "how": wash.how, "grade": wash.grade, "wash": wash.id}
    note_cloth(session, row, "shrink", "washed", after={"length": length, "width": width}, **told)


def _measured_after(
    row: models.Cloth, wash: models.Wash, length: float | None, width: float | None, by: models.By = "tape"
) -> None:
    if length is not None:
        cloths.keep_length(row, wash.id, length, by)
    if width is not None:
        cloths.keep_widths(row, wash.id, [width], by)
        try:
            check_cloth(replace(cloths.as_cloth(row), width_readings=(width,)))
        except BadCloth as fault:
            raise Refused(sentence_of(fault), path="width_after") from None


def _wash_in(
    session: Session, row: models.Cloth, wash: models.Wash, washer: Appliance
) -> tuple[float | None, float | None]:
    """Let a washer wash the length, as the first garment that uses it would; what it measures then."""
    known = cloth_standing(session, row)
    long, wide = known.length_now, known.width_now
    if long is None or wide is None:
        raise Refused("The stand-in needs a length in hand and a width to wash.", path="stand_in")
    using = projects.of_cloth(session, row.id)
    garment = using[0] if using else models.Project(wash="40", dry="line")
    use = next((one for one in garment.uses if one.cloth_id == row.id), None) or models.ClothUse(role="main", school="")
    programme = Cutting(garment, use, known).advice.programme
    before = [w for w in known.rows.washes if w.simulated]
    last = before[-1].id if before else None
    made_up = (row.length_in(last), row.widths_in(last)) if before else (None, ())
    specimen = Specimen(
        kinds=known.treatment_facts.kinds,
        warp=(made_up[0] or long.value,),
        weft=(min(made_up[1]) if made_up[1] else wide.value,),
        washed=len(before),
        number=row.id,
        depth=row.depth,
        finish=row.finish,
    )
    report = washer.wash(specimen, programme)
    wash.how = wash.how or f"{programme_text(programme)} (stand-in)"
    wash.grade = report.grade
    return report.warp[0], report.weft[0]


def strike_wash(session: Session, row: models.Cloth, number: int, *, gone: bool) -> None:
    """Strike out a wash that was written down by mistake, or bring it back; what was measured after it goes and comes
    with it. Raises NotFound."""
    wash = washes.wash(session, row.id, number)
    wash.deleted_at = models.now() if gone else None
    session.flush()
    session.refresh(row, ["washes"])
    kind, name = "wash-out" if gone else "wash-back", row.name or "the cloth"
    note_cloth(session, row, "shrink", kind, name=name, how=wash.how or "washed", wash=wash.id)


# -- which cloths a garment is cut from


def use_cloth(session: Session, cloth_use: models.ClothUse, row: models.Cloth) -> None:
    """Take another cloth out of the cupboard for a garment; the one it had goes into the cupboard."""
    former = cloth_use.cloth
    cloth_use.cloth = row
    session.flush()
    if former.id != row.id and not former.name and not projects.of_cloth(session, former.id):
        # nothing was ever noted of it
        former.deleted_at = models.now()
    name, was = row.name or "a cloth", {"cloth": former.id}
    note(session, cloth_use, "cloth", "cloth-taken", name=name, before=was, after={"cloth": row.id})
    session.flush()


def add_use(
    session: Session, garment: models.Project, role: str, *, cloth_id: int | None = None, name: str = ""
) -> models.ClothUse:
    """Cut a garment from another cloth as well: one of the cupboard, or a new one by name; the same one again where it
    is cut another way. Raises :class:`Refused`."""
    if role not in ROLES or role == "main":
        raise Refused(f"It must be one of: {', '.join(k for k in ROLES if k != 'main')}.", path="role")
    if cloth_id is None and not name:
        raise Refused("Give it a name, or choose a cloth of the cupboard.", path="name")
    if len(garment.uses) >= MOST_USES:
        raise Refused(f"A garment can be cut from {MOST_USES} cloths at most.")
    row = cloths.cloth(session, cloth_id) if cloth_id else _new_cloth(session, name)
    use = models.ClothUse(cloth=row, role=role, **usual_purchase(session))
    if role == "trim":
        use.ends = 0.0
    garment.all_uses.append(use)
    session.flush()
    session.refresh(use)
    note(session, use, "cloth", "use-added", name=row.name or "a cloth", role=ROLES[role])
    return use


def change_use(session: Session, cloth_use: models.ClothUse, role: str) -> None:
    """Say that a cloth is for something else. Raises :class:`Refused`."""
    if role not in ROLES or (role == "main") != (cloth_use.role == "main"):
        raise Refused("The main cloth stays the main one; take another cloth for it instead.", path="role")
    before = cloth_use.role
    cloth_use.role = role
    session.flush()
    was = {"role": before}
    note(session, cloth_use, "cloth", "changed", entries=["role"], before=was, after={"role": role})


def take_out_use(session: Session, garment: models.Project, number: int, *, gone: bool) -> None:
    """Cut a garment no longer from one of its cloths, or again; the cloth stays in the cupboard. Raises NotFound and
    :class:`Refused` for the main one."""
    row = next((one for one in garment.all_uses if one.id == number), None)
    if row is None:
        raise NotFound("That cloth does not belong to this project.")
    if row.role == "main":
        raise Refused("The main cloth stays; take another one for it from the cupboard.")
    if gone != (row.deleted_at is not None):
        row.deleted_at = models.now() if gone else None
        session.flush()
        note(session, row, "cloth", "use-out" if gone else "use-back", name=row.cloth.name or "a cloth")


def keep_runs(session: Session, cloth_use: models.ClothUse, given: Sequence[tuple[str, float, int]]) -> None:
    """Say which edges a trim goes on: what, mm, how many times. Raises :class:`Refused` for what is no trim."""
    if cloth_use.role != "trim":
        raise Refused("Only a trim goes on edges by the metre; say that it is one.", path="role")
    before = use.runs(session, cloth_use.id)
    kept = [[run.what, run.length, run.times] for run in before]
    for run in before:
        session.delete(run)
    for place, (what, length, times) in enumerate(given):
        session.add(models.TrimRun(use_id=cloth_use.id, position=place, what=what, length=length, times=times))
    session.flush()
    after = {"runs": [list(run) for run in given]}
    note(session, cloth_use, "cloth", "changed", before={"runs": kept}, after=after, entries=["runs"])
