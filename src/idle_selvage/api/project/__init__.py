"""Garments as a whole over HTTP."""
