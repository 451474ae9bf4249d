"""Pleat 3: how sheets fold into the section."""
