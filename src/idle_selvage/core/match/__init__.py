"""Matching bars at the seams: what a lay comes to there, how sure that is, and what can be done."""
