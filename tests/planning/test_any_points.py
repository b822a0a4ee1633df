"""Laws of the plane section for points that nobody would enter, and some that people do."""

import math

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from just_plane.contract.shot import Shot
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.pictures.preview import preview
from just_plane.planning.plan import plan_shot

TRAY = demo_shots()[0].model_dump()
shares = st.floats(0, 1)
marks = st.floats(-500, 500)


def depths(reading):
    return st.one_of(
        st.builds(lambda readings: {"by": "rail", "readings_mm": readings}, st.lists(reading, max_size=3)),
        st.builds(lambda readings: {"by": "tape", "readings_mm": readings}, st.lists(st.floats(1, 2000), max_size=2)),
        st.builds(
            lambda angle, toward, long: {
                "by": "angle", "angle_deg": angle, "recedes_deg": toward, "length_mm": long, "width_mm": 20.0,
                "readings_mm": [],
            },
            st.floats(0, 89), st.floats(-360, 360), st.floats(0.1, 300),
        ),
    )  # fmt: skip


def clouds(depth, fewest=0):
    point = st.tuples(shares, shares, depth, st.sampled_from(["sharp", "sharp", "sharp", "soft"]))
    return st.lists(point, min_size=fewest, max_size=9)


mechanisms = st.builds(
    lambda rotates, apart: {"rotates": rotates, "click_apart_deg": apart},
    st.sampled_from(["no", "clicks", "freely"]),
    st.none() | st.floats(0.5, 180),
)


def shot_with(points, mechanism=None, on_its_side=False, **plane):
    document = {**TRAY, "plane": {**TRAY["plane"], **plane}, "camera_on_its_side": on_its_side}
    lens = document["rig"][0]
    document["rig"] = [{**lens, "gear": {**lens["gear"], **(mechanism or {})}}, *document["rig"][1:]]
    document["plane"]["points"] = [
        {"id": f"p{index}", "name": "", "wanted": wanted, "from_left": left, "from_top": top, "depth": depth}
        for index, (left, top, depth, wanted) in enumerate(points)
    ]
    return Shot.model_validate(document)


@settings(max_examples=80, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(clouds(depths(marks)), st.sampled_from(["toward", "away"]), st.none() | marks, mechanisms, st.booleans())
def test_any_points_get_a_plan_and_every_gap_in_it_is_said(points, counts, stands, mechanism, on_its_side):
    shot = shot_with(points, mechanism, on_its_side, rail_counts=counts, rail_at_mm=stands)
    plan = plan_shot(shot)
    section = plan.plane
    if section is None:
        assert any(finding.severity == "trouble" for finding in plan.findings)
        return
    if points and section.wanted is None:
        assert any(finding.field.startswith("/plane") for finding in plan.findings)
    if section.setting is not None:
        assert 0 <= section.setting.tilt_deg <= 10 + 1e-6
        clicks = mechanism["rotates"] == "clicks" and mechanism["click_apart_deg"]
        assert section.limited or clicks or section.left_over_mm <= section.largest_deviation_mm + 1e-9
        if section.setting.tilt_deg > 1e-3:
            turned = section.setting.rotation_deg
            if clicks:
                most = int(90 // clicks)
                marks_of_it = [click * clicks for click in range(-most, most + 1)]
                assert min(abs((turned - mark + 90) % 180 - 90) for mark in marks_of_it) < 1e-3
            if mechanism["rotates"] == "no":
                assert abs(turned) < 1e-3
    for way in plan.ways:
        assert 0 <= way.cover <= 1
        assert way.points_held is None or way.points_held <= sum(p.wanted == "sharp" for p in section.points)


near = st.builds(lambda mark: {"by": "rail", "readings_mm": [mark]}, st.floats(40, 80))


@settings(max_examples=40, deadline=None)
@given(clouds(near, fewest=4))
def test_a_sharp_point_is_fine_exactly_when_it_has_slack(points):
    section = plan_shot(shot_with(points)).plane
    if section is None or section.setting is None:
        return
    for point in section.points:
        if point.slack_mm is not None and abs(point.slack_mm) > 1e-6:
            assert (point.slack_mm > 0) == (point.fine if point.wanted == "sharp" else not point.fine)


@settings(max_examples=30, deadline=None)
@given(clouds(near, fewest=4))
def test_the_best_within_a_limit_is_never_better_than_without(points):
    section = plan_shot(shot_with(points)).plane
    if section is None or section.setting is None:
        return
    assert section.left_over_mm >= section.largest_deviation_mm - 1e-6


@settings(max_examples=25, deadline=None)
@given(clouds(near, fewest=4), st.floats(-300, 300))
def test_where_the_rail_counts_from_does_not_matter(points, shift):
    moved = [
        (left, top, {"by": "rail", "readings_mm": [depth["readings_mm"][0] + shift]}, wanted)
        for left, top, depth, wanted in points
    ]
    one, other = plan_shot(shot_with(points)).plane, plan_shot(shot_with(moved)).plane
    if one is None or one.setting is None or other is None or other.setting is None:
        return
    assert math.isclose(one.setting.tilt_deg, other.setting.tilt_deg, abs_tol=1e-4)


@settings(max_examples=6, deadline=None)
@given(clouds(depths(marks)), st.sampled_from(["one", "tilt", "turn", "rail", "ring"]))
def test_any_shot_has_a_picture_or_a_reason(points, way):
    made = preview(shot_with(points), way, "double", 0.5, 0.5)
    assert made.endswith(".") if isinstance(made, str) else made.light.shape == (320, 480, 3)
