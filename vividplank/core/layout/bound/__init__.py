"""A lower bound on the cost of any plan, from a relaxation of each board."""
