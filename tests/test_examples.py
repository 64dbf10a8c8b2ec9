"""The examples beside the documents run as they stand."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest

EXAMPLES = sorted((Path(__file__).parents[1] / "docs" / "examples").glob("*.py"))
#: The last thing each says.
SAID = {
    "convert_a_folder.py": "read back",
    "lay_and_check.py": "sound",
    "swatch_to_counter.py": "to buy",
}


def test_each_is_tried() -> None:
    assert {path.name for path in EXAMPLES} == set(SAID)


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name)
def test_it_runs(path: Path) -> None:
    done = subprocess.run([sys.executable, path], capture_output=True, text=True, timeout=120)
    assert done.returncode == 0, done.stderr
    assert SAID[path.name] in done.stdout
