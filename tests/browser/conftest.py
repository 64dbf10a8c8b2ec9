"""The built front end, served by the real server, in Debian's Chromium."""

from __future__ import annotations

import subprocess
import sys
from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import Page, expect
from tools.chromium import ARGS, CHROMIUM

expect.set_options(timeout=15_000)


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {"executable_path": CHROMIUM, "args": ARGS}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    return {"viewport": {"width": 1280, "height": 800}, "locale": "en-GB", "accept_downloads": True}


def serve(home: str, command: str) -> Iterator[str]:
    server = subprocess.Popen(
        [sys.executable, "-m", "idle_selvage.cli", command, "--port", "0", "--home", home],
        stdout=subprocess.PIPE,
        text=True,
    )
    assert server.stdout is not None
    yield next(word for word in server.stdout.readline().split() if word.startswith("http"))
    server.terminate()
    server.wait(timeout=60)


@pytest.fixture(scope="session")
def demo(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """The address of a server with the demo's data."""
    yield from serve(str(tmp_path_factory.mktemp("demo")), "demo")


@pytest.fixture
def own(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """The address of a server without any data."""
    yield from serve(str(tmp_path_factory.mktemp("own")), "serve")


@pytest.fixture(autouse=True)
def no_script_faults(page: Page) -> Iterator[None]:
    """No test passes over a fault in a script or a refusal by the content policy."""
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on("console", lambda said: faults.append(said.text) if "Content Security Policy" in said.text else None)
    yield
    assert faults == []
