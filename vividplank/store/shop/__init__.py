"""What a shop sees of all its projects together."""
