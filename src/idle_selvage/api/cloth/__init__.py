"""Cloth and the cupboard over HTTP."""
