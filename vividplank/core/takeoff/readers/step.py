"""STEP (AP203, AP214, AP242) through the open CAD kernel, which is loaded only here: it takes
seconds and memory.
"""

import re
import tempfile
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np

from vividplank.core.takeoff.model.doubts import doubted, renamed
from vividplank.core.takeoff.model.found import FILE_UNITS, FileUnit, Reading, Settings, Unreadable
from vividplank.core.takeoff.model.units import TOO_BIG, by_its_word, guess_unit
from vividplank.core.takeoff.model.words import SYSTEM_OF
from vividplank.core.takeoff.readers.picture import pictures
from vividplank.core.takeoff.readers.references import refers_to
from vividplank.core.takeoff.solids.oriented_box import Solid
from vividplank.core.takeoff.solids.solids import parts_of, plain_name

#: How far the triangles may stand off a curved face (mm), and by what angle (radians).
_DEFLECTION, _ANGLE = 0.02, 0.2


def read_step(
    content: bytes, settings: Settings, beside: Path | None = None, *, plain: bool = False
) -> Reading:
    """Every solid of the assembly, nested placements and units honoured, as parts.

    Parts that lie in other files are taken where those are in the folder `beside`, and named as
    missing where not. `plain` reads the solids alone. Raises Unreadable where the kernel finds no
    STEP data or no solid.
    """
    if b"ISO-10303-21" not in content[:4096]:
        raise Unreadable("this is no STEP file: it does not begin with ISO-10303-21")
    missing = tuple(n for n in refers_to(content) if not beside or not (beside / n).is_file())
    solids, troubles = _bare(content) if plain else _solids(content, beside)
    if missing:
        these = ", ".join(missing)
        troubles.append(
            f"parts of it lie in other files, which are not here: {these}. Bring those too, or "
            f"export all in one"
        )
    if not solids and missing:
        return Reading("model", "mm", troubles=tuple(troubles), missing=missing)
    if not solids:
        raise Unreadable(
            "this STEP file holds no solid. "
            + (" ".join(troubles) or "Export solids, not surfaces or sketches")
        )
    unit: FileUnit = "mm"
    asks = ""
    biggest = float(np.ptp(np.concatenate([s.vertices for s in solids]), axis=0).max())
    said: FileUnit = _unit(content)
    if biggest > TOO_BIG:
        # What its figures would be in another unit than the one it names: programs take one for the
        # other. Only then is an answer about its unit heard: one given for another file that this
        # one replaces says nothing of it.
        unit = settings.unit or guess_unit(biggest / FILE_UNITS[said])[0]
        asks = "" if settings.unit else by_its_word(biggest / FILE_UNITS[said], said)
        scale = FILE_UNITS[unit] / FILE_UNITS[said]
        solids = [replace(s, vertices=s.vertices * scale) for s in solids]
    taken = parts_of(solids, settings)
    parts, doubts = doubted(taken.parts, settings, SYSTEM_OF[unit], taken.decisions)
    layers = tuple(sorted({s.layer for s in solids if s.layer}))
    return Reading(
        "model",
        unit,
        renamed(parts),
        pictures(list(taken.solids)),
        asks,
        (*troubles, *taken.troubles),
        layers,
        len(taken.solids),
        decisions=(*doubts, *taken.decisions),
        missing=missing,
    )


def _unit(content: bytes) -> FileUnit:
    """The unit of length that the file names; millimetres where it names none."""
    named = re.search(
        rb"CONVERSION_BASED_UNIT\s*\(\s*'\s*(INCH|FOOT|FEET|MILLIMETRE|CENTIMETRE|METRE)",
        content,
        re.IGNORECASE,
    )
    words: dict[bytes, FileUnit] = {
        b"INCH": "in",
        b"FOOT": "ft",
        b"FEET": "ft",
        b"CENTIMETRE": "cm",
        b"METRE": "m",
    }
    if named:
        return words.get(named[1].upper(), "mm")
    metric = re.search(rb"SI_UNIT\s*\(\s*(\.\w+\.|\$)\s*,\s*\.METRE\.", content)
    prefixes: dict[bytes, FileUnit] = {b"$": "m", b".CENTI.": "cm"}
    return prefixes.get(metric[1], "mm") if metric else "mm"


def _bare(content: bytes) -> tuple[list[Solid], list[str]]:
    """The solids without names, layers and placements of their own: another way through the
    kernel.
    """
    from OCP.IFSelect import IFSelect_RetDone
    from OCP.STEPControl import STEPControl_Reader

    reader = STEPControl_Reader()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "model.step"
        path.write_bytes(content)
        if reader.ReadFile(str(path)) != IFSelect_RetDone:
            raise Unreadable(
                "this STEP file is damaged: its data section cannot be read to the end"
            )
        reader.TransferRoots()
    found: list[Solid] = []
    troubles = [
        (
            "read without names and layers: the reader failed on them. That is our fault; name the "
            "parts on the list"
        )
    ]
    _bodies(reader.OneShape(), None, "", "", found, troubles)
    return found, troubles


def _solids(content: bytes, beside: Path | None) -> tuple[list[Solid], list[str]]:
    from OCP.collections import Sequence_TDF_Label
    from OCP.IFSelect import IFSelect_RetDone
    from OCP.STEPCAFControl import STEPCAFControl_Reader
    from OCP.TCollection import TCollection_ExtendedString
    from OCP.TDocStd import TDocStd_Document
    from OCP.XCAFDoc import XCAFDoc_DocumentTool

    reader = STEPCAFControl_Reader()
    reader.SetNameMode(True)
    reader.SetLayerMode(True)
    document = TDocStd_Document(TCollection_ExtendedString("takeoff"))
    with tempfile.TemporaryDirectory() as folder:  # the kernel reads from a path
        for other in beside.iterdir() if beside else ():
            (Path(folder) / other.name).write_bytes(other.read_bytes())
        path = Path(folder) / "model.step"
        path.write_bytes(content)
        if reader.ReadFile(str(path)) != IFSelect_RetDone:
            raise Unreadable(
                "this STEP file is damaged: its data section cannot be read to the end"
            )
        if not reader.Transfer(document):
            raise Unreadable("this STEP file holds nothing the kernel can build: expected solids")
    tool = XCAFDoc_DocumentTool.ShapeTool_s(document.Main())
    layers = XCAFDoc_DocumentTool.LayerTool_s(document.Main())
    free = Sequence_TDF_Label()
    tool.GetFreeShapes(free)
    found: list[Solid] = []
    troubles: list[str] = []
    for i in range(1, free.Length() + 1):
        _walk(free.Value(i), None, "", "", layers, found, troubles)
    return found, troubles


def _walk(
    label: Any,
    placed: Any,
    name: str,
    layer: str,
    layers: Any,
    found: list[Solid],
    troubles: list[str],
) -> None:
    """Down the assembly; `placed` is where the parents put this, `name` what the instance is
    called.
    """
    from OCP.collections import Sequence_TDF_Label
    from OCP.TDF import TDF_Label
    from OCP.TopLoc import TopLoc_Location
    from OCP.XCAFDoc import XCAFDoc_ShapeTool as Tool

    placed = placed or TopLoc_Location()
    layer = _layer(layers, label) or layer
    if Tool.IsReference_s(label):
        target = TDF_Label()
        Tool.GetReferredShape_s(label, target)
        moved = placed.Multiplied(Tool.GetLocation_s(label))
        _walk(
            target,
            moved,
            _first_name(_name(target), _name(label), name),
            layer,
            layers,
            found,
            troubles,
        )
        return
    if Tool.IsAssembly_s(label):
        components = Sequence_TDF_Label()
        Tool.GetComponents_s(label, components)
        # A container of one body, called Body or Part1 in it, is what its container is called.
        called = _first_name(_name(label), name) if components.Length() == 1 else ""
        for i in range(1, components.Length() + 1):
            _walk(components.Value(i), placed, called, layer, layers, found, troubles)
        return
    shape = Tool.GetShape_s(label)
    if not shape.IsNull():
        _bodies(shape.Moved(placed), label, _first_name(name, _name(label)), layer, found, troubles)


def _bodies(
    shape: Any, label: Any, name: str, layer: str, found: list[Solid], troubles: list[str]
) -> None:
    from OCP.BRepMesh import BRepMesh_IncrementalMesh
    from OCP.TopAbs import TopAbs_SHELL, TopAbs_SOLID
    from OCP.TopExp import TopExp_Explorer

    BRepMesh_IncrementalMesh(shape, _DEFLECTION, False, _ANGLE, False)
    names = _subnames(label) if label is not None else []
    explorer = TopExp_Explorer(shape, TopAbs_SOLID)
    any_solid = False
    while explorer.More():
        body = explorer.Current()
        own = next((n for s, n in names if s.IsPartner(body)), "")
        mesh = _triangles(body)
        explorer.Next()
        any_solid = True
        if mesh is None:
            troubles.append(f"a body of '{name or 'the model'}' has no surface and was left out")
            continue
        found.append(Solid(f"s{len(found) + 1}", own or name, mesh[0], mesh[1], layer))
    if not any_solid and TopExp_Explorer(shape, TopAbs_SHELL).More():
        troubles.append(
            f"'{name or 'a shape'}' is a surface, no solid, and was left out; close it where it "
            f"was drawn"
        )


def _triangles(body: Any) -> tuple[Any, Any] | None:
    from OCP.BRep import BRep_Tool
    from OCP.TopAbs import TopAbs_FACE, TopAbs_REVERSED
    from OCP.TopExp import TopExp_Explorer
    from OCP.TopLoc import TopLoc_Location
    from OCP.TopoDS import TopoDS

    points: list[tuple[float, float, float]] = []
    faces: list[tuple[int, int, int]] = []
    explorer = TopExp_Explorer(body, TopAbs_FACE)
    while explorer.More():
        face = TopoDS.Face(explorer.Current())
        explorer.Next()
        location = TopLoc_Location()
        mesh = BRep_Tool.Triangulation_s(face, location)
        if mesh is None:
            continue
        move, base = location.Transformation(), len(points)
        for i in range(1, mesh.NbNodes() + 1):
            p = mesh.Node(i).Transformed(move)
            points.append((p.X(), p.Y(), p.Z()))
        turned = face.Orientation() == TopAbs_REVERSED
        for i in range(1, mesh.NbTriangles() + 1):
            a, b, c = mesh.Triangle(i).Get()
            faces.append(
                (base + a - 1, base + (c if turned else b) - 1, base + (b if turned else c) - 1)
            )
    if not faces:
        return None
    # Faces meet in points that are written once for each; welded, the surface closes.
    rounded, index = np.unique(np.round(np.array(points), 5), axis=0, return_inverse=True)
    welded = index.reshape(-1)[np.array(faces)]
    real = (
        (welded[:, 0] != welded[:, 1])
        & (welded[:, 1] != welded[:, 2])
        & (welded[:, 2] != welded[:, 0])
    )
    return rounded, welded[real].astype(np.int64)


def _name(label: Any) -> str:
    from OCP.TDataStd import TDataStd_Name

    if not label.IsAttribute(
        TDataStd_Name.GetID_s()
    ):  # the kernel ends the process when it is asked for what is not there
        return ""
    held = TDataStd_Name()
    name = (
        str(held.Get().ToExtString()) if label.FindAttribute(TDataStd_Name.GetID_s(), held) else ""
    )
    return "" if name.startswith("=>[") else name  # the kernel's own, where an instance had none


def _first_name(*names: str) -> str:
    """The first that a person gave, else the first there is."""
    return next((n for n in names if plain_name(n)), next((n for n in names if n), ""))


def _subnames(label: Any) -> list[tuple[Any, str]]:
    """Named bodies inside one product."""
    from OCP.collections import Sequence_TDF_Label
    from OCP.XCAFDoc import XCAFDoc_ShapeTool as Tool

    labels = Sequence_TDF_Label()
    Tool.GetSubShapes_s(label, labels)
    named = [
        (Tool.GetShape_s(labels.Value(i)), _name(labels.Value(i)))
        for i in range(1, labels.Length() + 1)
    ]
    return [(s, n) for s, n in named if n and not s.IsNull()]


def _layer(layers: Any, label: Any) -> str:
    from OCP.collections import Sequence_TDF_Label

    found = Sequence_TDF_Label()
    layers.GetLayers(label, found)
    return _name(found.Value(1)) if found.Length() else ""
