"""A stack taken to its end by tasks: the same bytes in whatever pieces, and by the shell."""

import json
import os
from pathlib import Path

import cv2
import numpy as np
import pytest
import tifffile

from just_plane.cli import main
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.checking import stack_facts
from just_plane.frames.finishing import CURVES, MARKS, REPORT
from just_plane.frames.intake import take_in
from just_plane.frames.measuring import measure_slab, slab_bytes, slab_of
from just_plane.frames.tasks import StoppedError, WorkError, do_task
from just_plane.jobs.graph import out_of, pieces
from just_plane.jobs.requests import check_request, part_file, results_folder
from just_plane.store.folder import open_store
from just_plane.store.work import Work
from stacks.camera import Faults, write
from stacks.kept import stack_of

pytestmark = pytest.mark.xdist_group("stacks")
METHODS = ["depth", "pyramid", "windowed"]


@pytest.fixture(scope="module")
def pod(tmp_path_factory):
    """Twelve frames, twice as large each way as they were made, so that a picture has more than one strip."""
    folder = tmp_path_factory.mktemp("frames") / "pod"
    write(stack_of("dome", 4, Faults(skipped=(8, 1)), jpeg=False), folder)
    for path in folder.iterdir():
        frame = cv2.imread(str(path), cv2.IMREAD_UNCHANGED)
        cv2.imwrite(str(path), cv2.resize(frame, None, fx=2.25, fy=2.25, interpolation=cv2.INTER_CUBIC))
    return folder


def whole(tmp_path, pod, workers, methods=METHODS, slabs=None, *, backwards=False):
    """Every task of a check, one after the other; of those that could be next the last, if that is asked."""
    jobs = open_store(tmp_path / f"data-{workers}-{backwards}").jobs
    request, key = check_request(pod, StackNumbers(), methods, slabs)
    job = jobs.ask("check", request, key)
    tasks = pieces(job, jobs.folder, Work(jobs.database), workers)
    done: set = {tasks[0].needs[0]}
    scratch = tmp_path / "scratch"
    scratch.mkdir(exist_ok=True)
    kinds = []
    while len(done) <= len(tasks):
        ready = [task for task in tasks if task.result_key not in done and set(task.needs) <= done]
        task = ready[-1 if backwards else 0]
        needs = [str(part_file(jobs.folder, need)) for need in task.needs]
        do_task(task.kind, task.order_json, needs, str(out_of(task, jobs.folder)[0]), str(scratch), task.result_key)
        done.add(task.result_key)
        kinds.append(task.kind)
    return results_folder(jobs.folder, job.request_key), kinds


def bytes_of(folder):
    return {path.name: path.read_bytes() for path in folder.iterdir()}


def test_the_same_bytes_come_out_in_whatever_pieces_and_order(tmp_path, pod):
    one, kinds = whole(tmp_path, pod, 1, slabs=(5, 2))
    assert kinds.count("measure") == 2
    three, more = whole(tmp_path, pod, 3, slabs=(5, 2), backwards=True)
    assert more.count("merge") == 3
    assert bytes_of(one) == bytes_of(three)
    report = json.loads((one / REPORT).read_text())
    assert {REPORT, CURVES, MARKS, "pod-depth.tif", "pod-slab-02.tif", "proof-windowed.tiles"} <= set(bytes_of(one))
    assert [slab["frames"] for slab in report["slabs"]] == [
        [0, 1, 2, 3, 4],
        [3, 4, 5, 6, 7],
        [6, 7, 8, 9, 10],
        [9, 10, 11],
    ]
    assert [finding["code"] for finding in report["findings"]] == ["skipped_step"]


def test_the_shell_makes_the_very_pictures_that_jobs_make(tmp_path, pod, capsys):
    made, _ = whole(tmp_path, pod, 2, ["windowed"])
    assert main(["merge", str(pod), "--out", str(tmp_path / "out"), "--slabs", "6"]) == 0
    for name in ("pod-proof-windowed.tif", "pod-depth.tif", "pod-sheet.jpg"):
        assert (tmp_path / "out" / name).read_bytes() == (made / name).read_bytes()
    assert "pod-slab-01.tif" in capsys.readouterr().out
    assert not list((tmp_path / "out").glob(".tmp*"))
    # What was written beside the frames is not taken for frames.
    for path in (tmp_path / "out").iterdir():
        (pod / path.name).write_bytes(path.read_bytes())
    assert len(take_in(pod).names) == 12
    for path in (tmp_path / "out").iterdir():
        (pod / path.name).unlink()


def test_a_slab_is_sharp_where_its_frames_are_and_softer_elsewhere(tmp_path, pod):
    made, _ = whole(tmp_path, pod, 1, ["pyramid"], (6, 0))
    first, all_of_them = (
        tifffile.imread(made / name).astype(float).mean(axis=2) for name in ("pod-slab-01.tif", "pod-proof-pyramid.tif")
    )
    height, width = first.shape
    middle = (slice(height // 2 - 60, height // 2 + 60), slice(width // 2 - 60, width // 2 + 60))
    corner = (slice(20, 140), slice(20, 140))

    def detail(picture, where):
        return cv2.Laplacian(cv2.GaussianBlur(picture, (0, 0), 1.5), cv2.CV_64F)[where].std()

    assert detail(first, middle) == pytest.approx(detail(all_of_them, middle), rel=0.05)
    assert detail(first, corner) < 0.7 * detail(all_of_them, corner)


def test_a_slab_of_measurements_comes_back_from_its_file_as_it_was(tmp_path, pod):
    intake = take_in(pod)
    facts = stack_facts(StackNumbers(), intake.size[0])
    slab, last = measure_slab(intake, facts, (5, 8))
    assert last[0].number == 7
    # The frame before the first is looked at again, so that no pair is missed.
    assert list(slab.pairs) == [(4, 5), (5, 6), (6, 7)]
    (tmp_path / "slab").write_bytes(slab_bytes(slab))
    back = slab_of(tmp_path / "slab")
    assert slab_bytes(back) == slab_bytes(slab)
    assert back.names == slab.names
    for pair, kept in slab.pairs.items():
        assert (back.pairs[pair].laid.similarity == kept.laid.similarity).all()
        assert back.pairs[pair].light_ev == kept.light_ev
    for frame, numbers in slab.numbers.items():
        assert (back.numbers[frame].energy == numbers.energy).all()


def test_marks_tell_depth_and_where_proofs_differ(tmp_path, pod):
    made, _ = whole(tmp_path, pod, 1, ["depth", "pyramid"])
    marks = json.loads((made / MARKS).read_text())
    depth = np.array([value if value is not None else np.nan for value in marks["depth"]]).reshape(marks["down"], -1)
    assert depth.shape[1] == marks["across"]
    rows, columns = depth.shape
    # The middle of the dome is its nearest part.
    near = np.nanmedian(depth[rows // 2 - 5 : rows // 2 + 5, columns // 2 - 5 : columns // 2 + 5])
    far = np.nanmedian(depth[:8, :8])
    assert far > near + 3
    (difference,) = marks["differences"]
    assert (difference["one"], difference["other"]) == ("depth", "pyramid")
    assert len(difference["levels"]) == len(marks["depth"])
    assert 0 < np.mean(difference["levels"]) < 5


def test_frames_that_change_or_come_while_the_work_is_under_way_are_noticed(tmp_path, pod):
    jobs = open_store(tmp_path / "data").jobs
    request, key = check_request(pod, StackNumbers(), [])
    first = pieces(jobs.ask("check", request, key), jobs.folder, Work(jobs.database), 1)[0]
    arguments = (first.kind, first.order_json, [str(part_file(jobs.folder, first.needs[0]))])
    rest = (str(tmp_path / "out"), str(tmp_path), "key")
    frame = pod / "P0104.tif"
    was = frame.stat()
    os.utime(frame, (1, 1))
    with pytest.raises(WorkError, match=r"P0104\.tif changed"):
        do_task(*arguments, *rest)
    os.utime(frame, ns=(was.st_atime_ns, was.st_mtime_ns))
    (pod / "P0199.tif").write_bytes(frame.read_bytes())
    try:
        with pytest.raises(WorkError, match=r"P0199\.tif changed"):
            do_task(*arguments, *rest)
    finally:
        (pod / "P0199.tif").unlink()
    (tmp_path / "stop").touch()
    with pytest.raises(StoppedError):
        do_task(*arguments, *rest)
    (tmp_path / "stop").unlink()
    do_task(*arguments, *rest)
    assert Path(rest[0]).exists()


def test_frames_under_another_name_are_known_by_their_bytes(tmp_path, pod):
    jobs = open_store(tmp_path / "data").jobs
    work = Work(jobs.database)
    keys = []
    copy = tmp_path / "copy"
    copy.mkdir()
    for path in sorted(pod.iterdir()):
        (copy / path.name.replace("P0", "Q0")).write_bytes(path.read_bytes())
    for folder in (pod, copy):
        request, key = check_request(folder, StackNumbers(), ["depth"])
        tasks = pieces(jobs.ask("check", request, key), jobs.folder, work, 2)
        keys.append({task.kind: task.result_key for task in tasks})
    assert keys[0]["measure"] == keys[1]["measure"]
    assert keys[0]["judge"] != keys[1]["judge"]
    assert keys[0]["finish"] != keys[1]["finish"]
    # A plan that measures by the same circle finds them measured, one by another does not.
    planned = StackNumbers(kind="rail", step_mm=0.1)
    request, key = check_request(pod, planned, ["depth"])
    again = {task.kind: task.result_key for task in pieces(jobs.ask("check", request, key), jobs.folder, work, 2)}
    assert again["measure"] == keys[0]["measure"]
    assert again["judge"] != keys[0]["judge"]
    sized = StackNumbers(c_mm=0.03, pixel_pitch_mm=0.005)
    request, key = check_request(pod, sized, [])
    other = {task.kind: task.result_key for task in pieces(jobs.ask("check", request, key), jobs.folder, work, 2)}
    assert other["measure"] != keys[0]["measure"]
