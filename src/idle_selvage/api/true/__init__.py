"""True over HTTP."""
