"""The oriented bounding box of a solid along its own dominant planes, and whether two solids are
the same thing.
"""

from dataclasses import dataclass
from itertools import permutations, product
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import ConvexHull, QhullError, cKDTree

Array = NDArray[np.float64]

#: Two solids are one part when no point of theirs differs by more (mm).
SAME_MM = 0.1
#: Normals closer than this (radians) are one direction.
_ONE_DIRECTION = 0.002
#: How many of the largest directions are tried as faces of the box.
_CANDIDATES = 6
#: A solid of more triangles than this is curved somewhere; its largest faces are most of it where
#: they are this share.
_MANY, _MOSTLY = 60, 0.6
#: A box that lies along no face is taken where it is smaller by so much, or at all where less than
#: this share of the two : sides across its largest faces is flat.
_CLEARLY, _A_SIDE = 0.95, 0.4
#: Two curved solids are one part where no moment of theirs differs by more than this share.
_ALIKE = 3e-3
#: A point is a corner where the planes round it spread by more than this (the least eigenvalue of
#: their normals' spread).
_CORNER = 1e-3
#: A section of at least so many corners, none nearer to the axis than this share of the farthest,
#: is round.
_CORNERS, _ROUND = 12, 0.985


@dataclass(frozen=True)
class Box:
    """`axes` rows are length, width and thickness as unit vectors (right-handed); `size` in the
    unit of the solid.
    """

    axes: Array
    centre: Array
    size: tuple[float, float, float]

    @property
    def volume(self) -> float:
        return self.size[0] * self.size[1] * self.size[2]


@dataclass(frozen=True)
class Solid:
    """One body of a model as a triangle mesh in mm: vertices (n, 3), faces (m, 3)."""

    ref: str
    name: str
    vertices: Array
    faces: NDArray[np.int64]
    layer: str = ""

    def corners(self) -> Array:
        return self.vertices[self.faces]

    @property
    def volume(self) -> float:
        """Of the closed body: the sum of the tetrahedra to its middle, so that far from the origin
        costs no digits.
        """
        a, b, c = np.moveaxis(self.corners() - self.vertices.mean(axis=0), 1, 0)
        return float(abs(np.einsum("ij,ij->i", a, np.cross(b, c)).sum()) / 6)

    @property
    def closed(self) -> bool:
        """Every edge belongs to two faces."""
        edges = np.sort(
            np.concatenate([self.faces[:, [0, 1]], self.faces[:, [1, 2]], self.faces[:, [2, 0]]]),
            axis=1,
        )
        _, counts = np.unique(edges[:, 0] * len(self.vertices) + edges[:, 1], return_counts=True)
        return bool(len(counts) and np.all(counts % 2 == 0))


def oriented_box(solid: Solid) -> Box:
    """The least box with one side along the solid's largest flat faces and another along faces
    square to them.

    Of all pairs of the six largest face directions the smallest box wins; where sizes tie, the
    larger faces. A curved solid has many small faces: there the least rectangle across each
    direction is tried as well, and the least box of all round its hull, and taken where they are
    clearly smaller. What was turned on a lathe lies along its axis.
    """
    directions, areas = _directions(solid)
    points = _hull(solid.vertices)
    curved, surface = len(solid.faces) > _MANY, _surface(solid)
    if turned := _turned(solid):
        return turned
    best: tuple[float, float, Box] | None = None
    flat = 1.0  # share of the best box's sides along `second` that are flat
    for i, first in enumerate(directions):
        frames = [
            (areas[i] + areas[j], other)
            for j, other in enumerate(directions)
            if j != i and abs(float(first @ other)) < _ONE_DIRECTION
        ]
        if not frames:
            frames = [(areas[i], _least_turn(points, first))]
        elif curved:
            frames.append((-1.0, _least_turn(points, first)))
        for area, second in frames:
            box = _box(points, first, second)
            margin = 1 - 1e-6 if area >= 0 or flat < _A_SIDE else _CLEARLY
            if (
                best is None
                or box.volume < best[0] * margin
                or (box.volume <= best[0] * (1 + 1e-6) and area > best[1])
            ):
                best = (box.volume, float(area), box)
                flat = (
                    (area - areas[i]) * float(np.ptp(points @ second)) / (2 * box.volume)
                    if area > areas[i]
                    else 1.0
                )
    assert best is not None  # a mesh with faces has directions
    if curved and sum(areas) < _MOSTLY * surface:
        least = _least_box(points)
        if least is not None and least.volume < _CLEARLY * best[0]:
            return least
    return best[2]


def same(one: Solid, other: Solid, box: Box, other_box: Box) -> str:
    """ "same", "mirrored" or "" for two solids by their boxes and their points in them."""
    closed = one.closed and other.closed
    curved = closed and min(len(one.faces), len(other.faces)) > _MANY
    apart = max(SAME_MM, _ALIKE * box.size[0]) if curved else SAME_MM
    if any(abs(a - b) > apart for a, b in zip(box.size, other_box.size, strict=True)):
        return ""
    if (
        closed
        and abs(one.volume - other.volume) > (_ALIKE if curved else 1e-3) * box.volume + SAME_MM**3
    ):
        return ""
    here = (one.vertices - box.centre) @ box.axes.T
    there = (other.vertices - other_box.centre) @ other_box.axes.T
    corners, other_corners = here[_corners(one)], there[_corners(other)]
    near, mirrored = cKDTree(corners), ""
    size = np.array(box.size)
    if curved and abs(_surface(one) - _surface(other)) > 2 * _ALIKE * _surface(one):
        return ""
    moments = _moments(here, one.faces, size) if curved else None
    for order in permutations(range(3)):
        if np.any(np.abs(size[list(order)] - size) > SAME_MM):
            continue
        for signs in product((1, -1), repeat=3):
            if moments is not None:
                # Curved faces are cut into triangles otherwise in every place; what they enclose is
                # the same.
                flip = _handed(order) * signs[0] * signs[1] * signs[2] < 0
                faces = other.faces[:, ::-1] if flip else other.faces
                alike = (
                    float(np.abs(_moments(there[:, order] * signs, faces, size) - moments).max())
                    <= _ALIKE
                )
            else:
                turned = other_corners[:, order] * signs
                alike = (
                    max(
                        float(near.query(turned)[0].max()),
                        float(cKDTree(turned).query(corners)[0].max()),
                    )
                    <= SAME_MM
                )
            if not alike:
                continue
            if _handed(order) * signs[0] * signs[1] * signs[2] > 0:
                return "same"
            mirrored = "mirrored"
    return mirrored


def _corners(solid: Solid) -> Any:
    """Which points of a solid are corners of it, not points on an edge or a face where triangles
    happen to meet.
    """
    a, b, c = np.moveaxis(solid.corners(), 1, 0)
    normals = np.cross(b - a, c - a)
    longest = np.maximum.reduce(
        [
            np.linalg.norm(b - a, axis=1),
            np.linalg.norm(c - b, axis=1),
            np.linalg.norm(a - c, axis=1),
        ]
    )
    double = np.linalg.norm(normals, axis=1)
    sound = double > SAME_MM * longest  # a sliver's normal is chance
    if not sound.any():
        return slice(None)
    units = normals[sound] / double[sound, None]
    spread = np.zeros((len(solid.vertices), 3, 3))
    for k in range(3):
        np.add.at(spread, solid.faces[sound, k], units[:, :, None] * units[:, None, :])
    found = np.linalg.eigvalsh(spread)[:, 0] > _CORNER
    return found if found.any() else slice(None)


def outline(solid: Solid, box: Box) -> list[tuple[float, float]]:
    """The silhouette in length × width from the box's corner, empty where it fills its
    rectangle.
    """
    from shapely import union_all
    from shapely.geometry import Polygon

    flat = ((solid.corners() - box.centre) @ box.axes.T)[:, :, :2] + np.array(box.size[:2]) / 2
    sides = flat[:, 1:] - flat[:, :1]
    areas = np.abs(sides[:, 0, 0] * sides[:, 1, 1] - sides[:, 0, 1] * sides[:, 1, 0])
    triangles = [Polygon(t) for t in flat[areas > 1e-9]] if len(flat) <= 4000 else []
    shape = (
        union_all(triangles, grid_size=1e-3) if triangles else Polygon(_ring(flat.reshape(-1, 2)))
    )
    if shape.geom_type != "Polygon":
        shape = max(shape.geoms, key=lambda g: g.area)
    shape = shape.simplify(0.05)
    if shape.area > 0.999 * box.size[0] * box.size[1]:
        return []
    return [(float(x), float(y)) for x, y in shape.exterior.coords[:-1]]


def _surface(solid: Solid) -> float:
    a, b, c = np.moveaxis(solid.corners(), 1, 0)
    return float(np.linalg.norm(np.cross(b - a, c - a), axis=1).sum() / 2)


#: Points and weights that integrate cubics over a tetrahedron exactly (Keast, 1986), as shares of
#: its corners.
_QUADRATURE = (
    (-0.8, (0.25, 0.25, 0.25, 0.25)),
    *((0.45, tuple(0.5 if k == j else 1 / 6 for j in range(4))) for k in range(4)),
)


def _moments(points: Array, faces: NDArray[np.int64], size: Array) -> Array:
    """The moments up to the third of a closed body about the middle of its box, as shares of the
    box.
    """
    corners = (points / (size / 2))[faces]
    whole = np.concatenate([np.zeros((len(corners), 1, 3)), corners], axis=1)
    volumes = np.einsum("ij,ij->i", corners[:, 0], np.cross(corners[:, 1], corners[:, 2])) / 6
    total = np.zeros(20)
    for weight, shares in _QUADRATURE:
        x, y, z = np.einsum("k,nkc->cn", np.array(shares), whole)
        one = np.ones_like(x)
        terms = [
            one,
            x,
            y,
            z,
            x * x,
            y * y,
            z * z,
            x * y,
            y * z,
            z * x,
            x**3,
            y**3,
            z**3,
            x * x * y,
            x * x * z,
            y * y * x,
            y * y * z,
            z * z * x,
            z * z * y,
            x * y * z,
        ]
        total += weight * np.array([float((volumes * t).sum()) for t in terms])
    return np.asarray(total / 8)


def _turned(solid: Solid) -> Box | None:
    """The box of a solid that is round about an axis: by its diameter, which no facet of it shows.
    None for any other.
    """
    if len(solid.faces) <= _MANY or not solid.closed:
        return None
    a, b, c = np.moveaxis(solid.corners() - solid.vertices.mean(axis=0), 1, 0)
    volumes = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6
    if abs(float(volumes.sum())) < 1e-9:
        return None
    middle = np.einsum("i,ij->j", volumes, a + b + c) / (4 * volumes.sum())
    a, b, c = a - middle, b - middle, c - middle
    volumes = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6
    whole = a + b + c
    second = (
        sum(np.einsum("i,ij,ik->jk", volumes, p, p) for p in (a, b, c, whole)) / 20
    )  # of tetrahedra to the middle
    spread, axes = np.linalg.eigh(second / volumes.sum())
    low, mid, high = (float(s) for s in spread)
    axis = (
        axes[:, 2]
        if abs(mid - low) < 0.02 * mid
        else axes[:, 0]
        if abs(high - mid) < 0.02 * mid
        else None
    )
    if axis is None:
        return None
    helper = np.eye(3)[int(np.argmin(np.abs(axis)))]
    u = np.cross(axis, helper)
    u /= np.linalg.norm(u)
    v = np.cross(axis, u)
    points = solid.vertices - solid.vertices.mean(axis=0) - middle
    ring = np.array(_ring(points @ np.array([u, v]).T))
    radii = np.linalg.norm(ring, axis=1)
    if len(ring) < _CORNERS or float(radii.min()) < _ROUND * float(radii.max()):
        return None
    along = points @ axis
    low, high, wide = float(along.min()), float(along.max()), 2 * float(radii.max())
    centre = solid.vertices.mean(axis=0) + middle + axis * (low + high) / 2
    if high - low >= wide:
        return Box(np.array([axis, u, v]), centre, (high - low, wide, wide))
    return Box(np.array([u, v, axis]), centre, (wide, wide, high - low))


def _least_box(points: Array) -> Box | None:
    """The least box of any direction round the points (the least over the faces of their hull;
    O'Rourke, 1985, is exact).
    """
    from trimesh.bounds import oriented_bounds

    try:
        to_origin, _ = oriented_bounds(points)  # type: ignore[no-untyped-call]
    except (QhullError, ValueError):
        return None
    axes = np.asarray(to_origin)[:3, :3]
    return _box(points, axes[0], axes[1])


def _directions(solid: Solid) -> tuple[list[Array], list[float]]:
    """The largest face directions, opposite ones as one, and the area of each."""
    a, b, c = np.moveaxis(solid.corners(), 1, 0)
    normals = np.cross(b - a, c - a)
    areas = np.linalg.norm(normals, axis=1) / 2
    keep = areas > 1e-12 * max(float(areas.max(initial=0.0)), 1e-30)
    normals, areas = normals[keep] / (2 * areas[keep, None]), areas[keep]
    # One half of the sphere; the sign of the first coordinate that is clearly not nothing decides.
    first = np.argmax(np.abs(normals) > 1e-6, axis=1)
    normals *= np.sign(normals[np.arange(len(normals)), first])[:, None]
    steps = np.round((normals + 1) / _ONE_DIRECTION).astype(np.int64)
    _, group = np.unique(
        (steps[:, 0] << 20) | (steps[:, 1] << 10) | steps[:, 2], return_inverse=True
    )
    total = np.bincount(group, areas)
    order = np.argsort(-total)[: 4 * _CANDIDATES]
    found: list[Array] = []
    weights: list[float] = []
    for g in order:
        mean = (normals[group == g] * areas[group == g, None]).sum(axis=0)
        mean /= np.linalg.norm(mean)
        near = next(
            (k for k, f in enumerate(found) if abs(abs(float(f @ mean)) - 1) < _ONE_DIRECTION**2),
            None,
        )
        if near is None:
            found.append(mean)
            weights.append(float(total[g]))
        else:
            weights[near] += float(total[g])
    ranked = sorted(range(len(found)), key=lambda k: -weights[k])[:_CANDIDATES]
    return [found[k] for k in ranked], [weights[k] for k in ranked]


def _box(points: Array, first: Array, second: Array) -> Box:
    second = second - first * float(first @ second)
    second = second / np.linalg.norm(second)
    axes = np.array([first, second, np.cross(first, second)])
    along = points @ axes.T
    low, high = along.min(axis=0), along.max(axis=0)
    order = np.argsort(-(high - low), kind="stable")
    turned = axes[order]
    if np.linalg.det(turned) < 0:
        turned[2] = -turned[2]
    size = (high - low)[order]
    return Box(turned, ((low + high) / 2) @ axes, (float(size[0]), float(size[1]), float(size[2])))


def _least_turn(points: Array, normal: Array) -> Array:
    """The direction in the plane square to `normal` that makes the least rectangle round the
    points.
    """
    helper = np.eye(3)[int(np.argmin(np.abs(normal)))]
    u = np.cross(normal, helper)
    u /= np.linalg.norm(u)
    v = np.cross(normal, u)
    ring = np.array(_ring(points @ np.array([u, v]).T))
    edges = np.roll(ring, -1, axis=0) - ring
    best = min(edges, key=lambda e: _rectangle(ring, e))
    turn: Array = (u * best[0] + v * best[1]) / np.linalg.norm(best)
    return turn


def _rectangle(ring: Array, edge: Array) -> float:
    length = float(np.linalg.norm(edge))
    if length < 1e-9:
        return float("inf")
    along = ring @ (edge / length)
    across = ring @ (np.array([-edge[1], edge[0]]) / length)
    return float(np.ptp(along) * np.ptp(across))


def _ring(flat: Array) -> list[tuple[float, float]]:
    hull = ConvexHull(flat, qhull_options="QJ")
    return [(float(flat[i, 0]), float(flat[i, 1])) for i in hull.vertices]


def _hull(points: Array) -> Array:
    """Fewer points with the same extents."""
    if len(points) < 200:
        return points
    try:
        outer: Array = points[ConvexHull(points).vertices]
    except QhullError:
        return points
    return outer


def _handed(order: tuple[int, ...]) -> int:
    return round(float(np.linalg.det(np.eye(3)[list(order)])))
