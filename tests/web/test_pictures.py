"""Framing photographs over HTTP, and pictures of ways."""

import io

import numpy as np
import pytest
from PIL import Image

from just_plane.contract.shot_file import write_shot
from just_plane.store.errors import NotFoundError
from just_plane.store.folder import open_store
from just_plane.web.app import create_app


def photograph(kind="JPEG", size=(900, 600), mode="RGB"):
    content = io.BytesIO()
    Image.fromarray(np.random.default_rng(2).integers(0, 255, (size[1], size[0], 3), dtype=np.uint8)).convert(
        mode
    ).save(content, kind)
    return content.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "TIFF"])
def test_a_photograph_is_kept_and_comes_back(client, kind):
    kept = client.post("/api/photographs", data=photograph(kind)).json
    assert (kept["width_px"], kept["height_px"]) == (900, 600)
    back = client.get(f"/api/photographs/{kept['photograph']}")
    assert back.mimetype == "image/jpeg"
    assert Image.open(io.BytesIO(back.data)).size == (900, 600)


def with_photograph(client, tray, content):
    """A kept shot with a framing photograph, and the photograph's name."""
    named = client.post("/api/photographs", data=content).json["photograph"]
    plane = tray.plane.model_copy(update={"photograph": named})
    shot = tray.model_copy(update={"plane": plane})
    return client.post("/api/shots", data=shot.model_dump_json(), content_type="application/json").json, named


def test_a_photograph_travels_with_its_shot(client, tray, tmp_path):
    kept, named = with_photograph(client, tray, photograph())
    file = client.get(f"/api/shots/{kept['shot_id']}/file").data
    elsewhere = create_app(open_store(tmp_path / "elsewhere")).test_client()
    arrived = elsewhere.post("/api/shots/from-file", data=file).json
    assert arrived["shot"] == kept["shot"]
    there, here = (each.get(f"/api/photographs/{named}") for each in (elsewhere, client))
    assert there.status_code == 200
    assert there.data == here.data
    # And back again: the same file.
    assert elsewhere.get(f"/api/shots/{arrived['shot_id']}/file").data == file


def test_a_shot_whose_photograph_is_not_here_leaves_without(client, tray):
    plane = tray.plane.model_copy(update={"photograph": "0" * 32})
    shot = tray.model_copy(update={"plane": plane})
    kept = client.post("/api/shots", data=shot.model_dump_json(), content_type="application/json").json
    assert "photograph_jpeg" not in client.get(f"/api/shots/{kept['shot_id']}/file").json


def test_a_file_with_something_else_for_a_photograph_adds_no_shot(client, tray):
    file = write_shot(tray, b"GIF89a, or anything")
    answer = client.post("/api/shots/from-file", data=file.encode())
    assert answer.status_code == 422
    assert "no picture that the program can read" in answer.json["detail"]
    assert client.get("/api/shots").json["shots"] == []


def test_a_large_or_turned_photograph_in_a_file_is_made_like_any_other(client, tray):
    content = io.BytesIO()
    Image.linear_gradient("L").resize((3000, 2000)).convert("RGB").save(content, "PNG")
    file = write_shot(tray, content.getvalue())
    arrived = client.post("/api/shots/from-file", data=file.encode()).json
    named = arrived["shot"]["plane"]["photograph"]
    with Image.open(io.BytesIO(client.get(f"/api/photographs/{named}").data)) as image:
        assert (image.format, image.size) == ("JPEG", (2400, 1600))


def test_the_same_photograph_is_kept_once(client, store):
    first, second = (client.post("/api/photographs", data=photograph("PNG")).json["photograph"] for _ in range(2))
    assert first == second
    with store.photographs.database.read() as connection:
        assert connection.execute("SELECT count(*) FROM photograph").fetchone()[0] == 1


def test_a_large_one_is_made_smaller(client):
    kept = client.post("/api/photographs", data=photograph(size=(4800, 1200))).json
    assert (kept["width_px"], kept["height_px"]) == (2400, 600)


@pytest.mark.parametrize("content", [b"", b"not a picture", photograph()[:800], photograph(size=(40, 40))])
def test_what_is_no_photograph_is_refused_with_a_sentence(client, content):
    refused = client.post("/api/photographs", data=content)
    assert refused.status_code == 422
    assert refused.json["detail"].endswith(".")
    assert refused.json["remedy"].endswith(".")


def test_a_photograph_that_is_not_here_is_not_found(client, store):
    assert client.get(f"/api/photographs/{'0' * 32}").status_code == 404
    with pytest.raises(NotFoundError):
        store.photographs.get("0" * 32)


def test_a_way_has_its_picture(client, tray):
    body = {"shot": tray.model_dump(), "way": "tilt", "zoom": "double", "from_left": 0.1, "from_top": 0.7}
    made = client.post("/api/preview", json=body)
    assert made.status_code == 200
    assert Image.open(io.BytesIO(made.data)).size == (480, 320)


def test_a_way_that_cannot_be_has_none_and_says_why(client, pod):
    refused = client.post("/api/preview", json={"shot": pod.model_dump(), "way": "tilt"})
    assert refused.status_code == 422
    assert "not possible" in refused.json["detail"]
