"""Cutting over the API, step by step."""

from __future__ import annotations

from typing import Any

from idle_selvage.jobs import trying

from ...conftest import STEPS, Person, data_of


def cut(person: Person, number: int = 1, of: int | None = None) -> dict[str, Any]:
    """Cut as it stands."""
    found: dict[str, Any] = person.ask("GET", at(number, of=of))
    return found


def at(number: int, what: str = "", of: int | None = None) -> str:
    """An address of Cut."""
    return f"/projects/{number}/cut{what}" + (f"?use={of}" if of else "")


def more_pieces(person: Person, number: int = 1) -> None:
    """A pair of sleeves, which have a left and a right, and two pockets beside what there is."""
    sleeve = [{"along": 0, "left": "6 cm", "right": "9 cm"}, {"along": "30 cm", "left": "8 cm", "right": "14 cm"}]
    pocket = [{"along": 0, "left": "7 cm", "right": "7 cm"}, {"along": "16 cm", "left": "7 cm", "right": "7 cm"}]
    person.ask("POST", f"/projects/{number}/pieces", 201, name="Sleeve", stations=sleeve, copies=2, pair=True)
    person.ask("POST", f"/projects/{number}/pieces", 201, name="Pocket", stations=pocket, copies=2)


def settle(person: Person, number: int = 1, of: int | None = None) -> dict[str, Any]:
    """Tick and accept whatever is open in the list before cutting."""
    for line in cut(person, number, of)["before"]["lines"]:
        if line["state"] == "open" and (line["by_hand"] or line["can_accept"]):
            said = {"ticked": True} if line["by_hand"] else {"why": "it is only tried"}
            person.ask("PUT", at(number, "/before", of), key=line["key"], **said)
    return cut(person, number, of)


def begun(person: Person, number: int = 1, of: int | None = None) -> dict[str, Any]:
    """Cut with everything settled and cutting begun."""
    settle(person, number, of)
    found: dict[str, Any] = person.ask("POST", at(number, of=of), 201)
    return found


def deed(person: Person, step: dict[str, Any], kind: str = "cut", number: int = 1, **more: Any) -> dict[str, Any]:
    """One deed at a step."""
    found: dict[str, Any] = person.ask(
        "POST", at(number, "/deeds"), round=step["round"], key=step["key"], kind=kind, **more
    )
    return found


def try_ways(person: Person, number: int = 1) -> dict[str, Any]:
    """The ways out, each tried here and now."""
    job = person.ask("POST", f"/projects/{number}/trials", what="again")["job_id"]
    if job is not None:
        trying.run(data_of(person.app), job, STEPS)
    found: dict[str, Any] = person.ask("GET", at(number, "/again"))
    return found
