"""Draw mutants of the core by chance, for a fair count of those that no test misses: all 22,000 would take a day.

In a copy of the tree, once ``mutmut run nosuch`` has made them all (twenty minutes):

    .venv/bin/mutmut run $(.venv/bin/python tools/mutants_sample.py 120 7)     how many, and the draw's seed
    .venv/bin/python tools/mutants_again.py                                    judges those that survived by whole files
"""

import json
import random
import sys
from pathlib import Path

MADE = Path(__file__).parents[1] / "mutants" / "src"


def every_mutant(room="just_plane/core"):
    """Names of all mutants that were made of a room's modules, in order."""
    metas = sorted((MADE / room).rglob("*.meta"))
    return [name for meta in metas for name in json.loads(meta.read_text())["exit_code_by_key"]]


def main(how_many, seed, room="just_plane/core"):
    names = every_mutant(room)
    if not names:
        sys.exit("no mutants are made yet: .venv/bin/mutmut run nosuch")
    print(*sorted(random.Random(int(seed)).sample(names, min(int(how_many), len(names)))))


if __name__ == "__main__":
    main(*sys.argv[1:])
