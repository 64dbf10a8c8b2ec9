"""What holds for the person, whatever is made."""

from __future__ import annotations

from typing import Any

from idle_selvage.jobs import laying

from ...conftest import STEPS, Person, data_of


def test_what_holds_for_the_person_is_told_once(skirt: Person) -> None:
    skirt.ask("POST", "/projects", name="Apron")
    skirt.ask("PATCH", "/projects/2/purchase", shop_step="25 cm")
    told = skirt.ask("PATCH", "/settings", shop_step="50 cm", currency="€", asked=True)
    assert told["shop_step"]["mm"] == 500 and told["currency"] == "€" and told["asked"]
    # what was usual follows; what was chosen for one garment stays; a new one begins with it
    steps = [skirt.ask("GET", f"/projects/{n}")["wishes"]["shop_step"]["mm"] for n in (1, 2)]
    assert steps == [500, 250]
    assert skirt.ask("POST", "/projects", name="Bag")["wishes"]["shop_step"]["mm"] == 500
    assert "from 1 mm to 5 m" in skirt.refused("PATCH", "/settings", shop_step="0 cm")["message"]


def test_money_is_written_with_the_persons_sign(skirt: Person) -> None:
    laid(skirt)

    def cost() -> Any:
        return skirt.ask("GET", "/projects/1")["purchase"]["cost"]

    plain = cost()
    skirt.ask("PATCH", "/settings", currency="€")
    signed = cost()
    assert signed["text"] == f"{plain['number']} €" and signed["unit"] == "€" and signed["value"] == plain["value"]
    assert any(put["text"].endswith("€ a metre") for step in signed["steps"] for put in step["inputs"])


def laid(person: Person) -> None:
    job = person.ask("POST", "/projects/1/lays", seconds=1)["id"]
    laying.run(data_of(person.app), job, STEPS)


def test_half_a_character_is_refused(skirt: Person) -> None:
    half = chr(0xD800)
    assert skirt.refused("PATCH", "/settings", currency=half)["fields"][0]["path"] == "currency"
    assert "at most 8" in skirt.refused("PATCH", "/settings", currency="ninesigns")["message"]
    skirt.refused("POST", "/washday/plan", start=half)
    skirt.refused("POST", "/washday/plan", taken={half: "9:00"})
    skirt.refused("PUT", "/projects/1/asides", key=half, why="it is nothing")
