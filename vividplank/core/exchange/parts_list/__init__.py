"""Parts lists in and out as tables."""

from vividplank.core.exchange.parts_list.columns import MEANINGS, Column
from vividplank.core.exchange.parts_list.doubts import Question
from vividplank.core.exchange.parts_list.read import ListAnswers, PartsList, RowRefusal, read_parts
from vividplank.core.exchange.parts_list.write import plain_cell, write_parts

__all__ = [
    "MEANINGS",
    "Column",
    "ListAnswers",
    "PartsList",
    "Question",
    "RowRefusal",
    "plain_cell",
    "read_parts",
    "write_parts",
]
