"""Pictures: framing photographs that are kept, and what a way would look like."""

from flask import Response, request
from flask_openapi3 import Tag

from just_plane.contract.http import KeptPhotograph, PhotographPath, PreviewAsked, Problem
from just_plane.pictures.framing import framing_photograph
from just_plane.pictures.reading import LARGEST_BYTES
from just_plane.pictures.writing import screen_jpeg
from just_plane.planning.pictures.preview import preview
from just_plane.web.answers import answer, store
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint(
    "pictures", __name__, url_prefix="/api", abp_tags=[Tag(name="pictures")], abp_responses={507: Problem}
)


@api.post("/photographs", responses={200: KeptPhotograph, 413: Problem}, operation_id="keepPhotograph")
def keep_photograph():
    """Keep a framing photograph, sent as the body: JPEG, PNG or TIFF."""
    request.max_content_length = LARGEST_BYTES
    taken = framing_photograph(request.get_data())
    kept = store().photographs.add(taken.jpeg, taken.width, taken.height)
    return answer(KeptPhotograph(photograph=kept, width_px=taken.width, height_px=taken.height))


@api.get("/photographs/<photograph_id>", responses={404: Problem}, operation_id="getPhotograph")
def get_photograph(path: PhotographPath):
    """A kept photograph, as a JPEG."""
    return Response(
        store().photographs.get(path.photograph_id),
        content_type="image/jpeg",
        headers={"Cache-Control": "private, max-age=31536000, immutable"},
    )


@api.post("/preview", responses={422: Problem}, operation_id="picturePreview")
def picture_preview(body: PreviewAsked):
    """A made-up surface laid through the shot's points, as a way would show it: a JPEG."""
    made = preview(body.shot, body.way, body.zoom, body.from_left, body.from_top)
    if isinstance(made, str):
        return refuse(422, "preview.none", made, "", "/way")
    return Response(screen_jpeg(made.light), content_type="image/jpeg")
