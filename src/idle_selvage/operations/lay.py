"""Lays: begun, followed, looked at, chosen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal, cast

from sqlalchemy.orm import Session

from ..core.buy.purchase import Purchase
from ..core.lay.answer import Lay
from ..core.lay.answer import to_json as lay_json
from ..core.lay.asking import leans
from ..core.lay.broken import Broken
from ..core.lay.closing import How, closing
from ..core.lay.drawing import Drawing, draw
from ..core.lay.folding import Folding, Sides, foldings
from ..core.lay.left_over import Rectangle, left_over
from ..core.lay.moves import CannotMove
from ..core.lay.named import called_by, fold_name, laid_how, renamed
from ..core.lay.outside import taken_in
from ..core.lay.problem import FOLDS, Problem, too_wide_sentences, too_wide_told
from ..core.lay.problem import to_json as problem_json
from ..core.lay.reading import read_problem
from ..core.lay.recheck import mending, recheck
from ..core.wording import joined
from ..core.working import Figure
from ..store import job as jobs
from ..store import lay as lays
from ..store import lay_problem, models
from ..store.errors import NotFound
from .by_hand import HandStanding, own_name, standing_of
from .ladder import ladder_of
from .log import note
from .project import change
from .quiet import shortest_found
from .refused import Refused, within
from .standing import Standing, standing

View = Literal["pinned", "opened"]

_LIMITS = {"gap": (0.0, 200.0)}


def change_wishes(session: Session, cloth_use: models.ClothUse, given: Mapping[str, Any]) -> None:
    """Change the room between pieces, the folds to try, whether pieces are turned on any bars, or how long to search.
    Raises :class:`Refused`."""
    within(given, _LIMITS)
    entries = dict(given)
    if "folds" in entries:
        if not entries["folds"]:
            raise Refused("Choose at least one way to fold.", path="folds")
        for fold in entries["folds"]:
            if fold not in FOLDS:
                told = f"There is no fold “{fold[:30]}”; choose from {', '.join(FOLDS)}."
                raise Refused(told, path="folds")
        entries["folds"] = list(dict.fromkeys(entries["folds"]))
    change(session, cloth_use, entries, "lay")


@dataclass(frozen=True)
class Search:
    """How to search: for how long (None: as the garment wishes), and from which seed; or with how many ``steps``, which
    give the same lay everywhere."""

    seconds: float | None = None
    seed: int = 1
    steps: int | None = None


def begin_laying(session: Session, cloth_use: models.ClothUse, search: Search | None = None) -> models.Job:
    """A new laying on one cloth of a garment as it stands, waiting for a worker; one under way is stopped. Raises
    :class:`Refused` while something is missing, BadProblem for a problem no file may hold either."""
    now = standing(session, cloth_use)
    return _begin(session, now, search or Search())


def _begin(session: Session, now: Standing, search: Search) -> models.Job:
    problem = _ready(now)
    job = _job(session, now, problem, search)
    copies = sum(p.copies for p in problem.pieces)
    note(session, now.use, "lay", "laying-begun", copies=copies, job=job.id)
    return job


def _job(session: Session, now: Standing, problem: Problem, search: Search, **more: Any) -> models.Job:
    """A search that waits for a worker; what is under way on this cloth, or quietly on any, is stopped."""
    # the same questions as for a file: what it refuses there is refused here, by name
    read_problem(problem_json(problem, named=True))
    earlier = jobs.running_lay(session, now.use.id)
    if earlier is not None:
        earlier.cancel = True
    jobs.stop_quiet(session)
    params = {
        "seconds": search.seconds or now.use.lay_seconds,
        "seed": search.seed,
        "basis": now.tally.basis,
        **({} if search.steps is None else {"steps": search.steps}),
        **more,
    }
    job = models.Job(use_id=now.use.id, fingerprint=lay_problem.keep(session, problem), params=params)
    session.add(job)
    session.flush()
    return job


def begin_closing(
    session: Session, cloth_use: models.ClothUse, number: int, how: How | Literal["mend"], search: Search | None = None
) -> models.Job:
    """Search on from a lay as the maker has it: what is locked stays, the rest moves along only, or anywhere; or
    (``mend``) only what breaks on the cloth as it is now is laid again. Raises NotFound, :class:`Refused`,
    BadProblem."""
    now, search = standing(session, cloth_use), search or Search()
    row = lays.lay(session, cloth_use.id, number)
    stored = lays.in_hand(row)
    answers = row.fingerprint
    try:
        if how == "mend":
            asked = mending(stored.hand, _ready(now), stored.base)
            answers = lay_problem.keep(session, _ready(now))
        else:
            if now.problem is not None and now.stale and now.chosen is row:
                raise Refused("The cloth or the pieces changed: lay the broken pieces again first.", code="not_ready")
            asked = closing(stored.hand, stored.problem, standing_of(stored).stay, how).problem
    except CannotMove as fault:
        raise Refused(fault.args[0], code="cannot_move") from None
    job = _job(session, now, asked, search, closes=row.id, how=how, answers=answers)
    note(session, now.use, "lay", "closing-begun", lay=row.name or fold_name(row.fold), job=job.id)
    return job


def _ready(now: Standing) -> Problem:
    if now.problem is None:
        raise Refused(now.missing, code="not_ready")
    told = too_wide_sentences(now.problem)
    if told:
        raise Refused(joined(told), code="cannot_lay")
    return now.problem


def refresh_lay(session: Session, cloth_use: models.ClothUse) -> models.Job | None:
    """Bring lay and purchase up to date: lay again if the lay no longer fits, else go on with it as it is.

    The laying that was begun, if one was.
    """
    now = standing(session, cloth_use)
    if now.chosen is None or now.ladder is None or now.problem != now.ladder.problem:
        return _begin(session, now, Search())
    for row in lays.alternatives(session, now.chosen):
        row.basis = now.tally.basis
    note(session, cloth_use, "lay", "lay-kept")
    session.flush()
    return None


def job(session: Session, number: int) -> models.Job:
    """A laying or a try by its number. Raises NotFound."""
    return jobs.job(session, number)


def cancel(session: Session, number: int) -> models.Job:
    """Stop a laying; the best lay found so far is kept. Raises NotFound."""
    row = jobs.job(session, number)
    if row.state in jobs.OPEN:
        row.cancel = True
        if row.state == "waiting" and row.spent > 0.0:
            # nobody works at it, and it has found something: it need not wait for another turn to end
            jobs.finish(row, "cancelled")
            found = lays.found_by(session, row.id)
            if row.kind == "lay" and found is not None:
                note_laid(session, row, lays.as_lay(found))
        session.flush()
    return row


def note_laid(session: Session, job: models.Job, best: Lay) -> None:
    """Write down that a laying has ended, and with what."""
    note(
        session,
        session.get_one(models.ClothUse, job.use_id),
        "lay",
        "laid",
        pieces=len(best.cut),
        how=laid_how(best),
        ended="stopped early" if job.state == "cancelled" else "searched to the end",
        length=best.length,
        bound=best.bound,
        fold=best.sections[0].fold,
        job=job.id,
    )


def choose_lay(session: Session, cloth_use: models.ClothUse, number: int) -> None:
    """Go by another of the lays that were found. Raises NotFound."""
    row = lays.lay(session, cloth_use.id, number)
    before = lays.chosen_lays(session, [cloth_use.id]).get(cloth_use.id)
    lays.choose_lay(session, row, picked=True)
    told = {"fold": fold_name(row.fold), "length": lays.as_lay(row).length}
    was = {"lay": before.id if before else None}
    note(session, cloth_use, "lay", "lay-chosen", before=was, after={"lay": row.id}, values=told)
    session.flush()


@dataclass(frozen=True)
class LayStanding:
    """One lay that was found, with the problem it answers, ready to be drawn."""

    row: models.LayRecord
    lay: Lay
    problem: Problem
    margins: tuple[float, float]
    leans: Mapping[str, int]
    sides: Sides = "together"

    @cached_property
    def hand(self) -> HandStanding:
        """It in the hand: what it breaks, what lies on the tray."""
        return standing_of(lays.in_hand(self.row))

    @property
    def asked(self) -> Problem:
        """The problem it answers; of one of the maker's own with what she asked of it by hand."""
        return self.hand.hand.asked(self.problem) if self.row.name else self.problem

    @property
    def fold(self) -> str:
        """How it is folded, by the name of its fold."""
        sections = self.lay.sections
        return sections[0].fold if len(sections) == 1 else "combination"

    @property
    def foldings(self) -> tuple[Folding, ...]:
        """How the cloth is folded for it."""
        on_bars = bool(self.problem.bars.y_axes)
        return foldings(self.lay, self.problem.width, self.margins, self.sides, on_bars=on_bars)

    def drawn(self, view: View) -> Drawing:
        """The lay on its cloth, as pinned or opened out."""
        return draw(
            self.lay,
            {p.id: p for p in self.problem.pieces},
            self.problem.width,
            margins=self.margins,
            view=view,
            leans=self.leans,
            blocked=self.problem.kept_off,
            keys=[one.key for one in lays.in_hand(self.row).hand.held] if self.row.name else None,
        )


def lay_standing(now: Standing, row: models.LayRecord) -> LayStanding:
    """A lay of a garment, read."""
    ladder = ladder_of(row)
    problem = renamed(read_problem(row.problem) if ladder is None else ladder.problem, now.names, now.problem)
    cloth = now.cloth.row
    turned = leans(problem, now.asked)
    margins = (cloth.margin_low, cloth.margin_high)
    return LayStanding(row, lays.as_lay(row), problem, margins, turned, cast(Sides, now.use.sides))


def chosen(now: Standing) -> LayStanding:
    """The lay a garment goes by. Raises NotFound before there is one."""
    if now.chosen is None:
        raise NotFound("Nothing was laid yet, so there is no lay to take away.")
    return lay_standing(now, now.chosen)


def pinned(now: Standing) -> Drawing | None:
    """The chosen lay as it is pinned, or None before there is one."""
    return None if now.chosen is None else lay_standing(now, now.chosen).drawn("pinned")


def _plain_again(row: models.LayRecord) -> bool:
    """Whether a combination came out as one stretch: it is the lay of that fold once more."""
    return not row.name and row.fold == "combination" and len(row.lay["sections"]) == 1


@dataclass(frozen=True)
class Offered:
    """A shorter lay that was found quietly, and what would do instead of what is to be bought now."""

    row: models.LayRecord
    would_do: Figure
    instead_of: Figure


@dataclass(frozen=True)
class LayFound:
    """The chosen lay beside the others of its search, and the folds that were refused with the reason."""

    chosen: LayStanding
    others: tuple[LayStanding, ...]
    refused: tuple[tuple[str, str], ...]
    #: what of a lay of the maker's own breaks on the cloth and with the pieces as they are now
    again: tuple[Broken, ...] = ()
    offer: Offered | None = None


def read_lay(session: Session, now: Standing) -> LayFound | None:
    """The lay a garment goes by, with its alternatives; None before there is one."""
    if now.chosen is None:
        return None
    rows = lays.alternatives(session, now.chosen)
    others = tuple(lay_standing(now, row) for row in rows if row is now.chosen or not _plain_again(row))
    job_ = session.get(models.Job, now.chosen.job_id) if now.chosen.job_id else now.rows.job
    refused = tuple(
        # beside being too wide, a fold may be refused for a reason of its own
        (fold, why[0] if why and why[0] else too_wide_told(called_by(now.names, piece), across, width))
        for fold, piece, across, width, *why in (job_.refused if job_ else [])
    )
    chosen = lay_standing(now, now.chosen)
    again: tuple[Broken, ...] = ()
    if now.chosen.name and now.stale and now.problem is not None:
        stored = lays.in_hand(now.chosen)
        again = recheck(stored.hand, now.problem, stored.base)
    return LayFound(chosen, others, refused, again, None if now.stale else _offer(session, now))


def _offer(session: Session, now: Standing) -> Offered | None:
    if now.chosen is None or now.bought is None:
        return None
    row = shortest_found(session, now.chosen)
    if row is None:
        return None
    as_if = replace(now, rows=replace(now.rows, chosen=row), ladder=ladder_of(row)).bought
    if as_if is None or as_if.to_buy.value >= now.bought.to_buy.value:
        return None
    return Offered(row, as_if.to_buy, now.bought.to_buy)


@dataclass(frozen=True)
class Compared:
    """A lay beside the others: what would be bought for it, which rules it breaks on the cloth as it is now, and what
    it leaves over."""

    one: LayStanding
    bought: Purchase | None
    left: tuple[Rectangle, ...]
    broken: tuple[Broken, ...] = ()


def compare(session: Session, now: Standing) -> tuple[Compared, ...]:
    """Every lay there is, side by side."""
    found = read_lay(session, now)
    if found is None:
        return ()
    out = []
    for one in found.others:
        as_if = replace(now, rows=replace(now.rows, chosen=one.row), ladder=ladder_of(one.row))
        pieces = [shape.outline for shape in one.drawn("opened").shapes]
        left = left_over([*pieces, *one.problem.kept_off], one.lay.length, one.problem.width)
        broken = one.hand.broken
        if one.row.name and now.problem is not None and as_if.stale:
            stored = lays.in_hand(one.row)
            broken = recheck(stored.hand, now.problem, stored.base)
        out.append(Compared(one, as_if.bought, left, broken))
    return tuple(out)


def take_in(session: Session, cloth_use: models.ClothUse, data: Any) -> models.LayRecord:
    """Take in a lay from outside for the pieces there are. Raises :class:`Refused` and BadProblem."""
    now = standing(session, cloth_use)
    asked = _ready(now)
    lay = taken_in(data, asked)
    row = models.LayRecord(use_id=cloth_use.id, fold=lay.sections[0].fold, basis=now.tally.basis)
    row.fingerprint, row.lay = lay_problem.keep(session, asked), lay_json(lay)
    row.name, row.picked = own_name(session, cloth_use, "Taken in"), True
    session.add(row)
    session.flush()
    lays.choose_lay(session, row, picked=True)
    note(session, cloth_use, "lay", "lay-own", lay=row.name)
    return row
