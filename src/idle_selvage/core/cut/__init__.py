"""Cutting: what must hold before it begins, in which order, what is told at each step, and what is left."""
