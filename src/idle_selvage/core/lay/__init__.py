"""The lay engine: a lay problem in, a checked lay out. Formats in docs/lay-formats.md."""
