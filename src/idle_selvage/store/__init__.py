"""What is kept: one SQLite file. Lengths are float millimetres, times are UTC.

Rows are never removed by a person's deleting: ``deleted_at`` is set, so that it can be undone.
"""
