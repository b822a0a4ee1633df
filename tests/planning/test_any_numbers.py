"""Whatever number a field of a shot takes, a plan answers with finite numbers, soon, and says what cannot be."""

import math

import pytest
from pydantic import ValidationError

from just_plane.contract.words import problems
from just_plane.planning.plan import plan_shot
from just_plane.planning.stack_numbers import numbers_of as numbers_for_run

EDGES = [5e-324, 1e-7, 1.1e-6, 50.0, 1e5]
"""The least that a float holds, about the least that counts as something, one in the middle, and a hundred metres."""


def numbers_of(document, place=""):
    """Pointers of the numbers, and of what may be one: a null may."""
    if isinstance(document, dict):
        for name, value in document.items():
            yield from numbers_of(value, f"{place}/{name}")
    elif isinstance(document, list):
        for index, value in enumerate(document[:2]):
            yield from numbers_of(value, f"{place}/{index}")
    elif document is None or (isinstance(document, int | float) and not isinstance(document, bool)):
        yield place


@pytest.mark.parametrize("name", ["cut", "sugar", "foil"])
@pytest.mark.parametrize("edge", EDGES)
def test_a_shot_with_any_one_number_at_an_edge_is_planned_or_refused(catalogue, changed, name, edge):
    planned = 0
    for pointer in numbers_of(catalogue[name].model_dump()):
        try:
            shot = changed(catalogue[name], {pointer: edge})
        except ValidationError:
            continue
        # An answer that holds an infinite number is none: building it would fail. Nor is what a run takes along.
        numbers_for_run(shot, plan_shot(shot))
        planned += 1
    assert planned > 10


def test_a_subject_that_hardly_moves_allows_any_shutter(pod, changed):
    plan = plan_shot(changed(pod, {"/subject/moves_mm_s": 1e-6, "/subject/hold_still_s": 60.0}))
    assert all(way.steady is None or math.isfinite(way.steady.subject_s) for way in plan.ways)


@pytest.mark.parametrize(
    ("name", "numbers"),
    [
        # Hardly sharp to the eye and flying past; so slow and so small that an exposure lasts for ages.
        ("cut", {"/subject/moves_mm_s": 1e5, "/picture/viewing_distance_mm": 1.0, "/body/sensor_width_mm": 2.5}),
        ("praline", {"/subject/moves_mm_s": 1e-7, "/framing": {"by": "magnification", "magnification": 1e-7}}),
        ("praline", {"/light/flash_guide_number_m": 0.1, "/light/flash_distance_mm": 1e-7}),
        ("praline", {"/light/flash_guide_number_m": 1000.0, "/light/flash_distance_mm": 1e5}),
    ],
)
def test_numbers_at_their_edges_together_are_planned_too(catalogue, changed, name, numbers):
    assert plan_shot(changed(catalogue[name], numbers)).verdict is not None


@pytest.mark.parametrize(
    ("pointer", "value", "sentence"),
    [
        # Every click is looked at: of a hundredth of a degree there would be eighteen thousand.
        ("/rig/0/gear/click_apart_deg", 0.01, "must be 0.1"),
        ("/picture/share_of_frame", 1e-5, "must be 0.001"),
        ("/subject/moves_mm_s", 5e-324, "must be more than 0"),
        ("/picture/viewing_distance_mm", 0.5, "must be 1 mm or more"),
        ("/body/sensor_width_mm", 0.05, "must be 0.1 mm or more"),
        ("/light/flash_guide_number_m", 0.05, "must be 0.1"),
        # Pictures of a strip would take all memory there is.
        ("/body/sensor_height_mm", 1e5, "The longer side may be at most 10 times the shorter."),
        ("/body/sensor_width_mm", 2.0, "The longer side may be at most 10 times the shorter."),
    ],
)
def test_what_is_too_small_to_be_is_refused_at_its_field(pod, changed, pointer, value, sentence):
    with pytest.raises(ValidationError) as refused:
        changed(pod, {pointer: value})
    (said,) = problems(refused.value)
    assert said.field.replace("height", "width") == pointer.replace("height", "width")
    assert sentence in said.message
