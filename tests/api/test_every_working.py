"""Every figure the API can send is worked out again, step by step, from the digits it shows.

All of the demo's garments, and random ones, in both systems of units: every answer is walked, every figure in it is
found, every step is evaluated by a reader that knows nothing of the core.
"""

from __future__ import annotations

import json
import random
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from idle_selvage.jobs import laying, trying

from ..conftest import STEPS, Person, data_of
from ..working_reader import check_step, read_quantity
from .cut.cutting import at, deed, settle, try_ways

FIGURES = Path(__file__).parents[2] / "docs" / "figures.md"
#: What a garment shows.
PAGES = (
    "", "/shrink", "/lay", "/match", "/true", "/offers", "/together", "/will-it-do", "/envelope", "/strips", "/list",
    "/cut", "/cut/left", "/cut/again", "/outcomes",
)  # fmt: skip
RANDOM_GARMENTS = 8


def figures(answer: Any, path: str = "") -> Iterator[tuple[str, dict[str, Any]]]:
    """Every figure in an answer, with where it stands."""
    if isinstance(answer, dict):
        if {"steps", "sources", "number"} <= answer.keys():
            yield path, answer
            return
        for key, value in answer.items():
            yield from figures(value, f"{path}.{key}")
    elif isinstance(answer, list):
        for one in answer:
            yield from figures(one, path)


def check_figure(path: str, figure: dict[str, Any]) -> None:
    """Its steps give their results, some step ends in the figure itself, and its source is told."""
    said = f"{path}: {figure['text']}"
    assert figure["steps"], f"{said} has no working"
    assert figure["sources"], f"{said} has no source"
    for step in figure["steps"]:
        try:
            check_step(step["formula"], [(i["name"], i["text"]) for i in step["inputs"]], step["result"])
        except AssertionError as fault:
            raise AssertionError(f"{said}, “{step['label']}”: {fault}") from None
    ends = [read_quantity(step["result"]) for step in figure["steps"]]
    for text in {figure["text"], figure["low"], figure["high"]} - {None}:
        shown = read_quantity(str(text).split(" (")[0])
        # a figure is shown to the tape's marks, or rounded up as it is asked for
        near = {"cm": 6e-4, "in": 8e-4, "m": 1e-2, "yd": 1e-3}.get(str(text).split(" (")[0].split(" ")[-1], 6e-3)
        # a weight is shown to the gram, the tenth of an ounce, the hundredth of a kilogram or a pound
        near = max(near, {"g": 0.51, "oz": 1.42, "kg": 5.1, "lb": 2.3}.get(str(text).split(" ")[-1], 0.0))
        assert any(abs(end.value - shown.value) <= near for end in ends), f"{said}: no step ends in {text}"


def walk(person: Person, addresses: list[str]) -> dict[str, int]:
    """Check every figure of these addresses, in both systems; how many there are, by where they stand."""
    seen: dict[str, int] = {}
    for system in ("metric", "imperial"):
        person.ask("PATCH", "/settings", system=system)
        for address in addresses:
            for path, figure in figures(person.ask("GET", address)):
                check_figure(f"{address} {path} ({system})", figure)
                name = ".".join(part for part in path.split(".") if part)
                seen[name] = seen.get(name, 0) + 1
    person.ask("PATCH", "/settings", system="metric")
    return seen


def addresses_of(person: Person) -> list[str]:
    lines = person.ask("GET", "/projects")["projects"]
    found = ["/washday", "/cloths", "/teaches", "/convert?length=1%203/8%20yd", "/convert?length=137.16%20cm"]
    for line in lines:
        for use in person.ask("GET", f"/projects/{line['id']}")["uses"]:
            found += [f"/projects/{line['id']}{page}?use={use['id']}" for page in PAGES if page != "/list"]
            found += [f"/projects/{line['id']}/will-it-do?use={use['id']}&cloth_id={use['cloth_id']}"]
        found.append(f"/projects/{line['id']}/list")
    return found


def lay_all(person: Person) -> None:
    """Lay every cloth that can be laid, and try what its purchase asks for."""
    database = data_of(person.app)
    for line in person.ask("GET", "/projects")["projects"]:
        for use in person.ask("GET", f"/projects/{line['id']}")["uses"]:
            at = f"/projects/{line['id']}"
            person.ask("PATCH", f"{at}/lay?use={use['id']}", lay_seconds=1)
            if person.ask("GET", f"{at}?use={use['id']}")["can_lay"]:
                laying.run(database, person.ask("POST", f"{at}/lays?use={use['id']}", seconds=1)["id"], STEPS)
            for what in ("extras", "offers", "together"):
                job = person.ask("POST", f"{at}/trials?use={use['id']}", what=what)["job_id"]
                if job is not None:
                    trying.run(database, job, STEPS)


def first(person: Person, number: int) -> int:
    """The number of a garment's first piece."""
    return int(person.ask("GET", f"/projects/{number}")["pieces"][0]["id"])


def cut_some(person: Person) -> int:
    """Cut a piece of every garment that has a lay, spoil another where there are two, and say how it came out; how many
    of them there are."""
    cutting = 0
    for line in person.ask("GET", "/projects")["projects"]:
        number = line["id"]
        for way in ("warp", "weft"):
            person.ask("POST", f"/projects/{number}/outcomes", kind=way, before="25 cm", after="24,1 cm", washes=3)
        person.ask(
            "POST", f"/projects/{number}/outcomes", kind="length", number=first(person, number), measured="61 cm"
        )
        before = settle(person, number)["before"]
        if not before["ready"]:
            continue
        cutting += 1
        for step, kind in zip(person.ask("POST", at(number), 201)["steps"], ("cut", "spoilt"), strict=False):
            deed(person, step, number=number)
            if kind != "cut":
                deed(person, step, kind, number=number)
        try_ways(person, number)
    return cutting


def test_every_figure_of_the_demo_can_be_worked_out_again(choir: Person) -> None:
    lay_all(choir)
    choir.ask("POST", "/washday/plan")
    assert cut_some(choir) >= 3
    seen = walk(choir, addresses_of(choir))
    assert sum(seen.values()) > 1000 and len(seen) > 50


def typed(rng: random.Random, low: float, high: float) -> str:
    """A length as somebody types it, in any unit; ``low`` and ``high`` in mm."""
    mm = rng.uniform(low, high)
    return rng.choice((
        f"{mm:.0f} mm", f"{mm / 10:.1f} cm", f"{mm / 10:.1f}".replace(".", ",") + " cm",
        f"{round(mm / 25.4 * 8) // 8} {max(1, round(mm / 25.4 * 8) % 8)}/8 in", f"{mm / 25.4:.2f}\"",
    ))  # fmt: skip


def garment(person: Person, rng: random.Random, name: str) -> None:
    """A random garment, as far as somebody may have come with it."""
    number = person.ask("POST", "/projects", name=name)["id"]
    at = f"/projects/{number}"
    person.ask(
        "PATCH",
        at,
        wash=rng.choice(["40", "30-gentle", "60", "never", "dry-clean"]),
        dry=rng.choice(["line", "tumble-low"]),
    )
    fibre = rng.choice(["cotton", "linen", "viscose", "wool", "silk", "polyester"])
    width = rng.uniform(880, 1520)
    bars = [{"width": typed(rng, 4, 40), "colour": c} for c in ("#224466", "#eeeeee", "#aa3333")]
    person.ask(
        "PATCH",
        f"{at}/cloth",
        name=f"{name} cloth",
        blend=[{"fibre": fibre, "share": 100}],
        weave=rng.choice(["plain", "twill", "gauze", "velveteen"]),
        width_readings=[f"{width + rng.uniform(-4, 4):.0f} mm" for _ in range(rng.randint(1, 4))],
        margin_low=typed(rng, 4, 20),
        margin_high=typed(rng, 4, 20),
        price=f"{rng.uniform(4, 60):.2f}",
        price_unit=rng.choice(["m", "yd"]),
        in_hand=typed(rng, 900, 6000),
        mass=rng.choice(["", f"{rng.randint(80, 400)}"]) or None,
        bars_along=bars if rng.random() < 0.4 else [],
    )

    def marks(most: float) -> list[list[str]]:
        rows = []
        for _ in range(rng.randint(1, 4)):
            row = [rng.uniform(90, 300)]
            for _ in range(rng.randint(1, 3)):
                row.append(row[-1] * (1 - rng.uniform(-0.003, most)))
            rows.append([f"{v:.1f} mm" for v in row])
        return rows

    if rng.random() < 0.7:
        person.ask("PUT", f"{at}/swatch", warp=marks(0.06), weft=marks(0.04), diagonals=[["354 mm", "352 mm"]])
        if rng.random() < 0.5:
            person.ask("PUT", f"{at}/swatch", wash=rng.choice(["40", "60", "cold-hand"]), dry="line")
    if rng.random() < 0.5:
        person.ask(
            "POST", f"/cloths/{person.ask('GET', at)['cloth']['id']}/washes", how="40 °C",
            **({"length_after": typed(rng, 850, 900)} if rng.random() < 0.5 else {}),
            **({"width_after": f"{width * 0.97:.0f} mm"} if rng.random() < 0.5 else {}),
        )  # fmt: skip
    for k in range(rng.randint(1, 3)):
        half = rng.uniform(60, 200)
        person.ask(
            "POST", f"{at}/pieces", name=f"Piece {k}", smooth=False, copies=rng.randint(1, 2),
            stations=[{"along": "0", "left": f"{half:.0f} mm", "right": f"{half:.0f} mm"},
                      {"along": typed(rng, 200, 600), "left": f"{half * 0.7:.0f} mm", "right": f"{half:.0f} mm"}],
            seam=rng.choice(["0", "15 mm", "5/8 in"]),
        )  # fmt: skip
    person.ask(
        "PATCH", f"{at}/purchase", spare=typed(rng, 0, 200), shop_step=rng.choice([100, 114.3, 228.6, 500]),
        **({"bought_extra": typed(rng, 10, 300), "extra_why": "a border"} if rng.random() < 0.5 else {}),
    )  # fmt: skip
    person.ask("POST", f"{at}/offers", name="Another", width="140 cm", price="9,50", stock=typed(rng, 900, 3000))
    person.ask(
        "PATCH", f"{at}/strips", edge=typed(rng, 400, 1500), depth="12 cm", long="50 cm", wide="30 cm", tape="25 mm"
    )
    first = rng.choice(["1 3/8 yd", "2.3 m", "6 yd"])
    person.ask(
        "PATCH", f"{at}/envelope", sizes=[{"name": "12", "body": "90 cm"}, {"name": "14", "body": "95 cm"}],
        views=[{"name": "A", "rows": [{"width": "45 in", "lengths": [first, "3 yd"]}]}],
        mine=typed(rng, 890, 960),
    )  # fmt: skip
    person.ask(
        "PATCH", f"{at}/true", now={"offset": typed(rng, 1, 60), "side": "far", "bow": "3 mm"},
        edge=[typed(rng, 1, 60) for _ in range(3)],
        fold=[{"along": f"{k * 400} mm", "distance": typed(rng, 400, 430)} for k in range(3)],
    )  # fmt: skip


def test_every_figure_of_random_garments_can_be_worked_out_again(person: Person) -> None:
    rng = random.Random(12)
    for k in range(RANDOM_GARMENTS):
        garment(person, rng, f"Garment {k}")
    lay_all(person)
    person.ask("POST", "/washday/plan")
    assert cut_some(person) >= 3
    seen = walk(person, addresses_of(person))
    assert sum(seen.values()) > 500


def test_the_page_of_figures_has_a_row_for_each() -> None:
    """Every place of the document that holds a figure has its row, as have the figures at the foot of every screen; and
    no row is of a place that is none."""
    document = json.loads((FIGURES.parent / "openapi.json").read_text())["components"]["schemas"]
    there = {
        f"{name.removesuffix('Out')}.{key}"
        for name, schema in document.items()
        for key, value in schema.get("properties", {}).items()
        if "FigureOut" in json.dumps(value)
    }
    rows = [line.split("|") for line in FIGURES.read_text().splitlines() if line.startswith("| ") and "`" in line]
    told = [place for row in rows for place in re.findall(r"`(\w+\.\w+)`", row[2])]
    assert set(told) == there
    assert all(len(row) == 8 and all(cell.strip() for cell in row[1:7]) for row in rows), "six columns, none empty"
    entries = {entry for row in rows for entry in re.findall(r"tally: (\w+)", row[2])}
    assert entries == TALLY


#: The figures at the foot of every screen.
TALLY = {"width", "lay", "to_buy", "shrinkage_warp", "cost", "all_cloths", "spare"}
