"""How a garment stands: all that is known of it now, cloth by cloth, reckoned once and handed on to every show."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import cast

from sqlalchemy.orm import Session

from ..core.buy.order import Order, Rule
from ..core.buy.proved import least_figure, proved_purchase
from ..core.buy.purchase import Purchase
from ..core.buy.trims import trim_length
from ..core.cloth.bars import BarPattern
from ..core.cloth.border import HemOnBorder, Side, apart, without_border
from ..core.cloth.direction import direction_asked
from ..core.cloth.dye import Dye
from ..core.cloth.hand import needs_lining
from ..core.cloth.make import NO_GRAIN, Make
from ..core.cloth.width import PLACES
from ..core.cut.tally import Progress, progress
from ..core.cut.tally import tally as add_up
from ..core.lay import stale
from ..core.lay.asking import (
    ClothToLay,
    PieceToLay,
    WishedBar,
    ask,
    bars_laid,
    joined_on,
    keeps_off_the_fold,
    told_apart,
)
from ..core.lay.broken import Broken
from ..core.lay.joined import Joined
from ..core.lay.named import renamed
from ..core.lay.problem import Problem
from ..core.plan.outline import BadPiece
from ..core.plan.piece import Grain
from ..core.plan.seams import Sewn
from ..core.plan.sizes import SizeChoice
from ..core.project.next_step import next_step
from ..core.project.stages import Stage, StageFacts, stages
from ..core.project.tally import ClothFacts, MeasuredLay, Tally, Treatment, bad_pieces, cut_in, tally
from ..core.project.waits import Wait, WaitFacts, waits
from ..core.project.warnings import Warned, Watched, warnings
from ..core.project.whole import combined, whole_cost
from ..core.shrink.known import Shrinkage
from ..core.shrink.programme import Programme
from ..core.shrink.shrinkage import Direction
from ..core.shrink.states import ClothStates
from ..core.shrink.swatch import BOTH_WAYS, Swatch, at_rest_unless
from ..core.shrink.to_fit import fit_by
from ..core.shrink.together import ROLES, Member, headline, mismatches, one_washed_all_washed, wanted
from ..core.shrink.treatment import Advice, TreatmentFacts, advise, finished, milder_than, treatment_facts
from ..core.true.attempts import Truth, loop
from ..core.washday.needs import needs_treatment
from ..core.wording import Sentence, capital, sentence_of
from ..core.working import Figure
from ..store import cloth as cloths
from ..store import cutting, models, trial, true_sheet, use, wash
from ..store import garment as stored
from ..store import piece as pieces
from ..store import seam as seams
from ..store import swatch as swatches
from ..store.garment import ClothRows, GarmentRows, UseRows
from ..store.lay import as_lay, in_hand
from ..store.true_test import as_attempts
from .by_hand import standing_of
from .ladder import Ladder, ladder_of

#: Care under which the finished thing meets no water.
DRY = ("never", "dry-clean")


@dataclass(frozen=True)
class ClothStanding:
    """What is known of one cloth; ``how`` a garment washes it, None: of itself, in the cupboard."""

    rows: ClothRows
    how: Programme | None = None

    @property
    def row(self) -> models.Cloth:
        return self.rows.cloth

    @cached_property
    def make(self) -> Make:
        """What it is made of."""
        return cloths.as_make(self.row)

    @cached_property
    def dye(self) -> Dye:
        """What is known of its dye."""
        return cloths.as_dye(self.row, self.rows.washes)

    @cached_property
    def bars(self) -> tuple[BarPattern, BarPattern]:
        """Its bars along and across."""
        return cloths.as_bars(self.row)

    @property
    def bars_seen(self) -> bool:
        """Whether it has bars whose matching can be seen."""
        return any(bars.seen for bars in self.bars)

    @cached_property
    def test(self) -> Swatch:
        """The swatch it is gone by; an empty one before any was marked."""
        return swatches.as_swatch(self.rows.swatch)

    @cached_property
    def states(self) -> ClothStates:
        """The cloth as bought and after each treatment; a swatch that was only begun takes nothing from what an earlier
        one has measured."""
        tells = swatches.as_swatch(self.rows.measured)
        return ClothStates(cloths.as_states(self.row), self.make, tells, self.rows.past, self.how)

    @cached_property
    def warp(self) -> Shrinkage:
        """Its shrinkage along in all, and on what that rests."""
        return self.states.after(self._whole, "warp")

    @cached_property
    def weft(self) -> Shrinkage:
        """Its shrinkage across in all, and on what that rests."""
        return self.states.after(self._whole, "weft")

    @property
    def _whole(self) -> int:
        return max(1, self.states.washes, self.states.current)

    @property
    def basis(self) -> str:
        """What its shrinkages rest on, in a word or two."""
        warp, weft = self.warp.basis, self.weft.basis
        return warp if warp == weft else f"{warp} and {weft}"

    @cached_property
    def width_now(self) -> Figure | None:
        """Its narrowest width as it is now, measured or predicted; None while it is not known."""
        return self.states.width_in(self.states.current)

    @cached_property
    def length_now(self) -> Figure | None:
        """Its length as it is now, measured or predicted; None while it is not known."""
        return self.states.length_in(self.states.current)

    @cached_property
    def treatment_facts(self) -> TreatmentFacts:
        """What decides how it is treated."""
        now = self.length_now
        return treatment_facts(self.make, self.dye, now.value if now is not None else None)

    @property
    def needs_treatment(self) -> bool:
        """Whether the length still has to be treated."""
        return needs_treatment(wash.as_done(self.rows.washes))

    def name(self, role: str = "main") -> str:
        """Its name, or else what it is for."""
        return self.row.name or ROLES[role].capitalize()


@dataclass(frozen=True)
class Cutting:
    """A cloth as one garment treats and cuts it: its own cloth, or one that is thought of instead."""

    garment: models.Project
    use: models.ClothUse
    cloth: ClothStanding

    @property
    def to_fit(self) -> bool:
        """Whether it is sewn first and shrunk to fit."""
        return self.use.school == "fit"

    @cached_property
    def advice(self) -> Advice:
        """How the cloth is treated for this garment."""
        facts = self.cloth.treatment_facts
        return advise(self.garment.wash, self.garment.dry, facts, use.school_of(self.use))

    @cached_property
    def treatment(self) -> Treatment:
        """What happens to the cloth before it is cut."""
        if self.to_fit:
            return "fit"
        if self.cloth.states.current and not self.cloth.needs_treatment:
            return "done"
        return "none" if self.advice.programme.cycle == "none" else "coming"

    @cached_property
    def how(self) -> Programme | None:
        """How the length will be washed, or was; or how the finished garment will, where the cloth is left alone. None:
        it meets neither water nor steam."""
        if self.treatment in ("coming", "done") and self.advice.programme.cycle != "none":
            return self.advice.programme
        return finished(self.garment.wash, self.garment.dry, self.cloth.treatment_facts)

    @property
    def states(self) -> ClothStates:
        """The cloth through its states."""
        return self.cloth.states

    def left(self, way: Direction) -> float | None:
        """What it may still lose as it is now, at its best value, per cent; None while that is not known."""
        whole = max(1, self.states.washes, self.states.current)
        figure = self.states.coming(self.states.current, whole, way).figure
        return None if figure is None else figure.value

    @property
    def at(self) -> int:
        """The state it is cut in."""
        return cut_in(self.cloth.states, self.treatment)

    @property
    def facts(self) -> ClothFacts:
        """What its tally rests on."""
        states, later = self.states, self.garment.wash not in DRY
        return ClothFacts(states.make, states.swatch, states.past, self.treatment, states.states, later, self.how)

    @cached_property
    def fit(self) -> tuple[float, float] | None:
        """The shrinkages by which pieces are enlarged, when it is sewn first: what it has left to lose."""
        if not self.to_fit:
            return None
        states = self.states
        whole = max(1, states.washes, states.current)
        warp, weft = (states.coming(states.current, whole, way) for way in BOTH_WAYS)
        return fit_by(warp, weft)

    @property
    def laid(self) -> ClothToLay:
        """What of it decides a lay."""
        return cloths.as_laid(self.cloth.row, self.states, self.at)

    def tally(self, laid: MeasuredLay | None) -> Tally:
        """The few figures it is steered by. Raises BadCloth."""
        return tally(cloths.as_cloth(self.cloth.row), self.facts, laid, use.as_wishes(self.use))


def washed_for(garment: models.Project, use_: models.ClothUse, cloth: ClothStanding) -> ClothStanding:
    """A cloth as it is washed for one garment: its swatch tells of some washes and not of others."""
    return replace(cloth, how=Cutting(garment, use_, cloth).how)


@dataclass(frozen=True)
class SetStanding:
    """Every cloth of a garment side by side, with the cores' members in the same order."""

    cloths: tuple[Standing, ...]

    @cached_property
    def members(self) -> tuple[Member, ...]:
        return tuple(_member(one) for one in self.cloths)

    @cached_property
    def mismatches(self) -> tuple[str, ...]:
        return mismatches(self.members)

    @property
    def headline(self) -> str:
        """How they stand to one another."""
        return headline(self.members)

    @cached_property
    def all_washed(self) -> str:
        return one_washed_all_washed(self.members)

    @property
    def wanted(self) -> tuple[str, ...]:
        """What is missing beside the main cloth."""
        return wanted(self.members, needs_lining(self.cloths[0].cloth.row.answers))


def _member(now: Standing) -> Member:
    cloth = now.cloth
    cut: dict[str, Grain] = {one.key: one.piece.grain for one in now.asked}
    left = now.cutting.left
    return Member(now.name, now.role, left("warp"), left("weft"), bool(cloth.states.current), cut)


@dataclass(frozen=True)
class GarmentStanding:
    """How one garment stands: each of its cloths, and all of them together."""

    rows: GarmentRows
    ladders: Mapping[int, Ladder | None]
    trials: Mapping[str, models.Trial]

    @cached_property
    def uses(self) -> tuple[Standing, ...]:
        """Its cloths, the main one first."""
        return tuple(Standing(self, one, self.ladders[one.use.id]) for one in self.rows.uses)

    def of(self, use_id: int) -> Standing:
        """One of its cloths."""
        return next(one for one in self.uses if one.use.id == use_id)

    @cached_property
    def set(self) -> SetStanding:
        return SetStanding(self.uses)

    @cached_property
    def size(self) -> SizeChoice:
        """The size the garment is cut in."""
        return pieces.chosen_size(self.rows.project)

    @cached_property
    def stages(self) -> tuple[Stage, ...]:
        """The rail's dots, the worst over all cloths that are cut."""
        cut = [one for one in self.uses if not one.idle]
        return combined([(one.name, one.stages_here) for one in cut])

    @cached_property
    def cost(self) -> tuple[Figure | None, tuple[str, ...]]:
        """What its cloths cost together, and those of which that is not known yet."""
        return whole_cost([(one.name, None if one.bought is None else one.bought.cost) for one in self.uses])

    @property
    def next_step(self) -> str:
        """What to do next."""
        return next_step(self.stages)


@dataclass(frozen=True)
class Standing:
    """How one garment stands, seen through one of its cloths. Figures are worked out when first asked for, and kept."""

    whole: GarmentStanding
    rows: UseRows
    ladder: Ladder | None

    @property
    def garment(self) -> models.Project:
        return self.whole.rows.project

    @property
    def use(self) -> models.ClothUse:
        return self.rows.use

    @property
    def role(self) -> str:
        """What the cloth is for."""
        return self.use.role

    @property
    def trim(self) -> bool:
        """Whether it goes on edges by the metre instead of being cut in pieces."""
        return self.role == "trim"

    @cached_property
    def cloth(self) -> ClothStanding:
        """The cloth as this garment washes it."""
        return washed_for(self.garment, self.use, ClothStanding(self.rows.cloth))

    @property
    def name(self) -> str:
        """The cloth's name, or else what it is for."""
        return self.cloth.name(self.role)

    @cached_property
    def cutting(self) -> Cutting:
        """The cloth as this garment treats and cuts it."""
        return Cutting(self.garment, self.use, self.cloth)

    @property
    def advice(self) -> Advice:
        return self.cutting.advice

    @property
    def set(self) -> SetStanding:
        return self.whole.set

    @property
    def pieces(self) -> tuple[models.Piece, ...]:
        """All pieces of the garment."""
        return self.whole.rows.pieces

    @property
    def trials(self) -> Mapping[str, models.Trial]:
        return self.whole.trials

    @cached_property
    def asked(self) -> tuple[PieceToLay, ...]:
        """The pieces cut from it."""
        return tuple(pieces.as_asked(piece, cut, self.size) for piece, cut in self.rows.cuts)

    @cached_property
    def sewn(self) -> tuple[Sewn, ...]:
        """The seams between pieces that are cut from it, by priority; those whose edges are no longer there are left
        out."""
        drafted = {
            one.key: (pieces.sized_draft(piece, self.size)[0], one.piece)
            for one, (piece, _) in zip(self.asked, self.rows.cuts, strict=True)
        }
        found = (seams.sewn_of(seams.as_seam(row), drafted) for row in self.whole.rows.seams)
        return tuple(one for one in found if one is not None)

    @cached_property
    def joined(self) -> Joined:
        """What its seams come to on its bars, by the graph alone."""
        laid = self.cutting.laid
        return joined_on(laid, self.asked, bars_laid(laid), self.fit, self.sewn, self.wished)

    @property
    def _cannot_meet(self) -> tuple[str, ...]:
        """Seams at which bars shall meet, and cannot for others that come first."""
        if not self.sewn or not self.cloth.bars_seen:
            return ()
        found = self.joined.levels.standing
        return tuple(one.seam.name or "a seam" for one in self.sewn if found.get(one.seam.key) == "misses")

    @cached_property
    def wished(self) -> tuple[WishedBar, ...]:
        """Which bars shall fall where on its pieces."""
        return seams.wishes_of(self.rows.wishes)

    @property
    def size(self) -> SizeChoice:
        """The size the garment is cut in."""
        return self.whole.size

    @cached_property
    def names(self) -> dict[str, str]:
        """What each piece of the garment is called on a lay, by its key."""
        rows = self.pieces
        return dict(zip((str(row.id) for row in rows), told_apart([row.name for row in rows]), strict=True))

    @property
    def idle(self) -> bool:
        """Whether it stands beside the main cloth and nothing is cut from it yet."""
        return self.role != "main" and not (self.rows.runs if self.trim else self.rows.cuts)

    @property
    def chosen(self) -> models.LayRecord | None:
        """The lay it goes by."""
        return self.rows.chosen

    @property
    def to_fit(self) -> bool:
        """Whether it is sewn first and shrunk to fit."""
        return self.cutting.to_fit

    @property
    def fit(self) -> tuple[float, float] | None:
        return self.cutting.fit

    @cached_property
    def order(self) -> Order:
        """What is asked for besides the lay."""
        return use.as_order(self.use)

    @cached_property
    def trim_length(self) -> Figure | None:
        """How much of a trim is sewn on; None for a cloth, or before its edges are known."""
        return trim_length([use.as_run(run) for run in self.rows.runs]) if self.trim else None

    @cached_property
    def laid(self) -> MeasuredLay | None:
        """The length that is cut: of the chosen lay, or the edges of a trim."""
        if self.trim:
            return (
                None if self.trim_length is None else MeasuredLay(self.trim_length.value, what="the edges, turned in")
            )
        return None if self.ladder is None else self.ladder.measured(self.trials)

    @cached_property
    def tally(self) -> Tally:
        """The few figures it is steered by."""
        return self.cutting.tally(self.laid)

    @property
    def bought(self) -> Purchase | None:
        return self.tally.purchase

    @property
    def buying(self) -> str:
        """What is to be bought beside what is in hand, as a phrase; nothing while that is not known."""
        there = self.cloth.length_now
        return "" if self.bought is None else self.bought.told(None if there is None else there.value)

    @property
    def pending(self) -> tuple[Rule, ...]:
        """The rules whose cost in the lay was not measured yet."""
        return self.ladder.pending(self.trials) if self.ladder is not None else ()

    @cached_property
    def _problem(self) -> tuple[Problem | None, tuple[str, str] | None]:
        """The lay to be asked for, or the stage where something is missing, and what."""
        if not self.rows.cuts:
            return None, ("plan", self.nothing_cut if self.pieces else NO_PIECES)
        if self.tally.width is None:
            return None, ("cloth", self.tally.missing.get("width", "Measure the cloth's width first."))
        if self.to_fit and self.fit is None:
            return None, ("shrink", NO_FIT)
        try:
            return self.lay_on(self.cutting.laid, self.tally.width.value, self.fit), None
        except BadPiece as fault:
            return None, ("plan", sentence_of(fault))

    @cached_property
    def waits(self) -> tuple[Wait, ...]:
        """Which of its stages wait for another one."""
        return waits(
            WaitFacts(
                missing=self._problem[1],
                laid=self.chosen is not None,
                can_buy=self.bought is not None,
                trim=self.trim,
                width_known=any(state.widths for state in self.cloth.states.states),
                not_bought=self.tally.missing.get("to_buy", ""),
            )
        )

    @property
    def nothing_cut(self) -> str:
        """That no piece is cut from it, as a sentence."""
        if self.trim:
            return f"{self.name} goes by the metre and is not laid: say under Buy which edges it goes on."
        return f"No piece is cut from {self.name} yet: say on Plan which are."

    @property
    def problem(self) -> Problem | None:
        """The lay as it would be asked for now; None while something is missing, which :attr:`missing` says."""
        return self._problem[0]

    @property
    def missing(self) -> str:
        """What is missing before anything can be laid, as a sentence, or nothing."""
        return self._problem[1][1] if self._problem[1] is not None else ""

    def lay_on(
        self, cloth: ClothToLay, width: float, fit: tuple[float, float] | None, *, flaws: bool = True
    ) -> Problem:
        """Its pieces on a usable width of a cloth, mm. Raises BadPiece."""
        rules = use.as_rules(self.use)
        found = ask(cloth, self.asked, rules, width, fit, flaws=flaws, seams=self.sewn, wishes=self.wished)
        return renamed(found, self.names)

    @cached_property
    def stale(self) -> tuple[Sentence, ...]:
        """Why the lay is out of date, each as the end of a sentence."""
        if self.chosen is None or self.ladder is None:
            return ()
        if self.problem is None:
            return (Sentence("it can no longer be laid ({why})", why=self.missing.rstrip(".")),)
        return stale.changes(self.ladder.problem, self.problem, self.chosen.basis, self.tally.basis)

    @cached_property
    def truth(self) -> Truth:
        """How far True is."""
        sheet, tests = self.rows.true_sheet, self.rows.true_tests
        found = loop(as_attempts(tests), true_sheet.as_bands(sheet))
        return Truth(
            bool(tests),
            bool(true_sheet.edge(self.use) or true_sheet.reading_now(self.use, sheet)),
            found,
            sheet.accepted,
        )

    @cached_property
    def cut_so_far(self) -> Progress:
        """How far cutting is."""
        rounds = self.rows.rounds
        found = add_up([cutting.as_round(row) for row in rounds], [cutting.as_deed(row) for row in self.rows.deeds])
        asked = cutting.asked_of_round(rounds[0]) if rounds else {}
        return progress(found, asked, begun=bool(rounds), laid=self.chosen is not None)

    @cached_property
    def stages_here(self) -> tuple[Stage, ...]:
        """How far each stage is for this cloth."""
        row, swatch, job = self.cloth.row, self.rows.cloth.swatch, self.rows.job
        found, states = self.tally, self.cloth.states
        done = self.cutting.treatment in ("done", "none")
        measured = max((len(state.widths) for state in states.states), default=0)
        return stages(
            StageFacts(
                pieces=len(self.pieces),
                bad_pieces=len(bad_pieces([one.piece for one in self.asked])),
                # how wide a trim is decides nothing
                width_readings=PLACES if self.trim else measured,
                kind_known=bool(row.blend),
                marks_before=len(swatch.warp) + len(swatch.weft) if swatch else 0,
                washed_both_ways=(found.warp.basis == "swatch" and found.weft.basis == "swatch") or done,
                made_up=swatch is not None and swatch.simulated,
                not_at_rest="" if done else at_rest_unless(self.cloth.test, row.like),
                # the newest laying: beginning one stops any other
                laying=job is not None and job.state in ("waiting", "running"),
                laid=self.chosen is not None,
                stale=self.stale,
                broken=len(self.broken),
                can_buy=found.purchase is not None,
                logged=self.whole.rows.logged,
                true=self.truth.progress,
                trued=not self.trim and row.weave not in NO_GRAIN,
                laid_out=not self.trim,
                cut=self.cut_so_far,
            )
        )

    @property
    def stages(self) -> tuple[Stage, ...]:
        """The rail's dots, over all cloths of the garment."""
        return self.whole.stages

    @property
    def next_step(self) -> str:
        """What to do next with the garment."""
        return self.whole.next_step

    @cached_property
    def broken(self) -> tuple[Broken, ...]:
        """The rules that the lay it goes by breaks and that nobody said are meant; what a search found breaks none."""
        if self.chosen is None or not self.chosen.name:
            return ()
        return standing_of(in_hand(self.chosen)).unmeant

    @cached_property
    def warnings_here(self) -> tuple[Warned, ...]:
        """Everything of this cloth to look at."""
        row, swatch = self.cloth.row, self.rows.cloth.measured
        states = self.cloth.states
        return warnings(
            Watched(
                tally=self.tally.warnings,
                stale=self.stale,
                broken=[(one.told, one.spoils) for one in self.broken],
                bars_seen=self.cloth.bars_seen and not self.idle,
                any_meets=any(p.centred for p, _ in self.rows.cuts) or any(one.seam.asked for one in self.sewn),
                cannot_meet=self._cannot_meet,
                fold_kept_off=None
                if row.shop_fold is None or self.problem is None
                else keeps_off_the_fold(self.problem),
                made_up=swatch is not None and swatch.simulated,
                washed_unmeasured=states.current > 0 and states.measured("width", states.current) != states.current,
                uncut=self.name if self.idle and not self.trim else "",
                milder=self._treated_too_mildly,
                asked=self._asked_of_the_cloth,
            )
        )

    @property
    def _treated_too_mildly(self) -> str:
        """That every treatment so far was milder than the garment's washing will be; nothing where it is not known."""
        coming = finished(self.garment.wash, self.garment.dry, self.cloth.treatment_facts)
        had = [wash.wash for wash in self.cloth.row.treatments]
        if coming is None or not coming.wet or not had or not all(had):
            return ""
        return milder_than(had, coming)

    @property
    def _asked_of_the_cloth(self) -> tuple[str, ...]:
        """What is odd about its direction, and may be meant so."""
        row = self.cloth.row
        sideways = tuple(piece.name for piece, cut in self.rows.cuts if cut.grain == "crosswise" and not cut.border)
        hemmed = tuple(piece.name for piece, cut in self.rows.cuts if cut.grain == "lengthwise" and piece.hem)
        hems = [
            HemOnBorder(piece.name, cast(Side, cut.border), cut.border_at)
            for piece, cut in self.rows.cuts
            if cut.border
        ]
        border = cloths.as_border(row)
        return (
            *direction_asked(row.direction, row.weave, sideways, hemmed),
            *apart(hems),
            *without_border(hems, border),
        )

    @cached_property
    def warnings(self) -> tuple[Warned, ...]:
        """Everything to look at: of this cloth, of the set, and what will spoil another cloth. What was set aside comes
        last, with the reason."""
        why = {one.told: one.why for one in self.garment.asides}
        told = [replace(one, aside=why.get(str(one.text), "")) for one in self._warnings]
        return tuple(sorted(told, key=lambda one: one.aside != ""))

    @cached_property
    def _warnings(self) -> tuple[Warned, ...]:
        mine = self.warnings_here
        others = [one for one in self.whole.uses if one is not self]
        spoil = [
            Warned(w.stage, w.level, Sentence("{name}: {why}", name=capital(one.name), why=w.text))
            for one in others
            for w in one.warnings_here
            if w.level == "spoil"
        ]
        of_set = warnings(Watched(mismatches=self.set.mismatches, all_washed=self.set.all_washed))
        return (*mine, *of_set, *spoil)

    @property
    def least(self) -> Figure | None:
        """What the shop would cut for a lay as short as its bound."""
        if self.bought is None:
            return None
        if self.chosen is None:
            return self.bought.to_buy
        return least_figure(as_lay(self.chosen).bound, self.tally.taken[0], self.order)

    @property
    def proved(self) -> bool:
        """Whether no shorter lay would change what the shop cuts."""
        if self.bought is None or self.chosen is None:
            return False
        lay = as_lay(self.chosen)
        # no bound is known of a lay from which something is left out, or that has grains of its own
        if lay.bound <= 0:
            return False
        return proved_purchase(lay.length, lay.bound, self.tally.taken[0], self.order)


NO_PIECES = "Add the pattern pieces first."
NO_FIT = "Wash a swatch first: how much to enlarge the pieces is not known."


def standings(session: Session, garments: Sequence[models.Project]) -> list[GarmentStanding]:
    """How garments stand, in the same order: a fixed number of queries however many there are."""
    rows = stored.garments(session, garments)
    ladders = {one.use.id: ladder_of(one.chosen) for garment in rows for one in garment.uses}
    prints = [print_ for ladder in ladders.values() if ladder is not None for print_ in ladder.prints]
    trials = trial.known(session, prints)
    return [GarmentStanding(one, ladders, trials) for one in rows]


def garment_standing(session: Session, garment: models.Project) -> GarmentStanding:
    """How one garment stands."""
    return standings(session, [garment])[0]


def standing(session: Session, use_: models.ClothUse) -> Standing:
    """How a garment stands, seen through one of its cloths."""
    return garment_standing(session, use_.project).of(use_.id)


def cloth_standings(session: Session, rows: Sequence[models.Cloth]) -> list[ClothStanding]:
    """What is known of cloths, in the same order."""
    found = stored.cloth_rows(session, rows)
    return [ClothStanding(found[row.id]) for row in rows]


def cloth_standing(session: Session, row: models.Cloth) -> ClothStanding:
    """What is known of one cloth."""
    return cloth_standings(session, [row])[0]
