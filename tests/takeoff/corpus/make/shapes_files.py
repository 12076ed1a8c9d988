"""Meshes by hand and by pymeshlab-like conventions: named STL solids, OBJ groups and quads,
coloured OFF, 3MF components, scenes in cm.
"""

import io
import zipfile

import numpy as np
import trimesh
from corpus import Row, Writer
from trimesh.transformations import rotation_matrix as turn

w = Writer("shapes")


def box(long: float, wide: float, thick: float, *where: float) -> trimesh.Trimesh:
    return trimesh.creation.box((long, wide, thick)).apply_translation(where or (0, 0, 0))


def stl_named() -> None:
    out = []
    for name, mesh in (
        ("rail_1", box(600, 80, 20)),
        ("rail_2", box(600, 80, 20, 0, 200, 0)),
        ("panel", box(500, 300, 12, 0, 600, 0)),
    ):
        out.append(f"solid {name}")
        for triangle, normal in zip(mesh.triangles, mesh.face_normals, strict=True):
            out.append(
                "  facet normal " + " ".join(f"{c:.6e}" for c in normal) + "\n    outer loop"
            )
            out += ["      vertex " + " ".join(f"{c:.6e}" for c in v) for v in triangle]
            out.append("    endloop\n  endfacet")
        out.append(f"endsolid {name}")
    (w.folder / "named.stl").write_text("\n".join(out) + "\n")
    w.holds(
        "named.stl",
        [("rail", 2, 600, 80, 20), ("panel", 1, 500, 300, 12)],
        "mm",
        says="three named solids in one text file",
    )


def obj_by_hand() -> None:
    """Quads, negative indices, objects with groups and several materials each, normals and texture
    places.
    """
    out, count = ["mtllib wood.mtl", "vn 0 0 1", "vt 0 0"], 0
    for name, (a, b, c), y in (
        ("Seat_Board", (400, 300, 25), 0),
        ("Leg.001", (420, 40, 40), 400),
        ("Leg.002", (420, 40, 40), 500),
    ):
        out.append(f"o {name}")
        for x in (0, a):
            for yy in (0, b):
                out += [f"v {x} {y + yy} {z}" for z in (0, c)]
        quads = ((1, 2, 4, 3), (5, 7, 8, 6), (1, 5, 6, 2), (3, 4, 8, 7), (1, 3, 7, 5), (2, 6, 8, 4))
        for k, quad in enumerate(quads):
            if k % 3 == 0:
                out += [f"g side{k}", f"usemtl mat{k}"]
            negative = name == "Leg.002"
            out.append(
                "f "
                + " ".join(
                    f"{(i - 9) if negative else i + count}/1/1" if not negative else f"{i - 9}//1"
                    for i in quad
                )
            )
        count += 8
    (w.folder / "by-hand.obj").write_text("\n".join(out) + "\n")
    w.holds(
        "by-hand.obj",
        [("Seat Board", 1, 400, 300, 25), ("Leg", 2, 420, 40, 40)],
        "mm",
        says="quads, negative indices, groups and materials within objects",
    )


def coff() -> None:
    mesh = trimesh.util.concatenate(
        [box(24, 4, 0.75), box(24, 4, 0.75, 0, 10, 0), box(12, 12, 0.5, 0, 30, 0)]
    )
    out = ["COFF", f"{len(mesh.vertices)} {len(mesh.faces)} 0"]
    out += [" ".join(f"{c:g}" for c in v) + " 200 150 90 255" for v in mesh.vertices]
    out += ["3 " + " ".join(str(i) for i in f) for f in mesh.faces]
    (w.folder / "coloured.off").write_text("\n".join(out) + "\n")
    i = 25.4
    w.holds(
        "coloured.off",
        [("", 2, 24 * i, 4 * i, 0.75 * i), ("", 1, 12 * i, 12 * i, 0.5 * i)],
        "in",
        says="points with colours, inches",
    )


def components() -> None:
    """3MF: one object, placed by components and by build items, in inches."""
    mesh = box(20, 3, 0.75)
    points = "".join(f'<vertex x="{x}" y="{y}" z="{z}"/>' for x, y, z in mesh.vertices)
    faces = "".join(f'<triangle v1="{a}" v2="{b}" v3="{c}"/>' for a, b, c in mesh.faces)
    model = f"""<?xml version="1.0"?><model unit="inch" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>
<object id="1" type="model" name="Slat"><mesh><vertices>{points}</vertices><triangles>{faces}</triangles></mesh></object>
<object id="2" type="model" name="Frame"><components><component objectid="1"/><component objectid="1" transform="1 0 0 0 1 0 0 0 1 0 6 0"/>
<component objectid="1" transform="0 1 0 -1 0 0 0 0 1 30 0 0"/></components></object></resources>
<build><item objectid="2"/><item objectid="1" transform="1 0 0 0 1 0 0 0 1 0 40 0"/></build></model>"""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        packed.writestr(
            "[Content_Types].xml",
            '<?xml version="1.0"?><Types '
            'xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default '
            'Extension="model" '
            'ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/><Default '
            'Extension="rels" '
            'ContentType="application/vnd.openxmlformats-package.relationships+xml"/></Types>',
        )
        packed.writestr(
            "_rels/.rels",
            '<?xml version="1.0"?><Relationships '
            'xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship '
            'Target="/3D/3dmodel.model" Id="r" '
            'Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>',
        )
        packed.writestr("3D/3dmodel.model", model)
    (w.folder / "components.3mf").write_bytes(out.getvalue())
    i = 25.4
    w.holds(
        "components.3mf",
        [("Slat", 4, 20 * i, 3 * i, 0.75 * i)],
        says="components and build items, in inches",
    )


def stacked() -> None:
    """A stack of boards touching along whole faces, a frame that closes round an opening, and a
    hidden board within.
    """
    boards = [box(600, 100, 20, 0, 0, 20 * k) for k in range(5)]
    trimesh.util.concatenate(boards).export(w.path("stack.stl"))
    w.holds("stack.stl", [("", 5, 600, 100, 20)], "mm", says="five boards in a stack")
    frame = [
        box(400, 60, 20),
        box(400, 60, 20, 0, 460, 0),
        box(60, 400, 20, -170, 230, 0),
        box(60, 400, 20, 170, 230, 0),
    ]
    whole = trimesh.util.concatenate(frame)
    whole.apply_transform(turn(0.7, (1, 2, 3)))
    whole.export(w.path("frame.ply"))
    w.holds(
        "frame.ply", [("", 4, 400, 60, 20)], "mm", says="a frame of four, touching, aslant in space"
    )
    bored = trimesh.creation.annulus(30, 40, 500, sections=64)
    trimesh.util.concatenate([bored, box(300, 20, 20, 0, 200, 0)]).export(w.path("pipe.off"))
    w.holds("pipe.off", [("", 1, 500, 80, 80), ("", 1, 300, 20, 20)], "mm", says="a bored round")


def scene_cm() -> None:
    scene = trimesh.Scene()
    for k in range(3):
        scene.add_geometry(
            box(0.9, 0.12, 0.022),
            node_name=f"Apron {k + 1}",
            geom_name=f"Cube.{k:03d}",
            transform=turn(0.4 * k, (0, 0, 1)) @ np.diag([1, 1, 1, 1]),
        )
    scene.add_geometry(box(1.2, 0.7, 0.028, 0, 0, 1), node_name="Table top", geom_name="Cube.010")
    scene.export(w.path("cubes.glb"))
    truth: list[Row] = [("Apron", 3, 900, 120, 22), ("Table top", 1, 1200, 700, 28)]
    w.holds("cubes.glb", truth, says="names on the nodes, cubes for geometries")


for make in (stl_named, obj_by_hand, coff, components, stacked, scene_cm):
    make()
w.done()
