"""Checking stacks: ask for one, watch it, look at what came out."""

from pathlib import Path

from flask import current_app
from flask_openapi3 import Tag

from just_plane.contract.http import Problem, ShotPath, UnitsQuery
from just_plane.contract.jobs import (
    CheckAsked,
    JobAnswer,
    JobFilePath,
    JobList,
    JobPath,
    JobQuery,
    PracticeAsked,
    PracticeMade,
    SlabsAsked,
)
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.finishing import REPORT
from just_plane.frames.intake import FolderError
from just_plane.frames.practice import write_practice
from just_plane.jobs.requests import check_request, request_of, result_file
from just_plane.planning.pictures.made_set import made_set
from just_plane.planning.stack_numbers import stack_numbers
from just_plane.store.errors import StoreError
from just_plane.web.answers import answer, store
from just_plane.web.checked import done_check, file_answer, report_of
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "checks", __name__, url_prefix="/api", abp_tags=[Tag(name="checks")], abp_responses={404: Problem, 507: Problem}
)
MOST_AT_ONCE = 60
"""Frames that are made up while one question waits."""
FILES = {
    "report": ("{name}-check.json", REPORT),
    "depth": ("{name}-depth.tif",) * 2,
    "points": ("{name}-points.ply",) * 2,
    "sheet": ("{name}-sheet.jpg",) * 2,
    **{f"proof-{method}": (f"{{name}}-proof-{method}.tif",) * 2 for method in ("depth", "pyramid", "windowed")},
}
"""Kind of file: its name outside, its name in the results."""


@api.post("/checks", responses={202: JobAnswer}, operation_id="checkFrames")
def check_frames(query: UnitsQuery, body: CheckAsked):
    """Begin to check a folder; the same that is under way is joined."""
    numbers = body.numbers
    if numbers is None:
        planned = body.shot_id is not None and body.plan == "shot"
        shot = store().shots.get(body.shot_id).body if planned else None
        numbers = StackNumbers(units=query.units) if shot is None else stack_numbers(shot, query.units)
    try:
        slabs = None if body.slabs is None else (body.slabs.frames, body.slabs.shared)
        request_json, key = check_request(Path(body.folder), numbers, list(body.methods), slabs, body.put_back)
    except FolderError as error:
        return refuse(422, "folder.refused", error.message, error.remedy, "/folder")
    job = store().jobs.ask("check", request_json, key, body.shot_id)
    runner().wake()
    return answer(_told(job), 202)


@api.get("/jobs/<job_id>", responses={200: JobAnswer}, operation_id="getJob")
def get_job(path: JobPath, query: JobQuery):
    """How far a job is, and what came out."""
    job = store().jobs.get(path.job_id)
    return answer(_told(job, with_report=query.report == "yes"))


@api.post("/jobs/<job_id>/cancel", responses={200: JobAnswer}, operation_id="cancelJob")
def cancel_job(path: JobPath):
    """Ask a job to stop; it does between two frames."""
    job = store().jobs.cancel(path.job_id)
    if job.state == "cancelling":
        runner().ask_to_stop(job)
    return answer(_told(job))


@api.post("/jobs/<job_id>/pause", responses={200: JobAnswer}, operation_id="pauseJob")
def pause_job(path: JobPath):
    """Let a job rest; what is done of it stays."""
    job = store().jobs.pause(path.job_id, paused=True)
    if job.state == "running":
        runner().ask_to_stop(job)
    return answer(_told(job))


@api.post("/jobs/<job_id>/go-on", responses={200: JobAnswer}, operation_id="goOnWithJob")
def go_on_with_job(path: JobPath):
    """Go on with a job that rests."""
    job = store().jobs.pause(path.job_id, paused=False)
    runner().wake()
    return answer(_told(job))


@api.get("/shots/<shot_id>/checks", responses={200: JobList}, operation_id="checksOfShot")
def checks_of_shot(path: ShotPath):
    """The last checks of a shot's frames."""
    return answer(JobList(jobs=[_told(job) for job in store().jobs.of_document(path.shot_id)]))


@api.get("/jobs/<job_id>/files/<kind>", operation_id="fileOfJob")
def file_of_job(path: JobFilePath):
    """A file to take away."""
    job, report = done_check(path.job_id)
    names = FILES.get(path.kind, (f"{{name}}-{path.kind}.tif",) * 2)
    outside, inside = (name.format(name=report.name) for name in names)
    return file_answer(result_file(store().jobs, job, inside), None, outside)


@api.post("/shots/<shot_id>/practice-frames", responses={200: PracticeMade, 404: Problem}, operation_id="practiceStack")
def practice_frames(path: ShotPath, body: PracticeAsked):
    """Made-up frames of the shot's stack in a folder of their own; in the demo only."""
    if not current_app.config["JUST_PLANE_DEMO"]:
        return refuse(404, "practice.not_here", "There are no made-up frames here.", "Take the frames themselves.")
    stack = made_set(store().shots.get(path.shot_id).body)
    if isinstance(stack, str):
        return refuse(422, "practice.none", stack, "Plan a stack first.")
    if len(stack.places) > MOST_AT_ONCE:
        said = f"This stack has {len(stack.places)} frames; up to {MOST_AT_ONCE} are made up at once."
        return refuse(422, "practice.many", said, "Let the simulated rail and camera take it, at Run.")
    folder = store().jobs.folder.parent / "practice" / "-".join([path.shot_id[:8], *sorted(body.faults)])
    write_practice(folder, stack, body.faults)
    return answer(PracticeMade(folder=str(folder), frames=len(stack.places), numbers=stack.numbers))


def runner():
    """The runner of this application."""
    return current_app.config["JUST_PLANE_RUNNER"]


def _told(job, *, with_report=False):
    request = request_of(job)
    begun = job.state in ("running", "cancelling") or job.paused
    share, words = runner().progress(job) if begun else (0.0, "")
    return JobAnswer(
        job_id=job.job_id,
        shot_id=job.document_id,
        folder=request["folder"],
        methods=request["methods"],
        proofs=_proofs(job, request),
        state=_state(job),
        share=1.0 if job.state == "done" else share,
        words=words,
        message=job.message,
        remedy=job.remedy,
        asked_at=job.asked_at,
        report=report_of(job) if with_report else None,
        slabs=_slabs(request),
        put_back=request.get("put_back", []),
        plan_now=_plan_now(job, request) if with_report and job.state == "done" else "none",
    )


def _proofs(job, request):
    if job.state != "done" or job.kind != "check":
        return []
    return [each for each in request["methods"] if result_file(store().jobs, job, f"proof-{each}.tiles").exists()]


def _slabs(request):
    asked = request.get("slabs")
    return None if not asked else SlabsAsked(frames=asked[0], shared=asked[1])


NOT_JUDGED_BY = {"pixel_pitch_mm", "sensor_width_mm", "depth_mm", "units"}
"""Numbers that frames may know better than the plan, or that are only drawn or said."""


def _plan_now(job, request):
    """Whether a check was judged by the plan that its shot has now."""
    if job.kind != "check" or job.document_id is None:
        return "none"
    try:
        now = stack_numbers(store().shots.get(job.document_id).body)
    except StoreError:
        return "none"
    was = StackNumbers.model_validate(request["numbers"])
    if now.step_mm is None:
        return "none"
    alike = now.model_dump(exclude=NOT_JUDGED_BY) == was.model_dump(exclude=NOT_JUDGED_BY)
    return "same" if alike else "other"


def _state(job):
    """As people call it: what was asked to rest rests once its workers have let go."""
    if not job.paused or job.state not in ("waiting", "running"):
        return job.state
    return "paused" if job.state == "waiting" else "pausing"
