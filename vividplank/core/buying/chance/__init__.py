"""How much wood a list takes, by laying it out on boards drawn from what a supplier has."""
