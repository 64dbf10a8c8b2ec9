"""A bell that rings whenever something was written: whoever waits for news hears it, and asks the data only then."""

from __future__ import annotations

import threading
import time
from collections import deque
from collections.abc import Callable

#: So many may wait at the same time; of more, the one that has waited longest goes away without news.
MOST_WAITING = 40
#: Where many wait, all of them ask again at every ring: each waiting one lets the news rest for so long, up to so long,
#: seconds, so that several rings are one. One page alone, or two, hear at once.
REST_EACH, LONGEST_REST, AT_ONCE = 0.1, 3.0, 2
#: How often one who waits looks whether anybody still wants to know, seconds.
LOOK_EVERY = 0.5


class Bell:
    """Safe to use from several threads. ``rung`` rises with every ring, also over a restart."""

    def __init__(self) -> None:
        self._heard = threading.Condition()
        self._closed = False
        self._waiting: deque[object] = deque()
        # from the clock, so that a page that outlived the server hears of the new one
        self.rung = int(time.time() * 1000)
        # by whom it was rung last, and how far it had been rung by anybody else
        self._by, self._by_others = "", self.rung

    def ring(self, by: str = "") -> None:
        """Something was written; ``by``: the page that asked for it, empty for anything else."""
        with self._heard:
            if by != self._by:
                self._by, self._by_others = by, self.rung
            self.rung = max(self.rung + 1, int(time.time() * 1000))
            self._heard.notify_all()

    def heard(self, besides: str = "") -> int:
        """How far it has rung, where it is no news what this page did itself."""
        return self._by_others if besides and besides == self._by else self.rung

    def wait(self, since: int, seconds: float, gone: Callable[[], bool] = lambda: False, *, besides: str = "") -> int:
        """Wait until it rang after ``since``, at most so long, and no longer than somebody is there (``gone``); how far
        it has rung. ``besides``: the page that waits, which need not hear of itself."""
        me = object()
        end = time.monotonic() + seconds
        with self._heard:
            self._waiting.append(me)
            if len(self._waiting) > MOST_WAITING:
                self._waiting.popleft()
                self._heard.notify_all()
            while not self._closed and self.heard(besides) == since and me in self._waiting and not gone():
                left = end - time.monotonic()
                if left <= 0:
                    break
                self._heard.wait(min(left, LOOK_EVERY))
            if len(self._waiting) > AT_ONCE and me in self._waiting and self.heard(besides) != since:
                rest = min(LONGEST_REST, REST_EACH * len(self._waiting))
                self._heard.wait_for(lambda: self._closed or me not in self._waiting, rest)
            if me in self._waiting:
                self._waiting.remove(me)
            return self.heard(besides)

    def close(self) -> None:
        """Whoever waits need not any more."""
        with self._heard:
            self._closed = True
            self._heard.notify_all()
