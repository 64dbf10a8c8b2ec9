"""What asking the store can come to besides an answer."""

from __future__ import annotations


class NotFound(LookupError):
    """Something asked for by number is not there; the message is a sentence."""
