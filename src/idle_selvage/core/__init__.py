"""Rules and computation of the trade. No interface, no database, no files, no clock.

Axes everywhere: x runs along the cloth (warp, along the selvage), y across it (weft).
Lengths are floats in millimetres; shrinkage is positive when the cloth gets smaller.

    import idle_selvage.core as core

has everything another program needs; docs/core.md works six uses through. A name is fetched from its room when it is
first used, so that whoever only reads a length does not wait for the lay engine to load.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from .buy.bias import bias_tape as bias_tape
    from .buy.order import Extra as Extra
    from .buy.order import Order as Order
    from .buy.order import round_up as round_up
    from .buy.proved import proved_purchase as proved_purchase
    from .buy.purchase import Purchase as Purchase
    from .buy.purchase import purchase as purchase
    from .buy.ruffles import Ruffle as Ruffle
    from .buy.ruffles import ways as ruffle_ways
    from .cloth.bars import Bar as Bar
    from .cloth.bars import BarPattern as BarPattern
    from .cloth.bars import read_bars as read_bars
    from .cloth.dye import Dye as Dye
    from .cloth.dye import may_share as may_share
    from .cloth.make import Make as Make
    from .cloth.state import State as State
    from .cloth.width import BadCloth as BadCloth
    from .cloth.width import Cloth as Cloth
    from .cloth.width import usable_width as usable_width
    from .cut.before import BeforeFacts as BeforeFacts
    from .cut.before import before_cutting as before_cutting
    from .cut.handling import ClothInHand as ClothInHand
    from .cut.handling import handling as handling
    from .cut.order import CutOrder as CutOrder
    from .cut.order import ToCut as ToCut
    from .cut.order import cutting_order as cutting_order
    from .cut.really_left import rest_problem as rest_problem
    from .cut.remnants import what_is_left as what_is_left
    from .cut.tally import Deed as CutDeed
    from .cut.tally import RoundToCut as RoundToCut
    from .cut.tally import Tally as CutTally
    from .cut.tally import tally as add_up_cuts
    from .cut.template import graduations as swatch_graduations
    from .cut.true_size import by_corners as calibrate_by_corners
    from .lay.answer import Lay as Lay
    from .lay.answer import from_json as lay_from_json
    from .lay.answer import to_json as lay_to_json
    from .lay.check import check_lay as check_lay
    from .lay.drawing import Drawing as Drawing
    from .lay.drawing import draw as draw_lay
    from .lay.engine.solver import Answer as Answer
    from .lay.engine.solver import EngineFault as EngineFault
    from .lay.engine.solver import solve as solve
    from .lay.levels import Levels as Levels
    from .lay.levels import Tie as Tie
    from .lay.levels import levels as seam_levels
    from .lay.problem import BadProblem as BadProblem
    from .lay.problem import Bars as Bars
    from .lay.problem import LayPiece as LayPiece
    from .lay.problem import Match as Match
    from .lay.problem import Problem as Problem
    from .lay.problem import to_json as problem_to_json
    from .lay.reading import read_problem as read_problem
    from .match.chance import Doubt as Doubt
    from .match.chance import chances as seam_chances
    from .match.judged import Judged as Judged
    from .match.judged import on_lay as judge_seams
    from .plan.allowance import cut_line as cut_line
    from .plan.allowance import seam_line as seam_line
    from .plan.arrow import grainline as grainline
    from .plan.draft import Draft as Draft
    from .plan.draft import DraftPoint as DraftPoint
    from .plan.draft import edges as edges
    from .plan.draft import outline_of as outline_of
    from .plan.drawn import HowCut as HowCut
    from .plan.drawn import piece_of as piece_of
    from .plan.outline import BadPiece as BadPiece
    from .plan.piece import Piece as Piece
    from .plan.piece import check_piece as check_piece
    from .plan.seams import Seam as Seam
    from .plan.seams import SeamSide as SeamSide
    from .plan.seams import Sewn as Sewn
    from .plan.shapes import Measures as Measures
    from .plan.shapes import shaped as shaped
    from .plan.sides import Side as Side
    from .plan.sides import Spot as Spot
    from .plan.sides import sewn_edges as sewn_edges
    from .plan.stations import Station as Station
    from .plan.stations import outline_from_stations as outline_from_stations
    from .project.next_step import next_step as next_step
    from .project.stages import Stage as Stage
    from .project.stages import StageFacts as StageFacts
    from .project.stages import stages as stages
    from .project.tally import ClothFacts as ClothFacts
    from .project.tally import MeasuredLay as MeasuredLay
    from .project.tally import Tally as Tally
    from .project.tally import Wishes as Wishes
    from .project.tally import tally as tally
    from .shrink.known import Shrinkage as Shrinkage
    from .shrink.known import known_shrinkage as known_shrinkage
    from .shrink.ranges import planning_range as planning_range
    from .shrink.shrinkage import BadReadings as BadReadings
    from .shrink.shrinkage import divide_not_add as divide_not_add
    from .shrink.shrinkage import plan_with as plan_with
    from .shrink.shrinkage import swatch_shrinkage as swatch_shrinkage
    from .shrink.states import ClothStates as ClothStates
    from .shrink.swatch import Swatch as Swatch
    from .shrink.swatch import verdict as swatch_verdict
    from .shrink.treatment import Advice as TreatmentAdvice
    from .shrink.treatment import Programme as Programme
    from .shrink.treatment import TreatmentFacts as TreatmentFacts
    from .shrink.treatment import advise as advise_treatment
    from .true.edge import edge_cost as edge_cost
    from .true.pinned import GrainCheck as GrainCheck
    from .true.pinned import check_grain as check_grain
    from .true.slant import BadTest as BadTest
    from .true.slant import FoldTest as FoldTest
    from .true.slant import Slant as Slant
    from .true.slant import read_test as read_fold_test
    from .true.twist import Twist as Twist
    from .true.twist import twist_of as twist_of
    from .units import BadEntry as BadEntry
    from .units import System as System
    from .units import read_length as read_length
    from .washday.loads import Batch as Batch
    from .washday.loads import Load as Load
    from .washday.loads import group as group_loads
    from .washday.schedule import CannotSchedule as CannotSchedule
    from .washday.schedule import Schedule as Schedule
    from .washday.schedule import Waking as Waking
    from .washday.schedule import plan as plan_washday
    from .wording import Sentence as Sentence
    from .wording import say as say
    from .working import Figure as Figure
    from .working import Quantity as Quantity
    from .working import Source as Source
    from .working import Step as Step
    from .written import length_text as length_text
    from .written import quantity_text as quantity_text

#: Where each name lives: its module, and its name there.
_HOMES: dict[str, tuple[str, str]] = {
    # what every figure is made of
    "Figure": ("working", "Figure"),
    "Quantity": ("working", "Quantity"),
    "Source": ("working", "Source"),
    "Step": ("working", "Step"),
    "Sentence": ("wording", "Sentence"),
    "say": ("wording", "say"),
    "System": ("units", "System"),
    "BadEntry": ("units", "BadEntry"),
    "read_length": ("units", "read_length"),
    "length_text": ("written", "length_text"),
    "quantity_text": ("written", "quantity_text"),
    # the piece on the paper
    "Draft": ("plan.draft", "Draft"),
    "DraftPoint": ("plan.draft", "DraftPoint"),
    "outline_of": ("plan.draft", "outline_of"),
    "edges": ("plan.draft", "edges"),
    "piece_of": ("plan.drawn", "piece_of"),
    "HowCut": ("plan.drawn", "HowCut"),
    "Measures": ("plan.shapes", "Measures"),
    "shaped": ("plan.shapes", "shaped"),
    "seam_line": ("plan.allowance", "seam_line"),
    "Piece": ("plan.piece", "Piece"),
    "check_piece": ("plan.piece", "check_piece"),
    "Station": ("plan.stations", "Station"),
    "outline_from_stations": ("plan.stations", "outline_from_stations"),
    "cut_line": ("plan.allowance", "cut_line"),
    "grainline": ("plan.arrow", "grainline"),
    "BadPiece": ("plan.outline", "BadPiece"),
    # the cloth
    "Cloth": ("cloth.width", "Cloth"),
    "BadCloth": ("cloth.width", "BadCloth"),
    "usable_width": ("cloth.width", "usable_width"),
    "State": ("cloth.state", "State"),
    "Make": ("cloth.make", "Make"),
    "Dye": ("cloth.dye", "Dye"),
    "may_share": ("cloth.dye", "may_share"),
    "Bar": ("cloth.bars", "Bar"),
    "BarPattern": ("cloth.bars", "BarPattern"),
    "read_bars": ("cloth.bars", "read_bars"),
    # how much it shrinks, and how it is treated
    "Swatch": ("shrink.swatch", "Swatch"),
    "swatch_verdict": ("shrink.swatch", "verdict"),
    "BadReadings": ("shrink.shrinkage", "BadReadings"),
    "swatch_shrinkage": ("shrink.shrinkage", "swatch_shrinkage"),
    "plan_with": ("shrink.shrinkage", "plan_with"),
    "divide_not_add": ("shrink.shrinkage", "divide_not_add"),
    "planning_range": ("shrink.ranges", "planning_range"),
    "Shrinkage": ("shrink.known", "Shrinkage"),
    "known_shrinkage": ("shrink.known", "known_shrinkage"),
    "ClothStates": ("shrink.states", "ClothStates"),
    "TreatmentFacts": ("shrink.treatment", "TreatmentFacts"),
    "TreatmentAdvice": ("shrink.treatment", "Advice"),
    "Programme": ("shrink.treatment", "Programme"),
    "advise_treatment": ("shrink.treatment", "advise"),
    # the washing day
    "Batch": ("washday.loads", "Batch"),
    "Load": ("washday.loads", "Load"),
    "group_loads": ("washday.loads", "group"),
    "Schedule": ("washday.schedule", "Schedule"),
    "Waking": ("washday.schedule", "Waking"),
    "CannotSchedule": ("washday.schedule", "CannotSchedule"),
    "plan_washday": ("washday.schedule", "plan"),
    # the lay
    "Problem": ("lay.problem", "Problem"),
    "LayPiece": ("lay.problem", "LayPiece"),
    "Bars": ("lay.problem", "Bars"),
    "Match": ("lay.problem", "Match"),
    "BadProblem": ("lay.problem", "BadProblem"),
    "problem_to_json": ("lay.problem", "to_json"),
    "read_problem": ("lay.reading", "read_problem"),
    "solve": ("lay.engine.solver", "solve"),
    "Answer": ("lay.engine.solver", "Answer"),
    "EngineFault": ("lay.engine.solver", "EngineFault"),
    "Lay": ("lay.answer", "Lay"),
    "lay_to_json": ("lay.answer", "to_json"),
    "lay_from_json": ("lay.answer", "from_json"),
    "check_lay": ("lay.check", "check_lay"),
    "Drawing": ("lay.drawing", "Drawing"),
    "draw_lay": ("lay.drawing", "draw"),
    # seams, and bars that meet at them
    "Seam": ("plan.seams", "Seam"),
    "SeamSide": ("plan.seams", "SeamSide"),
    "Sewn": ("plan.seams", "Sewn"),
    "Side": ("plan.sides", "Side"),
    "Spot": ("plan.sides", "Spot"),
    "sewn_edges": ("plan.sides", "sewn_edges"),
    "Tie": ("lay.levels", "Tie"),
    "seam_levels": ("lay.levels", "levels"),
    "Levels": ("lay.levels", "Levels"),
    "judge_seams": ("match.judged", "on_lay"),
    "Judged": ("match.judged", "Judged"),
    "Doubt": ("match.chance", "Doubt"),
    "seam_chances": ("match.chance", "chances"),
    # what to buy
    "Order": ("buy.order", "Order"),
    "Extra": ("buy.order", "Extra"),
    "round_up": ("buy.order", "round_up"),
    "Purchase": ("buy.purchase", "Purchase"),
    "purchase": ("buy.purchase", "purchase"),
    "proved_purchase": ("buy.proved", "proved_purchase"),
    "Ruffle": ("buy.ruffles", "Ruffle"),
    "ruffle_ways": ("buy.ruffles", "ways"),
    "bias_tape": ("buy.bias", "bias_tape"),
    # is it on grain
    "FoldTest": ("true.slant", "FoldTest"),
    "Slant": ("true.slant", "Slant"),
    "BadTest": ("true.slant", "BadTest"),
    "read_fold_test": ("true.slant", "read_test"),
    "edge_cost": ("true.edge", "edge_cost"),
    "Twist": ("true.twist", "Twist"),
    "twist_of": ("true.twist", "twist_of"),
    "GrainCheck": ("true.pinned", "GrainCheck"),
    "check_grain": ("true.pinned", "check_grain"),
    # at the cutting table
    "ToCut": ("cut.order", "ToCut"),
    "CutOrder": ("cut.order", "CutOrder"),
    "cutting_order": ("cut.order", "cutting_order"),
    "BeforeFacts": ("cut.before", "BeforeFacts"),
    "before_cutting": ("cut.before", "before_cutting"),
    "ClothInHand": ("cut.handling", "ClothInHand"),
    "handling": ("cut.handling", "handling"),
    "RoundToCut": ("cut.tally", "RoundToCut"),
    "CutDeed": ("cut.tally", "Deed"),
    "CutTally": ("cut.tally", "Tally"),
    "add_up_cuts": ("cut.tally", "tally"),
    "rest_problem": ("cut.really_left", "rest_problem"),
    "what_is_left": ("cut.remnants", "what_is_left"),
    "calibrate_by_corners": ("cut.true_size", "by_corners"),
    "swatch_graduations": ("cut.template", "graduations"),
    # one garment as a whole
    "Tally": ("project.tally", "Tally"),
    "ClothFacts": ("project.tally", "ClothFacts"),
    "MeasuredLay": ("project.tally", "MeasuredLay"),
    "Wishes": ("project.tally", "Wishes"),
    "tally": ("project.tally", "tally"),
    "Stage": ("project.stages", "Stage"),
    "StageFacts": ("project.stages", "StageFacts"),
    "stages": ("project.stages", "stages"),
    "next_step": ("project.next_step", "next_step"),
}

__all__ = [  # noqa: RUF022 in the order of the work, room by room
    # what every figure is made of
    "Figure",
    "Quantity",
    "Source",
    "Step",
    "Sentence",
    "say",
    "System",
    "BadEntry",
    "read_length",
    "length_text",
    "quantity_text",
    # the piece on the paper
    "Draft",
    "DraftPoint",
    "outline_of",
    "edges",
    "piece_of",
    "HowCut",
    "Measures",
    "shaped",
    "seam_line",
    "Piece",
    "check_piece",
    "Station",
    "outline_from_stations",
    "cut_line",
    "grainline",
    "BadPiece",
    # the cloth
    "Cloth",
    "BadCloth",
    "usable_width",
    "State",
    "Make",
    "Dye",
    "may_share",
    "Bar",
    "BarPattern",
    "read_bars",
    # how much it shrinks, and how it is treated
    "Swatch",
    "swatch_verdict",
    "BadReadings",
    "swatch_shrinkage",
    "plan_with",
    "divide_not_add",
    "planning_range",
    "Shrinkage",
    "known_shrinkage",
    "ClothStates",
    "TreatmentFacts",
    "TreatmentAdvice",
    "Programme",
    "advise_treatment",
    # the washing day
    "Batch",
    "Load",
    "group_loads",
    "Schedule",
    "Waking",
    "CannotSchedule",
    "plan_washday",
    # the lay
    "Problem",
    "LayPiece",
    "Bars",
    "Match",
    "BadProblem",
    "problem_to_json",
    "read_problem",
    "solve",
    "Answer",
    "EngineFault",
    "Lay",
    "lay_to_json",
    "lay_from_json",
    "check_lay",
    "Drawing",
    "draw_lay",
    # seams, and bars that meet at them
    "Seam",
    "SeamSide",
    "Sewn",
    "Side",
    "Spot",
    "sewn_edges",
    "Tie",
    "seam_levels",
    "Levels",
    "judge_seams",
    "Judged",
    "Doubt",
    "seam_chances",
    # what to buy
    "Order",
    "Extra",
    "round_up",
    "Purchase",
    "purchase",
    "proved_purchase",
    "Ruffle",
    "ruffle_ways",
    "bias_tape",
    # is it on grain
    "FoldTest",
    "Slant",
    "BadTest",
    "read_fold_test",
    "edge_cost",
    "Twist",
    "twist_of",
    "GrainCheck",
    "check_grain",
    # at the cutting table
    "ToCut",
    "CutOrder",
    "cutting_order",
    "BeforeFacts",
    "before_cutting",
    "ClothInHand",
    "handling",
    "RoundToCut",
    "CutDeed",
    "CutTally",
    "add_up_cuts",
    "rest_problem",
    "what_is_left",
    "calibrate_by_corners",
    "swatch_graduations",
    # one garment as a whole
    "Tally",
    "ClothFacts",
    "MeasuredLay",
    "Wishes",
    "tally",
    "Stage",
    "StageFacts",
    "stages",
    "next_step",
]


def __getattr__(name: str) -> Any:
    if name not in _HOMES:
        raise AttributeError(f"the core has no {name!r}; docs/core.md lists what it has")
    module, there = _HOMES[name]
    found = globals()[name] = getattr(import_module(f".{module}", __name__), there)
    return found


def __dir__() -> list[str]:
    return sorted([*globals(), *__all__])
