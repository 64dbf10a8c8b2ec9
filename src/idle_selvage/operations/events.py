"""What the log can hold: each kind of event, and the sentence that is made of its values when the log is read."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from ..core.cut.tally import FAULTS
from ..core.wording import Sentence, joined

Values = Mapping[str, Any]

#: What an entry is called where it says that it was changed.
ENTRIES: dict[str, str] = {
    "name": "name", "note": "note", "wash": "washing", "dry": "drying",
    "school": "the treatment",
    "gap": "room between pieces", "sides": "which side of folded cloth looks out",
    "folds": "folds to try", "turn_on_bars": "turning on the bars",
    "lay_seconds": "time to search",
    "ends": "ends to straighten", "spare": "spare", "shop_step": "the shop's step",
    "bought_extra": "what is bought on purpose", "extra_why": "why it is bought",
    "edge": "the readings of the cut edge", "edge_way": "how the first edge is made", "cut_off": "what is cut off",
    "fold": "the readings of the fold", "ripple": "how the fold ripples",
    "check": "the distances of a pinned piece", "bars": "the readings of the bars", "bands": "the bands",
    "straightening": "the school of straightening", "accepted": "whether a happy medium is taken",
    "now": "the reading at hand",
    "blend": "fibres", "weave": "weave", "finish": "finish", "colouring": "colouring",
    "width_readings": "width readings", "margin_low": "near selvage", "margin_high": "far selvage",
    "in_hand": "length in hand", "mass": "weight", "price": "price", "price_unit": "price", "direction": "direction",
    "pile": "the way the pile runs", "pile_why": "the way the pile runs", "wales": "wales", "face": "face",
    "face_mark": "how the face is marked", "reversible": "whether both sides may show", "depth": "colour depth",
    "rub_grade": "rub test", "ground": "colour",
    "repeats_along": "the repeat at several places", "repeats_across": "the repeat at several places",
    "bars_along": "bars", "bars_across": "bars", "flaws": "flaws",
    "shop_fold": "the faded shop fold", "border": "the border",
    "border_kind": "what the border is", "border_deep": "how deep the border is",
    "answers": "judgements by hand", "style_number": "style number",
    "place": "where it is kept", "treated": "that it was treated before",
    "size": "the size that is cut", "size_at": "the sizes at heights",
    "value": "a reading", "corners": "corners", "smooth": "the curve", "points": "the outline",
    "role": "what the cloth is for", "runs": "the edges the trim goes on",
}  # fmt: skip


def _changed(values: Values) -> str:
    return "Changed " + ", ".join(dict.fromkeys(ENTRIES.get(key, key) for key in values["entries"])) + "."


def _noted(values: Values) -> str:
    names = ", ".join(dict.fromkeys(ENTRIES.get(key, key) for key in values["entries"]))
    return f"Noted {names} of {values['name']}." if values["name"] else f"Noted {names}."


def _washed(values: Values) -> str:
    grade = f"; rag grade {values['grade']}" if values.get("grade") else ""
    return f"Washed {values['name'] or 'the cloth'}: {values['how']}{grade}."


def _swatch(values: Values) -> str:
    return Sentence("Swatch readings: {said}.", said=joined(values["said"], "; "))


def _pieces_read(values: Values) -> Sentence:
    told = "Read {count} piece from “{file}”." if values["count"] == 1 else "Read {count} pieces from “{file}”."
    return Sentence(told, count=values["count"], file=values["file"])


def _lost(values: Values) -> str:
    why = f", {values['why']}" if values.get("why") else ""
    return f"Went wrong: {values['what']} is {FAULTS[values['how']]}{why}."


def _tried(values: Values) -> str:
    count = values["count"]
    return f"Began trying {'1 lay' if count == 1 else f'{count} lays'} on the side."


#: What was done to a lay by hand → the sentence.
BY_HAND = {
    "moved": "Moved {what} on the lay “{lay}”.",
    "turned": "Turned {what} on the lay “{lay}”.",
    "turned over": "Turned {what} over on the lay “{lay}”.",
    "put aside": "Put {what} aside from the lay “{lay}”.",
    "taken": "Took {what} onto the lay “{lay}”.",
    "locked": "Locked {what} on the lay “{lay}”.",
    "unlocked": "Unlocked {what} on the lay “{lay}”.",
    "one layer": "Cut {what} from one layer on the lay “{lay}”.",
    "two layers": "Cut {what} from two layers on the lay “{lay}”.",
    "stretch": "Began another stretch on the lay “{lay}”.",
    "no stretch": "Took an empty stretch off the lay “{lay}”.",
    "grain": "Gave {what} another grain on the lay “{lay}”: {why}.",
    "accepted": "Accepted on the lay “{lay}”: {what}",
    "no longer accepted": "No longer accepted on the lay “{lay}”: {what}",
    "closed up": "Closed up the lay “{lay}”.",
    "pushed together": "Pushed the lay “{lay}” together.",
}


def _by_hand(values: Values) -> str:
    made = BY_HAND[values["did"]]
    return Sentence(made, **{name: values[name] for name in ("what", "lay", "why") if "{" + name + "}" in made})


#: Kind → the sentence: a template filled with the event's values, or what makes it of them.
EVENTS: dict[str, str | Callable[[Values], str]] = {
    # a line of the time before events: its sentence was kept
    "told": "{what}",
    # garment and plan
    "garment-begun": "Began “{name}”.",
    "garment-away": "Put “{name}” away.",
    "garment-back": "Brought “{name}” back.",
    "changed": _changed,
    "taken-back": "Taken back: {said}",
    "done-again": "Done again: {said}",
    # of a garment as a whole
    "whole-taken-back": "Taken back: {said}",
    "whole-done-again": "Done again: {said}",
    "set-aside": "Set aside, since {why}: {told}",
    "look-again": "To be looked at again: {told}",
    "piece-added": "Added the piece “{name}”, {copies} to cut.",
    "pieces-read": _pieces_read,
    "piece-changed": "Changed the piece “{name}”.",
    "piece-out": "Took out the piece “{name}”.",
    "piece-back": "Brought back the piece “{name}”.",
    "cut-changed": "“{name}” is cut from {cloth}: {how}.",
    "cut-out": "“{name}” is no longer cut from {cloth}.",
    "seam-added": "Made the seam “{name}”.",
    "seam-changed": "Changed the seam “{name}”.",
    "seam-out": "Took out the seam “{name}”.",
    "seams-ordered": "Changed which seams come first.",
    "bar-wished": "Said which bar falls where on “{name}”.",
    "bar-free": "Left it free which bar falls where on “{name}”.",
    # cloth
    "cloth-noted": _noted,
    "came-out": "Measured how it came out: {what}, {name}.",
    "came-out-struck": "Struck out how it came out: {what}, {name}.",
    "note": "{text}",
    "archive-in": "Took “{name}” in from an archive.",
    "cloth-added": "Put {name} into the cupboard.",
    "cloth-out": "Took {name} out of the cupboard.",
    "cloth-back": "Brought {name} back.",
    "cloth-taken": "Took {name} from the cupboard.",
    "use-added": "Put {name} beside the main cloth, as {role}.",
    "use-out": "Took {name} from the set.",
    "use-back": "Brought {name} back into the set.",
    "photo-kept": "Kept a photo of {name}.",
    "photo-out": "Took the photo of {name} away.",
    "photo-back": "Brought the photo of {name} back.",
    # shrink and the washing day
    "washed": _washed,
    "wash-out": "Struck out a wash of {name}: {how}.",
    "wash-back": "Brought back a wash of {name}: {how}.",
    "treated": "Pre-treated {name}: {how}.",
    "treated-back": "Took back that {name} was pre-treated.",
    "swatch-read": _swatch,
    "swatch-begun": "Began another swatch.",
    "swatch-used": "Went by another swatch.",
    "swatch-made-up": "Washed the swatch in the stand-in washer (made-up readings).",
    "day-planned": "Planned {count} loads.",
    # buy
    "offer-added": "Put the offer “{name}” beside the others.",
    "offer-changed": "Changed the offer “{name}”.",
    "offer-out": "Took out the offer “{name}”.",
    "offer-back": "Brought back the offer “{name}”.",
    "envelope-changed": "Changed the envelope's chart.",
    "strips-changed": "Changed the strips.",
    "shared": "Chose what shares this purchase.",
    "item-added": "Put “{name}” on the list.",
    "item-out": "Took “{name}” off the list.",
    "trials-begun": _tried,
    # true
    "fold-tested": "Fold test: {apart}, {side}.",
    "test-out": "Struck out a fold test.",
    "test-back": "Brought back a fold test.",
    # lay
    "laying-begun": "Began laying {copies} pieces.",
    "laid": "Laid {pieces} pieces {how}; {ended}.",
    "laying-failed": "Laying failed: {why}",
    "lay-kept": "Looked at the lay again: it stays as it is, and the purchase follows.",
    "lay-chosen": "Chose the lay in {fold}.",
    "lay-own": "Began a lay of one’s own, “{lay}”.",
    "lay-renamed": "Called the lay “{lay}” “{name}”.",
    "lay-away": "Put the lay “{lay}” away.",
    "by-hand": _by_hand,
    # cut
    "before-ticked": "Ticked before cutting: {what}.",
    "before-unticked": "Took a tick away before cutting: {what}.",
    "before-accepted": "Accepted before cutting, since {why}: {what}.",
    "before-unaccepted": "No longer accepted before cutting: {what}.",
    "cutting-begun": "Began cutting {copies} pieces.",
    "piece-cut": "Cut {what}.",
    "piece-not-cut": "It was marked by mistake: {what} is not cut.",
    "piece-lost": _lost,
    "piece-found": "It is good after all: {what}.",
    "round-left": "Gave up the rest of a lay for another one.",
    "order-own": "Cuts in an order of one’s own.",
    "order-computed": "Cuts in the computed order again.",
    "cut-again": "Found a place for what is missing: {way}.",
    "remnant-kept": "Put a remnant of {name} into the cupboard: {size}.",
    "device-paired": "Paired the device “{name}”.",
    "device-revoked": "Took the pairing of “{name}” back.",
    "closing-begun": "Searched on from the lay “{lay}”.",
    "closing-late": "What was found from the lay “{lay}” was left: it was changed meanwhile.",
}


def sentence_for(kind: str, values: Values) -> str:
    """The sentence of an event; its lengths are still quantities."""
    made = EVENTS[kind]
    if not isinstance(made, str):
        return made(values)
    return Sentence(made, **{name: part for name, part in values.items() if "{" + name + "}" in made})
