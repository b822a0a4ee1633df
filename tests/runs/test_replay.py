"""Where a run stands, by laws over any presses."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.contract.run import RunEvent, RunPlan, RunStep
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.plan import plan_shot
from just_plane.planning.setup.rail_marks import knob_of
from just_plane.planning.ways.step_table import step_rows
from just_plane.runs.replay import RefusedEventError, after, replay
from just_plane.runs.steps import run_plan


def plan_of(count, mark=38.0):
    steps = [
        RunStep(
            frame=k,
            focus_mm=k - 1.0,
            move_mm=1.0 if k else None,
            mark_mm=None if mark is None else mark + k,
            sharp_from_mm=k - 2.0,
            sharp_to_mm=float(k),
        )
        for k in range(count)
    ]
    return RunPlan(
        way="rail",
        title="Stack by rail",
        kind="rail",
        steps=steps,
        shutter_words="1/8 s",
        f_number=8.0,
        iso=100.0,
        settle_s=2.0,
        time_s=60.0,
        hold_still_s=None,
    )


def press(kind, frame=None, focuses=()):
    return RunEvent(kind=kind, frame=frame, focuses_mm=list(focuses))


EVENTS = st.lists(
    st.one_of(
        st.builds(press, st.sampled_from(["taken", "skipped", "once_more"]), st.integers(0, 7)),
        st.builds(press, st.sampled_from(["paused", "went_on", "stopped"])),
        st.builds(press, st.just("added"), st.none(), st.lists(st.floats(-3, 9), min_size=1, max_size=3)),
    ),
    max_size=30,
)


def accepted(events):
    """Events that fit, and where the run stands after each."""
    stand, taken, stands = replay(plan_of(5), []), [], []
    for event in events:
        try:
            stand = after(stand, event)
        except RefusedEventError:
            continue
        taken.append(event)
        stands.append(stand)
    return taken, stands


@given(EVENTS)
def test_a_resume_is_a_replay_wherever_it_was_broken_off(events):
    taken, stands = accepted(events)
    for cut in range(1, len(taken) + 1):
        assert replay(plan_of(5), taken[:cut]) == stands[cut - 1]


@given(EVENTS)
def test_no_frame_is_counted_twice_and_none_forgotten(events):
    taken, stands = accepted(events)
    if not stands:
        return
    stand = stands[-1]
    counted = [event.frame for event in taken if event.kind in ("taken", "once_more")]
    assert list(stand.times_taken) == [counted.count(frame) for frame in range(len(stand.times_taken))]
    # "Taken" counts a frame once only: more of it is said to be once more.
    first = [event.frame for event in taken if event.kind == "taken"]
    assert len(first) == len(set(first))


@given(EVENTS)
def test_the_next_frame_is_the_first_that_is_open(events):
    for stand in accepted(events)[1]:
        open_frames = [k for k, times in enumerate(stand.times_taken) if not times and k not in stand.skipped]
        expected = None if stand.state == "stopped" or not open_frames else open_frames[0]
        assert stand.next_frame == expected
        assert (stand.state == "finished") <= (not open_frames)


def test_all_frames_taken_in_order_finish_the_run():
    stand = replay(plan_of(3), [press("taken", k) for k in range(3)])
    assert (stand.state, stand.next_frame) == ("finished", None)


def test_frames_added_reopen_a_finished_run_near_to_far_at_their_marks():
    stand = replay(plan_of(3), [*(press("taken", k) for k in range(3)), press("added", None, [2.5, 0.5])])
    assert (stand.state, stand.next_frame) == ("running", 3)
    added = stand.plan.steps[3:]
    # Frame 0 stands at 38 mm and is focused 1 mm before the nearest point.
    assert [(step.focus_mm, step.mark_mm, step.added) for step in added] == [(0.5, 39.5, True), (2.5, 41.5, True)]
    assert [step.move_mm for step in added] == [-0.5, 2.0]


@pytest.mark.parametrize(
    "event", [press("taken", 2), press("once_more", 0), press("taken", 9), press("added"), press("skipped", 99)]
)
def test_presses_that_do_not_fit_are_refused_in_words(event):
    with pytest.raises(RefusedEventError):
        after(replay(plan_of(5), []), event)


def test_a_stopped_run_takes_no_frame_but_may_be_given_more():
    stand = replay(plan_of(3), [press("taken", 0), press("stopped")])
    assert stand.next_frame is None
    with pytest.raises(RefusedEventError, match="stopped"):
        after(stand, press("taken", 1))
    assert after(stand, press("added", None, [1.5])).next_frame == 1


@pytest.mark.parametrize("shot", demo_shots(), ids=lambda shot: shot.name[:12])
def test_every_way_of_the_demo_becomes_a_run_whose_moves_add_up(shot):
    plan = plan_shot(shot)
    for way in plan.ways:
        if not way.frames:
            continue
        made = run_plan(shot, plan, way, step_rows(way, plan.reach.magnification, shot.plane.rail_counts), 30.0)
        assert len(made.steps) == way.frames
        moved = sum(step.move_mm or 0 for step in made.steps)
        assert moved == pytest.approx(made.steps[-1].focus_mm - made.steps[0].focus_mm, abs=1e-6)
        if way.kind == "rail":
            grows = -1 if shot.plane.rail_counts == "away" else 1
            assert made.steps[0].mark_mm == 30.0
            assert made.steps[-1].mark_mm == pytest.approx(30.0 + grows * moved, abs=1e-5)
        else:
            assert made.steps[0].mark_mm is None


def test_a_picture_is_one_frame_and_what_was_there_before_is_none():
    watching = RunEvent(kind="watching", folder="/cards", there_before=["old.jpg"])
    taken = RunEvent(kind="taken", frame=0, file="a1.jpg")
    stand = replay(plan_of(3), [watching, taken])
    assert (stand.folder, stand.files[0], stand.next_frame) == ("/cards", "a1.jpg", 1)
    for name in ("a1.jpg", "old.jpg"):
        with pytest.raises(RefusedEventError, match="counted already"):
            after(stand, RunEvent(kind="taken", frame=1, file=name))
    later = after(stand, RunEvent(kind="taken", frame=1, file="a4.jpg", there_before=["a2.jpg", "a3.jpg"]))
    assert {"a2.jpg", "a3.jpg", "a4.jpg"} <= later.known


def test_a_known_knob_and_play_are_told_for_every_frame():
    shot = demo_shots()[1]
    rail = {"rail_mm_per_turn": 1.25, "rail_divisions": 50, "rail_play_mm": 0.04, "rail_smallest_step_mm": None}
    shot = shot.model_copy(update={"stack": shot.stack.model_copy(update=rail)})
    plan = plan_shot(shot)
    way = next(way for way in plan.ways if way.id == "rail")
    rows = step_rows(way, plan.reach.magnification, knob=knob_of(shot.stack))
    made = run_plan(shot, plan, way, rows, 30.0)
    assert made.divisions == 50
    # A division of this knob is 1.25 / 50 = 0.025 mm; what is told leaves each frame within half of the least told.
    for step, row in zip(made.steps, rows, strict=True):
        assert abs(step.knob_divisions * 0.025 - row.move_from_first_mm) <= 0.5 * 0.025 + 1e-9
        assert step.from_mm == pytest.approx(step.mark_mm - made.mark_grows * 0.06)
    assert rows[0].knob_words == ""
    assert "division" in rows[1].knob_words
    unknown = run_plan(shot, plan, way, step_rows(way, plan.reach.magnification), 30.0)
    assert unknown.steps[1].knob_divisions is None
    away = shot.model_copy(update={"plane": shot.plane.model_copy(update={"rail_counts": "away"})})
    back = run_plan(away, plan, way, rows, 30.0)
    assert back.steps[0].from_mm == pytest.approx(30.06)


def test_a_frame_that_devices_take_again_is_the_next_and_then_the_run_goes_on_where_it_was():
    events = [press("taken", frame) for frame in range(4)]
    stand = replay(plan_of(5), [*events, press("retake", 1)])
    assert stand.next_frame == 1
    assert stand.times_taken == (1, 0, 1, 1, 0)
    assert replay(plan_of(5), [*events, press("retake", 1), press("taken", 1)]).next_frame == 4


def test_of_a_finished_run_a_frame_can_be_taken_again_and_its_old_picture_is_none_of_it():
    events = [RunEvent(kind="taken", frame=frame, file=f"{frame}.jpg") for frame in range(3)]
    stand = replay(plan_of(3), [*events, press("retake", 2)])
    assert (stand.state, stand.next_frame, stand.files) == ("running", 2, ("0.jpg", "1.jpg", None))
    # Its picture is known all the same: it does not come in again as a new one.
    with pytest.raises(RefusedEventError, match="counted already"):
        after(stand, RunEvent(kind="taken", frame=2, file="2.jpg"))
    done = after(stand, RunEvent(kind="taken", frame=2, file="3.jpg"))
    assert (done.state, done.files[2]) == ("finished", "3.jpg")


def test_what_was_not_taken_cannot_be_taken_again():
    with pytest.raises(RefusedEventError, match="not taken yet"):
        replay(plan_of(3), [press("retake", 0)])
