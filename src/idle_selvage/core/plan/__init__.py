"""The piece on the paper: its outline, how it was told, its allowance and its arrow."""
