"""Match: seams, and the bars at them."""
