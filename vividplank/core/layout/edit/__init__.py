"""Moves by hand on a plan."""
