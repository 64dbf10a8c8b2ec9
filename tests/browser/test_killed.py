"""The server killed while somebody types: what the page was told is kept is there, and what it was not told still
stands in the field and is kept once there is a server again."""

from __future__ import annotations

import json
import random
import sqlite3
import threading
from contextlib import closing
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import pytest
from playwright.sync_api import Browser, Request, expect

from idle_selvage.store.data_file import FILE_NAME

from ..trust.killing import laid_home
from ..trust.processes import Server

pytestmark = pytest.mark.browser


def name_in(home: Path) -> str:
    with closing(sqlite3.connect(home / FILE_NAME)) as data:
        return str(data.execute("SELECT name FROM project WHERE id = 1").fetchone()[0])


@pytest.mark.parametrize("seed", [0, 1])
def test_killed_while_somebody_types(
    browser: Browser, browser_context_args: dict[str, Any], tmp_path: Path, seed: int
) -> None:
    laid_home(tmp_path)
    server = Server(tmp_path, "--no-quiet")
    context = browser.new_context(**browser_context_args)
    page = context.new_page()
    told, failed = list[str](), list[str]()

    def typed(request: Request) -> str | None:
        changes = request.method == "PATCH" and request.url.endswith("/projects/1")
        return str(json.loads(request.post_data or "{}").get("name")) if changes else None

    def answered(request: Request) -> None:
        if (name := typed(request)) is not None:
            answer = request.response()
            (told if answer is not None and answer.ok else failed).append(name)

    def lost(request: Request) -> None:
        if (name := typed(request)) is not None:
            failed.append(name)

    page.on("requestfinished", answered)
    page.on("requestfailed", lost)
    page.goto(f"{server.address}projects/1/log")
    field = page.get_by_label("Project name")
    expect(field).to_have_value("Skirt")
    killer = threading.Timer(random.Random(seed).uniform(0.4, 2.5), server.process.kill)
    killer.start()
    text = ""
    for n in range(400):
        text = f"Skirt {seed} {n}"
        field.fill(text)
        field.press("Enter")
        for _ in range(200):
            if text in told or failed:
                break
            page.wait_for_timeout(20)
        if failed:
            break
    killer.join()
    server.process.wait()
    assert failed == [text], "the page was told of every one before"
    assert name_in(tmp_path) in (text, told[-1] if told else "Skirt")
    # it stands where it was typed, and the page says that it is not kept
    expect(field).to_have_value(text)
    expect(page.get_by_role("list", name="Not saved")).to_contain_text("Project name")

    again = Server(tmp_path, "--no-quiet", "--port", str(urlsplit(server.address).port))
    try:
        field.press("Enter")
        expect(page.get_by_role("list", name="Not saved")).to_have_count(0)
        page.reload()
        expect(field).to_have_value(text)
        assert name_in(tmp_path) == text
    finally:
        again.end()
        context.close()
