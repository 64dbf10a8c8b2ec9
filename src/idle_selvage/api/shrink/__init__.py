"""Shrink over HTTP."""
