"""Types of fields with their limits, said once for documents, exchange files and the API.

Pydantic reads the limits wherever a dataclass of the core is the body of a document; elsewhere the
types are plain int, float and str.
"""

from decimal import Decimal
from typing import Annotated, Any

from pydantic import BeforeValidator, Field, PlainSerializer, WithJsonSchema


class Marker:
    """What a field's type says beside its limits."""


#: A length in ticks: in exchange files it is a number in the file's unit.
IN_TICKS = Marker()
#: Means nothing outside this database, or is worked out anew: not in exchange files.
LOCAL = Marker()
#: Pairs whose first halves are names: in JSON an object.
BY_NAME = Marker()

#: Ticks that stay far inside 64 bits when three are multiplied.
Ticks = Annotated[int, IN_TICKS, Field(strict=True, ge=-(10**9), le=10**9)]
NotNegativeTicks = Annotated[int, IN_TICKS, Field(strict=True, ge=0, le=10**9)]
PositiveTicks = Annotated[int, IN_TICKS, Field(strict=True, gt=0, le=10**9)]
#: The largest number a row or a version can have: it fits into a column of the database, and so
#: does the one after.
MOST = 2**62
Number = Annotated[int, Field(ge=0, le=MOST)]
Name = Annotated[str, Field(max_length=200)]
Note = Annotated[str, Field(max_length=2000)]
FormulaText = Annotated[str, Field(max_length=400)]
Slope = Annotated[float, Field(ge=-1, le=1, allow_inf_nan=False)]
Point = Annotated[
    tuple[Ticks, Ticks],
    WithJsonSchema({"type": "array", "items": {"type": "integer"}, "minItems": 2, "maxItems": 2}),
]


def _amount(value: Any) -> Any:
    """A number as it is written: 88.1 and not the binary fraction nearest to it."""
    return Decimal(str(value)) if isinstance(value, float) else value


#: Money; a number in JSON.
Money = Annotated[
    Decimal,
    BeforeValidator(_amount),
    Field(ge=0, le=10**7),
    PlainSerializer(float, return_type=float, when_used="json"),
    WithJsonSchema({"type": "number", "minimum": 0, "maximum": 10**7}),
]


def pairs_of(value: Any) -> Any:
    """An object as the pairs of its names and values; anything else as it is."""
    return tuple(value.items()) if isinstance(value, dict) else value
