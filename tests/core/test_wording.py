"""Sentences whose lengths are still quantities, and names as a list."""

from __future__ import annotations

import pickle

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.wording import Sentence, capital, joined, listed, say, sentence_of, small
from idle_selvage.core.working import about, length, percent


def test_a_sentence_is_metric_by_itself_and_imperial_when_said_so() -> None:
    told = Sentence("{name} is {by} short.", name="The band", by=length(254.0))
    assert told == "The band is 25.4 cm short." and isinstance(told, str)
    assert say(told, "metric") == told and say(told, "imperial") == "The band is 10 in short."
    assert say("as it is", "imperial") == "as it is"


def test_what_a_person_wrote_is_never_taken_for_a_place() -> None:
    told = Sentence("{name}: {by}", name="{by} {0} {}", by=length(10.0))
    assert told == "{by} {0} {}: 1.0 cm" and say(told, "imperial").startswith("{by} {0} {}: ")


def test_sentences_inside_sentences_are_said_too() -> None:
    inner = Sentence("it is {by} wide", by=length(1016.0))
    outer = Sentence("Not laid: {why}.", why=inner)
    assert say(outer, "imperial") == "Not laid: it is 40 in wide."
    both = joined([outer, "No more.", inner])
    assert both == "Not laid: it is 101.6 cm wide. No more. it is 101.6 cm wide"
    assert "cm" not in say(both, "imperial") and joined([]) == ""


@pytest.mark.parametrize("system", ["metric", "imperial"])
def test_the_first_letter_changes_and_nothing_is_lost(system: str) -> None:
    told = Sentence("add {by} at the hem", by=length(50.8))
    assert capital(told) == "Add 5.1 cm at the hem" and small(capital(told)) == told
    assert say(capital(told), "imperial") == "Add 2 in at the hem"
    # a sentence that begins with another, or with a length, which has no letter to change
    assert say(capital(Sentence("{why}.", why=told)), "imperial") == "Add 2 in at the hem."
    assert capital(Sentence("{by} more", by=length(50.8))) == "5.1 cm more"
    assert capital("") == "" and small("Plan") == "plan"


def test_an_error_keeps_its_sentence() -> None:
    told = Sentence("Not under {least}.", least=about(25.4))
    fault = sentence_of(ValueError(told))
    assert say(fault, "imperial") == "Not under 1 in." and sentence_of(ValueError()) == ""
    assert sentence_of(KeyError(3)) == "3"


def test_a_sentence_goes_to_another_process_whole() -> None:
    told = Sentence("{a} of {b}", a=length(25.4), b=percent(3.0))
    again = pickle.loads(pickle.dumps(told))
    assert again == told and say(again, "imperial") == "1 in of 3.0 %"


@given(st.lists(st.text(min_size=1).filter(lambda t: "," not in t and " and " not in t), min_size=1, max_size=5))
def test_a_list_of_names_has_them_all(names: list[str]) -> None:
    told = listed(names)
    assert all(name in told for name in names)
    assert told.count(" and ") == (len(names) > 1) and told.count(", ") == max(0, len(names) - 2)
