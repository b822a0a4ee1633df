"""The built page: its files, and its one document for every address that is not the API's."""

from pathlib import Path

from flask import Blueprint, Response, abort, send_from_directory

from just_plane.web.security import nonce

PAGE = Path(__file__).parents[1] / "page"
NOT_BUILT = (
    "<!doctype html><meta charset=utf-8><title>Just Plane</title>"
    "<p>The page has not been built. Run <code>make build</code>; the API under /api works without it."
)

blueprint = Blueprint("page", __name__)


@blueprint.get("/assets/<path:name>")
def asset(name):
    """A built script, style or font; its name changes with its content, so it may be kept for ever."""
    response = send_from_directory(PAGE / "assets", name)
    response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
    return response


@blueprint.get("/icon.svg")
def icon():
    """The mark in the browser's tab."""
    return send_from_directory(PAGE, "icon.svg")


@blueprint.get("/", defaults={"_address": ""})
@blueprint.get("/<path:_address>")
def document(_address):
    """The page's document; the nonce of this answer is written into it for the page's style engine."""
    if _address.startswith("api/") or _address == "api":
        abort(404)
    path = PAGE / "index.html"
    text = path.read_text(encoding="utf-8").replace("{{nonce}}", nonce()) if path.is_file() else NOT_BUILT
    return Response(text, 200 if path.is_file() else 503, content_type="text/html; charset=utf-8")
