"""The books of a shop: where the wood of all its projects went, planned beside actual."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Literal

from vividplank.core.yields.ledger import CATEGORIES

By = Literal["wood", "grade", "supplier", "month", "project"]


@dataclass(frozen=True)
class Loss:
    """What was lost to an error: which piece, why, and cubic ticks."""

    piece: str
    why: str
    volume: int


@dataclass(frozen=True)
class BoardBooks:
    """A board that has been cut into. Cubic ticks by category; `real` adds up to `rough`, and so
    does `planned`. `month` is that of the last cut, as 2026-11; `faults` counts those found in it
    that no survey knew of.
    """

    project: int
    project_name: str
    board: str
    wood: str
    grade: str
    month: str
    rough: int
    price: Decimal
    planned: Mapping[str, int]
    real: Mapping[str, int]
    faults: int = 0
    lost: tuple[Loss, ...] = ()
    supplier: str = ""

    @property
    def cut_up(self) -> bool:
        return not self.real["in work"]


@dataclass(frozen=True)
class Group:
    """Boards together. Yield is told of those that are cut up: parts over rough; None where there
    are none.
    """

    name: str
    boards: int
    rough: int
    price: Decimal
    planned: Mapping[str, int]
    real: Mapping[str, int]
    planned_yield: float | None
    real_yield: float | None
    faults: int
    lost: tuple[Loss, ...] = field(default=())


_KEY: Mapping[By, Callable[[BoardBooks], str]] = {
    "wood": lambda b: b.wood,
    "grade": lambda b: f"{b.wood}, {b.grade or 'no grade'}",
    "supplier": lambda b: b.supplier or "not said",
    "month": lambda b: b.month,
    "project": lambda b: b.project_name,
}


def grouped(boards: Iterable[BoardBooks], by: By) -> tuple[Group, ...]:
    """One group for each name there is, in the order of their names."""
    found: defaultdict[str, list[BoardBooks]] = defaultdict(list)
    for board in boards:
        found[_KEY[by](board)].append(board)
    return tuple(together(name, found[name]) for name in sorted(found))


def together(name: str, boards: Sequence[BoardBooks]) -> Group:
    whole = [b for b in boards if b.cut_up]
    rough = sum(b.rough for b in whole)
    return Group(
        name,
        len(boards),
        sum(b.rough for b in boards),
        sum((b.price for b in boards), Decimal(0)),
        {c: sum(b.planned[c] for b in boards) for c in CATEGORIES},
        {c: sum(b.real[c] for b in boards) for c in CATEGORIES},
        sum(b.planned["parts"] for b in whole) / rough if rough else None,
        sum(b.real["parts"] for b in whole) / rough if rough else None,
        sum(b.faults for b in boards),
        tuple(loss for b in boards for loss in b.lost),
    )
