"""Boards looked at where they are sold, judged for one list beside the cart."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from random import Random

from vividplank.core.board import Board, same_species
from vividplank.core.buying.chance.cart import CartChance, cart_chance
from vividplank.core.buying.chance.purchase import FILLED, Purchase, groups_at, rough_feet
from vividplank.core.buying.chance.values import Values, part_values, thumb_values
from vividplank.core.buying.chance.verdict import FirstWords, Verdict, first_words, verdict
from vividplank.core.buying.chance.worth import Cart, Judge, Patterns
from vividplank.core.buying.groups import Group
from vividplank.core.buying.market.population import draw
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.document import digest
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.limits import Clock, Limits
from vividplank.core.layout.search.search import search
from vividplank.core.measure import TICKS_PER_INCH

_LENGTHS = tuple(n * 12 * TICKS_PER_INCH for n in (3, 5, 7, 9, 12))
_WIDTHS = tuple(n * TICKS_PER_INCH for n in (3, 5, 7, 10))


@dataclass(frozen=True)
class Looked:
    """A board with the ways to cut it that were found when it was looked at."""

    board: Board
    patterns: Patterns


@dataclass(frozen=True)
class Standing:
    """What the cart gives of one group: pieces wanted and still wanted (a panel is one), and its
    value beside what the whole group costs.
    """

    key: str
    pieces: int
    remaining: int
    missing: tuple[tuple[str, int], ...]
    value: float
    cost: float


class Aisle:
    """One list at one supplier, with what simulated purchases there say its parts cost."""

    def __init__(self, job: Job, supplier: Supplier, purchases: Sequence[Purchase]) -> None:
        self.supplier = supplier
        self.groups = [g for g in groups_at(job, supplier) if g.quarter]
        self.judges = {g.key: Judge(g.job, self._values(g, purchases)) for g in self.groups}

    def _values(self, group: Group, purchases: Sequence[Purchase]) -> Values:
        types = item_types(group.job)
        bought = [b.picked for p in purchases for b in p.bought if b.key == group.key]
        if bought and any(b.given for b in bought):
            return part_values(types, bought, float(self.supplier.trip) / len(self.groups))
        price = self.supplier.price(group.species, group.quarter_name)
        per_foot = float(price.per_foot) if price else 1.0
        return thumb_values(group.job, types, rough_feet(group) / FILLED * per_foot)

    def group_of(self, board: Board) -> Group | None:
        """The group a board is for: of its quarter, else the thickest it gives."""
        alike = [g for g in self.groups if same_species(g.species, board.species)]
        named = board.quarter or board.nominal.name
        for group in alike:
            if group.quarter_name == named:
                return group
        thinner = [g for g in alike if max(p.thickness for p in g.job.parts) <= board.thickest]
        return max(thinner, key=lambda g: g.quarter.rough if g.quarter else 0, default=None)

    def asks_of(self, board: Board) -> str:
        """Stands for what a board is cut for: ways found for something else are of no use."""
        group = self.group_of(board)
        return digest(group.job) if group else ""

    def look(
        self, board: Board, cart: Sequence[Looked], *, why: bool = True
    ) -> tuple[Patterns, Verdict | None]:
        """The ways to cut a board, and whether to take it; no verdict where the list has nothing of
        its wood. Without `why` no reason is sought.
        """
        group = self.group_of(board)
        if group is None:
            return (), None
        judge, there = self.judges[group.key], self._cart(group, cart)
        before = judge.cart(there)
        patterns = judge.patterns(board, before.remaining)
        return patterns, verdict(judge, there, board, patterns, before, why=why)

    def judged(self, looked: Sequence[Looked], cart: Sequence[Looked]) -> dict[str, Verdict]:
        """Of boards that were looked at before, by mark, beside the cart there is now; a board in
        the cart beside the others in it. No reasons are sought.
        """
        found = {}
        for group in self.groups:
            judge, there = self.judges[group.key], self._cart(group, cart)
            marks = {m for m, _ in there}
            before = judge.cart(there)
            for one in looked:
                if self.group_of(one.board) != group:
                    continue
                inside = one.board.id in marks
                others = [c for c in there if c[0] != one.board.id]
                found[one.board.id] = verdict(
                    judge,
                    others,
                    one.board,
                    one.patterns,
                    None if inside else before,
                    why=False,
                )
        return found

    def standing(self, cart: Sequence[Looked]) -> tuple[Standing, ...]:
        """What the cart gives, group by group."""
        found = []
        for group in self.groups:
            judge = self.judges[group.key]
            gives: Cart = judge.cart(self._cart(group, cart))
            missing: dict[str, int] = {}
            for w, left in zip(judge.types, gives.remaining, strict=True):
                if left:
                    for item in w.members[0]:
                        count = 1 if w.is_panel else left
                        missing[item.part] = missing.get(item.part, 0) + count
            found.append(
                Standing(
                    group.key,
                    group.pieces,
                    sum(missing.values()),
                    tuple(missing.items()),
                    gives.value,
                    judge.cost,
                )
            )
        return tuple(found)

    def words(self, cart: Sequence[Looked]) -> tuple[FirstWords, ...]:
        """First words of plain boards, worked out beforehand."""
        found = []
        for group in self.groups:
            price = self.supplier.price(group.species, group.quarter_name)
            if price:
                like = draw(self.supplier.population(price), Random(1), "plain")
                found.append(
                    first_words(
                        self.judges[group.key],
                        self._cart(group, cart),
                        group.key,
                        replace(like, warp=type(like.warp)(), defects=()),
                        _LENGTHS,
                        _WIDTHS,
                    )
                )
        return tuple(found)

    def chance(
        self, cart: Sequence[Board], samples: int, clock: Clock, seconds: float
    ) -> CartChance | None:
        """The chance that the cart covers the list, from as many samples as there is time for."""
        found = []
        for group in self.groups:
            price = self.supplier.price(group.species, group.quarter_name)
            if price is None:
                return None
            mine = [b for b in cart if self.group_of(b) == group]
            found.append((group, self.supplier.population(price), mine))
        until = clock() + seconds
        return cart_chance(found, samples, clock, go_on=lambda: clock() < until)

    def cheapest(
        self, pile: Sequence[Board], cart: Sequence[Board], clock: Clock, seconds: float
    ) -> tuple[tuple[str, ...], dict[str, int], Decimal]:
        """What to take of a pile to complete the list most cheaply, beside the cart: the boards'
        marks, the parts that are left out, and what it costs.
        """
        marks: list[str] = []
        left: dict[str, int] = {}
        cost = Decimal(0)
        for group in self.groups:
            theirs = [b for b in pile if self.group_of(b) == group]
            owned = [replace(b, price=Decimal(0)) for b in cart if self.group_of(b) == group]
            boards = (*owned, *theirs)
            limits = Limits(seconds / len(self.groups), prove=False)
            plan = search(replace(group.job, boards=boards), limits, clock)
            used = {b.board for b in plan.boards if b.segments}
            marks += [b.id for b in theirs if b.id in used]
            cost += plan.cost
            for u in plan.unplaced:
                left[u.part] = left.get(u.part, 0) + 1
        return tuple(marks), left, cost

    def _cart(self, group: Group, cart: Sequence[Looked]) -> list[tuple[str, Patterns]]:
        return [(k.board.id, k.patterns) for k in cart if self.group_of(k.board) == group]
