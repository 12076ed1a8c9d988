"""Generating cutting patterns of a board by the rules of the saw."""
