"""The command line, run as a person would."""

from __future__ import annotations

import json
import os
import signal
import sqlite3
import subprocess
import sys
import time
import urllib.error
import urllib.parse
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import pytest
from tools.own_page import asking

from idle_selvage.cli import main
from idle_selvage.core.lay.check import check_lay
from idle_selvage.serving import lan_addresses
from idle_selvage.store.data_file import FILE_NAME
from idle_selvage.store.database import Database

from ..core.lay.lay_cases import problem, rectangle, shirt


def write(path: Path, data: Any) -> str:
    path.write_text(json.dumps(data))
    return str(path)


def test_lay_writes_a_checked_lay_and_a_drawing(tmp_path: Path) -> None:
    asked = write(tmp_path / "p.json", shirt())
    out, svg = tmp_path / "lay.json", tmp_path / "lay.svg"
    assert main(["lay", asked, "--steps", "60", "--seed", "3", "--out", str(out), "--svg", str(svg)]) == 0
    lay = json.loads(out.read_text())
    assert check_lay(shirt(), lay) == [] and lay["seed"] == 3
    assert svg.read_text().startswith("<?xml")
    again = tmp_path / "again.json"
    main(["lay", asked, "--steps", "60", "--seed", "3", "--out", str(again)])
    assert json.loads(again.read_text())["cut"] == lay["cut"]


def test_lay_writes_to_standard_output_and_is_quiet_in_a_pipe(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["lay", write(tmp_path / "p.json", problem([rectangle("a", 100, 50)])), "--steps", "5"]) == 0
    told = capsys.readouterr()
    assert json.loads(told.out)["complete"] and told.err == ""


def test_pieces_left_over_are_status_3(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    asked = write(tmp_path / "p.json", problem([rectangle("a", 300, 600, copies=3)], length=700.0))
    assert main(["lay", asked, "--steps", "20"]) == 3
    told = capsys.readouterr()
    assert "Left over: 1 × a." in told.err and "900 mm" in told.err
    assert json.loads(told.out)["left_over"] == [{"piece": "a", "copies": 1}]


def test_progress_is_told_in_a_pipe_when_asked_for(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    asked = write(tmp_path / "p.json", shirt())
    out = tmp_path / "lay.json"
    assert main(["lay", asked, "--steps", "300", "--workers", "1", "--progress", "--out", str(out)]) == 0
    lines = capsys.readouterr().err.splitlines()
    assert lines and all("not under" in line and " cm " in line for line in lines)
    with pytest.raises(SystemExit):
        main(["lay", asked, "--workers", "9"])
    assert "give 1 or 2" in capsys.readouterr().err


def test_the_checker_alone_judges_a_lay(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    asked, out = write(tmp_path / "p.json", shirt()), tmp_path / "lay.json"
    main(["lay", asked, "--steps", "60", "--out", str(out)])
    assert main(["lay", "--check", asked, str(out)]) == 0
    assert "Sound: 9 pieces" in capsys.readouterr().out
    lay = json.loads(out.read_text())
    lay["cut"][0]["x"] += 40
    assert main(["lay", "--check", asked, write(tmp_path / "moved.json", lay)]) == 1
    assert "nowhere pinned" in capsys.readouterr().err
    assert main(["lay", "--check", asked]) == 2 and "needs the lay as well" in capsys.readouterr().err
    assert main(["lay", "--check", asked, asked]) == 2 and "is not a lay" in capsys.readouterr().err
    assert main(["lay", asked, str(out)]) == 2 and "only read with --check" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("data", "lines"),
    [
        (problem([rectangle("a", 100, 50, copies=3, pair=True)]), ["even number of copies"]),
        (
            problem([{"id": "x", "outline": [[0, 0], [9, 9], [9, 0], [0, 9]]}], folds=["origami"]),
            ["origami", "crosses"],
        ),
        (problem([rectangle("a", 100, 5000)]), ["in every turn"]),
        ({"format": "?", "colour": 1}, ["format", "unknown key", "cloth", "number", "pieces"]),
    ],
)
def test_bad_input_is_status_2_with_a_sentence_per_fault(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], data: Any, lines: list[str]
) -> None:
    assert main(["lay", write(tmp_path / "p.json", data)]) == 2
    told = capsys.readouterr().err.splitlines()
    assert len(told) == len(lines) and all(word in line for word, line in zip(lines, told, strict=True)), told


def test_files_that_are_not_there(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["lay", str(tmp_path / "none.json")]) == 2
    assert "no file" in capsys.readouterr().err
    asked = write(tmp_path / "p.json", problem([rectangle("a", 100, 50)]))
    assert main(["lay", asked, "--steps", "1", "--out", str(tmp_path / "no" / "where.json")]) == 2
    assert "could not be written" in capsys.readouterr().err


@pytest.mark.parametrize("command", ["serve", "demo", "lay", "tape", "backup", "restore"])
def test_every_command_has_help(command: str, capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit) as ended:
        main([command, "--help"])
    assert ended.value.code == 0 and "usage: idle-selvage" in capsys.readouterr().out


@pytest.mark.parametrize(
    "words",
    [["serve", "--port", "x"], ["lay"], ["lay", "p", "--seconds", "-1"], ["dance"], ["lay", "p", "--steps", "1.5"]],
)
def test_wrong_words_are_status_2(words: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit) as ended:
        main(words)
    assert ended.value.code == 2 and "usage" in capsys.readouterr().err


@pytest.fixture
def served(tmp_path: Path) -> Iterator[tuple[subprocess.Popen[str], str, Path]]:
    """The real server in its own process on a free port."""
    home = tmp_path / "home"
    server = subprocess.Popen(
        [sys.executable, "-m", "idle_selvage.cli", "serve", "--port", "0", "--home", str(home)],
        stdout=subprocess.PIPE,
        text=True,
    )
    assert server.stdout is not None
    line = server.stdout.readline()
    address = next(word for word in line.split() if word.startswith("http"))
    yield server, address, home
    server.kill()
    server.wait()


@contextmanager
def served_again(home: Path) -> Iterator[str]:
    """The address of a new server on the same data."""
    again = subprocess.Popen(
        [sys.executable, "-m", "idle_selvage.cli", "serve", "--port", "0", "--home", str(home)],
        stdout=subprocess.PIPE,
        text=True,
    )
    try:
        assert again.stdout is not None
        yield next(word for word in again.stdout.readline().split() if word.startswith("http"))
    finally:
        again.kill()
        again.wait()


def ask(address: str, path: str, method: str = "GET", **body: Any) -> Any:
    request = urllib.request.Request(
        f"{address}api{path}",
        method=method,
        data=json.dumps(body).encode() if body else None,
        headers=asking(address) if method != "GET" else {},
    )
    with urllib.request.urlopen(request, timeout=20) as answer:
        return json.load(answer)


def test_what_was_confirmed_survives_a_kill(served: tuple[subprocess.Popen[str], str, Path]) -> None:
    server, address, home = served
    for n in range(12):
        ask(address, "/projects", "POST", name=f"Project {n}")
    # killed without warning, right after the last answer
    server.send_signal(signal.SIGKILL)
    server.wait()
    with sqlite3.connect(home / FILE_NAME) as data:
        assert data.execute("SELECT count(*) FROM project").fetchone() == (12,)


def test_backup_while_serving_restore_and_one_server_per_folder(
    served: tuple[subprocess.Popen[str], str, Path], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    server, address, home = served
    ask(address, "/projects", "POST", name="Kept")
    copy = tmp_path / "copy.sqlite3"
    assert main(["backup", "--home", str(home), str(copy)]) == 0
    assert main(["backup", "--home", str(home), str(copy)]) == 2, "a backup never overwrites"
    assert main(["restore", "--home", str(home), str(copy)]) == 2
    assert f"in use by a running server at {address}" in capsys.readouterr().err
    assert main(["serve", "--home", str(home), "--port", "0"]) == 2
    ask(address, "/projects", "POST", name="Lost")
    server.terminate()
    assert server.wait(timeout=60) == 0, "a stop that was asked for is no failure"
    assert main(["restore", "--home", str(home), str(copy)]) == 0
    assert "before-restore-1" in capsys.readouterr().out
    with sqlite3.connect(home / FILE_NAME) as data:
        assert data.execute("SELECT name FROM project").fetchall() == [("Kept",)]
    with sqlite3.connect(home / "before-restore-1.sqlite3") as data:
        assert len(data.execute("SELECT name FROM project").fetchall()) == 2


def test_a_lay_by_hand_keeps_every_gesture_over_a_kill_in_the_middle_of_a_drag(
    served: tuple[subprocess.Popen[str], str, Path],
) -> None:
    server, address, home = served
    number = ask(address, "/projects", "POST", name="Skirt")["id"]
    facts = {"width_readings": ["140"] * 3, "blend": [{"fibre": "linen", "share": 100}]}
    ask(address, f"/projects/{number}/cloth", "PATCH", **facts)
    gore = [{"along": "0", "left": "20", "right": "20"}, {"along": "70", "left": "9", "right": "9"}]
    ask(address, f"/projects/{number}/pieces", "POST", name="Gore", stations=gore, copies=4)
    job = ask(address, f"/projects/{number}/lays", "POST", seconds=1)["id"]
    while ask(address, f"/jobs/{job}")["state"] in ("waiting", "running"):
        time.sleep(0.1)
    lay = ask(address, f"/projects/{number}/lay")["lay"]
    key = lay["pinned"]["shapes"][0]["pinned"]
    moved = ask(address, f"/projects/{number}/lays/{lay['lay_id']}/hand", "POST", do="nudge", keys=[key], x=900, y=0)
    held = urllib.parse.quote(key)
    # the server is killed while a piece is in the hand: asking where it may lie writes nothing
    ask(address, f"/projects/{number}/lay/near?lay_id={moved['lay']['lay_id']}&keys={held}&x=300&y=300")
    server.send_signal(signal.SIGKILL)
    server.wait()
    with served_again(home) as there:
        found = ask(there, f"/projects/{number}/lay")["lay"]
        assert found["own"] == "By hand" and found["pinned"] == moved["lay"]["pinned"]


def test_a_timer_goes_on_after_a_kill(served: tuple[subprocess.Popen[str], str, Path]) -> None:
    server, address, home = served
    number = ask(address, "/projects", "POST", name="Skirt")["id"]
    facts = {"width_readings": ["140"] * 3, "in_hand": "2 m", "blend": [{"fibre": "linen", "share": 100}]}
    ask(address, f"/projects/{number}/cloth", "PATCH", **facts)
    day = ask(address, "/washday/plan", "POST")
    step = day["loads"][0]["tasks"][0]
    begun = ask(address, f"/washday/steps/{step['id']}/begin", "POST")["loads"][0]["tasks"][0]
    server.send_signal(signal.SIGKILL)
    server.wait()
    with served_again(home) as there:
        now = ask(there, "/washday")["loads"][0]["tasks"][0]
        assert now["started_at"] == begun["started_at"] and now["end_at"] == begun["end_at"]


def test_a_reading_is_sent_to_the_page_that_is_open(
    served: tuple[subprocess.Popen[str], str, Path], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    _, address, home = served
    start = ask(address, "/tape/readings")["last"]
    assert main(["tape", "248.5", "--home", str(home)]) == 0 and capsys.readouterr().out == "24.9 cm\n"
    assert main(["tape", "9 3/4 in", "--home", str(home)]) == 0
    told = ask(address, f"/tape/readings?after={start}")["readings"]
    assert [round(r["length"]["mm"], 2) for r in told] == [248.5, 247.65]
    assert main(["tape", "3 cubits", "--home", str(home)]) == 2 and "cubits" in capsys.readouterr().err
    assert main(["tape", "1", "--home", str(tmp_path / "other")]) == 2
    assert "Nothing is being served" in capsys.readouterr().err


def test_data_of_the_first_version_are_taken_along(tmp_path: Path) -> None:
    from alembic import command

    from idle_selvage.store.database import alembic_config

    (tmp_path / FILE_NAME).touch()
    command.upgrade(alembic_config(tmp_path / FILE_NAME), "0001")
    with sqlite3.connect(tmp_path / FILE_NAME) as data:
        for kind, one_way in (("denim-raw", 1), ("linen", 0), ("", 0)):
            data.execute(
                "INSERT INTO cloth (name, kind, width_readings, margin_low, margin_high, price_unit, one_way, depth,"
                " ground, bars, created_at) VALUES ('', ?, '[1400]', 0, 0, 'm', ?, 'dark', '', '{}', '2026-01-01')",
                (kind, one_way),
            )
        data.execute(
            "INSERT INTO swatch (cloth_id, warp, weft, graduation, updated_at)"
            " VALUES (2, '[[250.0, 240.0], [250.0, null]]', '[[250.0, 245.0]]', 1, '2026-01-01')"
        )
    Database(tmp_path).migrate()
    with sqlite3.connect(tmp_path / FILE_NAME) as data:
        rows = data.execute('SELECT blend, weave, finish, "like", direction FROM cloth ORDER BY id').fetchall()
        assert data.execute("SELECT used, simulated FROM swatch").fetchall() == [(1, 0)]
        marks = data.execute("SELECT kind, place, nth, value FROM reading WHERE swatch_id = 1 ORDER BY id").fetchall()
        widths = data.execute("SELECT cloth_id, value FROM reading WHERE kind = 'width' ORDER BY cloth_id").fetchall()
    assert marks[:3] == [("warp", 0.0, 0, 250.0), ("warp", 0.0, 1, 240.0), ("warp", 1.0, 0, 250.0)] and len(marks) == 5
    assert widths == [(1, 1400.0), (2, 1400.0), (3, 1400.0)]
    assert rows[0] == ('[["cotton", 100.0]]', "denim", "raw", "denim-raw", "nap")
    assert rows[1] == ('[["linen", 100.0]]', "plain", "", "linen", "none") and rows[2][0] == "[]"


@pytest.mark.parametrize("content", [b"", b"not a database at all", b"SQLite format 3\x00" + b"\x00" * 200])
def test_what_is_no_backup_is_not_restored(tmp_path: Path, content: bytes, capsys: pytest.CaptureFixture[str]) -> None:
    Database(tmp_path).migrate()
    before = (tmp_path / FILE_NAME).read_bytes()
    (tmp_path / "bad").write_bytes(content)
    assert main(["restore", "--home", str(tmp_path), str(tmp_path / "bad")]) == 2
    assert main(["restore", "--home", str(tmp_path), str(tmp_path / "none")]) == 2
    assert (tmp_path / FILE_NAME).read_bytes() == before
    assert "backup" in capsys.readouterr().err


def test_nothing_to_back_up_and_a_taken_port(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["backup", "--home", str(tmp_path), str(tmp_path / "b")]) == 2
    import socket

    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = taken.getsockname()[1]
        assert main(["serve", "--home", str(tmp_path / "h"), "--port", str(port)]) == 2
    assert f"Port {port} cannot be used" in capsys.readouterr().err


def test_a_second_demo_start_keeps_what_was_changed(tmp_path: Path) -> None:
    environment = {**os.environ, "IDLE_SELVAGE_HOME": str(tmp_path)}

    def start(*more: str) -> tuple[subprocess.Popen[str], str]:
        server = subprocess.Popen(
            [sys.executable, "-m", "idle_selvage.cli", "demo", "--port", "0", "--steps", "20", *more],
            stdout=subprocess.PIPE,
            text=True,
            env=environment,
        )
        assert server.stdout is not None
        return server, next(w for w in server.stdout.readline().split() if w.startswith("http"))

    server, address = start()
    names = {p["name"] for p in ask(address, "/projects")["projects"]}
    assert len(names) == 6 and "Six-gore skirt" in names
    ask(address, "/projects", "POST", name="My own")
    server.terminate()
    server.wait(timeout=60)
    server, address = start()
    assert len(ask(address, "/projects")["projects"]) == 7
    server.terminate()
    server.wait(timeout=60)
    server, address = start("--reset")
    assert len(ask(address, "/projects")["projects"]) == 6
    server.terminate()
    server.wait(timeout=60)


def test_only_serving_loads_the_web(tmp_path: Path) -> None:
    (tmp_path / "p.json").write_text(json.dumps(shirt()))
    problem, lay, home = (str(tmp_path / name) for name in ("p.json", "l.json", "home"))
    code = (
        "import sys\n"
        "from pathlib import Path\n"
        "from idle_selvage import cli\n"
        "from idle_selvage.store.database import Database\n"
        f"assert cli.main(['lay', {problem!r}, '--steps', '5', '--workers', '1', '--out', {lay!r}]) == 0\n"
        f"assert cli.main(['lay', '--check', {problem!r}, {lay!r}]) == 0\n"
        f"Database(Path({home!r})).migrate()\n"
        f"assert cli.main(['backup', '--home', {home!r}, {home!r} + '/copy']) == 0\n"
        f"assert cli.main(['tape', '--home', {home!r}, '248.5']) == 2\n"
        "assert not {'flask', 'flask_openapi3', 'pydantic', 'waitress'} & set(sys.modules), 'no web'\n"
    )
    subprocess.run([sys.executable, "-c", code], check=True, capture_output=True)


def test_only_with_lan_is_anything_but_this_machine_answered(tmp_path: Path) -> None:
    """Without it nothing listens on the home's network; with it the door stands there, shut."""
    there = lan_addresses()
    if not there:
        pytest.skip("this machine is on no network")
    plain = urllib.request.build_opener(urllib.request.ProxyHandler({}))
    for words, answered in ((), False), (("--lan",), True):
        server = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "idle_selvage.cli",
                "serve",
                "--port",
                "0",
                "--home",
                str(tmp_path / "home"),
                *words,
            ],
            stdout=subprocess.PIPE,
            text=True,
        )
        try:
            assert server.stdout is not None
            line = server.stdout.readline()
            port = line.split("127.0.0.1:")[1].split("/")[0]
            if answered:
                assert there[0] in server.stdout.readline()
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/pairing", timeout=20) as given:
                pairing = json.load(given)
            assert pairing["open"] == answered and bool(pairing["code"]) == answered
            elsewhere = f"http://{there[0]}:{port}/api/projects"
            with pytest.raises(urllib.error.URLError) as refused:
                plain.open(elsewhere, timeout=20)
            code = getattr(refused.value, "code", None)
            assert code == (401 if answered else None), "refused by the door, or nobody listens"
        finally:
            server.kill()
            server.wait()
