"""A garment's life in any order: what is done, refused, taken back, done again, done in two windows, over restarts.

Whatever is asked, nothing answers 500, a refusal changes nothing, every stage can be looked at, and taking back shows
what was shown before.
"""

from __future__ import annotations

import os
import shutil
import sqlite3
import tempfile
from contextlib import closing
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any, ClassVar, Protocol

from hypothesis import HealthCheck, Phase, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule, run_state_machine_as_test

from idle_selvage.api.app import create_app
from idle_selvage.jobs import laying
from idle_selvage.store.data_file import FILE_NAME

from ..conftest import asks, data_of

#: So many lives of so many steps; ``make trust`` lives more.
LIVES, STEPS = int(os.environ.get("TRUST_LIVES", "4")), 20

#: Mostly what a person means, and now and then what cannot be meant.
LENGTHS = st.one_of(
    *[st.integers(50, 2000).map(lambda x: f"{x / 10:.1f} cm")] * 3,
    *[st.integers(20, 800).map(lambda x: f"{x / 8:.3f} in")] * 2,
    st.sampled_from(["", "0", "-1 cm", "90", "1 3/8 yd", "35,5 in", "0.1 mm", "40 m", "1e9", "cm", "½ in"]),
)
WIDTHS = st.one_of(*[st.integers(900, 1500).map(lambda x: f"{x / 10:.1f} cm")] * 4, st.just("44 1/2 in"), LENGTHS)
ALLOWANCES = st.one_of(*[st.integers(0, 30).map(lambda x: f"{x} mm")] * 3, st.sampled_from(["5/8 in", "1 cm"]), LENGTHS)
NAMES = st.one_of(
    st.sampled_from(["Rock", "Front", "=1+1", "<b>", "ß" * 40, "", " ", "x" * 300, "\u202eabc"]), st.text(max_size=12)
)
#: Every stage of a garment, and what is shown of all of them.
STAGES = (
    "", "/sheet", "/shrink", "/true", "/offers", "/list", "/strips", "/envelope", "/together", "/lay", "/match", "/cut",
    "/log", "/outcomes", "/trials?what=extras", "/lay-problem.json", "/list.csv", "/archive.zip",
)  # fmt: skip
ROUND_ABOUT = ("/projects", "/cloths", "/washday", "/log", "/log/lines", "/teaches", "/undo?project=1", "/log.csv")
#: What is told beside the thing itself: what could be done next, and when something was done.
BESIDE = ("log", "next", "changed_at")


def plain(shown: Any) -> Any:
    """An answer without what is told beside it."""
    if isinstance(shown, dict):
        return {name: plain(value) for name, value in shown.items() if name not in BESIDE}
    return [plain(one) for one in shown] if isinstance(shown, list) else shown


#: What is done, each as often as any other; undoing more often.
DEEDS = (
    "rename", "measure", "describe", "add_piece", "change_piece", "put_piece_away", "measure_swatch", "wish",
    "read_at_table", "sew", "buy", "line", "say", "wash", "in_two_windows", "undo", "undo", "undo", "redo", "redo",
    "lay", "restart", "choose_units", "away_and_back",
)  # fmt: skip


class Draw(Protocol):
    """Draws one example of a strategy."""

    def __call__(self, strategy: st.SearchStrategy[Any], /) -> Any: ...


@dataclass(frozen=True)
class Deed:
    """A deed of the garment that can be taken back: its change, and what was shown before and after it."""

    change: int
    before: Any
    after: Any = None


class Life(RuleBasedStateMachine):
    """One garment, its main cloth, and whoever works at them in two windows."""

    laid: ClassVar[Path]

    @initialize()
    def begin(self) -> None:
        self.home = Path(tempfile.mkdtemp(dir="/dev/shm" if Path("/dev/shm").is_dir() else None))
        shutil.copy(self.laid, self.home / FILE_NAME)
        self.open()
        # what was shown before each deed of the garment that can be taken back, and what was taken back
        self.done: list[Deed] = []
        self.undone: list[Deed] = []
        self.seen: Any = None
        self.looks = 0

    def open(self) -> None:
        self.app = create_app(self.home)
        self.client = asks(self.app)

    def teardown(self) -> None:
        if hasattr(self, "app"):
            data_of(self.app).close()
            shutil.rmtree(self.home, ignore_errors=True)

    def rows(self) -> str:
        with closing(sqlite3.connect(self.home / FILE_NAME)) as data:
            return "\n".join(data.iterdump())

    def ask(self, method: str, path: str, window: str = "one", **body: Any) -> tuple[int, Any]:
        """One request; never 500, and without a trace where it is refused."""
        before = self.rows() if method != "GET" else ""
        answer = self.client.open(
            f"/api{path}", method=method, json=body or None, base_url="http://127.0.0.1", headers={"X-Window": window}
        )
        told: Any = answer.get_json() if answer.is_json else answer.get_data()
        assert answer.status_code < 500, (method, path, body, told)
        if answer.status_code >= 400:
            assert told["message"].endswith((".", "?")), told
            assert not before or self.rows() == before, f"{method} {path} {body} was refused and changed something"
        elif method != "GET":
            self.seen = None
        return answer.status_code, told

    def shown(self) -> Any:
        """What the garment's stages show; asked for again only where something may have changed it."""
        if self.seen is None:
            self.seen = self.looked_at()
        return self.seen

    def looked_at(self) -> Any:
        return {path: plain(self.ask("GET", f"/projects/1{path}")[1]) for path in ("", "/shrink", "/list", "/true")}

    def last(self) -> int:
        return int((self.ask("GET", "/undo?project=1")[1]["back"] or {"change": 0})["change"])

    def deed(self, method: str, path: str, window: str = "one", **body: Any) -> int:
        """A deed at the garment, which can be taken back."""
        before, last = self.shown(), self.last()
        status, _ = self.ask(method, path, window, **body)
        now = self.last()
        if status < 400 and now != last:
            self.done.append(Deed(now, before))
            self.undone.clear()
        elif status < 400:
            assert self.shown() == before, "changed, and it cannot be taken back"
        return status

    def forget(self) -> None:
        """What is shown changed by something that is not of the garment's list."""
        self.done.clear()
        self.undone.clear()
        self.seen = None

    @invariant()
    def every_stage_can_be_looked_at(self) -> None:
        if not hasattr(self, "app"):
            return
        self.looks += 1
        paths = [f"/projects/1{stage}" for stage in STAGES] + list(ROUND_ABOUT)
        for path in (paths[self.looks % len(paths)], paths[(7 * self.looks) % len(paths)]):
            self.ask("GET", path)

    @rule(what=st.sampled_from(DEEDS), data=st.data())
    def live(self, what: str, data: st.DataObject) -> None:
        getattr(self, what)(data.draw)

    def rename(self, draw: Draw) -> None:
        self.deed("PATCH", "/projects/1", name=draw(NAMES))

    def measure(self, draw: Draw) -> None:
        self.deed("PATCH", "/projects/1/cloth", width_readings=draw(st.lists(WIDTHS, max_size=3)))
        self.deed("PATCH", "/projects/1/cloth", in_hand=draw(LENGTHS))

    def describe(self, draw: Draw) -> None:
        self.deed("PATCH", "/projects/1/cloth", margin_low=draw(ALLOWANCES))
        self.deed("PATCH", "/projects/1/cloth", price=draw(st.sampled_from(["12,50", "9.90", "-1", ""])))

    def add_piece(self, draw: Draw) -> None:
        wide, long = draw(LENGTHS), draw(LENGTHS)
        stations = [{"along": "0", "left": wide, "right": wide}, {"along": long, "left": wide, "right": "10 cm"}]
        how = {"smooth": draw(st.booleans()), "copies": draw(st.integers(1, 6))}
        self.deed("POST", "/projects/1/pieces", name=draw(NAMES), stations=stations, **how)

    def change_piece(self, draw: Draw) -> None:
        which = draw(st.integers(1, 3))
        self.deed("PATCH", f"/pieces/{which}", copies=draw(st.integers(1, 8)))
        self.deed("PATCH", f"/pieces/{which}", seam=draw(ALLOWANCES))

    def put_piece_away(self, draw: Draw) -> None:
        which = draw(st.integers(1, 3))
        self.deed("DELETE", f"/pieces/{which}")
        if draw(st.booleans()):
            self.deed("POST", f"/pieces/{which}/restore")

    def measure_swatch(self, draw: Draw) -> None:
        self.deed("PUT", "/projects/1/swatch", warp=[["25 cm", f"{draw(st.integers(200, 255))} mm"]] * 2)
        self.deed("PUT", "/projects/1/swatch", diagonals=[["35.4 cm", "35.2 cm"], [draw(LENGTHS), "34 cm"]])

    def wish(self, draw: Draw) -> None:
        self.deed("PATCH", "/projects/1/purchase", spare=draw(ALLOWANCES))
        school = draw(st.sampled_from(["mirror", "harder", "soak", "leave", "fit", "?"]))
        self.deed("PATCH", "/projects/1/treatment", school=school)

    def read_at_table(self, draw: Draw) -> None:
        self.deed("PATCH", "/projects/1/true", edge=draw(st.lists(ALLOWANCES, max_size=3)))
        now = {"offset": draw(ALLOWANCES), "side": draw(st.sampled_from(["near", "far"]))}
        if self.deed("PATCH", "/projects/1/true", now=now) < 400:
            self.deed("POST", "/projects/1/true/tests")

    def sew(self, draw: Draw) -> None:
        seams = [seam["id"] for seam in self.ask("GET", "/projects/1/match")[1]["seams"]]
        if seams:
            self.deed("PATCH", f"/seams/{seams[0]}", ease=draw(ALLOWANCES))
        if seams and draw(st.booleans()):
            self.deed("DELETE", f"/seams/{seams[0]}")

    def buy(self, draw: Draw) -> None:
        self.deed("POST", "/projects/1/offers", name=draw(NAMES), width=draw(WIDTHS), price="18")
        self.deed("POST", "/projects/1/list", kind="zip", name=draw(NAMES))

    def line(self, draw: Draw) -> None:
        self.deed("POST", "/projects/1/uses", name=draw(NAMES), role=draw(st.sampled_from(["lining", "trim"])))

    def say(self, draw: Draw) -> None:
        status, _ = self.ask("POST", "/log/notes", text=draw(NAMES), project=1)
        if status < 400:
            # a note is no deed to take back, and stands between
            self.undone.clear()

    def wash(self, draw: Draw) -> None:
        self.ask("POST", "/cloths/1/washes", how="40 °C", grade=4, length_after=draw(LENGTHS))
        self.forget()

    def in_two_windows(self, draw: Draw) -> None:
        """Another window changes the same; ours was shown what was before."""
        seen = self.ask("GET", "/news?since=0&wait=0")[1]["newest"]
        self.ask("PATCH", "/projects/1/purchase", "two", spare=draw(ALLOWANCES))
        before = self.rows()
        answer = self.client.patch(
            "/api/projects/1/purchase", json={"spare": draw(ALLOWANCES)}, base_url="http://127.0.0.1",
            headers={"X-Window": "one", "X-Seen": str(seen)},
        )  # fmt: skip
        assert answer.status_code < 500
        assert answer.status_code < 400 or self.rows() == before
        self.seen = None
        self.forget()

    def undo(self, _draw: Draw) -> None:
        last, after = self.last(), self.shown()
        status, told = self.ask("POST", "/undo?project=1")
        if status >= 400:
            assert told["code"] in ("not_ready", "changed_since")
        elif self.done and self.done[-1].change == last:
            deed = self.done.pop()
            assert self.shown() == deed.before, "taken back, and it is not as it was"
            self.undone.append(replace(deed, after=after))
        else:
            self.forget()

    def redo(self, _draw: Draw) -> None:
        status, told = self.ask("POST", "/redo?project=1")
        if status >= 400:
            assert told["code"] in ("not_ready", "changed_since")
        elif self.undone:
            deed = self.undone.pop()
            assert self.shown() == deed.after, "done again, and it is not as it had been"
            self.done.append(Deed(self.last(), deed.before, deed.after))
        else:
            self.forget()

    def lay(self, _draw: Draw) -> None:
        status, told = self.ask("POST", "/projects/1/lays", seconds=1)
        if status < 400:
            laying.run(data_of(self.app), int(told["id"]), 5)
            self.forget()

    def restart(self, _draw: Draw) -> None:
        before = self.shown()
        data_of(self.app).close()
        self.open()
        assert self.looked_at() == before, "after a restart something else is shown"

    def choose_units(self, draw: Draw) -> None:
        self.ask("PATCH", "/settings", system=draw(st.sampled_from(["metric", "imperial"])))
        self.forget()

    def away_and_back(self, draw: Draw) -> None:
        self.ask("DELETE", "/projects/1")
        if draw(st.booleans()):
            self.ask("DELETE", "/projects/1")
        self.ask("POST", "/projects/1/restore")
        self.forget()


def test_any_order_of_a_garment_s_life(laid_data: Path) -> None:
    Life.laid = laid_data
    run_state_machine_as_test(  # type: ignore[no-untyped-call]
        Life,
        settings=settings(
            max_examples=LIVES,
            stateful_step_count=STEPS,
            deadline=None,
            # a life takes seconds, and looking for the shortest that fails would take minutes
            phases=[Phase.explicit, Phase.generate],
            suppress_health_check=list(HealthCheck),
        ),
    )
