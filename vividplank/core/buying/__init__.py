"""What the list asks of the yard."""

from vividplank.core.buying.need import Need, needs

__all__ = ["Need", "needs"]
