"""One thread that takes jobs from the data file and sees each to its end, piece by piece.

The truth is in the data file and in the files that pieces leave: a piece whose file is there is done, whatever an
engine says, and one whose file is not there is not.
"""

import json
import logging
import os
import shutil
import threading
import time
import uuid
from contextlib import suppress

from just_plane.frames.intake import FolderError
from just_plane.frames.tasks import WorkError
from just_plane.jobs.cleaning import Cleaning
from just_plane.jobs.course import Course
from just_plane.jobs.graph import pieces
from just_plane.pictures.frames_out import written
from just_plane.store.errors import StoreError
from just_plane.store.work import StoodBackError, Work

WAIT_S, SIGN_S = 1.0, 5.0
"""Between looks for a job; between signs of life."""
IDLE_S = 60.0
"""After so long without work the workers are let go."""
log = logging.getLogger("just_plane.jobs")


class _StopAskedError(Exception):
    """Somebody cancelled or paused the job; ``paused`` says which."""

    def __init__(self, *, paused):
        super().__init__(paused)
        self.paused = paused


class Runner:
    """Runs the jobs of a store, one after the other; of several runners on one folder one at a time works.

    Parameters
    ----------
    jobs : Jobs
    engine : object                With ``workers``, ``lost``, ``submit``, ``alive``, ``anew`` and ``close``.
    clock : function               Seconds by the clock on the wall.
    """

    def __init__(self, jobs, engine, clock=time.time):
        self.jobs = jobs
        self.work = Work(jobs.database)
        self.cleaning = Cleaning(jobs, self.work)
        self._engine = engine
        self._clock = clock
        self._id = f"{os.getpid()}-{uuid.uuid4().hex}"
        self._owner = None
        self._signed = 0.0
        self._busy = time.monotonic()
        self._wake = threading.Event()
        self._stopping = False
        self._thread = None

    def start(self):
        """Begin; what the last server left is taken up."""
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
        if self._owner is not None:
            with suppress(StoreError):
                self.work.let_go(self._owner)

    def progress(self, job):
        """How far a running job is: (share, words). Told by files, so that any server of the folder can."""
        tasks = self.work.tasks(job.job_id)
        whole = sum(task.weight for task in tasks)
        if not whole:
            return self._told(job, "plan")
        done, words = 0.0, ""
        for task in tasks:
            if task.state == "done":
                done += task.weight
            elif task.state == "sent":
                share, said = self._told(job, task.result_key)
                done, words = done + share * task.weight, words or said
        return done / whole, words

    def _told(self, job, key):
        try:
            told = json.loads((self._scratch(job) / f"{key}.progress").read_text())
            return float(told["share"]), str(told["words"])
        except (OSError, ValueError, KeyError):
            return 0.0, ""

    def ask_to_stop(self, job):
        """Leave word for the workers; they look between frames."""
        scratch = self._scratch(job)
        scratch.mkdir(parents=True, exist_ok=True)
        (scratch / "stop").touch()
        self.wake()

    def _scratch(self, job):
        return self.jobs.folder / "scratch" / job.job_id

    def _run(self):
        while not self._stopping:
            try:
                if self._mine():
                    job = self.work.take(self._owner)
                    if job is not None:
                        self._see_to(job)
                        self._busy = time.monotonic()
                        continue
                    self.cleaning.hourly(time.monotonic())
            except StoodBackError:
                self._stand_back()
            except StoreError:  # the folder is gone for now; it may come back
                pass
            except Exception:
                log.exception("the thread of jobs")
            if time.monotonic() - self._busy > IDLE_S:
                self._engine.anew()
            self._wake.wait(WAIT_S)
            self._wake.clear()

    def _mine(self):
        """Whether this server is the one that works; signs of life, now and then."""
        now = time.monotonic()
        if self._owner is None:
            self._owner = self.work.claim(self._id, self._clock(), _has_ended)
            self._signed = now
        elif now - self._signed > SIGN_S:
            self.work.seen(self._owner, self._clock())
            self._signed = now
        return self._owner is not None

    def _stand_back(self):
        log.warning("another server on this folder does the work now")
        self._owner = None
        self._engine.anew()

    def _see_to(self, job):
        state, message, remedy = "failed", "", ""
        try:
            state = self._done(job)
        except WorkError as error:
            message, remedy = error.message, error.remedy
        except _StopAskedError as asked:
            if asked.paused:
                self._scratch_again(job)
                self.work.rests(self._owner, job.job_id)
                return
            state = "cancelled"
        except StoodBackError:
            raise
        except StoreError:
            self._take_up_again(job)
            return
        except Exception:
            # Nothing may leave a job running without a runner.
            if self._stopping:
                return
            log.exception("job %s", job.job_id)
            message, remedy = "The work broke off by a fault of the program.", "Start it again."
        if self._stopping and state != "done":
            return
        try:
            self.work.end(self._owner, job.job_id, state, message, remedy)
        except StoodBackError:
            raise
        except StoreError:
            self._take_up_again(job)
            return
        shutil.rmtree(self._scratch(job), ignore_errors=True)
        self.cleaning.after(job, state)

    def _take_up_again(self, job):
        """The data file could not be used for a moment: the next turn finds the job waiting, and what is done of it."""
        log.warning("job %s waits: the data file could not be used", job.job_id)
        self._owner = None

    def _scratch_again(self, job):
        """An empty place for word to and from workers."""
        shutil.rmtree(self._scratch(job), ignore_errors=True)
        self._scratch(job).mkdir(parents=True, exist_ok=True)

    def _done(self, job):
        self._scratch_again(job)
        tasks = self.work.tasks(job.job_id) or self._planned(job)
        Course(self, job, tasks, self._engine).run()
        return "done"

    def _planned(self, job):
        def told(done, count):
            self.look(job)
            content = json.dumps({"share": 0.0, "words": f"Reading frame {done + 1} of {count}"})
            written(self._scratch(job) / "plan.progress", lambda to: to.write_text(content))

        try:
            tasks = pieces(job, self.jobs.folder, self.work, self._engine.workers, told)
        except FolderError as error:
            raise WorkError(error.message, error.remedy) from None
        except OSError as error:
            raise WorkError(f"The disk refused: {error.strerror}.", "Make room, or look at the folder.") from None
        self.work.plan(self._owner, job.job_id, tasks)
        return tasks

    def look(self, job):
        """Between pieces: a sign of life, and whether somebody wants the job to stop."""
        if self._stopping:
            raise RuntimeError("the server stops")
        self._mine()
        if self._owner is None:
            raise StoodBackError
        now = self.jobs.get(job.job_id)
        if now.state == "cancelling" or now.paused:
            raise _StopAskedError(paused=bool(now.paused) and now.state != "cancelling")

    @property
    def owner(self):
        """This server's turn."""
        return self._owner

    def scratch(self, job):
        """Where a job's workers leave word."""
        return self._scratch(job)


def _has_ended(owner_id):
    """Whether the process of another server on this machine is there no more."""
    try:
        os.kill(int(owner_id.partition("-")[0]), 0)
    except (ProcessLookupError, ValueError, OverflowError):
        return True
    except OSError:  # it is somebody else's, but it is there
        return False
    return False
