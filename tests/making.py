"""Small things made for tests, in inches."""

from decimal import Decimal

from vividplank.core.board import Board, Defect, Station, Warp
from vividplank.core.cutlist import Faces, Panel, Part
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Allowance, Kerf, Shop

FLAT = Warp()
#: A shop without allowances, so that sizes add up in one's head.
BARE = Shop(
    kerf=Kerf(INCH // 8, INCH // 8, INCH // 16),
    allowance=Allowance(0, 0, 0, 0),
    end_trim=0,
    min_blank_length=12 * INCH,
)


def t(inches: float) -> int:
    return round(inches * INCH)


def a_board(
    id: str = "B",
    length: float = 60,
    width: float = 6,
    thick: float = 1.0,
    *,
    price: str = "10",
    far_width: float | None = None,
    warp: Warp = FLAT,
    defects: tuple[Defect, ...] = (),
    species: str = "oak",
) -> Board:
    """A board with straight edges, tapered if its far end has a width of its own."""
    far = width if far_width is None else far_width
    ends = (
        Station(0, 0, t(width), t(thick), t(thick)),
        Station(t(length), 0, t(far), t(thick), t(thick)),
    )
    return Board(id, species, t(length), ends, warp, defects, Decimal(price))


def a_part(
    id: str,
    quantity: int = 1,
    length: float = 20,
    width: float = 3,
    thickness: float = 0.75,
    *,
    faces: Faces = "clear-one",
    panel: tuple[float, float] | None = None,
    run: str = "",
    species: str = "oak",
) -> Part:
    staves = Panel(t(panel[0]), t(panel[1])) if panel else None
    return Part(
        id, f"Part {id}", quantity, species, t(length), t(width), t(thickness), faces, staves, run
    )


def a_fault(kind: str, x0: float, x1: float, y0: float, y1: float, face: str = "both") -> Defect:
    return Defect(kind, face, t(x0), t(x1), t(y0), t(y1))  # type: ignore[arg-type]
