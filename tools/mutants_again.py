"""Judge the survivors of `make mutants` anew, each by whole files of tests.

mutmut credits a function to the tests during which it ran. What a shared fixture, a kept stack or a cache ran for many
tests is credited to the first of them, and the others are not asked: some survivors are none. Here every file is run
that holds a test of the function (of its module, where none is credited), alone, until one fails.

    .venv/bin/python tools/mutants_again.py [NAMES...]     names of mutants; none: all that survived
"""

import json
import os
import subprocess
import sys
from pathlib import Path

MUTANTS = Path(__file__).parents[1] / "mutants"
SURVIVED, NO_TESTS = 0, 33
FAILED = (1, 2)
"""A test, or what it needs to begin with."""


def survivors():
    """Names of the mutants that no test missed, in order."""
    found = []
    for meta in sorted((MUTANTS / "src").rglob("*.meta")):
        codes = json.loads(meta.read_text())["exit_code_by_key"]
        found += [name for name, code in codes.items() if code in (SURVIVED, NO_TESTS)]
    return found


def files_of(name, tests_by_function):
    """Files that hold a test of what a mutant changes, those of the core first; of its module where none does."""
    function = name.rpartition("__mutmut_")[0]
    tests = tests_by_function.get(function)
    if not tests:
        module = function.rpartition(".")[0] + "."
        tests = [test for other, those in tests_by_function.items() if other.startswith(module) for test in those]
    return sorted({test.partition("::")[0] for test in tests})


def is_missed(name, files):
    """Whether a test fails with the mutant put in."""
    environment = os.environ | {"MUTANT_UNDER_TEST": name, "PYTHONPATH": f"{MUTANTS / 'src'}:{MUTANTS / 'tests'}"}
    asked = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "-p", "no:randomly", *files]
    done = subprocess.run(asked, cwd=MUTANTS, env=environment, capture_output=True, check=False)
    return done.returncode in FAILED


def main(names):
    tests = json.loads((MUTANTS / "mutmut-stats.json").read_text())["tests_by_mangled_function_name"]
    left = 0
    for name in names or survivors():
        files = files_of(name, tests)
        missed = bool(files) and is_missed(name, files)
        left += not missed
        print(f"{'missed by a test' if missed else 'survived':16}  {name}  ({len(files)} files)", flush=True)
    print(f"{left} survived")


if __name__ == "__main__":
    main(sys.argv[1:])
