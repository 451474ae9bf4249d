"""Pleat 4: pockets, flaps and other additions; empty for now, with its place in the flow kept."""
