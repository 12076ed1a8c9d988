"""One way in for every kind of file: the content decides, the name only helps."""

import io
import json
import zipfile
from collections.abc import Callable
from dataclasses import asdict, dataclass, replace
from pathlib import Path
from typing import Any

from vividplank.core.takeoff.model.found import (
    Decision,
    Found,
    LayerMeaning,
    Reading,
    Seen,
    Settings,
    Sheet,
    Stumbled,
    Unreadable,
    View,
    Words,
)
from vividplank.core.takeoff.readers.sheets import Page, read_pdf, read_picture

#: What may be read, for people.
READABLE = "STEP, STL, OBJ, GLB, glTF, 3MF, PLY, OFF, DXF, SVG, PDF, PNG, JPEG, XLSX, ODS, CSV"
_UNPACKED_LIMIT = 200 << 20


def kind_of(content: bytes, name: str) -> str:
    """The kind of file by how it begins, else by its name. Raises Unreadable for what we do not
    read.
    """
    head = content[:4096]
    ending = name.rsplit(".", 1)[-1].casefold() if "." in name else ""
    if not content:
        raise Unreadable("this file is empty")
    for beginning, kind in (
        (b"%PDF-", "pdf"),
        (b"\x89PNG\r\n\x1a\n", "png"),
        (b"\xff\xd8\xff", "jpeg"),
        (b"glTF", "glb"),
        (b"ply\n", "ply"),
        (b"ply\r", "ply"),
        (b"AutoCAD Binary DXF", "dxf"),
    ):
        if head.startswith(beginning):
            return kind
    if b"ISO-10303-21" in head:
        return "step"
    if head.startswith(b"PK"):
        return _zipped(content)
    text = head.lstrip(b"\xef\xbb\xbf \r\n\t")
    if text[:1] == b"<" and b"<svg" in content[:20000].lower():
        return "svg"
    if text[:1] == b"{" and (ending == "gltf" or b'"asset"' in content):
        return "gltf"
    if ending in ("stl", "obj", "off", "dxf", "csv", "tsv"):
        return ending
    if text.startswith((b"OFF", b"COFF")):
        return "off"
    if text.startswith(b"solid") and b"facet" in content[:100_000]:
        return "stl"
    if ending == "txt":
        return "csv"
    raise Unreadable(f"'{name}' is of a kind that is not read here; expected {READABLE}")


@dataclass(frozen=True)
class File:
    """A file to be read: its content, its kind, and what is answered about it.

    `beside` is a folder of files that it may refer to for its parts. `plain` reads the bare solids
    of a model, where its names and layers made the reader fail.
    """

    content: bytes
    kind: str
    settings: Settings
    beside: Path | None = None
    plain: bool = False


#: What a reader answers: what it read, and pictures of pages where the file has some.
Result = tuple[Reading, list[Page]]


# Each format's libraries are loaded where they are used: some take seconds.
def _step(file: File) -> Result:
    from vividplank.core.takeoff.readers.step import read_step

    return read_step(file.content, file.settings, file.beside, plain=file.plain), []


def _mesh(file: File) -> Result:
    from vividplank.core.takeoff.readers.mesh import read_mesh

    return read_mesh(file.content, file.kind, file.settings), []


def _dxf(file: File) -> Result:
    from vividplank.core.takeoff.readers.dxf import read_dxf

    return read_dxf(file.content, file.settings), []


def _svg(file: File) -> Result:
    from vividplank.core.takeoff.readers.svg import read_svg

    return read_svg(file.content, file.settings), []


def _workbook(file: File) -> Result:
    from vividplank.core.takeoff.readers.tables import read_workbook

    return read_workbook(file.content, file.kind), []


#: The reader of each kind of file that `kind_of` tells.
READERS: dict[str, Callable[[File], Result]] = {
    "step": _step,
    **dict.fromkeys(("stl", "obj", "glb", "gltf", "3mf", "ply", "off"), _mesh),
    "dxf": _dxf,
    "svg": _svg,
    "pdf": lambda file: read_pdf(file.content),
    **dict.fromkeys(("png", "jpeg"), lambda file: read_picture(file.content)),
    **dict.fromkeys(("xlsx", "ods"), _workbook),
    **dict.fromkeys(("csv", "tsv"), lambda file: (_text(file.content), [])),
}


def read(
    content: bytes,
    name: str,
    settings: Settings,
    beside: Path | None = None,
    *,
    plain: bool = False,
) -> Result:
    """A drawing, model or list, and pictures of its pages where it has some; see File.

    Raises
    ------
    Unreadable
        With one sentence for people.
    """
    kind = kind_of(content, name)
    try:
        return READERS[kind](File(content, kind, settings, beside, plain))
    except (Unreadable, MemoryError):
        raise
    except RecursionError:
        raise Unreadable(
            "this file is nested too deep to be read; expected it as a drawing program writes it"
        ) from None
    except Exception as problem:  # damaged files make the libraries stumble in ways nobody can list
        told = f"{type(problem).__name__}: {problem}".strip()[:160]
        raise Stumbled(kind, told) from problem


def _text(content: bytes) -> Reading:
    """A table as text: UTF-8, UTF-16 (what a spreadsheet's "Unicode text" is), else as Windows
    writes it.
    """
    zeros = content[:2000].count(0)
    troubles: tuple[str, ...] = ()
    try:
        if content.startswith((b"\xff\xfe", b"\xfe\xff")):
            table = content.decode("utf-16")
        elif (
            zeros > len(content[:2000]) // 4
        ):  # without the mark that says so, every other byte of plain text is nought
            table = content.decode("utf-16-be" if content[:1] == b"\0" else "utf-16-le")
        else:
            table = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        table, troubles = (
            content.decode("cp1252", "replace"),
            ("the text was not UTF-8; check its letters",),
        )
    if "\0" in table:
        troubles = (*troubles, "the text held characters that are none (NUL); they were left out")
    return Reading("list", "in", table=table.replace("\0", ""), troubles=troubles)


def _zipped(content: bytes) -> str:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            names = packed.namelist()
            unpacked = sum(i.file_size for i in packed.infolist())
            mimetype = b""
            if "mimetype" in names and unpacked <= _UNPACKED_LIMIT:
                with packed.open("mimetype") as member:
                    mimetype = member.read(100)
    except (
        zipfile.BadZipFile,
        OSError,
        ValueError,
        RuntimeError,
        NotImplementedError,
        EOFError,
    ) as problem:
        raise Unreadable(f"this packed file is damaged: {str(problem)[:120]}") from None
    if unpacked > _UNPACKED_LIMIT:
        raise Unreadable(
            f"this file unpacks to {unpacked >> 20} MB; expected at most {_UNPACKED_LIMIT >> 20} MB"
        )
    if "xl/workbook.xml" in names:
        return "xlsx"
    if b"opendocument.spreadsheet" in mimetype:
        return "ods"
    if any(n.casefold().endswith(".model") for n in names):
        return "3mf"
    raise Unreadable(f"this packed file is of a kind that is not read here; expected {READABLE}")


def reading_document(reading: Reading) -> dict[str, Any]:
    """As plain JSON, without characters that belong in no text: names in files have them."""
    document: dict[str, Any] = _plain(json.loads(json.dumps(asdict(reading))))
    return document


def _plain(value: Any) -> Any:
    if isinstance(value, str):
        return "".join(c for c in value if c != "\0" and not "\ud800" <= c <= "\udfff")
    if isinstance(value, list):
        return [_plain(v) for v in value]
    return {_plain(k): _plain(v) for k, v in value.items()} if isinstance(value, dict) else value


def reading_from_document(d: dict[str, Any]) -> Reading:
    def points(ring: list[list[Any]]) -> tuple[Any, ...]:
        return tuple((p[0], p[1]) for p in ring)

    views = tuple(
        View(
            v["name"],
            v["width"],
            v["height"],
            tuple(Seen(s["ref"], points(s["outline"]), s["shade"]) for s in v["shapes"]),
            tuple(points(line) for line in v["lines"]),
            tuple(Words((w["at"][0], w["at"][1]), w["text"]) for w in v["words"]),
        )
        for v in d["views"]
    )
    parts = tuple(
        Found(**{**p, "outline": points(p["outline"]), "refs": tuple(p["refs"])})
        for p in d["parts"]
    )
    return replace(
        Reading(d["kind"], d["unit"], parts, views),
        asks=d["asks"],
        troubles=tuple(d["troubles"]),
        layers=tuple(d["layers"]),
        pieces=d["pieces"],
        table=d["table"],
        decisions=tuple(
            Decision(**{**e, "refs": tuple(e["refs"])}) for e in d.get("decisions", ())
        ),
        missing=tuple(d.get("missing", ())),
        sheet=d.get("sheet", ""),
        others=tuple(Sheet(**o) for o in d.get("others", ())),
    )


def settings_from_document(d: dict[str, Any]) -> Settings:
    layers = tuple((name, LayerMeaning(**m)) for name, m in d.get("layers", {}).items())
    return Settings(d.get("unit"), layers, frozenset(d.get("turned", ())))
