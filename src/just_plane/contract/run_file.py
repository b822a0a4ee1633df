"""A run as a file: what it was made from, what was done, and the numbers that checking its frames needs."""

from typing import Annotated, Literal

from pydantic import Field, ValidationError

from just_plane.contract.base import Answer
from just_plane.contract.json_file import FileError
from just_plane.contract.run import RunEvent, RunPlan
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.contract.words import first_problem

FORMAT = "just-plane-run"


class DoneEvent(Answer):
    """Something that was done, and when."""

    at: str
    event: RunEvent


class RunFile(Answer):
    """A run that opens elsewhere."""

    format: Literal["just-plane-run"] = "just-plane-run"
    version: Literal[1] = 1
    name: Annotated[str, Field(max_length=200, description="Of the shot.")]
    plan: RunPlan
    numbers: StackNumbers
    started_at: str
    events: list[DoneEvent]


def read_run(content):
    """A run from its file.

    Parameters
    ----------
    content : bytes

    Returns
    -------
    RunFile

    Raises
    ------
    FileError
    """
    try:
        return RunFile.model_validate_json(content)
    except ValidationError as error:
        problem = first_problem(error)
        raise FileError(problem.message, "Give the run as it was taken away.", problem.field) from error
