"""Driven runs over HTTP: by devices, by a hand and a device, killed and gone on with, taken away."""

import csv
import io
import json
import time
from pathlib import Path

import jsonschema
import numpy as np
import pytest
from PIL import Image

from just_plane.demo.catalogue import fill
from just_plane.store.folder import open_store
from just_plane.web.app import create_app
from web.presser import Presser

ROOT = Path(__file__).parents[2]
BOTH = {"rail": "simulated", "camera": "simulated"}


@pytest.fixture
def client(tmp_path):
    store = open_store(tmp_path)
    fill(store)
    app = create_app(store)
    yield app.test_client()
    app.config["JUST_PLANE_DRIVES"].stop()


@pytest.fixture
def shot(client):
    shots = client.get("/api/shots?units=mm").get_json()["shots"]
    return next(one for one in shots if one["name"].startswith("Ganache"))["shot_id"]


def begin(client, shot, way="rail"):
    return client.post(f"/api/shots/{shot}/runs", json={"way": way, "first_mark_mm": 30.0}).get_json()


def drive(client, run, **devices):
    asked = {"number": run["events"], "press": f"drive-press-{run['events']}", "devices": devices}
    return client.post(f"/api/runs/{run['run_id']}/drive", json=asked)


def until(client, run, done, wait_s=60):
    for _ in range(wait_s * 10):
        told = client.get(f"/api/runs/{run['run_id']}").get_json()
        if done(told):
            return told
        time.sleep(0.1)
    raise AssertionError(told)


def test_the_devices_take_every_frame(client, shot):
    run = begin(client, shot)
    assert drive(client, run, **BOTH).status_code == 200
    told = until(client, run, lambda told: told["state"] == "finished")
    assert set(told["times_taken"]) == {1}
    assert [Path(told["folder"], name).exists() for name in told["files"]] == [True] * len(told["files"])
    assert told["reading_mm"] == pytest.approx(told["plan"]["steps"][-1]["mark_mm"], abs=1e-3)


def test_trouble_is_said_and_gone_on_from(client, shot):
    run = begin(client, shot)
    drive(client, run, **BOTH, faults=["card_full"])
    told = until(client, run, lambda told: told["state"] == "paused")
    assert "card is full" in told["trouble"]
    assert told["frames_left"] == 0
    assert told["battery"] is None
    until(client, run, lambda told: not told["driven"])
    assert drive(client, told, **BOTH).status_code == 200
    assert until(client, run, lambda told: told["state"] == "finished")["trouble"] == ""


def test_a_hand_moves_and_the_camera_releases(client, shot):
    run = begin(client, shot)
    told = drive(client, run, rail="hand", camera="simulated").get_json()
    for frame in range(len(told["plan"]["steps"])):
        asked = {"number": told["events"], "press": f"set-{frame:06d}", "event": {"kind": "set", "frame": frame}}
        assert client.post(f"/api/runs/{run['run_id']}/events", json=asked).status_code == 200
        told = until(client, run, lambda told, frame=frame: told["times_taken"][frame] == 1)
    assert told["state"] == "finished"


def test_what_has_no_set_is_refused_with_a_sentence(client):
    shots = client.get("/api/shots?units=mm").get_json()["shots"]
    bloom = next(one for one in shots if one["name"].startswith("Sugar"))["shot_id"]
    kept = client.get(f"/api/shots/{bloom}").get_json()
    kept["shot"]["stack"]["overlap"] = 0.7
    body = {"shot": kept["shot"], "base_revision": kept["revision"]}
    assert client.put(f"/api/shots/{bloom}", json=body).status_code == 200
    run = begin(client, bloom)
    refused = drive(client, run, **BOTH)
    assert refused.status_code == 422
    assert "up to 400 are made up" in refused.get_json()["detail"]


def test_changing_the_shot_changes_neither_the_run_nor_its_set(client, shot):
    run = begin(client, shot)
    kept = client.get(f"/api/shots/{shot}").get_json()
    changed = kept["shot"] | {"framing": {"by": "magnification", "magnification": 0.2}}
    saved = client.put(f"/api/shots/{shot}", json={"shot": changed, "base_revision": kept["revision"]})
    assert saved.status_code == 200
    drive(client, run, **BOTH)
    told = until(client, run, lambda told: told["state"] == "finished")
    assert told["shot_changed"]
    assert len(told["files"]) == len(run["plan"]["steps"])


def test_a_server_that_is_killed_in_mid_run_goes_on_with_the_right_frame(client, shot, tmp_path):
    run = begin(client, shot)
    count, taken = len(run["plan"]["steps"]), 0
    presser = Presser("drive", tmp_path, run["run_id"])
    while taken < count:
        pid, _ = presser.begin()
        until(client, run, lambda told, taken=taken: sum(told["times_taken"]) > taken)
        presser.kill(pid)
        told = client.get(f"/api/runs/{run['run_id']}").get_json()
        taken = sum(told["times_taken"])
        assert told["next_frame"] in (taken, None)
    assert presser.end() == 0
    assert set(told["times_taken"]) == {1}
    folder = Path(told["folder"])
    assert sorted(path.name for path in folder.iterdir() if not path.name.startswith(".")) == sorted(told["files"])


def test_a_run_is_taken_away_whole(client, shot):
    run = begin(client, shot)
    drive(client, run, **BOTH)
    until(client, run, lambda told: told["state"] == "finished")
    file = json.loads(client.get(f"/api/runs/{run['run_id']}/file").data)
    jsonschema.validate(file, json.loads((ROOT / "docs" / "run-file.schema.json").read_text()))
    assert [each["event"]["kind"] for each in file["events"]].count("taken") == len(run["plan"]["steps"])
    rows = list(csv.DictReader(io.StringIO(client.get(f"/api/runs/{run['run_id']}/steps").text)))
    assert [row["taken"] for row in rows] == ["1"] * len(run["plan"]["steps"])
    code = client.get(f"/api/runs/{run['run_id']}/code?wait=P_milliseconds").text
    assert code.count("( frame ") == len(rows)
    assert client.get(f"/api/runs/{run['run_id']}/code?wait=sometimes").status_code == 422


def test_a_frame_is_taken_once_more_by_the_devices(client, shot):
    run = begin(client, shot)
    drive(client, run, **BOTH)
    told = until(client, run, lambda told: told["state"] == "finished" and not told["driven"])
    before = told["files"][3]
    sent = {"number": told["events"], "press": "retake-0001", "event": {"kind": "retake", "frame": 3}}
    told = client.post(f"/api/runs/{run['run_id']}/events", json=sent).get_json()
    assert (told["state"], told["next_frame"]) == ("running", 3)
    drive(client, told, **BOTH)
    told = until(client, run, lambda told: told["state"] == "finished")
    assert told["files"][3] not in (None, before)
    assert told["reading_mm"] == pytest.approx(told["plan"]["steps"][3]["mark_mm"], abs=1e-3)


def live(client, run, **query):
    answer = client.get(f"/api/runs/{run['run_id']}/view", query_string=query)
    assert answer.status_code == 200, answer.get_json()
    return np.asarray(Image.open(io.BytesIO(answer.data)).convert("RGB")).astype(float)


def test_the_live_picture_is_what_the_frame_then_shows(client, shot):
    run = begin(client, shot)
    assert client.get(f"/api/runs/{run['run_id']}/view?frame=0").status_code == 404  # a hand releases
    drive(client, run, **BOTH)
    told = until(client, run, lambda told: told["state"] == "finished")
    for frame in (0, len(told["files"]) - 1):
        taken = np.asarray(Image.open(Path(told["folder"], told["files"][frame])).convert("RGB")).astype(float)
        other = np.asarray(Image.open(Path(told["folder"], told["files"][-1 - frame])).convert("RGB")).astype(float)
        seen = live(client, told, frame=frame)
        assert seen.shape == taken.shape
        assert np.abs(seen - taken).mean() < 0.5 * np.abs(seen - other).mean()


def test_the_magnifier_shows_a_place_at_twice_its_pixels_and_marks_are_few_and_saffron(client, shot):
    run = begin(client, shot)
    drive(client, run, rail="hand", camera="simulated")
    whole = live(client, run, frame=2)
    near = live(client, run, frame=2, from_left=0.5, from_top=0.5)
    rows, columns = whole.shape[:2]
    middle = whole[rows // 2 - 120 : rows // 2 + 120, columns // 2 - 180 : columns // 2 + 180]
    assert near.shape == (480, 720, 3)
    assert np.abs(near[::2, ::2] - middle).mean() < 6
    marked = live(client, run, frame=2, marks="yes")
    changed = np.abs(marked - whole).max(axis=2) > 60
    assert 0.001 < changed.mean() < 0.3
    assert client.get(f"/api/runs/{run['run_id']}/view?frame=999").status_code == 404
