"""Long work in its own process: progress, cancel, and going on after a restart."""
