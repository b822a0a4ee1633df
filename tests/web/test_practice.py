"""Practice over HTTP: pictures that are functions of what is asked, results kept, bad input refused."""

import io
import json
from importlib.resources import files

import numpy as np
import pytest
from PIL import Image

from just_plane.core.plane import wedge_blur
from just_plane.core.plane.tilt import TiltSetting
from just_plane.core.practice.drill import make_drill
from just_plane.store.folder import open_store
from just_plane.web.app import create_app

START = {"focus": 0, "tilt": 0, "turn": 0, "stop": 2, "rail": 0}


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    return create_app(open_store(tmp_path_factory.mktemp("data"))).test_client()


def view(client, **more):
    answer = client.post("/api/view", json={"kind": "tilt", "seed": 3, "setting": START} | more)
    assert answer.status_code == 200, answer.get_json()
    return answer.data


def grey(content):
    return np.asarray(Image.open(io.BytesIO(content)).convert("L"), dtype=float)


def fine(picture):
    return np.square(picture[:, 3:] - picture[:, :-3]).mean()


def test_equal_questions_have_equal_answers_whatever_was_asked_between(client):
    first = view(client)
    for focus in (5, -20, 60):
        view(client, setting=START | {"focus": focus, "stop": 4})
    view(client, kind="limits", seed=9)
    assert view(client) == first


def test_the_magnifier_shows_pixels_one_to_one_and_what_is_soft_looks_soft(client):
    answer = client.post("/api/practice/results", json={"kind": "tilt", "seed": 3, "pressed": [START], "moves": 0})
    best = answer.get_json()["answer"]
    place = {"from_left": 0.5, "from_top": 0.1}
    sharp, soft = (grey(view(client, setting=setting, magnified=place)) for setting in (best, START | {"focus": 150}))
    assert fine(sharp) > 2 * fine(soft)
    assert grey(view(client)).shape == (427, 640)


def test_marks_are_drawn_on_what_is_sharp_and_the_truth_is_outlined(client):
    plain, marked, outlined = (view(client), view(client, marks=True), view(client, truth=True))
    assert len({plain, marked, outlined}) == 3


def test_results_are_kept_and_two_good_ones_suggest_the_next(client):
    before = client.get("/api/practice/results").get_json()
    assert before["next"] == "magnifier"
    for seed in (1, 2):
        asked = {"kind": "stop", "seed": seed, "pressed": [START], "moves": 1}
        best = client.post("/api/practice/results", json=asked).get_json()["answer"]
        kept = client.post("/api/practice/results", json=asked | {"pressed": [best]})
        assert kept.status_code == 201
        assert kept.get_json()["score"] == 100
    client.post("/api/practice/results", json=asked | {"pressed": [best]})
    after = client.get("/api/practice/results").get_json()
    assert after["next"] == "magnifier"  # any may be taken at any time
    for seed in (1, 2):
        rounds = client.get(f"/api/practice/drill?kind=magnifier&seed={seed}").get_json()["rounds"]
        picks = [min(range(5), key=lambda place, five=five: abs(five[place])) for five in rounds]
        asked = {"kind": "magnifier", "seed": seed, "picks": picks}
        assert client.post("/api/practice/results", json=asked).get_json()["score"] == 100
    assert client.get("/api/practice/results").get_json()["next"] == "ends"
    nothing = client.post("/api/practice/results", json={"kind": "rock", "seed": 1})
    assert nothing.status_code == 422
    assert "Nothing was pressed" in nothing.get_json()["detail"]
    assert len(after["results"]) == len(before["results"]) + 5


@pytest.mark.parametrize(
    "wrong", [{"kind": "juggling"}, {"seed": -1}, {"setting": START | {"focus": 1e9}}, {"magnified": [2, 2]}]
)
def test_what_cannot_be_is_refused_with_a_sentence(client, wrong):
    answer = client.post("/api/view", json={"kind": "tilt", "seed": 3, "setting": START} | wrong)
    assert answer.status_code == 422
    assert answer.get_json()["problems"][0]["message"]


def test_a_drill_says_what_is_engraved_on_its_knobs(client):
    drill = client.get("/api/practice/drill?kind=limits&seed=5").get_json()
    for knob in drill["knobs"]:
        assert len(knob["scale"]) == knob["high"] - knob["low"] + 1
    assert not drill["reaches"]
    assert drill["par"] >= 2


@pytest.fixture(scope="module")
def tray(client):
    body = json.loads((files("just_plane.demo") / "shots" / "bonbon-tray.json").read_text())
    return client.post("/api/shots", json=body).get_json()


def test_a_shot_is_practised_as_it_was_when_the_drill_began(client, tray):
    drill = client.get(f"/api/practice/drill?shot_id={tray['shot_id']}&seed=4").get_json()
    assert drill["kind"] == "own"
    assert drill["title"] == "Bonbon tray, raking view"
    asked = [point["name"] for point in tray["shot"]["plane"]["points"] if point["wanted"] == "sharp"]
    assert sorted(place["name"] for place in drill["places"]) == sorted(asked)
    which = {"kind": "own", "seed": 4, "own": drill["own"]}
    picture = view(client, **which, setting=drill["start"])
    emptied = tray["shot"] | {"plane": tray["shot"]["plane"] | {"points": []}}
    saved = client.put(f"/api/shots/{tray['shot_id']}", json={"shot": emptied, "base_revision": tray["revision"]})
    assert saved.status_code == 200, saved.get_json()
    assert view(client, **which, setting=drill["start"]) == picture
    kept = client.post("/api/practice/results", json=which | {"pressed": [drill["start"]], "moves": 1}).get_json()
    assert kept["title"] == drill["title"]
    again = which | {"pressed": [kept["steps"][-1]["setting"]], "moves": 3}
    assert client.post("/api/practice/results", json=again).get_json()["score"] > 90
    refused = client.get(f"/api/practice/drill?shot_id={tray['shot_id']}")
    assert refused.status_code == 422
    assert "0 of the three points" in refused.get_json()["detail"]


def test_a_set_of_ones_own_names_its_shot_and_no_other_drill_does(client):
    own = {"shot_id": "x" * 20, "revision": 1}
    for wrong in ({"kind": "own"}, {"kind": "tilt", "own": own}):
        answer = client.post("/api/view", json={"seed": 1, "setting": START} | wrong)
        assert answer.status_code == 422
        assert "names its shot" in str(answer.get_json())
    assert client.post("/api/view", json={"kind": "own", "own": own, "setting": START}).status_code == 404
    assert client.get("/api/practice/drill?shot_id=nowhere").status_code == 404
    assert client.get("/api/practice/drill?kind=tilt&shot_id=nowhere").status_code == 422


def test_marks_are_seen_without_colours(client):
    best = client.post("/api/practice/results", json={"kind": "tilt", "seed": 3, "pressed": [START], "moves": 0})
    asked = {"setting": best.get_json()["answer"], "magnified": {"from_left": 0.5, "from_top": 0.5}}
    plain, marked = grey(view(client, **asked)), grey(view(client, **asked, marks=True))
    changed = np.abs(marked - plain) > 25
    assert changed.mean() > 0.01
    # Strokes are light beside dark, so that they stand out on whatever lies below.
    assert (marked - plain)[changed].max() > 60
    assert (marked - plain)[changed].min() < -60


def test_on_the_whole_frame_marks_reach_as_far_as_is_said(client):
    told = client.get("/api/practice/drill?kind=tilt&seed=3").get_json()
    asked = {"setting": told["start"]}
    plain, marked = grey(view(client, **asked)), grey(view(client, **asked, marks=True))
    drill = make_drill("tilt", 3)
    # The page is a plane: its blur on the frame from the wedge, at the middle of every block of pixels.
    rows, columns = np.arange(6, 420, 12), np.arange(6, 632, 12)
    shares = (columns[np.newaxis, :] + 0.5) / 640, (rows[:, np.newaxis] + 0.5) / 427
    across, up = np.broadcast_arrays((shares[0] - 0.5) * 36, (0.5 - shares[1]) * 36 * 427 / 640)
    middle = 90 * drill.distance / (drill.distance - 90)
    z = drill.distance / (1 - (drill.slope[0] * across + drill.slope[1] * up) / middle)
    points = np.stack([across * z / middle, up * z / middle, z], axis=-1).reshape(-1, 3)
    image = middle + told["start"]["focus"] * 0.05
    blur = wedge_blur(90, 5.6, TiltSetting(0.0, 0.0, image), points).reshape(z.shape) * 1000
    blocks = np.abs(marked - plain)[: len(rows) * 12, : len(columns) * 12].reshape(len(rows), 12, len(columns), 12)
    seen = (blocks > 25).any(axis=(1, 3))
    reach = told["marks_reach_um"]
    assert seen[blur < told["sharp_um"]].mean() > 0.9
    assert seen[blur > 2.5 * reach].mean() < 0.35
    assert 60 < reach < 300


def test_ones_own_hands_sway_as_they_were_measured(client):
    still = {"kind": "rock", "seed": 3, "t": 2.0}
    as_held, own = view(client, **still), view(client, **still, sway_mm=1.5)
    assert as_held != own
    assert view(client, **still, sway_mm=0.4) == as_held  # what a braced hand is taken to sway
    assert client.get("/api/practice/results").get_json()["own_sway_mm"] is None
