"""That a face of a board has a photograph."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Photo:
    """That a face has a straightened picture, kept under the number `picture`."""

    face: str
    picture: int
