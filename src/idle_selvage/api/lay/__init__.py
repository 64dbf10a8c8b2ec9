"""Lay over HTTP."""
