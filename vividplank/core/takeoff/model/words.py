"""What the writing beside a part says: its name, how many, its sizes."""

import re
from dataclasses import dataclass

from vividplank.core.measure import MeasureError, System, parse
from vividplank.core.takeoff.model.found import FileUnit

_COUNT = re.compile(
    r"^\s*(\d{1,3})\s*(?:x|×|off|pcs?\.?)\s+(?=\D)|(?:^|[\s,;(])(?:x|×|qty:?|no\.?)\s*(\d{1,3})(?=$|[\s,;)])"
    r"|(?:^|[\s,;(])(\d{1,3})\s*(?:x|×|off|pcs?\.?)(?=$|[\s,;)])",
    re.IGNORECASE,
)
_LENGTH = r"\d[\d\s./-]*(?:[.,]\d+)?\s*(?:mm|cm|m|in|inch|\"|')?"
_SIZES = re.compile(rf"({_LENGTH})\s*[x×]\s*({_LENGTH})(?:\s*[x×]\s*({_LENGTH}))?", re.IGNORECASE)
_THICK = re.compile(
    rf"(?:\b(?:t|th|thk|thick(?:ness)?)\s*[=:]?\s*({_LENGTH})|({_LENGTH})\s*(?:thick|thk)\b)",
    re.IGNORECASE,
)
_BEFORE_NAME = re.compile(
    r"^((?:\d+[ -])?\d+/(?:2|4|8|16|32|64)\"?)(?=\s+[^\W\d_]{2})", re.IGNORECASE
)

#: How a bare number in a file of this unit is to be read.
SYSTEM_OF: dict[FileUnit, System] = {"mm": "mm", "cm": "cm", "m": "m", "in": "in", "ft": "in"}


@dataclass(frozen=True)
class Said:
    """Sizes in ticks, 0 where nothing was said."""

    name: str = ""
    quantity: int = 1
    sizes: tuple[int, ...] = ()
    thickness: int = 0


def understand(text: str, unit: FileUnit) -> Said:
    """What words beside a part say, line by line: a figure ends with its line.

    >>> understand("2x Seat rail 600 x 70 x 19", "mm")
    Said(name='Seat rail', quantity=2, sizes=(192000, 22400, 6080), thickness=6080)
    >>> understand('Shelf, 3/4" thick', "in")
    Said(name='Shelf', quantity=1, sizes=(), thickness=6096)
    """
    said = [_line(line, unit) for line in re.split(r"[\n;]+", text)]
    return Said(
        ", ".join(s.name for s in said if s.name),
        max((s.quantity for s in said), default=1),
        next((s.sizes for s in said if s.sizes), ()),
        next((s.thickness for s in said if s.thickness), 0),
    )


def _line(text: str, unit: FileUnit) -> Said:
    system = SYSTEM_OF[unit]
    text = re.sub(r"\s+", " ", text).strip()
    quantity = 1
    # "2x 3-way bracket" counts, "600 x 70" and "600x70" measure: a count has its x at its figure
    # and a space behind.
    if counted := re.match(r"(\d{1,3})[x×] (?=\S)", text):
        quantity, text = max(1, int(counted[1])), text[counted.end() :]
    elif counted := re.search(r"(?<=\S) \((\d{1,3})\)$", text):
        quantity, text = max(1, int(counted[1])), text[: counted.start()]
    sizes: tuple[int, ...] = ()
    thickness = 0
    if found := _SIZES.search(text):
        try:
            sizes = tuple(parse(part.strip(), system) for part in found.groups() if part)
            text = text[: found.start()] + " " + text[found.end() :]
        except MeasureError:
            sizes = ()
    if len(sizes) == 3:
        thickness = min(sizes)
    # A fraction before a name is how thick it is: 3/4 Shelf.
    for pattern in (_THICK, _BEFORE_NAME):
        if (found := pattern.search(text)) and not thickness:
            try:
                thickness = parse(
                    next(g for g in found.groups() if g).strip(),
                    "in" if pattern is _BEFORE_NAME else system,
                )
                text = text[: found.start()] + " " + text[found.end() :]
            except MeasureError:
                pass
    if quantity == 1 and (counted := _COUNT.search(text)):
        quantity = max(1, int(counted[1] or counted[2] or counted[3]))
        text = text[: counted.start()] + " " + text[counted.end() :]
    return Said(re.sub(r"\s+", " ", text).strip(" ,;:()-"), quantity, sizes, thickness)
