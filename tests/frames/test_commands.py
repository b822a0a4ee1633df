"""``just-plane check`` and ``merge`` from the shell, on stacks with known truth."""

import json
import struct
from pathlib import Path

import cv2
import jsonschema
import numpy as np
import pytest
import tifffile
from PIL import Image

from just_plane.cli import main
from just_plane.frames.outputs import in_mm
from stacks.camera import Faults, depth_view, sharp_view, write
from stacks.kept import FACTS, STEP_MM, stack_of

ROOT = Path(__file__).parents[2]
pytestmark = pytest.mark.xdist_group("stacks")
NUMBERS = {
    "kind": "rail",
    "magnification": FACTS.magnification,
    "effective_f_number": FACTS.effective_f_number,
    "pixel_pitch_mm": FACTS.pixel_pitch,
    "c_mm": FACTS.circle,
    "depth_of_field_mm": FACTS.depth_of_field,
    "step_mm": STEP_MM,
    "planned_frames": 12,
    "entrance_pupil_distance_mm": FACTS.pupil_distance,
}


@pytest.fixture
def plan(tmp_path):
    path = tmp_path / "plan.json"
    path.write_text(json.dumps(NUMBERS))
    return path


def frames_of(tmp_path, faults=None, kind="dome", jpeg=False):
    stack = stack_of(kind, 4, faults, jpeg=jpeg)
    write(stack, tmp_path / "pod")
    return stack, tmp_path / "pod"


def run(*arguments):
    return main([str(argument) for argument in arguments])


def test_a_whole_stack_may_come_down(tmp_path, plan, capsys):
    _, folder = frames_of(tmp_path)
    out = tmp_path / "report.json"
    assert run("check", folder, "--plan", plan, "--out", out) == 0
    assert "can come down" in capsys.readouterr().out
    report = json.loads(out.read_text())
    assert (report["version"], report["name"]) == (1, "pod")
    jsonschema.validate(report, json.loads((ROOT / "docs" / "check-report.schema.json").read_text()))
    assert report["findings"] == []
    assert report["plan"]["step_mm"] == STEP_MM
    assert [frame["file"] for frame in report["frames"]] == [f"P{k + 101:04d}.tif" for k in range(12)]
    assert [frame["focus_mm"] for frame in report["frames"]] == pytest.approx([k * STEP_MM for k in range(12)])
    assert "NaN" not in out.read_text()


def test_a_gap_keeps_the_set_up_and_says_where_to_focus(tmp_path, plan, capsys):
    _, folder = frames_of(tmp_path, Faults(skipped=(6, 2)))
    out = tmp_path / "report.json"
    assert run("check", folder, "--plan", plan, "--out", out, "--quick") == 3
    said = capsys.readouterr().out
    assert "Not yet" in said
    assert f"at {6 * STEP_MM:.2f} and {7 * STEP_MM:.2f} mm" in said
    assert run("check", folder, "--plan", plan, "--units", "in", "--quick") == 3
    assert f"at {6 * STEP_MM / 25.4:.3f} and {7 * STEP_MM / 25.4:.3f} in behind" in capsys.readouterr().out
    report = json.loads(out.read_text())
    assert [(one["code"], one["frame"], one["after"], one["amount"]) for one in report["findings"]] == [
        ("skipped_step", 6, 5, 2.0)
    ]
    assert report["gaps"][0]["focuses_mm"] == pytest.approx([6 * STEP_MM, 7 * STEP_MM])
    assert report["depth"] is None


def test_the_depth_map_gives_millimetres_by_its_two_numbers(tmp_path, plan):
    stack, folder = frames_of(tmp_path)
    out = tmp_path / "results" / "report.json"
    out.parent.mkdir()
    run("check", folder, "--plan", plan, "--out", out)
    report = json.loads(out.read_text())
    told = report["depth"]
    with tifffile.TiffFile(out.parent / told["file"]) as file:
        counts = file.asarray()
        about = json.loads(file.pages[0].description)
    assert counts.dtype == np.uint16
    assert (about["zero"], about["scale"]) == pytest.approx((told["zero_mm"], told["mm_per_count"]))
    assert list(counts.shape[::-1]) == report["size"]
    left, top = (int(value) for value in report["origin"])
    true = depth_view(stack, report["reference_frame"])[top : top + counts.shape[0], left : left + counts.shape[1]]
    known = counts != told["unknown"]
    wrong = np.abs(told["zero_mm"] + counts * told["mm_per_count"] - true * STEP_MM)[known]
    assert np.median(wrong) < 0.15 * STEP_MM
    assert np.mean(wrong < STEP_MM) > 0.93


def test_a_merge_writes_a_deep_proof_points_and_a_sheet(tmp_path, plan):
    stack, folder = frames_of(tmp_path)
    out = tmp_path / "out"
    assert run("merge", folder, "--plan", plan, "--method", "depth", "--out", out) == 0
    report = json.loads((out / "pod-check.json").read_text())
    with tifffile.TiffFile(out / "pod-proof-depth.tif") as file:
        proof, tags = file.asarray(), file.pages[0].tags
        assert tags["Software"].value == "Just Plane"
        # 0.5x at 0.01 mm a pixel: 50 pixels a millimetre of the subject, 500 a centimetre.
        assert tags["XResolution"].value[0] / tags["XResolution"].value[1] == pytest.approx(500)
    assert proof.dtype == np.uint16
    left, top = (int(value) for value in report["origin"])
    height, width = proof.shape[:2]
    true = sharp_view(stack, report["reference_frame"])[top : top + height, left : left + width, ::-1]
    assert -10 * np.log10(np.mean((proof / 65535 - true) ** 2)) > 37.0
    assert Image.open(out / "pod-sheet.jpg").size[0] > 1000
    head, body = (out / "pod-points.ply").read_bytes().split(b"end_header\n", 1)
    count = int(head.split(b"element vertex ")[1].split(b"\n")[0])
    assert len(body) == 15 * count
    z = [struct.unpack_from("<3f", body, 15 * k)[2] for k in range(0, count, 997)]
    assert min(z) > -STEP_MM
    assert max(z) < 12 * STEP_MM


def test_a_report_is_merged_by_and_only_with_its_own_frames(tmp_path, plan, capsys):
    _, folder = frames_of(tmp_path, Faults(dead_flash=5))
    out = tmp_path / "report.json"
    assert run("check", folder, "--plan", plan, "--out", out, "--quick") == 0
    report = json.loads(out.read_text())
    assert [frame["why_not"] for frame in report["frames"]].count("dead_flash") == 1
    assert run("merge", folder, "--check", out, "--out", tmp_path / "out", "--method", "pyramid") == 0
    (folder / "P0103.tif").unlink()
    assert run("merge", folder, "--check", out, "--out", tmp_path / "out") == 2
    assert "other frames" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("content", "said"),
    [
        ("not json", "no JSON"),
        ('{"kind": "sledge"}', "/kind"),
        ('{"magnification": -1}', "/magnification"),
        ("[1, 2]", "plan.json"),
        ('{"format": "something/else"}', "not a shot"),
    ],
)
def test_a_plan_that_is_none_is_refused_in_a_sentence(tmp_path, content, said, capsys):
    _, folder = frames_of(tmp_path)
    path = tmp_path / "plan.json"
    path.write_text(content)
    assert run("check", folder, "--plan", path) == 2
    assert said in capsys.readouterr().err


def test_a_stack_broken_off_before_its_end_may_not_come_down(tmp_path, plan, capsys):
    _, folder = frames_of(tmp_path)
    for k in range(9, 13):
        (folder / f"P{100 + k:04d}.tif").unlink()
    assert run("check", folder, "--plan", plan) == 3
    said = capsys.readouterr().out
    assert "ends at P0108.tif, short of what was planned" in said
    assert f"Take 4 more frames, at {8 * STEP_MM:.2f}, {9 * STEP_MM:.2f}" in said


def test_folders_that_hold_no_stack_are_refused(tmp_path, capsys):
    assert run("check", tmp_path / "nowhere") == 2
    assert "There is no folder" in capsys.readouterr().err
    assert run("merge", tmp_path, "--out", tmp_path / "out") == 2
    assert "at least two" in capsys.readouterr().err


def test_a_stack_without_a_plan_is_checked_as_far_as_that_goes(tmp_path, capsys):
    _, folder = frames_of(tmp_path, Faults(skipped=(6, 2)))
    assert run("check", folder) == 3
    said = capsys.readouterr().out
    assert "between P0106.tif and P0107.tif" in said
    assert "Without the numbers of a plan" in said


def test_pictures_of_different_things_may_not_come_down(tmp_path, capsys):
    folder = tmp_path / "holiday"
    folder.mkdir()
    for k in range(5):
        noise = np.random.default_rng(k).uniform(0, 255, (120, 180, 3)).astype(np.uint8)
        cv2.imwrite(str(folder / f"h{k}.jpg"), cv2.GaussianBlur(noise, (0, 0), 2))
    assert run("check", folder) == 3
    assert "Not yet" in capsys.readouterr().out


def test_frames_with_nothing_in_them_are_unknown_never_sharp(tmp_path, capsys):
    folder = tmp_path / "grey"
    folder.mkdir()
    for k in range(9):
        noise = np.random.default_rng(k).normal(128, 2, (120, 180, 3))
        cv2.imwrite(str(folder / f"g{k}.png"), np.clip(noise, 0, 255).astype(np.uint8))
    assert run("check", folder) == 3
    assert "can come down" not in capsys.readouterr().out


def test_a_disk_that_refuses_leaves_nothing_half_written(tmp_path, plan, capsys, monkeypatch):
    _, folder = frames_of(tmp_path)

    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("just_plane.pictures.frames_out.os.replace", full)
    out = tmp_path / "out"
    assert run("merge", folder, "--plan", plan, "--out", out) == 2
    assert "No room is left" in capsys.readouterr().err
    assert list(out.iterdir()) == []


def test_depth_in_mm_follows_the_places_of_the_frames_used():
    class Frame:
        def __init__(self, focus, steps):
            self.focus_mm, self.place_steps = focus, steps

    class Report:
        frames = [Frame(0.0, 0), Frame(None, None), Frame(4.0, 2), Frame(6.0, 3)]

    assert in_mm(np.array([0.0, 0.5, 1.0, 2.0]), Report, [0, 2, 3])[0] == pytest.approx([0.0, 2.0, 4.0, 6.0])
    Report.frames = [Frame(None, 0), Frame(None, 2)]
    assert in_mm(np.array([0.5]), Report, [0, 1]) == (pytest.approx([1.0]), "steps")


def test_a_frame_that_was_left_out_can_be_put_back_and_is_merged_then(tmp_path, plan, capsys):
    _, folder = frames_of(tmp_path, Faults(dead_flash=5))
    reports = []
    for more in ((), ("--put-back", "P0106.tif")):
        run("check", folder, "--plan", plan, "--out", tmp_path / "report.json", "--quick", *more)
        reports.append(json.loads((tmp_path / "report.json").read_text()))
    assert [report["frames"][5]["used"] for report in reports] == [False, True]
    assert [report["frames"][5]["why_not"] for report in reports] == ["dead_flash", ""]
    assert [[one["code"] for one in report["findings"]] for report in reports] == [["dead_flash"]] * 2
    assert "left out" in reports[0]["findings"][0]["remedy"]
    assert "You put it back" in reports[1]["findings"][0]["remedy"]
    assert reports[1]["verdict"]["may_come_down"]
    assert run("check", folder, "--put-back", "P0199.tif") == 2
    assert "There is no frame P0199.tif" in capsys.readouterr().err


@pytest.mark.parametrize("shared", ["6", "9", "-1"])
def test_slabs_cannot_share_all_of_their_frames(tmp_path, capsys, shared):
    _, folder = frames_of(tmp_path)
    assert run("merge", folder, "--out", tmp_path / "out", "--slabs", "6", "--shared", shared) == 2
    assert f"cannot share {shared}" in capsys.readouterr().err
    assert not (tmp_path / "out").exists()


def test_a_slab_of_three_frames_is_none(tmp_path, capsys):
    with pytest.raises(SystemExit):
        run("merge", tmp_path, "--out", tmp_path, "--slabs", "3")
    assert "a slab has 4 to 100 frames" in capsys.readouterr().err
