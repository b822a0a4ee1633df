"""Runs: begun from a shot, driven press by press, resumed by replay."""

from pathlib import Path

from flask import Response, current_app
from flask_openapi3 import Tag

from just_plane.contract.http import Problem, ShotPath
from just_plane.contract.run import (
    Arrived,
    CodeQuery,
    Devices,
    DriveAsked,
    EventAsked,
    FrameLook,
    FrameLooks,
    GreyAsked,
    LiveQuery,
    RunAnswer,
    RunAsked,
    RunEvent,
    RunFramePath,
    RunList,
    RunPath,
    RunPlan,
    WatchAsked,
)
from just_plane.contract.run_file import DoneEvent, RunFile
from just_plane.drive.journal import in_order_taken, stand_of, with_content
from just_plane.drive.simulated import NoSetError
from just_plane.frames.arriving import arrived, pictures_in, place_of
from just_plane.frames.camera_notes import Settings
from just_plane.frames.grey import grey_frame
from just_plane.frames.previews import frame_preview
from just_plane.pictures.frames import frame_facts
from just_plane.pictures.reading import PictureError
from just_plane.planning.plan import plan_shot
from just_plane.planning.setup.rail_marks import knob_of
from just_plane.planning.stack_numbers import stack_numbers
from just_plane.planning.ways.step_table import step_rows
from just_plane.runs.code import CodeError, Controller, run_code, trial_code
from just_plane.runs.replay import RefusedEventError, after
from just_plane.runs.steps import run_plan
from just_plane.runs.table import steps_csv
from just_plane.store.errors import ConflictError, NotFoundError
from just_plane.web.answers import answer, download, store
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "runs", __name__, url_prefix="/api", abp_tags=[Tag(name="runs")], abp_responses={404: Problem, 507: Problem}
)

PICTURE_WIDTH = 1400
TRIAL_S = 5.0
"""That the trial of a controller's wait should take."""


@api.get("/shots/<shot_id>/runs", responses={200: RunList}, operation_id="runsOfShot")
def runs_of_shot(path: ShotPath):
    """Runs of a shot, the newest first."""
    revision = store().shots.get(path.shot_id).revision
    return answer(RunList(runs=[_told(run, revision) for run in store().runs.of_document(path.shot_id)]))


@api.post("/shots/<shot_id>/runs", responses={201: RunAnswer, 409: Problem}, operation_id="beginRun")
def begin_run(path: ShotPath, body: RunAsked):
    """Begin a run of one way of the shot as it is now; where one is under way, another window goes on with that."""
    kept = store().shots.get(path.shot_id)
    plan = plan_shot(kept.body)
    wanted = body.way or kept.body.chosen_way
    way = next((each for each in plan.ways if each.id == wanted), None)
    way = way or next((each for each in plan.ways if each.recommended), None)
    if way is None or not way.frames or plan.reach is None:
        return refuse(422, "run.no_way", "This shot has no way that could be run.", "Plan one first.", "/way")
    rows = step_rows(way, plan.reach.magnification, kept.body.plane.rail_counts, knob=knob_of(kept.body.stack))
    made = run_plan(kept.body, plan, way, rows, body.first_mark_mm)
    run = store().runs.begin(path.shot_id, kept.revision, made.model_dump_json(), _none_under_way)
    return answer(_told(run, kept.revision), 201)


def _none_under_way(last):
    if last is not None and stand_of(last).state in ("running", "paused"):
        raise ConflictError("A run of this shot is under way.", "Go on with it, or stop it before another begins.")


@api.get("/runs/<run_id>", responses={200: RunAnswer}, operation_id="getRun")
def get_run(path: RunPath):
    """Where a run stands."""
    run = store().runs.get(path.run_id)
    return answer(_told(run, store().shots.get(run.document_id).revision))


@api.post("/runs/<run_id>/events", responses={200: RunAnswer, 409: Problem}, operation_id="pressInRun")
def press_in_run(path: RunPath, body: EventAsked):
    """Something was done. The same press sent twice is one event."""
    event = with_content(body.event, stand_of(store().runs.get(path.run_id)).folder)
    try:
        run = store().runs.add(
            path.run_id, body.number, body.press, event.model_dump_json(), lambda run: after(stand_of(run), event)
        )
    except RefusedEventError as error:
        return refuse(422, "run.refused", error.message, error.remedy, "/event")
    return answer(_told(run, store().shots.get(run.document_id).revision))


@api.post("/runs/<run_id>/watch", responses={200: RunAnswer, 409: Problem}, operation_id="watchFolder")
def watch_folder(path: RunPath, body: WatchAsked):
    """Pictures of this run come into a folder from now on; those that are there already are none of it."""
    folder = Path(body.folder).expanduser()
    try:
        before = pictures_in(folder)
    except OSError as error:
        return refuse(
            422,
            "folder.refused",
            f"{folder}: {error.strerror}.",
            "Choose the folder that the camera writes to.",
            "/folder",
        )
    event = RunEvent(kind="watching", folder=str(folder.resolve()), there_before=before)
    run = store().runs.add(
        path.run_id, body.number, body.press, event.model_dump_json(), lambda run: after(stand_of(run), event)
    )
    return answer(_told(run, store().shots.get(run.document_id).revision))


@api.post("/runs/<run_id>/grey", responses={200: RunAnswer, 409: Problem}, operation_id="greyForRun")
def grey_for_run(path: RunPath, body: GreyAsked):
    """White balance from a frame of something grey, kept with the run."""
    try:
        white = grey_frame(Path(body.folder).expanduser(), Path(body.file).name)
    except PictureError as error:
        return refuse(422, "picture.refused", f"{body.file}: {error.message}", error.remedy, "/file")
    event = RunEvent(kind="grey", white=white)
    run = store().runs.add(
        path.run_id, body.number, body.press, event.model_dump_json(), lambda run: after(stand_of(run), event)
    )
    return answer(_told(run, store().shots.get(run.document_id).revision))


@api.post("/runs/<run_id>/drive", responses={200: RunAnswer, 409: Problem}, operation_id="driveRun")
def drive_run(path: RunPath, body: DriveAsked):
    """Devices move, release, or both, from now on; pause it like any run."""
    kept = store().runs.get(path.run_id)
    stand = stand_of(kept)
    events = [RunEvent(kind="devices", devices=body.devices)]
    if body.devices.camera == "simulated":
        folder = drives().folder(path.run_id)
        before = pictures_in(folder) if folder.is_dir() and str(folder) != stand.folder else []
        if str(folder) != stand.folder:
            events.append(RunEvent(kind="watching", folder=str(folder), there_before=before))
    if stand.state == "paused":
        events.append(RunEvent(kind="went_on"))
    run = kept
    for index, event in enumerate(events):
        run = store().runs.add(
            path.run_id,
            body.number + index,
            f"{body.press[:56]}-{index}",
            event.model_dump_json(),
            lambda run, event=event: after(stand_of(run), event),
        )
    shot = store().shots.get(run.document_id)
    try:
        if body.devices != Devices():
            drives().start(path.run_id, store().shots.at(run.document_id, run.revision), stand_of(run))
    except NoSetError as error:
        return refuse(422, "run.no_set", error.message, "Take the frames by hand.", "/devices/camera")
    return answer(_told(run, shot.revision))


@api.get("/runs/<run_id>/arrived", responses={200: Arrived}, operation_id="arrivedInRun")
def arrived_in_run(path: RunPath):
    """Pictures that came since the last one counted."""
    run = store().runs.get(path.run_id)
    stand = stand_of(run)
    if stand.folder is None:
        return answer(Arrived(folder="", files=[]))
    return answer(arrived(stand.folder, stand.known, settings_of(stand.plan), in_order_taken(run)))


@api.get("/runs/<run_id>/looks", responses={200: FrameLooks}, operation_id="looksOfRun")
def looks_of_run(path: RunPath):
    """Frames looked at as they come, each beside those before it."""
    run = store().runs.get(path.run_id)
    stand = stand_of(run)
    files = in_order_taken(run)
    if stand.folder is None or not files:
        return answer(FrameLooks(looks=[], more=False))
    shot = store().shots.at(run.document_id, run.revision)
    numbers = stack_numbers(shot.model_copy(update={"chosen_way": stand.plan.way}))
    looks, more = current_app.config["JUST_PLANE_WATCHINGS"].looks(
        path.run_id, numbers, stand.folder, files, settings_of(stand.plan), [one.focus_mm for one in stand.plan.steps]
    )
    return answer(FrameLooks(looks=[FrameLook(**look._asdict()) for look in looks], more=more))


@api.get("/runs/<run_id>/frames/<int:frame>/picture", operation_id="pictureOfRun")
def picture_of_run(path: RunFramePath):
    """A frame of a run, small enough for the page."""
    stand = stand_of(store().runs.get(path.run_id))
    name = stand.files[path.frame] if path.frame < len(stand.files) else None
    if stand.folder is None or name is None:
        raise NotFoundError("There is no picture of this frame.", "Take it, or name the folder it is in.")
    try:
        place = place_of(stand.folder, name, stand.contents[path.frame])
        content = frame_preview(frame_facts(place), None, PICTURE_WIDTH)
    except PictureError as error:
        raise NotFoundError(error.message, error.remedy) from error
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=60"})


@api.get("/runs/<run_id>/view", operation_id="viewInRun")
def view_in_run(path: RunPath, query: LiveQuery):
    """What the simulated camera of a run sees before it is released."""
    run = store().runs.get(path.run_id)
    stand = stand_of(run)
    if stand.devices.camera != "simulated":
        raise NotFoundError("Only the simulated camera has a live picture here.", "Look into your own camera.")
    if query.frame >= len(stand.plan.steps):
        raise NotFoundError("There is no such frame.", "Look where the run stands.")
    at = None if query.from_left is None or query.from_top is None else (query.from_left, query.from_top)
    shot, live = store().shots.at(run.document_id, run.revision), current_app.config["JUST_PLANE_LIVE"]
    try:
        content = live.picture(path.run_id, shot, stand, query.frame, at=at, marks=query.marks == "yes")
    except NoSetError as error:
        raise NotFoundError(error.message, "Take the frames by hand.") from error
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=60"})


@api.get("/runs/<run_id>/file", operation_id="runFile")
def run_file(path: RunPath):
    """The run as a file that opens elsewhere."""
    run = store().runs.get(path.run_id)
    shot = store().shots.at(run.document_id, run.revision)
    stand = stand_of(run)
    numbers = stack_numbers(shot.model_copy(update={"chosen_way": stand.plan.way}))
    file = RunFile(
        name=shot.name,
        plan=RunPlan.model_validate_json(run.plan_json),
        numbers=numbers,
        started_at=run.started_at,
        events=[DoneEvent(at=at, event=RunEvent.model_validate_json(event)) for at, event in run.events],
    )
    return download(file.model_dump_json(indent=1), f"{shot.name} run.json", "application/json")


@api.get("/runs/<run_id>/steps", operation_id="runSteps")
def run_steps(path: RunPath):
    """The frames of this run, the added ones too, as CSV."""
    run = store().runs.get(path.run_id)
    name = store().shots.at(run.document_id, run.revision).name
    return download(steps_csv(stand_of(run)), f"{name} run.csv", "text/csv")


@api.get("/runs/<run_id>/code", responses={422: Problem}, operation_id="runCode")
def run_code_file(path: RunPath, query: CodeQuery):
    """The run as G-code."""
    run = store().runs.get(path.run_id)
    name = store().shots.at(run.document_id, run.revision).name
    if query.trial == "yes":
        return download(trial_code(query.wait, TRIAL_S), "wait trial.nc", "text/plain")
    try:
        code = run_code(stand_of(run).plan, name, Controller(query.wait, query.contact))
    except CodeError as error:
        return refuse(422, "run.no_code", error.message, error.remedy, "/run")
    return download(code, f"{name}.nc", "text/plain")


def settings_of(plan):
    """What a run's plan asks of the camera: Settings."""
    return Settings(plan.f_number, plan.shutter_s, plan.iso, plan.time_s / max(len(plan.steps), 1))


def drives():
    """The drivers at work in this application."""
    return current_app.config["JUST_PLANE_DRIVES"]


def _told(run, revision):
    stand, reported = stand_of(run), drives().reported(run.run_id)
    return RunAnswer(
        run_id=run.run_id,
        shot_id=run.document_id,
        plan=stand.plan,
        events=len(run.events),
        state=stand.state,
        next_frame=stand.next_frame,
        times_taken=list(stand.times_taken),
        skipped=sorted(stand.skipped),
        folder=stand.folder,
        files=list(stand.files),
        started_at=run.started_at,
        last_at=run.events[-1][0] if run.events else None,
        shot_changed=revision != run.revision,
        devices=stand.devices,
        driven=drives().at_work(run.run_id),
        set_frame=stand.set_frame,
        reading_mm=stand.reading,
        trouble=stand.trouble,
        white=stand.white,
        frames_left=None if reported is None else reported.frames_left,
        battery=None if reported is None else reported.battery,
    )
