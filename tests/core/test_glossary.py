"""The words of the trade."""

from __future__ import annotations

from idle_selvage.core.glossary import glossary


def test_every_word_is_explained_once_and_found_by_one_name() -> None:
    words = glossary()
    names = [name.lower() for one in words for name in (one.word, *one.also)]
    assert len(set(names)) == len(names)
    assert [w.word for w in words] == sorted(w.word for w in words)
    assert all(one.means.endswith(".") for one in words)
    assert {"nap", "warp", "rigid", "true bias", "sizing"} <= {one.word for one in words}
