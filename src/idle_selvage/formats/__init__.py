"""Open formats, one module each, reading and writing it."""
