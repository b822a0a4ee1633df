"""From the shell: the server up, and a plan printed."""

import subprocess
import sys
import tempfile
import time
from pathlib import Path

from timing import medians_in_turns

from just_plane.contract.shot_file import write_shot
from just_plane.demo.catalogue import demo_shots


def server_up():
    """Time (s) from the shell to the address, on a folder that has been filled before: median of five."""
    with tempfile.TemporaryDirectory() as data:
        up_and_down(data)
        return sorted(up_and_down(data) for _ in range(5))[2]


def up_and_down(data):
    start = time.perf_counter()
    server = subprocess.Popen(
        [sys.executable, "-m", "just_plane.cli", "demo", "--data", data, "--port", "0"],
        stdout=subprocess.PIPE,
        text=True,
    )
    server.stdout.readline()
    taken = time.perf_counter() - start
    server.kill()
    server.wait()
    server.stdout.close()
    return taken


def plan_against_numpy():
    """Medians (s) of ``just-plane plan`` and of ``python -c "import numpy"``."""
    with tempfile.TemporaryDirectory() as folder:
        shot = Path(folder) / "shot.json"
        shot.write_text(write_shot(demo_shots()[1]), encoding="utf-8")

        def run(*arguments):
            subprocess.run([sys.executable, *arguments], check=True, stdout=subprocess.DEVNULL)

        return medians_in_turns(
            [lambda: run("-m", "just_plane.cli", "plan", str(shot)), lambda: run("-c", "import numpy")], 7
        )
