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


def thickness_passes(start: int, finish: int, usual: int, last: int) -> tuple[int, ...]:
    """Planer passes from the thickest place down to `finish`, ending exactly there with a light
    one.

    >>> thickness_passes(1000, 600, 200, 100)
    (200, 100, 100)
    >>> thickness_passes(650, 600, 200, 100)
    (50,)
    """
    depth = start - finish
    if depth <= 0:
        return ()
    if depth <= last:
        return (depth,)
    full, rest = divmod(depth - last, usual)
    return (usual,) * full + ((rest,) if rest else ()) + (last,)
