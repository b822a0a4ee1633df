"""Frames brought through the page: kept byte for byte under their names, refused with a sentence, no half file left."""

import io

import pytest

from just_plane.store import brought
from just_plane.store.brought import NotBroughtError, bring
from just_plane.store.errors import DiskError
from just_plane.store.folder import open_store
from just_plane.web.app import create_app

BATCH = "0123456789abcdef" * 2


@pytest.fixture
def client(tmp_path):
    return create_app(open_store(tmp_path)).test_client()


def put(client, name, content, kind="application/octet-stream"):
    return client.put(f"/api/brought/{BATCH}/{name}", data=content, content_type=kind)


def test_frames_are_kept_byte_for_byte_in_one_folder(client, tmp_path):
    frames = {f"IMG_{k}.JPG": bytes([k]) * (3_000_000 + k) for k in range(3)}
    folders = {put(client, name, content).get_json()["folder"] for name, content in frames.items()}
    assert len(folders) == 1
    folder = tmp_path / "brought" / BATCH
    assert str(folder) in folders
    assert put(client, "again.jpg", b"x").get_json()["kept_days"] == brought.KEPT_DAYS == 30
    (folder / "again.jpg").unlink()
    assert {path.name: path.read_bytes() for path in folder.iterdir()} == frames


@pytest.mark.parametrize(
    ("name", "content", "said"),
    [
        ("notes.txt", b"words", "no picture"),
        ("empty.jpg", b"", "is empty"),
        (".hidden.jpg", b"x", "cannot be called"),
        ("a%3Ab.jpg", b"x", "cannot be called"),
    ],
)
def test_what_cannot_be_taken_is_refused_and_leaves_nothing(client, tmp_path, name, content, said):
    refused = put(client, name, content)
    assert refused.status_code == 422
    assert said in refused.get_json()["detail"]
    folder = tmp_path / "brought" / BATCH
    assert not folder.exists() or list(folder.iterdir()) == []


def test_a_path_is_no_name_and_a_batch_is_no_path(client, tmp_path):
    assert put(client, "..%2F..%2Fshots.jpg", b"x").status_code in (404, 405, 422)
    for batch in ("..", "short"):
        answer = client.put(f"/api/brought/{batch}/x.jpg", data=b"x", content_type="application/octet-stream")
        assert answer.status_code == 422
        assert "x.jpg" not in [path.name for path in tmp_path.rglob("*")]


def test_a_full_disk_is_said_and_leaves_no_half_file(tmp_path, monkeypatch):
    monkeypatch.setattr(brought, "_free", lambda folder: 0)
    with pytest.raises(DiskError, match="disk is full"):
        bring(tmp_path, BATCH, "large.tif", io.BytesIO(bytes(80 << 20)))
    assert list((tmp_path / "brought" / BATCH).iterdir()) == []


def test_a_line_that_breaks_leaves_no_half_file(tmp_path):
    class Broken:
        def __init__(self):
            self.reads = 0

        def read(self, size):
            self.reads += 1
            if self.reads > 2:
                raise OSError("gone")
            return b"x" * size

    with pytest.raises(DiskError):
        bring(tmp_path, BATCH, "half.jpg", Broken())
    assert list((tmp_path / "brought" / BATCH).iterdir()) == []
    with pytest.raises(NotBroughtError):
        bring(tmp_path, BATCH, "a/b.jpg", io.BytesIO(b"x"))
