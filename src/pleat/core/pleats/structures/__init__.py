"""What folded structures have in common, whichever pleat they are decided on: what is dressed, how it is
made, drawn, cut and checked."""
