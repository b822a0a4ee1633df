"""Framing photographs over HTTP, and pictures of ways."""

import io

import numpy as np
import pytest
from PIL import Image

from just_plane.store.errors import NotFoundError


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
