"""How long a search may take, and what it tells while it does."""

from collections.abc import Callable
from dataclasses import dataclass
from decimal import Decimal


@dataclass(frozen=True)
class Limits:
    """How long to search, and in how many processes at once. `rounds` makes a search that does not
    depend on the clock (and has no help). Without `prove` nothing is spent on a lower bound.
    A `quick` search is for few rounds: boards are looked at before one of them is filled with care,
    and are not asked what else they might give, which would hardly ever be put together.
    """

    seconds: float = 10.0
    rounds: int | None = None
    seed: int = 1
    workers: int = 1
    prove: bool = True
    quick: bool = False

    def __post_init__(self) -> None:
        if self.seconds <= 0:
            raise ValueError(f"seconds is {self.seconds}; expected more than nothing")
        if self.workers < 1:
            raise ValueError(f"workers is {self.workers}; expected one or more")
        if self.rounds is not None and self.rounds < 0:
            raise ValueError(f"rounds is {self.rounds}; expected none or more")


@dataclass(frozen=True)
class Progress:
    """What a search has so far; `unplaced` counts parts (a panel is one), `trying` says what it is
    at, in the shop's words.
    """

    seconds: float
    rounds: int
    unplaced: int
    cost: Decimal
    lower_bound: float
    trying: str = ""


#: Tells seconds from any beginning.
Clock = Callable[[], float]
#: Told of every improvement and about every tenth of a second; answers whether to go on.
Watch = Callable[[Progress], bool]
