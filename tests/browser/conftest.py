"""The built front end, served by the real server, in Debian's Chromium."""

from __future__ import annotations

import shutil
import socket
import threading
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect
from tools.chromium import ARGS, CHROMIUM

from idle_selvage.api.services import Application
from idle_selvage.demo.scenario import example
from idle_selvage.jobs.pool import Pool
from idle_selvage.serving import web_server
from idle_selvage.store.database import Database

from ..conftest import STEPS, served_with
from ..here import Here

expect.set_options(timeout=30_000)


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {"executable_path": CHROMIUM, "args": ARGS}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    return {"viewport": {"width": 1280, "height": 800}, "locale": "en-GB", "accept_downloads": True}


@pytest.fixture(scope="session")
def context(browser: Browser, browser_context_args: dict[str, Any]) -> Iterator[BrowserContext]:
    """One for all tests, so that scripts are fetched and compiled once; what a page keeps is forgotten after each."""
    found = browser.new_context(**browser_context_args)
    yield found
    found.close()


@pytest.fixture
def page(
    request: pytest.FixtureRequest,
    browser: Browser,
    browser_context_args: dict[str, Any],
    context: BrowserContext,
    address: str,
) -> Iterator[Page]:
    """A page on an empty memory; one whose clock is moved (marked ``clock``) is by itself, for the clock is its
    context's."""
    if request.node.get_closest_marker("clock"):
        alone = browser.new_context(**browser_context_args)
        yield alone.new_page()
        alone.close()
        return
    found = context.new_page()
    yield found
    for one in context.pages[1:]:
        one.close()
    # a page that is not ours, at our address: it writes nothing
    found.goto(f"{address}api/health")
    found.evaluate("localStorage.clear(), sessionStorage.clear()")
    found.close()


@pytest.fixture(scope="session")
def address(application: Application) -> Iterator[str]:
    """Where the application is served, by the real server, in a thread; each test puts its data in."""
    listener = socket.create_server(("127.0.0.1", 0))
    server = web_server(application, listener)
    serving = threading.Thread(target=server.run, daemon=True)
    serving.start()
    yield f"http://127.0.0.1:{listener.getsockname()[1]}/"
    server.close()


def _serving(request: pytest.FixtureRequest, home: Path, data: Path, app: Application) -> Iterator[None]:
    """Serve a copy of these data. Searches take so many steps, or, of a test that is marked ``timed``, their time."""
    shutil.copy(data, home)
    database = Database(home)
    timed = request.node.get_closest_marker("timed") is not None
    workers = Pool(database) if timed else Here(database, STEPS)
    with served_with(app, database, pool=workers, example=example):
        yield
        workers.close()


@pytest.fixture
def demo(
    request: pytest.FixtureRequest, tmp_path: Path, demo_data: Path, application: Application, address: str
) -> Iterator[str]:
    """The address of a server with the demo's data."""
    for _ in _serving(request, tmp_path, demo_data, application):
        yield address


@pytest.fixture
def own(
    request: pytest.FixtureRequest, tmp_path: Path, empty_data: Path, application: Application, address: str
) -> Iterator[str]:
    """The address of a server without any data."""
    for _ in _serving(request, tmp_path, empty_data, application):
        yield address


@pytest.fixture(autouse=True)
def no_script_faults(page: Page) -> Iterator[None]:
    """No test passes over a fault in a script or a refusal by the content policy."""
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on("console", lambda said: faults.append(said.text) if "Content Security Policy" in said.text else None)
    yield
    assert faults == []
