"""Several cloths a garment, cloths with states, things known by id; readings, flaws and bars in rows, the log as events

Everything is read from the old tables, the old tables go, the new ones are made and filled, all in one transaction.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterable
from datetime import datetime
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

Row = dict[str, Any]

#: What is made anew; photos, steps of loads and settings stay as they are.
_OLD = (
    "buy_sheet", "cloth", "job", "lay", "log_entry", "offer", "piece", "project", "set_cloth", "swatch", "trial",
    "true_sheet", "true_test", "wash", "wash_load",
)  # fmt: skip

_TABLES = """
CREATE TABLE cloth (
    id INTEGER NOT NULL,
    name VARCHAR(120) NOT NULL,
    blend JSON DEFAULT '[]' NOT NULL,
    weave VARCHAR(20) DEFAULT 'plain' NOT NULL,
    finish VARCHAR(20) DEFAULT '' NOT NULL,
    colouring VARCHAR(20) DEFAULT '' NOT NULL,
    "like" VARCHAR(30) DEFAULT '' NOT NULL,
    margin_low DOUBLE NOT NULL,
    margin_high DOUBLE NOT NULL,
    mass DOUBLE,
    price DOUBLE,
    price_unit VARCHAR(2) NOT NULL,
    direction VARCHAR(10) DEFAULT 'none' NOT NULL,
    pile VARCHAR(5) DEFAULT '' NOT NULL,
    pile_why VARCHAR(120) DEFAULT '' NOT NULL,
    wales DOUBLE,
    face VARCHAR(120) DEFAULT '' NOT NULL,
    face_mark VARCHAR(120) DEFAULT '' NOT NULL,
    reversible BOOLEAN DEFAULT '0' NOT NULL,
    depth VARCHAR(10) NOT NULL,
    rub_grade INTEGER,
    ground VARCHAR(7) NOT NULL,
    answers JSON DEFAULT '{}' NOT NULL,
    style_number VARCHAR(120) DEFAULT '' NOT NULL,
    place VARCHAR(120) DEFAULT '' NOT NULL,
    created_at DATETIME NOT NULL,
    deleted_at DATETIME,
    CONSTRAINT pk_cloth PRIMARY KEY (id)
);
CREATE INDEX ix_cloth_like ON cloth ("like");
CREATE TABLE lay_problem (
    fingerprint VARCHAR(16) NOT NULL,
    problem JSON NOT NULL,
    created_at DATETIME NOT NULL,
    CONSTRAINT pk_lay_problem PRIMARY KEY (fingerprint)
);
CREATE TABLE project (
    id INTEGER NOT NULL,
    name VARCHAR(120) NOT NULL,
    note TEXT NOT NULL,
    wash VARCHAR(20) NOT NULL,
    dry VARCHAR(20) NOT NULL,
    created_at DATETIME NOT NULL,
    deleted_at DATETIME,
    CONSTRAINT pk_project PRIMARY KEY (id)
);
CREATE TABLE wash_load (
    id INTEGER NOT NULL,
    name TEXT NOT NULL,
    why TEXT NOT NULL,
    kilograms DOUBLE NOT NULL,
    metres DOUBLE NOT NULL,
    too_heavy BOOLEAN NOT NULL,
    created_at DATETIME NOT NULL,
    CONSTRAINT pk_wash_load PRIMARY KEY (id)
);
CREATE TABLE cloth_use (
    id INTEGER NOT NULL,
    project_id INTEGER NOT NULL,
    cloth_id INTEGER NOT NULL,
    role VARCHAR(20) NOT NULL,
    school VARCHAR(10) NOT NULL,
    gap DOUBLE NOT NULL,
    folds JSON NOT NULL,
    lay_seconds DOUBLE NOT NULL,
    ends DOUBLE NOT NULL,
    spare DOUBLE NOT NULL,
    shop_step DOUBLE NOT NULL,
    edge_way VARCHAR(10) NOT NULL,
    bought_extra DOUBLE NOT NULL,
    extra_why VARCHAR(120) NOT NULL,
    first_end DOUBLE,
    cut_off DOUBLE NOT NULL,
    created_at DATETIME NOT NULL,
    deleted_at DATETIME,
    CONSTRAINT pk_cloth_use PRIMARY KEY (id),
    CONSTRAINT fk_cloth_use_project_id_project FOREIGN KEY(project_id) REFERENCES project (id),
    CONSTRAINT fk_cloth_use_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id)
);
CREATE INDEX ix_cloth_use_cloth_id ON cloth_use (cloth_id);
CREATE INDEX ix_cloth_use_project_id ON cloth_use (project_id);
CREATE TABLE list_item (
    id INTEGER NOT NULL,
    project_id INTEGER NOT NULL,
    kind VARCHAR(20) NOT NULL,
    name VARCHAR(120) NOT NULL,
    amount VARCHAR(120) NOT NULL,
    deleted_at DATETIME,
    CONSTRAINT pk_list_item PRIMARY KEY (id),
    CONSTRAINT fk_list_item_project_id_project FOREIGN KEY(project_id) REFERENCES project (id)
);
CREATE INDEX ix_list_item_project_id ON list_item (project_id);
CREATE TABLE list_tick (
    project_id INTEGER NOT NULL,
    line VARCHAR(30) NOT NULL,
    CONSTRAINT pk_list_tick PRIMARY KEY (project_id, line),
    CONSTRAINT fk_list_tick_project_id_project FOREIGN KEY(project_id) REFERENCES project (id)
);
CREATE TABLE load_cloth (
    load_id INTEGER NOT NULL,
    cloth_id INTEGER NOT NULL,
    position INTEGER NOT NULL,
    name VARCHAR(160) NOT NULL,
    garment VARCHAR(120) NOT NULL,
    CONSTRAINT pk_load_cloth PRIMARY KEY (load_id, cloth_id),
    CONSTRAINT fk_load_cloth_load_id_wash_load FOREIGN KEY(load_id) REFERENCES wash_load (id) ON DELETE CASCADE,
    CONSTRAINT fk_load_cloth_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id) ON DELETE CASCADE
);
CREATE TABLE piece (
    id INTEGER NOT NULL,
    project_id INTEGER NOT NULL,
    name VARCHAR(120) NOT NULL,
    outline JSON NOT NULL,
    stations JSON NOT NULL,
    smooth BOOLEAN NOT NULL,
    half BOOLEAN NOT NULL,
    meets VARCHAR(40) DEFAULT '' NOT NULL,
    meets_at DOUBLE DEFAULT '0.0' NOT NULL,
    centred BOOLEAN DEFAULT '0' NOT NULL,
    hem BOOLEAN DEFAULT '0' NOT NULL,
    created_at DATETIME NOT NULL,
    deleted_at DATETIME,
    CONSTRAINT pk_piece PRIMARY KEY (id),
    CONSTRAINT fk_piece_project_id_project FOREIGN KEY(project_id) REFERENCES project (id)
);
CREATE INDEX ix_piece_project_id ON piece (project_id);
CREATE TABLE swatch (
    id INTEGER NOT NULL,
    cloth_id INTEGER NOT NULL,
    graduation DOUBLE NOT NULL,
    used BOOLEAN DEFAULT '1' NOT NULL,
    simulated BOOLEAN DEFAULT '0' NOT NULL,
    updated_at DATETIME NOT NULL,
    CONSTRAINT pk_swatch PRIMARY KEY (id),
    CONSTRAINT fk_swatch_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id) ON DELETE CASCADE
);
CREATE INDEX ix_swatch_cloth_id ON swatch (cloth_id);
CREATE TABLE trial (
    fingerprint VARCHAR(16) NOT NULL,
    lays JSON NOT NULL,
    why TEXT NOT NULL,
    wide JSON NOT NULL,
    seconds DOUBLE NOT NULL,
    created_at DATETIME NOT NULL,
    CONSTRAINT pk_trial PRIMARY KEY (fingerprint),
    CONSTRAINT fk_trial_fingerprint_lay_problem FOREIGN KEY(fingerprint) REFERENCES lay_problem (fingerprint)
);
CREATE TABLE buy_sheet (
    use_id INTEGER NOT NULL,
    envelope JSON NOT NULL,
    strips JSON NOT NULL,
    CONSTRAINT pk_buy_sheet PRIMARY KEY (use_id),
    CONSTRAINT fk_buy_sheet_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id)
);
CREATE TABLE cut (
    id INTEGER NOT NULL,
    piece_id INTEGER NOT NULL,
    use_id INTEGER NOT NULL,
    copies INTEGER NOT NULL,
    pair BOOLEAN NOT NULL,
    on_fold BOOLEAN NOT NULL,
    grain VARCHAR(12) NOT NULL,
    one_way BOOLEAN NOT NULL,
    seam DOUBLE NOT NULL,
    shorter DOUBLE NOT NULL,
    hidden BOOLEAN NOT NULL,
    border VARCHAR(4) NOT NULL,
    border_at DOUBLE NOT NULL,
    CONSTRAINT pk_cut PRIMARY KEY (id),
    CONSTRAINT uq_cut_piece_id UNIQUE (piece_id, use_id),
    CONSTRAINT fk_cut_piece_id_piece FOREIGN KEY(piece_id) REFERENCES piece (id) ON DELETE CASCADE,
    CONSTRAINT fk_cut_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id) ON DELETE CASCADE
);
CREATE INDEX ix_cut_piece_id ON cut (piece_id);
CREATE INDEX ix_cut_use_id ON cut (use_id);
CREATE TABLE job (
    id INTEGER NOT NULL,
    use_id INTEGER NOT NULL,
    kind VARCHAR(20) NOT NULL,
    state VARCHAR(12) NOT NULL,
    fingerprint VARCHAR(16),
    params JSON NOT NULL,
    progress JSON NOT NULL,
    refused JSON NOT NULL,
    error TEXT NOT NULL,
    cancel BOOLEAN NOT NULL,
    spent DOUBLE NOT NULL,
    heartbeat DATETIME,
    created_at DATETIME NOT NULL,
    finished_at DATETIME,
    CONSTRAINT pk_job PRIMARY KEY (id),
    CONSTRAINT fk_job_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id),
    CONSTRAINT fk_job_fingerprint_lay_problem FOREIGN KEY(fingerprint) REFERENCES lay_problem (fingerprint)
);
CREATE INDEX ix_job_state ON job (state);
CREATE INDEX ix_job_use_id ON job (use_id);
CREATE TABLE log_entry (
    id INTEGER NOT NULL,
    project_id INTEGER,
    use_id INTEGER,
    cloth_id INTEGER,
    at DATETIME NOT NULL,
    stage VARCHAR(10) NOT NULL,
    kind VARCHAR(30) NOT NULL,
    "values" JSON NOT NULL,
    "before" JSON NOT NULL,
    "after" JSON NOT NULL,
    CONSTRAINT pk_log_entry PRIMARY KEY (id),
    CONSTRAINT fk_log_entry_project_id_project FOREIGN KEY(project_id) REFERENCES project (id),
    CONSTRAINT fk_log_entry_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id),
    CONSTRAINT fk_log_entry_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id)
);
CREATE INDEX ix_log_entry_cloth_id ON log_entry (cloth_id);
CREATE INDEX ix_log_entry_project_id ON log_entry (project_id);
CREATE TABLE offer (
    id INTEGER NOT NULL,
    use_id INTEGER NOT NULL,
    name VARCHAR(120) NOT NULL,
    width DOUBLE NOT NULL,
    margin DOUBLE NOT NULL,
    price DOUBLE,
    price_unit VARCHAR(2) NOT NULL,
    warp DOUBLE,
    weft DOUBLE,
    step DOUBLE NOT NULL,
    least DOUBLE NOT NULL,
    stock DOUBLE,
    shop_number VARCHAR(20) NOT NULL,
    deleted_at DATETIME,
    CONSTRAINT pk_offer PRIMARY KEY (id),
    CONSTRAINT fk_offer_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id)
);
CREATE INDEX ix_offer_use_id ON offer (use_id);
CREATE TABLE shared_purchase (
    use_id INTEGER NOT NULL,
    other_id INTEGER NOT NULL,
    CONSTRAINT pk_shared_purchase PRIMARY KEY (use_id, other_id),
    CONSTRAINT fk_shared_purchase_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id) ON DELETE CASCADE,
    CONSTRAINT fk_shared_purchase_other_id_cloth_use FOREIGN KEY(other_id) REFERENCES cloth_use (id) ON DELETE CASCADE
);
CREATE TABLE trim_run (
    id INTEGER NOT NULL,
    use_id INTEGER NOT NULL,
    position INTEGER NOT NULL,
    what VARCHAR(120) NOT NULL,
    length DOUBLE NOT NULL,
    times INTEGER NOT NULL,
    CONSTRAINT pk_trim_run PRIMARY KEY (id),
    CONSTRAINT fk_trim_run_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id) ON DELETE CASCADE
);
CREATE INDEX ix_trim_run_use_id ON trim_run (use_id);
CREATE TABLE true_sheet (
    use_id INTEGER NOT NULL,
    now JSON NOT NULL,
    ripple VARCHAR(5) NOT NULL,
    bands JSON NOT NULL,
    school VARCHAR(5) NOT NULL,
    accepted BOOLEAN NOT NULL,
    CONSTRAINT pk_true_sheet PRIMARY KEY (use_id),
    CONSTRAINT fk_true_sheet_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id)
);
CREATE TABLE wash (
    id INTEGER NOT NULL,
    cloth_id INTEGER NOT NULL,
    at DATETIME NOT NULL,
    how VARCHAR(120) NOT NULL,
    grade INTEGER,
    simulated BOOLEAN NOT NULL,
    task_id INTEGER,
    deleted_at DATETIME,
    CONSTRAINT pk_wash PRIMARY KEY (id),
    CONSTRAINT fk_wash_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id) ON DELETE CASCADE,
    CONSTRAINT fk_wash_task_id_load_task FOREIGN KEY(task_id) REFERENCES load_task (id) ON DELETE SET NULL
);
CREATE INDEX ix_wash_cloth_id ON wash (cloth_id);
CREATE TABLE bar (
    id INTEGER NOT NULL,
    cloth_id INTEGER NOT NULL,
    wash_id INTEGER,
    way VARCHAR(6) NOT NULL,
    position INTEGER NOT NULL,
    width DOUBLE NOT NULL,
    colour VARCHAR(7) NOT NULL,
    "by" VARCHAR(8) NOT NULL,
    at DATETIME NOT NULL,
    CONSTRAINT pk_bar PRIMARY KEY (id),
    CONSTRAINT fk_bar_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id) ON DELETE CASCADE,
    CONSTRAINT fk_bar_wash_id_wash FOREIGN KEY(wash_id) REFERENCES wash (id) ON DELETE CASCADE
);
CREATE INDEX ix_bar_cloth_id ON bar (cloth_id);
CREATE TABLE flaw (
    id INTEGER NOT NULL,
    cloth_id INTEGER NOT NULL,
    wash_id INTEGER,
    position INTEGER NOT NULL,
    x DOUBLE NOT NULL,
    y DOUBLE NOT NULL,
    w DOUBLE NOT NULL,
    h DOUBLE NOT NULL,
    what VARCHAR(120) NOT NULL,
    "by" VARCHAR(8) NOT NULL,
    at DATETIME NOT NULL,
    CONSTRAINT pk_flaw PRIMARY KEY (id),
    CONSTRAINT fk_flaw_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id) ON DELETE CASCADE,
    CONSTRAINT fk_flaw_wash_id_wash FOREIGN KEY(wash_id) REFERENCES wash (id) ON DELETE CASCADE
);
CREATE INDEX ix_flaw_cloth_id ON flaw (cloth_id);
CREATE TABLE lay (
    id INTEGER NOT NULL,
    use_id INTEGER NOT NULL,
    job_id INTEGER,
    fold VARCHAR(20) NOT NULL,
    fingerprint VARCHAR(16) NOT NULL,
    lay JSON NOT NULL,
    basis JSON DEFAULT '{}' NOT NULL,
    chosen BOOLEAN NOT NULL,
    picked BOOLEAN NOT NULL,
    created_at DATETIME NOT NULL,
    CONSTRAINT pk_lay PRIMARY KEY (id),
    CONSTRAINT fk_lay_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id),
    CONSTRAINT fk_lay_job_id_job FOREIGN KEY(job_id) REFERENCES job (id),
    CONSTRAINT fk_lay_fingerprint_lay_problem FOREIGN KEY(fingerprint) REFERENCES lay_problem (fingerprint)
);
CREATE INDEX ix_lay_fingerprint ON lay (fingerprint);
CREATE INDEX ix_lay_use_id ON lay (use_id);
CREATE TABLE reading (
    id INTEGER NOT NULL,
    kind VARCHAR(8) NOT NULL,
    cloth_id INTEGER,
    wash_id INTEGER,
    swatch_id INTEGER,
    use_id INTEGER,
    piece_id INTEGER,
    place DOUBLE NOT NULL,
    nth INTEGER NOT NULL,
    value DOUBLE NOT NULL,
    "by" VARCHAR(8) NOT NULL,
    at DATETIME NOT NULL,
    CONSTRAINT pk_reading PRIMARY KEY (id),
    CONSTRAINT fk_reading_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id) ON DELETE CASCADE,
    CONSTRAINT fk_reading_wash_id_wash FOREIGN KEY(wash_id) REFERENCES wash (id) ON DELETE CASCADE,
    CONSTRAINT fk_reading_swatch_id_swatch FOREIGN KEY(swatch_id) REFERENCES swatch (id) ON DELETE CASCADE,
    CONSTRAINT fk_reading_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id) ON DELETE CASCADE,
    CONSTRAINT fk_reading_piece_id_piece FOREIGN KEY(piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
CREATE INDEX ix_reading_cloth_id ON reading (cloth_id);
CREATE INDEX ix_reading_swatch_id ON reading (swatch_id);
CREATE INDEX ix_reading_use_id ON reading (use_id);
CREATE INDEX ix_reading_wash_id ON reading (wash_id);
CREATE TABLE true_test (
    id INTEGER NOT NULL,
    use_id INTEGER NOT NULL,
    cloth_id INTEGER NOT NULL,
    wash_id INTEGER,
    at DATETIME NOT NULL,
    place DOUBLE NOT NULL,
    "offset" DOUBLE NOT NULL,
    bow DOUBLE NOT NULL,
    done VARCHAR(20) NOT NULL,
    "by" VARCHAR(8) NOT NULL,
    deleted_at DATETIME,
    CONSTRAINT pk_true_test PRIMARY KEY (id),
    CONSTRAINT fk_true_test_use_id_cloth_use FOREIGN KEY(use_id) REFERENCES cloth_use (id),
    CONSTRAINT fk_true_test_cloth_id_cloth FOREIGN KEY(cloth_id) REFERENCES cloth (id),
    CONSTRAINT fk_true_test_wash_id_wash FOREIGN KEY(wash_id) REFERENCES wash (id) ON DELETE SET NULL
);
CREATE INDEX ix_true_test_cloth_id ON true_test (cloth_id);
CREATE INDEX ix_true_test_use_id ON true_test (use_id)
"""

#: What a cloth that was said to be treated, with no wash written down, is said to have had.
_TREATED = "treated before it was written down"


def upgrade() -> None:
    data = op.get_bind()
    old = {table: _rows(data, table) for table in _OLD}
    for table in _OLD:
        op.execute(f"DROP TABLE {table}")
    for statement in _TABLES.split(";"):
        op.execute(statement)
    _Move(data, old).all()
    for verb in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER log_entry_no_{verb.lower()} BEFORE {verb} ON log_entry "
            "BEGIN SELECT RAISE(ABORT, 'the log only grows'); END"
        )


def downgrade() -> None:
    raise NotImplementedError("Going back would lose what was entered since; restore a backup instead.")


def _rows(data: Any, table: str) -> list[Row]:
    return [dict(row) for row in data.execute(sa.text(f"SELECT * FROM {table}")).mappings()]


def _json(value: Any) -> Any:
    return json.loads(value) if isinstance(value, str) else value


def _fingerprint(problem: Row) -> str:
    text = json.dumps(problem, sort_keys=True, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def _told_apart(names: Iterable[str]) -> list[str]:
    """How pieces of one name were told apart: “Front”, “Front (2)”."""
    names = list(names)
    taken, seen = set(names), set()
    out = []
    for name in names:
        told, number = name, 1
        while told in seen or (number > 1 and told in taken):
            number += 1
            told = f"{name} ({number})"
        seen.add(told)
        out.append(told)
    return out


class _Move:
    """From the old rows to the new ones."""

    def __init__(self, data: Any, old: dict[str, list[Row]]) -> None:
        self.data, self.old = data, old
        #: the main use of each project, and the use of each (project, cloth) beside it
        self.main: dict[int, int] = {}
        self.beside: dict[tuple[int, int], int] = {}
        #: the number of each piece by its project and the name it had in a lay
        self.pieces: dict[int, dict[str, int]] = {}
        self.projects = {row["id"]: row for row in old["project"]}
        self.problems: set[str] = set()
        #: the state each cloth is in: its last treatment
        self.state: dict[int, int] = {}

    def put(self, table: str, **row: Any) -> int:
        """One new row; lists and documents are kept as JSON."""
        kept = {k: json.dumps(v) if isinstance(v, list | dict) else v for k, v in row.items()}
        names = ", ".join(f'"{key}"' for key in kept)
        marks = ", ".join(f":{key}" for key in kept)
        found = self.data.execute(sa.text(f"INSERT INTO {table} ({names}) VALUES ({marks})"), kept)
        return int(found.lastrowid)

    def all(self) -> None:
        self.washes()
        self.cloths()
        self.garments()
        self.name_pieces()
        self.swatches()
        self.lays()
        self.table_readings()
        self.buy()
        self.log()

    # -- cloths and their states

    def washes(self) -> None:
        for row in self.old["wash"]:
            self.put("wash", **{k: v for k, v in row.items() if k not in ("length_after", "width_after")})

    def cloths(self) -> None:
        by_cloth: dict[int, list[Row]] = {}
        for wash in self.old["wash"]:
            by_cloth.setdefault(wash["cloth_id"], []).append(wash)
        gone = {"width_readings", "in_hand", "treated", "flaws", "bars", "shop_fold"}
        for row in self.old["cloth"]:
            self.put("cloth", **{k: v for k, v in row.items() if k not in gone})
            mine = by_cloth.get(row["id"], [])
            done = [w for w in mine if w["deleted_at"] is None and not w["simulated"]]
            state = None
            if row["treated"]:
                state = (
                    done[-1]["id"]
                    if done
                    else self.put("wash", cloth_id=row["id"], at=row["created_at"], how=_TREATED, simulated=False)
                )
            if state is not None or done:
                self.state[row["id"]] = state if state is not None else done[-1]["id"]
            self.measures(row, state)
            for wash in mine:
                by = "made up" if wash["simulated"] else "tape"
                # what was measured later, and said to be so, is the state's measure
                if wash["length_after"] is not None and not (wash["id"] == state and row["in_hand"] is not None):
                    self.reading("length", wash["length_after"], wash["at"], by, cloth_id=row["id"], wash_id=wash["id"])
                if wash["width_after"] is not None and not (wash["id"] == state and _json(row["width_readings"])):
                    self.reading("width", wash["width_after"], wash["at"], by, cloth_id=row["id"], wash_id=wash["id"])

    def measures(self, row: Row, state: int | None) -> None:
        where = {"cloth_id": row["id"], "wash_id": state}
        for place, value in enumerate(_json(row["width_readings"])):
            self.reading("width", value, row["created_at"], "tape", place=float(place), **where)
        if row["in_hand"] is not None:
            self.reading("length", row["in_hand"], row["created_at"], "tape", **where)
        if row["shop_fold"] is not None:
            self.reading("shopfold", row["shop_fold"], row["created_at"], "tape", **where)
        for place, flaw in enumerate(_json(row["flaws"])):
            size = {k: flaw[k] for k in ("x", "y", "w", "h")}
            what = flaw.get("what", "flaw")
            self.put("flaw", **where, **size, what=what, position=place, by="tape", at=row["created_at"])
        for way, bars in _json(row["bars"]).items():
            for place, bar in enumerate(bars):
                facts = {"width": bar["width"], "colour": bar["colour"], "by": "tape", "at": row["created_at"]}
                self.put("bar", **where, way=way, position=place, **facts)

    def reading(self, kind: str, value: float, at: Any, by: str = "tape", **more: Any) -> None:
        self.put("reading", **{"kind": kind, "value": value, "at": at, "by": by, "place": 0.0, "nth": 0, **more})

    def swatches(self) -> None:
        for row in self.old["swatch"]:
            kept = {k: v for k, v in row.items() if k not in ("warp", "weft", "diagonals")}
            self.put("swatch", **kept)

            def read(kind: str, place: int, nth: int, value: float | None, row: Row = row) -> None:
                if value is not None:
                    by = "made up" if row["simulated"] and nth else "tape"
                    at = row["updated_at"]
                    self.reading(kind, value, at, by, swatch_id=row["id"], place=float(place), nth=nth)

            for way in ("warp", "weft"):
                for place, marks in enumerate(_json(row[way])):
                    for nth, value in enumerate(marks):
                        read(way, place, nth, value)
            for nth, pair in enumerate(_json(row["diagonals"])):
                for kind, value in zip(("ac", "bd"), pair or (), strict=False):
                    read(kind, 0, nth, value)

    # -- garments, their cloths and pieces

    def garments(self) -> None:
        own = ("id", "name", "note", "wash", "dry", "created_at", "deleted_at")
        for row in self.old["project"]:
            self.put("project", **{k: row[k] for k in own})
            wishes = {k: v for k, v in row.items() if k not in own}
            self.main[row["id"]] = self.put(
                "cloth_use", **wishes, project_id=row["id"], role="main", created_at=row["created_at"]
            )
        for row in self.old["set_cloth"]:
            project = self.projects[row["project_id"]]
            # a second cloth is one of contrast now
            row = {**row, "role": "contrast" if row["role"] == "second" else row["role"]}
            wishes = {k: project[k] for k in ("school", "gap", "folds", "lay_seconds", "shop_step")}
            usual = {"ends": 100.0, "spare": 0.0, "edge_way": "", "bought_extra": 0.0, "extra_why": "", "cut_off": 0.0}
            self.beside[row["project_id"], row["cloth_id"]] = self.put(
                "cloth_use", **wishes, **usual, **row, created_at=project["created_at"]
            )
        cut = ("copies", "pair", "on_fold", "grain", "one_way", "seam", "hidden")
        for row in self.old["piece"]:
            self.put("piece", **{k: v for k, v in row.items() if k not in cut}, half=row["on_fold"])
            facts = {k: row[k] for k in cut}
            main = self.main[row["project_id"]]
            self.put("cut", piece_id=row["id"], use_id=main, **facts, shorter=0.0, border="", border_at=0.0)

    def name_pieces(self) -> None:
        for number in self.projects:
            rows = [row for row in self.old["piece"] if row["project_id"] == number]
            there = [row for row in rows if row["deleted_at"] is None]
            found = {row["name"]: row["id"] for row in rows}
            told = _told_apart(row["name"] for row in there)
            found.update(dict(zip(told, (row["id"] for row in there), strict=True)))
            self.pieces[number] = found

    # -- lays, jobs, trials

    def piece_of(self, project: int) -> Callable[[str], str]:
        """The id a piece of a project's lays is known by now; one nobody knows any more keeps its name."""
        names = self.pieces[project]
        return lambda name: str(names.get(name, name))

    def problem(self, problem: Row, of: Callable[[str], str], group: Callable[[str], str] = str) -> str:
        """Keep a problem once, its pieces by id; its fingerprint."""
        for piece in problem["pieces"]:
            for match in piece["match"]:
                name = match["group"]
                if name.startswith("pair of "):
                    match["group"] = f"pair of {of(name.removeprefix('pair of '))}"
                else:
                    match["group"] = group(name)
            piece["id"] = of(piece["id"])
        found = _fingerprint(problem)
        if found not in self.problems:
            self.problems.add(found)
            self.put("lay_problem", fingerprint=found, problem=problem, created_at=_NOW)
        return found

    def lay(self, lay: Row, of: Callable[[str], str]) -> Row:
        for part in ("laid", "cut", "left_over"):
            for entry in lay.get(part, []):
                entry["piece"] = of(entry["piece"])
        return lay

    def lays(self) -> None:
        trials = {row["fingerprint"]: row for row in self.old["trial"]}
        prints = self.trials(trials)
        for row in self.old["job"]:
            of = self.piece_of(row["project_id"])
            params, fingerprint = _json(row["params"]), None
            if "problem" in params:
                fingerprint = self.problem(params.pop("problem"), of)
            for one in params.get("trials", []):
                one.pop("problem", None)
                one["print"] = prints.get(one["print"], {}).get(row["project_id"], one["print"])
            refused = [[fold, of(piece), across, width] for fold, piece, across, width in _json(row["refused"])]
            kept = {k: v for k, v in row.items() if k not in ("project_id", "params", "refused")}
            use = self.main[row["project_id"]]
            self.put("job", **kept, use_id=use, params=params, refused=refused, fingerprint=fingerprint)
        for row in self.old["lay"]:
            of = self.piece_of(row["project_id"])
            fingerprint = self.problem(_json(row["problem"]), of)
            kept = {k: v for k, v in row.items() if k not in ("project_id", "problem", "lay", "fingerprint")}
            lay = self.lay(_json(row["lay"]), of)
            self.put("lay", **kept, use_id=self.main[row["project_id"]], lay=lay, fingerprint=fingerprint)

    def trials(self, trials: dict[str, Row]) -> dict[str, dict[int, str]]:
        """Trials by the garment they fit: one whose names several garments have is kept for each of them. Old
        fingerprint → project → new one."""
        found: dict[str, dict[int, str]] = {}
        for old, row in trials.items():
            names = {_plain(piece["id"]) for piece in _json(row["problem"])["pieces"]}
            for project, known in self.pieces.items():
                if names <= set(known):
                    found.setdefault(old, {})[project] = self.trial(row, self.piece_of(project))
            if old not in found and all(": " in name for name in names):
                shared = self.trial(row, self.of_shared, self.group_of_shared)
                found[old] = dict.fromkeys(self.projects, shared)
        return found

    def trial(self, row: Row, of: Callable[[str], str], group: Callable[[str], str] = str) -> str:
        def whole(name: str) -> str:
            plain = _plain(name)
            return of(plain) + name[len(plain) :]

        fingerprint = self.problem(_json(row["problem"]), whole, group)
        lays = [[fold, self.lay(lay, whole)] for fold, lay in _json(row["lays"])]
        wide = [[whole(piece), across, width] for piece, across, width in _json(row["wide"])]
        there = self.data.execute(
            sa.text("SELECT count(*) FROM trial WHERE fingerprint = :print"), {"print": fingerprint}
        ).scalar()
        if not there:
            kept = {k: v for k, v in row.items() if k not in ("problem", "lays", "wide", "fingerprint")}
            self.put("trial", **kept, fingerprint=fingerprint, lays=lays, wide=wide)
        return fingerprint

    def of_shared(self, name: str) -> str:
        """A piece of several garments laid together: “garment: piece”."""
        for number, project in self.projects.items():
            prefix = project["name"] + ": "
            if name.startswith(prefix) and name[len(prefix) :] in self.pieces[number]:
                return str(self.pieces[number][name[len(prefix) :]])
        return name

    def group_of_shared(self, name: str) -> str:
        for number, project in self.projects.items():
            if name.startswith(project["name"] + ": "):
                rest = name[len(project["name"]) + 2 :]
                if rest.startswith("pair of "):
                    rest = f"pair of {self.piece_of(number)(rest.removeprefix('pair of '))}"
                return f"{self.main[number]}: {rest}"
        return name

    # -- the table

    def table_readings(self) -> None:
        cloth = {row["id"]: row["cloth_id"] for row in self.old["project"]}
        chosen = {row["project_id"]: row for row in self.old["lay"] if row["chosen"]}
        for row in self.old["true_test"]:
            kept = {k: v for k, v in row.items() if k != "project_id"}
            self.put(
                "true_test",
                **kept,
                use_id=self.main[row["project_id"]],
                by="tape",
                wash_id=self.state.get(row["cloth_id"]),
            )
        for row in self.old["true_sheet"]:
            project = row["project_id"]
            use, at = self.main[project], self.projects[project]["created_at"]
            state = self.state.get(cloth[project]) if cloth[project] is not None else None
            kept = {k: row[k] for k in ("ripple", "bands", "school", "accepted")}
            read = _json(row["now"])
            self.put("true_sheet", **kept, now=json.dumps({**read, "wash_id": state} if read else {}), use_id=use)
            for place, value in enumerate(_json(row["edge"])):
                self.reading("edge", value, at, use_id=use, place=float(place))
            for kind in ("fold", "bars"):
                for nth, (place, value) in enumerate(_json(row[kind])):
                    self.reading(kind.rstrip("s"), value, at, use_id=use, wash_id=state, place=place, nth=nth)
            for key, (tail, head) in _json(row["checks"]).items():
                name, _, copy = key.rpartition("·")
                number = self.pieces[project].get(name)
                if number is None or project not in chosen or cloth[project] is None:
                    continue
                for kind, value in (("tail", tail), ("head", head)):
                    if value is not None:
                        self.reading(kind, value, at, use_id=use, wash_id=state, piece_id=number, nth=int(copy))

    # -- Buy and the washing day

    def buy(self) -> None:
        for row in self.old["offer"]:
            kept = {k: v for k, v in row.items() if k != "project_id"}
            self.put("offer", **kept, use_id=self.main[row["project_id"]])
        for row in self.old["buy_sheet"]:
            project = row["project_id"]
            use = self.main[project]
            self.put("buy_sheet", use_id=use, envelope=row["envelope"], strips=row["strips"])
            for other in _json(row["together"]):
                if other in self.main:
                    self.put("shared_purchase", use_id=use, other_id=self.main[other])
            lines = {"cloth": f"use-{use}"}
            for item in _json(row["items"]):
                facts = {k: item[k] for k in ("kind", "name", "amount")}
                lines[item["id"]] = f"own-{self.put('list_item', project_id=project, **facts)}"
            for line in _json(row["have"]):
                if line.startswith("set-"):
                    beside = self.beside.get((project, int(line.removeprefix("set-"))))
                    lines[line] = f"use-{beside}"
                self.put("list_tick", project_id=project, line=lines.get(line, line))
        for row in self.old["wash_load"]:
            self.put("wash_load", **{k: v for k, v in row.items() if k != "cloths"})
            for place, cloth in enumerate(_json(row["cloths"])):
                facts = {"name": cloth["name"], "garment": cloth["project"]}
                self.put("load_cloth", load_id=row["id"], cloth_id=cloth["id"], position=place, **facts)

    # -- the log

    def log(self) -> None:
        cloths = {row["id"] for row in self.old["cloth"]}
        for row in self.old["log_entry"]:
            values = {"what": row["what"], **_json(row["detail"])}
            cloth = values.get("cloth") if values.get("cloth") in cloths else None
            kept = {k: row[k] for k in ("id", "project_id", "at", "stage")}
            self.put("log_entry", **kept, cloth_id=cloth, kind="told", values=values, before={}, after={})


def _plain(name: str) -> str:
    """The name of a piece without the part of it that a join made."""
    for part in (", lower part", ", upper part"):
        name = name.removesuffix(part)
    return name


#: When a problem was asked was not kept; the lay says when it was found.
_NOW = datetime(2000, 1, 1).isoformat(sep=" ")
