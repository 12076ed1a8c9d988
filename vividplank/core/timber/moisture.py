"""How wood follows the air."""

#: The change coefficients hold between these moistures in % (Wood Handbook, table 13-5: 6 to 14 %).
COEFFICIENTS_HOLD = (6.0, 14.0)


def equilibrium_moisture(celsius: float, humidity: float) -> float:
    """Equilibrium moisture content in %, at relative `humidity` from 0 to 1 (Hailwood–Horrobin,
    Wood Handbook 4-5).

    >>> round(equilibrium_moisture(21.1, 0.5), 1)
    9.2
    """
    if not 0 <= humidity < 1:
        raise ValueError(f"humidity is {humidity}; expected a share from 0 to below 1")
    t, h = celsius, humidity
    w = 349 + 1.29 * t + 0.0135 * t**2
    k = 0.805 + 0.000736 * t - 0.00000273 * t**2
    k1 = 6.27 - 0.00938 * t - 0.000303 * t**2
    k2 = 1.91 + 0.0407 * t - 0.000293 * t**2
    return (
        1800
        / w
        * (
            k * h / (1 - k * h)
            + (k1 * k * h + 2 * k1 * k2 * (k * h) ** 2) / (1 + k1 * k * h + k1 * k2 * (k * h) ** 2)
        )
    )


def movement(width: float, coefficient: float, moisture_change: float) -> float:
    """Change in width, in the unit of `width`, for a change of moisture in % (Wood Handbook, eq.
    13-2).

    The coefficients hold from 6 to 14 %; see `coefficients_hold`.

    A 12 in flat-sawn white oak panel going from 8 % to 11 %:

    >>> round(movement(12, 0.00365, 3), 3)
    0.131
    """
    return width * coefficient * moisture_change


def coefficients_hold(*moistures: float) -> bool:
    """Whether all of these moistures in % lie where the change coefficients were measured."""
    return all(COEFFICIENTS_HOLD[0] <= m <= COEFFICIENTS_HOLD[1] for m in moistures)
