"""Practice: drills, what the camera shows, results."""

from datetime import UTC, datetime

from flask import Response, current_app
from flask_openapi3 import Tag

from just_plane.contract.http import Problem
from just_plane.contract.practice import (
    DrillAnswer,
    DrillQuery,
    JudgeAsked,
    MoveAsked,
    MoveSaid,
    OwnSet,
    PracticeResult,
    PracticeResults,
    ViewAsked,
)
from just_plane.contract.trial import TrialResult
from just_plane.core.kept import Kept
from just_plane.core.practice.drill import make_drill
from just_plane.planning.words.days import day_in_words
from just_plane.practice.drills import drill_answer, move_said
from just_plane.practice.own import NoOwnSetError, own_of
from just_plane.practice.results import NothingPressedError, next_kind, result_of
from just_plane.web.answers import answer, store
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "practice", __name__, url_prefix="/api", abp_tags=[Tag(name="practice")], abp_responses={404: Problem, 507: Problem}
)


@api.get("/practice/drill", responses={200: DrillAnswer}, operation_id="getDrill")
def get_drill(query: DrillQuery):
    """A drill, the same for the same seed; on a shot's set, of its newest revision."""
    if query.shot_id is None:
        return answer(drill_answer(make_drill(query.kind, query.seed)))
    kept = store().shots.get(query.shot_id)
    of_shot = OwnSet(shot_id=query.shot_id, revision=kept.revision)
    try:
        own = _own(of_shot, query.seed)
    except NoOwnSetError as error:
        return _no_set(error)
    return answer(drill_answer(own.drill, of_shot, own.title))


@api.post("/view", operation_id="view")
def view(body: ViewAsked):
    """What the camera shows: a JPEG, a function of what is asked alone."""
    try:
        content = current_app.config["JUST_PLANE_SHOWN"].picture(body, _own(body.own, body.seed))
    except NoOwnSetError as error:
        return _no_set(error)
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=60"})


@api.post("/practice/move", responses={200: MoveSaid}, operation_id="moveInDrill")
def move_in_drill(body: MoveAsked):
    """What was seen of a move, and what a good hand would do now."""
    try:
        own = _own(body.own, body.seed)
    except NoOwnSetError as error:
        return _no_set(error)
    return answer(move_said(own.drill if own else make_drill(body.kind, body.seed), body.before, body.after))


@api.post("/practice/results", responses={201: PracticeResult}, operation_id="judgeDrill")
def judge_drill(body: JudgeAsked):
    """Judge what was pressed, and keep it."""
    try:
        own = _own(body.own, body.seed)
        drill = own.drill if own else make_drill(body.kind, body.seed)
        result = result_of(body, drill, datetime.now(UTC).isoformat(timespec="milliseconds"), own)
    except NoOwnSetError as error:
        return _no_set(error)
    except NothingPressedError:
        return refuse(422, "practice.nothing", "Nothing was pressed.", "Press first.", "/pressed")
    store().practice.add(result.result_id, result.kind, result.model_dump_json(), result.at)
    return answer(result, 201)


@api.get("/practice/results", responses={200: PracticeResults}, operation_id="practiceResults")
def practice_results():
    """Results so far, and what to take next."""
    results = [PracticeResult.model_validate_json(text) for text in store().practice.list()]
    sway, words = _own_sway()
    return answer(PracticeResults(results=results, next=next_kind(results), own_sway_mm=sway, own_sway_words=words))


def _own_sway():
    """How much one's own hands sway along, mm, and whence that is known: by the newest trial that is believed."""
    for trial in store().trials.list():
        if not trial.believed or trial.result_json is None:
            continue
        found = TrialResult.model_validate_json(trial.result_json).sway
        if found is not None:
            return max(found.along_mm, 1e-3), f"as in your trial of {day_in_words(trial.asked_at)}"
    return None, ""


_kept_sets = Kept(own_of)


def _own(of_shot, seed):
    """The set of a shot as it was, or None where the drill is not on one."""
    return None if of_shot is None else _kept_sets(store().shots.at(of_shot.shot_id, of_shot.revision), seed)


def _no_set(error):
    return refuse(422, "practice.no_set", str(error), error.remedy, "/own")
