"""The core by itself: its façade is whole, documented and light, and its page tells the truth."""

from __future__ import annotations

import ast
import doctest
import re
import subprocess
import sys
from pathlib import Path

import pytest

import idle_selvage.core as core

ROOT = Path(__file__).parents[2]
PAGE = ROOT / "docs" / "core.md"


def test_the_worked_uses_of_the_page_give_what_it_says() -> None:
    failed, tried = doctest.testfile(str(PAGE), module_relative=False, report=True)
    assert tried >= 20 and failed == 0


def test_the_page_lists_every_name_and_no_other() -> None:
    table = [line for line in PAGE.read_text().splitlines() if line.startswith("| ")]
    named = re.findall(r"`(\w+)`", "\n".join(table))
    assert sorted(named) == sorted(core.__all__) and len(set(named)) == len(named)
    assert len(re.findall(r"^## \d\. ", PAGE.read_text(), re.M)) == 6


@pytest.mark.parametrize("name", core.__all__)
def test_every_name_is_there_and_documented(name: str) -> None:
    found = getattr(core, name)
    # the two systems of units are a type, which has no words of its own
    assert name == "System" or (found.__doc__ and not found.__doc__.startswith(f"{name}("))


def test_what_the_types_say_is_what_is_fetched() -> None:
    tree = ast.parse(Path(core.__file__).read_text())
    typed = {
        alias.asname: (node.module, alias.name)
        for node in ast.walk(tree)
        if isinstance(node, ast.ImportFrom) and node.level == 1
        for alias in node.names
    }
    assert typed == core._HOMES and set(typed) == set(core.__all__)
    with pytest.raises(AttributeError, match=r"docs/core\.md"):
        _ = core.nonsense  # type: ignore[attr-defined]


def test_reading_a_length_does_not_load_the_engine() -> None:
    code = (
        "import sys, idle_selvage.core as core\n"
        "core.read_length('1 3/8 yd')\n"
        "assert not {'numba', 'scipy', 'shapely', 'flask', 'sqlalchemy'} & set(sys.modules)\n"
    )
    subprocess.run([sys.executable, "-c", code], check=True)
