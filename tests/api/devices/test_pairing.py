"""Tablets on the home's network: let in by the code of the first screen, and by nothing else."""

from __future__ import annotations

import random
from typing import Any

import pytest
from flask.testing import FlaskClient

from idle_selvage.api.devices.pairing import COOKIE
from idle_selvage.api.door import CODE_LETTERS, FREE_TRIES, LETTERS, LONGEST_WAIT, Door, is_here, plain, shown
from idle_selvage.store.models import PairedDevice

from ...conftest import Person, asks

LAN = "http://192.0.2.7:8077/"
TABLET = {"REMOTE_ADDR": "192.0.2.44"}


class Clock:
    """A clock that is wound by hand."""

    def __init__(self) -> None:
        self.now = 1000.0

    def __call__(self) -> float:
        return self.now


@pytest.fixture
def clock(person: Person) -> Clock:
    made = Clock()
    person.app.services.door = Door(True, (LAN,), made)
    # the names that are trusted are set when the application is made
    person.app.config["TRUSTED_HOSTS"] = ["127.0.0.1", "localhost", "192.0.2.7"]
    return made


@pytest.fixture
def tablet(person: Person, clock: Clock) -> FlaskClient:
    del clock
    return asks(person.app)


def ask(tablet: FlaskClient, method: str, path: str, base: str = LAN, **more: Any) -> Any:
    return tablet.open(path, method=method, base_url=base, environ_overrides=TABLET, **more)


def pair(person: Person, tablet: FlaskClient, name: str = "Kitchen tablet") -> Any:
    code = person.ask("GET", "/pairing")["code"]
    return ask(tablet, "POST", "/api/pairing/devices", json={"code": code.lower(), "name": name})


def test_without_lan_nobody_else_is_answered(person: Person) -> None:
    tablet = person.app.test_client()
    for path in ("/", "/api/projects", "/assets/x.js", "/pair"):
        answer = tablet.get(path, base_url="http://127.0.0.1", environ_overrides=TABLET)
        assert answer.status_code == 403 and answer.get_json()["code"] == "not_here"
    assert person.ask("GET", "/pairing") == {"open": False, "code": "", "addresses": [], "qr": "", "devices": []}


def test_a_device_that_is_not_paired_sees_nothing(person: Person, tablet: FlaskClient) -> None:
    person.ask("POST", "/projects", name="Coat")
    for method, path in (
        ("GET", "/api/projects"),
        ("POST", "/api/projects"),
        ("GET", "/api/pairing"),
        ("GET", "/api/news"),
    ):
        answer = ask(tablet, method, path, json={"name": "x"} if method == "POST" else None)
        assert answer.status_code == 401 and answer.get_json()["code"] == "not_paired"
    for token in ("", "x", "x" * 5000, "é"):
        tablet.set_cookie(COOKIE, token, domain="192.0.2.7")
        assert ask(tablet, "GET", "/api/projects").status_code == 401
    assert len(person.ask("GET", "/projects")["projects"]) == 1


def test_a_paired_device_works_and_a_revoked_one_no_longer(person: Person, tablet: FlaskClient) -> None:
    answer = pair(person, tablet)
    assert answer.status_code == 201 and answer.get_json() == {"name": "Kitchen tablet"}
    cookie = answer.headers["Set-Cookie"]
    assert "HttpOnly" in cookie and "SameSite=Strict" in cookie
    token = cookie.split("=", 1)[1].split(";")[0]
    with person.app.services.database.look() as session:
        assert token not in session.query(PairedDevice).one().token, "only a digest is kept"
    assert ask(tablet, "POST", "/api/projects", json={"name": "Coat"}).status_code == 201
    assert ask(tablet, "GET", "/api/projects").status_code == 200
    # the code and the pairings are looked at on the machine itself
    assert ask(tablet, "GET", "/api/pairing").status_code == 403
    found = person.ask("GET", "/pairing")
    assert [one["name"] for one in found["devices"]] == ["Kitchen tablet"] and found["qr"].startswith("data:image/svg")
    assert ask(tablet, "DELETE", f"/api/pairing/devices/{found['devices'][0]['id']}").status_code == 403
    assert person.ask("DELETE", f"/pairing/devices/{found['devices'][0]['id']}")["devices"] == []
    assert ask(tablet, "GET", "/api/projects").status_code == 401
    person.ask("DELETE", f"/pairing/devices/{found['devices'][0]['id']}", 404)
    told = [line["kind"] for line in person.ask("GET", "/log")["entries"]]
    assert told[0] == "device-revoked" and "device-paired" in told


def test_origin_and_host_hold_for_paired_devices_too(person: Person, tablet: FlaskClient) -> None:
    pair(person, tablet)
    foreign = ask(tablet, "POST", "/api/projects", json={"name": "x"}, headers={"Origin": "http://evil.example"})
    assert foreign.status_code == 403 and foreign.get_json()["code"] == "wrong_origin"
    own = ask(tablet, "POST", "/api/projects", json={"name": "x"}, headers={"Origin": LAN.rstrip("/")})
    assert own.status_code == 201
    token = tablet.get_cookie(COOKIE, domain="192.0.2.7")
    assert token is not None
    bare = person.app.test_client(use_cookies=False)
    for name in ("evil.example", "127.0.0.1.evil.example", "192.0.2.8"):
        given = {"Cookie": f"{COOKIE}={token.value}"}
        for path in ("/api/projects", "/"):
            refused = ask(bare, "GET", path, base=f"http://{name}:8077/", headers=given)
            assert refused.status_code == 403 and refused.get_json()["code"] == "wrong_host"


def test_a_code_is_used_up_and_each_device_has_a_token_of_its_own(person: Person, tablet: FlaskClient) -> None:
    code = person.ask("GET", "/pairing")["code"]
    assert pair(person, tablet).status_code == 201
    second = asks(person.app)
    again = ask(second, "POST", "/api/pairing/devices", json={"code": code, "name": "Other"})
    assert again.status_code == 403 and again.get_json()["code"] == "wrong_code"
    assert pair(person, second, "Other").status_code == 201
    with person.app.services.database.look() as session:
        assert len({row.token for row in session.query(PairedDevice)}) == 2


def test_ten_thousand_wrong_codes_get_nothing_and_are_slowed(person: Person, tablet: FlaskClient, clock: Clock) -> None:
    chance = random.Random(4)
    seen = {403: 0, 429: 0}
    looked_at = 0
    for _ in range(10_000):
        code = "".join(chance.choice(LETTERS) for _ in range(CODE_LETTERS))
        answer = ask(tablet, "POST", "/api/pairing/devices", json={"code": code, "name": "x"})
        seen[answer.status_code] += 1
        looked_at += answer.status_code == 403
        if answer.status_code == 429:
            assert int(answer.headers["Retry-After"]) >= 1
        # as fast as a network lets it: twenty a second
        clock.now += 0.05
    assert looked_at < 15, "in more than eight minutes hardly a dozen codes are looked at"
    assert seen[429] > 9_900 and person.ask("GET", "/pairing")["devices"] == []
    # while the door is shut not even the right one is taken; afterwards it is
    assert pair(person, tablet).status_code == 429
    clock.now += LONGEST_WAIT + 1
    assert pair(person, tablet).status_code == 201


def test_the_door_is_shut_for_longer_each_time_and_the_code_changes() -> None:
    clock = Clock()
    door = Door(True, (), clock)
    first = door.code
    for _ in range(FREE_TRIES - 1):
        assert not door.tries("AAAA")
    assert door.wait() == 0 and door.code == first
    waits = []
    for _ in range(14):
        door.tries("AAAA")
        waits.append(door.wait())
        clock.now += door.wait() + 0.1
    assert door.code != first and waits == sorted(waits) and waits[0] == 2.0 and waits[-1] == LONGEST_WAIT
    assert door.tries(shown(door.code).lower()) and door.wrong == 0
    assert not Door(False, (), clock).tries(Door(False).code)


def test_codes_are_read_by_people_and_addresses_by_machines() -> None:
    assert plain("ab2c-d3ef ") == "AB2CD3EF" and shown("AB2CD3EF") == "AB2C-D3EF"
    assert is_here("127.0.0.1") and is_here("::1") and not is_here("192.0.2.1") and not is_here(None)
    assert not is_here("nonsense")
    assert not set("01IO") & set(LETTERS)


def test_too_many_devices_are_refused(person: Person, tablet: FlaskClient) -> None:
    for _ in range(20):
        assert pair(person, tablet).status_code == 201
    assert pair(person, tablet).status_code == 422
