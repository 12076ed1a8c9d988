"""Simulated instruments: they read a hidden true board with noise, and now and then get nothing."""

from collections.abc import Callable
from itertools import count
from random import Random

from vividplank.core.board import Board
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.survey.instruments import InstrumentKind, NoReading, Scan
from vividplank.devices.hidden import HiddenBoard, hidden_board, random_of

Truth = Callable[[Board], HiddenBoard]


class _Simulated:
    """`fails` is how often nothing comes; every reading has chance of its own, the same again after
    a restart.
    """

    def __init__(self, truth: Truth = hidden_board, *, noise: float, fails: float) -> None:
        self.truth = truth
        self.noise = noise
        self.fails = fails
        self._readings = count()

    def _next(self, board: Board, slipped: str) -> Random:
        random = random_of(board, f"{type(self).__name__} {next(self._readings)}")
        if random.random() < self.fails:
            raise NoReading(slipped)
        return random


class SimulatedCaliper(_Simulated):
    """Reads to 1/2000 in; a hand holds it to about 2/1000 in."""

    def __init__(
        self, truth: Truth = hidden_board, *, noise: float = 0.002 * INCH, fails: float = 0.04
    ) -> None:
        super().__init__(truth, noise=noise, fails=fails)

    def thickness(self, board: Board, x: int, y: int) -> int:
        random = self._next(board, "The jaws slipped off the wood. Read again.")
        low, high = self.truth(board).heights(x, y)
        return self._shown(high - low, random)

    def piece(self, board: Board, foretold: int) -> int:
        return self._shown(
            foretold, self._next(board, "The jaws slipped off the wood. Read again.")
        )

    def _shown(self, thickness: float, random: Random) -> int:
        step = INCH / 2000
        return round(round((thickness + random.gauss(0, self.noise)) / step) * step)


class SimulatedReadout(_Simulated):
    """Shows 1/1000 in; it was zeroed a little off, by as much every time, and the screw has some
    play.
    """

    def __init__(
        self,
        truth: Truth = hidden_board,
        *,
        noise: float = 0.001 * INCH,
        fails: float = 0.02,
        off: float = 0.003 * INCH,
    ) -> None:
        super().__init__(truth, noise=noise, fails=fails)
        self.off = off

    def height(self, board: Board, set_to: int) -> int:
        random = self._next(board, "The readout is blank. Wake it and read again.")
        step = INCH / 1000
        return round(round((set_to + self.off + random.gauss(0, self.noise)) / step) * step)


class SimulatedMoistureMeter(_Simulated):
    """Reads to a tenth of a point; two readings of one place differ by about 0.3."""

    def __init__(
        self, truth: Truth = hidden_board, *, noise: float = 0.3, fails: float = 0.04
    ) -> None:
        super().__init__(truth, noise=noise, fails=fails)

    def percent(self, board: Board, x: int, y: int) -> float:
        random = self._next(
            board, "The pins found no hold. Press them in across the grain and read again."
        )
        return round(max(4.0, self.truth(board).moisture(x) + random.gauss(0, self.noise)), 1)


class SimulatedMetalDetector(_Simulated):
    """Places a nail to about 1/4 in; now and then one is passed over."""

    def __init__(
        self, truth: Truth = hidden_board, *, noise: float = 0.25 * INCH, fails: float = 0.05
    ) -> None:
        super().__init__(truth, noise=noise, fails=fails)

    def sweep(self, board: Board) -> list[tuple[int, int]]:
        found = []
        for nail in self.truth(board).nails:
            try:
                random = self._next(board, "")
            except NoReading:
                continue
            found.append(
                (
                    round(nail.x + random.gauss(0, self.noise)),
                    round(nail.y + random.gauss(0, self.noise)),
                )
            )
        return found


class SimulatedScanner(_Simulated):
    """Heights every half inch across and every inch along, a few lost to shine and dust."""

    def __init__(
        self,
        truth: Truth = hidden_board,
        *,
        noise: float = 0.004 * INCH,
        fails: float = 0.02,
        lost: float = 0.03,
    ) -> None:
        super().__init__(truth, noise=noise, fails=fails)
        self.lost = lost

    def scan(self, board: Board) -> Scan:
        random = self._next(
            board, "The board was moved while it was read. Lay it still and scan again."
        )
        truth = self.truth(board)
        low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
        xs = _evenly(0, board.length, INCH, most=200)
        ys = _evenly(low, high, INCH // 2, most=40)
        faces: tuple[list[tuple[float | None, ...]], list[tuple[float | None, ...]]] = ([], [])
        for x in xs:
            heights = [truth.heights(x, y) for y in ys]
            inside = [board.edges(x)[0] <= y <= board.edges(x)[1] for y in ys]
            for k, face in enumerate(faces):
                face.append(
                    tuple(
                        h[k] + random.gauss(0, self.noise)
                        if on and random.random() >= self.lost
                        else None
                        for h, on in zip(heights, inside, strict=True)
                    )
                )
        return Scan(xs, ys, tuple(faces[0]), tuple(faces[1]), self.noise)


class SimulatedBench:
    """One simulated instrument of every kind."""

    def __init__(self) -> None:
        self._caliper = SimulatedCaliper()
        self._readout = SimulatedReadout()
        self._moisture_meter = SimulatedMoistureMeter()
        self._metal_detector = SimulatedMetalDetector()
        self._scanner = SimulatedScanner()

    def offered(self, kind: InstrumentKind) -> dict[str, str]:
        said = {
            "caliper": "A made-up caliper: reads to 1/2000 in, the jaws slip now and then",
            "readout": "A made-up readout on the planer: shows 1/1000 in, zeroed a little off",
            "moisture": "A made-up pin meter: reads to a tenth of a point",
            "metal": "A made-up detector: places a nail to about 1/4 in",
            "scanner": "A made-up scanner: heights of both faces every inch, to 4/1000 in",
        }
        return {"simulated": said[kind]}

    def caliper(self, name: str) -> SimulatedCaliper:
        return self._caliper

    def readout(self, name: str) -> SimulatedReadout:
        return self._readout

    def moisture_meter(self, name: str) -> SimulatedMoistureMeter:
        return self._moisture_meter

    def metal_detector(self, name: str) -> SimulatedMetalDetector:
        return self._metal_detector

    def scanner(self, name: str) -> SimulatedScanner:
        return self._scanner


def _evenly(low: int, high: int, step: int, most: int) -> tuple[int, ...]:
    gaps = min(max(2, -(-(high - low) // step)), most - 1)
    return tuple(low + round((high - low) * k / gaps) for k in range(gaps + 1))
