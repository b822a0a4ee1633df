"""Trials over HTTP: asked, measured by the runner, believed into the kit, taken out again."""

import pytest

from just_plane.demo.catalogue import fill
from just_plane.store.folder import open_store
from just_plane.web.app import create_app
from web.waiting import ended


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    store = open_store(tmp_path_factory.mktemp("data"))
    fill(store)
    app = create_app(store)
    app.config["JUST_PLANE_RUNNER"].start()
    yield app.test_client()
    app.config["JUST_PLANE_RUNNER"].stop()


def frames(client, kind, **more):
    answer = client.post("/api/trials/practice-frames", json={"kind": kind, **more})
    assert answer.status_code == 200
    return answer.get_json()


def measured(client, asked):
    trial = client.post("/api/trials", json=asked)
    assert trial.status_code == 202, trial.get_json()
    return ended(client, f"/api/trials/{trial.get_json()['trial_id']}")


def piece(client, kind, name=None):
    kit = client.get("/api/kit").get_json()["kit"]
    return next(
        each["gear"] for each in kit["pieces"] if each["gear"]["kind"] == kind and name in (None, each["gear"]["name"])
    )


def judge(client, trial, **judged):
    return client.put(f"/api/trials/{trial['trial_id']}/judged", json=judged)


def test_a_made_up_lens_is_found_to_be_what_it_is_and_the_kit_learns_it(client):
    made, lens = frames(client, "stops"), piece(client, "lens")
    trial = measured(client, made["asked"] | {"kit_id": lens["kit_id"]})
    assert trial["state"] == "done"
    assert made["truth"].endswith(f"f/{trial['result']['stops']['best_f_number']:g}.")
    assert trial["usable"]
    told = judge(client, trial, believed=True).get_json()
    assert told["used_in"] == f"{lens['name']}, in the kit"
    kept = piece(client, "lens", lens["name"])["tried"]
    assert [one["trial_id"] for one in kept] == [trial["trial_id"]]
    assert len(kept[0]["stops"]) == len(trial["result"]["stops"]["stops"])
    told = judge(client, trial, believed=False, put_aside=True).get_json()
    assert (told["used_in"], told["put_aside"]) == ("", True)
    assert piece(client, "lens", lens["name"])["tried"] == []


def test_the_same_trial_asked_twice_is_worked_out_once(client):
    made = frames(client, "stops")
    one, two = measured(client, made["asked"]), measured(client, made["asked"])
    assert one["trial_id"] != two["trial_id"]
    assert one["result"] == two["result"]


def test_a_rail_learns_what_a_turn_moves_and_how_much_play_it_has(client):
    rail = piece(client, "rail")
    made = frames(client, "steps", seed=3)
    trial = measured(client, made["asked"] | {"kit_id": rail["kit_id"]})
    true = float(made["truth"].split()[-2])
    assert trial["result"]["steps"]["per_unit_mm"] == pytest.approx(true, rel=0.004)
    answer = judge(client, trial, believed=True)
    if rail["divisions"] is None:
        assert "divisions" in answer.get_json()["detail"]
    else:
        assert piece(client, "rail")["measured_mm_per_turn"] == pytest.approx(true * rail["divisions"], rel=0.004)
    made = frames(client, "backlash", seed=3)
    trial = measured(client, made["asked"] | {"kit_id": rail["kit_id"]})
    assert trial["result"]["backlash"]["play_mm"] == pytest.approx(0.05, abs=0.003)
    assert judge(client, trial, believed=True).status_code == 200
    assert piece(client, "rail")["backlash_mm"] == pytest.approx(0.05, abs=0.003)


def test_what_cannot_be_used_says_why(client, tmp_path):
    assert client.post("/api/trials", json={"kind": "stops", "folder": str(tmp_path)}).status_code == 422
    made = frames(client, "stops")
    trial = measured(client, made["asked"])
    refused = judge(client, trial, believed=True)
    assert refused.status_code == 422
    assert "no piece of the kit" in refused.get_json()["detail"]
    assert client.get("/api/trials/" + "0" * 32).status_code == 404
    assert client.get("/api/trials").get_json()["trials"][0]["trial_id"] == trial["trial_id"]


def test_a_trial_that_says_something_else_asks_which_to_believe(client):
    rail = piece(client, "rail")
    one, two = (frames(client, "steps", seed=seed) for seed in (31, 32))
    trials = [measured(client, made["asked"] | {"kit_id": rail["kit_id"], "unit": "turn"}) for made in (one, two)]
    said = [trial["result"]["steps"]["per_unit_mm"] for trial in trials]
    assert abs(said[0] / said[1] - 1) > 0.01, "these seeds make rails that differ"
    assert judge(client, trials[0], believed=True).status_code == 200
    asked = judge(client, trials[1], believed=True)
    assert asked.status_code == 409
    assert "do not agree" in asked.get_json()["detail"]
    assert "Which do you believe?" in asked.get_json()["remedy"]
    assert piece(client, "rail", rail["name"])["measured_mm_per_turn"] == pytest.approx(said[0], rel=1e-4)
    assert judge(client, trials[1], believed=True, over_the_other=True).status_code == 200
    assert piece(client, "rail", rail["name"])["measured_mm_per_turn"] == pytest.approx(said[1], rel=1e-4)
    older = client.get(f"/api/trials/{trials[0]['trial_id']}").get_json()
    assert not older["believed"]  # so that taking it back takes nothing from the newer
    assert judge(client, trials[1], believed=False).status_code == 200
    assert piece(client, "rail", rail["name"])["measured_mm_per_turn"] is None


@pytest.mark.parametrize("kind", ["calm", "sway"])
def test_movement_is_measured_from_frames_of_the_simulated_camera(client, kind):
    made = frames(client, kind, seed=4)
    trial = measured(client, made["asked"])
    assert not trial["result"]["refused"], trial["result"]["sentence"]
    if kind == "calm":
        assert trial["result"]["calm"]["calms_s"] == pytest.approx(0.35, abs=4 * trial["result"]["calm"]["doubt_s"])
        assert not trial["usable"]  # no rail of the kit was named
    else:
        assert 0.1 < trial["result"]["sway"]["along_mm"] < 0.8
        told = judge(client, trial, believed=True).get_json()
        assert told["used_in"] == "practice, focus by rocking"


@pytest.mark.parametrize("fault", ["soft_wide_open", "focus_off", "focus_shifts"])
def test_a_lens_with_faults_is_found_to_have_them(client, fault):
    made = frames(client, "stops", seed=5, faults=[fault])
    trial = measured(client, made["asked"])
    assert f"best at f/{trial['result']['stops']['best_f_number']:g}." in made["truth"]


def test_a_stop_at_which_the_light_jumped_is_left_out_and_named(client):
    made = frames(client, "stops", seed=5, faults=["light_jumps"])
    trial = measured(client, made["asked"])
    jumped = float(made["truth"].split("f/")[-1].rstrip("."))
    assert jumped not in [stop["f_number"] for stop in trial["result"]["stops"]["stops"]]
    assert len(trial["result"]["frames"]) == 2


def test_a_lens_that_is_knocked_between_frames_is_refused(client):
    trial = measured(client, frames(client, "stops", seed=5, faults=["moved"])["asked"])
    assert trial["result"]["refused"]
    assert any("moved by" in frame["problem"] for frame in trial["result"]["frames"])


def test_a_ruler_and_two_tubes_are_trials_like_the_others(client):
    lens, body = piece(client, "lens"), piece(client, "body")
    rig = [lens["kit_id"], body["kit_id"]]
    ruler = {"rig": rig, "magnification": 0.51, "uncertainty": 0.001, "modelled": 0.5}
    kept = client.post("/api/trials/by-hand", json={"ruler": ruler}).get_json()
    assert kept["believed"]
    assert kept["result"]["sentence"].startswith(f"0.51× ± 0.2 % with {body['name']} · {lens['name']}, 2.0 % more")
    rigs = client.get("/api/kit").get_json()["kit"]["measured_rigs"]
    assert [each["magnification"] for each in rigs if each["rig"] == rig] == [0.51]
    assert judge(client, kept, believed=False).get_json()["used_in"] == ""
    assert client.get("/api/kit").get_json()["kit"]["measured_rigs"] == []
    assert judge(client, kept, believed=True).status_code == 200
    # Another of the same rig takes its place.
    newer = client.post("/api/trials/by-hand", json={"ruler": ruler | {"magnification": 0.53}}).get_json()
    assert not client.get(f"/api/trials/{kept['trial_id']}").get_json()["believed"]
    disagrees = judge(client, kept, believed=True)
    assert disagrees.status_code == 409
    assert "0.51× now, 0.53× before" in disagrees.get_json()["detail"]
    judge(client, newer, believed=False)
    tubes = {"at": "closest", "focal_length_mm": 88.0, "uncertainty_mm": 0.4}
    found = client.post("/api/trials/by-hand", json={"kit_id": lens["kit_id"], "two_tubes": tubes}).get_json()
    assert "88 ± 0.4 mm at closest focus" in found["result"]["sentence"]
    assert piece(client, "lens", lens["name"])["measured_closest_focal_length_mm"] == 88.0
    judge(client, found, believed=False)
    assert piece(client, "lens", lens["name"])["measured_closest_focal_length_mm"] is None


def test_what_is_measured_at_a_shot_is_one_thing_and_goes_somewhere(client):
    for wrong in ({}, {"ruler": {"rig": [], "magnification": 1, "uncertainty": 0, "modelled": 1}}):
        assert client.post("/api/trials/by-hand", json=wrong).status_code == 422
    tubes = {"at": "closest", "focal_length_mm": 88.0, "uncertainty_mm": 0.4}
    nowhere = client.post("/api/trials/by-hand", json={"kit_id": "gone", "two_tubes": tubes})
    assert nowhere.status_code == 422
    assert "no piece of the kit" in nowhere.get_json()["detail"]
    assert "ruler" in client.post("/api/trials", json={"kind": "ruler", "folder": "/x"}).get_json()["remedy"]
    assert client.post("/api/trials", json={"kind": "steps"}).status_code == 422


def test_sizes_that_the_kit_knew_before_are_in_the_list_once(client):
    kept = client.get("/api/kit").get_json()
    rig = [piece(client, "zoom")["kit_id"], piece(client, "body")["kit_id"]]
    old = {"rig": rig, "magnification": 0.3, "uncertainty": 0.001, "modelled": 0.29, "measured_on": "2026-01-05"}
    kit = kept["kit"] | {"measured_rigs": [old]}
    assert client.put("/api/kit", json={"base_revision": kept["revision"], "kit": kit}).status_code == 200
    for _ in range(2):
        listed = client.get("/api/trials").get_json()["trials"]
        assert (
            len([each for each in listed if each["result"] and (each["result"]["ruler"] or {}).get("rig") == rig]) == 1
        )


def test_stillness_and_dark_frames_are_measured_from_the_simulated_camera(client):
    still = measured(client, frames(client, "stillness", seed=2)["asked"])
    assert not still["result"]["refused"], still["result"]["sentence"]
    # A tremor of 0.02 mm at 10 Hz goes 1.3 mm/s at its fastest: half of 30 um at 1x in some hundredths of a second.
    assert 1 / 500 <= still["result"]["stillness"]["longest_s"] <= 1 / 15
    for seed in (1, 2, 3, 4):
        made = frames(client, "dark", seed=seed)
        dark = measured(client, made["asked"])["result"]
        assert dark["dark"]["doubled"] == ("a dark frame" in made["truth"]), dark["sentence"]
