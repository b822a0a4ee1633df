"""Shots that are kept: list, make, change, undo, redo, remove, take away and bring in."""

from flask import request
from flask_openapi3 import Tag

from just_plane.contract.http import (
    BaseRevision,
    KeptShotAnswer,
    ListQuery,
    Problem,
    SaveShot,
    ShotList,
    ShotPath,
    StepsQuery,
    Tidied,
    TidyAsked,
)
from just_plane.contract.shot import Shot
from just_plane.contract.shot_file import LARGEST_BYTES, ShotFile, read_shot_and_photograph, write_shot
from just_plane.pictures.framing import kept_photograph
from just_plane.planning.plan import plan_shot
from just_plane.planning.setup.rail_marks import knob_of
from just_plane.planning.ways.step_table import step_csv
from just_plane.store.errors import NotFoundError
from just_plane.store.shots import Asked
from just_plane.store.tidying import old_revisions, put_away
from just_plane.web.answers import answer, download, store
from just_plane.web.errors import refuse
from just_plane.web.kept import kept_shot
from just_plane.web.late import LateBlueprint
from just_plane.web.shot_lines import page_of

api = LateBlueprint(
    "shots",
    __name__,
    url_prefix="/api/shots",
    abp_tags=[Tag(name="shots")],
    abp_responses={404: Problem, 507: Problem},
)


@api.get("", responses={200: ShotList}, operation_id="listShots")
def list_shots(query: ListQuery):
    """Shots with their verdicts, a page at a time."""
    asked = Asked(query.text.strip(), query.heading, query.sort)
    return answer(page_of(store().shots, query.units, query.after, asked, removed=query.removed == "yes"))


@api.post("", responses={201: KeptShotAnswer}, operation_id="addShot")
def add_shot(body: Shot):
    """Keep a new shot."""
    return kept_shot(store().shots.add(body), 201)


@api.post("/from-file", responses={201: KeptShotAnswer}, operation_id="addShotFromFile")
def add_shot_from_file():
    """Keep a shot from a shot file, sent as the body, and the framing photograph in it."""
    request.max_content_length = LARGEST_BYTES
    shot, photograph = read_shot_and_photograph(request.get_data())
    if photograph is not None:
        taken = kept_photograph(photograph)
        kept = store().photographs.add(taken.jpeg, taken.width, taken.height)
        shot = shot.model_copy(update={"plane": shot.plane.model_copy(update={"photograph": kept})})
    return kept_shot(store().shots.add(shot), 201)


@api.post("/tidy", responses={200: Tidied}, operation_id="tidyShots")
def tidy_shots(body: TidyAsked):
    """Let old versions, or the shots put away, go for good; or only look what would go."""
    database = store().shots.database
    if body.what == "versions":
        found = old_revisions(database, body.keep, remove=not body.look)
    else:
        found = put_away(database, store().shots.kind, remove=not body.look)
    return answer(Tidied(documents=found.documents, revisions=found.revisions, gone=not body.look))


@api.get("/<string:shot_id>", responses={200: KeptShotAnswer}, operation_id="getShot")
def get_shot(path: ShotPath):
    """The shot as it is now."""
    return kept_shot(store().shots.get(path.shot_id))


@api.put("/<string:shot_id>", responses={200: KeptShotAnswer, 409: Problem}, operation_id="saveShot")
def save_shot(path: ShotPath, body: SaveShot):
    """Keep a changed shot as its newest revision."""
    return kept_shot(store().shots.save(path.shot_id, body.shot, body.base_revision, continues=body.continues))


@api.delete("/<string:shot_id>", responses={200: KeptShotAnswer}, operation_id="removeShot")
def remove_shot(path: ShotPath):
    """Put a shot away; it can be brought back."""
    store().shots.remove(path.shot_id)
    return kept_shot(store().shots.get(path.shot_id))


@api.post("/<string:shot_id>/bring-back", responses={200: KeptShotAnswer}, operation_id="bringShotBack")
def bring_shot_back(path: ShotPath):
    """Bring a removed shot back."""
    store().shots.bring_back(path.shot_id)
    return kept_shot(store().shots.get(path.shot_id))


@api.post("/<string:shot_id>/undo", responses={200: KeptShotAnswer, 409: Problem}, operation_id="undoShot")
def undo_shot(path: ShotPath, body: BaseRevision):
    """Go back one change."""
    return kept_shot(store().shots.undo(path.shot_id, body.base_revision))


@api.post("/<string:shot_id>/redo", responses={200: KeptShotAnswer, 409: Problem}, operation_id="redoShot")
def redo_shot(path: ShotPath, body: BaseRevision):
    """Go forward one change."""
    return kept_shot(store().shots.redo(path.shot_id, body.base_revision))


@api.get("/<string:shot_id>/file", responses={200: ShotFile}, operation_id="getShotFile")
def get_shot_file(path: ShotPath):
    """The shot file, to save; its framing photograph goes with it."""
    shot = store().shots.get(path.shot_id).body
    return download(write_shot(shot, _photograph(shot)), f"{shot.name}.json", "application/json")


@api.get("/<string:shot_id>/steps", operation_id="getSteps")
def get_steps(path: ShotPath, query: StepsQuery):
    """The step table of a way, as CSV."""
    shot = store().shots.get(path.shot_id).body
    plan = plan_shot(shot)
    wanted = query.way or shot.chosen_way
    way = next((way for way in plan.ways if (way.id == wanted if wanted else way.recommended)), None)
    if way is None or not way.frames:
        return refuse(
            422,
            "way.has_no_frames",
            "This way has no frames to list." if way else "The plan has no such way.",
            plan.verdict.headline,
            "/chosen_way",
        )
    table = step_csv(way, plan.reach.magnification, shot.plane.rail_counts, shot.stack.keep_every, knob_of(shot.stack))
    return download(table, f"{shot.name} steps.csv", "text/csv")


def _photograph(shot):
    """Bytes of the shot's framing photograph; None without one, or when it is not kept here."""
    if shot.plane.photograph is None:
        return None
    try:
        return store().photographs.get(shot.plane.photograph)
    except NotFoundError:
        return None
