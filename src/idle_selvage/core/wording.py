"""Names as a list, and sentences that hold quantities: written in the units of whoever reads them."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from .units import System
from .working import Quantity
from .written import quantity_text

Part = Quantity | str | int


class Sentence(str):
    """A sentence whose lengths are still quantities.

    As a text it is metric, so that it can be raised, compared and kept like any other; :func:`say` writes it in the
    other system. ``template`` has the places of the parts in braces, ``parts`` what stands there; a part may be a
    sentence itself.

    >>> Sentence("Work in lengths of at most {most}.", most=Quantity(2000.0, "about"))
    'Work in lengths of at most 2 m.'
    """

    template: str
    parts: dict[str, Part]

    def __new__(cls, template: str, **parts: Part) -> Sentence:
        made = super().__new__(cls, _filled(template, parts, "metric"))
        made.template, made.parts = template, parts
        return made

    def __reduce__(self) -> tuple[object, ...]:
        return _again, (self.template, self.parts)


def _again(template: str, parts: dict[str, Part]) -> Sentence:
    return Sentence(template, **parts)


def _filled(template: str, parts: dict[str, Part], system: System) -> str:
    return template.format(
        **{
            name: quantity_text(part, system) if isinstance(part, Quantity) else say(str_of(part), system)
            for name, part in parts.items()
        }
    )


def str_of(part: str | int) -> str:
    """A part that is no quantity, as it is; sentences stay sentences."""
    return part if isinstance(part, str) else str(part)


def say(text: str, system: System) -> str:
    """A text in the person's units: a :class:`Sentence` with its quantities written anew, any other as it is."""
    return _filled(text.template, text.parts, system) if isinstance(text, Sentence) else str(text)


def joined(texts: Sequence[str], between: str = " ") -> Sentence:
    """Texts one after another as one sentence; none of their quantities is lost."""
    names = [f"part{k}" for k in range(len(texts))]
    return Sentence(between.join(f"{{{name}}}" for name in names), **dict(zip(names, texts, strict=True)))


def capital(text: str) -> str:
    """The same with its first letter large."""
    return _begun(text, str.upper)


def small(text: str) -> str:
    """The same with its first letter small, to stand after a colon."""
    return _begun(text, str.lower)


def _begun(text: str, change: Callable[[str], str]) -> str:
    if not isinstance(text, Sentence):
        return change(text[:1]) + text[1:]
    if text.template.startswith("{"):
        name = text.template[1 : text.template.index("}")]
        first = text.parts[name]
        return (
            Sentence(text.template, **{**text.parts, name: _begun(first, change)}) if isinstance(first, str) else text
        )
    return Sentence(change(text.template[:1]) + text.template[1:], **text.parts)


def sentence_of(fault: Exception) -> str:
    """What an error says, with its quantities: ``str()`` of an error makes them metric for good."""
    first = fault.args[0] if fault.args else ""
    return first if isinstance(first, str) else str(fault)


def listed(names: Sequence[str]) -> str:
    """Names as a sentence has them: “a”, “a and b”, “a, b and c”."""
    return names[0] if len(names) == 1 else ", ".join(names[:-1]) + " and " + names[-1]
