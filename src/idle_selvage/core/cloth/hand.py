"""What is judged by hand: drape, see-through, and what the answers change later."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True)
class Question:
    """A short question, how to find out, and its answers (key, words)."""

    key: str
    asks: str
    how: str
    answers: tuple[tuple[str, str], ...]


#: Common practice, no source.
QUESTIONS: tuple[Question, ...] = (
    Question(
        "drape",
        "How does it fall?",
        "Let a corner hang over your hand. Does it stand away, fall in soft folds, or cling and pour?",
        (("stiff", "stands away"), ("soft", "soft folds"), ("fluid", "clings and pours")),
    ),
    Question(
        "sheer",
        "Can you see through it?",
        "Hold one layer against the window with your hand behind it.",
        (("no", "no shadow"), ("shadow", "a shadow of the hand"), ("yes", "every finger")),
    ),
    Question(
        "hand",
        "Does it slip?",
        "Lay two layers face to face and push the upper one with a finger.",
        (("stays", "stays put"), ("slips", "slides at once")),
    ),
)
_ADVICE: dict[tuple[str, str], str] = {
    ("drape", "stiff"): "Stiff: it will not gather well; choose pleats, darts or a plain shape.",
    ("drape", "soft"): "Soft: gathers and flares both work.",
    ("drape", "fluid"): "Fluid: gathers may be twice the edge or more; let a hem hang a day before levelling it.",
    ("sheer", "shadow"): "It shows a shadow: line it, or wear a slip; keep seam allowances narrow and even.",
    ("sheer", "yes"): "See-through: line it or leave it sheer on purpose, with enclosed seams; mark with thread only.",
    ("hand", "slips"): "Slippery: lay it in a single layer on a sheet or paper, with many fine pins.",
}


def advice(answers: Mapping[str, str]) -> tuple[str, ...]:
    """What the answers mean later, in the order of the questions."""
    return tuple(
        _ADVICE[q.key, answers[q.key]] for q in QUESTIONS if q.key in answers and (q.key, answers[q.key]) in _ADVICE
    )


def needs_lining(answers: Mapping[str, str]) -> bool:
    """Whether a lining belongs on the list."""
    return answers.get("sheer") in ("shadow", "yes")


def check(answers: Mapping[str, str]) -> str:
    """What is wrong with a set of answers, as a sentence, or nothing."""
    known = {q.key: {key for key, _ in q.answers} for q in QUESTIONS}
    for key, value in answers.items():
        if key not in known:
            return f"There is no question “{key[:30]}” here."
        if value and value not in known[key]:
            return f"“{value[:30]}” is no answer to that question; choose one of {', '.join(sorted(known[key]))}."
    return ""
