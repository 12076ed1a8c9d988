"""Meshes (STL, OBJ, GLB, glTF, 3MF, PLY, OFF) through trimesh, split into bodies, scene transforms
applied.
"""

import io
import re
from typing import Any

import numpy as np

from vividplank.core.takeoff.model.doubts import doubted, renamed
from vividplank.core.takeoff.model.found import (
    FILE_UNITS,
    FileUnit,
    Reading,
    Settings,
    Unreadable,
    counted,
)
from vividplank.core.takeoff.model.units import doubted_unit, guess_unit
from vividplank.core.takeoff.model.words import SYSTEM_OF
from vividplank.core.takeoff.readers.gltf import plain_gltf
from vividplank.core.takeoff.readers.picture import pictures
from vividplank.core.takeoff.solids.bodies import split
from vividplank.core.takeoff.solids.oriented_box import Solid
from vividplank.core.takeoff.solids.solids import parts_of, plain_name

#: Formats that say their unit themselves.
_SAID: dict[str, FileUnit] = {"glb": "m", "gltf": "m"}
#: Formats whose up is y by their own description or by custom.
_Y_UP = {"glb", "gltf", "obj"}
_MOST_BODIES = 2000
#: What a program calls the only body of a file.
_OF_PROGRAM = re.compile(
    r"model|export|geometry|mesh|object|created|scene|untitled|solid|default", re.IGNORECASE
)
#: A body smaller than this (mm) is a speck left by the program that wrote the file.
_SPECK = 1.0


def read_mesh(content: bytes, kind: str, settings: Settings) -> Reading:
    """Every body of the mesh as a part; broken bodies are named. Raises Unreadable where there is
    no body.
    """
    _whole(content, kind)
    try:
        pieces, said = _pieces(content, kind)
    except (IndexError, ValueError, KeyError, TypeError) as problem:
        if isinstance(problem, Unreadable):
            raise
        raise Unreadable(
            f"this {kind.upper()} file is damaged: {_first_words(problem)}. Export it anew"
        ) from None
    if any(len(f) and (int(f.max()) >= len(v) or int(f.min()) < 0) for _, v, f in pieces):
        raise Unreadable(
            f"this {kind.upper()} file is damaged: a face of it names a point that is not there. "
            f"Export it anew"
        )
    vertices = [v for _, v, _ in pieces if len(v)]
    if not vertices:
        raise Unreadable(f"this {kind.upper()} file holds no triangles; expected a mesh of solids")
    everything = np.concatenate(vertices)
    if not np.all(np.isfinite(everything)):
        raise Unreadable(f"this {kind.upper()} file holds points that are no numbers")
    biggest = float(np.ptp(everything, axis=0).max())
    if biggest <= 0:
        raise Unreadable(f"everything in this {kind.upper()} file lies in one point")
    guess, _ = guess_unit(biggest)
    said, question = doubted_unit(biggest, said)
    unit = settings.unit or said or guess
    asks = "" if settings.unit or said else question
    solids: list[Solid] = []
    specks = 0
    for name, points, faces in pieces:
        bodies = split(points * FILE_UNITS[unit], faces)
        if len(pieces) == 1 and (len(bodies) > 1 or _OF_PROGRAM.search(name)):
            name = ""  # the name of the whole
        for body_points, body_faces in bodies:
            if float(np.ptp(body_points, axis=0).max()) < _SPECK:
                specks += 1
                continue
            solids.append(Solid(f"b{len(solids) + 1}", name, body_points, body_faces))
            if len(solids) > _MOST_BODIES:
                raise Unreadable(
                    f"this file holds more than {_MOST_BODIES} bodies; expected furniture. "
                    f"Export fewer at a time"
                )
    if not solids:
        raise Unreadable(
            f"nothing in this file is larger than 1 mm, read in {unit}; is that its unit?"
        )
    taken = parts_of(solids, settings)
    parts, doubts = doubted(taken.parts, settings, SYSTEM_OF[unit], taken.decisions)
    troubles = taken.troubles
    if specks:
        troubles = (*troubles, f"{counted(specks, 'body', 'bodies')} under 1 mm, left out")
    return Reading(
        "model",
        unit,
        renamed(parts),
        pictures(list(taken.solids), y_up=kind in _Y_UP),
        asks,
        troubles,
        (),
        len(taken.solids),
        decisions=(*doubts, *taken.decisions),
    )


def _whole(content: bytes, kind: str) -> None:
    """Unreadable where a text file ends before what its head announces, or without its end mark:
    half of it is no model.
    """
    if kind == "off":
        lines = [
            line
            for raw in content.decode("latin-1").splitlines()
            if (line := raw.split("#")[0].strip())
        ]
        head = " ".join(lines[:2]).split()
        counts = [int(word) for word in head if word.isdigit()][:2]
        begins = 1 if len(lines[0].split()) > 1 else 2
        _announced(kind, sum(counts), len(lines) - begins)
    elif kind == "ply" and b"format ascii" in content[:400]:
        head_, _, body = content.partition(b"end_header")
        counts = [
            int(line.split()[2])
            for line in head_.splitlines()
            if line.startswith(b"element ") and len(line.split()) > 2
        ]
        _announced(kind, sum(counts), sum(bool(line.strip()) for line in body.splitlines()))
    elif (
        kind == "stl"
        and content[:5] == b"solid"
        and b"facet normal" in content[:2000]
        and b"endsolid" not in content[-400:]
    ):
        raise Unreadable("this STL file ends before its end mark. Export it anew")


def _announced(kind: str, wanted: int, found: int) -> None:
    if found < wanted:
        raise Unreadable(
            f"this {kind.upper()} file announces {wanted} points and faces and ends after "
            f"{found}. Export it anew"
        )


def _pieces(content: bytes, kind: str) -> tuple[list[tuple[str, Any, Any]], FileUnit | None]:
    """Named pieces (points, faces) in file units with their placements applied, and the unit the
    file says.
    """
    import trimesh

    options: dict[str, Any] = {}
    if kind in ("glb", "gltf"):
        content = plain_gltf(content, kind)
    if kind == "obj":
        # An object is one thing, however many materials or groups it is drawn in; without objects a
        # group is.
        objects = re.search(rb"^o\s+\S", content, re.MULTILINE) is not None
        options = {
            "split_objects": objects,
            "split_groups": not objects,
            "group_material": False,
            "skip_materials": True,
        }
    try:
        scene = trimesh.load_scene(
            io.BytesIO(content),
            file_type="glb" if kind == "gltf" else kind,
            process=False,
            **options,
        )
    except MemoryError:
        raise
    except Exception as problem:  # trimesh's readers raise whatever they stumble over
        raise Unreadable(
            f"this {kind.upper()} file cannot be read: {_first_words(problem)}"
        ) from None
    pieces: list[tuple[str, Any, Any]] = []
    order = {name: k for k, name in enumerate(scene.geometry)}
    for node in sorted(
        scene.graph.nodes_geometry, key=lambda n: (order.get(scene.graph[n][1], 0), str(n))
    ):
        transform, geometry_name = scene.graph[node]
        geometry = scene.geometry[geometry_name]
        if not isinstance(geometry, trimesh.Trimesh) or not len(geometry.faces):
            continue
        points = trimesh.transformations.transform_points(
            np.asarray(geometry.vertices, float), transform
        )
        faces = np.asarray(geometry.faces, np.int64)
        if np.linalg.det(transform[:3, :3]) < 0:
            faces = faces[:, ::-1]
        own = [
            str(geometry.metadata.get("name") or ""),
            str(node) if node != "world" else "",
            str(geometry_name),
        ]
        name = next(
            (n for n in (*own, *_above(scene, node)) if plain_name(n)),
            next((n for n in own if n), ""),
        )
        pieces.append((name if kind in ("glb", "gltf", "obj", "3mf", "stl") else "", points, faces))
    words: dict[str, FileUnit] = {
        "millimeters": "mm",
        "millimeter": "mm",
        "mm": "mm",
        "centimeter": "cm",
        "inch": "in",
        "inches": "in",
        "meter": "m",
        "meters": "m",
        "foot": "ft",
        "feet": "ft",
    }
    said = _SAID.get(kind) or (
        words.get(str(scene.units or "").casefold()) if kind == "3mf" else None
    )
    return pieces, said or ("mm" if kind == "3mf" else None)


def _above(scene: Any, node: Any) -> list[str]:
    """What the groups are called that a body lies in, where it is all they hold."""
    found: list[str] = []
    parents = scene.graph.transforms.parents
    inner = node
    while inner in parents and len(found) < 8:
        outer = parents[inner]
        if (
            sum(1 for above in parents.values() if above == outer) > 1
            or outer == scene.graph.base_frame
        ):
            break
        found.append(str(outer))
        inner = outer
    return found


def _first_words(problem: Exception) -> str:
    text = str(problem).strip().splitlines()
    return (text[0] if text else type(problem).__name__)[:160]
