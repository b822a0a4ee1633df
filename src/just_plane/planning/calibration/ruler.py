"""Calibration in the contract's terms: ticks in a frame, the size they give, a lens measured with two tubes."""

import math
from dataclasses import replace

import numpy as np

from just_plane.contract.base import LARGEST_RATIO
from just_plane.contract.ruler import RulerAnswer, SizeAnswer, TwoTubesAnswer
from just_plane.contract.shot import MeasuredSize
from just_plane.core.calibration import (
    Measured,
    focal_length_from_two_tubes,
    magnification_from_ruler,
    pupil_magnification_from_exposure,
)
from just_plane.core.errors import OpticsError
from just_plane.core.frames.ruler import find_ruler
from just_plane.core.frames.ruler_picture import ruler_picture
from just_plane.planning.rig.rigging import build_rig, rig_asked, rig_key, sensor
from just_plane.planning.words.findings import RefusedError, caution, note, refused, trouble
from just_plane.planning.words.numbers import Wording, times

NOTABLE_DRIFT = 0.01
SMALLEST_RATIO = 1e-6
"""A frame of kilometres: nobody measures smaller with a ruler."""
PRACTICE_PIXELS = 1800
PRACTICE_TICK_MM = 1.0


def ruler_in(brightness, facts):
    """The ticks found in a picture, or a finding that says why not: RulerAnswer."""
    said = []
    if facts.full_width_px is not None and facts.full_width_px > 1.02 * max(facts.width_px, facts.height_px):
        said.append(
            note(
                "picture.made_smaller",
                "/picture",
                f"The camera noted {facts.full_width_px} pixels; the file has {max(facts.width_px, facts.height_px)}.",
                "Made smaller is fine; cropped is not: the size is reckoned from the whole frame.",
            )
        )
    try:
        ruler = find_ruler(brightness)
    except OpticsError as error:
        said.append(refused(error, "/picture", Wording()))
        return RulerAnswer(
            picture=facts,
            spacing_px=None,
            uncertainty_px=None,
            angle_deg=None,
            ticks=0,
            marks_px=[],
            findings=said,
        )
    if abs(ruler.drift) > NOTABLE_DRIFT:
        said.append(
            caution(
                "ruler.not_square",
                "/picture",
                f"The ticks change by {abs(ruler.drift):.1%} from one end to the other: the ruler does not lie square "
                "to the camera.",
                "Lay it square, or take the size as of its middle.",
            )
        )
    return RulerAnswer(
        picture=facts,
        spacing_px=ruler.spacing,
        uncertainty_px=ruler.spacing_uncertainty,
        angle_deg=math.degrees(ruler.angle),
        ticks=len(ruler.marks),
        marks_px=[[round(float(value), 2) for value in mark] for mark in ruler.marks],
        findings=said,
    )


def size_from(asked):
    """The size on the sensor from a length on the frame: SizeAnswer.

    Raises RefusedError, at a field of what was asked, when the rig has no model or no length on its frame gives that.
    """
    shot, said = asked.shot, []
    try:
        modelled = build_rig(rig_asked(shot), Wording())
    except RefusedError as error:
        raise RefusedError(error.finding.model_copy(update={"field": f"/shot{error.finding.field}"})) from error
    _refuse_what_no_frame_shows(asked)
    area = sensor(shot)
    long, short = max(area.width, area.height), min(area.width, area.height)
    wide, narrow = (
        max(asked.picture_width_px, asked.picture_height_px),
        min(asked.picture_width_px, asked.picture_height_px),
    )
    if abs(wide / narrow / (long / short) - 1) > 0.02:
        said.append(
            caution(
                "picture.cropped",
                "/picture",
                f"The picture is {wide / narrow:.2f} to 1, the sensor {long / short:.2f} to 1: it seems to be cropped.",
                "Send the whole frame, or choose the crop mode that was set; else the size comes out wrong.",
            )
        )
    noted, marked = asked.noted_focal_length_mm, modelled.lens.core.focal_length_now
    if noted is not None and not 0.85 < noted / marked < 1.18:
        said.append(
            caution(
                "picture.other_lens",
                "/picture",
                f"The camera noted {noted:g} mm; the lens of this rig has {marked:g} mm.",
                "Was it taken with this rig? Cameras note wrongly behind rings and bellows; then pay no heed.",
            )
        )
    value = magnification_from_ruler(asked.span_px, asked.span_uncertainty_px, long / wide, asked.real_mm)
    if not SMALLEST_RATIO <= value.value <= LARGEST_RATIO:
        raise RefusedError(
            trouble(
                "measured.no_size",
                "/real_mm",
                f"That length on this frame would be a size of {times4(value.value)}; "
                f"what is measured lies between {times4(SMALLEST_RATIO)} and {times4(LARGEST_RATIO)}.",
                "Is the length in the unit that is shown, and between the same two marks?",
            )
        )
    model = _model_alone(modelled)
    ratio = value.value / model
    if not 0.8 < ratio < 1.25:
        said.append(
            caution(
                "measured.far_from_model",
                "/real_mm",
                f"That is {ratio:.2f} times what the model gives ({times(model)}).",
                "Is the distance between the ticks right, and is it this rig at this setting?",
            )
        )
    measured = MeasuredSize(magnification=value.value, uncertainty=value.uncertainty, modelled=model)
    off = (ratio - 1) * 100
    words = (
        f"{times4(value.value)} ± {value.uncertainty / value.value * 100:.2g} %, the model says {times4(model)}: "
        f"{abs(off):.1f} % {'more' if off > 0 else 'less'}."
    )
    return SizeAnswer(
        measured=measured,
        frame_width_mm=area.width / value.value,
        rig=rig_key(shot),
        words=words,
        findings=said,
    )


def _refuse_what_no_frame_shows(asked):
    """A span longer than the picture, or one that could as well be none."""
    diagonal = math.hypot(asked.picture_width_px, asked.picture_height_px)
    if asked.span_px > diagonal:
        raise RefusedError(
            trouble(
                "measured.beyond_picture",
                "/span_px",
                f"The picture is {diagonal:.0f} pixels from corner to corner; got a length of {asked.span_px:g} on it.",
                "Measure between two marks that both lie in the picture.",
            )
        )
    if asked.span_uncertainty_px >= asked.span_px:
        raise RefusedError(
            trouble(
                "measured.too_uncertain",
                "/span_uncertainty_px",
                f"A length of {asked.span_px:g} pixels that is uncertain by {asked.span_uncertainty_px:g} is none.",
                "Measure over more ticks, or mark them more finely.",
            )
        )


def _model_alone(made):
    """What the model gives by itself where the rig is set now: an earlier measurement has set it, but is not in it."""
    return float(replace(made.rig, size_correction=1.0).magnification())


def times4(magnification):
    """A measured size with one digit more than a modelled one."""
    return f"{magnification:.4g}×"


def two_tubes(asked):
    """Focal length and pupil magnification at work: TwoTubesAnswer. Raises OpticsError."""
    first = Measured(asked.first.magnification, asked.first.uncertainty)
    second = Measured(asked.second.magnification, asked.second.uncertainty)
    focal_length = focal_length_from_two_tubes(asked.first.extension_mm, first, asked.second.extension_mm, second)
    pupil, said = None, []
    if asked.stops_longer is not None:
        stops = Measured(abs(asked.stops_longer), asked.stops_uncertainty)
        near, far = sorted((first, second))
        try:
            pupil = pupil_magnification_from_exposure(near, far, stops)
        except OpticsError as error:
            said.append(refused(error, "/stops_longer", Wording()))
        else:
            if pupil.uncertainty > 0.3 * pupil.value:
                said.append(
                    caution(
                        "pupil.uncertain",
                        "/stops_longer",
                        f"Known to ± {pupil.uncertainty / pupil.value:.0%} only.",
                        "Meter more finely, or use tubes that differ more.",
                    )
                )
    return TwoTubesAnswer(
        focal_length_mm=focal_length.value,
        focal_length_uncertainty_mm=focal_length.uncertainty,
        pupil_magnification=None if pupil is None else pupil.value,
        pupil_uncertainty=None if pupil is None else pupil.uncertainty,
        findings=said,
    )


def practice_frame(shot, off=0.017, seed=7):
    """A made-up frame of a ruler through a shot's rig, whose true size is a little off the model's: brightness, mm
    between its ticks. None where the rig gives no picture."""
    try:
        made = build_rig(rig_asked(shot), Wording())
    except RefusedError:
        return None
    area = sensor(shot)
    size = _model_alone(made) * (1 + off)
    height = round(PRACTICE_PIXELS * area.height / area.width)
    pixels_per_mm = PRACTICE_PIXELS / area.width * size
    tick = PRACTICE_TICK_MM
    while tick * pixels_per_mm < 14 and tick < 100:
        tick *= 10
    while tick * pixels_per_mm > 140 and tick > 0.002:
        tick /= 10
    picture = ruler_picture(
        PRACTICE_PIXELS,
        height,
        tick * pixels_per_mm,
        angle=math.radians(4),
        offset=0.3,
        blur=1.2,
        noise=0.02,
        uneven=0.25,
        generator=np.random.default_rng(seed),
    )
    return picture, tick
