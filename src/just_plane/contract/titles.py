"""What fields are called when the program speaks of them: their titles, found by where they stand."""

from typing import Any, get_args

from pydantic import BaseModel
from pydantic.fields import FieldInfo

UNITS = {"mm": " mm", "um": " µm", "nm": " nm", "s": " s", "deg": "°", "g": " g"}
"""Endings of names that are units, and how each is written behind a number."""


def models_in(annotation: Any) -> list[type[BaseModel]]:
    """Every model that an annotation names, in lists and unions too."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return [annotation]
    return [model for part in get_args(annotation) for model in models_in(part)]


def title_of(name: str, field: FieldInfo | None) -> str:
    """What a field is called: its title, else its name in words, without the unit."""
    if field is not None and field.title:
        return field.title
    words = name.split("_")
    words = words[:-1] if len(words) > 1 and words[-1] in UNITS else words
    title = " ".join(words).replace("f number", "f-number")
    return title[:1].upper() + title[1:]


def unit_of(name: str) -> str:
    """The unit in which a field is given, by the ending of its name; empty for none."""
    last = name.rpartition("_")[2]
    return last if last in UNITS and last != name else ""


def called(root: str, path: list) -> tuple[str, str]:
    """What a place in a document is called, and its unit as it is written behind a number.

    Parameters
    ----------
    root : str    Name of the model that the document is.
    path : list   Members and indices on the way to the place.

    Returns
    -------
    (title, unit)
    """
    models, name, field = _models_called(root), "what was sent", None
    for part in path:
        if isinstance(part, int) or str(part).isdigit():
            continue
        name = str(part)
        field = next((model.model_fields[name] for model in models if name in model.model_fields), None)
        # A choice of models may have the member in several forms: look on in all of them.
        models = [
            inner
            for model in models
            if name in model.model_fields
            for inner in models_in(model.model_fields[name].annotation)
        ]
    title = title_of(name, field)
    unit = UNITS.get(unit_of(name), "")
    return title, "" if field is not None and title.endswith(unit.strip() or " ") else unit


def _models_called(name: str) -> list[type[BaseModel]]:
    found, waiting = [], list(BaseModel.__subclasses__())
    while waiting:
        model = waiting.pop()
        waiting += model.__subclasses__()
        if model.__name__ == name:
            found.append(model)
    return found
