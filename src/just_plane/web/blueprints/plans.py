"""Plans of shots that need not be kept: what the page asks while something is dragged."""

from flask_openapi3 import Tag

from just_plane.contract.http import Problem, ThroughFocusAsked, UnitsQuery
from just_plane.contract.plan import Plan, ThroughFocus
from just_plane.contract.shot import Shot
from just_plane.planning.pictures.through_focus import through_focus
from just_plane.planning.plan import plan_shot
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
