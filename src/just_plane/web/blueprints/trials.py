"""Trials: gear measured from photographs, believed, put aside."""

from datetime import UTC, datetime

from flask import current_app
from flask_openapi3 import Tag

from just_plane.contract.http import Problem
from just_plane.contract.jobs import JobPath
from just_plane.contract.trial import (
    BY_HAND,
    MeasuredByHand,
    TrialAnswer,
    TrialAsked,
    TrialJudged,
    TrialList,
    TrialPath,
    TrialPracticeAsked,
    TrialPracticeMade,
    TrialResult,
)
from just_plane.drive.trial_frames import write_trial_frames
from just_plane.frames.intake import FolderError
from just_plane.frames.taking import TRIAL
from just_plane.jobs.requests import result_file, trial_request
from just_plane.planning.kit.believing import is_usable, kit_with, kit_without, used_in
from just_plane.planning.kit.measured_by_frames import same_frames, step_trial
from just_plane.planning.kit.measured_by_hand import already_there, trial_of
from just_plane.planning.kit.rival_trials import disagreement, replaces
from just_plane.planning.words.days import day_in_words
from just_plane.store.kits import KIT_ID
from just_plane.web.answers import answer, store
from just_plane.web.checked import done_check
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "trials", __name__, url_prefix="/api", abp_tags=[Tag(name="trials")], abp_responses={404: Problem, 507: Problem}
)


@api.post("/trials", responses={202: TrialAnswer}, operation_id="beginTrial")
def begin_trial(body: TrialAsked):
    """Begin to measure; the same that is under way is joined."""
    if body.kind in BY_HAND:
        return refuse(422, "trial.by_hand", "A ruler and two tubes are measured at a shot.", "Open its ruler.", "/kind")
    try:
        request_json, key = trial_request(body)
    except FolderError as error:
        return refuse(422, "folder.refused", error.message, error.remedy, "/folder")
    job = store().jobs.ask("trial", request_json, key)
    trial = store().trials.add(job.job_id, body.model_dump_json())
    current_app.config["JUST_PLANE_RUNNER"].wake()
    return answer(_told(trial), 202)


@api.get("/trials", responses={200: TrialList}, operation_id="listTrials")
def list_trials():
    """What was measured, the newest first."""
    _adopted()
    return answer(TrialList(trials=[_told(trial) for trial in store().trials.list()]))


@api.get("/trials/<trial_id>", responses={200: TrialAnswer}, operation_id="getTrial")
def get_trial(path: TrialPath):
    """One trial as it stands."""
    return answer(_told(store().trials.get(path.trial_id)))


@api.post("/trials/by-hand", responses={201: TrialAnswer, 409: Problem}, operation_id="keepTrial")
def keep_trial(body: MeasuredByHand):
    """Keep what was measured at a shot's own page, and believe it: it goes into the kit."""
    kit = store().kit.now()
    asked, result = trial_of(body, kit.body)
    now = datetime.now(UTC).isoformat(timespec="milliseconds")
    changed = kit_with(kit.body, "", asked, result, now)
    if isinstance(changed, str):
        return refuse(422, "trial.not_usable", changed, "The shot has it all the same.", "/kit_id")
    store().kit.save(KIT_ID, changed, kit.revision)
    trial = store().trials.keep(asked.model_dump_json(), result.model_dump_json())
    _unbelieve(_replaced(trial, asked))
    return answer(_told(trial), 201)


@api.post("/jobs/<job_id>/kept-step", responses={201: TrialAnswer}, operation_id="keepStepOfCheck")
def keep_step(path: JobPath):
    """Keep the step that a check measured as a trial of the rail; believed unless another of it says otherwise."""
    job, report = done_check(path.job_id)
    stack = None if job.document_id is None else store().shots.get(job.document_id).body.stack
    if report.step_measured is None:
        return refuse(422, "trial.no_step", "These frames do not say that the step is wrong.", "Keep the plan.")
    if stack is None or stack.rail_kit_id is None or stack.rail_mm_per_turn is None:
        said = "Which rail of the kit moved these frames, and how far a turn of it goes, is not known."
        return refuse(422, "trial.no_rail", said, "Choose the rail at Stack, then keep it.")
    asked, result = step_trial(report, stack, stack.rail_name or "The rail")
    for other in store().trials.list():
        if other.result_json and same_frames(asked, TrialAsked.model_validate_json(other.asked_json)):
            return answer(_told(other), 201)
    kit = store().kit.now()
    changed = kit_with(kit.body, "", asked, result, datetime.now(UTC).isoformat(timespec="milliseconds"))
    believed = not isinstance(changed, str) and not any(
        disagreement(result, of_other) for _, of_other in _replaced(None, asked)
    )
    if believed:
        store().kit.save(KIT_ID, changed, kit.revision)
    trial = store().trials.keep(asked.model_dump_json(), result.model_dump_json(), believed=believed)
    if believed:
        _unbelieve(_replaced(trial, asked))
    return answer(_told(trial), 201)


@api.put("/trials/<trial_id>/judged", responses={200: TrialAnswer, 409: Problem}, operation_id="judgeTrial")
def judge_trial(path: TrialPath, body: TrialJudged):
    """Believe a trial: it goes into the kit. Or do not, and it is taken out of it."""
    trial = _settled(store().trials.get(path.trial_id))
    if trial.result_json is None:
        return refuse(422, "trial.not_done", "This trial is not done.", "Wait until it is.", "/believed")
    asked, result = TrialAsked.model_validate_json(trial.asked_json), TrialResult.model_validate_json(trial.result_json)
    if body.believed == bool(trial.believed):
        return answer(_told(store().trials.judge(path.trial_id, believed=body.believed, put_aside=body.put_aside)))
    others = _replaced(trial, asked) if body.believed else []
    if not body.over_the_other:
        for other, of_other in others:
            differs = disagreement(result, of_other)
            if differs:
                return refuse(
                    409,
                    "trial.disagrees",
                    f"This trial and the one of {day_in_words(other.asked_at)} do not agree: {differs}.",
                    "Which do you believe? Keep the older one, or use this one in its place; a third would tell.",
                    "/over_the_other",
                )
    kit = store().kit.now()
    if body.believed:
        changed = kit_with(kit.body, trial.trial_id, asked, result, trial.asked_at)
    else:
        changed = kit_without(kit.body, trial.trial_id, asked, result)
    if isinstance(changed, str):
        return refuse(422, "trial.not_usable", changed, "The figures stay here all the same.", "/believed")
    if changed != kit.body:
        store().kit.save(KIT_ID, changed, kit.revision)
    _unbelieve(others)
    return answer(_told(store().trials.judge(path.trial_id, believed=body.believed, put_aside=body.put_aside)))


@api.post("/trials/practice-frames", responses={200: TrialPracticeMade}, operation_id="practiceTrial")
def practice_trial(body: TrialPracticeAsked):
    """Made-up frames of a made-up lens or rail, to see a trial work."""
    wrong = "-".join(sorted(set(body.faults)))
    folder = store().jobs.folder.parent / "practice" / f"trial-{body.kind}-{body.seed}-{body.noise:g}{wrong}"
    return answer(write_trial_frames(folder, body.kind, body.seed, body.noise, body.faults))


def _settled(trial, job=None):
    """The trial with its result, once its job is done: by the job as it was looked at, so that both agree."""
    if trial.result_json is not None:
        return trial
    job = job or store().jobs.get(trial.job_id)
    if job.state != "done":
        return trial
    try:
        content = result_file(store().jobs, job, TRIAL).read_text()
    except OSError:
        return trial
    return store().trials.settle(trial.trial_id, content)


def _replaced(trial, asked):
    """Believed trials of the same, whose place this one (None: not kept yet) takes: list of (Trial, TrialResult)."""
    found = []
    for other in store().trials.list():
        if (trial is not None and other.trial_id == trial.trial_id) or not other.believed or other.result_json is None:
            continue
        if replaces(asked, TrialAsked.model_validate_json(other.asked_json)):
            found.append((other, TrialResult.model_validate_json(other.result_json)))
    return found


def _unbelieve(others):
    """Trials whose place another took: taking one of them back must take nothing from the newer."""
    for other, _ in others:
        store().trials.judge(other.trial_id, believed=False, put_aside=bool(other.put_aside))


def _adopted():
    """Sizes that the kit knows and no trial tells of become trials: one list of what was measured."""
    kit = store().kit.now().body
    if not kit.measured_rigs:
        return
    results = (TrialResult.model_validate_json(each.result_json) for each in store().trials.list() if each.result_json)
    known = {tuple(result.ruler.rig) for result in results if result.ruler is not None}
    for kept in already_there(kit, known):
        asked, result = trial_of(kept, kit)
        store().trials.keep(asked.model_dump_json(), result.model_dump_json())


def _told(trial):
    job = None if trial.job_id is None else store().jobs.get(trial.job_id)
    trial = _settled(trial, job)
    asked = TrialAsked.model_validate_json(trial.asked_json)
    running = job is not None and job.state in ("running", "cancelling")
    share, _ = current_app.config["JUST_PLANE_RUNNER"].progress(job) if running else (0.0, "")
    kit = store().kit.now().body
    result = TrialResult.model_validate_json(trial.result_json) if trial.result_json else None
    return TrialAnswer(
        trial_id=trial.trial_id,
        asked=asked,
        state="done" if trial.result_json or job is None else job.state,
        share=1.0 if trial.result_json else share,
        message="" if job is None else f"{job.message} {job.remedy}".strip(),
        result=result,
        believed=bool(trial.believed),
        put_aside=bool(trial.put_aside),
        usable=is_usable(kit, asked, result),
        used_in=used_in(kit, asked) if trial.believed else "",
        asked_at=trial.asked_at,
    )
