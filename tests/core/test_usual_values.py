"""What is taken where nothing was said, typed a second time: what entries and arguments are by themselves."""

from __future__ import annotations

import importlib
import inspect
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from pathlib import Path
from types import ModuleType
from typing import Any

import pytest

import idle_selvage

HOME = Path(idle_selvage.__file__).parent

USUAL: dict[str, Any] = {
    "core.buy.bias.bias_tape(seam)": 6.0,
    "core.buy.envelope.Converted.below": False,
    "core.buy.envelope.Converted.halves": 1,
    "core.buy.envelope.convert_width(one_way)": False,
    "core.buy.envelope.convert_width(sleeves_in_one)": False,
    "core.buy.envelope.choose_size(give)": 5.0,
    "core.buy.envelope.Envelope.sleeves_in_one": False,
    "core.buy.envelope.Envelope.give": 5.0,
    "core.buy.envelope.read_envelope(one_way)": False,
    "core.buy.helps.PieceFacts.hidden": False,
    "core.buy.helps.PieceFacts.hem": False,
    "core.buy.helps.Help.join_at": 0.0,
    "core.buy.helps.Help.gains": 0.0,
    "core.buy.helps.EndsFacts.both": 0.0,
    "core.buy.helps.EndsFacts.least": 0.0,
    "core.buy.helps.help_came_to(gains)": 0.0,
    "core.buy.offers.OfferedCloth.margin": 0.0,
    "core.buy.offers.OfferedCloth.step": 100.0,
    "core.buy.offers.OfferedCloth.least": 0.0,
    "core.buy.order.Order.ends": 100.0,
    "core.buy.order.Order.spare": 0.0,
    "core.buy.order.Order.step": 100.0,
    "core.buy.order.Order.bought_extra": 0.0,
    "core.buy.order.Order.least": 0.0,
    "core.buy.proved.proved(needed_beyond)": 0.0,
    "core.buy.purchase.purchase(main_pieces)": 0,
    "core.buy.ruffles.Ruffle.hem": 20.0,
    "core.buy.ruffles.Ruffle.seam": 15.0,
    "core.buy.ruffles.Ruffle.ring": True,
    "core.buy.trims.Run.times": 1,
    "core.cloth.width.Cloth.margin_low": 0.0,
    "core.cloth.width.Cloth.margin_high": 0.0,
    "core.cloth.width.Cloth.one_way": False,
    "core.lay.asking.ClothToLay.margin": 0.0,
    "core.lay.asking.ClothToLay.one_way": False,
    "core.lay.asking.ClothToLay.reversible": False,
    "core.lay.asking.ClothToLay.any_way": False,
    "core.lay.asking.ClothToLay.far_margin": 0.0,
    "core.lay.asking.PieceToLay.shorter": 0.0,
    "core.lay.asking.PieceToLay.border_at": 0.0,
    "core.lay.asking.LayRules.gap": 0.0,
    "core.lay.asking.LayRules.trim": 0.0,
    "core.lay.asking.LayRules.turn_on_bars": False,
    "core.lay.asking.ask(flaws)": True,
    "core.lay.broken.Broken.off": 0,
    "core.lay.drawing.PlacedShape.section": 0,
    "core.lay.drawing.PlacedShape.from_fold": False,
    "core.lay.drawing._Table.across": False,
    "core.lay.drawing._Pose.section": 0,
    "core.lay.drawing._Pose.off": 0.0,
    "core.lay.hand.Held.locked": False,
    "core.lay.moves.nudged(loose)": False,
    "core.lay.moves.posed(by)": 0,
    "core.lay.moves.posed(over)": False,
    "core.lay.moves.posed(loose)": False,
    "core.lay.moves.takings(mirrored)": False,
    "core.lay.on_border.hem_on_cloth(off)": 0.0,
    "core.lay.problem.Match.along": False,
    "core.lay.problem.Match.across": False,
    "core.lay.problem.Fixed.slides": False,
    "core.lay.problem.LayPiece.copies": 1,
    "core.lay.problem.LayPiece.pair": False,
    "core.lay.problem.LayPiece.on_fold": False,
    "core.lay.problem.LayPiece.one_way": False,
    "core.lay.problem.Problem.one_way": False,
    "core.lay.problem.Problem.reversible": False,
    "core.lay.problem.Problem.gap": 0.0,
    "core.lay.problem.Problem.turn_on_bars": False,
    "core.lay.problem.to_json(named)": False,
    "core.lay.seats.Grip.loose": False,
    "core.lay.seats.seats_from_tray(loose)": False,
    "core.lay.sliding.caught(step)": 0.0,
    "core.lay.table.Ground.under": False,
    "core.lay.table.Stretch.offset": 0.0,
    "core.plan.arrow.grainline(on_fold)": False,
    "core.plan.curve.Pin.smooth": False,
    "core.plan.curve.Pin.straight": False,
    "core.plan.curve.chords(flatness)": 0.05,
    "core.plan.draft.DraftPoint.smooth": False,
    "core.plan.draft.DraftPoint.straight": False,
    "core.plan.draft.DraftPoint.key": 0,
    "core.plan.draft.Notch.double": False,
    "core.plan.draft.Draft.half": False,
    "core.plan.draft.Draft.included": 0.0,
    "core.plan.draft.notch_at(double)": False,
    "core.plan.drawn.HowCut.copies": 1,
    "core.plan.drawn.HowCut.pair": False,
    "core.plan.drawn.HowCut.on_fold": False,
    "core.plan.drawn.HowCut.one_way": False,
    "core.plan.drawn.HowCut.seam": 0.0,
    "core.plan.drawn.HowCut.bare": False,
    "core.plan.drawn.marks_of(seam)": 0.0,
    "core.plan.fit.fitted(within)": 0.2,
    "core.plan.fit.fitted(ends)": False,
    "core.plan.fit.fitted_alike(within)": 0.2,
    "core.plan.outline.is_mirror_symmetric(tolerance)": 0.1,
    "core.plan.piece.Piece.copies": 1,
    "core.plan.piece.Piece.pair": False,
    "core.plan.piece.Piece.on_fold": False,
    "core.plan.piece.Piece.one_way": False,
    "core.plan.piece.Piece.seam": 0.0,
    "core.plan.piece.Piece.included": 0.0,
    "core.plan.piece.Piece.bare": False,
    "core.plan.piece.Piece.slant": 0.0,
    "core.plan.shapes.Measures.second": 0.0,
    "core.plan.shapes.Measures.share": 1.0,
    "core.plan.shapes.Measures.panels": 1,
    "core.plan.shapes.shaped(half)": False,
    "core.plan.tapes.TwoTapes.smooth": False,
    "core.plan.tapes.TwoTapes.straight": False,
    "core.plan.tapes.point_by_tapes(number)": 1,
    "core.plan.turning.turned(mirrored)": False,
    "core.project.stages.StageFacts.trued": True,
    "core.project.stages.StageFacts.laid_out": True,
    "core.project.stages.StageFacts.broken": 0,
    "core.project.tally.Wishes.gap": 3.0,
    "core.project.tally.Wishes.ends": 100.0,
    "core.project.tally.Wishes.spare": 0.0,
    "core.project.tally.Wishes.step": 100.0,
    "core.project.tally.Wishes.bought_extra": 0.0,
    "core.project.tally.ClothFacts.washed_later": True,
    "core.project.tally.MeasuredLay.main_pieces": 0,
    "core.project.warnings.Watched.bars_seen": False,
    "core.project.warnings.Watched.any_meets": False,
    "core.project.warnings.Watched.made_up": False,
    "core.project.warnings.Watched.washed_unmeasured": False,
    "core.shrink.programme.Programme.press": True,
    "core.shrink.shrinkage.least_swatch(wanted)": 1.0,
    "core.shrink.swatch.Swatch.graduation": 1.0,
    "core.shrink.treatment.TreatmentFacts.sequins": False,
    "core.shrink.treatment.TreatmentFacts.fusible": False,
    "core.true.attempts.Truth.accepted": False,
    "core.true.edge.EdgeFacts.bars_across": False,
    "core.true.edge.EdgeFacts.sheer": False,
    "core.true.edge.EdgeFacts.slips": False,
    "core.true.edge.EdgeFacts.linen": False,
    "core.true.slant.FoldTest.bow": 0.0,
    "core.true.straighten.StraightenFacts.bars": False,
    "core.true.straighten.StraightenFacts.sheer": False,
    "core.true.straighten.StraightenFacts.slips": False,
    "core.true.twist.twist_of(on_fold)": False,
    "core.true.twist.twist_of(bars)": False,
    "core.washday.loads.Batch.napped": False,
    "core.washday.loads.LoadStep.each": 0.0,
    "core.washday.loads.LoadStep.times": 1.0,
    "core.washday.loads.LoadStep.own": False,
    "core.washday.needs.WashDone.made_up": False,
    "core.washday.schedule.Waking.rise": 420,
    "core.washday.schedule.Waking.sleep": 1320,
    "core.written.quantity_parts(fine)": False,
    "core.written.quantity_text(fine)": False,
    "operations.buy.list.Item.own": False,
    "operations.buy.list.Item.have": False,
    "operations.buy.list.Item.enough": False,
    "operations.buy.offers.OfferStanding.cheapest": False,
    "operations.buy.offers.OfferStanding.least_waste": False,
    "operations.buy.trials.TrialsStanding.under_way": False,
    "operations.by_hand.Held.mirrored": False,
    "operations.by_hand.Held.loose": False,
    "operations.cloth.change_cloth(sure)": True,
    "operations.lay.Search.seed": 1,
    "operations.log.LogLine.stands": True,
    "operations.pages.piece_pages(enlarged)": False,
    "operations.plan._cut_or_fault(shorter)": 0.0,
    "operations.plan.add_piece(sure)": True,
    "operations.plan.change_piece(sure)": True,
    "operations.plan._cut_line(shorter)": 0.0,
    "operations.shrink.keep_reading(sure)": True,
    "operations.telling.NotchTold.double": False,
    "operations.telling.NotchTold.at": 0.0,
    "operations.telling.Another.line": 0.0,
    "operations.telling.Another.by": 0.0,
    "operations.telling.Another.edge": 0,
    "operations.telling.Another.width": 0.0,
    "operations.telling.Told.smooth": True,
    "operations.telling.Told.apart": 0.0,
    "operations.telling.Told.half": False,
    "operations.telling.Told.no_arrow": False,
    "operations.telling.Told.included": 0.0,
    "operations.telling.by_stations(smooth)": True,
    "operations.telling.by_stations(half)": False,
    "operations.washday.read_day(brief)": False,
    "core.lay.asking.PieceToLay.centred": False,
    "core.lay.joined.Joining.centred": False,
    "core.lay.joined.Met.centred": False,
    "core.lay.joined.Met.paired": False,
    "core.match.chance.Doubt.hand": 0.7,
    "core.match.chance.Doubt.slant": 0.0,
    "core.match.chance.chances(seed)": 1,
    "core.match.chance.chances(draws)": 2000,
    "core.match.judged.on_lay(at_cut)": False,
    "core.match.judged.met_at(at_cut)": False,
    "core.match.judged.together(at_cut)": False,
    "core.match.shown.preview(at_cut)": False,
    "core.match.wishes.NamedPlace.away": False,
    "core.plan.proposals.Proposable.hidden": False,
    "core.plan.seams.Seam.same_way": False,
    "core.plan.seams.Seam.ease": 0.0,
    "core.plan.seams.Seam.levels": True,
    "core.plan.seams.Seam.lengthwise": False,
    "core.plan.seams.Seam.priority": 0,
    "core.plan.seams.Sewn.mirrors": False,
    "core.plan.sides.Spot.at": 0.0,
    "core.lay.folding.foldings(on_bars)": False,
    "core.lay.lattice.lattice(loose)": False,
    "core.lay.lattice.stepped(loose)": False,
    "core.match.chance.Doubt.learned": 0,
}


def modules() -> Iterator[tuple[str, ModuleType]]:
    """Those of the core, but the engine's, and of the operations."""
    for place in ("core", "operations"):
        for path in sorted((HOME / place).rglob("*.py")):
            if "engine" not in path.parts and path.name != "__init__.py":
                name = ".".join(path.relative_to(HOME).with_suffix("").parts)
                yield name, importlib.import_module(f"idle_selvage.{name}")


def usual() -> Iterator[tuple[str, Any]]:
    """Every one that is a number, a yes or a no."""
    for name, module in modules():
        for what in vars(module).values():
            if getattr(what, "__module__", "") != module.__name__:
                continue
            if inspect.isclass(what) and is_dataclass(what):
                for field in fields(what):
                    if isinstance(field.default, int | float):
                        yield f"{name}.{what.__name__}.{field.name}", field.default
            # of what is kept by what it was made of, the function inside
            elif inspect.isfunction(whole := inspect.unwrap(what)) and whole.__module__ == module.__name__:
                for parameter in inspect.signature(whole).parameters.values():
                    if isinstance(parameter.default, int | float):
                        yield f"{name}.{whole.__name__}({parameter.name})", parameter.default


FOUND = dict(usual())


def test_every_usual_value_is_typed_here() -> None:
    assert FOUND.keys() == USUAL.keys()


@pytest.mark.parametrize("name", USUAL)
def test_it_is_what_is_typed(name: str) -> None:
    assert FOUND[name] == USUAL[name] and type(FOUND[name]) is type(USUAL[name])
