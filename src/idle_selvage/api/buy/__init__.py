"""Buy over HTTP."""
