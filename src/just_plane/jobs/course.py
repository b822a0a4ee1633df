"""One job on its way through its pieces: what is out, what waits, what was lost and is asked for again."""

from concurrent.futures import FIRST_COMPLETED, wait
from contextlib import suppress

from just_plane.frames.tasks import StoppedError, WorkError, do_task
from just_plane.jobs.graph import out_of
from just_plane.jobs.requests import part_file

MOST_TRIES = 3
LOOK_S = 0.3
"""Between looks at a job that runs."""
GENTLE_S = 10.0
"""Workers that are asked to stop have so long to reach the end of a frame."""


class Course:
    """One job on its way.

    Parameters
    ----------
    runner : Runner       Whose turn it is; :meth:`Runner.look` is asked between pieces.
    job : Job
    tasks : list of Task  In an order in which they can be done; the last is what is wanted.
    engine : object
    """

    def __init__(self, runner, job, tasks, engine):
        self._runner, self._job, self._engine = runner, job, engine
        self._results = runner.jobs.folder
        self._left = {task.result_key: task for task in tasks}
        self._tries = {task.result_key: task.tries for task in tasks}
        self._out = {}

    def run(self):
        """Until nothing is left, or an error ends it."""
        self._skip_what_is_not_needed()
        try:
            while self._left:
                self._runner.look(self._job)
                self._send()
                done, _ = wait(list(self._out), timeout=LOOK_S, return_when=FIRST_COMPLETED)
                for future in done:
                    task = self._out.pop(future, None)
                    if task is not None:  # else it was lost with another of them
                        self._settle(task, future)
                if self._out and not self._engine.alive():
                    self._lost()
        except BaseException:
            self._call_back()
            raise

    def _skip_what_is_not_needed(self):
        """From the last piece back: where a file is there, what it was made of need not be."""
        needed, looked = set(), [next(reversed(self._left))]
        while looked:
            key = looked.pop()
            if key in needed or key not in self._left or self._is_there(self._left[key]):
                continue
            needed.add(key)
            looked += self._left[key].needs
        skipped = [key for key in self._left if key not in needed]
        self._runner.work.skip(self._runner.owner, self._job.job_id, skipped)
        self._left = {key: task for key, task in self._left.items() if key in needed}

    def _is_there(self, task):
        return out_of(task, self._results)[1].exists()

    def _send(self):
        out = {task.result_key for task in self._out.values()}
        for task in list(self._left.values()):
            if len(self._out) >= 2 * self._engine.workers:
                return
            if task.result_key in out or any(need in self._left for need in task.needs):
                continue
            if self._is_there(task):
                self._finished(task)
                continue
            self._runner.work.sent(self._runner.owner, self._job.job_id, task.result_key)
            needs = [str(part_file(self._results, need)) for need in task.needs]
            place = str(out_of(task, self._results)[0])
            scratch = str(self._runner.scratch(self._job))
            try:
                future = self._engine.submit(
                    do_task, task.kind, task.order_json, needs, place, scratch, task.result_key
                )
            except self._engine.lost:
                self._lost(task)
                return
            self._out[future] = task

    def _finished(self, task):
        size = out_of(task, self._results)[1].stat().st_size
        self._runner.work.done(self._runner.owner, self._job.job_id, task, size)
        del self._left[task.result_key]

    def _settle(self, task, future):
        try:
            future.result()
        except StoppedError:
            self._runner.look(self._job)  # says why
            self._runner.work.waits(self._runner.owner, self._job.job_id, task.result_key, lost=False)
            return
        except WorkError:
            raise
        except self._engine.lost:
            self._lost(task)
            return
        if self._is_there(task):
            self._finished(task)
        else:  # the file is believed, not the answer
            self._again(task)

    def _lost(self, *tasks):
        """Workers were lost: all that is out is asked for again, by new ones."""
        lost = [*tasks, *self._out.values()]
        self._out.clear()
        self._engine.anew()
        self._runner.look(self._job)
        for task in lost:
            self._again(task)

    def _again(self, task):
        self._tries[task.result_key] += 1
        if self._tries[task.result_key] >= MOST_TRIES:
            raise WorkError(
                "The work was broken off three times.", "Look whether the frames are whole; start it again."
            )
        self._runner.work.waits(self._runner.owner, self._job.job_id, task.result_key, lost=True)

    def _call_back(self):
        """What is out is asked to stop between frames, and stopped if it does not."""
        if not self._out:
            return
        with suppress(OSError):
            self._runner.scratch(self._job).mkdir(parents=True, exist_ok=True)
            (self._runner.scratch(self._job) / "stop").touch()
        _, still = wait(list(self._out), timeout=GENTLE_S)
        if still:
            self._engine.anew()
