"""Cutting: the list before it, the rounds at the table, the way out when something goes wrong, and what is left."""
