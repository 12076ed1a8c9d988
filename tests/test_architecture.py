"""Arrows between packages point one way: web, jobs, demo → store → core; devices, web → core."""

import ast
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
MAY_IMPORT = {
    "core": set(),
    "store": {"core"},
    "jobs": {"core", "store", "logs"},
    "logs": set(),
    "demo": {"core", "store"},
    "devices": {"core"},
    "web": {"core", "store"},
    "command": {"core"},
    "serve": {"core", "store", "jobs", "web", "devices", "logs"},  # where they are put together
}
NOT_IN_CORE = {
    "flask",
    "flask_openapi3",
    "sqlalchemy",
    "psycopg",
    "procrastinate",
    "alembic",
    "requests",
    "socket",
    "datetime",
    "time",
    "argparse",
    "signal",
}
FILES = sorted((ROOT / "vividplank").rglob("*.py"))


def imported(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            found.add(node.module)
    return found


@pytest.mark.parametrize("path", FILES, ids=lambda p: str(p.relative_to(ROOT)))
def test_no_import_points_outward(path: Path) -> None:
    inside = path.relative_to(ROOT / "vividplank").parts
    package = inside[0].removesuffix(".py")
    if package == "__init__":
        return
    ours = {name.split(".")[1] for name in imported(path) if name.startswith("vividplank.")}
    assert ours - {package} <= MAY_IMPORT[package]
    if package == "core":
        assert not {name.split(".")[0] for name in imported(path)} & NOT_IN_CORE


def test_the_audit_shares_nothing_with_the_search_but_the_board() -> None:
    audit = {
        n
        for n in imported(ROOT / "vividplank/core/layout/audit.py")
        if n.startswith("vividplank.core.layout")
    }
    assert audit == {"vividplank.core.layout.plan"}


def test_the_launcher_needs_nothing_installed() -> None:
    outside = {"vividplank", "numpy", "flask", "sqlalchemy", "psycopg"}
    for path in (ROOT / "launcher").glob("*.py"):
        assert not {n.split(".")[0] for n in imported(path)} & outside, path


def test_no_file_is_too_long_to_be_one_idea() -> None:
    long = [p.name for p in FILES if len(p.read_text(encoding="utf-8").splitlines()) > 600]
    assert long == []
