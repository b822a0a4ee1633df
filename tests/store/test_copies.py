"""Copies of the data file, what happens to one that cannot be read, and records that are damaged."""

import os
import shutil
import sqlite3
import threading
from contextlib import closing

import pytest

from just_plane.cli import main
from just_plane.store.copies import FOLDER, copy_to, daily_copy, is_whole, latest_copy, restore, set_aside
from just_plane.store.errors import DamagedError, GoneError, MigrationError
from just_plane.store.folder import open_store
from just_plane.store.places import FILE
from just_plane.web.app import create_app


@pytest.fixture
def folder(tmp_path):
    return tmp_path / "data"


@pytest.fixture
def kept(folder, pod, tray):
    """A store with two shots, and their ids."""
    store = open_store(folder)
    return store, store.shots.add(pod).document_id, store.shots.add(tray).document_id


def damage(folder, document_id):
    with closing(sqlite3.connect(folder / FILE)) as connection:
        connection.execute(
            "UPDATE revision SET body_json = '{\"broken\": 1}' WHERE revision_id ="
            " (SELECT current_revision_id FROM document WHERE document_id = ?)",
            (document_id,),
        )
        connection.execute("DELETE FROM revision_line")
        connection.commit()


def test_a_copy_made_while_others_write_is_whole_and_holds_what_was_committed(folder, kept, pod):
    store, first, _ = kept
    stop = threading.Event()

    def write():
        revision, number = store.shots.get(first).revision, 0
        while not stop.is_set():
            number += 1
            revision = store.shots.save(first, pod.model_copy(update={"name": f"n{number}"}), revision).revision

    writer = threading.Thread(target=write)
    writer.start()
    try:
        for number in range(5):
            copy_to(folder / FILE, folder / f"copy-{number}.sqlite3")
    finally:
        stop.set()
        writer.join()
    for number in range(5):
        assert is_whole(folder / f"copy-{number}.sqlite3")


def test_backup_and_restore_from_the_shell(folder, kept, pod, tmp_path, capsys):
    store, first, second = kept
    away = tmp_path / "elsewhere" / "copy.sqlite3"
    assert main(["backup", str(away), "--data", str(folder)]) == 0
    store.shots.save(first, pod.model_copy(update={"name": "later"}), store.shots.get(first).revision)
    assert main(["restore", str(away), "--data", str(folder)]) == 0
    assert "what was there is just-plane.before-restore-" in capsys.readouterr().out
    again = open_store(folder)
    assert again.shots.get(first).body.name == pod.name
    assert again.shots.get(second)
    # What was there is not lost either.
    set_by = next(folder.glob("just-plane.before-restore-*.sqlite3"))
    shutil.copytree(folder, tmp_path / "old")
    for ending in ("", "-wal"):
        old = set_by.with_name(set_by.name + ending)
        if old.exists():
            shutil.copy(old, tmp_path / "old" / (FILE + ending))
    assert open_store(tmp_path / "old").shots.get(first).body.name == "later"


def test_what_is_no_copy_changes_nothing(folder, kept, tmp_path, capsys):
    _, first, _ = kept
    wrong = tmp_path / "holiday.jpg"
    wrong.write_bytes(b"\xff\xd8\xff" * 500)
    assert main(["restore", str(wrong), "--data", str(folder)]) == 1
    assert "no whole copy" in capsys.readouterr().err
    assert open_store(folder).shots.get(first)
    assert main(["backup", str(tmp_path / "x"), "--data", str(tmp_path / "nowhere")]) == 1


@pytest.mark.parametrize("content", [b"", b"not a database at all, by far" * 100])
def test_a_file_that_cannot_be_read_is_set_aside_and_the_copy_offered(folder, kept, content):
    daily_copy(folder / FILE)
    for ending in ("-wal", "-shm"):
        (folder / (FILE + ending)).unlink(missing_ok=True)
    (folder / FILE).write_bytes(content)
    with pytest.raises(MigrationError) as refused:
        open_store(folder)
    assert "was set aside as just-plane.unreadable-" in refused.value.message
    assert "The latest good copy is of 20" in refused.value.remedy
    assert next(folder.glob("just-plane.unreadable-*.sqlite3")).read_bytes() == content
    copy = latest_copy(folder / FILE)
    restore(folder / FILE, copy)
    assert open_store(folder).shots.count() == 2


def test_without_a_copy_that_is_said_and_the_next_start_is_empty(folder, kept):
    set_aside(folder / FILE)
    (folder / FILE).write_bytes(b"")
    with pytest.raises(MigrationError, match="There is no copy beside it"):
        open_store(folder)
    assert open_store(folder).shots.count() == 0


def test_one_copy_a_day_and_a_fortnight_of_them(folder, kept):
    assert daily_copy(folder / FILE) is not None
    assert daily_copy(folder / FILE) is None
    today = next((folder / FOLDER).glob("*.sqlite3"))
    for day in range(1, 21):
        shutil.copy(today, today.with_name(f"just-plane-2020-01-{day:02d}.sqlite3"))
    today.unlink()
    daily_copy(folder / FILE)
    assert len(list((folder / FOLDER).glob("*.sqlite3"))) == 14


def test_one_damaged_record_hides_no_other(folder, kept):
    store, first, second = kept
    damage(folder, first)
    client = create_app(store).test_client()
    listed = {line["shot_id"]: line for line in client.get("/api/shots").get_json()["shots"]}
    assert listed[first]["damaged"] is True
    assert listed[second]["damaged"] is False
    answer = client.get(f"/api/shots/{first}")
    assert (answer.status_code, answer.get_json()["code"]) == (422, "document.damaged")
    assert client.get(f"/api/shots/{second}").status_code == 200


def test_a_damaged_record_goes_back_to_the_version_before(folder, kept, pod):
    store, first, _ = kept
    revision = store.shots.save(
        first, pod.model_copy(update={"name": "second"}), store.shots.get(first).revision
    ).revision
    damage(folder, first)
    with pytest.raises(DamagedError):
        store.shots.get(first)
    assert store.shots.undo(first, revision).body.name == pod.name


def test_a_damaged_record_can_be_saved_over_and_put_away(folder, kept, pod):
    store, first, second = kept
    revision = store.shots.get(first).revision
    damage(folder, first)
    assert store.shots.save(first, pod, revision).body == pod
    damage(folder, second)
    store.shots.remove(second)
    assert [line.shot_id for line in store.shots.page("mm", "x", 10)] == [first]


def test_a_folder_that_goes_away_is_said_and_it_goes_on_when_it_is_back(folder, kept, tmp_path):
    store, first, _ = kept
    client = create_app(store).test_client()
    elsewhere = tmp_path / "unplugged"
    os.rename(folder, elsewhere)
    answer = client.get(f"/api/shots/{first}")
    assert (answer.status_code, answer.get_json()["code"]) == (503, "data.gone")
    assert "goes on by itself" in answer.get_json()["remedy"]
    with pytest.raises(GoneError):
        store.shots.count()
    assert not folder.exists()  # nothing was made anew in its place
    os.rename(elsewhere, folder)
    assert client.get(f"/api/shots/{first}").status_code == 200
