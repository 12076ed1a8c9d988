"""Meshes and flat drawings made for tests."""

import io
import math

import numpy as np
import trimesh

from vividplank.core.takeoff import Found, Reading, Settings, read
from vividplank.core.takeoff.solids.oriented_box import Solid

Size = tuple[float, float, float]


def a_block(
    size: Size, at: Size = (0, 0, 0), turn: float = 0.0, about: Size = (0, 0, 1)
) -> trimesh.Trimesh:
    """A plain piece, its middle at the origin, turned and then moved."""
    mesh = trimesh.creation.box(size)
    mesh.apply_transform(trimesh.transformations.rotation_matrix(turn, about))
    mesh.apply_translation(at)
    return mesh


def a_prism(ring: list[tuple[float, float]], thick: float) -> trimesh.Trimesh:
    """A piece of even thickness over a convex outline."""
    n = len(ring)
    points = [(x, y, z) for z in (0.0, thick) for x, y in ring]
    faces = [(0, k + 1, k) for k in range(1, n - 1)] + [
        (n, n + k, n + k + 1) for k in range(1, n - 1)
    ]
    for k in range(n):
        j = (k + 1) % n
        faces += [(k, j, n + j), (k, n + j, n + k)]
    return trimesh.Trimesh(points, faces, process=False)


def solid(mesh: trimesh.Trimesh, ref: str = "s1", name: str = "") -> Solid:
    return Solid(ref, name, np.asarray(mesh.vertices, float), np.asarray(mesh.faces, np.int64))


def written(meshes: list[trimesh.Trimesh], kind: str) -> bytes:
    """A file of that kind; scenes where the kind knows them."""
    thing = trimesh.Scene(meshes) if kind in ("glb", "3mf") else trimesh.util.concatenate(meshes)
    content = thing.export(file_type=kind)
    return content.encode() if isinstance(content, str) else bytes(content)


def sizes(reading: Reading, per: float = 320) -> list[tuple[int, tuple[float, float, float]]]:
    """Counts and sizes in mm to a tenth, largest first."""
    found = [
        (p.quantity, tuple(round(t / per, 1) for t in (p.length, p.width, p.thickness)))
        for p in reading.parts
    ]
    return sorted(found, key=lambda f: f[1], reverse=True)  # type: ignore[return-value]


def taken_off(content: bytes, name: str, settings: Settings | None = None) -> Reading:
    return read(content, name, settings or Settings())[0]


def named(reading: Reading, name: str) -> Found:
    return next(p for p in reading.parts if p.name == name)


def a_dxf(unit: int = 4) -> tuple[object, object]:
    """A new DXF document and its model space; unit 4 is mm, 1 in, 0 none."""
    from ezdxf.document import Drawing

    document = Drawing.new("R2010")
    document.header["$INSUNITS"] = unit
    return document, document.modelspace()


def dxf_bytes(document: object) -> bytes:
    out = io.StringIO()
    document.write(out)  # type: ignore[attr-defined]
    return out.getvalue().encode()


def rectangle(
    x: float, y: float, w: float, h: float, turn: float = 0.0
) -> list[tuple[float, float]]:
    c, s = math.cos(turn), math.sin(turn)
    return [
        (x + px * c - py * s, y + px * s + py * c) for px, py in ((0, 0), (w, 0), (w, h), (0, h))
    ]
