"""Seams over the API."""
