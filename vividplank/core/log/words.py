"""What happened, and what planning again found, in sentences for the reader."""

from vividplank.core.log.events import Accepted, Cut, Did, Event, Found, Measured, Spoiled
from vividplank.core.log.freed import Freed
from vividplank.core.measure import System, written


def fault(kind: str) -> str:
    """With its article: "a check", "metal"."""
    word = kind.replace("-", " ")
    if kind in ("metal", "rot", "stain", "sapwood", "wane"):
        return word
    return f"an {word}" if word[0] in "aeiou" else f"a {word}"


def happened(event: Event, system: System) -> str:
    """One event."""
    if isinstance(event, Did):
        read = f", read {written(event.reading, system, unit=True)}" if event.reading else ""
        many = "pass" if event.passes == 1 else "passes"
        passes = f", {event.passes} {many}" if event.passes else ""
        spent = f", {event.minutes:g} min" if event.minutes else ""
        return f"{event.step} done{passes}{read}{spent}"
    if isinstance(event, Found):
        at = written(event.defect.x0, system, unit=True)
        return f"{fault(event.defect.kind)} found in {event.piece}, {at} from its datum end"
    if isinstance(event, Spoiled):
        then = "scrap" if event.then == "scrap" else "what is left may serve"
        return f"{event.piece} spoiled ({event.why}): {then}"
    if isinstance(event, Accepted):
        return f"{event.piece} serves as it is"
    if isinstance(event, Cut):
        made = ", ".join(span.piece for span in event.gives)
        return f"{event.piece} cut into {made}, as no step asked"
    if isinstance(event, Measured):
        if event.what == "moisture":
            return f"{event.piece} measured: moisture {event.value:g} %"
        value = written(round(event.value), system, unit=True)
        return f"{event.piece} measured: {event.what} {value}"
    return f"event {event.event} taken back"


def freed(piece: Freed) -> str:
    """Why a piece is not what it was for any more, and what becomes of it."""
    reasons = {
        "spoiled": f"{piece.piece} was spoiled ({piece.why})",
        "cut": f"{piece.piece} was cut otherwise",
        "fault": f"{fault(piece.why or 'fault')} was found in {piece.piece}",
        "size": f"{piece.piece} measures less than its parts want",
        "moved": f"{piece.piece} has moved and is not true any more",
        "list": f"{piece.piece} no longer fits what the list wants",
        "with": f"{piece.piece} was for a glue-up of which another piece is lost",
    }
    after = "it is scrap" if piece.then == "scrap" else "it is laid out anew as it is"
    return f"{reasons[piece.reason]}: {after}"
