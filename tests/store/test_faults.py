"""A killed process, a full disk, a held lock: at most the change in flight is lost, and what is there stays whole."""

import os
import random
import signal
import sqlite3
import subprocess
import sys
import time

import pytest

from just_plane.store import connection as store_connection
from just_plane.store.errors import DiskError
from just_plane.store.folder import open_store
from just_plane.store.places import FILE

WRITER = """
import sys
from just_plane.demo.catalogue import demo_shots
from just_plane.store.folder import open_store

shots = open_store(sys.argv[1]).shots
shot = demo_shots()[0]
kept = shots.add(shot)
print(kept.document_id, flush=True)
for number in range(1_000_000):
    changed = shot.model_copy(update={"name": f"change {number}", "notes": "x" * 3000})
    kept = shots.save(kept.document_id, changed, kept.revision)
    print(number, flush=True)
"""


@pytest.mark.parametrize("seed", range(4))
def test_kill_9_in_mid_write_loses_at_most_the_change_in_flight(tmp_path, seed):
    writer = subprocess.Popen([sys.executable, "-c", WRITER, str(tmp_path)], stdout=subprocess.PIPE, text=True)
    shot_id = writer.stdout.readline().strip()
    for _ in range(5):
        writer.stdout.readline()
    time.sleep(random.Random(seed).uniform(0.005, 0.12))
    os.kill(writer.pid, signal.SIGKILL)
    confirmed = [line for line in writer.stdout.read().splitlines() if line.isdigit()]
    writer.wait()
    last = int(confirmed[-1]) if confirmed else 4

    shots = open_store(tmp_path).shots
    kept = shots.get(shot_id)
    # The change after the last confirmed one may have been kept before its confirmation was.
    assert kept.body.name in (f"change {last}", f"change {last + 1}")
    with sqlite3.connect(tmp_path / FILE) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        assert connection.execute("PRAGMA foreign_key_check").fetchall() == []
    after = shots.undo(shot_id, kept.revision)
    assert shots.redo(shot_id, after.revision).body == kept.body


def test_a_full_disk_is_said_and_what_was_there_is_whole(shots, pod, fill_disk, monkeypatch):
    kept = shots.add(pod)
    fill_disk()
    refusal = None
    for number in range(1000):
        big = pod.model_copy(update={"notes": "x" * 4000, "name": f"big {number}"})
        try:
            kept = shots.save(kept.document_id, big, kept.revision)
        except DiskError as error:
            refusal = error
            break
    assert "disk is full" in refusal.message
    assert refusal.remedy == "Free some space and try again."
    monkeypatch.undo()
    assert shots.get(kept.document_id) == kept


def test_a_photograph_that_finds_no_room_is_refused_and_the_others_stay(store, fill_disk, monkeypatch):
    first = store.photographs.add(b"first picture" * 100, 30, 20)
    fill_disk()
    with pytest.raises(DiskError, match="disk is full"):
        store.photographs.add(os.urandom(400_000), 30, 20)
    monkeypatch.undo()
    assert store.photographs.get(first) == b"first picture" * 100


def test_a_lock_that_is_not_let_go_is_said(shots, pod, monkeypatch):
    kept = shots.add(pod)
    monkeypatch.setattr(store_connection, "WAIT_S", 0.05)
    blocker = sqlite3.connect(shots.database.path, isolation_level=None)
    blocker.execute("BEGIN IMMEDIATE")
    with pytest.raises(DiskError, match="Another program is writing"):
        shots.save(kept.document_id, pod.model_copy(update={"name": "x"}), kept.revision)
    blocker.close()
    assert shots.get(kept.document_id) == kept


def test_a_misspelt_table_is_our_own_fault_and_not_the_disk_s(shots, pod):
    kept = shots.add(pod)
    with pytest.raises(sqlite3.OperationalError, match="no such table"), shots.database.write() as connection:
        connection.execute("INSERT INTO documnet_is_full VALUES (1)")
    assert shots.get(kept.document_id) == kept


def test_an_error_inside_a_write_keeps_nothing_of_it(shots, pod):
    shots.add(pod)

    def fail_in_the_middle():
        with shots.database.write() as connection:
            connection.execute("DELETE FROM document")
            raise RuntimeError("a fault in the middle")

    with pytest.raises(RuntimeError, match="in the middle"):
        fail_in_the_middle()
    assert shots.count() == 1
