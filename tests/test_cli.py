"""The command line as it is typed."""

import json
import subprocess
import sys

import pytest

from just_plane.cli import main
from just_plane.contract.shot_file import write_shot
from just_plane.core.frames.ruler import find_ruler
from just_plane.pictures.reading import read_picture
from just_plane.planning.plan import plan_shot


def just_plane(*arguments, stdin=None):
    return subprocess.run(
        [sys.executable, "-m", "just_plane.cli", *arguments], capture_output=True, text=True, input=stdin, timeout=60
    )


@pytest.fixture
def shot_file(tmp_path, pod):
    path = tmp_path / "pod.json"
    path.write_text(write_shot(pod), encoding="utf-8")
    return path


def test_plan_prints_the_plan(shot_file, pod):
    done = just_plane("plan", str(shot_file), "--units", "in")
    assert done.returncode == 0
    assert json.loads(done.stdout) == json.loads(plan_shot(pod, "in").model_dump_json())


def test_plan_reads_standard_input(pod):
    assert json.loads(just_plane("plan", "-", stdin=write_shot(pod)).stdout)["verdict"]["way"] == "rail"


@pytest.mark.parametrize(
    ("content", "sentence"),
    [("{", "cut short or is not JSON"), ('{"format": "just-plane/shot", "version": 9}', "version 9")],
)
def test_a_bad_file_is_a_sentence_and_status_1(tmp_path, content, sentence):
    path = tmp_path / "bad.json"
    path.write_text(content)
    done = just_plane("plan", str(path))
    assert (done.returncode, done.stdout) == (1, "")
    assert sentence in done.stderr
    assert "Traceback" not in done.stderr


def test_a_missing_file_is_a_sentence(tmp_path):
    done = just_plane("plan", str(tmp_path / "none.json"))
    assert done.returncode == 1
    assert "No such file" in done.stderr


@pytest.mark.parametrize("arguments", [(), ("plan",), ("serve",), ("demo",)])
def test_help_is_real(arguments):
    done = just_plane(*arguments, "--help")
    assert done.returncode == 0
    assert "usage: just-plane" in done.stdout
    assert len(done.stdout.splitlines()) >= 6


def test_a_taken_port_is_said(tmp_path):
    import socket

    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = str(taken.getsockname()[1])
        done = just_plane("serve", "--data", str(tmp_path), "--port", port)
    assert done.returncode == 1
    assert f"port {port} is taken" in done.stderr


def test_a_data_folder_that_is_no_folder_is_said(tmp_path):
    (tmp_path / "file").write_text("")
    done = just_plane("serve", "--data", str(tmp_path / "file"), "--port", "0")
    assert done.returncode == 1
    assert "cannot be made" in done.stderr


def test_the_demo_never_lives_in_the_folder_of_real_work():
    from just_plane.store.places import demo_folder, own_folder

    assert demo_folder() != own_folder()
    assert own_folder() not in demo_folder().parents


def test_a_practice_ruler_has_the_ticks_it_says(tmp_path, capsys):
    path = tmp_path / "ruler.jpg"
    assert main(["ruler", str(path), "--size", "1", "--pixels", "900", "--turn", "7"]) == 0
    assert "25.0000 pixels" in capsys.readouterr().out
    assert find_ruler(read_picture(path.read_bytes()).brightness).spacing == pytest.approx(25.0, rel=1e-3)


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--tick", "50"], "Choose another --tick"),
        (["--pixels", "7"], "from 300 to 9000"),
        (["--noise", "4"], "from 0 to 0.5"),
    ],
)
def test_a_ruler_that_cannot_be_is_refused(tmp_path, capsys, options, words):
    assert main(["ruler", str(tmp_path / "ruler.jpg"), *options]) == 1
    assert words in capsys.readouterr().err
    assert not list(tmp_path.iterdir())


def test_a_ruler_that_cannot_be_written_is_said(tmp_path, capsys):
    assert main(["ruler", str(tmp_path / "nowhere" / "ruler.jpg")]) == 1
    assert "No such file" in capsys.readouterr().err


@pytest.mark.parametrize("command", ["serve", "demo", "backup", "restore"])
def test_help_names_the_folder_whatever_it_is_called(command, monkeypatch, capsys):
    monkeypatch.setenv("XDG_DATA_HOME", "/mnt/100% mine")
    with pytest.raises(SystemExit):
        main([command, "--help"])
    assert "/mnt/100% mine/just-plane" in " ".join(capsys.readouterr().out.split())
