"""A triangle mesh taken apart into its bodies, also where bodies touch along whole faces."""

from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

Array = NDArray[np.float64]
Indices = NDArray[np.int64]
Mesh = tuple[Array, Indices]

#: Two faces closer than this (radians) lie on each other.
_FOLDED = 1e-4
#: A point nearer to an edge than this share of the whole lies on it.
_ON_EDGE = 1e-5
#: A hole that is smaller than this share of the whole, as where a lathe stops short of its axis,
#: is closed.
_PINHOLE = 1e-3
#: More open edges than this are no seams that were cut once more on one side, but a surface.
_MOST_OPEN = 20_000
#: A cell that holds less than this share of the cube of its own span holds nothing: it lies
#: between two faces.
_NOTHING = 1e-9


def weld(vertices: Array, faces: Indices) -> Mesh:
    """Points closer than a millionth of the whole become one; faces that vanish with that go."""
    span = float(np.ptp(vertices, axis=0).max()) or 1.0
    cells = np.round((vertices - vertices.min(axis=0)) / (span * 1e-6)).astype(np.int64)
    # Three figures up to a million fit into one of 63 bits, which sorts far faster than rows do.
    keys = (cells[:, 0] << 42) | (cells[:, 1] << 21) | cells[:, 2]
    _, first, index = np.unique(keys, return_index=True, return_inverse=True)
    welded = index.reshape(-1)[faces]
    real = (
        (welded[:, 0] != welded[:, 1])
        & (welded[:, 1] != welded[:, 2])
        & (welded[:, 2] != welded[:, 0])
    )
    return vertices[first], welded[real].astype(np.int64)


def split(vertices: Array, faces: Indices) -> list[Mesh]:
    """The bodies of a mesh, their faces outward.

    Faces that share an edge hang together. What hangs together and is closed is taken apart into
    the cells that it encloses (Zhou, Grinspun, Zorin and Jacobson, 2016, Mesh arrangements for
    solid geometry): so boards that touch come apart, also where one has its faces inward or the
    face between them is written once. What is open stays as it hangs together.
    """
    vertices, faces = _without_pinholes(*_sealed(*weld(vertices, faces)))
    if not len(faces):
        return []
    edges = _Edges(faces)
    bodies: list[Mesh] = []
    cells = _Cells(vertices, faces, edges)
    for label in _parts(edges.linked(), len(faces)):
        if edges.open[label].any():
            bodies.append((vertices, faces[label]))
        else:
            bodies.extend((vertices, mesh) for mesh in cells.within(label))
    return [_used(*body) for body in bodies]


class _Edges:
    """Which faces meet at each edge: `owner` and `directed` sorted by edge, which begin at
    `starts`.
    """

    def __init__(self, faces: Indices) -> None:
        n = len(faces)
        directed = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
        owner, third = (
            np.tile(np.arange(n), 3),
            np.concatenate([faces[:, 2], faces[:, 0], faces[:, 1]]),
        )
        edges = np.sort(directed, axis=1)
        order = np.lexsort((edges[:, 1], edges[:, 0]))
        self.edges, self.owner, self.third = edges[order], owner[order], third[order]
        self.along = (
            directed[order][:, 0] == self.edges[:, 0]
        )  # whether the face runs from the lower point to the higher
        self.starts = np.flatnonzero(np.r_[True, np.any(self.edges[1:] != self.edges[:-1], axis=1)])
        self.counts = np.diff(np.r_[self.starts, len(self.edges)])
        self.open = np.zeros(n, bool)
        self.open[self.owner[self.starts[self.counts == 1]]] = True

    def linked(self) -> Indices:
        """Faces that follow each other at an edge, (m, 2)."""
        same = np.all(self.edges[1:] == self.edges[:-1], axis=1)
        return np.column_stack([self.owner[:-1][same], self.owner[1:][same]])


class _Cells:
    """The cells that a closed surface cuts space into, by the sides of its faces: side 2 f is the
    front of face f, 2 f + 1 its back. Two sides see the same cell where one follows the other round
    an edge.
    """

    def __init__(self, vertices: Array, faces: Indices, edges: _Edges) -> None:
        self.vertices, self.faces = vertices, faces
        n = len(faces)
        pairs = edges.starts[edges.counts == 2]
        one, other = edges.owner[pairs], edges.owner[pairs + 1]
        turned = (edges.along[pairs] == edges.along[pairs + 1]).astype(np.int64)
        links = [
            np.column_stack([2 * one, 2 * other + turned]),
            np.column_stack([2 * one + 1, 2 * other + 1 - turned]),
        ]
        patches = np.empty(n, np.int64)
        for label in _parts(np.column_stack([one, other]), n):
            patches[label] = label[0]
        crowded = np.flatnonzero(edges.counts > 2)
        found = [
            pair
            for at, many in zip(edges.starts[crowded], edges.counts[crowded], strict=True)
            for pair in self._round(edges, slice(at, at + many), patches)
        ]
        if found:
            links.append(np.array(found))
        joined = np.concatenate(links)
        graph = coo_array(
            (np.ones(len(joined)), (joined[:, 0], joined[:, 1])), shape=(2 * n, 2 * n)
        )
        _, self.cell = connected_components(graph, directed=False)
        a, b, c = np.moveaxis(vertices[faces] - vertices.mean(axis=0), 1, 0)
        volumes = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6
        # Seen from within a cell its faces look outward, which the front of a face does not.
        self.volume = np.bincount(self.cell, np.column_stack([-volumes, volumes]).reshape(-1))
        areas = np.linalg.norm(np.cross(b - a, c - a), axis=1)
        self.fronts = np.bincount(self.cell, np.column_stack([areas, -areas]).reshape(-1))

    def within(self, label: Indices) -> list[Indices]:
        """The bodies that faces which hang together make, by their faces, turned outward."""
        sides = np.concatenate([2 * label, 2 * label + 1])
        span = float(np.ptp(self.vertices[self.faces[label]].reshape(-1, 3), axis=0).max())
        bodies, seen = [], []
        for cell in np.unique(self.cell[sides]):
            if self.volume[cell] <= _NOTHING * span**3:
                continue
            seen.append(cell)
            mine = np.sort(sides[self.cell[sides] == cell])
            if self.fronts[cell] > 0 and np.all(self.volume[self.cell[mine ^ 1]] > 0):
                # the room between boards that enclose it: it sees the fronts of all of them
                continue
            found = self.faces[mine // 2]
            bodies.append((int(mine[0]), np.where((mine % 2 == 0)[:, None], found[:, ::-1], found)))
        if not np.all(
            np.isin(self.cell[2 * label], seen) | np.isin(self.cell[2 * label + 1], seen)
        ):
            return [
                self.faces[label]
            ]  # a face that bounds nothing: what hangs together is no set of bodies
        return [mesh for _, mesh in sorted(bodies, key=lambda body: body[0])]

    def _round(self, edges: _Edges, at: slice, patches: Indices) -> list[tuple[int, int]]:
        """Sides that look at each other round an edge at which more than two faces meet."""
        owner, along = edges.owner[at], edges.along[at]
        p, q = self.vertices[edges.edges[at.start]]
        axis = (q - p) / (np.linalg.norm(q - p) or 1.0)
        out = self.vertices[edges.third[at]] - p
        out -= np.outer(out @ axis, axis)
        out /= np.linalg.norm(out, axis=1)[:, None] + 1e-300
        angles = np.arctan2(out @ np.cross(axis, out[0]), out @ out[0]) % (2 * np.pi)
        angles[angles > 2 * np.pi - _FOLDED] = 0.0
        order = list(np.argsort(angles, kind="stable"))
        # Faces that lie on each other: each patch keeps its place above or below the others at all
        # its edges.
        k = 0
        while k < len(order):
            end = k + 1
            while end < len(order) and angles[order[end]] - angles[order[k]] < _FOLDED:
                end += 1
            if end - k > 1:
                up = np.cross(axis, out[order[k]])
                upward = bool(up[int(np.argmax(np.abs(up) > 1e-3))] > 0)
                # From below: first those whose front looks up, then those that look down on them.
                ranks = [
                    (bool(along[i]) != upward, -int(patches[owner[i]]), -int(owner[i]), i)
                    for i in order[k:end]
                ]
                order[k:end] = [i for *_, i in sorted(ranks, reverse=not upward)]
            k = end
        # The front of a face that runs along the axis looks on round it, that of another one back.
        onward = [2 * int(owner[i]) + (not along[i]) for i in order]
        back = [2 * int(owner[i]) + bool(along[i]) for i in order]
        return list(zip(onward, back[1:] + back[:1], strict=True))


def _parts(links: Indices, n: int) -> list[Indices]:
    """The connected sets of n things, each in its order."""
    graph = coo_array((np.ones(len(links)), (links[:, 0], links[:, 1])), shape=(n, n))
    count, label = connected_components(graph, directed=False)
    order = np.argsort(label, kind="stable")
    bounds = np.searchsorted(label[order], np.arange(count + 1))
    return [order[low:high] for low, high in pairwise(bounds.tolist())]


def _used(vertices: Array, faces: Indices) -> Mesh:
    used, index = np.unique(faces, return_inverse=True)
    return vertices[used], index.reshape(-1, 3).astype(np.int64)


def _sealed(vertices: Array, faces: Indices) -> Mesh:
    """Edges that are whole on one side and in pieces on the other are cut on both: what is
    subtracted from a body leaves such.

    Only at open edges, and only where the piece's own point lies on the edge.
    """
    for _ in range(8):
        edges = _Edges(faces) if len(faces) else None
        if edges is None:
            break
        at = edges.starts[edges.counts == 1]
        if not 0 < len(at) <= _MOST_OPEN:
            break
        points = np.unique(edges.edges[at])
        places = vertices[points]
        reach = float(np.ptp(vertices, axis=0).max()) * _ON_EDGE
        cut: dict[int, list[int]] = {}
        done: set[int] = set()
        for k in at:
            face = int(edges.owner[k])
            if face in done:  # one edge of a face at a time
                continue
            low, high = edges.edges[k]
            a, along = vertices[low], vertices[high] - vertices[low]
            length2 = float(along @ along)
            share = (places - a) @ along / (length2 or 1.0)
            inner = np.flatnonzero((share > 1e-9) & (share < 1 - 1e-9))
            if not len(inner):
                continue
            off = np.linalg.norm(places[inner] - a - np.outer(share[inner], along), axis=1)
            on = inner[off < reach]
            on = on[(points[on] != low) & (points[on] != high) & (points[on] != edges.third[k])]
            if len(on):
                chain = [int(low), *(int(points[j]) for j in on[np.argsort(share[on])]), int(high)]
                cut[face] = [int(edges.third[k]), *(chain if edges.along[k] else chain[::-1])]
                done.add(face)
        if not cut:
            break
        kept = np.ones(len(faces), bool)
        kept[list(cut)] = False
        fans = [(a, b, third) for third, *chain in cut.values() for a, b in pairwise(chain)]
        faces = np.concatenate([faces[kept], np.array(fans, np.int64)])
    return vertices, faces


def _without_pinholes(vertices: Array, faces: Indices) -> Mesh:
    """Small holes closed by drawing their rims together into one point."""
    if not len(faces):
        return vertices, faces
    edges = _Edges(faces)
    rim = edges.edges[edges.starts[edges.counts == 1]]
    if not 0 < len(rim) <= _MOST_OPEN:
        return vertices, faces
    reach = float(np.ptp(vertices, axis=0).max()) * _PINHOLE
    points, index = np.unique(rim, return_inverse=True)
    moved, becomes = vertices.copy(), np.arange(len(vertices))
    for ring in _parts(index.reshape(-1, 2), len(points)):
        mine = points[ring]
        if float(np.ptp(vertices[mine], axis=0).max()) <= reach:
            moved[mine[0]], becomes[mine] = vertices[mine].mean(axis=0), mine[0]
    drawn = becomes[faces]
    real = (
        (drawn[:, 0] != drawn[:, 1]) & (drawn[:, 1] != drawn[:, 2]) & (drawn[:, 2] != drawn[:, 0])
    )
    return moved, drawn[real]
