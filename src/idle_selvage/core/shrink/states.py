"""From one state of a cloth to another: what was measured is used, what was not is predicted and marked so.

State 0 is the cloth as bought, state k the cloth after its k-th treatment. What a length loses from one state to a
later one has three values: *best*, where things are; *high*, what is bought and laid on, so that it is never too
little; *low*, the other end.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from ..cloth.make import Make
from ..cloth.state import AS_BOUGHT, State
from ..wording import Sentence
from ..working import Figure, Source, Step, given, length, percent
from .history import Past
from .known import Shrinkage, known_shrinkage, nothing_left
from .programme import Programme
from .shrinkage import Direction, plan_with
from .swatch import BOTH_WAYS, Swatch

PREDICTED = Source("common practice", "predicted from the nearest measured state", "measure it again to be sure")
MEASURED = Source("your own log", "measured in this state", "what is left to lose is planned as nothing")


@dataclass(frozen=True)
class Move:
    """What lies between two states, per cent along and across: ``low``, ``best`` and ``high``."""

    low: tuple[float, float] = (0.0, 0.0)
    best: tuple[float, float] = (0.0, 0.0)
    high: tuple[float, float] = (0.0, 0.0)


#: From a state to itself.
STAYS = Move()


@dataclass(frozen=True)
class ClothStates:
    """A cloth through its states, the first one as bought, and what is known of its shrinkage."""

    states: tuple[State, ...] = (AS_BOUGHT,)
    make: Make = field(default_factory=Make)
    swatch: Swatch = field(default_factory=Swatch)
    past: tuple[Past, ...] = ()
    #: how the length will be washed, or was; None: not said
    how: Programme | None = None

    @property
    def current(self) -> int:
        """The state it is in."""
        return len(self.states) - 1

    @cached_property
    def washes(self) -> int:
        """How many washes of the swatch were measured."""
        return max(self.swatch.washes("warp"), self.swatch.washes("weft"))

    @property
    def treated(self) -> int:
        """The state it is in once it is treated anew: after as many washes as the swatch needed."""
        return max(self.current + 1, self.washes)

    def after(self, state: int, direction: Direction) -> Shrinkage:
        """What it has lost in a state since it was bought."""
        if state == 0:
            return _stays(direction)
        return known_shrinkage(self.make, self.swatch, self.past, direction, state, self.how)

    def coming(self, since: int, state: int, direction: Direction) -> Shrinkage:
        """What it loses from one state to a later one."""
        if since >= state:
            return _stays(direction)
        return still_to_come(self.after(since, direction), self.after(state, direction), since)

    def measured(self, what: str, state: int) -> int | None:
        """The nearest state up to ``state`` in which ``what`` (``width`` or ``length``) was measured."""
        for k in range(min(state, self.current), -1, -1):
            found = self.states[k].widths if what == "width" else self.states[k].length
            if found:
                return k
        return None

    def move(self, since: int, state: int) -> Move:
        """Where things have moved to from one state to a later one; nothing where no shrinkage is known."""
        (a, b, c), (x, y, z) = (self._lost(since, state, direction) for direction in BOTH_WAYS)
        return Move((a, x), (b, y), (c, z))

    def _lost(self, since: int, state: int, direction: Direction) -> tuple[float, float, float]:
        """Low, best and high of what was lost between two states, per cent: by both measures where there are two, and
        between everything that is known."""
        figure, told = self.coming(since, state, direction).figure, self._told(since, state, direction)
        if figure is None:
            # a length also gets shorter by being cut, a width does not
            told = told if direction == "weft" else None
            return (0.0, 0.0, 0.0) if told is None else (told, told, told)
        low = figure.value if figure.low is None else figure.low
        high = max(figure.value, figure.value if figure.high is None else figure.high)
        if told is None or (direction == "warp" and not low <= told <= high):
            return low, figure.value, high
        return min(low, told), told, max(high, told)

    def _told(self, since: int, state: int, direction: Direction) -> float | None:
        """What the measures of two states say was lost between them, per cent."""
        if not since < state <= self.current:
            return None
        before, after = self.states[since], self.states[state]
        if direction == "warp":
            one, other = before.length, after.length
        else:
            one, other = min(before.widths, default=None), min(after.widths, default=None)
        return 100.0 * (1.0 - other / one) if one and other else None

    def length_in(self, state: int) -> Figure | None:
        """Its length in a state: as measured then, or predicted with its range; None where it cannot be told."""
        since = self.measured("length", state)
        return None if since is None else self._in("length", self.states[since].length or 0.0, since, state, "warp")

    def width_in(self, state: int) -> Figure | None:
        """Its narrowest width in a state: as measured then, or predicted with its range; None where it cannot be
        told."""
        since = self.measured("width", state)
        return None if since is None else self._in("width", min(self.states[since].widths), since, state, "weft")

    def _in(self, what: str, value: float, since: int, state: int, direction: Direction) -> Figure | None:
        if since == state:
            step = given(what, length(value), "as measured in this state")
            return Figure(value, "length", steps=(step,), sources=(MEASURED,))
        coming = self.coming(since, state, direction)
        if coming.figure is None or coming.plan is None:
            return None
        figure = coming.figure
        measured = ("measured", length(value))

        def left(label: str, shrinkage: float) -> tuple[float, Step]:
            found = value * (1.0 - shrinkage / 100.0)
            put = (measured, ("shrinkage since", percent(shrinkage)))
            return found, Step(label, "measured × (1 − shrinkage since)", put, length(found))

        least, at_least = left("at least", coming.plan.value)
        most, at_most = left("at most", figure.value if figure.low is None else figure.low)
        best, predicted = left(f"{what}, predicted", figure.value)
        steps = (*coming.plan.steps, predicted, at_least, at_most)
        note = Sentence("about; measured {state}, not since", state=self.states[since].name)
        return Figure(best, "length", least, max(most, best), steps, (*figure.sources, PREDICTED), note)


def _stays(direction: Direction) -> Shrinkage:
    return nothing_left(direction, "measured as it is: nothing shrinks before it is cut", (MEASURED,))


def still_to_come(lost: Shrinkage, all_of_it: Shrinkage, since: int) -> Shrinkage:
    """What is left to lose of ``all_of_it`` once ``lost`` has gone, ``1 − (1 − all) ÷ (1 − lost)``.

    What has gone is taken at its best value: the high end of all stays the one planned with.
    """
    if since == 0 or lost.figure is None or all_of_it.figure is None or all_of_it.plan is None:
        return all_of_it
    gone, whole = lost.figure, all_of_it.figure

    def left(label: str, all_: float) -> tuple[float, Step]:
        value = 100.0 * (1.0 - (1.0 - all_ / 100.0) / (1.0 - gone.value / 100.0))
        put = (("shrinkage in all", percent(all_)), ("shrinkage so far", percent(gone.value)))
        return value, Step(label, "1 − (1 − shrinkage in all) ÷ (1 − shrinkage so far)", put, percent(value))

    along = "along" if lost.direction == "warp" else "across"
    best, still = left(f"still to come {along}", whole.value)
    low, at_least = left("at least", whole.value if whole.low is None else whole.low)
    high, at_most = left("at most", all_of_it.plan.value)
    steps = (*all_of_it.plan.steps, still, at_least, at_most)
    figure = Figure(best, "percent", min(best, low), max(best, high), steps, whole.sources, whole.note)
    return replace(all_of_it, figure=figure, plan=plan_with(figure))


def states_of(states: Sequence[State]) -> tuple[State, ...]:
    """The states of a cloth, at least the one as bought."""
    return tuple(states) or (AS_BOUGHT,)
