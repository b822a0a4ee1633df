"""Reading and writing the shot file: JSON, versioned, no guessing."""

import json

from pydantic import ValidationError

from just_plane.contract.shot import FORMAT, VERSION, Shot
from just_plane.contract.words import first_problem

LARGEST_BYTES = 1_000_000


class ShotFileError(ValueError):
    """A file that is not a shot this program can read. ``message`` says why, ``remedy`` what would work,
    ``field`` where in the file (a JSON pointer, may be empty)."""

    def __init__(self, message, remedy, field=""):
        super().__init__(f"{message} {remedy}".strip())
        self.message = message
        self.remedy = remedy
        self.field = field


def read_shot(text):
    """A shot from the bytes or text of a shot file.

    Raises
    ------
    ShotFileError   Too large, not JSON, not a shot, of a newer version, or with a value that cannot be.
    """
    if len(text) > LARGEST_BYTES:
        raise ShotFileError(
            f"The file holds {len(text) / 1e6:.1f} MB; a shot file holds a few kB.",
            "Choose the .json file that was saved from a shot.",
        )
    document = _parse(text)
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise ShotFileError(
            "This JSON file is not a shot.", f'A shot file says "format": "{FORMAT}" at its start.', "/format"
        )
    version = document.get("version")
    if isinstance(version, int) and version > VERSION:
        raise ShotFileError(
            f"The file is of version {version}; this program reads up to version {VERSION}.",
            "Open it with the newer program that wrote it, or update this one.",
            "/version",
        )
    try:
        return Shot.model_validate_json(json.dumps(document))
    except ValidationError as error:
        problem = first_problem(error)
        raise ShotFileError(problem.message, "Mend the file at that place.", problem.field) from error


def write_shot(shot):
    """The shot file's text: indented for people, ending in a newline."""
    return shot.model_dump_json(indent=2) + "\n"


def _parse(text):
    try:
        if isinstance(text, bytes):
            text = text.decode("utf-8-sig")
        return json.loads(text, parse_constant=_refuse_constant)
    except UnicodeDecodeError as error:
        raise ShotFileError("The file is not text.", "Choose the .json file that was saved from a shot.") from error
    except RecursionError as error:
        raise ShotFileError(
            "The file is nested too deeply to be a shot.", "Choose the .json file that was saved from a shot."
        ) from error
    except ValueError as error:
        where = f" (line {error.lineno}, column {error.colno})" if isinstance(error, json.JSONDecodeError) else ""
        raise ShotFileError(
            f"The file is cut short or is not JSON{where}.", "Save it again from the shot, and choose that file."
        ) from error


def _refuse_constant(name):
    raise ValueError(f"{name} is not a number")
