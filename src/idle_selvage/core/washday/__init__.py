"""The washing day: what goes into one load, and when each step is done."""
