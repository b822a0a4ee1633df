"""Refusals of the contract in words: where, what is wrong, what would work."""

from typing import Any

from pydantic import ValidationError

from just_plane.contract.base import Answer
from just_plane.contract.titles import called


class FieldProblem(Answer):
    """One value that cannot be."""

    field: str
    """JSON pointer into the body, such as ``/lens/focal_length_mm``."""
    message: str
    value: str = ""
    """What was received, cut short."""


LARGEST_SHOWN = 10**300
"""Whole numbers past this are no floats any more."""
ADDRESS = "Path"
"""Models of what stands in an address end so: what is no id there is mistyped, and nobody asks how ids are made."""
TAGGED = ("framing", "gear", "depth")
"""Fields that hold one of several models, told apart by a tag."""


def first_problem(error: ValidationError) -> FieldProblem:
    """The first refusal; the others are likely to follow from it."""
    return problems(error)[0]


def problems(error: ValidationError) -> list[FieldProblem]:
    """Every refusal of a validation, in the order of the model."""
    return [_problem(item, error.title) for item in error.errors(include_url=False)]


def _problem(item: Any, root: str) -> FieldProblem:
    where = item["loc"]
    # A union's tag stands in the location between the field and its member; it is no part of the document.
    path = [part for index, part in enumerate(where) if not (0 < index < len(where) and where[index - 1] in TAGGED)]
    name, unit = called(root, path)
    is_id_of_address = root.endswith(ADDRESS) and str(where[-1]).endswith("_id")
    got = "" if item["type"] == "missing" else _shown(item["input"], unit)
    return FieldProblem(
        field="".join(f"/{part}" for part in path),
        message=_nothing_there(name, got) if is_id_of_address else _sentence(item, name, unit, got),
        value=got,
    )


def _nothing_there(name, got):
    return f"There is nothing at this address: no {name.removesuffix(' id').lower()} has the id {got}."


def _sentence(item, name, unit, got):
    limits = item.get("ctx", {})
    kind = item["type"]
    if kind == "greater_than":
        return f"{name} must be more than {limits['gt']:g}{unit}; got {got}."
    if kind == "greater_than_equal":
        return f"{name} must be {limits['ge']:g}{unit} or more; got {got}."
    if kind in ("less_than_equal", "less_than"):
        return f"{name} must be at most {limits.get('le', limits.get('lt')):,g}{unit}; got {got}."
    if kind == "missing":
        return f"{name} is missing."
    if kind == "extra_forbidden":
        return f"{name} is not a part that this program knows."
    if kind in ("literal_error", "union_tag_invalid"):
        expected = limits.get("expected", limits.get("expected_tags", ""))
        return f"{name} must be one of {expected}; got {got}."
    if kind in ("model_type", "model_attributes_type", "dict_type"):
        return f"{name} must be a JSON object with named values; got {got}."
    if kind == "union_tag_not_found":
        return f"{name} must say which one it is, in {limits['discriminator']}."
    text = isinstance(item["input"], str)
    if kind == "string_too_long" or (kind == "too_long" and text):
        return f"{name} may have at most {limits['max_length']} characters."
    if kind == "string_too_short" or (kind == "too_short" and text):
        least = limits["min_length"]
        return f"{name} needs at least {'one character' if least == 1 else f'{least} characters'}."
    if kind == "string_pattern_mismatch":
        return f"{name} cannot be {got}: it does not have the form that it must have."
    if kind == "too_long":
        return f"{name} may have at most {limits['max_length']} entries."
    if kind == "too_short":
        return f"{name} needs {limits['min_length']} entries or more."
    if kind == "value_error" and str(limits["error"]).endswith((".", "?")):
        # A sentence of the contract's own.
        return str(limits["error"])
    if kind in ("finite_number", "float_type", "int_type", "float_parsing", "int_from_float"):
        return f"{name} must be a {'whole ' if 'int' in kind else ''}number; got {got}."
    return f"{name}: {item['msg'][:1].lower()}{item['msg'][1:]}."


def _shown(value, unit):
    if isinstance(value, bool) or value is None:
        return {True: "true", False: "false", None: "nothing"}[value]
    if isinstance(value, int) and abs(value) > LARGEST_SHOWN:
        return "a number far too large"
    if isinstance(value, int | float):
        return f"{value:g}{unit}"
    text = str(value)
    return f"“{text[:40]}…”" if len(text) > 40 else f"“{text}”"
