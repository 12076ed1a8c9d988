"""From a scan to a surface: noise taken out, gaps filled, swellings found, and the warp as a maker
names it.

Each face is fitted by a smooth surface (products of Legendre polynomials, least squares), outliers
left out. What lies off it over several neighbouring heights together, beyond the noise, is no noise
and is put back.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from vividplank.core.board.board import Board, Warp
from vividplank.core.board.surface import Surface
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.survey.instruments import NoReading, Scan

Grid = npt.NDArray[np.float64]

#: Degrees of the smooth surface along and across: a board bends in long waves.
_ALONG, _ACROSS = 6, 3
#: The surface that is kept has no more places than this along and across.
_MOST_ALONG, _MOST_ACROSS = 49, 9
#: Nothing under this is called a swelling (in ticks).
_SWELLING = 0.012 * TICKS_PER_INCH


@dataclass(frozen=True)
class Swelling:
    """A place where the board is thicker than all around it, by so many ticks."""

    x: int
    y: int
    rise: float


@dataclass(frozen=True)
class Scanned:
    """The surface; `noise` found in one height; how sure a flat thickness taken from it is (95 in
    100), in ticks.

    `lost` is the share of heights that had to be filled in.
    """

    surface: Surface
    warp: Warp
    noise: float
    sure: float
    lost: float
    swellings: tuple[Swelling, ...]


def scanned(board: Board, scan: Scan) -> Scanned:
    """The surface of this board from a scan of it; NoReading where too little came back."""
    lower, upper = (np.array(face, dtype=np.float64) for face in (scan.lower, scan.upper))
    inside = np.array(
        [[board.edges(x)[0] <= y <= board.edges(x)[1] for y in scan.ys] for x in scan.xs]
    )
    lost = 1 - float(np.isfinite(lower[inside]).mean() + np.isfinite(upper[inside]).mean()) / 2
    if lost > 0.4:
        raise NoReading(
            f"{lost:.0%} of the heights are missing. Wipe the board, shade it from light, and "
            f"scan again."
        )
    u, v = _shares(scan.xs, board.length), _across(scan.ys)
    fits = [_Fit.of(face, u, v) for face in (lower, upper)]
    kept = [fit.smooth + fit.kept_back for fit in fits]
    noise = float(np.sqrt(sum(fit.noise**2 for fit in fits) / 2))
    xs, ys = _thinned(scan.xs, _MOST_ALONG), _thinned(scan.ys, _MOST_ACROSS)
    rows, columns = [scan.xs.index(x) for x in xs], [scan.ys.index(y) for y in ys]
    heights = [
        tuple(tuple(round(float(face[i, j])) for j in columns) for i in rows) for face in kept
    ]
    surface = Surface(xs, ys, heights[0], heights[1])
    # A slab rests on a handful of places of both faces, each as sure as the fit is at its corners.
    sure = 1.5 * max(fit.noise * fit.corner for fit in fits)
    swellings = _swellings(scan, fits, inside)
    return Scanned(surface, warp_of(board, surface), noise, sure, lost, swellings)


def warp_of(board: Board, surface: Surface) -> Warp:
    """Bow, cup and twist that come nearest to the underside of a surface, the board lying as it
    will.
    """
    rows, heights = [], []
    for i, x in enumerate(surface.xs):
        low, high = board.edges(min(max(x, 0), board.length))
        for j, y in enumerate(surface.ys):
            u, v = x / board.length, (y - low) / (high - low)
            if 0 <= u <= 1 and -0.01 <= v <= 1.01:
                rows.append((4 * u * (1 - u), 4 * v * (1 - v), u * v, 1.0, u, v))
                heights.append(surface.lower[i][j])
    found = np.linalg.lstsq(np.array(rows), np.array(heights), rcond=None)[0]
    return Warp(*(round(float(t)) for t in found[:3]))


@dataclass(frozen=True)
class _Fit:
    """`kept_back` is what is no noise and not smooth; `corner` how far the fit's own error grows at
    its corners.
    """

    smooth: Grid
    kept_back: Grid
    near: Grid
    noise: float
    corner: float

    @classmethod
    def of(cls, face: Grid, u: Grid, v: Grid) -> "_Fit":
        along = np.polynomial.legendre.legvander(u, min(_ALONG, len(u) - 1))
        across = np.polynomial.legendre.legvander(v, min(_ACROSS, len(v) - 1))
        terms = np.einsum("ia,jb->ijab", along, across).reshape(len(u), len(v), -1)
        good = np.isfinite(face)
        for _ in range(4):
            found = np.linalg.lstsq(terms[good], face[good], rcond=None)[0]
            smooth = terms @ found
            off = face - smooth
            noise = 1.4826 * float(np.nanmedian(np.abs(off)))
            good = np.isfinite(face) & (np.abs(off) <= 4 * max(noise, 1e-9))
        near, share = _neighbours(off)
        kept_back = np.where(np.abs(near) > 4.5 * noise * share, near, 0.0)
        spread = np.linalg.pinv(terms[good].T @ terms[good])
        corner = terms[0, 0]
        return cls(smooth, kept_back, near, noise, float(np.sqrt(corner @ spread @ corner)))


def _neighbours(off: Grid) -> tuple[Grid, Grid]:
    """The mean of what lies off in each place and its eight neighbours, and the share of the noise
    left in it.
    """
    known = np.isfinite(off)
    padded, counted = np.pad(np.where(known, off, 0.0), 1), np.pad(known.astype(float), 1)
    n, m = off.shape
    total, count = (
        sum(a[i : i + n, j : j + m] for i in range(3) for j in range(3)) for a in (padded, counted)
    )
    return total / np.maximum(count, 1), 1 / np.sqrt(np.maximum(count, 1))


def _swellings(scan: Scan, fits: list[_Fit], inside: npt.NDArray[np.bool_]) -> tuple[Swelling, ...]:
    """Places where the thickness stands above the smooth one over several neighbouring heights, the
    highest of each heap.
    """
    rise = np.where(inside, fits[1].near - fits[0].near, -np.inf)
    limit = max(_SWELLING, 6 * float(np.hypot(fits[0].noise, fits[1].noise)) / 3)
    found: list[Swelling] = []
    for i, j in sorted(zip(*np.nonzero(rise > limit), strict=True), key=lambda at: -rise[at]):
        x, y = scan.xs[i], scan.ys[j]
        if all(abs(x - s.x) + abs(y - s.y) > 4 * TICKS_PER_INCH for s in found):
            found.append(Swelling(x, y, float(rise[i, j])))
    return tuple(found)


def _shares(xs: tuple[int, ...], length: int) -> Grid:
    return 2 * np.array(xs, dtype=np.float64) / length - 1


def _across(ys: tuple[int, ...]) -> Grid:
    places: Grid = np.array(ys, dtype=np.float64)
    shares: Grid = 2 * (places - places[0]) / (places[-1] - places[0]) - 1
    return shares


def _thinned(places: tuple[int, ...], most: int) -> tuple[int, ...]:
    """At most so many of the places, evenly, both ends among them."""
    count = min(most, len(places))
    return tuple(places[round(k * (len(places) - 1) / (count - 1))] for k in range(count))
