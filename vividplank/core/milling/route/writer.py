"""A piece in hand, and the writing down of what is done to it."""

from dataclasses import dataclass, replace
from math import ceil

from vividplank.core.board import Board, Region
from vividplank.core.board.volume import region_volume
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Segment
from vividplank.core.measure import System, about, rule_step, written
from vividplank.core.milling.model.step import Machine, Obstacle, Step
from vividplank.core.milling.physics.orient import Face
from vividplank.core.milling.route.pace import Factors, minutes
from vividplank.core.milling.shop.school import Milling
from vividplank.core.timber.weight import weight_kg
from vividplank.core.timber.woods import wood_named

_BY_HAND: dict[str, Machine] = {
    "jointer": "hand plane",
    "planer": "hand plane",
    "crosscut saw": "handsaw",
    "table saw": "handsaw",
    "bandsaw": "handsaw",
}


@dataclass(frozen=True)
class Stock:
    """A piece in hand: where in its board it lies, how thick it is by now, which face is flat, the
    last step done on it.

    What is `glued` is all of its size and more than its region of the board says.
    """

    name: str
    board: Board
    region: Region
    thick: int
    last: str
    down: Face = "B"
    glued: bool = False

    @property
    def volume(self) -> float:
        """In cubic ticks: a piece of a board is rough or by now thinner."""
        solid = float(self.length * self.width * self.thick)
        return solid if self.glued else min(solid, region_volume(self.board, self.region))

    @property
    def length(self) -> int:
        return self.region.x1 - self.region.x0

    @property
    def width(self) -> int:
        return self.region.h1 - self.region.h0

    @property
    def size(self) -> tuple[int, int, int]:
        return self.length, self.width, self.thick


class Writer:
    """Writes steps down in the order they are asked for."""

    def __init__(
        self,
        job: Job,
        milling: Milling,
        factors: Factors | None = None,
        system: System | None = None,
    ) -> None:
        """`system` is how lengths are told; left out, in the job's own unit."""
        self.job = job
        self.system: System = system or job.unit
        self.shop = job.shop
        self.milling = milling
        self.machines = milling.machines
        self.factors = factors or {}
        self.step = rule_step(job.unit)
        self.steps: list[Step] = []
        self.by_hand = False

    def say(self, ticks: int) -> str:
        return written(ticks, self.system, unit=True)

    def about(self, ticks: float) -> str:
        """A surveyed figure on the shop's rule."""
        return about(ticks, self.system, unit=True)

    def holds(self, ticks: float) -> str:
        """What wood still gives: the mark of the rule below."""
        return about(ticks, self.system, unit=True, down=True)

    def write(
        self, step: Step, stock: Stock | None = None, obstacle: Obstacle | None = None
    ) -> str:
        """Add a step; where the usual machine cannot take the piece it is done at the first way
        round. Gives its key.
        """
        if self.by_hand:
            step = replace(step, machine=_BY_HAND.get(step.machine, step.machine))
        elif obstacle:
            step = _another_way(step, obstacle)
        if step.machine in (
            "hand plane",
            "handsaw",
            "router bridge",
            "outside shop",
            "not here",
            "bench",
        ):
            step = replace(
                step, setup="", passes=() if step.dimension != "thickness" else step.passes
            )
        if stock:
            step = replace(
                step,
                board=stock.board.id,
                piece=stock.name,
                size=stock.size,
                people=self._people(stock),
            )
        taken = minutes(step, self.machines) * self.factors.get(step.machine, 1.0)
        self.steps.append(replace(step, minutes=round(taken, 2), setup=step.setup or step.machine))
        return step.key

    def _people(self, stock: Stock) -> int:
        wood = wood_named(stock.board.species)
        if wood is None:
            return 1
        return 2 if weight_kg(wood, stock.volume) > self.machines.lift_alone_kg else 1

    def hardness(self, stock: Stock) -> int | None:
        wood = wood_named(stock.board.species)
        return wood.hardness_lbf if wood else None


def _another_way(step: Step, obstacle: Obstacle) -> Step:
    """The step at the first way's machine; on a carrier, or at a saw instead of a cutter, it has a
    setting of its own.
    """
    way = obstacle.ways[0]
    there = replace(step, machine=way.machine, obstacle=obstacle.why, ways=obstacle.ways)
    if way.machine == step.machine:
        return there
    carried = "carrier" in way.do
    return replace(
        there,
        setup=f"{way.machine} {'carrier' if carried else step.setting}",
        setting=0 if carried else step.setting,
        passes=() if "saw" in way.machine else step.passes,
    )


def thickest(board: Board, region: Region) -> int:
    xs = [region.x0, region.x1, *(s.x for s in board.stations if region.x0 < s.x < region.x1)]
    return ceil(
        max(board.thickness(x, region.line(x) + h) for x in xs for h in (region.h0, region.h1))
        - 0.5
    )


def in_hand(segment: Segment, board: Board, name: str, region: Region, last: str) -> Stock:
    return Stock(name, board, region, thickest(board, region), last)
