"""Scenes by trimesh, meshio, numpy-stl and pygltflib: names on nodes, groups, instances, materials,
inward faces.
"""

import meshio
import numpy as np
import pygltflib
import trimesh
from corpus import Row, Writer
from stl import mesh as numpy_stl
from trimesh.transformations import rotation_matrix as turn
from trimesh.transformations import translation_matrix as move

w = Writer("trimesh")


def box(long: float, wide: float, thick: float, *where: float) -> trimesh.Trimesh:
    return trimesh.creation.box((long, wide, thick)).apply_translation(where or (0, 0, 0))


def cabinet() -> None:
    """Instances of one geometry, groups of groups, in metres."""
    scene = trimesh.Scene()
    side, shelf, rail = box(0.72, 0.56, 0.018), box(0.564, 0.55, 0.018), box(0.564, 0.1, 0.018)
    scene.graph.update("Carcase", "world", matrix=turn(0.4, (0, 0, 1)))
    for k in range(2):
        scene.add_geometry(
            side,
            node_name=f"Side.{k:03d}",
            geom_name="Side",
            parent_node_name="Carcase",
            transform=move((0, k, 0)),
        )
    for k in range(3):
        scene.add_geometry(
            shelf,
            node_name=f"Shelf.{k:03d}",
            geom_name="Shelf",
            parent_node_name="Carcase",
            transform=move((1, k, 0)) @ turn(0.3 * k, (1, 0, 0)),
        )
    scene.add_geometry(
        rail,
        node_name="Rail",
        geom_name="Mesh.007",
        parent_node_name="Carcase",
        transform=move((2, 0, 0)),
    )
    truth: list[Row] = [
        ("Side", 2, 720, 560, 18),
        ("Shelf", 3, 564, 550, 18),
        ("Rail", 1, 564, 100, 18),
    ]
    for kind in ("glb", "3mf", "obj"):
        scene.export(w.path(f"cabinet.{kind}"))
        w.holds(
            f"cabinet.{kind}",
            [*truth[:2], (truth[2] if kind == "glb" else ("", *truth[2][1:]))],
            "m",
            says="instances in groups; two formats keep the names of the geometries alone",
        )


def touching() -> None:
    """Two boards that touch along a whole face; in the second file one has its faces inward."""
    a, b = box(800, 90, 20), box(800, 90, 20, 0, 0, 20)
    truth: list[Row] = [("", 2, 800, 90, 20)]
    trimesh.util.concatenate([a, b]).export(w.path("laid-on.ply"))
    w.holds("laid-on.ply", truth, "mm", says="two boards with a whole face in common")
    b.invert()
    trimesh.util.concatenate([a, b]).export(w.path("inward.stl"))
    w.holds("inward.stl", truth, "mm", says="the same, one with its faces inward")
    c = box(300, 90, 20, 0, 0, 20)
    c.invert()
    trimesh.util.concatenate([a, c]).export(w.path("inward-short.off"))
    w.holds("inward-short.off", [("", 1, 800, 90, 20), ("", 1, 300, 90, 20)], "mm")
    d = box(90, 20, 400, 0, 0, 210)
    d.invert()
    trimesh.util.concatenate([box(800, 90, 20), d]).export(w.path("upright.obj"))
    w.holds("upright.obj", [("", 1, 800, 90, 20), ("", 1, 400, 90, 20)], "mm")


def open_and_odd() -> None:
    """A board without one end face, a speck, a sliver of veneer."""
    board = box(500, 60, 15)
    board.update_faces(board.face_normals[:, 0] < 0.5)
    trimesh.util.concatenate(
        [board, box(500, 60, 15, 0, 100, 0), box(0.2, 0.2, 0.2, 0, 300, 0)]
    ).export(w.path("open-end.stl"))
    w.holds("open-end.stl", [("", 2, 500, 60, 15)], "mm", says="one body open at an end, a speck")


def others() -> None:
    """The same three boards by meshio, numpy-stl and pygltflib."""
    boards = [
        box(610, 75, 19),
        box(610, 75, 19, 0, 100, 0),
        box(300, 140, 19, 0, 300, 0).apply_transform(turn(0.5, (0, 0, 1))),
    ]
    truth: list[Row] = [("", 2, 610, 75, 19), ("", 1, 300, 140, 19)]
    whole = trimesh.util.concatenate(boards)
    cells = [("triangle", np.asarray(whole.faces))]
    for kind in ("ply", "off", "obj", "stl"):
        meshio.write_points_cells(w.path(f"meshio.{kind}"), np.asarray(whole.vertices), cells)
        w.holds(f"meshio.{kind}", truth, "mm")
    data = np.zeros(len(whole.faces), dtype=numpy_stl.Mesh.dtype)
    data["vectors"] = whole.triangles
    numpy_stl.Mesh(data).save(w.path("numpy-stl.stl"))
    w.holds("numpy-stl.stl", truth, "mm", says="a binary file that begins with a title of its own")
    gltf(boards, truth)


def gltf(boards: list[trimesh.Trimesh], truth: list[Row]) -> None:
    """A document by hand: quantities in metres, a scaled node, one mesh of two primitives in two
    materials.
    """
    made, blob = (
        pygltflib.GLTF2(
            scene=0,
            scenes=[pygltflib.Scene(nodes=[0])],
            nodes=[pygltflib.Node(name="Root", children=[1, 2], scale=[0.001] * 3)],
        ),
        b"",
    )
    for name, at, mesh in (("Slat", [0, 0, 0], boards[0]), ("End", [0, 400, 0], boards[2])):
        primitives = []
        halves = (mesh.faces[:6], mesh.faces[6:])
        base = len(made.accessors)
        points = np.asarray(mesh.vertices, np.float32)
        made.bufferViews.append(
            pygltflib.BufferView(
                buffer=0, byteOffset=len(blob), byteLength=points.nbytes, target=34962
            )
        )
        made.accessors.append(
            pygltflib.Accessor(
                bufferView=len(made.bufferViews) - 1,
                componentType=5126,
                count=len(points),
                type="VEC3",
                min=points.min(0).tolist(),
                max=points.max(0).tolist(),
            )
        )
        blob += points.tobytes()
        for half in halves:
            index = np.asarray(half, np.uint32).ravel()
            made.bufferViews.append(
                pygltflib.BufferView(
                    buffer=0, byteOffset=len(blob), byteLength=index.nbytes, target=34963
                )
            )
            made.accessors.append(
                pygltflib.Accessor(
                    bufferView=len(made.bufferViews) - 1,
                    componentType=5125,
                    count=len(index),
                    type="SCALAR",
                )
            )
            blob += index.tobytes()
            made.materials.append(pygltflib.Material(name=f"Wood {len(made.materials)}"))
            primitives.append(
                pygltflib.Primitive(
                    attributes=pygltflib.Attributes(POSITION=base),
                    indices=len(made.accessors) - 1,
                    material=len(made.materials) - 1,
                )
            )
        made.meshes.append(pygltflib.Mesh(name=name, primitives=primitives))
        made.nodes.append(pygltflib.Node(name=name, mesh=len(made.meshes) - 1, translation=at))
    made.nodes.append(pygltflib.Node(name="Slat copy", mesh=0, translation=[0, 900, 0]))
    made.nodes[0].children.append(3)
    made.buffers = [pygltflib.Buffer(byteLength=len(blob))]
    made.set_binary_blob(blob)
    made.save_binary(w.path("two-materials.glb"))
    w.holds(
        "two-materials.glb",
        [("Slat", 2, 610, 75, 19), ("End", 1, 300, 140, 19)],
        "m",
        says="a piece in two materials, a copy",
    )


cabinet()
touching()
open_and_odd()
others()
w.done()
