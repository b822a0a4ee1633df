"""One's own set: the shot's points before its own lens, judged by rays; the plan's answer in the plan's own words."""

import math

import numpy as np
import pytest

from just_plane.contract.shot import Shot
from just_plane.core.plane import wedge_blur
from just_plane.core.practice.drill import Setting, held, start_of
from just_plane.core.practice.hands import best_setting, edges, near_then_far
from just_plane.core.practice.score import judge
from just_plane.core.practice.seeing import blurs, places_seen, worst_blur
from just_plane.core.practice.words import hint, saw
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.plan import plan_shot
from just_plane.planning.setup.setup import make_setup
from just_plane.practice.drills import drill_answer
from just_plane.practice.own import NoOwnSetError, own_of


@pytest.fixture(scope="module")
def tray():
    return demo_shots()[0]


def changed(shot, change):
    body = shot.model_dump(mode="json")
    change(body)
    return Shot.model_validate(body)


def lens_with(shot, **more):
    def change(body):
        for piece in body["rig"]:
            if piece["gear"]["kind"] == "lens":
                piece["gear"].update(more)

    return changed(shot, change)


@pytest.mark.parametrize("index", [0, 5])
def test_the_plans_answer_in_clicks_makes_every_point_sharp_and_its_words_are_the_plans(index):
    shot = demo_shots()[index]
    own = own_of(shot, 3)
    assert (blurs(own.drill, own.planned) <= own.drill.gear.circle).all()
    assert [step.words for step in own.steps] == plan_shot(shot).plane.steps
    last = own.steps[-1].setting
    assert Setting(**last.model_dump()) == own.planned
    assert judge(own.drill, [own.planned], 3).score > 90
    assert "sharp" in judge(own.drill, [own.planned], 3).said


def test_blur_of_a_point_is_that_of_its_rays_through_the_rig(tray):
    shot = lens_with(tray, pivot_behind_node_mm=0.0)
    own, setup = own_of(shot, 1), make_setup(shot)
    drill = own.drill
    setting = Setting(focus=7, tilt=45, turn=-20, stop=0)
    lens, knobs = setup.plane.lens, {knob.name: knob for knob in drill.knobs}
    tilt, azimuth = math.radians(4.5), math.pi / 2 - 20 * knobs["turn"].click
    z0 = setup.plane.laid.wanted.z0
    image = lens.focal_length * z0 / (z0 - lens.focal_length) + 7 * knobs["focus"].click
    expected = wedge_blur(
        lens.focal_length,
        setup.stop.effective_f_number / (lens.scale_behind * (1 + lens.magnification)),
        type(setup.plane.laid.setting)(tilt, azimuth, image),
        setup.plane.cloud.sharp,
    )
    assert blurs(drill, setting) == pytest.approx(expected, rel=1e-6)


def test_points_are_seen_where_they_were_placed_and_the_surface_runs_through_them(tray):
    own = own_of(tray, 1)
    setup = make_setup(tray)
    placed = setup.plane.cloud.places[setup.plane.cloud.asked]
    assert np.abs(places_seen(own.drill, start_of(own.drill)) - placed).max() < 0.05
    scene = own.scene
    rows, columns = scene.relief.shape
    for place in own.drill.places:
        row = round((rows - 1) / 2 - place.y / scene.texel)
        column = round(place.x / scene.texel + (columns - 1) / 2)
        z = scene.distance + scene.slope_x * place.x + scene.slope_y * place.y + scene.relief[row, column]
        assert z == pytest.approx(place.z, abs=0.3)


def test_a_lens_with_less_tilt_than_the_set_asks_for_says_how_near_it_comes_before_it_starts(tray):
    shot = lens_with(tray, tilt_deg=2.0)
    own = own_of(shot, 1)
    told = drill_answer(own.drill)
    assert max(abs(click) for click in (own.planned.tilt, best_setting(own.drill).tilt)) <= 20
    sharp = int((blurs(own.drill, best_setting(own.drill)) <= own.drill.gear.circle).sum())
    assert not told.reaches
    assert f"{sharp} of 6 points" in told.nearest


def test_a_lens_that_does_not_tilt_is_focused_between_the_ends(tray):
    own = own_of(lens_with(tray, tilt_deg=0.0), 1)
    assert [knob.name for knob in own.drill.knobs] == ["focus"]
    near, far = edges(own.drill, own.planned)
    click = own.drill.gear.circle / 4
    assert near == pytest.approx(far, abs=2 * click)
    assert worst_blur(own.drill, own.planned) > own.drill.gear.circle
    assert "does not tilt" in own.steps[0].words
    assert "Focus" in hint(own.drill, start_of(own.drill)) or "press" in hint(own.drill, start_of(own.drill))


def test_hints_and_what_was_seen_name_the_shots_own_points(tray):
    own = own_of(tray, 2)
    names = {point.name for point in tray.plane.points}
    away = start_of(own.drill)._replace(focus=own.drill.knob("focus").high)
    told = saw(own.drill, away, own.planned)
    assert told == "Both ends came up." or any(name in told.lower() for name in names)
    near = min(own.drill.places, key=lambda place: place.z).name
    assert hint(own.drill, away._replace(turn=own.planned.turn)) == f"Focus on {near}."
    assert "press" in hint(own.drill, own.planned)


def test_a_good_hand_gets_there_and_a_blind_one_is_worth_little(tray):
    scores = []
    for seed in range(12):
        drill = own_of(tray, seed).drill
        moves, end = near_then_far(drill)
        assert judge(drill, [end], len(moves)).score >= 70
        made, setting = np.random.default_rng(seed), start_of(drill)
        for _ in range(10):
            knob = drill.knobs[made.integers(len(drill.knobs))]
            setting = setting._replace(**{knob.name: int(made.integers(knob.low, knob.high + 1))})
        scores.append(judge(drill, [held(drill, setting)], 10).score)
    assert np.mean(scores) < 20


def test_a_shot_without_enough_points_says_what_is_wanted(tray):
    few = changed(tray, lambda body: body["plane"].update(points=body["plane"]["points"][:2]))
    with pytest.raises(NoOwnSetError, match="2 of the three points") as refused:
        own_of(few, 1)
    assert "Plane station" in refused.value.remedy
    broken = changed(tray, lambda body: body.update(rig=[]))
    with pytest.raises(NoOwnSetError):
        own_of(broken, 1)


def test_where_light_itself_blurs_too_much_there_is_nothing_to_practise(tray):
    """At f/32 and half life size a detail of 0.02 mm on the sensor is past what diffraction passes."""
    soft = changed(tray, lambda body: (body["aperture"].update(f_number=32.0), body["picture"].update(width_mm=2000.0)))
    with pytest.raises(NoOwnSetError, match="At f/32 light itself blurs more than counts as sharp") as refused:
        own_of(soft, 1)
    assert "Open up" in refused.value.remedy
