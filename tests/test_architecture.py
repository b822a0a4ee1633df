"""The rules of the tree, as tests: who may import whom, and how long a file may grow."""

import ast
from pathlib import Path

import pytest

PACKAGE = Path(__file__).parents[1] / "src" / "just_plane"
STANDARD = {"collections", "dataclasses", "functools", "itertools", "math", "typing"}
MAY_IMPORT = {
    "core": STANDARD | {"numpy", "just_plane.core"},
    "contract": STANDARD
    | {"base64", "binascii", "copy", "csv", "io", "json", "pydantic", "just_plane.contract", "just_plane.core"},
    "pictures": STANDARD
    | {"PIL", "base64", "io", "numpy", "just_plane.contract", "just_plane.core", "just_plane.pictures"},
    "planning": STANDARD
    | {"bisect", "csv", "io", "numpy", "just_plane.core", "just_plane.contract", "just_plane.planning"},
}
MAY_NOT_IMPORT = {
    "store": {"flask", "flask_openapi3", "just_plane.web", "just_plane.core", "just_plane.planning"},
    "demo": {"flask", "just_plane.web"},
}
MOST_LINES = 400


def imported(path):
    """Roots imported by a file; for this package two parts are kept."""
    found = set()
    for node in ast.walk(ast.parse(path.read_text())):
        names = []
        if isinstance(node, ast.Import):
            names = [alias.name for alias in node.names]
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path.name}: write imports in full"
            names = [
                f"{node.module}.{alias.name}" if node.module == "just_plane" else node.module for alias in node.names
            ]
        for name in names:
            parts = name.split(".")
            found.add(".".join(parts[:2]) if parts[0] == "just_plane" else parts[0])
    return found


def files_of(layer):
    return sorted((PACKAGE / layer).rglob("*.py"))


@pytest.mark.parametrize(
    ("layer", "path"),
    [(layer, path) for layer in MAY_IMPORT for path in files_of(layer)],
    ids=lambda value: getattr(value, "stem", value),
)
def test_inner_layers_import_only_what_they_may(layer, path):
    assert imported(path) <= MAY_IMPORT[layer]


@pytest.mark.parametrize(
    ("layer", "path"),
    [(layer, path) for layer in MAY_NOT_IMPORT for path in files_of(layer)],
    ids=lambda value: getattr(value, "stem", value),
)
def test_outer_layers_keep_to_their_side(layer, path):
    assert not imported(path) & MAY_NOT_IMPORT[layer]


@pytest.mark.parametrize("path", sorted(PACKAGE.rglob("*.py")), ids=lambda path: path.stem)
def test_no_file_outgrows_what_one_person_can_hold(path):
    assert len(path.read_text().splitlines()) <= MOST_LINES


def test_the_rule_would_catch_a_breach(tmp_path):
    breach = tmp_path / "breach.py"
    breach.write_text("from just_plane.web import app\nimport flask\n")
    assert imported(breach) == {"just_plane.web", "flask"}
