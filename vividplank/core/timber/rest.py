"""How long a board must rest before it is worked, how that was estimated, and how sure it is.

Wood that follows the air is a slab that dries from both faces. Of a distance to equilibrium that
was even through the thickness there is left, on the average, 8/π² · exp(−π²·D·t / T²) after the
time t (Fick's law, the first term); once it dries, exp(−π²·D·t / T²) of what was left before. D is
`diffusion`; two days' readings of the same board say its own.

J. F. Siau, Transport Processes in Wood, Springer 1984: chapter 6 (bound water, gross wood), chapter
7 (unsteady state).
"""

from dataclasses import dataclass
from math import exp, log, pi, sqrt
from typing import Annotated

from pydantic import Field

from vividplank.core.fields import Ticks
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.timber.moisture import equilibrium_moisture

#: Readings above the shop's own equilibrium by more than this: let it rest first (% points).
_POINTS = 2.0
#: It has come to rest when it is as near as this.
_NEAR = 0.5
#: Boards of one wood differ by about this factor either way from the model.
_SPREAD = 2.0
#: What a wood that is not in the table is taken for: specific gravity of the middle of it.
_USUAL_GRAVITY = 0.55
_GAS = 8.314
#: Two readings of a board tell no speed beyond these, which are beyond what the model gives any
#: wood in a room.
_SLOWEST, _FASTEST = 2e-12, 2e-9
_DAY = 86_400.0
_START = 8 / pi**2


@dataclass(frozen=True)
class Climate:
    """The shop's air over the year: temperature in °C, relative humidity from 0 to 1."""

    celsius: Annotated[float, Field(ge=-20, le=60, allow_inf_nan=False)] = 20.0
    humidity: Annotated[float, Field(ge=0, lt=1, allow_inf_nan=False)] = 0.5

    @property
    def equilibrium(self) -> float:
        """Moisture in % to which wood comes in it."""
        return equilibrium_moisture(self.celsius, self.humidity)


@dataclass(frozen=True)
class Moisture:
    """A reading of a board's moisture in %, at a place of it in ticks or somewhere on it.

    `day` counts from 1970-01-01, as the core has no calendar.
    """

    percent: Annotated[float, Field(gt=0, le=100, allow_inf_nan=False)]
    day: Annotated[int, Field(strict=True, ge=0, le=100_000)]
    x: Ticks | None = None
    y: Ticks | None = None


def by_day(readings: tuple[Moisture, ...]) -> list[tuple[float, int, float]]:
    """For each day its mean, the day, and how far the driest and the wettest place lie apart."""
    days: dict[int, list[float]] = {}
    for reading in readings:
        days.setdefault(reading.day, []).append(reading.percent)
    return [
        (sum(found) / len(found), day, max(found) - min(found))
        for day, found in sorted(days.items())
    ]


@dataclass(frozen=True)
class Rest:
    """`days` from the last reading until it is within half a point, with the least and the most
    that may be; `workable` until it is within two points, when it may be worked.

    `away` is how far its moisture is above equilibrium, in points. `own` tells that the speed is
    this board's, from two days' readings; `uneven` is how far the places of the last day lie apart.
    """

    equilibrium: float
    away: float
    days: float
    least: float
    most: float
    own: bool
    uneven: float = 0.0
    workable: float = 0.0

    @property
    def work_now(self) -> bool:
        return abs(self.away) <= _POINTS


def diffusion(specific_gravity: float, moisture: float, celsius: float) -> float:
    """How fast moisture moves across the grain of seasoned wood, in m²/s (Siau's transverse model).

    `specific_gravity` at about that `moisture` in %. D = D_BT / ((1 − v)(1 − √v)) with the porosity
    v = 1 − G(0.667 + 0.01·M) and, for the bound water of the cell wall, D_BT = 7·10⁻⁶ · exp(−(38500
    − 290·M) / R·T).

    White oak and yellow poplar at 20 °C and 10 %:

    >>> [f"{diffusion(g, 10, 20):.1e}" for g in (0.68, 0.42)]
    ['2.0e-11', '5.6e-11']
    """
    held = min(max(moisture, 1.0), 28.0)
    kelvin = celsius + 273.15
    wall = 7e-6 * exp(-(38_500 - 290 * held) / (_GAS * kelvin))
    porosity = 1 - specific_gravity * (0.667 + 0.01 * held)
    return wall / ((1 - porosity) * (1 - sqrt(porosity)))


def rest(
    readings: tuple[Moisture, ...],
    thickness: int,
    climate: Climate,
    specific_gravity: float | None = None,
) -> Rest | None:
    """What the readings (in the order of their days) say of a board of this thickness in ticks;
    None without any.
    """
    if not readings:
        return None
    days = by_day(readings)
    mean, _, uneven = days[-1]
    equilibrium = climate.equilibrium
    away = mean - equilibrium
    own = _own_speed(days, thickness, equilibrium)
    speed = own or diffusion(
        specific_gravity or _USUAL_GRAVITY, (mean + equilibrium) / 2, climate.celsius
    )
    drying = own is not None or _nearer(days, equilibrium)
    spread = 1.3 if own else _SPREAD

    def until(near: float, speed: float) -> float:
        return _days(away, near, thickness, speed, 1.0 if drying else _START)

    return Rest(
        equilibrium,
        away,
        until(_NEAR, speed),
        until(_NEAR, speed * spread),
        until(_NEAR, speed / spread),
        own is not None,
        uneven,
        until(_POINTS, speed),
    )


def left_after(days: float, thickness: int, speed: float) -> float:
    """The share of an even distance to equilibrium that is left, on the average through the
    thickness.
    """
    return min(1.0, _START * exp(-(pi**2) * speed * days * _DAY / _metres(thickness) ** 2))


def _metres(thickness: int) -> float:
    return thickness / TICKS_PER_MM / 1000


def _days(away: float, near: float, thickness: int, speed: float, start: float) -> float:
    """Until `away` has become `near`; `start` is what the first term of the series begins with."""
    if abs(away) <= near:
        return 0.0
    return max(
        0.0, _metres(thickness) ** 2 / (pi**2 * speed) * log(start * abs(away) / near) / _DAY
    )


def _nearer(by_day: list[tuple[float, int, float]], equilibrium: float) -> bool:
    """Whether it came nearer to equilibrium since the day before: then it dries already, and is no
    longer even inside.
    """
    return len(by_day) > 1 and abs(by_day[-1][0] - equilibrium) < abs(by_day[-2][0] - equilibrium)


def _own_speed(
    by_day: list[tuple[float, int, float]], thickness: int, equilibrium: float
) -> float | None:
    """The speed that the last two days show; None where they tell nothing: too near, too soon, or
    the wrong way.
    """
    if len(by_day) < 2:
        return None
    (first, first_day, _), (second, second_day, _) = by_day[-2:]
    before, after = first - equilibrium, second - equilibrium
    days = second_day - first_day
    if days < 2 or before * after <= 0 or abs(after) >= abs(before) - 0.3:
        return None
    speed = log(before / after) * _metres(thickness) ** 2 / (pi**2 * days * _DAY)
    return min(max(speed, _SLOWEST), _FASTEST)
