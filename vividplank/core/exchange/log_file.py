"""Log files to events and back."""

from collections.abc import Iterable
from typing import Any

from vividplank.core.exchange.board_file import read_defect
from vividplank.core.exchange.log_shape import (
    AcceptedShape,
    CutShape,
    DidShape,
    FoundShape,
    LogShape,
    MeasuredShape,
    SpoiledShape,
)
from vividplank.core.log.events import (
    Accepted,
    Cut,
    Did,
    Event,
    Found,
    LogError,
    Measured,
    Span,
    Spoiled,
    Void,
    standing,
)
from vividplank.core.measure import Unit, from_number, to_number
from vividplank.core.refusal import Refusal, load

#: Quantities that are no lengths.
_PLAIN = ("moisture",)


def read_log(text: str | bytes) -> tuple[Event, ...]:
    """The events of a file, voided ones and all; a Refusal names the JSON path of what is wrong."""
    shape = load(text, LogShape)
    events = tuple(_event(e, shape.unit) for e in shape.events)
    try:
        standing(events)
    except LogError as problem:
        at = next(k for k, e in enumerate(events) if e.n == problem.n)
        raise Refusal(f"$.events[{at}]", problem.why) from None
    return events


def log_document(events: Iterable[Event], unit: Unit) -> dict[str, Any]:
    """The log as the plain document of the exchange format; what is not said is left out."""
    return {
        "format": "vivid-plank/log",
        "version": 1,
        "unit": unit,
        "events": [_written(e, unit) for e in events],
    }


def _event(e: Any, unit: Unit) -> Event:
    def place(value: float | None) -> int | None:
        return None if value is None else from_number(value, unit)

    said = {"n": e.n, "at": e.at, "who": e.who, "note": e.note}
    if isinstance(e, DidShape):
        read = place(e.reading)
        return Did(**said, step=e.step, reading=read, passes=e.passes, minutes=e.minutes)
    if isinstance(e, CutShape):
        ends = ("x0", "x1") if e.does == "crosscut" else ("h0", "h1")
        spans = []
        for g in e.gives:
            low, high = (place(getattr(g, end)) for end in ends)
            if low is None or high is None or high <= low:
                raise Refusal("$.events", f"event {e.n}: {g.piece} needs {ends[0]} under {ends[1]}")
            spans.append(Span(g.piece, low, high))
        return Cut(**said, does=e.does, piece=e.takes[0], gives=tuple(spans))
    if isinstance(e, MeasuredShape):
        value = e.value if e.what in _PLAIN else float(from_number(e.value, unit))
        x, y = place(e.x), place(e.y)
        return Measured(**said, piece=e.piece, what=e.what, value=value, x=x, y=y, tool=e.with_)
    if isinstance(e, FoundShape):
        return Found(**said, piece=e.piece, defect=read_defect(e.defect, unit))
    if isinstance(e, SpoiledShape):
        return Spoiled(**said, piece=e.piece, why=e.why, then=e.then)
    if isinstance(e, AcceptedShape):
        return Accepted(**said, piece=e.piece)
    return Void(**said, event=e.event)


def _written(e: Event, unit: Unit) -> dict[str, Any]:
    found: dict[str, Any] = {"n": e.n, "at": e.at, "who": e.who, "kind": e.kind, "note": e.note}
    if isinstance(e, Did):
        read = None if e.reading is None else to_number(e.reading, unit)
        found |= {"step": e.step, "reading": read, "passes": e.passes, "minutes": e.minutes}
    elif isinstance(e, Cut):
        ends = ("x0", "x1") if e.does == "crosscut" else ("h0", "h1")
        gives = [
            {"piece": g.piece}
            | dict(zip(ends, (to_number(g.low, unit), to_number(g.high, unit)), strict=True))
            for g in e.gives
        ]
        found |= {"kind": "did", "does": e.does, "takes": [e.piece], "gives": gives}
    elif isinstance(e, Measured):
        value = e.value if e.what in _PLAIN else to_number(round(e.value), unit)
        places = {k: v for k, v in (("x", e.x), ("y", e.y)) if v is not None}
        found |= {"piece": e.piece, "what": e.what, "value": value, "with": e.tool}
        found |= {k: to_number(v, unit) for k, v in places.items()}
    elif isinstance(e, Found):
        d = e.defect
        box = {k: to_number(getattr(d, k), unit) for k in ("x0", "x1", "y0", "y1")}
        more: dict[str, Any] = {}
        if d.shape != "rectangle":
            more["shape"] = d.shape
        if d.points:
            more["points"] = [[to_number(x, unit), to_number(y, unit)] for x, y in d.points]
        found |= {"piece": e.piece, "defect": {"kind": d.kind, "face": d.face} | box | more}
    elif isinstance(e, Spoiled):
        found |= {"piece": e.piece, "why": e.why, "then": e.then}
    elif isinstance(e, Accepted):
        found["piece"] = e.piece
    else:
        found["event"] = e.event
    return {k: v for k, v in found.items() if v not in ("", None)}
