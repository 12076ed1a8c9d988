"""Buy: suppliers of wood, how much with what chance, and boards on offer."""
