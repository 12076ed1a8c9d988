"""Parts lists over the wire: what was read, what must be asked of it, what was answered."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.cutlist import Part
from vividplank.core.fields import Name
from vividplank.web.shapes import Body

Meaning = Literal[
    "name", "quantity", "length", "width", "thickness", "size", "species", "id", "faces", "note"
]
Heading = Annotated[str, Field(min_length=1, max_length=200)]


class ListAnswersBody(Body):
    """What the maker says of a list; `columns` by their headings, `confirmed`: the columns are as
    they were proposed.
    """

    unit: Literal["mm", "cm", "m", "in"] | None = None
    columns: Annotated[dict[Heading, Meaning], Field(max_length=100)] = {}
    order: Literal["", "LWT", "TWL", "WTL", "TLW", "WLT"] = ""
    thousands: bool | None = None
    confirmed: bool = False


class ListText(Body):
    text: Annotated[str, Field(max_length=2_000_000)]
    species: Name = ""
    answers: ListAnswersBody = ListAnswersBody()


class RowRefusalBody(Body):
    row: int
    text: str
    why: str


class ColumnBody(Body):
    """`meaning` is only proposed where it is not `sure`."""

    heading: str
    meaning: str
    sure: bool
    example: str


class OptionBody(Body):
    value: str
    says: str


class QuestionBody(Body):
    kind: Literal["columns", "unit", "order", "thousands", "wood"]
    says: str
    options: list[OptionBody]


class ListRead(Body):
    """`noted` are columns that are not known here; what stands in them goes into the notes.
    `remembered` are headings whose meaning was said with an earlier list. While there are
    `questions` the parts are only what the list would become.
    """

    parts: list[Part]
    refused: list[RowRefusalBody]
    noted: list[str]
    columns: list[ColumnBody]
    remembered: list[str]
    questions: list[QuestionBody]


class HeadingsBody(Body):
    """What columns hold, by their headings: remembered for every list that comes."""

    meanings: Annotated[dict[Heading, Meaning], Field(max_length=100)]
