"""Checking and merging against unpacking the same frames, and jobs by several processes against one."""

import contextlib
import json
import os
import re
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

import cv2
from stack_frames import numbers_of, write_frames

from just_plane.contract.shot_file import write_shot
from just_plane.demo.catalogue import demo_shots
from just_plane.frames.as_they_come import NOTHING_ASKED, Watching
from just_plane.frames.checking import check_intake, stack_facts
from just_plane.frames.intake import take_in
from just_plane.frames.merging import METHODS, Merger
from just_plane.frames.tasks import do_task
from just_plane.jobs.embedded import EmbeddedEngine
from just_plane.jobs.graph import out_of, pieces
from just_plane.jobs.hosts import HostsEngine
from just_plane.jobs.requests import check_request, part_file
from just_plane.jobs.runner import Runner
from just_plane.pictures.rows import RowsFile
from just_plane.store.folder import open_store
from just_plane.store.work import Work

LARGE, LARGE_FRAMES = 6000, 24
SMALL, SMALL_FRAMES = 2400, 40
GIVE_UP_S = 900


def unpacking_s(paths):
    """CPU time to unpack a frame in full colour, median, s."""
    times = []
    for path in paths:
        start = time.process_time()
        cv2.imread(str(path))
        times.append(time.process_time() - start)
    return statistics.median(times)


def one_by_one(folder):
    """CPU time a frame over unpacking it, of checking and of each way of merging; bytes a pixel at most. One process.

    Unpacking is measured before and after each, so that a machine that changes its mind falls on both.
    """
    cv2.setNumThreads(1)
    intake = take_in(folder)
    paths, count = [intake.folder / name for name in intake.names], len(intake.names)
    numbers = numbers_of(count)
    answer = {}

    def measured(name, work):
        before, start = unpacking_s(paths[:6]), time.process_time()
        made = work()
        spent = (time.process_time() - start) / count
        answer[name] = spent / ((before + unpacking_s(paths[:6])) / 2)
        return made

    report, _ = measured("check", lambda: check_intake(intake, numbers))
    merger = Merger(intake, report, stack_facts(numbers, report.width_px))
    depth = merger.depth(measured("depth map", merger.focus))
    for method in ("windowed", "depth", "pyramid"):
        with tempfile.TemporaryDirectory() as scratch, RowsFile(Path(scratch) / "rows", 1) as file:
            measured(
                method,
                lambda method=method, file=file: merger.pictures(
                    (method,), depth, lambda _method, shape: file.begin(shape)
                ),
            )
        if method == "windowed":
            height, width = report.height_px, report.width_px
            answer["bytes"] = highest_bytes() / height / width
    watching, looks = Watching(numbers, NOTHING_ASKED), []
    for path in paths[:8]:
        start = time.perf_counter()
        watching.look(path)
        looks.append(time.perf_counter() - start)
    return answer | {"look": statistics.median(looks), "looked": max(looks)}


def highest_bytes():
    """The most memory that this process ever held; not what the process before it held in the same name."""
    status = Path("/proc/self/status").read_text()
    return 1024 * int(re.search(r"VmHWM:\s+(\d+)", status).group(1))


def bare_s(folder, data):
    """Time of a whole job by its functions one after the other, on one core, s."""
    os.sched_setaffinity(0, {min(os.sched_getaffinity(0))})
    cv2.setNumThreads(1)
    jobs = open_store(data).jobs
    request, key = check_request(Path(folder), numbers_of(SMALL_FRAMES), list(METHODS))
    job = jobs.ask("check", request, key)
    start = time.perf_counter()
    for task in pieces(job, jobs.folder, Work(jobs.database), 1):
        needs = [str(part_file(jobs.folder, need)) for need in task.needs]
        place = str(out_of(task, jobs.folder)[0])
        do_task(task.kind, task.order_json, needs, place, str(data), task.result_key)
    return time.perf_counter() - start


def engine_s(folder, data, engine):
    """Time of the same job by an engine whose processes are up, s."""
    jobs = open_store(data).jobs
    for future in [engine.submit(time.sleep, 1) for _ in range(2 * engine.workers)]:
        future.result()
    runner = Runner(jobs, engine)
    runner.start()
    try:
        request, key = check_request(Path(folder), numbers_of(SMALL_FRAMES), list(METHODS))
        job = jobs.ask("check", request, key)
        start = time.perf_counter()
        runner.wake()
        while jobs.get(job.job_id).state != "done":
            assert time.perf_counter() - start < GIVE_UP_S, jobs.get(job.job_id)
            time.sleep(0.1)
        return time.perf_counter() - start
    finally:
        runner.stop()


@contextlib.contextmanager
def two_hosts():
    """A scheduler and two processes of work on this machine: its address."""
    port = "8791"
    programs = [_program("meet", "--host", "127.0.0.1", "--port", port)]
    programs += [_program("work", "--hosts", f"tcp://127.0.0.1:{port}", "--processes", "1") for _ in range(2)]
    try:
        yield f"tcp://127.0.0.1:{port}"
    finally:
        for program in programs:
            program.terminate()


def _program(*arguments):
    command = [sys.executable, "-m", "just_plane.cli", *arguments]
    return subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)


def page_during_a_job(folder, data):
    """Median time of an answer of the page's server, at rest and while it checks and merges, s."""
    server = subprocess.Popen(
        [sys.executable, "-m", "just_plane.cli", "serve", "--data", data, "--port", "0"],
        stdout=subprocess.PIPE,
        text=True,
    )
    try:
        address = re.search(r"http://\S+/", server.stdout.readline()).group()
        body = write_shot(demo_shots()[0]).encode()

        def ask(path, content):
            head = {"Content-Type": "application/json"}
            with urllib.request.urlopen(urllib.request.Request(address + path, content, head)) as response:
                return json.load(response)

        def answers(count=60):
            times = []
            for _ in range(count):
                start = time.perf_counter()
                ask("api/plan", body)
                times.append(time.perf_counter() - start)
                time.sleep(0.05)
            return statistics.median(times)

        answers(10)
        at_rest = answers()
        asked = {"folder": str(folder), "numbers": numbers_of(SMALL_FRAMES).model_dump(), "methods": list(METHODS)}
        ask("api/checks", json.dumps(asked).encode())
        time.sleep(4)
        return at_rest, answers()
    finally:
        server.terminate()
        server.wait()


def _said(script):
    """What a process of its own prints."""
    return subprocess.run([sys.executable, "-c", script], capture_output=True, text=True, check=True).stdout


def rows():
    """The rows of the table."""
    # A server that is stopped amid a job leaves a process that still writes.
    with tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as scratch:
        yield from _large(Path(scratch))
        yield from _jobs(Path(scratch))


def _large(scratch):
    folder = write_frames(scratch / "large", LARGE_FRAMES, LARGE)
    script = f"import json, sys; sys.path.insert(0, {str(Path(__file__).parent)!r}); import frames; "
    script += f"print(json.dumps(frames.one_by_one({str(folder)!r})))"
    found = json.loads(
        subprocess.run([sys.executable, "-c", script], capture_output=True, text=True, check=True).stdout
    )
    against = f"x unpacking it in colour; {LARGE_FRAMES} frames of 24 megapixels"
    yield "check, a frame", f"{found['check']:.1f}", against, "1.5"
    yield "depth map, a frame more", f"{found['depth map']:.1f}", against, ""
    for method, words in (("depth", "by depth"), ("windowed", "by detail near its depth"), ("pyramid", "by detail")):
        yield f"merge {words}, a frame", f"{found[method]:.1f}", against, "3"
    yield "memory, check and merge, at most", f"{found['bytes']:.0f} bytes a pixel", "the whole process", "35"
    yield "a look at a frame as it comes", f"{found['look']:.2f} s", f"median; at most {found['looked']:.2f} s", "1 s"


def _jobs(scratch):
    folder = write_frames(scratch / "small", SMALL_FRAMES, SMALL)
    script = f"import sys; sys.path.insert(0, {str(Path(__file__).parent)!r}); import frames; "
    script += f"print(frames.bare_s({str(folder)!r}, "
    script += "'SCRATCH'))"
    bares, pools = [], []
    for turn in range(2):  # in turns, the better of each: a busy moment falls on both
        bares.append(float(_said(script.replace("SCRATCH", str(scratch / f"bare-{turn}")))))
        pools.append(engine_s(folder, scratch / f"pool-{turn}", EmbeddedEngine(2)))
    bare, pool = min(bares), min(pools)
    what = f"job of {SMALL_FRAMES} frames of 3.8 megapixels, three methods"
    yield f"{what}: two processes", f"{bare / pool:.2f}x as fast", f"bare functions on one core ({bare:.0f} s)", "1.7x"
    with two_hosts() as address:
        engine = HostsEngine(address, None, scratch / "hosts" / "results")
        while engine.workers < 2:
            time.sleep(0.5)
        hosts = engine_s(folder, scratch / "hosts", engine)
    yield f"{what}: two hosts", f"{hosts / pool:.2f}x the time", "two processes of the embedded pool", "1.5x"
    at_rest, busy = page_during_a_job(folder, str(scratch / "page"))
    yield "plan over HTTP during a job", f"{busy / at_rest:.1f}x", f"at rest ({1000 * at_rest:.1f} ms)", "2x"
