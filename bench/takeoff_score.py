"""How often a drawing becomes the right list: files with a known truth, written by general
libraries, read and compared.

    .plank/venv/bin/python -m bench.takeoff_score [files of each kind] [first seed]

Every file holds a piece of furniture made up from its seed: plain, notched, bevelled, curved and
turned pieces, several of a kind, some mirrored, turned and nested; flat drawings with a frame, a
switched-off layer, holes and copies; lists with their columns in any order and language. Right: the
counts and sizes are the truth. Asked: they are not, but the reading asks, names a trouble or a
decision, or refuses the row. Wrong without a word is all the rest, and the seeds that show it are
printed.
"""

import io
import math
import random
import sys
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from vividplank.core.exchange.parts_list import read_parts
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff import Settings, Unreadable, read

#: A size in mm to a tenth: length, width, thickness, or length and width of a flat drawing.
Size = tuple[float, ...]
#: Sizes agree within this (mm): facets of round things stand off so far.
WITHIN = 0.25
MESHES = ("stl", "obj", "ply", "off", "glb", "3mf")


@dataclass(frozen=True)
class File:
    name: str
    content: bytes
    truth: Counter[Size]
    unit: Any = None  # what the maker would answer where the file does not say


def a_size(random: random.Random) -> tuple[float, float, float]:
    """Of a board, on the half millimetre; never two sides alike."""
    return (
        random.randrange(500, 2800) / 2,
        random.randrange(70, 240) / 2,
        random.randrange(24, 66) / 2,
    )


def step(random: random.Random) -> File:
    from OCP.BRepAlgoAPI import BRepAlgoAPI_Cut
    from OCP.BRepBuilderAPI import (
        BRepBuilderAPI_MakeFace,
        BRepBuilderAPI_MakePolygon,
        BRepBuilderAPI_Transform,
    )
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeCylinder, BRepPrimAPI_MakeRevol
    from OCP.gp import gp_Ax1, gp_Dir, gp_Pnt

    from tests.takeoff.step_files import Assembly, block, mirrored, place

    built, truth = Assembly(), Counter[Size]()
    top = built.group("Piece")
    for k in range(random.randrange(2, 7)):
        long, wide, thick = a_size(random)
        kind = random.choice(("plain", "plain", "notched", "pair", "curved", "turned"))
        shape = block(long, wide, thick)
        size: Size = (long, wide, thick)
        if kind in ("notched", "pair"):
            cutter = BRepBuilderAPI_Transform(
                block(45, wide / 3, thick / 2), place(30).Transformation(), True
            ).Shape()
            shape = BRepAlgoAPI_Cut(shape, cutter).Shape()
        if kind == "turned":
            shape, size = BRepPrimAPI_MakeCylinder(wide / 2, long).Shape(), (long, wide, wide)
        if kind == "curved":
            inner, angle = long, 0.9
            ring = BRepBuilderAPI_MakePolygon(
                *(
                    gp_Pnt(x, 0, z)
                    for x, z in (
                        (inner, 0),
                        (inner + wide, 0),
                        (inner + wide, thick),
                        (inner, thick),
                    )
                ),
                True,
            )
            face = BRepBuilderAPI_MakeFace(ring.Wire()).Face()
            shape = BRepPrimAPI_MakeRevol(
                face, gp_Ax1(gp_Pnt(0, 0, 0), gp_Dir(0, 0, 1)), angle
            ).Shape()
            size = (
                2 * (inner + wide) * math.sin(angle / 2),
                inner + wide - inner * math.cos(angle / 2),
                thick,
            )
        many = random.randrange(1, 4)
        product = built.product(shape, f"{kind.capitalize()} {chr(65 + k)}")
        other = product
        if kind == "pair" and many > 1:
            other = built.product(mirrored(shape), f"{kind.capitalize()} {chr(65 + k)} left")
        group = built.group(f"Bay {k}") if random.random() < 0.5 else top
        for n in range(many):
            about = random.choice(((0, 0, 1), (1, 0, 0), (0.6, 0.8, 0)))
            built.put(
                group,
                other if n == 1 else product,
                place(400 * n, 500 * k, 30 * n, random.uniform(0, 3), about),
            )
        if group is not top:
            built.put(top, group, place(0, 0, 100, random.uniform(0, 3)))
        truth[size] += many
    schema, unit = random.choice(("AP203", "AP214IS", "AP242DIS")), random.choice(("MM", "INCH"))
    return File("piece.step", built.write(schema, unit), truth)


def mesh(random: random.Random, kind: str) -> File:
    import numpy as np
    import trimesh

    scene, truth = trimesh.Scene(), Counter[Size]()
    scale = 0.001 if kind == "glb" else 1.0
    along = 0.0
    for k in range(random.randrange(2, 7)):
        long, wide, thick = a_size(random)
        size: Size = (long, wide, thick)
        shape = random.choice(("plain", "plain", "bevelled", "turned"))
        made = trimesh.creation.box((long, wide, thick))
        if shape == "turned":
            made, size = trimesh.creation.cylinder(wide / 2, long, sections=96), (long, wide, wide)
        if shape == "bevelled":  # tapered to one end
            made.vertices[:, 1] *= np.where(made.vertices[:, 0] > 0, 0.6, 1.0)
        many = random.randrange(1, 4)
        for n in range(many):
            about = random.choice(((0, 0, 1), (1, 0, 0), (1, 2, 3)))
            turn = trimesh.transformations.rotation_matrix(random.uniform(0, 3), about)
            placed = made.copy().apply_transform(turn)
            along += 1500
            placed.apply_translation((along, 300 * k, 0)).apply_scale(scale)
            name = f"{shape.capitalize()} {chr(65 + k)}.{n + 1:03d}"
            scene.add_geometry(placed, geom_name=f"{shape}_{k}_{n}", node_name=name)
        truth[size] += many
    thing = scene if kind in ("glb", "3mf", "obj") else scene.to_geometry()
    content = thing.export(file_type=kind)
    content = content.encode() if isinstance(content, str) else bytes(content)
    return File(f"piece.{kind}", content, truth, "m" if kind == "glb" else "mm")


Ring = list[tuple[float, float]]


def flat_pieces(
    random: random.Random,
) -> tuple[list[tuple[str, Ring, bool]], Counter[Size], float, float]:
    """Names, rings (mm) and whether a hole is in them; the truth; and the width and height they lie
    in.
    """
    pieces, truth, y, widest = [], Counter[Size](), 60.0, 0.0
    for k in range(random.randrange(2, 6)):
        long, wide, _ = a_size(random)
        ring: Ring = [(0, 0), (long, 0), (long, wide), (0, wide)]
        shape = random.choice(("plain", "plain", "notched", "tapered"))
        if shape == "notched":
            ring = [(0, 0), (long, 0), (long, wide), (60, wide), (60, wide / 2), (0, wide / 2)]
        if shape == "tapered":
            ring = [(0, 0), (long, 0), (long, wide * 0.6), (0, wide)]
        many, holes, on_end = random.randrange(1, 4), random.random() < 0.3, random.random() < 0.3
        x = 60.0
        for _ in range(many):
            turned = [(-b, a) for a, b in ring] if on_end else ring
            low_x, low_y = min(p[0] for p in turned), min(p[1] for p in turned)
            placed = [(a - low_x + x, b - low_y + y) for a, b in turned]
            pieces.append((f"{shape.capitalize()} {chr(65 + k)}", placed, holes))
            x = max(p[0] for p in placed) + 40
        y = max(p[1] for _, r, _ in pieces[-many:] for p in r) + 60
        widest = max(widest, x)
        truth[(long, wide)] += many
    return pieces, truth, widest + 60, y + 60


def dxf(random: random.Random) -> File:
    import ezdxf

    code, per, unit = random.choice(
        ((4, 1.0, "mm"), (1, 25.4, "in"), (5, 10.0, "cm"), (6, 1000.0, "m"), (0, 1.0, "mm"))
    )
    document = ezdxf.new(random.choice(("R2000", "R2010", "R2018")))
    document.header["$INSUNITS"] = code
    space = document.modelspace()
    pieces, truth, wide, high = flat_pieces(random)
    named = random.random() < 0.7
    in_lines = random.random() < 0.3
    for name, ring, hole in pieces:
        points = [(a / per, b / per) for a, b in ring]
        if in_lines:
            for a, b in zip(points, points[1:] + points[:1], strict=True):
                space.add_line(a, b)
        else:
            space.add_lwpolyline(points, close=True)
        x, y = sum(p[0] for p in points) / len(points), sum(p[1] for p in points) / len(points)
        if named:
            space.add_text(name, dxfattribs={"insert": (x, y), "height": 8 / per})
        if hole:
            space.add_circle((x, y), 4 / per)
    if random.random() < 0.5:
        layer = random.choice(("0", "BORDER"))
        if layer != "0":
            document.layers.add(layer)
        high = max(high, wide / 2**0.5) if layer == "0" else high
        wide = high * 2**0.5 if layer == "0" else wide
        ring = [(0, 0), (wide / per, 0), (wide / per, high / per), (0, high / per)]
        space.add_lwpolyline(ring, close=True, dxfattribs={"layer": layer})
    if random.random() < 0.4:
        document.layers.add("OLD").off()
        left_over = [(10 / per, 10 / per), (50 / per, 10 / per), (50 / per, 30 / per)]
        space.add_lwpolyline(left_over, close=True, dxfattribs={"layer": "OLD"})
    out = io.StringIO()
    document.write(out)
    return File("pieces.dxf", out.getvalue().encode(), truth, unit if code == 0 else None)


def svg(random: random.Random) -> File:
    pieces, truth, wide, high = flat_pieces(random)
    drawn = []
    if random.random() < 0.5:
        drawn.append(f'<rect width="{wide}" height="{high}" fill="white"/>')
    for k, (name, ring, _) in enumerate(pieces):
        points = " ".join(f"{a},{b}" for a, b in ring)
        shape = f'<polygon id="poly{k}" points="{points}"/>'
        drawn.append(random.choice((f'<g id="{name.replace(" ", "-")}">{shape}</g>', shape)))
    if random.random() < 0.3:
        drawn.append('<g style="display:none"><rect width="200" height="30"/></g>')
    root = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide}mm" height="{high}mm" '
        f'viewBox="0 0 {wide} {high}">'
    )
    return File("pieces.svg", (root + "".join(drawn) + "</svg>").encode(), truth)


COLUMNS = {
    "en": ("Part", "Qty", "Length", "Width", "Thickness", "Wood"),
    "de": ("Bezeichnung", "Anzahl", "Länge", "Breite", "Stärke", "Holz"),
    "fr": ("Désignation", "Quantité", "Longueur", "Largeur", "Épaisseur", "Bois"),
    "es": ("Pieza", "Cantidad", "Largo", "Ancho", "Grosor", "Madera"),
    "it": ("Pezzo", "Quantità", "Lunghezza", "Larghezza", "Spessore", "Legno"),
    "nl": ("Onderdeel", "Aantal", "Lengte", "Breedte", "Dikte", "Hout"),
    "sv": ("Benämning", "Antal", "Längd", "Bredd", "Tjocklek", "Träslag"),
    "??": ("Ding", "Wieviel", "Erstes", "Zweites", "Drittes", "Woraus"),
}


def table(random: random.Random) -> File:
    """A list: as text or a workbook, columns in any order, in a language, with or without a unit, a
    title, another sheet.
    """
    truth = Counter[Size]()
    heads = list(COLUMNS[random.choice(list(COLUMNS))])
    order = random.sample(range(6), 6)
    unit, per = random.choice((("mm", 1.0), ("cm", 10.0), ("", 1.0), ("in", 25.4)))
    rows: list[list[str]] = []
    for k in range(random.randrange(2, 7)):
        size = a_size(random)
        many = random.randrange(1, 5)
        truth[size] += many
        row = [f"Piece {chr(65 + k)}", str(many), *(f"{s / per:.10g}" for s in size), "ash"]
        rows.append([row[k] for k in order])
    if unit:
        heads = [f"{h} ({unit})" if 2 <= k <= 4 else h for k, h in enumerate(heads)]
    titled = [["Reading room"], []] if random.random() < 0.3 else []
    everything = [*titled, [heads[k] for k in order], *rows]
    if random.random() < 0.4:
        from openpyxl import Workbook

        book = Workbook()
        assert book.active is not None
        for line in everything:
            book.active.append([float(c) if c.replace(".", "", 1).isdigit() else c for c in line])
        out = io.BytesIO()
        book.save(out)
        return File("list.xlsx", out.getvalue(), truth)
    mark = random.choice((";", "\t", ","))
    text = "\n".join(mark.join(line) for line in everything)
    return File("list.csv", text.encode(random.choice(("utf-8", "utf-8-sig", "utf-16"))), truth)


KINDS: dict[str, Callable[[random.Random], File]] = {
    "step": step,
    **{kind: (lambda r, kind=kind: mesh(r, kind)) for kind in MESHES},  # type: ignore[misc]
    "dxf": dxf,
    "svg": svg,
    "list": table,
}


def judged(file: File) -> str:
    """Right, answered (right once its unit is told), asked, or wrong without a word."""
    found, asks, proposed = _read(file, Settings())
    if _same(found, file.truth):
        return "answered" if proposed else "right"
    if asks and file.unit and _same(_read(file, Settings(file.unit))[0], file.truth):
        return "answered"
    return "asked" if asks else "wrong"


def _read(file: File, settings: Settings) -> tuple[Counter[Size], bool, bool]:
    """Counts by size, whether anything is asked or told, and whether they are only proposed until
    that is answered.
    """
    try:
        reading, _ = read(file.content, file.name, settings)
    except Unreadable:
        return Counter(), True, False
    if reading.kind == "list":
        listed = read_parts(reading.table, "mm")
        sizes = Counter[Size]()
        for part in listed.parts:
            sizes[
                (
                    part.length / TICKS_PER_MM,
                    part.width / TICKS_PER_MM,
                    part.thickness / TICKS_PER_MM,
                )
            ] += part.quantity
        return sizes, bool(listed.refused or listed.questions), bool(listed.questions)
    found = Counter[Size]()
    for piece in reading.parts:
        found[
            (
                piece.length / TICKS_PER_MM,
                piece.width / TICKS_PER_MM,
                piece.thickness / TICKS_PER_MM,
            )
        ] += piece.quantity
    return found, bool(reading.asks or reading.troubles or reading.decisions), False


def _same(found: Counter[Size], truth: Counter[Size]) -> bool:
    """Whether each size of the truth is found, within the tolerance, as often as it is there."""
    left = Counter(found)
    for size, many in truth.items():
        near = [s for s in left if all(abs(a - b) < WITHIN for a, b in zip(s, size, strict=False))]
        if sum(left[s] for s in near) != many:
            return False
        for s in near:
            del left[s]
    return not left


def main(files: int, first: int) -> None:
    print(f"{'':6}  right  answered  asked  wrong without a word")
    for kind, make in KINDS.items():
        results = {
            seed: judged(make(random.Random(f"{kind} {seed}")))
            for seed in range(first, first + files)
        }
        counts = Counter(results.values())
        seeds = [s for s, r in results.items() if r in ("wrong", "asked")]
        print(
            f"{kind:6}  {counts['right']:5}  {counts['answered']:8}  {counts['asked']:5}  "
            f"{counts['wrong']:5}"
            + (f"   not right: {', '.join(f'{s} {results[s]}' for s in seeds)}" if seeds else "")
        )


if __name__ == "__main__":
    main(*(int(a) for a in (sys.argv[1:] + ["20", "1"][len(sys.argv) - 1 :])))
