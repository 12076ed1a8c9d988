"""When two names mean one wood."""

from functools import lru_cache


@lru_cache(1024)  # every part is asked against every board
def same_species(one: str, other: str) -> bool:
    """Names agree when they differ only in case and spacing."""
    return one.split() == other.split() or one.casefold().split() == other.casefold().split()
