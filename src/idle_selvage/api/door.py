"""The door for other devices: whether it is open, its code, and how quickly a code may be tried again."""

from __future__ import annotations

import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from ipaddress import ip_address

#: Letters and figures that are not taken for one another.
LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"
#: A code is so long: 32⁸ codes are a million million.
CODE_LETTERS = 8
#: So many wrong codes are taken at once; then the door is shut for a while that doubles with each further one, seconds.
FREE_TRIES, FIRST_WAIT, LONGEST_WAIT = 5, 2.0, 900.0


def new_code() -> str:
    """A code to be typed on the device."""
    return "".join(secrets.choice(LETTERS) for _ in range(CODE_LETTERS))


@dataclass
class Door:
    """Open only with ``--lan``; ``addresses``: by which other devices reach this machine, with the port."""

    open: bool = False
    addresses: tuple[str, ...] = ()
    clock: Callable[[], float] = time.monotonic
    code: str = field(default_factory=new_code)
    wrong: int = 0
    shut_until: float = 0.0
    #: when each device was last seen, by its number
    seen: dict[int, datetime] = field(default_factory=dict)
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def wait(self) -> float:
        """For how long no code is looked at, seconds; 0: one may be tried."""
        return max(0.0, self.shut_until - self.clock())

    def tries(self, code: str) -> bool:
        """Whether a code is right; while the door is shut none is. A right one is used up."""
        with self._lock:
            if self.wait() > 0:
                return False
            if self.open and secrets.compare_digest(plain(code).encode(), self.code.encode()):
                self.code, self.wrong = new_code(), 0
                return True
            self.wrong += 1
            if self.wrong >= FREE_TRIES:
                # another code: what was tried so far says nothing of it
                self.code = new_code()
                self.shut_until = self.clock() + min(LONGEST_WAIT, FIRST_WAIT * 2.0 ** min(20, self.wrong - FREE_TRIES))
            return False

    def saw(self, device: int) -> None:
        """A device asked for something just now."""
        self.seen[device] = datetime.now(UTC)


def plain(code: str) -> str:
    """A code as it is compared: what is typed between its halves does not count, nor do small letters."""
    return "".join(letter for letter in code.upper() if letter in LETTERS)


def is_here(address: str | None) -> bool:
    """Whether a request comes from this machine itself."""
    try:
        return address is not None and ip_address(address).is_loopback
    except ValueError:
        return False


def shown(code: str) -> str:
    """A code as it is read: in two halves."""
    return f"{code[: CODE_LETTERS // 2]}-{code[CODE_LETTERS // 2 :]}"
