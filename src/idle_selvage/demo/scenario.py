"""Loading the demo through the same operations a user's entries take."""

from __future__ import annotations

import time
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import replace
from typing import Any

from sqlalchemy.orm import Session

from ..core.plan.stations import Station
from ..core.units import read_length, read_number
from ..jobs.pool import Pool
from ..operations import cloth, lay, match, plan, shrink, true
from ..operations import project as garments
from ..operations.buy import envelope, offers, purchase
from ..operations.buy import list as shop_list
from ..operations.refused import Refused
from ..operations.standing import garment_standing
from ..operations.telling import Told, by_stations, draft_of
from ..standins.shop import StandInShop
from ..store import models
from ..store.database import Database
from ..store.use import of_project
from . import drafts

#: Entries that are lengths; whatever else is typed with a comma or a point is a plain number.
_LENGTHS = {
    "along", "left", "right", "seam", "width", "margin_low", "margin_high", "in_hand", "x", "y", "w", "h",
    "shop_fold", "width_readings", "gap", "spare", "least", "stock", "step", "body", "finished", "mine", "lengths",
    "edge", "offset", "shorter", "length", "turned_up", "border_deep",
}  # fmt: skip
_NUMBERS = {"mass", "price", "warp", "weft"}


#: Rows of lengths as typed.
Typed = Sequence[Sequence[str]]


class DemoFailed(RuntimeError):
    """The demo's own data were refused; the message says where."""


def _typed(key: str, value: Any) -> Any:
    """What a person would type, as the operations take it: millimetres and numbers."""
    if isinstance(value, dict):
        return {k: _typed(k, v) for k, v in value.items()}
    if isinstance(value, Sequence) and not isinstance(value, str):
        return [_typed(key, v) for v in value]
    if isinstance(value, str) and key in _LENGTHS:
        return read_length(value)
    if isinstance(value, str) and key in _NUMBERS:
        return read_number(value)
    return value


def _rows(typed: Typed | None) -> Sequence[Sequence[float]] | None:
    return None if typed is None else [[read_length(text) for text in row] for row in typed]


class _Desk:
    """A person at the operations, one change at a time."""

    def __init__(self, database: Database) -> None:
        self.database = database

    @contextmanager
    def at(self, number: int) -> Iterator[tuple[Session, models.Project]]:
        """One change of a garment."""
        with self.database.begin() as session:
            try:
                yield session, garments.garment(session, number)
            except Refused as fault:
                raise DemoFailed(f"garment {number}: {fault}") from fault

    def garment(self, name: str, note: str, care: tuple[str, str], gap: str = "3 mm", spare: str = "0") -> int:
        with self.database.begin() as session:
            number = garments.create_garment(session, name, note).id
        with self.at(number) as (session, row):
            garments.change_garment(session, row, {"wash": care[0], "dry": care[1]})
            lay.change_wishes(session, row.main, {"gap": read_length(gap)})
            purchase.change_purchase(session, row.main, {"spare": read_length(spare)})
        return number

    def cloth(self, number: int, **facts: Any) -> None:
        with self.at(number) as (session, row):
            cloth.change_cloth(session, row.cloth, _typed("", facts))

    def stations(self, number: int, name: str, stations: drafts.Stations, **more: Any) -> None:
        with self.at(number) as (session, row):
            entries = _typed("", more)
            smooth, turned_up = entries.pop("smooth", True), entries.pop("turned_up", None)
            told = by_stations([Station(*s) for s in stations], smooth=smooth)
            if turned_up is not None:
                # the low end lies between the last point and the first
                *points, low = draft_of(session, told).points
                told = Told("points", points=[*points, replace(low, allowance=turned_up, ends="folded")])
            plan.add_piece(session, row.main, told, {"name": name, **entries})

    def drawing(self, number: int, pieces: Sequence[drafts.Drawn], title: str) -> None:
        with self.at(number) as (session, row):
            read = plan.read_drawing(session, row.main, drafts.drawing([*pieces], title).encode(), f"{title}.svg")
            if read.not_read:
                raise DemoFailed(f"{title}: {read.not_read}")

    def facts(self, number: int, **pieces: dict[str, Any]) -> None:
        """Facts of pieces that are there already, by name; words of a name are joined with ``_``."""
        with self.at(number) as (session, _):
            for piece in garments.read_garment(session, number).pieces:
                given = pieces.get(piece.name.replace(" ", "_"))
                if given:
                    plan.change_piece(session, piece, None, given)

    def swatch(self, number: int, warp: Typed, weft: Typed, diagonals: Typed | None = None) -> None:
        with self.at(number) as (session, row):
            shrink.keep_reading(session, row.main, shrink.Readings(_rows(warp), _rows(weft), _rows(diagonals)))

    def beside(self, number: int, role: str, name: str, **facts: Any) -> int:
        """A lining or interfacing beside the main cloth; the number of its use."""
        with self.at(number) as (session, row):
            one = cloth.add_use(session, row, role, name=name)
            cloth.change_cloth(session, one.cloth, _typed("", facts))
            return one.id

    def cut(self, number: int, use: int, **pieces: dict[str, Any]) -> None:
        """How pieces are cut from another cloth, by name; words of a name are joined with ``_``."""
        with self.at(number) as (session, row):
            of = next(one for one in row.uses if one.id == use)
            for piece in garments.read_garment(session, number).pieces:
                given = pieces.get(piece.name.replace(" ", "_"))
                if given is not None:
                    plan.change_cut(session, piece, of, _typed("", given))

    def seams(self, number: int, **asked: dict[str, Any]) -> None:
        """Take the seams that are proposed; by name what is asked of some, words of a name joined with ``_``. Those of
        which nothing is said are asked nothing."""
        with self.at(number) as (session, row):
            now = garment_standing(session, row).uses[0]
            match.take_proposed(session, now, range(len(match.proposed(now))))
        with self.at(number) as (session, row):
            for one in garment_standing(session, row).rows.seams:
                given = asked.get(one.name.replace(" ", "_"), {"levels": False, "lengthwise": False})
                match.change_seam(session, one, row.main, _typed("", given))

    def item(self, number: int, kind: str, name: str, amount: str) -> None:
        with self.at(number) as (session, row):
            shop_list.add_item(session, row, kind, name, amount)

    def tested(self, name: str, warp: str, weft: str, **facts: Any) -> None:
        """A remnant in the cupboard whose swatch was washed some time ago, twice, and came to rest."""
        number = self.garment("Test of " + name, "", ("40", "line"))
        # what is left of it was measured after it was washed
        self.cloth(number, name=name, treated=True, **facts)
        self.swatch(number, [["25 cm", warp, warp]] * 3, [["25 cm", weft, weft]] * 3)
        with self.at(number) as (session, row):
            garments.put_away(session, row)


#: So many steps each lay of the demo is searched; the same lays come out on every machine. What is tried beside it
#: takes about as long, seconds.
LAY_STEPS, LAY_SECONDS = 600, 2.0


def load(database: Database, pool: Pool | None = None, *, steps: int = LAY_STEPS, wait: float = 120.0) -> None:
    """The choir's six garments. With workers, all but the remnant are laid too, with so many ``steps`` each."""
    desk = _Desk(database)
    _cupboard(desk)
    numbers = [_remnant(desk), _slip(desk), _waistcoat(desk), _overshirt(desk), _skirt(desk), _check_waistcoat(desk)]
    if pool is None:
        return
    jobs = []
    for number in numbers[1:]:
        with desk.at(number) as (session, row):
            uses = [now.use.id for now in garment_standing(session, row).uses if now.rows.cuts]
        for use in uses:
            with desk.at(number) as (session, row):
                jobs.append(lay.begin_laying(session, of_project(row, use), lay.Search(LAY_SECONDS, steps=steps)).id)
            pool.submit(jobs[-1])
    until = time.monotonic() + wait
    while jobs and time.monotonic() < until:
        time.sleep(0.2)
        with database.look() as session:
            jobs = [n for n in jobs if lay.job(session, n).state in ("waiting", "running")]


def example(database: Database) -> int:
    """One garment of it, not laid yet, for whoever wants to look at one; its number."""
    return _overshirt(_Desk(database))


def _cupboard(desk: _Desk) -> None:
    """Linens of earlier years, whose tests help with the next one."""
    for name, ground, warp, weft, metres, place in (
        ("Linen, oat", "#D9CDB4", "23.6 cm", "24.3 cm", "0,6 m", "Remnants, second drawer"),
        ("Linen, slate blue", "#7F93A6", "23.5 cm", "24.2 cm", "1,1 m", "Remnants, second drawer"),
        ("Linen, washed rose", "#CFA9A3", "23.7 cm", "24.3 cm", "0,45 m", "Remnants, third drawer"),
    ):
        desk.tested(
            name,
            warp,
            weft,
            blend=[{"fibre": "linen", "share": 100}],
            width_readings=["146 cm", "146 cm", "145.8 cm"],
            in_hand=metres,
            mass="190",
            place=place,
            ground=ground,
        )


def _skirt(desk: _Desk) -> int:
    number = desk.garment("Six-gore skirt", "Altos, autumn concert", ("40", "line"), gap="3 mm")
    desk.cloth(
        number,
        name="Windowpane check, yarn-dyed",
        blend=[{"fibre": "cotton", "share": 100}],
        colouring="yarn-dyed",
        place="Blue box, top shelf",
        style_number="WP 4107",
        width_readings=["149.5 cm", "149.2 cm", "149.8 cm"],
        margin_low="1.0 cm",
        margin_high="1.2 cm",
        mass="190",
        price="18,50",
        depth="medium",
        ground="#CBD5D2",
        bars_along=[{"width": 6, "colour": "#3F6F73"}, {"width": 54, "colour": "#CBD5D2"}],
        bars_across=[
            {"width": 6, "colour": "#3F6F73"},
            {"width": 24, "colour": "#CBD5D2"},
            {"width": 3, "colour": "#A9674A"},
            {"width": 27, "colour": "#CBD5D2"},
        ],
    )
    desk.swatch(
        number,
        [["25 cm", "24.0 cm"], ["25 cm", "24.1 cm"], ["25 cm", "24.0 cm"]],
        [["25 cm", "24.6 cm"], ["25 cm", "24.6 cm"], ["25 cm", "24.7 cm"]],
    )
    gore = drafts.gore(waist=740, hip=1020, hem=2100, length=720)
    # the bars across run round the skirt at one height: every gore begins the check at its hem
    desk.stations(
        number,
        "Gore",
        gore,
        copies=6,
        seam="1.5 cm",
        turned_up="4 cm",
        hem=True,
    )
    desk.stations(number, "Waistband", drafts.strip(780, 70), copies=1, smooth=False, seam="1 cm")
    desk.stations(
        number,
        "Pocket bag",
        [(0, 60, 60), (60, 85, 85), (180, 80, 80), (290, 45, 45)],
        copies=4,
        pair=True,
        seam="1 cm",
        hidden=True,
    )
    # the check runs round the skirt at one height, and mirrors itself at every seam
    desk.seams(number, Gore_to_the_next={"levels": True, "key_a": 0.0, "key_b": 0.0})
    for kind, name, amount in (
        ("zip", "Zip, 18 cm, slate", "1"),
        ("hook", "Trouser hook", "1"),
        ("tape", "Cotton tape for the waist, 10 mm", "80 cm"),
    ):
        desk.item(number, kind, name, amount)
    return number


def _overshirt(desk: _Desk) -> int:
    number = desk.garment("Boxy overshirt", "Tenors, autumn concert", ("40", "tumble-low"), gap="2 mm")
    desk.cloth(
        number,
        name="Linen stripe, sand and slate",
        blend=[{"fibre": "linen", "share": 100}],
        colouring="yarn-dyed",
        answers={"drape": "stiff", "sheer": "no"},
        width_readings=["151.0 cm", "150.6 cm", "150.9 cm"],
        margin_low="0.9 cm",
        margin_high="0.9 cm",
        mass="205",
        price="21,20",
        depth="light",
        ground="#E3D9C3",
        bars_across=[
            {"width": 10, "colour": "#6E7F8D"},
            {"width": 22, "colour": "#E3D9C3"},
            {"width": 2, "colour": "#6E7F8D"},
            {"width": 22, "colour": "#E3D9C3"},
        ],
    )
    desk.swatch(
        number,
        [["25 cm", "23.8 cm", "23.5 cm"], ["25 cm", "23.8 cm", "23.5 cm"], ["25 cm", "23.9 cm", "23.6 cm"]],
        [["25 cm", "24.5 cm", "24.3 cm"], ["25 cm", "24.4 cm", "24.3 cm"], ["25 cm", "24.5 cm", "24.3 cm"]],
        diagonals=[["35,4 cm", "35,4 cm"], ["34,4 cm", "34,0 cm"], ["34,2 cm", "33,5 cm"]],
    )
    desk.beside(
        number,
        "interfacing",
        "Cotton interfacing, sew-in",
        blend=[{"fibre": "cotton", "share": 100}],
        finish="starched",
        ground="#EFECE4",
        width_readings=["90 cm", "90 cm", "90 cm"],
        in_hand="1 m",
        mass="110",
        depth="light",
        place="Interfacing drawer",
    )
    desk.drawing(number, drafts.overshirt(), "overshirt")
    desk.facts(
        number,
        Front={"centred": True, "hem": True},
        Back={"centred": True, "hem": True},
        Sleeve={"hem": True},
        Collar_stand={"hidden": True},
    )
    # stripes run along the shirt: they go on over the side seams and the pocket
    desk.seams(number, Side_seam=_RUNS_ON, Pocket_on_Front=_RUNS_ON)
    for name, width, price, more in (
        ("Linen stripe, narrow loom", "115 cm", "17,90", {"least": "50 cm"}),
        ("Linen stripe, washed at the mill", "140 cm", "23,00", {"warp": "2", "weft": "1,5", "step": "25 cm"}),
        ("Linen stripe, end of the roll", "150 cm", "15,00", {"stock": "1,40 m", "least": "1 m"}),
    ):
        with desk.at(number) as (session, row):
            given = _typed("", {"name": name, "width": width, "price": price, **more})
            offers.add_offer(session, row.main, given, StandInShop())
    with desk.at(number) as (session, row):
        envelope.change_envelope(session, row.main, _typed("", _envelope()))
        true.keep_at_table(session, row.main, _typed("", {"edge": ["2,6 cm", "3,1 cm", "2,4 cm", "2,9 cm"]}))
    for offset, done in (("26 mm", ""), ("14 mm", "pin")):
        with desk.at(number) as (session, row):
            read = {"now": {"offset": offset, "side": "far", "done": done}}
            true.keep_at_table(session, row.main, _typed("", read))
            true.add_test(session, row.main)
    desk.item(number, "button", "Buttons, 15 mm, horn look", "9")
    return number


def _envelope() -> dict[str, Any]:
    """The chart of the choir's own overshirt pattern."""
    return {
        "sizes": [
            {"name": name, "body": f"{body} cm", "finished": f"{body + 22} cm"}
            for name, body in (("S", 92), ("M", 98), ("L", 104), ("XL", 110))
        ],
        "measure": "chest",
        "mine": "101 cm",
        "fit": "loose",
        "views": [
            {
                "name": "A, long sleeves",
                "rows": [
                    {"width": "45 in", "lengths": ["2 3/8 yd", "2 1/2 yd", "2 5/8 yd", "2 7/8 yd"]},
                    {"width": "60 in", "lengths": ["1 3/4 yd", "1 7/8 yd", "2 yd", "2 1/8 yd"]},
                ],
            }
        ],
    }


def _waistcoat(desk: _Desk) -> int:
    number = desk.garment(
        "Notched waistcoat", "Basses, autumn concert", ("30-gentle", "flat"), gap="4 mm", spare="5 cm"
    )
    desk.cloth(
        number,
        name="Velveteen, bottle green",
        blend=[{"fibre": "cotton", "share": 100}],
        weave="velveteen",
        face="the pile",
        face_mark="a chalk cross on the back of every piece",
        pile="up",
        pile_why="the colour looks deeper on the stage",
        rub_grade=3,
        width_readings=["112.0 cm", "111.8 cm", "112.1 cm"],
        margin_low="1.5 cm",
        margin_high="1.4 cm",
        mass="290",
        price="24,00",
        direction="nap",
        depth="dark",
        ground="#2F5A4C",
    )
    desk.swatch(number, [["25 cm", "24.1 cm"], ["25 cm", "24.2 cm"]], [["25 cm", "24.6 cm"], ["25 cm", "24.5 cm"]])
    lining = desk.beside(
        number,
        "lining",
        "Lining twill, slate",
        blend=[{"fibre": "viscose", "share": 60}, {"fibre": "acetate", "share": 40}],
        weave="twill",
        ground="#66727F",
        width_readings=["138 cm", "138 cm", "137.8 cm"],
        in_hand="1,2 m",
        mass="90",
        price="9,80",
        depth="medium",
        rub_grade=5,
    )
    interfacing = desk.beside(
        number,
        "interfacing",
        "Interfacing, non-woven, fusible",
        blend=[{"fibre": "polyester", "share": 100}],
        weave="nonwoven",
        finish="fusible",
        ground="#EFECE4",
        width_readings=["90 cm", "90 cm", "90 cm"],
        mass="45",
        price="6,40",
        depth="light",
        place="Interfacing drawer",
    )
    desk.drawing(number, drafts.waistcoat(), "waistcoat")
    desk.facts(number, Facing={"hidden": True}, Back_belt={"hidden": True})
    # the lining ends above the cloth's hem and needs no nap; the interfacing stays inside the seams
    desk.cut(number, lining, Front={"shorter": "2 cm", "one_way": False}, Back={"shorter": "2 cm", "one_way": False})
    desk.cut(number, interfacing, Front={"bare": True, "one_way": False}, Facing={"bare": True, "one_way": False})
    return number


#: Bars along the garment shall go on over a seam.
_RUNS_ON: dict[str, Any] = {"levels": False, "lengthwise": True}
_LEVEL: dict[str, Any] = {"levels": True, "lengthwise": False}
_BOTH: dict[str, Any] = {"levels": True, "lengthwise": True}


def _check_waistcoat(desk: _Desk) -> int:
    number = desk.garment("Check waistcoat", "Baritones, autumn concert", ("30-gentle", "flat"), gap="3 mm")
    desk.cloth(
        number,
        name="Check, moss and rust on oat",
        blend=[{"fibre": "wool", "share": 55}, {"fibre": "cotton", "share": 45}],
        colouring="yarn-dyed",
        width_readings=["147.0 cm", "146.8 cm", "147.1 cm"],
        margin_low="1.0 cm",
        margin_high="1.0 cm",
        mass="240",
        price="26,50",
        depth="medium",
        ground="#DDD3BC",
        bars_along=_CHECK,
        bars_across=_CHECK,
    )
    desk.swatch(number, [["25 cm", "24.4 cm"], ["25 cm", "24.3 cm"]], [["25 cm", "24.6 cm"], ["25 cm", "24.7 cm"]])
    desk.drawing(number, drafts.check_waistcoat(), "check waistcoat")
    desk.facts(
        number,
        Front={"hem": True, "centred": True},
        Back={"hem": True, "centred": True},
        Collar={"centred": True},
    )
    desk.seams(
        number,
        Centre_front=_LEVEL,
        Side_seam=_LEVEL,
        Pocket_on_Front=_BOTH,
        Flap_on_Front=_BOTH,
        Collar_at_centre_back=_RUNS_ON,
    )
    desk.item(number, "button", "Buttons, 18 mm, horn look", "5")
    return number


_CHECK: list[dict[str, Any]] = [
    {"width": 4, "colour": "#5F6B3F"},
    {"width": 30, "colour": "#DDD3BC"},
    {"width": 4, "colour": "#9C5B3C"},
    {"width": 30, "colour": "#DDD3BC"},
]


def _slip(desk: _Desk) -> int:
    number = desk.garment("Bias slip", "Sopranos, autumn concert", ("cold-hand", "flat"), gap="5 mm")
    desk.cloth(
        number,
        name="Crepe, harbour blue",
        blend=[{"fibre": "viscose", "share": 100}],
        weave="crepe",
        answers={"drape": "fluid", "sheer": "shadow", "hand": "slips"},
        width_readings=["140.5 cm", "140.0 cm", "140.2 cm"],
        margin_low="1.0 cm",
        margin_high="1.0 cm",
        mass="130",
        price="16,80",
        depth="dark",
        ground="#3B5C86",
    )
    panel = drafts.slip_panel(bust=900, hip=980, hem=1360, length=980)
    desk.stations(number, "Front", panel, grain="bias", seam="1.5 cm")
    desk.stations(number, "Back", panel, grain="bias", seam="1.5 cm")
    desk.stations(number, "Strap", drafts.strip(420, 32), copies=2, grain="bias", smooth=False)
    return number


def _remnant(desk: _Desk) -> int:
    number = desk.garment("Bow ties and cuffs", "From the remnant, whole choir", ("cold-hand", "flat"))
    desk.cloth(
        number,
        name="Border-printed viscose, remnant",
        blend=[{"fibre": "viscose", "share": 100}],
        colouring="printed",
        place="Remnants, third drawer",
        flaws=[{"x": "52 cm", "y": "96 cm", "w": "3 cm", "h": "2 cm", "what": "ink spot"}],
        shop_fold="68,5 cm",
        border="low",
        border_kind="print",
        border_deep="27 cm",
        width_readings=["138.0 cm", "137.6 cm"],
        margin_low="0.8 cm",
        margin_high="0.8 cm",
        in_hand="85 cm",
        mass="115",
        depth="medium",
        ground="#D9C3C6",
        bars_across=[
            {"width": 240, "colour": "#8E3F52"},
            {"width": 20, "colour": "#D9C3C6"},
            {"width": 8, "colour": "#8E3F52"},
            {"width": 1112, "colour": "#D9C3C6"},
        ],
    )
    desk.stations(number, "Bow", drafts.strip(920, 150), copies=2, grain="crosswise", smooth=False, seam="1 cm")
    desk.stations(number, "Cuff", drafts.strip(230, 110), copies=4, smooth=False, seam="1 cm")
    # the cuffs carry the printed border, the ties keep off it
    desk.facts(number, Cuff={"grain": "crosswise", "border": "low", "border_at": 10.0})
    return number
