"""The writing down of what is done to pieces: steps with the whole pieces they take and give."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, Item
from vividplank.core.measure import System, about, rule_step, written
from vividplank.core.milling.model.step import Given, Method, Obstacle, Step, Task, Way
from vividplank.core.milling.shop.pace import Factors, minutes
from vividplank.core.milling.shop.school import Milling
from vividplank.core.piece import Piece
from vividplank.core.piece.volume import volume
from vividplank.core.timber.weight import weight_kg
from vividplank.core.timber.woods import wood_named

#: Where nothing is set on a dial.
_UNSET = ("hand plane", "handsaw", "router bridge", "outside shop", "not here", "bench")


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
        # The last step of every piece, and the board a glued one is counted to.
        self.last: dict[str, str] = {}
        self.home: dict[str, str] = {}
        # What was made before the list wanted it smaller: its sizes, by part and number.
        self.made: Mapping[tuple[str, int], Sequence[tuple[int, int, int]]] = {}
        # Pieces for nothing yet, that go to the rack.
        self.kept: list[Piece] = []

    def begin(self, by_hand: bool = False) -> list[Step]:
        """A new route; the steps that follow go into the list that is answered."""
        self.by_hand = by_hand
        self.steps, self.kept = [], []
        return self.steps

    def part(self, item: Item) -> Part:
        """The part an item is of, in the size it is made to at first."""
        part, made = self.job.part(item.part), self.made.get((item.part, item.n))
        if not made:
            return part
        length, width, thickness = made[0]
        return replace(part, length=length, width=width, thickness=thickness)

    def planed(self, blank: Blank) -> int:
        """How thick a blank leaves the planer: its finished thickness; one that is resawn keeps the
        allowance of each layer and the saw's kerf between them, a stave what its panel loses when
        it is flattened after glue-up.
        """
        items = tuple(blank.items())
        finish = max(self.part(i).thickness for i in items)
        if len(blank.layers) > 1:
            return self.shop.flat_for(finish, len(blank.layers))
        return finish + (self.shop.allowance.face if any(i.stave for i in items) else 0)

    def say(self, ticks: int) -> str:
        return written(ticks, self.system, unit=True)

    def about(self, ticks: float) -> str:
        """A surveyed figure on the shop's rule."""
        return about(ticks, self.system, unit=True)

    def holds(self, ticks: float) -> str:
        """What wood still gives: the mark of the rule below."""
        return about(ticks, self.system, unit=True, down=True)

    def pick(
        self, key: str, task: Task, found: Obstacle, without: Sequence[Method] = ()
    ) -> Obstacle:
        """The same ways for a task, the one to take first: the one chosen for this step, by hand
        where the school is, the way this shop prefers, or the first that leaves every guard on.
        """
        offered = [w for w in found.ways if w.method not in without] or list(found.ways)
        wishes = [self.milling.chosen.get(key), "hand" if self.by_hand else None]
        found = replace(found, task=task)
        wishes.append(dict(self.machines.preferred).get(task))
        for wish in wishes:
            for way in offered:
                if wish and way.method == wish:
                    return _first(found, offered, way)
        way = next((w for w in offered if not w.guard_off), offered[0])
        return _first(found, offered, way)

    def write(
        self,
        step: Step,
        takes: Sequence[Piece],
        gives: Sequence[tuple[Given, Piece]],
        found: Obstacle | None = None,
        after: Sequence[str] = (),
    ) -> str:
        """Add a step with the pieces it takes and gives, done the first of the ways found."""
        if found:
            way = found.ways[0]
            step = replace(
                step,
                machine=way.machine,
                way=way.method,
                obstacle=found.why,
                ways=found.ways,
                task=found.task,
            )
        if step.machine in _UNSET:
            step = replace(
                step, setup="", passes=() if step.dimension != "thickness" else step.passes
            )
        before = [self.last[p.mark] for p in takes if p.mark in self.last]
        first = takes[0]
        step = replace(
            step,
            takes=tuple(p.mark for p in takes),
            gives=tuple(given for given, _ in gives),
            wood_in=tuple(takes),
            wood_out=tuple(piece for _, piece in gives),
            sizes_in={p.mark: p.size for p in takes},
            sizes_out={given.piece: p.size for given, p in gives},
            board=self.home.get(first.board.id, first.board.id),
            piece=step.piece or first.mark,
            size=first.size,
            people=max(self._people(p) for p in (*takes, *(p for _, p in gives))),
            after=tuple(dict.fromkeys((*before, *after))),
        )
        taken = minutes(step, self.machines) * self.factors.get(step.machine, 1.0)
        self.steps.append(replace(step, minutes=round(taken, 2), setup=step.setup or step.machine))
        for given, _ in gives:
            self.last[given.piece] = step.key
        return step.key

    def on_wood(
        self,
        step: Step,
        before: Piece,
        after: Piece,
        found: Obstacle | None = None,
        given: Given | None = None,
    ) -> Piece:
        """A step that takes one piece and gives it back changed."""
        self.write(step, [before], [(given or Given(after.mark), after)], found)
        return after

    def _people(self, piece: Piece) -> int:
        wood = wood_named(piece.board.species)
        if wood is None:
            return 1
        most = self.machines.lift_alone_kg
        length, width, thick = piece.size
        if weight_kg(wood, float(length) * width * thick) <= most:
            return 1
        return 2 if weight_kg(wood, volume(piece)) > most else 1

    def hardness(self, piece: Piece) -> int | None:
        wood = wood_named(piece.board.species)
        return wood.hardness_lbf if wood else None


def _first(found: Obstacle, offered: Sequence[Way], way: Way) -> Obstacle:
    return replace(found, ways=(way, *(w for w in offered if w is not way)))
