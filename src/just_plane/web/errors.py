"""The one place where errors become HTTP: application/problem+json, one shape for the whole API."""

import json
import logging
import secrets

from flask import Response, make_response
from werkzeug.exceptions import HTTPException

from just_plane.contract.http import Problem
from just_plane.contract.json_file import FileError
from just_plane.contract.words import problems
from just_plane.pictures.reading import PictureError
from just_plane.store.errors import ConflictError, DamagedError, DiskError, GoneError, NotFoundError

log = logging.getLogger("just_plane.web")

SENTENCES = {
    400: ("The request could not be read.", "Send JSON, encoded in UTF-8."),
    403: ("This server answers only the page on this machine.", "Open it by its own address."),
    404: ("There is nothing at this address.", "Start from the list of shots."),
    405: ("This address does not take that method.", "See /api/openapi.json."),
    413: ("What was sent is larger than this server takes.", "A shot is a few kB; is it the right file?"),
    415: ("What was sent is not JSON.", "Send it as application/json."),
    422: ("What was sent does not fit.", ""),
}

NESTED = "What was sent is nested too deep to be read."


def problem_response(problem):
    """A Problem as a response."""
    return Response(_text(problem), problem.status, content_type="application/problem+json")


def _text(problem):
    """As JSON in plain ASCII: what was sent may hold halves of characters that no encoding has."""
    return json.dumps(problem.model_dump())


def refuse(status, code, detail, remedy="", field=""):
    """A response that refuses, in one call."""
    title = SENTENCES.get(status, ("The server failed.", ""))[0]
    return problem_response(Problem(title=title, status=status, code=code, detail=detail, remedy=remedy, field=field))


def on_invalid(error):
    """Answer to a body, path or query that does not validate."""
    found = problems(error)
    first = found[0]
    return problem_response(
        Problem(
            title=SENTENCES[422][0],
            status=422,
            code="value.refused",
            detail=first.message,
            field=first.field,
            problems=found,
        )
    )


def register(app):
    """Make every error of the application a problem."""
    app.register_error_handler(HTTPException, _on_http)
    app.register_error_handler(NotFoundError, lambda e: refuse(404, "document.not_found", e.message, e.remedy))
    app.register_error_handler(ConflictError, lambda e: refuse(409, "document.changed_elsewhere", e.message, e.remedy))
    app.register_error_handler(DiskError, lambda e: refuse(507, "disk.refused", e.message, e.remedy))
    app.register_error_handler(GoneError, lambda e: refuse(503, "data.gone", e.message, e.remedy))
    app.register_error_handler(DamagedError, lambda e: refuse(422, "document.damaged", e.message, e.remedy))
    app.register_error_handler(RecursionError, lambda _: refuse(422, "value.refused", NESTED, "Is it the right file?"))
    app.register_error_handler(FileError, lambda e: refuse(422, "file.refused", e.message, e.remedy, e.field))
    app.register_error_handler(PictureError, lambda e: refuse(422, "picture.refused", e.message, e.remedy, "/picture"))
    app.register_error_handler(Exception, _on_fault)


def _on_http(error):
    if error.code is None or error.code < 400:
        return error
    detail, remedy = SENTENCES.get(error.code, (str(error.description), ""))
    problem = Problem(title=error.name, status=error.code, code=f"http.{error.code}", detail=detail, remedy=remedy)
    # The original response carries headers that belong to it, such as Allow.
    response = make_response(error.get_response())
    response.data = _text(problem)
    response.content_type = "application/problem+json"
    return response


def _on_fault(error):
    """Our own fault: the details go to the log under a number, not to the page."""
    number = secrets.token_hex(4)
    log.exception("fault %s", number, exc_info=error)
    return refuse(
        500,
        "fault",
        f"Something in the program failed (number {number}). What was saved before is whole.",
        "Try again; the log on the terminal has the details.",
    )
