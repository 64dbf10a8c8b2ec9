"""Made-up houses of a given size for the measurements of requests."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from flask.testing import FlaskClient
from sqlalchemy import insert

from idle_selvage.api.app import create_app
from idle_selvage.api.memory import settle
from idle_selvage.core.cloth.make import FIBRES
from idle_selvage.operations.project import create_garment
from idle_selvage.store import models
from idle_selvage.store.database import Database

_SLEEVE = [
    {"along": "0", "left": "12", "right": "12"},
    {"along": "40", "left": "18", "right": "18"},
    {"along": "48", "left": "14", "right": "14"},
    {"along": "55", "left": "1", "right": "1"},
]


class House:
    """An application on a home of its own; ``garment`` is the number of the one that has pieces and a log."""

    def __init__(self, home: Path, *, pieces: int = 10, projects: int = 5, cloths: int = 10, lines: int = 100) -> None:
        self.database = Database(home)
        self.database.migrate()
        self.app = create_app(home, database=self.database)
        self.client: FlaskClient = self.app.test_client()
        self.garment = int(self.ask("POST", "/projects", name="Skirt")["id"])
        self._tell(pieces)
        with self.database.begin() as session:
            for n in range(projects - 1):
                create_garment(session, f"Garment {n + 2}", "")
            fibres = sorted(FIBRES)
            for n in range(max(0, cloths - projects)):
                session.add(
                    models.Cloth(name=f"Length {n + 1}", blend=[[fibres[n % len(fibres)], 100.0]], place="chest")
                )
        with self.database.begin() as session:
            line: dict[str, Any] = {"project_id": self.garment, "stage": "cloth", "kind": "lay-kept"}
            session.execute(insert(models.LogEntry), [line] * lines)
        # as the server does once it has started
        settle()

    def _tell(self, pieces: int) -> None:
        at = f"/projects/{self.garment}"
        self.ask(
            "PATCH",
            f"{at}/cloth",
            name="Linen",
            blend=[{"fibre": "linen", "share": 100}],
            width_readings=["112 cm", "112.2 cm", "111.9"],
            margin_low="1 cm",
            margin_high="1 cm",
            in_hand="6 m",
            price="12,50",
        )
        self.ask("PUT", f"{at}/swatch", warp=[["25 cm", "23.5 cm"]] * 3, weft=[["25", "24.5"]] * 3)
        for n in range(pieces):
            self.ask(
                "POST", f"{at}/pieces", name=f"Piece {n + 1}", stations=_SLEEVE, copies=2, pair=True, seam="1.5 cm"
            )

    def ask(self, method: str, path: str, **body: Any) -> Any:
        """One request that must be answered; what it says."""
        answer = self.client.open(f"/api{path}", method=method, json=body or None, base_url="http://127.0.0.1")
        assert answer.status_code < 400, answer.get_data(as_text=True)
        return answer.get_json()

    def close(self) -> None:
        self.database.close()
