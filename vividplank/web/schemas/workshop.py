"""Workshops over the wire: settings, what they have learned, and their books."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.fields import Number
from vividplank.core.learning.learned import Kind
from vividplank.core.milling.shop.workshop import Workshop
from vividplank.core.yields.books import By
from vividplank.web.shapes import Body

WorkshopName = Annotated[str, Field(min_length=1, max_length=200)]


class WorkshopBody(Body):
    """`version` counts how often it was set; `projects` are made in it."""

    pk: Number
    name: str
    version: Number
    projects: int
    workshop: Workshop


class WorkshopList(Body):
    workshops: list[WorkshopBody]


class NewWorkshop(Body):
    """A workshop that begins as `like` is."""

    name: WorkshopName
    like: Number


class PutWorkshop(Body):
    name: WorkshopName
    version: Number
    workshop: Workshop


class WorkshopPath(Body):
    workshop: Number


class ChosenWorkshop(Body):
    workshop: Number


class LearnedBody(Body):
    """A figure with the interval it lies in at 80 %, and what it rests on. `minutes` and `passes`
    are times the foretold, `wood` rough over parts, `faults` for each board foot.
    """

    key: str
    kind: Kind
    of: str
    usual: float
    value: float
    low: float
    high: float
    events: int
    projects: int
    used: bool


class LearnedList(Body):
    sure: float
    figures: list[LearnedBody]


class LossBody(Body):
    piece: str
    why: str
    feet: float


class GroupBody(Body):
    """Board feet by category; yields are of the boards that are cut up."""

    name: str
    boards: int
    rough: float
    price: float
    planned: dict[str, float]
    real: dict[str, float]
    planned_yield: float | None
    real_yield: float | None
    faults: int
    lost: list[LossBody]


class BooksQuery(Body):
    by: By = "wood"


class BooksFileQuery(BooksQuery):
    form: Literal["csv", "xlsx", "pdf"] = "csv"


class BooksBody(Body):
    categories: list[str]
    groups: list[GroupBody]
    together: GroupBody
