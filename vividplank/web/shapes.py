"""What all bodies that go over the wire are made of."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

#: The largest number a row or a version can have: it fits into a column of the database, and so
# does the one after.
MOST = 2**62
Number = Annotated[int, Field(ge=0, le=MOST)]
Ticks = Annotated[int, Field(strict=True, ge=-(10**9), le=10**9)]
Name = Annotated[str, Field(max_length=200)]
Note = Annotated[str, Field(max_length=2000)]
Corner = Annotated[list[Ticks], Field(min_length=2, max_length=2)]
FormulaField = Literal["length", "width", "thickness", "joint_length", "quantity"]
FormulaTextual = Annotated[str, Field(max_length=400)]
SystemName = Literal["in", "in-decimal", "ft-in", "mm", "cm", "m"]


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid")
