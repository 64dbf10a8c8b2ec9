"""The room match of the core."""
