"""Names as a list, and halves of sentences."""

from __future__ import annotations

from collections.abc import Sequence


def listed(names: Sequence[str]) -> str:
    """Names as a sentence has them: “a”, “a and b”, “a, b and c”."""
    return names[0] if len(names) == 1 else ", ".join(names[:-1]) + " and " + names[-1]
