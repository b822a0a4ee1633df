"""The drivers that a server has at work: one thread a run, started by a press, ended by the run itself."""

import logging
import threading

from just_plane.contract.run import RunEvent
from just_plane.devices.clock import RealClock
from just_plane.drive.driver import Driver
from just_plane.drive.journal import StoredJournal, folder_of
from just_plane.drive.simulated import simulated
from just_plane.pictures.frames_out import WriteError
from just_plane.store.errors import StoreError

log = logging.getLogger("just_plane.drive")


class Drives:
    """Drivers by run."""

    def __init__(self, runs, results):
        """
        Parameters
        ----------
        runs : store.runs.Runs
        results : Path   Folder beside the data file, for what the simulated camera writes.
        """
        self._runs = runs
        self._results = results
        self._threads: dict = {}
        self._drivers: dict = {}
        self._lock = threading.Lock()
        self._stopping = False

    def at_work(self, run_id):
        """Whether a driver works on a run now."""
        thread = self._threads.get(run_id)
        return thread is not None and thread.is_alive()

    def reported(self, run_id):
        """What the camera of a run said of itself last: CameraState, or None."""
        driver = self._drivers.get(run_id)
        return None if driver is None else driver.reported

    def folder(self, run_id):
        """Where the simulated camera of a run writes to."""
        return folder_of(self._results, run_id)

    def start(self, run_id, shot, stand):
        """Let devices go on with a run; once, however often it is asked.

        Raises
        ------
        NoSetError   There is nothing to photograph.
        """
        with self._lock:
            if self.at_work(run_id):
                return
            devices = simulated(shot, stand, self.folder(run_id))
            driver = Driver(StoredJournal(self._runs, run_id), devices, RealClock(), lambda: self._stopping)
            thread = threading.Thread(target=self._drive, args=(driver,), name=f"drive-{run_id[:8]}", daemon=True)
            self._threads[run_id], self._drivers[run_id] = thread, driver
            thread.start()

    def stop(self):
        """End all drivers between two frames; the runs stay as they are."""
        self._stopping = True
        for thread in list(self._threads.values()):
            thread.join(timeout=5)

    def _drive(self, driver):
        journal = driver.journal
        try:
            driver.run()
        except WriteError as error:
            self._trouble(journal, f"{error.message} {error.remedy}")
        except StoreError as error:
            log.warning("a driver stopped: %s", error)
        except Exception:
            log.exception("a driver stopped")
            self._trouble(journal, "The driver stopped by a fault of this program. Go on, or take the rest by hand.")

    def _trouble(self, journal, words):
        try:
            journal.tell(RunEvent(kind="trouble", words=words))
        except (StoreError, ValueError) as error:
            log.warning("trouble could not be written down: %s", error)
