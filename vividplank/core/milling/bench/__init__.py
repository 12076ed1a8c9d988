"""At the machine: what a reading means, where each piece is, passes to look at."""
