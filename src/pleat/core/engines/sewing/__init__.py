"""Sewing as data: a bed of sections, threads made of moves, and what a pattern promises. Everything else is
computed from these."""
