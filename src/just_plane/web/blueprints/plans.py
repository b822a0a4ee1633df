"""Plans of shots that need not be kept: what the page asks while something is dragged."""

from flask_openapi3 import Tag

from just_plane.contract.http import Problem, StepsAsked, ThroughFocusAsked, UnitsQuery
from just_plane.contract.plan import Plan, StepTable, ThroughFocus
from just_plane.contract.plane_plan import BlurMaps
from just_plane.contract.shot import Shot
from just_plane.planning.pictures.through_focus import through_focus
from just_plane.planning.plan import plan_shot
from just_plane.planning.plane.maps import blur_maps
from just_plane.planning.setup.rail_marks import knob_of
from just_plane.planning.ways.step_table import step_rows
from just_plane.web.answers import answer
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint("plans", __name__, url_prefix="/api/plan", abp_tags=[Tag(name="plans")])


@api.post("", responses={200: Plan}, operation_id="makePlan")
def make_plan(query: UnitsQuery, body: Shot):
    """The plan of a shot; nothing is kept."""
    return answer(plan_shot(body, query.units))


@api.post("/through-focus", responses={200: ThroughFocus, 422: Problem}, operation_id="mapThroughFocus")
def map_through_focus(body: ThroughFocusAsked):
    """Contrast by stop and depth."""
    if not body.from_mm < body.to_mm:
        return refuse(
            422, "to_mm.not_beyond", "The map must end beyond where it begins.", "Give to_mm above from_mm.", "/to_mm"
        )
    found = through_focus(body.shot, body.from_mm, body.to_mm)
    if found is None:
        return refuse(422, "plan.incomplete", "This shot has no apertures to map.", "Its plan says what to mend.")
    return answer(found)


@api.post("/blur-maps", responses={200: BlurMaps}, operation_id="mapBlur")
def map_blur(body: Shot):
    """Defocus over the frame for each way of one frame."""
    return answer(blur_maps(body))


@api.post("/steps", responses={200: StepTable, 422: Problem}, operation_id="listSteps")
def list_steps(body: StepsAsked):
    """The step table of a way."""
    plan = plan_shot(body.shot)
    way = next((way for way in plan.ways if way.id == body.way), None)
    if way is None:
        return refuse(422, "way.unknown", "The plan has no such way.", plan.verdict.headline, "/way")
    shot = body.shot
    rows = step_rows(way, plan.reach.magnification, shot.plane.rail_counts, shot.stack.keep_every, knob_of(shot.stack))
    return answer(StepTable(rows=rows))
