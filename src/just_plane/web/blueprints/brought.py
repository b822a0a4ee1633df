"""Frames brought through the page: chosen or dropped there, kept in a folder of the data."""

from typing import Annotated

from flask import request
from flask_openapi3 import Tag
from pydantic import Field

from just_plane.contract.base import Answer, Model
from just_plane.contract.http import Problem
from just_plane.store.brought import KEPT_DAYS, NotBroughtError, bring
from just_plane.web.answers import answer, store
from just_plane.web.errors import refuse
from just_plane.web.late import LateBlueprint

api = LateBlueprint("brought", __name__, url_prefix="/api", abp_tags=[Tag(name="brought")])
LARGEST_BYTES = 400_000_000


class BroughtPath(Model):
    """A file of a batch."""

    batch: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]
    name: Annotated[str, Field(min_length=1, max_length=200)]


class Brought(Answer):
    """Where it is now."""

    folder: str
    kept_days: Annotated[int, Field(description="After the last look at it the folder goes.")]


@api.put(
    "/brought/<batch>/<name>",
    responses={201: Brought, 413: Problem, 507: Problem},
    operation_id="bringFile",
)
def bring_file(path: BroughtPath):
    """Take in one frame, sent as the body."""
    request.max_content_length = LARGEST_BYTES
    try:
        folder = bring(store().jobs.folder.parent, path.batch, path.name, request.stream)
    except NotBroughtError as error:
        return refuse(422, "file.refused", error.message, error.remedy, "/name")
    return answer(Brought(folder=str(folder), kept_days=KEPT_DAYS), 201)
