"""Processes of this machine that do the work, so that a crash in a decoder or a kill takes no server along."""

import os
import threading
import time
from concurrent.futures import CancelledError, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from contextlib import suppress
from multiprocessing import get_context

LOOK_S = 1.0
"""How often a worker looks whether its server is still there."""
MOST_WORKERS = 8
LOST = (BrokenProcessPool, CancelledError)
"""What a future says whose worker was lost: the work is asked for again."""


def _settle(parent):
    """In each worker: gentle to the page, and gone soon after the server is."""
    with suppress(AttributeError, OSError):
        os.nice(5)

    def watch():
        while os.getppid() == parent:
            time.sleep(LOOK_S)
        os._exit(1)

    threading.Thread(target=watch, daemon=True).start()


class EmbeddedEngine:
    """A pool of processes on this machine, made when first needed.

    Parameters
    ----------
    workers : int or None   None: as many as the machine has cores, eight at most.
    """

    lost = LOST

    def __init__(self, workers=None):
        self.workers = workers or min(os.cpu_count() or 1, MOST_WORKERS)
        self._pool = None
        self._lock = threading.Lock()

    def submit(self, function, *arguments):
        """Start a function of plain values; a Future. Raises one of ``lost`` where the pool broke meanwhile."""
        with self._lock:
            if self._pool is None:
                self._pool = ProcessPoolExecutor(
                    self.workers, mp_context=get_context("spawn"), initializer=_settle, initargs=(os.getpid(),)
                )
            try:
                return self._pool.submit(function, *arguments)
            except (OSError, ValueError, RuntimeError) as error:
                raise BrokenProcessPool("the pool broke between two pieces of work") from error

    def alive(self):
        """Whether what was submitted can still end; a pool tells by its futures."""
        return True

    def anew(self):
        """Let the processes go, whatever they are at; the next call makes new ones."""
        with self._lock:
            pool, self._pool = self._pool, None
        if pool is None:
            return
        processes = list((getattr(pool, "_processes", None) or {}).values())
        pool.shutdown(wait=False, cancel_futures=True)
        for process in processes:
            with suppress(OSError, ValueError, AttributeError):
                process.kill()

    def close(self):
        """The same, for good."""
        self.anew()
