"""A ruler through a shot's rig, the size it gives, and the lens from two tubes; care and kit findings."""

import re

import numpy as np
import pytest

from just_plane.contract.kit import Kit
from just_plane.contract.ruler import PictureFacts, SizeAsked, TwoTubesAsked
from just_plane.core.errors import OutOfDomainError
from just_plane.core.frames.ruler_picture import ruler_picture
from just_plane.planning.calibration.ruler import practice_frame, ruler_in, size_from, two_tubes
from just_plane.planning.kit.check import check_kit, smallest_step_mm
from just_plane.planning.plan import plan_shot
from just_plane.planning.words.findings import RefusedError
from just_plane.shelf.starter import starter_shelf

GEAR = {piece.gear.kit_id: piece.gear for piece in starter_shelf().pieces}


def facts(width=600, height=400, **more):
    values = {"focal_length_mm": None, "f_number": None, "taken": "", "full_width_px": None, "preview": ""}
    return PictureFacts(width_px=width, height_px=height, kind="JPEG", **(values | more))


def codes(findings):
    return [finding.code for finding in findings]


def test_a_made_up_frame_gives_back_the_size_it_was_made_with(pod):
    picture, tick_mm = practice_frame(pod, off=0.02)
    height, width = picture.shape
    answer = ruler_in(picture, facts(width, height))
    asked = SizeAsked(
        shot=pod,
        picture_width_px=width,
        picture_height_px=height,
        span_px=answer.spacing_px,
        span_uncertainty_px=answer.uncertainty_px,
        real_mm=tick_mm,
    )
    size = size_from(asked)
    assert size.measured.magnification == pytest.approx(0.5 * 1.02, rel=2e-3)
    assert size.measured.modelled == pytest.approx(0.5)
    assert size.measured.uncertainty < 0.001
    assert size.rig == ["macro-100", "body-36-45"]
    assert re.fullmatch(r"0\.51× ± 0\.01\d? %, the model says 0\.5×: 2\.0 % more\.", size.words)
    corrected = plan_shot(pod.model_copy(update={"measured": size.measured, "framing": pod.framing}))
    assert corrected.reach.magnification == pytest.approx(0.5)  # framed by size: the ring is set to get it
    assert corrected.reach.own_magnification < 0.5


def test_measuring_again_finds_the_same_correction(pod):
    """The rig is then set by the first measurement; what is compared is still the model alone."""
    measured = None
    for _ in range(2):
        shot = pod.model_copy(update={"measured": measured})
        picture, tick_mm = practice_frame(shot, off=0.03)
        found = ruler_in(picture, facts(picture.shape[1], picture.shape[0]))
        size = size_of(
            shot,
            picture_width_px=picture.shape[1],
            picture_height_px=picture.shape[0],
            span_px=found.spacing_px,
            real_mm=tick_mm,
        )
        measured = size.measured
        assert measured.magnification / measured.modelled == pytest.approx(1.03, rel=2e-3)
    assert measured.magnification == pytest.approx(0.5, rel=2e-3)  # set to 0.5 by the first, and it is


def size_of(shot, **more):
    values = {
        "picture_width_px": 600,
        "picture_height_px": 400,
        "span_px": 10.0,
        "span_uncertainty_px": 0.1,
        "real_mm": 1.0,
    }
    return size_from(SizeAsked(shot=shot, **(values | more)))


def test_two_points_by_hand_and_an_upright_frame(pod):
    # 36 mm over 600 pixels: 60 um a pixel; 100 pixels for 12 mm.
    size = size_of(pod, span_px=100.0, real_mm=12.0)
    assert size.measured.magnification == pytest.approx(0.5)
    upright = size_of(pod, span_px=100.0, real_mm=12.0, picture_width_px=400, picture_height_px=600)
    assert upright.measured == size.measured


@pytest.mark.parametrize(
    ("more", "field", "says"),
    [
        ({"span_px": 722.0}, "/span_px", "721 pixels from corner to corner; got a length of 722"),
        ({"span_px": 0.1, "span_uncertainty_px": 0.1}, "/span_uncertainty_px", "uncertain by 0.1"),
        # 721 pixels of 60 um are 43.3 mm.
        ({"span_px": 721.0, "real_mm": 0.043}, "/real_mm", "would be a size of 1006×"),
        ({"span_px": 1e-3, "span_uncertainty_px": 0.0, "real_mm": 99.0}, "/real_mm", "would be a size of 6.061e-07×"),
    ],
)
def test_what_no_frame_can_show_is_refused_at_its_field(pod, more, field, says):
    with pytest.raises(RefusedError, match=re.escape(says)) as refused:
        size_of(pod, **more)
    assert refused.value.finding.field == field
    assert refused.value.finding.remedy


def test_the_longest_and_the_largest_that_a_frame_can_show_are_measured(pod):
    assert size_of(pod, span_px=721.0, real_mm=43.26).measured.magnification == pytest.approx(1.0)
    assert size_of(pod, span_px=721.0, real_mm=0.0433).measured.magnification == pytest.approx(999.08, rel=1e-4)


def test_a_cropped_frame_and_a_wild_size_are_doubted(pod):
    size = size_of(pod, picture_height_px=600)
    assert "picture.cropped" in codes(size.findings)
    wild = size_of(pod, real_mm=5.0)
    assert "measured.far_from_model" in codes(wild.findings)


def test_a_picture_noted_with_another_lens_is_doubted(pod):
    other = size_of(pod, noted_focal_length_mm=35.0, span_px=100.0, real_mm=12.0)
    assert codes(other.findings) == ["picture.other_lens"]
    breathed = size_of(pod, noted_focal_length_mm=95.0, span_px=100.0, real_mm=12.0)
    assert breathed.findings == []
    absurd = size_of(pod, noted_focal_length_mm=1e5, span_px=100.0, real_mm=12.0)
    assert absurd.measured == breathed.measured


def test_a_rig_without_a_picture_has_no_size_to_measure(pod, changed):
    with pytest.raises(RefusedError) as refused:
        size_of(changed(pod, {"/framing": {"by": "magnification", "magnification": 9.0}}))
    assert refused.value.finding.code == "magnification.beyond"


def test_a_rig_not_all_of_the_kit_is_measured_for_the_shot_alone(pod, changed):
    size = size_of(changed(pod, {"/rig/0/gear/kit_id": None}))
    assert size.rig == []


def test_notes_of_the_camera_that_disagree_with_the_file_are_told():
    picture = ruler_picture(600, 400, 20.0)
    assert codes(ruler_in(picture, facts(full_width_px=8256)).findings) == ["picture.made_smaller"]
    assert codes(ruler_in(picture, facts(full_width_px=600)).findings) == []


def test_a_picture_without_a_ruler_is_answered_with_the_reason():
    answer = ruler_in(np.random.default_rng(1).normal(size=(400, 600)), facts())
    assert (answer.spacing_px, answer.marks_px) == (None, [])
    assert codes(answer.findings) == ["frame.no_ruler"]


def tubes(first=(0.0, 0.5), second=(20.0, 0.75), **more):
    frames = [{"extension_mm": e, "magnification": m, "uncertainty": 0.001 * m} for e, m in (first, second)]
    return TwoTubesAsked.model_validate({"first": frames[0], "second": frames[1], **more})


def test_two_tubes_tell_the_lens():
    answer = two_tubes(tubes(stops_longer=0.4447738))
    assert answer.focal_length_mm == pytest.approx(80.0)
    # 2 log2((1 + 0.75) / (1 + 0.5)) stops: pupils alike.
    assert answer.pupil_magnification == pytest.approx(1.0, rel=1e-4)
    assert codes(answer.findings) == ["pupil.uncertain"]
    assert two_tubes(tubes()).pupil_magnification is None


def test_a_loss_that_no_lens_has_leaves_the_focal_length_standing():
    answer = two_tubes(tubes(stops_longer=6.0))
    assert answer.focal_length_mm == pytest.approx(80.0)
    assert codes(answer.findings) == ["stops.unexplained"]


def test_frames_that_tell_nothing_are_refused():
    with pytest.raises(OutOfDomainError, match="same extension"):
        two_tubes(tubes(second=(0.0, 0.75)))


# --- care and kit

CARE = [
    ("food", [], {"care.food", "care.dust"}),
    ("thing", ["lamp-tungsten", "diffuser-paper"], {"care.fire", "care.dust"}),
    ("thing", ["lamp-tungsten", "diffuser-cup"], {"care.hot", "care.dust"}),
    ("liquid", ["panel-led"], {"care.mains"}),
    ("liquid", ["softbox-60"], set()),
    ("animal", ["softbox-60"], {"care.living", "care.eyes"}),
    ("animal", [], {"care.living", "care.sun"}),
    ("person", ["softbox-60", "column-stand"], {"care.eyes", "care.cables"}),
]


@pytest.mark.parametrize(("nature", "on_set", "expected"), CARE)
def test_care_is_said_where_it_belongs_and_nowhere_else(pod, changed, nature, on_set, expected):
    things = [{"gear": GEAR[name].model_dump()} for name in on_set]
    plan = plan_shot(changed(pod, {"/subject/nature": nature, "/on_set": things}))
    said = [finding for finding in plan.findings if finding.code.startswith("care.")]
    assert set(codes(said)) == expected
    assert all(finding.severity in ("caution", "note") for finding in said)
    assert plan.ways


def test_a_kit_is_checked_piece_by_piece():
    zoom = GEAR["zoom-24-70"]
    bad = [
        zoom.model_copy(update={"short": zoom.long, "long": zoom.short}),
        GEAR["macro-100"].model_copy(update={"minimum_focus_distance_mm": 3000.0}),
        GEAR["bellows-40-150"].model_copy(update={"shortest_mm": 200.0}),
        GEAR["prime-50"].model_copy(update={"pupil_magnification": None}),
        GEAR["rail-hand"].model_copy(update={"divisions": None}),
    ]
    kit = Kit.model_validate(
        {"format": "just-plane/kit", "version": 1, "pieces": [{"gear": gear.model_dump()} for gear in bad]}
    )
    assert [(finding.code, finding.field) for finding in check_kit(kit)] == [
        ("long.not_longer", "/pieces/0/gear/long/focal_length_mm"),
        ("minimum_focus_distance.disagrees", "/pieces/1/gear/minimum_focus_distance_mm"),
        ("longest.below_shortest", "/pieces/2/gear/longest_mm"),
        ("assumed.pupil", "/pieces/3/gear/pupil_magnification"),
        ("assumed.rail_step", "/pieces/4/gear/smallest_step_mm"),
    ]


def test_a_rails_step_is_one_division_and_the_measured_turn_wins():
    rail = GEAR["rail-hand"]
    assert smallest_step_mm(rail) == pytest.approx(1.25 / 25)
    assert smallest_step_mm(rail.model_copy(update={"measured_mm_per_turn": 1.27})) == pytest.approx(1.27 / 25)
    assert smallest_step_mm(rail.model_copy(update={"smallest_step_mm": 0.2})) == 0.2
