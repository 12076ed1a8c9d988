"""How long a board must rest before it is worked, how that was estimated, and how sure it is.

Wood that follows the air is a slab that dries from both faces: of the distance to equilibrium there is left, on the
average, 8/π² · exp(−π²·D·t / T²) after the time t (Fick's law, the first term; Siau, Transport Processes in Wood, 1984).
Across the grain of seasoned hardwoods in a room, D lies between about 1 and 4 · 10⁻¹⁰ m²/s; two readings of the same
board say where.
"""

from dataclasses import dataclass
from math import exp, log, pi

from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.timber.moisture import equilibrium_moisture

#: Readings above the shop's own equilibrium by more than this: let it rest first (% points).
_POINTS = 2.0
#: It has come to rest when it is as near as this.
_NEAR = 0.5
_SLOW, _USUAL, _FAST = 1e-10, 2e-10, 4e-10
_DAY = 86_400.0


@dataclass(frozen=True)
class Climate:
    """The shop's air over the year: temperature in °C, relative humidity from 0 to 1."""

    celsius: float = 20.0
    humidity: float = 0.5

    @property
    def equilibrium(self) -> float:
        """Moisture in % to which wood comes in it."""
        return equilibrium_moisture(self.celsius, self.humidity)


@dataclass(frozen=True)
class Moisture:
    """A reading of a board's moisture in %, at a place of it in ticks or somewhere on it.

    `day` counts from 1970-01-01, as the core has no calendar.
    """

    percent: float
    day: int
    x: int | None = None
    y: int | None = None


def by_day(readings: tuple[Moisture, ...]) -> list[tuple[float, int, float]]:
    """For each day its mean, the day, and how far the driest and the wettest place lie apart."""
    days: dict[int, list[float]] = {}
    for reading in readings:
        days.setdefault(reading.day, []).append(reading.percent)
    return [(sum(found) / len(found), day, max(found) - min(found)) for day, found in sorted(days.items())]


@dataclass(frozen=True)
class Rest:
    """`days` from the last reading until it is within half a point, with the least and the most that may be.

    All are 0 where it may be worked at once. `away` is how far its moisture is above equilibrium, in points. `own` tells
    that the speed is this board's, from two days' readings; `uneven` is how far the places of the last day lie apart.
    """

    equilibrium: float
    away: float
    days: float
    least: float
    most: float
    own: bool
    uneven: float = 0.0

    @property
    def work_now(self) -> bool:
        return self.days == 0


def rest(readings: tuple[Moisture, ...], thickness: int, climate: Climate) -> Rest | None:
    """What the readings (in the order of their days) say of a board of this thickness in ticks; None without any."""
    if not readings:
        return None
    days = by_day(readings)
    mean, _, uneven = days[-1]
    equilibrium = climate.equilibrium
    away = mean - equilibrium
    if abs(away) <= _POINTS:
        return Rest(equilibrium, away, 0.0, 0.0, 0.0, False, uneven)
    own = _own_speed(days, thickness, equilibrium)
    if own:
        return Rest(
            equilibrium,
            away,
            _days(away, thickness, own),
            _days(away, thickness, own * 1.3),
            _days(away, thickness, own / 1.3),
            True,
            uneven,
        )
    usual, least, most = (_days(away, thickness, speed) for speed in (_USUAL, _FAST, _SLOW))
    return Rest(equilibrium, away, usual, least, most, False, uneven)


def left_after(days: float, thickness: int, speed: float = _USUAL) -> float:
    """The share of the distance to equilibrium that is left, on the average through the thickness."""
    metres = thickness / TICKS_PER_MM / 1000
    return min(1.0, 8 / pi**2 * exp(-(pi**2) * speed * days * _DAY / metres**2))


def _days(away: float, thickness: int, speed: float) -> float:
    metres = thickness / TICKS_PER_MM / 1000
    share = _NEAR / abs(away)
    # Under a share of 8/π² the first term holds; nearer than that it is there at once.
    return max(0.0, metres**2 / (pi**2 * speed) * log(8 / pi**2 / share) / _DAY)


def _own_speed(by_day: list[tuple[float, int, float]], thickness: int, equilibrium: float) -> float | None:
    """The speed that the last two days show; None where they tell nothing: too near, too soon, or the wrong way."""
    if len(by_day) < 2:
        return None
    (first, first_day, _), (second, second_day, _) = by_day[-2:]
    before, after = first - equilibrium, second - equilibrium
    days = second_day - first_day
    if days < 2 or before * after <= 0 or abs(after) >= abs(before) - 0.3:
        return None
    metres = thickness / TICKS_PER_MM / 1000
    speed = log(before / after) * metres**2 / (pi**2 * days * _DAY)
    return min(max(speed, _SLOW / 4), _FAST * 4)
