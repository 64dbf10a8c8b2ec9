"""One garment as a whole: its tally, how far each stage is, what to look at, and what comes next."""
