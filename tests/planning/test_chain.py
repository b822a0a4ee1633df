"""Rows of pieces: which can be, which cannot and why, and what each piece and order does."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.contract.gear import CHAIN_KINDS
from just_plane.contract.shot import Placed, Shot
from just_plane.core.aperture import stops_lost
from just_plane.planning.plan import plan_shot
from just_plane.shelf.starter import starter_shelf

GEAR = {piece.gear.kit_id: piece.gear for piece in starter_shelf().pieces}


def row(*names):
    """Pieces by kit id, ``~`` before one turned round."""
    return [Placed(gear=GEAR[name.lstrip("~")], reversed=name.startswith("~")) for name in names]


def shot_with(pod, *names, framing=None, **change):
    return pod.model_copy(
        update={"rig": row(*names), "framing": framing or pod.framing, "subject": pod.subject, **change}
    )


def closest(pod, *names, **change):
    shot = shot_with(pod, *names, **change).model_dump()
    return Shot.model_validate(shot | {"framing": {"by": "closest"}})


def troubles(plan):
    return [(finding.code, finding.field) for finding in plan.findings if finding.severity == "trouble"]


def said(plan):
    return {finding.code: finding for finding in plan.findings}


IMPOSSIBLE = [
    ([], "rig.no_lens", "/rig"),
    (["tube-12"], "rig.no_lens", "/rig"),
    (["macro-100", "close-up-3-67"], "close_up.behind_lens", "/rig/1/gear"),
    (["converter-2", "~prime-50"], "converter.before_lens", "/rig/0/gear"),
    (["tube-12", "macro-100"], "tube.before_lens", "/rig/0/gear"),
    (["bellows-40-150", "macro-100"], "bellows.before_lens", "/rig/0/gear"),
    (["macro-100", "reversing-49"], "reversing_ring.behind_lens", "/rig/1/gear"),
    (["reversing-49", "~prime-35"], "reversing_ring.before_lens", "/rig/0/gear"),
    (["close-up-3-52", "~prime-50", "reversing-49"], "close_up.before_reversed", "/rig/0/gear"),
    (["coupling-67-49", "macro-100"], "coupling_ring.nothing_to_hold", "/rig/0/gear"),
    (["macro-100", "coupling-67-49"], "coupling_ring.behind_lens", "/rig/1/gear"),
    (["prime-50", "macro-100"], "lens.same_way_round", "/rig/0/gear"),
    (["~prime-50", "~macro-100"], "lens.reversed_behind_lens", "/rig/1/gear"),
    (["~prime-50", "~prime-35", "macro-100"], "rig.too_many_lenses", "/rig/0/gear"),
    (["close-up-3-52", "~prime-50", "macro-100"], "close_up.before_facing_lens", "/rig/0/gear"),
    (["objective-10"], "objective.no_tube_lens", "/rig/0/gear"),
    (["objective-4-finite", "tube-lens-200"], "objective.finite_before_lens", "/rig/1/gear"),
    (["tube-lens-200", "objective-10"], "objective.behind_lens", "/rig/1/gear"),
    (["macro-100", "bellows-40-150", "bellows-40-150"], "bellows.two", "/rig/2/gear"),
]


@pytest.mark.parametrize(("names", "code", "field"), IMPOSSIBLE, ids=[case[1] for case in IMPOSSIBLE])
def test_a_row_that_cannot_be_is_refused_at_the_piece_with_the_reason(pod, names, code, field):
    plan = plan_shot(shot_with(pod, *names))
    assert troubles(plan) == [(code, field)]
    finding = said(plan)[code]
    assert plan.verdict.headline == finding.message
    assert finding.message.endswith(".")
    assert finding.remedy.endswith(".")
    assert plan.reach is None


DOUBTFUL = [
    (["~prime-35", "tube-31"], "reversed.no_ring"),
    (["~prime-50", "macro-100"], "facing.no_ring"),
    (["close-up-3-52", "macro-100"], "thread.mismatch"),
    (["~prime-35", "reversing-52", "tube-31"], "thread.mismatch"),
    (["macro-100", "converter-1-4"], "converter.reaches_in"),
    (["macro-100", "tube-36"], "aperture.no_contacts"),
    (["~prime-35", "reversing-49", "tube-31"], "aperture.no_contacts"),
    (["manual-28", "tube-36"], "aperture.on_lens"),
    (["macro-100", "tube-36"], "weight.on_tube"),
    (["prime-50", "tube-31"], "lens.beyond_made_for"),
    (["macro-100", "tube-31"], "infinity.lost"),
    (["close-up-3-67", "close-up-5-77", "macro-100"], "close_up.stronger_outside"),
]


@pytest.mark.parametrize(("names", "code"), DOUBTFUL, ids=[f"{case[1]} {case[0][0]}" for case in DOUBTFUL])
def test_a_doubtful_row_is_allowed_with_a_caution(pod, names, code):
    if code == "close_up.stronger_outside":
        names = ["close-up-5-77", "close-up-3-67", "macro-100"]
    plan = plan_shot(closest(pod, *names, subject=pod.subject.model_copy(update={"depth_mm": 1.0})))
    assert troubles(plan) == []
    assert said(plan)[code].severity in ("caution", "note")


@pytest.mark.parametrize(
    ("names", "code"),
    [
        (["close-up-3-67", "macro-100"], "thread.mismatch"),
        (["close-up-3-52", "step-49-52", "prime-50"], "thread.mismatch"),
        (["~prime-35", "reversing-49", "tube-31"], "reversed.no_ring"),
        (["macro-100", "tube-31"], "aperture.no_contacts"),
        (["macro-150", "tube-36"], "weight.on_tube"),  # it has a foot
        (["macro-100", "tube-31"], "lens.beyond_made_for"),
        (["macro-100"], "infinity.lost"),
    ],
)
def test_what_is_in_order_is_not_complained_of(pod, names, code):
    assert code not in said(plan_shot(closest(pod, *names, subject=pod.subject.model_copy(update={"depth_mm": 1.0}))))


def test_a_caution_is_put_aside_for_this_shot_and_trouble_cannot_be(pod):
    shot = closest(pod, "macro-100", "tube-36", put_aside=["weight.on_tube", "rig.no_lens"])
    assert said(plan_shot(shot))["weight.on_tube"].put_aside
    assert not said(plan_shot(shot))["aperture.no_contacts"].put_aside
    empty = shot_with(pod, put_aside=["rig.no_lens"])
    assert not said(plan_shot(empty))["rig.no_lens"].put_aside


def test_dark_corners_are_told_by_thread_and_by_image_circle(pod):
    wide = {"by": "frame_width", "frame_width_mm": 480.0}
    shot = Shot.model_validate(shot_with(pod, "close-up-3-52", "zoom-24-70").model_dump() | {"framing": wide})
    shot = Shot.model_validate(
        shot.model_dump()
        | {"rig": [shot.rig[0].model_dump(), {"gear": GEAR["zoom-24-70"].model_dump(), "at_focal_length_mm": 24.0}]}
    )
    assert "corners.thread" in said(plan_shot(shot))
    medium = closest(pod, "macro-100", body=GEAR["body-44-50"])
    assert "corners.image_circle" not in said(plan_shot(medium))  # close up the circle is twice as wide
    far = Shot.model_validate(medium.model_dump() | {"framing": {"by": "frame_width", "frame_width_mm": 900.0}})
    assert "corners.image_circle" in said(plan_shot(far))
    assert "corners.image_circle" not in said(plan_shot(far.model_copy(update={"crop_mode": "36 × 24"})))


# --- what it gives


def test_a_crop_mode_is_a_smaller_sensor(pod):
    whole = plan_shot(pod).reach
    cropped = plan_shot(pod.model_copy(update={"crop_mode": "crop 1.5×"})).reach
    assert (cropped.magnification, cropped.sensor_width_mm) == (whole.magnification, 24.0)
    assert cropped.frame_width_mm == pytest.approx(whole.frame_width_mm * 24 / 36)
    assert whole.crops[0].frame_width_mm == pytest.approx(cropped.frame_width_mm)


def test_a_crop_mode_keeps_the_pixels_pitch(pod, changed):
    shot = changed(pod, {"/sharp/school": "pixel", "/crop_mode": "crop 1.5×"})
    assert plan_shot(shot).sharpness.circle_um == pytest.approx(
        plan_shot(changed(pod, {"/sharp/school": "pixel"})).sharpness.circle_um, rel=1e-4
    )


def test_each_piece_is_told_by_what_is_missing_without_it(pod):
    plan = plan_shot(closest(pod, "close-up-3-67", "macro-100", "tube-20"))
    given = {each.name: each for each in plan.reach.contributions}
    bare = plan_shot(closest(pod, "macro-100")).reach
    tube = plan_shot(closest(pod, "macro-100", "tube-20")).reach
    assert given["+3 close-up, 67 mm"].magnification == pytest.approx(plan.reach.magnification - tube.magnification)
    assert given["+3 close-up, 67 mm"].stops == pytest.approx(0, abs=1e-9)
    without_tube = plan_shot(closest(pod, "close-up-3-67", "macro-100"))
    assert given["tube 20 mm"].magnification == pytest.approx(
        plan.reach.magnification - without_tube.reach.magnification
    )
    lost = stops_lost(plan.aperture.f_number, plan.aperture.effective_f_number)
    assert given["tube 20 mm"].stops == pytest.approx(lost - without_tube.aperture.stops_lost)
    assert bare.contributions == []


def test_both_orders_are_shown_and_this_one_is_marked(pod):
    before = plan_shot(closest(pod, "macro-100", "tube-20", "converter-2")).reach
    behind = plan_shot(closest(pod, "macro-100", "converter-2", "tube-20")).reach
    assert [order.this for order in before.orders] == [True, False]
    assert [order.this for order in behind.orders] == [False, True]
    for one, other in zip(before.orders, behind.orders, strict=True):
        assert one.magnification == pytest.approx(other.magnification)
    assert before.orders[0].magnification == pytest.approx(before.magnification)
    assert before.orders[1].magnification == pytest.approx(behind.magnification)
    f = GEAR["macro-100"].minimum_focus_distance_mm / 4
    assert before.magnification == pytest.approx(2 * (1 + 20 / f))
    assert plan_shot(pod).reach.orders == []


def test_a_turned_lens_counts_ring_tubes_and_register(pod):
    plan = plan_shot(
        closest(pod, "~prime-35", "reversing-49", "tube-12", subject=pod.subject.model_copy(update={"depth_mm": 0.5}))
    )
    # Thread to lens: 48 - (35 - 18) = 31; then 7 + 12 + 18 to the sensor.
    assert plan.reach.magnification == pytest.approx((31 + 7 + 12 + 18) / 35 - 1)
    assert plan.reach.is_fixed
    assert plan.aperture.effective_f_number == pytest.approx(
        plan.aperture.f_number * (1 / 1.5 + plan.reach.magnification)
    )
    # From the mount, which now looks at the subject: u - (35 - 18).
    u = 35 * (1 + 1 / plan.reach.magnification)
    assert plan.reach.working_distance_mm == pytest.approx(u - 17)
    ring = next(way for way in plan.ways if way.id == "ring")
    assert "no focus ring" in ring.against[0]


def test_a_rig_of_one_size_asked_for_another_says_what_would_do(pod):
    shot = shot_with(pod, "~prime-35", "reversing-49", "tube-12")
    finding = said(plan_shot(shot))["magnification.below"]
    assert "0.943× only" in finding.message
    assert "what the rig gives" in finding.remedy


def test_an_objective_has_one_aperture_and_its_working_distance_is_on_paper(catalogue):
    plan = plan_shot(catalogue["sugar"])
    assert plan.reach.magnification == pytest.approx(10)
    assert plan.reach.working_distance_mm == 33.5
    assert plan.aperture.effective_f_number == pytest.approx(10 / (2 * 0.28))
    assert plan.aperture.numerical_aperture == pytest.approx(0.28)
    rail = next(way for way in plan.ways if way.id == "rail")
    assert rail.frames > 200


def test_a_finite_objective_on_tubes(pod):
    plan = plan_shot(
        closest(pod, "objective-4-finite", "bellows-40-150", subject=pod.subject.model_copy(update={"depth_mm": 0.1}))
    )
    assert plan.reach.magnification == pytest.approx(5 * (150 + 18) / 150 - 1)
    assert {stop.f_number for stop in plan.aperture.stops} == {5.0}
    assert plan.reach.bellows_draw_mm == 150


def test_a_zoom_is_the_lens_it_is_set_to(pod, changed):
    at_long = plan_shot(closest(pod, "zoom-24-70"))
    assert at_long.reach.widest_f_number == 2.8
    shot = closest(pod, "zoom-24-70").model_dump()
    shot["rig"][0]["at_focal_length_mm"] = 24.0
    assert plan_shot(Shot.model_validate(shot)).reach.magnification == pytest.approx(0.17)
    shot["rig"][0]["at_focal_length_mm"] = 100.0
    assert troubles(plan_shot(Shot.model_validate(shot))) == [
        ("focal_length.outside_zoom", "/rig/0/at_focal_length_mm")
    ]
    short, long = shot["rig"][0]["gear"]["short"], shot["rig"][0]["gear"]["long"]
    shot["rig"][0]["gear"] |= {"short": long, "long": short}
    assert troubles(plan_shot(Shot.model_validate(shot))) == [("long.not_longer", "/rig/0/gear/long/focal_length_mm")]


def test_measured_values_win(pod, changed):
    lens = {"/rig/0/gear/measured_closest_focal_length_mm": 80.0, "/rig/0/gear/measured_pupil_magnification": 1.0}
    plan = plan_shot(changed(closest(pod, "macro-100", "tube-20"), lens))
    assert plan.reach.magnification == pytest.approx(1 + 20 / 80)
    assert plan.aperture.effective_f_number == pytest.approx(5.6 * (1 + 1.25))
    ruler = {"/measured": {"magnification": 1.03, "uncertainty": 0.002, "modelled": 1.0}}
    measured = plan_shot(changed(closest(pod, "macro-100"), ruler)).reach
    assert measured.magnification == pytest.approx(1.03)
    assert measured.size_uncertainty == pytest.approx(0.002)
    wild = {"/measured": {"magnification": 2.0, "uncertainty": 0.0, "modelled": 1.0}}
    assert "measured.far_from_model" in said(plan_shot(changed(closest(pod, "macro-100"), wild)))


@given(
    st.lists(
        st.sampled_from(sorted(GEAR)).filter(lambda name: GEAR[name].kind in CHAIN_KINDS),
        max_size=5,
    ),
    st.data(),
)
def test_any_row_is_planned_or_refused_in_words(names, data):
    pieces = [Placed(gear=GEAR[name], reversed=data.draw(st.booleans())) for name in names]
    shot = Shot.model_validate(
        {
            "format": "just-plane/shot",
            "version": 2,
            "name": "any row",
            "subject": {"depth_mm": 1.0},
            "body": GEAR["body-36-45"].model_dump(),
            "rig": [piece.model_dump() for piece in pieces],
            "framing": {"by": "closest"},
            "aperture": {"f_number": 8.0},
        }
    )
    plan = plan_shot(shot)
    assert plan.reach is not None or troubles(plan)
    if plan.reach:
        assert [piece.index for piece in plan.reach.pieces] == [None, *reversed(range(len(pieces)))]
    plan.model_dump_json()
