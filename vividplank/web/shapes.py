"""What all bodies that go over the wire are made of."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from vividplank.core.fields import Ticks

Corner = Annotated[list[Ticks], Field(min_length=2, max_length=2)]
SystemName = Literal["in", "in-decimal", "ft-in", "mm", "cm", "m"]


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid")
