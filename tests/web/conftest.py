"""Searches of the API's tests go by rounds: a busy machine is slow, and finds the same."""

import pytest

from vividplank.core.layout.model.limits import Limits
from vividplank.jobs import queue
from vividplank.store.layouts import Layout

#: About what a quiet machine does in a second.
_ROUNDS_A_SECOND = 40


def _by_rounds(layout: Layout) -> Limits:
    return Limits(seconds=500, rounds=max(2, round(_ROUNDS_A_SECOND * layout.seconds)))


@pytest.fixture(autouse=True)
def by_rounds(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(queue, "limits_of", _by_rounds)
