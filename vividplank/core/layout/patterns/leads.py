"""What the kernels of proposing are given, as named tuples of arrays."""

from typing import Any, NamedTuple


class Leads(NamedTuple):
    """The leads of a board, an array of each; and of the saw, in steps."""

    blank: Any  # length that one takes
    wide: Any  # width of its strip with the kerf
    profits: Any  # what one is worth
    need: Any  # thickness it needs, in ticks
    owner: Any  # the item type it belongs to
    unit: Any  # how many units of that it uses
    kerf: int
    shared: int  # what parts of one strip share of the allowance in length


class Companions(NamedTuple):
    """What fills the rest of a strip best, as `companions` says."""

    column: Any
    which: Any
    row: Any


class Breadth(NamedTuple):
    """How many lengths are weighed with all their strips; of the first so many it is asked what
    goes together with them, among so many others; and what share of what lengths could hold beyond
    is hoped for.
    """

    weighed: int
    first: int
    others: int
    hope: float
