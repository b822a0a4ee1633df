"""A program that presses on in a run until it is killed, and is begun again without being imported again.

    python presser.py FOLDER RUN_ID

Each line ``begin`` on standard input forks a process that has the program loaded but nothing of the data: it prints its
process id, then where the run stands; each line after that is an event, answered by where the run stands then. When it
is killed that is said; lines that it did not read are passed over.
"""

import json
import os
import sys

from just_plane.store.folder import open_store
from just_plane.web.app import create_app


def line():
    """The next line; byte by byte, so that nothing is read that the next process should see."""
    read = b""
    while not read.endswith(b"\n"):
        byte = os.read(0, 1)
        if not byte:
            return ""
        read += byte
    return read.decode().strip()


def press_on(folder, run_id):
    """What a server does with presses, until the end of its input."""
    client = create_app(open_store(folder)).test_client()
    run = client.get(f"/api/runs/{run_id}").get_json()
    say(os.getpid(), run["next_frame"])
    while event := line():
        asked = {"number": run["events"], "press": f"press-{run['events']:04d}", "event": json.loads(event)}
        run = client.post(f"/api/runs/{run_id}/events", json=asked).get_json()
        say(run["next_frame"])


def say(*values):
    os.write(1, (json.dumps(values) + "\n").encode())


if __name__ == "__main__":
    while asked := line():
        if asked != "begin":
            continue
        child = os.fork()
        if child == 0:
            press_on(*sys.argv[1:])
            os._exit(0)
        os.waitpid(child, 0)
        say("gone")
