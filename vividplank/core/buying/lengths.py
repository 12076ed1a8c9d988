"""What is bought otherwise than by the board foot: sheets, and finished sizes in stock lengths."""

from dataclasses import dataclass

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM
from vividplank.core.shop import Shop


@dataclass(frozen=True)
class SheetNeed:
    """So many sheets of one kind. `sheets` can be cut so (rows along the sheet); `least` no cutting can undercut."""

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
    """Finished stock of one section: `lengths` pieces of `stock_length` give all, `spare` more of the longest besides."""

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


def usual_sheet(job: Job) -> tuple[int, int]:
    """A common sheet, length × width."""
    return (2440 * TICKS_PER_MM, 1220 * TICKS_PER_MM) if job.unit == "mm" else (96 * TICKS_PER_INCH, 48 * TICKS_PER_INCH)


def sheet_needs(job: Job) -> tuple[SheetNeed, ...]:
    """Sheets by kind and thickness, cut in rows along their length, the grain as each part asks."""
    sheet = usual_sheet(job)
    groups: dict[tuple[str, int], list[Part]] = {}
    for p in job.parts:
        if p.stock == "sheet":
            groups.setdefault((p.species.casefold(), p.thickness), []).append(p)
    return tuple(_sheets(parts, sheet, job.shop) for parts in groups.values())


def length_needs(job: Job, stock_length: int) -> tuple[LengthNeed, ...]:
    """Stock lengths by section: longest pieces first, each where it leaves least; the kerf between pieces counted.

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
    return tuple(_lengths(parts, stock_length, job.shop.kerf.crosscut) for parts in groups.values())


def _lengths(parts: list[Part], stock: int, kerf: int) -> LengthNeed:
    too_long = tuple(p.id for p in parts if p.length > stock)
    pieces = sorted((p.length for p in parts if p.length <= stock for _ in range(p.quantity)), reverse=True)
    left: list[int] = []
    for piece in pieces:
        fits = [k for k, room in enumerate(left) if room >= piece]
        if fits:
            left[min(fits, key=lambda k: left[k])] -= piece + kerf
        else:
            left.append(stock - piece - kerf)
    least = -(-sum(p + kerf for p in pieces) // (stock + kerf))
    spare = sum(1 + (room - pieces[0]) // (pieces[0] + kerf) for room in left if room >= pieces[0]) if pieces else 0
    first = parts[0]
    return LengthNeed(
        first.species,
        first.width,
        first.thickness,
        tuple(p.id for p in parts),
        sum(p.quantity for p in parts),
        stock,
        len(left),
        least,
        spare,
        too_long,
    )


def _sheets(parts: list[Part], sheet: tuple[int, int], shop: Shop) -> SheetNeed:
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
        place = next((row for rows in sheets for row in rows if row[0] >= width and row[1] >= length), None)
        if place:
            place[1] -= length + kerf
            continue
        room = next((rows for rows in sheets if sum(row[0] + kerf for row in rows) + width <= across), None)
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
    """Size along and across the sheet, whose grain runs along it; None where it is too large."""
    length, width = p.cut_size()
    ways = {
        "length": [(length, width)],
        "width": [(width, length)],
        "any": [(max(length, width), min(length, width)), (min(length, width), max(length, width))],
    }[p.grain]
    return next((way for way in ways if way[0] <= sheet[0] and way[1] <= sheet[1]), None)
