"""The log over HTTP."""
