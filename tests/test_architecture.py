"""The drawing of the house is the house: every room drawn is there, and every room there is drawn."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
PAGE = ROOT / "docs" / "architecture.md"
#: Not rooms of the house: written by tools, or data.
APART = {"__pycache__", "web_dist", "migrations"}


def drawn() -> dict[str, set[str]]:
    """Every folder of the drawing, with the modules named beside it."""
    text = PAGE.read_text().split("## The drawing", 1)[1].split("```")[1]
    found: dict[str, set[str]] = {}
    path: list[str] = []
    for line in text.strip("\n").splitlines():
        head = re.match(r"( *)([\w/-]+)/( .*|)$", line)
        if head is None:
            # more modules of the folder above
            found["/".join(path)] |= set(line.split())
            continue
        depth = len(head[1]) // 2
        path = [*path[:depth], head[2]]
        found["/".join(path)] = set(head[3].split())
    return found


def there(top: str, suffix: str) -> dict[str, set[str]]:
    """Every folder below one that holds something, with its modules."""
    found = {}
    folders = [ROOT / top, *(p for p in (ROOT / top).rglob("*") if p.is_dir())]
    for folder in folders:
        inside = {p.stem for p in folder.glob(f"*{suffix}") if p.stem != "__init__"}
        if not APART & set(folder.relative_to(ROOT).parts) and any(folder.rglob(f"*{suffix}*")):
            found[str(folder.relative_to(ROOT))] = inside
    return found


def test_every_room_and_module_drawn_is_there_and_the_other_way_round() -> None:
    python = there("src/idle_selvage", ".py")
    assert {k: v for k, v in drawn().items() if k.startswith("src/")} == python and len(python) > 25


def test_every_folder_of_the_browser_drawn_is_there_and_the_other_way_round() -> None:
    assert {k for k in drawn() if k.startswith("web/")} == set(there("web/src", ".ts"))


@pytest.mark.parametrize(
    "named", sorted(set(re.findall(r"`((?:core|operations|store|formats|api|jobs)/[\w/]+\.py)`", PAGE.read_text())))
)
def test_every_module_the_page_leads_to_is_there(named: str) -> None:
    assert (ROOT / "src" / "idle_selvage" / named).is_file()


def test_what_the_page_says_is_in_a_module_is_in_it() -> None:
    said = re.findall(r"`([\w/]+\.py)`, `(\w+)`", PAGE.read_text())
    assert len(said) >= 3
    for module, name in said:
        assert f"def {name}(" in (ROOT / "src" / "idle_selvage" / module).read_text(), (module, name)


def test_the_browser_holds_no_rule() -> None:
    """How CONTRIBUTING says one sees it: no reading of texts, no constant of the trade."""
    wrong = re.compile(r"startsWith\(\"|told ===|parseFloat\(|\.steps\[|25\.4[^;]*\* |Math\.SQRT2|0\.9144")
    for file in (ROOT / "web" / "src").rglob("*.ts*"):
        if file.name != "schema.d.ts":
            found = [line for line in file.read_text().splitlines() if wrong.search(line)]
            assert not found, (file.name, found)
