"""What all models of the contract have in common: nothing unknown, nothing endless, nothing guessed."""

from functools import cache
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field


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


# The bounds are those of the job with a wide margin: a tenth of a micrometre to a hundred metres, a microsecond to a
# week. Inside them every formula of the core stays finite.
Length = Annotated[float, Field(gt=0, le=100_000)]
LengthOrZero = Annotated[float, Field(ge=0, le=100_000)]
Seconds = Annotated[float, Field(gt=0, le=604_800)]
SecondsOrZero = Annotated[float, Field(ge=0, le=604_800)]
FNumber = Annotated[float, Field(ge=0.5, le=256)]
Ratio = Annotated[float, Field(gt=0, le=1000)]
