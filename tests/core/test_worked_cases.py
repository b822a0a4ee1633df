"""Every worked value agrees, to the tolerance that the file states: 1e-6 relative, 1e-5 absolute for contrast."""

import json
import math
from pathlib import Path

import pytest

from just_plane.core.aperture import airy_diameter, effective_f_number, stops_lost
from just_plane.core.contrast import contrast
from just_plane.core.data_sheet import focal_length_at_closest
from just_plane.core.depth import SCHOOLS, depth_of_field, near_far_limits
from just_plane.core.lens import Prime
from just_plane.core.pieces import CloseUpLens, Teleconverter, Tube
from just_plane.core.rig import Rig
from just_plane.core.stack import rail_stack, step_from_depth

CASES = json.loads((Path(__file__).parents[1] / "data" / "worked_cases.json").read_text())
close = pytest.approx


def each(name):
    return pytest.mark.parametrize("case", CASES[name], ids=[f"{name}-{i}" for i in range(len(CASES[name]))])


@each("effective_f_number")
def test_effective_f_number(case):
    answer = effective_f_number(case["f_number"], case["magnification"], case["pupil_magnification"])
    assert answer == close(case["answer"], rel=1e-6)
    assert stops_lost(case["f_number"], answer) == close(case["stops_lost"], rel=1e-6)


@each("airy_diameter_mm")
def test_airy_diameter(case):
    assert airy_diameter(case["effective_f_number"], case["wavelength_mm"]) == close(case["answer"], rel=1e-6)


@each("contrast")
def test_contrast(case):
    answer = contrast(
        case["spatial_frequency_per_mm"],
        case["effective_f_number"],
        case["defocus_blur_mm"],
        case["wavelength_mm"],
    )
    assert answer == close(case["answer"], abs=1e-5, rel=0)


@each("depth_of_field_mm")
@pytest.mark.parametrize("school", SCHOOLS)
def test_depth_of_field(case, school):
    answer = depth_of_field(
        school,
        case["circle_of_confusion_mm"],
        case["effective_f_number"],
        case["magnification"],
        case["wavelength_mm"],
        case["contrast_threshold"],
    )
    # The file gives six digits: 5e-6 is half the last one.
    assert answer == close(case[school], rel=1e-4 if school == "contrast" else 5e-6)


@each("near_far_limits_mm")
def test_near_far_limits(case):
    near, far = near_far_limits(
        case["focal_length_mm"],
        case["f_number"],
        case["magnification"],
        case["circle_of_confusion_mm"],
        case["pupil_magnification"],
    )
    assert near == close(case["near_of_plane"], rel=1e-6)
    assert far == close(math.inf if case["beyond_plane"] is None else case["beyond_plane"], rel=1e-6)


@each("rig")
def test_rig(case):
    chain = [
        Prime(case["focal_length_mm"], case["own_magnification"]),
        Tube(case["tube_before_converter_mm"]),
    ]
    if "close_up_dioptres" in case:
        chain.insert(0, CloseUpLens(case["close_up_dioptres"]))
    if "converter_factor" in case:
        chain.append(Teleconverter(case["converter_factor"], case["converter_thickness_mm"]))
        chain.append(Tube(case["tube_behind_converter_mm"]))
    imaging = Rig(tuple(chain)).imaging()
    assert imaging.magnification == close(case["magnification"], rel=1e-6)
    assert imaging.subject_to_first_lens == close(case["subject_to_first_lens_mm"], rel=1e-6)
    assert imaging.subject_to_sensor == close(case["subject_to_sensor_mm"], rel=1e-6)


@each("breathing")
def test_breathing(case):
    there = focal_length_at_closest(case["minimum_focus_distance_mm"], case["magnification"])
    assert there == close(case["focal_length_there_mm"], rel=1e-6)


@each("stack")
def test_stack(case):
    stack = rail_stack(case["depth_mm"], case["depth_of_field_mm"], case["overlap"])
    assert step_from_depth(case["depth_of_field_mm"], case["overlap"]) == close(case["step_mm"], rel=1e-6)
    assert (stack.steps, stack.frames) == (case["steps"], case["frames"])
