"""Models and drawings by CadQuery: assemblies with names and fillets, curves, booleans; STEP, STL,
DXF, SVG, GLB, 3MF.
"""

import math

import cadquery as cq
from cadquery import exporters
from corpus import Writer, least_box

w = Writer("cadquery")


def board(long: float, wide: float, thick: float) -> cq.Workplane:
    return cq.Workplane("XY").box(long, wide, thick, centered=False)


def stool() -> None:
    """Names, colours and turned copies; legs at a splay."""
    leg = board(420, 38, 38).faces(">X").chamfer(3)
    rail = board(300, 60, 20)
    seat = cq.Workplane("XY").box(380, 280, 28).edges("|Z").fillet(20)
    a = cq.Assembly(name="Stool")
    for k in range(4):
        turn = cq.Location(
            cq.Vector(200 * (k % 2), 150 * (k // 2), 0),
            cq.Vector(0, 1, 0),
            -90 + (5 if k % 2 else -5),
        )
        a.add(leg, name=f"Leg {k + 1}", loc=turn, color=cq.Color("burlywood"))
    a.add(rail, name="Rail front", loc=cq.Location(cq.Vector(0, 0, 300)), color=cq.Color("tan"))
    a.add(rail, name="Rail back", loc=cq.Location(cq.Vector(0, 300, 300)), color=cq.Color("tan"))
    a.add(
        seat,
        name="Seat",
        loc=cq.Location(cq.Vector(190, 140, 450)),
        color=cq.Color(0.8, 0.6, 0.3, 1),
    )
    truth = [("Leg", 4, 420, 38, 38), ("Rail", 2, 300, 60, 20), ("Seat", 1, 380, 280, 28)]
    a.export(w.path("stool.step"))
    w.holds("stool.step", truth, says="assembly, colours, turned")
    a.export(w.path("stool.glb"), tolerance=0.02, angularTolerance=0.1)
    w.holds("stool.glb", truth, "mm", says="the same as glb: written in mm by one, in m by another")


def nested() -> None:
    """Sub-assemblies twice, one of them mirrored by hand; a face in its own colour."""
    side = board(700, 240, 19).cut(
        board(240, 10, 6).translate((300, 0, 13)).rotate((300, 0, 0), (300, 0, 1), 90)
    )
    shelf = board(600, 230, 19)
    bay = cq.Assembly(name="Bay")
    bay.add(side, name="Side", loc=cq.Location(cq.Vector(0, 0, 0), cq.Vector(0, 1, 0), -90))
    bay.add(
        side.mirror("XY"),
        name="Side left",
        loc=cq.Location(cq.Vector(700, 0, 0), cq.Vector(0, 1, 0), -90),
    )
    for k in range(3):
        bay.add(shelf, name=f"Shelf{k}", loc=cq.Location(cq.Vector(30, 0, 100 + 200 * k)))
    whole = cq.Assembly(name="Shelving")
    whole.add(bay, name="Bay 1")
    whole.add(bay, name="Bay 2", loc=cq.Location(cq.Vector(900, 0, 0), cq.Vector(0, 0, 1), 30))
    whole.export(w.path("shelving.step"))
    w.holds(
        "shelving.step",
        [("Side", 4, 700, 240, 19), ("Shelf", 6, 600, 230, 19)],
        says="nested twice, mirrored sides",
    )


def curves() -> None:
    """A rocker on a radius of 1100, a crest rail on 900, a turned leg with a taper, a sabre leg by
    splines.
    """
    angle = 2 * math.asin(930 / 2 / 1130)
    rocker = (
        cq.Workplane("XZ")
        .center(0, 0)
        .moveTo(1130 * math.sin(-angle / 2), -1130 * math.cos(angle / 2))
        .threePointArc((0, -1130), (1130 * math.sin(angle / 2), -1130 * math.cos(angle / 2)))
        .lineTo(1070 * math.sin(angle / 2), -1070 * math.cos(angle / 2))
        .threePointArc((0, -1070), (1070 * math.sin(-angle / 2), -1070 * math.cos(angle / 2)))
        .close()
        .extrude(32)
    )
    height = 1130 - 1070 * math.cos(angle / 2)
    turned = (
        cq.Workplane("XZ")
        .polyline([(0, 0), (18, 0), (25, 150), (15, 400), (0, 400)])
        .close()
        .revolve(360, (0, 0), (0, 1))
    )
    sabre = (
        cq.Workplane("XZ")
        .moveTo(0, 0)
        .spline([(30, 150), (20, 300), (0, 420)], includeCurrent=True)
        .lineTo(45, 420)
        .spline([(66, 300), (76, 150), (38, 0)], includeCurrent=True)
        .close()
        .extrude(30)
    )
    a = cq.Assembly(name="Rocking chair")
    for k in range(2):
        a.add(rocker, name=f"Rocker {k + 1}", loc=cq.Location(cq.Vector(0, 500 * k, 0)))
    for k in range(4):
        a.add(
            turned,
            name=f"Turned leg {k + 1}",
            loc=cq.Location(cq.Vector(200 + 80 * k, 0, 0), cq.Vector(1, 0, 0), 8),
        )
    a.export(w.path("rocker.step"))
    w.holds(
        "rocker.step",
        [("Rocker", 2, 930, height, 32), ("Turned leg", 4, 400, 50, 50)],
        says="curved pieces",
    )
    edges = list(sabre.faces("<Y").edges().vals())
    long, wide = least_box(
        [(p.x, p.z) for e in edges for p in (e.positionAt(t / 500) for t in range(501))]
    )
    pair = cq.Assembly(name="Chair")
    pair.add(sabre, name="Sabre leg right")
    pair.add(
        sabre.mirror("YZ"),
        name="Sabre leg left",
        loc=cq.Location(cq.Vector(300, 0, 0), cq.Vector(0, 0, 1), 20),
    )
    pair.export(w.path("sabre.step"))
    w.holds("sabre.step", [("Sabre leg", 2, long, wide, 30)], says="splines, mirrored")


def unnamed() -> None:
    """One compound of solids without names; and one solid exported alone."""
    solids = [
        board(900, 90, 22),
        board(900, 90, 22).translate((0, 120, 0)),
        board(500, 140, 18).rotate((0, 0, 0), (0, 0, 1), 35).translate((0, 300, 0)),
    ]
    exporters.export(
        cq.Workplane(cq.Compound.makeCompound([s.val() for s in solids])), w.path("compound.step")
    )
    truth = [("", 2, 900, 90, 22), ("", 1, 500, 140, 18)]
    w.holds("compound.step", truth, says="no names")
    exporters.export(
        cq.Workplane(cq.Compound.makeCompound([s.val() for s in solids])), w.path("compound.stl")
    )
    w.holds("compound.stl", truth, "mm")
    exporters.export(
        cq.Workplane(cq.Compound.makeCompound([s.val() for s in solids])), w.path("compound.3mf")
    )
    w.holds("compound.3mf", truth)
    tenoned = (
        board(640, 70, 25)
        .faces("<X")
        .workplane(centerOption="CenterOfBoundBox")
        .rect(50, 10)
        .extrude(30)
        .faces(">X")
        .workplane(centerOption="CenterOfBoundBox")
        .rect(50, 10)
        .extrude(30)
    )
    exporters.export(tenoned, w.path("tenoned-rail.step"))
    w.holds("tenoned-rail.step", [("", 1, 700, 70, 25)], says="one solid with tenons")
    drawer = board(400, 120, 12).union(
        board(12, 120, 300).rotate((0, 0, 0), (1, 0, 0), 0).translate((0, 0, 0))
    )
    drawer = drawer.union(board(12, 120, 300).translate((388, 0, 0)))
    exporters.export(drawer, w.path("fused-drawer.step"))
    w.holds(
        "fused-drawer.step",
        [("", 1, 400, 120, 12), ("", 2, 288, 120, 12)],
        says="three boards in one body; the front runs through",
    )


def flat() -> None:
    """Faces as DXF: profiles with holes and arcs, as a cutting drawing."""
    template = (
        cq.Workplane("XY")
        .rect(500, 160)
        .extrude(1)
        .edges("|Z")
        .fillet(25)
        .faces(">Z")
        .workplane()
        .pushPoints([(-150, 0), (150, 0)])
        .hole(12)
    )
    exporters.exportDXF(template.section(), w.path("template.dxf"))
    w.holds(
        "template.dxf", [("", 1, 500, 160, 0)], "mm", says="outline of lines and arcs, two bores"
    )
    several = cq.Workplane("XY").add(
        cq.Workplane().rect(400, 90).extrude(1).translate((0, 0, 0)).section().val()
    )
    for k in range(1, 4):
        several = several.add(
            cq.Workplane().rect(400, 90).extrude(1).translate((0, 120 * k, 0)).section().val()
        )
    exporters.exportDXF(several, w.path("slats.dxf"))
    w.holds("slats.dxf", [("", 4, 400, 90, 0)], "mm")
    ellipse = cq.Workplane("XY").ellipse(300, 200).extrude(1).section()
    exporters.exportDXF(ellipse, w.path("oval-top.dxf"))
    w.holds("oval-top.dxf", [("", 1, 600, 400, 0)], "mm", says="an ellipse")


stool()
nested()
curves()
unnamed()
flat()
w.done()
