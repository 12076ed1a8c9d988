"""What jointer and planer do to a piece of wood, and which way it lies under them."""
