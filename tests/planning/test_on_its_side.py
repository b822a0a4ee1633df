"""The camera on its side: the same optics, the frame standing upright, and a tilt mechanism that rests sideways."""

import pytest

from just_plane.contract.search import SearchAsked
from just_plane.planning.kit.search import search
from just_plane.planning.pictures.preview import preview
from just_plane.planning.plan import plan_shot
from just_plane.planning.words.numbers import Wording
from just_plane.shelf.starter import starter_shelf


def on_its_side(shot, changed, **more):
    """The same subject before the camera turned on its side: points where they were, in mm, at the same size."""
    m = plan_shot(shot).reach.magnification
    points = [
        {
            **each,
            "from_left": 0.5 + (each["from_left"] - 0.5) * 36 / 24,
            "from_top": 0.5 + (each["from_top"] - 0.5) * 24 / 36,
        }
        for each in shot.model_dump()["plane"]["points"]
    ]
    return changed(
        shot,
        {
            "/camera_on_its_side": True,
            "/framing": {"by": "magnification", "magnification": m},
            "/plane/points": points,
        }
        | more,
    )


def inner(tray, changed):
    """The tray with its points drawn in, so that they are on either frame."""
    points = [
        {**each, "from_left": 0.5 + (each["from_left"] - 0.5) * 0.6} for each in tray.model_dump()["plane"]["points"]
    ]
    return changed(tray, {"/plane/points": points})


def test_the_tilt_is_the_same_and_the_mechanism_turned_by_a_quarter(tray, changed):
    tray = inner(tray, changed)
    level, side = plan_shot(tray), plan_shot(on_its_side(tray, changed))
    assert side.plane.setting.tilt_deg == pytest.approx(level.plane.setting.tilt_deg, rel=1e-6)
    assert side.plane.setting.faces_deg == pytest.approx(level.plane.setting.faces_deg, abs=1e-6)
    turned = side.plane.setting.rotation_deg - level.plane.setting.rotation_deg
    assert abs(turned) % 180 == pytest.approx(90, abs=1e-6)
    assert [way.id for way in side.ways] == [way.id for way in level.ways]
    for one, other in zip(level.plane.points, side.plane.points, strict=True):
        assert other.blur_um == pytest.approx(one.blur_um, abs=1e-6)


def test_the_frame_and_its_crops_stand_upright(tray, changed):
    crop = [{"name": "square", "width_mm": 24.0, "height_mm": 20.0}]
    tray = changed(inner(tray, changed), {"/body/crop_modes": crop})
    level, side = plan_shot(tray).reach, plan_shot(on_its_side(tray, changed)).reach
    assert (side.frame_width_mm, side.frame_height_mm) == pytest.approx((level.frame_height_mm, level.frame_width_mm))
    assert side.crops[0].frame_width_mm == pytest.approx(level.crops[0].frame_height_mm)
    cropped = plan_shot(changed(tray, {"/camera_on_its_side": True, "/crop_mode": "square"})).reach
    assert (cropped.sensor_width_mm, cropped.sensor_height_mm) == (20.0, 24.0)


def test_a_frame_width_is_that_of_the_picture(tray, changed):
    side = plan_shot(changed(tray, {"/camera_on_its_side": True})).reach
    assert side.frame_width_mm == pytest.approx(tray.framing.frame_width_mm)
    assert side.magnification == pytest.approx(24 / tray.framing.frame_width_mm)


@pytest.mark.parametrize(("on_side", "recedes", "limited"), [
    (False, 90.0, False), (False, 0.0, True), (True, 0.0, False), (True, 90.0, True),
])  # fmt: skip
def test_a_mechanism_that_does_not_turn_tilts_with_the_camera(tray, changed, on_side, recedes, limited):
    flat = {"by": "angle", "angle_deg": 20.0, "recedes_deg": recedes, "length_mm": 40.0, "width_mm": 30.0}
    gear = {**tray.rig[0].gear.model_dump(), "rotates": "no"}
    plan = plan_shot(
        changed(
            tray,
            {
                "/camera_on_its_side": on_side,
                "/rig/0/gear": gear,
                "/plane/points": [{"id": "flat", "from_left": 0.5, "from_top": 0.5, "depth": flat}],
            },
        )
    )
    assert plan.plane.limited is limited
    said = {each.code: each for each in plan.findings}
    assert ("plane.no_rotation" in said) is limited
    if limited:
        assert ("Stand the camera upright" in said["plane.no_rotation"].remedy) is on_side


def test_a_mechanism_with_clicks_counts_them_from_how_it_rests(tray, changed):
    flat = {"by": "angle", "angle_deg": 20.0, "recedes_deg": 20.0, "length_mm": 40.0, "width_mm": 30.0}
    gear = {**tray.rig[0].gear.model_dump(), "rotates": "clicks", "click_apart_deg": 90.0}
    shot = changed(tray, {"/rig/0/gear": gear, "/plane/points": [
        {"id": "flat", "from_left": 0.5, "from_top": 0.5, "depth": flat}]})  # fmt: skip
    level, side = (plan_shot(changed(shot, {"/camera_on_its_side": turned})).plane.setting for turned in (False, True))
    assert abs(level.rotation_deg) == pytest.approx(90)
    assert side.rotation_deg == pytest.approx(0, abs=1e-6)
    steps = plan_shot(changed(shot, {"/camera_on_its_side": True})).plane.steps
    assert "left and right, the camera on its side" in steps[1]


def test_the_picture_of_a_way_stands_upright_and_within_its_bounds(tray, changed):
    picture = preview(changed(tray, {"/camera_on_its_side": True}), "one", "frame", 0.5, 0.5)
    height, width = picture.light.shape[:2]
    assert height == 640
    assert width == pytest.approx(640 * 24 / 36, abs=1)


def test_the_search_looks_for_a_frame_that_wide_upright(tray):
    kit, body = starter_shelf(), tray.body
    level, side = (
        search(kit, SearchAsked(body=body, frame_width_mm=60.0, camera_on_its_side=turned), Wording("mm"))
        for turned in (False, True)
    )
    assert level.results[0].magnification == pytest.approx(36 / 60, rel=0.02)
    assert side.results[0].magnification == pytest.approx(24 / 60, rel=0.02)
    assert side.results[0].frame_height_mm > side.results[0].frame_width_mm
