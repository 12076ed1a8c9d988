"""How many faces of a blank are to be clear for its parts, and which of them a fault spoils."""

from vividplank.core.board import Defect
from vividplank.core.cutlist import Faces

CLEAR: dict[Faces, int] = {"clear-two": 2, "clear-one": 1, "sound": 0}
#: A fault that spoils everything; a sound one spoils face A (1), B (2) or both (3).
UNSOUND = 4
_SPOILS = {"A": 1, "B": 2, "both": 3}


def spoils(defect: Defect) -> int:
    return _SPOILS[defect.face] if defect.sound else UNSOUND
