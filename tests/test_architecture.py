"""Arrows between packages point one way: web, jobs, demo → store → core; devices, web → core."""

import ast
from pathlib import Path

import networkx as nx
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
        for n in imported(ROOT / "vividplank/core/layout/model/audit.py")
        if n.startswith("vividplank.core.layout")
    }
    assert audit == {"vividplank.core.layout.model.plan"}


def test_the_launcher_needs_nothing_installed() -> None:
    outside = {"vividplank", "numpy", "flask", "sqlalchemy", "psycopg"}
    for path in (ROOT / "launcher").glob("*.py"):
        assert not {n.split(".")[0] for n in imported(path)} & outside, path


def test_nothing_goes_round_in_circles() -> None:
    """Folders, and modules that lie beside folders, import one another without a circle."""
    modules = {name_of(path): path for path in FILES}

    def room(name: str) -> str:
        folder = modules[name].parent
        beside = any((f / "__init__.py").exists() for f in folder.iterdir() if f.is_dir())
        is_package = modules[name].name == "__init__.py"
        return name if beside or is_package else name.rpartition(".")[0]

    rooms, files = nx.DiGraph(), nx.DiGraph()
    for name, path in modules.items():
        for target in imported_modules(path) & modules.keys() - {name}:
            files.add_edge(name, target)
            if path.name != "__init__.py" and room(name) != room(target):
                rooms.add_edge(room(name), room(target))
    for graph in (rooms, files):
        assert [c for c in nx.strongly_connected_components(graph) if len(c) > 1] == []


def name_of(path: Path) -> str:
    parts = path.relative_to(ROOT).with_suffix("").parts
    return ".".join(parts[:-1] if parts[-1] == "__init__" else parts)


def imported_modules(path: Path) -> set[str]:
    """All that may be a module: `from a import b` may mean `a` or `a.b`."""
    found = imported(path)
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.ImportFrom) and node.module:
            found |= {f"{node.module}.{alias.name}" for alias in node.names}
    return found


def test_no_folder_holds_more_than_can_be_looked_over() -> None:
    folders = {path.parent for path in FILES if "migrations" not in path.parts}
    crowded = {
        str(f.relative_to(ROOT)): n
        for f in folders
        if (n := len([p for p in f.glob("*.py") if p.name != "__init__.py"])) > 15
    }
    assert crowded == {}


def test_every_body_of_the_api_has_a_name_of_its_own() -> None:
    """The document of the API knows bodies by their names: of two alike one would be lost."""
    names = [
        node.name
        for path in FILES
        if "schemas" in path.parts
        for node in ast.parse(path.read_text(encoding="utf-8")).body
        if isinstance(node, ast.ClassDef)
    ]
    assert sorted(set(names)) == sorted(names)


def test_ticks_have_names_in_one_file() -> None:
    bare = {
        f"{path.relative_to(ROOT)}:{node.lineno}"
        for path in FILES
        if path.name not in ("measure.py", "gltf.py")  # 127 is the largest signed byte of a file
        and "migrations" not in path.parts
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8")))
        if isinstance(node, ast.Constant) and node.value in (127, 1016, 8128)
    }
    assert bare == set()


#: Files of more than 400 lines, and why.
LONG = {
    "core/cutlist/formula.py": "one grammar: tokens, reader and values of formulas",
    "core/layout/bound/relaxation.py": "one method, a third of it what it proves",
    "core/layout/bound/sweep_kernel.py": "compiled functions that call one another",
    "core/layout/edit/moves.py": "every move by hand, over the same helpers",
    "core/layout/patterns/proposals_kernel.py": "compiled functions that call one another",
    "core/layout/patterns/strips.py": "one class: all rules of a strip at once",
    "core/layout/search/ruin_and_recreate.py": "one method with its neighbourhoods",
    "core/takeoff/patterns/cases.py": "a table of patterns",
    "core/takeoff/solids/oriented_box.py": "one algorithm of computational geometry",
}


def test_no_file_is_too_long_to_be_one_idea() -> None:
    long = {
        str(p.relative_to(ROOT / "vividplank"))
        for p in FILES
        if len(p.read_text(encoding="utf-8").splitlines()) > 400
    }
    assert long == set(LONG)
