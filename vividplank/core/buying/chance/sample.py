"""One simulated purchase: boards are drawn from a population until the list can be laid out."""

from collections import defaultdict
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from itertools import count
from random import Random

from vividplank.core.board import Board
from vividplank.core.board.clear import clear_areas
from vividplank.core.buying.market.population import Population, draw, hidden_fault
from vividplank.core.cutlist import Faces
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.limits import Clock, Limits, Progress
from vividplank.core.layout.search.search import search, search_valued
from vividplank.core.milling import Milling, routes
from vividplank.core.timber import board_feet

#: Rounds of the search before boards are said not to cover the list; the same on every machine.
#: Of 135 lists that three times as many cover, these cover 124; picking with twice as many costs
#: 1.2 % less.
_ROUNDS, _PICKING_ROUNDS = 8, 4
#: So many times as many before a board is said to be needed for one piece: the longer a list of few
#: large pieces is searched for, the more often it does without.
_LONGER = 3
#: No layout takes so long but on a machine that has stopped.
_ENOUGH_SECONDS = 600.0
#: After so many boards more than the list seems to take nobody goes on.
_HOPELESS = 4.0
#: A clear rectangle that is found is rarely smaller than what there is by more than this.
_NEARLY = 0.97
#: A pile to pick from has so many boards for each that the list takes, and at least so many.
PILE, LEAST_PILE = 3.0, 24


@dataclass(frozen=True)
class Taken:
    """What had to be taken as it came: the list is covered by `boards` boards that hold `feet`
    board feet, and not by what had been taken `before` the last of them. `whole` is False where no
    number of boards seemed to do.
    """

    boards: int
    before: float
    feet: float
    whole: bool = True


@dataclass(frozen=True)
class Given:
    """What a board gave, units by item type (ticks of width of a panel), and what it cost."""

    price: float
    units: tuple[tuple[int, int], ...]


@dataclass(frozen=True)
class Picked:
    """What was picked out of a pile of `pile` boards: so many, holding so many board feet, at this
    cost; `left_out` names parts that the pile does not give. `areas` is what a unit of each item
    type takes of a board. `minutes` by machine is what milling it takes, `elsewhere` counts the
    steps that no machine of the shop does.
    """

    pile: int
    boards: int
    feet: float
    cost: float
    left_out: tuple[str, ...]
    given: tuple[Given, ...]
    areas: tuple[float, ...]
    minutes: dict[str, float]
    elsewhere: int = 0


def feet_of(board: Board) -> float:
    """Board feet as they are bought, at the rough thickness of its quarter, exactly."""
    return float(board_feet(board.nominal.rough, round(board.mean_width), board.length))


def missing(job: Job, boards: Sequence[Board], clock: Clock, rounds: int = _ROUNDS) -> float:
    """The share of the list, by volume, that is not found to come out of these boards; 0 where they
    cover it.
    """
    limits = Limits(_ENOUGH_SECONDS, rounds, prove=False, quick=True)
    plan = search(replace(job, boards=tuple(boards)), limits, clock, _until_whole)
    volume = {p.id: p.volume for p in job.parts}
    short = sum(volume[u.part] for u in plan.unplaced)
    return short / max(1, sum(p.volume * p.quantity for p in job.parts))


def _largest_share(job: Job) -> float:
    """What the largest piece is of the list, by volume."""
    total = sum(p.volume * p.quantity for p in job.parts)
    return max((p.volume for p in job.parts), default=0) / max(1, total)


def _until_whole(progress: Progress) -> bool:
    return progress.unplaced > 0


def boards_of(population: Population, rng: Random) -> Iterator[Board]:
    """Boards as they come, with the faults that a buyer does not see."""
    for n in count(1):
        board = draw(population, rng, f"#{n}")
        unseen = hidden_fault(population, rng, board)
        yield replace(board, defects=(*board.defects, unseen)) if unseen else board


def as_they_come(
    job: Job,
    cart: Sequence[Board],
    population: Population,
    rng: Random,
    guess: int,
    clock: Clock,
    go_on: Callable[[], bool] = lambda: True,
    rounds: int = _ROUNDS,
) -> Taken | None:
    """Take boards as they come until the list is covered; None where it was told to stop.

    `cart` are boards there are already, `guess` how many more are tried first. A first layout each
    says about how many it takes; only from there on one board fewer is searched for, by so many
    `rounds` (0: not at all), and longer where it lacks no more than the largest piece.
    """
    coming = boards_of(population, rng)
    drawn: list[Board] = []
    most = int(_HOPELESS * max(4, guess)) + 4
    sizes = frozenset(_sizes(job))
    face = job.shop.allowance.face
    given = [_gives(b, sizes, face) for b in cart]

    def short(n: int, rounds: int) -> float:
        """What is missing after n boards; 1 where no board gives some part at all."""
        while len(drawn) < n:
            drawn.append(next(coming))
            given.append(_gives(drawn[-1], sizes, face))
        if sizes - frozenset().union(*given[: len(cart) + n]):
            return 1.0
        return missing(job, [*cart, *drawn[:n]], clock, rounds)

    least = 0 if cart else 1
    n, failed = max(least, guess), least - 1
    while lacks := short(n, 0):
        if n > most:
            if rounds and not short(n, rounds):
                break
            return Taken(n, *_feet(drawn, n), whole=False)
        if not go_on():
            return None
        failed = n
        n += max(1, min(n, round(n * lacks)))
    while n - failed > 1:
        if not go_on():
            return None
        middle = (n + failed) // 2
        n, failed = (n, middle) if short(middle, 0) else (middle, failed)
    one = _largest_share(job)
    while rounds and n > least and go_on():
        lacks = short(n - 1, rounds)
        if lacks and (lacks > one or not go_on() or short(n - 1, _LONGER * rounds)):
            break
        n -= 1
    return Taken(n, *_feet(drawn, n)) if go_on() else None


@dataclass(frozen=True)
class _Size:
    """A piece that must come out of one board: what is sought in it."""

    thickness: int
    length: int
    width: int
    faces: Faces


def _sizes(job: Job) -> set[_Size]:
    shop = job.shop
    return {
        _Size(
            w.thickness + shop.allowance.face,
            max(w.length + shop.allowance.length, shop.min_blank_length),
            (w.stave_least or w.width) + shop.allowance.width,
            w.faces,
        )
        for w in item_types(job)
    }


def _gives(board: Board, sizes: frozenset[_Size], face: int) -> frozenset[_Size]:
    """The sizes that may lie somewhere in the board, by its size and its faults alone: a quick no.
    What lies flat needs no facing of `face`; clear rectangles are found a little small.
    """
    flat = board.thickest + (face if board.lies_flat else 0)
    return frozenset(
        s
        for s in sizes
        if s.thickness <= flat
        and s.length <= board.length
        and s.width <= board.widest
        and clear_areas(board, s.faces, 1, round(_NEARLY * s.length), round(_NEARLY * s.width))
    )


def _feet(drawn: Sequence[Board], n: int) -> tuple[float, float]:
    each = [feet_of(b) for b in drawn[:n]]
    return sum(each[:-1]), sum(each)


def picked(
    job: Job,
    hand: Sequence[Board],
    population: Population,
    per_foot: Decimal,
    pile: int,
    rng: Random,
    clock: Clock,
    milling: Milling | None = None,
) -> Picked:
    """Pick what covers the list most cheaply out of a pile; `hand` are boards there are already,
    for nothing.
    """
    coming = boards_of(population, rng)
    owned = tuple(replace(b, price=Decimal(0)) for b in hand)
    least = max(per_foot, Decimal("0.01"))
    priced = tuple(
        replace(b, price=round(Decimal(feet_of(b)) * least, 2))
        for b in (next(coming) for _ in range(pile))
    )
    limits = Limits(_ENOUGH_SECONDS, _PICKING_ROUNDS, prove=False, quick=True)
    whole = replace(job, boards=owned + priced)
    found = search_valued(whole, limits, clock)
    bought = [b for b in priced if b.id in found.taken]
    steps = [s for r in routes(whole, found.plan, milling) for s in r.steps]
    minutes: dict[str, float] = defaultdict(float)
    for step in steps:
        minutes[step.machine] += step.minutes
    return Picked(
        pile,
        len(bought),
        sum(feet_of(b) for b in bought),
        float(found.plan.cost),
        tuple(dict.fromkeys(u.part for u in found.plan.unplaced)),
        tuple(Given(float(b.price), found.taken[b.id]) for b in bought),
        found.areas,
        {m: round(n, 1) for m, n in minutes.items()},
        sum(s.machine == "not here" for s in steps),
    )
