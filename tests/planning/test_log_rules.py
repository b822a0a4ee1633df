"""What the notebook finds alike, what it finds by words, and what it takes away."""

import csv
import io

import pytest

from just_plane.contract.log import LogDone, LogEntry, LogNote, LogOut, LogSet
from just_plane.contract.run import RunEvent
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.log.alike import alike, holds, reminders, trouble_words
from just_plane.planning.log.entry import done_of
from just_plane.planning.log.table import log_csv
from just_plane.runs.replay import replay
from made_runs import plan


def entry(name="Cut cocoa pod", *, subject="", rig=("lens", "body"), size=0.5, day="2026-05-03", out=None, **note):
    was = LogSet(
        shot_name=name, subject=subject, rig=list(rig), magnification=size, f_number=5.6, works_as=8.4,
        shutter_words="1/8 s", iso=100, way="Stack by rail, f/5.6", kind="rail", depth_mm=20, step_mm=0.5,
        frames_planned=12, time_planned_s=60,
    )  # fmt: skip
    done = LogDone(
        state="finished", frames_taken=12, taken_again=0, left_out=0, added=0, time_s=75, folder=None, first_file=None
    )
    return LogEntry(
        entry_id="0" * 32, shot_id="s" * 12, run_id=None, set=was, done=done, out=out,
        note=LogNote(**note), note_number=0, made_at=f"{day}T10:00:00.000+00:00",
    )  # fmt: skip


@pytest.fixture
def pod():
    return next(shot for shot in demo_shots() if shot.name.startswith("Cut cocoa"))


def names_of(shot):
    return [*(placed.gear.name or placed.gear.kind for placed in shot.rig), "a body"]


def test_subject_rig_and_size_are_told_apart(pod):
    rig = names_of(pod)
    assert alike(entry("Cocoa pods, raw").set, pod, 3.0) == ["subject"]
    assert alike(entry("Stamp", rig=rig).set, pod, 3.0) == ["rig"]
    assert alike(entry("Stamp", size=0.5).set, pod, 0.6) == ["size"]
    assert alike(entry("Stamp", size=0.5).set, pod, 0.63) == []
    assert alike(entry("Stamp", size=None).set, pod, 0.5) == []
    assert alike(entry("A cocoa pod", rig=rig, size=0.5).set, pod, 0.5) == ["subject", "rig", "size"]


def test_small_words_make_no_subject(pod):
    assert alike(entry("The cut of a new suit").set, pod, 9) == []


def test_the_most_alike_comes_first_and_a_size_alone_says_nothing(pod):
    rig = names_of(pod)
    told = reminders(
        [
            entry("Stamp", size=0.5, next_time="size alone"),
            entry("Cocoa", next_time="subject"),
            entry("Cocoa pod", rig=rig, next_time="all three"),
            entry("Cocoa", next_time="   "),
        ],
        pod,
        0.5,
    )
    assert [one.line for one in told] == ["all three", "subject"]
    assert told[0].why == "the same subject, rig and size"
    assert told[0].from_ == "Cocoa pod, 2026-05-03"


def test_a_word_of_the_whole_trade_is_no_subject(pod):
    many = [entry(f"Cocoa thing {k}", size=9, next_time=str(k)) for k in range(8)]
    assert reminders(many, pod, 0.5) == []
    assert len(reminders(many[:3], pod, 0.5)) == 2


@pytest.mark.parametrize(
    ("words", "there"),
    [
        ("POD", True), ("pod f/5.6", True), ("0.5x", True), ("wilted", True), ("2026-05", True), ("window", True),
        ("drifts", True), ("pod orchid", False),
    ],
)  # fmt: skip
def test_all_words_must_stand_somewhere_in_the_entry(words, there):
    out = LogOut(
        job_id="", may_come_down=True, answer="Yes.", findings=["The light drifts."], frames_used=1, frames=1, proofs=[]
    )
    one = entry(wrong=["wilted"], next_time="Close the window.", out=out)
    assert holds(one, words) == there


def test_a_day_a_month_a_year():
    one = entry(day="2026-05-03")
    assert [holds(one, "", day) for day in ("2026", "2026-05", "2026-05-03", "2026-06", "2025")] == [True] * 3 + [
        False
    ] * 2


def test_words_for_trouble_are_those_used_most_then_the_usual_ones():
    words = trouble_words([entry(wrong=["a fly", "dust"]), entry(wrong=["a fly"]), entry(wrong=["dust", "a fly"])])
    assert words[:2] == ["a fly", "dust"]
    assert words.count("dust") == 1
    assert "bump" in words


@pytest.mark.parametrize("line", ["=1+1", "+SUM(A1)", "-2", "@me", 'say "no", twice\nand again'])
def test_a_table_holds_any_line_and_runs_none(line):
    rows = list(csv.DictReader(io.StringIO(log_csv([entry(next_time=line), entry()]))))
    assert len(rows) == 2
    assert rows[0]["next_time"].lstrip("'") == line
    assert rows[0]["next_time"][0] not in "=+-@"
    assert rows[0]["rig"] == "lens + body"


def test_what_was_done_is_counted_from_the_events():
    events = [
        RunEvent(kind="taken", frame=0, file="a.jpg"),
        RunEvent(kind="once_more", frame=0, file="b.jpg"),
        RunEvent(kind="skipped", frame=1),
        RunEvent(kind="added", focuses_mm=[0.25]),
        RunEvent(kind="stopped"),
    ]
    done = done_of(replay(plan(), events), "2026-05-03T10:00:00+00:00", "2026-05-03T10:02:30+00:00")
    assert (done.frames_taken, done.taken_again, done.left_out, done.added) == (1, 1, 1, 1)
    assert (done.state, done.time_s, done.first_file) == ("stopped", 150.0, "b.jpg")
    assert done_of(replay(plan(), []), "2026-05-03T10:00:00+00:00", None).time_s == 0
