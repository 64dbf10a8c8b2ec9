"""The first true edge: the ways to make one across the cloth, when each will do, and what each costs at an end."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..cloth.bars import BarPattern
from ..cloth.make import NO_GRAIN, PILE, Make
from ..wording import Sentence
from ..working import Figure, Source, Step, about, given, length, numbered, of

EdgeWay = Literal["tear", "thread", "bar", "shears", "square"]


@dataclass(frozen=True)
class EdgeMethod:
    """One way to make the edge: ``loss`` is what it takes off one end, mm; ``steps`` are done in order."""

    key: EdgeWay
    name: str
    loss: float
    steps: tuple[str, ...]
    caution: str = ""


#: Losses within the usual 5 cm (2 in) an end; common practice, from memory where they are less.
METHODS: dict[EdgeWay, EdgeMethod] = {
    "tear": EdgeMethod(
        "tear",
        "snip past the selvage and tear",
        50.0,
        (
            Sentence(
                "Snip through the selvage and {more} further, so that the tear begins in the cloth.", more=about(20.0)
            ),
            "Tear across in one go, up to the other selvage, and snip through that.",
            "Press the torn, rippled edge flat from the back.",
        ),
        "Loose fibre flies: tear away from your face, and wear a mask if dust troubles you.",
    ),
    "thread": EdgeMethod(
        "thread",
        "draw a thread and cut along the gap",
        30.0,
        (
            "Snip the selvage, pick up one thread across and draw it gently: the cloth gathers, a gap opens.",
            "Cut along the gap as far as the thread came.",
            Sentence(
                "Where it breaks, every {least} to {most}, pick the same thread up again from the gap and carry on.",
                least=about(150.0),
                most=about(300.0),
            ),
        ),
    ),
    "bar": EdgeMethod(
        "bar",
        "follow a woven bar",
        20.0,
        (
            "Choose one bar across the cloth near the end: it is a thread, not a print.",
            "Cut along its edge from selvage to selvage.",
        ),
    ),
    "shears": EdgeMethod(
        "shears",
        "run sharp shears along a thread",
        30.0,
        (
            "Find a thread by eye from the last cut end.",
            "Run half-closed sharp shears along it without snapping them shut.",
        ),
    ),
    "square": EdgeMethod(
        "square",
        "square off the selvage",
        50.0,
        (
            "Lay one arm of an L-square along the selvage, the other across the cloth.",
            "Draw the line on with a long rule to the other selvage and cut it.",
            "The threads may still slant: nothing was proved about the weft.",
        ),
    ),
}


@dataclass(frozen=True)
class EdgeFacts:
    """What decides the way: weave, finish and colouring as on the cloth, and how it feels."""

    weave: str = "plain"
    finish: str = ""
    colouring: str = ""
    bars_across: bool = False
    sheer: bool = False
    slips: bool = False
    linen: bool = False


@dataclass(frozen=True)
class EdgeAdvice:
    """The way advised and why, and for each other way why not (or when it would do)."""

    way: EdgeWay
    why: str
    others: tuple[tuple[EdgeWay, str], ...]


def advise_edge(facts: EdgeFacts) -> EdgeAdvice:
    """The first way that the cloth allows, in the order that proves most for least trouble."""
    reasons = _against(facts)
    if "bar" not in reasons:
        way: EdgeWay = "bar"
        why = "the bars are threads, so a bar is a true edge already"
    elif "tear" not in reasons:
        way, why = "tear", "a firm plain weave tears along one thread and proves the edge"
    elif "thread" not in reasons:
        way, why = "thread", "a drawn thread from selvage to selvage proves the edge without force"
    else:
        way, why = "square", "no thread will draw, and then it does not matter much"
    when = {
        "tear": "would do too",
        "thread": "would do too, with more patience",
        "bar": "would do too",
        "shears": "only to divide a long piece: it proves nothing from selvage to selvage",
        "square": "proves nothing about the threads: only when no thread will draw",
    }
    others = tuple((key, reasons.get(key, when[key])) for key in METHODS if key != way)
    return EdgeAdvice(way, why, others)


def sparing_edge(facts: EdgeFacts) -> EdgeMethod:
    """The way that takes least off an end, of those that prove the edge of this cloth."""
    against = _against(facts)
    proving: tuple[EdgeWay, ...] = ("bar", "thread", "tear")
    allowed = [METHODS[way] for way in proving if way not in against]
    return min(allowed, key=lambda method: method.loss) if allowed else METHODS["square"]


def _against(facts: EdgeFacts) -> dict[EdgeWay, str]:
    """What speaks against a way on this cloth."""
    reasons: dict[EdgeWay, str] = {}
    no_thread = facts.weave in ("lace", "sequin", "fur", *NO_GRAIN)
    woven_bar = facts.bars_across and facts.colouring == "yarn-dyed"
    if facts.bars_across and facts.colouring == "printed":
        reasons["bar"] = "the bars are printed, and need not follow the threads"
    elif not woven_bar:
        reasons["bar"] = "there is no bar woven across the cloth"
    if facts.weave in PILE:
        reasons["tear"] = "tearing pulls the pile out along the edge"
    elif facts.weave in NO_GRAIN:
        reasons["tear"] = "it has no threads to tear along"
    elif facts.weave in ("satin", "lace", "sequin", "gauze", "crepe"):
        reasons["tear"] = "this weave tears out of shape"
    elif facts.linen:
        reasons["tear"] = "linen and its like are distorted by tearing"
    elif facts.sheer or facts.slips:
        reasons["tear"] = "delicate cloth ladders when it is torn"
    elif facts.weave in ("denim", "flannel", "twill"):
        reasons["tear"] = "only firm plain weaves tear along a thread"
    if no_thread:
        reasons["thread"] = "no thread of this cloth can be drawn from selvage to selvage"
        reasons["shears"] = "there is no thread to run along"
    return reasons


LEVEL = Source("common practice", "readings from a line square to the selvage to the present cut edge")


def edge_cost(readings: Sequence[float], way: EdgeWay) -> Figure:
    """What the end loses: the unevenness of its present cut edge, and what the way of making it takes, mm.

    ``readings`` are distances from a line square to the selvage to the cut edge, at several places across. A true edge
    begins where the last of the cut edge is gone. Without readings the way's usual loss stands for both.
    """
    method = METHODS[way]
    if not readings:
        step = given("this end", length(method.loss), "as is usual for the way it is made")
        return Figure(method.loss, "length", steps=(step,), sources=(LEVEL,), note="not measured yet")
    uneven = max(readings) - min(readings)
    total = uneven + CLEAN_MM[way]
    put = numbered("reading", map(length, readings))
    steps = (
        Step("unevenness", f"{of('largest', put)} − {of('smallest', put)}", put, length(uneven)),
        Step(
            "this end",
            "unevenness + the way",
            (("unevenness", length(uneven)), ("the way", length(CLEAN_MM[way]))),
            length(total),
            method.name,
        ),
    )
    return Figure(total, "length", steps=steps, sources=(LEVEL, CLEAN))


def other_end_cost(way: EdgeWay) -> Figure:
    """What the end that was not measured loses: what is usual for the way it is made, mm."""
    method = METHODS[way]
    step = given("the other end", length(method.loss), f"as is usual to {method.name}")
    return Figure(method.loss, "length", steps=(step,), sources=(CLEAN,))


def both_ends(readings: Sequence[float], way: EdgeWay, cut_off: float) -> Figure:
    """What both ends lose, mm: this one, what is cut off further in, and the other."""
    this, other = edge_cost(readings, way), other_end_cost(way)
    put = (
        ("this end", length(this.value)),
        ("cut off further in", length(cut_off)),
        ("the other end", length(other.value)),
    )
    total = this.value + cut_off + other.value
    step = Step("both ends", "this end + cut off further in + the other end", put, length(total))
    return Figure(total, "length", steps=(*this.steps, *other.steps, step), sources=(*this.sources, *other.sources))


CLEAN = Source("from memory", "what each way of making an edge takes", "within the usual 5 cm (2 in) an end")
#: What each way takes beyond the unevenness, mm: a torn edge ripples, a drawn thread does not. From memory.
CLEAN_MM: dict[EdgeWay, float] = {"tear": 20.0, "thread": 10.0, "bar": 5.0, "shears": 10.0, "square": 5.0}


def edge_facts(make: Make, along: BarPattern, answers: Mapping[str, str]) -> EdgeFacts:
    """What decides the way, from what is known of the cloth: its make, the bars along it, what was judged by hand."""
    return EdgeFacts(
        make.weave,
        make.finish,
        make.colouring,
        bars_across=along.repeat is not None,
        sheer=answers.get("sheer") in ("shadow", "yes"),
        slips=answers.get("hand") == "slips",
        linen=any(fibre == "linen" for fibre, _ in make.blend),
    )


@dataclass(frozen=True)
class Ends:
    """What both ends lose, mm: ``tested`` the one that was measured (None: not yet), and ``both`` together."""

    both: float
    tested: float | None = None

    @property
    def trim(self) -> float:
        """What lies before the lay at the tested end: as measured, or half of what is planned for both."""
        return self.both / 2 if self.tested is None else self.tested


def settled_ends(readings: Sequence[float], way: EdgeWay, cut_off: float) -> Ends:
    """What both ends lose once the edge was read: this end's unevenness and what is cut off further in, and the usual
    loss of the way at the other."""
    tested = edge_cost(readings, way).value + cut_off
    return Ends(both_ends(readings, way, cut_off).value, tested)
