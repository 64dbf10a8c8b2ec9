"""No process is left behind: whoever calls this ends soon after its parent did, however that ended."""

from __future__ import annotations

import os
import threading
import time

#: Between two looks for the parent, seconds.
LOOK_EVERY = 0.25


def leave_with_parent(parent: int) -> None:
    """End this process as soon as the process of that number is no longer its parent, which may be so already.

    Nothing is tidied up: what must be kept was written already.
    """
    threading.Thread(target=_watch, args=(parent,), name="orphan", daemon=True).start()


def _watch(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(LOOK_EVERY)
    os._exit(0)
