"""One step at one machine."""

from dataclasses import dataclass
from typing import Literal

Machine = Literal["crosscut saw", "jointer", "planer", "table saw", "bandsaw"]


@dataclass(frozen=True)
class Step:
    """What is done, and everything one needs to know to do it. Lengths in ticks; texts in the job's unit.

    `passes` holds the depth of each pass, `stock_in` and `stock_out` the dimension the step changes
    (its name in `dimension`). `obstacle` says what the machine cannot take, `way_round` what to do then.
    """

    key: str
    machine: Machine
    do: str
    down: str = ""
    against: str = ""
    setting: int = 0
    dimension: Literal["length", "thickness", "width", "straight"] = "length"
    passes: tuple[int, ...] = ()
    stock_in: int = 0
    stock_out: int = 0
    check: str = ""
    why: str = ""
    obstacle: str = ""
    way_round: tuple[str, ...] = ()
    pieces: tuple[str, ...] = ()
