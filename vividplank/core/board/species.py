"""When two names mean one wood."""


def same_species(one: str, other: str) -> bool:
    """Names agree when they differ only in case and spacing."""
    return one.split() == other.split() or one.casefold().split() == other.casefold().split()
