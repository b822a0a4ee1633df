"""What there is to know of each field that a person can fill in: its title, unit, default, bounds and choices.

One source for the page (``frontend/src/api/fields.json`` is written from it) and for the sentences of refusals.
"""

import types
from typing import Any, Literal, Union, get_args, get_origin

from annotated_types import Ge, Gt, Le, Lt, MaxLen
from pydantic import BaseModel
from pydantic.fields import FieldInfo
from pydantic_core import PydanticUndefined

from just_plane.contract.gear import CHAIN_KINDS, KIND_WORDS, KINDS
from just_plane.contract.shot import Shot
from just_plane.contract.titles import models_in, title_of, unit_of

APERTURES = ("numerical_aperture", "iris_to")
"""Below 1, and no shares of anything."""


def page_fields() -> dict[str, dict[str, dict[str, dict[str, Any]]]]:
    """Facts of every field of a shot and of each kind of gear, by JSON pointer: {what: {kind: {pointer: facts}}}."""
    return {"shot": {"shot": fields_of(Shot)}, "gear": {kind: fields_of(model) for kind, model in KINDS.items()}}


def page_kinds() -> list[dict[str, Any]]:
    """Kinds of gear in the order of the shelf: what one and many are called, and whether it goes into the row."""
    return [
        {"kind": kind, "one": one, "many": many, "chain": kind in CHAIN_KINDS}
        for kind, (one, many) in KIND_WORDS.items()
    ]


def fields_of(model: type[BaseModel], at: str = "") -> dict[str, dict[str, Any]]:
    """Facts of the fields of a model and of models in it, by JSON pointer; choices of models are left out.

    Of a list of models how many it may hold is told, not what they hold.
    """
    found: dict[str, dict[str, Any]] = {}
    for name, field in model.model_fields.items():
        pointer = f"{at}/{name}"
        inner = [each for each in models_in(field.annotation) if each is not type(None)]
        if inner and get_origin(_bare(field.annotation)) is list:
            found[pointer] = {"title": title_of(name, field), "kind": "rows", "longest": _bounds(field)[2]}
        elif inner:
            if len(inner) == 1:
                found |= fields_of(inner[0], pointer)
        else:
            found[pointer] = _facts(name, field)
    return found


def _facts(name: str, field: FieldInfo) -> dict[str, Any]:
    bare = _bare(field.annotation)
    options = [option for part in (bare, *get_args(bare)) if get_origin(part) is Literal for option in get_args(part)]
    least, most, longest = _bounds(field)
    default = field.get_default(call_default_factory=False)
    facts = {
        "title": title_of(name, field),
        "kind": _kind(name, bare, most),
        "empty": type(None) in get_args(bare) or None,
        "default": None if default is PydanticUndefined else default,
        "least": least,
        "most": most,
        "longest": longest,
        "options": options or None,
    }
    return {name: fact for name, fact in facts.items() if fact is not None}


def _kind(name: str, bare: Any, most: float | None) -> str:
    """How a value is typed: a length, a time, an f-number, a share, a count, a plain number, words, or yes and no."""
    kinds = {bare, *get_args(bare)}
    if bool in kinds:
        return "yes"
    if int in kinds:
        return "count"
    if float not in kinds:
        return "words"
    if name.endswith("f_number"):
        return "fNumber"
    if name.endswith("magnification") and not name.endswith("pupil_magnification"):
        return "ratio"
    by_unit = {"mm": "length", "s": "time"}.get(unit_of(name) if name != "moves_mm_s" else "")
    return by_unit or ("percent" if most is not None and most <= 1 and name not in APERTURES else "plain")


def _bounds(field: FieldInfo) -> tuple[float | None, float | None, int | None]:
    """Least and most that a number may be, and the longest that a text or a list may be; None: no such bound.

    A bound that is not itself allowed (``gt``, ``lt``) is given all the same: fields step up to it.
    """
    least = most = longest = None
    for mark in (*field.metadata, *_inner_metadata(field.annotation)):
        if isinstance(mark, Ge | Gt):
            least = float(mark.ge if isinstance(mark, Ge) else mark.gt)  # type: ignore[arg-type]
        elif isinstance(mark, Le | Lt):
            most = float(mark.le if isinstance(mark, Le) else mark.lt)  # type: ignore[arg-type]
        elif isinstance(mark, MaxLen):
            longest = mark.max_length
        elif isinstance(mark, FieldInfo):
            inner = _bounds(mark)
            least = least if inner[0] is None else inner[0]
            most = most if inner[1] is None else inner[1]
            longest = longest if inner[2] is None else inner[2]
    return least, most, longest


def _inner_metadata(annotation: Any) -> tuple:
    """Marks of the members of a union, such as those of ``Length`` in ``Length | None``."""
    found: tuple = getattr(annotation, "__metadata__", ())
    if get_origin(annotation) in (Union, types.UnionType):
        for part in get_args(annotation):
            found = (*found, *_inner_metadata(part))
    return found


def _bare(annotation: Any) -> Any:
    """An annotation without its marks, the members of a union too."""
    if hasattr(annotation, "__metadata__"):
        return _bare(annotation.__origin__)
    if get_origin(annotation) in (Union, types.UnionType):
        return Union[tuple(_bare(part) for part in get_args(annotation))]  # noqa: UP007 - made from parts
    return annotation
