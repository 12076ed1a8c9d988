"""That a face of a board has a photograph."""

from dataclasses import dataclass
from typing import Literal

from vividplank.core.fields import Number


@dataclass(frozen=True)
class Photo:
    """That a face has a straightened picture, kept under the number `picture`."""

    face: Literal["A", "B"]
    picture: Number
