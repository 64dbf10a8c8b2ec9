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

    def swatch(self, path: str, warp: list[tuple[str, str]], weft: list[tuple[str, str]]) -> None:
        self.ask(
            "PUT",
            f"{path}/swatch",
            warp=[{"before": b, "after": a} for b, a in warp],
            weft=[{"before": b, "after": a} for b, a in weft],
        )


def load(app: Flask, *, lay_seconds: int = 2, wait: float = 60.0) -> None:
    """The choir's five garments. With workers, all but the remnant are laid too."""
    desk = _Desk(app)
    projects = [_remnant(desk), _slip(desk), _waistcoat(desk), _overshirt(desk), _skirt(desk)]
    if app.config["POOL"] is None:
        return
    jobs = [desk.ask("POST", f"{path}/lays", seconds=lay_seconds)["id"] for path in projects[1:]]
    until = time.monotonic() + wait
    while jobs and time.monotonic() < until:
        time.sleep(0.2)
        jobs = [n for n in jobs if desk.ask("GET", f"/api/jobs/{n}")["state"] in ("waiting", "running")]


def _skirt(desk: _Desk) -> str:
    path = desk.project("Six-gore skirt", "Altos, autumn concert", ("40", "line"), gap="3 mm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
        name="Windowpane check, yarn-dyed",
        kind="cotton",
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
        [("25 cm", "24.0 cm"), ("25 cm", "24.1 cm"), ("25 cm", "24.0 cm")],
        [("25 cm", "24.6 cm"), ("25 cm", "24.6 cm"), ("25 cm", "24.7 cm")],
    )
    gore = drafts.gore(waist=740, hip=1020, hem=2100, length=720)
    desk.stations(path, "Gore", gore, copies=6, seam="1.5 cm")
    desk.stations(path, "Waistband", drafts.strip(780, 70), copies=1, smooth=False, seam="1 cm")
    desk.stations(
        path, "Pocket bag", [(0, 60, 60), (60, 85, 85), (180, 80, 80), (290, 45, 45)], copies=4, pair=True, seam="1 cm"
    )
    return path


def _overshirt(desk: _Desk) -> str:
    path = desk.project("Boxy overshirt", "Tenors, autumn concert", ("40", "tumble-low"), gap="2 mm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
        name="Linen stripe, sand and slate",
        kind="linen",
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
        [("25 cm", "23.5 cm"), ("25 cm", "23.4 cm"), ("25 cm", "23.5 cm")],
        [("25 cm", "24.2 cm"), ("25 cm", "24.3 cm"), ("25 cm", "24.3 cm")],
    )
    desk.drawing(path, drafts.overshirt(), "overshirt")
    return path


def _waistcoat(desk: _Desk) -> str:
    path = desk.project("Notched waistcoat", "Basses, autumn concert", ("30-gentle", "flat"), gap="4 mm", spare="5 cm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
        name="Velveteen, bottle green",
        kind="velveteen",
        width_readings=["112.0 cm", "111.8 cm", "112.1 cm"],
        margin_low="1.5 cm",
        margin_high="1.4 cm",
        mass="290",
        price="24,00",
        one_way=True,
        depth="dark",
        ground="#2F5A4C",
    )
    desk.swatch(path, [("25 cm", "24.1 cm"), ("25 cm", "24.2 cm")], [("25 cm", "24.6 cm"), ("25 cm", "24.5 cm")])
    desk.drawing(path, drafts.waistcoat(), "waistcoat")
    return path


def _slip(desk: _Desk) -> str:
    path = desk.project("Bias slip", "Sopranos, autumn concert", ("cold-hand", "flat"), gap="5 mm")
    desk.ask(
        "PATCH",
        f"{path}/cloth",
        name="Crepe, harbour blue",
        kind="viscose",
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
        kind="viscose",
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
