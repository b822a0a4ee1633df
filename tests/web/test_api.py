import json
import re

import pytest

from just_plane.contract.shot_file import write_shot
from just_plane.planning.plan import plan_shot
from just_plane.store.errors import DiskError
from just_plane.web import shot_lines
from just_plane.web.blueprints import plans
from just_plane.web.shot_lines import ON_A_PAGE


def body(shot):
    return json.loads(shot.model_dump_json())


def add(client, shot):
    answer = client.post("/api/shots", json=body(shot))
    assert answer.status_code == 201
    return answer.json


def refused(answer, status, code):
    assert answer.status_code == status
    assert answer.content_type == "application/problem+json"
    assert answer.json["code"] == code
    assert answer.json["detail"].endswith(".")
    return answer.json


def test_a_plan_over_http_is_the_plan(client, pod):
    answer = client.post("/api/plan?units=in", json=body(pod))
    assert answer.json == json.loads(plan_shot(pod, "in").model_dump_json())


def test_a_shot_lives_through_its_whole_life(client, pod):
    kept = add(client, pod)
    at = f"/api/shots/{kept['shot_id']}"
    changed = body(pod) | {"name": "Renamed"}
    saved = client.put(at, json={"base_revision": kept["revision"], "shot": changed}).json
    assert saved["shot"]["name"] == "Renamed"
    undone = client.post(f"{at}/undo", json={"base_revision": saved["revision"]}).json
    assert (undone["shot"]["name"], undone["can_redo"]) == (pod.name, True)
    redone = client.post(f"{at}/redo", json={"base_revision": undone["revision"]}).json
    assert redone == client.get(at).json
    line = client.get("/api/shots").json["shots"][0]
    assert (line["name"], line["headline"]) == ("Renamed", plan_shot(pod).verdict.headline)
    assert client.delete(at).json["removed"] is True
    assert client.get("/api/shots").json["shots"] == []
    assert client.get("/api/shots?removed=yes").json["shots"][0]["name"] == "Renamed"
    assert client.post(f"{at}/bring-back").json["removed"] is False


def test_a_shot_leaves_as_a_file_and_comes_in_again(client, pod):
    kept = add(client, pod)
    file = client.get(f"/api/shots/{kept['shot_id']}/file")
    assert file.headers["Content-Disposition"] == 'attachment; filename="Cut-cocoa-pod-seeds.json"'
    assert file.text == write_shot(pod)
    again = client.post("/api/shots/from-file", data=file.data)
    assert again.status_code == 201
    assert again.json["shot"] == kept["shot"]
    assert again.json["shot_id"] != kept["shot_id"]


def test_the_step_table_is_of_the_way_asked_else_the_one_decided_on(client, pod):
    kept = add(client, pod.model_copy(update={"chosen_way": "ring"}))
    at = f"/api/shots/{kept['shot_id']}/steps"
    ways = {way.id: way for way in plan_shot(pod).ways}
    assert len(client.get(at).text.splitlines()) == ways["ring"].frames + 1
    assert len(client.get(f"{at}?way=one").text.splitlines()) == 2
    assert client.get(at).mimetype == "text/csv"


def test_a_way_without_frames_has_no_table(client, pod, changed):
    kept = add(client, changed(pod, {"/aperture/f_number": 32.0}))
    refused(client.get(f"/api/shots/{kept['shot_id']}/steps?way=rail"), 422, "way.has_no_frames")


def test_two_windows_meet_a_conflict(client, pod):
    kept = add(client, pod)
    at = f"/api/shots/{kept['shot_id']}"
    first = {"base_revision": kept["revision"], "shot": body(pod) | {"name": "first"}}
    assert client.put(at, json=first).status_code == 200
    second = {"base_revision": kept["revision"], "shot": body(pod) | {"name": "second"}}
    refused(client.put(at, json=second), 409, "document.changed_elsewhere")
    assert client.get(at).json["shot"]["name"] == "first"


@pytest.mark.parametrize(
    ("pointer", "value", "sentence"),
    [
        ("/rig/0/gear/focal_length_mm", 0, "Focal length must be more than 0 mm; got 0 mm."),
        ("/rig/0/gear/focal_length_mm", 1e308, "Focal length must be at most 100,000 mm; got 1e+308 mm."),
        ("/aperture/f_number", 0, "Aperture must be 0.5 or more; got 0."),
        ("/subject/depth_mm", "deep", "Depth must be a number; got “deep”."),
        ("/subject/depth_mm", None, "Depth must be a number; got nothing."),
        ("/framing/magnification", 0, "Magnification must be more than 0; got 0."),
        ("/body/pixels_across", 12.5, "Pixels across must be a whole number; got 12.5."),
        ("/stack/overlap", 1.5, "Overlap must be at most 0.9; got 1.5."),
        ("/name", "", "Name needs at least one character."),
    ],
)
def test_a_value_that_cannot_be_is_told_at_its_field(client, pod, pointer, value, sentence):
    document = body(pod)
    *path, last = pointer.strip("/").split("/")
    place = document
    for part in path:
        place = place[int(part) if isinstance(place, list) else part]
    place[last] = value
    problem = refused(client.post("/api/plan", json=document), 422, "value.refused")
    assert (problem["field"], problem["detail"]) == (pointer, sentence)


@pytest.mark.parametrize("text", ["{", "", '{"name": NaN}', "\ufeff[]"])
def test_what_is_not_json_is_refused(client, text):
    answer = client.post("/api/plan", data=text.encode(), content_type="application/json")
    assert answer.status_code in (400, 422)
    assert answer.content_type == "application/problem+json"


def test_a_number_that_is_none_never_gets_in(client, pod):
    text = json.dumps(body(pod)).replace('"depth_mm": 34.0', '"depth_mm": NaN')
    assert "NaN" in text
    problem = client.post("/api/plan", data=text, content_type="application/json")
    assert problem.status_code in (400, 422)
    assert "34" not in problem.text


@pytest.mark.parametrize(
    ("method", "address", "status"),
    [("get", "/api/nowhere", 404), ("get", "/api/shots/0123456789ab", 404), ("put", "/api/alive", 405)],
)
def test_every_refusal_has_the_one_shape(client, method, address, status):
    answer = getattr(client, method)(address)
    assert answer.status_code == status
    assert answer.content_type == "application/problem+json"
    assert set(answer.json) == {"title", "status", "code", "detail", "remedy", "field", "problems"}
    if status == 405:
        assert "GET" in answer.headers["Allow"]


def test_a_full_disk_is_a_507_with_the_way_out(client, pod, monkeypatch):
    def full(*_):
        raise DiskError("The disk is full, so this change could not be saved.", "Free some space and try again.")

    monkeypatch.setattr("just_plane.store.shots.Shots.add", full)
    problem = refused(client.post("/api/shots", json=body(pod)), 507, "disk.refused")
    assert problem["remedy"] == "Free some space and try again."


def test_our_own_fault_keeps_its_details_to_the_log(client, pod, monkeypatch, caplog):
    def fail(*_):
        raise ZeroDivisionError("a secret path")

    monkeypatch.setattr("just_plane.web.blueprints.plans.plan_shot", fail)
    problem = refused(client.post("/api/plan", json=body(pod)), 500, "fault")
    assert "secret" not in json.dumps(problem)
    assert "a secret path" in caplog.text


def test_map_of_stops_wants_its_ends_in_order(client, pod):
    ok = client.post("/api/plan/through-focus", json={"shot": body(pod), "from_mm": -1, "to_mm": 5})
    assert ok.status_code == 200
    wrong = client.post("/api/plan/through-focus", json={"shot": body(pod), "from_mm": 5, "to_mm": -1})
    refused(wrong, 422, "to_mm.not_beyond")


def test_a_long_list_comes_in_pages_and_its_lines_are_made_once(client, store, pod, monkeypatch):
    for number in range(ON_A_PAGE + 5):
        store.shots.add(pod.model_copy(update={"name": f"shot {number}"}))
    first = client.get("/api/shots").json
    rest = client.get("/api/shots", query_string={"after": first["next"]}).json
    names = [line["name"] for line in [*first["shots"], *rest["shots"]]]
    assert names == [f"shot {number}" for number in reversed(range(ON_A_PAGE + 5))]
    assert (len(rest["shots"]), rest["next"]) == (5, "")
    monkeypatch.setattr(shot_lines, "line_of", None)  # nothing is worked out again
    assert client.get("/api/shots").json == first


def test_a_page_asked_for_in_nonsense_is_refused(client):
    assert refused(client.get("/api/shots?after=everything"), 422, "value.refused")["field"] == "/after"


def test_a_fault_of_ours_is_never_blamed_on_the_person(client, pod, monkeypatch):
    endless = plan_shot(pod).model_copy(update={"depth_mm": 1.0})

    def answers_with_infinity(shot, units):
        return type(endless).model_validate(endless.model_dump() | {"depth_mm": float("inf")})

    monkeypatch.setattr(plans, "plan_shot", answers_with_infinity)
    problem = refused(client.post("/api/plan", json=body(pod)), 500, "fault")
    assert problem["field"] == ""
    assert re.search(r"number [0-9a-f]{8}", problem["detail"])


# --- absurd bodies


def test_absurd_bodies_are_refused_in_words_and_are_no_fault_of_ours(client, pod):
    whole = pod.model_dump_json()
    absurd = {
        "an integer of 400 digits": whole.replace('"metered_iso":100.0', '"metered_iso":' + "9" * 400),
        "half a character": json.dumps(json.loads(whole) | {"name": "a\ud800b"}),
        "3,000 levels": '{"a":' * 3000 + "1" + "}" * 3000,
        "half a body": whole[: len(whole) // 2],
        "a list": "[1, 2]",
    }
    for what, body in absurd.items():
        answer = client.post("/api/shots", data=body, content_type="application/json")
        assert answer.status_code in (400, 422), what
        assert answer.get_json()["detail"], what


def test_a_body_that_says_it_is_something_else_is_not_guessed_at(client, pod):
    answer = client.post("/api/plan", data=pod.model_dump_json(), content_type="text/plain")
    assert answer.status_code == 415
    assert "text/plain" in answer.get_json()["detail"]


def test_shots_are_looked_for_under_a_heading_and_packed_as_one_list(client, pod):
    for name, heading, hold in (("pod", "Tuesday", 1200.0), ("melting", "Tuesday", 30.0), ("other", "Friday", None)):
        shot = pod.model_dump() | {"name": name, "heading": heading}
        shot["subject"] |= {"hold_still_s": hold}
        assert client.post("/api/shots", json=shot).status_code == 201
    found = client.get("/api/shots?heading=Tuesday&sort=hold").get_json()
    assert [line["name"] for line in found["shots"]] == ["melting", "pod"]
    assert found["headings"] == ["Friday", "Tuesday"]
    packed = client.get("/api/packing?heading=Tuesday").get_json()
    assert packed["shots"] == ["melting", "pod"]
    assert all(piece["shots"] == ["melting", "pod"] for piece in packed["pieces"])
    assert client.get("/api/shots?text=nothing").get_json()["shots"] == []
