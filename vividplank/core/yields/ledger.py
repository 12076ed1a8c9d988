"""Where the wood went: what every operation took of a piece, entered to the boards it came from.

The same entries are made of steps that are foretold and of what has really been done, so that the
two can stand side by side. What a saw leaves is a piece: it is kept by the shop's rule, or it is
waste, told apart by why nothing could be made of it.
"""

from collections import Counter, defaultdict
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal

from vividplank.core.board.volume import board_volume
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Closed
from vividplank.core.milling import Route
from vividplank.core.milling.model.step import Step
from vividplank.core.piece import Edge, Piece
from vividplank.core.piece import operations as op
from vividplank.core.piece.sawing import Axis, beside
from vividplank.core.piece.volume import volume
from vividplank.core.yields.keeping import offcut, worth_keeping

#: In the order they are told; the words are those of the trade page.
CATEGORIES = (
    "parts",
    "offcuts kept",
    "end trim",
    "defects",
    "crosscut kerf",
    "rip kerf",
    "resaw kerf",
    "chips",
    "edge waste",
    "lost to error",
    "in work",
)
#: What takes chips, by what is done.
_CHIPS = {
    "flatten": "facing",
    "plane": "planing",
    "skim": "skimming",
    "joint-edge": "jointing edges",
    "glue-edge": "jointing edges",
}
_PANELS = "flattening glued pieces"
OPERATIONS = ("facing", "planing", "skimming", "jointing edges", _PANELS)
_SAWN = ("crosscut", "rip", "resaw", "square", "length", "trim", "fit")
#: Cubic ticks that are nothing: a thousandth of a cubic inch.
_NOTHING = 5e8

Shares = Mapping[str, float]


@dataclass(frozen=True)
class Entry:
    """So much of a board, in cubic ticks, went there at this step; `what` is the operation that
    made chips, or the mark of the part.
    """

    board: str
    category: str
    volume: float
    step: str = ""
    what: str = ""


@dataclass(frozen=True)
class BoardAccount:
    """Cubic ticks by category; they add up to `rough` exactly."""

    board: str
    rough: int
    price: Decimal
    where: dict[str, int]
    chips: dict[str, int]

    @property
    def share(self) -> float:
        """Yield: finished parts over rough bought."""
        return self.where["parts"] / self.rough


@dataclass(frozen=True)
class Account:
    """`part_of` has the part that each finished piece is, by its mark."""

    boards: tuple[BoardAccount, ...]
    entries: tuple[Entry, ...]
    kept: tuple[Piece, ...]
    part_of: Mapping[str, str] = field(default_factory=dict)

    @property
    def rough(self) -> int:
        return sum(b.rough for b in self.boards)

    @property
    def price(self) -> Decimal:
        return sum((b.price for b in self.boards), Decimal(0))

    @property
    def where(self) -> dict[str, int]:
        return {name: sum(b.where[name] for b in self.boards) for name in CATEGORIES}

    @property
    def chips(self) -> dict[str, int]:
        return {name: sum(b.chips[name] for b in self.boards) for name in OPERATIONS}

    @property
    def share(self) -> float:
        return self.where["parts"] / self.rough if self.rough else 0.0


def account(
    job: Job,
    routes: Iterable[Route],
    closed: Sequence[Closed] = (),
    done: Collection[str] | None = None,
) -> Account:
    """The account of the boards these routes cut; boards left in the rack are not in it. What is
    `closed` of the plan is scrap, or serves for something else. With `done` it is that of these
    steps alone, and of the boards they have cut: pieces that other steps take are in work.
    """
    ledger = Ledger(job, closed)
    spare: set[str] = set()
    working: set[str] = set()
    for route in routes:
        spare |= {piece.mark for piece in route.kept}
        for step in route.steps:
            if done is None or step.key in done:
                ledger.enter(step)
            else:
                working |= set(step.takes)
    ledger.close(spare, working)
    by_board: defaultdict[str, list[Entry]] = defaultdict(list)
    for entry in ledger.entries:
        by_board[entry.board].append(entry)
    boards = tuple(_board(job, id, by_board[id]) for id in dict.fromkeys(ledger.cut))
    return Account(boards, tuple(ledger.entries), tuple(ledger.kept), dict(ledger.part_of))


def _board(job: Job, id: str, entries: Iterable[Entry]) -> BoardAccount:
    found: defaultdict[str, float] = defaultdict(float)
    chips: defaultdict[str, float] = defaultdict(float)
    for entry in entries:
        found[entry.category] += entry.volume
        if entry.category == "chips":
            chips[entry.what] += entry.volume
    board = job.board(id)
    rough = round(board_volume(board))
    taken = {name: round(chips[name]) for name in OPERATIONS}
    where = {name: round(found[name]) for name in CATEGORIES} | {"chips": sum(taken.values())}
    where["edge waste"] += rough - sum(where.values())  # what rounding leaves
    return BoardAccount(id, rough, board.price, where, taken)


@dataclass
class Ledger:
    """Entries made step by step. Of a glued piece every board it came from carries its share.
    `kept` are the offcuts worth keeping, `left_by` the steps that left them.
    """

    job: Job
    closed: Sequence[Closed] = ()
    entries: list[Entry] = field(default_factory=list)
    kept: list[Piece] = field(default_factory=list)
    cut: list[str] = field(default_factory=list)
    left_by: dict[str, str] = field(default_factory=dict)
    _there: dict[str, Piece] = field(default_factory=dict)
    _origin: dict[str, Shares] = field(default_factory=dict)
    part_of: dict[str, str] = field(default_factory=dict)
    _then: dict[str, str] = field(default_factory=dict)
    _offcuts: Counter[str] = field(default_factory=Counter)

    def enter(self, step: Step) -> None:
        taken, given = step.wood_in, step.wood_out
        shares = self._shares(taken)
        for piece in self.kept:
            if piece.mark in step.takes:  # an offcut that came into use after all
                self._put(self._origin[piece.mark], "offcuts kept", -volume(piece), step.key)
        self.kept = [p for p in self.kept if p.mark not in step.takes]
        before, after = sum(map(volume, taken)), sum(map(volume, given))
        sawn = None
        if step.does in _SAWN:
            edge: Edge = "rough" if step.along == "line" else "straight"
            sawn = beside(taken[0], step.gives, self._kerf(step), edge)
        if sawn:
            for kerf in sawn.kerfs:
                self._put(shares, f"{sawn.axis} kerf", volume(kerf), step.key)
            for left in sawn.offcuts:
                mark = taken[0].mark
                self._offcuts[mark] += 1
                named = replace(left, mark=f"{mark}-{self._offcuts[mark]}")
                self.leave(named, shares, sawn.axis, step.key)
        elif step.does == "glue":  # staves and layers of unlike length end in the shortest
            self._put(shares, "end trim", before - after, step.key)
        elif step.does in _CHIPS:
            glued = taken[0].board.id not in shares
            self._put(
                shares,
                "chips",
                before - after,
                step.key,
                _PANELS if glued and step.does != "glue-edge" else _CHIPS[step.does],
            )
        else:
            self._put(shares, "edge waste", before - after, step.key)
        for piece in taken:
            self._there.pop(piece.mark, None)
            self._then.pop(piece.mark, None)
        for place, piece in zip(step.gives, given, strict=True):
            mark = place.piece
            whole = next((i for i in place.items if not i.stave), None)
            if whole:
                self.part_of[mark] = whole.part
            elif mark not in step.takes and len(given) == 1 and taken[0].mark in self.part_of:
                self.part_of[mark] = self.part_of[taken[0].mark]
            self._there[mark] = piece
            self._origin[mark] = shares
        for gone in self.closed:
            if gone.after == step.key and gone.piece in self._there:
                mark = gone.board or gone.piece
                self.part_of.pop(gone.piece, None)
                self._there[mark] = self._there.pop(gone.piece)
                self._origin[mark] = shares
                self._then[mark] = gone.then

    def leave(self, piece: Piece, shares: Shares, axis: Axis, step: str) -> None:
        """What a saw left: kept, or lost to a fault in it, to the ends, to the edges."""
        whole = volume(piece)
        if whole < _NOTHING:
            return
        keep = self.job.shop.keep
        if any((c.piece, c.after, c.then) == (piece.mark, step, "scrap") for c in self.closed):
            self._put(shares, "lost to error", whole, step, piece.mark)
            return
        board = offcut(piece) if piece.length >= keep.length else None
        if board and worth_keeping(board, keep):
            self.kept.append(piece)
            self.left_by[piece.mark] = step
            self._origin[piece.mark] = shares
            self._put(shares, "offcuts kept", whole, step)
            return
        faulty = self._faulty(piece, axis)
        self._put(shares, "defects", faulty, step)
        self._put(shares, "end trim" if axis == "crosscut" else "edge waste", whole - faulty, step)

    def close(self, spare: Collection[str] = (), working: Collection[str] = ()) -> None:
        """What is there in the end: finished parts, pieces that are to `spare`, those that wait for
        others to be glued to, and those still in work.
        """
        for mark, piece in self._there.items():
            shares = self._origin[mark]
            whole = volume(piece)
            part = self.part_of.get(mark)
            if mark in working:
                self._put(shares, "in work", whole, "", mark)
                continue
            if mark in self._then:
                lost = self._then[mark] == "scrap"
                self._put(shares, "lost to error" if lost else "offcuts kept", whole, "", mark)
                continue
            if mark in spare:
                self.leave(piece, shares, "rip", "")
                continue
            if part is None:
                self._put(shares, "parts", whole, "", mark)
                continue
            wanted = min(whole, float(self.job.part(part).volume))
            self._put(shares, "parts", wanted, "", mark)
            self._put(shares, "edge waste", whole - wanted, "", mark)

    def _shares(self, taken: Iterable[Piece]) -> Shares:
        """How much of what these pieces are came from which board."""
        found: defaultdict[str, float] = defaultdict(float)
        for piece in taken:
            if piece.mark not in self._origin:
                self.cut.append(piece.board.id)
            origin = self._origin.get(piece.mark, {piece.board.id: 1.0})
            weight = volume(piece)
            for board, share in origin.items():
                found[board] += share * weight
        total = sum(found.values())
        return {board: weight / total for board, weight in found.items()} if total else found

    def _kerf(self, step: Step) -> int:
        kerf = self.job.shop.kerf
        if step.does in ("rip", "trim"):
            return kerf.rip
        return kerf.resaw if step.does == "resaw" else kerf.crosscut

    def _faulty(self, piece: Piece, axis: Axis) -> float:
        """How much of a piece lies beside an unsound fault, but for the trim of the ends."""
        trim = self.job.shop.end_trim if axis == "crosscut" else 0
        start, end = max(piece.x0, trim), min(piece.x1, piece.board.length - trim)
        at, found = start, 0.0
        for x0, x1 in sorted((d.x0, d.x1) for d in piece.faults if not d.sound):
            low, high = max(x0, at), min(x1, end)
            if high > low:
                found += volume(op.crosscut(piece, "", low - piece.x0, high - piece.x0))
                at = high
        return found

    def _put(
        self, shares: Shares, category: str, amount: float, step: str = "", what: str = ""
    ) -> None:
        if abs(amount) > 0:
            for board, share in shares.items():
                self.entries.append(Entry(board, category, share * amount, step, what))
