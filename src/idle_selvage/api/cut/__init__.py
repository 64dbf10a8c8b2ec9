"""Cut: the list before it, the table, what went wrong, what is left, and what is printed."""
