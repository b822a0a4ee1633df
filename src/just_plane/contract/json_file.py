"""Reading files that people bring: JSON of a known format and version, with a sentence for everything else."""

import json

from pydantic import ValidationError

from just_plane.contract.words import first_problem

LARGEST_BYTES = 1_000_000


class FileError(ValueError):
    """A file that this program cannot read. ``message`` says why, ``remedy`` what would work, ``field`` where in the
    file (a JSON pointer, may be empty)."""

    def __init__(self, message, remedy, field=""):
        super().__init__(f"{message} {remedy}".strip())
        self.message = message
        self.remedy = remedy
        self.field = field


def read_document(text, *, noun, file_format, version, model, largest_bytes=LARGEST_BYTES):
    """A document from the bytes or text of its file.

    Parameters
    ----------
    text : bytes or str
    noun : str                 What it should be, such as ``shot``.
    file_format, version       What its members of those names must say; older versions are the model's to take.
    model : type               Of the contract.

    Raises
    ------
    FileError   Too large, not JSON, not such a document, of a newer version, or with a value that cannot be.
    """
    again = f"Choose the .json file that was saved from a {noun}."
    if len(text) > largest_bytes:
        holds = f"a {noun} file holds less than {largest_bytes / 1e6:g} MB"
        raise FileError(f"The file holds {len(text) / 1e6:.1f} MB; {holds}.", again)
    document = _parse(text, noun, again)
    if not isinstance(document, dict) or document.get("format") != file_format:
        raise FileError(
            f"This JSON file is not a {noun}.", f'A {noun} file says "format": "{file_format}" at its start.', "/format"
        )
    found = document.get("version")
    if isinstance(found, int) and found > version:
        raise FileError(
            f"The file is of version {found}; this program reads up to version {version}.",
            "Open it with the newer program that wrote it, or update this one.",
            "/version",
        )
    try:
        return model.model_validate_json(json.dumps(document))
    except ValidationError as error:
        problem = first_problem(error)
        raise FileError(problem.message, "Mend the file at that place.", problem.field) from error


def write_document(model):
    """The file's text: indented for people, ending in a newline."""
    return model.model_dump_json(indent=2) + "\n"


def decoded(content):
    """Text of a file's bytes, or None when it is no text."""
    if isinstance(content, str):
        return content
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError:
        return None


def _parse(content, noun, again):
    text = decoded(content)
    if text is None:
        raise FileError("The file is not text.", again)
    try:
        return json.loads(text, parse_constant=_refuse_constant)
    except RecursionError as error:
        raise FileError(f"The file is nested too deeply to be a {noun}.", again) from error
    except ValueError as error:
        where = f" (line {error.lineno}, column {error.colno})" if isinstance(error, json.JSONDecodeError) else ""
        raise FileError(
            f"The file is cut short or is not JSON{where}.", f"Save it again from the {noun}, and choose that file."
        ) from error


def _refuse_constant(name):
    raise ValueError(f"{name} is not a number")
