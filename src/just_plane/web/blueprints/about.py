"""What is running."""

from flask import current_app
from flask_openapi3 import Tag

from just_plane import __version__
from just_plane.contract.http import Alive
from just_plane.web.answers import answer
from just_plane.web.late import LateBlueprint

api = LateBlueprint("about", __name__, url_prefix="/api", abp_tags=[Tag(name="about")])


@api.get("/alive", responses={200: Alive}, operation_id="alive")
def alive():
    """Does nothing but answer."""
    return answer(Alive(program="just-plane", version=__version__, demo=current_app.config["JUST_PLANE_DEMO"]))
