"""The cloth: what it is made of, how wide it is, its bars, its direction, its dye and how it feels."""
