"""Frames that were not taken as planned say so, and which number is likely wrong; those that were say nothing."""

import pytest

from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.checking import check_intake
from just_plane.frames.intake import take_in
from stacks.camera import photograph, write
from stacks.kept import FACTS, SIZE, STEP_MM, stack_of
from stacks.world import make_world

pytestmark = pytest.mark.xdist_group("stacks")
TRUE_STOP = 12.0
DEPTH_MM = 2 * STEP_MM
"""Of a frame at that stop: the made-up camera's frames lie half of it apart."""


@pytest.fixture(scope="module")
def folder(tmp_path_factory):
    """By kind of subject."""
    made = tmp_path_factory.mktemp("planned")
    for kind in ("dome", "terraces", "hairs"):
        write(stack_of(kind, 4, jpeg=False), made / kind)
    return made


def told(folder, kind, **planned):
    """What is said of frames of a plan at that stop, that step, that pupil; they were taken at f/12 as they were."""
    return " ".join(checked(folder, kind, **planned).against_plan)


def checked(folder, kind, *, stop=TRUE_STOP, step=STEP_MM, pupil=FACTS.pupil_distance, depth=DEPTH_MM, units="mm"):
    """The report by such a plan, in which a frame at the true stop holds that depth."""
    numbers = StackNumbers(
        kind="rail",
        magnification=0.5,
        effective_f_number=stop,
        pixel_pitch_mm=0.01,
        c_mm=0.03,
        depth_of_field_mm=depth * stop / TRUE_STOP,
        step_mm=step,
        planned_frames=12,
        entrance_pupil_distance_mm=pupil,
        units=units,
    )
    return check_intake(take_in(folder / kind), numbers)[0]


@pytest.mark.parametrize("kind", ["dome", "terraces", "hairs"])
def test_frames_taken_as_planned_say_nothing(folder, kind):
    assert told(folder, kind) == ""


@pytest.mark.parametrize("kind", ["dome", "terraces", "hairs"])
@pytest.mark.parametrize(("planned", "how"), [(6.0, "closed"), (8.5, "closed"), (24.0, "open")])
def test_another_stop_than_planned_is_told_by_the_depth_that_frames_hold(folder, kind, planned, how):
    said = told(folder, kind, stop=planned)
    assert f"further {how} than planned" in said
    held = float(said.split("about ")[1].split(" mm")[0])
    in_inches = told(folder, kind, stop=planned, units="in")
    assert float(in_inches.split("about ")[1].split(" in ")[0]) * 25.4 == pytest.approx(held, rel=0.01)
    # Of f/12, whatever was planned: within a fifth.
    assert held == pytest.approx(DEPTH_MM, rel=0.2)


def test_a_step_that_was_not_as_planned_is_told_from_a_pupil_that_is_elsewhere(folder):
    by_step = told(folder, "dome", step=STEP_MM / 2, pupil=FACTS.pupil_distance)
    assert "Look at the rail" in by_step
    assert "the stop" not in by_step
    assert float(by_step.split("a step of ")[1].split(" mm")[0]) == pytest.approx(STEP_MM, rel=0.2)
    in_inches = told(folder, "dome", step=STEP_MM / 2, pupil=FACTS.pupil_distance, units="in")
    assert float(in_inches.split("a step of ")[1].split(" in ")[0]) * 25.4 == pytest.approx(STEP_MM, rel=0.2)
    assert "mm" not in in_inches
    by_pupil = told(folder, "dome", pupil=FACTS.pupil_distance * 2)
    assert "as many steps as planned" in by_pupil
    assert float(by_pupil.split("pupil ")[1].split(" mm")[0]) == pytest.approx(FACTS.pupil_distance, rel=0.2)


def test_a_pupil_at_infinity_lets_nothing_grow_and_nothing_is_said(folder):
    """As behind an objective: the view is as large in every frame, but for how well frames are laid on each other."""
    far = 1e6
    kind = "endless"
    write(photograph(make_world("dome", 4, SIZE, 12), 4, jpeg=False, pupil_steps=far), folder / kind)
    assert told(folder, kind, pupil=far * STEP_MM) == ""


def test_what_is_sharp_is_judged_by_the_step_that_the_rail_really_went(folder):
    # Half the true step was planned, at which frames of 0.7 true steps overlap; as they were taken they do not meet.
    report = checked(folder, "dome", step=STEP_MM / 2, depth=0.7 * STEP_MM)
    assert report.step_measured is not None
    assert len(report.gaps) == 11
    assert not report.verdict.may_come_down
    # Where frames hold twice the true step nothing is open; by the true step from the start the same is missing.
    assert checked(folder, "dome", step=STEP_MM / 2).gaps == []
    assert len(checked(folder, "dome", depth=0.7 * STEP_MM).gaps) == 11


def test_frames_in_front_that_show_something_else_do_not_move_the_rest_to_the_near_end(folder):
    apart = folder / "apart"
    write(stack_of("dome", 4, jpeg=False), apart)
    write(stack_of("dome", 9, jpeg=False), folder / "others")
    for name in sorted(one.name for one in apart.iterdir())[:4]:
        (folder / "others" / name).replace(apart / name)
    report = checked(folder, "apart")
    assert [one.code for one in report.findings] == ["registration_failed"]
    assert [one.place_steps for one in report.frames if one.used] == list(range(4, 12))
    # Where they stand is a guess: no place is named at which frames are to be taken.
    assert report.gaps == []
    assert report.verdict.answer.startswith("Not yet. ")
    assert "3 more could not be laid on the others" in report.verdict.answer
    # All twelve that were planned are there.
    assert report.against_plan == []


def test_numbers_that_went_round_are_put_together_and_not_called_far_to_near(folder):
    """The camera began to count anew after five frames: their names stand behind the others'."""
    went_round = folder / "round"
    write(stack_of("dome", 4, jpeg=False), went_round)
    taken = sorted(went_round.iterdir())
    for number, path in enumerate(taken):
        path.rename(went_round / f"JP_{(9995 + number) % 10000:04d}{path.suffix}")
    report = checked(folder, "round")
    assert report.order == [*range(7, 12), *range(7)]
    assert [one.place_steps for one in report.frames] == [*range(5, 12), *range(5)]
    (said,) = report.findings
    assert said.frames == list(range(7, 12))
    assert said.message == "JP_9995.tif to JP_9999.tif, 5 frames, are not in the order of focus."
    assert said.remedy == "They are merged in the order found."
    assert (report.gaps, report.against_plan) == ([], [])
    assert report.verdict.may_come_down


def test_a_first_frame_that_cannot_be_read_leaves_the_near_end_to_be_taken(folder):
    cut = folder / "cut"
    write(stack_of("dome", 4, jpeg=False), cut)
    first = min(cut.iterdir())
    first.write_bytes(first.read_bytes()[:2000])
    report = checked(folder, "cut", depth=1.4 * STEP_MM)
    assert [one.place_steps for one in report.frames if one.used] == list(range(1, 12))
    (gap,) = report.gaps
    assert (gap.from_mm, gap.to_mm) == pytest.approx((0.0, 0.3 * STEP_MM))
    assert gap.focuses_mm == [0.0]
    assert report.verdict.action == "Take one more frame, at 0.00 mm behind the nearest point."
    # Half of every frame's depth is held by the next: then nothing is open.
    assert checked(folder, "cut").gaps == []


def test_frames_that_cannot_be_judged_for_shake_are_counted(folder):
    assert "The first and the last frame are not judged for shake." in checked(folder, "terraces").not_judged
    write(photograph(make_world("weak", 4, SIZE, 12), 4, jpeg=False), folder / "weak")
    # A print of 3 % has nothing that is sharp enough to be judged in any frame.
    said = "The first and the last frame are not judged for shake, nor 10 others: too little in them is in focus."
    assert said in checked(folder, "weak").not_judged
