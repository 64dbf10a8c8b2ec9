"""Loading the demo through the same doors a user's data takes."""

from __future__ import annotations

import time
from typing import Any

from flask import Flask

from . import drafts


class DemoFailed(RuntimeError):
    """The demo's own data were refused; the message says where."""


class _Desk:
    """A person at the API."""

    def __init__(self, app: Flask) -> None:
        self.client = app.test_client()

    def ask(self, method: str, path: str, **body: Any) -> Any:
        answer = self.client.open(path, method=method, json=body or None, base_url="http://127.0.0.1")
        if answer.status_code >= 400:
            raise DemoFailed(f"{method} {path}: {answer.get_data(as_text=True)}")
        return answer.get_json()

    def project(self, name: str, note: str, care: tuple[str, str], gap: str = "3 mm", spare: str = "0") -> str:
        number = self.ask("POST", "/api/projects", name=name, note=note)["id"]
        self.ask("PATCH", f"/api/projects/{number}", wash=care[0], dry=care[1])
        self.ask("PATCH", f"/api/projects/{number}/lay", gap=gap)
        self.ask("PATCH", f"/api/projects/{number}/purchase", spare=spare)
        return f"/api/projects/{number}"

    def stations(self, path: str, name: str, stations: drafts.Stations, **more: Any) -> None:
        self.ask(
            "POST",
            f"{path}/pieces",
            name=name,
            stations=[{"along": a, "left": b, "right": c} for a, b, c in stations],
            **more,
        )

    def drawing(self, path: str, pieces: list[drafts.Drawn], title: str) -> None:
        told = self.ask("POST", f"{path}/pieces/svg", file_name=f"{title}.svg", svg=drafts.drawing(pieces, title))
        if told["not_read"]:
            raise DemoFailed(f"{title}: {told['not_read']}")

    def facts(self, path: str, **pieces: dict[str, Any]) -> None:
        """Facts of pieces that are there already, by name; words of a name are joined with ``_``."""
        for piece in self.ask("GET", path)["pieces"]:
            given = pieces.get(piece["name"].replace(" ", "_"))
            if given:
                self.ask("PATCH", f"/api/pieces/{piece['id']}", **given)

    def swatch(self, path: str, warp: list[list[str]], weft: list[list[str]], **more: Any) -> None:
        self.ask("PUT", f"{path}/swatch", warp=warp, weft=weft, **more)

    def beside(self, path: str, role: str, name: str, **facts: Any) -> int:
        """A lining or interfacing beside the main cloth; the number of the cloth."""
        told = self.ask("POST", f"{path}/set", name=name, role=role)
        number = int(next(m["cloth_id"] for m in told["set"]["members"] if m["name"] == name))
        self.ask("PATCH", f"/api/cloths/{number}", **facts)
        return number

    def tested(self, name: str, warp: str, weft: str, **facts: Any) -> None:
        """A remnant in the cupboard whose swatch was washed some time ago."""
        project = self.project("Test of " + name, "", ("40", "line"))
        self.ask("PATCH", f"{project}/cloth", name=name, **facts)
        self.swatch(project, [["25 cm", warp]] * 3, [["25 cm", weft]] * 3)
        number = self.ask("GET", project)["cloth"]["id"]
        self.ask("DELETE", project)
        self.ask("PATCH", f"/api/cloths/{number}", treated=True)


def load(app: Flask, *, lay_seconds: int = 2, wait: float = 60.0) -> None:
    """The choir's five garments. With workers, all but the remnant are laid too."""
    desk = _Desk(app)
    _cupboard(desk)
    projects = [_remnant(desk), _slip(desk), _waistcoat(desk), _overshirt(desk), _skirt(desk)]
    if app.config["POOL"] is None:
        return
    jobs = [desk.ask("POST", f"{path}/lays", seconds=lay_seconds)["id"] for path in projects[1:]]
    until = time.monotonic() + wait
    while jobs and time.monotonic() < until:
        time.sleep(0.2)
        jobs = [n for n in jobs if desk.ask("GET", f"/api/jobs/{n}")["state"] in ("waiting", "running")]


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


def _skirt(desk: _Desk) -> str:
    path = desk.project("Six-gore skirt", "Altos, autumn concert", ("40", "line"), gap="3 mm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
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
        path,
        [["25 cm", "24.0 cm"], ["25 cm", "24.1 cm"], ["25 cm", "24.0 cm"]],
        [["25 cm", "24.6 cm"], ["25 cm", "24.6 cm"], ["25 cm", "24.7 cm"]],
    )
    gore = drafts.gore(waist=740, hip=1020, hem=2100, length=720)
    # the bars across run round the skirt at one height: every gore begins the check at its hem
    desk.stations(path, "Gore", gore, copies=6, seam="1.5 cm", meets="round the skirt", meets_at="4 cm", hem=True)
    desk.stations(path, "Waistband", drafts.strip(780, 70), copies=1, smooth=False, seam="1 cm")
    desk.stations(
        path,
        "Pocket bag",
        [(0, 60, 60), (60, 85, 85), (180, 80, 80), (290, 45, 45)],
        copies=4,
        pair=True,
        seam="1 cm",
        hidden=True,
    )
    for kind, name, amount in (
        ("zip", "Zip, 18 cm, slate", "1"),
        ("hook", "Trouser hook", "1"),
        ("tape", "Cotton tape for the waist, 10 mm", "80 cm"),
    ):
        desk.ask("POST", f"{path}/list", kind=kind, name=name, amount=amount)
    return path


def _overshirt(desk: _Desk) -> str:
    path = desk.project("Boxy overshirt", "Tenors, autumn concert", ("40", "tumble-low"), gap="2 mm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
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
        path,
        [["25 cm", "23.8 cm", "23.5 cm"], ["25 cm", "23.8 cm", "23.5 cm"], ["25 cm", "23.9 cm", "23.6 cm"]],
        [["25 cm", "24.5 cm", "24.3 cm"], ["25 cm", "24.4 cm", "24.3 cm"], ["25 cm", "24.5 cm", "24.3 cm"]],
        diagonals=[["35,4 cm", "35,4 cm"], ["34,4 cm", "34,0 cm"], ["34,2 cm", "33,5 cm"]],
    )
    desk.beside(
        path,
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
    desk.drawing(path, drafts.overshirt(), "overshirt")
    desk.facts(
        path,
        Front={"centred": True, "hem": True},
        Back={"centred": True, "hem": True},
        Sleeve={"hem": True},
        Collar_stand={"hidden": True},
    )
    for name, width, price, more in (
        ("Linen stripe, narrow loom", "115 cm", "17,90", {"least": "50 cm"}),
        ("Linen stripe, washed at the mill", "140 cm", "23,00", {"warp": "2", "weft": "1,5", "step": "25 cm"}),
        ("Linen stripe, end of the roll", "150 cm", "15,00", {"stock": "1,40 m", "least": "1 m"}),
    ):
        desk.ask("POST", f"{path}/offers", name=name, width=width, price=price, **more)
    desk.ask("PATCH", f"{path}/envelope", **_envelope())
    desk.ask("PATCH", f"{path}/true", edge=["2,6 cm", "3,1 cm", "2,4 cm", "2,9 cm"])
    for offset, done in (("26 mm", ""), ("14 mm", "pin")):
        desk.ask("PATCH", f"{path}/true", now={"offset": offset, "side": "far", "done": done})
        desk.ask("POST", f"{path}/true/tests")
    desk.ask("POST", f"{path}/list", kind="button", name="Buttons, 15 mm, horn look", amount="9")
    return path


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


def _waistcoat(desk: _Desk) -> str:
    path = desk.project("Notched waistcoat", "Basses, autumn concert", ("30-gentle", "flat"), gap="4 mm", spare="5 cm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
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
    desk.swatch(path, [["25 cm", "24.1 cm"], ["25 cm", "24.2 cm"]], [["25 cm", "24.6 cm"], ["25 cm", "24.5 cm"]])
    desk.beside(
        path,
        "lining",
        "Lining twill, slate",
        blend=[{"fibre": "viscose", "share": 60}, {"fibre": "acetate", "share": 40}],
        weave="twill",
        ground="#66727F",
        width_readings=["138 cm", "138 cm", "137.8 cm"],
        in_hand="1,2 m",
        mass="90",
        depth="medium",
        rub_grade=5,
    )
    desk.drawing(path, drafts.waistcoat(), "waistcoat")
    desk.facts(path, Facing={"hidden": True}, Back_belt={"hidden": True})
    return path


def _slip(desk: _Desk) -> str:
    path = desk.project("Bias slip", "Sopranos, autumn concert", ("cold-hand", "flat"), gap="5 mm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
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
    desk.stations(path, "Front", panel, grain="bias", seam="1.5 cm")
    desk.stations(path, "Back", panel, grain="bias", seam="1.5 cm")
    desk.stations(path, "Strap", drafts.strip(420, 32), copies=2, grain="bias", smooth=False)
    return path


def _remnant(desk: _Desk) -> str:
    path = desk.project("Bow ties and cuffs", "From the remnant, whole choir", ("cold-hand", "flat"))
    desk.ask(
        "PATCH",
        f"{path}/cloth",
        name="Border-printed viscose, remnant",
        blend=[{"fibre": "viscose", "share": 100}],
        colouring="printed",
        place="Remnants, third drawer",
        flaws=[{"x": "52 cm", "y": "96 cm", "w": "3 cm", "h": "2 cm", "what": "ink spot"}],
        shop_fold="68,5 cm",
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
    desk.stations(path, "Bow", drafts.strip(920, 150), copies=2, grain="crosswise", smooth=False, seam="1 cm")
    desk.stations(path, "Cuff", drafts.strip(230, 110), copies=4, smooth=False, seam="1 cm")
    return path
