"""Everything folded and glued from sheets: pieces with panels, how they are folded and laid on each other,
what lies where. It knows no trade."""
