"""Runs: begun from a shot, driven press by press, resumed by replay."""

from pathlib import Path

from flask_openapi3 import Tag

from just_plane.contract.http import Problem, ShotPath
from just_plane.contract.run import (
    Arrived,
    EventAsked,
    RunAnswer,
    RunAsked,
    RunEvent,
    RunList,
    RunPath,
    RunPlan,
    WatchAsked,
)
from just_plane.frames.arriving import arrived, pictures_in
from just_plane.planning.plan import plan_shot
from just_plane.planning.ways.step_table import step_rows
from just_plane.runs.replay import RefusedEventError, after, replay
from just_plane.runs.steps import run_plan
from just_plane.web.answers import answer, store
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "runs", __name__, url_prefix="/api", abp_tags=[Tag(name="runs")], abp_responses={404: Problem, 507: Problem}
)


@api.get("/shots/<shot_id>/runs", responses={200: RunList}, operation_id="runsOfShot")
def runs_of_shot(path: ShotPath):
    """Runs of a shot, the newest first."""
    revision = store().shots.get(path.shot_id).revision
    return answer(RunList(runs=[_told(run, revision) for run in store().runs.of_document(path.shot_id)]))


@api.post("/shots/<shot_id>/runs", responses={201: RunAnswer}, operation_id="beginRun")
def begin_run(path: ShotPath, body: RunAsked):
    """Begin a run of one way of the shot as it is now."""
    kept = store().shots.get(path.shot_id)
    plan = plan_shot(kept.body)
    wanted = body.way or kept.body.chosen_way
    way = next((each for each in plan.ways if each.id == wanted), None)
    way = way or next((each for each in plan.ways if each.recommended), None)
    if way is None or not way.frames or plan.reach is None:
        return refuse(422, "run.no_way", "This shot has no way that could be run.", "Plan one first.", "/way")
    rows = step_rows(way, plan.reach.magnification, kept.body.plane.rail_counts)
    made = run_plan(kept.body, plan, way, rows, body.first_mark_mm)
    run = store().runs.begin(path.shot_id, kept.revision, made.model_dump_json())
    return answer(_told(run, kept.revision), 201)


@api.get("/runs/<run_id>", responses={200: RunAnswer}, operation_id="getRun")
def get_run(path: RunPath):
    """Where a run stands."""
    run = store().runs.get(path.run_id)
    return answer(_told(run, store().shots.get(run.document_id).revision))


@api.post("/runs/<run_id>/events", responses={200: RunAnswer, 409: Problem}, operation_id="pressInRun")
def press_in_run(path: RunPath, body: EventAsked):
    """Something was done. The same press sent twice is one event."""
    try:
        run = store().runs.add(
            path.run_id,
            body.number,
            body.press,
            body.event.model_dump_json(),
            lambda run: after(_stand(run), body.event),
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
        path.run_id, body.number, body.press, event.model_dump_json(), lambda run: after(_stand(run), event)
    )
    return answer(_told(run, store().shots.get(run.document_id).revision))


@api.get("/runs/<run_id>/arrived", responses={200: Arrived}, operation_id="arrivedInRun")
def arrived_in_run(path: RunPath):
    """Pictures that came since the last one counted."""
    stand = _stand(store().runs.get(path.run_id))
    if stand.folder is None:
        return answer(Arrived(folder="", files=[]))
    return answer(arrived(stand.folder, stand.known, stand.plan.f_number))


def _stand(run):
    events = [RunEvent.model_validate_json(event) for _, event in run.events]
    return replay(RunPlan.model_validate_json(run.plan_json), events)


def _told(run, revision):
    stand = _stand(run)
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
    )
