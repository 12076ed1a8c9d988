"""The long work that requests put on the queue, each by the number of what it is about."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import cast

from flask import current_app

Ask = Callable[[int], None]


@dataclass(frozen=True)
class Asking:
    """`lay_out`, `think` and `plan_days` take a layout's number, `read` a drawing's."""

    lay_out: Ask
    read: Ask
    think: Ask
    plan_days: Ask


def ask() -> Asking:
    """What this application was made with."""
    return cast(Asking, current_app.extensions["asking"])
