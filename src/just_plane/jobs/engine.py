"""Processes that do the work, so that a crash in a decoder or a kill takes no server along."""

import os
import threading
import time
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from multiprocessing import get_context

LOOK_S = 1.0
"""How often a worker looks whether its server is still there."""


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
    """A pool of processes on this machine, made when first needed."""

    def __init__(self, workers=1):
        self._workers = workers
        self._pool = None
        self._lock = threading.Lock()

    def submit(self, function, *arguments):
        """Start a function of plain values; a Future."""
        with self._lock:
            if self._pool is None:
                self._pool = ProcessPoolExecutor(
                    self._workers, mp_context=get_context("spawn"), initializer=_settle, initargs=(os.getpid(),)
                )
            return self._pool.submit(function, *arguments)

    def anew(self):
        """After a worker was lost: the next call makes a new pool."""
        with self._lock:
            pool, self._pool = self._pool, None
        if pool is not None:
            pool.shutdown(wait=False, cancel_futures=True)

    def close(self):
        """Let the processes go."""
        self.anew()
