"""What a piece needs besides its boards: lengths, sheets, hardware, glue, finish."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter

from vividplank.core.fields import Money, Name, Note

Kind = Literal["lengths", "sheets", "hardware", "glue", "finish", "other"]


@dataclass(frozen=True)
class Material:
    """A line: how many (or how much) of what, and what one of them costs."""

    name: Name
    kind: Kind = "hardware"
    count: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 1.0
    each: Money = Decimal(0)
    note: Note = ""

    @property
    def cost(self) -> Decimal:
        return (Decimal(str(self.count)) * self.each).quantize(Decimal("0.01"))


Materials = Annotated[tuple[Material, ...], Field(max_length=300)]
_MATERIALS: TypeAdapter[tuple[Material, ...]] = TypeAdapter(Materials)


def materials_from_document(document: Any) -> tuple[Material, ...]:
    return _MATERIALS.validate_python(document)


def materials_to_document(materials: Sequence[Material]) -> list[dict[str, Any]]:
    document: list[dict[str, Any]] = _MATERIALS.dump_python(tuple(materials), mode="json")
    return document


def cost_of(materials: Sequence[Material]) -> Decimal:
    """All lines together."""
    return sum((m.cost for m in materials), Decimal(0))
