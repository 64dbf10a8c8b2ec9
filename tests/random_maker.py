"""Somebody who tells everything that can be told, at random: every entry of every screen, some of it wrong.

Seeded by a number, and the same for ever: only the standard library's generator is asked, and no set is walked.
"""

from __future__ import annotations

import itertools
import random
from typing import Any

from .conftest import Person, data_of, steep_edges

#: What is shown of a garment.
PAGES = (
    "", "/sheet", "/shrink", "/offers", "/together", "/will-it-do", "/envelope", "/strips", "/list", "/true",
    "/match",
)  # fmt: skip
#: So many steps a search takes.
FEW_STEPS = 3
#: Sometimes said in the place of a length.
NONSENSE = ("two metres", "-3 cm", "5 km", "1/0 in", "1,260 mm", "", "12 13")


class Maker:
    """One garment told at random to an application, and what it answered."""

    def __init__(self, person: Person, number: int) -> None:
        self.person, self.rng = person, random.Random(number)
        self.told: list[tuple[str, Any]] = []
        self.sewn: list[tuple[int, str]] = []
        self.choices = person.ask("GET", "/choices")

    def one(self, kind: str) -> str:
        """One of the choices of a list."""
        return str(self.rng.choice(self.choices[kind])["value"])

    def length(self, low: float, high: float) -> str:
        """A length between so many millimetres, in any unit; now and then nonsense."""
        rng = self.rng
        if rng.random() < 0.02:
            return rng.choice(NONSENSE)
        mm = rng.uniform(low, high)
        eighths = max(1, round(mm / 25.4 * 8))
        return rng.choice((
            f"{mm:.0f} mm", f"{mm / 10:.1f} cm", f"{mm / 10:.1f}".replace(".", ",") + " cm",
            f"{eighths // 8} {eighths % 8}/8 in" if eighths % 8 else f"{eighths // 8} in", f'{mm / 25.4:.2f}"',
        ))  # fmt: skip

    def some(self, **all_of_it: Any) -> dict[str, Any]:
        """Some of the entries of a screen, at least one."""
        names = list(all_of_it)
        kept = [name for name in names if self.rng.random() < 0.7] or names[:1]
        return {name: all_of_it[name] for name in kept}

    def say(self, method: str, path: str, **body: Any) -> Any:
        """One request, whatever becomes of it; what is asked back is insisted on half of the time."""
        headers = {"X-Insist": "1"} if self.rng.random() < 0.5 else {}
        answer = self.person.client.open(
            f"/api{path}", method=method, json=body or None, base_url="http://127.0.0.1", headers=headers
        )
        assert answer.status_code < 500, f"{method} {path} {body}: {answer.get_data(as_text=True)}"
        told = answer.get_json()
        if answer.status_code >= 400:
            self.told.append((f"{method} {path} {answer.status_code}", told))
        return told if answer.status_code < 400 else None

    def garment(self) -> None:
        """Everything of one garment, in the order of the screens, some of it twice."""
        rng = self.rng
        self.say("PATCH", "/settings", **self.some(
            system=rng.choice(["metric", "imperial"]), shop_step=rng.choice(["10 cm", "25 cm", "1/8 yd"]),
            graduation=rng.choice(["1 mm", "1/16 in", "0,5 mm"]), currency=rng.choice(["€", "£", "$"]),
        ))  # fmt: skip
        self.at = f"/projects/{self.say('POST', '/projects', name='Anything', note='at random')['id']}"
        for step in (self.wash, self.cloth, self.swatch, self.pieces, self.second, self.cuts, self.treated, self.buy,
                     self.strips, self.envelope, self.true, self.house, self.cloth, self.wishes):  # fmt: skip
            if rng.random() < 0.9:
                step()
        # by chances of their own, so that what comes after stays what it was
        self.rng = random.Random(f"seams {self.at} {len(self.sewn)}")
        self.seams()
        self.rng = rng

    def project(self) -> Any:
        return self.person.ask("GET", self.at)

    def wash(self) -> None:
        self.say("PATCH", self.at, **self.some(wash=self.one("washes"), dry=self.one("dries"), note="for the concert"))

    def bars(self) -> list[dict[str, str]]:
        colours = self.rng.choice([("#224466", "#eeeeee"), ("#224466", "#eeeeee", "#aa3333"), ()])
        return [{"width": self.length(3, 40), "colour": colour} for colour in colours]

    def cloth(self) -> None:
        rng = self.rng
        width = rng.choice([30.0, 90.0, 115.0, 140.0, 150.0]) * 10
        share = rng.choice([100, 100, 80, 55, 15])
        blend = [{"fibre": self.one("fibres"), "share": share}]
        if share < 100:
            blend.append({"fibre": self.one("fibres"), "share": rng.choice([100 - share, 10])})
        self.say("PATCH", f"{self.at}/cloth", **self.some(
            name="Anything's cloth", blend=blend, weave=self.one("weaves"), finish=self.one("finishes"),
            colouring=self.one("colourings"), width_readings=[f"{width + rng.uniform(-9, 9):.0f} mm" for _ in range(3)],
            margin_low=self.length(0, 25), margin_high=self.length(0, 25), in_hand=self.length(600, 6000),
        ))  # fmt: skip
        self.say("PATCH", f"{self.at}/cloth", **self.some(
            mass=rng.randint(40, 500), price=f"{rng.uniform(2, 90):.2f}", price_unit=rng.choice(["m", "yd"]),
            direction=self.one("directions"), pile=self.one("piles"), pile_why="it looks deeper",
            wales=rng.randint(2, 16), face=rng.choice(["", "the side with the pins"]), reversible=rng.random() < 0.3,
            depth=rng.choice(["light", "medium", "dark"]), rub_grade=rng.randint(1, 5),
        ))  # fmt: skip
        asked = rng.sample(self.choices["questions"], 3)
        self.say("PATCH", f"{self.at}/cloth", **self.some(
            bars_along=self.bars(), bars_across=self.bars(), shop_fold=self.length(0, 30),
            flaws=[{"x": self.length(0, 900), "y": self.length(0, 900), "w": self.length(5, 80),
                    "h": self.length(5, 80), "what": "a slub"}],
            treated=rng.random() < 0.3, style_number="A 12", place="the second shelf",
            answers={one["key"]: rng.choice(one["answers"])["value"] for one in asked},
        ))  # fmt: skip

    def rows(self, most: float, washes: int) -> list[list[str | None]]:
        rows: list[list[str | None]] = []
        for _ in range(self.rng.randint(1, 4)):
            row = [self.rng.uniform(90, 300)]
            for _ in range(washes):
                row.append(row[-1] * (1 - self.rng.uniform(-0.004, most)))
            rows.append([None if self.rng.random() < 0.04 else f"{v:.1f} mm" for v in row])
        return rows

    def seams(self) -> None:
        """What was drawn to meet is sewn, each to the next one, and what else is proposed."""
        there = {p["id"]: p for p in (self.say("GET", f"{self.at}/match") or {"pieces": []})["pieces"]}
        for (a, at), (b, _) in itertools.pairwise([one for one in self.sewn if one[0] in there]):
            sides = [{"piece_id": n, **edge} for n in (a, b) for edge in steep_edges(there[n])[:1]]
            if len(sides) == 2:
                self.say("POST", f"{self.at}/seams", a=sides[0], b=sides[1], key_a=at, name=f"Seam {a}",
                         lengthwise=self.rng.random() < 0.3)  # fmt: skip
        proposed = (self.say("GET", f"{self.at}/match") or {"proposed": []})["proposed"]
        self.say("POST", f"{self.at}/seams/proposed", which=[p["number"] for p in proposed])

    def swatch(self) -> None:
        washes = self.rng.randint(0, 3)
        self.say("PUT", f"{self.at}/swatch", **self.some(
            warp=self.rows(0.07, washes), weft=self.rows(0.05, washes), graduation=self.rng.choice(["1 mm", "1/16 in"]),
            diagonals=[[self.length(340, 360), self.length(340, 360)]], wash=self.one("washes"), dry=self.one("dries"),
        ))  # fmt: skip

    def pieces(self) -> None:
        rng = self.rng
        for k in range(rng.randint(1, 4)):
            half, along = rng.uniform(20, 500), rng.uniform(60, 1200)
            seam: dict[str, Any] = {"seam": self.length(0, 30), "copies": rng.randint(1, 4)}
            how = rng.randint(0, 4)
            if how == 0:
                telling: dict[str, Any] = {
                    "smooth": rng.random() < 0.5,
                    "stations": [
                        {"along": f"{along * at:.0f} mm", "left": f"{half * wide:.0f} mm", "right": f"{half:.0f} mm",
                         "corners": rng.choice(["", "left", "right", "both"])}
                        for at, wide in ((0, 1.0), (0.4, 0.8), (1, 0.5))
                    ],
                }  # fmt: skip
            elif how == 1:
                telling = {"points": [
                    {"along": f"{along * a:.0f} mm", "across": f"{half * b:.0f} mm", "smooth": rng.random() < 0.3,
                     "straight": rng.random() < 0.3, "ends": rng.choice(["mitre", "square", "folded"]),
                     "allowance": rng.choice([None, "3 cm", "0"])}
                    for a, b in ((0, 0), (0, 1), (0.7, 1.1), (1, 0.6), (1, 0))
                ], "on_fold": rng.random() < 0.4}  # fmt: skip
            elif how == 2:
                telling = {"measures": {
                    "shape": rng.choice(["rectangle", "bias_strip", "circle", "ring"]), "first": self.length(30, 900),
                    "second": self.length(30, 600), "share": rng.choice([1, 0.5, 0.25]), "panels": rng.randint(1, 4),
                }}  # fmt: skip
            elif how == 3:
                telling = {"tapes": {"apart": "400 mm", "points": [
                    {"first": f"{rng.uniform(250, 500):.0f} mm", "second": f"{rng.uniform(250, 500):.0f} mm",
                     "side": side, "smooth": rng.random() < 0.3} for side in ("left", "left", "right", "right")
                ]}}  # fmt: skip
            else:
                there = self.project()["pieces"]
                if not there:
                    continue
                telling = {"another": {
                    "piece_id": there[0]["id"], "change": rng.choice(["same", "mirrored", "lengthened", "facing"]),
                    "line": self.length(20, 200), "by": self.length(5, 60), "edge": rng.randint(0, 3),
                    "width": self.length(30, 80),
                }}  # fmt: skip
            if rng.random() < 0.4:
                telling["notches"] = [{"at": self.length(10, 60), "after": 1, "double": rng.random() < 0.5}]
            if rng.random() < 0.3:
                kind = rng.choice(["point", "fold", "centre", "level", "dart"])
                places = [
                    {"along": f"{k * 30} mm", "across": "5 mm"} for k in range({"point": 1, "dart": 3}.get(kind, 2))
                ]
                telling["marks"] = [{"kind": kind, "places": places}]
            chosen = self.some(
                pair=rng.random() < 0.5, grain=self.one("grains"), one_way=rng.random() < 0.3, bare=rng.random() < 0.1,
                hem=rng.random() < 0.3, hidden=rng.random() < 0.2, centred=rng.random() < 0.2,
                meets=rng.choice(["", "side"]), meets_at=self.length(0, 50),
            )  # fmt: skip
            meets, at = chosen.pop("meets", ""), chosen.pop("meets_at", "0")
            made = self.say("POST", f"{self.at}/pieces", name=f"Piece {k}", **telling, **seam, **chosen)
            if made and meets:
                self.sewn.append((made["pieces"][-1]["id"], at))
            if made and rng.random() < 0.3:
                number = made["pieces"][-1]["id"]
                self.say("PUT", f"/pieces/{number}/sizes", sizes=["10", "12"], base="10", grades=[
                    {"key": 1, "along": "0", "across": self.length(3, 12)}])  # fmt: skip
                self.say("PATCH", self.at, size=rng.choice(["10", "12", "14"]))

    def second(self) -> None:
        """A second cloth: lining, fusible, ribbon."""
        made = self.say(
            "POST", f"{self.at}/uses", name="The other", role=self.one("roles") if self.rng.random() < 0.5 else "trim"
        )
        if not made or len(made["uses"]) < 2:
            return
        other = made["uses"][-1]["id"]
        rng = self.rng
        self.say("PATCH", f"{self.at}/cloth?use={other}", **self.some(
            blend=[{"fibre": self.one("fibres"), "share": 100}], weave=self.one("weaves"),
            width_readings=[f"{rng.choice([25, 900, 1400])} mm"], in_hand=self.length(500, 3000),
        ))  # fmt: skip
        self.say("PUT", f"{self.at}/uses/{other}/runs", runs=[
            {"what": "waist", "length": self.length(300, 900), "times": rng.randint(1, 3)}])  # fmt: skip
        for piece in self.project()["pieces"][:2]:
            self.say("PUT", f"/pieces/{piece['id']}/cuts/{other}", copies=rng.randint(0, 2),
                     shorter=self.length(0, 30), pair=rng.random() < 0.5)  # fmt: skip

    def cuts(self) -> None:
        rng = self.rng
        for piece in self.project()["pieces"]:
            self.say("PATCH", f"/pieces/{piece['id']}", **self.some(
                copies=rng.randint(1, 5), pair=rng.random() < 0.5, grain=self.one("grains"), seam=self.length(0, 40),
                one_way=rng.random() < 0.3, on_fold=rng.random() < 0.2,
            ))  # fmt: skip

    def treated(self) -> None:
        rng = self.rng
        cloth = self.project()["cloth"]["id"]
        schools = [one["value"] for one in self.person.ask("GET", f"{self.at}/shrink")["advice"]["schools"]]
        if schools:
            self.say("PATCH", f"{self.at}/treatment", school=rng.choice(schools))
        for _ in range(rng.randint(0, 2)):
            self.say(
                "POST",
                f"/cloths/{cloth}/washes",
                how="as it will be",
                wash=self.one("washes"),
                **self.some(
                    grade=rng.randint(1, 5), length_after=self.length(600, 5000), width_after=self.length(800, 1500)
                ),
            )

    def buy(self) -> None:
        rng = self.rng
        self.say("PATCH", f"{self.at}/purchase", **self.some(
            ends=self.length(0, 150), spare=self.length(0, 300), shop_step=rng.choice(["10 cm", "50 cm", "1/4 yd"]),
            edge_way=rng.choice(["tear", "thread", "bar", "shears", "square"]), bought_extra=self.length(0, 500),
            extra_why=rng.choice(["", "a border", "a border"]),
        ))  # fmt: skip
        for k in range(rng.randint(0, 2)):
            self.say("POST", f"{self.at}/offers", name=f"Offer {k}", **self.some(
                width=self.length(890, 1520), margin=self.length(0, 20), price="12,40", warp=rng.uniform(0, 8),
                weft=rng.uniform(0, 5), stock=self.length(500, 4000), same=rng.random() < 0.5, step="25 cm",
                least=self.length(0, 1000), price_unit=rng.choice(["m", "yd"]), fibre=self.one("fibres"),
            ))  # fmt: skip
        self.say("POST", f"{self.at}/list", kind="thread", name="Thread", amount="2 reels")

    def strips(self) -> None:
        rng = self.rng
        self.say("PATCH", f"{self.at}/strips", **self.some(
            edge=self.length(300, 3000), fullness=rng.choice(["1.5", "2", "3"]), depth=self.length(30, 400),
            hem=self.length(0, 40), seam=self.length(0, 20), ring=rng.random() < 0.5, long=self.length(200, 1500),
            wide=self.length(20, 900), tape=self.length(15, 60), tape_seam=self.length(0, 12),
        ))  # fmt: skip
        if rng.random() < 0.4:
            self.say("POST", f"{self.at}/strips/pieces", what=rng.choice(["across", "along", "tape"]))

    def envelope(self) -> None:
        rng = self.rng
        rows = [
            {"width": width, "nap": rng.choice(["", "with", "without"]),
             "lengths": [rng.choice(["1 3/8 yd", "2.3 m", "2 1/4 yd", None]), "3 yd"]}
            for width in rng.sample(["35 in", "45 in", "44/45 in", "60 in", "150 cm"], 2)
        ]  # fmt: skip
        self.say("PATCH", f"{self.at}/envelope", **self.some(
            views=[{"name": "A", "rows": rows}], sizes=[{"name": "12", "body": "90 cm", "finished": "98 cm"},
                                                       {"name": "14", "body": ["95 cm", "98 cm"]}],
            mine=self.length(860, 1010), fit=rng.choice(["close", "loose"]), to_width=self.length(850, 1600),
            sleeves_in_one=rng.random() < 0.5, size=rng.choice(["12", "14"]), view=0,
        ))  # fmt: skip

    def true(self) -> None:
        rng = self.rng
        self.say("PATCH", f"{self.at}/true", **self.some(
            edge_way=rng.choice(["tear", "thread", "bar", "shears", "square"]), cut_off=self.length(0, 60),
            edge=[self.length(0, 60) for _ in range(3)], now={
                "offset": self.length(0, 70), "side": rng.choice(["near", "far"]), "bow": self.length(0, 30),
                "done": rng.choice(["", "steam", "pull", "pin", "short", "cut"]), "place": self.length(100, 500)},
            fold=[{"along": f"{k * 400} mm", "distance": self.length(400, 440)} for k in range(3)],
            ripple=rng.choice(["", "out", "in"]), bands=[self.length(2, 6), self.length(8, 15), self.length(20, 40)],
            bars=[{"place": self.length(100, 900), "off": self.length(0, 12), "side": rng.choice(["out", "in"])}],
            school=rng.choice(["", "pin", "pull"]), accepted=rng.random() < 0.3,
        ))  # fmt: skip

    def house(self) -> None:
        self.say("PATCH", "/washday", **self.some(washer_kg="6", rise="7:30", sleep="10 pm"))
        self.say("POST", "/washday/plan", start="9:00")

    def wishes(self) -> None:
        folds = [one["value"] for one in self.choices["folds"]]
        self.say("PATCH", f"{self.at}/lay", **self.some(gap=self.length(0, 12), folds=self.rng.sample(folds, 2)))

    def laid(self) -> None:
        """What can be laid is, by the first steps of the search, and what its purchase asks for is tried."""
        from idle_selvage.jobs import laying, trying

        database = data_of(self.person.app)
        for use in self.project()["uses"]:
            self.say("PATCH", f"{self.at}/lay?use={use['id']}", lay_seconds=1)
            if self.person.ask("GET", f"{self.at}?use={use['id']}")["can_lay"]:
                job = self.say("POST", f"{self.at}/lays?use={use['id']}", seconds=1)
                if job:
                    laying.run(database, job["id"], FEW_STEPS)
            for what in ("extras", "offers", "together"):
                job = self.say("POST", f"{self.at}/trials?use={use['id']}", what=what)
                if job and job["job_id"] is not None:
                    trying.run(database, job["job_id"], FEW_STEPS)

    def look(self) -> None:
        """Every page of the garment, through each of its cloths, and what stands beside it."""
        for path in ("/projects", "/cloths", "/washday", "/log", "/undo"):
            self.told.append((path, self.person.ask("GET", path)))
        for use in self.project()["uses"]:
            for page in PAGES:
                of = f"&cloth_id={use['cloth_id']}" if page == "/will-it-do" else ""
                self.told.append((page or "/", self.say("GET", f"{self.at}{page}?use={use['id']}{of}")))
        self.told.append(("/log", self.say("GET", f"{self.at}/log")))
        for piece in self.project()["pieces"]:
            self.told.append(("/pages", self.say("GET", f"/pieces/{piece['id']}/pages?paper=a4&enlarged=true")))
