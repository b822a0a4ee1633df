"""Calibration from photographs of a ruler."""

from flask import Response, current_app, request
from flask_openapi3 import Tag

from just_plane.contract.http import Problem
from just_plane.contract.ruler import RulerAnswer, SizeAnswer, SizeAsked, TwoTubesAnswer, TwoTubesAsked
from just_plane.contract.shot import Shot
from just_plane.core.errors import OpticsError
from just_plane.pictures.reading import LARGEST_BYTES, read_picture
from just_plane.pictures.writing import jpeg
from just_plane.planning.calibration.ruler import practice_frame, ruler_in, size_from, two_tubes
from just_plane.planning.words.findings import RefusedError
from just_plane.web.answers import answer
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint("ruler", __name__, url_prefix="/api/ruler", abp_tags=[Tag(name="ruler")])


@api.post("/find", responses={200: RulerAnswer, 413: Problem}, operation_id="findRuler")
def find_ruler_in_picture():
    """The ticks of a ruler in a photograph, sent as the body."""
    request.max_content_length = LARGEST_BYTES
    picture = read_picture(request.get_data())
    return answer(ruler_in(picture.brightness, picture.facts))


@api.post("/size", responses={200: SizeAnswer}, operation_id="sizeFromRuler")
def size_from_ruler(body: SizeAsked):
    """The size on the sensor that a length on the frame gives, for the shot's rig as it is set."""
    try:
        return answer(size_from(body))
    except RefusedError as error:
        trouble = error.finding
        return refuse(422, trouble.code, trouble.message, trouble.remedy, trouble.field)


@api.post("/two-tubes", responses={200: TwoTubesAnswer}, operation_id="lensFromTwoTubes")
def lens_from_two_tubes(body: TwoTubesAsked):
    """Focal length and pupil magnification at work, from two frames with different tubes."""
    try:
        return answer(two_tubes(body))
    except OpticsError as error:
        field = {"second_extension": "/second/extension_mm", "second": "/second/magnification"}.get(error.quantity, "")
        return refuse(422, error.code, error.message, error.remedy, field)


@api.post("/practice", responses={404: Problem}, operation_id="practiceFrame")
def practice(body: Shot):
    """A made-up frame of a ruler through a shot's rig, a little off the model; in the demo only."""
    made = practice_frame(body) if current_app.config["JUST_PLANE_DEMO"] else None
    if made is None:
        return refuse(
            404, "practice.not_here", "There is no made-up ruler frame here.", "Photograph a ruler through the rig."
        )
    brightness, tick_mm = made
    return Response(jpeg(brightness), content_type="image/jpeg", headers={"X-Tick-Millimetres": f"{tick_mm:g}"})
