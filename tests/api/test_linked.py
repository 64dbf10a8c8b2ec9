"""Calls generated from the document, each with what an earlier one gave: a garment that was just begun, its pieces, its
jobs. The links are drawn here: the document holds none."""

from __future__ import annotations

import copy
import os
import shutil
import tempfile
from pathlib import Path
from typing import Any, ClassVar

import schemathesis
from hypothesis import HealthCheck, Phase, settings
from schemathesis.core.transport import Response
from schemathesis.generation.stateful import run_state_machine_as_test

from idle_selvage.api.services import Application, Services
from idle_selvage.store.data_file import FILE_NAME
from idle_selvage.store.database import Database

from ..conftest import asks
from .surface import DOCUMENT

#: So many runs of so many calls; ``make trust`` asks for more.
RUNS, CALLS = int(os.environ.get("TRUST_LINKED", "6")), 20
#: Which answer holds which number, and where in it.
GIVES = {
    "addProject": ("project_id", "/id"),
    "readProject": ("project_id", "/id"),
    "addPiece": ("piece_id", "/pieces/0/id"),
    "changeCloth": ("project_id", "/id"),
    "addUse": ("use_id", "/use_id"),
    "beginLay": ("job_id", "/id"),
    "addCloth": ("cloth_id", "/id"),
    "addWash": ("wash_id", "/washes/0/id"),
    "addOffer": ("offer_id", "/offers/0/id"),
    "addSeam": ("seam_id", "/seams/0/id"),
    "addTest": ("test_id", "/tests/0/id"),
}


def linked() -> dict[str, Any]:
    """The document, with a link from each answer that gives a number to everything that asks for such a one."""
    whole = copy.deepcopy(DOCUMENT)
    operations = [o for all_ in whole["paths"].values() for o in all_.values()]
    asks = {o["operationId"]: {p["name"] for p in o.get("parameters", []) if p["in"] == "path"} for o in operations}
    for operation in operations:
        for parameter in operation.get("parameters", []):
            if parameter["in"] == "path" and parameter["schema"].get("type") == "integer":
                # most of what is asked for is there
                parameter["schema"] |= {"minimum": 1, "maximum": 4}
        if operation["operationId"] not in GIVES:
            continue
        name, where = GIVES[operation["operationId"]]
        answer = next(told for status, told in operation["responses"].items() if status.startswith("2"))
        answer["links"] = {
            other: {"operationId": other, "parameters": {name: f"$response.body#{where}"}}
            for other, names in asks.items()
            if name in names
        }
    return whole


SCHEMA = schemathesis.openapi.from_dict(linked())


class Linked(SCHEMA.as_state_machine()):  # type: ignore[misc]
    """Runs through the API, each on data of its own in which there is one of everything."""

    application: ClassVar[Application]
    laid: ClassVar[Path]
    #: How often each status was answered.
    told: ClassVar[dict[int, int]] = {}

    def setup(self) -> None:
        self.home = Path(tempfile.mkdtemp(dir="/dev/shm" if Path("/dev/shm").is_dir() else None))
        shutil.copy(self.laid, self.home / FILE_NAME)
        self.database = Database(self.home)
        self.application.services = Services(self.database)
        self.client = asks(self.application)

    def teardown(self) -> None:
        self.database.close()
        shutil.rmtree(self.home, ignore_errors=True)

    def get_call_kwargs(self, case: schemathesis.Case[Any]) -> dict[str, Any]:
        return {"session": self.client, "app": self.application, "base_url": "http://127.0.0.1"}

    def validate_response(self, response: Response, case: schemathesis.Case[Any], **_more: Any) -> None:
        status = response.status_code
        self.told[status] = self.told.get(status, 0) + 1
        assert status < 500, (case.method, case.formatted_path, case.body, response.text[:300])
        if status >= 400:
            assert set(response.json()) == {"code", "message", "fields", "both"}, (case.formatted_path, response.text)


def test_what_one_call_gives_the_next_may_ask_for(laid_data: Path, application: Application) -> None:
    SCHEMA.app = application
    Linked.application, Linked.laid = application, laid_data
    before = application.services
    try:
        run_state_machine_as_test(
            Linked,
            settings=settings(
                max_examples=RUNS,
                stateful_step_count=CALLS,
                deadline=None,
                phases=[Phase.explicit, Phase.generate],
                suppress_health_check=list(HealthCheck),
            ),
        )
    finally:
        application.services = before
    assert sum(Linked.told.values()) > RUNS and any(status < 300 for status in Linked.told)
