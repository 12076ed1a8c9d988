"""The work that requests have done elsewhere: long work on the queue, and files from outside in the
reader's process.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import cast

from flask import current_app

from vividplank.core.survey.photo import Corner, Ends

Ask = Callable[[int], None]


@dataclass(frozen=True)
class Asking:
    """`lay_out`, `think` and `plan_days` take a layout's number, `read` a drawing's, `simulate` an
    estimate's.

    `upright` and `straightened` answer a photograph as a JPEG, or raise NoPhoto.
    """

    lay_out: Ask
    read: Ask
    think: Ask
    plan_days: Ask
    simulate: Ask
    upright: Callable[[bytes], bytes] = bytes
    straightened: Callable[[bytes, Sequence[Corner], Ends, str], bytes] = lambda content, *_: (
        content
    )


def ask() -> Asking:
    """What this application was made with."""
    return cast(Asking, current_app.extensions["asking"])
