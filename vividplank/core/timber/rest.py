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
    """A reading of a board's moisture in %; `day` counts from 1970-01-01, as the core has no calendar."""

    percent: float
    day: int


@dataclass(frozen=True)
class Rest:
    """`days` from the last reading until it is within half a point, with the least and the most that may be.

    All are 0 where it may be worked at once. `away` is how far its moisture is above equilibrium, in points. `own` tells
    that the speed is this board's, from two readings.
    """

    equilibrium: float
    away: float
    days: float
    least: float
    most: float
    own: bool

    @property
    def work_now(self) -> bool:
        return self.days == 0


def rest(readings: tuple[Moisture, ...], thickness: int, climate: Climate) -> Rest | None:
    """What the readings (in the order of their days) say of a board of this thickness in ticks; None without any."""
    if not readings:
        return None
    last = readings[-1]
    equilibrium = climate.equilibrium
    away = last.percent - equilibrium
    if abs(away) <= _POINTS:
        return Rest(equilibrium, away, 0.0, 0.0, 0.0, False)
    own = _own_speed(readings, thickness, equilibrium)
    if own:
        return Rest(
            equilibrium,
            away,
            _days(away, thickness, own),
            _days(away, thickness, own * 1.3),
            _days(away, thickness, own / 1.3),
            True,
        )
    return Rest(
        equilibrium, away, _days(away, thickness, _USUAL), _days(away, thickness, _FAST), _days(away, thickness, _SLOW), False
    )


def left_after(days: float, thickness: int, speed: float = _USUAL) -> float:
    """The share of the distance to equilibrium that is left, on the average through the thickness."""
    metres = thickness / TICKS_PER_MM / 1000
    return min(1.0, 8 / pi**2 * exp(-(pi**2) * speed * days * _DAY / metres**2))


def _days(away: float, thickness: int, speed: float) -> float:
    metres = thickness / TICKS_PER_MM / 1000
    share = _NEAR / abs(away)
    # Under a share of 8/π² the first term holds; nearer than that it is there at once.
    return max(0.0, metres**2 / (pi**2 * speed) * log(8 / pi**2 / share) / _DAY)


def _own_speed(readings: tuple[Moisture, ...], thickness: int, equilibrium: float) -> float | None:
    """The speed that the last two readings show; None where they tell nothing: too near, too soon, or the wrong way."""
    if len(readings) < 2:
        return None
    (first, second) = readings[-2:]
    before, after = first.percent - equilibrium, second.percent - equilibrium
    days = second.day - first.day
    if days < 2 or before * after <= 0 or abs(after) >= abs(before) - 0.3:
        return None
    metres = thickness / TICKS_PER_MM / 1000
    speed = log(before / after) * metres**2 / (pi**2 * days * _DAY)
    return min(max(speed, _SLOW / 4), _FAST * 4)
