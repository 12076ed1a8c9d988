"""The cut list: parts as they are wanted, finished."""

from vividplank.core.cutlist.part import Faces, Panel, Part, blank_need

__all__ = ["Faces", "Panel", "Part", "blank_need"]
