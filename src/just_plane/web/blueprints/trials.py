"""Trials: gear measured from photographs, believed, put aside."""

from flask import current_app
from flask_openapi3 import Tag

from just_plane.contract.http import Problem
from just_plane.contract.trial import (
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
from just_plane.frames.work import TRIAL
from just_plane.jobs.requests import trial_request
from just_plane.jobs.runner import result_file
from just_plane.planning.kit.from_trials import believed, day_in_words, fits, forgotten
from just_plane.planning.kit.rival_trials import disagreement, replaces
from just_plane.store.kits import KIT_ID
from just_plane.web.answers import answer, store
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "trials", __name__, url_prefix="/api", abp_tags=[Tag(name="trials")], abp_responses={404: Problem, 507: Problem}
)


@api.post("/trials", responses={202: TrialAnswer}, operation_id="beginTrial")
def begin_trial(body: TrialAsked):
    """Begin to measure; the same that is under way is joined."""
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
    return answer(TrialList(trials=[_told(trial) for trial in store().trials.list()]))


@api.get("/trials/<trial_id>", responses={200: TrialAnswer}, operation_id="getTrial")
def get_trial(path: TrialPath):
    """One trial as it stands."""
    return answer(_told(store().trials.get(path.trial_id)))


@api.put("/trials/<trial_id>/judged", responses={200: TrialAnswer, 409: Problem}, operation_id="judgeTrial")
def judge_trial(path: TrialPath, body: TrialJudged):
    """Believe a trial: it goes into the kit. Or do not, and it is taken out of it."""
    kept = store().trials.get(path.trial_id)
    trial = _settled(kept, store().jobs.get(kept.job_id))
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
    place = _place(kit.body, asked)
    if place is not None:
        gear = kit.body.pieces[place].gear
        changed = (
            believed(gear, trial.trial_id, asked, result, trial.asked_at)
            if body.believed
            else forgotten(gear, trial.trial_id, result)
        )
        if isinstance(changed, str):
            return refuse(422, "trial.not_usable", changed, "The figures stay here all the same.", "/believed")
        pieces = list(kit.body.pieces)
        pieces[place] = pieces[place].model_copy(update={"gear": changed})
        store().kit.save(KIT_ID, kit.body.model_copy(update={"pieces": pieces}), kit.revision)
    elif body.believed and not _of_person(asked, result):
        return refuse(
            422,
            "trial.no_piece",
            "There is no piece of the kit that this belongs to.",
            "Put the gear into the kit, and measure again with it named.",
            "/believed",
        )
    for other, _ in others:
        store().trials.judge(other.trial_id, believed=False, put_aside=bool(other.put_aside))
    return answer(_told(store().trials.judge(path.trial_id, believed=body.believed, put_aside=body.put_aside)))


@api.post("/trials/practice-frames", responses={200: TrialPracticeMade}, operation_id="practiceTrial")
def practice_trial(body: TrialPracticeAsked):
    """Made-up frames of a made-up lens or rail, to see a trial work."""
    wrong = "-".join(sorted(set(body.faults)))
    folder = store().jobs.folder.parent / "practice" / f"trial-{body.kind}-{body.seed}-{body.noise:g}{wrong}"
    return answer(write_trial_frames(folder, body.kind, body.seed, body.noise, body.faults))


def _settled(trial, job):
    """The trial with its result, once its job is done: by the job as it was looked at, so that both agree."""
    if trial.result_json is not None:
        return trial
    if job.state != "done":
        return trial
    try:
        content = result_file(store().jobs, job, TRIAL).read_text()
    except OSError:
        return trial
    return store().trials.settle(trial.trial_id, content)


def _replaced(trial, asked):
    """Believed trials of the same, whose place this one takes: list of (Trial, TrialResult)."""
    found = []
    for other in store().trials.list():
        if other.trial_id == trial.trial_id or not other.believed or other.result_json is None:
            continue
        if replaces(asked, TrialAsked.model_validate_json(other.asked_json)):
            found.append((other, TrialResult.model_validate_json(other.result_json)))
    return found


def _of_person(asked, result):
    """A trial of hands: it belongs to no piece of the kit."""
    return asked.kind == "sway" and not result.refused


def _place(kit, asked):
    """Which piece of the kit a trial is of, or None."""
    for place, piece in enumerate(kit.pieces):
        if asked.kit_id is not None and piece.gear.kit_id == asked.kit_id and fits(piece.gear, asked):
            return place
    return None


def _told(trial):
    job = store().jobs.get(trial.job_id)
    trial = _settled(trial, job)
    asked = TrialAsked.model_validate_json(trial.asked_json)
    running = job.state in ("running", "cancelling")
    share, _ = current_app.config["JUST_PLANE_RUNNER"].progress(job) if running else (0.0, "")
    kit = store().kit.now().body
    place = _place(kit, asked)
    result = TrialResult.model_validate_json(trial.result_json) if trial.result_json else None
    of_person = result is not None and _of_person(asked, result)
    used_in = ""
    if trial.believed:
        used_in = "practice, focus by rocking" if of_person else ""
        if place is not None:
            used_in = f"{kit.pieces[place].gear.name}, in the kit"
    return TrialAnswer(
        trial_id=trial.trial_id,
        asked=asked,
        state="done" if trial.result_json else job.state,
        share=1.0 if trial.result_json else share,
        message=f"{job.message} {job.remedy}".strip(),
        result=result,
        believed=bool(trial.believed),
        put_aside=bool(trial.put_aside),
        usable=place is not None or of_person,
        used_in=used_in,
        asked_at=trial.asked_at,
    )
