"""One step at one machine: what is done to which pieces, as facts, and how the shop says it."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from itertools import accumulate
from typing import Literal

from vividplank.core.board.grain import End
from vividplank.core.layout.model.plan import Item
from vividplank.core.milling.physics.flatten import Flattened
from vividplank.core.piece import Face, Piece, Plane, Side

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
#: The operation. `knock-down` takes high corners off, `check` is a straightedge on a face that has
#: rested, `unclamp` takes a glue-up out of its clamps; the others are those of docs/exchange.md.
Does = Literal[
    "crosscut",
    "rip",
    "joint-edge",
    "knock-down",
    "flatten",
    "check",
    "plane",
    "skim",
    "resaw",
    "square",
    "length",
    "glue-edge",
    "glue",
    "unclamp",
    "trim",
    "shape",
    "fit",
    "rest",
    "own",
]
#: How it is done: by the machine that usually does it, or a way round.
Method = Literal[
    "machine",
    "carrier",
    "step-and-carrier",
    "bridge",
    "hand",
    "ridge",
    "strips",
    "halves",
    "sled",
    "both-sides",
    "line",
    "straight-carrier",
    "outside",
    "none",
]
#: What is asked of a shop, each with ways of its own.
Task = Literal["face", "edge", "thickness", "crosscut", "rip", "saw-out", "resaw"]
Size = tuple[int, int, int]


@dataclass(frozen=True)
class Way:
    """A way to do a step: where, how, what it costs, and its danger. One with its `guard_off` is
    shown and never taken of our own accord.
    """

    machine: Machine
    method: Method
    do: str
    costs: str
    danger: str = ""
    guard_off: bool = False


@dataclass(frozen=True)
class Obstacle:
    """The ways to do a step, the usual one first; `why` says what the usual machine cannot take and
    is empty where it can.
    """

    why: str
    ways: tuple[Way, ...]
    task: Task | None = None


@dataclass(frozen=True)
class Given:
    """A piece a step gives, and where it lies in the piece it is taken from, in that one's axes:
    between x0 and x1, between the lines y0 + slope·(x − x0) + h0 and + h1, between z0 and z1 over
    the reference face. What is left out reaches as far as the piece taken does.
    """

    piece: str
    x0: int | None = None
    x1: int | None = None
    y0: int = 0
    slope: float = 0.0
    h0: int | None = None
    h1: int | None = None
    z0: int | None = None
    z1: int | None = None
    items: tuple[Item, ...] = ()


@dataclass(frozen=True)
class Corner:
    """A high place taken down by hand: where in the piece, and how far."""

    x: int
    y: int
    depth: int


@dataclass(frozen=True)
class Shim:
    """Something put under a piece where it does not touch: where, and how high."""

    x: int
    y: int
    height: int


@dataclass(frozen=True)
class Fellow:
    """Another piece of the same part, and the length it was measured at on the work."""

    piece: str
    measure: int


@dataclass(frozen=True)
class Step:
    """What is done, and everything one needs to know to do it. Lengths in ticks; texts in the job's
    unit.

    The facts are `does`, `takes`, `gives`, `cuts` (the face that is cut), `face_down`, `edge` (the
    one jointed), `along` (the edge at the fence, or a drawn line), `plane` (where the face then
    lies, in the piece's axes), `knocked`, `shims`, `clean` (the share of the face that comes
    clean), `holds` (the thickness both faces come out clean at), `sizes_in` and `sizes_out` (of
    every piece whole); `do`, `down`, `against`, `check`, `why` and `leaves` tell them.

    `passes` holds the depth of each pass, `stock_in` and `stock_out` the dimension the step changes
    (its name in `dimension`). After pass `turn_over`, if that is not 0, the other face is up.
    `size` is that of the first piece taken, `marks` the pieces a last cut frees, as they are
    written on the wood. `first` is the end that leads. `obstacle` says what the usual machine
    cannot take, `ways` what can be done for its `task`, the first of them the one that is taken
    and `way` its method. `setup` names what the machine is set to: steps of one setup follow each
    other without touching it. It can be begun when all of `after` are done and their `hold`, in
    minutes, has passed. `spare` is the thickness left over when a face is flat. `wood_in` and
    `wood_out` are the pieces themselves, in the order of `takes` and `gives`; where a face is made
    flat, `foretold` is what the jointer does to it.
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
    size: Size = (0, 0, 0)
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
    does: Does = "own"
    way: Method = "machine"
    takes: tuple[str, ...] = ()
    gives: tuple[Given, ...] = ()
    cuts: Face | Literal[""] = ""
    face_down: Face | Literal[""] = ""
    edge: tuple[Side, ...] = ()
    along: Side | Literal["", "line"] = ""
    plane: Plane | None = None
    knocked: tuple[Corner, ...] = ()
    shims: tuple[Shim, ...] = ()
    clean: float = 1.0
    across: Literal["", "width", "thickness"] = ""
    measure: int = 0
    fellows: tuple[Fellow, ...] = ()
    holds: int = 0
    task: Task | None = None
    sizes_in: Mapping[str, Size] = field(default_factory=dict)
    sizes_out: Mapping[str, Size] = field(default_factory=dict)
    wood_in: tuple[Piece, ...] = field(default=(), repr=False, compare=False)
    wood_out: tuple[Piece, ...] = field(default=(), repr=False, compare=False)
    foretold: Flattened | None = field(default=None, repr=False)

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
