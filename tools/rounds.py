"""Every browser test again and again on a machine whose cores are kept busy: what fails once in ten rounds is a race.

    .venv/bin/python tools/rounds.py 20

No test is run a second time. The first round in which one fails is the last: its output is printed.
"""

import os
import subprocess
import sys
import time
from contextlib import contextmanager
from pathlib import Path

ROOT = Path(__file__).parents[1]
BUSY = "import os; os.nice(10)\nwhile True: pass"


@contextmanager
def busy_cores():
    """A process for each core that does nothing but keep it busy, a little behind what is tested."""
    burners = [subprocess.Popen([sys.executable, "-c", BUSY]) for _ in range(os.cpu_count() or 2)]
    try:
        yield
    finally:
        for burner in burners:
            burner.kill()
            burner.wait()


def one_round(workers):
    """Exit status and what pytest said."""
    command = [sys.executable, "-m", "pytest", "-m", "browser", "tests/browser", "-n", str(workers)]
    ran = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
    return ran.returncode, ran.stdout + ran.stderr


def main(how_many="20", workers="2"):
    with busy_cores():
        for number in range(1, int(how_many) + 1):
            status, said = one_round(workers)
            print(f"{time.strftime('%H:%M')}  round {number}: {said.strip().splitlines()[-1]}", flush=True)
            if status:
                sys.exit(said)


if __name__ == "__main__":
    main(*sys.argv[1:])
