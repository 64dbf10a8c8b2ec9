"""Plan over HTTP."""
