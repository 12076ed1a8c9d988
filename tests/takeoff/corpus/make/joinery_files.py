"""Joinery by CadQuery and build123d: dovetails, lofted and swept pieces, rounded edges, bent
laminations, names at every level.
"""

import math

import build123d as bd
import cadquery as cq
from corpus import Writer, least_box

w = Writer("joinery")


def board(long: float, wide: float, thick: float) -> cq.Workplane:
    return cq.Workplane("XY").box(long, wide, thick, centered=False)


def dovetailed() -> None:
    """A drawer whose sides carry tails and whose front carries the sockets: every piece a solid of
    its own.
    """
    side, front = board(400, 120, 12), board(350, 120, 20)
    for k in range(3):
        y = 10 + 40 * k
        tail = (
            cq.Workplane("XY")
            .polyline([(400, y), (412, y - 4), (412, y + 24), (400, y + 20)])
            .close()
            .extrude(12)
        )
        side = side.union(tail)
        front = front.cut(
            cq.Workplane("XZ", origin=(0, y + 24, 0)).rect(12, 24, centered=False).extrude(28)
        )
    a = cq.Assembly(name="Drawer")
    a.add(side, name="side_1", loc=cq.Location(cq.Vector(0, 0, 0), cq.Vector(1, 0, 0), 90))
    a.add(
        side.mirror("XY"),
        name="side_2",
        loc=cq.Location(cq.Vector(0, 350, 0), cq.Vector(1, 0, 0), 90),
    )
    a.add(front, name="front", loc=cq.Location(cq.Vector(700, 0, 0), cq.Vector(0, 0, 1), 90))
    a.add(board(330, 380, 6), name="bottom", loc=cq.Location(cq.Vector(0, 0, 300)))
    a.export(w.path("drawer.step"))
    w.holds(
        "drawer.step",
        [("side", 2, 412, 120, 12), ("front", 1, 350, 120, 20), ("bottom", 1, 380, 330, 6)],
        says="dovetails",
    )


def rounded() -> None:
    """Edges rounded over all round, a moulded edge, a through-mortised leg with a chamfered
    foot.
    """
    top = board(900, 450, 22).edges().fillet(6)
    shelf = board(860, 300, 18).edges("|X and >Z").fillet(9)
    leg = (
        board(700, 50, 50)
        .faces(">Y")
        .workplane(centerOption="CenterOfBoundBox")
        .pushPoints([(250, 0), (-150, 0)])
        .rect(60, 12)
    )
    leg = leg.cutThruAll().faces("<X").edges().chamfer(5)
    a = cq.Assembly(name="Hall table")
    a.add(top, name="Top", color=cq.Color("sienna"))
    a.add(shelf, name="Shelf", loc=cq.Location(cq.Vector(0, 600, 0), cq.Vector(1, 1, 0), 40))
    for k in range(4):
        a.add(
            leg,
            name=f"Leg_{k}",
            loc=cq.Location(cq.Vector(0, 1200, 100 * k), cq.Vector(1, 0, 0), 90 * k),
        )
    a.export(w.path("rounded.step"))
    w.holds(
        "rounded.step",
        [("Top", 1, 900, 450, 22), ("Shelf", 1, 860, 300, 18), ("Leg", 4, 700, 50, 50)],
        says="fillets, chamfers, mortises",
    )


def curved() -> None:
    """A cabriole leg by a loft, right and left; a bent back slat; a coopered lid stave with
    bevelled edges.
    """
    leg = (
        cq.Workplane("XY")
        .rect(60, 60)
        .workplane(offset=150)
        .center(15, 15)
        .rect(70, 70)
        .workplane(offset=200)
        .center(-20, -20)
        .rect(40, 40)
        .workplane(offset=60)
        .center(12, 12)
        .rect(56, 56)
        .loft(combine=True)
    )
    radius, angle = 1200.0, 0.42
    inner = [(radius * math.sin(t), radius * math.cos(t)) for t in (-angle / 2, 0, angle / 2)]
    outer = [
        ((radius + 10) * math.sin(t), (radius + 10) * math.cos(t))
        for t in (angle / 2, 0, -angle / 2)
    ]
    slat = (
        cq.Workplane("XY")
        .moveTo(*inner[0])
        .threePointArc(inner[1], inner[2])
        .lineTo(*outer[0])
        .threePointArc(outer[1], outer[2])
        .close()
        .extrude(45)
    )
    high = (radius + 10) - radius * math.cos(angle / 2)
    stave = cq.Workplane("YZ").polyline([(0, 0), (70, 0), (66, 20), (4, 20)]).close().extrude(500)
    a = cq.Assembly(name="Chair")
    a.add(slat, name="Back slat")
    for k in range(6):
        a.add(
            stave,
            name=f"Stave {k + 1}",
            loc=cq.Location(cq.Vector(0, 100 * k, -500), cq.Vector(1, 0, 0), 12 * k),
        )
    a.export(w.path("bent.step"))
    w.holds(
        "bent.step",
        [
            ("Back slat", 1, 2 * (radius + 10) * math.sin(angle / 2), 45, high),
            ("Stave", 6, 500, 70, 20),
        ],
        says="a bent slat, bevelled staves",
    )
    pair = cq.Assembly(name="Legs")
    pair.add(leg, name="Cabriole R")
    pair.add(
        leg.mirror("YZ"),
        name="Cabriole L",
        loc=cq.Location(cq.Vector(300, 0, 0), cq.Vector(0, 0, 1), 77),
    )
    pair.export(w.path("cabriole.step"))
    b = leg.val().BoundingBox()
    w.holds(
        "cabriole.step",
        [("Cabriole", 2, b.zlen, b.xlen, b.ylen)],
        says="a loft and its mirror image",
    )


def levels() -> None:
    """Names on the container of one body, which is called Body or Part1 in it; one container stands
    twice.
    """

    def rail(name: str, wide: float, inner: str, y: float, turn: float = 0) -> bd.Compound:
        body = bd.Box(480, wide, 20)
        body.label = inner
        made = bd.Compound(label=name, children=[body])
        made.location = bd.Location((0, y, 0), (0, 0, turn))
        return made

    whole = bd.Compound(
        label="Door",
        children=[
            rail("Lower rail", 70, "Body", 0),
            rail("Upper rail", 50, "Part1", 200),
            rail("Lower rail", 70, "Body", 500, 30),
        ],
    )
    bd.export_step(whole, w.path("levels.step"))
    w.holds(
        "levels.step",
        [("Lower rail", 2, 480, 70, 20), ("Upper rail", 1, 480, 50, 20)],
        says="bodies called Body and Part1 in named containers",
    )


def odd() -> None:
    """A half-lapped cross in two pieces, an oval top, a ring of segments, pegs with a taper."""
    lap = board(700, 60, 40).cut(board(60, 60, 20).translate((320, 0, 20)))
    oval = cq.Workplane("XY").ellipse(500, 300).extrude(25)
    peg = cq.Workplane("XY").circle(8).workplane(offset=70).circle(5).loft(combine=True)
    angle = math.pi / 4
    segment = (
        cq.Workplane("XY")
        .moveTo(200, 0)
        .radiusArc((200 * math.cos(angle), 200 * math.sin(angle)), -200)
        .lineTo(260 * math.cos(angle), 260 * math.sin(angle))
        .radiusArc((260, 0), 260)
        .close()
        .extrude(30)
    )
    a = cq.Assembly()
    a.add(lap, name="Foot A")
    a.add(lap, name="Foot B", loc=cq.Location(cq.Vector(0, 300, 200), cq.Vector(0, 1, 1), 180))
    a.add(oval, name="Top", loc=cq.Location(cq.Vector(0, 0, 400)))
    for k in range(5):
        a.add(
            peg,
            name=f"peg{k}",
            loc=cq.Location(cq.Vector(800, 50 * k, 0), cq.Vector(1, 0, 0), 15 * k),
        )
    for k in range(8):
        a.add(
            segment,
            name=f"Segment {k + 1}",
            loc=cq.Location(cq.Vector(0, 0, 600), cq.Vector(0, 0, 1), 45 * k),
        )
    a.export(w.path("pedestal.step"))
    long, wide = least_box(
        [
            (r * math.cos(t * angle / 400), r * math.sin(t * angle / 400))
            for t in range(401)
            for r in (200.0, 260.0)
        ]
    )
    w.holds(
        "pedestal.step",
        [
            ("Foot", 2, 700, 60, 40),
            ("Top", 1, 1000, 600, 25),
            ("peg", 5, 70, 16, 16),
            ("Segment", 8, long, wide, 30),
        ],
        says="halved, oval, tapered, segments of a ring",
    )


for make in (dovetailed, rounded, curved, levels, odd):
    make()
w.done()
