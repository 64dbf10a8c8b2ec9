"""Compiled: a small random generator, the same on every machine for the same seed."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray


def generator(seed: int) -> NDArray[np.uint64]:
    """The state for a seed; never zero, which a xorshift generator cannot leave."""
    return np.array([(0x9E3779B97F4A7C15 * (seed + 1)) % 2**64 | 1], dtype=np.uint64)


@njit(cache=True)
def draw(state):
    """The next number of a xorshift generator."""
    x = state[0]
    x ^= x << np.uint64(13)
    x ^= x >> np.uint64(7)
    x ^= x << np.uint64(17)
    state[0] = x
    return x


@njit(cache=True)
def below(state, n):
    """A number from 0 to n − 1."""
    return np.int64((draw(state) >> np.uint64(11)) % np.uint64(n))


@njit(cache=True)
def unit(state):
    """A number from 0 up to, and without, 1."""
    return np.float64(draw(state) >> np.uint64(11)) / 9007199254740992.0
