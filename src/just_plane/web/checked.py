"""Checks that ended, and what lies in their folders."""

from flask import send_file

from just_plane.contract.check import CheckReport
from just_plane.frames.finishing import REPORT
from just_plane.jobs.requests import result_file
from just_plane.store.errors import NotFoundError
from just_plane.web.answers import store


def done_check(job_id):
    """A check and what it found: (Job, CheckReport).

    Raises
    ------
    NotFoundError   There is none, or it has no result.
    """
    job = store().jobs.get(job_id)
    report = report_of(job)
    if report is None:
        raise NotFoundError("This check has no result.", "Wait until it is done, or start it again.")
    return job, report


def report_of(job):
    """What a check found: CheckReport; None while it is not done, and once its results were cleared away."""
    if job.state != "done":
        return None
    try:
        return CheckReport.model_validate_json(result_file(store().jobs, job, REPORT).read_bytes())
    except OSError:
        return None


def file_answer(path, kind, name=None):
    """A file of its results, to look at or, under a name, to take away.

    Raises
    ------
    NotFoundError   It was not made.
    """
    if not path.exists():
        raise NotFoundError("That was not made.", "Start the check again, with proofs.")
    return send_file(path.resolve(), mimetype=kind, as_attachment=name is not None, download_name=name)
