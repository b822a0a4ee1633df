"""Runs over HTTP: begun, driven, raced for, and resumed after a kill at every event."""

import hashlib
import json
import os
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from just_plane.demo.catalogue import fill
from just_plane.store.folder import open_store
from just_plane.web.app import create_app
from web.presser import Presser


@pytest.fixture
def client(tmp_path):
    store = open_store(tmp_path)
    fill(store)
    return create_app(store).test_client()


@pytest.fixture
def shot(client):
    shots = client.get("/api/shots?units=mm").get_json()["shots"]
    return next(one for one in shots if one["name"].startswith("Praline"))["shot_id"]


def begin(client, shot, **asked):
    answer = client.post(f"/api/shots/{shot}/runs", json={"way": "rail", **asked})
    assert answer.status_code == 201
    return answer.get_json()


def press(client, run, kind, frame=None, name=None, number=None):
    asked = {
        "number": run["events"] if number is None else number,
        "press": name or f"press-{run['events']:04d}",
        "event": {"kind": kind, "frame": frame},
    }
    return client.post(f"/api/runs/{run['run_id']}/events", json=asked)


def test_a_run_is_made_from_the_way_and_starts_at_its_first_frame(client, shot):
    run = begin(client, shot, first_mark_mm=42.0)
    assert (run["state"], run["next_frame"], run["events"]) == ("running", 0, 0)
    assert run["plan"]["steps"][0]["mark_mm"] == 42.0
    steps = client.post("/api/plan/steps", json={"shot": _shot(client, shot), "way": "rail"}).get_json()["rows"]
    assert [step["focus_mm"] for step in run["plan"]["steps"]] == [row["focus_behind_nearest_mm"] for row in steps]


def _shot(client, shot):
    return client.get(f"/api/shots/{shot}").get_json()["shot"]


def test_a_press_counts_once_however_often_it_is_sent(client, shot):
    run = begin(client, shot)
    for _ in range(3):
        answer = press(client, run, "taken", 0, name="the-same-press")
    told = answer.get_json()
    assert (told["events"], told["times_taken"][:2], told["next_frame"]) == (1, [1, 0], 1)


def test_of_two_windows_the_later_press_is_told_to_look(client, shot):
    run = begin(client, shot)
    assert press(client, run, "taken", 0, name="window-one").status_code == 200
    late = press(client, run, "taken", 0, name="window-two")
    assert late.status_code == 409
    assert "since you last saw it" in late.get_json()["detail"]
    assert client.get(f"/api/runs/{run['run_id']}").get_json()["times_taken"][0] == 1


def test_while_a_run_is_under_way_no_other_is_begun(client, shot):
    run = begin(client, shot)
    for kind in ("paused", "went_on"):
        run = press(client, run, kind).get_json()
        refused = client.post(f"/api/shots/{shot}/runs", json={"way": "rail"})
        assert refused.status_code == 409
        assert "A run of this shot is under way" in refused.get_json()["detail"]
        assert [one["run_id"] for one in _runs(client, shot)] == [run["run_id"]]
    assert press(client, run, "stopped").status_code == 200
    assert begin(client, shot)["run_id"] != run["run_id"]
    assert len(_runs(client, shot)) == 2


def _runs(client, shot):
    return client.get(f"/api/shots/{shot}/runs").get_json()["runs"]


def test_a_press_that_does_not_fit_is_refused_and_counts_nothing(client, shot):
    run = begin(client, shot)
    answer = press(client, run, "taken", 3)
    assert answer.status_code == 422
    assert answer.get_json()["code"] == "run.refused"
    assert client.get(f"/api/runs/{run['run_id']}").get_json()["events"] == 0


def test_a_changed_shot_leaves_the_run_and_is_told(client, shot):
    run = begin(client, shot)
    kept = client.get(f"/api/shots/{shot}").get_json()
    changed = kept["shot"] | {"stack": kept["shot"]["stack"] | {"spare_before": 5}}
    saved = client.put(f"/api/shots/{shot}", json={"base_revision": kept["revision"], "shot": changed})
    assert saved.status_code == 200
    now = client.get(f"/api/runs/{run['run_id']}").get_json()
    assert now["shot_changed"]
    assert now["plan"] == run["plan"]
    assert client.get(f"/api/shots/{shot}/runs").get_json()["runs"][0]["run_id"] == run["run_id"]


def test_runs_and_shots_that_are_not_there_are_said_to_be_missing(client):
    assert client.get("/api/runs/" + "0" * 32).status_code == 404
    assert client.post("/api/shots/" + "0" * 32 + "/runs", json={}).status_code == 404


def test_killed_after_every_event_a_run_goes_on_with_the_right_frame(client, shot, tmp_path):
    run = begin(client, shot)
    count = len(run["plan"]["steps"])
    next_frame, killed = 0, 0
    presser = Presser("press", tmp_path, run["run_id"])
    while next_frame is not None:
        pid, stands_at = presser.begin()
        assert stands_at == next_frame
        # Two presses and a kill: the first is answered, of the second nobody hears.
        presser.send(json.dumps({"kind": "taken", "frame": next_frame}))
        assert presser.told() in ([next_frame + 1], [None])
        presser.send(json.dumps({"kind": "taken", "frame": next_frame + 1}))
        presser.kill(pid)
        killed += 1
        now = client.get(f"/api/runs/{run['run_id']}").get_json()
        taken = sum(now["times_taken"])
        assert max(now["times_taken"]) == 1
        assert taken in (next_frame + 1, next_frame + 2)
        assert now["next_frame"] == (taken if taken < count else None)
        next_frame = now["next_frame"]
    assert presser.end() == 0
    assert killed >= count / 2


def test_killed_five_hundred_times_in_the_middle_of_any_press_nothing_is_lost_or_counted_twice(client, shot, tmp_path):
    run = begin(client, shot)
    walk = subprocess.run(
        [sys.executable, Path(__file__).with_name("kill_walk.py"), str(tmp_path), run["run_id"], "500", "11"],
        capture_output=True,
        text=True,
        check=False,
    )
    assert walk.returncode == 0, walk.stderr[-2000:]
    told = json.loads(walk.stdout)
    assert told["rounds"] == 500
    # Every kind of press was among them, and enough were kept for the kills to have hit something.
    assert set(told["events"]) >= {"taken", "set", "skipped", "once_more", "paused", "went_on", "trouble", "added"}
    assert sum(told["events"].values()) > 100


def test_what_a_picture_holds_is_worked_out_here_and_not_believed(client, shot, tmp_path):
    run = begin(client, shot)
    folder = tmp_path / "camera"
    folder.mkdir()
    asked = {"number": 0, "press": "watch-0001", "folder": str(folder)}
    run = client.post(f"/api/runs/{run['run_id']}/watch", json=asked).get_json()
    picture = Path(__file__).parents[1] / "data"
    content = next(path for path in sorted(picture.rglob("*")) if path.is_file()).read_bytes()
    (folder / "a.jpg").write_bytes(content)
    event = {"kind": "taken", "frame": 0, "file": "a.jpg", "sha256": "0" * 64}
    sent = {"number": 1, "press": "press-0001", "event": event}
    assert client.post(f"/api/runs/{run['run_id']}/events", json=sent).status_code == 200
    kept = client.get(f"/api/runs/{run['run_id']}/file").get_json()["events"][1]["event"]
    assert kept["sha256"] == hashlib.sha256(content).hexdigest()


def test_pictures_passed_over_are_none_of_the_run(client, shot, tmp_path):
    run = begin(client, shot)
    folder = tmp_path / "camera"
    folder.mkdir()
    run = client.post(
        f"/api/runs/{run['run_id']}/watch", json={"number": 0, "press": "watch-0001", "folder": str(folder)}
    ).get_json()
    (folder / "stray.jpg").write_bytes(b"none")
    os.utime(folder / "stray.jpg", (1, 1))
    arrived = f"/api/runs/{run['run_id']}/arrived"
    assert [file["name"] for file in client.get(arrived).get_json()["files"]] == ["stray.jpg"]
    event = {"kind": "passed", "there_before": ["stray.jpg"]}
    client.post(f"/api/runs/{run['run_id']}/events", json={"number": 1, "press": "press-0001", "event": event})
    assert client.get(arrived).get_json()["files"] == []


def test_white_balance_is_read_from_a_frame_and_kept_with_the_run(client, shot, tmp_path):
    run = begin(client, shot)
    picture = np.full((90, 120, 3), (150, 120, 90), np.uint8)
    Image.fromarray(picture).save(tmp_path / "grey.png")
    asked = {"number": 0, "press": "grey-00001", "folder": str(tmp_path), "file": "grey.png"}
    told = client.post(f"/api/runs/{run['run_id']}/grey", json=asked).get_json()
    # Screens: ((c + 0.055) / 1.055) ** 2.4 of 150, 120 and 90 of 255 are 0.305, 0.188 and 0.102.
    assert told["white"]["red"] == pytest.approx(0.1878 / 0.3050, rel=0.01)
    assert told["white"]["blue"] == pytest.approx(0.1878 / 0.1022, rel=0.01)
    assert client.get(f"/api/runs/{run['run_id']}").get_json()["white"] == told["white"]
    missing = client.post(
        f"/api/runs/{run['run_id']}/grey", json=asked | {"number": 1, "press": "grey-00002", "file": "none.png"}
    )
    assert missing.status_code == 422
    assert missing.get_json()["field"] == "/file"
    assert client.get(f"/api/runs/{run['run_id']}").get_json()["events"] == 1
