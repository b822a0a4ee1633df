import shutil
import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest

from just_plane.store.connection import Database
from just_plane.store.errors import DiskError, MigrationError
from just_plane.store.folder import open_store
from just_plane.store.migrate import MIGRATIONS, migrate, migrations_in
from just_plane.store.places import FILE

DATA = Path(__file__).parents[1] / "data"
NEXT = len(migrations_in(MIGRATIONS)) + 1


@pytest.fixture
def scripts(tmp_path):
    """A folder with the program's migrations, to add to and spoil."""
    return shutil.copytree(MIGRATIONS, tmp_path / "scripts")


def tables(path):
    with sqlite3.connect(path) as connection:
        return {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}


def test_an_empty_file_is_brought_to_the_latest_and_left_alone_after(tmp_path):
    path = tmp_path / "new.sqlite3"
    assert migrate(path) == len(migrations_in(MIGRATIONS))
    assert migrate(path) == 0
    assert {"document", "revision", "schema_migration"} <= tables(path)
    assert not list(tmp_path.glob("*.before-*"))


def test_a_step_from_the_one_before_keeps_the_rows_and_leaves_a_copy(tmp_path, scripts, pod):
    kept = open_store(tmp_path).shots.add(pod)
    (scripts / f"{NEXT:04d}_more.sql").write_text("CREATE TABLE more (x INTEGER) STRICT;")
    assert migrate(tmp_path / FILE, scripts) == 1
    assert "more" in tables(tmp_path / FILE)
    with Database(tmp_path / FILE).read() as connection:
        assert connection.execute("SELECT document_id FROM document").fetchone()[0] == kept.document_id
    copy = tmp_path / f"{FILE}.before-{NEXT:04d}"
    assert "more" not in tables(copy)
    with sqlite3.connect(copy) as connection:
        assert connection.execute("SELECT count(*) FROM revision").fetchone() == (1,)


def test_a_broken_script_leaves_nothing_behind(tmp_path, scripts, pod):
    open_store(tmp_path).shots.add(pod)
    (scripts / f"{NEXT:04d}_broken.sql").write_text(
        "CREATE TABLE half (x INTEGER) STRICT;\nINSERT INTO nowhere VALUES (1);"
    )
    with pytest.raises(MigrationError, match=f"{NEXT:04d} failed and was rolled back"):
        migrate(tmp_path / FILE, scripts)
    assert "half" not in tables(tmp_path / FILE)
    assert open_store(tmp_path).shots.count() == 1


STARTER = """
import sys
from pathlib import Path
from just_plane.store.migrate import migrate

sys.stdin.readline()
print(migrate(Path(sys.argv[1])))
"""


@pytest.mark.parametrize("there_already", [False, True])
def test_of_several_starters_one_does_the_work_and_the_others_find_it_done(tmp_path, there_already):
    path = tmp_path / "shared.sqlite3"
    if there_already:
        scripts = shutil.copytree(MIGRATIONS, tmp_path / "older")
        for later in sorted(scripts.glob("[0-9]*"))[1:]:
            later.unlink()
        migrate(path, scripts)
    starters = [
        subprocess.Popen(
            [sys.executable, "-c", STARTER, str(path)], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
        )
        for _ in range(4)
    ]
    answers = [starter.communicate("go\n", timeout=120)[0].strip() for starter in starters]
    assert [starter.returncode for starter in starters] == [0] * 4
    assert sorted(map(int, answers)) == [0, 0, 0, NEXT - 1 - there_already]
    with sqlite3.connect(path) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone() == ("ok",)


def test_a_script_that_leaves_a_row_pointing_at_nothing_is_rolled_back(tmp_path, scripts, pod):
    open_store(tmp_path).shots.add(pod)
    (scripts / f"{NEXT:04d}_loose.sql").write_text("DELETE FROM revision;")
    with pytest.raises(MigrationError, match="points at nothing"):
        migrate(tmp_path / FILE, scripts)
    assert len(open_store(tmp_path).shots.list()) == 1


def test_a_new_kind_of_document_is_one_more_row(shots, pod):
    with shots.database.write() as connection:
        connection.execute("INSERT INTO document_kind VALUES ('run')")
        connection.execute("INSERT INTO document (document_id, kind, created_at) VALUES ('0123456789ab', 'run', '')")
    with pytest.raises(sqlite3.IntegrityError), shots.database.write() as connection:
        connection.execute("INSERT INTO document (document_id, kind, created_at) VALUES ('0123456789ac', 'no', '')")


def test_a_changed_script_is_refused(tmp_path, scripts):
    migrate(tmp_path / "x.sqlite3", scripts)
    path = next(scripts.glob("0001*"))
    path.write_text(path.read_text() + "\n-- touched")
    with pytest.raises(MigrationError, match="0001 is not the one"):
        migrate(tmp_path / "x.sqlite3", scripts)


def test_data_of_a_newer_program_is_refused(tmp_path, scripts):
    (scripts / f"{NEXT:04d}_more.sql").write_text("CREATE TABLE more (x INTEGER) STRICT;")
    migrate(tmp_path / "x.sqlite3", scripts)
    with pytest.raises(MigrationError, match=f"version {NEXT}; this program knows up to {NEXT - 1}"):
        migrate(tmp_path / "x.sqlite3")


def test_numbers_with_a_gap_are_refused(scripts):
    (scripts / f"{NEXT + 1:04d}_gap.sql").write_text("SELECT 1;")
    with pytest.raises(MigrationError, match="not numbered"):
        migrations_in(scripts)


def test_a_file_that_is_no_database_is_refused_and_set_aside_untouched(tmp_path):
    path = tmp_path / FILE
    path.write_bytes(b"a holiday photograph, perhaps" * 200)
    before = path.read_bytes()
    with pytest.raises(MigrationError, match="cannot be read; it was set aside as"):
        open_store(tmp_path)
    assert next(tmp_path.glob("*.unreadable-*")).read_bytes() == before


def test_a_folder_that_cannot_be_made_is_said(tmp_path):
    (tmp_path / "file").write_text("in the way")
    with pytest.raises(DiskError, match="cannot be made"):
        open_store(tmp_path / "file" / "data")


def test_a_reading_connection_cannot_write(shots):
    with shots.database.read() as connection, pytest.raises(sqlite3.OperationalError, match="readonly"):
        connection.execute("DELETE FROM document")


def test_values_the_tables_refuse_stay_out(shots, pod):
    kept = shots.add(pod)
    with pytest.raises(sqlite3.IntegrityError), shots.database.write() as connection:
        connection.execute("UPDATE revision SET body_json = 'not json'")
    assert shots.get(kept.document_id) == kept


def test_shots_of_the_first_version_come_through_every_step(tmp_path, scripts):
    """A database as version 1 left it, with a shot of version 1 changed once: both forms are there after."""
    for later in sorted(scripts.glob("[0-9]*"))[1:]:
        later.unlink()
    migrate(tmp_path / FILE, scripts)
    first = (DATA / "shot-version-1.json").read_text()
    second = first.replace("Cut cocoa pod", "Changed pod")
    with sqlite3.connect(tmp_path / FILE) as connection:
        connection.execute("INSERT INTO shot VALUES ('0123456789ab', '2026-01-01', NULL, NULL)")
        for number, text in enumerate((first, second), start=1):
            values = (number, "0123456789ab", None if number == 1 else 1, None, f"2026-01-0{number}", text)
            connection.execute("INSERT INTO shot_revision VALUES (?, ?, ?, ?, ?, ?)", values)
        connection.execute("UPDATE shot SET current_revision_id = 2")
    shots = open_store(tmp_path).shots
    kept = shots.get("0123456789ab")
    assert (kept.body.version, kept.body.name) == (2, "Changed pod, seeds")
    assert [placed.gear.kind for placed in kept.body.rig] == ["lens", "tube", "tube"]
    assert [placed.gear.length_mm for placed in kept.body.rig[1:]] == [20.0, 12.0]  # version 1 counted from the body
    undone = shots.undo(kept.document_id, kept.revision)
    assert undone.body.name == "Cut cocoa pod, seeds"
