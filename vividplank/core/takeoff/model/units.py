"""The unit of a file that does not say it: a guess, put as a question."""

from vividplank.core.takeoff.model.found import FILE_UNITS, FileUnit

#: A piece of furniture is between these, over its longest side (mm).
_LEAST, _MOST = 250.0, 4000.0


#: No furniture is as long (mm), and none as small: programs write numbers in mm into formats that
#: mean metres, and the reverse.
TOO_BIG, TOO_SMALL = 25_000.0, 20.0
#: A whole drawing of parts is never so small (mm), nor an outline on one so long.
SMALL_DRAWING, LONG_OUTLINE = 60.0, 6_000.0


def by_its_word(biggest: float, said: FileUnit) -> str:
    """The question about a model that would be as large, or as small, as no furniture is by the
    unit its file names.
    """
    return (
        f"By the file's own word it would be {float(f'{biggest:.4g}'):g} {said} long. "
        f"{guess_unit(biggest)[1]}"
    )


def doubted_unit(
    biggest: float, said: FileUnit | None, least: float = TOO_SMALL
) -> tuple[FileUnit | None, str]:
    """The unit a file names where it can be believed, else None; and the question about it, empty
    where it is believed.
    """
    if said and least < biggest * FILE_UNITS[said] <= TOO_BIG:
        return said, ""
    return None, by_its_word(biggest, said) if said else guess_unit(biggest)[1]


def guess_unit(biggest: float) -> tuple[FileUnit, str]:
    """The likeliest unit for a drawing whose longest side is `biggest`, and the question to ask.

    >>> guess_unit(1320)[1]
    'The biggest thing is 1320: millimetres?'
    >>> guess_unit(52)[0], guess_unit(1.32)[0], guess_unit(150)[0]
    ('in', 'm', 'in')
    """
    order: tuple[FileUnit, ...] = ("mm", "in", "m", "cm", "ft")
    unit: FileUnit = next((u for u in order if _LEAST <= biggest * FILE_UNITS[u] <= _MOST), "mm")
    words: dict[FileUnit, str] = {
        "mm": "millimetres",
        "in": "inches",
        "m": "metres",
        "cm": "centimetres",
        "ft": "feet",
    }
    return unit, f"The biggest thing is {biggest:.4g}: {words[unit]}?"
