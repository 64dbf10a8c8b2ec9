"""The lay engine: folds and matching, search, exact geometry, bounds."""
