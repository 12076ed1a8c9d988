"""What a file says of a dataclass of the core, derived from its fields.

A field of a part that the first version of the format does not have needs nothing here: its shape,
its reading and its writing follow from its type. Lengths (IN_TICKS) are numbers in the file's unit,
tuples lists, pairs BY_NAME objects, dataclasses objects; LOCAL fields are not in files.
"""

from collections.abc import Iterator
from dataclasses import MISSING, Field, fields, is_dataclass
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, TypeVar, Union, get_args, get_origin, get_type_hints

from pydantic import BaseModel, ConfigDict, create_model
from pydantic import Field as Limits
from pydantic.fields import FieldInfo

from vividplank.core.fields import BY_NAME, IN_TICKS, LOCAL, Marker
from vividplank.core.measure import Unit, from_number, to_number

#: A length of a kilometre or more is a slip; the bound also keeps ticks far inside 64 bits.
Length = Annotated[float, Limits(strict=True, ge=-1e6, le=1e6, allow_inf_nan=False)]
_STRICT = Limits(strict=True)


class Shape(BaseModel):
    model_config = ConfigDict(extra="forbid")


S = TypeVar("S", bound=Shape)


def in_files(thing: type[Any]) -> Iterator[tuple[Field[Any], Any]]:
    """The fields of a dataclass that files have, each with its type."""
    hints = _hints(thing)
    for field in fields(thing):
        if LOCAL not in _marks(hints[field.name]):
            yield field, hints[field.name]


def shape_of(thing: type[Any], base: type[S]) -> type[S]:
    """The shape of a dataclass in a file: that of `base`, and the fields it lacks."""
    derived: dict[str, Any] = {
        field.name: (_in_file(hint), _default_in_file(field, hint))
        for field, hint in in_files(thing)
        if field.name not in base.model_fields
    }
    name = f"{thing.__name__}Shape"
    shape = create_model(name, __base__=base, __module__=base.__module__, **derived)
    shape.__doc__ = base.__doc__ if base is not Shape else thing.__doc__
    return shape


def from_file(value: Any, hint: Any, unit: Unit) -> Any:
    """What stands in a file, as the core has it."""
    kind, marks = _taken_apart(hint)
    if value is None:
        return None
    if IN_TICKS in marks:
        return from_number(value, unit)
    if BY_NAME in marks:
        return tuple(value.items())
    if is_dataclass(kind):
        hints = _hints(kind)
        given = value if isinstance(value, dict) else dict(value)
        return kind(**{name: from_file(v, hints[name], unit) for name, v in given.items()})  # type: ignore[operator]
    if get_origin(kind) is tuple:
        inner = get_args(kind)
        types = inner[:1] * len(value) if inner[-1:] == (...,) else inner
        return tuple(from_file(v, t, unit) for v, t in zip(value, types, strict=True))
    return value


def to_file(value: Any, hint: Any, unit: Unit) -> Any:
    """A value of the core as it stands in a file."""
    kind, marks = _taken_apart(hint)
    if value is None:
        return None
    if IN_TICKS in marks:
        return to_number(value, unit)
    if BY_NAME in marks:
        return dict(value)
    if is_dataclass(kind):
        return {
            field.name: to_file(given, inner, unit)
            for field, inner in in_files(kind)  # type: ignore[arg-type]
            if (given := getattr(value, field.name)) is not None
        }
    if get_origin(kind) is tuple:
        inner = get_args(kind)
        types = inner[:1] * len(value) if inner[-1:] == (...,) else inner
        return [to_file(v, t, unit) for v, t in zip(value, types, strict=True)]
    return value


def unusual(thing: Any, but: frozenset[str]) -> list[tuple[str, Any]]:
    """Name and type of the fields of `thing` that differ from their defaults, `but` for some."""
    return [
        (field.name, hint)
        for field, hint in in_files(type(thing))
        if field.name not in but and getattr(thing, field.name) != _default(field)
    ]


def _in_file(hint: Any) -> Any:
    kind, marks = _taken_apart(hint)
    limits = [m for m in marks if isinstance(m, FieldInfo)]
    if IN_TICKS in marks:
        found: Any = Length
    elif BY_NAME in marks:
        name, text = get_args(get_args(kind)[0])
        found = _limited(dict[name, _in_file(text)], limits)  # type: ignore[valid-type, misc]
    elif is_dataclass(kind):
        found = _shape(kind)
    elif get_origin(kind) is tuple:
        inner = get_args(kind)
        if inner[-1:] == (...,):
            found = _limited(list[_in_file(inner[0])], limits)  # type: ignore[misc]
        else:
            same: Any = list[_in_file(inner[0])]  # type: ignore[misc]
            found = _limited(same, [Limits(min_length=len(inner), max_length=len(inner))])
    elif get_origin(kind) is Literal:
        found = kind
    else:
        found = _limited(kind, [*limits, _STRICT])
    return found | None if _may_be_none(hint) else found


_SHAPES: dict[Any, type[Shape]] = {}
_HINTS: dict[Any, dict[str, Any]] = {}


def _shape(thing: Any) -> type[Shape]:
    if thing not in _SHAPES:
        _SHAPES[thing] = shape_of(thing, Shape)
    return _SHAPES[thing]


def _limited(kind: Any, limits: list[Any]) -> Any:
    for limit in limits:
        kind = Annotated[kind, limit]
    return kind


def _hints(thing: Any) -> dict[str, Any]:
    if thing not in _HINTS:
        _HINTS[thing] = get_type_hints(thing, include_extras=True)
    return _HINTS[thing]


def _marks(hint: Any) -> tuple[Any, ...]:
    return _taken_apart(hint)[1]


def _taken_apart(hint: Any) -> tuple[Any, tuple[Any, ...]]:
    """A type without what is noted on it and without None, and what is noted on it."""
    marks: tuple[Any, ...] = ()
    while True:
        if get_origin(hint) is Annotated:
            hint, *noted = get_args(hint)
            marks += tuple(m for m in noted if isinstance(m, Marker | FieldInfo))
        elif get_origin(hint) in (Union, UnionType):
            others = [t for t in get_args(hint) if t is not NoneType]
            if len(others) > 1:  # literals beside each other
                return Literal[tuple(v for t in others for v in get_args(t))], marks
            hint = others[0]
        else:
            return hint, marks


def _may_be_none(hint: Any) -> bool:
    while get_origin(hint) is Annotated:
        hint = get_args(hint)[0]
    return get_origin(hint) in (Union, UnionType) and NoneType in get_args(hint)


def _default_in_file(field: Field[Any], hint: Any) -> Any:
    """The default as the file has it; a dataclass is then left to the core."""
    default, (kind, marks) = _default(field), _taken_apart(hint)
    if is_dataclass(kind):
        return ... if default is ... else Limits(default_factory=lambda: None)
    if BY_NAME in marks:
        return Limits(default_factory=dict)
    return list(default) if isinstance(default, tuple) else default


def _default(field: Field[Any]) -> Any:
    if field.default_factory is not MISSING:
        return field.default_factory()
    return ... if field.default is MISSING else field.default
