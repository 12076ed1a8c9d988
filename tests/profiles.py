"""How many examples hypothesis makes, and how many planted jobs and files are tried: few for a
quick look, a fifth in CI, ten times as many by hand.

`HYPOTHESIS_PROFILE=long ./plank test --only python` runs the long ones.
"""

import os
from collections.abc import Sequence
from typing import TypeVar

from hypothesis import HealthCheck, settings

_T = TypeVar("_T")
_FACTOR = {"smoke": 0.1, "quick": 0.2, "long": 10.0}
PROFILE = os.environ.get("HYPOTHESIS_PROFILE", "quick")


def register() -> None:
    """The same examples on every run, and no deadline: a busy machine is slow, not wrong."""
    for name in _FACTOR:
        settings.register_profile(
            name,
            derandomize=True,
            deadline=None,
            suppress_health_check=list(HealthCheck),
        )
    settings.load_profile(PROFILE)


def examples(number: int) -> settings:
    """A fifth of `number` examples in CI, a tenth in a quick look, ten times as many by hand."""
    return settings(max_examples=max(3, round(number * _FACTOR[PROFILE])))


def seeds(number: int) -> range:
    """Seeds of made-up jobs: as many as `examples`, and at least one."""
    return range(max(1, round(number * _FACTOR[PROFILE])))


def half(all_of_them: Sequence[_T]) -> Sequence[_T]:
    """Every second one; all of them where it may take long."""
    return all_of_them if PROFILE == "long" else all_of_them[::2]
