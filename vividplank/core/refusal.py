"""A file that cannot be taken: where it goes wrong and what was expected there."""

import json
import math
import unicodedata
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

Model = TypeVar("Model", bound=BaseModel)
#: No document of ours goes deeper than a dozen levels.
_DEEPEST = 60


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
    document = parse(text)
    try:
        return model.model_validate(document)
    except ValidationError as problem:
        first = problem.errors(include_url=False)[0]
        raise Refusal(json_path(first["loc"]), _sentence(first["type"], first["msg"])) from None


def parse(text: str | bytes) -> Any:
    """The JSON document in a text, or a Refusal: also where it is nested too deep, holds a number
    that is none, or a text with a character that belongs in none (a NUL, half of a pair of
    surrogates).
    """
    try:
        document: Any = json.loads(text, parse_constant=_no_constant, parse_float=_finite)
    except RecursionError:
        raise Refusal("$", f"is nested too deep; expected at most {_DEEPEST} levels") from None
    except ValueError as problem:
        raise Refusal("$", f"this is no JSON document ({problem}); expected UTF-8 JSON") from None
    _fit(document)
    return document


def one_line(text: str, path: str) -> None:
    """A Refusal where a name has a line break or another character that is none of writing."""
    if any(unicodedata.category(c) in ("Cc", "Cs", "Zl", "Zp") for c in text):
        raise Refusal(
            path, "has a line break or a character that cannot be seen; expected one line of text"
        )


def prose(text: str, path: str) -> None:
    """A Refusal where a note has a character that is neither writing nor a line break or tab."""
    if any(unicodedata.category(c) in ("Cc", "Cs") and c not in "\n\r\t" for c in text):
        raise Refusal(path, "has a character that cannot be seen; expected plain text")


def _fit(document: Any) -> None:
    waiting: list[tuple[Any, str, int]] = [(document, "$", 0)]
    while waiting:
        value, path, depth = waiting.pop()
        if depth > _DEEPEST:
            raise Refusal("$", f"is nested too deep; expected at most {_DEEPEST} levels")
        if isinstance(value, dict):
            waiting += [(key, path, depth) for key in value]
            waiting += [(inner, f"{path}.{key}", depth + 1) for key, inner in value.items()]
        elif isinstance(value, list):
            waiting += [(inner, f"{path}[{i}]", depth + 1) for i, inner in enumerate(value)]
        elif isinstance(value, str) and (
            bad := next((c for c in value if c == "\0" or "\ud800" <= c <= "\udfff"), "")
        ):
            where = path if bad.isprintable() else path.encode("utf-8", "replace").decode()
            raise Refusal(
                where,
                f"has the character U+{ord(bad):04X}, which belongs in no text; expected it left "
                f"out",
            )


def _finite(text: str) -> float:
    value = float(text)
    if math.isinf(value):
        raise ValueError(f"{text[:20]} is more than any number here")
    return value


def _no_constant(word: str) -> None:
    raise ValueError(f"{word} is no number")


def _sentence(kind: str, message: str) -> str:
    if kind == "missing":
        return "is missing; expected a value here"
    if kind == "extra_forbidden":
        return "is not part of the format; expected no such name here"
    message = message.replace("Input should be", "expected")
    return message[:1].lower() + message[1:]
