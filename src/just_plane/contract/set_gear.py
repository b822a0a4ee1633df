"""Gear that stands on the set beside the camera: rails, lights, diffusers, supports."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Length, LengthOrZero
from just_plane.contract.measured import MeasuredStill
from just_plane.contract.piece import Grams, Piece


class Rail(Piece):
    """A focusing rail."""

    kind: Literal["rail"]
    travel_mm: Annotated[Length, Field(title="Travel")]
    smallest_step_mm: Annotated[
        Length | None, Field(title="Smallest step", description="null: one division of its knob.")
    ] = None
    mm_per_turn: Annotated[Length | None, Field(title="A turn moves")] = None
    divisions: Annotated[
        int | None, Field(title="Divisions a turn", ge=1, le=100_000, description="Marks on the knob a turn.")
    ] = None
    backlash_mm: Annotated[LengthOrZero, Field(title="Play")] = 0.0
    driven: Annotated[Literal["hand", "motor"], Field(title="Moved by")] = "hand"
    carries_g: Annotated[Grams | None, Field(title="Carries")] = None
    measured_mm_per_turn: Annotated[
        Length | None, Field(title="Measured, a turn", description="Measured; wins over the one given.")
    ] = None
    measured_swing_um: Annotated[
        float | None,
        Field(gt=0, le=100_000, title="Swings by, µm", description="To either side after a move; null: not measured."),
    ] = None
    measured_calms_s: Annotated[
        float | None, Field(gt=0, le=3600, title="Calms in", description="To 1/e; null: not measured.")
    ] = None


class Light(Piece):
    """A lamp or flash."""

    kind: Literal["light"]
    width_mm: Annotated[Length, Field(title="Width")]
    height_mm: Annotated[Length, Field(title="Height")]
    hot: Annotated[bool, Field(title="Gets hot", description="A lamp that gets hot.")] = False
    flash: Annotated[bool, Field(title="Flash")] = False


class Diffuser(Piece):
    """Something that spreads light: paper, film, fabric, plastic."""

    kind: Literal["diffuser"]
    width_mm: Annotated[Length, Field(title="Width")]
    height_mm: Annotated[Length, Field(title="Height")]
    thickness_mm: Annotated[LengthOrZero, Field(title="Thickness")] = 1.0
    burns: Annotated[bool, Field(title="Paper, film or fabric: can burn", description="Paper, film or fabric.")] = True


class Support(Piece):
    """A tripod, a stand, a clamp, a lens support."""

    kind: Literal["support"]
    carries_g: Annotated[Grams | None, Field(title="Carries")] = None
    measured_still: Annotated[MeasuredStill | None, Field(description="Longest shutter on it; null: not.")] = None
