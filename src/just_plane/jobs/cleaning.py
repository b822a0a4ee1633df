"""What long work leaves behind, and when it goes: the program keeps its folder of results to a size."""

import json
import shutil
from datetime import UTC, datetime, timedelta
from pathlib import Path

from just_plane.jobs.requests import part_file
from just_plane.store.brought import KEPT_DAYS

EVERY_S = 3600.0
LIMIT_BYTES = 20 * 1024**3
DAY_S = 86_400.0
BROKEN_OFF_DAYS = 7
SHORT_LIVED = ("merge", "slab")
"""Large, and of no use once the job that asked for them has ended well."""


class Cleaning:
    """Keeps the folder of results to a size.

    Parameters
    ----------
    jobs : Jobs
    work : Work
    limit_bytes : int    What pieces may hold together.
    """

    def __init__(self, jobs, work, limit_bytes=LIMIT_BYTES):
        self._jobs, self._folder, self._work, self._limit = jobs, Path(jobs.folder), work, limit_bytes
        self._last = None

    def hourly(self, now_s):
        """Clean up if that was not done for an hour; at the first call at once."""
        if self._last is None or now_s - self._last >= EVERY_S:
            self._last = now_s
            self.sweep()

    def after(self, job, state):
        """A job ended: what only it needed goes when it ended well."""
        if state == "done" and job.kind == "check":
            self._remove([key for key, kind, _, _ in self._work.results() if kind in SHORT_LIVED])

    def sweep(self, now=None):
        """Remove what nobody needs.

        Parameters
        ----------
        now : datetime or None   UTC; None: as the clock says.

        Returns
        -------
        int                      Pieces that went.
        """
        now = now or datetime.now(UTC)
        self._half_written(now.timestamp())
        self._brought(now)
        if any(is_open for _, is_open in self._work.keeping().values()):
            return 0
        kept = self._work.results()
        old = (now - timedelta(days=BROKEN_OFF_DAYS)).isoformat()
        gone = [key for key, kind, _, used in kept if kind in SHORT_LIVED and used < old]
        size = sum(size for key, _, size, _ in kept if key not in gone)
        for key, _, bytes_, _ in kept:
            if size <= self._limit:
                break
            if key not in gone:
                gone.append(key)
                size -= bytes_
        self._remove(gone)
        return len(gone) + self._unknown({key for key, *_ in kept}, now.timestamp())

    def _brought(self, now):
        """Copies of frames that no look of the last weeks was at."""
        lately = self._jobs.asked_since((now - timedelta(days=KEPT_DAYS)).isoformat(timespec="milliseconds"))
        looked_at = {Path(json.loads(one).get("folder", "")).name for one in lately}
        for batch in self._folder.parent.glob("brought/*/"):
            newest = max(file.stat().st_mtime for file in [batch, *batch.iterdir()])
            if batch.name not in looked_at and now.timestamp() - newest > KEPT_DAYS * DAY_S:
                shutil.rmtree(batch, ignore_errors=True)

    def _remove(self, keys):
        """Files first: a row without its file is no result, a file without a row is swept."""
        for key in keys:
            part_file(self._folder, key).unlink(missing_ok=True)
        if keys:
            self._work.forget_results(keys)

    def _unknown(self, known, now_s):
        """Pieces that no row tells of: whoever left them was stopped before it could say so."""
        count = 0
        for path in (self._folder / "parts").glob("*/*"):
            if path.name not in known and now_s - path.stat().st_mtime > DAY_S:
                path.unlink(missing_ok=True)
                count += 1
        return count

    def _half_written(self, now_s):
        """What was being written when a process was killed; another may be writing such a file now."""
        for path in [*self._folder.glob("*/.tmp-*"), *self._folder.glob("parts/*/.tmp-*")]:
            if now_s - path.stat().st_mtime > DAY_S:
                shutil.rmtree(path, ignore_errors=True) if path.is_dir() else path.unlink(missing_ok=True)
