"""Idle Selvage: a workbench for washing, trueing, laying and cutting woven cloth at home."""

__version__ = "0.1.0"
