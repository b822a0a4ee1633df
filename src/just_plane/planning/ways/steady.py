"""What movement and the background mean for a way: longest shutters, settling, softness behind."""

import math

import numpy as np

from just_plane.contract.plan import SteadyAnswer
from just_plane.core.background import background_blur
from just_plane.core.errors import OpticsError
from just_plane.core.motion import longest_shutter_by_hand, longest_shutter_for_subject, settling_needed
from just_plane.core.units import UM_PER_MM
from just_plane.planning.setup.exposure import shutter
from just_plane.planning.setup.measured import by_hand_as_tried, on_support_as_tried
from just_plane.planning.words.numbers import seconds

FULL_WIDTH = 36.0
"""Sensor width, mm, for which the rule of the hand was made."""


def steady(setup, item):
    """What movement and background mean for one way (Setup, Compared): SteadyAnswer."""
    shot, area = setup.shot, setup.area
    magnification, circle = setup.view.magnification, setup.circle
    if item.back_off is not None:
        magnification, circle = item.back_off.magnification, circle / item.back_off.factor
    held, moves = shot.steadiness, shot.subject.moves_mm_s
    by_hand = None
    if held.held == "hand":
        focal = setup.rigged.rig.lens.focal_length_now
        crop = FULL_WIDTH / max(area.width, area.height)
        by_hand = by_hand_as_tried(shot, focal, crop, magnification)
        if by_hand is None:
            by_hand = longest_shutter_by_hand(focal, crop, magnification, held.stabiliser_stops)
    settle = None
    if item.way.frames > 1 and item.way.kind == "rail" and held.rail_swings_um is not None:
        settle = settling_needed(held.rail_swings_um / UM_PER_MM, held.rail_calms_s, magnification, circle)
    softness = _background(setup, item)
    factor = item.back_off.factor if item.back_off is not None else 1.0
    exposure = float(shutter(shot.light, item.way.f_number, setup.rigged.imaging))
    if item.back_off is not None:
        # Less is lost to extension from there.
        here = float(setup.rigged.imaging.effective_f_number(item.way.f_number))
        exposure *= (item.way.effective_f_number / here) ** 2
    return SteadyAnswer(
        shutter_s=exposure,
        subject_s=None if moves is None else longest_shutter_for_subject(moves, magnification, circle),
        hand_s=by_hand,
        support_s=None if held.held == "hand" else on_support_as_tried(shot, magnification),
        settle_s=settle,
        background_um=None if softness is None else softness * UM_PER_MM,
        background_share=None if softness is None else softness * factor / area.width,
    )


def _background(setup, item):
    """Blur of the background on the sensor, mm; of a stack that of the frame focused farthest."""
    behind = setup.shot.subject.background_mm
    if behind is None or not item.way.frames:
        return None
    place = setup.depth + behind
    if item.id in ("tilt", "tilt_best", "tilt_rail", "tilt_ring", "strip"):
        return _behind_tilted(setup, item, place)
    view, way = setup.view, item.way
    from_focus = max(place - max(way.focuses), 0.0)
    if item.back_off is not None:
        back = item.back_off
        return float(background_blur(back.magnification, back.entrance_pupil_mm, way.effective_f_number, from_focus))
    return float(background_blur(view.magnification, view.pupil_distance, way.effective_f_number, from_focus))


def _behind_tilted(setup, item, place):
    """On the axis: the wedge leaves a background as far off as its plane is there."""
    plane = setup.plane
    setting = item.setting
    if setting is None:
        return None
    try:
        point = np.array([[0.0, 0.0, plane.cloud.nearest + place]])
        blur = abs(float(plane.lens.blur(setting, point, item.way.effective_f_number)[0]))
    except OpticsError:
        return None
    return blur if math.isfinite(blur) else None


def against(setup, answer):
    """What a rail that still swings has against a way: list of clauses."""
    said = []
    if answer.settle_s is not None and answer.settle_s > setup.shot.stack.settle_s:
        said.append(f"the rail swings for {seconds(answer.settle_s)}; it is given {seconds(setup.shot.stack.settle_s)}")
    return said
