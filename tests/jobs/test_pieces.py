"""Jobs in pieces: rested and gone on with, taken over by another server, not done twice, cleared away."""

import json
import os
import shutil
import subprocess
import sys
import time
from datetime import UTC, datetime, timedelta

import pytest

from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.finishing import REPORT
from just_plane.jobs.cleaning import Cleaning
from just_plane.jobs.embedded import EmbeddedEngine
from just_plane.jobs.requests import check_request, part_file, result_file, results_folder
from just_plane.jobs.runner import Runner, _has_ended
from just_plane.store.errors import DiskError
from just_plane.store.folder import open_store
from just_plane.store.work import SILENT_S, StoodBackError, Task, Work
from stacks.camera import write
from stacks.kept import stack_of

pytestmark = pytest.mark.xdist_group("stacks")
PATIENCE_S = 90


@pytest.fixture
def frames(tmp_path):
    write(stack_of("dome", 4, jpeg=False), tmp_path / "pod")
    return tmp_path / "pod"


@pytest.fixture
def jobs(tmp_path):
    return open_store(tmp_path / "data").jobs


def ask(jobs, folder, methods=("depth",)):
    request, key = check_request(folder, StackNumbers(), list(methods))
    return jobs.ask("check", request, key, "0123456789abcdef")


def until(what):
    """Wait for it; a machine that is busy is waited for."""
    end = time.monotonic() + PATIENCE_S
    while time.monotonic() < end:
        if what():
            return
        time.sleep(0.02)
    raise AssertionError("it did not come")


class Counting:
    """An engine that counts what it is given; it works in a process like the other."""

    lost = EmbeddedEngine.lost
    workers = 2

    def __init__(self):
        self.kinds = []
        self._inner = EmbeddedEngine(2)

    def submit(self, function, kind, *rest):
        self.kinds.append(kind)
        return self._inner.submit(function, kind, *rest)

    def alive(self):
        return True

    def anew(self):
        self._inner.anew()

    def close(self):
        self._inner.close()


@pytest.fixture
def counting(jobs):
    engine = Counting()
    runner = Runner(jobs, engine)
    runner.start()
    yield runner, engine
    runner.stop()


def test_another_method_of_the_same_stack_measures_nothing_again(jobs, counting, frames):
    runner, engine = counting
    first = ask(jobs, frames)
    runner.wake()
    until(lambda: jobs.get(first.job_id).state == "done")
    assert sorted(set(engine.kinds)) == ["depth", "finish", "focus", "judge", "measure", "merge"]
    engine.kinds.clear()
    second = ask(jobs, frames, ["depth", "windowed"])
    runner.wake()
    until(lambda: jobs.get(second.job_id).state == "done")
    assert sorted(set(engine.kinds)) == ["finish", "merge"]
    engine.kinds.clear()
    third = ask(jobs, frames)
    runner.wake()
    until(lambda: jobs.get(third.job_id).state == "done")
    assert engine.kinds == []


def test_a_job_rests_with_what_is_done_of_it_and_goes_on(jobs, counting, frames):
    runner, engine = counting
    job = ask(jobs, frames, ["depth", "pyramid", "windowed"])
    runner.wake()
    until(lambda: any(task.state == "done" for task in runner.work.tasks(job.job_id)))
    now = jobs.pause(job.job_id, paused=True)
    if now.state == "running":
        runner.ask_to_stop(now)
    until(lambda: jobs.get(job.job_id).state != "running")
    at_rest = jobs.get(job.job_id)
    assert (at_rest.state, at_rest.paused) == ("waiting", 1)
    done = {task.result_key for task in runner.work.tasks(job.job_id) if task.state == "done"}
    assert done
    begun = len(engine.kinds)
    time.sleep(1.2)
    assert len(engine.kinds) == begun
    share, _ = runner.progress(jobs.get(job.job_id))
    assert 0 < share < 1
    jobs.pause(job.job_id, paused=False)
    runner.wake()
    until(lambda: jobs.get(job.job_id).state == "done")
    assert result_file(jobs, job, REPORT).exists()


def test_one_server_works_and_another_takes_over_when_it_is_silent(jobs):
    work = Work(jobs.database)
    one = work.claim("one", 1000.0)
    assert one is not None
    assert work.claim("two", 1000.0 + SILENT_S - 1) is None
    work.seen(one, 1010.0)
    assert work.claim("two", 1010.0 + SILENT_S - 1) is None
    two = work.claim("two", 1010.0 + SILENT_S)
    assert two is not None
    # The first wakes up: nothing that it wants to write is written.
    for attempt in (
        lambda: work.seen(one, 1030.0),
        lambda: work.take(one),
        lambda: work.end(one, "0" * 32, "done"),
        lambda: work.done(one, "0" * 32, Task("0" * 32, "judge", 1, "{}", []), 1),
        lambda: work.plan(one, "0" * 32, []),
    ):
        with pytest.raises(StoodBackError):
            attempt()
    assert work.results() == []
    work.let_go(two)
    assert work.claim("one", 1026.0) is not None


def test_a_clock_set_back_and_a_server_that_was_killed_keep_nobody_waiting(jobs):
    work = Work(jobs.database)
    assert work.claim("one", 1_000_000.0) is not None
    assert work.claim("two", 900_000.0) is not None
    assert work.claim("three", 900_001.0) is None
    assert work.claim("three", 900_001.0, lambda owner_id: owner_id == "two") is not None
    ended = subprocess.Popen([sys.executable, "-c", "pass"])
    ended.wait()
    assert _has_ended(f"{ended.pid}-abc")
    assert not _has_ended(f"{os.getpid()}-abc")
    assert not _has_ended("1-abc")
    assert _has_ended("nonsense")


def test_a_folder_of_results_without_its_report_is_made_anew(jobs, counting, frames):
    runner, _ = counting
    job = ask(jobs, frames)
    runner.wake()
    until(lambda: jobs.get(job.job_id).state == "done")
    result_file(jobs, job, REPORT).unlink()
    again = ask(jobs, frames)
    runner.wake()
    until(lambda: jobs.get(again.job_id).state in ("done", "failed"))
    assert jobs.get(again.job_id).state == "done"
    assert result_file(jobs, job, REPORT).exists()


def test_what_a_silent_server_had_begun_is_done_by_the_next(jobs, frames):
    job = ask(jobs, frames)
    asleep = Work(jobs.database)
    owner = asleep.claim(f"{os.getpid()}-asleep", time.time() - 60)
    assert asleep.take(owner).job_id == job.job_id
    runner = Runner(jobs, EmbeddedEngine(1))
    runner.start()
    try:
        until(lambda: jobs.get(job.job_id).state == "done")
        with pytest.raises(StoodBackError):
            asleep.end(owner, job.job_id, "failed")
        assert jobs.get(job.job_id).state == "done"
    finally:
        runner.stop()


def test_of_two_runners_on_one_folder_one_works_and_both_can_tell_how_far(jobs, frames):
    engines = Counting(), Counting()
    runners = [Runner(jobs, engine) for engine in engines]
    try:
        runners[0].start()
        until(lambda: runners[0].owner is not None)
        runners[1].start()
        job = ask(jobs, frames)
        runners[1].wake()
        until(lambda: jobs.get(job.job_id).state == "running" or jobs.get(job.job_id).state == "done")
        assert 0 <= runners[1].progress(job)[0] <= 1
        until(lambda: jobs.get(job.job_id).state == "done")
        assert engines[1].kinds == []
        runners[0].stop()
        again = ask(jobs, frames, ["pyramid"])
        until(lambda: jobs.get(again.job_id).state == "done")
        assert "merge" in engines[1].kinds
    finally:
        for runner in runners:
            runner.stop()


class Losing(Counting):
    """An engine whose workers are always lost at one kind of work."""

    def __init__(self, kind):
        super().__init__()
        self._kind = kind

    def submit(self, function, kind, *rest):
        if kind == self._kind:
            return self._inner.submit(os._exit, 1)
        return super().submit(function, kind, *rest)


def test_work_that_loses_its_worker_again_and_again_ends_in_words(jobs, frames):
    runner = Runner(jobs, Losing("judge"))
    runner.start()
    try:
        job = ask(jobs, frames)
        runner.wake()
        until(lambda: jobs.get(job.job_id).state == "failed")
        assert "broken off three times" in jobs.get(job.job_id).message
    finally:
        runner.stop()


def test_a_file_is_believed_and_not_an_answer(jobs, counting, frames, monkeypatch):
    """A piece that says it is done and has left nothing is done again."""
    runner, engine = counting
    real, lied = engine.submit, []

    def lie(function, kind, *rest):
        if kind == "judge" and not lied:
            lied.append(kind)
            return engine._inner.submit(int, "1")
        return real(function, kind, *rest)

    monkeypatch.setattr(engine, "submit", lie)
    job = ask(jobs, frames)
    runner.wake()
    until(lambda: jobs.get(job.job_id).state == "done")
    assert lied
    assert engine.kinds.count("judge") == 1


def kept(jobs, kind, key, size, used):
    """A piece as it lies there."""
    work = Work(jobs.database)
    owner = work.claim("test", 0.0)
    path = part_file(jobs.folder, key)
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(b"x" * size)
    job = jobs.ask("check", "{}", "f" * 32)
    work.plan(owner, job.job_id, [Task(key, kind, 1, "{}", [])])
    work.done(owner, job.job_id, Task(key, kind, 1, "{}", []), size)
    with jobs.database.write() as connection:
        connection.execute("UPDATE result SET used_at = ? WHERE result_key = ?", (used, key))
    work.end(owner, job.job_id, "cancelled")
    jobs.cancel(job.job_id)
    return path


def test_the_folder_is_kept_to_a_size_the_longest_unused_goes_first(jobs):
    now = datetime.now(UTC)
    old = kept(jobs, "focus", "1" * 32, 600, (now - timedelta(days=2)).isoformat())
    new = kept(jobs, "focus", "2" * 32, 600, now.isoformat())
    short = kept(jobs, "merge", "3" * 32, 10, (now - timedelta(days=1)).isoformat())
    cleaning = Cleaning(jobs, Work(jobs.database), 1000)
    assert cleaning.sweep(now) == 1
    assert [path.exists() for path in (old, new, short)] == [False, True, True]
    # What a job that broke off had merged goes after a week.
    assert cleaning.sweep(now + timedelta(days=8)) == 1
    assert [path.exists() for path in (new, short)] == [True, False]
    assert [key for key, *_ in Work(jobs.database).results()] == ["2" * 32]


def test_what_no_row_tells_of_goes_after_a_day_and_nothing_while_a_job_is_open(jobs):
    lost = part_file(jobs.folder, "a" * 32)
    lost.parent.mkdir(parents=True)
    lost.write_bytes(b"x")
    half = results_folder(jobs.folder, "b" * 32).with_name(".tmp-1-b")
    half.mkdir(parents=True)
    cleaning = Cleaning(jobs, Work(jobs.database), 1000)
    assert cleaning.sweep() == 0
    assert lost.exists()
    tomorrow = datetime.now(UTC) + timedelta(days=1, minutes=1)
    job = jobs.ask("check", "{}", "f" * 32)
    cleaning.sweep(tomorrow)
    assert lost.exists()
    assert not half.exists()
    jobs.cancel(job.job_id)
    assert cleaning.sweep(tomorrow) == 1
    assert not lost.exists()


def test_copies_that_were_brought_go_a_month_after_the_last_look(jobs):
    data = jobs.folder.parent
    batches = [data / "brought" / (digit * 32) for digit in "123"]
    for batch in batches:
        batch.mkdir(parents=True)
        (batch / "a.jpg").write_bytes(b"x")
        os.utime(batch / "a.jpg", (0, 0))
    unseen, looked_at, fresh = batches
    for batch in (unseen, looked_at):
        os.utime(batch, (0, 0))
    jobs.cancel(jobs.ask("check", json.dumps({"folder": str(looked_at)}), "f" * 32).job_id)
    cleaning = Cleaning(jobs, Work(jobs.database))
    cleaning.sweep()
    assert [batch.exists() for batch in batches] == [False, True, True]
    later = datetime.now(UTC) + timedelta(days=29)
    cleaning.sweep(later)
    assert [looked_at.exists(), fresh.exists()] == [True, True]
    cleaning.sweep(later + timedelta(days=2))
    assert [looked_at.exists(), fresh.exists()] == [False, False]


def test_a_disk_that_refuses_ends_the_job_in_words(jobs, counting, frames):
    runner, _ = counting
    job = ask(jobs, frames)
    blocked = part_file(jobs.folder, "0" * 32).parents[1]
    shutil.rmtree(blocked, ignore_errors=True)
    blocked.parent.mkdir(parents=True, exist_ok=True)
    blocked.write_text("a file where the folder should be")
    runner.wake()
    until(lambda: jobs.get(job.job_id).state == "failed")
    assert "disk refused" in jobs.get(job.job_id).message or "could not be written" in jobs.get(job.job_id).message


def test_a_data_file_that_cannot_be_used_for_a_moment_costs_no_job(jobs, counting, frames, monkeypatch):
    runner, engine = counting
    real, refused = runner.work.done, []

    def done(owner, job_id, task, size):
        if task.kind == "judge" and not refused:
            refused.append(task.kind)
            raise DiskError("The disk is full, so this change could not be saved.", "Free some space and try again.")
        real(owner, job_id, task, size)

    monkeypatch.setattr(runner.work, "done", done)
    job = ask(jobs, frames)
    runner.wake()
    until(lambda: jobs.get(job.job_id).state in ("done", "failed"))
    assert jobs.get(job.job_id).state == "done"
    # It began anew, and found what had been done: nothing was judged twice.
    assert refused
    assert jobs.get(job.job_id).tries == 2
    assert engine.kinds.count("judge") == 1
