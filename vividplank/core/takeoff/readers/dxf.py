"""DXF through ezdxf, with its recovery: closed outlines, blocks, words and written dimensions."""

import io
import math
import re
import struct
import tempfile
from collections.abc import Iterable
from pathlib import Path
from typing import Any

from vividplank.core.measure import TICKS_PER_MM, MeasureError, parse
from vividplank.core.takeoff.model.doubts import doubted, renamed
from vividplank.core.takeoff.model.found import (
    FILE_UNITS,
    FileUnit,
    Point,
    Reading,
    Settings,
    Unreadable,
    Words,
    counted,
)
from vividplank.core.takeoff.model.units import (
    LONG_OUTLINE,
    SMALL_DRAWING,
    by_its_word,
    doubted_unit,
    guess_unit,
)
from vividplank.core.takeoff.model.words import SYSTEM_OF
from vividplank.core.takeoff.outlines.flat import parts_of_outlines, view_of
from vividplank.core.takeoff.outlines.outline import Outline, Written
from vividplank.core.takeoff.readers.drawn import Drawn, plain

_INSUNITS: dict[int, FileUnit] = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}
_MOST_OUTLINES = 3000
#: How the binary kind begins.
_BINARY = b"AutoCAD Binary DXF"


def read_dxf(content: bytes, settings: Settings) -> Reading:
    """Every closed outline of the model space as a part. Raises Unreadable where there is none."""
    from ezdxf.lldxf.const import DXFError

    try:
        document, auditor = _opened(content)
    except (
        DXFError,
        OSError,
        ValueError,
        LookupError,
        TypeError,
        AttributeError,
        struct.error,
    ) as problem:
        raise Unreadable(f"this DXF file cannot be read: {str(problem)[:160]}") from None
    troubles = [f"the DXF was damaged: {str(e.message)[:120]}" for e in auditor.errors[:5]]
    if content.rstrip(b" \r\n\t\x1a\0")[-3:] != b"EOF" and not content.startswith(_BINARY):
        troubles.append(
            "the DXF ends before its end mark: what stood at its end is missing. Export it anew"
        )
    drawn, closed = _drawn(document, document.modelspace(), settings)
    for sheet in (
        () if closed else [layout for layout in document.layouts if not layout.is_modelspace]
    ):
        on_paper, found = _drawn(document, sheet, settings)
        if found:
            drawn, closed = on_paper, found
            troubles.append(
                f"the model space is empty: taken from the sheet '{sheet.name}', where a scale "
                f"may have been used"
            )
            break
    if not closed:
        behind = (
            f"; {len(drawn.hidden)} of its layers are switched off or frozen"
            if drawn.hidden
            else ""
        )
        nothing = f"this DXF holds no closed outline in its model space or on its sheets{behind}"
        raise Unreadable(f"{nothing}; expected parts drawn as closed lines")
    if drawn.damaged:
        troubles.append(
            f"the DXF was damaged: {counted(drawn.damaged, 'thing')} drawn in it could not be read"
        )
    if len(closed) > _MOST_OUTLINES:
        raise Unreadable(
            f"this DXF holds {len(closed)} closed outlines; expected at most {_MOST_OUTLINES}. "
            f"Export the parts alone"
        )
    said = _INSUNITS.get(int(document.header.get("$INSUNITS", 0)))
    every = [p for o in closed for p in o.points]
    biggest = max(max(p[k] for p in every) - min(p[k] for p in every) for k in (0, 1))
    guess, _ = guess_unit(biggest)
    longest = max(
        max(p[k] for p in o.points) - min(p[k] for p in o.points) for o in closed for k in (0, 1)
    )
    too_long = said is not None and longest * FILE_UNITS[said] > LONG_OUTLINE
    said, question = (
        (None, by_its_word(longest, said))
        if said and too_long
        else doubted_unit(biggest, said, SMALL_DRAWING)
    )
    unit = settings.unit or said or guess
    scale = FILE_UNITS[unit]

    def grown(points: Iterable[Point]) -> tuple[Point, ...]:
        return tuple((x * scale, y * scale) for x, y in points)

    outlines = [
        Outline(
            o.ref,
            grown(o.points),
            o.layer,
            o.name,
            o.quantity,
            _length(drawn.thickness.get(o.ref, ""), unit),
            o.species,
            o.circle,
        )
        for o in closed
    ]
    words = [Words((w.at[0] * scale, w.at[1] * scale), w.text) for w in drawn.words]
    written = [w for d in drawn.dimensions if (w := _written(d, scale, unit, troubles))]
    taken, more, decisions = parts_of_outlines(outlines, words, written, unit, settings)
    parts, doubts = doubted(taken, settings, SYSTEM_OF[unit])
    lines = [grown(line) for line in drawn.open_lines()]
    layers = tuple(sorted({o.layer for o in closed}))
    return Reading(
        "flat",
        unit,
        renamed(parts),
        (view_of(outlines, words, lines),),
        "" if settings.unit or said else question,
        (*troubles, *more),
        layers,
        len(closed),
        decisions=(*doubts, *decisions, *drawn.decisions(scale, settings)),
    )


def _opened(content: bytes) -> tuple[Any, Any]:
    import ezdxf
    from ezdxf import recover

    if not content.startswith(_BINARY):
        return recover.read(io.BytesIO(content))
    with (
        tempfile.TemporaryDirectory() as folder
    ):  # the library reads the binary kind from a path only
        path = Path(folder) / "drawing.dxf"
        path.write_bytes(content)
        document = ezdxf.readfile(path)  # type: ignore[attr-defined]
    return document, document.audit()


def _drawn(document: Any, space: Any, settings: Settings) -> tuple[Drawn, list[Outline]]:
    drawn = Drawn(_hidden(document, settings), settings)
    drawn.take(space, 0, {})
    return drawn, drawn.closed()


def _hidden(document: Any, settings: Settings) -> dict[str, str]:
    """Layers that are switched off or frozen, and which it is, but for those that were asked for
    all the same.
    """
    found = {}
    for layer in document.layers:
        how = "frozen" if layer.is_frozen() else "switched off" if layer.is_off() else ""
        if how:
            found[layer.dxf.name.casefold()] = how
    return found


def _written(dimension: Any, scale: float, unit: FileUnit, troubles: list[str]) -> Written | None:
    if dimension.dimtype not in (0, 1):
        return None
    a, b = dimension.dxf.defpoint2, dimension.dxf.defpoint3
    if dimension.dimtype == 0:
        angle = math.radians(float(dimension.dxf.get("angle", 0.0)))
    else:
        angle = math.atan2(b[1] - a[1], b[0] - a[0])
    measured = abs((b[0] - a[0]) * math.cos(angle) + (b[1] - a[1]) * math.sin(angle)) * scale
    text = str(dimension.dxf.get("text", "") or "")
    figure = round(measured * TICKS_PER_MM)
    if text.strip() not in ("", "<>"):
        figure = _figure(text, figure, unit)
        if not figure and text.strip():
            troubles.append(
                f"a dimension says '{plain(text)[:40]}', which is no figure; what is drawn was "
                f"taken"
            )
    if not figure:
        return None
    return Written(
        (a[0] * scale, a[1] * scale), (b[0] * scale, b[1] * scale), angle, figure, measured
    )


#: What stands beside the figure of a dimension: TYP, REF, (2 PLACES), 2x.
_BESIDE_FIGURE = re.compile(
    r"\b(typ(ical)?|ref(erence)?|max|min|nom(inal)?|approx|ca|circa|o\.?a|overall|over "
    r"all|equal|eq|total|clear|inside|outside|"
    r"finished|rough|net)\b\.?|;|\(?\b\d{1,3}\s*(pl(cs|aces)?|x|×|off)\b\.?\)?(?=\s|$)|[()±~=⌀]",
    re.IGNORECASE,
)


def _figure(text: str, measured: int, unit: FileUnit) -> int:
    """The figure of a dimension's own text, in ticks; 0 where it says none. `<>` stands for what is
    measured.

    >>> [_figure(t, 0, "mm") // 320 for t in ("660 TYP", "2x 670", "(680)", "690 REF.", "see note")]
    [660, 670, 680, 690, 0]
    """
    told = plain(text)
    if "<>" in told:
        return measured
    return _length(_BESIDE_FIGURE.sub(" ", re.sub(r"^\s*\d{1,3}\s*[x×]\s+", "", told)), unit)


def _length(text: str, unit: FileUnit) -> int:
    try:
        return parse(plain(text), SYSTEM_OF[unit]) if text.strip() else 0
    except MeasureError:
        return 0
