"""Holes and what goes through them: rings, wire, posts, bands; where holes lie and how they are punched.
Knows no book."""
