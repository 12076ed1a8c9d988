"""A triangle mesh taken apart into its bodies, also where bodies touch along whole faces."""

from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

Array = NDArray[np.float64]
Indices = NDArray[np.int64]

#: Two faces closer than this (radians) lie on each other.
_FOLDED = 1e-4


def weld(vertices: Array, faces: Indices) -> tuple[Array, Indices]:
    """Points closer than a millionth of the whole become one; faces that vanish with that go."""
    span = float(np.ptp(vertices, axis=0).max()) or 1.0
    cells = np.round((vertices - vertices.min(axis=0)) / (span * 1e-6)).astype(np.int64)
    # Three figures up to a million fit into one of 63 bits, which sorts far faster than rows do.
    keys = (cells[:, 0] << 42) | (cells[:, 1] << 21) | cells[:, 2]
    _, first, index = np.unique(keys, return_index=True, return_inverse=True)
    welded = index.reshape(-1)[faces]
    real = (welded[:, 0] != welded[:, 1]) & (welded[:, 1] != welded[:, 2]) & (welded[:, 2] != welded[:, 0])
    return vertices[first], welded[real].astype(np.int64)


def split(vertices: Array, faces: Indices) -> list[tuple[Array, Indices]]:
    """The bodies of a mesh. Faces belong together across an edge that two of them share; where more meet
    (bodies that touch), each goes with the one that encloses the wood on its own inner side.
    """
    vertices, faces = weld(vertices, faces)
    if not len(faces):
        return []
    n = len(faces)
    directed = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
    owner = np.tile(np.arange(n), 3)
    edges = np.sort(directed, axis=1)
    order = np.lexsort((edges[:, 1], edges[:, 0]))
    edges, directed, owner = edges[order], directed[order], owner[order]
    starts = np.flatnonzero(np.r_[True, np.any(edges[1:] != edges[:-1], axis=1)])
    counts = np.diff(np.r_[starts, len(edges)])
    pairs = starts[counts == 2]
    links = [np.column_stack([owner[pairs], owner[pairs + 1]])]
    crowded = [
        pair
        for at, count in zip(starts[counts > 2], counts[counts > 2], strict=True)
        for pair in _enclosing(vertices, faces, directed[at : at + count], owner[at : at + count])
    ]
    if crowded:
        links.append(np.array(crowded))
    joined = np.concatenate(links)
    graph = coo_array((np.ones(len(joined)), (joined[:, 0], joined[:, 1])), shape=(n, n))
    count, label = connected_components(graph, directed=False)
    by_body = np.argsort(label, kind="stable")
    bounds = np.searchsorted(label[by_body], np.arange(count + 1))
    bodies = []
    for low, high in pairwise(bounds.tolist()):
        mine = faces[np.sort(by_body[low:high])]
        used, index = np.unique(mine, return_inverse=True)
        bodies.append((vertices[used], index.reshape(-1, 3).astype(np.int64)))
    return bodies


def _enclosing(vertices: Array, faces: Indices, directed: Indices, owner: Indices) -> list[tuple[int, int]]:
    """Which faces at a crowded edge bound the same wood: each with the next one met turning inward."""
    found = []
    for (p, q), face in zip(directed, owner, strict=True):
        a, b, c = vertices[faces[face]]
        normal = np.cross(b - a, c - a)
        normal /= np.linalg.norm(normal) or 1.0
        edge = vertices[q] - vertices[p]
        into = np.cross(normal, edge / (np.linalg.norm(edge) or 1.0))
        best: tuple[float, int] | None = None
        for (r, _), other in zip(directed, owner, strict=True):
            if r != q or other == face:  # the neighbour runs along the edge the other way
                continue
            third = next(int(v) for v in faces[other] if v != p and v != q)
            d = vertices[third] - vertices[p]
            angle = float(np.arctan2(d @ -normal, d @ into)) % (2 * np.pi)
            if angle < _FOLDED:  # lies on this very face from the other side: all the way round
                angle += 2 * np.pi
            if best is None or angle < best[0]:
                best = (angle, int(other))
        if best:
            found.append((int(face), best[1]))
    return found
