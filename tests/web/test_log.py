"""The notebook over HTTP: entries made by themselves, that nothing later changes; notes, search, reminders, as then."""

import csv
import io
import json
import zipfile
from pathlib import Path

import jsonschema
import pytest

from just_plane.demo.catalogue import fill
from just_plane.store.folder import open_store
from just_plane.web.app import create_app

ROOT = Path(__file__).parents[2]


@pytest.fixture
def client(tmp_path):
    store = open_store(tmp_path)
    fill(store)
    return create_app(store).test_client()


def shot_of(client, name):
    shots = client.get("/api/shots?units=mm").get_json()["shots"]
    return next(one for one in shots if one["name"].startswith(name))["shot_id"]


def entries(client, **query):
    return client.get("/api/log", query_string=query).get_json()["entries"]


def run_through(client, shot):
    run = client.post(f"/api/shots/{shot}/runs", json={"way": "rail"}).get_json()
    for frame in range(len(run["plan"]["steps"])):
        event = {"kind": "skipped" if frame == 2 else "taken", "frame": frame}
        asked = {"number": frame, "press": f"press-{frame:06d}", "event": event}
        run = client.post(f"/api/runs/{run['run_id']}/events", json=asked).get_json()
    return run


def test_every_run_becomes_an_entry_by_itself_and_once(client):
    before = len(entries(client))
    run = run_through(client, shot_of(client, "Ganache"))
    entries(client)
    now = entries(client)
    assert len(now) == before + 1
    entry = now[0]
    assert entry["run_id"] == run["run_id"]
    assert (entry["done"]["frames_taken"], entry["done"]["left_out"], entry["done"]["state"]) == (5, 1, "finished")
    assert entry["set"]["f_number"] == run["plan"]["f_number"]
    assert entry["set"]["frames_planned"] == 6


def test_nothing_done_to_the_shot_or_the_kit_later_changes_an_entry(client):
    shot = shot_of(client, "Ganache")
    run_through(client, shot)
    before = entries(client)[0]
    kept = client.get(f"/api/shots/{shot}").get_json()
    changed = kept["shot"] | {"name": "Something else", "framing": {"by": "magnification", "magnification": 0.11}}
    assert (
        client.put(f"/api/shots/{shot}", json={"shot": changed, "base_revision": kept["revision"]}).status_code == 200
    )
    assert entries(client)[0] == before


def test_as_then_makes_a_new_shot_as_it_was(client):
    shot = shot_of(client, "Ganache")
    was = client.get(f"/api/shots/{shot}").get_json()
    run_through(client, shot)
    changed = was["shot"] | {"framing": {"by": "magnification", "magnification": 0.11}}
    client.put(f"/api/shots/{shot}", json={"shot": changed, "base_revision": was["revision"]})
    made = client.post(f"/api/log/{entries(client)[0]['entry_id']}/as-then")
    assert made.status_code == 201
    assert made.get_json()["shot_id"] != shot
    assert made.get_json()["shot"] == was["shot"] | {"name": f"{was['shot']['name']}, again"}


def write(client, entry, note, number=None):
    asked = {"note": note, "note_number": entry["note_number"] if number is None else number}
    return client.put(f"/api/log/{entry['entry_id']}/note", json=asked)


def test_a_note_is_kept_and_of_two_windows_the_later_is_told(client):
    run_through(client, shot_of(client, "Ganache"))
    entry = entries(client)[0]
    note = {"good": "good", "wrong": ["bump", "a fly"], "next_time": "Close the window."}
    assert write(client, entry, note).get_json()["note"] == note
    late = write(client, entry, {"next_time": "Open it."})
    assert late.status_code == 409
    assert entries(client)[0]["note"] == note
    assert "a fly" in client.get("/api/log").get_json()["words"]
    assert write(client, entry, {"good": "wonderful"}, 1).status_code == 422


@pytest.mark.parametrize(
    ("words", "names"),
    [
        ("tape spoon", {"Ganache drip on a spoon"}),
        ("flare", {"Foil wrapper, fine lettering"}),
        ("nothing of the kind", set()),
    ],
)
def test_words_find_entries(client, words, names):
    assert {entry["set"]["shot_name"] for entry in entries(client, words=words)} == names


def test_a_day_a_month_or_a_year_finds_entries(client):
    assert {entry["made_at"][:7] for entry in entries(client, day="2026-05")} == {"2026-05"}
    assert len(entries(client, day="2026")) == len(entries(client))
    assert client.get("/api/log?day=May").status_code == 422


def test_a_shot_that_is_like_an_entry_shows_its_line(client):
    shot = shot_of(client, "Cut cocoa")
    lines = client.get(f"/api/shots/{shot}/reminders").get_json()["reminders"]
    assert any("Blow off the pod" in one["line"] for one in lines)
    assert all("subject" in one["why"] for one in lines)
    body = client.get(f"/api/shots/{shot}").get_json()["shot"]
    other = body | {"name": "Stamp", "subject": body["subject"] | {"what": "postage"}, "rig": body["rig"]}
    other["framing"] = {"by": "magnification", "magnification": 0.05}
    made = client.post("/api/shots", json=other).get_json()["shot_id"]
    assert client.get(f"/api/shots/{made}/reminders").get_json()["reminders"] == []


def test_the_notebook_is_taken_away_as_a_table_that_no_spreadsheet_runs(client):
    run_through(client, shot_of(client, "Ganache"))
    entry = entries(client)[0]
    write(client, entry, {"next_time": "=HYPERLINK(1)"})
    rows = list(csv.DictReader(io.StringIO(client.get("/api/log/file?as=csv").text)))
    assert len(rows) == len(entries(client))
    assert rows[0]["next_time"] == "'=HYPERLINK(1)"
    assert client.get("/api/log/file?as=json").get_json()["entries"][0]["entry_id"] == entry["entry_id"]


def test_an_entry_is_taken_away_as_a_folder(client):
    shot = shot_of(client, "Ganache")
    run = run_through(client, shot)
    entry = entries(client)[0]
    answer = client.get(f"/api/log/{entry['entry_id']}/folder")
    assert answer.status_code == 200
    assert "Ganache" in answer.headers["Content-Disposition"]
    with zipfile.ZipFile(io.BytesIO(answer.data)) as folder:
        assert {"entry.json", "shot.json", "frames.csv"} <= set(folder.namelist())
        assert json.loads(folder.read("entry.json"))["run_id"] == run["run_id"]
        assert json.loads(folder.read("shot.json"))["name"] == entry["set"]["shot_name"]
        rows = list(csv.reader(io.StringIO(folder.read("frames.csv").decode())))
        assert len(rows) == 1 + len(run["plan"]["steps"])
    # A season that was made up has no run: what was written is there all the same.
    old = next(each for each in entries(client) if each["run_id"] is None or each["entry_id"] != entry["entry_id"])
    assert client.get(f"/api/log/{old['entry_id']}/folder").status_code == 200


def test_the_notebook_as_json_is_as_its_schema_says(client):
    schema = json.loads((ROOT / "docs" / "notebook.schema.json").read_text())
    jsonschema.validate(json.loads(client.get("/api/log/file?as=json").data), schema)


def test_what_the_gear_cost_is_counted_where_it_was_typed(client):
    shot = shot_of(client, "Ganache")
    kept = client.get(f"/api/shots/{shot}").get_json()
    body = kept["shot"] | {"body": kept["shot"]["body"] | {"cost": 1200.0}}
    body["rig"][0]["gear"]["cost"] = 350.5
    client.put(f"/api/shots/{shot}", json={"shot": body, "base_revision": kept["revision"]})
    run_through(client, shot)
    was = entries(client)[0]["set"]
    pieces = len(body["rig"]) + 1 + len(body["on_set"])
    assert (was["gear_cost"], was["gear_cost_unknown"]) == (1550.5, pieces - 2)


def test_an_entry_without_pictures_says_so(client):
    answer = client.get(f"/api/log/{entries(client)[0]['entry_id']}/picture")
    assert answer.status_code == 404
    assert "no picture" in answer.get_json()["detail"]
