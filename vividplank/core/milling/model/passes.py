"""How a cut is shared out over passes."""

from vividplank.core.measure import TICKS_PER_64TH


def equal_passes(depth: float, most: int, step: int = TICKS_PER_64TH) -> tuple[int, ...]:
    """Depths of the passes that take `depth` off, none deeper than `most`, the last the lightest.

    Rounded up to a whole `step`: a jointer that has taken too little has not flattened.

    >>> equal_passes(634, 254)
    (254, 254, 127)
    """
    if depth <= 0:
        return ()
    whole = -(-int(-(-depth // 1)) // step) * step
    full, rest = divmod(whole, most)
    return (most,) * full + ((rest,) if rest else ())


def settings(
    start: int, finish: int, most: int, usual: int, last: int, unit: float
) -> tuple[int, ...]:
    """Settings of a planer from the thickest place down to `finish`, in the order they are made.

    Every piece of one thickness meets the same settings, so that all of them go through at each and
    a thinner one joins when the setting has come down to it: they lie `last` over the finish, and
    from there up at steps of the usual pass, or of its half or quarter for a wide or hard piece
    that may lose no more than `most` at once. All are whole numbers of the dial's `unit` over the
    finish; so the last pass is light and the first takes what is left.

    >>> settings(1000, 600, 200, 200, 100, 50)
    (900, 700, 600)
    >>> settings(1000, 600, 120, 200, 100, 50)
    (900, 800, 700, 600)
    >>> settings(620, 600, 200, 200, 100, 50)
    (600,)
    """
    if start <= finish:
        return ()
    whole = max(1, int(usual / unit + 1e-9))
    whole -= whole % 2 if whole > 1 else 0
    each = whole
    while each > 1 and each * unit > most:
        each //= 2
    light = min(max(1, int(last / unit + 1e-9)), each)
    found = [finish]
    at = light
    while finish + at * unit < start - 0.5:
        found.append(finish + round(at * unit))
        at += each
    return tuple(reversed(found))


def depths(start: int, made: tuple[int, ...]) -> tuple[int, ...]:
    """What each of these settings takes from `start` on.

    >>> depths(1000, (900, 700, 600))
    (100, 200, 100)
    """
    return tuple(a - b for a, b in zip((start, *made), made, strict=False))
