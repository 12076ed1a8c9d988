"""Pictures of a model: each body's faces, drawn from behind to in front, so that every part can be
pointed at.
"""

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import ConvexHull, QhullError

from vividplank.core.takeoff.model.found import Point, Seen, View
from vividplank.core.takeoff.solids.oriented_box import Solid

Array = NDArray[np.float64]

#: Where the viewer stands, seen from the model (z up), and what is up on the picture.
_VIEWS = (
    ("three-quarter", (0.62, -0.68, 0.40)),
    ("front", (0.0, -1.0, 0.0)),
    ("side", (1.0, 0.0, 0.0)),
    ("plan", (0.0, 0.0, 1.0)),
)
#: A body of more flat faces is drawn by the outline of its hull alone.
_MOST_FACES = 300
#: A body of more triangles is sounded by its points alone.
_MOST_SOUNDED = 3000


def pictures(solids: list[Solid], *, y_up: bool = False) -> tuple[View, ...]:
    """Three-quarter, front, side and plan view, in mm, y down."""
    if y_up:
        turn = np.array([[1.0, 0, 0], [0, 0, -1], [0, 1, 0]])
        solids = [Solid(s.ref, s.name, s.vertices @ turn.T, s.faces, s.layer) for s in solids]
    return tuple(_view(name, solids, np.array(eye) / np.linalg.norm(eye)) for name, eye in _VIEWS)


def _view(name: str, solids: list[Solid], eye: Array) -> View:
    up = np.array([0.0, 1.0, 0.0]) if abs(eye[2]) > 0.9 else np.array([0.0, 0.0, 1.0])
    right = np.cross(up, eye)
    right /= np.linalg.norm(right)
    frame = np.array([right, -np.cross(eye, right)])
    flat = [s.vertices @ frame.T for s in solids]
    low = np.min([f.min(axis=0) for f in flat], axis=0)
    high = np.max([f.max(axis=0) for f in flat], axis=0)
    shapes: list[Seen] = []
    for i in _from_behind(solids, flat, eye, low, high):
        shapes.extend(_faces(solids[i], flat[i] - low, eye))
    return View(name, float(high[0] - low[0]), float(high[1] - low[1]), tuple(shapes))


def _from_behind(
    solids: list[Solid], flat: list[Array], eye: Array, low: Array, high: Array
) -> list[int]:
    """An order in which as little as can be is drawn over by what stands behind it.

    Every body is sounded for its nearest depth on a coarse grid; of two that meet there, the one
    nearer in more places is drawn later. That holds for tenons inside their mortises too. Bodies
    that hold each other in a ring are taken by the least that goes wrong.
    """
    n = len(solids)
    cells = 160 if n <= 150 else 96 if n <= 600 else 48
    scale = cells / max(float((high - low).max()), 1e-9)
    width, height = (int(np.ceil(v * scale)) + 1 for v in high - low)
    depth = np.full((n, height, width), -np.inf, dtype=np.float32)
    for i, solid in enumerate(solids):
        _sound(depth[i], (flat[i] - low) * scale, solid.vertices @ eye, solid.faces)
    there = np.isfinite(depth)
    nearer = np.zeros((n, n))  # [i, j]: in so many places j is nearer than i
    for i in range(n):
        rows, columns = np.nonzero(there[i])
        others = depth[:, rows, columns]
        nearer[i] = (others > depth[i, rows, columns] + 1e-3).sum(axis=1)
    waits = np.maximum(nearer - nearer.T, 0).T  # [j, i]: j must come after i, weighed
    left = np.ones(n, dtype=bool)
    order: list[int] = []
    for _ in range(n):
        owed = np.where(left, waits[:, left].sum(axis=1), np.inf)
        chosen = int(np.argmin(owed))
        left[chosen] = False
        order.append(chosen)
    return order


def _sound(
    depth: NDArray[np.float32], points: Array, towards: Array, faces: NDArray[np.int64]
) -> None:
    """The nearest depth of each cell that the body covers, written into `depth`."""
    if len(faces) > _MOST_SOUNDED:  # so fine a mesh covers its cells by its points alone
        at = np.round(points).astype(int)
        np.maximum.at(depth, (at[:, 1], at[:, 0]), towards.astype(np.float32))
        return
    for face in faces:
        (ax, ay), (bx, by), (cx, cy) = points[face]
        area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay)
        if abs(area) < 1e-9:
            continue
        x0, x1 = int(np.floor(min(ax, bx, cx))), int(np.ceil(max(ax, bx, cx))) + 1
        y0, y1 = int(np.floor(min(ay, by, cy))), int(np.ceil(max(ay, by, cy))) + 1
        x, y = np.meshgrid(np.arange(x0, x1), np.arange(y0, y1))
        u = ((x - ax) * (cy - ay) - (cx - ax) * (y - ay)) / area
        v = ((bx - ax) * (y - ay) - (x - ax) * (by - ay)) / area
        inside = (u >= -1e-6) & (v >= -1e-6) & (u + v <= 1 + 1e-6)
        z = (
            towards[face[0]]
            + u * (towards[face[1]] - towards[face[0]])
            + v * (towards[face[2]] - towards[face[0]])
        )
        window = depth[y0:y1, x0:x1]
        inside, z = (
            inside[: window.shape[0], : window.shape[1]],
            z[: window.shape[0], : window.shape[1]],
        )
        np.maximum(window, np.where(inside, z, -np.inf), out=window, casting="unsafe")


def _faces(solid: Solid, flat: Array, eye: Array) -> list[Seen]:
    """The body's faces that look at the viewer, each as one outline with its shade."""
    a, b, c = np.moveaxis(solid.corners(), 1, 0)
    normals = np.cross(b - a, c - a)
    lengths = np.linalg.norm(normals, axis=1)
    keep = lengths > 1e-9
    normals, triangles = normals[keep] / lengths[keep, None], solid.faces[keep]
    towards = normals @ eye > 1e-6
    normals, triangles = normals[towards], triangles[towards]
    if not len(triangles):
        return []
    offsets = np.einsum("ij,ij->i", normals, solid.vertices[triangles[:, 0]])
    turns = np.round((normals + 1) * 1000).astype(np.int64)
    places = np.clip(np.round(offsets * 10), -(1 << 22), 1 << 22).astype(np.int64) + (1 << 22)
    keys = (((turns[:, 0] << 11 | turns[:, 1]) << 11 | turns[:, 2]) << 24) | places
    _, group = np.unique(keys, return_inverse=True)
    if group.max() + 1 > _MOST_FACES:
        return _hull(solid, flat)
    found: list[tuple[float, Seen]] = []
    for g in range(int(group.max()) + 1):
        mine = group == g
        shade = round(
            float(0.55 + 0.45 * max(0.0, float(normals[mine][0] @ np.array([0.25, -0.45, 0.86])))),
            3,
        )
        depth = float((solid.vertices[triangles[mine]].reshape(-1, 3) @ eye).mean())
        found.extend(
            (depth, Seen(solid.ref, ring, shade)) for ring in _rings(triangles[mine], flat)
        )
    return [seen for _, seen in sorted(found, key=lambda f: f[0])]


def _rings(triangles: NDArray[np.int64], flat: Array) -> list[tuple[Point, ...]]:
    """The outlines of a patch of triangles: edges used once, walked round. Holes are outlines too,
    drawn over.
    """
    directed = np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    many = len(flat)
    alone = ~np.isin(directed[:, 0] * many + directed[:, 1], directed[:, 1] * many + directed[:, 0])
    follows: dict[int, list[int]] = {}
    for p, q in directed[alone].tolist():
        follows.setdefault(p, []).append(q)
    rings = []
    while follows:
        start = next(iter(follows))
        ring, at = [start], start
        while True:
            onward = follows[at].pop()
            if not follows[at]:
                del follows[at]
            if onward == start or onward not in follows:
                break
            ring.append(onward)
            at = onward
        if len(ring) > 2:
            rings.append(
                tuple((round(float(flat[i, 0]), 2), round(float(flat[i, 1]), 2)) for i in ring)
            )
    return sorted(rings, key=lambda r: -_area(r))[:1]


def _hull(solid: Solid, flat: Array) -> list[Seen]:
    try:
        ring = flat[ConvexHull(flat).vertices]
    except QhullError:
        return []
    return [Seen(solid.ref, tuple((round(float(x), 2), round(float(y), 2)) for x, y in ring), 0.85)]


def _area(ring: tuple[Point, ...]) -> float:
    return (
        abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)))
        / 2
    )
