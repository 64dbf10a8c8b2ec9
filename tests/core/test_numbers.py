"""Every number the rules rest on, typed a second time: whoever changes one says so here too.

What each of them does at its limit and just past it is in ``test_limits.py`` and beside the rules; where it comes from
stands beside it in the module. The engine's numbers are measured, not typed: ``make bench-lay``.
"""

from __future__ import annotations

import ast
import importlib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

import idle_selvage.core

CORE = Path(idle_selvage.core.__file__).parent

NUMBERS: dict[str, Any] = {
    "buy.bias.JOIN_TAKES": 2.8284271247461903,
    "buy.bias.MOST_SLANTS": 400,
    "buy.convert.EXACT_MM": 1e-06,
    "buy.envelope.MORE_MM": 228.6,
    "buy.envelope.LARGE_COLUMNS": 3,
    "buy.envelope.WIDTH_GIVE_MM": 1.0,
    "buy.envelope.SIZE_GIVE_MM": {"metric": 5.0, "imperial": 6.35},
    "buy.envelope._GIVE_IN": 0.03937007874015748,
    "buy.envelope.PAST_IN": 2.0,
    "buy.envelope.HALF": 2,
    "buy.envelope.MOST_HALVES": 4,
    "buy.envelope.SAME_ANSWER_MM": 10.0,
    "buy.helps.HEMS_MM": (10.0, 20.0, 30.0, 50.0),
    "buy.helps.JOIN_SEAM_MM": 15.0,
    "buy.helps.WORTH_MM": 5.0,
    "buy.helps.LEFT_OUT_MOST": 4,
    "buy.helps.SMALL_SHARE": 0.5,
    "buy.helps.FITS_MM": 0.05,
    "buy.helps.NOTHING_MM": 0.5,
    "buy.offers.NO_WIDTH_MM": 10.0,
    "buy.offers.MOST_SHRINKAGE": 50.0,
    "buy.order.SHOP_STEPS_MM": (100.0, 250.0, 500.0, 114.3, 228.6, 457.2),
    "buy.order.USUAL_STEP_MM": {"metric": 100.0, "imperial": 114.3},
    "buy.order.USUAL_ENDS_MM": {"metric": 100.0, "imperial": 101.6},
    "buy.order.ROUNDING_MM": 1e-06,
    "buy.proved.GIVE_MM": 0.1,
    "buy.purchase.NOTHING_MM": 0.5,
    "buy.ruffles.MOST_STRIPS": 500,
    "buy.ruffles.SAME_FULLNESS": 0.005,
    "buy.sharing.NOTHING_MM": 0.5,
    "buy.shopping.LOCKSTITCH": 2.8,
    "buy.shopping.OVERCAST": 3.0,
    "buy.shopping.REEL_MM": 200000.0,
    "buy.shopping.SAFETY": 1.25,
    "buy.shopping.WHOLE": 0.995,
    "buy.thumbs.THUMB_SHRINKAGE": 10.0,
    "buy.thumbs.THUMB_NAP_MM": 228.6,
    "buy.thumbs.THUMB_ENDS_MM": 101.6,
    "buy.thumbs.ABOUT_RIGHT_MM": 5.0,
    "buy.trims.TURNED_MM": 15.0,
    "cloth.bars.SAME_BAR_MM": 0.6,
    "cloth.bars.LEAST_BARS": 2,
    "cloth.bars.LEAST_SEEN_MM": 3.0,
    "cloth.dye.CLEAN": 5,
    "cloth.make.LEAST_SHARE": 20.0,
    "cloth.margins.USUAL_BOTH_MM": 20.0,
    "cloth.width.SPREAD_WARN_MM": 10.0,
    "cloth.width.PLACES": 3,
    "cloth.width.LEAST_WIDTH_MM": 2.0,
    "lay.asking.FOLD_MARK_MM": 3.0,
    "lay.asking.FOLD_REACH_MM": 30000.0,
    "lay.check.TOLERANCE_MM": 0.1,
    "lay.long.GIVE_MM": 0.1,
    "lay.problem.MAX_PIECES": 200,
    "lay.problem.MAX_ALL_COPIES": 400,
    "lay.problem.MAX_ALL_POINTS": 50000,
    "lay.problem.TOLERANCE_MM": 0.1,
    "lay.reading.MAX_BLOCKED": 200,
    "lay.reading.MAX_MATCHES": 20,
    "lay.reading.FINEST_REPEAT_MM": 1.0,
    "lay.stale.SAME_PERCENT": 0.05,
    "lay.stale.SAME_WIDTH_MM": 0.05,
    "plan.allowance.MITRE_LIMIT": 4.0,
    "plan.allowance.GRID_MM": 1e-05,
    "plan.allowance.LEAST_MM": 0.001,
    "plan.arrow.ARROW_ROOM_MM": (8.0, 3.0, 1.0),
    "plan.curve.FLATNESS_MM": 0.05,
    "plan.curve.PAST_MM": 2.0,
    "plan.curve.UNEVEN": 2.0,
    "plan.curve.MOST_CHORDS": 5000,
    "plan.curve.SAME_MM": 1e-06,
    "plan.curve._PAST_OF_HANDLE": 0.75,
    "plan.doubt.WIDEST_MM": 3200.0,
    "plan.doubt.LONGEST_MM": 5000.0,
    "plan.doubt.TIMES": 5.0,
    "plan.doubt.SMALL_MM": 300.0,
    "plan.draft.SAME_PLACE_MM": 0.2,
    "plan.draft.MOST_TOLD": 5000,
    "plan.draft.ALONG_DEGREES": 0.01,
    "plan.draft.PLACES": {"point": 1, "dart": 3, "fold": 2, "centre": 2, "buttons": 2, "level": 1},
    "plan.drawn.NOTCH_MM": 6.0,
    "plan.drawn.DOUBLE_MM": 6.0,
    "plan.fit.WITHIN_MM": 0.2,
    "plan.fit.FAITHFUL_MM": 0.4,
    "plan.fit.CORNER_DEGREES": 20.0,
    "plan.fit.COARSE_MM": 0.15000000000000002,
    "plan.fit.MOST_BETWEEN": 24,
    "plan.fit.EVENLY": 1.0,
    "plan.outline.TOLERANCE_MM": 0.1,
    "plan.outline.MAX_POINTS": 5000,
    "plan.piece.MAX_COPIES": 200,
    "plan.piece.ASLANT_DEGREES": 1.0,
    "plan.shapes.KNOT_DEGREES": 15.0,
    "plan.shapes.LEAST_PART": 3.0,
    "plan.shapes.WIDEST_DEGREES": 350.0,
    "plan.sizes.MOST_SIZES": 30,
    "plan.tapes.TOUCH_MM": 2.0,
    "plan.tapes.BADLY": 3.0,
    "plan.tiles.MARGIN_MM": 10.0,
    "plan.tiles.OVERLAP_MM": 10.0,
    "plan.tiles.CHECK_MM": 100.0,
    "plan.tiles.MOST_PAGES": 120,
    "project.stages._TOLD": 2,
    "shrink.history.LEAST_TESTS": 3,
    "shrink.history.SURE_OF_NEXT": 0.95,
    "shrink.programme.AGITATION": {"none": 0, "steam": 0, "soak": 1, "hand": 2, "gentle": 3, "normal": 4, "hot": 5},
    "shrink.programme.HEAT_OF_DRYING": {
        "none": 0,
        "flat": 0,
        "line": 0,
        "tumble-short": 1,
        "tumble-low": 2,
        "tumble-warm": 3,
    },
    "shrink.shrinkage.LEAST_MARK_MM": 20.0,
    "shrink.shrinkage.GRADUATIONS_MM": (0.1, 20.0),
    "shrink.shrinkage.TAPES_MM": {"metric": 1.0, "imperial": 1.5875},
    "shrink.shrinkage.MOST_SHRUNK": 50.0,
    "shrink.shrinkage.MOST_GROWN": 20.0,
    "shrink.shrinkage.SURE": 0.975,
    "shrink.shrinkage.LEAST_FOR_T": 3,
    "shrink.swatch.AT_REST": 0.5,
    "shrink.swatch.MOST_WASHES": 8,
    "shrink.swatch.FINE_ENOUGH": 1.0,
    "shrink.swatch.SQUARE_MM": 250.0,
    "shrink.swatch.MOST_SKEW": 0.3,
    "shrink.swatch.USUAL_SHRUNK": 14.0,
    "shrink.swatch.USUAL_GROWN": 2.0,
    "shrink.to_fit.TURN": {"lengthwise": 0, "crosswise": 90, "bias": 45, "any": 0},
    "shrink.to_fit.SAME_PERCENT": 0.05,
    "shrink.together.MOST_POINTS": 2.0,
    "shrink.treatment.SCALDS_C": 60,
    "shrink.treatment.HEAVY_METRES": 3.0,
    "shrink.treatment.SOAKS_C": 40,
    "true.attempts.BETTER_MM": 1.0,
    "true.attempts.TRIES": 2,
    "true.attempts.SAME_PLACE_MM": 1.0,
    "true.edge.CLEAN_MM": {"tear": 20.0, "thread": 10.0, "bar": 5.0, "shears": 10.0, "square": 5.0},
    "true.fold_line.GOOD_SPREAD_MM": 2.0,
    "true.fold_line.LEAST_STATIONS": 3,
    "true.fold_line.LEAST_MOVE_MM": 0.5,
    "true.fold_line.NEXT_MM": 400.0,
    "true.pinned.ON_GRAIN_MM": 2.0,
    "true.slant.BANDS_MM": (3.0, 12.0, 40.0),
    "true.slant.LEVEL_MM": 0.05,
    "true.slant.ACCEPTED_PERCENT": 3.0,
    "true.slant.ACCEPTED_BARS_PERCENT": 2.0,
    "true.squareness.SQUARE_MM": 2.0,
    "true.straighten.MOST_AT_ONCE_MM": 2000.0,
    "true.straighten.FOLLOW_PERCENT": 2.0,
    "true.twist.SEEN_MM": 10.0,
    "true.twist.HANGS_MM": 30.0,
    "true.twist.MATCHED_MM": 1.5,
    "true.twist.MISMATCH_MM": 3.0,
    "units.MM_PER_INCH": 25.4,
    "units.MM_PER_YARD": 914.4,
    "units._UNIT_MM": {
        "mm": 1.0,
        "millimetre": 1.0,
        "millimetres": 1.0,
        "millimeter": 1.0,
        "millimeters": 1.0,
        "cm": 10.0,
        "centimetre": 10.0,
        "centimetres": 10.0,
        "centimeter": 10.0,
        "centimeters": 10.0,
        "m": 1000.0,
        "metre": 1000.0,
        "metres": 1000.0,
        "meter": 1000.0,
        "meters": 1000.0,
        "in": 25.4,
        "inch": 25.4,
        "inches": 25.4,
        '"': 25.4,
        "″": 25.4,
        "”": 25.4,
        "''": 25.4,
        "ft": 304.8,
        "foot": 304.8,
        "feet": 304.8,
        "'": 304.8,
        "′": 304.8,
        "’": 304.8,
        "yd": 914.4,
        "yds": 914.4,
        "yard": 914.4,
        "yards": 914.4,
    },
    "units.LONGEST_MM": 1000000.0,
    "units.TAPE_PARTS": (2, 3, 4, 5, 6, 8, 10, 12, 16, 32, 64),
    "units.TWO_WIDTHS": 30,
    "washday.loads.MINUTES": {
        "soak": 30,
        "hand": 30,
        "gentle": 45,
        "normal": 75,
        "hot": 90,
        "tumble": 40,
        "tumble-short": 10,
        "press-metre": 10,
        "rest": 30,
    },
    "washday.loads.USUAL_MASS": 200.0,
    "washday.loads.MOST_FILLED": 0.5,
    "washday.loads.WASHERS_KG": (1.0, 30.0),
    "washday.loads.STEP_MIN": 5,
    "washday.loads.LAST_TIMES": 5,
    "washday.schedule.GRAIN": 5,
    "washday.schedule.DAY": 1440,
    "washday.schedule.MOST_DAYS": 21,
    "washday.schedule.MOST_WET_WAIT": 60,
    "washday.schedule.WORK": 0.9,
    "washday.schedule.TIDY_WORK": 0.4,
    "washday.schedule.LEAST_WAKING": 180,
    "washday.schedule.GRACE": 5,
    "washday.schedule.MOST_TASKS": 80,
    "washday.schedule.LEAST_HOUR": 60,
    "washday.schedule.MOST_WAITS": 961,
    "weights.GRAMS_PER_OUNCE": 28.349523125,
    "weights.GRAMS_PER_POUND": 453.59237,
    "weights.YARD2_M2": 0.83612736,
    "weights.OUNCE_A_YARD2": 33.9057474748823,
    "weights._CLOTH": {
        "g": 1.0,
        "gsm": 1.0,
        "gm2": 1.0,
        "oz": 33.9057474748823,
        "ozyd2": 33.9057474748823,
        "ozsqyd": 33.9057474748823,
    },
    "weights._LOAD": {"kg": 1.0, "g": 0.001, "lb": 0.45359237, "lbs": 0.45359237},
    "written.ROUND_QUARTER": 1e-06,
    "written.WHOLE": 1e-06,
    "written.SIXTEENTHS_MM": 12.0,
    "written.QUARTERS_MM": 50.8,
    "written.HOURS_FROM_MIN": 120.0,
    "written.KILOGRAM": 1000.0,
    "written.YARD": 0.9144,
}


def numeric(value: Any) -> bool:
    """A number, or a run or table of them."""
    if isinstance(value, tuple | dict):
        parts = value if isinstance(value, tuple) else value.values()
        return bool(value) and all(isinstance(one, int | float) and not isinstance(one, bool) for one in parts)
    return isinstance(value, int | float) and not isinstance(value, bool)


def numbers() -> Iterator[tuple[str, Any]]:
    """Every constant of the core that is a number, by its module."""
    for path in sorted(CORE.rglob("*.py")):
        inside = path.relative_to(CORE).with_suffix("")
        if "engine" in inside.parts or path.name == "__init__.py":
            continue
        name = ".".join(inside.parts)
        module = importlib.import_module(f"idle_selvage.core.{name}")
        for one in ast.parse(path.read_text("utf-8")).body:
            if not isinstance(one, ast.Assign | ast.AnnAssign):
                continue
            for target in one.targets if isinstance(one, ast.Assign) else [one.target]:
                for part in target.elts if isinstance(target, ast.Tuple) else [target]:
                    if isinstance(part, ast.Name) and numeric(getattr(module, part.id, None)):
                        yield f"{name}.{part.id}", getattr(module, part.id)


FOUND = dict(numbers())


def test_every_number_is_typed_here() -> None:
    assert FOUND.keys() == NUMBERS.keys()


@pytest.mark.parametrize("name", NUMBERS)
def test_it_is_what_is_typed(name: str) -> None:
    assert FOUND[name] == NUMBERS[name] or FOUND[name] == pytest.approx(NUMBERS[name], rel=1e-12)
