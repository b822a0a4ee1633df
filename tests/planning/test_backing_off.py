"""The way that stands back and crops, in a plan."""

import pytest

from just_plane.planning.plan import plan_shot


def back_off(shot):
    return next((way for way in plan_shot(shot).ways if way.id == "back_off"), None)


@pytest.fixture
def shallow(pod, changed):
    """A cut pod of which 2.6 mm must be sharp: too deep for f/5.6 at half life size, not for stopping down."""
    return changed(pod, {"/subject/depth_mm": 2.6})


def test_one_frame_from_farther_back_holds_all_of_it(shallow):
    plan = plan_shot(shallow)
    way = back_off(shallow)
    assert plan.ways[0].cover < 1
    assert (way.cover, way.frames, way.kind) == (1.0, 1, "one_frame")
    answer = way.back_off
    assert answer.magnification == pytest.approx(0.5 / answer.factor)
    assert answer.pixels_across == int(8256 / answer.factor)
    assert answer.room_gained_mm == pytest.approx(answer.room_mm - plan.reach.working_distance_mm)
    assert answer.room_gained_mm > 0
    assert f"{answer.factor:.2g}×" in way.title


def test_it_is_the_same_picture_as_stopping_down_from_here(shallow, changed):
    answer = back_off(shallow).back_off
    stopped = changed(shallow, {"/aperture/f_number": answer.equal_f_number})
    plan = plan_shot(stopped)
    assert plan.aperture.effective_f_number == pytest.approx(answer.equal_effective_f_number)
    # The same depth, to within what the nearer pupil changes of it.
    assert plan.ways[0].cover == pytest.approx(1.0, abs=0.01)
    assert plan.ways[0].worst_contrast == pytest.approx(back_off(shallow).worst_contrast, abs=0.01)


def test_no_less_far_would_do(shallow, changed):
    answer = back_off(shallow).back_off
    nearer = changed(shallow, {"/framing/magnification": answer.magnification * 1.03})
    cropped = changed(nearer, {"/picture/share_of_frame": answer.magnification * 1.03 / 0.5})
    assert plan_shot(cropped).ways[0].cover < 1
    there = changed(shallow, {"/framing/magnification": answer.magnification})
    cropped = changed(there, {"/picture/share_of_frame": answer.magnification / 0.5})
    assert plan_shot(cropped).ways[0].cover == pytest.approx(1.0)


@pytest.mark.parametrize("m", [0.02, 0.05, 0.2])
def test_at_a_small_size_it_goes_no_farther_back_than_it_must(shallow, changed, m):
    """Brute force: the last of many factors at which one frame from there, cropped alike, misses some of it."""
    deep = {0.02: 1000.0, 0.05: 160.0, 0.2: 11.0}[m]
    small = changed(shallow, {"/framing/magnification": m, "/subject/depth_mm": deep})
    factor = back_off(small).back_off.factor

    def covered(q):
        there = changed(small, {"/framing/magnification": m / q, "/picture/share_of_frame": 1 / q})
        return plan_shot(there).ways[0].cover

    assert 1.0 < factor < 2
    assert covered(factor) == pytest.approx(1.0, abs=1e-6)
    assert covered(1 + (factor - 1) * 0.97) < 1 - 1e-6


def test_it_takes_less_light_than_stopping_down(shallow):
    way = back_off(shallow)
    stopped = next(each for each in plan_shot(shallow).ways if each.id == "one_best")
    assert way.time_s < stopped.time_s


def test_it_is_shown_and_never_put_before_the_others(shallow, changed):
    deep = changed(shallow, {"/aperture/f_number": 4.0, "/subject/depth_mm": 2.0})
    for shot in (shallow, deep):
        way = back_off(shot)
        assert way is None or not way.recommended


def test_where_one_frame_holds_all_of_it_there_is_no_need(square_foil):
    assert back_off(square_foil) is None


@pytest.mark.parametrize(
    ("name", "values", "reason"),
    [
        ("cut", {}, "light itself blurs too much"),
        ("sugar", {}, "one size only"),
        ("praline", {}, "5.8× back, the farthest this rig focuses"),
        ("cut", {"tubes_mm": [50.0], "/framing": {"by": "magnification", "magnification": 0.5}}, "no farther back"),
    ],
)
def test_why_it_does_not_help_is_said(catalogue, changed, name, values, reason):
    way = back_off(changed(catalogue[name], values))
    assert way.frames == 0
    assert reason in way.against[0]


def test_extension_that_keeps_it_near_is_taken_out_first(catalogue, changed):
    drip = catalogue["ganache"]
    way = back_off(drip)
    answer = way.back_off
    assert answer.without == [1]
    assert "without tube 12 mm" in way.note
    assert way.cover == 1.0
    # It is the shot with the lens alone, from there.
    there = plan_shot(
        changed(
            drip,
            {
                "/rig": drip.model_dump()["rig"][:1],
                "/framing": {"by": "magnification", "magnification": answer.magnification},
                "/picture/share_of_frame": drip.picture.share_of_frame / answer.factor,
            },
        )
    )
    assert there.ways[0].cover == pytest.approx(1.0)
    assert there.ways[0].worst_contrast == pytest.approx(way.worst_contrast, rel=1e-6)
    assert there.reach.subject_to_sensor_mm == pytest.approx(answer.subject_to_sensor_mm)
    assert there.reach.working_distance_mm == pytest.approx(answer.room_mm)
    assert there.aperture.effective_f_number == pytest.approx(way.effective_f_number)


def test_extension_that_is_not_in_the_way_stays(shallow, changed):
    tube = {"gear": {"kind": "tube", "length_mm": 12.0}}
    shot = changed(shallow, {"/rig": [*shallow.model_dump()["rig"], tube], "/framing/magnification": 0.6})
    answer = back_off(shot).back_off
    assert answer is not None
    assert answer.without == []


def test_a_lens_turned_round_keeps_its_tubes(catalogue, changed):
    drip = catalogue["ganache"]
    lens = {**drip.model_dump()["rig"][0], "reversed": True}
    ring = {"gear": {"kind": "reversing_ring", "thread_mm": 49.0, "thickness_mm": 8.0}}
    tube = drip.model_dump()["rig"][1]
    shot = changed(drip, {"/rig": [lens, ring, tube], "/framing": {"by": "closest"}})
    way = back_off(shot)
    assert way is None or way.frames == 0


def test_the_shutter_of_standing_back_is_the_one_from_there(catalogue):
    way = back_off(catalogue["ganache"])
    plan = plan_shot(catalogue["ganache"])
    lost = (way.effective_f_number / plan.aperture.effective_f_number) ** 2
    assert lost < 1
    assert way.steady.shutter_s == pytest.approx(plan.ways[0].steady.shutter_s * lost)


def test_too_few_pixels_stand_against_it(shallow, changed):
    poor = changed(shallow, {"/body/pixels_across": 1200})
    assert "pixels are left; the picture can show" in back_off(poor).against[0]
    unknown = changed(shallow, {"/body/pixels_across": None})
    assert back_off(unknown).back_off.pixels_across is None
    assert back_off(unknown).against == []
