"""One thread that takes jobs from the data file and sees each to its end."""

import json
import logging
import shutil
import threading
from concurrent.futures import CancelledError
from concurrent.futures.process import BrokenProcessPool
from pathlib import Path

from just_plane.frames.work import StoppedError, WorkError, check_into, trial_into
from just_plane.jobs.requests import results_folder
from just_plane.store.errors import StoreError

MOST_TRIES = 3
WAIT_S = 1.0
log = logging.getLogger("just_plane.jobs")


class Runner:
    """Runs the jobs of a store, one after the other."""

    def __init__(self, jobs, engine):
        self.jobs = jobs
        self._engine = engine
        self._wake = threading.Event()
        self._stopping = False
        self._thread = None

    def start(self):
        """Take up what the last server left, and begin."""
        self.jobs.take_up()
        self._thread = threading.Thread(target=self._run, name="jobs", daemon=True)
        self._thread.start()

    def wake(self):
        """A job was asked for, or is to stop."""
        self._wake.set()

    def stop(self):
        """End the thread; what runs waits for the next server."""
        self._stopping = True
        self._wake.set()
        self._engine.close()
        if self._thread is not None:
            self._thread.join(timeout=5)

    def progress(self, job):
        """How far a running job is: (share, words)."""
        try:
            told = json.loads((self._scratch(job) / "progress").read_text())
            return float(told["share"]), str(told["words"])
        except (OSError, ValueError, KeyError):
            return 0.0, ""

    def ask_to_stop(self, job):
        """Leave word for the worker; it looks between frames."""
        scratch = self._scratch(job)
        scratch.mkdir(parents=True, exist_ok=True)
        (scratch / "stop").touch()
        self.wake()

    def _scratch(self, job):
        return self.jobs.folder / "scratch" / job.job_id

    def _run(self):
        while not self._stopping:
            try:
                job = self.jobs.take()
            except StoreError:  # the folder is gone for now; it may come back
                job = None
            if job is None:
                self._wake.wait(WAIT_S)
                self._wake.clear()
                continue
            self._see_to(job)

    def _see_to(self, job):
        state, message, remedy = "failed", "", ""
        try:
            state, message, remedy = self._done(job)
        except Exception:
            # Nothing may leave a job running without a runner.
            log.exception("job %s", job.job_id)
            message, remedy = "The work broke off by a fault of the program.", "Start it again."
        if self._stopping:
            return
        try:
            self.jobs.end(job.job_id, state, message, remedy)
        except StoreError:
            log.warning("job %s ended as %s; the data file could not be written", job.job_id, state)
        shutil.rmtree(self._scratch(job), ignore_errors=True)

    def _done(self, job):
        request = json.loads(job.request_json)
        results = results_folder(self.jobs.folder, job.request_key)
        scratch = self._scratch(job)
        scratch.mkdir(parents=True, exist_ok=True)
        results.parent.mkdir(parents=True, exist_ok=True)
        for _ in range(MOST_TRIES):
            if job.kind == "trial":
                future = self._engine.submit(trial_into, job.request_json, str(results), str(scratch))
            else:
                future = self._engine.submit(
                    check_into,
                    request["folder"],
                    json.dumps(request["numbers"]),
                    request["methods"],
                    str(results),
                    str(scratch),
                )
            try:
                future.result()
                return "done", "", ""
            except WorkError as error:
                return "failed", error.message, error.remedy
            except StoppedError:
                return "cancelled", "", ""
            except (BrokenProcessPool, CancelledError):
                self._engine.anew()
                if self._stopping:
                    break
        return "failed", "The work was broken off three times.", "Look whether the frames are whole; start it again."


def result_file(jobs, job, name):
    """Where a file of a job's results lies: Path."""
    return Path(results_folder(jobs.folder, job.request_key)) / name


def request_of(job):
    """What a job was asked: dict of ``folder``, ``numbers`` and ``methods``."""
    return json.loads(job.request_json)
