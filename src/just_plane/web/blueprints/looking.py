"""Looking at what a check made: places, frames, proofs, their tiles and what is drawn over them."""

import threading
from pathlib import Path

import numpy as np
from flask import Response
from flask_openapi3 import Tag

from just_plane.contract.check import MarksReport
from just_plane.contract.http import Problem
from just_plane.contract.jobs import (
    JobFramePath,
    JobPath,
    JobProofPath,
    PictureQuery,
    PlaceAnswer,
    PlaceQuery,
    TilePath,
)
from just_plane.frames.finishing import CURVES, MARKS
from just_plane.frames.previews import frame_preview, laid_frame
from just_plane.jobs.requests import request_of, result_file
from just_plane.pictures.frames import frame_facts
from just_plane.pictures.tiles import Held, tile_of, write_tiles
from just_plane.store.errors import NotFoundError
from just_plane.web.answers import answer, store
from just_plane.web.checked import done_check, file_answer
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "looking", __name__, url_prefix="/api", abp_tags=[Tag(name="checks")], abp_responses={404: Problem, 507: Problem}
)


@api.get("/jobs/<job_id>/place", responses={200: PlaceAnswer}, operation_id="placeThroughFrames")
def place_through_frames(path: JobPath, query: PlaceQuery):
    """A place of the picture: its contrast through the frames, and which holds it."""
    job, report = done_check(path.job_id)
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
    job, report = done_check(path.job_id)
    if path.frame >= len(report.frames):
        raise NotFoundError(f"There are {len(report.frames)} frames.", "Choose one of them.")
    told = report.frames[path.frame]
    facts = frame_facts(Path(request_of(job)["folder"]) / told.file)
    crop = (*report.origin, *report.size) if query.cropped == "yes" else None
    content = frame_preview(facts, told.to_reference, query.width, crop)
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=3600"})


@api.get("/jobs/<job_id>/tiles/<source>/<int:level>/<int:column>/<int:row>", operation_id="tileOfJob")
def tile_of_job(path: TilePath):
    """A tile of a proof, or of a frame as it is laid, 512 px wide and high; those at the edges are what is left."""
    job, report = done_check(path.job_id)
    file = result_file(store().jobs, job, f"proof-{path.source}.tiles")
    if path.source.startswith("frame-"):
        file = _tiles_of_frame(job, report, int(path.source.removeprefix("frame-")))
    try:
        content = tile_of(file, path.level, path.column, path.row)
    except OSError as error:
        raise NotFoundError("That was not made.", "Start the check again, with proofs.") from error
    if content is None:
        raise NotFoundError("There is no such tile.", "Ask for one within the picture.")
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=86400"})


_CUTTING = threading.Lock()
"""A frame is cut into tiles once, however many of them are asked for at a time."""


def _tiles_of_frame(job, report, frame):
    if frame >= len(report.frames):
        raise NotFoundError(f"There are {len(report.frames)} frames.", "Choose one of them.")
    file = result_file(store().jobs, job, f"frame-{frame}.tiles")
    with _CUTTING:
        if not file.exists():
            told = report.frames[frame]
            facts = frame_facts(Path(request_of(job)["folder"]) / told.file)
            picture = laid_frame(facts, told.to_reference, (*report.origin, *report.size))
            write_tiles(file, Held(picture))
    return file


@api.get("/jobs/<job_id>/marks", responses={200: MarksReport}, operation_id="marksOfJob")
def marks_of_job(path: JobPath):
    """What is drawn over proofs: depth, where the brush is needed, where two of them differ."""
    job, _ = done_check(path.job_id)
    try:
        return answer(MarksReport.model_validate_json(result_file(store().jobs, job, MARKS).read_bytes()))
    except OSError as error:
        raise NotFoundError("Nothing was merged.", "Start the check again, with proofs.") from error


@api.get("/jobs/<job_id>/proofs/<method>", operation_id="proofOfJob")
def proof_of_job(path: JobProofPath):
    """A proof at full size, as a JPEG for the screen."""
    job, _ = done_check(path.job_id)
    return file_answer(result_file(store().jobs, job, f"proof-{path.method}.jpg"), "image/jpeg")
