"""The kit is kept as safely as a shot: one of it, with its history, whatever happens in between."""

import os
import signal
import sqlite3
import subprocess
import sys
import textwrap
import threading
import time

import pytest

from just_plane.contract.kit import KitPiece, empty_kit
from just_plane.shelf.starter import starter_shelf
from just_plane.store.errors import ConflictError, DiskError, NotFoundError
from just_plane.store.folder import open_store
from just_plane.store.kits import KIT_ID

SHELF = starter_shelf()


def with_pieces(count):
    return empty_kit().model_copy(update={"pieces": SHELF.pieces[:count]})


def test_a_folder_has_one_kit_and_only_one(store):
    first = store.kit.now()
    assert first.body == empty_kit()
    assert store.kit.now() == first
    assert store.kit.count() == 1
    with pytest.raises(sqlite3.IntegrityError):
        store.kit.add(empty_kit())


def test_many_windows_asking_first_get_the_same_kit(store):
    answers, threads = [], []
    for _ in range(8):
        threads.append(threading.Thread(target=lambda: answers.append(store.kit.now().document_id)))
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert answers == [KIT_ID] * 8


def test_the_kit_and_the_shots_do_not_see_each_other(store, pod):
    shot = store.shots.add(pod)
    store.kit.now()
    assert [kept.document_id for kept in store.shots.list()] == [shot.document_id]
    with pytest.raises(NotFoundError, match="no such shot"):
        store.shots.get(KIT_ID)
    with pytest.raises(NotFoundError, match="no such kit"):
        store.kit.get(shot.document_id)


def test_every_change_is_a_step_back(store, tmp_path):
    kept = store.kit.now()
    for count in (1, 2, 3):
        kept = store.kit.save(KIT_ID, with_pieces(count), kept.revision)
    kept = store.kit.undo(KIT_ID, kept.revision)
    again = open_store(tmp_path / "data")
    kept = again.kit.undo(KIT_ID, kept.revision)
    assert len(kept.body.pieces) == 1
    kept = again.kit.redo(KIT_ID, kept.revision)
    assert len(kept.body.pieces) == 2


def test_a_kit_changed_elsewhere_is_not_overwritten(store):
    base = store.kit.now().revision
    store.kit.save(KIT_ID, with_pieces(1), base)
    with pytest.raises(ConflictError, match="This kit was changed in another window"):
        store.kit.save(KIT_ID, with_pieces(2), base)
    assert len(store.kit.now().body.pieces) == 1


def test_a_full_disk_keeps_the_kit_as_it_was(store, fill_disk, monkeypatch):
    kept = store.kit.save(KIT_ID, with_pieces(5), store.kit.now().revision)
    fill_disk()
    many = empty_kit().model_copy(
        update={
            "pieces": [
                KitPiece(gear=SHELF.pieces[0].gear.model_copy(update={"kit_id": f"body-{number}"}))
                for number in range(300)
            ]
        }
    )
    refusal = None
    for number in range(100):
        try:
            kept = store.kit.save(KIT_ID, many if number % 2 == 0 else with_pieces(5), kept.revision)
        except DiskError as error:
            refusal = error
            break
    assert "disk is full" in refusal.message
    monkeypatch.undo()
    assert store.kit.now() == kept


WRITER = """
    import sys
    from just_plane.contract.kit import empty_kit
    from just_plane.shelf.starter import starter_shelf
    from just_plane.store.folder import open_store
    from just_plane.store.kits import KIT_ID

    kit = open_store(sys.argv[1]).kit
    pieces, kept = starter_shelf().pieces, kit.now()
    while True:
        for count in range(len(pieces)):
            kept = kit.save(KIT_ID, empty_kit().model_copy(update={"pieces": pieces[:count]}), kept.revision)
            print(kept.revision, count, flush=True)
"""


def test_a_killed_program_leaves_the_last_kit_it_said_it_had_kept(tmp_path):
    process = subprocess.Popen(
        [sys.executable, "-c", textwrap.dedent(WRITER), str(tmp_path)],
        stdout=subprocess.PIPE,
        text=True,
        env=os.environ | {"PYTHONPATH": os.pathsep.join(sys.path)},
    )
    said = [process.stdout.readline() for _ in range(12)]
    time.sleep(0.03)
    process.send_signal(signal.SIGKILL)
    said += process.stdout.read().splitlines(keepends=True)
    process.wait()
    revision, count = map(int, [line for line in said if line.endswith("\n")][-1].split())
    kept = open_store(tmp_path).kit.now()
    assert kept.revision - revision in (0, 1)  # at most the one that was kept and not said any more
    assert len(kept.body.pieces) == count + kept.revision - revision
