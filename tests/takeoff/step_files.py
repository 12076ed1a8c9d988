"""STEP assemblies written through the kernel, for tests of reading them."""

import tempfile
from pathlib import Path
from typing import Any

from OCP.BRepBuilderAPI import BRepBuilderAPI_Transform
from OCP.BRepPrimAPI import BRepPrimAPI_MakeBox
from OCP.gp import gp_Ax1, gp_Ax2, gp_Dir, gp_Pnt, gp_Trsf, gp_Vec
from OCP.Interface import Interface_Static
from OCP.STEPCAFControl import STEPCAFControl_Writer
from OCP.STEPControl import STEPControl_AsIs
from OCP.TCollection import TCollection_ExtendedString
from OCP.TDataStd import TDataStd_Name
from OCP.TDocStd import TDocStd_Document
from OCP.TopLoc import TopLoc_Location
from OCP.XCAFDoc import XCAFDoc_DocumentTool


def block(length: float, width: float, thickness: float) -> Any:
    """A plain piece with one corner at the origin."""
    return BRepPrimAPI_MakeBox(length, width, thickness).Shape()


def mirrored(shape: Any) -> Any:
    """Its image in the plane x = 0."""
    trsf = gp_Trsf()
    trsf.SetMirror(gp_Ax2(gp_Pnt(0, 0, 0), gp_Dir(1, 0, 0)))
    return BRepBuilderAPI_Transform(shape, trsf, True).Shape()


def place(
    x: float = 0,
    y: float = 0,
    z: float = 0,
    turn: float = 0,
    about: tuple[float, float, float] = (0, 0, 1),
) -> TopLoc_Location:
    """Turned by `turn` radians about an axis through the origin, then moved."""
    turned, moved = gp_Trsf(), gp_Trsf()
    turned.SetRotation(gp_Ax1(gp_Pnt(0, 0, 0), gp_Dir(*about)), turn)
    moved.SetTranslation(gp_Vec(x, y, z))
    return TopLoc_Location(moved.Multiplied(turned))


class Assembly:
    """A document one adds named products and their placements to."""

    def __init__(self) -> None:
        self.document = TDocStd_Document(TCollection_ExtendedString("assembly"))
        self.tool = XCAFDoc_DocumentTool.ShapeTool_s(self.document.Main())

    def product(self, shape: Any, name: str) -> Any:
        label = self.tool.AddShape(shape, False)
        TDataStd_Name.Set_s(label, TCollection_ExtendedString(name))
        return label

    def group(self, name: str) -> Any:
        label = self.tool.NewShape()
        TDataStd_Name.Set_s(label, TCollection_ExtendedString(name))
        return label

    def put(self, group: Any, part: Any, where: TopLoc_Location) -> None:
        self.tool.AddComponent(group, part, where)

    def write(self, schema: str = "AP242DIS", unit: str = "MM") -> bytes:
        self.tool.UpdateAssemblies()
        Interface_Static.SetCVal_s("write.step.schema", schema)
        Interface_Static.SetCVal_s("write.step.unit", unit)
        writer = STEPCAFControl_Writer()
        writer.Transfer(self.document, STEPControl_AsIs)
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "out.step"
            writer.Write(str(path))
            return path.read_bytes()


def in_several_files(assembly: Assembly) -> dict[str, bytes]:
    """The assembly as whole.step, each of its products in a file beside it."""
    assembly.tool.UpdateAssemblies()
    writer = STEPCAFControl_Writer()
    writer.SetNameMode(True)
    writer.Transfer(assembly.document, STEPControl_AsIs, "of_")
    with tempfile.TemporaryDirectory() as folder:
        writer.Write(str(Path(folder) / "whole.step"))
        return {path.name: path.read_bytes() for path in Path(folder).iterdir()}


def bookcase(bays: int = 4) -> bytes:
    """A long bookcase out of nested groups: bays of two sides, five shelves and three slats, turned
    and moved.

    Each bay is 10 solids; all bays are placements of one group.
    """
    a = Assembly()
    side = a.product(block(1800, 280, 19), "Side")
    shelf = a.product(block(760, 270, 19), "Shelf")
    slat = a.product(block(760, 60, 12), "Back slat")
    bay = a.group("Bay")
    for x in (0, 779):
        a.put(bay, side, place(x, 0, 0, -1.5707963267948966, (0, 1, 0)))
    for k in range(5):
        a.put(bay, shelf, place(19, 0, 60 + 400 * k))
    for k in range(3):
        a.put(bay, slat, place(19, 282, 300 + 500 * k, 1.5707963267948966, (1, 0, 0)))
    whole = a.group("Bookcase")
    for n in range(bays):
        a.put(whole, bay, place(900 * n, 40 * n, 0, 0.3 * n))
    return a.write()
