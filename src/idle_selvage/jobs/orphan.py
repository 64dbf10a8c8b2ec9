"""No process is left behind: whoever calls this ends soon after its parent did, however that ended."""

from __future__ import annotations

import contextlib
import ctypes
import os
import signal
import sys
import threading
import time

#: What a process asks of Linux: to be sent a signal when its parent ends.
PR_SET_PDEATHSIG = 1
#: Between two looks for the parent, seconds.
LOOK_EVERY = 0.25


def leave_with_parent(parent: int) -> None:
    """End this process as soon as the process of that number is no longer its parent, which may be so already.

    Nothing is tidied up: what must be kept was written already. Where the system can, it ends us itself, also in the
    midst of compiled code that lets no other thread run; it does so when the *thread* that began us ends, which must
    therefore live as long as the parent.
    """
    if sys.platform == "linux":
        # a system without it has the look for the parent
        with contextlib.suppress(OSError, AttributeError):
            ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
    look_for_parent(parent)


def look_for_parent(parent: int) -> None:
    """The same by looking alone, whichever thread began us."""
    threading.Thread(target=_watch, args=(parent,), name="orphan", daemon=True).start()


def _watch(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(LOOK_EVERY)
    os._exit(0)
