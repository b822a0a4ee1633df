"""The kit over HTTP: kept with its history, brought in and taken away, searched; the ruler."""

import io
import json

import pytest
from PIL import Image

from just_plane.contract.kit_file import write_kit
from just_plane.contract.kit_table import write_table
from just_plane.core.frames.ruler_picture import ruler_picture
from just_plane.demo.catalogue import fill
from just_plane.pictures.writing import jpeg
from just_plane.shelf.starter import starter_shelf
from just_plane.store.folder import open_store
from just_plane.web.app import create_app

SHELF = starter_shelf()


def body(model):
    return json.loads(model.model_dump_json())


def refused(answer, status, code):
    assert answer.status_code == status
    assert answer.content_type == "application/problem+json"
    assert answer.json["code"] == code
    return answer.json


@pytest.fixture
def demo(store):
    fill(store)
    return create_app(store, demo=True).test_client()


def save(client, kit, base):
    return client.put("/api/kit", json={"base_revision": base, "kit": kit})


def test_a_new_folder_has_an_empty_kit_that_can_be_filled_and_undone(client):
    empty = client.get("/api/kit").json
    assert (empty["kit"]["pieces"], empty["can_undo"]) == ([], False)
    saved = save(client, body(SHELF), empty["revision"]).json
    assert len(saved["kit"]["pieces"]) == len(SHELF.pieces)
    undone = client.post("/api/kit/undo", json={"base_revision": saved["revision"]}).json
    assert undone["kit"]["pieces"] == []
    redone = client.post("/api/kit/redo", json={"base_revision": undone["revision"]}).json
    assert redone == client.get("/api/kit").json


def test_two_windows_on_the_kit_meet_a_conflict(client):
    base = client.get("/api/kit").json["revision"]
    assert save(client, body(SHELF), base).status_code == 200
    refused(save(client, body(SHELF) | {"pieces": []}, base), 409, "document.changed_elsewhere")


def test_the_kit_outlives_a_restart(store, client):
    save(client, body(SHELF), client.get("/api/kit").json["revision"])
    again = open_store(store.shots.database.path.parent)
    assert again.kit.now().body == SHELF


def test_a_bad_number_is_told_at_its_place_in_the_kit(client):
    kit = body(SHELF)
    kit["pieces"][5]["gear"]["focal_length_mm"] = -5
    problem = refused(save(client, kit, client.get("/api/kit").json["revision"]), 422, "value.refused")
    assert problem["field"] == "/kit/pieces/5/gear/focal_length_mm"


def test_what_cannot_work_is_kept_and_said(client):
    kit = body(SHELF)
    zoom = next(piece["gear"] for piece in kit["pieces"] if piece["gear"]["kind"] == "zoom")
    zoom["short"], zoom["long"] = zoom["long"], zoom["short"]
    saved = save(client, kit, client.get("/api/kit").json["revision"]).json
    assert any(finding["code"] == "long.not_longer" for finding in saved["findings"])


@pytest.mark.parametrize("write", [write_kit, write_table])
def test_a_kit_is_brought_in_from_either_file(client, write):
    base = client.get("/api/kit").json["revision"]
    brought = client.post(f"/api/kit/from-file?base_revision={base}", data=write(SHELF).encode())
    assert brought.json["kit"]["pieces"] == body(SHELF)["pieces"]
    again = client.post(f"/api/kit/from-file?base_revision={brought.json['revision']}", data=write(SHELF).encode()).json
    assert len(again["kit"]["pieces"]) == len(SHELF.pieces)  # the same ids, each once


def test_adding_keeps_the_others_and_replacing_does_not(client):
    base = save(client, body(SHELF), client.get("/api/kit").json["revision"]).json["revision"]
    table = "kind,kit_id,name,length_mm\ntube,mine,my tube,8\n"
    added = client.post(f"/api/kit/from-file?base_revision={base}&mode=add", data=table).json
    assert len(added["kit"]["pieces"]) == len(SHELF.pieces) + 1
    replaced = client.post(f"/api/kit/from-file?base_revision={added['revision']}&mode=replace", data=table).json
    assert [piece["gear"]["name"] for piece in replaced["kit"]["pieces"]] == ["my tube"]


@pytest.mark.parametrize("content", [b"{", b"\x00\x01\x02", b"kind\nanvil", b""])
def test_a_file_that_is_no_kit_changes_nothing(client, content):
    base = client.get("/api/kit").json
    problem = refused(
        client.post(f"/api/kit/from-file?base_revision={base['revision']}", data=content), 422, "file.refused"
    )
    assert problem["detail"]
    assert client.get("/api/kit").json == base


def test_files_leave_under_their_names(demo):
    assert demo.get("/api/kit/file").headers["Content-Disposition"] == 'attachment; filename="kit.json"'
    table = demo.get("/api/kit/table")
    assert table.mimetype == "text/csv"
    assert table.text.count("\r\n") == len(SHELF.pieces) + 1


def test_pieces_in_shots_are_told_and_a_shot_outlives_its_piece(demo):
    uses = {use["kit_id"]: use["shots"] for use in demo.get("/api/kit/uses").json["uses"]}
    assert uses["objective-10"] == ["Sugar bloom on a bar, 10×"]
    assert len(uses["body-36-45"]) == 5
    assert "Ganache drip on a spoon" in uses["rail-hand"]
    shots = demo.get("/api/shots").json
    kept = demo.get("/api/kit").json
    assert save(demo, kept["kit"] | {"pieces": []}, kept["revision"]).status_code == 200
    assert demo.get("/api/shots").json == shots


def test_the_kit_is_searched(demo):
    asked = {"body": body(SHELF.pieces[0].gear), "frame_width_mm": 32, "room_mm": 60}
    answer = demo.post("/api/search?units=in", json=asked).json
    assert answer["results"][0]["fits"]
    assert " in " in answer["headline"]
    refused(demo.post("/api/search", json=asked | {"frame_width_mm": 0}), 422, "value.refused")


# --- the ruler


def test_generic_gear_is_searched_as_long_as_the_kit_holds_no_lens(client):
    asked = {"body": body(SHELF)["pieces"][0]["gear"], "frame_width_mm": 40.0}
    found = client.post("/api/search", json=asked).json
    assert found["generic"]
    assert found["results"]
    only = next(piece for piece in body(SHELF)["pieces"] if piece["gear"]["kit_id"] == "macro-60")
    save(client, {"format": "just-plane/kit", "version": 1, "pieces": [only]}, client.get("/api/kit").json["revision"])
    found = client.post("/api/search", json=asked).json
    assert not found["generic"]
    assert {placed["gear"]["kit_id"] for row in found["results"] for placed in row["rig"]} == {"macro-60"}


def test_a_photograph_of_a_ruler_is_measured(demo, pod):
    picture = jpeg(ruler_picture(900, 600, 25.0, angle=0.1), focal_length_mm=100.0)
    found = demo.post("/api/ruler/find", data=picture).json
    assert found["spacing_px"] == pytest.approx(25.0, rel=1e-3)
    assert len(found["marks_px"]) == found["ticks"] > 20
    assert found["picture"]["focal_length_mm"] == 100
    asked = {
        "shot": body(pod),
        "picture_width_px": 900,
        "picture_height_px": 600,
        "span_px": found["spacing_px"],
        "span_uncertainty_px": found["uncertainty_px"],
        "real_mm": 2,
    }
    size = demo.post("/api/ruler/size", json=asked).json
    assert size["measured"]["magnification"] == pytest.approx(25 * 36 / 900 / 2, rel=1e-3)
    far = asked | {"shot": asked["shot"] | {"rig": []}}
    assert refused(demo.post("/api/ruler/size", json=far), 422, "rig.no_lens")["field"] == "/shot/rig"


@pytest.mark.parametrize("content", [b"", b"no picture", jpeg(ruler_picture(600, 400, 20.0))[:900]])
def test_what_is_no_picture_is_refused(client, content):
    refused(client.post("/api/ruler/find", data=content), 422, "picture.refused")


def test_a_picture_without_a_ruler_comes_back_with_the_reason(client):
    content = io.BytesIO()
    Image.new("L", (300, 300), 128).save(content, "PNG")
    answer = client.post("/api/ruler/find", data=content.getvalue())
    assert answer.status_code == 200
    assert answer.json["findings"][0]["code"] == "frame.no_ruler"


def test_a_photograph_may_be_larger_than_a_shot(client):
    refused(client.post("/api/ruler/find", data=b"\xff\xd8" + b"\0" * 7_000_000), 422, "picture.refused")
    refused(client.post("/api/shots/from-file", data=b" " * 7_000_000), 413, "http.413")


def test_two_tubes_over_http(client):
    asked = {"first": {"extension_mm": 0, "magnification": 0.5}, "second": {"extension_mm": 20, "magnification": 0.75}}
    assert client.post("/api/ruler/two-tubes", json=asked).json["focal_length_mm"] == pytest.approx(80)
    asked["second"]["extension_mm"] = 0
    problem = refused(client.post("/api/ruler/two-tubes", json=asked), 422, "second_extension.same")
    assert problem["field"] == "/second/extension_mm"


def test_made_up_rulers_are_for_the_demo_alone(client, demo, pod):
    frame = demo.post("/api/ruler/practice", json=body(pod))
    assert frame.content_type == "image/jpeg"
    assert float(frame.headers["X-Tick-Millimetres"]) == 1
    assert demo.post("/api/ruler/find", data=frame.data).json["spacing_px"] is not None
    refused(client.post("/api/ruler/practice", json=body(pod)), 404, "practice.not_here")
