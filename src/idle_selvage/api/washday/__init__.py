"""The washing day over HTTP."""
