"""The rules of the tree, as tests: who may import whom, in rings and in rooms, and how long a file may grow."""

import ast
import subprocess
import sys
from pathlib import Path

import pytest

PACKAGE = Path(__file__).parents[1] / "src" / "just_plane"
PLAIN = {"bisect", "collections", "contextlib", "dataclasses", "functools", "itertools", "math", "typing"}
"""What any layer may use: nothing that opens, prints, waits or looks at the clock."""

MAY_IMPORT = {
    "core": PLAIN | {"numpy", "scipy", "just_plane.core"},
    "contract": PLAIN
    | {
        "annotated_types",
        "base64",
        "binascii",
        "copy",
        "csv",
        "hashlib",
        "io",
        "json",
        "pydantic",
        "pydantic_core",
        "re",
        "types",
        "urllib",
    }
    | {"just_plane.contract", "just_plane.core"},
    "planning": PLAIN
    | {"collections", "csv", "datetime", "io", "numpy", "pydantic", "re"}
    | {"just_plane.contract", "just_plane.core", "just_plane.planning"},
    "pictures": PLAIN
    | {"PIL", "base64", "concurrent", "cv2", "hashlib", "io", "json", "numpy", "os", "pathlib", "rawpy", "struct"}
    | {"tifffile", "zipfile", "zlib"}
    | {"just_plane.contract", "just_plane.core", "just_plane.pictures"},
    "shelf": PLAIN | {"importlib", "just_plane.contract"},
    "demo": PLAIN
    | {"importlib", "json", "just_plane.contract", "just_plane.demo", "just_plane.pictures", "just_plane.planning"}
    | {"just_plane.runs", "just_plane.shelf"},
    # Of this package no more than the contract: what is kept does not know what it means.
    # Work on paths: it may open files, but knows no server and no data file.
    "frames": PLAIN
    | {"PIL", "concurrent", "cv2", "datetime", "io", "json", "numpy", "os", "pathlib", "pydantic", "re", "shutil"}
    | {"argparse", "copy", "errno", "statistics", "sys", "tempfile", "threading", "time"}
    | {f"just_plane.{layer}" for layer in ("contract", "core", "frames", "pictures", "planning")},
    "devices": PLAIN
    | {"datetime", "numpy", "pathlib", "threading", "time", "just_plane.core", "just_plane.devices"}
    | {"just_plane.pictures"},
    "drive": PLAIN
    | {"datetime", "json", "numpy", "just_plane.core", "logging", "pathlib", "pydantic", "sys", "threading", "uuid"}
    | {f"just_plane.{layer}" for layer in ("contract", "devices", "drive", "frames", "pictures", "planning", "runs")}
    | {"just_plane.store"},
    "practice": PLAIN
    | {"numpy", "threading", "uuid", "just_plane.contract", "just_plane.core", "just_plane.pictures"}
    | {"just_plane.planning", "just_plane.practice"},
    "runs": PLAIN | {"csv", "io", "just_plane.contract", "just_plane.core", "just_plane.runs"},
    "jobs": PLAIN
    | {"concurrent", "datetime", "hashlib", "importlib", "ipaddress", "json", "logging", "multiprocessing", "os"}
    | {"distributed", "pathlib", "shutil", "sys", "threading", "time", "urllib", "uuid"}
    | {f"just_plane.{layer}" for layer in ("contract", "frames", "jobs", "pictures", "store")},
    "store": PLAIN
    | {
        "datetime",
        "hashlib",
        "hmac",
        "json",
        "pathlib",
        "os",
        "platformdirs",
        "re",
        "secrets",
        "sqlite3",
        "time",
        "uuid",
        "just_plane.contract",
        "just_plane.store",
    },
    "web": PLAIN
    | {
        "copy",
        "datetime",
        "flask",
        "flask_openapi3",
        "hashlib",
        "json",
        "logging",
        "hmac",
        "mimetypes",
        "os",
        "pathlib",
        "pydantic",
        "secrets",
        "segno",
        "cheroot",
        "cryptography",
        "ipaddress",
        "tempfile",
        "threading",
        "time",
        "zipfile",
    }
    | {"numpy", "socket", "sys", "waitress", "werkzeug", "just_plane.__version__", "just_plane.contract"}
    | {
        "just_plane.core",
        "just_plane.drive",
        "just_plane.frames",
        "just_plane.jobs",
        "just_plane.practice",
        "just_plane.runs",
    }
    | {"just_plane.pictures", "just_plane.planning", "just_plane.shelf", "just_plane.store", "just_plane.web"},
    # It joins all the others, and none of them knows it.
    "cli": PLAIN
    | {"argparse", "numpy", "pathlib", "sys", "just_plane.__version__", "just_plane.cli"}
    | {f"just_plane.{layer}" for layer in ("contract", "core", "demo", "drive", "frames", "jobs", "pictures")}
    | {"just_plane.planning", "just_plane.store", "just_plane.web"},
}
"""By layer; trials live in ``core``, ``frames`` and ``planning``."""

OPENCV = ("core/frames", "frames", "pictures")
"""Rooms that may use OpenCV, and no others."""

ROOMS = {
    "words": set(),
    "rig": {"words"},
    "setup": {"rig", "words"},
    "stations": {"rig", "setup", "words"},
    "plane": {"setup", "words"},
    "ways": {"rig", "setup", "words"},
    "pictures": {"plan", "plane", "setup", "stack_numbers", "stations", "ways"},
    "kit": {"rig", "words"},
    "calibration": {"rig", "words"},
    "plan": {"plane", "setup", "stations", "ways", "words"},
    "stack_numbers": {"plan", "ways"},
    "log": {"plan", "words"},
}
"""Rooms of planning and what each may use: ``plan`` only joins."""

MOST_LINES = 400


def imported_modules(path):
    """Modules imported by a file, in full; ``from just_plane import x`` counts as ``just_plane.x``."""
    found = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path.name}: write imports in full"
            for alias in node.names:
                inside = PACKAGE.parent / node.module.replace(".", "/") / f"{alias.name}.py"
                package = node.module == "just_plane" or inside.exists()
                found.add(f"{node.module}.{alias.name}" if package else node.module)
    return found


def imported(path):
    """Roots imported by a file; for this package two parts are kept."""
    return {".".join(name.split(".")[: 2 if name.startswith("just_plane") else 1]) for name in imported_modules(path)}


def files_of(layer):
    return sorted((PACKAGE / layer).rglob("*.py"))


def module_of(path):
    parts = path.relative_to(PACKAGE.parent).with_suffix("").parts
    return ".".join(parts[:-1] if parts[-1] == "__init__" else parts)


def allowed(layer, path):
    opencv = {"cv2"} if path.relative_to(PACKAGE).as_posix().startswith(OPENCV) else set()
    return (MAY_IMPORT[layer] - {"cv2"}) | opencv


@pytest.mark.parametrize(
    ("layer", "path"),
    [(layer, path) for layer in MAY_IMPORT for path in files_of(layer)],
    ids=lambda value: getattr(value, "stem", value),
)
def test_a_layer_imports_only_what_it_may(layer, path):
    assert imported(path) <= allowed(layer, path)


def test_every_folder_is_a_layer_with_a_rule():
    folders = {path.name for path in PACKAGE.iterdir() if path.is_dir() and path.name != "__pycache__"}
    assert folders <= MAY_IMPORT.keys()


@pytest.mark.parametrize("path", files_of("planning"), ids=lambda path: path.stem)
def test_a_room_of_planning_uses_only_inner_rooms(path):
    room = path.relative_to(PACKAGE / "planning").with_suffix("").parts[0]
    if room == "__init__":
        return
    used = {name.split(".")[2] for name in imported_modules(path) if name.startswith("just_plane.planning.")}
    assert used - {room} <= ROOMS[room]


def test_no_import_runs_in_a_circle():
    graph = {module_of(path): imported_modules(path) for path in PACKAGE.rglob("*.py")}
    done, open_now = set(), []

    def visit(module):
        assert module not in open_now, " -> ".join([*open_now[open_now.index(module) :], module])
        if module in done:
            return
        open_now.append(module)
        for name in graph[module] & graph.keys():
            visit(name)
        done.add(open_now.pop())

    for module in graph:
        visit(module)
    assert len(done) == len(graph)


@pytest.mark.parametrize("path", sorted(PACKAGE.rglob("*.py")), ids=lambda path: path.stem)
def test_no_file_outgrows_what_one_person_can_hold(path):
    assert len(path.read_text().splitlines()) <= MOST_LINES


def test_the_rule_would_catch_a_breach(tmp_path):
    breach = tmp_path / "breach.py"
    breach.write_text("from just_plane.web import app\nimport flask\n")
    assert imported(breach) == {"just_plane.web", "flask"}
    assert imported_modules(breach) == {"just_plane.web.app", "flask"}


SLOW = {"scipy", "dask", "distributed", "hypothesis"}


@pytest.mark.parametrize(
    ("module", "late"), [("web.app", SLOW), ("cli", SLOW | {"cv2", "flask", "numpy", "PIL", "sqlite3"})]
)
def test_nothing_that_takes_long_to_import_is_imported_before_it_is_needed(module, late):
    """A server starts in half the time without SciPy, a worker too; dask is for hosts only."""
    said = subprocess.run(
        [sys.executable, "-c", f"import sys, just_plane.{module}; print({{n.split('.')[0] for n in sys.modules}})"],
        capture_output=True,
        text=True,
        check=True,
    )
    assert ast.literal_eval(said.stdout) & late == set()


def core_functions():
    for path in files_of("core"):
        module = ast.parse(path.read_text())
        classes = [node for node in module.body if isinstance(node, ast.ClassDef)]
        for node in (node for place in (module, *classes) for node in place.body):
            if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
                yield f"{path.stem}.{node.name}", node


@pytest.mark.parametrize(
    ("name", "function"), list(core_functions()), ids=lambda value: value if type(value) is str else ""
)
def test_a_function_of_the_core_says_what_goes_in_and_what_comes_out(name, function):
    said = ast.get_docstring(function) or ""
    arguments = [
        each.arg for each in (*function.args.args, *function.args.kwonlyargs) if each.arg not in ("self", "cls")
    ]
    assert [each for each in arguments if each not in said] == []
    units = ("mm", "radians", "ratio", "float", "bool", "int", "str", "array", "True", "degrees")
    assert "Returns" in said or any(unit in said for unit in units)
