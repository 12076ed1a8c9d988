"""The shop's machines and their limits. The machine's own manual rules; these are usual starting values."""

from dataclasses import dataclass

from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import TICKS_PER_MM, Unit


@dataclass(frozen=True)
class Jointer:
    bed_width: int = 8 * INCH
    shortest: int = 12 * INCH
    thinnest: int = INCH // 2
    narrowest: int = 2 * INCH
    longest: int = 96 * INCH  # beyond about twice the tables an edge cannot be held straight
    usual_pass: int = INCH // 32


@dataclass(frozen=True)
class Planer:
    width: int = 15 * INCH
    shortest: int = 12 * INCH
    thinnest: int = INCH // 4
    usual_pass: int = INCH // 16
    last_pass: int = INCH // 64


@dataclass(frozen=True)
class CrosscutSaw:
    widest: int = 12 * INCH


@dataclass(frozen=True)
class Machines:
    jointer: Jointer = Jointer()
    planer: Planer = Planer()
    crosscut: CrosscutSaw = CrosscutSaw()
    lift_alone_kg: float = 25.0


def usual_machines(unit: Unit) -> Machines:
    """Starting values in the steps of the shop's own rule."""
    if unit == "in":
        return Machines()
    mm = TICKS_PER_MM
    return Machines(
        Jointer(200 * mm, 300 * mm, 12 * mm, 50 * mm, 2400 * mm, mm * 4 // 5),
        Planer(380 * mm, 300 * mm, 6 * mm, 3 * mm // 2, mm * 2 // 5), CrosscutSaw(300 * mm),
    )


#: Shown before a machine is first used. General; the manual, local rules and a teacher come first.
DEFER = "The machine's own manual, local rules and a competent teacher come before anything said here."
_ALWAYS = "Eyes, ears and dust extraction on; no gloves, loose sleeves, cords or hair near a cutter."
CAUTIONS: dict[str, tuple[str, ...]] = {
    "jointer": (
        _ALWAYS, "Guard over the cutter, push blocks in hand; hands never pass over the cutter head.",
        "Look first for metal, loose knots and cracks: they are cut away before this machine, not in it.", DEFER,
    ),
    "planer": (
        _ALWAYS, "Never look into it while it runs, and never change the depth with stock inside.",
        "Stand to the side; let it feed, do not push or pull.", DEFER,
    ),
    "table saw": (
        _ALWAYS, "Guard and riving knife on; push stick near the blade; stand beside the line of kickback.",
        "Never pull stock back or lift it: stop the saw, wait for standstill, then clear.", DEFER,
    ),
    "bandsaw": (_ALWAYS, "Guide set just above the stock; hands out of the blade's line.", DEFER),
    "crosscut saw": (
        _ALWAYS, "Hold the stock flat to table and fence; let the blade stop before you clear the offcut.", DEFER,
    ),
}
