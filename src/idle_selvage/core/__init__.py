"""Rules and computation of the trade. No interface, no database, no files, no clock.

Axes everywhere: x runs along the cloth (warp, along the selvage), y across it (weft).
Lengths are floats in millimetres; shrinkage is positive when the cloth gets smaller.
"""
