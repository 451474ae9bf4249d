"""Speed and safety figures, run by hand: ``make benchmark``."""
