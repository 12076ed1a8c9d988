"""The examples in docstrings hold."""

import doctest
import importlib

import pytest

from tests.conftest import ROOT

MODULES = [
    ".".join(path.relative_to(ROOT).with_suffix("").parts)
    for path in sorted((ROOT / "vividplank").rglob("*.py"))
    if ">>> " in path.read_text(encoding="utf-8")
]


@pytest.mark.parametrize("name", MODULES)
def test_examples_hold(name: str) -> None:
    found = doctest.testmod(importlib.import_module(name))
    assert found.attempted and not found.failed
