"""Whether to take a board: its worth to the list beside its price, what it would give, and why not
more.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from vividplank.core.board import Board, Defect, Warp
from vividplank.core.board.find import clear_length
from vividplank.core.buying.chance.worth import Cart, Judge, Patterns, Worth
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.model.pattern import CuttingPattern
from vividplank.core.layout.model.plan import Blank, Item, Segment, Strip

Word = Literal["take", "even", "leave", "not-wanted"]
#: What keeps a board from giving more: the wood is covered, its faults, its warp, its size.
Reason = Literal["good", "covered", "faults", "warp", "size", "dear"]
#: A worth within this share of the price is called even: by so much, and seldom more, it is off a
#: full solve (`bench.aisle verdict`: 1.2 of 40 on the average, 2.9 at most).
EVEN = 0.08
#: What a fault or warp costs must be so much of the worth to be named.
_NAMED = 0.1


@dataclass(frozen=True)
class Verdict:
    """`worth` is what the list costs less to complete with this board, give or take `error` with
    nine chances of ten (None where no purchase was simulated); `gives` how many of each
    part it would give then, within its first `keep` ticks. `clear` is its longest stretch free of
    unsound faults. `lost` is what it would be worth more without the reason, which is None where
    none was sought. `completes` where nothing would be wanted after it.
    """

    word: Word
    worth: float
    error: float | None
    price: float
    reason: Reason | None
    lost: float
    gives: tuple[tuple[str, int], ...]
    keep: int
    clear: int
    segments: tuple[Segment, ...]
    completes: bool


def verdict(
    judge: Judge,
    cart: Sequence[tuple[str, Patterns]],
    board: Board,
    patterns: Patterns,
    before: Cart | None = None,
    *,
    why: bool = True,
) -> Verdict:
    """Of a board with its price, beside the cart; `before` is what that gives, where it is known.
    Without `why` no reason is sought, which takes most of the time.
    """
    worth = judge.worth(cart, board.id, patterns, before)
    price = float(board.price)
    reason: Reason | None = None
    lost = 0.0
    if why:
        reason, lost = _reason(judge, cart, board, worth)
    width = max(1, judge.narrowest)
    if worth.pattern is None or worth.value <= 0:
        return Verdict(
            "not-wanted",
            0.0,
            None,
            price,
            reason,
            lost,
            (),
            0,
            clear_length(board, width),
            (),
            False,
        )
    if abs(worth.value - price) <= EVEN * price:
        word: Word = "even"
    else:
        word = "take" if worth.value > price else "leave"
    if word == "leave" and reason == "good":
        reason = "dear"
    return Verdict(
        word,
        worth.value,
        worth.error,
        price,
        reason,
        lost,
        tuple(gives(judge.types, worth.pattern)),
        max(s.x1 for s in worth.pattern.segments),
        clear_length(board, width),
        segments(judge.types, worth.pattern),
        worth.after.whole,
    )


def _reason(
    judge: Judge, cart: Sequence[tuple[str, Patterns]], board: Board, worth: Worth
) -> tuple[Reason, float]:
    """What would make it worth more: the first of its faults and its warp that counts."""
    if worth.before.whole:
        return "covered", 0.0
    better: list[tuple[float, Reason]] = []
    unsound = tuple(d for d in board.defects if not d.sound)
    if unsound:
        sound = tuple(d for d in board.defects if d.sound)
        better.append((_value(judge, cart, replace(board, defects=sound), worth), "faults"))
    if board.warp != Warp():
        better.append((_value(judge, cart, replace(board, warp=Warp()), worth), "warp"))
    gain, reason = max(better, default=(0.0, "good"))
    if gain > _NAMED * max(worth.value, float(board.price) / 2):
        return reason, gain
    return ("good", 0.0) if worth.pattern else ("size", 0.0)


def _value(judge: Judge, cart: Sequence[tuple[str, Patterns]], other: Board, worth: Worth) -> float:
    """How much more it would be worth if it were like `other`."""
    patterns = judge.patterns(other, worth.before.remaining)
    return judge.worth(cart, other.id, patterns, worth.before).value - worth.value


def gives(types: Sequence[ItemType], pattern: CuttingPattern) -> list[tuple[str, int]]:
    """How many of each part a pattern gives; of a panel, staves."""
    found: Counter[str] = Counter()
    for segment in pattern.segments:
        for strip in segment.strips:
            for blank in strip.blanks:
                for layer in blank.layers:
                    for index in layer:
                        for item in types[index].members[0]:
                            found[item.part] += 1
    return sorted(found.items())


def segments(types: Sequence[ItemType], pattern: CuttingPattern) -> tuple[Segment, ...]:
    """The pattern as segments of a plan, its items numbered as they come."""
    number: Counter[int] = Counter()

    def items(index: int) -> tuple[Item, ...]:
        number[index] += 1
        w = types[index]
        if w.is_panel:
            return tuple(Item(i.part, i.n, number[index]) for i in w.members[0])
        return w.members[(number[index] - 1) % w.count]

    return tuple(
        Segment(
            s.x0,
            s.x1,
            s.y0,
            s.slope,
            tuple(
                Strip(
                    strip.y0,
                    strip.y1,
                    tuple(
                        Blank(
                            b.x0,
                            b.x1,
                            tuple(tuple(i for k in layer for i in items(k)) for layer in b.layers),
                        )
                        for b in strip.blanks
                    ),
                )
                for strip in s.strips
            ),
        )
        for s in pattern.segments
    )


Trouble = Literal["none", "check", "twist"]
TROUBLES: tuple[Trouble, ...] = ("none", "check", "twist")


@dataclass(frozen=True)
class FirstWords:
    """What plain boards of the population's thickness would be worth: `worths[trouble][i][j]` for
    `lengths[i]` and `widths[j]`, beside the cart there is now.
    """

    key: str
    lengths: tuple[int, ...]
    widths: tuple[int, ...]
    worths: dict[Trouble, tuple[tuple[float, ...], ...]]


def first_words(
    judge: Judge,
    cart: Sequence[tuple[str, Patterns]],
    key: str,
    like: Board,
    lengths: Sequence[int],
    widths: Sequence[int],
) -> FirstWords:
    """Worked out beforehand, for the aisle where no server is in reach; `like` is a board of this
    supplier: its wood and thickness.
    """
    before = judge.cart(cart)
    table: dict[Trouble, tuple[tuple[float, ...], ...]] = {}
    for trouble in TROUBLES:
        rows = []
        for length in lengths:
            row = []
            for width in widths:
                board = _plain(like, length, width, trouble)
                patterns = judge.patterns(board, before.remaining, 1)
                row.append(round(judge.worth(cart, board.id, patterns, before).value, 2))
            rows.append(tuple(row))
        table[trouble] = tuple(rows)
    return FirstWords(key, tuple(lengths), tuple(widths), table)


def _plain(like: Board, length: int, width: int, trouble: Trouble) -> Board:
    """A board of this size and one trouble: a check of a fifth of its length, or twist of a
    quarter of its thickness.
    """
    thick = like.thickest
    ends = tuple(
        replace(s, x=x, y0=0, y1=width, t0=thick, t1=thick, between=())
        for s, x in zip((like.stations[0], like.stations[-1]), (0, length), strict=True)
    )
    check = Defect("check", "both", 0, length // 5, width // 2, width // 2 + thick // 8)
    return replace(
        like,
        id="plain",
        length=length,
        stations=ends,
        warp=Warp(twist=thick // 4 if trouble == "twist" else 0),
        defects=(check,) if trouble == "check" else (),
        surface=None,
        grain=type(like.grain)(),
        moisture=(),
    )
