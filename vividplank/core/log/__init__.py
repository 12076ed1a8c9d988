"""What happened to the wood, the state it makes of every piece, and the rest planned anew."""
