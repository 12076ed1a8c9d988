"""A file that cannot be taken: where it goes wrong and what was expected there."""

import json
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

Model = TypeVar("Model", bound=BaseModel)


class Refusal(ValueError):
    """`path` is the JSON path (or row) of what is wrong, `why` says what was expected."""

    def __init__(self, path: str, why: str) -> None:
        super().__init__(f"{path}: {why}")
        self.path = path
        self.why = why


def json_path(steps: tuple[int | str, ...]) -> str:
    """
    >>> json_path(("parts", 3, "length"))
    '$.parts[3].length'
    """
    return "$" + "".join(f"[{s}]" if isinstance(s, int) else f".{s}" for s in steps)


def load(text: str | bytes, model: type[Model]) -> Model:
    """The document in `text`, or a Refusal naming the first thing this format does not allow."""
    try:
        document: Any = json.loads(text, parse_constant=_no_constant)
    except (ValueError, RecursionError) as problem:
        raise Refusal("$", f"this is no JSON document ({problem}); expected UTF-8 JSON") from None
    try:
        return model.model_validate(document)
    except ValidationError as problem:
        first = problem.errors(include_url=False)[0]
        raise Refusal(json_path(first["loc"]), _sentence(first["type"], first["msg"])) from None


def _no_constant(word: str) -> None:
    raise ValueError(f"{word} is no number")


def _sentence(kind: str, message: str) -> str:
    if kind == "missing":
        return "is missing; expected a value here"
    if kind == "extra_forbidden":
        return "is not part of the format; expected no such name here"
    message = message.replace("Input should be", "expected")
    return message[:1].lower() + message[1:]
