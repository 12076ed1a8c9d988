"""What to buy, before any board is seen: board feet, sheets, stock lengths."""

from vividplank.core.buying.ask import Ask, asks
from vividplank.core.buying.lengths import LengthNeed, SheetNeed, length_needs, sheet_needs

__all__ = ["Ask", "LengthNeed", "SheetNeed", "asks", "length_needs", "sheet_needs"]
