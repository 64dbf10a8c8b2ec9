"""What is printed for the table: the sheet, shapes at their true size, labels and gauges."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy.orm import Session

from ...core.cut.handling import MARKS
from ...core.cut.labels import Label, labels
from ...core.cut.really_left import shape_of
from ...core.cut.sheet import CutSheet, SheetLay, SheetRow, what_is_marked
from ...core.cut.template import Gauge, gauges
from ...core.lay.answer import Cut
from ...core.lay.drawing import PlacedShape
from ...core.lay.problem import LayPiece
from ...core.plan.outline import Outline, Point
from ...core.wording import Sentence
from ...core.working import Figure
from ...store.errors import NotFound
from ..buy.list import read_list
from ..standing import Standing
from .rounds import CuttingStanding, Round, handling_of, matching_steps, planned, read_cutting


@dataclass(frozen=True)
class TrueShape:
    """A shape at its true size: what is written on it, its outline, arrow and marks, mm."""

    name: str
    outline: Outline
    arrow: tuple[Point, Point] | None
    lines: tuple[Outline, ...]
    notes: tuple[str, ...]


def sheet_of(session: Session, now: Standing) -> CutSheet:
    """The sheet of one cloth: of every lay that is being cut, or the one the garment goes by. Raises NotFound before
    there is one."""
    found = read_cutting(session, now)
    lays = _lays(now, found)
    first = found.rounds[0] if found.rounds else None
    matching = [step for one, _ in lays for step in matching_steps(now, one, first=None if one is first else first)]
    hold = handling_of(now)
    marks = [f"{MARKS[kind].capitalize()}: {hold.marks[kind].do}" for kind in what_is_marked(_all_rows(lays))]
    handling = [_told(one.do, one.why) for one in (hold.hold, *hold.cut)]
    return CutSheet(
        now.garment.name,
        now.name,
        now.size.size,
        tuple(lay for _, lay in lays),
        tuple(dict.fromkeys(one.told for one in matching)),
        tuple(marks),
        tuple(handling),
        hold.cautions,
        tuple(
            Sentence("{label}: {name}, {amount}", label=item.label, name=item.name, amount=item.amount)
            for item in read_list(session, now.whole)
        ),
        tuple(_figures(now)),
    )


def _lays(now: Standing, found: CuttingStanding) -> list[tuple[Round, SheetLay]]:
    """Every lay that stands, its placements numbered as they are at the table; what was given up is left out."""
    if not found.rounds:
        round_ = _planned(now)
        return [(round_, _sheet_lay(round_, list(enumerate(round_.order, start=1))))]
    out = []
    for round_ in found.rounds:
        here = [(step.number, step.key) for step in found.steps if step.round is round_]
        if here:
            out.append((round_, _sheet_lay(round_, here)))
    return out


def _planned(now: Standing) -> Round:
    round_ = planned(now)
    if round_ is None:
        raise NotFound("Nothing was laid yet, so there is nothing to print.")
    return round_


def _sheet_lay(round_: Round, numbered: Sequence[tuple[int, str]]) -> SheetLay:
    folding = tuple((one.name, tuple(one.steps)) for one in round_.foldings)
    cloth = round_.row.cloth.name if round_.row.cloth is not None else ""
    return SheetLay(cloth, round_.drawing, _rows(round_, numbered), folding)


def _all_rows(lays: Sequence[tuple[Round, SheetLay]]) -> list[SheetRow]:
    return [row for _, lay in lays for row in lay.rows]


def _told(do: str, why: str) -> Sentence:
    return Sentence("{do} ({why}.)", do=do, why=why) if why else Sentence("{do}", do=do)


def _rows(round_: Round, numbered: Sequence[tuple[int, str]]) -> tuple[SheetRow, ...]:
    out = []
    before = None
    for number, key in numbered:
        told = round_.told[key]
        stops = tuple(round_.name(other) for other in round_.computed.stop_at.get(key, ()))
        fold = round_.lay.sections[told.shape.section].fold
        name = next(one.name for one in round_.foldings if one.section == told.shape.section)
        out.append(SheetRow(number, told, len(round_.cuts[key]), stops, name if fold != before else ""))
        before = fold
    return tuple(out)


def _figures(now: Standing) -> list[tuple[str, Figure]]:
    out: list[tuple[str, Figure]] = []
    if now.tally.width is not None:
        out.append(("Usable width", now.tally.width))
    if now.bought is not None:
        out.append(("To buy", now.bought.to_buy))
    return out


def lay_shapes(session: Session, now: Standing) -> tuple[TrueShape, ...]:
    """Every shape of the lay at hand as it is pinned, at its true size. Raises NotFound."""
    round_ = _here(read_cutting(session, now)) or _planned(now)
    return tuple(_true(shape) for shape in round_.drawing.shapes)


def _here(found: CuttingStanding) -> Round | None:
    """The lay at hand: where the next piece is cut from, or the last one when all are; None before cutting."""
    if found.at is not None:
        return found.steps[found.at].round
    return found.rounds[-1] if found.rounds else None


def _true(shape: PlacedShape) -> TrueShape:
    way = "printed side down" if shape.mirrored else "printed side up"
    notes = (f"copy {shape.copy}, {'two layers' if shape.layers == 2 else 'one layer'}", way)
    return TrueShape(shape.piece, shape.outline, (shape.tail, shape.head), tuple(m.line for m in shape.marks), notes)


def piece_shapes(now: Standing, key: str | None = None) -> tuple[TrueShape, ...]:
    """The pieces as they are cut, each whole, beside one another; or one of them. Raises NotFound."""
    problem = now.problem
    if problem is None or not problem.pieces:
        raise NotFound("No piece is cut from this cloth yet.")
    chosen = [piece for piece in problem.pieces if key is None or piece.id == key]
    if not chosen:
        raise NotFound("There is no such piece on this cloth.")
    out, at = [], 0.0
    for piece in chosen:
        shape = _whole(piece)
        low = min(y for _, y in shape.outline)
        out.append(_moved(shape, at - low))
        at += max(y for _, y in shape.outline) - low + BETWEEN_MM
    return tuple(out)


#: Pieces are printed so far apart, mm.
BETWEEN_MM = 15.0


def _whole(piece: LayPiece) -> TrueShape:
    outline = shape_of(piece, Cut(piece.id, 1, 0.0, 0.0, 0, False))
    lines: list[Outline] = [mark.line for mark in piece.marks]
    if piece.on_fold:
        lines += [tuple((x, -y) for x, y in mark.line) for mark in piece.marks]
    notes = (f"{piece.copies} to cut" + (", in pairs" if piece.pair else ""),)
    return TrueShape(piece.called, outline, piece.arrow, tuple(lines), notes)


def _moved(shape: TrueShape, by: float) -> TrueShape:
    def up(points: Sequence[Point]) -> Outline:
        return tuple((x, y + by) for x, y in points)

    arrow = None if shape.arrow is None else (up(shape.arrow)[0], up(shape.arrow)[1])
    return TrueShape(shape.name, up(shape.outline), arrow, tuple(up(one) for one in shape.lines), shape.notes)


def labels_of(session: Session, now: Standing) -> tuple[Label, ...]:
    """A label for every copy that is cut and good, or waits for it, of every lay. Raises NotFound."""
    found = read_cutting(session, now)
    pieces: dict[str, LayPiece] = {}
    cuts = []
    for round_ in found.rounds:
        pieces |= round_.pieces
        cuts += [*round_.of(found.tally, "good"), *round_.of(found.tally, "waits")]
    if not found.rounds:
        round_ = _planned(now)
        pieces, cuts = round_.pieces, list(round_.lay.cut)
    if not cuts:
        raise NotFound("No copy is good or waits to be cut, so there is nothing to label.")
    return labels(cuts, pieces, size=now.size.size, cloth=now.name, garment=now.garment.name)


def gauges_of(now: Standing) -> tuple[Gauge, ...]:
    """A gauge for every allowance of the pieces cut from a cloth. Raises NotFound where none has any."""
    wide: list[tuple[str, float]] = []
    for one in now.asked:
        piece = one.piece
        usual = piece.included if piece.included > 0 else piece.seam
        of = [edge.width for edge in piece.edges if edge.width is not None]
        every = not piece.edges or any(edge.width is None for edge in piece.edges)
        wide += [(piece.name, width) for width in dict.fromkeys([*([usual] if every else []), *of])]
    found = gauges(wide)
    if not found:
        raise NotFound("No piece of this cloth has an allowance to chalk.")
    return found
