"""Why a part was left out, in a sentence with figures."""

from vividplank.core.board import Board, Region, flat_slab, same_species
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.measure import about

_LOOKED_AT = 8  # boards: a reason is wanted at once, and the least warped ones have it


def why_unplaced(job: Job, item_type: ItemType) -> str:
    """The first thing that stands against it on every board, or that the wood ran out."""
    shop = job.shop
    long = max(item_type.length + shop.allowance.length, shop.min_blank_length)
    wide = (item_type.stave_min or item_type.width) + shop.allowance.width
    thick = item_type.thickness + shop.allowance.face

    def says(ticks: float) -> str:
        return about(ticks, job.unit, unit=True, down=True)

    boards = [b for b in job.boards if same_species(b.species, item_type.species)]
    if not boards:
        return f"no board of {item_type.species} here"
    boards = [b for b in boards if item_type.may_come_of(b)]
    if not boards:
        return f"is to come out of {item_type.from_board}, which is not here"
    best = max(b.thickest for b in boards)
    if best < thick:
        return (
            f"needs {says(thick)} of thickness with its allowance; the thickest "
            f"{item_type.species} "
            f"board has "
            f"{says(best)}"
        )
    boards = [b for b in boards if b.thickest >= thick]
    best = max(b.length - 2 * shop.end_trim for b in boards)
    if best < long:
        return (
            f"needs {says(long)} of length; the longest board thick enough gives {says(best)} "
            f"between its end trims"
        )
    boards = [b for b in boards if b.length - 2 * shop.end_trim >= long]
    best = max(b.widest for b in boards)
    if best < wide:
        return (
            f"needs {says(wide)} of width; the widest board long and thick enough has {says(best)}"
        )
    boards = [b for b in boards if b.widest >= wide]
    flattest = _flattest_of(boards, long, wide, thick, shop.end_trim)
    if flattest < thick:
        return (
            f"needs {says(thick)} flat; warp leaves at most {says(flattest)} in a piece of "
            f"{says(long)} by "
            f"{says(wide)} of these boards"
        )
    if item_type.is_panel:
        return "the boards left have not enough clear width in lengths of its staves"
    if item_type.from_board:
        return f"no clear place of its size was left on {item_type.from_board}"
    return "the wood ran out: no clear place of its size was left on the boards of this wood"


def _flattest_of(boards: list[Board], long: int, wide: int, thick: int, trim: int) -> float:
    """The best flat thickness of a piece of this size, of the least warped boards; enough is
    enough.
    """
    best = 0.0
    for board in sorted(
        boards, key=lambda b: abs(b.warp.bow) + abs(b.warp.cup) + abs(b.warp.twist) - b.thinnest
    )[:_LOOKED_AT]:
        best = max(best, _flattest(board, long, wide, thick, trim))
        if best >= thick:
            break
    return best


def _flattest(board: Board, long: int, wide: int, thick: int, trim: int) -> float:
    """The best flat thickness of a few pieces of this size along the board, or the first that is
    enough.
    """
    best = 0.0
    last = board.length - trim - long
    for step in range(9):
        x0 = trim + (last - trim) * step // 8 if last > trim else trim
        low, high = board.edges(x0 + long / 2)
        for y0 in (low, (low + high - wide) / 2, high - wide):
            best = max(best, flat_slab(board, Region(x0, x0 + long, y0, 0.0, 0, wide)).thickness)
            if best >= thick:
                return best
    return best
