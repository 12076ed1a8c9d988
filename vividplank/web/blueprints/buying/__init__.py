"""Buy: sources of wood, how much with what chance, and boards on offer."""
