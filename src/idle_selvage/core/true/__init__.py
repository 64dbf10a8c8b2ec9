"""Is it on grain: the first edge, the fold test, what to do about a slant, and what it does to a piece."""
