"""What trials measured takes the place of what is assumed, and the plan says so."""

import pytest

from just_plane.contract.gear import Support
from just_plane.contract.measured import FocusUnit, MeasuredStill, MeasuredTimes
from just_plane.contract.shot import Standing
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.plan import plan_shot

DAY = "3 May 2026"


def with_body(shot, **measured):
    return shot.model_copy(update={"body": shot.body.model_copy(update=measured)})


def exposed(shot, seconds):
    """The same shot with a metered shutter that makes its exposure so long at f/8."""
    light = shot.light.model_copy(update={"read": True, "metered_shutter_s": seconds, "metered_f_number": 8.0})
    return shot.model_copy(update={"light": light, "aperture": shot.aperture.model_copy(update={"f_number": 8.0})})


def rail(plan):
    return next(way for way in plan.ways if way.id == "rail")


def said(plan, code):
    return [finding.message for finding in plan.findings if finding.code == code]


@pytest.fixture
def pod():
    return demo_shots()[1]


def test_a_dark_frame_doubles_only_exposures_that_are_long_enough(pod):
    times = MeasuredTimes(dark_frame=True, write_s=0.7, measured_on=DAY)
    for seconds in (0.25, 4.0):
        shot = exposed(pod, seconds)
        shot = shot.model_copy(update={"stack": shot.stack.model_copy(update={"recovery_s": 1.0, "settle_s": 2.0})})
        plan = plan_shot(with_body(shot, measured_times=times))
        exposure = plan.light.shutter_s
        each = 2.0 + exposure * (2 if exposure >= 1 else 1) + 0.7
        assert rail(plan).time_s == pytest.approx(rail(plan).stack.frames * each, rel=1e-6)
        assert "a dark frame as long follows" in said(plan, "measured.times")[0]
        assert DAY in said(plan, "measured.times")[0]


def test_what_was_typed_is_meant_and_only_what_was_assumed_gives_way(pod):
    times = MeasuredTimes(dark_frame=False, write_s=0.7, measured_on=DAY)
    typed = pod.model_copy(update={"stack": pod.stack.model_copy(update={"recovery_s": 6.0, "noise_reduction": True})})
    with_trial, without = (plan_shot(each) for each in (with_body(typed, measured_times=times), typed))
    assert rail(with_trial).time_s == rail(without).time_s


def test_a_hand_that_was_tried_takes_the_place_of_the_rule_of_the_hand(pod):
    held = exposed(pod, 1 / 60)
    held = held.model_copy(update={"steadiness": held.steadiness.model_copy(update={"held": "hand"})})
    plain = plan_shot(held)
    m, focal = plain.reach.magnification, 100.0
    tried = MeasuredStill(shutter_s=1 / 15, magnification=m, focal_length_mm=None, measured_on=DAY)
    here = plan_shot(with_body(held, measured_by_hand=tried))
    one = next(way for way in here.ways if way.id == "one")
    assert one.steady.hand_s == pytest.approx(1 / 15)
    # At half the size the picture of a movement grows with 1 + m: the rule of the hand carries it over.
    other = tried.model_copy(update={"magnification": m / 2})
    there = next(way for way in plan_shot(with_body(held, measured_by_hand=other)).ways if way.id == "one")
    assert there.steady.hand_s == pytest.approx((1 + m / 2) / (1 + m) / 15)
    assert focal
    assert "carried over" in said(plan_shot(with_body(held, measured_by_hand=other)), "measured.hand")[0]


def test_a_support_that_was_tried_stands_against_longer_shutters(pod):
    shot = exposed(pod, 8.0)
    m = plan_shot(shot).reach.magnification
    tried = MeasuredStill(shutter_s=0.5, magnification=m, measured_on=DAY)
    stand = Standing(gear=Support(kind="support", name="copy stand", measured_still=tried), from_axis_deg=None)
    plan = plan_shot(shot.model_copy(update={"on_set": [*shot.on_set, stand]}))
    one = next(way for way in plan.ways if way.id == "one")
    assert one.steady.support_s == pytest.approx(0.5)
    assert any("on this support no longer than" in each for each in one.against)
    assert "stays sharp on" in said(plan, "measured.support")[0]
    assert not said(plan_shot(shot), "measured.support")


def test_the_cameras_own_focus_steps_are_told_for_a_stack_by_ring(pod):
    def ring(plan):
        return next(way for way in plan.ways if way.id == "ring")

    plain = ring(plan_shot(pod))
    assert plain.stack.camera_words == ""
    m = plan_shot(pod).reach.magnification
    # Tried at a size 1.2 times larger: the same unit moves 1.44 times as far here.
    unit = FocusUnit(trial_id="t", magnification=1.2 * m, f_number=None, mm=plain.stack.step_mm / 6, measured_on=DAY)
    rig = [
        piece.model_copy(update={"gear": piece.gear.model_copy(update={"focus_units": [unit]})})
        if piece.gear.kind == "lens"
        else piece
        for piece in pod.rig
    ]
    told = ring(plan_shot(pod.model_copy(update={"rig": rig}))).stack.camera_words
    assert "focus step to 4 units" in told  # 6 / 1.44 = 4.2
    assert DAY in told
    coarse = unit.model_copy(update={"mm": plain.stack.step_mm * 3})
    rig = [
        piece.model_copy(update={"gear": piece.gear.model_copy(update={"focus_units": [coarse]})})
        if piece.gear.kind == "lens"
        else piece
        for piece in pod.rig
    ]
    assert "coarser than" in ring(plan_shot(pod.model_copy(update={"rig": rig}))).stack.camera_words
