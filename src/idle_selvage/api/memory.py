"""How the server's memory is looked through for what can be given back."""

from __future__ import annotations

import gc

#: So many new objects before the young are looked through, so many of those before the older, and before all. An
#: answer makes some ten thousand that are all gone at its end; with the usual 700 it would be looked through ten times.
LOOKED_THROUGH = (20_000, 10, 50)


def settle() -> None:
    """What is there once the server has started stays for good, and is not looked through again and again."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(*LOOKED_THROUGH)
