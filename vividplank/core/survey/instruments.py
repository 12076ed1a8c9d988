"""What the instruments at the bench can do, whoever makes them. Lengths in ticks, heights in ticks
as floats.
"""

from dataclasses import dataclass
from typing import Literal, Protocol

from vividplank.core.board import Board

InstrumentKind = Literal["caliper", "moisture", "metal", "scanner", "readout"]


class NoReading(Exception):
    """The instrument gave nothing this time; the text says what to do."""


@dataclass(frozen=True)
class Scan:
    """Heights of both faces at every xs[i], ys[j] as they were read, None where nothing came back.

    `noise` is the standard deviation the maker of the instrument states for one height.
    """

    xs: tuple[int, ...]
    ys: tuple[int, ...]
    lower: tuple[tuple[float | None, ...], ...]
    upper: tuple[tuple[float | None, ...], ...]
    noise: float


class Caliper(Protocol):
    """Measures thickness between its jaws."""

    def thickness(self, board: Board, x: int, y: int) -> int:
        """At a place of the board; NoReading when the jaws slipped."""

    def piece(self, board: Board, foretold: int) -> int:
        """A piece of that board just off a machine; a simulated one is about as thick as it was
        foretold.
        """


class Readout(Protocol):
    """Shows how high a planer's cutter stands over its bed. What lies under it may be thicker: it
    springs back.
    """

    def height(self, board: Board, set_to: int) -> int:
        """When it was set to so much; a simulated one is about there. NoReading when it shows
        nothing.
        """


class MoistureMeter(Protocol):
    """Reads moisture between two pins."""

    def percent(self, board: Board, x: int, y: int) -> float:
        """At a place of the board; NoReading when the pins found no hold."""


class MetalDetector(Protocol):
    """Is moved along a board and beeps over metal."""

    def sweep(self, board: Board) -> list[tuple[int, int]]:
        """The places (x, y) where it beeped."""


class Scanner(Protocol):
    """Reads the heights of both faces of a board that lies on the bench."""

    def scan(self, board: Board) -> Scan:
        """The whole board; NoReading when it was moved meanwhile."""


class Bench(Protocol):
    """What instruments there are: name and one sentence by kind, and the instrument of a kind by
    its name.
    """

    def offered(self, kind: InstrumentKind) -> dict[str, str]: ...

    def caliper(self, name: str) -> Caliper: ...

    def readout(self, name: str) -> Readout: ...

    def moisture_meter(self, name: str) -> MoistureMeter: ...

    def metal_detector(self, name: str) -> MetalDetector: ...

    def scanner(self, name: str) -> Scanner: ...


class NoInstruments:
    """A bench where every figure is typed."""

    def offered(self, kind: InstrumentKind) -> dict[str, str]:
        return {}

    def caliper(self, name: str) -> Caliper:
        raise NoReading("There is no caliper here.")

    def readout(self, name: str) -> Readout:
        raise NoReading("There is no readout here.")

    def moisture_meter(self, name: str) -> MoistureMeter:
        raise NoReading("There is no moisture meter here.")

    def metal_detector(self, name: str) -> MetalDetector:
        raise NoReading("There is no metal detector here.")

    def scanner(self, name: str) -> Scanner:
        raise NoReading("There is no scanner here.")
