"""Models by gmsh's CAD kernel and its mesher: STEP without names, solids cut free of each other,
STL.
"""

import gmsh
from corpus import Writer

w = Writer("gmsh")
gmsh.initialize()
gmsh.option.setNumber("General.Terminal", 0)


def new() -> None:
    gmsh.clear()
    gmsh.model.add("bench")


def bench() -> None:
    new()
    o = gmsh.model.occ
    o.addBox(0, 0, 400, 1200, 300, 35)
    legs = [o.addBox(x, y, 0, 60, 60, 400) for x in (50, 1090) for y in (20, 220)]
    o.addBox(110, 40, 150, 980, 25, 80)
    o.synchronize()
    for k, leg in enumerate(legs):
        gmsh.model.setEntityName(3, leg, f"Leg {k + 1}")
    gmsh.write(w.path("bench.step"))
    truth = [("", 1, 1200, 300, 35), ("", 4, 400, 60, 60), ("", 1, 980, 80, 25)]
    w.holds("bench.step", truth, says="touching solids, some of them named")
    gmsh.option.setNumber("Mesh.MeshSizeMin", 60)
    gmsh.option.setNumber("Mesh.MeshSizeMax", 400)
    gmsh.model.mesh.generate(2)
    for kind in ("stl", "ply2"):
        if kind == "stl":
            gmsh.write(w.path("bench.stl"))
            w.holds(
                "bench.stl",
                truth,
                "mm",
                says="bodies that touch along faces, triangulated each by itself",
            )


def fragments() -> None:
    """Boards that share faces after fragmenting: conformal contacts."""
    new()
    o = gmsh.model.occ
    a, b = o.addBox(0, 0, 0, 18, 300, 600), o.addBox(18, 0, 0, 500, 300, 18)
    c = o.addBox(518, 0, 0, 18, 300, 600)
    o.fragment([(3, a)], [(3, b), (3, c)])
    o.synchronize()
    gmsh.write(w.path("carcase.step"))
    w.holds(
        "carcase.step",
        [("", 2, 600, 300, 18), ("", 1, 500, 300, 18)],
        says="solids that share faces",
    )
    gmsh.option.setNumber("Mesh.MeshSizeMax", 600)
    gmsh.model.mesh.generate(2)
    gmsh.option.setNumber("Mesh.Binary", 1)
    gmsh.write(w.path("carcase.stl"))
    gmsh.option.setNumber("Mesh.Binary", 0)
    w.holds(
        "carcase.stl",
        [("", 2, 600, 300, 18), ("", 1, 500, 300, 18)],
        "mm",
        says="shared faces are written once: touching boards",
    )


def rounds() -> None:
    new()
    o = gmsh.model.occ
    for k in range(3):
        o.addCylinder(100 * k, 0, 0, 0, 30, 700, 16)
    o.addTorus(500, 500, 0, 200, 20)
    o.synchronize()
    gmsh.write(w.path("spindles.step"))
    w.holds(
        "spindles.step",
        [("", 3, 700.64, 32, 32), ("", 1, 440, 440, 40)],
        says="three spindles, a ring",
    )


bench()
fragments()
rounds()
gmsh.finalize()
w.done()
