"""A shop's milling settings as a plain document in ticks, for keeping and sending."""

from dataclasses import fields, is_dataclass
from typing import Any

from pydantic import TypeAdapter, ValidationError

from vividplank.core.milling.shop.school import Milling
from vividplank.core.refusal import Refusal

_ADAPTER = TypeAdapter(Milling)
#: No size in ticks, wait in minutes or pace is more.
_LARGEST = 10**9


def milling_to_document(milling: Milling) -> dict[str, Any]:
    found: dict[str, Any] = _ADAPTER.dump_python(milling, mode="json")
    return found


def milling_from_document(document: dict[str, Any]) -> Milling:
    """What is left out has its usual value; a Refusal names what is no such setting and what was
    expected.
    """
    try:
        milling = _ADAPTER.validate_python(document)
    except ValidationError as trouble:
        first = trouble.errors()[0]
        path = "$" + "".join(f".{p}" for p in first["loc"])
        raise Refusal(path, f"expected {first['msg'][0].lower()}{first['msg'][1:]}") from None
    check_figures(milling)
    return milling


def check_figures(settings: Any) -> None:
    """A Refusal where a size, pass, pace or wait cannot be, or a day does not begin before it ends;
    `settings` are of milling or of a workshop.
    """
    _positive(settings, "$")
    hours = settings.hours
    if not 0 <= hours.begins < hours.ends <= 1440:
        raise Refusal("$.hours", "expected a day that begins before it ends, both within 24 hours")


def _positive(value: Any, path: str) -> None:
    """No size, pass, pace or wait is under nothing, and what a machine needs to work is over it."""
    for field in fields(value):
        inner, at = getattr(value, field.name), f"{path}.{field.name}"
        if is_dataclass(inner):
            _positive(inner, at)
        elif isinstance(inner, int | float) and not isinstance(inner, bool):
            may_be_nothing = field.name in _MAY_BE_NOTHING
            if inner > _LARGEST:
                raise Refusal(at, f"expected at most {_LARGEST}")
            if inner < 0 or (inner == 0 and not may_be_nothing):
                raise Refusal(
                    at,
                    f"expected a figure over nothing{' or nothing' if may_be_nothing else ''}, "
                    f"not {inner}",
                )
        elif field.name == "fitted":
            for piece, length in inner.items():
                if length <= 0:
                    raise Refusal(f"{at}.{piece}", "expected a length over nothing")


_MAY_BE_NOTHING = {
    "router_bridge",
    "per_turn",
    "begins",
    "setup",
    "handling",
    "clamped",
    "glue",
    "resawn",
    "rested",
    "over",
}
