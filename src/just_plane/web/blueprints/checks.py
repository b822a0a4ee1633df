"""Checking stacks: ask for one, watch it, look at what came out."""

from pathlib import Path

import numpy as np
from flask import Response, current_app, send_file
from flask_openapi3 import Tag

from just_plane.contract.check import CheckReport
from just_plane.contract.http import Problem, ShotPath
from just_plane.contract.jobs import (
    CheckAsked,
    JobAnswer,
    JobFilePath,
    JobFramePath,
    JobList,
    JobPath,
    JobProofPath,
    JobQuery,
    PictureQuery,
    PlaceAnswer,
    PlaceQuery,
    PracticeAsked,
    PracticeMade,
)
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.intake import FolderError
from just_plane.frames.practice import write_practice
from just_plane.frames.work import CURVES, REPORT, frame_preview
from just_plane.jobs.requests import check_request
from just_plane.jobs.runner import request_of, result_file
from just_plane.pictures.frames import frame_facts
from just_plane.planning.pictures.made_set import made_set
from just_plane.planning.stack_numbers import stack_numbers
from just_plane.store.errors import NotFoundError
from just_plane.web.answers import answer, store
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "checks", __name__, url_prefix="/api", abp_tags=[Tag(name="checks")], abp_responses={404: Problem, 507: Problem}
)
FILES = {
    "report": ("{name}-check.json", REPORT),
    "depth": ("{name}-depth.tif",) * 2,
    "points": ("{name}-points.ply",) * 2,
    "sheet": ("{name}-sheet.jpg",) * 2,
    **{f"proof-{method}": (f"{{name}}-proof-{method}.tif",) * 2 for method in ("depth", "pyramid", "windowed")},
}
"""Kind of file: its name outside, its name in the results."""


@api.post("/checks", responses={202: JobAnswer}, operation_id="checkFrames")
def check_frames(body: CheckAsked):
    """Begin to check a folder; the same that is under way is joined."""
    numbers = body.numbers
    if numbers is None:
        numbers = stack_numbers(store().shots.get(body.shot_id).body) if body.shot_id else StackNumbers()
    try:
        request_json, key = check_request(Path(body.folder), numbers, list(body.methods))
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


@api.get("/shots/<shot_id>/checks", responses={200: JobList}, operation_id="checksOfShot")
def checks_of_shot(path: ShotPath):
    """The last checks of a shot's frames."""
    return answer(JobList(jobs=[_told(job) for job in store().jobs.of_document(path.shot_id)]))


@api.get("/jobs/<job_id>/place", responses={200: PlaceAnswer}, operation_id="placeThroughFrames")
def place_through_frames(path: JobPath, query: PlaceQuery):
    """A place of the picture: its contrast through the frames, and which holds it."""
    job, report = _done(path.job_id)
    try:
        curves = np.load(result_file(store().jobs, job, CURVES))
    except OSError as error:
        raise NotFoundError("Nothing could be measured in this stack.", "Check it again.") from error
    across, down = (int(value) for value in curves["grid"][:2])
    column = min(max(int((query.x + 0.5) / report.width_px * across), 0), across - 1)
    row = min(max(int((query.y + 0.5) / report.height_px * down), 0), down - 1)
    tile = row * across + column
    contrast: list[float | None] = [None] * len(report.frames)
    for frame, share in zip(curves["frames"], curves["share"][:, tile], strict=True):
        contrast[int(frame)] = round(float(share), 4) if share >= 0 else None
    depth = float(curves["depths"][tile])
    step, first = report.plan.step_mm, report.plan.first_mm
    known = depth > -1e8
    held = [(contrast[k], k) for k, frame in enumerate(report.frames) if frame.used and contrast[k] is not None]
    return answer(
        PlaceAnswer(
            x=(column + 0.5) * report.width_px / across - 0.5,
            y=(row + 0.5) * report.height_px / down - 0.5,
            contrast=contrast,
            depth_mm=round(first + depth * step, 4) if known and step is not None else None,
            best_frame=max(held, key=lambda one: one[0] or 0.0)[1] if known and held else None,
        )
    )


@api.get("/jobs/<job_id>/frames/<int:frame>", operation_id="frameOfJob")
def frame_of_job(path: JobFramePath, query: PictureQuery):
    """One frame, laid on the reference, as a JPEG."""
    job, report = _done(path.job_id)
    if path.frame >= len(report.frames):
        raise NotFoundError(f"There are {len(report.frames)} frames.", "Choose one of them.")
    told = report.frames[path.frame]
    facts = frame_facts(Path(request_of(job)["folder"]) / told.file)
    crop = (*report.origin, *report.size) if query.cropped == "yes" else None
    content = frame_preview(facts, told.to_reference, query.width, crop)
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=3600"})


@api.get("/jobs/<job_id>/proofs/<method>", operation_id="proofOfJob")
def proof_of_job(path: JobProofPath):
    """A proof at full size, as a JPEG for the screen."""
    job, _ = _done(path.job_id)
    return _file(result_file(store().jobs, job, f"proof-{path.method}.jpg"), "image/jpeg")


@api.get("/jobs/<job_id>/files/<kind>", operation_id="fileOfJob")
def file_of_job(path: JobFilePath):
    """A file to take away."""
    job, report = _done(path.job_id)
    outside, inside = (name.format(name=report.name) for name in FILES[path.kind])
    return _file(result_file(store().jobs, job, inside), None, outside)


@api.post("/shots/<shot_id>/practice-frames", responses={200: PracticeMade, 404: Problem}, operation_id="practiceStack")
def practice_frames(path: ShotPath, body: PracticeAsked):
    """Made-up frames of the shot's stack in a folder of their own; in the demo only."""
    if not current_app.config["JUST_PLANE_DEMO"]:
        return refuse(404, "practice.not_here", "There are no made-up frames here.", "Take the frames themselves.")
    stack = made_set(store().shots.get(path.shot_id).body)
    if isinstance(stack, str):
        return refuse(422, "practice.none", stack, "Plan a stack first.")
    folder = store().jobs.folder.parent / "practice" / "-".join([path.shot_id[:8], *sorted(body.faults)])
    write_practice(folder, stack, body.faults)
    return answer(PracticeMade(folder=str(folder), frames=len(stack.places), numbers=stack.numbers))


def runner():
    """The runner of this application."""
    return current_app.config["JUST_PLANE_RUNNER"]


def _done(job_id):
    job = store().jobs.get(job_id)
    report = _report(job)
    if report is None:
        raise NotFoundError("This check has no result.", "Wait until it is done, or start it again.")
    return job, report


def _report(job):
    if job.state != "done":
        return None
    try:
        return CheckReport.model_validate_json(result_file(store().jobs, job, REPORT).read_bytes())
    except OSError:
        return None


def _told(job, *, with_report=False):
    request = request_of(job)
    share, words = runner().progress(job) if job.state in ("running", "cancelling") else (0.0, "")
    return JobAnswer(
        job_id=job.job_id,
        shot_id=job.document_id,
        folder=request["folder"],
        methods=request["methods"],
        state=job.state,
        share=1.0 if job.state == "done" else share,
        words=words,
        message=job.message,
        remedy=job.remedy,
        asked_at=job.asked_at,
        report=_report(job) if with_report else None,
    )


def _file(path, kind, name=None):
    if not path.exists():
        raise NotFoundError("That was not made.", "Start the check again, with proofs.")
    return send_file(path.resolve(), mimetype=kind, as_attachment=name is not None, download_name=name)
