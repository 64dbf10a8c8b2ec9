"""import, export, convert, check: what they tell, their JSON, their exit status."""

from __future__ import annotations

import json
import zipfile
from pathlib import Path
from typing import Any

import pytest

from idle_selvage.cli import main
from idle_selvage.formats.reading import take_in
from idle_selvage.store.data_file import HEAD

EXAMPLE = Path(__file__).parents[2] / "web" / "public" / "example-pieces.svg"


def run(capsys: pytest.CaptureFixture[str], *args: object) -> tuple[int, Any]:
    status = main([*map(str, args), "--json"])
    told = capsys.readouterr().out
    return status, json.loads(told)


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "csv", "json"])
def test_convert_to_every_format_and_back(capsys: pytest.CaptureFixture[str], tmp_path: Path, kind: str) -> None:
    out, back = tmp_path / f"pieces.{kind}", tmp_path / "back.svg"
    status, told = run(capsys, "convert", EXAMPLE, out)
    assert status == 0 and told["written"] == out.name and len(told["pieces"]) == 7
    # in lines alone not everything can be told, and what is not is said
    status, again = run(capsys, "convert", out, back)
    assert status == (1 if again["not_read"] else 0)
    assert bool(again["not_read"]) == (kind == "pdf"), again["not_read"]
    names = {one["name"]: (one["copies"], one["on_fold"]) for one in told["pieces"]}
    assert {one["name"]: (one["copies"], one["on_fold"]) for one in again["pieces"]} == names
    assert {one.name for one in take_in(back.read_bytes(), "a.svg").pieces} == set(names)
    status, refused = run(capsys, "convert", EXAMPLE, out)
    assert status == 2 and "not overwritten" in refused["error"]


def test_check_says_what_is_understood_and_what_is_not(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    status, told = run(capsys, "check", EXAMPLE)
    assert status == 0 and {one["name"] for one in told["pieces"]} >= {"Front", "Back"}
    odd = tmp_path / "odd.svg"
    odd.write_text(EXAMPLE.read_text().replace("</svg>", '<image id="photo"/></svg>'))
    status, told = run(capsys, "check", odd)
    assert status == 1 and any("picture" in one for one in told["not_read"])
    assert main(["check", str(odd)]) == 1
    assert "not understood: image “photo”" in capsys.readouterr().out
    for bad, says in (("there is none.svg", "no file"), (".", "folder")):
        status, told = run(capsys, "check", tmp_path / bad)
        assert status == 2 and says in told["error"]
    (tmp_path / "empty.dxf").write_bytes(b"")
    status, told = run(capsys, "check", tmp_path / "empty.dxf")
    assert status == 2 and "empty" in told["error"]
    assert run(capsys, "convert", EXAMPLE, tmp_path / "a.xyz")[0] == 2
    assert run(capsys, "convert", EXAMPLE, tmp_path / "a.json", "--width", "3")[0] == 2


@pytest.mark.parametrize("tables", [{"project": [7, "x"]}, {"project": 3}, {"cloth": [{"name": 1}]}])
def test_check_of_an_archive_that_is_none_ends_in_sentences(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, tables: Any
) -> None:
    document = {"format": "idle-selvage/archive/1", "shape": HEAD, "what": "garment", "tables": tables}
    with zipfile.ZipFile(tmp_path / "a.zip", "w") as out:
        out.writestr("archive.json", json.dumps(document))
    status, told = run(capsys, "check", tmp_path / "a.zip")
    assert status == 1 and told["not_read"] and told["garments"] == []


def test_archives_and_pieces_go_from_home_to_home(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, skirt_data: Path
) -> None:
    here, there, file = skirt_data.parent, tmp_path / "there", tmp_path / "all.zip"
    status, told = run(capsys, "export", file, "--home", here)
    assert status == 0 and told["bytes"] == file.stat().st_size
    status, told = run(capsys, "check", file)
    assert status == 0 and [one["name"] for one in told["garments"]] == ["Skirt"]
    status, told = run(capsys, "import", file, "--home", there)
    assert status == 0 and [one["name"] for one in told["garments"]] == ["Skirt"]
    number = told["garments"][0]["id"]
    status, told = run(capsys, "import", file, "--home", there)
    assert status == 2 and "same cloth" in told["error"]
    status, told = run(capsys, "import", file, "--home", there, "--cloths", "same")
    assert status == 0 and told["cloths"] == []
    assert run(capsys, "import", EXAMPLE, "--home", there)[0] == 2
    status, told = run(capsys, "import", EXAMPLE, "--home", there, "--into", number, "--twice", "beside")
    assert status == 0 and len(told["pieces"]) == 7
    status, told = run(capsys, "import", EXAMPLE, "--home", there, "--into", number)
    assert status == 2 and "already" in told["error"]
    assert run(capsys, "import", EXAMPLE, "--home", there, "--into", 99)[0] == 2
    out = tmp_path / "pieces.dxf"
    assert run(capsys, "export", out, "--home", there, "--garment", number)[0] == 0
    assert len(take_in(out.read_bytes(), "a.dxf").pieces) == 9
    assert run(capsys, "export", tmp_path / "b.dxf", "--home", there)[0] == 2
    assert run(capsys, "export", tmp_path / "b.zip", "--home", tmp_path / "nowhere")[0] == 2
