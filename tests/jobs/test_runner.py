"""Jobs by the real runner and the real processes: once, twice, stopped, killed, refused."""

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from just_plane.contract.check import CheckReport
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.finishing import REPORT
from just_plane.jobs.embedded import EmbeddedEngine
from just_plane.jobs.requests import check_request, result_file, results_folder
from just_plane.jobs.runner import Runner
from just_plane.store.folder import open_store
from just_plane.store.work import Work
from stacks.camera import Faults, write
from stacks.kept import stack_of

pytestmark = pytest.mark.xdist_group("stacks")
PATIENCE_S = 90


@pytest.fixture
def frames(tmp_path):
    write(stack_of("dome", 4, Faults(dead_flash=5), jpeg=False), tmp_path / "pod")
    return tmp_path / "pod"


@pytest.fixture
def jobs(tmp_path):
    return open_store(tmp_path / "data").jobs


@pytest.fixture
def running(jobs):
    runner = Runner(jobs, EmbeddedEngine())
    runner.start()
    yield runner
    runner.stop()


def ask(jobs, folder, methods=()):
    request, key = check_request(folder, StackNumbers(), list(methods))
    return jobs.ask("check", request, key, "0123456789abcdef")


def ended(jobs, job):
    """The job once it is at rest; a machine that is busy is waited for."""
    until = time.monotonic() + PATIENCE_S
    while time.monotonic() < until:
        now = jobs.get(job.job_id)
        if now.state in ("done", "failed", "cancelled"):
            return now
        time.sleep(0.1)
    raise AssertionError(f"still {now.state}")


def test_a_check_is_done_and_its_results_are_whole(jobs, running, frames):
    job = ask(jobs, frames, ["depth"])
    running.wake()
    assert ended(jobs, job).state == "done"
    report = CheckReport.model_validate_json(result_file(jobs, job, REPORT).read_bytes())
    assert [one.code for one in report.findings] == ["dead_flash"]
    folder = results_folder(jobs.folder, job.request_key)
    for name in ("curves.npz", "proof-depth.jpg", "pod-proof-depth.tif", "pod-depth.tif", "pod-sheet.jpg"):
        assert (folder / name).stat().st_size > 1000
    until = time.monotonic() + PATIENCE_S
    while (jobs.folder / "scratch" / job.job_id).exists():  # it goes after the job is said to be done
        assert time.monotonic() < until
        time.sleep(0.1)
    assert [path for path in folder.parent.iterdir() if path.name.startswith(".tmp")] == []


def test_a_second_press_joins_the_first_and_the_same_again_is_not_worked_out_again(jobs, running, frames):
    first, second = ask(jobs, frames), ask(jobs, frames)
    assert first.job_id == second.job_id
    running.wake()
    ended(jobs, first)
    made = result_file(jobs, first, REPORT).stat().st_mtime_ns
    third = ask(jobs, frames)
    assert third.job_id != first.job_id
    running.wake()
    assert ended(jobs, third).state == "done"
    assert result_file(jobs, third, REPORT).stat().st_mtime_ns == made


def test_other_numbers_methods_or_frames_are_another_request(frames):
    keys = {check_request(frames, StackNumbers(), [])[1]}
    keys.add(check_request(frames, StackNumbers(step_mm=0.5), [])[1])
    keys.add(check_request(frames, StackNumbers(), ["depth"])[1])
    os.utime(frames / "P0101.tif", (1, 1))
    keys.add(check_request(frames, StackNumbers(), [])[1])
    assert len(keys) == 4


def test_frames_that_vanish_before_their_turn_fail_in_words(jobs, running, frames):
    job = ask(jobs, frames)
    for path in frames.iterdir():
        path.unlink()
    running.wake()
    now = ended(jobs, job)
    assert now.state == "failed"
    assert "at least two" in now.message


def test_a_waiting_job_is_cancelled_at_once_and_a_running_one_between_frames(jobs, frames):
    waiting = ask(jobs, frames)
    assert jobs.cancel(waiting.job_id).state == "cancelled"
    runner = Runner(jobs, EmbeddedEngine())
    runner.start()
    try:
        job = ask(jobs, frames, ["depth", "pyramid", "windowed"])
        runner.wake()
        while jobs.get(job.job_id).state == "waiting":
            time.sleep(0.02)
        now = jobs.cancel(job.job_id)
        if now.state == "cancelling":
            runner.ask_to_stop(now)
        assert ended(jobs, job).state in ("cancelled", "done")
        assert jobs.get(job.job_id).state == "cancelled" or result_file(jobs, job, REPORT).exists()
    finally:
        runner.stop()


def test_a_worker_that_is_killed_is_replaced_and_the_job_ends_well(jobs, running, frames):
    job = ask(jobs, frames, ["depth"])
    running.wake()
    killed = False
    until = time.monotonic() + PATIENCE_S
    while not killed and time.monotonic() < until and jobs.get(job.job_id).state in ("waiting", "running"):
        for child in _children(os.getpid()):
            if "spawn_main" in child[1]:
                os.kill(child[0], signal.SIGKILL)
                killed = True
        time.sleep(0.02)
    assert killed
    assert ended(jobs, job).state == "done"


def _children(parent):
    found = []
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                about = (entry / "stat").read_text().rsplit(")", 1)[1].split()
                if int(about[1]) == parent:
                    found.append((int(entry.name), (entry / "cmdline").read_text()))
            except OSError:
                continue
    return found


def test_what_ran_when_the_server_was_killed_is_done_by_the_next(tmp_path, jobs, frames):
    job = ask(jobs, frames, ["depth"])
    script = (
        "import sys, time; from just_plane.store.folder import open_store\n"
        "from just_plane.jobs.embedded import EmbeddedEngine; from just_plane.jobs.runner import Runner\n"
        "if __name__ == '__main__':\n"
        "    Runner(open_store(sys.argv[1]).jobs, EmbeddedEngine()).start(); print('up', flush=True); time.sleep(600)\n"
    )
    path = tmp_path / "server.py"
    path.write_text(script)
    server = subprocess.Popen([sys.executable, path, tmp_path / "data"], stdout=subprocess.PIPE, text=True)
    server.stdout.readline()
    while jobs.get(job.job_id).state == "waiting":
        time.sleep(0.02)
    server.send_signal(signal.SIGKILL)
    server.wait()
    assert jobs.get(job.job_id).state in ("running", "done")
    runner = Runner(jobs, EmbeddedEngine())
    runner.start()
    try:
        assert ended(jobs, job).state == "done"
        assert result_file(jobs, job, REPORT).exists()
    finally:
        runner.stop()


def test_a_job_that_is_asked_to_stop_when_the_server_dies_is_cancelled_by_the_next(jobs, frames):
    job = ask(jobs, frames)
    work = Work(jobs.database)
    work.take(work.claim("one", 0.0))
    assert jobs.cancel(job.job_id).state == "cancelling"
    assert work.claim("another", 100.0) is not None
    assert jobs.get(job.job_id).state == "cancelled"
