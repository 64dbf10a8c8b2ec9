"""Lengths, figures and shapes as they are sent, in the units of the person asking."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.plan.outline import Point
from ...core.units import System
from ...core.wording import say
from ...core.working import Figure, Quantity
from ...core.written import (
    chart_text,
    length_text,
    minus_text,
    quantity_parts,
    sided_text,
    with_fahrenheit,
)
from .person import currency, system
from .schemas import FigureOut, InputOut, LengthOut, SourceOut, StepOut

#: A figure further from the middle of its range than this share of half of it is told with both ends.
LOPSIDED = 0.1


class Presenter:
    """Presents for one system of units."""

    def __init__(self, system: System) -> None:
        self.system = system

    def told(self, text: str) -> str:
        """A sentence of ours in the person's units."""
        return with_fahrenheit(say(text, self.system), self.system)

    def length(self, mm: float) -> LengthOut:
        return LengthOut(mm=mm, text=length_text(mm, self.system))

    def graduation(self, mm: float) -> LengthOut:
        """What a tape is read to: whole millimetres, or a part of an inch."""
        return LengthOut(mm=mm, text=f"{mm:.4g} mm" if self.system == "metric" else length_text(mm, self.system))

    def sided(self, mm: float) -> LengthOut:
        """A length to one side of the tape; right is said."""
        return LengthOut(mm=mm, text=sided_text(mm, self.system))

    def along(self, mm: float) -> LengthOut:
        """A place along the tape; below where it begins it has a minus."""
        return LengthOut(mm=mm, text=minus_text(mm, self.system))

    def maybe(self, mm: float | None) -> LengthOut | None:
        return None if mm is None else self.length(mm)

    def chart(self, mm: float | None) -> LengthOut | None:
        """A length as an envelope's chart has it, ready to be typed again."""
        return None if mm is None else LengthOut(mm=mm, text=chart_text(mm, self.system))

    def quantity(self, quantity: Quantity, *, fine: bool = False) -> str:
        number, unit = self._parts(quantity, fine=fine)
        return f"{number}{unit}" if unit == "°" else f"{number} {unit}".rstrip()

    def _parts(self, quantity: Quantity, *, fine: bool = False) -> tuple[str, str]:
        """A quantity as (number, unit); money with the person's own sign."""
        number, unit = quantity_parts(quantity, self.system, fine=fine)
        if quantity.kind in ("money", "price"):
            unit = f"{currency.get()} {unit}".strip()
        return number, unit

    def figure_text(self, figure: Figure) -> str:
        """The number with its unit, and no more."""
        return self.quantity(figure.quantity)

    def figure(self, figure: Figure | None) -> FigureOut | None:
        return None if figure is None else self.surely(figure)

    def surely(self, figure: Figure) -> FigureOut:
        number, unit = self._parts(figure.quantity)
        sure = None
        if figure.low is not None and figure.high is not None:
            sure = self._sure(figure, figure.low, figure.high)
        return FigureOut(
            value=figure.value,
            number=number,
            unit=unit,
            text=self.quantity(figure.quantity),
            low=None if figure.low is None else self.quantity(Quantity(figure.low, figure.unit)),
            high=None if figure.high is None else self.quantity(Quantity(figure.high, figure.unit)),
            low_value=figure.low,
            high_value=figure.high,
            sure=sure,
            note=figure.note,
            steps=[
                StepOut(
                    label=s.label,
                    formula=s.formula,
                    result=self.quantity(s.result, fine=True),
                    why=s.why,
                    inputs=[InputOut(name=n, text=self.quantity(q, fine=True)) for n, q in s.inputs],
                )
                for s in figure.steps
            ],
            sources=[SourceOut(kind=s.kind, name=s.name, note=s.note) for s in dict.fromkeys(figure.sources)],
        )

    def _sure(self, figure: Figure, low: float, high: float) -> str:
        """How sure a figure is: half its range, or both ends where it does not lie in the middle of them."""
        half = (high - low) / 2
        if abs(figure.value - (low + half)) <= LOPSIDED * half:
            return "± " + self.quantity(Quantity(half, figure.unit))
        ends = (self.quantity(Quantity(end, figure.unit)) for end in (low, high))
        return f"({' to '.join(ends)})"

    def size(self, outline: Sequence[Point], on_fold: bool) -> str:
        """How long and how wide a whole piece is."""
        if not outline:
            return ""
        xs, ys = [p[0] for p in outline], [p[1] for p in outline]
        wide = (max(ys) - min(ys)) * (2 if on_fold else 1)
        return f"{length_text(max(xs) - min(xs), self.system)} long, {length_text(wide, self.system)} wide"


def presenter() -> Presenter:
    """For the person asking."""
    return Presenter(system())


def rounded(outline: Sequence[Point], digits: int = 1) -> list[Point]:
    """An outline as it is sent: to a tenth of a millimetre, or to so many digits."""
    return [(round(x, digits), round(y, digits)) for x, y in outline]
