"""Pleat works out hand-bound books: page counts, sewing, covers, cutting and the steps at the bench."""
