"""Garments as they are sent, whole and as one strip on the bench; and what the lists on the screens offer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import cast

from sqlalchemy.orm import Session

from ...core.buy.order import SHOP_STEPS_MM
from ...core.cloth.border import KINDS
from ...core.cloth.border import SIDES as BORDER_SIDES
from ...core.cloth.direction import CLOTH_DIRECTIONS, PILE_RUNS
from ...core.cloth.dye import GRADES, GREY_SCALE
from ...core.cloth.hand import QUESTIONS
from ...core.cloth.make import COLOURINGS, FIBRES, FINISHES, WEAVES, fibre_label
from ...core.glossary import glossary
from ...core.lay.folding import SIDES, Sides
from ...core.lay.long import lay_length
from ...core.lay.moves import STRETCHES
from ...core.lay.named import fold_name
from ...core.lay.problem import FOLDS
from ...core.plan.piece import GRAINS
from ...core.shrink.together import ROLES
from ...core.shrink.treatment import DRIES, WASHES
from ...core.units import System
from ...core.working import Figure, Quantity
from ...core.written import length_text, quantity_text, with_fahrenheit
from ...operations.lay import lay_standing
from ...operations.standing import GarmentStanding, Standing, standing
from ...operations.true import edge_advice, edge_way
from ...store import models
from ...store.cloth import bar_sequence
from ..buy.show import purchase_out
from ..cloth.show import bar_out, cloth_out
from ..lay.show import job_out
from ..plan.show import piece_out
from ..shared.figures import Presenter, presenter
from ..shared.schemas import ChoiceOut
from ..shrink.show import set_out
from ..true.show import edge_out
from . import schemas as out

GRAIN_LABELS = {"lengthwise": "lengthwise", "crosswise": "on the cross grain", "bias": "on the bias", "any": "any way"}


def project_out(session: Session, use: models.ClothUse) -> out.ProjectOut:
    """A garment whole as it stands now, seen through one of its cloths."""
    return standing_out(presenter(), standing(session, use))


def standing_out(show: Presenter, now: Standing) -> out.ProjectOut:
    """A garment whole, seen through one of its cloths."""
    row, rows = now.garment, now.rows
    return out.ProjectOut(
        id=row.id,
        use_id=now.use.id,
        uses=[use_out(show, one) for one in now.whole.uses],
        name=row.name,
        note=row.note,
        wash=row.wash,
        dry=row.dry,
        size=row.size,
        size_at=[out.SizeAtOut(place=one["place"], size=one["size"]) for one in row.size_at],
        sizes=list(dict.fromkeys(one["size"] for p in now.pieces for one in p.sizes)),
        levels=list(dict.fromkeys(m["name"] for p in now.pieces for m in p.marks if m["kind"] == "level")),
        school=now.use.school,
        cloth=cloth_out(show, now.cloth),
        set=set_out(show, now.set),
        washed_width=show.figure(now.tally.washed_width),
        wishes=wishes_out(show, now),
        pieces=[piece_out(show, p, now) for p in now.pieces],
        copies=sum(cut.copies for _, cut in rows.cuts),
        can_lay=not now.missing,
        stages=_stages(now.whole),
        waits=[out.WaitOut(stage=w.stage, on=w.on, why=w.why) for w in now.waits],
        tally=tally_entries(show, now),
        warnings=[
            out.WarningOut(stage=w.stage, level=w.level, text=show.told(w.text), key=str(w.text), aside=w.aside)
            for w in now.warnings
        ],
        purchase=purchase_out(show, now),
        job=job_out(show, rows.job) if rows.job else None,
        next_step=now.next_step,
    )


def use_out(show: Presenter, now: Standing) -> out.UseOut:
    """One cloth of a garment in the switch of cloths."""
    row = now.cloth.row
    return out.UseOut(
        id=now.use.id,
        role=now.role,
        role_label=ROLES[now.role],
        cloth_id=row.id,
        name=now.name,
        ground=row.ground,
        bars_along=[bar_out(show, bar.width, bar.colour) for bar in bar_sequence(row, "along")],
        bars_across=[bar_out(show, bar.width, bar.colour) for bar in bar_sequence(row, "across")],
        copies=sum(cut.copies for _, cut in now.rows.cuts),
        state=now.cloth.states.states[-1].name,
        buying=now.buying,
        look_again=not now.idle and any(stage.state == "look-again" for stage in now.stages_here),
        trim=now.trim,
        runs=[out.RunOut(what=r.what, length=show.length(r.length), times=r.times) for r in now.rows.runs],
    )


def _stages(now: GarmentStanding) -> list[out.StageOut]:
    return [out.StageOut(name=s.name, state=s.state, why=s.why) for s in now.stages]


def wishes_out(show: Presenter, now: Standing) -> out.WishesOut:
    """What the maker set for laying and buying."""
    row = now.use
    return out.WishesOut(
        gap=show.length(row.gap),
        folds=row.folds,
        sides=cast(Sides, row.sides),
        turn_on_bars=row.turn_on_bars,
        lay_seconds=row.lay_seconds,
        ends=show.length(row.ends),
        spare=show.length(row.spare),
        shop_step=show.length(row.shop_step),
        edge_way=row.edge_way,
        way=edge_way(row),
        edge=edge_out(show, edge_advice(row.cloth)),
        bought_extra=show.length(row.bought_extra),
        extra_why=row.extra_why,
    )


def tally_entries(show: Presenter, now: Standing) -> list[out.TallyEntryOut]:
    """The foot of the screen, left to right."""
    found = now.tally
    bought = found.purchase
    coming = now.cutting.treatment == "coming"
    laid = None if now.trim else _lay_figure(now, show.system)
    entries: list[tuple[str, str, Figure | None]] = [
        *([] if now.trim else [("width", "usable width after washing" if coming else "usable width", found.width)]),
        ("lay", "edges" if now.trim else "lay", now.trim_length if now.trim else laid),
        ("to_buy", "to buy", bought.still if bought else None),
        ("shrinkage_warp", "shrinkage along", found.warp.figure),
        ("cost", "cost, bought anew" if bought and bought.in_hand_does else "cost", bought.cost if bought else None),
        *([("all_cloths", "all cloths", now.whole.cost[0])] if len(now.whole.uses) > 1 else []),
        ("spare", "spare", bought.spare if bought else None),
    ]
    first = "Say which edges it goes on." if now.trim else "Lay the pieces first."
    return [
        out.TallyEntryOut(
            key=key,
            label=label,
            figure=show.figure(figure),
            missing="" if figure else found.missing.get(key, first),
            goes="" if figure else _goes(now, key),
        )
        for key, label, figure in entries
    ]


def _goes(now: Standing, key: str) -> str:
    """The stage where what a figure of the tally lacks is done."""
    if key == "width" or (key in ("cost", "all_cloths") and now.bought is not None):
        return "cloth"
    if key == "shrinkage_warp":
        return "shrink"
    if now.trim:
        return "buy"
    return {one.stage: one.on for one in now.waits}.get("lay" if key == "lay" else "buy", "lay")


def _lay_figure(now: Standing, system: System) -> Figure | None:
    """How long the lay is, and how short it could be."""
    if now.chosen is None:
        return None
    found = lay_standing(now, now.chosen)
    told = f"searched {found.lay.steps} steps; cannot be shorter than {length_text(found.lay.bound, system)}"
    return replace(lay_length(found.lay, found.drawn("opened").shapes), note=told)


def line_out(show: Presenter, now: GarmentStanding) -> out.ProjectLineOut:
    """A garment as one strip on the bench, all its cloths on it."""
    row, main = now.rows.project, now.uses[0]
    return out.ProjectLineOut(
        id=row.id,
        name=row.name,
        note=row.note,
        cloth=cloth_out(show, main.cloth),
        beside=[cloth_out(show, one.cloth) for one in now.uses[1:]],
        stages=_stages(now),
        pieces=len(now.rows.pieces),
        buying=main.buying,
        next_step=now.next_step,
    )


def _shop_steps(system: System) -> list[tuple[str, str]]:
    """What a shop cuts in: for whoever works in inches, yards; else both."""
    yards = [(str(mm), quantity_text(Quantity(mm, "purchase"), "imperial")) for mm in SHOP_STEPS_MM[3:]]
    metric = [(str(mm), f"{mm / 10:.0f} cm") for mm in SHOP_STEPS_MM[:3]]
    return metric + yards if system == "metric" else yards


def choices_out(system: System) -> out.ChoicesOut:
    """What the lists on the screens offer."""

    def listed(pairs: Sequence[tuple[str, str]]) -> list[ChoiceOut]:
        return [ChoiceOut(value=value, label=label) for value, label in pairs]

    return out.ChoicesOut(
        glossary=[out.WordOut(word=w.word, means=w.means, also=list(w.also)) for w in glossary()],
        fibres=listed([(fibre, fibre_label(fibre)) for fibre in FIBRES]),
        weaves=listed(list(WEAVES.items())),
        finishes=listed(list(FINISHES.items())),
        colourings=listed(list(COLOURINGS.items())),
        directions=listed(list(CLOTH_DIRECTIONS.items())),
        piles=listed([(k, name) for k, (name, _) in PILE_RUNS.items()]),
        grades=listed([(str(k), f"{k}: {told}") for k, told in GRADES.items()]),
        grade_scale=f"{GREY_SCALE.name}: {GREY_SCALE.note}",
        roles=listed([(k, label) for k, label in ROLES.items() if k != "main"]),
        questions=[out.QuestionOut(key=q.key, asks=q.asks, how=q.how, answers=listed(q.answers)) for q in QUESTIONS],
        washes=listed([(key, with_fahrenheit(told, system)) for key, told in WASHES.items()]),
        dries=listed([(k, v) for k, v in DRIES.items() if v]),
        grains=listed([(g, GRAIN_LABELS[g]) for g in GRAINS]),
        folds=listed([(f, fold_name(f)) for f in FOLDS]),
        stretches=list(STRETCHES),
        borders=listed(list(KINDS.items())),
        border_sides=listed(list(BORDER_SIDES.items())),
        sides=listed([(side, f"{name}: {why}") for side, (name, why) in SIDES.items()]),
        steps=listed(_shop_steps(system)),
    )
