"""Takeoff: from drawings and models to parts."""

from vividplank.core.takeoff.model.found import (
    FILE_UNITS,
    FileUnit,
    Found,
    LayerMeaning,
    Reading,
    Settings,
    Stumbled,
    Unreadable,
    View,
)
from vividplank.core.takeoff.readers.read import (
    READABLE,
    kind_of,
    read,
    reading_document,
    reading_from_document,
    settings_from_document,
)
from vividplank.core.takeoff.readers.sheets import Page

__all__ = [
    "FILE_UNITS",
    "READABLE",
    "FileUnit",
    "Found",
    "LayerMeaning",
    "Page",
    "Reading",
    "Settings",
    "Stumbled",
    "Unreadable",
    "View",
    "kind_of",
    "read",
    "reading_document",
    "reading_from_document",
    "settings_from_document",
]
