"""Dividing a length: shelves for what is to stand there, drawers equal or graded, slats with equal
gaps.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from vividplank.core.measure import System, rule_step, show


class DividerTrouble(ValueError):
    """A length that cannot be divided so: what is missing, and what would work."""


@dataclass(frozen=True)
class Divided:
    """Lengths in ticks from the lower (or left) end. `at` is where each shelf, front or slat
    begins.

    `openings` are the clear heights of shelves, the heights of drawer fronts, the gaps between
    slats. `left` did not divide and went where `said` says; everything adds up to the span exactly.
    """

    openings: tuple[int, ...]
    at: tuple[int, ...]
    left: int
    said: str


def step_of(system: System) -> int:
    """What a maker can mark: 1/64 in or 0.1 mm."""
    return rule_step(system)


def shelves(span: int, stock: int, heights: Sequence[int], room: int, system: System) -> Divided:
    """Openings from the bottom for things of these heights, `room` for the fingers above each; a
    shelf between each two.
    """
    if not heights:
        raise DividerTrouble("nothing is to stand there; expected a height for each opening")
    openings = [h + room for h in heights]
    need = sum(openings) + stock * (len(openings) - 1)
    left = span - need
    if left < 0:
        raise DividerTrouble(
            f"that needs {show(need, system, unit=True)} and there are "
            f"{show(span, system, unit=True)}: "
            f"{show(-left, system, unit=True)} too little. Leave out one opening, or give less "
            f"finger room"
        )
    openings[-1] += left
    at, y = [], 0
    for opening in openings[:-1]:
        y += opening
        at.append(y)
        y += stock
    said = (
        f"{show(left, system, unit=True)} left over went to the top opening"
        if left
        else "nothing left over"
    )
    return Divided(tuple(openings), tuple(at), left, said)


def drawers(span: int, count: int, gap: int, growth: float, system: System) -> Divided:
    """Fronts from the top with a gap above, between and below; each `growth` times the one above
    (1: all equal).
    """
    room = span - (count + 1) * gap
    weights = [growth**k for k in range(count)]
    step = step_of(system)
    fronts = [int(room * w / sum(weights)) // step * step for w in weights]
    if min(fronts) <= 0:
        raise DividerTrouble(
            f"{count} fronts with gaps of {show(gap, system, unit=True)} leave nothing for a "
            f"front; expected fewer drawers"
        )
    left = room - sum(fronts)
    fronts[-1] += left
    low_first = fronts[::-1]
    at, y = [], gap
    for front in low_first:
        at.append(y)
        y += front + gap
    said = (
        f"{show(left, system, unit=True)} left over went to the lowest front"
        if left
        else "nothing left over"
    )
    return Divided(tuple(low_first), tuple(at), left, said)


def slats(span: int, width: int, count: int, system: System) -> Divided:
    """So many slats between two posts with equal gaps, also at the ends."""
    free = span - count * width
    step = step_of(system)
    gap = free // (count + 1) // step * step
    if gap <= 0:
        raise DividerTrouble(
            f"{count} slats of {show(width, system, unit=True)} fill "
            f"{show(count * width, system, unit=True)} of "
            f"{show(span, system, unit=True)}; expected fewer or narrower slats"
        )
    left = free - gap * (count + 1)
    first = gap + left // 2
    gaps = [first, *[gap] * (count - 1), gap + left - left // 2]
    at = [first + k * (width + gap) for k in range(count)]
    said = (
        f"{show(left, system, unit=True)} left over went to the two outer gaps"
        if left
        else "nothing left over"
    )
    return Divided(tuple(gaps), tuple(at), left, said)


def slats_for_gap(span: int, width: int, wanted: int, system: System) -> Divided:
    """As many slats as come nearest to the wanted gap."""
    if wanted <= 0 or width <= 0:
        raise DividerTrouble("expected a width of slat and a gap of more than nothing")
    most = max(1, (span - wanted) // (width + wanted) + 1)
    fits = [n for n in range(max(1, most - 1), most + 2) if span - n * width > 0]
    if not fits:
        raise DividerTrouble(
            f"a slat of {show(width, system, unit=True)} does not go into "
            f"{show(span, system, unit=True)}"
        )
    best = min(fits, key=lambda n: abs((span - n * width) / (n + 1) - wanted))
    found = slats(span, width, best, system)
    inner = found.openings[1] if best > 1 else found.openings[0]
    return Divided(
        found.openings,
        found.at,
        found.left,
        f"{best} slats; the gap comes to {show(inner, system, unit=True)}; {found.said}",
    )
