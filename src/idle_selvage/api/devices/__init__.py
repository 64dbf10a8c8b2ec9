"""Devices over HTTP."""
