"""Figures, lengths, pieces and lays as they are sent, in the units of the person asking."""

from __future__ import annotations

from collections.abc import Sequence

from ..core.buy.purchase import Purchase
from ..core.lay.drawing import Drawing, PlacedShape
from ..core.plan.allowance import cut_line
from ..core.plan.arrow import grainline
from ..core.plan.outline import BadPiece, Point
from ..core.units import System
from ..core.working import Figure, Quantity
from ..core.written import length_text, quantity_parts, quantity_text
from ..store import models, records
from . import schemas as out


class Presenter:
    """Presents for one system of units."""

    def __init__(self, system: System) -> None:
        self.system = system

    def length(self, mm: float) -> out.LengthOut:
        return out.LengthOut(mm=mm, text=length_text(mm, self.system))

    def shop(self, mm: float | None) -> out.LengthOut | None:
        """A length as a shop or an envelope speaks of it: metres, or yards where it is whole eighths."""
        return None if mm is None else out.LengthOut(mm=mm, text=self.quantity(Quantity(mm, "purchase")))

    def maybe(self, mm: float | None) -> out.LengthOut | None:
        return None if mm is None else self.length(mm)

    def quantity(self, quantity: Quantity, *, fine: bool = False) -> str:
        return quantity_text(quantity, self.system, fine=fine)

    def too_wide(self, piece: str, across: float, width: float) -> str:
        return (
            f"{piece} is {length_text(across, self.system)} across, and there are only "
            f"{length_text(width, self.system)} of cloth for it."
        )

    def figure_text(self, figure: Figure) -> str:
        """The number with its unit, and no more."""
        return self.quantity(figure.quantity)

    def figure(self, figure: Figure | None) -> out.FigureOut | None:
        return None if figure is None else self.surely(figure)

    def surely(self, figure: Figure) -> out.FigureOut:
        number, unit = quantity_parts(figure.quantity, self.system)
        sure = None
        if figure.low is not None and figure.high is not None:
            sure = "± " + self.quantity(Quantity((figure.high - figure.low) / 2, figure.unit))
        return out.FigureOut(
            value=figure.value,
            number=number,
            unit=unit,
            text=self.quantity(figure.quantity),
            low=None if figure.low is None else self.quantity(Quantity(figure.low, figure.unit)),
            high=None if figure.high is None else self.quantity(Quantity(figure.high, figure.unit)),
            sure=sure,
            note=figure.note,
            steps=[
                out.StepOut(
                    label=s.label,
                    formula=s.formula,
                    result=self.quantity(s.result, fine=True),
                    inputs=[out.InputOut(name=n, text=self.quantity(q, fine=True)) for n, q in s.inputs],
                )
                for s in figure.steps
            ],
            sources=[out.SourceOut(kind=s.kind, name=s.name, note=s.note) for s in dict.fromkeys(figure.sources)],
        )

    def piece(self, row: models.Piece, fit: tuple[float, float] | None = None) -> out.PieceOut:
        """A piece; ``fit`` are the shrinkages by which it is enlarged when it is sewn first."""
        shape = records.as_piece(row)
        fault = ""
        try:
            cut = cut_line(shape)
        except BadPiece as error:
            cut, fault = shape.outline, str(error)
        larger: list[Point] = []
        if fit is not None and not fault:
            try:
                larger = list(cut_line(records.enlarged(shape, fit)))
            except BadPiece as error:
                fault = str(error)
        return out.PieceOut(
            id=row.id,
            name=row.name,
            outline=list(shape.outline),
            cut=list(cut),
            arrow=list(grainline(cut, on_fold=row.on_fold)) if not fault else [],
            size=self.size(cut, row.on_fold),
            copies=row.copies,
            pair=row.pair,
            on_fold=row.on_fold,
            grain=row.grain,
            one_way=row.one_way,
            seam=self.length(row.seam),
            meets=row.meets,
            meets_at=self.length(row.meets_at),
            centred=row.centred,
            hidden=row.hidden,
            hem=row.hem,
            smooth=row.smooth,
            fault=fault,
            enlarged=larger,
            stations=[
                out.StationOut(along=self.length(a), left=self.length(b), right=self.length(c))
                for a, b, c in row.stations
            ],
        )

    def size(self, outline: Sequence[Point], on_fold: bool) -> str:
        if not outline:
            return ""
        xs, ys = [p[0] for p in outline], [p[1] for p in outline]
        wide = (max(ys) - min(ys)) * (2 if on_fold else 1)
        return f"{length_text(max(xs) - min(xs), self.system)} long, {length_text(wide, self.system)} wide"

    def purchase(self, bought: Purchase, least: float, unmeasured: list[str]) -> out.PurchaseOut:
        """``least``: what the shop would cut for a lay as short as its bound, mm."""
        return out.PurchaseOut(
            to_buy=self.surely(bought.to_buy),
            lines=[
                out.LineOut(key=li.key, name=li.name, adds=self.length(li.adds), figure=self.surely(li.figure))
                for li in bought.lines
            ],
            rule_of_thumb=self.surely(bought.rule_of_thumb),
            thumbs=[
                out.ThumbOut(name=t.name, figure=self.surely(t.figure), off=self.length(t.off), told=self._off(t.off))
                for t in bought.thumbs
            ],
            spare=self.surely(bought.spare),
            least=out.LengthOut(mm=least, text=self.quantity(Quantity(least, "purchase"))),
            proved=bought.to_buy.value - least < 1.0,
            unmeasured=unmeasured,
            cost=self.figure(bought.cost),
            in_hand_short=self.figure(bought.in_hand_short),
        )

    def _off(self, off: float) -> str:
        if abs(off) < 5.0:
            return "about right here"
        return f"{length_text(abs(off), self.system)} {'more than' if off > 0 else 'short of what'} is needed"

    def job(self, row: models.Job) -> out.JobOut:
        last = row.progress[-1] if row.progress else None
        return out.JobOut.model_validate(
            {
                "id": row.id,
                "project_id": row.project_id,
                "state": row.state,
                "seconds": round(row.spent, 1),
                "asked_seconds": row.params["seconds"],
                "progress": [(p[0], p[1]) for p in row.progress],
                "length": self.maybe(min((p[1] for p in row.progress), default=None)),
                "bound": self.maybe(last[2] if last else None),
                "steps": last[4] if last else 0,
                "error": row.error,
            }
        )

    def drawing(self, drawing: Drawing) -> out.DrawingOut:
        return out.DrawingOut.model_validate(
            {
                "view": drawing.view,
                "length": drawing.length,
                "low": drawing.low,
                "high": drawing.high,
                "fold_at": drawing.fold_at,
                "shapes": [self.shape(s) for s in drawing.shapes],
            }
        )

    def shape(self, shape: PlacedShape) -> out.ShapeOut:
        return out.ShapeOut(
            key=shape.key,
            piece=shape.piece,
            copy_number=shape.copy,
            layers=shape.layers,
            turn=shape.turn,
            mirrored=shape.mirrored,
            outline=[(round(x, 2), round(y, 2)) for x, y in shape.outline],
            tail=shape.tail,
            head=shape.head,
            edge=shape.edge,
            tail_distance=self.length(shape.tail_distance),
            head_distance=self.length(shape.head_distance),
            from_end=f"{length_text(shape.from_end[0], self.system)} to {length_text(shape.from_end[1], self.system)}",
        )
