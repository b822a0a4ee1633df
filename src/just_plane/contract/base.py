"""What all models of the contract have in common: nothing unknown, nothing endless, nothing guessed."""

from functools import cache
from typing import Annotated

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field


class Model(BaseModel):
    """Refuses unknown fields, NaN and infinity, and text where a number belongs."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, strict=True, frozen=True)

    @classmethod
    def model_json_schema(cls, *args, **kwargs):
        """The schema; kept once made, because the web framework asks for a query's at every request."""
        if args or kwargs:
            return super().model_json_schema(*args, **kwargs)
        return _plain_schema(cls)


@cache
def _plain_schema(model):
    return BaseModel.model_json_schema.__func__(model)  # type: ignore[attr-defined]


class Answer(BaseModel):
    """What the program says; built by itself, so not validated twice."""

    model_config = ConfigDict(allow_inf_nan=False, frozen=True)


TINIEST = 1e-7
"""Under this a number counts as nothing: an atom is as wide in millimetres, no shutter is as short in seconds. The
quotient of smaller ones is none that the core takes for a number."""


def _nothing_if_tiny(number):
    return 0.0 if isinstance(number, float) and abs(number) < TINIEST else number


_Measured = BeforeValidator(_nothing_if_tiny)

# The bounds are those of the job with a wide margin: an atom to a hundred metres, a tenth of a microsecond to a week.
# Inside them every formula of the core stays finite.
Length = Annotated[float, Field(gt=0, le=100_000), _Measured]
LengthOrZero = Annotated[float, Field(ge=0, le=100_000), _Measured]
Seconds = Annotated[float, Field(gt=0, le=604_800), _Measured]
SecondsOrZero = Annotated[float, Field(ge=0, le=604_800), _Measured]
Speed = Annotated[float, Field(gt=0, le=100_000), _Measured]
"""In mm a second."""
FNumber = Annotated[float, Field(ge=0.5, le=256)]
LARGEST_RATIO = 1000.0
Ratio = Annotated[float, Field(gt=0, le=LARGEST_RATIO), _Measured]


def _names_something(path):
    if "\0" in path:
        raise ValueError("No file or folder has the sign with the number 0 in its name.")
    return path


PathName = Annotated[str, Field(max_length=4000), AfterValidator(_names_something)]
"""Of a file or a folder, by which a disk can be asked for it."""
