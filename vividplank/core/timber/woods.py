"""Cabinet woods and their figures.

From the Wood Handbook (USDA Forest Products Laboratory, FPL-GTR-190): specific gravity and side
hardness at 12 % moisture (table 5-3), shrinkage from green to oven dry in % (table 4-3), change
coefficients per 1 % of moisture (table 13-5). Imported woods from tables 5-5, 4-4 and 13-5, their
specific gravity, which is given on green volume, brought to 12 % by eq. 4-9. Starting values:
correct what you can check.
"""

import csv
from dataclasses import dataclass
from pathlib import Path


@dataclass(frozen=True)
class Wood:
    """`specific_gravity` is oven-dry mass over volume at 12 %; coefficients are per 1 % of
    moisture.
    """

    name: str
    handbook_name: str
    specific_gravity: float
    hardness_lbf: int | None
    shrink_radial: float
    shrink_tangential: float
    coef_radial: float
    coef_tangential: float


def _table() -> tuple[Wood, ...]:
    with (Path(__file__).parent / "woods.csv").open(encoding="utf-8", newline="") as file:
        return tuple(
            Wood(
                row["wood"],
                row["handbook_name"],
                float(row["specific_gravity_12"]),
                int(row["hardness_lbf"]) if row["hardness_lbf"] else None,
                float(row["shrink_radial"]),
                float(row["shrink_tangential"]),
                float(row["coef_radial"]),
                float(row["coef_tangential"]),
            )
            for row in csv.DictReader(file)
        )


WOODS = _table()
_ALSO = {
    "white ash": "ash",
    "maple": "hard maple",
    "sugar maple": "hard maple",
    "red maple": "soft maple",
    "black walnut": "walnut",
    "black cherry": "cherry",
    "poplar": "yellow poplar",
    "alder": "red alder",
    "oak": "white oak",
    "white pine": "eastern white pine",
    "douglas fir": "douglas-fir",
    "cypress": "baldcypress",
    "red cedar": "western redcedar",
    "genuine mahogany": "mahogany",
    "khaya": "african mahogany",
    "cedrela": "spanish cedar",
    "birch": "yellow birch",
    "quaking aspen": "aspen",
}


def wood_named(name: str) -> Wood | None:
    """The wood the shop calls so, by its own or its handbook name; None when the table has none.

    >>> wood_named("Black walnut").specific_gravity
    0.55
    """
    plain = " ".join(name.casefold().split())
    plain = _ALSO.get(plain, plain)
    return next((w for w in WOODS if plain in (w.name.casefold(), w.handbook_name)), None)
