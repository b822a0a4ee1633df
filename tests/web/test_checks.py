"""Checks over HTTP: asked for, watched, looked at."""

import json
from io import BytesIO

import pytest
from PIL import Image

from just_plane.jobs.requests import results_folder
from just_plane.store.folder import open_store
from just_plane.web.app import create_app
from stacks.camera import Faults, write
from stacks.kept import stack_of
from web.waiting import ended

pytestmark = pytest.mark.xdist_group("stacks")


@pytest.fixture(scope="module")
def served(tmp_path_factory):
    """An application whose runner runs, one stack checked, and the folder of its frames."""
    folder = tmp_path_factory.mktemp("checks")
    write(stack_of("dome", 4, Faults(skipped=(6, 2)), jpeg=False), folder / "pod")
    store = open_store(folder / "data")
    app = create_app(store, demo=True)
    runner = app.config["JUST_PLANE_RUNNER"]
    runner.start()
    client = app.test_client()
    from just_plane.demo.catalogue import fill

    fill(store)
    job = client.post("/api/checks", json={"folder": str(folder / "pod"), "methods": ["depth"]}).get_json()
    done = _ended(client, job["job_id"])
    yield client, done, folder, store
    runner.stop()


def _ended(client, job_id):
    return ended(client, f"/api/jobs/{job_id}")


def test_the_report_comes_with_the_job_and_can_be_left_out(served):
    client, job, _, _ = served
    assert job["state"] == "done"
    assert job["share"] == 1
    assert job["report"]["gaps"][0]["frames_needed"] == 2
    assert client.get(f"/api/jobs/{job['job_id']}?report=no").get_json()["report"] is None


def test_a_place_tells_its_contrast_through_the_frames(served):
    client, job, _, _ = served
    place = client.get(f"/api/jobs/{job['job_id']}/place?x=144&y=96").get_json()
    assert len(place["contrast"]) == 12
    assert max(share for share in place["contrast"] if share is not None) == pytest.approx(1, abs=1e-3)
    # The middle of the dome is its nearest part, one step behind the first frame.
    assert place["best_frame"] in (0, 1, 2)
    assert client.get(f"/api/jobs/{job['job_id']}/place?x=nan&y=1").status_code == 422


def test_frames_and_proofs_are_pictures_of_the_size_asked_for(served):
    client, job, _, _ = served
    base = f"/api/jobs/{job['job_id']}"
    frame = Image.open(BytesIO(client.get(f"{base}/frames/3?width=100").data))
    assert frame.width == 100
    cropped = Image.open(BytesIO(client.get(f"{base}/frames/3?width=20000&cropped=yes").data))
    assert list(cropped.size) == job["report"]["size"]
    assert Image.open(BytesIO(client.get(f"{base}/proofs/depth").data)).size == cropped.size
    assert client.get(f"{base}/frames/12").status_code == 404
    assert client.get(f"{base}/proofs/windowed").status_code == 404


def test_files_are_taken_away_under_the_name_of_the_stack(served):
    client, job, _, _ = served
    answer = client.get(f"/api/jobs/{job['job_id']}/files/report")
    assert "filename=pod-check.json" in answer.headers["Content-Disposition"]
    assert json.loads(answer.data)["name"] == "pod"
    assert client.get(f"/api/jobs/{job['job_id']}/files/depth").data[:2] in (b"II", b"MM")
    assert client.get(f"/api/jobs/{job['job_id']}/files/points").status_code == 404
    assert client.get(f"/api/jobs/{job['job_id']}/files/passwords").status_code == 422


def test_a_folder_that_holds_no_stack_is_refused_at_its_field(served):
    client, _, folder, _ = served
    answer = client.post("/api/checks", json={"folder": str(folder / "nowhere")})
    assert answer.status_code == 422
    assert answer.get_json()["field"] == "/folder"
    assert "There is no folder" in answer.get_json()["detail"]
    assert client.post("/api/checks", json={"folder": ""}).status_code == 422


def test_jobs_that_are_not_there_are_said_to_be_missing(served):
    client, _, _, _ = served
    assert client.get("/api/jobs/" + "0" * 32).status_code == 404
    assert client.post(f"/api/jobs/{'0' * 32}/cancel").status_code == 404


def test_frames_made_up_for_a_shot_are_checked_by_its_numbers(served):
    client, _, _, store = served
    shots = client.get("/api/shots?units=mm").get_json()["shots"]
    pod = next(shot for shot in shots if shot["name"].startswith("Ganache"))
    made = client.post(f"/api/shots/{pod['shot_id']}/practice-frames", json={"faults": ["light_drift"]}).get_json()
    assert made["frames"] == 6
    asked = {"folder": made["folder"], "shot_id": pod["shot_id"], "numbers": made["numbers"]}
    job = client.post("/api/checks", json=asked).get_json()
    done = _ended(client, job["job_id"])
    assert done["report"]["verdict"]["may_come_down"]
    assert done["plan_now"] == "same"
    bare = client.post(
        "/api/checks",
        json={"folder": made["folder"], "shot_id": pod["shot_id"], "plan": "none"},
        query_string={"units": "in"},
    )
    without = _ended(client, bare.get_json()["job_id"])
    assert without["report"]["plan"]["step_mm"] is None
    assert without["report"]["plan"]["units"] == "in"
    assert without["plan_now"] == "other"
    listed = client.get(f"/api/shots/{pod['shot_id']}/checks").get_json()["jobs"]
    assert [one["job_id"] for one in listed] == [without["job_id"], job["job_id"]]
    assert results_folder(store.jobs.folder, store.jobs.get(job["job_id"]).request_key).exists()


def test_a_check_of_before_a_run_is_not_what_came_of_it(served):
    client = served[0]
    shots = client.get("/api/shots?units=mm").get_json()["shots"]
    shot = next(one for one in shots if one["name"].startswith("Ganache"))["shot_id"]
    made = client.post(f"/api/shots/{shot}/practice-frames", json={"faults": ["bump"]}).get_json()
    asked = {"folder": made["folder"], "shot_id": shot, "numbers": made["numbers"]}
    _ended(client, client.post("/api/checks", json=asked).get_json()["job_id"])
    run = client.post(f"/api/shots/{shot}/runs", json={"way": "rail"}).get_json()
    watched = {"number": 0, "press": "press-000000", "folder": made["folder"]}
    assert client.post(f"/api/runs/{run['run_id']}/watch", json=watched).status_code == 200
    entry = client.get(f"/api/log?shot={shot}").get_json()["entries"][0]
    assert (entry["run_id"], entry["done"]["folder"], entry["out"]) == (run["run_id"], made["folder"], None)
    again = _ended(client, client.post("/api/checks", json=asked).get_json()["job_id"])
    entry = client.get(f"/api/log?shot={shot}").get_json()["entries"][0]
    assert (entry["out"]["job_id"], entry["out"]["frames"]) == (again["job_id"], 6)


def test_more_frames_than_a_question_waits_for_are_left_to_the_devices(served):
    client = served[0]
    shots = client.get("/api/shots?units=mm").get_json()["shots"]
    bloom = next(shot for shot in shots if shot["name"].startswith("Sugar"))
    refused = client.post(f"/api/shots/{bloom['shot_id']}/practice-frames", json={"faults": ["bump"]})
    assert refused.status_code == 422
    assert refused.get_json()["detail"].startswith("This stack has 303 frames; up to 60")


def test_frames_are_put_back_pieces_of_pictures_are_sent_and_a_plan_is_held_against_the_shots(served):
    client, job, folder, _ = served
    asked = {"folder": str(folder / "pod"), "methods": ["depth"], "put_back": ["P0103.tif"]}
    again = _ended(client, client.post("/api/checks", json=asked).get_json()["job_id"])
    assert again["put_back"] == ["P0103.tif"]
    assert again["job_id"] != job["job_id"]
    assert (job["plan_now"], again["plan_now"]) == ("none", "none")
    base = f"/api/jobs/{job['job_id']}"
    for source in ("depth", "frame-3"):
        tile = Image.open(BytesIO(client.get(f"{base}/tiles/{source}/0/0/0").data))
        assert list(tile.size) == job["report"]["size"]
    for place in ("depth/0/9/0", "pyramid/0/0/0", "frame-99/0/0/0"):
        assert client.get(f"{base}/tiles/{place}").status_code == 404
    assert client.get(f"{base}/tiles/passwords/0/0/0").status_code == 422
    marks = client.get(f"{base}/marks").get_json()
    assert len(marks["depth"]) == marks["across"] * marks["down"]
    assert client.get(f"{base}/files/slab-01").status_code == 404
    for change in ("pause", "go-on"):
        assert client.post(f"{base}/{change}").get_json()["state"] == "done"


def test_a_result_that_was_cleared_away_is_said_to_be_gone(served):
    client, _, folder, store = served
    job = client.post("/api/checks", json={"folder": str(folder / "pod")}).get_json()
    _ended(client, job["job_id"])
    import shutil

    shutil.rmtree(results_folder(store.jobs.folder, store.jobs.get(job["job_id"]).request_key))
    assert client.get(f"/api/jobs/{job['job_id']}").get_json()["report"] is None
    assert client.get(f"/api/jobs/{job['job_id']}/place?x=1&y=1").status_code == 404
