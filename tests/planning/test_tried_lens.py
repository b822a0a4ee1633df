"""A lens whose stops were measured: its numbers win over the model near that size, everywhere alike."""

import math

import pytest

from just_plane.contract.measured import TriedAt
from just_plane.core.contrast import contrast
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.plan import plan_shot
from just_plane.planning.setup.tried import tried_stops


@pytest.fixture
def praline():
    return next(shot for shot in demo_shots() if shot.name.startswith("Praline"))


def trial(size, spreads, day="3 May"):
    stops = [{"f_number": n, "spread_mm": spread} for n, spread in spreads.items()]
    return TriedAt.model_validate({"trial_id": "t", "magnification": size, "measured_on": day, "stops": stops})


def lens_place(shot):
    return next(k for k, placed in enumerate(shot.rig) if placed.gear.kind in ("lens", "zoom"))


def with_trials(shot, *trials):
    k = lens_place(shot)
    rig = list(shot.rig)
    rig[k] = rig[k].model_copy(update={"gear": rig[k].gear.model_copy(update={"tried": list(trials)})})
    return shot.model_copy(update={"rig": rig})


SOFT_OPEN = {2.8: 0.03, 4: 0.025, 5.6: 0.02, 8: 0.0, 11: 0.0, 22: 0.0}


def test_a_lens_that_is_soft_wide_open_is_stopped_down_by_the_plan(praline):
    shallow = praline.subject.model_copy(update={"depth_mm": 0.2})
    praline = praline.model_copy(update={"subject": shallow})
    size = plan_shot(praline).reach.magnification
    before = plan_shot(praline).aperture
    after = plan_shot(with_trials(praline, trial(size, SOFT_OPEN))).aperture
    assert before.best_f_number < 8 <= after.best_f_number
    assert "by your trial of 3 May" in after.best_words
    assert "trial" not in before.best_words
    by_stop = {stop.f_number: stop.perfect_contrast for stop in before.stops}
    for stop in after.stops:
        assert stop.perfect_contrast <= by_stop[stop.f_number] + 1e-12
        if stop.f_number >= 8:
            assert stop.perfect_contrast == pytest.approx(by_stop[stop.f_number])


def test_every_way_loses_by_the_same_share(praline):
    praline = praline.model_copy(update={"sharp": praline.sharp.model_copy(update={"depth_school": "geometric"})})
    plan = plan_shot(praline)
    after = plan_shot(with_trials(praline, trial(plan.reach.magnification, {1: 0.006, 32: 0.006})))
    circle = plan.sharpness.circle_um / 1000
    share = math.exp(-2 * (math.pi * 0.006 / circle) ** 2)
    before = {way.id: way for way in plan.ways if way.frames}
    seen = 0
    for way in after.ways:
        if way.id in ("rail", "ring") and way.id in before and way.focuses_mm == before[way.id].focuses_mm:
            assert way.worst_contrast == pytest.approx(share * before[way.id].worst_contrast, rel=1e-6)
            seen += 1
    assert seen


def test_the_contrast_school_leaves_less_depth_for_a_soft_lens(praline):
    praline = praline.model_copy(update={"sharp": praline.sharp.model_copy(update={"depth_school": "contrast"})})
    plan = plan_shot(praline)
    soft = plan_shot(with_trials(praline, trial(plan.reach.magnification, {1: 0.006, 32: 0.006})))
    for before, after in zip(plan.aperture.stops, soft.aperture.stops, strict=True):
        assert after.depth_of_field_mm <= before.depth_of_field_mm
    assert soft.aperture.stops[0].depth_of_field_mm < plan.aperture.stops[0].depth_of_field_mm
    # At the edge of what is left the soft lens has just the contrast that counts as sharp.
    stop, m = soft.aperture.stops[0], plan.reach.magnification
    circle = plan.sharpness.circle_um / 1000
    blur = stop.depth_of_field_mm / 2 * m * m / stop.effective_f_number
    share = math.exp(-2 * (math.pi * 0.006 / circle) ** 2)
    left = share * contrast(1 / circle, stop.effective_f_number, blur)
    assert left == pytest.approx(praline.sharp.contrast_threshold, abs=0.01)


def test_far_from_its_size_a_trial_says_nothing(praline):
    size = plan_shot(praline).reach.magnification
    for far in (size * 1.5, size / 1.5):
        plan = plan_shot(with_trials(praline, trial(far, SOFT_OPEN)))
        assert plan == plan_shot(praline)


def test_between_two_trials_the_spread_is_log_linear_in_the_size(praline):
    lens = with_trials(praline, trial(0.5, {8: 0.002}), trial(2.0, {8: 0.006}, "4 May")).rig[lens_place(praline)].gear
    found = tried_stops(lens, 1.0, (8.0,), 0.03)
    assert found.share[0] == pytest.approx(math.exp(-2 * (math.pi * 0.004 / 0.03) ** 2))
    assert tried_stops(lens, 1.9, (8.0,), 0.03).said == "by your trial of 4 May"
