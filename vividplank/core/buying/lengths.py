"""What is bought otherwise than by the board foot: sheets, and finished sizes in stock lengths."""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import ceil

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM
from vividplank.core.shop import Shop

#: More ways of cutting one length than these are not all looked at.
_PATTERNS = 20_000
#: A piece by its length and the part it is for.
Wanted = tuple[int, str]


@dataclass(frozen=True)
class SheetNeed:
    """So many sheets of one kind. `sheets` can be cut so (rows along the sheet); `least` no cutting
    can undercut.
    """

    species: str
    thickness: int
    parts: tuple[str, ...]
    pieces: int
    grained: int
    sheet: tuple[int, int]
    sheets: int
    least: int
    too_large: tuple[str, ...]


@dataclass(frozen=True)
class LengthNeed:
    """Finished stock of one section: `lengths` pieces of `stock_length` give all, `spare` more of
    the longest besides. `cuts` are the parts that come out of each length. Were every piece
    `shorter` by so much, `then` lengths would do: the kerf is why they do not; 0 where no such hair
    helps.
    """

    species: str
    width: int
    thickness: int
    parts: tuple[str, ...]
    pieces: int
    stock_length: int
    lengths: int
    least: int
    spare: int
    too_long: tuple[str, ...]
    cuts: tuple[tuple[str, ...], ...] = ()
    shorter: int = 0
    then: int = 0


def usual_sheet(job: Job) -> tuple[int, int]:
    """A common sheet, length × width."""
    return (
        (2440 * TICKS_PER_MM, 1220 * TICKS_PER_MM)
        if job.unit == "mm"
        else (96 * TICKS_PER_INCH, 48 * TICKS_PER_INCH)
    )


def usual_length(job: Job) -> int:
    """A common length of finished stock."""
    return 2400 * TICKS_PER_MM if job.unit == "mm" else 96 * TICKS_PER_INCH


def sheet_needs(job: Job) -> tuple[SheetNeed, ...]:
    """Sheets by kind and thickness, cut in rows along their length, the grain as each part asks."""
    sheet = usual_sheet(job)
    groups: dict[tuple[str, int], list[Part]] = {}
    for p in job.parts:
        if p.stock == "sheet":
            groups.setdefault((p.species.casefold(), p.thickness), []).append(p)
    return tuple(sheets_of(parts, sheet, job.shop) for parts in groups.values())


def length_needs(job: Job, stock_length: int) -> tuple[LengthNeed, ...]:
    """Stock lengths by section: longest pieces first, each where it leaves least; the kerf between
    pieces counted.

    Eleven pieces of 0.8 m out of 2.5 m lengths are four lengths, and one piece spare:

    >>> mm = 320
    >>> from vividplank.core.shop import Shop
    >>> rail = Part("R", "Rail", 11, "pine", 800 * mm, 45 * mm, 20 * mm, stock="bought")
    >>> need = length_needs(Job("", Shop(), (rail,), (), "mm"), 2500 * mm)[0]
    >>> need.lengths, need.spare
    (4, 1)
    """
    groups: dict[tuple[str, int, int], list[Part]] = {}
    for p in job.parts:
        if p.stock == "bought":
            groups.setdefault((p.species.casefold(), p.width, p.thickness), []).append(p)
    step = TICKS_PER_MM if job.unit == "mm" else TICKS_PER_INCH // 16
    kerf = job.shop.kerf.crosscut
    return tuple(_lengths(parts, stock_length, kerf, step) for parts in groups.values())


def _lengths(parts: list[Part], stock: int, kerf: int, step: int) -> LengthNeed:
    too_long = tuple(p.id for p in parts if p.length > stock)
    wanted = Counter({(p.length, p.id): p.quantity for p in parts if p.length <= stock})
    cuts, least = cut_lengths(wanted, stock, kerf)
    longest = max((length for length, _ in wanted), default=0)
    left = [stock - sum(length + kerf for length, _ in cut) for cut in cuts]
    spare = sum(1 + (room - longest) // (longest + kerf) for room in left if room >= longest)
    first = parts[0]
    return LengthNeed(
        first.species,
        first.width,
        first.thickness,
        tuple(p.id for p in parts),
        sum(p.quantity for p in parts),
        stock,
        len(cuts),
        least,
        spare,
        too_long,
        tuple(tuple(name for _, name in cut) for cut in cuts),
        *_a_hair_shorter(wanted, stock, kerf, step, len(cuts)),
    )


def _a_hair_shorter(
    wanted: Mapping[Wanted, int], stock: int, kerf: int, step: int, lengths: int
) -> tuple[int, int]:
    """By how much all pieces need be shorter, two kerfs at most, to save a length, and how many
    they then take; twice 0 where that saves none.
    """
    for less in range(step, 2 * kerf + 1, step):
        if lengths < 2 or min(length for length, _ in wanted) <= less:
            break
        cuts, _ = cut_lengths({(k - less, id): n for (k, id), n in wanted.items()}, stock, kerf)
        if len(cuts) < lengths:
            return less, len(cuts)
    return 0, 0


def cut_lengths(
    wanted: Mapping[Wanted, int], stock: int, kerf: int
) -> tuple[list[list[Wanted]], int]:
    """How stock lengths are cut for pieces (length, name) so often each, and a number that no
    cutting undercuts.

    The longest first, each where it leaves least; where that may be one too many the covering
    program over all ways of cutting a length (HiGHS) decides.
    """
    cuts: list[list[Wanted]] = []
    left: list[int] = []
    for piece in sorted((p for p, n in wanted.items() for _ in range(n)), reverse=True):
        fits = [k for k, room in enumerate(left) if room >= piece[0]]
        k = min(fits, key=lambda k: left[k]) if fits else len(cuts)
        if k == len(cuts):
            cuts.append([])
            left.append(stock)
        cuts[k].append(piece)
        left[k] -= piece[0] + kerf
    least = -(-sum((length + kerf) * n for (length, _), n in wanted.items()) // (stock + kerf))
    if len(cuts) > least:
        better = _by_patterns(wanted, stock, kerf)
        if better is not None:
            found, bound = better
            least = max(least, bound)
            cuts = found if len(found) < len(cuts) else cuts
    return cuts, min(least, len(cuts))


def _by_patterns(
    wanted: Mapping[Wanted, int], stock: int, kerf: int
) -> tuple[list[list[Wanted]], int] | None:
    """The fewest lengths over all full ways of cutting one; None where there are too many ways to
    look at.
    """
    patterns = full_patterns(wanted, stock, kerf)
    if patterns is None:
        return None
    demand = np.array([wanted[p] for p in sorted(wanted, reverse=True)], dtype=float)
    solved = milp(
        np.ones(len(patterns)),
        integrality=np.ones(len(patterns)),
        constraints=LinearConstraint(np.array(patterns, dtype=float).T, lb=demand),
        bounds=Bounds(0, demand.max()),
        options={"time_limit": 2.0},
    )
    if solved.x is None:
        return None
    used = [p for p, n in zip(patterns, solved.x, strict=True) for _ in range(round(n))]
    cuts = [cut for cut in pieces_of(used, wanted) if cut]
    return cuts, ceil(float(solved.mip_dual_bound) - 1e-6)


def full_patterns(
    wanted: Mapping[Wanted, int], stock: int, kerf: int
) -> list[tuple[int, ...]] | None:
    """All full ways of cutting one length: how many of each piece, the longest piece first. None
    where there are too many to look at.
    """
    pieces = sorted(wanted, reverse=True)
    patterns: list[tuple[int, ...]] = []

    def grow(k: int, room: int, taken: tuple[int, ...]) -> bool:
        if len(patterns) > _PATTERNS:
            return False
        if k == len(pieces):
            patterns.append(taken)
            return True
        most = min(wanted[pieces[k]], room // (pieces[k][0] + kerf))
        # The last kind takes all it can; before it every number may leave room for what fits
        # better.
        least = most if k == len(pieces) - 1 else 0
        return all(
            grow(k + 1, room - n * (pieces[k][0] + kerf), (*taken, n))
            for n in range(most, least - 1, -1)
        )

    return patterns if grow(0, stock + kerf, ()) else None


def pieces_of(
    used: Iterable[tuple[int, ...]], wanted: Mapping[Wanted, int]
) -> Iterator[list[Wanted]]:
    """The pieces that each pattern gives, in their order, none more often than it is wanted."""
    left = dict(wanted)
    for pattern in used:
        cut = []
        for piece, n in zip(sorted(wanted, reverse=True), pattern, strict=True):
            given = min(n, left[piece])
            left[piece] -= given
            cut += [piece] * given
        yield cut


def sheets_of(parts: Sequence[Part], sheet: tuple[int, int], shop: Shop) -> SheetNeed:
    """Sheets of one size for parts of one kind and thickness, the deepest rows first."""
    kerf = shop.kerf.rip
    along, across = sheet
    pieces: list[tuple[int, int]] = []
    too_large: list[str] = []
    for p in parts:
        size = _laid(p, sheet)
        if size is None:
            too_large.append(p.id)
        else:
            pieces.extend([size] * p.quantity)
    pieces.sort(key=lambda s: (-s[1], -s[0]))
    sheets: list[list[list[int]]] = []  # of each sheet its rows: [height, room left along]
    for length, width in pieces:
        place = next(
            (row for rows in sheets for row in rows if row[0] >= width and row[1] >= length), None
        )
        if place:
            place[1] -= length + kerf
            continue
        room = next(
            (rows for rows in sheets if sum(row[0] + kerf for row in rows) + width <= across), None
        )
        if room is None:
            room = []
            sheets.append(room)
        room.append([width, along - length - kerf])
    area = sum((length + kerf) * (width + kerf) for length, width in pieces)
    least = -(-area // ((along + kerf) * (across + kerf)))
    first = parts[0]
    return SheetNeed(
        first.species,
        first.thickness,
        tuple(p.id for p in parts),
        sum(p.quantity for p in parts),
        sum(p.quantity for p in parts if p.grain != "any"),
        sheet,
        len(sheets),
        least,
        tuple(too_large),
    )


def _laid(p: Part, sheet: tuple[int, int]) -> tuple[int, int] | None:
    return next(iter(ways_laid(p, sheet)), None)


def ways_laid(p: Part, sheet: tuple[int, int]) -> list[tuple[int, int]]:
    """Sizes along and across the sheet, whose grain runs along it, in which a part goes in; none
    where it is too large.
    """
    length, width = p.cut_size()
    ways = {
        "length": [(length, width)],
        "width": [(width, length)],
        "any": list(
            dict.fromkeys(
                [(max(length, width), min(length, width)), (min(length, width), max(length, width))]
            )
        ),
    }[p.grain]
    return [way for way in ways if way[0] <= sheet[0] and way[1] <= sheet[1]]
