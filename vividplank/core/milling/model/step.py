"""One step at one machine."""

from dataclasses import dataclass
from itertools import accumulate
from typing import Literal

Machine = Literal[
    "crosscut saw",
    "jointer",
    "planer",
    "table saw",
    "bandsaw",
    "hand plane",
    "handsaw",
    "router bridge",
    "bench",
    "outside shop",
    "not here",
]
Dimension = Literal["length", "thickness", "width", "straight", "none"]
End = Literal["", "datum end", "far end"]


@dataclass(frozen=True)
class Way:
    """A way round what a machine cannot take: where it is then done, what it costs, and its
    danger.
    """

    machine: Machine
    do: str
    costs: str
    danger: str = ""


@dataclass(frozen=True)
class Obstacle:
    """Why a machine cannot take a piece, and the ways round it, the first of them the one that is
    taken.
    """

    why: str
    ways: tuple[Way, ...]


@dataclass(frozen=True)
class Step:
    """What is done, and everything one needs to know to do it. Lengths in ticks; texts in the job's
    unit.

    `passes` holds the depth of each pass, `stock_in` and `stock_out` the dimension the step changes
    (its name in `dimension`). `size` is the length, width and thickness that come in, `marks` the
    pieces a last cut frees, as they are written on the wood. `first` is the end that leads.
    `obstacle` says what the usual machine cannot take, `ways` what to do then; the step is then at
    the first way's machine. `setup` names what the machine is set to: steps of one setup follow
    each other without touching it. It can be begun when all of `after` are done and their `hold`,
    in minutes, has passed. `spare` is the thickness left over when a face is flat.
    """

    key: str
    machine: Machine
    do: str
    down: str = ""
    against: str = ""
    setting: int = 0
    dimension: Dimension = "length"
    passes: tuple[int, ...] = ()
    stock_in: int = 0
    stock_out: int = 0
    check: str = ""
    why: str = ""
    obstacle: str = ""
    ways: tuple[Way, ...] = ()
    pieces: tuple[str, ...] = ()
    marks: tuple[str, ...] = ()
    board: str = ""
    piece: str = ""
    size: tuple[int, int, int] = (0, 0, 0)
    first: End = ""
    tolerance: int = 0
    turn_over: int = 0
    leaves: str = ""
    setup: str = ""
    after: tuple[str, ...] = ()
    hold: int = 0
    spare: int = 0
    minutes: float = 0.0
    people: int = 1

    @property
    def kind(self) -> str:
        """What is done, by the last word of its key."""
        return self.key.rpartition("/")[2]

    @property
    def readings(self) -> tuple[int, ...]:
        """What the caliper shows after each pass, where passes take from a thickness."""
        return (
            tuple(self.stock_in - gone for gone in accumulate(self.passes))
            if self.dimension == "thickness"
            else ()
        )
