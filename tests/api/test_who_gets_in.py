"""Attacks from the same browser and the same house: none changes anything, none is let in, none is shown in a frame."""

from __future__ import annotations

from pathlib import Path

import pytest
from werkzeug.test import TestResponse

from idle_selvage.api.app import create_app
from idle_selvage.store.page_word import NAME, page_word, read_word

from ..conftest import Person
from .surface import OPERATIONS, filled

HERE = "http://127.0.0.1:8077"


def knock(person: Person, method: str, path: str, **headers: str) -> TestResponse:
    """A request of a stranger: without the word of a page."""
    given = {name.replace("_", "-"): value for name, value in headers.items()}
    return person.app.test_client().open(path, method=method, base_url=HERE, headers=given, json={"name": "x"})


def test_without_the_word_of_the_page_nothing_is_changed(laid: Person) -> None:
    before = laid.ask("GET", "/projects")
    for method, path, _ in OPERATIONS:
        if method == "get":
            continue
        for more in ({}, {"X_Page": ""}, {"X_Page": "x" * 32}, {"Origin": HERE}, {"X_Page": "é"}):
            answer = knock(laid, method.upper(), filled(path), **more)
            assert answer.status_code == 403 and answer.get_json()["code"] == "wrong_page", (method, path)
    assert laid.ask("GET", "/projects") == before


@pytest.mark.parametrize("method", ["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"])
@pytest.mark.parametrize(
    "origin",
    [
        "http://evil.example",
        "http://127.0.0.1:9999",
        "https://127.0.0.1:8077.evil.example",
        "null",
        "http://[",
        "x",
        "//",
    ],
)
def test_another_site_is_turned_away_by_every_method(person: Person, method: str, origin: str) -> None:
    word = person.app.services.word
    for path in ("/api/projects", "/api/settings"):
        answer = knock(person, method, path, Origin=origin, X_Page=word)
        assert answer.status_code == 403, answer.get_data(as_text=True)
        assert "Access-Control-Allow-Origin" not in answer.headers


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_what_another_site_s_page_begins_is_turned_away(person: Person, site: str) -> None:
    word = person.app.services.word
    assert knock(person, "GET", "/api/projects", Sec_Fetch_Site=site).status_code == 403
    assert knock(person, "POST", "/api/projects", Sec_Fetch_Site=site, X_Page=word).status_code == 403
    # opening the page by a link is not asking for anything
    assert knock(person, "GET", "/", Sec_Fetch_Site=site).status_code == 200
    assert knock(person, "GET", "/api/projects", Sec_Fetch_Site="same-origin").status_code == 200


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "[::1", "", "127.0.0.1:x", "169.254.1.1"])
def test_other_names_of_this_machine_are_turned_away(person: Person, host: str) -> None:
    for method in ("GET", "POST"):
        answer = person.client.open("/api/projects", method=method, base_url=HERE, headers={"Host": host}, json={})
        assert answer.status_code in (400, 403), answer.get_data(as_text=True)


def test_nothing_may_be_framed_guessed_or_kept(person: Person) -> None:
    for path in ("/", "/projects/1/plan", "/api/projects", "/api/none"):
        answer = person.client.get(path, base_url=HERE)
        assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]
        assert answer.headers["X-Content-Type-Options"] == "nosniff"
        assert answer.headers["Cross-Origin-Resource-Policy"] == "same-origin"


@pytest.mark.parametrize(
    "path", ["/" + "x" * 301, "/assets/" + "x" * 5000, "/%00", "/..%2f..%2fetc/passwd", "/a/" * 99]
)
def test_odd_addresses_give_a_page_or_a_sentence(person: Person, path: str) -> None:
    answer = person.client.get(path, base_url=HERE)
    assert answer.status_code in (200, 404) and b"root:" not in answer.data


def test_the_word_is_in_the_page_and_outlives_a_restart(tmp_path: Path) -> None:
    first = create_app(tmp_path)
    page = first.test_client().get("/", base_url=HERE).get_data(as_text=True)
    assert f'name="page-word" content="{first.services.word}"' in page
    assert create_app(tmp_path).services.word == first.services.word == read_word(tmp_path)
    assert (tmp_path / NAME).stat().st_mode & 0o077 == 0
    assert first.services.word != create_app(tmp_path / "other").services.word


@pytest.mark.parametrize("kept", ["", "short", "a b c d e f g h i j k l m n o p q r s t", "\x00" * 40])
def test_what_is_no_word_is_made_anew(tmp_path: Path, kept: str) -> None:
    (tmp_path / NAME).write_text(kept)
    word = page_word(tmp_path)
    assert len(word) >= 24 and word != kept and page_word(tmp_path) == word
