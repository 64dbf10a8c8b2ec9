"""How a garment stands: all that is known of it now, reckoned once and handed on to every show."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from sqlalchemy.orm import Session

from ..core.buy.order import Order, Rule
from ..core.buy.proved import least_to_buy, proved_purchase
from ..core.cloth.bars import BarPattern
from ..core.cloth.dye import Dye
from ..core.cloth.hand import needs_lining
from ..core.cloth.make import Make
from ..core.lay import stale
from ..core.lay.asking import Coming, ask, keeps_off_the_fold
from ..core.lay.problem import Problem
from ..core.plan.outline import BadPiece
from ..core.project.next_step import next_step
from ..core.project.stages import Stage, StageFacts, stages
from ..core.project.tally import ClothFacts, Tally, bad_pieces, tally
from ..core.project.warnings import Warned, Watched, warnings
from ..core.shrink.known import Shrinkage, known_shrinkage
from ..core.shrink.swatch import Swatch, at_rest_unless
from ..core.shrink.to_fit import fit_by
from ..core.shrink.together import ROLES, Member, mismatches, one_washed_all_washed, wanted
from ..core.shrink.treatment import Advice, TreatmentFacts, advise, treatment_facts
from ..core.true.attempts import Truth, loop
from ..core.washday.needs import needs_treatment
from ..core.wording import Sentence, sentence_of
from ..store import cloth as cloths
from ..store import garment as stored
from ..store import models, trial, wash
from ..store import piece as pieces
from ..store import project as projects
from ..store import swatch as swatches
from ..store.garment import ClothRows, GarmentRows
from ..store.true_sheet import as_bands
from ..store.true_test import as_attempts
from .ladder import Ladder, ladder_of


@dataclass(frozen=True)
class ClothStanding:
    """What is known of one cloth."""

    rows: ClothRows

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
    def warp(self) -> Shrinkage:
        """Its shrinkage along, and on what that rests."""
        return known_shrinkage(self.make, self.test, self.rows.past, "warp")

    @cached_property
    def weft(self) -> Shrinkage:
        """Its shrinkage across, and on what that rests."""
        return known_shrinkage(self.make, self.test, self.rows.past, "weft")

    @property
    def basis(self) -> str:
        """What its shrinkages rest on, in a word or two."""
        warp, weft = self.warp.basis, self.weft.basis
        return warp if warp == weft else f"{warp} and {weft}"

    @cached_property
    def treatment_facts(self) -> TreatmentFacts:
        """What decides how it is treated."""
        return treatment_facts(self.make, self.dye, self.row.in_hand)

    def advice(self, garment: models.Project) -> Advice:
        """How it is treated for a garment."""
        return advise(garment.wash, garment.dry, self.treatment_facts, projects.school_of(garment))

    @property
    def needs_treatment(self) -> bool:
        """Whether the length still has to be treated."""
        return needs_treatment(self.row.treated, wash.as_done(self.rows.washes))

    def facts(self, *, raw: bool) -> ClothFacts:
        """What a tally rests on; ``raw``: cut before washing, to shrink to fit."""
        return ClothFacts(self.make, self.test, self.rows.past, raw=raw, treated=self.row.treated)

    def name(self, role: str = "main") -> str:
        """Its name, or else what it is for."""
        return self.row.name or ROLES[role].capitalize()


@dataclass(frozen=True)
class SetStanding:
    """Every cloth of a garment side by side, with the cores' members in the same order."""

    cloths: tuple[tuple[str, ClothStanding], ...]

    @cached_property
    def members(self) -> tuple[Member, ...]:
        return tuple(_member(role, cloth) for role, cloth in self.cloths)

    @cached_property
    def mismatches(self) -> tuple[str, ...]:
        return mismatches(self.members)

    @cached_property
    def all_washed(self) -> str:
        return one_washed_all_washed(self.members)

    @property
    def wanted(self) -> tuple[str, ...]:
        """What is missing beside the main cloth."""
        return wanted(self.members, needs_lining(self.cloths[0][1].row.answers))


def _member(role: str, cloth: ClothStanding) -> Member:
    treated = cloth.row.treated
    along, across = (None if treated or known.plan is None else known.plan.value for known in (cloth.warp, cloth.weft))
    return Member(cloth.name(role), role, along, across, treated or bool(cloth.rows.washes))


@dataclass(frozen=True)
class Standing:
    """How one garment stands. Figures are worked out when first asked for, and kept."""

    rows: GarmentRows
    main: ClothStanding
    set: SetStanding
    ladder: Ladder | None
    trials: Mapping[str, models.Trial]

    @property
    def garment(self) -> models.Project:
        return self.rows.project

    @property
    def chosen(self) -> models.LayRecord | None:
        """The lay it goes by."""
        return self.rows.chosen

    @property
    def to_fit(self) -> bool:
        """Whether it is sewn first and shrunk to fit."""
        return self.garment.school == "fit"

    @cached_property
    def order(self) -> Order:
        """What is asked for besides the lay."""
        return projects.as_order(self.garment)

    @cached_property
    def tally(self) -> Tally:
        """The few figures it is steered by."""
        row = self.main.row
        cloth = cloths.as_cloth(row) if row.width_readings else None
        laid = self.ladder.measured(self.trials) if self.ladder is not None else None
        return tally(cloth, self.main.facts(raw=self.to_fit), laid, projects.as_wishes(self.garment))

    @property
    def pending(self) -> tuple[Rule, ...]:
        """The rules whose cost in the lay was not measured yet."""
        return self.ladder.pending(self.trials) if self.ladder is not None else ()

    @cached_property
    def fit(self) -> tuple[float, float] | None:
        """The shrinkages by which pieces are enlarged, when it is sewn first and shrunk to fit."""
        return fit_by(self.tally.warp, self.tally.weft) if self.to_fit else None

    @property
    def coming(self) -> Coming:
        """The shrinkage still to come, before cutting and after sewing."""
        return Coming(self.tally.taken, self.fit)

    @cached_property
    def _asked(self) -> tuple[Problem | None, str]:
        if not self.rows.pieces:
            return None, NO_PIECES
        if self.tally.width is None:
            return None, self.tally.missing.get("width", "Measure the cloth's width first.")
        if self.to_fit and self.fit is None:
            return None, NO_FIT
        try:
            return self.lay_on(self.main.row, self.tally.width.value, self.coming), ""
        except BadPiece as fault:
            return None, sentence_of(fault)

    @property
    def problem(self) -> Problem | None:
        """The lay as it would be asked for now; None while something is missing, which :attr:`missing` says."""
        return self._asked[0]

    @property
    def missing(self) -> str:
        """What is missing before anything can be laid, as a sentence, or nothing."""
        return self._asked[1]

    def lay_on(self, cloth: models.Cloth, width: float, coming: Coming, *, flaws: bool = True) -> Problem:
        """Its pieces on a usable width of a cloth, mm. Raises BadPiece."""
        asked = [pieces.as_asked(row) for row in self.rows.pieces]
        return ask(cloths.as_laid(cloth), asked, projects.as_rules(self.garment), width, coming, flaws=flaws)

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
        found = loop(as_attempts(tests), as_bands(sheet))
        return Truth(bool(tests), bool(sheet.edge or sheet.now), found, sheet.accepted)

    @cached_property
    def stages(self) -> tuple[Stage, ...]:
        """The rail's dots."""
        row, swatch, job = self.main.row, self.rows.main.swatch, self.rows.job
        found = self.tally
        return stages(
            StageFacts(
                pieces=len(self.rows.pieces),
                bad_pieces=len(bad_pieces([pieces.as_piece(p) for p in self.rows.pieces])),
                width_readings=len(row.width_readings),
                kind_known=bool(row.blend),
                marks_before=len(swatch.warp) + len(swatch.weft) if swatch else 0,
                washed_both_ways=(found.warp.basis == "swatch" and found.weft.basis == "swatch") or row.treated,
                made_up=swatch is not None and swatch.simulated,
                not_at_rest="" if row.treated else at_rest_unless(self.main.test, row.like),
                # the newest laying: beginning one stops any other
                laying=job is not None and job.state in ("waiting", "running"),
                laid=self.chosen is not None,
                stale=self.stale,
                can_buy=found.purchase is not None,
                logged=self.rows.logged,
                true=self.truth.progress,
            )
        )

    @property
    def next_step(self) -> str:
        """What to do next."""
        return next_step(self.stages)

    @cached_property
    def warnings(self) -> tuple[Warned, ...]:
        """Everything to look at."""
        row = self.main.row
        return warnings(
            Watched(
                tally=self.tally.warnings,
                stale=self.stale,
                bars_seen=self.main.bars_seen,
                any_meets=any(p.meets or p.centred for p in self.rows.pieces),
                fold_kept_off=None
                if row.shop_fold is None or self.problem is None
                else keeps_off_the_fold(self.problem),
                made_up=self.rows.main.swatch is not None and self.rows.main.swatch.simulated,
                washed_unmeasured=not row.treated and any(not w.simulated for w in self.rows.main.washes),
                mismatches=self.set.mismatches,
                all_washed=self.set.all_washed,
            )
        )

    @property
    def least(self) -> float | None:
        """What the shop would cut for a lay as short as its bound, mm."""
        if self.tally.purchase is None or self.chosen is None:
            return None
        return least_to_buy(self.chosen.lay["bound"], self.tally.taken[0], self.order)

    @property
    def proved(self) -> bool:
        """Whether no shorter lay would change what the shop cuts."""
        if self.tally.purchase is None or self.chosen is None:
            return False
        lay = self.chosen.lay
        return proved_purchase(lay["length"], lay["bound"], self.tally.taken[0], self.order)


NO_PIECES = "Add the pattern pieces first."
NO_FIT = "Wash a swatch first: how much to enlarge the pieces is not known."


def standings(session: Session, garments: Sequence[models.Project]) -> list[Standing]:
    """How garments stand, in the same order: a fixed number of queries however many there are."""
    rows = stored.garments(session, garments)
    ladders = [ladder_of(one.chosen) for one in rows]
    prints = [print_ for ladder in ladders if ladder is not None for print_ in ladder.prints]
    trials = trial.known(session, prints)
    return [_standing(one, ladder, trials) for one, ladder in zip(rows, ladders, strict=True)]


def _standing(rows: GarmentRows, ladder: Ladder | None, trials: Mapping[str, models.Trial]) -> Standing:
    main = ClothStanding(rows.main)
    beside = tuple((role, ClothStanding(one)) for role, one in rows.beside)
    return Standing(rows, main, SetStanding((("main", main), *beside)), ladder, trials)


def standing(session: Session, garment: models.Project) -> Standing:
    """How one garment stands."""
    return standings(session, [garment])[0]


def cloth_standings(session: Session, rows: Sequence[models.Cloth]) -> list[ClothStanding]:
    """What is known of cloths, in the same order."""
    found = stored.cloth_rows(session, rows)
    return [ClothStanding(found[row.id]) for row in rows]


def cloth_standing(session: Session, row: models.Cloth) -> ClothStanding:
    """What is known of one cloth."""
    return cloth_standings(session, [row])[0]
