"""A program that goes on with a run until it is killed, and is begun again without being imported again.

    python presser.py press|drive FOLDER RUN_ID

Each line ``begin`` on standard input forks a process that has the program loaded but nothing of the data: it prints its
process id and where the run stands. One that presses takes each line after that as an event, and answers by where the
run stands then; one that drives lets the simulated devices work. When it is killed that is said; lines that it did not
read are passed over.
"""

import json
import os
import signal
import subprocess
import sys
import time

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


def drive(folder, run_id):
    """What a server does while devices take a stack."""
    client = create_app(open_store(folder)).test_client()
    run = client.get(f"/api/runs/{run_id}").get_json()
    devices = {"rail": "simulated", "camera": "simulated"}
    asked = {"number": run["events"], "press": f"again-{run['events']:06d}", "devices": devices}
    assert client.post(f"/api/runs/{run_id}/drive", json=asked).status_code == 200
    say(os.getpid(), run["next_frame"])
    time.sleep(60)


def say(*values):
    os.write(1, (json.dumps(values) + "\n").encode())


class Presser:
    """Such a program, from the test's side."""

    def __init__(self, what, folder, run_id):
        self._process = subprocess.Popen(
            [sys.executable, __file__, what, str(folder), run_id],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
        )

    def send(self, line):
        self._process.stdin.write(line + "\n")
        self._process.stdin.flush()

    def told(self):
        return json.loads(self._process.stdout.readline())

    def begin(self):
        """A new process: its id, and where the run stands."""
        self.send("begin")
        return self.told()

    def kill(self, pid):
        """Kill that process; when this returns it is gone."""
        os.kill(pid, signal.SIGKILL)
        while self.told() != ["gone"]:
            pass

    def end(self):
        self._process.stdin.close()
        return self._process.wait(timeout=30)


if __name__ == "__main__":
    while asked := line():
        if asked != "begin":
            continue
        child = os.fork()
        if child == 0:
            {"press": press_on, "drive": drive}[sys.argv[1]](*sys.argv[2:])
            os._exit(0)
        os.waitpid(child, 0)
        say("gone")
