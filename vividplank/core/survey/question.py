"""Readings that do not fit the rest of the board, questioned in a sentence before they are
taken.
"""

from statistics import median

from vividplank.core.board.board import Board
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_INCH, System, about, rule_step
from vividplank.core.survey.scan import Swelling
from vividplank.core.timber.rest import Moisture

#: Thicker than its neighbours say by more than this: metal swells wood before it shows.
_SWELLING = 2 * TICKS_PER_64TH
_POINTS = 3.0


def about_thickness(board: Board, x: int, thickness: int, system: System) -> str:
    """Of a thickness read at x: empty where it fits what the other stations say, else what to look
    for.

    The others are asked without the station at x itself, so that a wrong figure there does not
    vouch for itself.
    """
    others = [t for s in board.stations if abs(s.x - x) > TICKS_PER_INCH for t in s.readings]
    if thickness <= 0:
        return "Nothing between the jaws. Read again."
    if not others:
        return ""
    usual = median(others)
    off = thickness - usual
    limit = max(_SWELLING, 2 * (max(others) - min(others)))
    if off > limit:
        return (
            f"{_say(off, system)} thicker than the rest of the board ({_say(usual, system)}). A "
            f"swelling like that is often "
            "metal: search it before it meets a knife, or read again."
        )
    if off < -limit:
        return (
            f"{_say(-off, system)} thinner than the rest of the board ({_say(usual, system)}). "
            f"Were the jaws on a chip or a "
            "low edge? Read again, or keep it if it is so."
        )
    return ""


def about_moisture(readings: tuple[Moisture, ...], day: int, percent: float) -> str:
    """Of a moisture reading: empty where it fits the others of its day."""
    if percent >= 28:
        return (
            f"{percent:g} % is green wood: a pin meter tells little there. Is the board wet "
            f"on its face?"
        )
    if percent <= 4.5:
        return (
            f"{percent:g} % is drier than any room makes wood: meters end about here. Read again."
        )
    others = [m.percent for m in readings if m.day == day]
    if others and abs(percent - median(others)) > _POINTS:
        return (
            f"{percent:g} % where the rest of the board reads {median(others):.1f} %. A wet "
            f"pocket, or a pin on a knot: read "
            "beside it."
        )
    return ""


def about_swelling(swelling: Swelling, system: System) -> str:
    """Of a place where a scan found the board thicker than all around it."""
    at, up = (_say(t, system) for t in (swelling.x, swelling.y))
    return (
        f"Swollen by {_say(swelling.rise, system)} at {at} along, {up} up: look for metal "
        f"before it meets a knife."
    )


def _say(ticks: float, system: System) -> str:
    return about(max(ticks, rule_step(system)), system, unit=True)
