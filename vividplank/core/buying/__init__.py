"""What the list asks of the yard."""

from vividplank.core.buying.lengths import LengthNeed, SheetNeed, length_needs, sheet_needs
from vividplank.core.buying.need import Need, needs

__all__ = ["LengthNeed", "Need", "SheetNeed", "length_needs", "needs", "sheet_needs"]
