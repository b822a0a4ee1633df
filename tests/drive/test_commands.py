"""``just-plane run``: a shot's stack from the shell, with trouble, and the run as the plan of its own check."""

import json

import pytest

from just_plane.cli import main
from just_plane.contract.run_file import read_run
from just_plane.contract.shot_file import write_shot
from just_plane.demo.catalogue import demo_shots


@pytest.fixture(scope="module")
def files(tmp_path_factory):
    folder = tmp_path_factory.mktemp("shots")
    for shot in demo_shots():
        (folder / f"{shot.name.split()[0].lower()}.json").write_text(write_shot(shot))
    sugar = next(shot for shot in demo_shots() if shot.name.startswith("Sugar"))
    dense = sugar.model_copy(update={"stack": sugar.stack.model_copy(update={"overlap": 0.7})})
    (folder / "dense.json").write_text(write_shot(dense))
    slice_of = sugar.model_copy(
        update={
            "subject": sugar.subject.model_copy(update={"depth_mm": 0.09}),
            "stack": sugar.stack.model_copy(update={"overlap": 0.2}),
        }
    )
    (folder / "slice.json").write_text(write_shot(slice_of))
    return folder


def run(shot, out, *more):
    return main(["run", str(shot), "--simulated", "--out", str(out), *more])


@pytest.mark.xdist_group("stacks")
def test_a_stack_is_photographed_and_checks_by_its_own_run(files, tmp_path, capsys):
    out = tmp_path / "frames"
    assert run(files / "praline.json", out) == 0
    assert "19 frames in" in capsys.readouterr().out
    kept = read_run((out / "run.json").read_bytes())
    assert [event.event.kind for event in kept.events].count("taken") == 19
    assert kept.numbers.planned_frames == 19
    assert len(list(out.glob("*.jpg"))) == 19
    assert main(["check", str(out), "--plan", str(out / "run.json"), "--quick"]) == 0


@pytest.mark.xdist_group("stacks")
def test_crystals_behind_an_objective_are_taken_with_everything_wrong_and_all_of_it_is_found(files, tmp_path, capsys):
    """A tenth of the bloom's depth at ten times; its pupil is endlessly far: no frame shows more than another."""
    out, report = tmp_path / "frames", tmp_path / "report.json"
    faults = ("rail_slips", "bump", "flash_misfires", "dust")
    assert run(files / "slice.json", out, *(word for fault in faults for word in ("--fault", fault))) == 0
    assert main(["check", str(out), "--plan", str(out / "run.json"), "--out", str(report)]) == 3
    told = json.loads(report.read_text())
    found = [one["code"] for one in told["findings"]]
    assert {"skipped_step", "bump", "dead_flash", "sensor_dust"} == set(found)
    assert told["against_plan"] == []


def test_trouble_is_said_and_ends_with_a_status(files, tmp_path, capsys):
    out = tmp_path / "frames"
    assert run(files / "ganache.json", out, "--fault", "card_full", "--fault", "rail_gone") == 3
    told = capsys.readouterr()
    assert "card is full" in told.err
    # It went on with another card: nothing is missing.
    assert len(list(out.glob("*.jpg"))) == 6


def test_raw_files_stand_beside_when_asked(files, tmp_path):
    out = tmp_path / "frames"
    assert run(files / "ganache.json", out, "--raw") == 0
    assert {path.suffix for path in out.iterdir()} == {".jpg", ".dng", ".json"}


def test_the_same_seed_is_the_same_stack_to_the_byte(files, tmp_path):
    for name in ("one", "two"):
        run(files / "ganache.json", tmp_path / name, "--fault", "rail_play", "--seed", "7")
    run(files / "ganache.json", tmp_path / "three", "--fault", "rail_play", "--seed", "8")
    one, two, three = ((tmp_path / name / "JP_0003.jpg").read_bytes() for name in ("one", "two", "three"))
    assert one == two != three


@pytest.mark.parametrize(
    ("shot", "more", "said"),
    [
        ("ganache.json", ["--fault", "gremlins"], "--fault"),
        ("dense.json", [], "453 frames"),
        ("nothing.json", [], "No such file"),
    ],
)
def test_what_cannot_be_run_is_refused_with_a_sentence(files, tmp_path, capsys, shot, more, said):
    assert run(files / shot, tmp_path / "frames", *more) == 2
    assert said in capsys.readouterr().err
    assert not (tmp_path / "frames").exists()


def test_a_folder_with_something_in_it_is_left_alone(files, tmp_path, capsys):
    out = tmp_path / "frames"
    out.mkdir()
    (out / "mine.jpg").write_bytes(b"precious")
    assert run(files / "ganache.json", out) == 2
    assert "not empty" in capsys.readouterr().err
    assert [path.name for path in out.iterdir()] == ["mine.jpg"]


def test_real_devices_are_said_not_to_be_there(files, tmp_path, capsys):
    assert main(["run", str(files / "ganache.json"), "--out", str(tmp_path / "f")]) == 2
    assert "--simulated" in capsys.readouterr().err


def test_a_run_that_is_none_is_refused_as_a_plan(tmp_path, capsys):
    broken = tmp_path / "run.json"
    broken.write_text(json.dumps({"format": "just-plane-run", "version": 1, "name": "x"}))
    (tmp_path / "frames").mkdir()
    assert main(["check", str(tmp_path / "frames"), "--plan", str(broken)]) == 2
    assert "Give the run as it was taken away" in capsys.readouterr().err
